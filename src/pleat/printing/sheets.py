"""Pages to print, in mm: strips side by side where they fit, the part list, and on every page the bars to check the printer."""

from __future__ import annotations

from dataclasses import dataclass
from html import escape
from textwrap import wrap
from typing import Final, Literal

from pleat.core.pages.folding import COLUMNS_ROWS
from pleat.core.planning import Plan
from pleat.core.units import MM_PER_INCH
from pleat.drawing.pages import numbered
from pleat.drawing.shapes import Drawing, Label, Line, Rect, Shape
from pleat.drawing.svg import render_print
from pleat.printing.pen import PRINT
from pleat.printing.strips import STRIP_MM, Tile, draw, score_strip, station_strip, tiles

PaperName = Literal["a4", "letter"]
PAPERS: Final[dict[PaperName, tuple[float, float]]] = {"a4": (210.0, 297.0), "letter": (8.5 * MM_PER_INCH, 11 * MM_PER_INCH)}
MARGIN_MM: Final = 12.0
_HEAD_MM: Final = 16.0
_FOOT_MM: Final = 20.0
_LANE_MM: Final = STRIP_MM + 34.0
_CELL_MM: Final = (11.0, 15.0)
"""A page on the dummy."""


@dataclass(frozen=True)
class Sheet:
    """One page: its size in mm and its SVG."""

    width_mm: float
    height_mm: float
    title: str
    svg: str


def print_sheets(plan: Plan, title: str, paper: PaperName) -> tuple[Sheet, ...]:
    """All pages of a book: the strips, then the part list."""
    width, height = PAPERS[paper]
    room = height - 2 * MARGIN_MM - _HEAD_MM - _FOOT_MM
    lanes = [tile for strip in (station_strip(plan), score_strip(plan)) for tile in tiles(strip, room)]
    per_page = max(1, int((width - 2 * MARGIN_MM) / _LANE_MM))
    groups = [lanes[i : i + per_page] for i in range(0, len(lanes), per_page)]
    dummies = _dummies(plan, width, room)
    total = len(groups) + len(dummies) + 1
    pages = [_page(_strips(group), width, height, title, f"true size, {number} of {total}") for number, group in enumerate(groups, 1)]
    pages += [_page(body, width, height, title, f"dummy, {number} of {total}") for number, body in enumerate(dummies, len(groups) + 1)]
    pages.append(_page(_part_list(plan, width), width, height, title, f"parts, {total} of {total}"))
    return tuple(pages)


def _page(body: str, width: float, height: float, title: str, note: str) -> Sheet:
    frame = Drawing(
        width,
        height,
        "page",
        [
            Label(MARGIN_MM, MARGIN_MM + 6, title, "title", "start"),
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
    body = []
    for number, tile in enumerate(lanes):
        x, y = MARGIN_MM + number * _LANE_MM, MARGIN_MM + _HEAD_MM
        name = Drawing(1, 1, "name", [Label(0, 0, tile.strip.name, "label", "start", (0, -2))])
        body.append(render_print(name, x, y, PRINT) + render_print(draw(tile), x, y, PRINT))
    return "".join(body)


def _dummies(plan: Plan, width: float, room: float) -> list[str]:
    """The dummy: every sheet with its page numbers, inner and outer side, as many a page as fit; empty for a blank book."""
    if not plan.pages.numbered:
        return []
    columns, rows = COLUMNS_ROWS[plan.pages.folds]
    pair, tall = 2 * columns * _CELL_MM[0] + 14, rows * _CELL_MM[1] + 12
    across, down = max(1, int((width - 2 * MARGIN_MM) / pair)), max(1, int(room / tall))
    bodies = []
    for start in range(0, len(plan.pages.numbered), across * down):
        body = []
        for number, sheet in enumerate(plan.pages.numbered[start : start + across * down]):
            x, y = MARGIN_MM + number % across * pair, MARGIN_MM + _HEAD_MM + number // across * tall + 4
            which = f"{sheet.section}.{sheet.sheet} {sheet.name[:24]}" if sheet.name else f"section {sheet.section}, sheet {sheet.sheet}"
            name = f"{which}: inner side, outer side"
            body.append(render_print(Drawing(1, 1, "name", [Label(0, 0, name, "small", "start", (0, -1.5))]), x, y, PRINT))
            body += [
                render_print(numbered(sheet, inner, *_CELL_MM), x + (0 if inner else columns * _CELL_MM[0] + 5), y, PRINT)
                for inner in (True, False)
            ]
        bodies.append("".join(body))
    return bodies


def _part_list(plan: Plan, width: float) -> str:
    """Every part, sheet and figure a maker wants beside the knife."""
    ruler = plan.brief.ruler
    rows: list[tuple[str, str]] = []
    for cut in plan.cutting.cuts:
        sheets = f"{cut.sheets} of {cut.stock.name}, {cut.better.count} a sheet" if cut.sheets else f"does not come out of {cut.stock.name}"
        grain = "" if cut.stock.role == "pile" else ", grain along the height"
        rows.append(
            (
                f"{cut.part.count} × {cut.part.name}",
                f"{ruler.size(cut.part.width_mm, cut.part.height_mm)}{grain}; {sheets}",
            )
        )
    scores = " and ".join(ruler.number(score) for score in plan.cover.wrap.scores_mm)
    marks = ", ".join(ruler.number(position) for position in plan.binding.positions_mm)
    rows += [
        (
            "pages",
            plan.pages.in_words + (f", in {len(plan.pages.sections)} sections" if len(plan.pages.sections) > 1 else ""),
        ),
        ("section at the fold", f"{ruler.thin(plan.pages.thickness.low)} to {ruler.thin(plan.pages.thickness.high)}"),
        ("stations from the head", f"{marks} {ruler.name}"),
        (
            "thread",
            f"{ruler.show(ruler.snap_up(plan.binding.need.total_mm))} of {plan.binding.thread_name}, {'double' if plan.binding.strands == 2 else 'single'}, knot {plan.binding.path.start_side}",
        ),
        ("cover scores", f"{scores} {ruler.name} from the left edge, outside up"),
    ]
    warnings = [(f"! {name}", check.title) for name, check in plan.checks if check.level != "note"]
    shapes: list[Shape] = []
    y = MARGIN_MM + _HEAD_MM + 4
    for name, text in (*rows, *warnings):
        shapes.append(Label(MARGIN_MM, y, name, "bold", "start"))
        for line in wrap(text, 72) or [""]:
            shapes.append(Label(MARGIN_MM + 52, y, line, "label", "start"))
            y += 5.2
        shapes.append(Line(MARGIN_MM, y - 2.4, width - MARGIN_MM, y - 2.4, "rule"))
        y += 3.6
    return render_print(Drawing(1, 1, "parts", shapes), 0, 0, PRINT)
