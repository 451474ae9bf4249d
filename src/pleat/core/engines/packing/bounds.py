"""Costs below which no plan can be: every plan has to hold certain inequalities between the numbers of sheets
it takes, and the cheapest numbers that hold them are a bound.

Each inequality says ``sum of capacity x sheets >= need``. Area is one; pieces of one demand against the most
that one sheet can give of it are others.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Final

from pleat.core.engines.packing.problem import PieceDemand, Problem, SheetSource

STEPS: Final = 20_000
"""Numbers of sheets tried at most; then the bound is what is known so far."""


@dataclass(frozen=True)
class Inequality:
    """``sum(capacity[s] * sheets[s]) >= need`` for every plan."""

    capacities: tuple[float, ...]
    need: float


def inequalities(problem: Problem, counts: Sequence[int]) -> list[Inequality]:
    """What every plan holds that places ``counts`` of the demands, on sheets; rolls go by length."""
    demands, sources = problem.demands, problem.sources
    area = sum(
        (demand.width + problem.kerf) * (demand.height + problem.kerf) * count
        for demand, count in zip(demands, counts, strict=True)
    )
    found = [Inequality(tuple(float(_room(source, problem.kerf)) for source in sources), float(area))]
    for demand, count in zip(demands, counts, strict=True):
        if count:
            most = tuple(float(most_of(demand, source, problem.kerf)) for source in sources)
            found.append(Inequality(most, float(count)))
    return found


def fewest_sheets(
    demands: Sequence[PieceDemand], counts: Sequence[int], source: SheetSource, kerf: int
) -> int:
    """No plan takes fewer sheets of one source for ``counts`` of the demands.

    Sides are weighed so that those beside each other within a sheet never come to more than 1 (dual feasible
    functions); then no sheet holds pieces whose weights multiply to more than 1. Fekete and Schepers, "New
    classes of fast lower bounds for bin packing problems", 2001, from memory.
    """
    _, _, wide, high = source.usable
    pieces = [
        (demand.width + kerf, demand.height + kerf, demand.may_turn, count)
        for demand, count in zip(demands, counts, strict=True)
        if count
    ]
    across = _weighings(
        wide + kerf, {side for piece in pieces for side in (piece[:2] if piece[2] else piece[:1])}
    )
    down = _weighings(
        high + kerf, {side for piece in pieces for side in (piece[:2] if piece[2] else piece[1:2])}
    )
    most = 0.0
    for weigh_across in across:
        for weigh_down in down:
            total = 0.0
            for width, height, may_turn, count in pieces:
                weight = weigh_across.get(width, 1.0) * weigh_down.get(height, 1.0)
                if may_turn:
                    weight = min(weight, weigh_across.get(height, 1.0) * weigh_down.get(width, 1.0))
                total += weight * count
            most = max(most, total)
    return ceil(most - 1e-6)


def _weighings(whole: int, sides: Collection[int]) -> list[dict[int, float]]:
    """Every weighing of the sides that are there; a side longer than the whole cannot lie so at all."""
    own = sorted(side for side in sides if side <= whole)
    found = [{side: side / whole for side in own}]
    for parts in range(2, 7):
        found.append(
            {
                side: side / whole if side * parts % whole == 0 else side * parts // whole / (parts - 1)
                for side in own
            }
        )
    for small in own:
        if 2 * small <= whole:
            found.append({side: _rounded(side, small, whole) for side in own})
    return found


def _rounded(side: int, small: int, whole: int) -> float:
    """Sides below a small one count nothing, those that leave less than it count as the whole."""
    if side > whole - small:
        return 1.0
    return 0.0 if side < small else side / whole


def _room(source: SheetSource, kerf: int) -> int:
    _, _, wide, high = source.usable
    lost = 0 if kerf else sum(box[2] * box[3] for box in source.blocked)
    return (wide + kerf) * (high + kerf) - lost


def most_of(demand: PieceDemand, source: SheetSource, kerf: int) -> int:
    """No sheet gives more pieces of one demand: whole rows and columns for a piece that lies one way round,
    its area for one that may be turned."""
    _, _, wide, high = source.usable
    wide, high = wide + kerf, high + kerf
    piece_wide, piece_high = demand.width + kerf, demand.height + kerf
    upright = (wide // piece_wide) * (high // piece_high)
    if not demand.may_turn or piece_wide == piece_high:
        return upright
    turned = (wide // piece_high) * (high // piece_wide)
    if not upright and not turned:
        return 0
    return max(upright, turned, wide * high // (piece_wide * piece_high))


def least_cost(problem: Problem, counts: Sequence[int]) -> float:
    """A cost below which no plan is that places ``counts``; 0 where nothing can be said."""
    if not any(counts):
        return 0.0
    if any(source.roll for source in problem.sources):
        return _least_length_cost(problem, counts)
    cost, _ = cheapest_numbers(problem, inequalities(problem, counts))
    if len(problem.sources) == 1:
        source = problem.sources[0]
        cost = max(cost, source.price * fewest_sheets(problem.demands, counts, source, problem.kerf))
    return cost


def cheapest_numbers(problem: Problem, held: Sequence[Inequality]) -> tuple[float, tuple[int, ...] | None]:
    """(cost, numbers of sheets) of the cheapest that hold all inequalities; without numbers where there are
    too many to try, with a cost below which none is."""
    order = sorted(
        range(len(problem.sources)),
        key=lambda one: problem.sources[one].price / max(held[0].capacities[one], 1.0),
    )
    search = _CheapestNumbers(problem, held, order)
    return search.run(), search.numbers


def _least_length_cost(problem: Problem, counts: Sequence[int]) -> float:
    """For a roll: the area over its width, and the height of every piece that lies as low as it can. With
    sheets beside the roll nothing is said."""
    if len(problem.sources) > 1:
        return 0.0
    (source,) = problem.sources
    _, _, wide, _ = source.usable
    kerf = problem.kerf
    length = 0.0
    area = 0
    for demand, count in zip(problem.demands, counts, strict=True):
        if not count:
            continue
        area += (demand.width + kerf) * (demand.height + kerf) * count
        lies = [(demand.width, demand.height)]
        if demand.may_turn:
            lies.append((demand.height, demand.width))
        fitting = [high for across, high in lies if across <= wide]
        if fitting:
            length = max(length, float(min(fitting)))
        if not demand.may_turn and demand.width <= wide:
            length = max(
                length, ceil(count / ((wide + kerf) // (demand.width + kerf))) * float(demand.height)
            )
    length = max(length, area / (wide + kerf) - kerf)
    return source.price * length / source.height


class _CheapestNumbers:
    """The cheapest numbers of sheets that hold all inequalities: depth first, from the cheapest area on."""

    def __init__(self, problem: Problem, held: Sequence[Inequality], order: Sequence[int]) -> None:
        self.problem, self.held, self.order = problem, held, order
        self.best = float("inf")
        self.numbers: tuple[int, ...] | None = None
        self.steps = 0
        rates = []
        for place in range(len(order) + 1):
            rest = order[place:]
            rates.append(
                [
                    min(
                        (
                            problem.sources[one].price / row.capacities[one]
                            for one in rest
                            if row.capacities[one]
                        ),
                        default=float("inf"),
                    )
                    for row in held
                ]
            )
        self.rates = rates

    def run(self) -> float:
        """The bound; what relaxing the numbers gives where there are too many to try."""
        relaxed = self._relaxed(0, [row.need for row in self.held])
        self._go(0, 0.0, [row.need for row in self.held], ())
        if self.steps >= STEPS:
            self.numbers = None
            return relaxed
        return self.best if self.best < float("inf") else relaxed

    def _relaxed(self, place: int, needs: Sequence[float]) -> float:
        return max(
            (need * rate for need, rate in zip(needs, self.rates[place], strict=True) if need > 0),
            default=0.0,
        )

    def _go(self, place: int, cost: float, needs: list[float], taken: tuple[int, ...]) -> None:
        self.steps += 1
        if self.steps >= STEPS:
            return
        if all(need <= 1e-9 for need in needs):
            if cost < self.best:
                self.best = cost
                chosen = dict(zip(self.order, taken, strict=False))
                self.numbers = tuple(chosen.get(number, 0) for number in range(len(self.problem.sources)))
            return
        if place == len(self.order) or cost + self._relaxed(place, needs) >= self.best - 1e-9:
            return
        one = self.order[place]
        source = self.problem.sources[one]
        most = max(
            ceil(need / row.capacities[one] - 1e-9) if row.capacities[one] else 0
            for need, row in zip(needs, self.held, strict=True)
        )
        most = max(most, 0)
        if source.count is not None:
            most = min(most, source.count)
        for sheets in range(most, -1, -1):
            self._go(
                place + 1,
                cost + sheets * source.price,
                [need - sheets * row.capacities[one] for need, row in zip(needs, self.held, strict=True)],
                (*taken, sheets),
            )
