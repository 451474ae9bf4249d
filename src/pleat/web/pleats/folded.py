"""Folded pieces on their pleat: the sheets as the form, and fields in the order they are decided."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.pleats.binding.hinged.record import HingedResult
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.drawing import looks
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

GOES_IN: Final = ("photo", "bulk", "border_mm", "mats")
"""What is decided most often."""
DONE: Final = (
    "cut_width_mm",
    "cut_height_mm",
    "fastened_mm",
    "bulk_mm",
    "liked",
    "border_said",
    "wanted",
    "mat_width_mm",
    "mat_height_mm",
)
"""What was measured or cut already, and what is said more precisely."""
SIZE: Final = ("photo_width_mm", "photo_height_mm")


def _flat(result: FoldedBlock | HingedResult, opened: Opened, pleat: str) -> dict[str, Any]:
    """The drawing with the fields that stand on it."""
    plan, fields = opened.plan, entries(opened.book, pleat)
    paths = [entry.path for entry in fields]
    return {
        "partial": "pleats/pages/folded.html",
        "pleat": pleat,
        "main": drawn(render_screen(looks.main(result, plan), 610, 440)),
        "on_drawing": [path for path in dict.fromkeys(spot.path for spot in result.spots) if path in paths],
        "by_itself": {
            spot.path: plan.brief.ruler.number(spot.by_itself_mm)
            for spot in result.spots
            if spot.by_itself_mm
        },
        "texts": {entry.path: entry.text for entry in fields},
    }


@about.register
def folded(result: FoldedBlock, opened: Opened) -> dict[str, object]:
    """Its own decisions, and those of its faces."""
    view = _flat(result, opened, "pages")
    ruler, record = opened.plan.brief.ruler, opened.book.pages
    view["by_itself"] |= {
        result.gussets[room.name]: ruler.number(room.has_mm)
        for room in result.made.rooms
        if room.name in result.gussets
    }
    named = {path: path.split(".")[1] for path in view["texts"]}
    own = [
        path
        for path, name in named.items()
        if path not in view["on_drawing"] and name not in (*GOES_IN, *DONE, *SIZE)
    ]
    sizes = SIZE if getattr(record, "photo", "") == "own" else ()
    return {
        **view,
        "own": own,
        "goes_in": [f"pages.{name}" for name in (*GOES_IN, *sizes)],
        "done": [f"pages.{name}" for name in DONE if f"pages.{name}" in named],
        "sizes": [offer for offer in result.offers if offer.group in ("papers", "size", "cut", "free")],
        "orders": [offer for offer in result.offers if offer.group == "order"],
        "draws": [offer for offer in result.offers if offer.group == "draw"],
        "moves": "open and shut it" if result.programme.closing else "",
    }


@about.register
def hinged(result: HingedResult, opened: Opened) -> dict[str, object]:
    """The hinge's own decisions."""
    view = _flat(result, opened, "binding")
    return {
        **view,
        "own": [path for path in view["texts"] if path not in view["on_drawing"]],
        "moves": "open it leaf by leaf",
        "ways": [offer for offer in result.offers if offer.group == "stitches"],
    }
