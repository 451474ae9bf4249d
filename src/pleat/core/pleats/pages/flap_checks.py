"""What can go wrong with fold-outs: slips B9 and C6, a sheet that has no room for one, and one on a sheet
folded more than once."""

from __future__ import annotations

import itertools
from typing import Final

from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import HAIR_MM, Ruler
from pleat.core.base.yields import lies
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.record import PileSheet, Sections
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.trade.pages import FLAP_GAP_MM

SHORTEST_MM: Final = 5.0
"""A fold-out shorter than this is not worth folding (the least its field takes)."""
_REACHES: Final = "it is caught in the sewing and creases every time the book shuts"


def longest_mm(brief: BriefResult) -> float:
    """The longest fold-out that stays clear of the gutter, on the ruler."""
    return brief.ruler.snap_down(brief.leaf_width_mm - FLAP_GAP_MM)


def _panels(ruler: Ruler, flap_mm: float, panels: int) -> str:
    several = f"{panels} panels of " if panels > 1 else ""
    return f"{several}{ruler.show(flap_mm)}"


# --- a book of one paper ----------------------------------------------------------------------------------


def of_one_paper(
    pages: Sections, brief: BriefResult, paper: PaperResult, piece_mm: tuple[float, float]
) -> tuple[Check, ...]:
    """The checks of the fold-outs of a book of one paper; ``piece_mm`` is the piece with its fold-out, width
    first."""
    if not pages.flap_mm:
        return ()
    if pages.folds > 1:
        return (
            Check(
                code="flap_folds",
                level="stop",
                title="A fold-out does not go with sheets folded more than once.",
                why=f"The flap of {brief.ruler.show(pages.flap_mm)} would lie inside the other folds.",
                offers=(Offer(label="fold each sheet once", changes=(("pages.folds", 1),)), _NONE),
            ),
        )
    found = (
        _reaches_gutter(pages, brief, _spare(brief, paper, piece_mm[1]))
        or _no_room(pages, brief, paper, piece_mm),
        _one_sided(pages, paper),
        _trimmed(pages, _NONE),
    )
    return tuple(check for check in found if check)


def _trimmed(pages: Sections, none: Offer) -> Check | None:
    """Trimming the fore edge goes through the fold that a fold-out hangs on."""
    if pages.edges != "trim" and pages.creep != "trim":
        return None
    return Check(
        code="flap_trim",
        level="stop",
        title="Trimming the fore edge would cut the fold-out off.",
        why="It hangs on a fold at the fore edge, which is what the knife takes away.",
        offers=(
            Offer(
                label="leave the edges untrimmed", changes=(("pages.edges", "slit"), ("pages.creep", "leave"))
            ),
            none,
        ),
    )


_NONE: Final = Offer(label="no fold-out", changes=(("pages.flap_mm", None),))


def _spare(brief: BriefResult, paper: PaperResult, height_mm: float) -> float | None:
    """How much of the sheet is left beside two leaves, the better way round, in mm; None where two leaves do
    not come out of it."""
    sides = (paper.leaf.usable_width_mm, paper.leaf.usable_height_mm)
    return max(
        (
            across - 2 * brief.leaf_width_mm
            for across, along in (sides, sides[::-1])
            if lies(2 * brief.leaf_width_mm, height_mm, across, along)
        ),
        default=None,
    )


def _reaches_gutter(pages: Sections, brief: BriefResult, spare_mm: float | None) -> Check | None:
    """C6: a fold-out that reaches the gutter; one is offered that the sheet has room for as well."""
    flap_mm = pages.flap_mm or 0.0
    if flap_mm <= brief.leaf_width_mm - FLAP_GAP_MM + HAIR_MM:
        return None
    ruler, longest = brief.ruler, longest_mm(brief)
    if spare_mm is not None:
        longest = min(longest, ruler.snap_down(spare_mm / pages.flap_panels))
    return Check(
        code="C6",
        level="stop",
        title=f"The fold-out of {ruler.show(flap_mm)} reaches the gutter.",
        why=f"Folded in, it must stay {ruler.show(FLAP_GAP_MM)} clear of the fold, or {_REACHES}.",
        offers=(Offer(label=f"fold-out {ruler.show(longest)}", changes=(("pages.flap_mm", longest),)),)
        if longest >= SHORTEST_MM
        else (_NONE,),
    )


def _no_room(
    pages: Sections, brief: BriefResult, paper: PaperResult, piece_mm: tuple[float, float]
) -> Check | None:
    """A sheet that holds two leaves but not the fold-out beside them."""
    assert pages.flap_mm
    ruler, (width, height) = brief.ruler, piece_mm
    sides = (paper.leaf.usable_width_mm, paper.leaf.usable_height_mm)
    spare = _spare(brief, paper, height)
    if spare is None or lies(width, height, *sides) or lies(width, height, *sides[::-1]):
        return None
    room = ruler.snap_down(min(spare / pages.flap_panels, longest_mm(brief)))
    single = pages.flap_panels > 1 and pages.flap_mm <= spare
    return Check(
        code="flap_room",
        level="stop",
        title=f"The sheet has no room for a fold-out of {_panels(ruler, pages.flap_mm, pages.flap_panels)}.",
        why=f"Two leaves and the fold-out need {ruler.show(width)}; {paper.leaf.name} leaves "
        f"{ruler.show(spare)} beside two leaves.",
        offers=(
            *(
                (Offer(label=f"fold-out {ruler.show(room)}", changes=(("pages.flap_mm", room),)),)
                if room >= SHORTEST_MM
                else ()
            ),
            *((Offer(label="a single panel", changes=(("pages.flap_panels", 1),)),) if single else ()),
            _NONE,
        ),
    )


