"""The dummy of numbered sections, small, to be cut out and folded."""

from __future__ import annotations

from typing import Final

from pleat.core.pleats.pages.folding import COLUMNS_ROWS
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.whole.planning import Plan
from pleat.drawing.pages.sections import numbered
from pleat.drawing.shapes import Drawing, Label, Shape
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken, shortened
from pleat.printing.pen import PRINT, STYLES

_CELL_MM: Final = (11.0, 15.0)
"""A page on the dummy."""
_FOLDED: Final = {
    1: "fold once, inner side inside",
    2: "fold head to tail, then the spine, inner side inside; slit the head",
    3: "fold the fore edge over, then head to tail, then the spine, inner side inside; slit head and fore "
    "edge",
}


@pages_of.register
def _dummies(block: SectionsBlock, _plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """The dummy: every sheet with its page numbers, inner and outer side, as many a page as fit; none for a
    blank book."""
    sheets = block.numbered
    if not sheets:
        return []
    columns, rows = COLUMNS_ROWS[block.folds]
    named = any(sheet.name for sheet in sheets)
    pair, tall = 2 * columns * _CELL_MM[0] + 14, rows * _CELL_MM[1] + 7
    told = broken(_how_to_use(block), STYLES["small"], width - 2 * MARGIN_MM)
    top = len(told) * 3.8 + 5
    across, down = max(1, int((width - 2 * MARGIN_MM) / pair)), max(1, int((room - top) / tall))
    bodies: list[tuple[str, str]] = []
    for start in range(0, len(sheets), across * down):
        shapes: list[Shape] = [
            Label(0, number * 3.8, line, "small", "start") for number, line in enumerate(told)
        ]
        body = [render_print(Drawing(1, 1, "told", shapes), MARGIN_MM, MARGIN_MM + HEAD_MM - 3, PRINT)]
        for number, sheet in enumerate(sheets[start : start + across * down]):
            x, y = MARGIN_MM + number % across * pair, MARGIN_MM + HEAD_MM + top + number // across * tall
            name = " " + sheet.name if named else ""
            which = shortened(f"{sheet.section}.{sheet.sheet}{name}", STYLES["small"], pair - 4)
            body.append(
                render_print(
                    Drawing(1, 1, "name", [Label(0, 0, which, "small", "start", (0, -1.2))]), x, y, PRINT
                )
            )
            body += [
                render_print(
                    numbered(sheet, inner, *_CELL_MM),
                    x + (0 if inner else columns * _CELL_MM[0] + 5),
                    y,
                    PRINT,
                )
                for inner in (True, False)
            ]
        bodies.append(("dummy", "".join(body)))
    return bodies


def _how_to_use(block: SectionsBlock) -> str:
    """What the numbers at the sheets mean, and how the small book is cut, glued and folded."""
    sections = len(block.sections)
    ends = "Nest each section's sheets from 1, the outermost, inward" + (
        ", and lay the sections on one another" if sections > 1 else ""
    )
    return (
        "2.3 is section 2, sheet 3; of each pair the left is the inner side, the right the outer one. Cut "
        "out both, glue them back to back, "
        f"the short lines (heads) together, and {_FOLDED[block.folds]}. {ends}: the numbers then run as the "
        "book's pages will."
    )
