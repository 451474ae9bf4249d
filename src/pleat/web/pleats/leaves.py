"""Single leaves on their pleat."""

from __future__ import annotations

from pleat.core.pleats.pages.kinds.leaves import LeavesBlock
from pleat.drawing import looks
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.members import about


@about.register
def leaves(result: LeavesBlock, opened: Opened) -> dict[str, object]:
    """The drawing; its fields stand in the template, those of odd leaves only where there are some."""
    return {
        "partial": "pleats/pages/leaves.html",
        "main": drawn(render_screen(looks.main(result, opened.plan), 820, 330)),
    }
