"""Sections: sheets folded and nested into sections; leaves, thickness, creep, fold-outs and page numbers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from pleat.core.base.estimate import Estimate, total, weighted
from pleat.core.base.plan import Check, Fold, Offer, Part, signature
from pleat.core.base.yields import both_ways
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages import checks, choices, figures, mixed_checks, steps
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages, Unit
from pleat.core.pleats.pages.counting import folios_for
from pleat.core.pleats.pages.creep import nested_creep, shorter_by
from pleat.core.pleats.pages.folding import WORDS, folios_a_sheet, open_sheet
from pleat.core.pleats.pages.imposition import NumberedSheet, numbered_folio, numbered_sheets
from pleat.core.pleats.pages.leaves import Leaf, leaves_of_pile
from pleat.core.pleats.pages.limits import GUIDES, MOST_BY_GUIDE, FoldLimit, fold_limit
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.mixed import sections_of as mixed_sections
from pleat.core.pleats.pages.pile_cuts import TRIED, folded_whole, pile_cuts
from pleat.core.pleats.pages.record import Sections
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.pleats.pages.sections import split
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.trade.pages import FLAP_GAP_MM, LAY_FACTORS, MEASURING_DOUBT_MM


@dataclass(frozen=True)
class _Nested:
    """How the folios lie: those of each section with their calipers, the thicknesses at the spine, the pile's
    folios, leaves, and the calipers that lie in the folds."""

    sections: tuple[int, ...]
    calipers: tuple[tuple[Estimate, ...], ...]
    at_fold: Estimate
    leaves: int
    mixed: tuple[tuple[MixedFolio, ...], ...]
    nests: tuple[tuple[Estimate, ...], ...]


def _nested(pages: Sections, left: LeftOfPages) -> _Nested:
    mixed = mixed_sections(pages, left.papers, left.brief.leaf_width_mm, left.brief.leaf_height_mm)
    if not mixed:
        caliper = left.paper.leaf.caliper
        sections = split(folios_for(pages.amount, pages.counted_in, pages.folds), pages.sections, pages.folds)
        calipers = tuple((caliper,) * count for count in sections)
        return _Nested(sections, calipers, caliper.times(2 * sum(sections)), 2 * sum(sections), (), calipers)
    return _Nested(
        tuple(len(section) for section in mixed),
        tuple(tuple(folio.caliper for folio in section) for section in mixed),
        weighted((folio.caliper, folio.at_fold) for section in mixed for folio in section),
        sum(folio.leaves for section in mixed for folio in section),
        mixed,
        tuple(tuple(folio.caliper for folio in section if folio.in_fold) for section in mixed),
    )


def compute(pages: Sections, left: LeftOfPages) -> SectionsBlock:
    """The block planned from ``pages`` on the leaf size of the brief and the papers to the left."""
    brief, paper, nested = left.brief, left.paper, _nested(pages, left)
    mixed, sections, folios = nested.mixed, nested.sections, sum(nested.sections)
    estimated, thickness = _thickness(pages, left, nested)
    creep = max((nested_creep(section) for section in nested.nests), key=lambda estimate: estimate.likely)
    cuts = pile_cuts(paper.stocks, mixed, brief.quantity)
    limit = _limit(left, nested)
    trim = pages.trim_mm if pages.edges == "trim" else 0.0
    flap = 0.0 if mixed else pages.flap_mm or 0.0
    folds = 1 if mixed else pages.folds
    flap_folios = _flap_folios(pages, flap, len(sections), folios)
    nest = figures.Nest(sections, thickness, estimated, creep, limit, trim)
    shown = figures.figures(pages, left, nest, mixed)
    found = checks.find(pages, left, sections, limit, trim)
    if mixed:
        found = mixed_checks.find(pages, brief, mixed, creep)
    parts = tuple(cut.part for cut in cuts) if mixed else _parts(brief, pages, folios, trim, flap_folios)
    block = SectionsBlock(
        key_figure=shown[0],
        figures=shown,
        checks=(*found, *_far_off(pages, brief, estimated, len(sections))),
        offers=() if mixed else choices.find(pages, left, sections, limit, trim),
        parts=parts,
        unit="section",
        units=_units(nested, bool(mixed)),
        leaves=nested.leaves,
        tucked=min(brief.made_of.cover.tucked, nested.leaves),
        leaf_width_mm=brief.leaf_width_mm,
        leaf_height_mm=brief.leaf_height_mm,
        thickness=thickness,
        measured=pages.measured_block_mm is not None,
        stands_out_mm=creep,
        swatch=paper.leaf.swatch,
        sides=paper.leaf.sides,
        flap_mm=flap,
        whole_sheets=folded_whole(mixed, brief.quantity),
        cut_signature=_pile_signature(brief, mixed),
        folios=folios,
        sections=sections,
        folds=folds,
        mixed=mixed,
        calipers_mm=tuple(tuple(estimate.likely for estimate in section) for section in nested.calipers),
        trim_mm=trim,
        creep_how=pages.creep,
        narrower_mm=_narrower(pages, brief, nested),
        counted_in=pages.counted_in,
        creep=creep,
        limit=limit,
        flap_folios=flap_folios,
        flap_panels=pages.flap_panels,
        flap_on=pages.flap_on,
        numbered=_numbers(pages, mixed, sections, folds),
        flap_room_mm=0.0 if mixed or folds > 1 or flap else _flap_room(brief, paper, parts[0]),
    )
    return _finished(block, brief)


def _flap_folios(pages: Sections, flap_mm: float, sections: int, folios: int) -> int:
    """How many folios have a fold-out."""
    if not flap_mm:
        return 0
    return sections if pages.flap_on == "innermost" else folios


def _units(nested: _Nested, mixed: bool) -> tuple[Unit, ...]:
    """The sections, each as thick as its papers."""
    each = zip(nested.nests, nested.sections, strict=True)
    return tuple(Unit(total(nest) if mixed else nest[0].times(count), count) for nest, count in each)


def _numbers(
    pages: Sections, mixed: tuple[tuple[MixedFolio, ...], ...], sections: tuple[int, ...], folds: int
) -> tuple[NumberedSheet, ...]:
    """The sheets with their page numbers, where those are wanted."""
    if pages.numbered == "no":
        return ()
    return _numbered_pile(leaves_of_pile(mixed)) if mixed else _numbered(sections, folds)


def _finished(block: SectionsBlock, brief: BriefResult) -> SectionsBlock:
    """The block with what follows from it: its steps, whether leaves stand out, and what would level them."""
    level = block.trim_mm or block.creep_how == "trim" or (block.creep_how == "narrow" and block.narrower_mm)
    flapped = block.flap_mm > 0 or any(folio.flap_mm for section in block.mixed for folio in section)
    may_trim = not flapped and not block.mixed  # found sheets are of odd sizes, and a trim leaves them odd
    return replace(
        block,
        stands_out_mm=None if level else block.creep,
        level=(Offer(label="trim the fore edge level", changes=(("pages.creep", "trim"),)),)
        if may_trim
        else (),
        steps=steps.of(block, brief),
    )


def _pile_signature(brief: BriefResult, mixed: tuple[tuple[MixedFolio, ...], ...]) -> str:
    """What the cut sheets of a pile are known by; "" without one."""
    if not mixed:
        return ""
    large = [folio for section in mixed for folio in section if folio.cut]
    flaps = [(folio.id, folio.flap_mm * folio.flap_panels) for folio in large if folio.flap_mm]
    return signature(*(folio.id for folio in large), brief.leaf_width_mm, brief.leaf_height_mm, *flaps)


def _thickness(pages: Sections, left: LeftOfPages, nested: _Nested) -> tuple[Estimate, Estimate]:
    """(estimated from the papers, as it is taken: the reading where there is one) in mm."""
    whose = "how flat the paper lies" if nested.mixed else f"how flat {left.paper.leaf.name} lies"
    estimated = nested.at_fold.multiplied(Estimate.ranged(*LAY_FACTORS[pages.lay], whose))
    reading = pages.measured_block_mm
    if reading is None:
        return estimated, estimated
    doubt = min(MEASURING_DOUBT_MM, reading)
    return estimated, Estimate.ranged(
        reading - doubt, reading, reading + doubt, "your reading of the pressed section"
    )


def _limit(left: LeftOfPages, nested: _Nested) -> FoldLimit:
    """How many folios of this thickness nest well."""
    mean = sum(estimate.likely for section in nested.calipers for estimate in section) / sum(nested.sections)
    kind, ruler = left.paper.leaf.kind, left.brief.ruler
    return (
        fold_limit(mean, ruler=ruler)
        if nested.mixed
        else fold_limit(mean, MOST_BY_GUIDE[kind], GUIDES[kind], ruler)
    )


def _far_off(pages: Sections, brief: BriefResult, estimated: Estimate, sections: int) -> tuple[Check, ...]:
    """A reading of the block that the paper hardly makes possible."""
    reading, ruler = pages.measured_block_mm, brief.ruler
    if reading is None or not estimated.questions(reading):
        return ()
    if sections > 1 and reading < estimated.low:
        perhaps = f" One of {sections} sections was perhaps measured: all of them together are asked for."
    elif reading > estimated.high:
        perhaps = " Perhaps it was read before pressing, or with the cover."
    else:
        perhaps = ""
    return (
        Check(
            code="measured",
            level="watch",
            title=f"You measured {ruler.thin(reading)}; the paper makes it "
            f"{ruler.between(estimated.low, estimated.high)}.",
            why="The spine follows your reading. Measure the pressed block again, and count its "
            f"leaves.{perhaps}",
            offers=(Offer(label="go by the estimate", changes=(("pages.measured_block_mm", None),)),),
        ),
    )


def _flap_room(brief: BriefResult, paper: PaperResult, part: Part) -> float:
    """The longest fold-out, on the ruler, that the sheet has room for beside two leaves without turning the
    grain; 0 for none."""
    sheet = paper.leaf
    now, other = both_ways(
        part.width_mm,
        part.height_mm,
        sheet.usable_width_mm,
        sheet.usable_height_mm,
        sheet.grain,
        sheet.upright_only,
    )
    rooms = [0.0]
    for operation in (now, other):
        if operation.count and operation.with_grain == now.with_grain:
            rooms.append(
                (sheet.usable_height_mm if operation.turned else sheet.usable_width_mm) - part.width_mm
            )
    room = brief.ruler.snap_down(min(max(rooms), brief.leaf_width_mm - FLAP_GAP_MM))
    return room if room >= 10 else 0.0


def _narrower(pages: Sections, brief: BriefResult, nested: _Nested) -> tuple[tuple[float, ...], ...]:
    """By how much each leaf is cut narrower for the creep; a leaf of a pile that ends before the edge anyhow
    is left alone."""
    mixed, calipers = nested.mixed, nested.calipers
    if pages.creep != "narrow" or (pages.folds > 1 and not mixed):
        return ()
    if not mixed:
        return tuple(shorter_by([estimate.likely for estimate in section]) for section in calipers)
    found = []
    for section in mixed:
        off = shorter_by([folio.caliper.likely if folio.in_fold else 0.0 for folio in section])
        found.append(
            tuple(
                max(0.0, folio.least_width_mm - (brief.leaf_width_mm - less))
                for folio, less in zip(section, off, strict=True)
            )
        )
    return tuple(found)


def _numbered(sections: tuple[int, ...], folds: int) -> tuple[NumberedSheet, ...]:
    """The sheets of all sections with their page numbers, running through the book from 1."""
    sheets: list[NumberedSheet] = []
    first = 1
    for number, folios in enumerate(sections, 1):
        sheets += numbered_sheets(number, first, folios // folios_a_sheet(folds), folds)
        first += 4 * folios
    return tuple(sheets)


def _numbered_pile(leaves: tuple[Leaf, ...]) -> tuple[NumberedSheet, ...]:
    """The sheets of a pile with their page numbers, section by section from the outside in."""
    firsts = {(leaf.section, leaf.place): leaf for leaf in leaves if not leaf.second}
    seconds = {(leaf.section, leaf.place): leaf.page for leaf in leaves if leaf.second}
    return tuple(
        numbered_folio(
            section + 1,
            place + 1,
            first.folio.name if first.folio else "",
            first.page,
            seconds.get((section, place)),
        )
        for (section, place), first in firsts.items()
    )


def _parts(
    brief: BriefResult, pages: Sections, folios: int, trim: float, flap_folios: int
) -> tuple[Part, ...]:
    """The pieces that are folded. Size and grain of those without a fold-out were told here."""
    sheet, flap = (
        open_sheet(brief.leaf_width_mm, brief.leaf_height_mm, pages.folds, trim),
        pages.flap_mm or 0.0,
    )
    folds = (
        *(Fold(at, "valley") for at in sheet.across_mm),
        *(Fold(at, "valley", "level") for at in sheet.down_mm),
    )
    piece = Part(
        key="folio",
        name="folio" if pages.folds == 1 else f"sheet, {WORDS[pages.folds]}",
        width_mm=sheet.width_mm,
        height_mm=sheet.height_mm,
        count=(folios - flap_folios) // folios_a_sheet(pages.folds) * brief.quantity,
        stock="leaf",
        folds=folds,
        needs=TRIED,
        told=frozenset({"B7"} if flap else {"B1", "B7"}),
        across="the crease may crack and the leaves stand up",
    )
    if pages.folds > 1 or not flap_folios:
        return (replace(piece, count=folios // folios_a_sheet(pages.folds) * brief.quantity),)
    zigzag = (
        Fold(sheet.width_mm + flap * panel, "mountain" if panel % 2 else "valley")
        for panel in range(pages.flap_panels)
    )
    with_flap = replace(
        piece,
        key="flap_folio",
        name="folio with fold-out",
        width_mm=sheet.width_mm + flap * pages.flap_panels,
        count=flap_folios * brief.quantity,
        folds=(*folds, *zigzag),
        told=frozenset({"B6", "B7"}),
    )
    return (piece, with_flap) if folios > flap_folios else (with_flap,)


KIND: Final = BlockKind(
    name="sections",
    title="sections of folded sheets",
    summary="Sheets folded and nested into one or more sections, of one paper or of a mixed pile.",
    record=Sections,
    compute=compute,
    roles=("leaf",),
    unit="section",
)
