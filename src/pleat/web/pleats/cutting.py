"""Cutting: each part on its sheet, the better way round large and the other way small."""

from __future__ import annotations

from typing import Any, Final

from pleat.drawing import cutting as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

READS: Final = frozenset({"paper"})
"""The other pleats whose result or decisions stand in this view; what the ruler shows stands in all."""


def view(opened: Opened) -> dict[str, Any]:
    result, ruler = opened.plan.cutting, opened.plan.brief.ruler
    return {
        "small": small(drawing.strip(result)),
        "cuts": [
            (
                cut,
                drawn(render_screen(drawing.sheet(cut, cut.better, ruler), 380, 320)),
                drawn(render_screen(drawing.sheet(cut, cut.other, ruler, dims=False), 150, 120)),
            )
            for cut in result.cuts
        ],
    }
