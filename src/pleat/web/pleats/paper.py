"""Paper: both sheets to scale and how thick they are; the materials to pick from is loaded when it is opened."""

from __future__ import annotations

from typing import Any, Final

from pleat.drawing import paper as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

READS: Final = frozenset({"brief", "pages"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    result, brief = opened.plan.paper, opened.plan.brief
    return {
        "in_materials": [role for role in ("leaf", "cover") if getattr(opened.book.paper, role).stock_id],
        "small": small(drawing.strip(result), height=60),
        "sheets": [
            (
                role,
                getattr(result, role),
                getattr(opened.book.paper, role),
                drawn(render_screen(drawing.sheet(getattr(result, role), brief), 420, 310)),
            )
            for role in ("leaf", "cover")
        ],
        "thickness": drawn(render_screen(drawing.thickness(result), 400, 96)),
    }
