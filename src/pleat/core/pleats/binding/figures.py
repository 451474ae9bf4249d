"""The figures of a sewing, each with its why."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.sewing.moves import Sewing
from pleat.core.pleats.binding import stations
from pleat.core.pleats.binding.record import Thread, Threaded
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.stations import HoleRange, Layout
from pleat.core.pleats.binding.thread import ThreadNeed, diameter_mm, name_of, needle_for, tex
from pleat.core.trade.sewing import LONGEST_SPAN_MM, LONGEST_THREAD_MM, SWELL_FIRST, THREAD_SPARE_SHARE


@dataclass(frozen=True)
class Sewn:
    """What the figures are about: places and holes in mm from the head, the sewing through them, the thread
    it takes and what that adds, where holes may lie, and how another record of this kind would be laid out on
    leaves of a height."""

    binding: Threaded
    layout: Layout
    places_mm: tuple[float, ...]
    positions_mm: tuple[float, ...]
    sewing: Sewing
    need: ThreadNeed
    swell: Estimate
    window: HoleRange
    layout_of: Callable[[object, float], Layout]

    @property
    def sections(self) -> int:
        return len(self.sewing.bed.rows)


def figures(left: LeftOfBinding, sewn: Sewn) -> tuple[Figure, ...]:
    """Every figure of this pleat, the holes first; without a thread only those."""
    ruler = left.brief.ruler
    if not sewn.sewing.threads:
        return (count(left, sewn),)
    return (
        count(left, sewn),
        _thread(left, sewn),
        *((_path(ruler, sewn),) if sewn.need.run.spans_mm else ()),
        _diameter(ruler, sewn.binding.thread),
        *((_swell(ruler, sewn),) if sewn.swell.high else ()),
        *(
            (_needle(sewn.binding.thread, sewn.binding.strands),)
            if left.brief.made_of.binding.traits.needle
            else ()
        ),
    )


def count(left: LeftOfBinding, sewn: Sewn) -> Figure:
    """How many holes there are, and where."""
    ruler, layout = left.brief.ruler, sewn.layout
    marks = ", ".join(ruler.number(position) for position in sewn.positions_mm)
    where = (
        "as you placed them"
        if stations.placed_by_hand(sewn.binding, layout)
        else "spread from the middle over the leaf's height"
    )
    middle = left.pages.leaf_height_mm / 2
    either = sorted({round(abs(position - middle), 4) for position in sewn.positions_mm})
    from_middle = ", ".join("0" if off < 0.05 else f"±{ruler.number(off)}" for off in either)
    may = (
        f" Holes may lie from {ruler.number(sewn.window.low_mm)} to {ruler.show(sewn.window.high_mm)}: "
        "inside every leaf, and far enough from the ends."
    )
    tapes = (
        f" Each tape lies between two holes, {ruler.show(layout.tape_mm)} apart." if layout.tape_mm else ""
    )
    return Figure(
        key="stations",
        label="holes",
        value=many(len(sewn.positions_mm), "station") if sewn.positions_mm else "none: two notches",
        show="text",
        how=f"At {marks} {ruler.name} from the head, {where}; from the middle {from_middle}.{tapes}{may}"
        if marks
        else "The loop lies in a notch at head and tail.",
        rules=_station_rules(layout),
        scrap=f"{marks} {ruler.name} from the head" if marks else "",
    )


def _station_rules(layout: Layout) -> tuple[Rule, ...]:
    long = Rule("LONGEST_SPAN_MM", f"no span much longer than {LONGEST_SPAN_MM:g} mm")
    if layout.ends == "kettle":
        return (
            Rule(
                "KETTLE_MM", "kettle stations 10 to 15 mm from the ends, the others spread between; no source"
            ),
            long,
        )
    return (
        Rule(
            "STATION_SHARES",
            "3 stations 1 1/2 in from the ends on 8 1/4 in; 5 at ±1 and ±2 1/2 in on 8 in; no source",
        ),
        long,
    )


def _thread(left: LeftOfBinding, sewn: Sewn) -> Figure:
    """What to cut: one length for each thread, or several for one too long to sew with."""
    ruler, need, books = left.brief.ruler, sewn.need, left.brief.quantity
    each, times = ruler.snap_up(need.each_mm), sewn.need.cuts * books
    doubled = " Taken double, all of it counts twice." if sewn.binding.strands == 2 else ""
    words = (
        ("section" if need.threads == sewn.sections else "thread", need.threads),
        ("length", len(need.pieces_mm)),
        ("book", books),
    )
    of_all = " and ".join(many(number, word) for word, number in words if number > 1)
    all_in = f" {of_all} take {ruler.show(times * each)} in all." if times > 1 else ""
    named = [
        ("spans", need.run.spans_mm),
        ("passages", need.run.passages_mm),
        ("links", need.run.links_mm),
        ("round what it holds", need.run.wraps_mm),
    ]
    parts = [(name, mm) for name, mm in named if mm]
    knots = f" and {2 * (len(need.pieces_mm) - 1)} ends to knot on" if len(need.pieces_mm) > 1 else ""
    parts += [(f"two tails{knots}", need.tails_mm), (f"{THREAD_SPARE_SHARE:.0%} spare", need.spare_mm)]
    shown, total = ruler.summed([mm for _, mm in parts])
    sum_ = " + ".join(f"{name} {value}" for (name, _), value in zip(parts, shown, strict=True))
    cut = (
        f" Too long to sew with at once: cut {len(need.pieces_mm)} of {ruler.show(each)} and knot on inside "
        "a fold."
        if knots
        else ""
    )
    if need.cuts == 1:
        label = "thread for one book"
    elif need.threads == sewn.sections > 1:
        label = "thread for one section"
    else:
        label = "thread, each length"
    return Figure(
        key="thread",
        label=label,
        aside=f"{ruler.show(times * each)} for {of_all}" if times > 1 else "",
        value=each,
        show="length",
        scrap=ruler.show(each) + (f", {times} times" if times > 1 else ""),
        how=f"{sum_[0].upper()}{sum_[1:]} = {total} {ruler.name}, cut at the next "
        f"mark.{doubled}{cut}{all_in} {_rule_of_thumb(left, sewn)}",
        rules=(
            Rule("arithmetic", "length of the path"),
            Rule(
                "SHORTEST_TAIL_MM",
                "tails 75 to 100 mm, 5 to 10 % spare, sewing lengths of at most "
                f"{LONGEST_THREAD_MM / 1000:g} m; no source",
            ),
        ),
    )


def _rule_of_thumb(left: LeftOfBinding, sewn: Sewn) -> str:
    """The rule of thumb where it can be said, and where it misleads."""
    ruler, height = left.brief.ruler, left.pages.leaf_height_mm
    if sewn.need.threads == sewn.sections and sewn.need.threads == len(sewn.sewing.threads):
        return f"The rule of thumb, 3 × height, says {ruler.show(3 * height)}."
    return (
        "The rule of thumb, 3 × height, is for one section and says nothing here; about a height for "
        f"each section, {ruler.show(sewn.sections * height)}, and the links come nearer."
    )


def _path(ruler: Ruler, sewn: Sewn) -> Figure:
    run = sewn.need.run
    rest = [
        (name, mm)
        for name, mm in (
            ("through the paper", run.passages_mm),
            ("up to the next section and under stitches", run.links_mm),
            ("round what it holds", run.wraps_mm),
        )
        if mm
    ]
    others = ", ".join(f"{name} {ruler.show(mm)}" for name, mm in rest)
    return Figure(
        key="spans",
        label="path before tails",
        value=run.spans_mm,
        show="length",
        how=f"Hole to hole, all spans added up. Beside it: {others}."
        if others
        else "Hole to hole, all spans added up.",
        rules=(Rule("arithmetic", "a line through the middle of the thread"),),
    )


def _diameter(ruler: Ruler, thread: Thread) -> Figure:
    return Figure(
        key="diameter",
        label="thread thickness",
        value=diameter_mm(thread),
        show="fine",
        how=_diameter_how(thread, ruler),
        rules=(Rule("measured by you", "diameter"),)
        if thread.diameter_mm is not None
        else (Rule("arithmetic", "tex = 1653.5 × plies / lea"), Rule("LINEN_G_PER_CM3", "density 0.9 g/cm³")),
    )


def _swell(ruler: Ruler, sewn: Sewn) -> Figure:
    width = ruler.fine(diameter_mm(sewn.binding.thread))
    sections = f"{sewn.sections} sections, in each " if sewn.sections > 1 else ""
    most = (
        ""
        if sewn.binding.strands == 1
        else " The second strand beside it adds from nothing to as much again."
    )
    return Figure(
        key="swell",
        label="the thread adds at the spine",
        value=sewn.swell,
        show="thin",
        how=f"{sections}{SWELL_FIRST[0]:g} to {SWELL_FIRST[2]:g} of the thread's {width} stays after "
        f"pressing, where most of it lies inside the folds.{most}",
        rules=(
            Rule(
                "SWELL_FIRST", "thread inside the folds, less what pressing takes; the thickest place counts"
            ),
        ),
    )


def _needle(thread: Thread, strands: int) -> Figure:
    return Figure(
        key="needle",
        label="needle",
        value=needle_for(diameter_mm(thread) * (1.4 if strands == 2 else 1)),
        show="text",
        how="An eye that takes the thread without a hole wider than it: the holes close round the thread, "
        "and the book does not shift.",
        rules=(Rule("needles", "needle by thread, no source; numbers from memory"),),
    )


def _diameter_how(thread: Thread, ruler: Ruler) -> str:
    name, width = name_of(thread), diameter_mm(thread)
    if thread.diameter_mm is not None:
        return f"{name[0].upper()}{name[1:]} was measured: {ruler.fine(width)}."
    return (
        f"{name[0].upper()}{name[1:]} is {tex(thread):.0f} tex; a round thread of 0.9 g/cm³ is then "
        f"{ruler.fine(width)} thick."
    )
