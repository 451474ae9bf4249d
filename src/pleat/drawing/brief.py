"""The brief: the open book to scale, with familiar sizes behind it for comparison."""

from __future__ import annotations

from pleat.core.materials.sizes import SIZES
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Dim, Drawing, Label, Line, Rect, Shape


@main.register
def open_book(result: BriefResult, _plan: Plan) -> Drawing:
    """Two leaves side by side; width and height of the right one are the form."""
    width, height = result.leaf_width_mm, result.leaf_height_mm
    shapes: list[Shape] = [
        Rect(0, 0, width, height, "leaf left-leaf"),
        Rect(width, 0, width, height, "leaf"),
        Line(width, 0, width, height, "fold"),
        Label(width / 2, height / 2, "left page", "quiet"),
    ]
    shapes += _ghosts(width, height)
    return Drawing(
        2 * width,
        height,
        f"The open book: two leaves of {result.ruler.size(width, height)}.",
        shapes,
        dims=(
            Dim("bottom", width, 2 * width, result.ruler.number(width), spot="brief.leaf_width_mm"),
            Dim("right", 0, height, result.ruler.number(height), spot="brief.leaf_height_mm"),
            Dim("top", 0, 2 * width, result.ruler.show(2 * width)),
        ),
    )


def _ghosts(width: float, height: float) -> list[Shape]:
    """Outlines of the named sizes next to this one, standing on its tail at the fold."""
    shapes: list[Shape] = []
    for name in ("A6", "A5", "half letter", "A4"):
        other_width, other_height = SIZES[name]
        if (
            other_width <= width + 0.5
            and other_height <= height + 0.5
            and not (abs(other_width - width) < 1 and abs(other_height - height) < 1)
        ):
            shapes.append(Rect(width, height - other_height, other_width, other_height, "ghost"))
            shapes.append(
                Label(
                    width + other_width,
                    height - other_height,
                    f"{name} for comparison",
                    "quiet",
                    "end",
                    (-6, 18),
                )
            )
    return shapes[-2:]


@strip.register
def small(result: BriefResult, _plan: Plan) -> Drawing:
    """The closed book, for the folded pleat."""
    width, height = result.leaf_width_mm, result.leaf_height_mm
    return Drawing(
        width,
        height,
        "leaf",
        (Rect(0, 0, width, height, "leaf"), Line(width * 0.07, 0, width * 0.07, height, "fold")),
    )
