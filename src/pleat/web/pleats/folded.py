"""A folded block on its pleat: the sheets as the form, and its fields in the order they are decided."""

from __future__ import annotations

from typing import Any, Final

from pleat.core.pages.folded import FoldedBlock
from pleat.drawing import looks
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats.members import about

GOES_IN: Final = ("photo", "bulk", "border_mm", "mats")
"""What is decided most often."""
DONE: Final = ("bulk_mm", "border_said", "wanted", "mat_width_mm", "mat_height_mm")
"""What was measured or cut already, and what is said more precisely."""
SIZE: Final = ("photo_width_mm", "photo_height_mm")


@about.register
def folded(result: FoldedBlock, opened: Opened) -> dict[str, Any]:
    """The drawing with the fields that stand on it, its own decisions, and those of its faces."""
    plan, book = opened.plan, opened.book
    flat = drawn(render_screen(looks.main(result, plan), 610, 440))
    paths = [one.path for one in entries(book, "pages")]
    by_itself = {one.path: plan.brief.ruler.number(one.by_itself_mm) for one in result.spots if one.by_itself_mm}
    by_itself |= {
        result.gussets[room.name]: plan.brief.ruler.number(room.has_mm) for room in result.made.rooms if room.name in result.gussets
    }
    on = [path for path in dict.fromkeys(one.path for one in result.spots) if path in paths]
    named = {path: path.split(".")[1] for path in paths}
    own = [path for path in paths if path not in on and named[path] not in (*GOES_IN, *DONE, *SIZE)]
    record: Any = book.pages
    return {
        "partial": "pleats/pages/folded.html",
        "main": flat,
        "small_height": 96,
        "on_drawing": on,
        "by_itself": by_itself,
        "texts": {one.path: one.text for one in entries(book, "pages")},
        "own": own,
        "goes_in": [*(f"pages.{name}" for name in GOES_IN), *(f"pages.{name}" for name in SIZE if record.photo == "own")],
        "done": [f"pages.{name}" for name in DONE],
        "sizes": [one for one in result.offers if one.group == "size"],
        "orders": [one for one in result.offers if one.group == "order"],
    }
