"""A leaf a little smaller or larger that the sheets take better, and the piece that makes them many: asked
for, not told, since it takes as many plans of the book as it tries."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import floor
from typing import Final

from pleat.core.base.errors import BadBook
from pleat.core.base.words import joined
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.pleats.cutting.shared import StockPlan, plan_sheets
from pleat.core.whole.planning import Plan, worked_out

SMALLER: Final = 0.08
LARGER: Final = 0.05
"""How much smaller or larger a leaf may be and still be near."""
_STEP_MM: Final = 2.0
"""By how much a leaf is made smaller to see which pieces follow it."""
MOST_TRIED: Final = 10
WORTH: Final = 0.01
"""A leaf that is larger by less is the same to a maker."""
SMALL: Final = 0.34
"""A part that is a smaller share of the sheets it costs is told."""


@dataclass(frozen=True)
class NearSize:
    """A leaf of another ``value_mm`` along one side (the ``path`` of its field), by ``share`` of it larger or
    smaller; ``sheets`` says of each material that takes another number (name, now, then). With none it is
    larger for as many."""

    path: str
    value_mm: float
    share: float
    sheets: tuple[tuple[str, int, int], ...]


@dataclass(frozen=True)
class CostlyPiece:
    """A part that takes more sheets than its area would: so many ``now`` of a material, and ``without``
    it."""

    part: str
    material: str
    now: int
    without: int


def near_sizes(plan: Plan, tools: Tools = NO_TOOLS) -> tuple[NearSize, ...]:
    """Leaves up to 8 % smaller that save sheets, and the largest up to 5 % that takes no more; each tried on
    the whole book. Every value lies on a mark of the ruler."""
    found = []
    for path in ("brief.leaf_width_mm", "brief.leaf_height_mm"):
        now = float(getattr(plan.book.brief, path.split(".")[1]))
        tried = sorted(set(_values(plan, path, now, tools)), reverse=True)
        smaller = [value for value in tried if now * (1 - SMALLER) <= value < now - 0.01]
        for value in smaller[:MOST_TRIED]:
            sheets = _sheets(plan, path, value, tools)
            if sheets and all(then < was for _, was, then in sheets):
                found.append(NearSize(path, value, value / now - 1, sheets))
                break
        larger = _largest(plan, path, now, tools)
        if larger >= now * (1 + WORTH):
            found.append(NearSize(path, larger, larger / now - 1, ()))
    return tuple(found)


def _largest(plan: Plan, path: str, now: float, tools: Tools) -> float:
    """The largest leaf near ``now`` for as many sheets: half of the marks are left out at each trial."""
    step = plan.brief.ruler.step_mm
    works, fails = 0, floor((plan.brief.ruler.snap_down(now * (1 + LARGER)) - now) / step + 1e-6) + 1
    while fails - works > 1:
        middle = works + 1 if fails - works == 2 else (works + fails) // 2
        if _sheets(plan, path, now + middle * step, tools) == ():
            works = middle
        else:
            fails = middle
    return now + works * step


def _values(plan: Plan, path: str, now: float, tools: Tools) -> Iterator[float]:
    """Where one piece more comes out of a sheet side by side, as the pieces follow the leaf."""
    ruler = plan.brief.ruler
    other = _with(plan.book, path, now - _STEP_MM, tools)
    if other is None:
        return
    then = {cut.part.key: cut for cut in other.cutting.cuts}
    for cut in plan.cutting.cuts:
        same = then.get(cut.part.key)
        if same is None or not cut.better.count or same.better.turned != cut.better.turned:
            continue
        lay, stock = cut.better, cut.stock
        for side, before, count, whole in (
            (lay.piece_width_mm, same.better.piece_width_mm, lay.columns, stock.usable_width_mm),
            (lay.piece_height_mm, same.better.piece_height_mm, lay.rows, stock.usable_height_mm),
        ):
            slope = (side - before) / _STEP_MM
            if slope > 0.1 and not stock.roll:
                yield ruler.snap_down(now - (side - whole / (count + 1)) / slope)


def _with(book: Book, path: str, value: float, tools: Tools) -> Plan | None:
    try:
        return worked_out(editing.apply(book, [(path, value)]), tools)
    except BadBook:
        return None


def _sheets(plan: Plan, path: str, value: float, tools: Tools) -> tuple[tuple[str, int, int], ...] | None:
    """Which materials take another number of sheets; None where the book does not work so."""
    other = _with(plan.book, path, value, tools)
    if other is None or _stops(other) - _stops(plan):
        return None
    before, after = _needed(plan), _needed(other)
    if before.keys() != after.keys():
        return None
    return tuple((name, before[name], after[name]) for name in before if before[name] != after[name])


def _stops(plan: Plan) -> set[str]:
    return {check.code for _, check in plan.checks if check.level == "stop"}


def _needed(plan: Plan) -> dict[str, int]:
    """Sheets of each material, by its name and the place it serves first."""
    return {
        own.stock.name: sum(one.times for one in own.all_sheets)
        for own in plan.cutting.plans
        if not own.stock.roll
    }


@dataclass(frozen=True)
class FreedPart:
    """Pieces that take fewer sheets of a ``material`` where their grain may lie either way: the ``path`` and
    what to say there, how many sheets ``now`` and ``then``."""

    part: str
    path: str
    material: str
    now: int
    then: int


def freed_parts(plan: Plan) -> tuple[FreedPart, ...]:
    """Stocks whose pieces, lying as it comes best, take fewer sheets."""
    return tuple(found for own in plan.cutting.plans for found in _freed(plan, own))


def _freed(plan: Plan, own: StockPlan) -> Iterator[FreedPart]:
    cuts = [cut for cut in plan.cutting.cuts if cut.stock in own.stocks and cut.better.count]
    if own.needed < 2 or own.stock.roll or own.stock.role == "pile" or own.stock.upright_only or own.done:
        return
    for stock in own.stocks:
        parts = [cut.part for cut in cuts if cut.stock == stock]
        fixed = any(cut.free or cut.part.lies != "auto" for cut in cuts if cut.stock == stock)
        if fixed or not parts:
            continue
        (other,) = plan_sheets([replace(cut, free=cut.free or cut.stock == stock) for cut in cuts])
        if other.needed < own.needed and not own.amounts:
            named = joined(dict.fromkeys(part.name for part in parts))
            path = f"cutting.lies.{stock.key}"
            yield FreedPart(named, path, stock.name, own.needed, other.needed)


def costly_pieces(plan: Plan) -> tuple[CostlyPiece, ...]:
    """Parts without which a material would take fewer sheets than the area of the part explains."""
    return tuple(found for own in plan.cutting.plans for found in _costly(plan, own))


def _costly(plan: Plan, own: StockPlan) -> Iterator[CostlyPiece]:
    cuts = [cut for cut in plan.cutting.cuts if cut.stock in own.stocks and cut.better.count]
    if len(cuts) < 2 or own.stock.roll or own.done or own.amounts:
        return
    area = own.stock.usable_width_mm * own.stock.usable_height_mm
    for cut in cuts:
        (other,) = plan_sheets([one for one in cuts if one is not cut])
        saved = own.needed - other.needed
        if saved > 0 and cut.part.width_mm * cut.part.height_mm * cut.part.count < SMALL * saved * area:
            yield CostlyPiece(cut.part.name, own.stock.name, own.needed, other.needed)
