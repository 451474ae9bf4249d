"""The link stitch: each section hooks under the one before at every hole, the spine stays open; boards are
caught where the cover has them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Final, Literal

from pleat.core.base.fields import NumberRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Support, Thread
from pleat.core.engines.sewing.patterns.along import link
from pleat.core.pleats.binding import stations, threaded
from pleat.core.pleats.binding.record import MOST_STATIONS, Threaded
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind


class Link(Threaded):
    """As many stations as it was said, else as the height asks for."""

    kind: Literal["link"] = "link"
    station_count: Annotated[int, NumberRule("stations", 2, MOST_STATIONS, whole=True)] | None = None


def layout(binding: Link, height_mm: float) -> Layout:
    return Layout(
        binding.station_count or stations.proposed(height_mm, (3, 4, 5, 6, 7, 8), "kettle"), "kettle"
    )


def boarded(bed: Bed) -> bool:
    return any(support.kind == "board" for support in bed.supports)


def supports(_binding: Link, holes: Sequence[float], rows: int, left: LeftOfBinding) -> tuple[Support, ...]:
    """A board before the first section and one behind the last, held at every hole."""
    if not left.brief.made_of.cover.boards:
        return ()
    thick = left.paper.stock("board").caliper.likely
    return tuple(
        Support("board", hole, thick, (row,))
        for row in sorted({1, rows})
        for hole in range(1, len(holes) + 1)
    )


def threads(_binding: Link, bed: Bed) -> tuple[Thread, ...]:
    return (link(len(bed.rows), bed.stations, boarded(bed)),)


def promise(_binding: Link, _bed: Bed) -> Promise:
    return Promise(covered="inside", links="all")


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    supports=supports,
    suits=Suits(
        fewest=2,
        good_to=30,
        thickest_mm=2.5,
        strength="firm",
        hard="some practice",
        tough=True,
        minutes=11,
        look="chains across an open spine",
        refuses="each section hooks under the one before, so it takes two or more",
    ),
    words=SewingWords(one_by_one=True),
)
KIND: Final = threaded.kind(
    STITCH,
    name="link",
    title="link stitch",
    summary="Each section hooks under the one before at every hole; the spine stays open and the book lies "
    "flat.",
    record=Link,
    at="spine",
)
