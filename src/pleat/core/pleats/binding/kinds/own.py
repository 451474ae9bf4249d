"""A maker's own stitch: tapped or typed hole by hole, looked at move by move, and grown to the sections of
the book."""

from __future__ import annotations

import itertools
import re
from functools import lru_cache
from typing import Annotated, Final, Literal

from pleat.core.base.errors import LengthError
from pleat.core.base.fields import NumberRule, TextRule
from pleat.core.base.kinds import Suits
from pleat.core.engines.sewing import notation
from pleat.core.engines.sewing.faults import Fault, find
from pleat.core.engines.sewing.moves import Bed, Promise, Sewing, Side, Thread
from pleat.core.engines.sewing.own import CannotGrow, grown, promise_for, rows_of
from pleat.core.pleats.binding import threaded, typed
from pleat.core.pleats.binding.record import MOST_STATIONS, Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.threaded import SewingKind
from pleat.core.pleats.brief.record import Brief

LONGEST: Final = 12_000
"""Letters of a stitch."""


class Own(Threaded):
    """The moves as text on the sections they were tapped on (``core.sewing.notation``), and what the stitch
    is called."""

    kind: Literal["own"] = "own"
    name: Annotated[str, TextRule("the stitch's name", 60, required=False)] = ""
    station_count: Annotated[int, NumberRule("stations", 1, MOST_STATIONS, whole=True)] = 3
    moves: Annotated[str, TextRule("your stitch, move by move", LONGEST)] = "2 in | 2 1 3 2 =over"


def layout(binding: Own, _height_mm: float) -> Layout:
    return Layout(binding.station_count)


@lru_cache(maxsize=64)
def as_threads(moves: str, rows: int, stations: int) -> tuple[tuple[Thread, ...], tuple[Fault, ...]]:
    """The stitch on so many sections, and why it cannot be read or grown; one of both is empty."""
    try:
        return grown(notation.read(moves, stations), rows, stations), ()
    except (notation.BadSewing, CannotGrow) as error:
        return (), (Fault("begins", error.reason if isinstance(error, notation.BadSewing) else str(error)),)


def threads(binding: Own, bed: Bed) -> tuple[Thread, ...]:
    return as_threads(binding.moves, len(bed.rows), bed.stations)[0]


def promise(binding: Own, bed: Bed) -> Promise:
    return promise_for(bed, threads(binding, bed))


def faults(binding: Own, sewing: Sewing) -> tuple[Fault, ...]:
    """What cannot be read, cannot be grown, or cannot be sewn."""
    unread = as_threads(binding.moves, len(sewing.bed.rows), sewing.bed.stations)[1]
    return unread or find(sewing)


def closed(holes: list[int], side: Side) -> str:
    """The text of a bare order of holes, as older books have it: tied where it began, over a long stitch if
    one passes there.

    A path that ends at another hole on the side it began is taken home along the fold.

    >>> [closed(path, "inside") for path in ([2, 1, 3, 2], [3, 2, 1, 2, 3, 4, 5, 4], [2, 1, 2])]
    ['2 in | 2 1 3 2 =over', '3 in | 3 2 1 2 3 4 5 4 =tail@3', '2 in | 2 1 2 =tail']
    """
    first = holes[0]
    if len(holes) % 2 == 0:
        ends = side
    elif side == "inside":
        ends = "outside"
    else:
        ends = "inside"
    spans = [(a, b) for number, (a, b) in enumerate(itertools.pairwise(holes)) if number % 2 == 1]
    over = any(min(a, b) < first < max(a, b) for a, b in spans)
    home = f"@{first}" if holes[-1] != first and ends == side else ""
    begins = "in" if side == "inside" else "out"
    passing = "over" if over and not home else "tail"
    return f"{first} {begins} | {' '.join(str(hole) for hole in holes)} ={passing}{home}"


_read_station: Final[typed.Read] = typed.reader(layout)


def read(binding: Own, name: str, text: str, brief: Brief) -> list[tuple[str, object]] | None:
    """Beside stations, the moves: in the notation, or as a bare order of holes that is tied where it began.
    Raises LengthError."""
    if name != "moves":
        return _read_station(binding, name, text, brief)
    text = " ".join(text.replace("→", " ").replace(",", " ").split())[: LONGEST + 1]
    if re.fullmatch(r"[0-9]{1,2}(?: [0-9]{1,2})+", text):
        text = closed([int(word) for word in text.split()], "inside")
    try:
        tapped = notation.read(text, binding.station_count)
    except notation.BadSewing as error:
        raise LengthError(text, error.reason) from error
    if rows_of(tapped) > 60:
        raise LengthError(text, "A stitch goes over at most 60 sections.")
    return [] if text == binding.moves else [("moves", text)]


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    faults=faults,
    suits=Suits(thickest_mm=3.0, strength="firm", hard="takes care", minutes=11, look="as you made it"),
    own=True,
)
KIND: Final = threaded.kind(
    STITCH,
    name="own",
    title="your own stitch",
    summary="Tap the holes in the order you sew them; Pleat says what cannot be sewn, and grows it to the "
    "book.",
    record=Own,
    read=read,
)
