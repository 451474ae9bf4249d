"""The repository of books: every change is a revision, undo and redo move along them, deleting goes to the
bin."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Final

from sqlalchemy import BindParameter, ColumnElement, Select, bindparam, delete, exists, func, or_, select
from sqlalchemy.orm import Session, aliased

from pleat.core.base.errors import BadBook, FieldProblem, PleatError
from pleat.core.document.book import Book
from pleat.core.document.bookfile import LARGEST_FILE, read_book
from pleat.store.models import BookRow, ChangeRow, RevisionRow, is_id


class NoSuchBook(PleatError):
    """There is no book of that id (it may be in the bin)."""


class ChangedElsewhere(PleatError):
    """Another window changed the book after the version an edit was made on; the fields say what and when."""

    def __init__(self, version: int, label: str, made_at: datetime) -> None:
        self.version = version
        self.label = label
        self.made_at = made_at
        super().__init__(f"changed to version {version}: {label}")


@dataclass(frozen=True)
class Stored:
    """A book as stored: its document, its version, when it was last changed, and what undo and redo would
    do."""

    id: int
    book: Book
    version: int
    changed_at: datetime
    can_undo: str
    can_redo: str
    binned: bool


def add(session: Session, book: Book, summary: str, window: str, label: str, now: datetime) -> int:
    """Add a new book; its id."""
    document = _document(book)
    row = BookRow(title=book.title, summary=summary, created_at=now, changed_at=now)
    session.add(row)
    session.flush()
    session.add(RevisionRow(book_id=row.id, number=1, document=document, label=label[:200], made_at=now))
    session.add(ChangeRow(book_id=row.id, version=1, window=window, label=label[:200], made_at=now))
    return row.id


def load(session: Session, book_id: int, binned: bool = False) -> Stored:
    """The book as it stands. Raises NoSuchBook; a book in the bin is only found when ``binned`` is set."""
    row = _row(session, book_id, binned)
    label, document, older, newer = session.execute(_SHOWN, {"book": row.id, "head": row.head}).one()
    return Stored(
        id=row.id,
        book=_read.get(document) or _remembered(document, read_book(document)),
        version=row.version,
        changed_at=row.changed_at,
        can_undo=label if older else "",
        can_redo=newer or "",
        binned=row.binned_at is not None,
    )


def _shown() -> Select[str, str, bool, str | None]:
    """(label, document, whether one is before it, the label of the one after it) of the revision that is
    shown."""
    book: BindParameter[int] = bindparam("book")
    head: BindParameter[int] = bindparam("head")
    other = aliased(RevisionRow)
    before = exists().where(other.book_id == book, other.number < head)
    after = (
        select(other.label)
        .where(other.book_id == book, other.number > head)
        .order_by(other.number)
        .limit(1)
        .scalar_subquery()
    )
    return select(RevisionRow.label, RevisionRow.document, before, after).where(
        RevisionRow.book_id == book, RevisionRow.number == head
    )


_SHOWN: Final = _shown()
_read: Final[dict[str, Book]] = {}
"""Books by their documents, those read or written last: the next edit begins with what the one before it
wrote."""
_REMEMBERED: Final = 12


def _remembered(document: str, book: Book) -> Book:
    _read[document] = book
    for old in list(_read)[:-_REMEMBERED]:
        _read.pop(old, None)
    return book


def _beside(session: Session, row: BookRow, by: int) -> int | None:
    """The number of the revision before (-1) or after (+1) the one shown; older ones may have been thinned
    out."""
    own = RevisionRow.book_id == row.id
    if by < 0:
        return session.scalar(select(func.max(RevisionRow.number)).where(own, RevisionRow.number < row.head))
    return session.scalar(select(func.min(RevisionRow.number)).where(own, RevisionRow.number > row.head))


def check_version(session: Session, stored: Stored, version: int, window: str) -> None:
    """Raise ChangedElsewhere when another window has changed the book since ``version``, or no window ever
    saw that one."""
    if version == stored.version:
        return
    if not 0 < version < stored.version:
        raise ChangedElsewhere(stored.version, "a state that this page does not know", stored.changed_at)
    other = session.execute(
        select(ChangeRow)
        .where(ChangeRow.book_id == stored.id, ChangeRow.version > version, ChangeRow.window != window)
        .order_by(ChangeRow.version.desc())
        .limit(1)
    ).scalar_one_or_none()
    if other:
        raise ChangedElsewhere(stored.version, other.label, other.made_at)


def save(
    session: Session, before: Stored, book: Book, summary: str, window: str, label: str, *, now: datetime
) -> Stored:
    """The book as a new revision after ``before``, the one shown; what had been undone is given up. Raises
    BadBook for one too large."""
    row, label = _row(session, before.id), label[:200]
    document = _document(book)
    if before.can_redo:
        session.execute(
            delete(RevisionRow).where(RevisionRow.book_id == row.id, RevisionRow.number > row.head)
        )
    row.head += 1
    row.title = book.title
    session.add(RevisionRow(book_id=row.id, number=row.head, document=document, label=label, made_at=now))
    _changed(session, row, summary, window, label, now)
    if row.head % _THIN_EVERY == 0:
        thin(session, row.id)
    return Stored(row.id, book, row.version, now, can_undo=label, can_redo="", binned=False)


def amend(
    session: Session,
    before: Stored,
    book: Book,
    summary: str,
    window: str,
    *,
    now: datetime,
    label: str = "ruler",
) -> Stored:
    """The book with something changed that is no step of the work, such as the ruler or a sheet that was cut:
    no revision, nothing to undo or lost to redo."""
    row = _row(session, before.id)
    revision = session.get_one(RevisionRow, (row.id, row.head))
    revision.document = _document(book)
    _changed(session, row, summary, window, label, now)
    return replace(before, book=book, version=row.version, changed_at=now)


def _document(book: Book) -> str:
    document = book.model_dump_json()
    if len(document) > LARGEST_FILE:
        raise BadBook(
            [
                FieldProblem(
                    "",
                    "the book",
                    "",
                    "It would be over 1 MB, more than Pleat can open again. Nothing was changed.",
                )
            ]
        )
    _remembered(document, book)
    return document


def step(session: Session, book_id: int, by: int, window: str, now: datetime) -> Book | None:
    """Undo (``by`` = -1) or redo (+1): the book then shown, None when there is nothing to undo or redo."""
    row = _row(session, book_id)
    number = _beside(session, row, by)
    if number is None:
        return None
    row.head = number
    book = read_book(session.get_one(RevisionRow, (book_id, number)).document)
    row.title = book.title
    _changed(session, row, row.summary, window, "undo" if by < 0 else "redo", now)
    return book


# --- history ------------------------------------------------------------------------------------------------

EDITS_KEPT: Final = 200
_THIN_EVERY: Final = 50


@dataclass(frozen=True)
class Point:
    """A state in a book's history: its number, what was done, when, its name if it was given one, and whether
    it is the one shown."""

    number: int
    label: str
    made_at: datetime
    name: str
    shown: bool


def history(session: Session, book_id: int, most: int = EDITS_KEPT) -> list[Point]:
    """The last states of a book and every named one, newest first. Raises NoSuchBook."""
    row = _row(session, book_id)
    own = RevisionRow.book_id == book_id
    last = session.scalar(select(func.max(RevisionRow.number)).where(own)) or 0
    rows = session.scalars(
        select(RevisionRow)
        .where(own, or_(RevisionRow.number > last - most, RevisionRow.name.is_not(None)))
        .order_by(RevisionRow.number.desc())
    )
    return [Point(one.number, one.label, one.made_at, one.name or "", one.number == row.head) for one in rows]


def name_point(session: Session, book_id: int, number: int, name: str) -> None:
    """Name a state, or take its name away with "". Raises NoSuchBook for a state that is not there."""
    row = _row(session, book_id)
    revision = session.get(RevisionRow, (row.id, number)) if is_id(number) else None
    if revision is None:
        raise NoSuchBook(number)
    revision.name = name or None


def at_point(session: Session, book_id: int, number: int) -> tuple[Book, str]:
    """(the book as it was in a state, what that state is called). Raises NoSuchBook."""
    row = _row(session, book_id)
    revision = session.get(RevisionRow, (row.id, number)) if is_id(number) else None
    if revision is None:
        raise NoSuchBook(number)
    return read_book(revision.document), revision.name or revision.label


def thin(session: Session, book_id: int) -> None:
    """Keep the last 200 edits, every named state, the one shown, and of older ones the last of each day."""
    row = _row(session, book_id)
    own = RevisionRow.book_id == book_id
    last = session.scalar(select(func.max(RevisionRow.number)).where(own)) or 0
    of_days = select(func.max(RevisionRow.number)).where(own).group_by(func.date(RevisionRow.made_at))
    session.execute(
        delete(RevisionRow).where(
            own,
            RevisionRow.number <= last - EDITS_KEPT,
            RevisionRow.name.is_(None),
            RevisionRow.number != row.head,
            RevisionRow.number.not_in(of_days),
        )
    )
    session.execute(
        delete(ChangeRow).where(
            ChangeRow.book_id == book_id, ChangeRow.version <= row.version - 5 * EDITS_KEPT
        )
    )


def binned(session: Session) -> list[int]:
    """The books that lie in the bin, in the order they came into being."""
    return list(
        session.scalars(select(BookRow.id).where(BookRow.binned_at.is_not(None)).order_by(BookRow.id))
    )


def empty_bin(session: Session, shown: Collection[int]) -> int:
    """Throw away for good what lies in the bin of the books that were ``shown``; how many that were."""
    gone = sorted(set(binned(session)) & set(shown))
    if gone:
        session.connection().execute(
            delete(BookRow).where(BookRow.id == bindparam("gone")), [{"gone": one} for one in gone]
        )
    return len(gone)


def set_summary(session: Session, book_id: int, summary: str) -> None:
    _row(session, book_id).summary = summary


def move_to_bin(session: Session, book_id: int, now: datetime) -> None:
    _row(session, book_id).binned_at = now


def restore(session: Session, book_id: int) -> None:
    _row(session, book_id, binned=True).binned_at = None


def listing(
    session: Session, search: str = "", binned: bool = False, page: int = 1, per_page: int = 48
) -> tuple[Sequence[BookRow], int]:
    """(rows of one page, how many there are), newest change first; ``search`` looks in titles."""
    where: list[ColumnElement[bool]] = [
        BookRow.binned_at.is_not(None) if binned else BookRow.binned_at.is_(None)
    ]
    if search.strip():
        where.append(BookRow.title.icontains(search.strip(), autoescape=True))
    count = session.scalar(select(func.count()).select_from(BookRow).where(*where)) or 0
    rows = session.scalars(
        select(BookRow)
        .where(*where)
        .order_by(BookRow.changed_at.desc(), BookRow.id.desc())
        .offset((page - 1) * per_page)
        .limit(per_page)
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
