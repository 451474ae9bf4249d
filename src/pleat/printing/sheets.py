"""Pages to print, in mm: strips side by side where they fit, the part list, and on every page the bars to check the printer."""

from __future__ import annotations

from dataclasses import dataclass
from html import escape
from typing import Final, Literal

from pleat.core.pages.folding import COLUMNS_ROWS
from pleat.core.planning import Plan
from pleat.core.units import MM_PER_INCH
from pleat.drawing.pages import numbered
from pleat.drawing.shapes import Drawing, Label, Line, Rect, Shape
from pleat.drawing.svg import render_print
from pleat.printing.letters import broken, length_mm, shortened
from pleat.printing.parts import part_rows
from pleat.printing.pen import PRINT, STYLES
from pleat.printing.strips import LABELS_MM, Tile, draw, score_strip, station_strip, tiles

PaperName = Literal["a4", "letter"]
PAPERS: Final[dict[PaperName, tuple[float, float]]] = {"a4": (210.0, 297.0), "letter": (8.5 * MM_PER_INCH, 11 * MM_PER_INCH)}
MARGIN_MM: Final = 12.0
_HEAD_MM: Final = 16.0
_FOOT_MM: Final = 20.0
_LINE_MM: Final = 5.2
_NAMES_MM: Final = 52.0
"""Room for the names in the part list."""
_CELL_MM: Final = (11.0, 15.0)
"""A page on the dummy."""


@dataclass(frozen=True)
class Sheet:
    """One page: its size in mm and its SVG."""

    width_mm: float
    height_mm: float
    title: str
    svg: str


def suggested(plan: Plan) -> PaperName:
    """The paper that is probably in the printer: letter where the maker works in inches or folds sheets of a US size."""
    us = {plan.paper.leaf.size_name, plan.paper.cover.size_name} & {"letter", "legal", "tabloid", "half letter"}
    return "letter" if plan.brief.ruler.name == "in" or us else "a4"


def print_sheets(plan: Plan, title: str, paper: PaperName) -> tuple[Sheet, ...]:
    """All pages of a book: the strips, the dummy of a numbered one, then the part list."""
    width, height = PAPERS[paper]
    room = height - 2 * MARGIN_MM - _HEAD_MM - _FOOT_MM
    lanes = [tile for strip in (station_strip(plan), score_strip(plan)) for tile in tiles(strip, room)]
    groups = _grouped(lanes, width - 2 * MARGIN_MM)
    dummies, lists = _dummies(plan, width, room), _part_lists(plan, width, room)
    bodies = [("true size", _strips(group)) for group in groups]
    bodies += [("dummy", body) for body in dummies] + [("parts", body) for body in lists]
    return tuple(_page(body, width, height, title, f"{what}, {number} of {len(bodies)}") for number, (what, body) in enumerate(bodies, 1))


def _lane_mm(tile: Tile) -> float:
    """How wide a strip is with the words beside it."""
    words = [length_mm(mark.text, STYLES["bold"]) for mark in tile.strip.marks]
    return max(LABELS_MM + max(words, default=0.0), length_mm(tile.strip.name, STYLES["label"])) + 5.0


def _grouped(lanes: list[Tile], room_mm: float) -> list[list[Tile]]:
    """Strips that stand side by side on a page."""
    groups: list[list[Tile]] = []
    left = 0.0
    for tile in lanes:
        if not groups or _lane_mm(tile) > left:
            groups.append([])
            left = room_mm
        groups[-1].append(tile)
        left -= _lane_mm(tile)
    return groups


def _page(body: str, width: float, height: float, title: str, note: str) -> Sheet:
    frame = Drawing(
        width,
        height,
        "page",
        [
            Label(MARGIN_MM, MARGIN_MM + 6, shortened(title, STYLES["title"], width - 2 * MARGIN_MM - 45), "title", "start"),
            Label(width - MARGIN_MM, MARGIN_MM + 6, note, "label", "end"),
            *_bars(MARGIN_MM, height - MARGIN_MM - 11),
        ],
    )
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.4f}mm" height="{height:.4f}mm" viewBox="0 0 {width:.4f} {height:.4f}" role="img" aria-label="{escape(note)}">'
        f'<rect width="{width:.4f}" height="{height:.4f}" fill="#fff"/>{render_print(frame, 0, 0, PRINT)}{body}</svg>'
    )
    return Sheet(width, height, note, svg)


