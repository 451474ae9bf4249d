"""A cover made of pieces, flat from the outside: each with its outline, its folds, its running positions and
its size."""

from __future__ import annotations

from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import scores
from pleat.core.pleats.cover.laid import Laid, LaidResult
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.looks import main, strip
from pleat.drawing.outlines import LINES, levels, names, outline, running
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import ControlSpot, Dim, Dot, Drawing, EdgeSide, Label, Line, Rect, Shape

STOCK: Final = {"card": "cover", "plate": "board", "covering": "covering", "side": "side"}
"""What is drawn filled, and the role of its paper."""
UNDER: Final = {"board": "under-board", "padding": "under-pad", "lining": "under-lining"}
ROOM: Final = (430.0, 280.0)
"""About how many px a flat cover has on the screen, to keep its numbers apart."""


def shapes_of(piece: Laid, plan: Plan) -> list[Shape]:
    """A piece where it lies: filled with its paper's colour, or dashed where it lies under the covering."""
    if piece.what in UNDER:
        return [
            outline(edge, f"filled {UNDER[piece.what]}", piece.x_mm, piece.y_mm)
            for edge in piece.piece.outlines
        ]
    swatch = plan.paper.stock(STOCK[piece.what]).swatch
    left, top = piece.x_mm, piece.y_mm
    found: list[Shape] = [
        outline(edge, f"filled wrap swatch-{swatch}", left, top) for edge in piece.piece.outlines
    ]
    found += [
        Line(
            crease.start[0] + left,
            crease.start[1] + top,
            crease.end[0] + left,
            crease.end[1] + top,
            LINES[crease.kind],
        )
        for crease in piece.piece.creases
    ]
    return [*found, *(Dot(left + x, top + y, "hole", radius_mm=wide / 2) for x, y, wide in piece.holes)]


@main.register
def flat(result: LaidResult, plan: Plan) -> Drawing:
    """Every piece flat; what the kind lets be edited on the drawing has its place there."""
    ruler = plan.brief.ruler
    width = max(one.x_mm + one.piece.size_mm[0] for one in result.laid)
    height = max(one.y_mm + one.piece.size_mm[1] for one in result.laid)
    scale = min(ROOM[0] / width, ROOM[1] / height)
    shapes: list[Shape] = []
    for piece in result.laid:
        shapes += shapes_of(piece, plan)
    filled = [one for one in result.laid if one.what in STOCK]
    for one in filled:
        shapes += names(one.piece, scale, ruler, one.x_mm, one.y_mm)
        shapes += [
            *running(scores(one.piece), ruler, scale, one.x_mm, one.y_mm),
            *levels(one.piece, ruler, scale, one.x_mm, one.y_mm),
        ]
        if len(filled) > 1:
            shapes.append(_label(one, ruler))
    shapes += crosses(result)
    shapes += [
        Line(place.x_mm, place.y_mm, width * 1.03, place.y_mm, "leader")
        for place in result.places
        if not place.below
    ]
    alone = len(filled) == 1
    dims = (
        (
            Dim("top", 0, width, ruler.size(width, height), level=2),
            Dim("left", 0, height, ruler.number(height)),
        )
        if alone
        else ()
    )
    spots = tuple(
        ControlSpot(
            place.path, place.x_mm if place.below else width, place.y_mm, (0, 40) if place.below else (62, 0)
        )
        for place in result.places
    )
    under = 8.0 if alone else 24.0
    if any(place.below for place in result.places):
        under = 76.0
    room: tuple[tuple[EdgeSide, float], ...] = (
        ("top", 44.0),
        ("right", 118.0),
        ("bottom", under),
    )
    listed = "; ".join(f"{one.piece.name} {ruler.size(*one.piece.size_mm)}" for one in filled)
    return Drawing(
        width,
        height,
        f"The cover's pieces flat from the outside: {listed}.",
        shapes,
        dims=dims,
        spots=spots,
        room=room,
    )


def _label(piece: Laid, ruler: Ruler) -> Label:
    """A panel's name."""
    return Label(
        piece.x_mm + 2,
        piece.y_mm + piece.piece.size_mm[1],
        f"{piece.piece.name}, {ruler.size(*piece.piece.size_mm)}",
        "quiet",
        "start",
        shift=(0, 16),
    )


def crosses(result: LaidResult) -> list[Shape]:
    """Crosses where the halves of a fastener go."""
    shapes: list[Shape] = []
    for x, y in result.halves:
        shapes += [Line(x - 4, y, x + 4, y, "fastener"), Line(x, y - 4, x, y + 4, "fastener")]
    return shapes


@strip.register
def small(result: LaidResult, plan: Plan) -> Drawing:
    """The pieces, small."""
    width = max(piece.x_mm + piece.piece.size_mm[0] for piece in result.laid)
    height = max(piece.y_mm + piece.piece.size_mm[1] for piece in result.laid)
    shapes = [shape for piece in result.laid if piece.what != "lining" for shape in shapes_of(piece, plan)]
    return Drawing(width, height, "cover", shapes)


@portraits.behind.register
def _back(cover: LaidResult, body: Body) -> list[Shape]:
    """The back, whose edge stands above the leaves; a board shows its thickness."""
    w, h, t, b = body.width, body.height, body.thick, cover.board_mm
    face = f"portrait-face swatch-{cover.swatch}"
    shapes: list[Shape] = [body.face([(0, 0, t - b), (w, 0, t - b), (w, h, t - b), (0, h, t - b)], face)]
    return [*shapes, body.face([(0, 0, t - b), (w, 0, t - b), (w, 0, t), (0, 0, t)], face)] if b else shapes


@portraits.covered.register
def _shut(cover: LaidResult, block: Block, body: Body) -> list[Shape]:
    """The front; a spine where one piece goes round it, a flap over the front where there is one."""
    w, h, t = body.width, body.height, body.thick
    face = f"portrait-face swatch-{cover.swatch}"
    x, y = body.at(0, 0)
    spine = [(0.0, 0.0, 0.0), (0.0, 0.0, t), (0.0, h, t), (0.0, h, 0.0)]
    open_spine = cover.board_mm and not cover.hides_spine
    around = [
        body.face(spine, f"portrait-face swatch-{block.swatch}" if open_spine else face),
        body.face(spine, "portrait-shade"),
    ]
    if open_spine:
        b = cover.board_mm
        around += [
            body.face([(0.0, 0.0, a), (0.0, 0.0, c), (0.0, h, c), (0.0, h, a)], face)
            for a, c in ((0.0, b), (t - b, t))
        ]
    shapes: list[Shape] = [*around, Rect(x, y, w, h, face)]
    flap = next(
        (
            piece.piece["flap"]
            for piece in cover.laid
            if any(panel.name == "flap" for panel in piece.piece.panels)
        ),
        None,
    )
    if flap is not None and not cover.hides_spine:
        wide = max(px for px, _ in flap.outline)
        shapes.append(outline(tuple((x + w - (wide - px), y + py) for px, py in flap.outline), face))
        shapes += [Line(x + w - 3, y, x + w - 3, y + h, "portrait-leaf")]
    else:
        shapes.append(Rect(x + w * 0.25, y + h * 0.2, w * 0.55, h * 0.14, "portrait-label"))
    return shapes
