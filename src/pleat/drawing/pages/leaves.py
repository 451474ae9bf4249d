"""Single leaves: one of them flat, its held edge on the left, with those of another size; and the stack from
its end, with what is thicker in it."""

from __future__ import annotations

from pleat.core.pleats.pages.kinds.leaves import LeavesBlock
from pleat.core.trade.holes import THICK_BEGINS_SHARE
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Curve, Dim, Drawing, Label, Line, Rect, Shape


@main.register
def large(result: LeavesBlock, plan: Plan) -> Drawing:
    """A leaf to scale over the stack at the same scale."""
    ruler, wide, high = plan.brief.ruler, result.leaf_width_mm, result.leaf_height_mm
    thick, gap = result.thickness.likely, high * 0.14
    swatch = f"swatch-{result.swatch}"
    shapes: list[Shape] = [Rect(0, 0, wide, high, f"leaf {swatch}"), Line(0, 0, 0, high, "fold")]
    for odd_wide, odd_high, at in result.odd:
        top = {"head": 0.0, "tail": high - odd_high, "middle": (high - odd_high) / 2}[at]
        shapes += [
            Rect(0, top, odd_wide, odd_high, "ghost"),
            Label(odd_wide, top + odd_high, ruler.size(odd_wide, odd_high), "quiet", "end", (-6, -8)),
        ]
    base = high + gap
    begins, more = wide * THICK_BEGINS_SHARE, result.middle_mm
    corners = [
        (0.0, base),
        (begins, base - more / 2),
        (wide, base - more / 2),
        (wide, base + thick + more / 2),
        (begins, base + thick + more / 2),
        (0.0, base + thick),
    ]
    shapes.append(
        Curve(
            (("M", corners[0]), *(("L", corner) for corner in corners[1:]), ("Z", ())),
            f"filled folio {swatch}",
        )
    )
    shapes.append(
        Label(0, base - more / 2, "the stack from its end, held edge on the left", "quiet", "start", (0, -8))
    )
    shapes.append(Label(wide, base + thick / 2, ruler.thin(thick + more), "label", "start", (8, 5)))
    dims = (
        Dim("top", 0, wide, ruler.number(wide)),
        Dim("left", 0, high, ruler.number(high)),
    )
    says = (
        f"A leaf of {ruler.size(wide, high)}, and the stack of {result.in_words}, {ruler.thin(thick)} thick."
    )
    return Drawing(wide, base + thick + more / 2, says, shapes, dims=dims, room=(("right", 90.0),))


@strip.register
def small(result: LeavesBlock, _plan: Plan) -> Drawing:
    """Leaves lying on each other."""
    lines = min(result.leaves, 9)
    return Drawing(
        26,
        3.0 * lines,
        "leaves",
        [Rect(0, 3.0 * n, 26, 1.6, f"edge swatch-{result.swatch}") for n in range(lines)],
    )
