"""How to make it: the whole work on paper, every step with its picture, its words and a box to tick; what to
have ready and every caution once before it, and room for notes after."""

from __future__ import annotations

import base64
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from html import escape
from pathlib import Path
from typing import Final

from pleat.core.base.cautions import GENERAL
from pleat.core.base.plan import Step
from pleat.core.base.words import joined, lasting
from pleat.core.pleats.bench.compute import BenchStep
from pleat.core.whole.overview import Overview, overview
from pleat.core.whole.planning import Plan
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.scenes import numbers, picture
from pleat.drawing.shapes import Drawing, Label, Line, Rect, Shape
from pleat.drawing.svg import render_fitted, render_print
from pleat.printing.glance import glance
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken
from pleat.printing.parts import part_rows
from pleat.printing.pen import PRINT, STYLES, for_paper
from pleat.printing.sheets import PAPERS, PaperName, PrintSheet, bare_page

GAP_MM: Final = 9.0
PICTURE_MM: Final = 66.0
LINE_MM: Final = 4.9
BOX_MM: Final = 4.0
MOST_BOXES: Final = 12
"""Copies that have a box each; of more there is one box for all."""
NOTE_MM: Final = 9.0
LONGEST_NAME: Final = 32
"""Letters of a name in a picture; what is longer is a sentence."""
ROOM_SHARE: Final = 0.16
"""Room beside a drawing in mm, of what it is in px."""
_SIGNS: Final = (
    ("scene-line scene-cut scene-now", "cut here"),
    ("scene-line scene-fold scene-now", "fold or score here"),
    ("scene-line scene-mark scene-now", "mark or bend here, no crease"),
    ("scene-line scene-stop scene-rests", "level with this edge"),
    ("scene-move", "a hand moves it there"),
)


@dataclass(frozen=True)
class _Block:
    """A step set for a column: its words, how high all of it is, its picture and where that begins."""

    shapes: tuple[Shape, ...]
    high: float
    drawing: Drawing
    top: float


def booklet(plan: Plan, title: str, paper: PaperName, over: Overview | None = None) -> tuple[PrintSheet, ...]:
    """All its pages: the book, what to have and what to mind, the steps in columns, notes."""
    width, height = PAPERS[paper]
    room = height - 2 * MARGIN_MM - HEAD_MM
    cautions = tuple(dict.fromkeys(text for one in plan.bench.work for text in one.step.cautions))
    bodies = [("the book", glance(plan, over or overview(plan, {}), width, room))]
    bodies += [("before you begin", body) for body in _before(plan, cautions, width, room)]
    bodies += [("how to make it", body) for body in _steps(plan, cautions, width, room)]
    bodies.append(("notes", _notes(width, room)))
    return tuple(
        bare_page(body, width, height, title, f"{what}, {number} of {len(bodies)}")
        for number, (what, body) in enumerate(bodies, 1)
    )


def _set(text: str, style: str, x: float, y: float, room: float) -> tuple[list[Shape], float]:
    """A text in lines from a baseline on, and where the next line would stand."""
    lines = broken(text, STYLES[style], room)
    return [
        Label(x, y + n * LINE_MM, line, style, "start") for n, line in enumerate(lines)
    ], y + LINE_MM * len(lines)


def _before(plan: Plan, cautions: Sequence[str], width: float, room: float) -> list[str]:
    """What to have ready, the signs of the pictures, and every caution by its number, on as many pages as it
    takes."""
    tools = dict.fromkeys(tool for one in plan.bench.work for tool in one.step.tools)
    wide, top = width - 2 * MARGIN_MM, MARGIN_MM + HEAD_MM + 4
    paragraphs = [("heading", "What to have ready"), ("words", f"Tools: {joined(tools) or 'none'}.")]
    paragraphs += [("words", f"{name}: {text}") for name, text in part_rows(plan)]
    paragraphs += [("heading", "What to mind")]
    paragraphs += [("words", f"{number}  {text}") for number, text in enumerate(cautions, 1)]
    paragraphs += [
        ("words", GENERAL),
    ]
    pages: list[list[Shape]] = [[]]
    y = top
    for style, text in paragraphs:
        shapes, after = _set(text, style, MARGIN_MM, y + (3 if style == "heading" else 0), wide)
        if after > top + room - 8 and pages[-1]:
            pages.append([])
            shapes, after = _set(text, style, MARGIN_MM, top, wide)
        pages[-1] += shapes
        y = after + 1.6
    if y + 8 * (len(_SIGNS) + 1) > top + room - 8:
        pages.append([])
        y = top
    pages[-1].append(Label(MARGIN_MM, y + 3, "What the pictures say", "heading", "start"))
    y += 10
    for style, text in _SIGNS:
        pages[-1].append(Line(MARGIN_MM, y, MARGIN_MM + 18, y, style, arrow=style == "scene-move"))
        pages[-1].append(Label(MARGIN_MM + 24, y + 1.2, text, "words", "start"))
        y += 8
    return [render_print(Drawing(1, 1, "before", shapes), 0, 0, PRINT) for shapes in pages]


