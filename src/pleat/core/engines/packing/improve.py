"""Better plans, and the proof of how good they are, by rounds: the same rounds give the same plan.

Every way to fill a sheet that was ever met is kept. A linear programme over them says what each piece is
worth (its dual value); sheets are filled anew for those values, and the whole numbers of sheets of each way
are chosen by an integer programme (column generation; Gilmore and Gomory, "Multistage cutting stock problems
of two and more dimensions", 1965, from memory). The same values, with the most that a sheet can be worth,
give inequalities that every plan holds, and so a bound.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations
from random import Random
from typing import Final

import highspy
import numpy as np

from pleat.core.engines.packing.bounds import Inequality, cheapest_numbers, inequalities
from pleat.core.engines.packing.decreasing import sheets_by_size
from pleat.core.engines.packing.fill import FilledSheet, fillings
from pleat.core.engines.packing.planner import Effort, free_of, plan, shrunk
from pleat.core.engines.packing.problem import Packing, Problem, SheetLayout, SheetSource, cost_of
from pleat.core.engines.packing.settle import THOROUGH, settled
from pleat.core.engines.packing.worth import most_worth

NODES: Final = 400
"""Nodes of the integer programme a round."""
WIDTHS: Final = (6, 16, 40)
"""States of a sheet that are kept beside each other, by rounds in turn."""
NEAR: Final = 1e-7
SHAKES: Final = 4
"""Sheets that are filled for values a little off, so that there are others to choose from as well."""
AGAIN: Final = 3
"""Sheets that are taken out of a plan and planned anew together."""
MOST_SHEETS: Final = 30
MOST_SWAPS: Final = 12
"""Sets of sheets of a target that are filled anew in a round."""
IDLE: Final = 6
"""Rounds without anything new after which a plan is left as it is."""
REFUTED: Final = 12
"""How often in a round the most is asked that a sheet of a source can be worth, which takes long."""
PRICED: Final = 24
"""How often in a round sheets are filled for what pieces are worth, which is quick."""


class _QuietSolver(highspy.Highs):
    """A solver that writes nothing: the banner comes with its callbacks, before an option could be set."""

    def enableCallbacks(self) -> None:
        self.setOptionValue("output_flag", False)
        super().enableCallbacks()  # type: ignore[no-untyped-call]


@dataclass
class Improver:
    """A problem on its way to its best plan; ``packing`` is the best so far. Rolls and twins are left as they
    are."""

    problem: Problem
    packing: Packing
    rounds: int = 0
    idle: int = 0
    """Rounds since anything became better."""
    stands: bool = False
    """Whether the cheapest numbers of sheets cannot be told from ones that do."""
    target: tuple[int, ...] | None = None
    """The cheapest numbers of sheets that are not known to be too few."""
    pool: dict[tuple[int, tuple[int, ...]], FilledSheet] = field(default_factory=dict)
    held: list[Inequality] = field(default_factory=list)

    def __post_init__(self) -> None:
        kerf = self.problem.kerf
        self.demands = [
            replace(demand, width=demand.width + kerf, height=demand.height + kerf)
            for demand in self.problem.demands
        ]
        self.counts = tuple(
            demand.count - left for demand, left in zip(self.demands, self.packing.unplaced, strict=True)
        )
        self.areas = [float(demand.area) for demand in self.demands]
        self.held = inequalities(self.problem, self.counts)
        self.done = (
            self.packing.proven
            or any(source.roll for source in self.problem.sources)
            or any(demand.twins for demand in self.problem.demands)
            or not any(self.counts)
        )

    def round(self) -> bool:
        """One round; whether there is anything left to do."""
        if self.done:
            return False
        before = self.packing
        if not self.pool:
            self._seed()
        found = self._fill_for(self._values(), self._width)
        if not self.stands:
            known = len(self.pool), len(self.held)
            self._bound()
            found = found or (len(self.pool), len(self.held)) != known
        if self.rounds % 2 == 1 or not found:
            self._choose()
            self._again()
            self._towards()
        self.rounds += 1
        better = self.packing.cost < before.cost - NEAR or self.packing.bound > before.bound + NEAR
        self.stands = self.stands and not better
        self.idle = 0 if better or found else self.idle + 1
        self.done = self.packing.proven or self.idle >= IDLE
        if self.done:
            self.settle()
        return not self.done

    def settle(self) -> None:
        """Of all plans at this cost one that leaves much whole."""
        self.packing = settled(self.problem, self.packing, THOROUGH)

    def _seed(self) -> None:
        """The sheets of first plans with more effort, and of each source by itself."""
        self._keep_all(self.packing)
        self._keep_all(plan(self.problem, Effort(3, 10)))
        for number in range(len(self.problem.sources)):
            for free in free_of(self.problem.sources[number], self.problem.kerf):
                for one, count in enumerate(self.counts):
                    alone = tuple(count if place == one else 0 for place in range(len(self.counts)))
                    self._keep_best(number, fillings(free, self.demands, alone, self.areas, WIDTHS[0], 3))
                self._keep_best(number, list(sheets_by_size(free, self.demands, self.counts)))

    def _keep_all(self, packing: Packing) -> None:
        for layout in packing.layouts:
            counts = tuple(layout.counts(len(self.demands)))
            kerf = self.problem.kerf
            grids = tuple(
                grid._replace(width=grid.width + kerf, height=grid.height + kerf, gap=0)
                for grid in layout.grids
            )
            self.pool.setdefault((layout.source, counts), FilledSheet(grids, counts, 0.0, ()))

    def _keep_best(self, number: int, filled: Sequence[FilledSheet]) -> bool:
        """Whether any of the fillings is new."""
        new = [filling for filling in filled if (number, filling.counts) not in self.pool]
        self.pool |= {(number, filling.counts): filling for filling in new}
        return bool(new)

    def _values(self) -> list[float]:
        """What each piece is worth, by the linear programme over all ways that are known; nothing where it
        has no answer."""
        return _solve(self.problem, self.counts, list(self.pool))[1]

    def _fill_for(self, values: Sequence[float], width: int) -> bool:
        """Sheets filled for those values; whether any pays more than it costs and is new."""
        total = sum(value * count for value, count in zip(values, self.counts, strict=bool(values)))
        area = sum(one * count for one, count in zip(self.areas, self.counts, strict=True))
        if total <= 0:
            return False
        scale = area / total
        weighed = [value * scale for value in values]
        found = False
        for number, source in enumerate(self.problem.sources):
            if source.count == 0:
                continue
            for free in free_of(source, self.problem.kerf):
                for blend in (1.0, 0.7):
                    mixed = [
                        blend * own + (1 - blend) * size
                        for own, size in zip(weighed, self.areas, strict=True)
                    ]
                    filled = fillings(free, self.demands, self.counts, mixed, width)
                    found = self._keep_best(number, filled) or found
                for shake in range(SHAKES):
                    chance = Random(f"{self.rounds} {number} {shake}")
                    mixed = [own * (0.4 + 1.2 * chance.random()) for own in weighed]
                    filled = fillings(free, self.demands, self.counts, mixed, WIDTHS[0])
                    found = self._keep_best(number, filled) or found
        return found

    def _bound(self) -> None:
        """The cheapest numbers of sheets that are not known to be too few are tried: where no mixture of ways
        to fill them covers all pieces, the worth of the pieces says so in an inequality; where one does, they
        stand."""
        left = max(3, REFUTED // len(self.problem.sources))
        for _ in range(PRICED):
            cost, numbers = cheapest_numbers(self.problem, self.held)
            if numbers is None or cost >= self.packing.cost - NEAR:
                self._at_least(cost)
                return
            self.target = numbers
            values = _solve(self.problem, self.counts, list(self.pool), numbers, self.areas)[1]
            self.stands = bool(values) and sum(values) <= NEAR * max(self.areas)
            if not self.stands and values and self._is_worth_more(values):
                continue
            left -= 1
            if self.stands or not values or left < 0 or not self._refute(numbers, values):
                self._at_least(cost)
                return
        self._at_least(cheapest_numbers(self.problem, self.held)[0])

    def _is_worth_more(self, values: Sequence[float]) -> bool:
        """Whether sheets filled for those values are worth more than every one that is known."""
        found = False
        for number, source in enumerate(self.problem.sources):
            if source.count == 0:
                continue
            known = max(
                (
                    sum(value * count for value, count in zip(values, counts, strict=True))
                    for own, counts in self.pool
                    if own == number
                ),
                default=0.0,
            )
            for free in free_of(source, self.problem.kerf):
                filled = fillings(free, self.demands, self.counts, values, WIDTHS[0], SHAKES)
                more = [one for one in filled if one.value > known * (1 + NEAR)]
                found = self._keep_best(number, more) or found
        return found

    def _refute(self, numbers: Sequence[int], values: Sequence[float]) -> bool:
        """Whether anything new came of those values: an inequality, or a way to fill a sheet."""
        kerf, most, found = self.problem.kerf, [], False
        for number, source in enumerate(self.problem.sources):
            _, _, wide, high = source.usable
            worth = most_worth(wide + kerf, high + kerf, self.demands, values)
            if worth is None:
                return False
            most.append(worth.value)
            if not source.blocked:
                counts = [0] * len(self.demands)
                for grid in worth.grids:
                    counts[grid.demand] += 1
                moved = tuple(
                    grid._replace(x=grid.x + source.usable[0], y=grid.y + source.usable[1])
                    for grid in worth.grids
                )
                if any(counts):
                    found = self._keep_best(number, [FilledSheet(moved, tuple(counts), 0.0, ())]) or found
        need = sum(value * count for value, count in zip(values, self.counts, strict=True))
        if sum(own * count for own, count in zip(most, numbers, strict=True)) < need * (1 - 1e-7):
            self.held.append(Inequality(tuple(most), need * (1 - 1e-9)))
            return True
        return found

    def _at_least(self, cost: float) -> None:
        if cost > self.packing.bound:
            self.packing = replace(self.packing, bound=min(cost, self.packing.cost))

    def _choose(self) -> None:
        """The cheapest numbers of sheets of every way that is known."""
        ways = list(self.pool)
        numbers, _ = _solve(self.problem, self.counts, ways, whole=True)
        if not numbers:
            return
        layouts = self._layouts([(way, number) for way, number in zip(ways, numbers, strict=True) if number])
        cost = cost_of(self.problem, layouts)
        if cost < self.packing.cost - NEAR:
            self._take(layouts)

    def _again(self) -> None:
        """A few sheets of the plan taken out and planned anew, others each round; what is met is kept."""
        sheets = _one_by_one(self.packing.layouts)
        if len(sheets) > MOST_SHEETS:
            return
        for start in range(self.rounds % len(sheets), len(sheets), max(1, len(sheets) // 3)):
            out = [sheets[(start + step) % len(sheets)] for step in range(min(AGAIN, len(sheets)))]
            rest = [sheet for place, sheet in enumerate(sheets) if (place - start) % len(sheets) >= len(out)]
            used = Counter(sheet.source for sheet in rest)
            sources = tuple(
                source if source.count is None else replace(source, count=source.count - used[number])
                for number, source in enumerate(self.problem.sources)
            )
            made = self._planned(self._placed(out), sources, Effort(4, self._width))
            if made.complete and made.cost < cost_of(self.problem, out) - NEAR:
                self._take((*rest, *made.layouts))
                return

    def _towards(self) -> None:
        """The target's sheets with as many pieces as they take by ways that are known; then two or three of
        them at a time filled anew with what is missing as well, as long as less is missing each time."""
        if self.target is None or self.packing.proven:
            return
        ways = list(self.pool)
        chosen, _ = _solve(self.problem, self.counts, ways, self.target, self.areas, whole=True)
        sheets = _one_by_one(
            self._layouts([(way, times) for way, times in zip(ways, chosen, strict=False) if times])
        )
        if not sheets or len(sheets) > MOST_SHEETS:
            return
        for size in (2, 3):
            for out in list(combinations(range(len(sheets)), min(size, len(sheets))))[:MOST_SWAPS]:
                sheets = self._swapped(sheets, out)
                if self._placed(sheets) == list(self.counts):
                    self._take(tuple(sheets))
                    return

    def _swapped(self, sheets: list[SheetLayout], out: Sequence[int]) -> list[SheetLayout]:
        """The sheets with some of them filled anew, where less is missing then."""
        taken = [sheets[place] for place in out]
        rest = [sheet for place, sheet in enumerate(sheets) if place not in out]
        wanted = [count - own for count, own in zip(self.counts, self._placed(rest), strict=True)]
        used = Counter(sheet.source for sheet in taken)
        sources = tuple(
            replace(source, count=used[number], price=float(source.area))
            for number, source in enumerate(self.problem.sources)
        )
        made = self._planned(wanted, sources, Effort(3, self._width))
        return [*rest, *_one_by_one(made.layouts)] if self._area(made.layouts) > self._area(taken) else sheets

    @property
    def _width(self) -> int:
        return WIDTHS[self.rounds % len(WIDTHS)]

    def _planned(self, counts: Sequence[int], sources: tuple[SheetSource, ...], effort: Effort) -> Packing:
        """A plan of some of the pieces; its sheets are kept as ways to fill one."""
        demands = tuple(
            replace(demand, count=count) for demand, count in zip(self.problem.demands, counts, strict=True)
        )
        made = plan(replace(self.problem, demands=demands, sources=sources), effort)
        self._keep_all(made)
        return made

    def _placed(self, sheets: Sequence[SheetLayout]) -> list[int]:
        """How many pieces of each demand lie on the sheets."""
        counts = [0] * len(self.counts)
        for sheet in sheets:
            for number, count in enumerate(sheet.counts(len(counts))):
                counts[number] += count * sheet.times
        return counts

    def _area(self, sheets: Sequence[SheetLayout]) -> float:
        """The area of all pieces on the sheets."""
        return sum(count * area for count, area in zip(self._placed(sheets), self.areas, strict=True))

    def _take(self, layouts: tuple[SheetLayout, ...]) -> None:
        self.packing = replace(self.packing, layouts=layouts, cost=cost_of(self.problem, layouts))

    def _layouts(self, chosen: Sequence[tuple[tuple[int, tuple[int, ...]], int]]) -> tuple[SheetLayout, ...]:
        """The sheets of a choice without the pieces that are too many."""
        left = list(self.counts)
        found: dict[tuple[int, tuple[object, ...]], int] = {}
        grids_of: dict[tuple[int, tuple[object, ...]], SheetLayout] = {}
        for (number, counts), times in chosen:
            filled = self.pool[number, counts]
            for _ in range(times):
                grids = []
                for grid in filled.grids:
                    wanted = min(grid.amount, left[grid.demand])
                    left[grid.demand] -= wanted
                    if wanted == grid.amount:
                        grids.append(grid)
                        continue
                    rows, rest = divmod(wanted, grid.across)
                    if rows:
                        grids.append(grid._replace(down=rows))
                    if rest:
                        grids.append(grid._replace(y=grid.y + rows * grid.height, across=rest, down=1))
                if grids:
                    key = (number, tuple(grids))
                    found[key] = found.get(key, 0) + 1
                    grids_of[key] = SheetLayout(
                        number, shrunk(tuple(grids), self.problem.kerf), self.problem.sources[number].height
                    )
        return tuple(replace(grids_of[key], times=times) for key, times in found.items())


def _one_by_one(layouts: Sequence[SheetLayout]) -> list[SheetLayout]:
    return [replace(layout, times=1) for layout in layouts for _ in range(layout.times)]


def improve(problem: Problem, packing: Packing, rounds: int) -> Packing:
    """The best plan after so many rounds at most, and its bound."""
    improver = Improver(problem, packing)
    for _ in range(rounds):
        if not improver.round():
            return improver.packing
    improver.settle()
    return improver.packing


def _solve(
    problem: Problem,
    counts: Sequence[int],
    ways: Sequence[tuple[int, tuple[int, ...]]],
    numbers: Sequence[int] | None = None,
    missed: Sequence[float] = (),
    *,
    whole: bool = False,
) -> tuple[list[int], list[float]]:
    """(sheets of each way, value of each piece): as whole numbers, or of the linear programme.

    With ``numbers`` so many sheets of each source may be taken and cost nothing, and a piece that is
    ``missed`` costs so much. Nothing is told where the solver finds no answer it trusts.
    """
    unit = max(missed, default=1.0)  # areas in ticks are beyond what a solver counts with
    lp = highspy.HighsLp()
    most = [source.count for source in problem.sources] if numbers is None else list(numbers)
    limited = [number for number, count in enumerate(most) if count is not None]
    row_of = {number: len(counts) + place for place, number in enumerate(limited)}
    lp.num_col_, lp.num_row_ = len(ways) + len(missed), len(counts) + len(limited)
    prices = [0.0 if numbers else problem.sources[number].price + NEAR for number, _ in ways]
    lp.col_cost_ = np.array([*prices, *(cost / unit for cost in missed)])
    lp.col_lower_, lp.col_upper_ = np.zeros(lp.num_col_), np.full(lp.num_col_, highspy.kHighsInf)
    lp.row_lower_ = np.array([*map(float, counts), *(-highspy.kHighsInf for _ in limited)])
    limits = [float(most[number] or 0) for number in limited]
    lp.row_upper_ = np.array([*(highspy.kHighsInf for _ in counts), *limits])
    columns = [
        [(piece, float(amount)) for piece, amount in enumerate(own) if amount]
        + ([(row_of[number], 1.0)] if number in row_of else [])
        for number, own in ways
    ]
    columns += [[(piece, 1.0)] for piece in range(len(missed))]
    lp.a_matrix_.format_ = highspy.MatrixFormat.kColwise
    lp.a_matrix_.start_ = np.cumsum([0, *(len(column) for column in columns)])
    lp.a_matrix_.index_ = np.array([row for column in columns for row, _ in column])
    lp.a_matrix_.value_ = np.array([amount for column in columns for _, amount in column])
    if whole:
        lp.integrality_ = [highspy.HighsVarType.kInteger] * lp.num_col_
    solver = _QuietSolver()  # type: ignore[no-untyped-call]
    for name, value in {"threads": 1, "random_seed": 1, "mip_max_nodes": NODES}.items():
        solver.setOptionValue(name, value)
    solver.passModel(lp)
    solver.run()
    solution = solver.getSolution()
    if not solution.value_valid:
        return [], []
    duals = [] if whole else [max(0.0, value) * unit for value in list(solution.row_dual)[: len(counts)]]
    return [round(value) for value in solution.col_value], duals
