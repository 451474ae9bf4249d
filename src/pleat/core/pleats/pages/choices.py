"""Ways side by side: how this sheet folds, how many sections, and sizes near this one that waste less."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.plan import Offer
from pleat.core.base.words import by_count, many
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.pages.block import LeftOfPages
from pleat.core.pleats.pages.folding import WORDS, Folded, folios_a_sheet, ways_to_fold
from pleat.core.pleats.pages.limits import FoldLimit
from pleat.core.pleats.pages.nearby import nearby_sizes
from pleat.core.pleats.pages.record import Sections
from pleat.core.pleats.pages.sections import compare
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.trade.pages import LAY_FACTORS

FOLDINGS = "this whole sheet, folded"
SECTIONS = "in sections"
NEARBY = "sizes near this one"
ACROSS: Final[dict[Literal["w", "h"] | None, Literal["w", "h"] | None]] = {"w": "h", "h": "w", None: None}
"""The grain of a sheet as a leaf sees it that is held along its width."""


def find(
    pages: Sections, left: LeftOfPages, sections: tuple[int, ...], limit: FoldLimit, trim: float
) -> tuple[Offer, ...]:
    """Every choice of this pleat, group by group; a group with nothing to choose from is empty."""
    return (
        *_sections(pages, left, sections, limit),
        *_nearby(pages, left, sections, trim),
        *_foldings(pages, left.brief, left.paper),
    )


def _sections(pages: Sections, left: LeftOfPages, sections: tuple[int, ...], limit: FoldLimit) -> list[Offer]:
    caliper, lay, ruler = left.paper.leaf.caliper, LAY_FACTORS[pages.lay][1], left.brief.ruler
    splits = compare(sum(sections), len(sections), pages.folds, caliper, lay, limit)
    if len(splits) < 2:
        return []
    by = folios_a_sheet(pages.folds)
    offers = []
    for split in splits:
        chosen = split.sections == len(sections)
        sheets = split.folios // by
        label = (
            f"{split.sections} {by_count(split.sections, 'section', 'sections')} of {sheets} "
            f"{by_count(sheets, 'sheet', 'sheets')}"
        )
        facts = (
            f"{split.pages} pages",
            f"each {ruler.thin(split.section_mm)} at the fold",
            f"creep {ruler.thin(split.creep_mm)}",
            "nests well" if split.fits else f"too many for one fold: {limit.folios} nest well",
        )
        changes = (
            ("pages.sections", split.sections),
            ("pages.amount", split.pages),
            ("pages.counted_in", "pages"),
        )
        offers.append(
            Offer(
                label=label,
                changes=changes,
                facts=facts,
                group=SECTIONS,
                chosen=chosen and split.pages == 4 * sum(sections),
                good=split.fits,
            )
        )
    return offers


def _nearby(pages: Sections, left: LeftOfPages, sections: tuple[int, ...], trim: float) -> list[Offer]:
    return (
        [] if pages.flap_mm else near(left, pages.folds, sum(sections) // folios_a_sheet(pages.folds), trim)
    )


def near(left: LeftOfPages, folds: int, pieces: int, trim: float = 0.0) -> list[Offer]:
    """Leaves near this one that take fewer sheets or leave less over; ``pieces`` are those of one book,
    single leaves where there is no fold."""
    brief, leaf, ruler = left.brief, left.paper.leaf, left.brief.ruler
    wide, high = brief.leaf_width_mm + trim, brief.leaf_height_mm + 2 * trim
    along = ACROSS[leaf.grain] if brief.made_of.held_along == "w" else leaf.grain
    own, neighbours = nearby_sizes(
        wide,
        high,
        folds,
        pieces * brief.quantity,
        leaf.usable_width_mm,
        leaf.usable_height_mm,
        grain=along,
        upright_only=leaf.upright_only,
    )
    choices = []
    for neighbour in neighbours:
        width, height = neighbour.leaf_width_mm - trim, neighbour.leaf_height_mm - 2 * trim
        if not possible(width, height):
            continue
        now = f" instead of {own.count or 'none'}" if neighbour.each != own.count else ", as many as now"
        facts = (
            f"{many(neighbour.each, 'piece')} a sheet{now}",
            f"{neighbour.used:.0%} of each sheet used",
            _grain(neighbour.with_grain),
        )
        changes, words = resized(brief, width, height)
        choices.append(
            Offer(
                label=f"leaf {ruler.size(width, height)}{words}",
                changes=changes,
                facts=facts,
                group=NEARBY,
                good=neighbour.with_grain is not False,
            )
        )
    return choices


def _foldings(pages: Sections, brief: BriefResult, paper: PaperResult) -> list[Offer]:
    leaf = paper.leaf
    offers = []
    for way in ways_to_fold(leaf.usable_width_mm, leaf.usable_height_mm, leaf.grain):
        if not possible(way.leaf_width_mm, way.leaf_height_mm):
            continue
        name = f", {way.name}" if way.name else ""
        resize, words = resized(brief, way.leaf_width_mm, way.leaf_height_mm, pages.flap_mm)
        facts = (
            f"leaf {brief.ruler.size(way.leaf_width_mm, way.leaf_height_mm)}{name}{words}",
            f"{way.leaves} leaves, {2 * way.leaves} pages a sheet",
            _grain(way.with_grain),
        )
        changes = (("pages.folds", way.folds), ("pages.edges", "slit"), *resize)
        turned = ", sheet turned" if way.turned else ""
        offers.append(
            Offer(
                label=f"{WORDS[way.folds].removeprefix('folded ')}{turned}",
                changes=changes,
                facts=facts,
                group=FOLDINGS,
                chosen=_is_now(way, pages, brief),
                good=way.with_grain is not False,
            )
        )
    return offers


def _is_now(way: Folded, pages: Sections, brief: BriefResult) -> bool:
    same = (
        abs(way.leaf_width_mm - brief.leaf_width_mm) < 0.05
        and abs(way.leaf_height_mm - brief.leaf_height_mm) < 0.05
    )
    return same and way.folds == pages.folds and pages.edges == "slit"


def _grain(with_grain: bool | None) -> str:
    if with_grain is None:
        return "grain not known"
    if with_grain:
        return "with the grain"
    return "across the grain"
