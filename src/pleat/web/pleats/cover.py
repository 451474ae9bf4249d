"""Cover: the wrap flat, from the outside."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.cutting.cut import cut_part
from pleat.core.materials.tools import NO_TOOLS
from pleat.drawing import cover as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

READS: Final = frozenset({"paper", "pages", "cutting"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    plan = opened.plan
    swatch = plan.paper.cover.swatch
    cut = cut_part(plan.cover.parts[0], plan.paper.cover, NO_TOOLS, opened.book.cutting.cover_lies)
    return {
        "small": small(drawing.strip(plan.cover, swatch), height=64),
        "main": drawn(render_screen(drawing.flat(plan.cover, plan.pages, swatch, plan.brief.ruler, cut.better.with_grain), 820, 450)),
    }
