"""What can go wrong with a mixed pile: slips B3, B7, B10, C1, C3, C5 and C7, and papers of which there are
too few.

C2 needs the stations and stands there; fold-outs have a module of their own.
"""

from __future__ import annotations

import itertools
import math
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, many, merged
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages import flap_checks
from pleat.core.pleats.pages.arrange import alike
from pleat.core.pleats.pages.creep import nested_creep
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.record import MOST_SECTIONS, Sections
from pleat.core.trade.pages import ALIKE_SHARE, MOST_CREEP_MM, MOST_MIXED, THICKEST_FOLD_MM, WINDOW_EDGE_MM

NAMED = 4
GUIDE: Final = "Guides: up to 12 light mixed sheets, about 10 opened envelopes (common practice, no source)."


def find(
    pages: Sections,
    brief: BriefResult,
    sections: tuple[tuple[MixedFolio, ...], ...],
    creep: Estimate,
) -> tuple[Check, ...]:
    """Every check of a pile that has something to say; ``creep`` is that of the section that creeps
    furthest."""
    found = [
        _too_thick(pages, brief.ruler, sections, creep.likely),
        _windows(sections),
        _window_places(pages, brief, sections),
        _alike(sections),
        _pairs(pages, sections),
        _small(brief, sections),
        _odd(pages, brief, sections),
        _grain(sections),
        _sideways(sections),
        *flap_checks.of_a_pile(pages, brief, sections),
    ]
    return tuple(check for check in found if check)


def meeting(sections: tuple[tuple[MixedFolio, ...], ...]) -> list[tuple[int, MixedFolio, MixedFolio]]:
    """(section from 1, folio, folio) for all that face each other."""
    found = [
        (number, a, b) for number, section in enumerate(sections, 1) for a, b in itertools.pairwise(section)
    ]
    return found + [(number, a[0], b[0]) for number, (a, b) in enumerate(itertools.pairwise(sections), 1)]


def _too_thick(
    pages: Sections, ruler: Ruler, sections: tuple[tuple[MixedFolio, ...], ...], creep_mm: float
) -> Check | None:
    """C1: a section thicker, or creeping further, than nests well."""
    thick = [sum(folio.caliper.likely * folio.at_fold for folio in section) for section in sections]
    worst = max(range(len(sections)), key=lambda number: thick[number])
    most = max(len(section) for section in sections)
    if (thick[worst] <= THICKEST_FOLD_MM and creep_mm <= MOST_CREEP_MM and most <= MOST_MIXED) or most == 1:
        return None
    if thick[worst] <= THICKEST_FOLD_MM and creep_mm <= MOST_CREEP_MM:
        worst = next(number for number, section in enumerate(sections) if len(section) == most)
    by_count = math.ceil(len(pages.pile) / MOST_MIXED)
    wanted = min(
        len(pages.pile),
        MOST_SECTIONS,
        max(len(sections) + 1, math.ceil(sum(thick) / THICKEST_FOLD_MM), by_count),
    )
    return Check(
        code="C1",
        level="stop" if thick[worst] > 2 * THICKEST_FOLD_MM else "watch",
        title=f"Section {worst + 1} is {ruler.thin(thick[worst])} thick at its fold: "
        f"{many(len(sections[worst]), 'sheet is', 'sheets are')} too many.",
        why=f"Up to {MOST_MIXED} light sheets, {ruler.thin(THICKEST_FOLD_MM)} and a creep of "
        f"{ruler.thin(MOST_CREEP_MM)} nest well; beyond that a section gapes and its fore edge slants. "
        f"{GUIDE}",
        offers=(
            Offer(
                label=f"deal them out into {wanted} sections",
                changes=(("pages.sections", wanted), ("pages.order", ())),
            ),
        )
        if wanted > len(sections)
        else (),
        no_fix=""
        if wanted > len(sections)
        else "Take some sheets off the pile: it has as many sections as a book can have.",
    )


