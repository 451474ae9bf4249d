"""The whole book at one glance: what to take and to buy, what it costs, how long it takes, what to write
down, what is wrong, what is next."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.base.plan import Check, Count, Figure, Length, Step
from pleat.core.base.slips import LEVELS
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined, lasting, many
from pleat.core.pleats.cutting.owned import together
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.trade.making import PACE_SHARE
from pleat.core.whole.planning import Plan

Unit = Literal["sheet", "mm", "piece"]
SCRAP: Final = 6
"""Figures that fit a scrap of paper beside the knife."""
WORST: Final = 3
"""Checks that are shown; of notes one less."""


@dataclass(frozen=True)
class Good:
    """What the materials know of a thing: how much of it is there (sheets, mm or pieces; None: not counted),
    and the price of one sheet, metre or piece in the maker's own money."""

    owned: float | None
    price: float | None


@dataclass(frozen=True)
class Want:
    """What the whole run takes of one stock, in sheets, mm or pieces, and what is there of it; ``missing`` is
    None where nothing was counted, or not a piece comes out of a sheet.

    ``cost`` is for the run, None where no price is known.
    """

    name: str
    use: str
    unit: Unit
    needed: float
    owned: float | None
    cost: float | None

    @property
    def missing(self) -> float | None:
        return None if self.owned is None or not self.needed else max(0.0, self.needed - self.owned)

    def words(self, amount: float, ruler: Ruler) -> str:
        """An amount of it as a maker says it."""
        if self.unit == "mm":
            return ruler.show(amount) if amount < 1000 or ruler.name == "in" else f"{amount / 1000:.1f} m"
        if self.unit == "sheet":
            return many(round(amount), "sheet") if self.needed else "none fits"
        return str(round(amount))

    def has(self, ruler: Ruler) -> str:
        """What is there of it, in words."""
        if self.owned is None:
            return "not counted"
        return many(round(self.owned), "sheet") if self.unit == "sheet" else self.words(self.owned, ruler)

    def lacks(self, ruler: Ruler) -> str:
        """What is to be bought of it, in words; a dash for nothing."""
        if not self.needed:
            return "a larger one"
        if self.missing is None:
            return "count it"
        return self.words(self.missing, ruler) if self.missing else "–"


@dataclass(frozen=True)
class Overview:
    """Everything on one screen. ``minutes`` are those of the hands for the whole run, low and high; ``waits``
    those of glue and weights.

    ``cost`` is that of all wants with a price for the run, None without any; ``unpriced`` names the others.
    ``worst`` are (pleat, check).
    """

    wants: tuple[Want, ...]
    cost: float | None
    unpriced: tuple[str, ...]
    minutes: tuple[int, int]
    waits: int
    scrap: tuple[Figure, ...]
    worst: tuple[tuple[str, Check], ...]
    more: int
    next: Step | None

    @property
    def missing(self) -> tuple[Want, ...]:
        """What has to be bought."""
        return tuple(want for want in self.wants if want.missing)

    @property
    def work_words(self) -> str:
        low, high = self.minutes
        (less, unit), (more, last) = lasting(low).split(), lasting(high).split()
        if low == high:
            return lasting(low)
        if unit.rstrip("s") == last.rstrip("s"):
            return f"{less} to {more} {last}"
        return f"{less} {unit} to {more} {last}"

    @property
    def work_short(self) -> str:
        """``¾–2 h``: in quarters of an hour, for where there is little room."""
        low, high = (_quarters(minutes) for minutes in self.minutes)
        return f"{low} h" if low == high else f"{low}–{high} h"

    @property
    def waits_about(self) -> int:
        """Minutes of waiting, from two hours on in whole ones."""
        return self.waits if self.waits < 120 else 60 * round(self.waits / 60)


def overview(plan: Plan, goods: Mapping[str, Good]) -> Overview:
    """The overview of a plan; ``goods`` are what the materials know of things that are not papers, by the
    stock that pieces name."""
    wants = (*_sheets(plan), *_others(plan, goods))
    priced = [want.cost for want in wants if want.cost is not None]
    hands = sum(step.step.hands(plan.brief.quantity) for step in plan.bench.work)
    checks = sorted(plan.checks, key=lambda one: LEVELS.index(one[1].level))
    telling = [check for check in checks if check[1].level != "note"]
    shown, telling = (WORST, telling) if telling else (WORST - 1, checks)
    return Overview(
        wants=wants,
        cost=sum(priced) if priced else None,
        unpriced=tuple(dict.fromkeys(want.name for want in wants if want.cost is None)),
        minutes=(_rounded(hands * PACE_SHARE[0]), _rounded(hands * PACE_SHARE[1])),
        waits=plan.bench.waits,
        scrap=tuple(figure for _, result in plan for figure in result.figures if figure.scrap)[:SCRAP],
        worst=tuple(telling[:shown]),
        more=len(checks) - len(telling[:shown]),
        next=plan.bench.current.step if plan.bench.current else None,
    )


def _rounded(minutes: float) -> int:
    """To five minutes, and from two hours on to whole hours."""
    return max(5, round(minutes / 5) * 5) if minutes < 120 else round(minutes / 60) * 60


def _sheets(plan: Plan) -> Sequence[Want]:
    wants = []
    for own in together(plan.paper.stock(key) for key in plan.cutting.takes):
        first, cut = own[0], [one for one in plan.cutting.plans if one.stock in own]
        needed = sum(plan.cutting.takes[stock.key] for stock in own)
        if any(one.lacking for one in cut):
            needed = 0
        use = joined(dict.fromkeys(stock.serves.removeprefix("the ") for stock in own))
        units = sum(one.length_mm for one in cut) / 1000 if first.roll else needed
        cost = None if first.price is None or not needed else first.price * units
        wants.append(Want(first.name, use, "sheet", needed, first.owned, cost))
        wants += [want for one in cut for want in _serving_as_well(one, use)]
    return wants


def _serving_as_well(plan: StockPlan, use: str) -> Iterator[Want]:
    """Whole sheets of other materials that serve for a stock."""
    for other in (one for one in plan.remnants.values() if one.whole):
        count = plan.from_others.get(other.name, 0)
        if count:
            cost = None if other.price is None else other.price * count
            yield Want(other.name, use, "sheet", count, other.count, cost)


def _others(plan: Plan, goods: Mapping[str, Good]) -> Sequence[Want]:
    pieces: dict[
        tuple[str, object, bool], list[Length | Count]
    ] = {}  # those of one item of the materials beside each other
    for number, piece in enumerate(plan.parts):
        if isinstance(piece, Length | Count):
            named = piece.name if piece.stock.isdecimal() else piece.stock or number
            pieces.setdefault((piece.stock, named, isinstance(piece, Length)), []).append(piece)
    wants = []
    for (stock, _, long), own in pieces.items():
        good = goods.get(stock, Good(None, None))
        needed = sum(
            one.length_mm * one.count if isinstance(one, Length) else float(one.count) for one in own
        )
        priced_units = needed / 1000 if long else needed
        cost = None if good.price is None else good.price * priced_units
        use = joined(dict.fromkeys(one.use for one in own))
        wants.append(Want(own[0].name, use, "mm" if long else "piece", needed, good.owned, cost))
    return wants


def _quarters(minutes: int) -> str:
    """Hours with ¼, ½ or ¾; no less than a quarter."""
    hours, rest = divmod(max(1, round(minutes / 15)), 4)
    return f"{hours or ''}{('', '¼', '½', '¾')[rest]}"
