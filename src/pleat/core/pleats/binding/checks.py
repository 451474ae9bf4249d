"""What can go wrong with stations, path and thread: slips C2, D2, D3 and D5. D4 needs the cover and stands
there."""

from __future__ import annotations

import itertools
from typing import Final

from pydantic import ValidationError

from pleat.core.base.kinds import TAG
from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, many
from pleat.core.engines.sewing.faults import Fault
from pleat.core.pleats.binding.figures import Sewn
from pleat.core.pleats.binding.record import Thread, Threaded
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.stations import default_insets, holes, misfit, place
from pleat.core.pleats.binding.thread import diameter_mm, name_of, suits
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.trade.sewing import LEAF_MARGIN_MM, NARROWEST_TAPE_MM, THREAD_SPARE_SHARE

SPREAD: Final[Changes] = (("binding.insets_mm", None), ("binding.positions_mm", None))


def find(left: LeftOfBinding, sewn: Sewn, wrong: tuple[Fault, ...]) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    ruler, height = left.brief.ruler, left.pages.leaf_height_mm
    pages = left.pages if isinstance(left.pages, SectionsBlock) else None
    found = [
        _path(wrong),
        _misfit(sewn),
        _held(ruler, height, sewn, pages) if pages else None,
        _edges(sewn, ruler, height),
        _thread(ruler, sewn),
        _suits(ruler, sewn) if left.brief.made_of.binding.traits.needle else None,
    ]
    return tuple(check for check in found if check)


def _path(wrong: tuple[Fault, ...]) -> Check | None:
    """D2: a maker's own path that does not hold; its first fault, with the step."""
    if not wrong:
        return None
    first, more = wrong[0], len(wrong) - 1
    at = f"At move {first.step + 1}: " if first.step is not None else ""
    others = f" ({many(more, 'more fault')} after it)" if more else ""
    headline = "Your own stitch wants a look" if first.watch else "Your own stitch does not hold"
    return Check(
        code="D2",
        level="watch" if all(fault.watch for fault in wrong) else "stop",
        title=f"{headline}. {at}{first.text}{others}.",
        why="A path is right when it goes through paper at every move, uses every hole of every section, "
        "holds when it is pulled, and ends in a knot.",
        offers=(Offer(label="sew it as a pamphlet stitch", changes=((f"binding.{TAG}", "pamphlet"),)),),
        no_fix="",
    )


def _misfit(sewn: Sewn) -> Check | None:
    """Stations that were placed for another number of them."""
    placed = misfit(sewn.binding, sewn.layout)
    if placed is None:
        return None
    words = "place" if sewn.layout.tape_mm else "station"
    fixes = [Offer(label="spread them anew", changes=SPREAD)]
    if placed and placed != sewn.layout.places and _may_have(sewn.binding, placed):
        fixes.insert(0, Offer(label=many(placed, words), changes=(("binding.station_count", placed),)))
    return Check(
        code="stations",
        level="watch",
        title=f"The holes you placed are for {many(placed, words)}; this book has {sewn.layout.places}.",
        why="They do not count: the holes are spread over the height instead.",
        offers=tuple(fixes),
    )


def _may_have(binding: Threaded, stations: int) -> bool:
    """Whether a record may have so many stations."""
    if "station_count" not in type(binding).model_fields:
        return False
    try:
        return bool(type(binding).model_validate({**binding.model_dump(), "station_count": stations}))
    except ValidationError:
        return False


