"""What can go wrong with the section: slips A11, B3, B7 (leaves), B8, B11 and C1. Fold-outs have a module of
their own."""

from __future__ import annotations

import math
from typing import Literal

from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import HAIR_MM, Ruler
from pleat.core.base.yields import lies
from pleat.core.materials.uses import good_for
from pleat.core.materials.weights import BULK_CM3_PER_G
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.pages import flap_checks
from pleat.core.pleats.pages.block import LeftOfPages
from pleat.core.pleats.pages.folding import COLUMNS_ROWS, WORDS, folios_a_sheet, open_sheet
from pleat.core.pleats.pages.limits import GUIDES, FoldLimit
from pleat.core.pleats.pages.record import MOST_SECTIONS, Sections
from pleat.core.pleats.pages.sections import split
from pleat.core.pleats.paper.checks import NO_GRADE, grade_fixes
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.trade.pages import LAY_FACTORS
from pleat.core.trade.paper import USES_MM


def guide(paper: PaperResult) -> str:
    return GUIDES[paper.leaf.kind]


def find(
    pages: Sections, left: LeftOfPages, sections: tuple[int, ...], limit: FoldLimit, trim: float
) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    brief, paper, folios = left.brief, left.paper, sum(sections)
    found = [
        _too_many(pages, left, sections, limit),
        _too_small(pages, brief, paper, trim),
        _grain(pages, brief, paper, trim),
        *flap_checks.of_one_paper(pages, brief, paper, piece_mm(pages, brief, 0.0)),
        _narrow(pages),
        _leaf_or_page(pages, folios),
        _grade(brief.ruler, paper, folios),
        _too_heavy(brief, paper, folios),
        _painted(pages, brief),
    ]
    return tuple(check for check in found if check)


def piece_mm(pages: Sections, brief: BriefResult, trim: float) -> tuple[float, float]:
    """(width, height) of the largest piece that is folded, flap included."""
    sheet = open_sheet(brief.leaf_width_mm, brief.leaf_height_mm, pages.folds, trim)
    return sheet.width_mm + (pages.flap_mm or 0.0) * pages.flap_panels, sheet.height_mm


