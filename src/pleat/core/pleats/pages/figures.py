"""The figures of the pages, each with its why."""

from __future__ import annotations

import math
from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages.arrange import WEIGHTS, WORDS, told
from pleat.core.pleats.pages.block import LeftOfPages
from pleat.core.pleats.pages.counting import count_words
from pleat.core.pleats.pages.folding import folios_a_sheet
from pleat.core.pleats.pages.limits import GUIDES, FoldLimit
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.record import Sections
from pleat.core.trade.pages import FLAP_GAP_MM, LAY_FACTORS, MOST_CREEP_MM, THICKEST_FOLD_MM


@dataclass(frozen=True)
class Nest:
    """What the figures are about: folios of each section, thickness of the whole as it is and as estimated,
    creep, limit, trim; mm."""

    sections: tuple[int, ...]
    thickness: Estimate
    estimated: Estimate
    creep: Estimate
    limit: FoldLimit
    trim_mm: float


def figures(
    pages: Sections, left: LeftOfPages, nest: Nest, mixed: tuple[tuple[MixedFolio, ...], ...]
) -> tuple[Figure, ...]:
    """Every figure of this pleat, the count first."""
    if mixed:
        return _of_a_pile(pages, left.brief, nest, mixed)
    found = [
        *_counted(pages, nest.sections, left.brief.made_of.cover.tucked),
        _thick(pages, left, nest),
        *_beside_the_reading(pages, nest.estimated),
        _creeping(pages, left, nest),
        _most(left, nest.limit),
    ]
    if nest.trim_mm:
        found.append(_raw_leaf(left.brief, nest.trim_mm))
    if pages.flap_mm:
        found.append(_fold_out(pages, left.brief, pages.flap_mm))
    return tuple(found)


def _counted(pages: Sections, sections: tuple[int, ...], tucked: int) -> tuple[Figure, Figure]:
    """How many pages, and how many leaves; those ``tucked`` into the cover are no pages."""
    folios, many = sum(sections), len(sections)
    asked = {"unsaid": "pages"}.get(pages.counted_in, pages.counted_in)
    rounded = (
        ""
        if 4 * folios == _in_pages(pages)
        else f" You asked for {pages.amount} {asked}; whole sheets of {4 * folios_a_sheet(pages.folds)} "
        f"pages make it {4 * folios}."
    )
    hidden = (
        f" {tucked} leaves are tucked into the covers: {4 * folios} − {2 * tucked} = "
        f"{4 * folios - 2 * tucked}."
        if tucked
        else ""
    )
    count = Figure(
        key="count",
        label="in one section" if many == 1 else f"in {many} sections",
        value=f"{4 * folios - 2 * tucked} pages",
        show="text",
        how=f"{count_words(folios, pages.folds)}.{_shared(sections, pages.folds)}{rounded}{hidden}",
        rules=(
            Rule("arithmetic", "a sheet folded once is 2 leaves, twice 4, three times 8; a leaf is 2 pages"),
        ),
        aside=f"you asked for {pages.amount} {asked}; whole sheets make more" if rounded else "",
        scrap=f"{4 * folios - 2 * tucked} pages: {_sheets_each(sections, pages.folds)}",
    )
    leaves = Figure(
        key="leaves",
        label="leaves",
        value=2 * folios,
        show="count",
        unit="leaves",
        how=f"{count_words(folios, pages.folds)}. A leaf has two sides, and each side is a page.",
        rules=count.rules,
    )
    return count, leaves


def _thick(pages: Sections, left: LeftOfPages, nest: Nest) -> Figure:
    ruler, estimated, lay = left.brief.ruler, nest.estimated, LAY_FACTORS[pages.lay]
    how = (
        f"{2 * sum(nest.sections)} leaves × {ruler.fine(left.paper.leaf.caliper.likely)} × {lay[0]:g} to "
        f"{lay[2]:g} for paper that lies "
        f"{pages.lay}. {_what_would_narrow(nest.thickness, ruler)}"
    )
    rules: tuple[Rule, ...] = (
        Rule("arithmetic", "leaves × thickness of one"),
        Rule("LAY_FACTORS", "how flat it lies"),
    )
    if pages.measured_block_mm is not None:
        measured = ruler.thin(pages.measured_block_mm)
        how = (
            f"You measured {measured}. From the paper it is estimated at "
            f"{ruler.between(estimated.low, estimated.high)}."
        )
        rules = (Rule("measured by you", "the pressed block"),)
    return Figure(
        key="thickness",
        label="thickness at the fold",
        value=nest.thickness,
        show="thin",
        how=how,
        rules=rules,
    )


