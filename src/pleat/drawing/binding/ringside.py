"""A book from its end, shut: the ring to scale, the stack at its thickness, how much more it takes; or a
stack on its posts."""

from __future__ import annotations

from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.holes.turning import shut
from pleat.core.pleats.binding.punched.record import Clamp, Cross, PunchedResult
from pleat.drawing.shapes import Curve, Dim, Dot, Drawing, Label, Line, Rect, Shape

PAGE: Final = 1.9
"""How far pages go on past the ring, in its radii."""


def ring_side(result: PunchedResult, ruler: Ruler) -> Drawing | None:
    """The cross-section of a ring, wire or coil, or of a stack on its posts; None for what has none."""
    if result.clamp is not None:
        return _clamped(result.clamp, result, ruler)
    if result.cross is None:
        return None
    cross = result.cross
    ring = cross.ring
    outer = ring.radius + ring.wire
    tall = max(outer, cross.stack / 2, cross.limits.proposed / 2) + 1
    x, y = outer + 1, tall
    right = x + outer + PAGE * ring.radius
    shapes: list[Shape] = [
        Dot(x, y, "ring-wire", radius_mm=outer),
        Dot(x, y, "ring-inside", radius_mm=ring.radius),
        *_stack(cross, x, y, right),
    ]
    dims = [Dim("right", y - cross.stack / 2, y + cross.stack / 2, ruler.thin(cross.stack))]
    dims.append(Dim("bottom", x - ring.radius, x + ring.radius, ruler.show(2 * ring.radius)))
    says = (
        f"The book from its end: a ring of {ruler.show(2 * ring.radius)} with a stack of "
        f"{ruler.thin(cross.stack)}."
    )
    return Drawing(right, 2 * tall, says, shapes, dims=dims)


def _stack(cross: Cross, x: float, y: float, right: float) -> list[Shape]:
    """Bridges inside the ring and pages beyond it; dashed, as much as may lie there."""
    ring, stack = cross.ring, cross.stack
    shapes: list[Shape] = []
    if cross.limits.proposed > stack:
        most = cross.limits.proposed
        shapes.append(Rect(x + ring.radius * 0.2, y - most / 2, right - x - ring.radius * 0.2, most, "ghost"))
    places = shut(ring, stack)
    bridges = [(x + hole - ring.bridge, y - height) for height, hole in places]
    holes = [(x + hole, y - height) for height, hole in places]
    pages = [(x + hole + ring.hole, y - height) for height, hole in places]
    for start, end in ((bridges, holes), (pages, [(right, at) for _, at in pages])):
        corners = [*start, *reversed(end)]
        shapes.append(
            Curve((("M", corners[0]), *(("L", corner) for corner in corners[1:]), ("Z", ())), "stack filled")
        )
    lines = min(len(places) - 1, max(cross.leaves - 1, 1))
    for number in range(1, lines):
        height, hole = places[number * (len(places) - 1) // lines]
        shapes += [
            Line(x + hole - ring.bridge, y - height, x + hole, y - height, "stack-line"),
            Line(x + hole + ring.hole, y - height, right, y - height, "stack-line"),
        ]
    if cross.cover:
        for side in (-1, 1):
            height, hole = places[0] if side < 0 else places[-1]
            at = y - height + side * cross.cover / 2
            shapes.append(Line(x + hole + ring.hole, at, right, at, "stack-cover"))
    if cross.middle:
        shapes.append(Label(right, y - stack / 2, "thicker in the middle", "quiet", "end", (-4, -6)))
    return shapes


def _clamped(clamp: Clamp, result: PunchedResult, ruler: Ruler) -> Drawing:
    """The stack on a post, battens and covers and packing in their places."""
    right = result.inset_mm * 2 + 28
    rows = [
        (clamp.batten, "stick", 2 * result.inset_mm),
        (clamp.cover, "stack turned-stack", right),
        (clamp.block, "stack", right),
        (clamp.cover, "stack turned-stack", right),
        (clamp.packing, "lost-zone", 2 * result.inset_mm),
        (clamp.batten, "stick", 2 * result.inset_mm),
    ]
    head = 2.0
    shapes: list[Shape] = []
    y = head
    for thick, style, wide in rows:
        if thick > 0.02:
            shapes.append(Rect(0, y, wide, thick, style))
            y += thick
    half = clamp.post_thick / 2
    shapes.append(Rect(result.inset_mm - half, head, clamp.post_thick, max(y - head, clamp.post), "metal"))
    shapes += [
        Rect(result.inset_mm - 2 * half, at, 4 * half, head, "metal", radius=1)
        for at in (0.0, max(y, head + clamp.post))
    ]
    whole = max(y, head + clamp.post) + head
    dims = (Dim("right", head, y, ruler.thin(y - head)),)
    says = f"The book from its end: {ruler.thin(y - head)} on a post of {ruler.show(clamp.post)}."
    return Drawing(right, whole, says, shapes, dims=dims)
