"""Cutting: a sheet with the pieces that come out of it, the cuts in their order, and what is left."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Final, NamedTuple

from pleat.core.base.plan import Part
from pleat.core.base.units import Ruler
from pleat.core.materials.sheet import CutPiece, CutSheet, SheetCut
from pleat.core.pleats.cutting.compute import CuttingResult
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.making import OFFCUT_MM
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import strip
from pleat.drawing.shapes import ControlSpot, Dim, Drawing, Label, Line, Rect, Shape, grain_arrow, unusable

MOST_DRAWN: Final = 300
"""Pieces of a grid that are drawn one by one."""
MOST_LINES: Final = 24
MOST_NUMBERED: Final = 30
"""Cuts of a sheet that are numbered on its drawing."""
MOST_STOCKS: Final = 6
HATCH: Final = 22
"""Lines of the hatching on the longer side of a sheet."""


class Shown(NamedTuple):
    """How large a sheet is shown at most, and how wide a letter is about: pixels of the screen, or mm."""

    width: float
    height: float
    letter: float

    def scale(self, cut: SheetCut) -> float:
        """About how large a millimetre of the sheet is."""
        return min(self.width / cut.width_mm, self.height / cut.height_mm) * 0.85


SCREEN: Final = Shown(420, 330, 8.0)
NAMED_SHARE: Final = 0.07
"""A piece whose shorter side is a smaller share of its sheet is told in the list alone."""


LETTER_SHARE: Final = 0.15
"""The same of a small picture."""


def letters(cuts: Sequence[StockCut]) -> dict[str, str]:
    """A letter for each part, by its key, in the order they are listed: A to Z, then A1."""
    return {
        cut.part.key: chr(ord("A") + number % 26) + (str(number // 26) if number >= 26 else "")
        for number, cut in enumerate(cuts)
    }


def sheet(
    plan: StockPlan, cut: SheetCut, parts: Sequence[StockCut], ruler: Ruler, shown: Shown = SCREEN
) -> Drawing:
    """One sheet of ``plan``, its pieces called by the letters of ``parts``."""
    stock, named = plan.stock, letters(parts)
    width, height = cut.width_mm, cut.height_mm
    known = {part.part.key: part.part for part in parts}
    shapes: list[Shape] = [Rect(0, 0, width, height, "stock")]
    shapes += _offcuts(cut, ruler, shown)
    shapes += unusable(width, height, *plan.unusable(cut))
    for piece in cut.pieces:
        shapes += _grid(piece, 0.0, 0.0, stock.swatch)
        if piece.count <= MOST_DRAWN:
            shapes += folds(known[piece.part], piece)
    shapes += _cut_lines(cut, shown)
    shapes += _grain(cut, stock, shown)
    least = NAMED_SHARE * max(width, height)
    shapes += [
        _letter(named[piece.part], x, y, piece, folded=bool(known[piece.part].folds))
        for piece in cut.pieces
        if min(piece.width_mm, piece.height_mm) >= least and piece.count <= MOST_DRAWN
        for x, y in corners(piece)
    ]
    listed = ", ".join(f"{count} × {known[key].name}" for key, count in counts(cut, parts).items())
    return Drawing(
        width,
        height,
        f"{listed} out of one sheet of {stock.name}, by {len(cut.cuts)} cuts.",
        shapes,
        dims=(Dim("bottom", 0, width, ruler.number(width)), Dim("left", 0, height, ruler.number(height))),
        spots=(ControlSpot("corner", 0, 0),),
    )


def cut_already(fact: CutSheet, parts: Sequence[StockCut]) -> Drawing:
    """A sheet that was cut, small: its pieces by the letters of ``parts``, where the book still has them."""
    cut, named = fact.sheet, letters(parts)
    swatch = next((part.stock.swatch for part in parts), "grey")
    shapes: list[Shape] = [Rect(0, 0, cut.width_mm, cut.height_mm, "stock")]
    for piece in cut.pieces:
        shapes += _grid(piece, 0.0, 0.0, swatch)
        x, y = piece.x_mm + piece.across * piece.width_mm / 2, piece.y_mm + piece.down * piece.height_mm / 2
        if piece.part in named and min(piece.width_mm, piece.height_mm) >= LETTER_SHARE * cut.width_mm:
            shapes.append(Label(x, y, named[piece.part], "panel-name"))
    listed = ", ".join(f"{count} × {dict(fact.names)[key]}" for key, count in cut.counts().items())
    return Drawing(cut.width_mm, cut.height_mm, f"Cut already: {listed} out of {fact.material}.", shapes)


def _letter(letter: str, x: float, y: float, piece: CutPiece, folded: bool) -> Label:
    """The letter of a piece in its middle; beside the folds where it has some."""
    share = (0.22, 0.3) if folded else (0.5, 0.5)
    return Label(x + piece.width_mm * share[0], y + piece.height_mm * share[1], letter, "panel-name")


def alone(cut: StockCut, ruler: Ruler) -> Drawing:
    """A sheet that a piece does not come out of, with the piece from its corner, as large as it is."""
    stock, part = cut.stock, cut.part
    width, height = stock.sheet_width_mm, stock.sheet_height_mm
    return Drawing(
        max(width, part.width_mm),
        max(height, part.height_mm),
        f"One sheet of {stock.name} is too small for the {part.name}.",
        [
            Rect(0, 0, part.width_mm, part.height_mm, "under"),
            Rect(0, 0, width, height, "stock"),
            Label(width / 2, height / 2, "none comes out", "warning"),
        ],
        dims=(Dim("bottom", 0, width, ruler.number(width)), Dim("left", 0, height, ruler.number(height))),
    )


def counts(cut: SheetCut, parts: Sequence[StockCut]) -> Mapping[str, int]:
    """How many pieces of each of ``parts`` lie on a sheet, by the part's key, in the order of the list."""
    found = {part.part.key: 0 for part in parts}
    for piece in cut.pieces:
        found[piece.part] += piece.count
    return {key: count for key, count in found.items() if count}


