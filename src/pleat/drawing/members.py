"""Loading this module makes the drawings of all members known."""

from pleat.drawing import bench, brief, cutting, extras, paper, plain, portraits
from pleat.drawing.binding import hinged, punched, row, sewn, sticks
from pleat.drawing.cover import hard, laid, wrap
from pleat.drawing.pages import folded, leaves, sections

__all__ = [
    "bench",
    "brief",
    "cutting",
    "extras",
    "folded",
    "hard",
    "hinged",
    "laid",
    "leaves",
    "paper",
    "plain",
    "portraits",
    "punched",
    "row",
    "sections",
    "sewn",
    "sticks",
    "wrap",
]
