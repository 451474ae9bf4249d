"""Pages: the section. Sheets folded once, nested in one fold; its leaves, thickness, creep and fold-out flaps."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from pleat.core.book import Pages
from pleat.core.brief.compute import BriefResult
from pleat.core.estimate import Estimate
from pleat.core.pages import checks
from pleat.core.pages.counting import CountUnit, count_words, folios_for
from pleat.core.pages.creep import innermost_creep
from pleat.core.pages.limits import FLAP_GAP_MM, LAY_FACTORS, FoldLimit, fold_limit
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Figure, Fold, Part, PleatResult, Rule

MEASURING_DOUBT_MM: Final = 0.2
"""How well a pressed section can be measured with a ruler or caliper (house rule)."""


@dataclass(frozen=True, kw_only=True)
class PagesResult(PleatResult):
    """The section handed to the right; lengths in mm."""

    folios: int
    leaves: int
    pages: int
    counted_in: CountUnit
    leaf_width_mm: float
    leaf_height_mm: float
    sheet_caliper: Estimate
    thickness: Estimate
    measured: bool
    fold_stack: Estimate
    creep: Estimate
    limit: FoldLimit
    flap_mm: float
    flap_folios: int
    parts: tuple[Part, ...]


def compute(pages: Pages, brief: BriefResult, paper: PaperResult) -> PagesResult:
    """The section planned from ``pages`` on the leaf size of ``brief`` and the leaf paper of ``paper``."""
    folios = folios_for(pages.amount, pages.counted_in)
    caliper = paper.leaf.caliper
    lay = Estimate.ranged(*LAY_FACTORS[pages.lay], f"how flat {paper.leaf.name} lies")
    estimated = caliper.times(2 * folios).multiplied(lay)
    thickness = estimated
    if pages.measured_block_mm is not None:
        doubt = min(MEASURING_DOUBT_MM, pages.measured_block_mm)
        thickness = Estimate.ranged(
            pages.measured_block_mm - doubt, pages.measured_block_mm, pages.measured_block_mm + doubt, "your reading of the pressed section"
        )
    creep = innermost_creep(caliper, folios)
    limit = fold_limit(caliper.likely)
    flap = pages.flap_mm or 0.0
    flap_folios = 0 if not flap else 1 if pages.flap_on == "innermost" else folios
    figures = _figures(pages, brief, paper, folios, thickness, estimated, creep, limit, flap)
    return PagesResult(
        key_figure=figures[0],
        figures=figures,
        checks=checks.find(pages, brief, paper, folios, limit),
        folios=folios,
        leaves=2 * folios,
        pages=4 * folios,
        counted_in=pages.counted_in,
        leaf_width_mm=brief.leaf_width_mm,
        leaf_height_mm=brief.leaf_height_mm,
        sheet_caliper=caliper,
        thickness=thickness,
        measured=pages.measured_block_mm is not None,
        fold_stack=caliper.times(folios),
        creep=creep,
        limit=limit,
        flap_mm=flap,
        flap_folios=flap_folios,
        parts=_parts(brief, folios, flap, flap_folios),
    )


def _parts(brief: BriefResult, folios: int, flap: float, flap_folios: int) -> tuple[Part, ...]:
    width, height = 2 * brief.leaf_width_mm, brief.leaf_height_mm
    centre = Fold(brief.leaf_width_mm, "valley")
    parts = []
    if folios > flap_folios:
        parts.append(Part("folio", "folio", width, height, (folios - flap_folios) * brief.quantity, "leaf", folds=(centre,)))
    if flap_folios:
        folds = (centre, Fold(width, "valley"))
        parts.append(Part("flap_folio", "folio with fold-out", width + flap, height, flap_folios * brief.quantity, "leaf", folds=folds))
    return tuple(parts)


def _figures(
    pages: Pages,
    brief: BriefResult,
    paper: PaperResult,
    folios: int,
    thickness: Estimate,
    estimated: Estimate,
    creep: Estimate,
    limit: FoldLimit,
    flap: float,
) -> tuple[Figure, ...]:
    ruler, caliper = brief.ruler, paper.leaf.caliper.likely
    asked = {"unsaid": "pages"}.get(pages.counted_in, pages.counted_in)
    rounded = (
        "" if 4 * folios == _in_pages(pages) else f" You asked for {pages.amount} {asked}; a folded sheet has 4 pages, so it is rounded up."
    )
    count = Figure(
        key="count",
        label="in one section",
        value=f"{4 * folios} pages",
        show="text",
        how=f"{count_words(folios)}.{rounded}",
        rules=(Rule("arithmetic", "a sheet folded once is 2 leaves, 4 pages"),),
    )
    leaves = Figure(
        key="leaves",
        label="leaves",
        value=2 * folios,
        show="count",
        unit="leaves",
        how=f"{count_words(folios)}. A leaf has two sides, and each side is a page.",
        rules=count.rules,
    )
    if pages.measured_block_mm is not None:
        thick_how = f"You measured {ruler.thin(pages.measured_block_mm)}. From the paper it was reckoned at {ruler.thin(estimated.low)} to {ruler.thin(estimated.high)}."
        thick_rules: tuple[Rule, ...] = (Rule("measured by you", "the pressed section"),)
    else:
        lay = LAY_FACTORS[pages.lay]
        thick_how = f"{2 * folios} leaves × {ruler.fine(caliper)} × {lay[0]:g} to {lay[2]:g} for paper that lies {pages.lay}. {_what_would_narrow(thickness)}"
        thick_rules = (Rule("arithmetic", "leaves × thickness of one"), Rule("house rule", "how flat it lies"))
    thick = Figure(key="thickness", label="thickness at the fold", value=thickness, show="thin", how=thick_how, rules=thick_rules)
    creeping = Figure(
        key="creep",
        label="creep of the innermost",
        value=creep,
        show="thin",
        how=f"{folios - 1} folios lie outside it: {folios - 1} × {ruler.fine(caliper)} with folds pressed dead flat, times π/2 with round folds.",
        rules=(Rule("arithmetic", "(n − 1) t to (π/2)(n − 1) t"),),
    )
    most = Figure(
        key="limit",
        label="nest well in one fold",
        value=limit.folios,
        show="count",
        unit="sheets",
        how=f"More would pass {limit.reason}. Guide: {checks.guide(paper)}.",
        rules=(Rule("house rule", limit.reason), Rule("common practice", "the guide, no source")),
    )
    figures = [count, leaves, thick, creeping, most]
    if flap:
        most_flap = brief.leaf_width_mm - FLAP_GAP_MM
        figures.append(
            Figure(
                key="flap",
                label="fold-out",
                value=flap,
                show="length",
                how=f"It folds in over its leaf and must stay {ruler.show(FLAP_GAP_MM)} clear of the gutter: at most {ruler.show(ruler.snap_down(most_flap))}.",
                rules=(Rule("chosen by you", "flap length"), Rule("common practice", "20 mm less than the leaf, no source")),
            )
        )
    return tuple(figures)


def _in_pages(pages: Pages) -> int:
    return pages.amount * {"pages": 1, "unsaid": 1, "leaves": 2, "folios": 4}[pages.counted_in]


def _what_would_narrow(thickness: Estimate) -> str:
    doubt = thickness.main_doubt()
    if doubt is None or math.isclose(thickness.width, 0, abs_tol=0.01):
        return ""
    left = thickness.width_without(doubt)
    return f"Most of the range comes from {doubt}: known exactly, the range of {thickness.width:.1f} mm would be {left:.1f} mm."
