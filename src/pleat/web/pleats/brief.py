"""Brief: the open book, what it is for, how many, and on which ruler."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.binding.kinds.registry import known
from pleat.drawing import brief as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened, folded_once
from pleat.web.display import drawn
from pleat.web.pleats.small import small

READS: Final = frozenset({"paper"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    result = opened.plan.brief
    width, height = folded_once(opened.book.paper.leaf)
    return {
        "small": small(drawing.strip(result)),
        "main": drawn(render_screen(drawing.open_book(result), 820, 400)),
        "kinds": known(),
        "paper_fit": (width, height) if (width, height) != (result.leaf_width_mm, result.leaf_height_mm) else None,
    }
