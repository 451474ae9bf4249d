"""The pamphlet stitch: a section and its soft cover sewn together through the fold, one thread, one knot; two
lie side by side.

Straight past the middle, tied over the long stitch; or as a figure of eight, which lies even on both sides.
Common practice, no source.
"""

from __future__ import annotations

from typing import Final

from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.through import figure_of_eight, straight_past, straight_past_promise
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import Pamphlet
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.threaded import SewingKind

COUNTS: Final = (3, 5, 7)


def layout(binding: Pamphlet, height_mm: float) -> Layout:
    """As many stations as it was said, else as the height asks for."""
    return Layout(binding.station_count or stations.proposed(height_mm, COUNTS))


def threads(binding: Pamphlet, bed: Bed) -> tuple[Thread, ...]:
    """Each section by itself, with a thread of its own."""
    pattern = straight_past if binding.way == "past" else figure_of_eight
    return tuple(pattern(bed.stations, binding.knot, row) for row in range(1, len(bed.rows) + 1))


def promise(binding: Pamphlet, bed: Bed) -> Promise:
    return (
        straight_past_promise(bed.stations, bed.covered)
        if binding.way == "past"
        else Promise(covered="both", cover=bed.covered)
    )


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        good_to=2, thickest_mm=3.0, strength="light", minutes=9, look="one line of thread along the fold"
    ),
)
KIND: Final = threaded.kind(
    STITCH,
    name="pamphlet",
    title="pamphlet stitch",
    summary="Sewn through the fold with three, five or seven holes and one knot, the soft cover together "
    "with the leaves.",
    record=Pamphlet,
)
