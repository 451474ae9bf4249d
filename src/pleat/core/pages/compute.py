"""Pages: sheets folded and nested into sections; leaves, thickness, creep, fold-outs and page numbers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final

from pleat.core.brief.compute import BriefResult
from pleat.core.brief.resize import FLAP_GAP_MM
from pleat.core.estimate import Estimate, total, weighted
from pleat.core.pages import checks, choices, figures, mixed_checks
from pleat.core.pages.counting import CountUnit, count_words, folios_for
from pleat.core.pages.creep import nested_creep, shorter_by
from pleat.core.pages.folding import WORDS, folios_a_sheet, open_sheet
from pleat.core.pages.imposition import NumberedSheet, numbered_folio, numbered_sheets
from pleat.core.pages.leaves import Leaf, leaves_of_paper, leaves_of_pile
from pleat.core.pages.limits import GUIDES, LAY_FACTORS, MOST_BY_GUIDE, FoldLimit, fold_limit
from pleat.core.pages.mixed import MixedFolio, sections_of
from pleat.core.pages.pile_cuts import PileCut, Taken, pile_cuts, taken
from pleat.core.pages.record import Sections
from pleat.core.pages.sections import split
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Check, Fix, Fold, Part, PleatResult
from pleat.core.yields import both_ways

MEASURING_DOUBT_MM: Final = 0.2
"""How well a pressed section can be measured with a ruler or caliper (house rule)."""
FAR_OFF: Final = 1.5
"""A reading so many times the high estimate, or so far below the low one, is asked about (house rule)."""


@dataclass(frozen=True, kw_only=True)
class PagesResult(PleatResult):
    """The block handed to the right; lengths in mm.

    ``sections`` holds the folios of each, front to back; ``thickness`` is that of all of them pressed, ``fold_stack`` the paper a
    thread passes in the thickest, ``creep`` that of its innermost folio. ``trim_mm`` is what comes off head, tail and fore edge.
    ``narrower_mm`` says by how much each leaf is cut narrower, section by section from the outside in; empty where none is.
    ``calipers_mm`` are the likely ones of every folio, and ``mixed`` the folios themselves where the book is made of a pile.
    """

    folios: int
    leaves: int
    pages: int
    sections: tuple[int, ...]
    folds: int
    mixed: tuple[tuple[MixedFolio, ...], ...]
    calipers_mm: tuple[tuple[float, ...], ...]
    trim_mm: float
    creep_how: str
    narrower_mm: tuple[tuple[float, ...], ...]
    counted_in: CountUnit
    leaf_width_mm: float
    leaf_height_mm: float
    thickness: Estimate
    measured: bool
    fold_stack: Estimate
    creep: Estimate
    limit: FoldLimit
    flap_mm: float
    flap_folios: int
    flap_panels: int
    flap_on: str
    swatch: str
    sides: int
    numbered: tuple[NumberedSheet, ...]
    parts: tuple[Part, ...]
    pile_cuts: tuple[PileCut, ...]
    pile_takes: tuple[Taken, ...]
    flap_room_mm: float

    @property
    def in_words(self) -> str:
        """Sheets, leaves and pages together; single leaves of a pile are not counted twice."""
        return count_words(self.folios, self.folds, self.leaves)

    @property
    def stands_out(self) -> bool:
        """Whether inner leaves are left standing out at the fore edge: neither trimmed level nor cut narrower before."""
        return not self.trim_mm and (self.creep_how == "leave" or (self.creep_how == "narrow" and not self.narrower_mm))

    @property
    def flapped(self) -> bool:
        """Whether any sheet has a fold-out, which trimming the fore edge would cut off."""
        return self.flap_mm > 0 or any(one.flap_mm for section in self.mixed for one in section)

    @cached_property
    def in_order(self) -> tuple[Leaf, ...]:
        """The leaves of the finished block, front to back; worked out when they are first asked for."""
        if self.mixed:
            return leaves_of_pile(self.mixed)
        flap = self.flap_mm if self.folds == 1 else 0.0
        size = (self.leaf_width_mm, self.leaf_height_mm)
        return leaves_of_paper(self.sections, *size, self.swatch, self.sides, flap, self.flap_panels, self.flap_on)


def compute(pages: Sections, brief: BriefResult, paper: PaperResult) -> PagesResult:
    """The block planned from ``pages`` on the leaf size of ``brief`` and the leaf paper of ``paper``."""
    mixed = sections_of(pages, brief.leaf_width_mm, brief.leaf_height_mm)
    if mixed:
        sections = tuple(len(section) for section in mixed)
        calipers = tuple(tuple(one.caliper for one in section) for section in mixed)
        at_fold = weighted((one.caliper, one.at_fold) for section in mixed for one in section)
        leaves = sum(one.leaves for section in mixed for one in section)
    else:
        sections = split(folios_for(pages.amount, pages.counted_in, pages.folds), pages.sections, pages.folds)
        calipers = tuple((paper.leaf.caliper,) * count for count in sections)
        at_fold, leaves = paper.leaf.caliper.times(2 * sum(sections)), 2 * sum(sections)
    folios = sum(sections)
    lay = Estimate.ranged(*LAY_FACTORS[pages.lay], "how flat the paper lies" if mixed else f"how flat {paper.leaf.name} lies")
    estimated = at_fold.multiplied(lay)
    thickness = estimated
    if pages.measured_block_mm is not None:
        doubt = min(MEASURING_DOUBT_MM, pages.measured_block_mm)
        thickness = Estimate.ranged(
            pages.measured_block_mm - doubt, pages.measured_block_mm, pages.measured_block_mm + doubt, "your reading of the pressed section"
        )
    nests = tuple(tuple(one.caliper for one in section if one.in_fold) for section in mixed) if mixed else calipers
    creep = max((nested_creep(section) for section in nests), key=lambda one: one.likely)
    cuts = pile_cuts(pages.pile, mixed, brief.quantity)
    takes = taken(cuts, mixed, brief.quantity)
    mean = sum(one.likely for section in calipers for one in section) / folios
    kind = paper.leaf.kind
    limit = fold_limit(mean, ruler=brief.ruler) if mixed else fold_limit(mean, MOST_BY_GUIDE[kind], GUIDES[kind], brief.ruler)
    trim = pages.trim_mm if pages.edges == "trim" else 0.0
    flap = 0.0 if mixed else pages.flap_mm or 0.0
    folds = 1 if mixed else pages.folds
    flap_folios = 0 if not flap else len(sections) if pages.flap_on == "innermost" else folios
    block = figures.Block(sections, thickness, estimated, creep, limit, trim)
    shown = figures.figures(pages, brief, paper, block, mixed)
    found = mixed_checks.find(pages, brief, mixed, creep, takes) if mixed else checks.find(pages, brief, paper, sections, limit, trim)
    parts = () if mixed else _parts(brief, pages, folios, trim, flap, flap_folios)
    return PagesResult(
        key_figure=shown[0],
        figures=shown,
        checks=(*found, *_far_off(pages, brief, estimated, len(sections))),
        choices=() if mixed else choices.find(pages, brief, paper, sections, limit, trim),
        folios=folios,
        leaves=leaves,
        pages=2 * leaves,
        sections=sections,
        folds=folds,
        mixed=mixed,
        calipers_mm=tuple(tuple(one.likely for one in section) for section in calipers),
        trim_mm=trim,
        creep_how=pages.creep,
        narrower_mm=_narrower(pages, brief, mixed, calipers),
        counted_in=pages.counted_in,
        leaf_width_mm=brief.leaf_width_mm,
        leaf_height_mm=brief.leaf_height_mm,
        thickness=thickness,
        measured=pages.measured_block_mm is not None,
        fold_stack=max((total(section) for section in nests), key=lambda one: one.likely),
        creep=creep,
        limit=limit,
        flap_mm=flap,
        flap_folios=flap_folios,
        numbered=() if pages.numbered == "no" else _numbered_pile(leaves_of_pile(mixed)) if mixed else _numbered(sections, folds),
        parts=parts,
        flap_room_mm=0.0 if mixed or folds > 1 or flap else _flap_room(brief, paper, parts[0]),
        pile_cuts=cuts,
        pile_takes=takes,
        flap_panels=pages.flap_panels,
        flap_on=pages.flap_on,
        swatch=paper.leaf.swatch,
        sides=paper.leaf.sides,
    )


def _far_off(pages: Sections, brief: BriefResult, estimated: Estimate, sections: int) -> tuple[Check, ...]:
    """A reading of the block that the paper hardly makes possible."""
    reading, ruler = pages.measured_block_mm, brief.ruler
    if reading is None or estimated.low / FAR_OFF <= reading <= estimated.high * FAR_OFF:
        return ()
    perhaps = (
        f" One of {sections} sections was perhaps measured: all of them together are asked for."
        if sections > 1 and reading < estimated.low
        else " Perhaps it was read before pressing, or with the cover."
        if reading > estimated.high
        else ""
    )
    return (
        Check(
            "measured",
            "watch",
            f"You measured {ruler.thin(reading)}; the paper makes it {ruler.between(estimated.low, estimated.high)}.",
            f"The spine follows your reading. Measure the pressed block again, and count its leaves.{perhaps}",
            (Fix("go by the estimate", (("pages.measured_block_mm", None),)),),
        ),
    )


def _flap_room(brief: BriefResult, paper: PaperResult, part: Part) -> float:
    """The longest fold-out, on the ruler, that the sheet has room for beside two leaves without turning the grain; 0 for none."""
    sheet = paper.leaf
    now, other = both_ways(part.width_mm, part.height_mm, sheet.sheet_width_mm, sheet.sheet_height_mm, sheet.grain, sheet.upright_only)
    rooms = [0.0]
    for way in (now, other):
        if way.count and way.with_grain == now.with_grain:
            rooms.append((sheet.sheet_height_mm if way.turned else sheet.sheet_width_mm) - part.width_mm)
    room = brief.ruler.snap_down(min(max(rooms), brief.leaf_width_mm - FLAP_GAP_MM))
    return room if room >= 10 else 0.0


def _narrower(
    pages: Sections, brief: BriefResult, mixed: tuple[tuple[MixedFolio, ...], ...], calipers: tuple[tuple[Estimate, ...], ...]
) -> tuple[tuple[float, ...], ...]:
    """By how much each leaf is cut narrower for the creep; a leaf of a pile that ends before the edge anyhow is left alone."""
    if pages.creep != "narrow" or (pages.folds > 1 and not mixed):
        return ()
    if not mixed:
        return tuple(shorter_by([one.likely for one in section]) for section in calipers)
    found = []
    for section in mixed:
        off = shorter_by([one.caliper.likely if one.in_fold else 0.0 for one in section])
        found.append(tuple(max(0.0, one.least_width_mm - (brief.leaf_width_mm - less)) for one, less in zip(section, off, strict=True)))
    return tuple(found)


def _numbered(sections: tuple[int, ...], folds: int) -> tuple[NumberedSheet, ...]:
    """The sheets of all sections with their page numbers, running through the book from 1."""
    found: list[NumberedSheet] = []
    first = 1
    for number, folios in enumerate(sections, 1):
        found += numbered_sheets(number, first, folios // folios_a_sheet(folds), folds)
        first += 4 * folios
    return tuple(found)


def _numbered_pile(leaves: tuple[Leaf, ...]) -> tuple[NumberedSheet, ...]:
    """The sheets of a pile with their page numbers, section by section from the outside in."""
    firsts = {(one.section, one.place): one for one in leaves if not one.second}
    seconds = {(one.section, one.place): one.page for one in leaves if one.second}
    return tuple(
        numbered_folio(section + 1, place + 1, one.folio.name if one.folio else "", one.page, seconds.get((section, place)))
        for (section, place), one in firsts.items()
    )


def _parts(brief: BriefResult, pages: Sections, folios: int, trim: float, flap: float, flap_folios: int) -> tuple[Part, ...]:
    sheet = open_sheet(brief.leaf_width_mm, brief.leaf_height_mm, pages.folds, trim)
    folds = (*(Fold(at, "valley") for at in sheet.across_mm), *(Fold(at, "valley", "level") for at in sheet.down_mm))
    if pages.folds > 1:
        count = folios // folios_a_sheet(pages.folds) * brief.quantity
        return (Part("folio", f"sheet, {WORDS[pages.folds]}", sheet.width_mm, sheet.height_mm, count, "leaf", folds=folds),)
    parts = []
    if folios > flap_folios:
        parts.append(Part("folio", "folio", sheet.width_mm, sheet.height_mm, (folios - flap_folios) * brief.quantity, "leaf", folds=folds))
    if flap_folios:
        zigzag = (Fold(sheet.width_mm + flap * panel, "mountain" if panel % 2 else "valley") for panel in range(pages.flap_panels))
        folds = (*folds, *zigzag)
        parts.append(
            Part(
                "flap_folio",
                "folio with fold-out",
                sheet.width_mm + flap * pages.flap_panels,
                sheet.height_mm,
                flap_folios * brief.quantity,
                "leaf",
                folds=folds,
            )
        )
    return tuple(parts)
