"""Two sections in one pleat: the cover is folded inward between them, and one pamphlet stitch goes through
fold, pleat and fold."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Row, Thread
from pleat.core.engines.sewing.patterns.through import straight_past, straight_past_promise
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import OddStations, Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.threaded import SewingKind

SIDES: Final = ("the first section", "the second section")


class Pleated(Threaded):
    """Two sections either side of a pleat; 0 stations are as many as the height asks for."""

    kind: Literal["pleat"] = "pleat"
    station_count: OddStations = 0
    pleat_mm: Annotated[float, LengthRule("the pleat", 6, 40)] = 12.0


def layout(binding: Pleated, height_mm: float) -> Layout:
    return Layout(binding.station_count or stations.proposed(height_mm, (3, 5, 7)))


def as_one(rows: tuple[Row, ...]) -> tuple[Row, ...]:
    """Both sections and both layers of the pleat as what the needle passes at once."""
    return (
        Row(
            sum(row.fold_mm for row in rows),
            sum(row.thick_mm for row in rows),
            sum(row.cover_mm for row in rows),
            SIDES,
        ),
    )


def threads(_binding: Pleated, bed: Bed) -> tuple[Thread, ...]:
    return (straight_past(bed.stations, "inside"),)


def promise(_binding: Pleated, bed: Bed) -> Promise:
    return straight_past_promise(bed.stations, bed.covered)


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    rows=as_one,
    suits=Suits(
        fewest=2,
        most=2,
        thickest_mm=2.0,
        strength="firm",
        hard="some practice",
        minutes=6,
        look="a smooth spine: no thread shows outside",
        refuses="a pleat has two sides, so it takes two sections",
    ),
    pleat=lambda binding: binding.pleat_mm,
)
KIND: Final = threaded.kind(
    STITCH,
    name="pleat",
    title="two sections in a pleat",
    summary="The cover is folded inward between two sections; one stitch goes through all three, and nothing "
    "shows outside.",
    record=Pleated,
)
