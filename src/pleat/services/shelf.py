"""The shelf of books and papers: lists, the bin, files in and out."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from pleat.core.book import Book, Paper
from pleat.core.bookfile import read_book, write_book
from pleat.core.cutting.yields import both_ways
from pleat.core.estimate import Estimate
from pleat.core.paper.compute import grain_axis
from pleat.core.paper.weights import thickness
from pleat.core.planning import make_plan
from pleat.services import books
from pleat.store import books as book_store
from pleat.store import papers as paper_store


@dataclass(frozen=True)
class OnShelf:
    """A book as the shelf shows it."""

    id: int
    title: str
    changed_at: datetime
    binned_at: datetime | None
    about: dict[str, Any]


@dataclass(frozen=True)
class PaperChoice:
    """A paper with what it would mean for a book: pieces a sheet gives, its thickness, whether the grain is right."""

    id: int
    paper: Paper
    caliper: Estimate | None
    gives: int
    with_grain: bool | None
    in_use: bool


def listing(session: Session, search: str, page: int, binned: bool = False, per_page: int = 48) -> tuple[list[OnShelf], int]:
    """(one page of books, how many there are)."""
    rows, count = book_store.listing(session, search, binned, page, per_page)
    return [OnShelf(row.id, row.title, row.changed_at, row.binned_at, json.loads(row.summary)) for row in rows], count


def papers(session: Session) -> dict[int, Paper]:
    return paper_store.listing(session)


def paper(session: Session, paper_id: int) -> Paper | None:
    return paper_store.load(session, paper_id)


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
    for paper_id, one in papers(session).items():
        better, _ = both_ways(part.width_mm, part.height_mm, one.sheet_width_mm, one.sheet_height_mm, grain_axis(one))
        found.append(
            PaperChoice(paper_id, one, thickness(one), better.count, better.with_grain if better.count else None, own == str(paper_id))
        )
    found.sort(key=lambda choice: (choice.gives == 0, choice.with_grain is False, choice.paper.name))
    return found


def duplicate(session: Session, book_id: int) -> int:
    """A copy with nothing ticked; its id. Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    copy = book.model_copy(update={"title": f"{book.title[:73]} (copy)", "bench": book.bench.model_copy(update={"ticks": {}})})
    return books.add(session, copy, "", f"copied from {book.title}")


def export(session: Session, book_id: int) -> tuple[str, str]:
    """(file name, JSON text). Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    name = "".join(c if c.isalnum() else "-" for c in book.title.lower()).strip("-")[:60] or "book"
    return f"{name}.pleat.json", write_book(book)


def take_in(session: Session, text: bytes) -> int:
    """A book from a file's contents; its id. Raises BadBook and then changes nothing."""
    return books.add(session, read_book(text), "", "taken from a file")
