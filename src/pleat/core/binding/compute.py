"""Binding: stations, the thread's path, its length and what it adds to the spine."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.binding import checks, stations
from pleat.core.binding.kinds.registry import Kind
from pleat.core.binding.path import Fault, ThreadPath, faults, walk
from pleat.core.binding.record import Pamphlet, Thread
from pleat.core.binding.thread import SPARE, SWELL, ThreadNeed, diameter_mm, name_of, swell, tex, thread_need
from pleat.core.brief.compute import BriefResult
from pleat.core.estimate import Estimate
from pleat.core.extras.compute import ExtrasResult
from pleat.core.pages.compute import PagesResult
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Figure, PleatResult, Rule
from pleat.core.units import Ruler
from pleat.core.words import many


@dataclass(frozen=True, kw_only=True)
class BindingResult(PleatResult):
    """Stations in mm from the leaf's head, the path through them, and the spine's swell; what is sewn, and with what."""

    kind: Kind
    height_mm: float
    positions_mm: tuple[float, ...]
    symmetric: bool
    path: ThreadPath
    path_faults: tuple[Fault, ...]
    own_path: bool
    need: ThreadNeed
    swell: Estimate
    thread_name: str
    thread_diameter_mm: float
    strands: int
    tail_mm: float
    cover_holes_mm: tuple[float, ...] | None


def compute(
    binding: Pamphlet, kind: Kind, brief: BriefResult, paper: PaperResult, pages: PagesResult, extras: ExtrasResult
) -> BindingResult:
    height, ruler = pages.leaf_height_mm, brief.ruler
    positions = stations.place(binding, height, ruler)
    order = binding.own_path or kind.holes(binding.station_count)
    path = walk(order, binding.knot, positions)
    wrong = faults(order, path, len(positions))
    fold_stack = pages.fold_stack.plus(extras.added).plus(paper.cover.caliper if kind.through_cover else Estimate.exact(0.0))
    need = thread_need(path, fold_stack.likely, binding.tail_mm, binding.strands)
    sections = len(pages.sections)
    swollen = swell(binding.thread, binding.strands).times(sections)
    figures = _figures(binding, ruler, height, positions, path, need, swollen, sections, brief.quantity)
    return BindingResult(
        key_figure=figures[0],
        figures=figures,
        checks=checks.find(binding, kind, ruler, height, positions, wrong, need, pages),
        kind=kind,
        height_mm=height,
        positions_mm=positions,
        symmetric=not stations.is_unlocked(binding),
        path=path,
        path_faults=wrong,
        own_path=binding.own_path is not None,
        need=need,
        swell=swollen,
        thread_name=name_of(binding.thread),
        thread_diameter_mm=diameter_mm(binding.thread),
        strands=binding.strands,
        tail_mm=binding.tail_mm,
        cover_holes_mm=binding.cover_holes_mm,
    )


def _figures(
    binding: Pamphlet,
    ruler: Ruler,
    height: float,
    positions: tuple[float, ...],
    path: ThreadPath,
    need: ThreadNeed,
    swollen: Estimate,
    sections: int,
    quantity: int,
) -> tuple[Figure, ...]:
    marks = ", ".join(ruler.number(position) for position in positions)
    where = "as you placed them" if stations.placed_by_hand(binding) else "spread from the middle over the leaf's height"
    count = Figure(
        key="stations",
        label="holes",
        value=f"{len(positions)} stations",
        show="text",
        how=f"At {marks} {ruler.name} from the head, {where}. An odd number starts and ends in the middle.",
        rules=(Rule("common practice", "3 stations 1 1/2 in from the ends on 8 1/4 in; 5 at ±1 and ±2 1/2 in on 8 in; no source"),),
    )
    doubled = " Taken double, all of it counts twice." if binding.strands == 2 else ""
    times = sections * quantity
    of_all = " and ".join(many(count, word) for count, word in ((sections, "section"), (quantity, "book")) if count > 1)
    each = ruler.snap_up(need.total_mm)
    all_in = f" {of_all} take {ruler.show(times * each)} in all." if times > 1 else ""
    (spans_, through, tails, spare), total = ruler.summed([need.spans_mm, need.passages_mm, need.tails_mm, need.spare_mm])
    thread = Figure(
        key="thread",
        label="thread for one book" if sections == 1 else "thread for one section",
        aside=f"{ruler.show(times * each)} for {of_all}" if times > 1 else "",
        value=each,
        show="length",
        how=(
            f"Spans {spans_} + {path.passages} passages {through} + two tails {tails} + {SPARE:.0%} spare {spare} = {total} {ruler.name}, "
            f"cut at the next mark.{doubled}{all_in} The rule of thumb, 3 × height, says {ruler.show(3 * height)}."
        ),
        rules=(
            Rule("arithmetic", "length of the path"),
            Rule("common practice", "tails 75 to 100 mm, 5 to 10 % spare, 3 × height; no source"),
        ),
    )
    lengths, whole = ruler.summed([span.length_mm for span in path.spans])
    spans = Figure(
        key="spans",
        label="path before tails",
        value=need.spans_mm,
        show="length",
        how=f"{' + '.join(lengths)} = {whole} {ruler.name}, hole to hole." if path.spans else "No spans yet.",
        rules=(Rule("arithmetic", "at most twice the distance between the outermost stations"),),
    )
    width = diameter_mm(binding.thread)
    thick = Figure(
        key="diameter",
        label="thread thickness",
        value=width,
        show="fine",
        how=_diameter_how(binding.thread, ruler),
        rules=(Rule("measured by you", "diameter"),)
        if binding.thread.diameter_mm is not None
        else (Rule("arithmetic", "tex = 1653.5 × plies / lea"), Rule("from memory", "density 0.9 g/cm³")),
    )
    swelling = Figure(
        key="swell",
        label="the thread adds at the spine",
        value=swollen,
        show="thin",
        how=f"{'' if sections == 1 else f'{sections} sections, each '}{SWELL[0]:g} to {SWELL[2]:g} of the thread's {ruler.fine(width * binding.strands)} stays after pressing.",
        rules=(Rule("house rule", "one thread in the fold, less what pressing takes"),),
    )
    return (count, thread, spans, thick, swelling)


def _diameter_how(thread: Thread, ruler: Ruler) -> str:
    name, width = name_of(thread), diameter_mm(thread)
    if thread.diameter_mm is not None:
        return f"{name[0].upper()}{name[1:]} was measured: {ruler.fine(width)}."
    return f"{name[0].upper()}{name[1:]} is {tex(thread):.0f} tex; a round thread of 0.9 g/cm³ is then {ruler.fine(width)} thick."
