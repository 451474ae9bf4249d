"""A folded block: its sheets as the form, its portrait half open."""

from __future__ import annotations

from dataclasses import replace

from pleat.core.pleats.binding.hinged.record import CASE, LEAF
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.marks import Marks, marks, on_leaf
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits, structures
from pleat.drawing.handles import Handle, handles
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import ControlSpot, Drawing
from pleat.drawing.structures import Look


def look_of(plan: Plan) -> Look:
    """The colours of its stocks; whole leaves and boards of a hinged album have those of what shows of
    them."""
    swatches = {key: stock.swatch for key, stock in plan.paper.stocks.items()}
    covered = "covering" if "covering" in plan.paper.roles else "cover"
    return Look({**swatches, LEAF: swatches["mat"], CASE: swatches[covered]}, plan.brief.ruler)


def marked(made: Made, plan: Plan) -> Marks:
    """What is seen on the panels of a structure: its own places, and on leaves that hang on a hinge the
    papers and places of the leaf."""
    leaf = on_leaf(plan.pages.made) if isinstance(plan.pages, FoldedBlock) else ()
    whole = {
        (piece.name, panel.name): leaf
        for piece in made.programme.pieces
        if piece.stock == LEAF
        for panel in piece.panels
    }
    return {**marks(made), **whole}


@main.register
def large(result: FoldedBlock, plan: Plan) -> Drawing:
    """The sheets flat; a free one with a place on every score."""
    drawing = structures.flat(result.made, result.flats, result.spots, look_of(plan))
    grips = tuple(
        ControlSpot(handle.path, *((handle.at_mm, 0.0) if handle.axis == "x" else (0.0, handle.at_mm)))
        for handle in result.dragged
    )
    return replace(drawing, spots=(*drawing.spots, *grips)) if grips else drawing


@handles.register
def scores_dragged(result: FoldedBlock, plan: Plan) -> tuple[Handle, ...]:
    """The scores of a free folio."""
    step = plan.brief.ruler.step_mm
    return tuple(
        Handle(
            handle.path,
            f"score at {plan.brief.ruler.show(handle.at_mm)}",
            handle.at_mm,
            handle.low_mm,
            handle.high_mm,
            step,
            handle.axis,
        )
        for handle in result.dragged
    )


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
    says = (
        f"Half open; shut it is {ruler.size(result.leaf_width_mm, result.leaf_height_mm)}, "
        f"{ruler.thin(result.thickness.likely)} thick."
    )
    return structures.standing(result.made, look_of(plan), says)
