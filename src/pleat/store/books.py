"""The repository of books: every change is a revision, undo and redo move along them, deleting goes to the bin."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, delete, func, select
from sqlalchemy.orm import Session

from pleat.core.book import Book
from pleat.core.bookfile import read_book
from pleat.core.errors import PleatError
from pleat.store.models import BookRow, ChangeRow, RevisionRow, is_id


class NoSuchBook(PleatError):
    """There is no book of that id on the shelf (it may be in the bin)."""


class ChangedElsewhere(PleatError):
    """Another window changed the book after the version an edit was made on; the fields say what and when."""

    def __init__(self, version: int, label: str, made_at: datetime) -> None:
        self.version = version
        self.label = label
        self.made_at = made_at
        super().__init__(f"changed to version {version}: {label}")


@dataclass(frozen=True)
class Stored:
    """A book as stored: its document, its version, when it was last changed, and what undo and redo would do."""

    id: int
    book: Book
    version: int
    changed_at: datetime
    can_undo: str
    can_redo: str
    binned: bool


def add(session: Session, book: Book, summary: str, window: str, label: str, now: datetime) -> int:
    """Put a new book on the shelf; its id."""
    row = BookRow(title=book.title, summary=summary, created_at=now, changed_at=now)
    session.add(row)
    session.flush()
    session.add(RevisionRow(book_id=row.id, number=1, document=book.model_dump_json(), label=label, made_at=now))
    session.add(ChangeRow(book_id=row.id, version=1, window=window, label=label, made_at=now))
    return row.id


def load(session: Session, book_id: int, binned: bool = False) -> Stored:
    """The book as it stands. Raises NoSuchBook; a book in the bin is only found when ``binned`` is set."""
    row = _row(session, book_id, binned)
    near = session.execute(
        select(RevisionRow.number, RevisionRow.label, RevisionRow.document).where(
            RevisionRow.book_id == book_id, RevisionRow.number.between(row.head - 1, row.head + 1)
        )
    ).all()
    by_number = {number: (label, document) for number, label, document in near}
    here = by_number[row.head]
    return Stored(
        id=row.id,
        book=read_book(here[1]),
        version=row.version,
        changed_at=row.changed_at,
        can_undo=here[0] if row.head - 1 in by_number else "",
        can_redo=by_number.get(row.head + 1, ("", ""))[0],
        binned=row.binned_at is not None,
    )


def check_version(session: Session, stored: Stored, version: int, window: str) -> None:
    """Raise ChangedElsewhere when another window has changed the book since ``version``."""
    if version == stored.version:
        return
    other = session.execute(
        select(ChangeRow)
        .where(ChangeRow.book_id == stored.id, ChangeRow.version > version, ChangeRow.window != window)
        .order_by(ChangeRow.version.desc())
        .limit(1)
    ).scalar_one_or_none()
    if other:
        raise ChangedElsewhere(stored.version, other.label, other.made_at)


def save(session: Session, before: Stored, book: Book, summary: str, window: str, label: str, now: datetime) -> Stored:
    """The book as a new revision after ``before``, the one shown; what had been undone is given up."""
    row, label = _row(session, before.id), label[:200]
    if before.can_redo:
        session.execute(delete(RevisionRow).where(RevisionRow.book_id == row.id, RevisionRow.number > row.head))
    row.head += 1
    row.title = book.title
    session.add(RevisionRow(book_id=row.id, number=row.head, document=book.model_dump_json(), label=label, made_at=now))
    _changed(session, row, summary, window, label, now)
    return Stored(row.id, book, row.version, now, can_undo=label, can_redo="", binned=False)


def step(session: Session, book_id: int, by: int, window: str, now: datetime) -> Book | None:
    """Undo (``by`` = -1) or redo (+1): the book then shown, None when there is nothing to undo or redo."""
    row = _row(session, book_id)
    target = session.get(RevisionRow, (book_id, row.head + by))
    if target is None:
        return None
    row.head += by
    book = read_book(target.document)
    row.title = book.title
    _changed(session, row, row.summary, window, "undo" if by < 0 else "redo", now)
    return book


def set_summary(session: Session, book_id: int, summary: str) -> None:
    _row(session, book_id).summary = summary


def move_to_bin(session: Session, book_id: int, now: datetime) -> None:
    _row(session, book_id).binned_at = now


def restore(session: Session, book_id: int) -> None:
    _row(session, book_id, binned=True).binned_at = None


def listing(session: Session, search: str = "", binned: bool = False, page: int = 1, per_page: int = 48) -> tuple[Sequence[BookRow], int]:
    """(rows of one page, how many there are), newest change first; ``search`` looks in titles."""
    where: list[ColumnElement[bool]] = [BookRow.binned_at.is_not(None) if binned else BookRow.binned_at.is_(None)]
    if search.strip():
        where.append(BookRow.title.icontains(search.strip(), autoescape=True))
    count = session.scalar(select(func.count()).select_from(BookRow).where(*where)) or 0
    rows = session.scalars(
        select(BookRow).where(*where).order_by(BookRow.changed_at.desc(), BookRow.id.desc()).offset((page - 1) * per_page).limit(per_page)
    ).all()
    return rows, count


def _row(session: Session, book_id: int, binned: bool = False) -> BookRow:
    row = session.get(BookRow, book_id) if is_id(book_id) else None
    if row is None or (row.binned_at is not None and not binned):
        raise NoSuchBook(book_id)
    return row


def _changed(session: Session, row: BookRow, summary: str, window: str, label: str, now: datetime) -> None:
    row.version += 1
    row.changed_at = now
    row.summary = summary
    session.add(ChangeRow(book_id=row.id, version=row.version, window=window, label=label[:200], made_at=now))
