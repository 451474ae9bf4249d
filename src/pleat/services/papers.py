"""The shelf of papers: what there is to start from, and what each would give a book."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.book import Book, Paper
from pleat.core.cutting.yields import both_ways
from pleat.core.estimate import Estimate
from pleat.core.materials.weights import thickness
from pleat.core.paper.compute import grain_axis
from pleat.core.planning import make_plan
from pleat.core.units import MM_PER_INCH
from pleat.store import papers as paper_store

STARTERS: Final = {
    -1: Paper(name="Copier paper, A4", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80),
    -2: Paper(
        name="Copier paper, letter", kind="copier", sheet_width_mm=8.5 * MM_PER_INCH, sheet_height_mm=11 * MM_PER_INCH, grammage=75.2
    ),
}
"""What a first book can be started from while nothing is on the shelf."""


@dataclass(frozen=True)
class PaperChoice:
    """A paper with what it would mean for a book: pieces a sheet gives, its thickness, whether the grain is right."""

    id: int
    paper: Paper
    caliper: Estimate | None
    gives: int
    with_grain: bool | None
    in_use: bool


def to_start_from(session: Session) -> dict[int, Paper]:
    """The shelf's papers by id, or two everyday ones while it is empty."""
    return paper_store.listing(session) or dict(STARTERS)


def paper(session: Session, paper_id: int) -> Paper | None:
    """A paper by its id, one of the everyday ones too; None when it is not there."""
    return STARTERS.get(paper_id) or paper_store.load(session, paper_id)


def keep(session: Session, kept: Paper) -> str:
    """Put a copy of a paper on the shelf; its name."""
    paper_store.add(session, kept)
    return kept.name


def papers_for(session: Session, book: Book, role: str) -> list[PaperChoice]:
    """Every paper on the shelf with what it gives this book, those that give something first."""
    plan = make_plan(book)
    part = next(part for part in plan.parts if part.material == role)
    own = getattr(book.paper, role).stock_id
    found = []
    for paper_id, one in paper_store.listing(session).items():
        better, _ = both_ways(part.width_mm, part.height_mm, one.sheet_width_mm, one.sheet_height_mm, grain_axis(one))
        found.append(
            PaperChoice(paper_id, one, thickness(one), better.count, better.with_grain if better.count else None, own == str(paper_id))
        )
    found.sort(key=lambda choice: (choice.gives == 0, choice.with_grain is False, choice.paper.name))
    return found
