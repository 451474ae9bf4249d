"""A maker's own stitch: tapped on a few sections, kept as text, and grown to as many sections as a book has.

The first two sections and the last stay as they were tapped; between them the pair after the first two comes
again and again. What was tapped on one section alone is sewn through each by itself. Grown copies are looked
at like any other sewing before they are trusted.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from pleat.core.base.words import many
from pleat.core.engines.sewing.faults import find
from pleat.core.engines.sewing.moves import Bed, Move, Promise, Row, Sewing, Thread
from pleat.core.engines.sewing.notation import BadSewing, read

PROMISE: Final = Promise(
    covered="none", links="some", cross=3, slant=True, supports="none", edges=True, own=True
)
"""What is asked of a maker's own stitch: every hole used, sections joined; the rest is theirs."""
GROWS_FROM: Final = 5
"""The least sections a linked stitch has to be tapped on to be grown: the first two, a pair that repeats, the
last."""
TRIED_ON: Final = (4, 5, 6, 9)
"""Sections a new stitch is tried on besides those it was tapped on."""


class CannotGrow(ValueError):
    """Why a stitch cannot be grown to other sections, in words."""


def rows_of(threads: tuple[Thread, ...]) -> int:
    """The sections it was tapped on."""
    return max((move.row for thread in threads for move in thread), default=1)


def promise_for(bed: Bed, threads: tuple[Thread, ...]) -> Promise:
    """What is asked of it on this bed: joined sections only where it was tapped so, no holes passed but the
    one it is tied over."""
    links = any(len({move.row for move in thread}) > 1 for thread in threads)
    over = frozenset(int(move.at) for thread in threads for move in thread if move.what == "over")
    return replace(PROMISE, links="some" if links and len(bed.rows) > 1 else "none", may_pass=over)


def grown(threads: tuple[Thread, ...], rows: int, stations: int) -> tuple[Thread, ...]:
    """The stitch on so many rows. Raises CannotGrow with the reason.

    >>> from pleat.core.engines.sewing.notation import read, write
    >>> write(grown(read("2 in | 2 1 3 2 =over", 3), 2, 3), 3)
    '1.2 in | 2 1 3 2 =over; 2.2 in | 2 1 3 2 =over'
    """
    tapped = rows_of(threads)
    if tapped == rows:
        return threads
    if tapped == 1:
        return tuple(_shifted(thread, row) for row in range(rows) for thread in threads)
    if len(threads) > 1 or tapped < GROWS_FROM or rows < 4:
        raise CannotGrow(
            f"It was tapped on {many(tapped, 'section')} and this book has {rows}: tap it on {rows}, or on "
            f"{GROWS_FROM} to let it grow."
        )
    blocks = _blocks(threads[0])
    if len(blocks) != tapped:
        raise CannotGrow(
            "It goes back to a section it has left, so Pleat cannot tell what repeats: tap it on as many "
            "sections as the book has."
        )
    return (_assembled(blocks, rows, stations),)


def checked(
    text: str, stations: int | None = None, sections: int | None = None
) -> tuple[bool, tuple[str, ...]]:
    """(whether something is wrong, what to say line by line) of a stitch as text, on as many stations and
    sections as it uses or as said."""
    try:
        threads = read(text, stations or MOST_STATIONS)
        stations = stations or int(
            max((move.at for thread in threads for move in thread if move.at <= MOST_STATIONS), default=1)
        )
        threads = read(text, stations)  # the edge at the tail lies behind the last hole
        threads = grown(threads, sections or rows_of(threads), stations)
    except (BadSewing, CannotGrow) as error:
        return True, (error.reason if isinstance(error, BadSewing) else str(error),)
    rows = rows_of(threads)
    step = 200.0 / (stations + 1)
    bed = Bed(tuple(step * (hole + 1) for hole in range(stations)), (Row(1.0, 2.0),) * rows, 200.0)
    faults = find(Sewing(bed, threads, promise_for(bed, threads)))
    wrong = any(not fault.watch for fault in faults)
    said = []
    for fault in faults:
        move = "" if fault.step is None else f"move {fault.step + 1}: "
        look = "look: " if fault.watch else ""
        said.append(f"{move}{look}{fault.text}")
    size = (
        f"{many(stations, 'hole')}, {many(rows, 'section')}, "
        f"{many(sum(len(thread) for thread in threads), 'move')}"
    )
    verdict = "it cannot be sewn so" if wrong else "it can be sewn, and it holds"
    return wrong, (*said, f"{size}: {verdict}")


MOST_STATIONS: Final = 15


def _shifted(thread: Thread, by: int) -> Thread:
    return tuple(move._replace(row=move.row + by) for move in thread)


def _blocks(thread: Thread) -> list[list[Move]]:
    """The moves made while the needle is in one section, section by section."""
    blocks: list[list[Move]] = []
    row = 0
    for move in thread:
        if move.do != "catch" and move.row != row:
            row = move.row
            blocks.append([])
        blocks[-1].append(move)
    return blocks


def _assembled(blocks: list[list[Move]], rows: int, stations: int) -> Thread:
    first, pair, last = blocks[:2], blocks[2:4], blocks[-1]
    made: list[Move] = [move for block in first for move in block]
    for row in range(3, rows):
        block = pair[(row - 3) % 2]
        made += [move._replace(row=move.row + row - 3 - (row - 3) % 2) for move in block]
    by = rows - len(blocks)
    turned = by % 2 != 0  # a row that runs the other way ends the other way round
    made += [
        move._replace(row=move.row + by, at=stations + 1 - move.at if turned else move.at) for move in last
    ]
    return tuple(made)
