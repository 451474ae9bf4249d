"""The sheets on paper: each kind of sheet small, with its pieces, its cuts in their order, its offcuts."""

from __future__ import annotations

from itertools import groupby
from typing import Final, NamedTuple

from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.materials.sheet import CutLine, SheetCut
from pleat.core.pleats.cutting.compute import CuttingResult
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.whole.planning import Plan
from pleat.drawing.cutting import Shown, counts, letters, sheet
from pleat.drawing.shapes import Drawing, Label, Shape, moved, scaled
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken
from pleat.printing.pen import PRINT, STYLES

PAPER: Final = Shown(88.0, 74.0, 1.9)
_LINE_MM: Final = 4.2
_GAP_MM: Final = 9.0
MOST_SHEETS: Final = 40
"""Kinds of sheets that are printed; a book with more is looked at on the screen."""


class _Told(NamedTuple):
    """One kind of sheet: its picture, its words, and how high both are in mm."""

    shapes: list[Shape]
    high: float


@pages_of.register
def _sheets(result: CuttingResult, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """The sheets of a book that are cut, as many a page as fit."""
    told = []
    for own in result.plans:
        parts = [cut for cut in result.cuts if cut.stock in own.stocks]
        told += [
            _told(own, one, parts, plan.brief.ruler, width - 2 * MARGIN_MM, room)
            for one in own.sheets
            if one.cuts
        ]
    pages: list[list[Shape]] = []
    down = room
    for one in told[:MOST_SHEETS]:
        if not pages or down + one.high > room:
            pages.append([])
            down = 0.0
        pages[-1] += [moved(shape, MARGIN_MM, MARGIN_MM + HEAD_MM + down) for shape in one.shapes]
        down += one.high + _GAP_MM
    return [("sheets", render_print(Drawing(1, 1, "sheets", shapes), 0, 0, PRINT)) for shapes in pages]


def _told(
    plan: StockPlan, cut: SheetCut, parts: list[StockCut], ruler: Ruler, width: float, room: float
) -> _Told:
    """A sheet at the left, its words at the right of it."""
    picture = sheet(plan, cut, parts, ruler, PAPER)
    share = min((PAPER.width - 8) / cut.width_mm, (PAPER.height - 8) / cut.height_mm)
    drawn = scaled(Drawing(picture.width, picture.height, picture.says, picture.shapes), share)
    shapes = [moved(shape, 0, 5) for shape in drawn.shapes]
    high = cut.height_mm * share + 10
    down = 3.0
    for words, style in _words(plan, cut, parts, ruler):
        for line in broken(words, STYLES[style], width - PAPER.width - 4):
            if down + _LINE_MM < room:
                shapes.append(Label(PAPER.width + 4, down, line, style, "start"))
            down += _LINE_MM
    return _Told(shapes, min(max(high, down), room))


def _words(plan: StockPlan, cut: SheetCut, parts: list[StockCut], ruler: Ruler) -> list[tuple[str, str]]:
    """(words, style) of a sheet: what it is, its pieces by letter, and its cuts in their order."""
    named, known = letters(parts), {part.part.key: part.part for part in parts}
    thing = "offcut" if cut.offcut and not cut.other else "sheet"
    what = "one length" if plan.stock.roll else many(cut.times, thing)
    name = cut.other or plan.stock.name
    found = [(f"{name}: {what}, {ruler.size(cut.width_mm, cut.height_mm)}", "bold")]
    found += [
        (
            f"{named[key]}  {count} × {known[key].name}, "
            f"{ruler.size(known[key].width_mm, known[key].height_mm)}",
            "label",
        )
        for key, count in counts(cut, parts).items()
    ]
    trimmed = {part.part.key: part.trimmed_mm for part in parts if part.trimmed_mm}
    found += [
        (f"{named[key]}  is trimmed later to {ruler.size(*trimmed[key])}", "small")
        for key in counts(cut, parts)
        if key in trimmed
    ]
    if plan.stock.sides == 1:
        found.append(("Drawn with its good side up; what is marked on its back is mirrored.", "small"))
    return [*found, *((words, "small") for words in fence_words(cut, ruler))]


def fence_words(cut: SheetCut, ruler: Ruler) -> list[str]:
    """The cuts in their order, those with one setting that follow each other together."""
    words = []
    for (axis, fence), group in groupby(cut.cuts, key=lambda line: (line.axis, line.fence_mm)):
        lines: list[CutLine] = list(group)
        numbers = f"cut {lines[0].number}"
        if len(lines) > 1:
            numbers = f"cuts {lines[0].number} to {lines[-1].number}"
        edge = "the left edge" if axis == "upright" else "the upper edge"
        words.append(f"{numbers}: {ruler.show(fence)} from {edge} of what lies there")
    return words
