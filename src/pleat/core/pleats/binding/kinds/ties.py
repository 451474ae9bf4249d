"""Paired ties: two or three pairs of holes, each pair tied by itself with a short thread. Easy, and each tie
can be renewed."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.through import paired_promise, paired_ties
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import KnotSide, Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.threaded import SewingKind


class Ties(Threaded):
    """Pairs of holes; 0 stations are as many as the height asks for."""

    kind: Literal["ties"] = "ties"
    station_count: Annotated[
        Literal[0, 4, 6], ChoiceRule("ties", (("0", "by height"), ("4", "two pairs"), ("6", "three pairs")))
    ] = 0
    knot: KnotSide = "inside"


def layout(binding: Ties, height_mm: float) -> Layout:
    return Layout(binding.station_count or stations.proposed(height_mm, (4, 6)))


def threads(binding: Ties, bed: Bed) -> tuple[Thread, ...]:
    return tuple(
        thread
        for row in range(1, len(bed.rows) + 1)
        for thread in paired_ties(bed.stations, binding.knot, row)
    )


def promise(_binding: Ties, bed: Bed) -> Promise:
    return paired_promise(bed.stations, bed.covered)


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        good_to=2,
        thickest_mm=3.0,
        strength="light",
        minutes=8,
        look="short stitches in pairs, each with its knot",
    ),
)
KIND: Final = threaded.kind(
    STITCH,
    name="ties",
    title="paired ties",
    summary="Two or three pairs of holes, each tied by itself with a short thread.",
    record=Ties,
)
