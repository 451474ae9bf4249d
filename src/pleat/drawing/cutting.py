"""Cutting: one sheet of stock with the pieces that come out of it, laid one way round."""

from __future__ import annotations

from typing import Final

from pleat.core.base.plan import Part
from pleat.core.base.units import Ruler
from pleat.core.base.yields import Lay
from pleat.core.pleats.cutting.compute import CuttingResult
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import strip
from pleat.drawing.shapes import Dim, Drawing, Label, Line, Rect, Shape, grain_arrow

MOST_DRAWN: Final = 300
"""Pieces that are drawn one by one."""
MOST_LINES: Final = 24
MOST_STOCKS: Final = 6


def sheet(cut: StockCut, lay: Lay, ruler: Ruler, dims: bool = True) -> Drawing:
    """The sheet of ``cut`` with the pieces of ``lay`` from its top left corner, folds and all."""
    stock, part = cut.stock, cut.part
    width, height = stock.sheet_width_mm, stock.sheet_height_mm
    shapes: list[Shape] = [Rect(0, 0, width, height, "stock")]
    shapes += _pieces(lay, 0.0, 0.0, stock.swatch)
    if lay.count <= MOST_DRAWN:
        shapes += [
            line
            for row in range(lay.rows)
            for column in range(lay.columns)
            for line in _folds(part, lay, column, row)
        ]
    if not lay.count:
        shapes.append(Label(width / 2, height / 2, "none comes out", "warning"))
    elif stock.grain:
        shapes += grain_arrow(width * 0.5, height * 0.5, min(width, height) * 0.28, stock.grain)
    measures = (
        (Dim("bottom", 0, width, ruler.number(width)), Dim("left", 0, height, ruler.number(height)))
        if dims
        else ()
    )
    return Drawing(
        width, height, f"{lay.count} × {part.name} out of one sheet of {stock.name}.", shapes, dims=measures
    )


def _pieces(lay: Lay, left: float, top: float, swatch: str) -> list[Shape]:
    """The pieces of a lay, each by itself; of very many only the rows and columns are drawn, and how many
    they are."""
    width, height, style = lay.piece_width_mm, lay.piece_height_mm, f"piece swatch-{swatch}"
    if lay.count <= MOST_DRAWN:
        places = (
            (left + column * width, top + row * height)
            for row in range(lay.rows)
            for column in range(lay.columns)
        )
        return [Rect(x, y, width, height, style) for x, y in places]
    wide, high = lay.columns * width, lay.rows * height
    shapes: list[Shape] = [Rect(left, top, wide, high, style)]
    shapes += [Line(left + n * width, top, left + n * width, top + high, "weave") for n in _some(lay.columns)]
    shapes += [Line(left, top + n * height, left + wide, top + n * height, "weave") for n in _some(lay.rows)]
    shapes.append(Label(left + wide / 2, top + high / 2, f"{lay.columns} × {lay.rows}", "panel-name"))
    return shapes


def _some(count: int) -> range:
    """The lines between so many pieces, at most a few dozen of them."""
    return range(1, count, max(1, count // MOST_LINES))


def _folds(part: Part, lay: Lay, column: int, row: int) -> list[Line]:
    x, y = column * lay.piece_width_mm, row * lay.piece_height_mm
    lines = []
    for fold in part.folds:
        at = fold.position_mm
        if lay.turned == (fold.axis == "upright"):
            lines.append(Line(x, y + at, x + lay.piece_width_mm, y + at, "score"))
        else:
            lines.append(Line(x + at, y, x + at, y + lay.piece_height_mm, "score"))
    return lines


@strip.register
def small(result: CuttingResult, _plan: Plan) -> Drawing:
    """The first sheet of each stock, one above the other."""
    shapes: list[Shape] = []
    top = 0.0
    shown = result.cuts[:MOST_STOCKS]
    widest = max((cut.stock.sheet_width_mm for cut in shown), default=40.0)
    for cut in shown:
        stock = cut.stock
        left = (widest - stock.sheet_width_mm) / 2
        shapes += [
            Rect(left, top, stock.sheet_width_mm, stock.sheet_height_mm, "stock"),
            *_pieces(cut.better, left, top, stock.swatch),
        ]
        top += stock.sheet_height_mm + 30
    return Drawing(widest, max(top - 30, 40.0), "sheets", shapes)
