"""The small drawing on a folded pleat, drawn the same way for all."""

from __future__ import annotations

from typing import Final

from markupsafe import Markup

from pleat.drawing.shapes import Drawing
from pleat.drawing.svg import Pen, render_screen

SMALL: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=8, edge=2)


def small(drawing: Drawing, width: float = 44, height: float = 132) -> Markup:
    """A drawing without numbers, in its own proportions; the pleat's words say what it is."""
    svg = render_screen(drawing, width, height, SMALL, css="small-drawing").svg
    return Markup(svg.replace('role="img"', 'aria-hidden="true"', 1))
