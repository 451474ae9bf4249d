"""Putting a copy back: read whole with today's readers before anything is replaced, then put in the place of
everything."""

from __future__ import annotations

import shutil
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

from sqlalchemy import LargeBinary, func, select, type_coerce
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook
from pleat.core.document.bookfile import read_book
from pleat.core.materials.items import KINDS
from pleat.core.whole.planning import make_plan
from pleat.services import books, materials
from pleat.services.clock import now
from pleat.store import backups, cut_sheets, log, packings, whole
from pleat.store import items as item_store
from pleat.store.backups import BadBackup
from pleat.store.database import CannotOpen, close, migrate, open_engine, transaction
from pleat.store.models import Base, BookRow, CutSheetRow, ItemRow, LogRow, PackingRow, RevisionRow
from pleat.store.packing import Packed, unpacked
from pleat.store.putting_back import put_back

Told = Callable[[int, int], None]
"""Told how many of how many things were read."""
_AT_ONCE: Final = 100


@dataclass(frozen=True)
class PutBack:
    """A copy that took the place of everything: how many books it holds, and where what was there before is
    kept."""

    books: int
    kept: Path


def restore(database: Path, given: Path, told: Told = lambda _done, _of: None) -> PutBack:
    """Put a copy in the place of everything in a database, which is there and up to date. Raises BadBackup,
    and then nothing was changed."""
    with _prepared(database, given) as prepared:
        count = _read_whole(prepared, told)
        return PutBack(count, put_back(database, prepared, now()))


@contextmanager
def _prepared(database: Path, given: Path) -> Iterator[Path]:
    """A copy of the copy, verified and brought up to date; the one that was given stays as it is."""
    place = backups.folder(database)
    try:
        if given.exists() and given.samefile(database):
            raise BadBackup(f"{given} is the database itself: there is nothing to put back.")
        whole.verify(given)
        place.mkdir(parents=True, exist_ok=True)
        with TemporaryDirectory(prefix=".reading-", dir=place) as folder:
            prepared = Path(folder) / "copy.db"
            shutil.copyfile(given, prepared)
            with _readable("what an older Pleat kept in it"):
                migrate(prepared)
            yield prepared
    except (SQLAlchemyError, sqlite3.Error) as error:  # such as a disk that is full by now
        raise BadBackup(f"The copy could not be read: {getattr(error, 'orig', error)}.") from error
    except OSError as error:
        raise BadBackup(f"{error.filename or place} cannot be used ({error.strerror}).") from error


def _read_whole(prepared: Path, told: Told) -> int:
    """Read everything in a copy as it would be read once it is ours, and what lists show of it anew; how many
    books it holds.

    Raises BadBackup naming the first thing that cannot be read.
    """
    engine = open_engine(prepared)
    try:
        with transaction(engine) as session:
            of = sum(
                session.scalar(select(func.count()).select_from(table)) or 0
                for table in (RevisionRow, ItemRow, BookRow)
            )
            done = 0
            for read in (_items, _states, _cut_sheets, _log, _plain_rows, _summaries):
                for one in _read(read(session)):
                    done += one
                    told(done, of)
            return (
                session.scalar(select(func.count()).select_from(BookRow).where(BookRow.binned_at.is_(None)))
                or 0
            )
    finally:
        close(engine)


def _items(session: Session) -> Iterator[int]:
    """What a thing is searched and sorted by is made from the thing itself, not taken over."""
    for row in session.scalars(select(ItemRow).order_by(ItemRow.id)):
        with _readable(f"number {row.id} of the materials"):
            if row.kind not in KINDS:
                raise ValueError(f"there is no kind “{row.kind[:20]}”")
            item = KINDS[row.kind].model.model_validate_json(row.document)
            for name, value in item_store.columns_of(item, row.changed_at).items():
                setattr(row, name, value)
        yield 1


def _states(session: Session) -> Iterator[int]:
    packed = type_coerce(
        RevisionRow.document, LargeBinary
    )  # unpacked one by one, so that the one that cannot be is named
    rows = session.execute(
        select(RevisionRow.book_id, RevisionRow.number, packed).execution_options(yield_per=_AT_ONCE)
    )
    for book_id, number, state in rows:
        with _readable(f"state {number} of book {book_id}"):
            read_book(unpacked(state))
        yield 1


def _cut_sheets(session: Session) -> Iterator[int]:
    for number, document in session.execute(select(CutSheetRow.id, CutSheetRow.document)):
        with _readable(f"number {number} of the sheets that were cut"):
            cut_sheets.read(document)
        yield 0
    for key, document in session.execute(select(PackingRow.key, PackingRow.document)):
        with _readable(f"the plan of sheets {key[:8]}"):
            packings.read(document)
        yield 0


def _log(session: Session) -> Iterator[int]:
    """What was noted: pictures go out to a browser as JPEG, so that is what they have to be."""
    for number, kind, text, begin in session.execute(
        select(LogRow.id, LogRow.kind, LogRow.text, func.substr(LogRow.picture, 1, len(log.JPEG)))
    ):
        with _readable(f"number {number} of the log"):
            if kind not in log.KINDS:
                raise ValueError(f"nothing of the kind “{kind[:20]}” happens")
            if kind == "ticked" and not log.is_count(text):
                raise ValueError("it counts no copies")
            if begin is not None and bytes(begin) != log.JPEG:
                raise ValueError("its picture is none")
        yield 0


def _plain_rows(session: Session) -> Iterator[int]:
    """Every row of the other tables, with its times; those that name a zone would not be held against
    others."""
    for table in Base.metadata.sorted_tables:
        columns = [
            column for column in table.columns if not isinstance(column.type, Packed)
        ]  # states were read already
        with _readable(f"the table “{table.name}”"):
            for row in session.execute(select(*columns).execution_options(yield_per=_AT_ONCE)):
                if any(getattr(value, "tzinfo", None) is not None for value in row):
                    raise ValueError("a time in it names its zone")
        yield 0


def _summaries(session: Session) -> Iterator[int]:
    """What the list of books shows is drawn anew from each book: nothing that is drawn comes from outside."""
    tools = materials.tools(session)
    for row in session.scalars(select(BookRow).order_by(BookRow.id)):
        with _readable(f"“{row.title[:60]}”"):
            book = read_book(session.get_one(RevisionRow, (row.id, row.head)).document)
            row.title, row.summary = book.title, books.summary(book, make_plan(book, tools))
        yield 1


def _read(rows: Iterator[int]) -> Iterator[int]:
    """The same, where fetching the next row may fail as well."""
    while True:
        with _readable("one of its rows"):
            one = next(rows, None)
        if one is None:
            return
        yield one


@contextmanager
def _readable(what: str) -> Iterator[None]:
    """Raises BadBackup naming what could not be read, whatever was wrong with it: a copy may hold
    anything."""
    try:
        yield
    except (BadBackup, OSError):
        raise
    except CannotOpen as error:
        raise BadBackup(
            "The copy cannot be brought up to date: "
            f"{error.text.partition(' cannot be opened: ')[2] or error.text}"
        ) from error
    except BadBook as error:
        raise BadBackup(
            f"The copy holds what this Pleat cannot read: {what}. {error.problems[0].message}"
        ) from error
    except Exception as error:
        said = (str(error).splitlines() or [""])[0][:120]
        raise BadBackup(
            f"The copy holds what this Pleat cannot read: {what} ({said or type(error).__name__})."
        ) from error
