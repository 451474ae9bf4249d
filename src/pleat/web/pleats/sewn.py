"""A sewing on its pleat: stations that can be dragged, the thread move by move, and the ways it could be sewn
instead."""

from __future__ import annotations

from typing import Final

from pleat.core.engines.sewing.words import told
from pleat.core.pleats.binding import suiting
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.drawing import looks
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

WIDTH: Final = 820
HEIGHT: Final = 350
MOST_TOLD: Final = 40
"""Moves that are told on the pleat; a longer sewing is told on its own page."""
_ELSEWHERE: Final = frozenset(
    {
        "insets_mm",
        "positions_mm",
        "cover_holes_mm",
        "thread_cut_mm",
        "moves",
        "name",
        "stock_id",
        "gear",
        "tail_mm",
        "pierce",
        "spread",
    }
)
"""Fields that have a place of their own on the page."""


@about.register
def sewn(result: SewnResult, opened: Opened) -> dict[str, object]:
    """The pleat's drawing, the way of the thread, and the fields of this kind."""
    tail = f"a tail of {opened.plan.brief.ruler.show(result.tail_mm)}"
    moves = sum(len(thread) for thread in result.sewing.threads)
    words = [one for thread in told(result.sewing, tail) for one in thread] if moves <= MOST_TOLD else []
    return {
        "partial": "pleats/binding/sewn.html",
        "main": drawn(render_screen(looks.main(result, opened.plan), WIDTH, HEIGHT)),
        "steps": [word[0].upper() + word[1:] for word in words],
        "moves": moves,
        "own_fields": [
            entry
            for entry in entries(opened.book, "binding")
            if entry.path.partition(".")[2] not in _ELSEWHERE
        ],
        "ways": [offer for offer in result.offers if offer.group == suiting.GROUP],
    }
