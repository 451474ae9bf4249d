"""The list of books: lists, copies, files in and out."""

from __future__ import annotations

import json
import re
import unicodedata
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

from pleat.core.bookfile import read_book, write_book
from pleat.core.materials.table import write_table
from pleat.services import books, counts, materials
from pleat.services.following import let_go
from pleat.services.planned import plan_of
from pleat.store import books as book_store
from pleat.store import items as item_store


@dataclass(frozen=True)
class Listed:
    """A book as the list shows it."""

    id: int
    title: str
    changed_at: datetime
    binned_at: datetime | None
    about: dict[str, Any]


def listing(session: Session, search: str, page: int, binned: bool = False, per_page: int = 48) -> tuple[list[Listed], int]:
    """(one page of books, how many there are)."""
    rows, count = book_store.listing(session, search, binned, page, per_page)
    return [Listed(row.id, row.title, row.changed_at, row.binned_at, _about(session, row.id, row.summary)) for row in rows], count


def _about(session: Session, book_id: int, summary: str) -> dict[str, Any]:
    """What the list shows of a book; worked out anew for one that was stored before the list had portraits."""
    about: dict[str, Any] = json.loads(summary)
    if "portrait" in about:
        return about
    book = book_store.load(session, book_id, binned=True).book
    fresh: dict[str, Any] = json.loads(books.summary(book, plan_of(book, materials.tools(session))))
    return fresh


def duplicate(session: Session, book_id: int) -> int:
    """A copy with nothing ticked; its id. Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    copy = book.model_copy(update={"title": f"{book.title[:73]} (copy)", "bench": book.bench.model_copy(update={"ticks": {}})})
    return books.add(session, copy, "", f"copied from {book.title}")


def export(session: Session, book_id: int) -> tuple[str, str]:
    """(file name, JSON text). Raises NoSuchBook."""
    book = book_store.load(session, book_id).book
    return f"{file_name(book.title)}.pleat.json", write_book(book)


def file_name(title: str) -> str:
    """A title of any script as the name of a file: letters with their marks, digits, and dashes for all else."""
    kept = "".join(c if unicodedata.category(c)[0] in "LMN" or c in "\u200c\u200d" else "-" for c in title.lower())
    return re.sub("-+", "-", kept).strip("-")[:60] or "book"


def export_all(session: Session, folder: Path) -> tuple[int, int]:
    """Every book as a file and the materials as a table into a folder, which is made; (books, materials) written."""
    folder.mkdir(parents=True, exist_ok=True)
    taken: set[str] = set()
    books_, _ = book_store.listing(session, per_page=10**9)
    for row in books_:
        name = file_name(row.title)
        while name in taken or not name:
            name = f"{file_name(row.title)}-{row.id}" if name == file_name(row.title) else f"{name}-"
        taken.add(name)
        (folder / f"{name}.pleat.json").write_text(write_book(book_store.load(session, row.id).book), encoding="utf-8")
    items = [stored.item for stored in item_store.everything(session)]
    (folder / "materials.csv").write_text("\ufeff" + write_table(items), encoding="utf-8", newline="")
    return len(taken), len(items)


def take_in(session: Session, text: bytes) -> tuple[int, list[str]]:
    """A book from a file's contents: its id, and the papers it names that are not among these materials.

    Raises BadBook and then changes nothing.
    """
    book, lost = counts.relinked(session, let_go(read_book(text)))
    return books.add(session, book, "", "taken from a file"), lost
