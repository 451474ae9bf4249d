"""Extras: an empty leaf, since there is nothing in the book yet."""

from __future__ import annotations

from pleat.core.pages.compute import PagesResult
from pleat.drawing.shapes import Drawing, Line, Rect


def empty_leaf(pages: PagesResult) -> Drawing:
    """A bare leaf with the outline of a pocket that is not there."""
    width, height = pages.leaf_width_mm, pages.leaf_height_mm
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
