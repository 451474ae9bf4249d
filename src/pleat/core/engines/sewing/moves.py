"""What a sewing is made of: the bed it is sewn on, and threads as moves from hole to hole.

Rows are sections, 1 at the front; stations are holes, 1 at the head. Station 0 is the edge at the head and
one more than the last hole the edge at the tail: a thread may pass round them. A place between two holes is a
half, 2.5 between holes 2 and 3. Travel is implied: from where the last move left the thread to where the next
one is, on the side it is on.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final, Literal, NamedTuple

Side = Literal["inside", "outside"]
Do = Literal["start", "pass", "wrap", "catch", "tie"]
Thread = tuple["Move", ...]
SIDES: Final[tuple[Side, Side]] = ("inside", "outside")


def other(side: Side) -> Side:
    return "outside" if side == "inside" else "inside"


class Move(NamedTuple):
    """One thing the thread does; ``side`` is where it is afterwards.

    ``start`` leaves a tail, or a stopper ``what="knot"``. ``pass`` goes through the hole. ``wrap`` goes round
    the support of the kind ``what``, ``times`` times. ``catch`` goes under the stitch at another row's place
    and back; the thread stays where it is. ``tie`` ends a thread, or holds it on its way: ``tail`` to the
    start's tail, ``over`` the long stitch that passes there with both tails, ``stitch`` to a stitch that lies
    there, ``knot`` a stopper.
    """

    do: Do
    row: int
    at: float
    side: Side
    what: str = ""
    times: int = 1

    @property
    def place(self) -> tuple[int, float]:
        return self.row, self.at


@dataclass(frozen=True)
class Row:
    """A section in mm: ``fold_mm`` is what the needle passes, the sum of its folios' calipers once;
    ``thick_mm`` what it takes on the spine; ``cover_mm`` the cover it is sewn through, 0 for none. ``sides``
    are the words for its inside and outside."""

    fold_mm: float
    thick_mm: float
    cover_mm: float = 0.0
    sides: tuple[str, str] = SIDES

    def side(self, side: Side) -> str:
        return self.sides[SIDES.index(side)]


@dataclass(frozen=True)
class Support:
    """What a thread goes over or round, by kind: a tape in the gap at ``at`` (2.5: between holes 2 and 3), a
    cord at a station, a board.

    ``thick_mm`` is the thickness of a tape or board, the diameter of a cord. ``rows`` are those it lies on;
    empty for all of them.
    """

    kind: str
    at: float
    thick_mm: float
    rows: tuple[int, ...] = ()

    def lies_on(self, row: int) -> bool:
        return not self.rows or row in self.rows


@dataclass(frozen=True)
class Bed:
    """What is sewn: holes in mm from the leaf's head, rising; the sections; the supports across them.
    ``reach_mm`` is how far a thread goes on to a board before it passes it."""

    positions_mm: tuple[float, ...]
    rows: tuple[Row, ...]
    height_mm: float
    supports: tuple[Support, ...] = ()
    reach_mm: float = 0.0

    @property
    def stations(self) -> int:
        return len(self.positions_mm)

    @property
    def covered(self) -> bool:
        """Whether a cover is sewn through."""
        return any(row.cover_mm for row in self.rows)

    @cached_property
    def places_mm(self) -> dict[float, float]:
        """How far each place lies from the head: holes, edges, and the middles between them."""
        whole = (0.0, *self.positions_mm, self.height_mm)
        halves = {
            number + 0.5: (low + high) / 2 for number, (low, high) in enumerate(itertools.pairwise(whole))
        }
        return dict(enumerate(whole)) | halves


Covered = Literal["none", "either", "inside", "both"]
Links = Literal["none", "some", "ends", "all"]


@dataclass(frozen=True)
class Promise:
    """What a pattern gives when it is sewn right.

    ``covered``: on which side each gap has thread, of the ``gaps`` named (gap g lies between holes g and g +
    1; None for all). ``links``: where neighbouring rows are joined. ``may_pass`` are holes that a stitch may
    run past, ``unused`` (row, station) that stay empty. ``cross`` is how many rows one travel may go up or
    down, ``slant`` whether it may go along the fold meanwhile. ``supports`` says by which rows each is held;
    ``own`` is a maker's own pattern, of which only what cannot be sewn is wrong; ``knots`` says that it hangs
    on its knots, and is meant to.
    """

    covered: Covered = "either"
    gaps: tuple[int, ...] | None = None
    links: Links = "none"
    may_pass: frozenset[int] = frozenset()
    unused: frozenset[tuple[int, int]] = frozenset()
    cross: int = 1
    slant: bool = False
    supports: Literal["none", "every row", "every pair"] = "every row"
    cover: bool = False
    edges: bool = False
    own: bool = False
    knots: bool = False


@dataclass(frozen=True)
class Sewing:
    """A bed, the threads on it in the order they are sewn, and what they promise."""

    bed: Bed
    threads: tuple[Thread, ...]
    promise: Promise

    @cached_property
    def moves(self) -> tuple[Move, ...]:
        """All moves in the order they are sewn, one thread after the other."""
        return tuple(move for thread in self.threads for move in thread)

    @property
    def mirrored(self) -> Sewing:
        """The same paths from tail to head on the same holes, with what they promise: what a left-handed
        maker sews."""
        last, said = self.bed.stations + 1, self.promise
        promise = replace(
            said,
            may_pass=frozenset(last - hole for hole in said.may_pass),
            unused=frozenset((row, last - hole) for row, hole in said.unused),
            gaps=None if said.gaps is None else tuple(sorted(last - 1 - gap for gap in said.gaps)),
        )
        return Sewing(
            self.bed, tuple(mirrored(thread, self.bed.stations) for thread in self.threads), promise
        )


def passes(thread: Iterable[Move]) -> tuple[tuple[int, float], ...]:
    """The places a thread passes through, in order."""
    return tuple(move.place for move in thread if move.do == "pass")


def mirrored(thread: Thread, stations: int) -> Thread:
    """The same path from tail to head on the same holes."""
    return tuple(move._replace(at=stations + 1 - move.at) for move in thread)


def backwards(thread: Thread) -> Thread | None:
    """A closed path sewn the other way round; None for one that does not end where it starts, or does more
    than pass."""
    if any(move.do not in ("start", "pass", "tie") for move in thread) or thread[-1].what not in (
        "tail",
        "over",
    ):
        return None
    start, *middle, tie = thread
    if start.place != tie.place or start.side != tie.side or start.what:
        return None
    back, side = [start], start.side
    for move in reversed(middle):
        side = other(side)
        back.append(move._replace(side=side))
    return (*back, tie)


class Needle:
    """A thread that is being made: each call is a move from where it is. Patterns are written with it.

    >>> needle = Needle(1, 2, "inside")
    >>> [move.side for move in needle.through(2, 1, 3, 2).tie("over")]
    ['inside', 'outside', 'inside', 'outside', 'inside', 'inside']
    """

    def __init__(self, row: int, at: float, side: Side, what: str = "") -> None:
        self.row, self.at, self.side = row, at, side
        self.made: list[Move] = [Move("start", row, at, side, what)]

    def through(self, *holes: float) -> Needle:
        """Through these holes of the row it is in, in and out in turn."""
        for hole in holes:
            self.at, self.side = hole, other(self.side)
            self.made.append(tuple.__new__(Move, ("pass", self.row, hole, self.side, "", 1)))
        return self

    def to(self, row: int) -> Needle:
        """On to another row; the way there lies on the side it is on."""
        self.row = row
        return self

    def catch(self, row: int, at: float) -> Needle:
        self.made.append(tuple.__new__(Move, ("catch", row, at, self.side, "", 1)))
        return self

    def wrap(self, kind: str, at: float | None = None) -> Needle:
        """Round a support, here or at another hole of the row it is in."""
        self.at = self.at if at is None else at
        self.made.append(Move("wrap", self.row, self.at, self.side, kind))
        return self

    def hold(self, what: str, at: float | None = None) -> Needle:
        """A tie on the way."""
        self.made.append(Move("tie", self.row, self.at if at is None else at, self.side, what))
        return self

    def tie(self, what: str, at: float | None = None) -> Thread:
        """The last move of it, here or at another hole of the row on the side it is on."""
        return tuple(self.hold(what, at).made)
