"""The shelf of books: lists, copies, files in and out."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from pleat.core.bookfile import read_book, write_book
from pleat.services import books, materials
from pleat.store import books as book_store


@dataclass(frozen=True)
class OnShelf:
    """A book as the shelf shows it."""

    id: int
    title: str
    changed_at: datetime
    binned_at: datetime | None
    about: dict[str, Any]


def listing(session: Session, search: str, page: int, binned: bool = False, per_page: int = 48) -> tuple[list[OnShelf], int]:
    """(one page of books, how many there are)."""
    rows, count = book_store.listing(session, search, binned, page, per_page)
    return [OnShelf(row.id, row.title, row.changed_at, row.binned_at, json.loads(row.summary)) for row in rows], count


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
    book = read_book(text)
    # the numbers of another machine's shelf mean other things on this one
    own = materials.with_papers(book, lambda paper: paper.model_copy(update={"stock_id": None}))
    return books.add(session, own, "", "taken from a file")
