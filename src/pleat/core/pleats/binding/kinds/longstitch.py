"""The long stitch: sections sewn one by one through rows of holes in a soft spine; plain, or linked with
kettles at the ends."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.along import kettled, long_stitch, straight
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind

COUNTS: Final = (4, 6, 8, 10)


class LongStitch(Threaded):
    """An even number of stations; 0 are as many as the height asks for."""

    kind: Literal["longstitch"] = "longstitch"
    station_count: Annotated[
        Literal[0, 4, 6, 8, 10],
        ChoiceRule("stations", (("0", "by height"), ("4", "4"), ("6", "6"), ("8", "8"), ("10", "10"))),
    ] = 0
    way: Annotated[
        Literal["linked", "plain"],
        ChoiceRule("sections", (("linked", "linked at the ends"), ("plain", "not linked"))),
    ] = "linked"


def layout(binding: LongStitch, height_mm: float) -> Layout:
    return Layout(binding.station_count or stations.proposed(height_mm, COUNTS, "kettle"), "kettle")


def threads(binding: LongStitch, bed: Bed) -> tuple[Thread, ...]:
    rows = len(bed.rows)
    return (
        kettled(rows, bed.stations, straight) if binding.way == "linked" else long_stitch(rows, bed.stations),
    )


def promise(binding: LongStitch, bed: Bed) -> Promise:
    return Promise(links="ends" if binding.way == "linked" else "some", cover=bed.covered)


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        fewest=2,
        good_to=12,
        thickest_mm=3.0,
        strength="firm",
        hard="some practice",
        minutes=9,
        look="rows of long stitches on a soft spine",
        refuses="it climbs from section to section, so it takes two or more",
    ),
    words=SewingWords(one_by_one=True),
)
KIND: Final = threaded.kind(
    STITCH,
    name="longstitch",
    title="long stitch",
    summary="Sections sewn one by one through rows of holes in a soft spine; the stitches show outside.",
    record=LongStitch,
)
