"""Pages to print, in mm: strips side by side where they fit, the part list, and on every page the bars to
check the printer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape
from typing import Final, Literal

from pleat.core.base.units import MM_PER_INCH
from pleat.core.whole.overview import Overview, overview
from pleat.core.whole.planning import Plan
from pleat.drawing.shapes import Drawing, Label, Line, Rect, Shape
from pleat.drawing.svg import render_print
from pleat.printing import card, covers, cutting, dummy, extras, folded, jigs  # noqa: F401 - make their pages known
from pleat.printing.further import pages_of
from pleat.printing.glance import glance
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken, length_mm, shortened
from pleat.printing.parts import part_rows
from pleat.printing.pen import PRINT, STYLES
from pleat.printing.strips import Tile, draw, strips_of, tiles

PaperName = Literal["a4", "letter"]
PAPERS: Final[dict[PaperName, tuple[float, float]]] = {
    "a4": (210.0, 297.0),
    "letter": (8.5 * MM_PER_INCH, 11 * MM_PER_INCH),
}
_FOOT_MM: Final = 20.0
_LINE_MM: Final = 5.2
_NAMES_MM: Final = 52.0
"""Room for the names in the part list."""


@dataclass(frozen=True)
class PrintSheet:
    """One page: its size in mm and its SVG."""

    width_mm: float
    height_mm: float
    title: str
    svg: str


def suggested(plan: Plan) -> PaperName:
    """The paper that is probably in the printer: letter where the maker works in inches or folds sheets of a
    US size."""
    us = {plan.paper.leaf.size_name, plan.paper.cover.size_name} & {
        "letter",
        "legal",
        "tabloid",
        "half letter",
    }
    return "letter" if plan.brief.ruler.name == "in" or us else "a4"


def print_sheets(
    plan: Plan, title: str, paper: PaperName, over: Overview | None = None
) -> tuple[PrintSheet, ...]:
    """All pages of a book: the whole at one glance, the strips, the dummy of a numbered one, then the part
    list."""
    width, height = PAPERS[paper]
    room = height - 2 * MARGIN_MM - HEAD_MM - _FOOT_MM
    lanes = [tile for _, result in plan for strip in strips_of(result, plan) for tile in tiles(strip, room)]
    groups = _grouped(lanes, width - 2 * MARGIN_MM)
    lists = _part_lists(plan, width, room)
    bodies = [("the book", glance(plan, over or overview(plan, {}), width, room))]
    bodies += [("true size", _strips(group)) for group in groups]
    bodies += [page for _, result in plan for page in pages_of(result, plan, width, room)] + [
        ("parts", body) for body in lists
    ]
    return tuple(
        _page(body, width, height, title, f"{what}, {number} of {len(bodies)}")
        for number, (what, body) in enumerate(bodies, 1)
    )


def _lane_mm(tile: Tile) -> float:
    """How wide a strip is with the words beside it."""
    words = [length_mm(mark.text, STYLES["bold"]) for mark in tile.strip.marks]
    return (
        max(tile.strip.labels_mm + max(words, default=0.0), length_mm(tile.strip.name, STYLES["label"])) + 5.0
    )


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


def _page(body: str, width: float, height: float, title: str, note: str) -> PrintSheet:
    return bare_page(body, width, height, title, note, _bars(MARGIN_MM, height - MARGIN_MM - 11))


def bare_page(
    body: str, width: float, height: float, title: str, note: str, foot: Sequence[Shape] = ()
) -> PrintSheet:
    """A page with its title and what it is; ``foot`` are the bars of one that is at true size."""
    frame = Drawing(
        width,
        height,
        "page",
        [
            Label(
                MARGIN_MM,
                MARGIN_MM + 6,
                shortened(title, STYLES["title"], width - 2 * MARGIN_MM - 45),
                "title",
                "start",
            ),
            Label(width - MARGIN_MM, MARGIN_MM + 6, note, "label", "end"),
            *foot,
        ],
    )
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.4f}mm" height="{height:.4f}mm" viewBox="0 0 '
        f'{width:.4f} {height:.4f}" role="img" aria-label="{escape(note)}">'
        f'<rect width="{width:.4f}" height="{height:.4f}" '
        f'fill="#fff"/>{render_print(frame, 0, 0, PRINT)}{body}</svg>'
    )
    return PrintSheet(width, height, note, svg)


def _bars(x: float, y: float) -> list[Shape]:
    """A 100 mm and a 4 in bar, in tenths and inches, with the word on what to do when they are not right."""
    shapes: list[Shape] = [
        Rect(x + 10 * n, y, 10, 2.4, "bar" if n % 2 == 0 else "bar-empty") for n in range(10)
    ]
    shapes += [
        Rect(x + MM_PER_INCH * n, y + 4.6, MM_PER_INCH, 2.4, "bar" if n % 2 == 0 else "bar-empty")
        for n in range(4)
    ]
    shapes += [
        Label(x + 105, y + 2.3, "100 mm", "label", "start"),
        Label(x + 105, y + 6.9, "4 in", "label", "start"),
        Label(
            x,
            y + 11,
            "Lay a ruler on both bars. If they are off, print again at 100 %, “actual size”, without fitting "
            "to the page.",
            "small",
            "start",
        ),
    ]
    return shapes


def _strips(lanes: list[Tile]) -> str:
    body, x, y = [], MARGIN_MM, MARGIN_MM + HEAD_MM
    for tile in lanes:
        name = Drawing(1, 1, "name", [Label(0, 0, tile.strip.name, "label", "start", (0, -2))])
        body.append(render_print(name, x, y, PRINT) + render_print(draw(tile), x, y, PRINT))
        x += _lane_mm(tile)
    return "".join(body)


def _part_lists(plan: Plan, width: float, room: float) -> list[str]:
    """Every part, sheet and figure a maker wants beside the knife, on as many pages as it takes."""
    pages: list[list[Shape]] = [[]]
    top = MARGIN_MM + HEAD_MM + 4
    y = top
    for name, text in part_rows(plan):
        names = broken(name, STYLES["bold"], _NAMES_MM - 3)
        lines = broken(text, STYLES["label"], width - 2 * MARGIN_MM - _NAMES_MM)
        tall = max(len(names), len(lines)) * _LINE_MM + 3.6
        if y + tall > top + room and pages[-1]:
            pages.append([])
            y = top
        pages[-1] += [
            Label(MARGIN_MM, y + n * _LINE_MM, line, "bold", "start") for n, line in enumerate(names)
        ]
        pages[-1] += [
            Label(MARGIN_MM + _NAMES_MM, y + n * _LINE_MM, line, "label", "start")
            for n, line in enumerate(lines)
        ]
        y += tall
        pages[-1].append(Line(MARGIN_MM, y - 6.0, width - MARGIN_MM, y - 6.0, "rule"))
    return [render_print(Drawing(1, 1, "parts", shapes), 0, 0, PRINT) for shapes in pages]
