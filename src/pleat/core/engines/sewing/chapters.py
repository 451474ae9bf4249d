"""A long sewing in parts that can be looked at one by one: a thread, or the moves until the needle reaches
another section."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.engines.sewing.moves import Sewing

LEAST: Final = 4
"""Moves of a part, at least: fewer go with the next one."""


@dataclass(frozen=True)
class Chapter:
    """Moves ``first`` to ``last``, counted through all threads from 0; ``low`` to ``high`` are the sections
    it goes to."""

    number: int
    thread: int
    first: int
    last: int
    low: int
    high: int


def chapters(sewing: Sewing) -> tuple[Chapter, ...]:
    """The parts of a sewing in order; empty without threads.

    >>> from pleat.core.engines.sewing.moves import Bed, Promise, Row
    >>> from pleat.core.engines.sewing.patterns.along import kettled, straight
    >>> bed = Bed((12.0, 60.0, 100.0, 150.0), (Row(1, 2),) * 3, 162.0)
    >>> told = chapters(Sewing(bed, (kettled(3, 4, straight),), Promise()))
    >>> [(one.first, one.last, one.high) for one in told]
    [(0, 4, 1), (5, 9, 2), (10, 15, 3)]
    """
    found: list[Chapter] = []
    step = 0
    for number, thread in enumerate(sewing.threads):
        reached, begun, low = thread[0].row, step, thread[0].row
        for at, move in enumerate(thread):
            if move.do != "catch" and move.row > reached and step + at - begun >= LEAST:
                found.append(Chapter(len(found), number, begun, step + at - 1, low, reached))
                begun, low = step + at, move.row
            if move.do != "catch":
                reached, low = max(reached, move.row), min(low, move.row)
        step += len(thread)
        found.append(Chapter(len(found), number, begun, step - 1, low, reached))
    return tuple(found)