def _held(ruler: Ruler, height: float, sewn: Sewn, pages: SectionsBlock) -> Check | None:
    """C2: leaves of a mixed pile that hang on one hole or on none."""
    positions, layout = sewn.positions_mm, sewn.layout
    pile = [folio for section in pages.mixed for folio in section]
    folded = [
        folio for folio in pile if folio.joined == "folded"
    ]  # a stub is as high as the book, and a leaf tipped in is glued
    loose = [
        (folio, held)
        for folio in folded
        if (held := len(holding(positions, height, folio.leaf_height_mm))) < 2
    ]
    if not loose:
        return None
    lowest = min(folio.leaf_height_mm for folio, _ in loose)
    inset = ruler.snap_up(sewn.window.low_mm)
    half = layout.places // 2
    fixes = []
    if layout.places > 2 and inset < height / 2 - LEAF_MARGIN_MM * half:
        step = (height / 2 - inset) / (half if layout.places % 2 else half - 0.5)
        insets = (inset, *(ruler.snap(inset + step * number) for number in range(1, half)))
        fixes.append(
            Offer(
                label=f"pull the holes together, the outer ones {ruler.show(inset)} from head and tail",
                changes=(("binding.insets_mm", insets), ("binding.positions_mm", None)),
            )
        )
    stubs = [folio.id for folio in pile if folio.joined == "stub"] + [folio.id for folio, _ in loose]
    tabs = "it" if len(loose) == 1 else f"those {len(loose)}"
    fixes.append(
        Offer(
            label=f"put {tabs} on stubs, as single leaves",
            changes=(("pages.stubs", stubs),),
        )
    )
    none = sum(held == 0 for _, held in loose)
    others = " and others" if len(loose) > 1 else ""
    return Check(
        code="C2",
        level="stop" if none else "watch",
        title=f"{len(loose)} {by_count(len(loose), 'sheet is', 'sheets are')} held by fewer than two holes: "
        f"{loose[0][0].name}, {ruler.show(loose[0][0].leaf_height_mm)} "
        f"high{others}.",
        why=f"Every leaf needs two holes at least {ruler.show(LEAF_MARGIN_MM)} inside its own head and tail, "
        f"else it hangs on one hole or falls out. Lowest leaf: {ruler.show(lowest)}, centred on "
        f"{ruler.show(height)}.",
        offers=tuple(fixes),
    )


def holding(positions: tuple[float, ...], height_mm: float, leaf_height_mm: float) -> tuple[float, ...]:
    """The stations that hold a leaf of this height, centred on the fold."""
    head = (height_mm - leaf_height_mm) / 2
    first, last = head + LEAF_MARGIN_MM - 1e-6, head + leaf_height_mm - LEAF_MARGIN_MM + 1e-6
    return tuple([position for position in positions if first <= position <= last])


def _nearest(height: float, positions: tuple[float, ...]) -> tuple[float, float]:
    """(how near the outermost hole is to an end of the leaf, how near two holes are to each other) in mm."""
    return min(positions[0], height - positions[-1]), min(
        (b - a for a, b in itertools.pairwise(positions)), default=height
    )


def _edges(sewn: Sewn, ruler: Ruler, height: float) -> Check | None:
    if not sewn.positions_mm:
        return None
    near, together = _nearest(height, sewn.positions_mm)
    if near >= LEAF_MARGIN_MM - 1e-6 and together >= LEAF_MARGIN_MM - 1e-6:
        return None
    if near < -0.05:
        what = f"A hole lies {ruler.show(-near)} outside the leaf."
    elif near < LEAF_MARGIN_MM:
        what = f"The outermost hole is {ruler.show(near)} from the end of the leaf."
    elif together < -0.05:
        what = "The tapes lie on each other."
    else:
        what = f"Two holes are {ruler.show(together)} apart."
    why = f"With less than {ruler.show(LEAF_MARGIN_MM)} of paper the fold tears there."
    fixes = _wider(sewn, ruler, height)
    return Check(
        code="D5",
        level="stop",
        title=what,
        why=why,
        offers=fixes,
        no_fix="" if fixes else "A leaf so low has no room for this sewing: take another, or a higher leaf.",
    )


FEWER: Final = (
    ("station_count", "as many stations as there is room for"),
    ("tapes", "as many tapes as there is room for"),
    ("cords", "as many cords as there is room for"),
)
"""Counts that go back to what the height proposes, with the words for it."""


