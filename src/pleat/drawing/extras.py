"""Extras: an empty leaf, since there is nothing in the book yet."""

from __future__ import annotations

from pleat.core.extras.compute import ExtrasResult
from pleat.core.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Drawing, Line, Rect


@main.register
@strip.register
def empty_leaf(_result: ExtrasResult, plan: Plan) -> Drawing:
    """A bare leaf with the outline of a pocket that is not there."""
    width, height = plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    return Drawing(
        width,
        height,
        "A leaf with nothing on it yet.",
        (
            Rect(0, 0, width, height, "leaf"),
            Rect(width * 0.14, height * 0.5, width * 0.72, height * 0.42, "ghost"),
            Line(width * 0.14, height * 0.6, width * 0.86, height * 0.6, "ghost"),
        ),
    )
