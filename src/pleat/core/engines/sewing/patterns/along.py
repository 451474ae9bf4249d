"""Patterns that sew one section after the other with one thread: in at one end, along, out at the other and
up, with kettles at the ends."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from pleat.core.engines.sewing.moves import Needle, Promise, Thread, passes

Course = Callable[[Needle, int, Sequence[int]], None]
"""Sews one row through the stations given, in their order, from outside to outside."""


def _order(row: int, stations: int) -> tuple[int, ...]:
    """Odd rows from head to tail, even ones back."""
    return tuple(range(1, stations + 1)) if row % 2 else tuple(range(stations, 0, -1))


def kettled(rows: int, stations: int, course: Course) -> Thread:
    """Row by row with ``course``: tied to the tail at the first return, later under the climb that is there
    already."""
    needle, climbs = Needle(1, 1, "outside"), {1: 0, stations: 0}
    for row in range(1, rows + 1):
        order = _order(row, stations)
        course(needle.to(row), row, order)
        _kettle(needle, climbs, row, order[-1], last=row == rows)
    return tuple(needle.made)


def _kettle(needle: Needle, climbs: dict[int, int], row: int, end: int, last: bool) -> None:
    """The link at the end of a row; ``climbs`` holds the row that the last climb at each end led to."""
    if not climbs[end] and end == 1:
        needle.hold("tail")
    elif climbs[end]:
        needle.catch(climbs[end], end)
        if last:
            needle.hold("stitch")
    climbs[end] = row + 1


def straight(needle: Needle, _row: int, order: Sequence[int]) -> None:
    """All along: in at the first, out at the second, and so on."""
    needle.through(*order)


def round_cords(needle: Needle, _row: int, order: Sequence[int]) -> None:
    """Inside from hole to hole; at each cord out, round it, and in by the same hole."""
    needle.through(order[0])
    for hole in order[1:-1]:
        needle.through(hole).wrap("cord").through(hole)
    needle.through(order[-1])


def under_spans(needle: Needle, row: int, order: Sequence[int]) -> None:
    """All along, each stitch outside going under that of the section below."""
    for number, hole in enumerate(order):
        needle.through(hole)
        if number % 2 and number < len(order) - 1 and row > 1:
            needle.catch(row - 1, (hole + order[number + 1]) / 2)


def long_stitch(rows: int, stations: int) -> Thread:
    """All along through the cover, from a stopper knot to a stopper knot; nothing links the sections but the
    way up."""
    needle = Needle(1, 1, "outside", "knot")
    for row in range(1, rows + 1):
        needle.to(row).through(*_order(row, stations))
    return needle.tie("knot")


def two_on(rows: int, stations: int) -> Thread:
    """Two sections with every run of the thread, changing from one to the other at each tape; the first and
    last two all along.

    An odd number of tapes from three, so that a run ends in the upper section, and an even number of sections
    from six.
    """
    needle, climbs = Needle(1, 1, "outside"), {1: 0, stations: 0}
    runs = [(1,), (2,), *((row, row + 1) for row in range(3, rows - 2, 2)), (rows - 1,), (rows,)]
    for number, pair in enumerate(runs, 1):
        order = _order(number, stations)
        for place in range(0, stations, 2):
            needle.to(pair[place // 2 % len(pair)]).through(order[place], order[place + 1])
        _kettle(needle, climbs, pair[-1], order[-1], last=number == len(runs))
    return tuple(needle.made)


def two_on_promise(rows: int, stations: int) -> Promise:
    """Holes of paired sections that the thread leaves to the other one of the pair stay empty on purpose."""
    passed = set(passes(two_on(rows, stations)))
    empty = {
        (row, hole)
        for row in range(3, rows - 1)
        for hole in range(1, stations + 1)
        if (row, hole) not in passed
    }
    return Promise(
        covered="none", links="ends", unused=frozenset(empty), cross=3, slant=True, supports="every pair"
    )


def link(rows: int, stations: int, boards: bool) -> Thread:
    """At every hole out, round the board or under the section below, and in again; at the last one up to the
    next section.

    The first section's loops are held by those of the second, or by the board. At the last board the thread
    goes round it before it goes in: out and in by one hole would cancel.
    """
    needle = Needle(1, 1, "inside")

    def hook(row: int, hole: int) -> None:
        if boards and row in (1, rows):
            needle.wrap("board")
        if row > 1:
            needle.catch(row - 1, hole)

    for row in range(1, rows + 1):
        order = _order(row, stations)
        if row == 1:
            needle.through(1)
            hook(1, 1)
            needle.through(1).hold("tail")
        else:
            needle.to(row)
            if boards and row == rows:
                needle.wrap("board", order[0])
            needle.through(order[0])
        for hole in order[1:-1]:
            needle.through(hole)
            hook(row, hole)
            needle.through(hole)
        needle.through(order[-1])
        hook(row, order[-1])
    return needle.through(needle.at).tie("stitch")
