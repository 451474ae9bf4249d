"""What can go wrong with the section: slips A11, B3, B7 (leaves), C1 and C6."""

from __future__ import annotations

from typing import Final

from pleat.core.book import Pages
from pleat.core.brief.compute import BriefResult
from pleat.core.pages.limits import FLAP_GAP_MM, GUIDES, FoldLimit
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Check, Fix

HAIR_MM: Final = 0.05
"""Lengths closer than this are the same length."""


def guide(paper: PaperResult) -> str:
    return GUIDES[paper.leaf.kind]  # type: ignore[index]


def find(pages: Pages, brief: BriefResult, paper: PaperResult, folios: int, limit: FoldLimit) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    found = [
        _too_many(paper, folios, limit),
        _too_small(brief, paper),
        _grain(pages, brief, paper),
        _flap(pages, brief, paper),
        _leaf_or_page(pages, folios),
    ]
    return tuple(check for check in found if check)


def piece_width_mm(pages: Pages, brief: BriefResult) -> float:
    """Width of the widest folio, flap included."""
    return 2 * brief.leaf_width_mm + (pages.flap_mm or 0.0)


def lies(width_mm: float, height_mm: float, sheet_width_mm: float, sheet_height_mm: float) -> bool:
    """Whether a piece comes out of a sheet upright."""
    return width_mm <= sheet_width_mm + HAIR_MM and height_mm <= sheet_height_mm + HAIR_MM


def _too_many(paper: PaperResult, folios: int, limit: FoldLimit) -> Check | None:
    if folios <= limit.folios:
        return None
    level = "stop" if folios > 2 * limit.folios else "watch"
    return Check(
        "C1",
        level,  # type: ignore[arg-type]
        f"{folios} sheets are too many for one fold: {limit.folios} of {paper.leaf.name} nest well.",
        f"More would pass {limit.reason}: the section gapes, its fore edge slants and the fold will not lie flat. Guide: {guide(paper)}.",
        (
            Fix(
                f"make it {limit.folios} sheets, {4 * limit.folios} pages",
                (("pages.amount", 4 * limit.folios), ("pages.counted_in", "pages")),
            ),
        ),
    )


def _too_small(brief: BriefResult, paper: PaperResult) -> Check | None:
    """B3: the sheet was not tried against the leaf before folding."""
    width, height = 2 * brief.leaf_width_mm, brief.leaf_height_mm
    sheet = paper.leaf
    sides = (sheet.sheet_width_mm, sheet.sheet_height_mm)
    if lies(width, height, *sides) or lies(width, height, *sides[::-1]):
        return None
    ruler = brief.ruler
    fixes = []
    for across, along in sorted((sides, sides[::-1]), key=lambda s: -min(s[0] / width, s[1] / height)):
        new_width, new_height = min(brief.leaf_width_mm, across / 2), min(height, along)
        if new_width >= 30 and new_height >= 40:
            label = f"leaf {ruler.size(new_width, new_height)}: " + _less(brief, new_width, new_height)
            fixes.append(Fix(label, (("brief.leaf_width_mm", new_width), ("brief.leaf_height_mm", new_height))))
    return Check(
        "B3",
        "stop",
        f"The sheet is too small to fold into this leaf: it needs {ruler.size(width, height)}, {sheet.name} is {ruler.size(*sides)}.",
        "Hold one sheet to the finished size before any is folded.",
        tuple(fixes),
        "" if fixes else "Choose a larger sheet: this one gives no leaf of a usable size.",
    )


def _less(brief: BriefResult, width: float, height: float) -> str:
    """Exactly how much comes off, and where."""
    off = []
    if brief.leaf_width_mm - width > HAIR_MM:
        off.append(f"{brief.ruler.show(brief.leaf_width_mm - width)} off each leaf's width")
    if brief.leaf_height_mm - height > HAIR_MM:
        off.append(f"{brief.ruler.show(brief.leaf_height_mm - height)} off its height")
    return " and ".join(off)


