"""Pages: the section end on, whole and magnified, and the folio flat."""

from __future__ import annotations

import itertools
from typing import Any, Final

from pleat.core.pages.arrange import WORDS, costs_of
from pleat.core.pages.folding import COLUMNS_ROWS
from pleat.core.pages.imposition import NumberedSheet
from pleat.core.pages.limits import FLAP_GAP_MM
from pleat.drawing import pages as drawing
from pleat.drawing.svg import Pen, render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.pleats.small import small

CELLS: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=14, edge=3)
FAN: Final = Pen(level=20, tick=3, gap=3, arrow=4, dot=4, text=13, edge=6)
NUMBERED_SHOWN: Final = 24
"""Sheets whose numbers are drawn on the screen; the printed dummy holds them all."""


def _numbered(sheet: NumberedSheet, folds: int) -> tuple[NumberedSheet, dict[str, Any], dict[str, Any]]:
    """A sheet with both its sides drawn."""
    columns, rows = COLUMNS_ROWS[folds]
    sides = [drawn(render_screen(drawing.numbered(sheet, inner), 26.0 * columns + 8, 36.0 * rows + 8, CELLS)) for inner in (True, False)]
    return sheet, sides[0], sides[1]


def _pile(opened: Opened) -> dict[str, Any]:
    """The mixed pile: fans, openings, and how far each wish is met."""
    result, positions = opened.plan.pages, opened.plan.binding.positions_mm
    fans, first = [], 1
    for section in result.mixed:
        fan = render_screen(drawing.fan(section, result.leaf_height_mm, positions), 470, 230, FAN)
        openings = drawing.spreads(section, first, result.leaf_width_mm, result.leaf_height_mm)
        fans.append((drawn(fan), drawn(render_screen(openings, 820, 820 * openings.height / openings.width, FAN)), first, section))
        first += 2 * sum(one.leaves for one in section)
    order = tuple(tuple(one.id for one in section) for section in result.mixed)
    costs = costs_of(order, [one.arranged for section in result.mixed for one in section], opened.book.pages.pairs)
    weighed = [(wish, WORDS[wish], cost) for wish, cost in costs.items() if wish != "pairs" or opened.book.pages.pairs]
    wanted = {frozenset(pair) for pair in opened.book.pages.pairs}
    paired = {a.id for section in result.mixed for a, b in itertools.pairwise(section) if frozenset((a.id, b.id)) in wanted}
    return {"paired": paired, "fans": fans, "weighed": weighed, "papers": len({one.name for section in result.mixed for one in section})}


def view(opened: Opened) -> dict[str, Any]:
    result, ruler, sheet = opened.plan.pages, opened.plan.brief.ruler, opened.plan.paper.leaf
    sides = (sheet.sheet_width_mm, sheet.sheet_height_mm)
    spare = [a - 2 * result.leaf_width_mm for a, b in (sides, sides[::-1]) if b + 0.05 >= result.leaf_height_mm]
    room = ruler.snap_down(min(max(spare, default=0.0), result.leaf_width_mm - FLAP_GAP_MM))
    counted = opened.book.pages.counted_in
    whole, fold = render_screen(drawing.whole(result, ruler), 820, 84), render_screen(drawing.fold_detail(result, ruler), 270, 230)
    return {
        **(_pile(opened) if result.mixed else {}),
        "small": small(drawing.strip(result), height=46 if len(result.sections) == 1 else 80),
        "groups": [
            (name, [choice for choice in result.choices if choice.group == name])
            for name in dict.fromkeys(choice.group for choice in result.choices)
        ],
        "numbered": [_numbered(sheet, result.folds) for sheet in result.numbered[:NUMBERED_SHOWN]],
        "whole": drawn(whole),
        "fold": drawn(fold),
        "edge": drawn(render_screen(drawing.fore_edge_detail(result, ruler), 270, 230)),
        "exaggerated": drawn(render_screen(drawing.fore_edge_detail(result, ruler, 4.0), 400, 180)),
        "flat": drawn(render_screen(drawing.folio_flat(result, ruler), 300, 250)),
        "count": f"{opened.book.pages.amount} {'' if counted == 'unsaid' else counted}".strip(),
        "flap_room": room if room >= 10 else None,
        "magnified": round(fold.scale / whole.scale),
    }
