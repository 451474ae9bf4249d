"""The papers: each sheet to scale with its grain and the folio laid on it, and its thickness on a magnified
scale."""

from __future__ import annotations

from pleat.core.base.words import joined
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Dim, Drawing, Label, Line, Rect, Shape, grain_arrow, unusable


def sheet(stock: Stock, brief: BriefResult) -> Drawing:
    """One sheet; its width and height are the form. On the leaf paper the folio lies dashed, with its
    fold."""
    width, height = stock.sheet_width_mm, stock.sheet_height_mm
    shapes: list[Shape] = [Rect(0, 0, width, height, f"sheet swatch-{stock.swatch}")]
    shapes += unusable(width, height, stock.margins, stock.windows)
    if stock.role == "leaf":
        shapes += _folio(stock, brief)
    if stock.grain:
        shapes += grain_arrow(width * 0.86, height * 0.5, min(width, height) * 0.3, stock.grain)
        shapes.append(
            Label(width * 0.86, height * 0.5, "warp" if stock.cloth else "grain", "on-sheet", "end", (-8, 4))
        )
    else:
        shapes.append(Label(width * 0.5, height * 0.12, "grain not known", "on-sheet"))
    group = f"paper.{stock.role}"
    across, along = (
        ("roll_width_mm", "length_left_mm") if stock.cloth else ("sheet_width_mm", "sheet_height_mm")
    )
    what = "A roll" if stock.cloth else "A sheet"
    return Drawing(
        width,
        height,
        f"{what} of {stock.name}, {brief.ruler.size(width, height)}.",
        shapes,
        dims=(
            Dim("bottom", 0, width, brief.ruler.number(width), spot=f"{group}.{across}"),
            Dim("left", 0, height, brief.ruler.number(height), spot=f"{group}.{along}"),
        ),
    )


def _folio(stock: Stock, brief: BriefResult) -> list[Shape]:
    width, height = 2 * brief.leaf_width_mm, brief.leaf_height_mm
    if width > stock.sheet_width_mm + 0.05 or height > stock.sheet_height_mm + 0.05:
        if width > stock.sheet_height_mm + 0.05 or height > stock.sheet_width_mm + 0.05:
            return [
                Label(
                    stock.sheet_width_mm / 2, stock.sheet_height_mm / 2, "too small for this leaf", "warning"
                )
            ]
        return [
            Rect(0, 0, height, width, "ghost"),
            Line(0, width / 2, height, width / 2, "fold"),
            Label(height / 2, width / 2, "fold", "on-sheet", shift=(0, -6)),
        ]
    return [
        Rect(0, 0, width, height, "ghost"),
        Line(width / 2, 0, width / 2, height, "fold"),
        Label(width / 2, height / 2, "fold", "on-sheet", shift=(-7, 0), turned=True),
    ]


@main.register
def thickness(result: PaperResult, _plan: Plan) -> Drawing:
    """All calipers as ranges on one scale, in tenths of a millimetre drawn as centimetres."""
    magnified = 100.0
    stocks = [result.stock(role) for role in result.roles] or [result.leaf]
    most = max(stock.caliper.high for stock in stocks) * magnified
    shapes: list[Shape] = []
    row = most / 26
    for number, stock in enumerate(stocks):
        top = number * 3.6 * row
        caliper = stock.caliper
        shapes += [
            Rect(0, top, caliper.likely * magnified, 2 * row, f"edge swatch-{stock.swatch}"),
            Line(caliper.low * magnified, top + row, caliper.high * magnified, top + row, "range"),
            Line(caliper.low * magnified, top + row * 0.4, caliper.low * magnified, top + row * 1.6, "range"),
            Line(
                caliper.high * magnified, top + row * 0.4, caliper.high * magnified, top + row * 1.6, "range"
            ),
            Label(0, top, stock.name, "label", "start", (0, -5)),
        ]
    return Drawing(
        most * 1.02,
        (3.6 * len(stocks) - 1.6) * row,
        f"Thickness of {joined(stock.name for stock in stocks)}, 100 times magnified, with low and high.",
        shapes,
    )


@strip.register
def small(result: PaperResult, _plan: Plan) -> Drawing:
    """A stack of leaves between what covers them, edge on."""
    lines: list[Shape] = []
    outer = next(
        (result.stock(role) for role in ("cover", "covering", "board") if role in result.roles), result.leaf
    )
    for number in range(11):
        swatch = outer.swatch if number in (0, 10) else result.leaf.swatch
        lines.append(Rect(0, number * 2.6, 26, 1.3 if number in (0, 10) else 0.8, f"edge swatch-{swatch}"))
    return Drawing(26, 28, "stack", lines)
