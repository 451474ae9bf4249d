"""Sewn all along over tapes: kettles at the ends, each tape held by the stitches that pass over it; a block
for a case."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.kinds import Suits
from pleat.core.base.plan import Length, Piece, Step
from pleat.core.engines.sewing.moves import Bed, Promise, Support, Thread
from pleat.core.engines.sewing.patterns.along import kettled, straight
from pleat.core.pleats.binding import threaded
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind
from pleat.core.trade.sewing import LONGEST_SPAN_MM, TAPE_LAP_MM, TAPE_MM

HUNG: Final = Step(
    key="tapes",
    title="Hang up the tapes",
    detail="Tape them to the edge of the table or to a box at their places, upright and taut, so that the "
    "sections can be laid against them.",
    tools=("adhesive tape", "station strip"),
    needs=("stations.marked",),
    gives=("supports.ready",),
    kind="sew",
)


class Tapes(Threaded):
    """Tapes of one width, as many as it was said, else as the height asks for."""

    kind: Literal["tapes"] = "tapes"
    tapes: Annotated[int, NumberRule("tapes", 1, 6, whole=True)] | None = None
    tape_mm: Annotated[float, LengthRule("the tape's width", 5, 40)] = 12.0


def proposed(height_mm: float) -> int:
    """Tapes so that no stitch inside is longer than the longest span: two up to about 230 mm, three above.

    >>> [proposed(height) for height in (150, 210, 297, 400)]
    [2, 2, 3, 5]
    """
    return next(
        count for count in range(2, 7) if (height_mm - 24) / (count + 1) <= LONGEST_SPAN_MM + 2 or count == 6
    )


def layout(binding: Tapes, height_mm: float) -> Layout:
    return Layout((binding.tapes or proposed(height_mm)) + 2, "kettle", binding.tape_mm)


def supports(
    _binding: Tapes, holes: Sequence[float], _rows: int, _left: LeftOfBinding
) -> tuple[Support, ...]:
    return tuple(Support("tape", hole + 0.5, TAPE_MM) for hole in range(2, len(holes) - 1, 2))


def across(name: str) -> Callable[[Threaded, Bed, LeftOfBinding], tuple[Piece, ...]]:
    """What tapes or cords are cut to: as long as the spine is thick, with a lap for either board."""

    def pieces(_binding: Threaded, bed: Bed, left: LeftOfBinding) -> tuple[Piece, ...]:
        long = left.brief.ruler.snap_up(left.pages.thickness.high + 2 * TAPE_LAP_MM)
        return (
            Length(
                key=name,
                name=name,
                length_mm=long,
                count=len(bed.supports) * left.brief.quantity,
                stock="",
                use="binding",
            ),
        )

    return pieces


def threads(_binding: Tapes, bed: Bed) -> tuple[Thread, ...]:
    return (kettled(len(bed.rows), bed.stations, straight),)


def promise(_binding: Tapes, _bed: Bed) -> Promise:
    return Promise(links="ends")


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    supports=supports,
    pieces=across("tape"),
    suits=Suits(
        fewest=2,
        thickest_mm=2.5,
        strength="strong",
        hard="some practice",
        minutes=10,
        look="flat tapes across the spine, for a case",
        refuses="it climbs from section to section, so it takes two or more",
    ),
    words=SewingWords(one_by_one=True, before=(HUNG,)),
)
KIND: Final = threaded.kind(
    STITCH,
    name="tapes",
    title="sewn over tapes",
    summary="All along over flat tapes, kettle stitches at the ends: a firm block for a case.",
    record=Tapes,
    at="block",
)
