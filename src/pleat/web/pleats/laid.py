"""A cover made of pieces: flat as the form, close views beside it, and its fields in the order they are
decided."""

from __future__ import annotations

from typing import Final

from pleat.core.pleats.cover.hard import HardResult
from pleat.core.pleats.cover.laid import LaidResult
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.drawing import looks
from pleat.drawing.cover import hard as drawing
from pleat.drawing.shapes import Drawing
from pleat.drawing.svg import Pen, render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

CLOSE: Final = Pen(level=24, tick=3, gap=4, arrow=6, dot=3, text=12, edge=8)
"""The pen for the small drawings beside the flat one."""
FIRST: Final = (
    "hinge_mm",
    "edge_mm",
    "fastener",
    "ends",
    "strip",
    "rounded_mm",
    "shape",
    "lined",
    "flap",
    "layers",
    "padding_mm",
    "onto_mm",
    "seam",
)
"""What is decided most often, beside what stands on the drawing."""
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
    "fastened_mm",
    "score_offset_mm",
)
"""What was measured or cut already, and what goes in later."""


def close_ups(result: LaidResult, opened: Opened) -> dict[str, Drawing]:
    """The small drawings of a cover by their captions."""
    plan = opened.plan
    if not isinstance(result, HardResult):
        return {"its layers × 10": drawing.edge(result, plan)}
    return {
        "shut, end on": drawing.shut(result, plan),
        "the joint, opened": drawing.opened(result, plan),
        "a corner, from inside": drawing.corner(result.shell, plan.brief.ruler, result.swatch),
        "its layers × 10": drawing.edge(result, plan),
    }


@about.register
def laid(result: LaidResult, opened: Opened) -> dict[str, object]:
    """The drawings, the fields that stand on the flat one, and three groups of others."""
    plan = opened.plan
    flat = drawn(render_screen(looks.main(result, plan), 610, 400))
    handled = {"cover.joint_mm"} if isinstance(result, HardResult) else set()
    fields = [entry.path for entry in entries(opened.book, "cover")]
    on_drawing = [path for path in fields if path in flat["spots"] and path not in handled]
    others = [path for path in fields if path not in on_drawing and path not in handled]
    ruler, itself = plan.brief.ruler, {place.path: place.by_itself_mm for place in result.places}
    named = {path: path.split(".")[1] for path in others}
    return {
        "partial": "pleats/cover/laid.html",
        "moves": opened.plan.binding.at != "edge",
        "main": flat,
        "close": [
            (name, drawn(render_screen(drawing, 230, 96, CLOSE)))
            for name, drawing in close_ups(result, opened).items()
        ],
        "on_drawing": [(path, ruler.number(itself[path]) if path in itself else "") for path in on_drawing],
        "often": [path for path in others if named[path] in FIRST],
        "rest": [path for path in others if named[path] not in (*FIRST, *DONE)],
        "done": [path for path in others if named[path] in DONE],
    }


@about.register
def wrap(result: WrapResult, opened: Opened) -> dict[str, object]:
    """The wrap's own drawing, whose square is the form."""
    return {
        "partial": "pleats/cover/wrap.html",
        "main": drawn(render_screen(looks.main(result, opened.plan), 820, 450)),
        "more": [
            entry.path for entry in entries(opened.book, "cover") if entry.path.split(".")[1] not in ON_WRAP
        ],
    }


ON_WRAP: Final = ("square_mm", "creases", "score_offset_mm", "piece_width_mm", "piece_height_mm")