def _wider(sewn: Sewn, ruler: Ruler, height: float) -> tuple[Offer, ...]:
    """The holes spread anew, if that gives them room; else another spread, as many as the height proposes,
    fewer, or narrower tapes."""

    def room(record: Threaded) -> bool:
        layout = sewn.layout_of(record, height)
        return (
            min(_nearest(height, holes(place(record, layout, height, ruler), layout)))
            >= LEAF_MARGIN_MM - 1e-6
        )

    anew = sewn.binding.model_copy(update={"insets_mm": None, "positions_mm": None})
    if room(anew):
        insets = default_insets(height, sewn.layout, ruler, anew.spread)
        return (
            Offer(
                label="spread the holes over the height",
                changes=(("binding.insets_mm", insets or None), ("binding.positions_mm", None)),
            ),
        )
    fields = type(anew).model_fields
    tries: list[tuple[str, str, object]] = [("spread the holes the usual way", "spread", "usual")]
    tries += [(words, name, fields[name].default) for name, words in FEWER if name in fields]
    tries += [("3 stations, spread anew", "station_count", 3)] if _may_have(anew, 3) else []
    tries += (
        [(f"tapes of {ruler.show(NARROWEST_TAPE_MM)}", "tape_mm", NARROWEST_TAPE_MM)]
        if "tape_mm" in fields
        else []
    )
    for words, name, value in tries:
        tried = anew.model_copy(update={"spread": "usual", name: value})
        if getattr(anew, name) != value and room(tried):
            return (
                Offer(
                    label=words, changes=(("binding.spread", "usual"), *SPREAD, (f"binding.{name}", value))
                ),
            )
    return ()


def _thread(ruler: Ruler, sewn: Sewn) -> Check | None:
    """D3: a thread that was cut already, and is too short or wastefully long."""
    cut, need = sewn.binding.thread_cut_mm, sewn.need
    if cut is None or not sewn.sewing.threads:
        return None
    right = ruler.snap_up(need.each_mm)
    fix = (Offer(label=f"cut {ruler.show(right)}", changes=(("binding.thread_cut_mm", right),)),)
    (run, tails, spare), total = ruler.summed([need.run.run_mm, need.tails_mm, need.spare_mm])
    sum_ = f"The path takes {run}, two tails {tails}, tension and mishaps {spare}: {total} {ruler.name}."
    if len(need.pieces_mm) > 1:
        sum_ += f" It is sewn in {len(need.pieces_mm)} lengths of {ruler.show(right)}."
    shortest = need.shortest_mm if len(need.pieces_mm) == 1 else need.each_mm / (1 + THREAD_SPARE_SHARE)
    if cut < shortest - 0.05:
        return Check(
            code="D3",
            level="stop",
            title=f"{ruler.show(cut)} of thread is too short to tie: {ruler.show(shortest - cut)} are "
            "missing.",
            why=sum_,
            offers=fix,
        )
    if cut < need.each_mm - 0.05:
        title = (
            f"{ruler.show(cut)} of thread is tight: {ruler.show(need.each_mm)} would leave proper tails "
            "and a spare."
        )
        return Check(code="D3", level="watch", title=title, why=sum_, offers=fix)
    if cut > 2 * need.each_mm:
        title = f"{ruler.show(cut)} of thread is more than twice what it takes."
        return Check(
            code="D3",
            level="note",
            title=title,
            why=sum_ + " A long thread also frays and tangles.",
            offers=fix,
        )
    return None


def _suits(ruler: Ruler, sewn: Sewn) -> Check | None:
    """Whether the thread goes with what it is sewn through, and bears it."""
    thread, fold = sewn.binding.thread, max((row.fold_mm for row in sewn.sewing.bed.rows), default=0.0)
    said = suits(diameter_mm(thread), fold)
    if said:
        double = (
            (Offer(label="take it double", changes=(("binding.strands", 2),)),)
            if said.startswith("thin") and sewn.binding.strands == 1
            else ()
        )
        why = f"The thread is {ruler.fine(diameter_mm(thread))}, the paper in one fold {ruler.fine(fold)}."
        return Check(
            code="thread",
            level="note",
            title=f"{_named(thread)} is {said}.",
            why=why,
            offers=double,
            no_fix="" if double else "Take another thread from the materials, if you have one.",
        )
    if thread.fibre == "cotton" and thread.waxed == "no" and sewn.binding.strands == 1:
        why = (
            "Plain cotton frays in the holes and gives with use; two strands share the pull, or pass the "
            "path twice."
        )
        return Check(
            code="cotton",
            level="note",
            title=f"{_named(thread)} is cotton, unwaxed and single.",
            why=why,
            offers=(Offer(label="take it double", changes=(("binding.strands", 2),)),),
        )
    return None


def _named(thread: Thread) -> str:
    name = name_of(thread)
    return name[0].upper() + name[1:]