def _steps(plan: Plan, cautions: Sequence[str], width: float, room: float) -> list[str]:
    """The steps in two columns; a step stays together."""
    wide, top = (width - 2 * MARGIN_MM - GAP_MM) / 2, MARGIN_MM + HEAD_MM
    blocks = [_block(one, plan, cautions, wide) for one in plan.bench.work]
    pages: list[str] = []
    column, y = 2, top
    for block in blocks:
        if column == 2 or y + block.high > top + room - 4:
            column, y = (column + 1, top) if column < 1 else (0, top)
            if column == 0:
                pages.append("")
        x = MARGIN_MM + column * (wide + GAP_MM)
        pages[-1] += render_print(Drawing(1, 1, "step", block.shapes), x, y, PRINT)
        pages[-1] += render_fitted(block.drawing, x, y + block.top, wide, PICTURE_MM, PRINT)
        y += block.high
    return pages


def _block(one: BenchStep, plan: Plan, cautions: Sequence[str], wide: float) -> _Block:
    """A step: number and title, boxes for the copies, picture, numbers, words, what it takes and waits."""
    step, copies = one.step, plan.brief.quantity
    boxes = 1 if step.for_all or copies > MOST_BOXES else copies
    title, y = _set(f"{one.number}  {step.title}", "heading", 0.0, 5.0, wide)
    shapes = title
    shapes += [Rect(n * (BOX_MM + 1.6), y - 2.4, BOX_MM, BOX_MM, "strip") for n in range(boxes)]
    top = y + BOX_MM
    y = top + PICTURE_MM + 5
    for style, text in _said(step, plan, cautions):
        lines, y = _set(text, style, 0.0, y, wide)
        shapes += lines
    shapes.append(Line(0.0, y - 1.5, wide, y - 1.5, "rule"))
    return _Block(tuple(shapes), y + 3, _on_paper(picture(step, plan)), top)


def _said(step: Step, plan: Plan, cautions: Sequence[str]) -> Iterator[tuple[str, str]]:
    """(style, text) of everything a step says."""
    for where, values in numbers(step, plan):
        yield "numbers", f"{' · '.join(values)} {plan.brief.ruler.name} {where}"
    yield "words", step.detail
    if step.tools:
        yield "words", f"In hand: {', '.join(step.tools)}."
    if step.cautions:
        marks = joined(str(cautions.index(text) + 1) for text in step.cautions)
        yield "numbers", f"Careful: {marks} under “What to mind”."
    if step.wait_minutes:
        yield "numbers", f"Then wait about {lasting(step.wait_minutes)}. Begun at: ____________"
    if step.reading:
        yield "words", "Measured: ____________"


def _on_paper(drawing: Drawing) -> Drawing:
    """A drawing of the screen for paper: numbers stand where a field would be."""
    return replace(
        drawing,
        shapes=tuple(_smaller(for_paper(shape)) for shape in drawing.shapes if not _is_long(shape)),
        dims=tuple(replace(dim, spot="") for dim in drawing.dims),
        room=tuple((side, kept * ROOM_SHARE) for side, kept in drawing.room),
    )


def _is_long(shape: Shape) -> bool:
    """A sentence in a drawing of the screen: in a column the step's own words say it."""
    return isinstance(shape, Label) and len(shape.text) > LONGEST_NAME


def _smaller(shape: Shape) -> Shape:
    """What stands beside a sewing has little room in a column."""
    if isinstance(shape, Label) and shape.style == "side-label":
        return replace(shape, style="small")
    return shape


def _notes(width: float, room: float) -> str:
    """Lines for what to do otherwise next time."""
    top = MARGIN_MM + HEAD_MM + 4
    shapes: list[Shape] = [Label(MARGIN_MM, top, "What I would do otherwise next time", "heading", "start")]
    down = top + NOTE_MM
    while down < top + room - NOTE_MM:
        down += NOTE_MM
        shapes.append(Line(MARGIN_MM, down, width - MARGIN_MM, down, "rule"))
    return render_print(Drawing(1, 1, "notes", shapes), 0, 0, PRINT)


_FONTS: Final = (
    ("Pleat Figures", 400, "atkinson-hyperlegible-next-400.ttf"),
    ("Pleat Figures", 700, "atkinson-hyperlegible-next-700.ttf"),
    ("Pleat Names", 400, "alegreya-600.ttf"),
)


def as_html(sheets: Sequence[PrintSheet], title: str) -> str:
    """All pages in one file that needs no other: to be sent, read on a screen, and printed at true size."""
    faces = "".join(
        f'@font-face{{font-family:"{family}";font-weight:{weight};'
        f"src:url(data:font/ttf;base64,{_font(name)})}}"
        for family, weight, name in _FONTS
    )
    first = sheets[0]
    pages = "".join(f"<section>{sheet.svg}</section>" for sheet in sheets)
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(title)}</title>'
        f'<meta name="viewport" content="width=device-width, initial-scale=1"><style>{faces}'
        f"@page{{size:{first.width_mm:.1f}mm {first.height_mm:.1f}mm;margin:0}}"
        "body{margin:0;background:#eee}section{margin:0 auto 6mm;max-width:max-content;background:#fff}"
        "svg{display:block;max-width:100%;height:auto}"
        "@media print{body{background:none}section{margin:0;break-after:page}svg{max-width:none}}"
        f"</style></head><body>{pages}</body></html>"
    )


def _font(name: str) -> str:
    return base64.b64encode((Path(__file__).parent / "fonts" / name).read_bytes()).decode()
