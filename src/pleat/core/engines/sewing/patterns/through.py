"""Patterns that sew each section by itself through its fold: pamphlet stitches, paired ties, loops; and two
sections with one thread."""

from __future__ import annotations

from pleat.core.engines.sewing.moves import Move, Needle, Promise, Side, Thread


def middle(stations: int) -> int:
    """The hole a pamphlet stitch starts at: the middle one, of an even number the one above it."""
    return (stations + 1) // 2


def straight_past(stations: int, side: Side, row: int = 1) -> Thread:
    """From the middle to the head, back, straight past the middle to the tail and home; tied over the long
    stitch. Three stations or more.

    >>> [move.at for move in straight_past(5, "inside") if move.do == "pass"]
    [3, 2, 1, 2, 4, 5, 4, 3]
    """
    m = middle(stations)
    up, down = range(m, 0, -1), range(2, m)
    on, home = range(m + 1, stations + 1), range(stations - 1, m - 1, -1)
    return Needle(row, m, side).through(*up, *down, *on, *home).tie("over")


def straight_past_promise(stations: int, cover: bool) -> Promise:
    """Every gap is covered; of five holes or more on both sides, but for the long stitch past the middle of
    an even number."""
    whole = stations % 2 and stations > 3
    return Promise(covered="both" if whole else "either", may_pass=frozenset({middle(stations)}), cover=cover)


def figure_of_eight(stations: int, side: Side, row: int = 1) -> Thread:
    """From the middle to the head and back, through the middle to the tail and back, home along the fold;
    both tails at one hole.

    >>> [move.at for move in figure_of_eight(3, "inside") if move.do == "pass"]
    [2, 1, 2, 3]
    """
    m = middle(stations)
    order = (*range(m, 0, -1), *range(2, m + 1), *range(m + 1, stations + 1), *range(stations - 1, m, -1))
    return Needle(row, m, side).through(*order).tie("tail", m)


def paired_ties(stations: int, side: Side, row: int = 1) -> tuple[Thread, ...]:
    """Each pair of holes with a thread of its own, tied where it began. An even number of stations."""
    return tuple(Needle(row, a, side).through(a, a + 1).tie("tail", a) for a in range(1, stations, 2))


def paired_promise(stations: int, cover: bool) -> Promise:
    return Promise(covered="both", gaps=tuple(range(1, stations, 2)), cover=cover)


def double(figure: Thread) -> Thread:
    """A pamphlet stitch through two sections at once: out of one fold and into the other at every hole, so
    that a passage of the one-section path becomes two across the spine. Its inside is that of the first
    section, its outside that of the second."""
    row, made = 1, [Move("start", 1, figure[0].at, "inside")]
    for move in figure[1:]:
        if move.do == "pass":
            made += [Move("pass", row, move.at, "outside"), Move("pass", 3 - row, move.at, "inside")]
            row = 3 - row
        else:
            made.append(Move(move.do, row, move.at, "inside", move.what))
    return tuple(made)


def double_promise(stations: int, cover: bool) -> Promise:
    return Promise(covered="none", links="all", may_pass=frozenset({middle(stations)}), cover=cover)


def loop(holes: int, side: Side, row: int = 1) -> Thread:
    """Elastic or cord round the fold: through two holes, through one and round the head, or round head and
    tail over two notches."""
    ends = {2: (1, 2), 1: (1, 0), 0: (0, 1)}[holes]
    return Needle(row, ends[0], side).through(*ends).tie("tail", ends[0])


def loop_promise(cover: bool) -> Promise:
    return Promise(covered="none", edges=True, cover=cover)


def lashing(hole: int, row: int = 1) -> Thread:
    """A stick tied on at one hole with a thread of its own: out, round it, in, tied; and once more."""
    needle = Needle(row, hole, "inside")
    needle.through(hole).wrap("stick").through(hole).hold("tail")
    return needle.through(hole).wrap("stick").through(hole).tie("tail")


def lashing_promise() -> Promise:
    return Promise(covered="none", knots=True)
