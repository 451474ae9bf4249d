"""Scenes of sorts that recur: a piece with its marks, a sheet folded, leaves at a punch, a block pressed."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Final

from pleat.core.base.scenes import (
    Axis,
    Distance,
    GlueZone,
    HoleAt,
    LineKind,
    LineOn,
    Lying,
    Moved,
    NumberAt,
    PathOn,
    Point,
    Scene,
    SceneKind,
)

BESIDE_MM: Final = 30.0
"""Between things that lie side by side in a picture."""
EDGE_ON: Final = 10
"""Of something thin so many times its thickness is seen."""
MOST_BESIDE: Final = 4
"""Pieces that are drawn beside each other; what is done to more is told in words."""
SHOWN: Final = 12
"""Sheets of a section that are drawn."""


def laid_out(things: Iterable[Lying]) -> Scene:
    """What is fetched, side by side."""
    x, lying = 0.0, []
    for thing in things:
        lying.append(replace(thing, x=x, when="now"))
        x += thing.width + BESIDE_MM
    return Scene(
        kind="lay out",
        width=max(x - BESIDE_MM, 1.0),
        height=max((one.height for one in lying), default=1.0),
        lying=tuple(lying),
    )


def marked(
    piece: Lying,
    upright: Sequence[float] = (),
    level: Sequence[float] = (),
    kind: LineKind = "score",
    holes: Sequence[HoleAt] = (),
) -> Scene:
    """A piece with lines across it, each measured from the left edge or from the head."""
    lines = [LineOn("upright", at, 0.0, piece.height, kind) for at in upright]
    lines += [LineOn("level", at, 0.0, piece.width, kind) for at in level]
    numbers = [NumberAt(at, 0.0, at, "top") for at in upright]
    numbers += [NumberAt(0.0, at, at, "left") for at in level]
    return Scene(
        kind="mark",
        width=piece.width,
        height=piece.height,
        lying=(piece,),
        lines=tuple(lines),
        holes=tuple(holes),
        numbers=tuple(numbers),
    )


def folded(sheet: Lying, folds: int, tried: bool = False) -> Scene:
    """A sheet before it is folded so many times, with what moves over, and after; ``tried`` without a
    crease."""
    width, height = sheet.width, sheet.height
    lines, moves = [], []
    wide, high, upright = width, height, folds % 2 == 1
    for _ in range(folds):
        if upright:
            lines.append(LineOn("upright", wide / 2, 0.0, high, "mark" if tried else "fold"))
            moves.append(Moved((wide * 0.92, high / 2), (wide * 0.08, high / 2)))
            wide /= 2
        else:
            lines.append(LineOn("level", high / 2, 0.0, wide, "mark" if tried else "fold"))
            moves.append(Moved((wide / 2, high * 0.92), (wide / 2, high * 0.08)))
            high /= 2
        upright = not upright
    after = Lying("", width + BESIDE_MM, 0.0, wide, high, "now", sheet.stock)
    lines.append(LineOn("upright", after.x, 0.0, high, "fold", "rests"))
    return Scene(
        kind="fold",
        width=width + BESIDE_MM + wide,
        height=height,
        lying=(sheet, after),
        lines=tuple(lines),
        moves=tuple(moves[:1]),
        distances=(Distance("bottom", after.x, after.x + wide), Distance("right", 0.0, high)),
    )


def nested(sections: Sequence[int], width: float) -> Scene:
    """Sections seen from the head, each sheet a bent line, fold on the left; the innermost goes in last."""
    strokes, y = [], 0.0
    gap = width / 30
    for count in sections[:MOST_BESIDE]:
        drawn = min(count, SHOWN)
        open_by = gap * (drawn + 1)
        middle = y + open_by
        for place in range(drawn):
            half = gap * (drawn - place)
            inset = gap * 0.8 * place
            innermost = place == drawn - 1
            shift = width * 0.22 if innermost and drawn > 1 else 0.0
            strokes.append(
                PathOn(
                    (
                        (inset + shift + width, middle - half),
                        (inset + shift, middle),
                        (inset + shift + width, middle + half),
                    ),
                    "now" if innermost else "rests",
                )
            )
        y = middle + open_by + gap
    moves = (Moved((width * 1.2, y / 2), (width * 0.9, y / 2)),) if len(sections) == 1 else ()
    reach = max(x for stroke in strokes for x, _ in stroke.points)
    return Scene(kind="nest", width=reach, height=y, strokes=tuple(strokes), moves=moves)


def clipped(width: float, height: float, stock: str, count: int = 1) -> Scene:
    """A block knocked up at its held edge and its head."""
    return Scene(
        kind="nest",
        width=width,
        height=height,
        lying=(Lying("", 0.0, 0.0, width, height, "now", stock, times=count),),
        lines=(
            LineOn("upright", 0.0, 0.0, height, "stop", "rests"),
            LineOn("level", 0.0, 0.0, width, "stop", "rests"),
        ),
    )


def pierced(
    width: float, height: float, places: Sequence[float], stock: str, across: Sequence[float] = (0.0,)
) -> Scene:
    """An open section, its fold upright in the middle, with its holes measured from the head; several rows of
    them ``across`` a spine."""
    middle = width
    holes = [HoleAt(middle + x, at) for x in across for at in places]
    return Scene(
        kind="pierce",
        width=2 * width,
        height=height,
        lying=(Lying("", 0.0, 0.0, 2 * width, height, "rests", stock),),
        lines=(LineOn("upright", middle, 0.0, height, "fold", "rests"),),
        holes=tuple(holes),
        numbers=tuple(NumberAt(middle + max(across), at, at, "right") for at in places),
    )


def punched(leaf: Lying, holes: Sequence[HoleAt], lift: int, lifts: int, edge: Axis = "upright") -> Scene:
    """A lift of leaves at the stop of a punch, with the holes that it makes."""
    first = holes[0] if holes else None
    stop = (
        LineOn("upright", leaf.x, leaf.y, leaf.y + leaf.height, "stop")
        if edge == "upright"
        else LineOn("level", leaf.y, leaf.x, leaf.x + leaf.width, "stop")
    )
    distances = (
        (Distance("left", 0.0, first.y), Distance("bottom", 0.0, first.x)) if first is not None else ()
    )
    return Scene(
        kind="punch",
        width=leaf.width,
        height=leaf.height,
        lying=(replace(leaf, times=lift),),
        lines=(stop,),
        holes=tuple(holes),
        distances=distances,
        copies=lifts,
    )


def threaded(length: float) -> Scene:
    """A length of thread, cord or tape, laid in rows."""
    rows = max(1, round((length / 120) ** 0.5))
    long = length / rows
    gap = max(long / 8, 4.0)
    points: list[Point] = []
    for row in range(rows):
        ends = [(0.0, row * gap), (long, row * gap)]
        points += ends if row % 2 == 0 else ends[::-1]
    high = max((rows - 1) * gap, 1.0)
    return Scene(
        kind="thread",
        width=long,
        height=high,
        strokes=(PathOn(tuple(points), "now"),),
        numbers=(NumberAt(long / 2, gap / 2, length, "right"),),
    )


def pressed(width: float, thick: float, board: float = 12.0) -> Scene:
    """A block between two boards under a weight, seen edge on."""
    high = max(thick, 1.0)
    width = min(width, high * 4 * EDGE_ON)
    side = width * 0.06
    board = min(board, width / 8)
    weight = width * 0.3
    return Scene(
        kind="press",
        width=width + 2 * side,
        height=weight + 2 * board + high,
        lying=(
            Lying("", side + width * 0.25, 0.0, width * 0.5, weight, "now"),
            Lying("", 0.0, weight, width + 2 * side, board),
            Lying("", side, weight + board, width, high, "rests", "leaf"),
            Lying("", 0.0, weight + board + high, width + 2 * side, board),
        ),
        moves=(Moved((side + width / 2, weight * 0.1), (side + width / 2, weight * 0.9)),),
    )


def gauged(width: float, thick: float) -> Scene:
    """A block at its fold between the jaws of a caliper, as much of it as is seen well edge on."""
    high = max(thick, 0.5)
    width = min(width, high * EDGE_ON)
    jaw = width * 0.12
    return Scene(
        kind="measure",
        width=width,
        height=2 * jaw + high,
        lying=(Lying("", 0.0, jaw, width, high, "rests", "leaf"),),
        strokes=(
            PathOn(((width * 0.3, 0.0), (width * 0.05, jaw), (0.0, jaw)), "now"),
            PathOn(((width * 0.3, 2 * jaw + high), (width * 0.05, jaw + high), (0.0, jaw + high)), "now"),
        ),
        distances=(Distance("left", jaw, jaw + high, thin=True),),
    )


def laid_on(
    target: Lying,
    pieces: Sequence[Lying],
    kind: SceneKind = "lay on",
    zones: Sequence[GlueZone] = (),
    lines: Sequence[LineOn] = (),
) -> Scene:
    """Pieces on another, the first one's place measured from the left edge and from the head."""
    first = pieces[0] if pieces else None
    distances = [
        distance
        for one in ([first] if first else [])
        for distance in (Distance("bottom", target.x, one.x), Distance("left", target.y, one.y))
        if distance.value_mm > 0
    ]
    return Scene(
        kind=kind,
        width=target.width,
        height=target.height,
        lying=(target, *pieces),
        zones=tuple(zones),
        lines=tuple(lines),
        distances=tuple(distances),
    )


