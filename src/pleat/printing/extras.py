"""What is put in, on paper: every opening that has something on it, with its places and what stays free of
glue, score lists of the pieces, and a list to tick when it is filled."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import accumulate
from typing import Final

from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.extras.base import Face
from pleat.core.pleats.extras.compute import ExtrasResult
from pleat.core.pleats.extras.crossing import mouth_band
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, on_faces
from pleat.core.pleats.structures.work import marks
from pleat.core.whole.planning import Plan
from pleat.drawing.extras import shown_faces
from pleat.drawing.outlines import outline
from pleat.drawing.shapes import Drawing, Label, Line, Rect, Shape, moved
from pleat.drawing.svg import render_print
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM, MARGIN_MM
from pleat.printing.letters import broken
from pleat.printing.parts import Row, rows_of
from pleat.printing.pen import PRINT, STYLES
from pleat.printing.strips import MarkOn, Strip, strips_of

LINE_MM: Final = 4.4
GAP_MM: Final = 7.0
ALSO: Final = 24
"""So many openings that have the same are named."""


def _sheets(result: ExtrasResult) -> Iterator[Piece]:
    """Every sort of piece once."""
    seen = set()
    for item in result.items:
        for spot in item.spots:
            for sheet in spot.thing.pieces:
                if (sheet.name, sheet.size_mm) not in seen:
                    seen.add((sheet.name, sheet.size_mm))
                    yield sheet


@strips_of.register
def _strips(result: ExtrasResult, plan: Plan) -> tuple[Strip, ...]:
    """Where each piece is scored, from the left edge and from the head."""
    ruler, strips = plan.brief.ruler, []
    for sheet in _sheets(result):
        for upright, ends in ((True, ("LEFT EDGE", "right edge")), (False, ("HEAD", "tail"))):
            if places := scores(sheet, upright=upright):
                lines = tuple(
                    MarkOn(place, f"score {ruler.number(ruler.snap(place))}", "score") for place in places
                )
                from_head = "" if upright else " from the head"
                strips.append(
                    Strip(
                        f"Scores of {sheet.name}{from_head}",
                        sheet.size_mm[0 if upright else 1],
                        lines,
                        *ends,
                    )
                )
    return tuple(strips)


@rows_of.register
def _rows(result: ExtrasResult, plan: Plan) -> list[Row]:
    """Each design: where it lies, and its throat or opening."""
    ruler, rows = plan.brief.ruler, []
    for item in result.items:
        if not item.spots:
            continue
        mouth = item.thing.mouth
        throat = (
            f"; throat {ruler.show(mouth.throat_mm)}, depth {ruler.show(mouth.depth_mm)}" if mouth else ""
        )
        rows.append(
            (
                item.title,
                f"{ruler.size(item.thing.width_mm, item.thing.height_mm)} on {on_faces(item.spots)}{throat}",
            )
        )
        rows += [
            (f"scores, {sheet.name}", marks(sheet, ruler))
            for sheet in item.thing.pieces
            if marks(sheet, ruler)
        ]
    return rows


@pages_of.register
def _pages(result: ExtrasResult, plan: Plan, width: float, room: float) -> list[tuple[str, str]]:
    """The openings one below the other, as large as they fit, then the list of what goes in where."""
    if not any(item.spots for item in result.items):
        return []
    blocks = [_opening(result, plan, names, width - 2 * MARGIN_MM) for names in _alike(result).values()]
    return [
        *_stacked(blocks, "where it lies", room),
        *_stacked(
            [_ticks(item, width) for item in result.items if item.spots and item.thing.work.fill],
            "what goes in",
            room,
        ),
    ]


Names = tuple[str, ...]
Layout = tuple[object, ...]


def _alike(result: ExtrasResult) -> dict[Layout, list[Names]]:
    """The openings that have something on them, each with those that have the same in the same places."""
    on: dict[str, list[tuple[str, float, float]]] = {}
    for item in result.items:
        for spot in item.spots:
            on.setdefault(spot.face.name, []).append((item.key, round(spot.x_mm, 2), round(spot.y_mm, 2)))
    found: dict[Layout, list[Names]] = {}
    told: set[Names] = set()
    for face in result.faces:
        if face.name in on:
            shown = shown_faces(result.faces, face.name)
            names = tuple(one.name for one in shown)
            if names not in told:
                told.add(names)
                layout = tuple((one.width_mm, one.height_mm, tuple(on.get(one.name, ()))) for one in shown)
                found.setdefault(layout, []).append(names)
    return found


Block = tuple[list[Shape], float]


def _stacked(blocks: Sequence[Block], title: str, room: float) -> list[tuple[str, str]]:
    """Blocks one below the other, on as many pages as they take."""
    pages: list[tuple[str, str]] = []
    shapes: list[Shape] = []
    at = 0.0
    for own, high in blocks:
        if shapes and at + high > room:
            pages.append((title, render_print(Drawing(1, 1, title, shapes), 0, 0, PRINT)))
            shapes, at = [], 0.0
        shapes += [moved(shape, MARGIN_MM, MARGIN_MM + HEAD_MM + at) for shape in own]
        at += high
    return [*pages, (title, render_print(Drawing(1, 1, title, shapes), 0, 0, PRINT))] if shapes else pages


def _opening(result: ExtrasResult, plan: Plan, alike: Sequence[Names], wide: float) -> Block:
    """One opening to scale, a number on each thing, and beside it what each is and where its corner lies;
    ``alike`` are those that have the same."""
    ruler = plan.brief.ruler
    faces = [face for face in result.faces if face.name in alike[0]]
    before, above, across, along = _extent(result, faces)
    share = min(1.0, wide * 0.55 / (before + across), 64.0 / (above + along))
    shapes: list[Shape] = [_label(share, faces)]
    x, top, lines, mouths = before * share, 7.0 + above * share, [], False
    number = 0
    for face in faces:
        shapes.append(Rect(x, top, face.width_mm * share, face.height_mm * share, "edge"))
        for item in result.items:
            for spot in item.spots:
                if spot.face.name != face.name:
                    continue
                number, mouths = number + 1, mouths or bool(spot.thing.mouth and not spot.thing.outline)
                shapes += [
                    *_scaled(spot, share, x, top),
                    Label(
                        x + (spot.x_mm + _middle(spot)[0]) * share,
                        top + (spot.y_mm + _middle(spot)[1]) * share + 1.4,
                        str(number),
                        "bold",
                    ),
                ]
                lines.append(
                    f"{number}  {item.title} {ruler.size(spot.thing.width_mm, spot.thing.height_mm)}, "
                    f"{face.title}: {ruler.number(spot.x_mm)} from the left, {ruler.number(spot.y_mm)} from "
                    "the head"
                )
        x += face.width_mm * share
    high = top + along * share
    left = (before + across) * share + 6
    y = 10.0
    same = [" and ".join(names) for names in alike[1:]]
    more = f" and {len(same) - ALSO} more" if len(same) > ALSO else ""
    also = [f"The same on: {'; '.join(same[:ALSO])}{more}."] if same else []
    for line in [
        *lines,
        *also,
        *(["Crossed: keep it free of glue. Broken line: what slides in."] if mouths else []),
    ]:
        for words in broken(line, STYLES["small"], wide - left):
            shapes.append(Label(left, y, words, "small", "start"))
            y += LINE_MM
    return shapes, max(high, y) + GAP_MM


def _label(share: float, faces: list[Face]) -> Label:
    """A face's name."""
    scale = "true size" if share == 1.0 else f"1 : {1 / share:.1f}"
    return Label(
        0,
        4,
        f"{' and '.join(face.title for face in faces)}, {scale}",
        "bold",
        "start",
    )


