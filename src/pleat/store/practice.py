"""What was practised, kept per stitch and move."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from pleat.store.models import PracticeRow


@dataclass(frozen=True)
class PractisedMove:
    """One move of a stitch in words, how often it was tapped right, and how often something else was."""

    words: str
    right: int
    wrong: int


def note(session: Session, stitch: str, words: str, right: bool) -> None:
    """One more tap at a move."""
    row = session.get(PracticeRow, (stitch[:40], words[:200]))
    if row is None:
        row = PracticeRow(stitch=stitch[:40], spot=words[:200], right=0, wrong=0)
        session.add(row)
    if right:
        row.right += 1
    else:
        row.wrong += 1


def weak(session: Session, stitch: str, most: int = 3) -> list[PractisedMove]:
    """The moves that were missed most, the worst first; those right three times more often than wrong are
    learnt."""
    rows = session.scalars(
        select(PracticeRow).where(
            PracticeRow.stitch == stitch[:40],
            PracticeRow.wrong > 0,
            PracticeRow.right < 3 * PracticeRow.wrong,
        )
    )
    return sorted(
        (PractisedMove(row.spot, row.right, row.wrong) for row in rows), key=lambda one: -one.wrong
    )[:most]
