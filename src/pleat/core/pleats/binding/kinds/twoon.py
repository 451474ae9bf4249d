"""Two-on: two sections with every run of the thread, changing from one to the other at each tape. Half the
thread, half the swell."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Thread
from pleat.core.engines.sewing.patterns.along import two_on, two_on_promise
from pleat.core.pleats.binding import threaded
from pleat.core.pleats.binding.kinds.tapes import HUNG, across, supports
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind


class TwoOn(Threaded):
    """Three or five tapes: an odd number, so that a run ends in the upper section."""

    kind: Literal["twoon"] = "twoon"
    tapes: Annotated[Literal[3, 5], ChoiceRule("tapes", (("3", "3 tapes"), ("5", "5 tapes")))] = 3
    tape_mm: Annotated[float, LengthRule("the tape's width", 5, 40)] = 12.0


def layout(binding: TwoOn, _height_mm: float) -> Layout:
    return Layout(binding.tapes + 2, "kettle", binding.tape_mm)


def threads(_binding: TwoOn, bed: Bed) -> tuple[Thread, ...]:
    return (two_on(len(bed.rows), bed.stations),)


def promise(_binding: TwoOn, bed: Bed) -> Promise:
    return two_on_promise(len(bed.rows), bed.stations)


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    supports=supports,
    pieces=across("tape"),
    suits=Suits(
        fewest=6,
        every=2,
        thickest_mm=2.0,
        strength="firm",
        hard="takes care",
        minutes=6,
        look="flat tapes, with half the thread",
        refuses="it sews sections in pairs between two single ones at either end, so it takes an even number "
        "from six",
    ),
    words=SewingWords(one_by_one=True, before=(HUNG,)),
)
KIND: Final = threaded.kind(
    STITCH,
    name="twoon",
    title="sewn two-on over tapes",
    summary="Two sections with every run of the thread: for many thin sections, with half the swell.",
    record=TwoOn,
    at="block",
)
