"""The soft wrap flat, from the outside."""

from __future__ import annotations

from typing import Any

from pleat.core.cover.wrapped import WrapResult
from pleat.drawing.cover import wrap as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.members import about


@about.register
def wrap(result: WrapResult, opened: Opened) -> dict[str, Any]:
    """The pleat's drawing, whose square is the form."""
    return {
        "partial": "pleats/cover/wrap.html",
        "small_height": 64,
        "main": drawn(render_screen(drawing.flat(result, opened.plan), 820, 450)),
    }
