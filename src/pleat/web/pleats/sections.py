"""Folded sections: end on, whole and magnified, and the folio flat; or the pile they are made of."""

from __future__ import annotations

from typing import Final

from pleat.core.pleats.pages.folding import COLUMNS_ROWS
from pleat.core.pleats.pages.imposition import NumberedSheet
from pleat.core.pleats.pages.leaves import openings
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.drawing.pages import sections as drawing
from pleat.drawing.svg import Pen, render_screen
from pleat.services.books import Opened
from pleat.services.piles import pages_of
from pleat.web.display import drawn
from pleat.web.pleats.members import about
from pleat.web.pleats.pile import opening_picture
from pleat.web.pleats.pile import view as pile_view

CELLS: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=14, edge=3)
OPENINGS_SHOWN: Final = 96
"""Openings that are drawn of a book of one paper, where they are much alike."""
NUMBERED_SHOWN: Final = 24
"""Sheets whose numbers are drawn on the screen; the printed dummy holds them all."""


def _numbered(sheet: NumberedSheet, folds: int) -> tuple[NumberedSheet, dict[str, object], dict[str, object]]:
    """A sheet with both its sides drawn."""
    columns, rows = COLUMNS_ROWS[folds]
    sides = [
        drawn(render_screen(drawing.numbered(sheet, inner), 26.0 * columns + 8, 36.0 * rows + 8, CELLS))
        for inner in (True, False)
    ]
    return sheet, sides[0], sides[1]


@about.register
def sections(result: SectionsBlock, opened: Opened) -> dict[str, object]:
    """The pleat's drawings, and the pile where there is one."""
    plan, pages = opened.plan, pages_of(opened.book)
    ruler = plan.brief.ruler
    whole = render_screen(drawing.whole(result, plan), 820, 84)
    fold = render_screen(drawing.fold_detail(result, ruler), 270, 230)
    shown = (
        pile_view(result, opened)
        if result.mixed
        else {"openings": opening_picture(result, openings(result.in_order)[:OPENINGS_SHOWN])}
    )
    counted = "" if pages.counted_in == "unsaid" else pages.counted_in
    return {
        **shown,
        "partial": "pleats/pages/sections.html",
        "groups": [
            (name, [offer for offer in result.offers if offer.group == name])
            for name in dict.fromkeys(offer.group for offer in result.offers)
        ],
        "numbered": [_numbered(sheet, result.folds) for sheet in result.numbered[:NUMBERED_SHOWN]],
        "whole": drawn(whole),
        "fold": drawn(fold),
        "estimated": ruler.thin(result.thickness.likely),
        "edge": drawn(render_screen(drawing.fore_edge_detail(result, ruler), 270, 230)),
        "exaggerated": drawn(render_screen(drawing.fore_edge_detail(result, ruler, 4.0), 400, 180)),
        "flat": drawn(render_screen(drawing.folio_flat(result, ruler), 300, 250)),
        "count": f"{pages.amount} {counted}".strip(),
        "flap_room": result.flap_room_mm or None,
        "magnified": round(fold.scale / whole.scale),
    }