def corners(piece: CutPiece) -> list[tuple[float, float]]:
    """The left upper corner of every piece of a grid."""
    return [
        (piece.x_mm + column * piece.width_mm, piece.y_mm + row * piece.height_mm)
        for row in range(piece.down)
        for column in range(piece.across)
    ]


def _grid(piece: CutPiece, left: float, top: float, swatch: str) -> list[Shape]:
    """Pieces each by itself; of very many only the rows and columns are drawn, and how many they are."""
    width, height, style = piece.width_mm, piece.height_mm, f"piece swatch-{swatch}"
    if piece.count <= MOST_DRAWN:
        return [Rect(left + x, top + y, width, height, style) for x, y in corners(piece)]
    x, y = left + piece.x_mm, top + piece.y_mm
    wide, high = piece.across * width, piece.down * height
    shapes: list[Shape] = [Rect(x, y, wide, high, style)]
    shapes += [Line(x + n * width, y, x + n * width, y + high, "weave") for n in _some(piece.across)]
    shapes += [Line(x, y + n * height, x + wide, y + n * height, "weave") for n in _some(piece.down)]
    shapes.append(Label(x + wide / 2, y + high / 2, f"{piece.across} × {piece.down}", "panel-name"))
    return shapes


def _some(count: int) -> range:
    """The lines between so many pieces, at most a few dozen of them."""
    return range(1, count, max(1, count // MOST_LINES))


def _offcuts(cut: SheetCut, ruler: Ruler, shown: Shown) -> list[Shape]:
    """What is left, hatched; what is worth keeping has its size where there is room for it."""
    shapes: list[Shape] = []
    step = max(cut.width_mm, cut.height_mm) / HATCH
    for x, y, width, height in cut.offcuts:
        shapes.append(Rect(x, y, width, height, "offcut"))
        shapes += _hatching(x, y, width, height, step)
        words = ruler.size(width, height)
        if (
            min(width, height) >= OFFCUT_MM
            and width * shown.scale(cut) > shown.letter * len(words)
            and height > 1.4 * step
        ):
            shapes.append(Label(x + width / 2, y + height / 2, words, "quiet"))
    return shapes


def _hatching(x: float, y: float, width: float, height: float, step: float) -> list[Shape]:
    """Slanting lines within a rectangle, ``step`` apart along its sides and the same all over the sheet."""
    shapes: list[Shape] = []
    first = int((x + y) // step) + 1
    last = int((x + y + width + height) // step)
    for number in range(first, last + 1):
        across = number * step  # the line x + y = across
        left = max(x, across - y - height)
        right = min(x + width, across - y)
        if right > left:
            shapes.append(Line(left, across - left, right, across - right, "hatch"))
    return shapes


def _cut_lines(cut: SheetCut, shown: Shown) -> list[Shape]:
    """The cuts where they run, numbered in their order while there are not too many: outside the sheet where
    a cut begins or ends at its edge, and never two numbers on each other."""
    shapes: list[Shape] = []
    taken: list[tuple[float, float]] = []
    near, unit = shown.letter * 2 / shown.scale(cut), shown.letter / SCREEN.letter
    for line in cut.cuts:
        upright = line.axis == "upright"
        to_x = line.x_mm if upright else line.x_mm + line.length_mm
        to_y = line.y_mm + line.length_mm if upright else line.y_mm
        shapes.append(Line(line.x_mm, line.y_mm, to_x, to_y, "cut-line"))
        if len(cut.cuts) > MOST_NUMBERED:
            continue
        if upright:
            x, y, shift = line.x_mm, line.y_mm, (0.0, -4.0 if line.y_mm == 0 else 13.0)
        elif to_x == cut.width_mm:
            x, y, shift = to_x, to_y, (9.0, 5.0)
        else:
            x, y, shift = line.x_mm, line.y_mm, (9.0, 5.0)
        while any(abs(x - other) < near and abs(y - beside) < near for other, beside in taken):
            shift = (shift[0], shift[1] + 16.0) if upright else (shift[0] + 14.0, shift[1])
            x, y = (x, y + near) if upright else (x + near, y)
        taken.append((x, y))
        at = (line.x_mm, line.y_mm) if upright or to_x != cut.width_mm else (to_x, to_y)
        shapes.append(Label(*at, str(line.number), "cut-number", shift=(shift[0] * unit, shift[1] * unit)))
    return shapes


def folds(part: Part, piece: CutPiece) -> list[Line]:
    """The folds of a part on pieces as they lie."""
    lines = []
    for x, y in corners(piece):
        for fold in part.folds:
            at = fold.position_mm
            if piece.turned == (fold.axis == "upright"):
                lines.append(Line(x, y + at, x + piece.width_mm, y + at, "score"))
            else:
                lines.append(Line(x + at, y, x + at, y + piece.height_mm, "score"))
    return lines


def _grain(cut: SheetCut, stock: Stock, shown: Shown) -> list[Shape]:
    """The arrow of the sheet's grain: in the largest offcut that has room for it beside its size, else in the
    corner of the first piece."""
    if not stock.grain:
        return []
    long = 0.14 * max(cut.width_mm, cut.height_mm)
    wide, high = (1.2 * long, 0.5 * long) if stock.grain == "w" else (0.5 * long, 1.2 * long)
    for x, y, width, height in sorted(cut.offcuts, key=lambda box: -box[2] * box[3]):
        if width - 2 * wide > 12 * shown.letter / shown.scale(cut) and height > high:
            return list(grain_arrow(x + width - wide * 0.7, y + height / 2, long, stock.grain))
        if width > wide and height > 4 * high:
            return list(grain_arrow(x + width / 2, y + height * 0.75, long, stock.grain))
    piece = cut.pieces[0]
    return list(
        grain_arrow(
            piece.x_mm + piece.width_mm * 0.25, piece.y_mm + piece.height_mm * 0.75, long, stock.grain
        )
    )


@strip.register
def small(result: CuttingResult, _plan: Plan) -> Drawing:
    """The first sheet of each material, one above the other."""
    shapes: list[Shape] = []
    top = 0.0
    shown = [(plan, plan.sheets[0]) for plan in result.plans if plan.sheets][:MOST_STOCKS]
    widest = max((cut.width_mm for _, cut in shown), default=40.0)
    for plan, cut in shown:
        left = (widest - cut.width_mm) / 2
        shapes.append(Rect(left, top, cut.width_mm, cut.height_mm, "stock"))
        shapes += [shape for piece in cut.pieces for shape in _grid(piece, left, top, plan.stock.swatch)]
        top += cut.height_mm + 30
    return Drawing(widest, max(top - 30, 40.0), "sheets", shapes)
