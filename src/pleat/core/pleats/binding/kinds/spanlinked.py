"""Span-linked: all along without tapes, each stitch on the spine going under that of the section below."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.along import kettled, under_spans
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind


class SpanLinked(Threaded):
    """An even number of stations; 0 are as many as the height asks for."""

    kind: Literal["spanlinked"] = "spanlinked"
    station_count: Annotated[
        Literal[0, 4, 6, 8, 10, 12],
        ChoiceRule(
            "stations", (("0", "by height"), ("4", "4"), ("6", "6"), ("8", "8"), ("10", "10"), ("12", "12"))
        ),
    ] = 0


def layout(binding: SpanLinked, height_mm: float) -> Layout:
    return Layout(binding.station_count or stations.proposed(height_mm, (4, 6, 8, 10), "kettle"), "kettle")


def threads(_binding: SpanLinked, bed: Bed) -> tuple[Thread, ...]:
    return (kettled(len(bed.rows), bed.stations, under_spans),)


def promise(_binding: SpanLinked, _bed: Bed) -> Promise:
    return Promise(links="ends")


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        fewest=2,
        thickest_mm=2.5,
        strength="firm",
        hard="some practice",
        tough=True,
        minutes=11,
        look="braids between the holes of an open spine",
        refuses="each stitch goes under that of the section below, so it takes two or more",
    ),
    words=SewingWords(one_by_one=True),
)
KIND: Final = threaded.kind(
    STITCH,
    name="spanlinked",
    title="span-linked stitch",
    summary="All along without tapes; the stitches on the spine go under those of the section below.",
    record=SpanLinked,
    at="block",
)
