"""What a block, a binding and a cover look like in general: for members without a drawing of their own, and
for what does not fit."""

from __future__ import annotations

from pleat.core.pleats.binding.result import BindingResult
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan
from pleat.drawing.handles import handles
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import ControlSpot, Dim, Dot, Drawing, Label, Line, Rect, Shape

MOST_LINES = 40
"""Leaves of a block that are drawn one by one."""


@main.register
def block(result: Block, plan: Plan) -> Drawing:
    """The block end on, at one scale, the held edge on the left."""
    ruler, width, thick = plan.brief.ruler, result.leaf_width_mm, result.thickness.likely
    lines = min(result.leaves, MOST_LINES)
    shapes: list[Shape] = [Rect(0, 0, width, thick, f"folio swatch-{result.swatch}")]
    shapes += [Line(0, thick * n / lines, width, thick * n / lines, "ghost") for n in range(1, lines)]
    return Drawing(
        width,
        thick,
        f"The block end on, {result.in_words}, {ruler.thin(thick)} thick.",
        shapes,
        dims=(Dim("bottom", 0, width, ruler.show(width)), Dim("right", 0, thick, ruler.thin(thick))),
    )


@strip.register
def block_small(result: Block, _plan: Plan) -> Drawing:
    lines = min(result.leaves, 9)
    return Drawing(
        26,
        3.0 * lines,
        "block",
        [Rect(0, 3.0 * n, 26, 1.6, f"edge swatch-{result.swatch}") for n in range(lines)],
    )


def _held(result: BindingResult, plan: Plan) -> list[Shape]:
    width, height = plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    shapes: list[Shape] = [
        Rect(0, 0, width, height, f"leaf swatch-{plan.pages.swatch}"),
        Line(0, 0, 0, height, "fold"),
    ]
    return shapes + [Dot(result.inset_mm, position, "hole", 1.2) for position in result.positions_mm]


@main.register
def binding(result: BindingResult, plan: Plan) -> Drawing:
    """The leaf with the holes it is held by, its held edge on the left."""
    ruler, width, height = plan.brief.ruler, plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    dims = [Dim("left", 0, height, ruler.number(height))]
    dims += [
        Dim("right", 0, position, ruler.number(position), level=level)
        for level, position in enumerate(result.positions_mm[:4], 1)
    ]
    if result.inset_mm:
        dims.append(Dim("top", 0, result.inset_mm, ruler.number(result.inset_mm)))
    spots = [
        ControlSpot(
            handle.path,
            *((result.inset_mm, handle.value_mm) if handle.axis == "y" else (handle.value_mm, 0.0)),
        )
        for handle in handles(result, plan)
    ]
    return Drawing(
        width,
        height,
        f"A leaf with {len(result.positions_mm)} holes.",
        _held(result, plan),
        dims=dims,
        spots=spots,
    )


@strip.register
def binding_small(result: BindingResult, plan: Plan) -> Drawing:
    return Drawing(plan.pages.leaf_width_mm, plan.pages.leaf_height_mm, "binding", _held(result, plan))


@main.register
def cover(result: CoverResult, plan: Plan) -> Drawing:
    """The front of the book as it lies shut, with the leaves under it."""
    ruler, width, height = plan.brief.ruler, result.front_width_mm, result.front_height_mm
    leaf = (plan.pages.leaf_width_mm, plan.pages.leaf_height_mm)
    shapes: list[Shape] = [
        Rect(0, 0, width, height, f"wrap swatch-{result.swatch}"),
        Rect(0, result.square_head_mm, *leaf, "under"),
        Label(width / 2, height * 0.46, result.key_figure.label, "panel-name"),
    ]
    dims = (Dim("bottom", 0, width, ruler.number(width)), Dim("left", 0, height, ruler.number(height)))
    return Drawing(width, height, f"The front, {ruler.size(width, height)}.", shapes, dims=dims)


@strip.register
def cover_small(result: CoverResult, _plan: Plan) -> Drawing:
    width, height = result.front_width_mm, result.front_height_mm
    return Drawing(width, height, "cover", [Rect(0, 0, width, height, f"wrap swatch-{result.swatch}")])
