"""Pieces of a material whose grain nobody knows: they lie alike, the way that takes fewer sheets."""

from __future__ import annotations

from collections.abc import Sequence

from pleat.core.materials.sheet import Shelf
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.record import PinnedSheet
from pleat.core.pleats.cutting.shared import plan_sheets


def alike(cuts: Sequence[StockCut], shelf: Shelf, pins: Sequence[PinnedSheet]) -> list[StockCut]:
    """The cuts, those of a material without a known grain with what should be along it one way: as if it ran
    along the sheet's height, or along its width. Where neither does with as few sheets, each as it lies best
    by itself. What the maker or its part says of a piece stays."""
    found = list(cuts)
    for stock in {cut.stock.key: cut.stock for cut in cuts}.values():
        places = [place for place, cut in enumerate(found) if cut.stock.key == stock.key and _is_open(cut)]
        if len(places) < 2 or stock.grain or stock.upright_only or stock.role == "pile":
            continue
        ways = [_turned(found, places, across) for across in (False, True)]
        ways = [way for way in ways if all(way[place].better.count for place in places)]
        own = [cut.stock.key == stock.key for cut in found]
        found = min((*ways, found), key=lambda way: _takes(way, own, shelf, pins))
    return found


def _is_open(cut: StockCut) -> bool:
    """Whether nobody said which way a piece lies."""
    return cut.part.lies == "auto" and not cut.chosen


def _turned(cuts: Sequence[StockCut], places: Sequence[int], across: bool) -> list[StockCut]:
    """The cuts with those at some places along the sheet's height, or ``across`` it."""
    return [
        cut.lying((cut.part.grain == "w") != across) if place in places else cut
        for place, cut in enumerate(cuts)
    ]


def _takes(
    cuts: Sequence[StockCut], own: Sequence[bool], shelf: Shelf, pins: Sequence[PinnedSheet]
) -> tuple[int, int, float, int]:
    """What a way takes: pieces that find no sheet, sheets, length off a roll, offcuts."""
    plans = plan_sheets([cut for cut, is_own in zip(cuts, own, strict=True) if is_own], 0, shelf, pins)
    return (
        sum(sum(plan.lacking.values()) for plan in plans),
        sum(plan.needed for plan in plans),
        sum(plan.length_mm for plan in plans if plan.stock.roll),
        sum(plan.from_offcuts for plan in plans),
    )
