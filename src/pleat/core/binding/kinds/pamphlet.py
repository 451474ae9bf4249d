"""The pamphlet stitch: one section and its soft cover sewn together through the fold, one knot.

Three stations: out at the middle, in at one end, straight past the middle to the other end, back to the middle.
Five: middle, down the inner, outer, inner, past, other inner, outer, inner, middle, so that every gap is covered
on both sides. Common practice, no source.
"""

from __future__ import annotations

from typing import Final

from pleat.core.binding import checks, figures, stations, steps, typed
from pleat.core.binding.path import faults, walk
from pleat.core.binding.record import Pamphlet
from pleat.core.binding.result import LeftOfBinding
from pleat.core.binding.sewn import SewnResult
from pleat.core.binding.thread import diameter_mm, name_of, swell, thread_need
from pleat.core.estimate import Estimate
from pleat.core.kinds import BindingKind, Traits
from pleat.core.plan import Length

_HOLES: Final[dict[int, tuple[int, ...]]] = {3: (2, 1, 3, 2), 5: (3, 2, 1, 2, 4, 5, 4, 3)}


def holes(stations_: int) -> tuple[int, ...]:
    """The order of holes, 1 at the head. Raises KeyError for a number of stations it is not made for."""
    return _HOLES[stations_]


def compute(binding: Pamphlet, left: LeftOfBinding) -> SewnResult:
    """Stations, path, thread and swell of each section sewn by itself."""
    pages, ruler, cover = left.pages, left.brief.ruler, left.brief.made_of.cover
    positions = stations.place(binding, pages.leaf_height_mm, ruler)
    usual = holes(binding.station_count)
    order = binding.own_path or usual
    path = walk(order, binding.knot, positions)
    wrong = faults(order, path, len(positions))
    card = left.paper.cover.caliper if cover.sewn_through else Estimate.exact(0.0)
    need = thread_need(path, pages.through.plus(left.extras.added).plus(card).likely, binding.tail_mm, binding.strands)
    sections = len(pages.units)
    shown = figures.Sewn(binding, positions, path, need, swell(binding.thread, binding.strands).times(sections))
    each = ruler.snap_up(need.total_mm)
    return SewnResult(
        key_figure=figures.count(left, shown),
        figures=figures.figures(left, shown),
        checks=checks.find(binding, left, positions, wrong, need),
        parts=(Length("thread", name_of(binding.thread), each, sections * left.brief.quantity, binding.thread.stock_id or ""),),
        steps=steps.of(shown, left),
        at="fold",
        height_mm=pages.leaf_height_mm,
        positions_mm=positions,
        usual_mm=min(stations.default_insets(pages.leaf_height_mm, binding.station_count, ruler)),
        swell=shown.swell,
        cover_holes_mm=binding.cover_holes_mm,
        look="the knot tight",
        rows=sections,
        symmetric=not stations.is_unlocked(binding),
        path=path,
        path_faults=wrong,
        usual_path=usual,
        own_path=binding.own_path is not None,
        need=need,
        thread_name=name_of(binding.thread),
        thread_diameter_mm=diameter_mm(binding.thread),
        strands=binding.strands,
        tail_mm=binding.tail_mm,
    )


KIND: Final = BindingKind(
    name="pamphlet",
    title="pamphlet stitch",
    summary="Sewn through the fold with three or five holes and one knot, the soft cover together with the leaves.",
    record=Pamphlet,
    compute=compute,
    placed=("insets_mm", "positions_mm"),
    traits=Traits(needle=True, opens_flat=True),
    read=typed.read,
    takes=frozenset({"section"}),
    at="fold",
)
