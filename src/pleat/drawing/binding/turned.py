"""One moment of a book that is turned round its ring, seen from its end."""

from __future__ import annotations

import math
from collections.abc import Sequence

from pleat.core.engines.holes.turning import Frame
from pleat.core.pleats.binding.punched.record import Cross
from pleat.drawing.shapes import Curve, Dot, Drawing, Shape

LONG = 2.6
"""How far pages are drawn, in radii of the ring."""
Place = tuple[float, float]


def picture(cross: Cross, frames: Sequence[Frame], angle: int) -> Drawing:
    """The ring with the part that stays and the part that turns, at an angle from 0 to 360 degrees."""
    ring = cross.ring
    mirrored = angle > 180
    wanted = 360 - angle if mirrored else angle
    frame = min(frames, key=lambda one: abs(one.angle - wanted))
    half = ring.radius + ring.wire + ring.hole + LONG * ring.radius
    turn = math.radians(frame.angle)
    shapes: list[Shape] = [
        Dot(half, half, "ring-wire", radius_mm=ring.radius + ring.wire),
        Dot(half, half, "ring-inside", radius_mm=ring.radius),
    ]

    def at(across: float, off: float, around: float) -> Place:
        x, y = (
            off * -math.sin(around) + across * math.cos(around),
            off * math.cos(around) + across * math.sin(around),
        )
        return half + x, half - (-y if mirrored else y)

    for sheets, around, style in (
        (frame.stays, 0.0, "stack filled"),
        (frame.turns, turn, "stack turned-stack filled"),
    ):
        for begin, end in ((-ring.bridge, 0.0), (ring.hole, ring.hole + LONG * ring.radius)):
            low = [at(hole + begin, off, around) for off, hole in sheets]
            high = [at(hole + end, off, around) for off, hole in reversed(sheets)]
            corners = [*low, *high]
            shapes.append(
                Curve((("M", corners[0]), *(("L", corner) for corner in corners[1:]), ("Z", ())), style)
            )
    binds = ", where it binds" if frame.binds else ""
    says = f"Turned to {angle} degrees{binds}."
    return Drawing(2 * half, 2 * half, says, shapes)
