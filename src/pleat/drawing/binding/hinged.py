"""A hinge: its pieces flat as the form."""

from __future__ import annotations

from pleat.core.pleats.binding.hinged.record import HingedResult
from pleat.core.whole.planning import Plan
from pleat.drawing import structures
from pleat.drawing.looks import main, strip
from pleat.drawing.pages.folded import look_of
from pleat.drawing.shapes import Drawing


@main.register
def large(result: HingedResult, plan: Plan) -> Drawing:
    """The pieces flat."""
    return structures.flat(result.made, result.flats, result.spots, look_of(plan))


@strip.register
def little(result: HingedResult, plan: Plan) -> Drawing:
    """The pieces, small."""
    return structures.small(result.flats, look_of(plan))
