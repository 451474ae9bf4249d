"""The double pamphlet: two sections sewn through one spine with one thread, out of one fold and into the
other at every hole."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.through import double, double_promise, straight_past
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import OddStations, Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.threaded import SewingKind


class Double(Threaded):
    """Two sections, one thread; 0 stations are as many as the height asks for."""

    kind: Literal["double"] = "double"
    station_count: OddStations = 0


def layout(binding: Double, height_mm: float) -> Layout:
    return Layout(binding.station_count or stations.proposed(height_mm, (3, 5, 7)))


def threads(_binding: Double, bed: Bed) -> tuple[Thread, ...]:
    return (double(straight_past(bed.stations, "inside")),)


def promise(_binding: Double, bed: Bed) -> Promise:
    return double_promise(bed.stations, bed.covered)


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        fewest=2,
        most=2,
        thickest_mm=3.0,
        strength="firm",
        hard="some practice",
        minutes=9,
        look="stitches across the spine at every hole",
        refuses="it goes out of one fold and into the other, so it takes two sections",
    ),
)
KIND: Final = threaded.kind(
    STITCH,
    name="double",
    title="double pamphlet stitch",
    summary="Two sections through one spine with one thread, which crosses from fold to fold at every hole.",
    record=Double,
)
