"""The sheets that were cut for each book: facts, which no state of a book holds."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from datetime import datetime
from typing import Final

from pydantic import TypeAdapter
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from pleat.core.materials.sheet import CutSheet
from pleat.store.models import CutSheetRow

_READER: Final = TypeAdapter(CutSheet)
LARGEST_MM: Final = 1e6
MOST_PIECES: Final = 1_000_000


def read(document: str, number: int = 0) -> CutSheet:
    """A fact from its text. Raises ValueError for one that cannot be."""
    fact = replace(_READER.validate_json(document), number=number)
    sheet = fact.sheet
    sides = [sheet.width_mm, sheet.height_mm]
    sides += [side for piece in sheet.pieces for side in (piece.width_mm, piece.height_mm)]
    sides += [side for box in sheet.offcuts for side in box[2:]]
    if not all(0 < side < LARGEST_MM for side in sides):
        raise ValueError("a length in it cannot be")
    if not all(0 < count < MOST_PIECES for count in (sheet.times, *sheet.counts().values())):
        raise ValueError("a count in it cannot be")
    if not sheet.counts().keys() <= dict(fact.names).keys():
        raise ValueError("a piece in it has no name")
    return fact


def of_book(session: Session, book_id: int) -> tuple[CutSheet, ...]:
    """What was cut for a book, in the order it was."""
    rows = select(CutSheetRow.id, CutSheetRow.document).where(CutSheetRow.book_id == book_id)
    found = session.execute(rows.order_by(CutSheetRow.id))
    return tuple(read(document, number) for number, document in found)


def add(session: Session, book_id: int, fact: CutSheet, now: datetime) -> int:
    """Keep a fact under a number of its own."""
    row = CutSheetRow(book_id=book_id, document=_text(fact), cut_at=now)
    session.add(row)
    session.flush()
    return row.id


def change(session: Session, fact: CutSheet) -> None:
    session.get_one(CutSheetRow, fact.number).document = _text(fact)


def forget(session: Session, book_id: int, numbers: Iterable[int]) -> None:
    session.execute(
        delete(CutSheetRow).where(CutSheetRow.book_id == book_id, CutSheetRow.id.in_(list(numbers)))
    )


def _text(fact: CutSheet) -> str:
    return _READER.dump_json(fact).decode()
