"""A folded block: its sheets as the form, its portrait half open."""

from __future__ import annotations

from pleat.core.pages.folded import FoldedBlock
from pleat.core.planning import Plan
from pleat.drawing import portraits, structures
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Drawing
from pleat.drawing.structures import Look


def look_of(plan: Plan) -> Look:
    """The colours of its stocks."""
    return Look({key: stock.swatch for key, stock in plan.paper.stocks.items()}, plan.brief.ruler)


@main.register
def large(result: FoldedBlock, plan: Plan) -> Drawing:
    """The sheets flat."""
    return structures.flat(result.made, result.flats, result.spots, look_of(plan))


@strip.register
def little(result: FoldedBlock, plan: Plan) -> Drawing:
    """The sheets, small."""
    return structures.small(result.flats, look_of(plan))


@portraits.standing.register
def half_open(result: FoldedBlock, plan: Plan) -> Drawing | None:
    """A structure that is complete in itself stands half open."""
    if result.unit != "folio":
        return None
    ruler = plan.brief.ruler
    says = f"Half open; shut it is {ruler.size(result.leaf_width_mm, result.leaf_height_mm)}, {ruler.thin(result.thickness.likely)} thick."
    return structures.standing(result.made.programme, look_of(plan), says)
