"""The pamphlet stitch: stations on the fold, draggable, and the path of the thread in words and spans."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.binding.path import Span
from pleat.core.binding.sewn import SewnResult
from pleat.drawing.binding import pamphlet as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.members import about

WIDTH: Final = 820
HEIGHT: Final = 350


@about.register
def sewn(result: SewnResult, opened: Opened) -> dict[str, Any]:
    """The pleat's drawing and the way of the thread."""
    ruler = opened.plan.brief.ruler
    return {
        "partial": "pleats/binding/pamphlet.html",
        "main": drawn(render_screen(drawing.fold(result, opened.plan), WIDTH, HEIGHT)),
        "steps": [
            f"Start {result.path.start_side}, leave a tail of {ruler.show(result.tail_mm)}, go {_through(result.path.start_side)} at hole {result.path.holes[0]}."
        ]
        + [_words(span, ruler.show(span.length_mm), len(result.positions_mm)) for span in result.path.spans]
        if result.path.spans
        else [],
        "usual_path": " ".join(str(hole) for hole in result.usual_path),
    }


def _through(side: str) -> str:
    return "out" if side == "inside" else "in"


def _words(span: Span, length: str, stations: int) -> str:
    return f"{span.side.capitalize()}, from {span.start}{span.past(stations)} to {span.end}, {length}; go {_through(span.side)} at hole {span.end}."
