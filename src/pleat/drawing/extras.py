"""Extras: an opening with what lies on it at true size, a piece as it is cut, and how thick all leaves come
to by place."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import accumulate
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.extras.base import Face, Thing
from pleat.core.pleats.extras.compute import ExtrasResult
from pleat.core.pleats.extras.faces import by_name
from pleat.core.pleats.extras.spots import PlacedItem
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.outlines import LINES, levels, names, outline, running
from pleat.drawing.shapes import ControlSpot as Place
from pleat.drawing.shapes import Dim, Drawing, Label, Line, Rect, Shape, framed

PIECES_PX: Final = (240.0, 250.0)
"""About how large the pieces of a design are drawn, which says what of their names fits."""
PIECES_AWAY_MM: Final = 8.0
NAMED_PX: Final = 70.0
"""What the size of a piece takes below it."""
LARGE_PX: Final = (620.0, 330.0)
"""About how large an opening is drawn, wide and high."""
LETTER_PX: Final = 7.5
"""A name stands on a thing that is at least so wide for each of its letters."""


@main.register
def large(result: ExtrasResult, plan: Plan) -> Drawing:
    """The opening of the first face that has something on it."""
    faces = result.faces
    used = next(
        (spot.face.name for item in result.items for spot in item.spots), faces[0].name if faces else ""
    )
    return opening(result, plan, used)


def shown_faces(faces: Iterable[Face], name: str) -> tuple[Face, ...]:
    """The face and the one it lies beside when the book is open there, left one first."""
    named = by_name(faces)
    face = named.get(name) or next(iter(named.values()), None)
    if face is None:
        return ()
    beside = named.get(face.facing)
    if beside is None:
        return (face,)
    return (face, beside) if face.spine == "right" else (beside, face)


def opening(result: ExtrasResult, plan: Plan, name: str, chosen: str = "") -> Drawing:
    """The face and its neighbour, with everything on them; what lies behind is dotted. Each thing has a spot
    of its own at its corner; what reaches past the page is in the picture."""
    faces = shown_faces(result.faces, name)
    ruler = plan.brief.ruler
    lefts = tuple(accumulate((face.width_mm for face in faces), initial=0.0))
    shapes: list[Shape] = [
        Rect(left, 0, face.width_mm, face.height_mm, "leaf") for face, left in zip(faces, lefts, strict=False)
    ]
    spots: list[Place] = []
    dims: list[Dim] = []
    height = max((face.height_mm for face in faces), default=1.0)
    for face, x in zip(faces, lefts, strict=False):
        shapes += [
            _behind(face, one, x)
            for item in result.items
            for one in item.spots
            if one.face.name == face.behind
        ]
        for item in result.items:
            for spot in item.spots:
                if spot.face.name == face.name:
                    shapes += thing(spot, plan, x, chosen=item.key == chosen)
                    spots.append(
                        Place(f"extras.items.{item.key}.place.{spot.number}", x + spot.x_mm, spot.y_mm)
                    )
        shapes += [
            _partner(face, one, x)
            for item in result.items
            for one in item.spots
            if one.thing.partner and one.face.name == face.facing
        ]
        shapes.append(Label(x + face.width_mm / 2, face.height_mm, face.title, "quiet", shift=(0, 18)))
        dims.append(Dim("top", x, x + face.width_mm, ruler.number(face.width_mm)))
    if len(faces) > 1:
        shapes.append(Line(faces[0].width_mm, 0, faces[0].width_mm, height, "fold"))
    if faces:
        dims.append(Dim("left", 0, faces[0].height_mm, ruler.number(faces[0].height_mm)))
    says = " and ".join(face.title for face in faces) or "no face"
    grown = framed(
        Drawing(
            max(lefts[-1], 1.0),
            height,
            f"{says}, with what is put on.",
            shapes,
            dims=dims,
            spots=spots,
            room=(("bottom", 28.0),),
        )
    )
    on = [
        (item.title, one.thing)
        for face in faces
        for item in result.items
        for one in item.spots
        if one.face.name == face.name
    ]
    return replace(grown, shapes=(*grown.shapes, *_names(on, grown)))


def _names(on: Sequence[tuple[str, Thing]], picture: Drawing) -> list[Shape]:
    """The names of the things at the spots of the picture, on those that are wide enough for theirs."""
    scale = min(LARGE_PX[0] / picture.width, LARGE_PX[1] / picture.height)
    return [
        Label(spot.x + made.width_mm / 2, spot.y + made.height_mm / 2, title, "thing-name", shift=(0, 4))
        for (title, made), spot in zip(on, picture.spots, strict=True)
        if made.width_mm * scale > LETTER_PX * len(title)
    ]


def _behind(face: Face, item: PlacedItem, x: float) -> Shape:
    """What lies on the other side of the leaf, as it presses through."""
    left = face.width_mm - item.box[2] if face.spine != "none" else item.box[0]
    return Rect(x + left, item.y_mm, item.thing.width_mm, item.thing.height_mm, "ghost")


def _partner(face: Face, item: PlacedItem, x: float) -> Shape:
    """The other half of a fastener, where it lands."""
    return Rect(
        x + face.width_mm - item.box[2], item.y_mm, item.thing.width_mm, item.thing.height_mm, "thing-hole"
    )


def thing(item: PlacedItem, plan: Plan, x: float = 0.0, *, chosen: bool = False) -> list[Shape]:
    """A thing where it lies: itself, what is in it, its glue, its mouth and where it swings to."""
    made, left, top = item.thing, x + item.x_mm, item.y_mm
    swatch = plan.paper.stock(made.sheet_stock).swatch if made.sheet_stock else "cream"
    shapes: list[Shape] = []
    if made.swing:
        dx = {"left": -made.width_mm, "right": made.width_mm}.get(made.swing.hinge, 0.0)
        dy = {"head": -made.height_mm, "tail": made.height_mm}.get(made.swing.hinge, 0.0)
        shapes.append(Rect(left + dx, top + dy, made.width_mm, made.height_mm, "ghost"))
    inside = made.inside if made.stands_mm else ()
    shapes += [
        Rect(left + layer.x_mm, top + layer.y_mm, layer.width_mm, layer.height_mm, "place")
        for layer in inside
    ]
    style = "thing-hole" if made.hole else f"thing swatch-{swatch}"
    style += " thing-chosen" if chosen else ""
    shapes.append(
        outline(made.outline, f"filled {style}", left, top)
        if made.outline
        else Rect(left, top, made.width_mm, made.height_mm, style)
    )
    shapes += [
        Line(left + x0, top + y0, left + x1, top + y1, "thing-line") for (x0, y0), (x1, y1) in made.lines
    ]
    if made.mouth:
        shapes += [] if made.outline else _glue(item, left, top)
        shapes.append(mouth(item, left, top))
    if made.swing:
        shapes.append(_side(item, left, top, made.swing.hinge, "fold"))
    if made.out:
        shapes.insert(0, _out(item, left, top, f"thing swatch-{swatch}"))
    return shapes


def _out(item: PlacedItem, left: float, top: float, style: str) -> Rect:
    """What reaches past the edge of the page."""
    side, far = item.thing.out or ("right", 0.0)
    wide, high = item.thing.width_mm, item.thing.height_mm
    return {
        "left": Rect(left - far, top, far, high, style),
        "right": Rect(left + wide, top, far, high, style),
        "head": Rect(left, top - far, wide, far, style),
        "tail": Rect(left, top + high, wide, far, style),
    }[side]


def mouth(item: PlacedItem, left: float, top: float, style: str = "mouth") -> Line:
    """The edge that is open."""
    made = item.thing
    if made.outline:
        (x0, y0), (x1, y1) = made.outline[:2]
        return Line(left + x0, top + y0, left + x1, top + y1, style)
    return _side(item, left, top, made.mouth.side if made.mouth else "head", style)


def _glue(item: PlacedItem, left: float, top: float) -> list[Shape]:
    """The bands that are held, hatched."""
    made = item.thing
    held = made.mouth.held if made.mouth else {}
    wide, high = made.width_mm, made.height_mm
    shapes: list[Shape] = []
    for side, takes in held.items():
        across = min(takes, wide if side in ("left", "right") else high)
        x, y = (
            (left + wide - across if side == "right" else left),
            (top + high - across if side == "tail" else top),
        )
        shapes.append(
            Rect(x, y, across, high, "glue-here")
            if side in ("left", "right")
            else Rect(x, y, wide, across, "glue-here")
        )
    return shapes


def _side(item: PlacedItem, left: float, top: float, side: str, style: str) -> Line:
    wide, high = item.thing.width_mm, item.thing.height_mm
    ends = {
        "head": (left, top, left + wide, top),
        "tail": (left, top + high, left + wide, top + high),
        "left": (left, top, left, top + high),
        "right": (left + wide, top, left + wide, top + high),
    }
    return Line(*ends[side], style)


def pieces(sheets: Iterable[Piece], swatch: str, ruler: Ruler) -> Drawing:
    """The pieces of one design flat, side by side, with their scores."""
    sheets = tuple(sheets)
    x, high = 0.0, 1.0
    scale = min(
        PIECES_PX[0] / max(sum(sheet.size_mm[0] + PIECES_AWAY_MM for sheet in sheets), 1.0),
        PIECES_PX[1] / max((sheet.size_mm[1] for sheet in sheets), default=1.0),
    )
    shapes: list[Shape] = []
    for sheet in sheets:
        wide, tall = sheet.size_mm
        aside = max(0.0, (NAMED_PX / scale - wide) / 2) if len(sheets) > 1 else 0.0
        x += aside
        shapes += [outline(edge, f"filled wrap swatch-{swatch}", x, 0.0) for edge in sheet.outlines]
        shapes += [
            outline(panel.outline, "filled glue-here", x, 0.0)
            for panel in sheet.panels
            if panel.name in sheet.glued
        ]
        shapes += [
            Line(c.start[0] + x, c.start[1], c.end[0] + x, c.end[1], LINES[c.kind]) for c in sheet.creases
        ]
        named = (
            () if sheet.panels[0].name.startswith("panel ") else names(sheet, scale, ruler, x, 0.0)
        )  # numbered ones tell nothing
        shapes += [
            *named,
            *running(scores(sheet), ruler, scale, x, 0.0),
            *levels(sheet, ruler, scale, x, 0.0),
        ]
        shapes.append(Label(x + wide / 2, tall, ruler.size(wide, tall), "quiet", shift=(0, 16)))
        x, high = x + wide + aside + PIECES_AWAY_MM, max(high, tall)
    return Drawing(
        max(x - PIECES_AWAY_MM, 1.0),
        high,
        "Its pieces flat, with their scores.",
        shapes,
        room=(("top", 40.0), ("bottom", 24.0), ("right", 30.0), ("left", 30.0)),
    )


@strip.register
def little(result: ExtrasResult, plan: Plan) -> Drawing:
    """All leaves on each other; a leaf with a ghost where nothing is put in."""
    width, height = plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    if not result.items:
        ghost = Rect(width * 0.14, height * 0.5, width * 0.72, height * 0.42, "ghost")
        return Drawing(
            width, height, "A leaf with nothing on it yet.", (Rect(0, 0, width, height, "leaf"), ghost)
        )
    shapes: list[Shape] = [Rect(0, 0, width, height, "leaf")]
    for item in result.items:
        for spot in item.spots[:8]:
            (a, b), (c, d) = spot.face.placed(*spot.box[:2]), spot.face.placed(*spot.box[2:])
            x0, x1 = sorted((min(max(a, 0.0), width), min(max(c, 0.0), width)))
            y0, y1 = sorted((min(max(b, 0.0), height), min(max(d, 0.0), height)))
            shapes.append(Rect(x0, y0, x1 - x0, y1 - y0, "ghost"))
    return Drawing(width, height, "What is put in, all leaves on each other.", shapes)
