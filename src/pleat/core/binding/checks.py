"""What can go wrong with stations, path and thread: slips D2, D3 and D5. D4 needs the cover and stands there."""

from __future__ import annotations

import itertools
from typing import Final

from pleat.core.binding.path import Fault
from pleat.core.binding.record import Pamphlet
from pleat.core.binding.result import LeftOfBinding
from pleat.core.binding.stations import LEAF_MARGIN_MM, default_insets, misfit, place
from pleat.core.binding.thread import ThreadNeed
from pleat.core.pages.folding import folios_a_sheet
from pleat.core.pages.sectioned import SectionsBlock
from pleat.core.pages.sections import split
from pleat.core.plan import Check, Offer
from pleat.core.units import Ruler
from pleat.core.words import many

STATION_COUNTS: Final = (3, 5)
MOST_SECTIONS: Final = 2
"""Sections that lie side by side in one spine; more want to be linked (common practice, no source)."""


def find(
    binding: Pamphlet, left: LeftOfBinding, positions: tuple[float, ...], wrong: tuple[Fault, ...], need: ThreadNeed
) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    ruler, height = left.brief.ruler, left.pages.leaf_height_mm
    pages = left.pages if isinstance(left.pages, SectionsBlock) else None
    found = [
        _path(wrong),
        _sections(pages) if pages else None,
        _misfit(binding),
        _held(ruler, height, positions, pages) if pages else None,
        _edges(binding, ruler, height, positions),
        _thread(binding, ruler, need),
    ]
    return tuple(check for check in found if check)


def _path(wrong: tuple[Fault, ...]) -> Check | None:
    if not wrong:
        return None
    level = "watch" if all(fault.kind == "untied" for fault in wrong) else "stop"
    listed = "; ".join(fault.text for fault in wrong)
    return Check(
        "D2",
        level,  # type: ignore[arg-type]
        f"Your own path does not hold: {listed}.",
        "A path is right when it uses every hole, starts and ends at the same hole on the same side, and leaves no gap bare.",
        (Offer("sew it the usual way", (("binding.own_path", None),)),),
    )


def _misfit(binding: Pamphlet) -> Check | None:
    """Stations that were placed for another number of them."""
    placed = misfit(binding)
    if placed is None:
        return None
    fixes = []
    if placed in STATION_COUNTS and placed != binding.station_count:
        fixes.append(Offer(many(placed, "station"), (("binding.station_count", placed), ("binding.own_path", None))))
    fixes.append(Offer("spread them anew", (("binding.insets_mm", None), ("binding.positions_mm", None))))
    return Check(
        "stations",
        "watch",
        f"The holes you placed are for {many(placed, 'station')}; this book has {binding.station_count}.",
        "They do not count: the holes are spread over the height instead.",
        tuple(fixes),
    )


def _sections(pages: SectionsBlock) -> Check | None:
    sections, most = len(pages.sections), MOST_SECTIONS
    if sections <= most:
        return None
    nests = pages.limit.folios // folios_a_sheet(pages.folds) * folios_a_sheet(pages.folds)
    fixes: tuple[Offer, ...] = ()
    if not pages.mixed and max(split(pages.folios, most, pages.folds)) <= pages.limit.folios:
        fixes = (Offer(f"{most} sections", (("pages.sections", most),)),)
    elif not pages.mixed and nests:
        fewer = 4 * nests * most
        changes = (("pages.sections", most), ("pages.amount", fewer), ("pages.counted_in", "pages"))
        fixes = (Offer(f"{most} sections of {fewer} pages in all, as many as nest well", changes),)
    return Check(
        "sections",
        "watch",
        f"{sections} sections are many for a pamphlet stitch: each is sewn to the spine by itself.",
        f"Up to {MOST_SECTIONS} lie side by side in one spine; more shift against each other as the book is used, since nothing links them.",
        fixes,
        "" if fixes else f"Make two books of it, or take sheets off the pile until they nest in {most}.",
    )


