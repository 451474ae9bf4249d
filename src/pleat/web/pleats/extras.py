"""Extras: nothing can be put in yet, and the page says so."""

from __future__ import annotations

from typing import Any, Final

from pleat.drawing import extras as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

READS: Final = frozenset({"pages"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    leaf = drawing.empty_leaf(opened.plan.pages)
    return {"small": small(leaf, height=64), "main": drawn(render_screen(leaf, 300, 300))}