def _creeping(pages: Sections, left: LeftOfPages, nest: Nest) -> Figure:
    outside, caliper = max(nest.sections) - 1, left.brief.ruler.fine(left.paper.leaf.caliper.likely)
    what = _what_of_it(pages, left.brief, outside + 1, nest.creep)
    return Figure(
        key="creep",
        label="creep of the innermost",
        value=nest.creep,
        show="thin",
        how=f"{outside} folios lie outside it: {outside} × {caliper} with folds pressed dead flat, times π/2 "
        f"with round folds. {what}",
        rules=(Rule("arithmetic", "(n − 1) t to (π/2)(n − 1) t"),),
    )


def _most(left: LeftOfPages, limit: FoldLimit) -> Figure:
    ruler = left.brief.ruler
    return Figure(
        key="limit",
        label="nest well in one fold",
        value=limit.folios,
        show="count",
        unit="folios",
        how=f"More would pass {limit.reason}. A fold of {ruler.thin(THICKEST_FOLD_MM)}, a creep of "
        f"{ruler.thin(MOST_CREEP_MM)} and the guide all hold, and the least wins. Guide: "
        f"{GUIDES[left.paper.leaf.kind]}.",
        rules=(
            Rule("THICKEST_FOLD_MM", "a fold of 2.5 mm, a creep of 3 mm"),
            Rule("fold_guide", "the guide, no source"),
        ),
    )


def _fold_out(pages: Sections, brief: BriefResult, flap_mm: float) -> Figure:
    ruler, most = brief.ruler, brief.leaf_width_mm - FLAP_GAP_MM
    folded = (
        f"{pages.flap_panels} panels so wide, folded back and forth like an accordion. "
        if pages.flap_panels > 1
        else ""
    )
    return Figure(
        key="flap",
        label="fold-out",
        value=flap_mm,
        show="length",
        how=f"{folded}It folds in over its leaf and must stay {ruler.show(FLAP_GAP_MM)} clear of the gutter: "
        f"at most {ruler.show(ruler.snap_down(most))}.",
        rules=(
            Rule("chosen by you", "flap length"),
            Rule("FLAP_GAP_MM", f"{FLAP_GAP_MM:g} mm (3/4 in) less than the leaf, no source"),
        ),
    )


def _of_a_pile(
    pages: Sections, brief: BriefResult, nest: Nest, mixed: tuple[tuple[MixedFolio, ...], ...]
) -> tuple[Figure, ...]:
    """The figures of a book made of a mixed pile."""
    ruler, folios, many = brief.ruler, sum(nest.sections), len(nest.sections)
    counts = ", ".join(str(count) for count in nest.sections)
    thick = [sum(folio.caliper.likely * folio.at_fold for folio in section) for section in mixed]
    leaves = sum(folio.leaves for section in mixed for folio in section)
    counted = count_words(folios, leaves=leaves)
    each = [ruler.thin(one) for one in thick]
    sheet_rule = (Rule("arithmetic", "a sheet folded once is 2 leaves, 4 pages"),)
    return (
        Figure(
            key="count",
            label="in one section" if many == 1 else f"in {many} sections",
            value=f"{2 * leaves} pages",
            show="text",
            how=f"{counted}. Sheets in each, front to back: {counts}.",
            rules=sheet_rule,
            scrap=f"{2 * leaves} pages: sheets {counts}",
        ),
        Figure(
            key="leaves",
            label="leaves",
            value=leaves,
            show="count",
            how=f"{counted}. A leaf has two sides, and each is a page.",
            rules=sheet_rule,
            unit="leaves",
        ),
        Figure(
            key="thickness",
            label="thickness at the fold",
            value=nest.thickness,
            show="thin",
            how=_how_thick(pages, nest, mixed, ruler),
            rules=(Rule("arithmetic", "every leaf added up"), Rule("LAY_FACTORS", "how flat it lies")),
        ),
        *_beside_the_reading(pages, nest.estimated),
        Figure(
            key="sections",
            label="sections, pressed flat",
            value=" – ".join(dict.fromkeys((ruler.thin(min(thick)), ruler.thin(max(thick))))),
            show="text",
            how=f"Front to back: {', '.join(each)}.",
            rules=(Rule("arithmetic", "leaves of each section added up"),),
        ),
        Figure(
            key="creep",
            label="creep of the innermost",
            value=nest.creep,
            show="thin",
            how="What lies outside the innermost sheet of the thickest section, pressed dead flat to round. "
            f"{_what_of_it(pages, brief, 1, nest.creep)}",
            rules=(Rule("arithmetic", "sum of calipers outside, times 1 to π/2"),),
        ),
        _wishes(pages, brief.ruler, mixed),
    )


