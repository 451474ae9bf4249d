"""Practising a book's stitch: what was sewn so far, what the last tap was, and what is missed often."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.engines.sewing import notation, practice
from pleat.core.engines.sewing.chapters import Chapter, chapters
from pleat.core.engines.sewing.moves import Do, Move, Sewing
from pleat.core.engines.sewing.practice import Answer
from pleat.core.engines.sewing.walk import walk, where
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.store import practice as kept
from pleat.store.practice import PractisedMove

Tap = tuple[Do, int, int]
"""What to do, the section and the hole."""
PARTS: Final = 4
"""Sections that are practised: after them a stitch repeats."""
BEHIND: Final = 4


@dataclass(frozen=True)
class Practice:
    """How far one has come: the moves sewn, how many there are to practise, what the last tap was, taps and
    right ones at first try."""

    result: SewnResult
    sewn: tuple[Move, ...]
    goal: int
    last: Answer | None
    taps: int
    rights: int
    missed: bool
    weak: tuple[PractisedMove, ...]

    @property
    def done(self) -> bool:
        return len(self.sewn) >= self.goal

    @property
    def text(self) -> str:
        return (
            notation.write(practice.threads_of(self.sewn), len(self.result.positions_mm)) if self.sewn else ""
        )

    @property
    def praise(self) -> str:
        """A word on how it went that nobody is ashamed of."""
        if self.rights >= self.goal:
            return "Every move right at the first tap. Take a needle."
        if 4 * self.rights >= 3 * self.goal:
            return "Nearly all of it is in the fingers. One more time, and it stays."
        return "You have sewn it to the end. The moves that were new come easier the second time."


def start(session: Session, result: SewnResult) -> Practice:
    """Nothing sewn yet."""
    return Practice(result, (), _goal(result), None, 0, 0, False, tuple(kept.weak(session, result.pattern)))


def _goal(result: SewnResult) -> int:
    parts = chapters(result.sewing)
    return parts[min(PARTS, len(parts)) - 1].last + 1


def tap(session: Session, result: SewnResult, text: str, move: Tap, score: tuple[int, int, bool]) -> Practice:
    """What was sewn with one tap more: a right one is sewn, a wrong one explained; both are noted for the
    stitch."""
    ways = practice.variants(result.sewing)
    sewn = _read(text, result, ways)
    taps, rights, missed = score
    wanted = practice.allowed(ways, sewn)
    made = practice.tapped(ways, sewn, *move)
    answer = practice.judge(ways, sewn, made)
    spot = practice.judge(ways, sewn, wanted[0]).text if wanted else ""
    if spot:
        kept.note(session, result.pattern, spot, answer.right)
    if answer.right:
        sewn, rights = (*sewn, made), rights + (not missed)
    return Practice(
        result,
        sewn,
        _goal(result),
        answer,
        taps + 1,
        rights,
        not answer.right,
        tuple(kept.weak(session, result.pattern)),
    )


def _read(text: str, result: SewnResult, ways: Sequence[Sewing]) -> tuple[Move, ...]:
    """What was sewn, as the page says it; nothing where that is none of the ways."""
    try:
        moves = (
            tuple(move for thread in notation.read(text, len(result.positions_mm)) for move in thread)
            if text.strip()
            else ()
        )
    except notation.BadSewing:
        return ()
    return moves if practice.alive(ways, moves) else ()


def shown(
    result: SewnResult, moves: Sequence[Move], promise: Sewing | None = None
) -> tuple[SewnResult, Chapter]:
    """A result with only these moves on it, and the part that shows where the needle is."""
    threads = practice.threads_of(moves)
    sewing = replace(promise or result.sewing, threads=threads)
    row = where(threads[-1])[0] if threads else 1
    low = max(1, row - BEHIND)
    return replace(result, sewing=sewing, stretches=walk(threads)), Chapter(
        0, 0, 0, max(len(moves) - 1, 0), low, row
    )
