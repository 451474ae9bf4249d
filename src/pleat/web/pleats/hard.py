"""A hard cover: flat as the form, and beside it shut, opened, a corner and an edge."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.cover.hard import HardResult
from pleat.drawing.cover import hard as drawing
from pleat.drawing.svg import Pen, render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

CLOSE: Final = Pen(level=16, tick=3, gap=4, arrow=6, dot=3, text=12, edge=8)
"""The pen for the small drawings beside the flat one."""
FIRST: Final = ("fastener", "ends", "strip", "rounded_mm")
"""What is decided most often, beside what stands on the drawing."""
ON_DRAWING: Final = frozenset({"square_mm", "turn_in_mm", "joint_mm"})
DONE: Final = (
    "measured_spine_mm",
    "inserts_mm",
    "inserts_at",
    "back_mm",
    "front_mm",
    "strip_mm",
    "piece_width_mm",
    "liner_width_mm",
    "hinges_mm",
)
"""What was measured or cut already."""


@about.register
def hard(result: HardResult, opened: Opened) -> dict[str, Any]:
    """The drawings and the three groups of fields: often decided, the rest, and what is cut or measured already."""
    plan, shell = opened.plan, result.shell
    ruler = plan.brief.ruler
    close = {
        "shut, end on": drawing.shut(result, plan),
        "the joint, opened": drawing.opened(result, plan),
        "a corner": drawing.corner(shell, ruler, result.swatch),
        "its layers × 10": drawing.edge(result, plan),
    }
    fields = [one.path for one in entries(opened.book, "cover") if one.path.split(".")[1] not in ON_DRAWING]
    often = [path for path in fields if path.split(".")[1] in FIRST]
    done = [path for path in fields if path.split(".")[1] in DONE]
    return {
        "partial": "pleats/cover/hard.html",
        "small_height": 84,
        "main": drawn(render_screen(drawing.flat(result, plan), 610, 400)),
        "close": [(name, drawn(render_screen(one, 230, 96, CLOSE))) for name, one in close.items()],
        "often": often,
        "rest": [path for path in fields if path not in often and path not in done],
        "done": done,
    }