def _bars(x: float, y: float) -> list[Shape]:
    """A 100 mm and a 4 in bar, in tenths and inches, with the word on what to do when they are not right."""
    shapes: list[Shape] = [Rect(x + 10 * n, y, 10, 2.4, "bar" if n % 2 == 0 else "bar-empty") for n in range(10)]
    shapes += [Rect(x + MM_PER_INCH * n, y + 4.6, MM_PER_INCH, 2.4, "bar" if n % 2 == 0 else "bar-empty") for n in range(4)]
    shapes += [
        Label(x + 105, y + 2.3, "100 mm", "label", "start"),
        Label(x + 105, y + 6.9, "4 in", "label", "start"),
        Label(
            x,
            y + 11,
            "Lay a ruler on both bars. If they are off, print again at 100 %, “actual size”, without fitting to the page.",
            "small",
            "start",
        ),
    ]
    return shapes


def _strips(lanes: list[Tile]) -> str:
    body, x, y = [], MARGIN_MM, MARGIN_MM + _HEAD_MM
    for tile in lanes:
        name = Drawing(1, 1, "name", [Label(0, 0, tile.strip.name, "label", "start", (0, -2))])
        body.append(render_print(name, x, y, PRINT) + render_print(draw(tile), x, y, PRINT))
        x += _lane_mm(tile)
    return "".join(body)


_FOLDED: Final = {
    1: "fold once, inner side inside",
    2: "fold head to tail, then the spine, inner side inside; slit the head",
    3: "fold the fore edge over, then head to tail, then the spine, inner side inside; slit head and fore edge",
}


def _dummies(plan: Plan, width: float, room: float) -> list[str]:
    """The dummy: every sheet with its page numbers, inner and outer side, as many a page as fit; empty for a blank book."""
    found = plan.pages.numbered
    if not found:
        return []
    columns, rows = COLUMNS_ROWS[plan.pages.folds]
    named = any(sheet.name for sheet in found)
    pair, tall = 2 * columns * _CELL_MM[0] + 14, rows * _CELL_MM[1] + 7
    told = broken(_how_to_use_the_dummy(plan), STYLES["small"], width - 2 * MARGIN_MM)
    top = len(told) * 3.8 + 5
    across, down = max(1, int((width - 2 * MARGIN_MM) / pair)), max(1, int((room - top) / tall))
    bodies = []
    for start in range(0, len(found), across * down):
        shapes: list[Shape] = [Label(0, number * 3.8, line, "small", "start") for number, line in enumerate(told)]
        body = [render_print(Drawing(1, 1, "told", shapes), MARGIN_MM, MARGIN_MM + _HEAD_MM - 3, PRINT)]
        for number, sheet in enumerate(found[start : start + across * down]):
            x, y = MARGIN_MM + number % across * pair, MARGIN_MM + _HEAD_MM + top + number // across * tall
            which = shortened(f"{sheet.section}.{sheet.sheet}{' ' + sheet.name if named else ''}", STYLES["small"], pair - 4)
            body.append(render_print(Drawing(1, 1, "name", [Label(0, 0, which, "small", "start", (0, -1.2))]), x, y, PRINT))
            body += [
                render_print(numbered(sheet, inner, *_CELL_MM), x + (0 if inner else columns * _CELL_MM[0] + 5), y, PRINT)
                for inner in (True, False)
            ]
        bodies.append("".join(body))
    return bodies


def _how_to_use_the_dummy(plan: Plan) -> str:
    """What the numbers at the sheets mean, and how the small book is cut, glued and folded."""
    sections = len(plan.pages.sections)
    ends = "Nest each section's sheets from 1, the outermost, inward" + (", and lay the sections on one another" if sections > 1 else "")
    return (
        "2.3 is section 2, sheet 3; of each pair the left is the inner side, the right the outer one. Cut out both, glue them back to back, "
        f"the short lines (heads) together, and {_FOLDED[plan.pages.folds]}. {ends}: the numbers then run as the book's pages will."
    )


def _part_lists(plan: Plan, width: float, room: float) -> list[str]:
    """Every part, sheet and figure a maker wants beside the knife, on as many pages as it takes."""
    pages: list[list[Shape]] = [[]]
    top = MARGIN_MM + _HEAD_MM + 4
    y = top
    for name, text in part_rows(plan):
        names = broken(name, STYLES["bold"], _NAMES_MM - 3)
        lines = broken(text, STYLES["label"], width - 2 * MARGIN_MM - _NAMES_MM)
        tall = max(len(names), len(lines)) * _LINE_MM + 3.6
        if y + tall > top + room and pages[-1]:
            pages.append([])
            y = top
        pages[-1] += [Label(MARGIN_MM, y + n * _LINE_MM, line, "bold", "start") for n, line in enumerate(names)]
        pages[-1] += [Label(MARGIN_MM + _NAMES_MM, y + n * _LINE_MM, line, "label", "start") for n, line in enumerate(lines)]
        y += tall
        pages[-1].append(Line(MARGIN_MM, y - 6.0, width - MARGIN_MM, y - 6.0, "rule"))
    return [render_print(Drawing(1, 1, "parts", shapes), 0, 0, PRINT) for shapes in pages]
