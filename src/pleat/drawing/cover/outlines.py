"""What drawings of covers share: polygons as shapes, and numbers that run along an edge and keep apart."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.folding.convex import Polygon
from pleat.core.units import Ruler
from pleat.drawing.shapes import Curve, Label, Shape

APART: Final = 14.0
"""How many px two numbers that stand upright need."""


def outline(polygon: Polygon, style: str, x: float = 0.0, y: float = 0.0) -> Curve:
    """A polygon moved to a place."""
    places = [(a + x, b + y) for a, b in polygon]
    return Curve((("M", places[0]), *(("L", place) for place in places[1:]), ("Z", ())), style)


def running(places: Sequence[float], ruler: Ruler, scale: float, x: float = 0.0, y: float = 0.0) -> list[Shape]:
    """Running positions over their lines, spread where neighbours are too near to be read at ``scale`` px a mm."""
    marks = [at * scale for at in places]
    spread = list(marks)
    for _ in range(8):
        for n in range(len(spread) - 1):
            near = APART - (spread[n + 1] - spread[n])
            if near > 0:
                spread[n], spread[n + 1] = spread[n] - near / 2, spread[n + 1] + near / 2
    return [
        Label(at + x, y, ruler.number(ruler.snap(at)), "running", "start", shift=(to - mark + 4, -5), turned=True)
        for at, mark, to in zip(places, marks, spread, strict=True)
    ]
