"""A sheet with its pieces at true size, as SVG and DXF: for whoever cuts with another program, or lays the
sheet over a screen."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from html import escape
from typing import Final

from pleat.core.materials.sheet import SheetCut
from pleat.core.pleats.cutting.compute import CuttingResult
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.drawing.cutting import corners, folds, letters
from pleat.drawing.shapes import Drawing, Label, Line, Rect
from pleat.drawing.svg import render_print
from pleat.printing.dxf import Flat, as_dxf
from pleat.printing.pen import PRINT

LAYERS: Final = ("SHEET", "PIECES", "CUTS", "FOLDS", "OFFCUTS", "WORDS")
_EDGE_MM: Final = 5.0


def of_key(result: CuttingResult, key: str) -> tuple[StockPlan, SheetCut, Sequence[StockCut]] | None:
    """The sheet of a plan by its key, with what it is a sheet of and its parts; None where there is none."""
    for plan in result.plans:
        for sheet in plan.sheets:
            if plan.stock.key + sheet.key == key:
                return plan, sheet, [cut for cut in result.cuts if cut.stock in plan.stocks]
    return None


def to_svg(plan: StockPlan, sheet: SheetCut, parts: Sequence[StockCut]) -> str:
    """The sheet at true size: its edge, pieces with their letters, folds, and cuts with their numbers."""
    drawing = Drawing(sheet.width_mm, sheet.height_mm, "sheet", [shape for shape, _ in _shapes(sheet, parts)])
    width, height = sheet.width_mm + 2 * _EDGE_MM, sheet.height_mm + 2 * _EDGE_MM
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width:.3f} {height:.3f}"><title>{escape(plan.stock.name)}</title>'
        f"{render_print(drawing, _EDGE_MM, _EDGE_MM, PRINT)}</svg>"
    )


def to_dxf(sheet: SheetCut, parts: Sequence[StockCut]) -> str:
    """The same as DXF, head up, each sort of line on a layer of its own."""
    return as_dxf(_shapes(sheet, parts), sheet.height_mm, LAYERS)


def _shapes(sheet: SheetCut, parts: Sequence[StockCut]) -> Iterator[tuple[Flat, str]]:
    named, known = letters(parts), {part.part.key: part.part for part in parts}
    yield Rect(0, 0, sheet.width_mm, sheet.height_mm, "edge"), "SHEET"
    for x, y, width, height in sheet.offcuts:
        yield Rect(x, y, width, height, "join"), "OFFCUTS"
    for piece in sheet.pieces:
        for x, y in corners(piece):
            yield Rect(x, y, piece.width_mm, piece.height_mm, "line"), "PIECES"
            middle = (x + piece.width_mm / 2, y + piece.height_mm / 2)
            yield Label(*middle, named[piece.part], "label"), "WORDS"
        for line in folds(known[piece.part], piece):
            yield line, "FOLDS"
    for cut in sheet.cuts:
        across = cut.length_mm if cut.axis == "level" else 0.0
        down = cut.length_mm - across
        yield Line(cut.x_mm, cut.y_mm, cut.x_mm + across, cut.y_mm + down, "line"), "CUTS"
        yield Label(cut.x_mm + 1, cut.y_mm + 3, str(cut.number), "small"), "WORDS"
