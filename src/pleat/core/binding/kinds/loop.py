"""A loop of cord or elastic round the fold: through two holes, through one and round the head, or in notches at head and tail."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.binding import threaded
from pleat.core.binding.record import KnotSide, Thread, Threaded
from pleat.core.binding.stations import Layout
from pleat.core.binding.steps import Words
from pleat.core.binding.thread import diameter_mm
from pleat.core.binding.threaded import Stitch
from pleat.core.fields import ChoiceRule
from pleat.core.kinds import Suits
from pleat.core.plan import Check, Offer
from pleat.core.sewing.moves import Bed, Promise
from pleat.core.sewing.moves import Thread as Path
from pleat.core.sewing.patterns.through import loop, loop_promise
from pleat.core.units import Ruler


class Loop(Threaded):
    """A loop of cord or elastic; its slack and stretch are not worked out yet."""

    kind: Literal["loop"] = "loop"
    holes: Annotated[
        Literal[2, 1, 0],
        ChoiceRule(
            "goes", (("2", "through two holes"), ("1", "through one hole and round the head"), ("0", "in notches at head and tail"))
        ),
    ] = 2
    knot: KnotSide = "outside"
    thread: Thread = Thread(name="round elastic", diameter_mm=1.5)


def layout(binding: Loop, _height_mm: float) -> Layout:
    return Layout(binding.holes)


def threads(binding: Loop, bed: Bed) -> tuple[Path, ...]:
    return tuple(loop(binding.holes, binding.knot, row) for row in range(1, len(bed.rows) + 1))


def promise(_binding: Loop, bed: Bed) -> Promise:
    return loop_promise(bed.covered)


def checks(binding: Loop, ruler: Ruler) -> tuple[Check, ...]:
    """D10: one hole bears all of the loop's pull, each time what it holds is changed."""
    if binding.holes != 1:
        return ()
    return (
        Check(
            "D10",
            "watch",
            f"One hole bears all the pull of a loop {ruler.fine(diameter_mm(binding.thread))} thick, and tears sooner or later.",
            "The loop moves in it whenever the section is taken out. An eyelet or a patch of cloth holds; two holes or notches share the pull.",
            (Offer("through two holes", (("binding.holes", 2),)), Offer("in notches at head and tail", (("binding.holes", 0),))),
        ),
    )


STITCH: Final = Stitch(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        most=8,
        good_to=4,
        thickest_mm=3.0,
        strength="light",
        minutes=3,
        look="one loop along the fold",
        refuses="more loops than eight do not lie in one spine",
    ),
    words=Words(thread="cord or elastic"),
    checks=checks,
)
KIND: Final = threaded.kind(
    STITCH,
    name="loop",
    title="loop of cord or elastic",
    summary="A loop round the fold holds each section, and lets it be changed for another.",
    record=Loop,
    needle=False,
)