def _grain(pages: Pages, brief: BriefResult, paper: PaperResult) -> Check | None:
    """B7 for the leaves: the piece only comes out of the sheet with the grain across the spine."""
    sheet = paper.leaf
    if sheet.grain is None:
        return None
    width, height = piece_width_mm(pages, brief), brief.leaf_height_mm
    sides = (sheet.sheet_width_mm, sheet.sheet_height_mm)
    upright, turned = lies(width, height, *sides), lies(width, height, *sides[::-1])
    with_grain = upright if sheet.grain == "h" else turned
    if with_grain or not (upright or turned):
        return None
    along, across = sides if sheet.grain == "w" else sides[::-1]
    leaf_width, leaf_height = across / 2, along
    fixes = []
    if 30 <= leaf_width <= 600 and 40 <= leaf_height <= 600:
        changes = (("brief.leaf_width_mm", leaf_width), ("brief.leaf_height_mm", leaf_height), ("pages.flap_mm", None))
        fixes.append(Fix(f"fold along the grain: leaf {brief.ruler.size(leaf_width, leaf_height)}", changes))
    return Check(
        "B7",
        "watch",
        "The grain runs across the spine in the leaves.",
        f"{sheet.name} only gives this leaf with its fold across the grain: leaves stand up instead of draping, and the fold may crack.",
        tuple(fixes),
        "Find the same paper with the grain the other way, or a sheet twice the size, halved first." if not fixes else "",
    )


def _flap(pages: Pages, brief: BriefResult, paper: PaperResult) -> Check | None:
    """C6: a fold-out that reaches the gutter; or a sheet that has no room for it."""
    if not pages.flap_mm:
        return None
    ruler = brief.ruler
    longest = ruler.snap_down(brief.leaf_width_mm - FLAP_GAP_MM)
    if pages.flap_mm > brief.leaf_width_mm - FLAP_GAP_MM + HAIR_MM:
        return Check(
            "C6",
            "stop",
            f"The fold-out of {ruler.show(pages.flap_mm)} reaches the gutter.",
            f"Folded in, it must stay {ruler.show(FLAP_GAP_MM)} clear of the fold, or it is caught in the sewing and creases every time the book shuts.",
            (Fix(f"fold-out {ruler.show(longest)}", (("pages.flap_mm", longest),)),)
            if longest >= 5
            else (Fix("no fold-out", (("pages.flap_mm", None),)),),
        )
    width, height = piece_width_mm(pages, brief), brief.leaf_height_mm
    sides = (paper.leaf.sheet_width_mm, paper.leaf.sheet_height_mm)
    spare = [
        across - 2 * brief.leaf_width_mm for across, along in (sides, sides[::-1]) if lies(2 * brief.leaf_width_mm, height, across, along)
    ]
    if not spare or lies(width, height, *sides) or lies(width, height, *sides[::-1]):
        return None
    room = ruler.snap_down(min(max(spare), longest))
    fixes = [Fix(f"fold-out {ruler.show(room)}", (("pages.flap_mm", room),))] if room >= 5 else []
    return Check(
        "flap_room",
        "stop",
        f"The sheet has no room for a fold-out of {ruler.show(pages.flap_mm)}.",
        f"Two leaves and the fold-out need {ruler.show(width)}; {paper.leaf.name} leaves {ruler.show(max(spare))} beside two leaves.",
        (*fixes, Fix("no fold-out", (("pages.flap_mm", None),))),
    )


def _leaf_or_page(pages: Pages, folios: int) -> Check | None:
    """A11: a count without its unit word."""
    if pages.counted_in != "unsaid":
        return None
    as_leaves = max(1, -(-pages.amount // 2))
    return Check(
        "A11",
        "note",
        f"You typed {pages.amount} without saying of what: taken as pages, that is {2 * folios} leaves.",
        f"A leaf has two pages. {pages.amount} leaves would be {4 * as_leaves} pages, twice the paper.",
        (
            Fix(f"yes, {pages.amount} pages", (("pages.counted_in", "pages"),)),
            Fix(f"I meant {pages.amount} leaves", (("pages.counted_in", "leaves"),)),
        ),
    )
