"""A leaf's held edge with its holes, head (or left) on the left, on the ruler they are set by; small on the
folded pleat, and in the portrait."""

from __future__ import annotations

from typing import Final

from pleat.core.pleats.binding.punched.record import PunchedResult
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.binding.fold import ruler_line
from pleat.drawing.handles import Handle, handles
from pleat.drawing.looks import main, strip
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import ControlSpot, Curve, Dim, Dot, Drawing, Label, Line, Rect, Shape

DEPTH: Final = 0.24
"""How much of the leaf is shown, as a share of its held edge."""
MOST_HANDLES: Final = 6


@main.register
def large(result: PunchedResult, plan: Plan) -> Drawing:
    """The held edge lying on top, holes to scale, what is lost to the page shaded, and the ruler below."""
    ruler, edge = plan.brief.ruler, result.edge_mm
    share = edge / 210
    depth = max(min(result.reach_mm, DEPTH * edge), result.lost_mm + 6 * share)
    lead = 12 * share
    shapes: list[Shape] = [
        Rect(0, lead, edge, depth, f"leaf swatch-{plan.pages.swatch}"),
        Rect(0, lead, edge, result.lost_mm, "lost-zone"),
        Label(edge, lead + depth, "the page goes on", "on-sheet", "end", (-8, -10)),
        *_gear(result, lead, share),
    ]
    if result.hinge_mm:
        shapes.append(Line(0, lead + result.hinge_mm, edge, lead + result.hinge_mm, "score"))
    shapes += [
        Dot(position, lead + result.inset_mm, "hole", radius_mm=result.hole_mm / 2)
        for position in result.positions_mm
    ]
    top = lead + depth + 16 * share
    few = len(result.positions_mm) <= MOST_HANDLES
    if few:
        shapes += [
            Line(position, lead + result.inset_mm + result.hole_mm / 2, position, top, "guide")
            for position in result.positions_mm
        ]
    shapes += _ruled(edge, plan, top, share, result)
    where = "the held edge, head on the left" if result.along == "side" else "the head, which is held"
    shapes.append(Label(edge, 0, where, "side-label", "end", (0, -6)))
    dims = [Dim("left", lead, lead + result.inset_mm, ruler.number(result.inset_mm), 1, "binding.inset_mm")]
    if result.hinge_mm:
        dims.append(Dim("right", lead, lead + result.hinge_mm, ruler.number(result.hinge_mm)))
    spots = [ControlSpot(handle.path, handle.value_mm, top) for handle in handles(result, plan)]
    says = (
        f"The held edge, {ruler.show(edge)}, with {len(result.positions_mm)} holes "
        f"{ruler.show(result.inset_mm)} from it."
    )
    return Drawing(
        edge, top + (26 if spots else 6) * share, says, shapes, dims=dims, spots=spots, room=(("top", 26.0),)
    )


def _ruled(edge: float, plan: Plan, top: float, share: float, result: PunchedResult) -> list[Shape]:
    """The ruler with the places of the holes where they are few, else of the first and the last."""
    shapes = ruler_line(edge, plan.brief.ruler, top, share)
    if result.along == "head":
        shapes = [
            Label(
                shape.x,
                shape.y,
                {"head": "left", "tail": "right"}.get(shape.text, shape.text),
                shape.style,
                shape.anchor,
                shape.shift,
            )
            if isinstance(shape, Label)
            else shape
            for shape in shapes
        ]
    return shapes


