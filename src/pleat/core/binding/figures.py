"""The figures of a sewing, each with its why."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.binding import stations
from pleat.core.binding.path import ThreadPath
from pleat.core.binding.record import Pamphlet, Thread
from pleat.core.binding.result import LeftOfBinding
from pleat.core.binding.thread import SPARE, SWELL, ThreadNeed, diameter_mm, name_of, tex
from pleat.core.estimate import Estimate
from pleat.core.plan import Figure, Rule
from pleat.core.units import Ruler
from pleat.core.words import many


@dataclass(frozen=True)
class Sewn:
    """What the figures are about: stations in mm from the head, the path through them, the thread it takes and what that adds."""

    binding: Pamphlet
    positions_mm: tuple[float, ...]
    path: ThreadPath
    need: ThreadNeed
    swell: Estimate


def figures(left: LeftOfBinding, sewn: Sewn) -> tuple[Figure, ...]:
    """Every figure of this pleat, the holes first."""
    ruler, sections = left.brief.ruler, len(left.pages.units)
    return (
        count(left, sewn),
        _thread(left, sewn),
        _spans(ruler, sewn),
        _diameter(ruler, sewn.binding.thread),
        _swell(ruler, sections, sewn),
    )


def count(left: LeftOfBinding, sewn: Sewn) -> Figure:
    """How many holes there are, and where."""
    ruler = left.brief.ruler
    marks = ", ".join(ruler.number(position) for position in sewn.positions_mm)
    where = "as you placed them" if stations.placed_by_hand(sewn.binding) else "spread from the middle over the leaf's height"
    return Figure(
        key="stations",
        label="holes",
        value=f"{len(sewn.positions_mm)} stations",
        show="text",
        how=f"At {marks} {ruler.name} from the head, {where}. An odd number starts and ends in the middle.",
        rules=(Rule("common practice", "3 stations 1 1/2 in from the ends on 8 1/4 in; 5 at ±1 and ±2 1/2 in on 8 in; no source"),),
        scrap=f"{marks} {ruler.name} from the head",
    )


def _thread(left: LeftOfBinding, sewn: Sewn) -> Figure:
    ruler, need, sections, books = left.brief.ruler, sewn.need, len(left.pages.units), left.brief.quantity
    doubled = " Taken double, all of it counts twice." if sewn.binding.strands == 2 else ""
    times = sections * books
    of_all = " and ".join(many(number, word) for number, word in ((sections, "section"), (books, "book")) if number > 1)
    each = ruler.snap_up(need.total_mm)
    all_in = f" {of_all} take {ruler.show(times * each)} in all." if times > 1 else ""
    (spans_, through, tails, spare), total = ruler.summed([need.spans_mm, need.passages_mm, need.tails_mm, need.spare_mm])
    return Figure(
        key="thread",
        label="thread for one book" if sections == 1 else "thread for one section",
        aside=f"{ruler.show(times * each)} for {of_all}" if times > 1 else "",
        value=each,
        show="length",
        scrap=ruler.show(each) + (f", {times} times" if times > 1 else ""),
        how=(
            f"Spans {spans_} + {sewn.path.passages} passages {through} + two tails {tails} + {SPARE:.0%} spare {spare} = {total} {ruler.name}, "
            f"cut at the next mark.{doubled}{all_in} The rule of thumb, 3 × height, says {ruler.show(3 * left.pages.leaf_height_mm)}."
        ),
        rules=(
            Rule("arithmetic", "length of the path"),
            Rule("common practice", "tails 75 to 100 mm, 5 to 10 % spare, 3 × height; no source"),
        ),
    )


def _spans(ruler: Ruler, sewn: Sewn) -> Figure:
    lengths, whole = ruler.summed([span.length_mm for span in sewn.path.spans])
    return Figure(
        key="spans",
        label="path before tails",
        value=sewn.need.spans_mm,
        show="length",
        how=f"{' + '.join(lengths)} = {whole} {ruler.name}, hole to hole." if sewn.path.spans else "No spans yet.",
        rules=(Rule("arithmetic", "at most twice the distance between the outermost stations"),),
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
        else (Rule("arithmetic", "tex = 1653.5 × plies / lea"), Rule("from memory", "density 0.9 g/cm³")),
    )


def _swell(ruler: Ruler, sections: int, sewn: Sewn) -> Figure:
    width = ruler.fine(diameter_mm(sewn.binding.thread) * sewn.binding.strands)
    return Figure(
        key="swell",
        label="the thread adds at the spine",
        value=sewn.swell,
        show="thin",
        how=f"{'' if sections == 1 else f'{sections} sections, each '}{SWELL[0]:g} to {SWELL[2]:g} of the thread's {width} stays after pressing.",
        rules=(Rule("house rule", "one thread in the fold, less what pressing takes"),),
    )


def _diameter_how(thread: Thread, ruler: Ruler) -> str:
    name, width = name_of(thread), diameter_mm(thread)
    if thread.diameter_mm is not None:
        return f"{name[0].upper()}{name[1:]} was measured: {ruler.fine(width)}."
    return f"{name[0].upper()}{name[1:]} is {tex(thread):.0f} tex; a round thread of 0.9 g/cm³ is then {ruler.fine(width)} thick."