def looked(width: float, height: float, thick: float, stock: str) -> Scene:
    """The finished thing, from the front and edge on."""
    return Scene(
        kind="look",
        width=width + BESIDE_MM + max(thick, 1.0),
        height=height,
        lying=(
            Lying("", 0.0, 0.0, width, height, "now", stock),
            Lying("", width + BESIDE_MM, 0.0, max(thick, 1.0), height, "now", stock),
        ),
        distances=(
            Distance("bottom", 0.0, width),
            Distance("left", 0.0, height),
            Distance("bottom", width + BESIDE_MM, width + BESIDE_MM + max(thick, 1.0), thin=True),
        ),
    )


def beside(scenes: Sequence[Scene]) -> Scene:
    """Several of one kind next to each other, as many as are seen well."""
    first, x = scenes[0], 0.0
    shifted = []
    for scene in scenes[:MOST_BESIDE]:
        shifted.append(_shifted(scene, x))
        x += scene.width + BESIDE_MM
    return Scene(
        kind=first.kind,
        width=x - BESIDE_MM,
        height=max(scene.height for scene in shifted),
        lying=tuple(one for scene in shifted for one in scene.lying),
        lines=tuple(one for scene in shifted for one in scene.lines),
        holes=tuple(one for scene in shifted for one in scene.holes),
        zones=tuple(one for scene in shifted for one in scene.zones),
        strokes=tuple(one for scene in shifted for one in scene.strokes),
        moves=tuple(one for scene in shifted for one in scene.moves),
        numbers=tuple(one for scene in shifted for one in scene.numbers),
        distances=first.distances,
        copies=first.copies,
    )


