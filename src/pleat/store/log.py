"""The log of a book: rows that are added and never changed; what is struck stays."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from sqlalchemy import select
from sqlalchemy.orm import Session

from pleat.core.base.errors import PleatError
from pleat.store.models import LogRow, is_id

JPEG: Final = b"\xff\xd8\xff"
"""How every picture begins."""
KINDS: Final = ("noted", "struck", "ticked")


def is_count(text: str) -> bool:
    """Whether a text is a number of copies."""
    return text.isascii() and text.isdecimal() and len(text) < 7


class NoSuchEntry(PleatError):
    """There is no entry of that number in the book's log."""


@dataclass(frozen=True)
class LogEntry:
    """Something noted at a step: its number, the step's key, the words, when, whether there is a picture, and
    whether it was struck since."""

    number: int
    step: str
    text: str
    at: datetime
    has_picture: bool
    struck: bool


def add(session: Session, book_id: int, step: str, text: str, picture: bytes | None, now: datetime) -> int:
    """Note something; its number."""
    row = LogRow(book_id=book_id, step=step, kind="noted", text=text, picture=picture, at=now)
    session.add(row)
    session.flush()
    return row.id


def strike(session: Session, book_id: int, number: int, now: datetime) -> None:
    """Strike an entry by a row of its own. Raises NoSuchEntry."""
    row = session.get(LogRow, number) if is_id(number) else None
    if row is None or row.book_id != book_id or row.kind != "noted":
        raise NoSuchEntry(f"there is no entry {number} in the log of book {book_id}")
    session.add(LogRow(book_id=book_id, step=row.step, kind="struck", text="", strikes=number, at=now))


def entries(session: Session, book_id: int) -> tuple[LogEntry, ...]:
    """Everything noted, in the order it was; pictures are not read."""
    rows = session.execute(
        select(
            LogRow.id,
            LogRow.step,
            LogRow.kind,
            LogRow.text,
            LogRow.at,
            LogRow.strikes,
            LogRow.picture.is_not(None),
        )
        .where(LogRow.book_id == book_id)
        .order_by(LogRow.id)
    ).all()
    struck = {strikes for _, _, _, _, _, strikes, _ in rows}
    return tuple(
        LogEntry(number, step, text, at, bool(has), number in struck)
        for number, step, kind, text, at, _, has in rows
        if kind == "noted"
    )


def count(session: Session, book_id: int, step: str, copies: int, now: datetime) -> None:
    """Of how many copies a step is done by now."""
    session.add(LogRow(book_id=book_id, step=step, kind="ticked", text=str(copies), at=now))


def counts(session: Session, book_id: int) -> dict[str, int]:
    """The copies that were counted last, by the steps' keys."""
    rows = session.execute(
        select(LogRow.step, LogRow.text)
        .where(LogRow.book_id == book_id, LogRow.kind == "ticked")
        .order_by(LogRow.id)
    )
    return {step: int(text) for step, text in rows}


def picture(session: Session, book_id: int, number: int) -> bytes:
    """The JPEG of an entry. Raises NoSuchEntry."""
    found = (
        session.scalar(select(LogRow.picture).where(LogRow.id == number, LogRow.book_id == book_id))
        if is_id(number)
        else None
    )
    if found is None:
        raise NoSuchEntry(f"there is no picture {number} in the log of book {book_id}")
    return found
