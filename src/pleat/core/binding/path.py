"""The path of the thread through the holes of one fold, and whether it is right.

A path is an order of holes and the side it starts on. At each hole the thread passes through the paper,
so the spans between holes lie outside and inside in turn, whatever the order.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Side = Literal["inside", "outside"]


def other(side: Side) -> Side:
    return "outside" if side == "inside" else "inside"


@dataclass(frozen=True)
class Span:
    """One stretch of thread between two holes (1 at the head), on one side of the fold; length in mm."""

    number: int
    start: int
    end: int
    side: Side
    length_mm: float

    @property
    def passed(self) -> tuple[int, ...]:
        """The holes it runs past without going in."""
        return tuple(range(min(self.start, self.end) + 1, max(self.start, self.end)))

    def past(self, stations: int) -> str:
        """Words for the holes it runs past; "" where it goes to its neighbour.

        >>> Span(1, 1, 3, "inside", 100.0).past(3), Span(1, 3, 1, "inside", 100.0).past(5), Span(1, 1, 4, "inside", 100.0).past(5)
        (' past the middle', ' past hole 2', ' past holes 2 and 3')
        """
        if not self.passed:
            return ""
        if self.passed == ((stations + 1) // 2,) and stations % 2:
            return " past the middle"
        return f" past hole{'s' if len(self.passed) > 1 else ''} {' and '.join(str(hole) for hole in self.passed)}"

    @property
    def gaps(self) -> range:
        """The gaps between neighbouring holes it covers; gap g lies between holes g and g + 1."""
        return range(min(self.start, self.end), max(self.start, self.end))


@dataclass(frozen=True)
class ThreadPath:
    """Spans in order; ``start_side`` is where the first tail hangs, ``end_side`` where the last one does."""

    holes: tuple[int, ...]
    start_side: Side
    end_side: Side
    spans: tuple[Span, ...]

    @property
    def spans_mm(self) -> float:
        return sum(span.length_mm for span in self.spans)

    @property
    def passages(self) -> int:
        """How often the thread goes through the paper: once at every hole it visits."""
        return len(self.holes)


@dataclass(frozen=True)
class Fault:
    """Something wrong with a path: a short name and the fault in the maker's words."""

    kind: Literal["unknown", "missed", "undone", "other hole", "wrong side", "bare", "untied"]
    text: str


def walk(holes: Sequence[int], start_side: Side, positions_mm: Sequence[float]) -> ThreadPath:
    """The spans of a path through ``holes`` (1 at the head) at ``positions_mm``; holes that do not exist are skipped.

    >>> walk([2, 1, 3, 2], "inside", [1.5, 4.125, 6.75]).spans_mm
    10.5
    """
    known = [hole for hole in holes if 1 <= hole <= len(positions_mm)]
    side = start_side
    spans = []
    for number, (start, end) in enumerate(itertools.pairwise(known), 1):
        side = other(side)
        length = abs(positions_mm[end - 1] - positions_mm[start - 1])
        spans.append(Span(number, start, end, side, length))
    return ThreadPath(tuple(known), start_side, other(side), tuple(spans))


def faults(holes: Sequence[int], path: ThreadPath, stations: int) -> tuple[Fault, ...]:
    """Everything wrong with a path over ``stations`` holes; empty when it is right.

    Right means: every station used, no step undoing the one before, both tails at one hole and one side,
    no gap left bare, and a long stitch past the knot's hole to tie the tails over.
    """
    found = []
    strange = [hole for hole in holes if not 1 <= hole <= stations]
    if strange:
        found.append(Fault("unknown", f"there is no hole {strange[0]}; they are numbered 1 at the head to {stations}"))
    missed = [str(hole) for hole in range(1, stations + 1) if hole not in path.holes]
    if missed:
        found.append(Fault("missed", f"it leaves out hole {' and '.join(missed)}"))
    if any(a == b for a, b in zip(path.holes, path.holes[1:], strict=False)):
        found.append(Fault("undone", "it goes back through the hole it just came from, which undoes the stitch"))
    if not path.holes:
        return tuple(found)
    if path.holes[0] != path.holes[-1]:
        found.append(Fault("other hole", f"it starts at hole {path.holes[0]} and ends at hole {path.holes[-1]}, so the tails cannot meet"))
    if path.start_side != path.end_side:
        found.append(Fault("wrong side", f"it starts {path.start_side} and ends {path.end_side}, so the tails hang on different sides"))
    covered = {gap for span in path.spans for gap in span.gaps}
    bare = [gap for gap in range(1, stations) if gap not in covered]
    if bare:
        found.append(Fault("bare", f"nothing runs between holes {bare[0]} and {bare[0] + 1}"))
    knot = path.holes[0]
    if not found and not any(min(s.start, s.end) < knot < max(s.start, s.end) and s.side == path.start_side for s in path.spans):
        found.append(Fault("untied", f"no long stitch passes hole {knot} {path.start_side}, so the knot has nothing to be tied over"))
    return tuple(found)
