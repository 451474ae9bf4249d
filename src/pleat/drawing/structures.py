"""Folded structures: the sheets flat with their scores and glue, a picture of every state from above, and the
whole standing half open."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.folding.assembly import Key, State
from pleat.core.engines.folding.convex import Polygon, area, bounds
from pleat.core.engines.folding.flat import FieldAnchor, Flat
from pleat.core.engines.folding.pile import cells
from pleat.core.engines.folding.programme import FoldResult
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.structures.dressing import Dressing, spread
from pleat.core.pleats.structures.made import BARE, Made
from pleat.core.pleats.structures.marks import Marks
from pleat.drawing.outlines import LINES, levels, names, outline, running
from pleat.drawing.shapes import ControlSpot, Curve, Dim, Drawing, Label, Line, Rect, Shape

ROOM: Final = (470.0, 340.0)
"""About how many px the sheets have on the screen, to keep their numbers apart."""
ACROSS: Final = 0.42
UP: Final = 0.34
"""How far a millimetre towards the eye goes to the right and down."""
HALF: Final = 0.5
DRESSED: Final = "on "
MOST_STATES: Final = 30
"""Pictures of states that anybody looks through: an album of as many leaves as are drawn keeps all of its
own."""
MOST_PANELS: Final = 900
FEWEST_STATES: Final = 6
"""``MOST_PANELS`` in all pictures together: a long concertina is drawn in fewer states, since each of them
shows every panel."""
PRINTED: Final = {True: "face-paper", False: "face-card"}


@dataclass(frozen=True)
class Look:
    """What a structure is drawn with: the swatches of its stocks by their keys, the ruler, and the scale of
    the screen in px a mm."""

    swatches: Mapping[str, str]
    ruler: Ruler
    scale: float = 1.0


def flat(made: Made, flats: Sequence[Flat], places: Iterable[FieldAnchor], look: Look) -> Drawing:
    """Every sort of piece flat, inside up: its folds with their running positions, glue hatched, papers and
    places outlined. Fields stand where their panel is."""
    width = max(one.x_mm + one.piece.size_mm[0] for one in flats)
    height = max(one.y_mm + one.piece.size_mm[1] for one in flats)
    scale = min(ROOM[0] / width, ROOM[1] / height)
    shapes: list[Shape] = []
    crowded = 0
    for one in flats:
        shapes += sheet(one, made, look)
        shapes += names(one.piece, scale, look.ruler, one.x_mm, one.y_mm)
        shapes += running(scores(one.piece), look.ruler, scale, one.x_mm, one.y_mm)
        shapes += levels(one.piece, look.ruler, scale, one.x_mm, one.y_mm, beside=len(flats) == 1)
        if len(flats) > 1:
            many = f"{one.count} × " if one.count > 1 else ""
            words = f"{many}{one.name}, {look.ruler.size(*one.piece.size_mm)}"
            crowded = crowded + 1 if one.piece.size_mm[0] * scale < 7 * len(words) and one.x_mm else 0
            shapes.append(
                Label(
                    one.x_mm + 2,
                    one.y_mm + one.piece.size_mm[1],
                    words,
                    "quiet",
                    "start",
                    shift=(0, 16 + 15 * (crowded % 3)),
                )
            )
    spots = tuple(ControlSpot(place.path, place.x_mm, place.y_mm) for place in places)
    level = 2 if flats and scores(flats[0].piece, upright=False) else 1
    dims = (
        (
            Dim("top", 0, width, look.ruler.size(width, height), level=2),
            Dim("left", 0, height, look.ruler.number(height), level=level),
        )
        if len(flats) == 1
        else ()
    )
    listed = "; ".join(f"{one.name} {look.ruler.size(*one.piece.size_mm)}" for one in flats)
    return Drawing(
        width,
        height,
        f"The sheets flat, inside up: {listed}.",
        shapes,
        dims=dims,
        spots=spots,
        room=(
            ("top", 40.0),
            ("bottom", 50.0 if len(flats) > 1 else 24.0),
            ("right", 60.0 if len(flats) > 1 else 20.0),
        ),
    )


def sheet(one: Flat, made: Made, look: Look) -> list[Shape]:
    """A piece where it lies, with what is glued of it and what its inside is given."""
    x, y, piece = one.x_mm, one.y_mm, one.piece
    swatch = look.swatches.get(piece.stock, "kraft")
    shapes: list[Shape] = [outline(edge, f"filled wrap swatch-{swatch}", x, y) for edge in piece.outlines]
    for zone in made.zones:
        if zone.key[0] == piece.name and zone.side == "A":
            shapes.append(outline(zone.band, f"filled glue-free at-{zone.at}", x, y))
    shapes += [
        outline(panel.outline, "filled glue-here", x, y)
        for panel in piece.panels
        if panel.name in piece.glued
    ]
    shapes += [
        shape
        for dressing in made.dressings
        if dressing.key[0] == piece.name
        for shape in _paper(dressing, x, y)
    ]
    shapes += [
        Line(c.start[0] + x, c.start[1] + y, c.end[0] + x, c.end[1] + y, LINES[c.kind]) for c in piece.creases
    ]
    return shapes


def _paper(dressing: Dressing, x: float, y: float) -> list[Shape]:
    """The paper of a face and the places on it; those of the outside are dotted."""
    style = "paper-inside" if dressing.side == "A" else "paper-outside"
    left, top = dressing.corner[0] + x, dressing.corner[1] + y
    shapes: list[Shape] = [Rect(left, top, dressing.width_mm, dressing.height_mm, style)]
    if dressing.places and dressing.side == "A":
        shapes += [Rect(*place, *dressing.each_mm, "place") for place in spread(dressing, left, top)]
    return shapes


def small(flats: Sequence[Flat], look: Look) -> Drawing:
    """The sheets, small."""
    width = max(one.x_mm + one.piece.size_mm[0] for one in flats)
    height = max(one.y_mm + one.piece.size_mm[1] for one in flats)
    shapes: list[Shape] = []
    for one in flats:
        swatch = look.swatches.get(one.piece.stock, "kraft")
        shapes += [
            outline(edge, f"filled wrap swatch-{swatch}", one.x_mm, one.y_mm) for edge in one.piece.outlines
        ]
        shapes += [
            Line(
                c.start[0] + one.x_mm,
                c.start[1] + one.y_mm,
                c.end[0] + one.x_mm,
                c.end[1] + one.y_mm,
                "score",
            )
            for c in one.piece.creases
        ]
    return Drawing(width, height, "sheets", shapes)


def paint(piece: Piece, look: Look, *, up: bool) -> str:
    """The style of a layer: its stock's colour, its inside paler where it is card."""
    if piece.name.startswith(DRESSED):
        return f"filled paper swatch-{look.swatches['mat']}"
    swatch = look.swatches.get(piece.stock, "cream")
    if piece.rigid:
        return f"filled leaf swatch-{swatch}"
    face = "inside" if up else "outside"
    return f"filled wrap {face} swatch-{swatch}"