def _held(ruler: Ruler, height: float, positions: tuple[float, ...], pages: SectionsBlock) -> Check | None:
    """C2: leaves of a mixed pile that hang on one hole or on none."""
    pile = [one for section in pages.mixed for one in section]
    folded = [one for one in pile if one.joined == "folded"]  # a stub is as high as the book, and a leaf tipped in is glued
    loose = [(one, held) for one in folded if (held := len(holding(positions, height, one.leaf_height_mm))) < 2]
    if not loose:
        return None
    lowest = min(one.leaf_height_mm for one, _ in loose)
    inset = ruler.snap_up((height - lowest) / 2 + LEAF_MARGIN_MM)
    fixes = []
    if inset < height / 2 - LEAF_MARGIN_MM:
        middle = (inset,) if len(positions) == 3 else (inset, ruler.snap((inset + height / 2) / 2))
        fixes.append(
            Offer(
                f"pull the holes together, the outer ones {ruler.show(inset)} from head and tail",
                (("binding.insets_mm", middle), ("binding.positions_mm", None)),
            )
        )
    stubs = [one.id for one in pile if one.joined == "stub"] + [one.id for one, _ in loose]
    fixes.append(Offer(f"put {'it' if len(loose) == 1 else f'those {len(loose)}'} on stubs, as single leaves", (("pages.stubs", stubs),)))
    none = sum(held == 0 for _, held in loose)
    return Check(
        "C2",
        "stop" if none else "watch",
        f"{len(loose)} {'sheet is' if len(loose) == 1 else 'sheets are'} held by fewer than two holes: {loose[0][0].name}, {ruler.show(loose[0][0].leaf_height_mm)} high{' and others' if len(loose) > 1 else ''}.",
        f"Every leaf needs two holes at least {ruler.show(LEAF_MARGIN_MM)} inside its own head and tail, else it hangs on one hole or falls out. Lowest leaf: {ruler.show(lowest)}, centred on {ruler.show(height)}.",
        tuple(fixes),
    )


def holding(positions: tuple[float, ...], height_mm: float, leaf_height_mm: float) -> tuple[float, ...]:
    """The stations that hold a leaf of this height, centred on the fold."""
    head = (height_mm - leaf_height_mm) / 2
    first, last = head + LEAF_MARGIN_MM - 1e-6, head + leaf_height_mm - LEAF_MARGIN_MM + 1e-6
    return tuple([at for at in positions if first <= at <= last])


def _nearest(height: float, positions: tuple[float, ...]) -> tuple[float, float]:
    """(how near the outermost hole is to an end of the leaf, how near two holes are to each other) in mm."""
    return min(positions[0], height - positions[-1]), min(b - a for a, b in itertools.pairwise(positions))


def _edges(binding: Pamphlet, ruler: Ruler, height: float, positions: tuple[float, ...]) -> Check | None:
    near, together = _nearest(height, positions)
    if near >= LEAF_MARGIN_MM and together >= LEAF_MARGIN_MM:
        return None
    usual = binding.model_copy(update={"insets_mm": default_insets(height, binding.station_count, ruler), "positions_mm": None})
    fix = Offer("spread the holes over the height", (("binding.insets_mm", usual.insets_mm), ("binding.positions_mm", None)))
    if min(_nearest(height, place(usual, height, ruler))) < LEAF_MARGIN_MM:  # a low leaf has no room for so many
        fewer = (("binding.station_count", 3), ("binding.insets_mm", None), ("binding.positions_mm", None), ("binding.own_path", None))
        fix = Offer("3 stations, spread anew", fewer)
    what = (
        f"A hole lies {ruler.show(-near)} outside the leaf."
        if near < -0.05
        else f"The outermost hole is {ruler.show(near)} from the end of the leaf."
        if near < LEAF_MARGIN_MM
        else f"Two holes are {ruler.show(together)} apart."
    )
    return Check("D5", "stop", what, f"With less than {ruler.show(LEAF_MARGIN_MM)} of paper the fold tears there.", (fix,))


def _thread(binding: Pamphlet, ruler: Ruler, need: ThreadNeed) -> Check | None:
    cut = binding.thread_cut_mm
    if cut is None:
        return None
    right = ruler.snap_up(need.total_mm)
    fix = (Offer(f"cut {ruler.show(right)}", (("binding.thread_cut_mm", right),)),)
    (run, tails, spare), total = ruler.summed([need.spans_mm + need.passages_mm, need.tails_mm, need.spare_mm])
    sum_ = f"The path takes {run}, two tails {tails}, tension and mishaps {spare}: {total} {ruler.name}."
    if cut < need.shortest_mm - 0.05:
        return Check(
            "D3", "stop", f"{ruler.show(cut)} of thread is too short to tie: {ruler.show(need.shortest_mm - cut)} are missing.", sum_, fix
        )
    if cut < need.total_mm - 0.05:
        return Check(
            "D3",
            "watch",
            f"{ruler.show(cut)} of thread is tight: {ruler.show(need.total_mm)} would leave proper tails and a spare.",
            sum_,
            fix,
        )
    if cut > 2 * need.total_mm:
        return Check(
            "D3",
            "note",
            f"{ruler.show(cut)} of thread is more than twice what it takes.",
            sum_ + " A long thread also frays and tangles.",
            fix,
        )
    return None
