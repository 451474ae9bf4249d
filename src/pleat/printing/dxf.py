"""A drawing in millimetres as DXF, for programs that cut."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence
from typing import Any

from pleat.drawing.shapes import Dot, Label, Line, Rect

Flat = Rect | Line | Dot | Label


def as_dxf(shapes: Iterable[tuple[Flat, str]], height_mm: float, layers: Sequence[str]) -> str:
    """Shapes, each with the name of its layer, as a file (R2000, mm); up is up there, so that what lies at 0
    here lies at ``height_mm``."""
    import ezdxf  # slow to load, and seldom asked for

    file = ezdxf.new("R2000", units=4)  # type: ignore[attr-defined]
    space: Any = file.modelspace()
    for layer in layers:
        file.layers.add(layer)
    for shape, layer in shapes:
        on = {"layer": layer}
        match shape:
            case Rect():
                x, y, wide, high = shape.x, height_mm - shape.y, shape.width, shape.height
                corners = [(x, y), (x + wide, y), (x + wide, y - high), (x, y - high)]
                space.add_lwpolyline(corners, close=True, dxfattribs=on)
            case Line():
                space.add_line(
                    (shape.x1, height_mm - shape.y1), (shape.x2, height_mm - shape.y2), dxfattribs=on
                )
            case Dot():
                space.add_circle((shape.x, height_mm - shape.y), shape.radius_mm or 0.8, dxfattribs=on)
            case Label():
                place = (shape.x, height_mm - shape.y)
                space.add_text(shape.text, height=2.5, dxfattribs={"layer": layer, "insert": place})
    out = io.StringIO()
    file.write(out)
    return out.getvalue()