def pictured(worked: FoldResult) -> tuple[int, ...]:
    """The numbers of the states that are drawn: all of them, or as many as a reader looks through, evenly
    spread from the first to the last."""
    count, panels = len(worked.states), max((len(state.pile) for state in worked.states), default=1)
    most = min(MOST_STATES, max(FEWEST_STATES, MOST_PANELS // panels))
    return (
        tuple(range(count))
        if count <= most
        else tuple(round(n * (count - 1) / (most - 1)) for n in range(most))
    )


def states(
    worked: FoldResult, look: Look, marks: Marks, *, printed: bool = False
) -> tuple[tuple[int, Drawing], ...]:
    """Each state that is ``pictured`` with its number, all to one scale, seen from above in the kernel's
    order, with the papers and places marked on panels; ``printed`` ones in white and grey."""
    pieces, numbers = worked.assembly.pieces, pictured(worked)
    drawn = [worked.states[number] for number in numbers]
    layers = [
        [(key, state.shadow(key, pieces), state.poses[key].up) for key in state.pile] for state in drawn
    ]
    left, top, right, bottom = bounds(point for state in layers for _, shadow, _ in state for point in shadow)
    found = []
    for number, state, shown in zip(numbers, drawn, layers, strict=True):
        shapes: list[Shape] = []
        for key, shadow, up in shown:
            piece = pieces[key[0]]
            if area(shadow) <= 0.01 or piece.stock == BARE:
                continue
            shapes.append(
                outline(
                    shadow,
                    PRINTED[piece.name.startswith(DRESSED)] if printed else paint(piece, look, up=up),
                    -left,
                    -top,
                )
            )
            for mark in marks.get(key, ()):
                if (mark.side == "A") == up:
                    dressing = PRINTED[True] if printed else f"filled paper swatch-{look.swatches['mat']}"
                    style = dressing if mark.paper else "place"
                    shapes.append(outline(state.poses[key].on_table(mark.outline), style, -left, -top))
        found.append((number, Drawing(right - left, bottom - top, f"{state.name}, from above", shapes)))
    return tuple(found)


def section(made: Made, look: Look) -> Drawing:
    """A cut through the middle of the shut thing, from head to tail as one looks at it end on, at true
    thickness: every layer lies on what is under it there, and what goes in shows as what it is."""
    worked = made.worked
    assembly, shut = worked.assembly, worked.shut
    left, top, right, bottom = bounds(
        point for key in shut.pile for point in shut.shadow(key, assembly.pieces)
    )
    middle = (top + bottom) / 2 + 0.01  # not along a fold
    shapes: list[Shape] = []
    highest = 0.0
    columns = [cell for cell in cells(assembly, shut) if cell.outline[0][1] <= middle < cell.outline[2][1]]
    stacks = []
    for cell in columns:
        up, layers = 0.0, []
        for key in cell.layers:
            thick = max(made.calipers[assembly.pieces[key[0]].stock].likely, 0.05)
            layers.append((key, up, thick))
            up += thick
        stacks.append((cell, layers))
        highest = max(highest, up)
    for cell, layers in stacks:
        x0, x1 = cell.outline[0][0] - left, cell.outline[1][0] - left
        for key, up, thick in layers:
            shapes.append(
                Rect(
                    x0,
                    highest - up - thick,
                    x1 - x0,
                    thick,
                    f"layer swatch-{_swatch(assembly.pieces[key[0]], look)}",
                )
            )
    for room in made.rooms:
        pose = shut.poses[room.wall]
        x = pose.place((*assembly.pieces[room.wall[0]][room.wall[1]].outline[0], 0.0))[0] - left
        if abs(pose.x[2]) > 0.5:  # it stands across the cut
            shapes += [
                Line(x, highest, x, highest - room.has_mm, "leader"),
                Label(x, highest, room.name, "quiet", "start" if x < (right - left) / 2 else "end", (0, 16)),
            ]
    words = f"Cut through the middle, shut: {look.ruler.thin(highest)} where it is thickest."
    dims = (Dim("right", 0, highest, look.ruler.thin(highest)),)
    return Drawing(
        right - left, max(highest, 0.1), words, shapes, dims=dims, room=(("bottom", 24.0), ("top", 6.0))
    )


def _swatch(piece: Piece, look: Look) -> str:
    return look.swatches["mat"] if piece.name.startswith(DRESSED) else look.swatches.get(piece.stock, "cream")


def standing(made: Made, look: Look, says: str) -> Drawing:
    """The whole on the table, its last panel half way up: what is nearer to the eye lies to the right and
    below."""
    assembly, state = made.half_open(HALF)
    rank = {key: number for number, key in enumerate(state.pile)}
    faces = sorted(
        (_face(state, key, assembly.pieces) for key in state.poses),
        key=lambda one: (one[0], rank.get(one[1], 0)),
    )
    points = [point for _, _, outline_ in faces for point in outline_]
    left, top, right, bottom = bounds(points)
    shapes: list[Shape] = []
    for _, key, corners in faces:
        piece, pose = assembly.pieces[key[0]], state.poses[key]
        stock = "mat" if piece.name.startswith(DRESSED) else piece.stock
        shapes.append(
            _curve(corners, f"portrait-face swatch-{look.swatches.get(stock, 'cream')}", -left, -top)
        )
        if not pose.level:
            shapes.append(_curve(corners, "portrait-shade light", -left, -top))
    return Drawing(right - left, bottom - top, says, shapes)


def _face(state: State, key: Key, pieces: Mapping[str, Piece]) -> tuple[float, Key, Polygon]:
    """(how near it is to the eye, panel, its corners on the picture)."""
    places = [state.poses[key].place((x, y, 0.0)) for x, y in pieces[key[0]][key[1]].outline]
    near = max(z for _, _, z in places) * 0.999 + sum(z for _, _, z in places) / len(places) * 0.001
    return round(near, 3), key, tuple((x + ACROSS * z, y + UP * z) for x, y, z in places)


def _curve(corners: Polygon, style: str, x: float, y: float) -> Curve:
    return outline(corners, style, x, y)