def _too_many(
    pages: Sections, left: LeftOfPages, sections: tuple[int, ...], limit: FoldLimit
) -> Check | None:
    """C1: more folios in one fold than its thickness and creep allow. Only numbers of sections that the
    binding can hold are offered."""
    suits, paper = left.brief.made_of.binding.suits, left.paper
    nested, by = max(sections), folios_a_sheet(pages.folds)
    if nested <= limit.folios:
        return None
    most = max(by, limit.folios // by * by)
    level: Literal["stop", "watch"] = "stop" if nested > 2 * limit.folios else "watch"
    sheets = (
        f"{nested} sheets are"
        if pages.folds == 1
        else f"{nested // by} sheets {WORDS[pages.folds]} make {nested} folios,"
    )
    fixes = []
    if nested > by:
        least = math.ceil(sum(sections) / most)
        parts = next(
            (count for count in range(least, MOST_SECTIONS + 1) if suits is None or suits.fits(count)), None
        )
        if parts is not None:
            each = max(split(sum(sections), parts, pages.folds)) // by
            fixes.append(
                Offer(
                    label=f"split them into {parts} sections of {each}", changes=(("pages.sections", parts),)
                )
            )
        fewer = 4 * most * len(sections)
        fixes.append(
            Offer(
                label=f"make it {most // by * len(sections)} sheets, {fewer} pages",
                changes=(("pages.amount", fewer), ("pages.counted_in", "pages")),
            )
        )
    return Check(
        code="C1",
        level=level,
        title=f"{sheets} too many for one fold: {limit.folios} of {paper.leaf.name} nest well.",
        why=f"More would pass {limit.reason}: then the section gapes, its fore edge slants and the fold will "
        f"not lie flat. Guide: {guide(paper)}.",
        offers=tuple(fixes),
        no_fix=""
        if fixes
        else "One sheet is already more than nests well; it is stiff for leaves, and better kept for covers "
        "and pockets.",
    )


def _too_small(pages: Sections, brief: BriefResult, paper: PaperResult, trim: float) -> Check | None:
    """B3: the sheet was not tried against the leaf before folding."""
    columns, rows = COLUMNS_ROWS[pages.folds]
    needed = open_sheet(brief.leaf_width_mm, brief.leaf_height_mm, pages.folds, trim)
    width, height = needed.width_mm, needed.height_mm
    sheet = paper.leaf
    sides = (sheet.usable_width_mm, sheet.usable_height_mm)
    if lies(width, height, *sides) or lies(width, height, *sides[::-1]):
        return None
    ruler = brief.ruler
    fixes = []
    for across, along in sorted((sides, sides[::-1]), key=lambda s: -min(s[0] / width, s[1] / height)):
        new_width = min(brief.leaf_width_mm, across / columns - trim)
        new_height = min(brief.leaf_height_mm, along / rows - 2 * trim)
        if possible(new_width, new_height):
            changes, words = resized(brief, new_width, new_height, pages.flap_mm)
            fixes.append(
                Offer(
                    label=f"leaf {ruler.size(new_width, new_height)}: "
                    f"{_less(brief, new_width, new_height)}{words}",
                    changes=changes,
                )
            )
    once = open_sheet(brief.leaf_width_mm, brief.leaf_height_mm, 1, trim)
    if pages.folds > 1 and any(lies(once.width_mm, once.height_mm, *both) for both in (sides, sides[::-1])):
        fixes.append(Offer(label="fold each sheet once", changes=(("pages.folds", 1),)))
    return Check(
        code="B3",
        level="stop",
        title=f"The sheet is too small to fold into this leaf: it needs {ruler.size(width, height)}, "
        f"{sheet.name} is {ruler.size(*sides)}.",
        why="Hold one sheet to the finished size before any is folded.",
        offers=tuple(fixes),
        no_fix="" if fixes else "Choose a larger sheet: this one gives no leaf of a usable size.",
    )


def _less(brief: BriefResult, width: float, height: float) -> str:
    """Exactly how much comes off, and where."""
    off = []
    if brief.leaf_width_mm - width > HAIR_MM:
        off.append(f"{brief.ruler.show(brief.leaf_width_mm - width)} off each leaf's width")
    if brief.leaf_height_mm - height > HAIR_MM:
        off.append(f"{brief.ruler.show(brief.leaf_height_mm - height)} off its height")
    return " and ".join(off)


def _grain(pages: Sections, brief: BriefResult, paper: PaperResult, trim: float) -> Check | None:
    """B7 for the leaves: the piece only comes out of the sheet with the grain across the spine."""
    sheet = paper.leaf
    if sheet.grain is None:
        return None
    width, height = piece_mm(pages, brief, trim)
    sides = (sheet.usable_width_mm, sheet.usable_height_mm)
    upright, turned = lies(width, height, *sides), lies(width, height, *sides[::-1])
    with_grain = upright if sheet.grain == "h" else turned
    if with_grain or not (upright or turned):
        return None
    along, across = sides if sheet.grain == "w" else sides[::-1]
    columns, rows = COLUMNS_ROWS[pages.folds]
    leaf_width, leaf_height = across / columns - trim, along / rows - 2 * trim
    fixes = []
    if possible(leaf_width, leaf_height):
        changes, words = resized(brief, leaf_width, leaf_height)
        fold_out = ", without the fold-out" if pages.flap_mm else ""
        label = f"fold along the grain: leaf {brief.ruler.size(leaf_width, leaf_height)}{words}{fold_out}"
        fixes.append(Offer(label=label, changes=(*changes, ("pages.flap_mm", None))))
    return Check(
        code="B7",
        level="watch",
        title="The grain runs across the spine in the leaves.",
        why=f"{sheet.name} only gives this leaf with its fold across the grain: leaves stand up instead of "
        "draping, and the fold may crack.",
        offers=tuple(fixes),
        no_fix="Find the same paper with the grain the other way, or a sheet twice the size, halved first."
        if not fixes
        else "",
    )


def _narrow(pages: Sections) -> Check | None:
    """Inner sheets cut narrower, where a sheet holds several folios that creep differently."""
    if pages.creep != "narrow" or pages.folds == 1:
        return None
    return Check(
        code="narrow",
        level="stop",
        title=f"Sheets {WORDS[pages.folds]} cannot be cut narrower for the creep.",
        why="Each becomes several leaves that creep by different amounts; only single sheets can be cut "
        "before folding.",
        offers=(
            Offer(label="trim the fore edge instead", changes=(("pages.creep", "trim"),)),
            Offer(label="leave the creep", changes=(("pages.creep", "leave"),)),
            Offer(label="fold each sheet once", changes=(("pages.folds", 1),)),
        ),
    )


def _grade(ruler: Ruler, paper: PaperResult, folios: int) -> Check | None:
    """B8: what each grade of the pounds would mean for this book."""
    leaf = paper.leaf
    if leaf.pounds is None or leaf.grade is not None or leaf.thick.source != "pounds":
        return None
    low, high = BULK_CM3_PER_G[leaf.kind]
    fixes = []
    for grade, grammage, fix in grade_fixes("leaf", leaf.pounds):
        thick = 2 * folios * grammage * (low + high) / 2000
        fixes.append(
            Offer(
                label=f"{grade}: {grammage:.0f} g/m², this section {ruler.thin(thick)}", changes=fix.changes
            )
        )
    return Check(
        code="B8",
        level="watch",
        title=f"Every grade of {leaf.pounds:g} lb makes another book of these {folios} sheets.",
        why="Pounds are weighed on another sheet size in each grade. Until it is known, the section's "
        "thickness is only a wide range, and spine and cover with it.",
        offers=tuple(fixes),
        no_fix="" if fixes else NO_GRADE,
    )


def _too_heavy(brief: BriefResult, paper: PaperResult, folios: int) -> Check | None:
    """B11: a paper that does not drape makes a thick book that stands open; it serves better elsewhere."""
    sheet = paper.leaf.caliper
    if sheet.likely <= USES_MM["leaves"][1] or paper.leaf.kind == "watercolour":
        return None
    uses = " and ".join(use for use in good_for(sheet) if use != "leaves") or "boards"
    usual = 0.1
    return Check(
        code="B11",
        level="watch",
        title=f"{paper.leaf.name} is heavy for leaves: one sheet is {brief.ruler.fine(sheet.likely)}, this "
        f"section {brief.ruler.thin(2 * folios * sheet.likely)}.",
        why=f"The same pages of a {brief.ruler.fine(usual)} paper would be "
        f"{brief.ruler.thin(2 * folios * usual)}. Leaves above {brief.ruler.fine(USES_MM['leaves'][1])} do "
        f"not drape: the book stands open. Better kept for {uses}.",
        no_fix="Pick a lighter paper in the Paper pleat, or go on if stiff pages are meant.",
    )


def _painted(pages: Sections, brief: BriefResult) -> Check | None:
    """Paper that is painted swells and never lies as flat again."""
    if brief.purpose != "painting" or pages.lay != "flat" or pages.measured_block_mm is not None:
        return None
    return Check(
        code="painted",
        level="note",
        title="Painted pages swell: this section is estimated as new and flat.",
        why=f"Handled, dyed or painted paper lies {LAY_FACTORS['handled'][0]:g} to "
        f"{LAY_FACTORS['handled'][2]:g} times its thickness, and the spine has to hold that.",
        offers=(Offer(label="estimate it as painted", changes=(("pages.lay", "handled"),)),),
    )


def _leaf_or_page(pages: Sections, folios: int) -> Check | None:
    """A11: a count without its unit word."""
    if pages.counted_in != "unsaid":
        return None
    as_leaves = max(1, -(-pages.amount // 2))
    return Check(
        code="A11",
        level="note",
        title=f"You typed {pages.amount} without saying of what: taken as pages, that is "
        f"{2 * folios} leaves.",
        why=f"A leaf has two pages. {pages.amount} leaves would be {4 * as_leaves} pages, twice the paper.",
        offers=(
            Offer(label=f"yes, {pages.amount} pages", changes=(("pages.counted_in", "pages"),)),
            Offer(label=f"I meant {pages.amount} leaves", changes=(("pages.counted_in", "leaves"),)),
        ),
    )
