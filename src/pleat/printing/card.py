"""The step card of a sewing: the spine as it will be, and every move by its number, in columns to be read at
arm's length.

A long sewing repeats: its first sections and its last are told in full, those between by the pair they are
sewn like.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.engines.sewing.chapters import Chapter, chapters
from pleat.core.engines.sewing.words import told
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.whole.planning import Plan
from pleat.drawing.binding.fold import alike, side_view
from pleat.drawing.binding.spine import Spread, spine_shapes
from pleat.drawing.shapes import Drawing, Label, Line, Shape
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken
from pleat.printing.pen import PRINT, STYLES, for_paper

TOLD: Final = 4
"""Parts at the beginning that are told in full where there are many."""
COLUMNS: Final = 2
_LINE_MM: Final = 5.0
_GAP_MM: Final = 8.0


@pages_of.register
def _cards(result: SewnResult, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """The card on as many pages as it takes; none without a thread."""
    if not result.sewing.threads:
        return []
    wide = (width - 2 * MARGIN_MM - _GAP_MM * (COLUMNS - 1)) / COLUMNS
    picture, tall = _picture(result, plan, width - 2 * MARGIN_MM)
    left_over = lines(result, plan, wide)
    bodies: list[tuple[str, str]] = []
    while left_over:
        top = MARGIN_MM + HEAD_MM + (tall if not bodies else 0.0)
        left = room - (tall if not bodies else 0.0)
        shapes: list[Shape] = []
        for column in range(COLUMNS):
            x, y = MARGIN_MM + column * (wide + _GAP_MM), top
            while left_over and (y + left_over[0][1] <= top + left or y == top):
                block, high = left_over.pop(0)
                shapes += [_moved(shape, x, y) for shape in block]
                y += high
        bodies.append(
            (
                "step card",
                (picture if not bodies else "") + render_print(Drawing(1, 1, "card", shapes), 0, 0, PRINT),
            )
        )
    return bodies


def _picture(result: SewnResult, plan: Plan, wide: float) -> tuple[str, float]:
    """The sewing as the pleat draws it, fitted to the page, and how much room it takes."""
    flat = alike(result) or result.rows == 1
    if flat:
        seen = side_view(result, plan.brief.ruler)
        drawing = Drawing(seen.width, seen.height, seen.says, [for_paper(shape) for shape in seen.shapes])
    else:
        spread = Spread.of(result)
        shapes = spine_shapes(result, spread, steps=False)
        shapes += [
            Label(x, spread.edges[-1], str(number), "station-number", shift=(0, 4))
            for number, x in enumerate(result.positions_mm, 1)
        ]
        drawing = Drawing(result.height_mm, spread.edges[-1] + 4, "the spine", shapes)
    scale = min(wide / drawing.width, 60 / drawing.height, 1.0)
    group = render_print(drawing, 0, 0, PRINT)
    x, y = MARGIN_MM, MARGIN_MM + HEAD_MM
    said = (
        "one section from the side: thread inside above, outside below"
        if flat
        else "the spine from outside, head on the left, front on top; dashed thread is inside"
    )
    label = render_print(
        Drawing(1, 1, "said", [Label(0, 0, said, "small", "start")]), x, y + drawing.height * scale + 4, PRINT
    )
    return (
        f'<g transform="translate({x:.2f} {y:.2f}) scale({scale:.4f})">{group}</g>{label}',
        drawing.height * scale + 10,
    )


def lines(result: SewnResult, plan: Plan, wide: float) -> list[tuple[list[Shape], float]]:
    """Blocks of the card with their heights: a head for each part, a line or more for each move."""
    parts = chapters(result.sewing)
    tail = f"a tail of {plan.brief.ruler.show(result.tail_mm)}"
    moves = [words for thread in told(result.sewing, tail) for words in thread]
    shown = (*parts[:TOLD], parts[-1]) if len(parts) > TOLD + 2 and _repeats(result, parts) else parts
    found: list[tuple[list[Shape], float]] = []
    for part in shown:
        if part is parts[-1] and len(shown) < len(parts):
            between = (
                f"Sections {parts[TOLD].high} to {parts[-2].high}: as sections {parts[TOLD - 2].high} "
                f"and {parts[TOLD - 1].high}, in turn."
            )
            found.append(_block(between, "bold", wide, 0.0))
        if len(parts) > 1:
            found.append(_block(_head(part, result), "bold", wide, 2.0))
        for step in range(part.first, part.last + 1):
            on = " Knot on the next length here." if step in result.need.knots_on else ""
            found.append(
                _block(f"{moves[step][0].upper()}{moves[step][1:]}.{on}", "label", wide, 0.0, str(step + 1))
            )
    return found


def _repeats(result: SewnResult, parts: Sequence[Chapter]) -> bool:
    """Whether every part between the first ones and the last is sewn like the second one before it, sections
    further on."""
    moves = [move for thread in result.sewing.threads for move in thread]
    alike = [
        [
            (move.do, move.row - part.high, move.at, move.side, move.what)
            for move in moves[part.first : part.last + 1]
        ]
        for part in parts
    ]
    return all(alike[number] == alike[number - 2] for number in range(TOLD, len(parts) - 1))


def _head(part: Chapter, result: SewnResult) -> str:
    if result.rows == 1 or len(result.sewing.threads) > result.rows:
        return f"Thread {part.thread + 1}"
    return f"Section {part.high}" if part.low == part.high else f"Sections {part.low} and {part.high}"


def _block(text: str, style: str, wide: float, above: float, number: str = "") -> tuple[list[Shape], float]:
    indent = 9.0 if number else 0.0
    lines = broken(text, STYLES[style], wide - indent)
    shapes: list[Shape] = [
        Label(indent, above + (row + 0.8) * _LINE_MM, line, style, "start") for row, line in enumerate(lines)
    ]
    if number:
        shapes.append(Label(indent - 2.5, above + 0.8 * _LINE_MM, number, "bold", "end"))
    return shapes, above + len(lines) * _LINE_MM + (0.8 if number else 1.5)


def _moved(shape: Shape, x: float, y: float) -> Shape:
    assert isinstance(shape, Label | Line)
    if isinstance(shape, Label):
        return Label(shape.x + x, shape.y + y, shape.text, shape.style, shape.anchor)
    return Line(shape.x1 + x, shape.y1 + y, shape.x2 + x, shape.y2 + y, shape.style)