def _how_thick(pages: Sections, nest: Nest, mixed: tuple[tuple[MixedFolio, ...], ...], ruler: Ruler) -> str:
    """What the thickness of a pile comes from, in words."""
    if pages.measured_block_mm is not None:
        return (
            f"You measured {ruler.thin(pages.measured_block_mm)}. From the papers it is estimated at "
            f"{ruler.between(nest.estimated.low, nest.estimated.high)}."
        )
    sheets = [folio for section in mixed for folio in section]
    return (
        f"{sum(sheet.leaves for sheet in sheets)} leaves of {len({sheet.name for sheet in sheets})} papers, "
        f"added up. {_what_would_narrow(nest.thickness, ruler)}"
    )


def _beside_the_reading(pages: Sections, estimated: Estimate) -> tuple[Figure, ...]:
    """The estimate stays in sight beside a reading that replaces it."""
    if pages.measured_block_mm is None:
        return ()
    how = (
        "From the leaves' thickness and how flat the paper lies. Your reading is used instead; held "
        "against this, it shows a slip."
    )
    return (
        Figure(
            key="estimated",
            label="estimated from the paper",
            value=estimated,
            show="thin",
            how=how,
            rules=(Rule("arithmetic", "leaves × thickness of one"),),
        ),
    )


def _wishes(pages: Sections, ruler: Ruler, mixed: tuple[tuple[MixedFolio, ...], ...]) -> Figure:
    """What an arrangement is weighed by, and how far it is met as the sheets lie now."""
    order = tuple(tuple(folio.id for folio in section) for section in mixed)
    pile = [folio.arranged for section in mixed for folio in section]
    found = told(order, pile, pages.pairs, ruler)
    listed = "; ".join(
        f"{WORDS[wish]} (weighs {WEIGHTS[wish]:g}): {one.words or 'met'}" for wish, one in found.items()
    )
    return Figure(
        key="wishes",
        label="wishes met",
        value=f"{sum(one.met for one in found.values())} of {len(found)}",
        show="text",
        how=f"{listed[0].upper()}{listed[1:]}. Not all can always be met at once; pinned sheets stay where "
        "they are.",
        rules=(Rule("arranging", "what is weighed, and by how much"),),
    )


def _sheets_each(sections: tuple[int, ...], folds: int) -> str:
    """``10 sheets``, or how many lie in each section: ``sheets 4 + 5 + 4``."""
    counts = [folios // folios_a_sheet(folds) for folios in sections]
    return (
        f"{counts[0]} {by_count(counts[0], 'sheet', 'sheets')}"
        if len(counts) == 1
        else f"sheets {' + '.join(str(count) for count in counts)}"
    )


def _shared(sections: tuple[int, ...], folds: int) -> str:
    """How many sheets lie in each section."""
    if len(sections) == 1:
        return ""
    counts = [folios // folios_a_sheet(folds) for folios in sections]
    return f" Sheets in each section, front to back: {', '.join(str(count) for count in counts)}."


def _what_of_it(pages: Sections, brief: BriefResult, nested: int, creep: Estimate) -> str:
    """What is done about the creep, and what that leaves."""
    ruler, width = brief.ruler, brief.leaf_width_mm
    if pages.creep == "trim":
        return (
            f"Trimmed flush, the innermost page is left {ruler.thin(width - creep.likely)} wide instead "
            f"of {ruler.thin(width)}."
        )
    if pages.creep == "narrow" and pages.pile:
        return "Inner sheets are cut narrower, so that all end level; the step at the bench says by how much."
    if pages.creep == "narrow" and nested > 1:
        step = creep.likely / (nested - 1)
        widths = ", ".join(ruler.number(2 * (width - step * number)) for number in range(nested))
        return (
            f"Cut narrower from the outside in, so that all end level: sheets {widths} {ruler.name} wide, "
            "open."
        )
    return "Left as it is, the fore edge slants by that much."


def _raw_leaf(brief: BriefResult, trim: float) -> Figure:
    return Figure(
        key="raw",
        label="leaf before trimming",
        value=(brief.leaf_width_mm + trim, brief.leaf_height_mm + 2 * trim),
        show="size",
        how=f"{brief.ruler.show(trim)} comes off head, tail and fore edge, and the closed folds with it.",
        rules=(Rule("arithmetic", "leaf + trim, twice in height"), Rule("chosen by you", "the trim")),
    )


def _in_pages(pages: Sections) -> int:
    return (
        pages.amount
        * {"pages": 1, "unsaid": 1, "leaves": 2, "folios": 4 * folios_a_sheet(pages.folds)}[pages.counted_in]
    )


def _what_would_narrow(thickness: Estimate, ruler: Ruler) -> str:
    doubt = thickness.main_doubt()
    if doubt is None or math.isclose(thickness.width, 0, abs_tol=0.01):
        return ""
    now, left = ruler.thin(thickness.width), ruler.thin(thickness.width_without(doubt))
    would = "" if now == left else f": known exactly, the range of {now} would be {left}"
    return f"Most of the range comes from {doubt}{would}."
