"""Binding: stations on the fold, draggable, and the path of the thread in words and spans."""

from __future__ import annotations

from typing import Any

from pleat.core.binding.path import Span
from pleat.drawing import binding as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

WIDTH, HEIGHT = 820, 360


def view(opened: Opened) -> dict[str, Any]:
    result, pages, ruler = opened.plan.binding, opened.plan.pages, opened.plan.brief.ruler
    own = opened.book.binding.own_path
    return {
        "small": small(drawing.strip(result, pages)),
        "main": drawn(render_screen(drawing.fold(result, pages, ruler), WIDTH, HEIGHT)),
        "drawing_width": WIDTH,
        "steps": [
            f"Start {result.path.start_side}, leave a tail of {ruler.show(result.tail_mm)}, go {_through(result.path.start_side)} at hole {result.path.holes[0]}."
        ]
        + [_words(span, ruler.show(span.length_mm)) for span in result.path.spans]
        if result.path.spans
        else [],
        "own_path": " ".join(str(hole) for hole in own) if own else "",
        "usual_path": " ".join(str(hole) for hole in result.kind.holes(opened.book.binding.station_count)),
        "cover_holes": ", ".join(ruler.number(hole) for hole in result.cover_holes_mm or ()),
    }


def _through(side: str) -> str:
    return "out" if side == "inside" else "in"


def _words(span: Span, length: str) -> str:
    past = " past the middle" if len(span.gaps) > 1 else ""
    return f"{span.side.capitalize()}, from {span.start}{past} to {span.end}, {length}; go {_through(span.side)} at hole {span.end}."