def _shifted(scene: Scene, x: float) -> Scene:
    """A scene so far to the right; its distances are left out."""
    return replace(
        scene,
        lying=tuple(replace(one, x=one.x + x) for one in scene.lying),
        lines=tuple(_line_shifted(one, x) for one in scene.lines),
        holes=tuple(replace(one, x=one.x + x) for one in scene.holes),
        zones=tuple(replace(one, x=one.x + x) for one in scene.zones),
        strokes=tuple(
            replace(one, points=tuple((left + x, top) for left, top in one.points)) for one in scene.strokes
        ),
        moves=tuple(
            Moved((one.start[0] + x, one.start[1]), (one.end[0] + x, one.end[1])) for one in scene.moves
        ),
        numbers=tuple(replace(one, x=one.x + x) for one in scene.numbers),
        distances=(),
    )


def _line_shifted(line: LineOn, x: float) -> LineOn:
    if line.axis == "upright":
        return replace(line, at=line.at + x)
    return replace(line, start=line.start + x, end=line.end + x)


def wrapped_round(sections: int, width: float) -> Scene:
    """Sections in their cover, seen from the head: the cover is a bent line round all of them."""
    block = nested([1] * sections, width)
    gap = width / 30
    around = PathOn(
        ((width, -gap), (-gap, -gap), (-gap, block.height), (width, block.height))
        if sections > 1
        else ((width, -gap), (-gap, block.height / 2 - gap), (width, block.height - gap)),
        "now",
    )
    middle = block.height / 2
    return replace(
        block,
        strokes=(around, *(replace(sheet, when="rests") for sheet in block.strokes)),
        moves=(Moved((-width * 0.2, middle), (-2 * gap, middle)),),
    )