def _gear(result: PunchedResult, lead: float, share: float) -> list[Shape]:
    """What goes through the holes, as it shows from the front."""
    shapes: list[Shape] = []
    inset, thick = lead + result.inset_mm, result.thick_mm
    places = result.positions_mm
    match result.what:
        case "ring" | "wire" | "coil":
            slant = 0.35 if result.what == "coil" else 0.0
            for place in places:
                shapes.append(
                    Curve(
                        (
                            ("M", (place - slant * thick, lead - 7 * share)),
                            ("L", (place + slant * thick, inset)),
                        ),
                        "ring-front",
                        thick,
                    )
                )
        case "strip":
            for bar in (places[first : first + 3] for first in range(0, len(places), 3)):
                middle = bar[len(bar) // 2]
                shapes.append(
                    Rect(
                        middle - result.sticks_mm / 2,
                        lead - 9 * share,
                        result.sticks_mm,
                        4 * share,
                        "metal",
                        radius=2 * share,
                    )
                )
                shapes += [
                    Curve((("M", (at, lead - 7 * share)), ("L", (at, inset))), "ring-front", thick)
                    for at in bar
                ]
        case "stick":
            shapes.append(_battens(thick, inset, result))
            shapes += [
                Curve((("M", (at, inset - thick)), ("L", (at, inset + thick))), "band", 1.6 * share)
                for at in places
            ]
        case "batten":
            shapes.append(Rect(0, lead, result.edge_mm, 2 * result.inset_mm, "stick", radius=1.0))
            shapes += [Dot(at, inset, "metal", radius_mm=thick) for at in places]
        case "post":
            shapes += [Dot(at, inset, "metal", radius_mm=thick) for at in places]
        case "brad":
            shapes += [
                Curve((("M", (places[0], inset)), ("L", (places[0], lead - 8 * share))), "band", 3 * share)
                if places
                else Label(0, 0, "")
            ]
            shapes += [Dot(at, inset, "metal", radius_mm=thick) for at in places]
    return shapes


def _battens(thick: float, inset: float, result: PunchedResult) -> Rect:
    """A batten, drawn."""
    return Rect(
        (result.edge_mm - result.sticks_mm) / 2,
        inset - thick / 2,
        result.sticks_mm,
        thick,
        "stick",
        radius=thick / 2,
    )


@strip.register
def small(result: PunchedResult, plan: Plan) -> Drawing:
    """The leaf with its holes."""
    width, height = plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    shapes: list[Shape] = [Rect(0, 0, width, height, f"leaf swatch-{plan.pages.swatch}")]
    size = max(result.hole_mm / 2, height / 60)
    for position in result.positions_mm[:: max(1, len(result.positions_mm) // 24)]:
        x, y = (result.inset_mm, position) if result.along == "side" else (position, result.inset_mm)
        shapes.append(Dot(max(x, size), y, "hole-held", radius_mm=size))
    return Drawing(width, height, "holes", shapes)


@handles.register
def places(result: PunchedResult, plan: Plan) -> tuple[Handle, ...]:
    """A handle for each hole that can be dragged; of those that move as pairs a middle one stays."""
    if not result.movable or len(result.positions_mm) > MOST_HANDLES:
        return ()
    step, edge = plan.brief.ruler.step_mm, result.edge_mm
    at = (0.0, *result.positions_mm, edge)
    return tuple(
        Handle(
            f"binding.hole.{number}", f"hole {number + 1}", place, at[number] + 2, at[number + 2] - 2, step
        )
        for number, place in enumerate(result.positions_mm)
    )


@portraits.held.register
def outside(result: PunchedResult, cover: CoverResult, body: Body) -> list[Shape]:
    """What shows on the front and round the held edge: rings, wire, heads of posts, a stick with its band."""
    square = cover.square_head_mm if result.along == "side" else cover.square_fore_mm
    shapes: list[Shape] = []
    thick = max(result.thick_mm, 1.2)
    for position in result.positions_mm:
        shapes += _one(result, position + square, thick, body)
    if result.what in ("stick", "batten"):
        wide = thick if result.what == "stick" else 2 * result.inset_mm
        long = result.sticks_mm if result.what == "stick" else result.edge_mm
        start = (result.edge_mm - long) / 2 + square
        x, y = (
            body.at(result.inset_mm - wide / 2, start)
            if result.along == "side"
            else body.at(start, result.inset_mm - wide / 2)
        )
        size = (wide, long) if result.along == "side" else (long, wide)
        shapes.insert(0, Rect(x, y, *size, "portrait-stick", radius=min(wide / 2, 3)))
    if result.what == "stick":
        for at in result.positions_mm:
            near, far, along = result.inset_mm - thick, result.inset_mm + thick, at + square
            first, last = (
                ((near, along), (far, along)) if result.along == "side" else ((along, near), (along, far))
            )
            shapes.append(Line(*body.at(*first), *body.at(*last), "portrait-thread"))
    return shapes


def _one(result: PunchedResult, at: float, thick: float, body: Body) -> list[Shape]:
    """One hole and what is in it, in the portrait."""
    inset = result.inset_mm
    x, y = (inset, at) if result.along == "side" else (at, inset)
    place = body.at(x, y)
    if result.what == "brad":
        return _loop(result, at, body)
    if result.what in ("post", "batten"):
        return [Dot(*place, "portrait-metal", radius_mm=max(thick, 2.0))]
    dot: list[Shape] = [Dot(*place, "portrait-hole", radius_mm=max(result.hole_mm / 2.4, 0.8))]
    if result.what == "stick":
        return dot
    out = 0.9 * _radius(result)
    back = body.at(0, y, body.thick) if result.along == "side" else body.at(x, 0, body.thick)
    if result.along == "side":
        edge = body.at(-out, y, body.thick / 2)
        curve = (
            ("M", place),
            (
                "C",
                (
                    edge[0],
                    edge[1] + out * 0.7,
                    edge[0] - out * 0.2,
                    edge[1] - out * 0.5,
                    back[0] + 1,
                    back[1] - 1,
                ),
            ),
        )
    else:
        edge = body.at(x, -out, body.thick / 2)
        curve = (
            ("M", place),
            ("C", (edge[0] + out * 0.5, edge[1], edge[0] - out * 0.5, edge[1] - out * 0.2, back[0], back[1])),
        )
    return [*dot, Curve(curve, "portrait-ring", min(thick, 3.0))]


def _loop(result: PunchedResult, at: float, body: Body) -> list[Shape]:
    """A brad, the loop from it past the edge, and the ring that hangs in it."""
    radius = result.sticks_mm - 6
    ends = (
        ((result.inset_mm, at), (-6.0, at)) if result.along == "side" else ((at, result.inset_mm), (at, -6.0))
    )
    middle = (-6.0 - radius, at) if result.along == "side" else (at, -6.0 - radius)
    x, y = body.at(*middle)
    ring = (
        ("M", (x - radius, y)),
        ("A", (radius, radius, 0, 1, 0, x + radius, y)),
        ("A", (radius, radius, 0, 1, 0, x - radius, y)),
    )
    strap = Curve((("M", body.at(*ends[0])), ("L", body.at(*ends[1]))), "portrait-strap", 8.0)
    return [
        Curve(ring, "portrait-ring", result.thick_mm),
        strap,
        Dot(*body.at(*ends[0]), "portrait-metal", radius_mm=2.4),
    ]


@portraits.beyond.register
def overhang(result: PunchedResult, body: Body) -> tuple[float, float]:
    """Rings and loops stand out past the held edge, on the left or above."""
    out = {"brad": result.sticks_mm * 2 - 6, "stick": 0.0, "post": 0.0, "batten": 0.0}.get(
        result.what, _radius(result)
    )
    lies = portraits.ACROSS * body.thick if result.along == "side" else portraits.UP * body.thick
    more = max(0.0, out - lies + 2) if out else 0.0
    return (more, 0.0) if result.along == "side" else (0.0, more)


def _radius(result: PunchedResult) -> float:
    return result.cross.ring.radius + result.cross.ring.wire if result.cross else 8.0
