"""Pages: the section end on, whole and magnified, and the folio flat."""

from __future__ import annotations

from typing import Any

from pleat.core.pages.limits import FLAP_GAP_MM
from pleat.drawing import pages as drawing
from pleat.drawing.svg import render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small


def view(opened: Opened) -> dict[str, Any]:
    result, ruler, sheet = opened.plan.pages, opened.plan.brief.ruler, opened.plan.paper.leaf
    sides = (sheet.sheet_width_mm, sheet.sheet_height_mm)
    spare = [a - 2 * result.leaf_width_mm for a, b in (sides, sides[::-1]) if b + 0.05 >= result.leaf_height_mm]
    room = ruler.snap_down(min(max(spare, default=0.0), result.leaf_width_mm - FLAP_GAP_MM))
    counted = opened.book.pages.counted_in
    whole, fold = render_screen(drawing.whole(result, ruler), 820, 84), render_screen(drawing.fold_detail(result, ruler), 270, 230)
    return {
        "small": small(drawing.strip(result), height=46),
        "whole": drawn(whole),
        "fold": drawn(fold),
        "edge": drawn(render_screen(drawing.fore_edge_detail(result, ruler), 270, 230)),
        "flat": drawn(render_screen(drawing.folio_flat(result, ruler), 300, 250)),
        "count": f"{opened.book.pages.amount} {'' if counted == 'unsaid' else counted}".strip(),
        "flap_room": room if room >= 10 else None,
        "magnified": round(fold.scale / whole.scale),
    }
