"""Sewn on raised cords: at each cord the thread comes out, goes round it and in again by the same hole;
kettles at the ends."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing.moves import Bed, Promise, Support, Thread
from pleat.core.engines.sewing.patterns.along import kettled, round_cords
from pleat.core.pleats.binding import threaded
from pleat.core.pleats.binding.kinds.tapes import HUNG, across, proposed
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind


class Cords(Threaded):
    """Cords of one thickness, as many as it was said, else as the height asks for."""

    kind: Literal["cords"] = "cords"
    cords: Annotated[int, NumberRule("cords", 1, 7, whole=True)] | None = None
    cord_mm: Annotated[float, LengthRule("the cord's thickness", 0.8, 8, fine=True)] = 3.0


def layout(binding: Cords, height_mm: float) -> Layout:
    return Layout((binding.cords or proposed(height_mm)) + 2, "kettle")


def supports(binding: Cords, holes: Sequence[float], _rows: int, _left: LeftOfBinding) -> tuple[Support, ...]:
    return tuple(Support("cord", hole, binding.cord_mm) for hole in range(2, len(holes)))


def threads(_binding: Cords, bed: Bed) -> tuple[Thread, ...]:
    return (kettled(len(bed.rows), bed.stations, round_cords),)


def promise(_binding: Cords, _bed: Bed) -> Promise:
    return Promise(covered="inside", links="ends")


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    supports=supports,
    pieces=across("cord"),
    suits=Suits(
        fewest=2,
        thickest_mm=2.5,
        strength="strong",
        hard="takes care",
        tough=True,
        minutes=13,
        look="raised bands across the spine",
        refuses="it climbs from section to section, so it takes two or more",
    ),
    words=SewingWords(one_by_one=True, before=(replace(HUNG, title="Hang up the cords"),)),
)
KIND: Final = threaded.kind(
    STITCH,
    name="cords",
    title="sewn on raised cords",
    summary="The thread goes round each cord; the cords stand up on the spine as bands.",
    record=Cords,
    at="block",
)
