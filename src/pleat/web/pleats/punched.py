"""Holes along an edge on their pleat: the held edge that is the form, the book from its end, the sizes side
by side."""

from __future__ import annotations

from typing import Final

from pleat.core.pleats.binding import suiting
from pleat.core.pleats.binding.punched.capacity import GROUP
from pleat.core.pleats.binding.punched.record import PunchedResult
from pleat.drawing import looks
from pleat.drawing.binding.ringside import ring_side
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

WIDTH: Final = 820
HEIGHT: Final = 300
FIRST: Final = (
    "count",
    "bars",
    "pattern",
    "per",
    "spread",
    "inner_mm",
    "nominal_mm",
    "length_mm",
    "band_mm",
    "stick_mm",
    "loop_wide_mm",
    "hinge_mm",
)
"""The decisions most often taken, which stand in the open; the others are in a drawer."""
_ELSEWHERE: Final = frozenset({"positions_mm", "stock_id", "inset_mm", "gear"})


@about.register
def punched(result: PunchedResult, opened: Opened) -> dict[str, object]:
    """The pleat's drawings and the fields of this kind, the common ones apart."""
    fields = [
        entry for entry in entries(opened.book, "binding") if entry.path.partition(".")[2] not in _ELSEWHERE
    ]
    side = ring_side(result, opened.plan.brief.ruler)
    return {
        "partial": "pleats/binding/punched.html",
        "main": drawn(render_screen(looks.main(result, opened.plan), WIDTH, HEIGHT)),
        "side": drawn(render_screen(side, 360, 260)) if side else None,
        "first": [entry for entry in fields if entry.path.partition(".")[2] in FIRST],
        "rest": [entry for entry in fields if entry.path.partition(".")[2] not in FIRST],
        "sizes": [offer for offer in result.offers if offer.group == GROUP],
        "ways": [offer for offer in result.offers if offer.group == suiting.GROUP],
    }
