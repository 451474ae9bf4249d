"""Binding: stations on the fold, draggable, and the path of the thread in words and spans."""

from __future__ import annotations

import itertools
from typing import Any, Final

from pleat.core.binding.path import Span
from pleat.drawing import binding as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

WIDTH, HEIGHT = 820, 350
FIELD_SHARE = 0.15
"""A station's field, as a share of the drawing's width on the narrowest screen."""


READS: Final = frozenset({"pages"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    result, pages, ruler = opened.plan.binding, opened.plan.pages, opened.plan.brief.ruler
    own = opened.book.binding.own_path
    main = render_screen(drawing.fold(result, pages, ruler), WIDTH, HEIGHT)
    return {
        "small": small(drawing.strip(result, pages)),
        "main": drawn(main),
        "low": _low([main.spots[f"binding.station.{number}"][0] for number in range(len(result.positions_mm))]),
        "drawing_width": WIDTH,
        "steps": [
            f"Start {result.path.start_side}, leave a tail of {ruler.show(result.tail_mm)}, go {_through(result.path.start_side)} at hole {result.path.holes[0]}."
        ]
        + [_words(span, ruler.show(span.length_mm), len(result.positions_mm)) for span in result.path.spans]
        if result.path.spans
        else [],
        "own_path": " ".join(str(hole) for hole in own) if own else "",
        "usual_path": " ".join(str(hole) for hole in result.kind.holes(opened.book.binding.station_count)),
        "cover_holes": ", ".join(ruler.number(hole) for hole in result.cover_holes_mm or ()),
    }


def _low(across: list[float]) -> frozenset[int]:
    """Which stations have their field a row lower, so that fields of close neighbours do not lie on each other."""
    low: set[int] = set()
    for number, (before, here) in enumerate(itertools.pairwise(across), 1):
        if here - before < FIELD_SHARE and number - 1 not in low:
            low.add(number)
    return frozenset(low)


def _through(side: str) -> str:
    return "out" if side == "inside" else "in"


def _words(span: Span, length: str, stations: int) -> str:
    return f"{span.side.capitalize()}, from {span.start}{span.past(stations)} to {span.end}, {length}; go {_through(span.side)} at hole {span.end}."
