"""Cutting: one sheet of stock with the pieces that come out of it, laid one way round."""

from __future__ import annotations

from pleat.core.cutting.compute import CuttingResult
from pleat.core.cutting.cut import Cut
from pleat.core.units import Ruler
from pleat.core.yields import Lay
from pleat.drawing.shapes import Dim, Drawing, Label, Line, Rect, Shape, grain_arrow


def sheet(cut: Cut, lay: Lay, ruler: Ruler, dims: bool = True) -> Drawing:
    """The sheet of ``cut`` with the pieces of ``lay`` from its top left corner, folds and all."""
    stock, part = cut.stock, cut.part
    width, height = stock.sheet_width_mm, stock.sheet_height_mm
    shapes: list[Shape] = [Rect(0, 0, width, height, "stock")]
    for row in range(lay.rows):
        for column in range(lay.columns):
            x, y = column * lay.piece_width_mm, row * lay.piece_height_mm
            shapes.append(Rect(x, y, lay.piece_width_mm, lay.piece_height_mm, f"piece swatch-{stock.swatch}"))
            for fold in part.folds:
                at = fold.position_mm
                level = lay.turned == (fold.axis == "upright")
                line = (
                    Line(x, y + at, x + lay.piece_width_mm, y + at, "score")
                    if level
                    else Line(x + at, y, x + at, y + lay.piece_height_mm, "score")
                )
                shapes.append(line)
    if not lay.count:
        shapes.append(Label(width / 2, height / 2, "none comes out", "warning"))
    elif stock.grain:
        shapes += grain_arrow(width * 0.5, height * 0.5, min(width, height) * 0.28, stock.grain)
    measures = (Dim("bottom", 0, width, ruler.number(width)), Dim("left", 0, height, ruler.number(height))) if dims else ()
    return Drawing(width, height, f"{lay.count} × {part.name} out of one sheet of {stock.name}.", shapes, dims=measures)


def strip(result: CuttingResult) -> Drawing:
    """The first sheet of each stock, one above the other."""
    shapes: list[Shape] = []
    top = 0.0
    widest = max(cut.stock.sheet_width_mm for cut in result.cuts)
    for cut in result.cuts:
        stock, lay = cut.stock, cut.better
        left = (widest - stock.sheet_width_mm) / 2
        shapes.append(Rect(left, top, stock.sheet_width_mm, stock.sheet_height_mm, "stock"))
        for row in range(lay.rows):
            for column in range(lay.columns):
                shapes.append(
                    Rect(
                        left + column * lay.piece_width_mm,
                        top + row * lay.piece_height_mm,
                        lay.piece_width_mm,
                        lay.piece_height_mm,
                        f"piece swatch-{stock.swatch}",
                    )
                )
        top += stock.sheet_height_mm + 30
    return Drawing(widest, top - 30, "sheets", shapes)
