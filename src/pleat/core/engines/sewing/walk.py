"""A thread followed from its start to its end: the stretches it lies in. One walk serves faults, lengths,
swell, words and drawings."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Final, Literal, NamedTuple

from pleat.core.engines.sewing.moves import Move, Side, Thread

What = Literal["span", "climb", "passage", "catch", "wrap", "tail", "knot"]


class Stretch(NamedTuple):
    """One stretch of thread, from one place to another on one side. ``step`` is the move it belongs to,
    counted through all threads from 0; a span and the passage after it are of one step. ``side`` of a passage
    is where it comes out."""

    thread: int
    step: int
    what: What
    row: int
    start: float
    to_row: int
    end: float
    side: Side
    kind: str = ""
    times: int = 1

    @property
    def gaps(self) -> range:
        """The gaps between holes it runs along; gap g lies between stations g and g + 1."""
        return range(int(min(self.start, self.end)), int(max(self.start, self.end)))

    @property
    def passed(self) -> range:
        """The holes it runs past without going in."""
        return range(int(min(self.start, self.end)) + 1, int(max(self.start, self.end)))


_new: Final = tuple.__new__
"""Makes a stretch without the detour of its keyword arguments: there are thousands in a thick book."""


def walk(threads: Sequence[Thread]) -> tuple[Stretch, ...]:
    """The stretches of all threads in the order they are sewn; a thread without a start has none."""
    stretches: list[Stretch] = []
    step = 0
    for number, thread in enumerate(threads):
        stretches += _walked(thread, number, step)
        step += len(thread)
    return tuple(stretches)


def _walked(thread: Thread, number: int, step: int) -> Iterable[Stretch]:
    row, at, side = 0, 0.0, thread[0].side if thread else "inside"
    for step, move in enumerate(thread, step):  # noqa: B020
        do, to, end, now, what, times = move
        if do == "catch":
            yield _new(Stretch, (number, step, "catch", row, at, to, end, side, "", 1))
            continue
        if do == "start":
            yield _new(
                Stretch, (number, step, "knot" if what == "knot" else "tail", to, end, to, end, now, "", 1)
            )
        elif at != end or row != to:
            yield _new(
                Stretch, (number, step, "span" if row == to else "climb", row, at, to, end, side, "", 1)
            )
        if do == "pass":
            yield _new(Stretch, (number, step, "passage", to, end, to, end, now, "", 1))
        elif do == "wrap":
            yield _new(Stretch, (number, step, "wrap", to, end, to, end, now, what, times))
        elif do == "tie":
            yield _new(Stretch, (number, step, "knot", to, end, to, end, now, what, 1))
        row, at, side = to, end, now


def where(thread: Sequence[Move]) -> tuple[int, float, Side]:
    """(row, place, side) of a thread after its last move. Raises ValueError for one that has not begun."""
    for move in reversed(thread):
        if move.do != "catch":
            return move.row, move.at, move.side
    raise ValueError("a thread begins with a start")
