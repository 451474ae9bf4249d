"""The mixed pile in the Pages pleat: sections as fans whose strips are the form, and the openings they
make."""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.units import RULERS, Ruler
from pleat.core.pleats.pages.arrange import WORDS, told
from pleat.core.pleats.pages.leaves import Leaf, Opening, openings
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.record import PileSheet
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.drawing.pages import sections as drawing
from pleat.drawing.svg import Pen, Rendered, render_screen
from pleat.services.books import Opened
from pleat.services.piles import pages_of
from pleat.web.display import drawn

FAN: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=4, text=13, edge=8)
OPENINGS: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=4, text=13, edge=3)
FAN_WIDTH: Final = 820.0
FAN_HEIGHT: Final = 270.0
NAMED_FROM: Final = 17.0
"""A strip of a fan narrower than this, in px, has no room for its paper's name."""


@dataclass(frozen=True)
class FanStrip:
    """A sheet in its fan: where its strip shows and where its pin, in hundredths of the picture (x, y, width,
    height; 0 is the thing's own height), and what the slip says of it."""

    one: MixedFolio
    box: str
    below: str
    pages: str
    size: str
    flap: str
    tight: bool
    narrow: str
    window: str
    turnable: str


def _box(*shares: float) -> str:
    return " ".join(f"{100 * share:.2f}" for share in shares)


def _window_words(sheet: PileSheet, ruler: Ruler) -> str:
    """Size and place of a window as its fields show them, parted by semicolons; empty where it is as
    usual."""
    values = (sheet.window_width_mm, sheet.window_height_mm, sheet.window_fore_mm, sheet.window_head_mm)
    return ";".join("" if value is None else ruler.number(value) for value in values)


def _strips(
    fan: Rendered,
    section: Sequence[MixedFolio],
    leaves: Sequence[Leaf],
    ruler: Ruler,
    sheets: Mapping[int, PileSheet],
    leaf_width_mm: float,
) -> list[FanStrip]:
    """The strips of a fan, from the outside in; ``leaves`` are the section's."""
    found = []
    for place, folio in enumerate(section):
        (left, top), (right, bottom) = fan.spots[str(place)], fan.spots[f"{place}.end"]
        turn_to = "upright" if folio.turned else "turned"
        numbers = [f"{leaf.page}–{leaf.page + 1}" for leaf in leaves if leaf.place == place]
        found.append(
            FanStrip(
                folio,
                _box(left, top, right - left, bottom - top),
                _box(left, 1, right - left, 0),
                " and ".join(numbers),
                f"leaf {ruler.size(folio.leaf_width_mm, folio.leaf_height_mm)}, "
                f"{ruler.fine(folio.caliper.likely)} thick",
                ruler.number(folio.flap_mm) if folio.flap_mm else "",
                (right - left) * FAN_WIDTH < NAMED_FROM,
                sheets[folio.id].narrow
                if folio.joined == "folded" and folio.open_mm < 2 * leaf_width_mm - 0.05
                else "",
                _window_words(sheets[folio.id], ruler) if folio.window else "",
                turn_to if folio.cut or folio.with_grain is None else "",
            )
        )
    return found


def opening_picture(
    result: SectionsBlock, found: Sequence[Opening], pairs: frozenset[frozenset[int]] = frozenset()
) -> dict[str, object]:
    picture = drawing.spreads(found, result.leaf_width_mm, result.leaf_height_mm, pairs)
    return drawn(render_screen(picture, FAN_WIDTH, FAN_WIDTH * picture.height / picture.width, OPENINGS))


def view(result: SectionsBlock, opened: Opened) -> dict[str, object]:
    """The mixed pile: fans, openings, and how far each wish is met."""
    positions, pages = opened.plan.binding.positions_mm, pages_of(opened.book)
    wanted = frozenset(frozenset(pair) for pair in pages.pairs)
    across = result.leaf_height_mm * (FAN_WIDTH - 2 * FAN.edge) / (FAN_HEIGHT - 2 * FAN.edge)
    found, fans = openings(result.in_order), []
    sheets = {sheet.id: sheet for sheet in pages.pile}
    for number, section in enumerate(result.mixed):
        fan = render_screen(
            drawing.fan(section, result.leaf_height_mm, positions, across), FAN_WIDTH, FAN_HEIGHT, FAN
        )
        leaves = [leaf for leaf in result.in_order if leaf.section == number]
        own = [pair for pair in found if (pair[0].section if pair[0] else 0) == number]
        strips = _strips(fan, section, leaves, opened.plan.brief.ruler, sheets, result.leaf_width_mm)
        fans.append(
            (drawn(fan), strips, opening_picture(result, own, wanted), leaves[0].page, leaves[-1].page + 1)
        )
    order = tuple(tuple(folio.id for folio in section) for section in result.mixed)
    pile = [folio.arranged for section in result.mixed for folio in section]
    weighed = [
        (one.met, WORDS[wish], one.words)
        for wish, one in told(order, pile, pages.pairs, RULERS[opened.book.brief.ruler]).items()
    ]
    paired = {
        a.id
        for section in result.mixed
        for a, b in itertools.pairwise(section)
        if frozenset((a.id, b.id)) in wanted
    }
    return {
        "paired": paired,
        "fans": fans,
        "takes": sum(opened.plan.cutting.takes[key] for key in result.whole_sheets),
        "weighed": weighed,
        "papers": len({folio.name for section in result.mixed for folio in section}),
    }