def _windows(sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """C3: two windows face to face show the same hole twice."""
    both = [(number, a, b) for number, a, b in meeting(sections) if a.window and b.window]
    if not both:
        return None
    number, a, b = both[0]
    return Check(
        code="C3",
        level="watch",
        title=f"Two windows lie face to face in section {number}: {a.name} and {b.name}.",
        why=f"One looks through both at what lies behind; {len(both)} such openings.",
        no_fix="Arrange again, or move one of them further in or out.",
    )


def _window_places(
    pages: Sections, brief: BriefResult, sections: tuple[tuple[MixedFolio, ...], ...]
) -> Check | None:
    """Windows that reach the edges of their leaf, or the fold."""
    out = [
        folio
        for section in sections
        for folio in section
        if folio.window
        and (
            min(folio.window[0], folio.window[1]) < WINDOW_EDGE_MM
            or folio.window[0] + folio.window[2] > folio.first_width_mm - WINDOW_EDGE_MM
            or folio.window[1] + folio.window[3] > folio.leaf_height_mm - WINDOW_EDGE_MM
        )
    ]
    if not out:
        return None
    ruler, one = brief.ruler, out[0]
    assert one.window
    ids = {each.id for each in out}
    middle = dict.fromkeys(("window_width_mm", "window_height_mm", "window_fore_mm", "window_head_mm"))
    pile = tuple(sheet.model_copy(update=middle) if sheet.id in ids else sheet for sheet in pages.pile)
    return Check(
        code="window",
        level="watch",
        title=f"The window of {one.name} leaves less than {ruler.show(WINDOW_EDGE_MM)} of paper around it.",
        why=f"It is {ruler.size(one.window[2], one.window[3])}, {ruler.show(one.window[0])} from the fore "
        f"edge and {ruler.show(one.window[1])} from the head of a leaf of "
        f"{ruler.size(one.first_width_mm, one.leaf_height_mm)}. A thin bar tears at the first turning.",
        offers=(Offer(label="a smaller one, in the middle of the leaf", changes=(("pages.pile", pile),)),),
    )


def _alike(sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """C3: similar papers side by side."""
    same = [
        (number, a, b) for number, a, b in meeting(sections) if alike(a.arranged, b.arranged) > ALIKE_SHARE
    ]
    if not same:
        return None
    listed = "; ".join(
        f"section {number}: {a.name}" + ("" if a.name == b.name else f" and {b.name}")
        for number, a, b in same[:NAMED]
    )
    more = " …" if len(same) > NAMED else ""
    return Check(
        code="C3_alike",
        level="note",
        title=f"{len(same)} {by_count(len(same), 'pair', 'pairs')} of similar papers lie side by side: "
        f"{listed}{more}.",
        why="They read as one; kept apart, each shows. Where the pile is mostly of one paper, it cannot be "
        "helped.",
        no_fix="Arrange again, or pin the ones that should be apart.",
    )


def _pairs(pages: Sections, sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """C7: sheets that were to make an opening together do not."""
    names = {folio.id: folio.name for section in sections for folio in section}
    together = {frozenset((a.id, b.id)) for _, a, b in meeting(sections)}
    apart = [pair for pair in pages.pairs if frozenset(pair) not in together and set(pair) <= set(names)]
    if not apart:
        return None
    a, b = apart[0]
    kept = [list(pair) for pair in pages.pairs if pair not in apart]
    return Check(
        code="C7",
        level="watch",
        title=f"{len(apart)} {by_count(len(apart), 'opening does', 'openings do')} not match: {names[a]} "
        f"and {names[b]} were to face each other.",
        why="Something has been moved between them since. Arranging brings them together again.",
        offers=(Offer(label="they need not meet", changes=(("pages.pairs", kept),)),),
    )


def _odd(pages: Sections, brief: BriefResult, sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """C5: a common trim does not reach leaves that are smaller than the others."""
    if pages.creep != "trim" and pages.edges != "trim":
        return None
    off = (
        pages.trim_mm
        if pages.edges == "trim"
        else nested_creep([folio.caliper for folio in max(sections, key=len)]).likely
    )
    short = [
        folio for section in sections for folio in section if brief.leaf_width_mm - folio.least_width_mm > off
    ]
    if not short:
        return None
    return Check(
        code="C5",
        level="note",
        title=f"{len(short)} {by_count(len(short), 'leaf is', 'leaves are')} narrower than the trim line "
        f"and stay odd: {short[0].name}.",
        why=f"{brief.ruler.thin(off)} comes off the fore edge; these end before it. The edge will not be "
        "even there.",
        offers=(
            Offer(
                label="leave the edge untrimmed", changes=(("pages.creep", "leave"), ("pages.edges", "slit"))
            ),
        ),
    )


def _small(brief: BriefResult, sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """B3: sheets that were not tried against the leaf."""
    ruler = brief.ruler
    small = [
        folio
        for section in sections
        for folio in section
        if folio.least_width_mm < brief.leaf_width_mm - 1 or folio.leaf_height_mm < brief.leaf_height_mm - 1
    ]
    if not small:
        return None
    first = small[0]
    return Check(
        code="B3",
        level="note",
        title=f"{len(small)} {by_count(len(small), 'sheet gives a leaf', 'sheets give leaves')} smaller "
        f"than the book's: {first.name} {ruler.size(first.least_width_mm, first.leaf_height_mm)}"
        + (" and others." if len(small) > 1 else "."),
        why=f"The leaf is {ruler.size(brief.leaf_width_mm, brief.leaf_height_mm)}. Small leaves are centred "
        "on the fold, and every one needs two holes within its own height.",
        no_fix="Nothing to do if they are meant; else take those sheets off the pile.",
    )


def _grain(sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """B7: folded across the grain."""
    across = [folio.name for section in sections for folio in section if folio.with_grain is False]
    if not across:
        return None
    named = merged(sorted(across)[:NAMED])
    return Check(
        code="B7",
        level="note",
        title=f"{len(across)} of the pile fold across their grain: {named}.",
        why="They stand up instead of draping, and stiff ones crack at the fold.",
        no_fix="Score those before folding; keep the stiffest near the outside.",
    )


def _sideways(sections: tuple[tuple[MixedFolio, ...], ...]) -> Check | None:
    """B10: a pattern with a top lies sideways once the sheet is folded."""
    found = [folio.name for section in sections for folio in section if folio.sideways]
    if not found:
        return None
    return Check(
        code="B10",
        level="watch",
        title=f"The pattern of {len(found)} {by_count(len(found), 'sheet', 'sheets')} lies sideways once "
        f"folded: {merged(sorted(found)[:NAMED])}.",
        why="Its top is along the sheet's height; upright, the sheet would give a smaller leaf.",
        no_fix="Cut such sheets to the leaf's own shape first, or take a paper whose pattern has no top.",
    )