def _extent(result: ExtrasResult, faces: Sequence[Face]) -> tuple[float, float, float, float]:
    """How far things reach before and above an opening, and how wide and high it is from its corner to the
    last of them, mm."""
    lefts = dict(
        zip(
            (face.name for face in faces),
            accumulate((face.width_mm for face in faces), initial=0.0),
            strict=False,
        )
    )
    boxes = [
        (lefts[spot.face.name], spot.box)
        for item in result.items
        for spot in item.spots
        if spot.face.name in lefts
    ]
    return (
        max([0.0, *(-x - box[0] for x, box in boxes)]),
        max([0.0, *(-box[1] for _, box in boxes)]),
        max([sum(face.width_mm for face in faces), *(x + box[2] for x, box in boxes)]),
        max([face.height_mm for face in faces] + [box[3] for _, box in boxes]),
    )


def _middle(item: PlacedItem) -> tuple[float, float]:
    """Where its number stands, from its corner, mm."""
    corners = item.thing.outline or ((0.0, 0.0), (item.thing.width_mm, item.thing.height_mm))
    return sum(x for x, _ in corners) / len(corners), sum(y for _, y in corners) / len(corners)


def _scaled(item: PlacedItem, share: float, x: float, y: float) -> list[Shape]:
    """A thing, what is glued of it, and what stays free before its mouth."""
    left, top, right, bottom = (side * share for side in item.box)
    made = item.thing
    shape = tuple((px * share, py * share) for px, py in made.outline)
    shapes: list[Shape] = [
        outline(shape, "edge", x + left, y + top)
        if shape
        else Rect(x + left, y + top, right - left, bottom - top, "edge")
    ]
    shapes += [
        Line(x + left + x0 * share, y + top + y0 * share, x + left + x1 * share, y + top + y1 * share, "line")
        for (x0, y0), (x1, y1) in made.lines
    ]
    if made.mouth and not shape:
        a, b, c, d = (side * share for side in mouth_band(item))
        a, b, c, d = (
            max(a, 0.0),
            max(b, 0.0),
            min(c, item.face.width_mm * share),
            min(d, item.face.height_mm * share),
        )
        if a < c and b < d:
            shapes += [Line(x + a, y + b, x + c, y + d, "fold"), Line(x + a, y + d, x + c, y + b, "fold")]
        for inside in item.thing.inside if item.thing.stands_mm else ():
            lx, ly = (item.x_mm + inside.x_mm) * share, (item.y_mm + inside.y_mm) * share
            shapes.append(Rect(x + lx, y + ly, inside.width_mm * share, inside.height_mm * share, "fold"))
    return shapes


def _ticks(item: PlacedDesign, width: float) -> Block:
    """A box to tick for every place of a design, with what goes in there."""
    shapes: list[Shape] = [Label(0, 4, item.title, "bold", "start")]
    y = 4.0
    for line in broken(item.thing.work.fill, STYLES["small"], width - 2 * MARGIN_MM):
        y += LINE_MM
        shapes.append(Label(0, y, line, "small", "start"))
    column = (width - 2 * MARGIN_MM) / 4
    for number, spot in enumerate(item.spots):
        if number % 4 == 0:
            y += LINE_MM + 1.6
        shapes += [
            Rect(number % 4 * column, y - 3, 3.4, 3.4, "edge"),
            Label(
                number % 4 * column + 5,
                y,
                broken(spot.face.title, STYLES["small"], column - 7)[0],
                "small",
                "start",
            ),
        ]
    return shapes, y + GAP_MM