def _one_sided(pages: Sections, paper: PaperResult) -> Check | None:
    """B9: folded in, a fold-out shows the back of its sheet, unless a second panel lies over that again."""
    if paper.leaf.sides != 1 or pages.flap_panels % 2 == 0:
        return None
    return Check(
        code="B9",
        level="watch",
        title=f"The fold-out shows the blank side of {paper.leaf.name}.",
        why="The paper is good on one side. Folded in, the flap turns its back to the reader, and every "
        "second page of the section is blank too: 2 of the 4 pages of each sheet.",
        offers=(_NONE, Offer(label="it is good on both sides", changes=(("paper.leaf.sides", 2),))),
    )


# --- a mixed pile ------------------------------------------------------------------------------------------


def of_a_pile(
    pages: Sections, brief: BriefResult, sections: tuple[tuple[MixedFolio, ...], ...]
) -> tuple[Check, ...]:
    """The checks of the fold-outs on the sheets of a pile."""
    with_flap = [folio for folio in itertools.chain.from_iterable(sections) if folio.flap_mm]
    none = Offer(label="no fold-outs", changes=_with_flaps(pages, {folio.id: None for folio in with_flap}))
    trimmed = _trimmed(pages, none) if with_flap else None
    found = (
        _reaching(pages, brief, with_flap),
        _roomless(pages, brief, with_flap),
        _blank(pages, with_flap),
        trimmed,
    )
    return tuple(check for check in found if check)


def _with_flaps(pages: Sections, flaps_mm: dict[int, float | None]) -> tuple[tuple[str, object], ...]:
    """The change that gives sheets of the pile other fold-outs."""
    pile: list[PileSheet] = [
        sheet.model_copy(update={"flap_mm": flaps_mm[sheet.id]}) if sheet.id in flaps_mm else sheet
        for sheet in pages.pile
    ]
    return (("pages.pile", tuple(pile)),)


def _said(sheets: list[MixedFolio]) -> str:
    return sheets[0].name + (f" and {len(sheets) - 1} more" if len(sheets) > 1 else "")


def _reaching(pages: Sections, brief: BriefResult, sheets: list[MixedFolio]) -> Check | None:
    """C6, each flap against its own leaf."""
    ruler = brief.ruler
    long = [sheet for sheet in sheets if sheet.flap_mm > sheet.flap_leaf_mm - FLAP_GAP_MM + HAIR_MM]
    if not long:
        return None
    right = {
        folio.id: mm if (mm := ruler.snap_down(folio.flap_leaf_mm - FLAP_GAP_MM)) >= SHORTEST_MM else None
        for folio in long
    }
    first = long[0]
    fixed = right[first.id]
    if fixed and len(long) == 1:
        label = f"fold-out {ruler.show(fixed)}"
    elif any(right.values()):
        label = "shorten them"
    else:
        label = "no fold-out"
    return Check(
        code="C6",
        level="stop",
        title=f"The fold-out of {ruler.show(first.flap_mm)} on {_said(long)} reaches the gutter.",
        why=f"Its leaf is {ruler.show(first.flap_leaf_mm)} wide. Folded in, a fold-out must stay "
        f"{ruler.show(FLAP_GAP_MM)} clear of the fold, or {_REACHES}.",
        offers=(Offer(label=label, changes=_with_flaps(pages, right)),),
    )


def _roomless(pages: Sections, brief: BriefResult, sheets: list[MixedFolio]) -> Check | None:
    """Sheets that have less beside their leaves than their fold-out takes."""
    ruler = brief.ruler
    short = [sheet for sheet in sheets if sheet.flap_mm * sheet.flap_panels > sheet.flap_room_mm + HAIR_MM]
    if not short:
        return None
    rooms = {
        folio.id: ruler.snap_down(
            min(folio.flap_room_mm / folio.flap_panels, folio.flap_leaf_mm - FLAP_GAP_MM)
        )
        for folio in short
    }
    right = {key: room if room >= SHORTEST_MM else None for key, room in rooms.items()}
    first = short[0]
    fixed = right[first.id]
    fixes = [
        Offer(
            label="no fold-out" if len(short) == 1 else "no fold-outs there",
            changes=_with_flaps(pages, dict.fromkeys(right)),
        )
    ]
    if any(right.values()):
        fixes.insert(
            0,
            Offer(
                label=f"fold-out {ruler.show(fixed)}"
                if fixed and len(short) == 1
                else "as long as there is room",
                changes=_with_flaps(pages, right),
            ),
        )
    what = "its leaf" if first.joined != "folded" else "two leaves"
    return Check(
        code="flap_room",
        level="stop",
        title=f"{_said(short)}: no room for a fold-out of "
        f"{_panels(ruler, first.flap_mm, first.flap_panels)}.",
        why=f"Beside {what} {ruler.show(first.flap_room_mm)} of the sheet are left.",
        offers=tuple(fixes),
    )


def _blank(pages: Sections, sheets: list[MixedFolio]) -> Check | None:
    """B9 on the sheets of a pile."""
    blank = [sheet for sheet in sheets if sheet.sides == 1 and sheet.flap_panels % 2]
    if not blank:
        return None
    return Check(
        code="B9",
        level="watch",
        title=f"The fold-out shows the blank side of {_said(blank)}.",
        why="The paper is good on one side, and that lies inside its fold. Folded in, the flap turns its "
        "back to the reader; two panels would show the good side again.",
        offers=(
            Offer(label="no fold-out there", changes=_with_flaps(pages, {folio.id: None for folio in blank})),
        ),
    )
