"""Booklets that are other books of the maker's: their closed size and thickness follow the plans of those."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.kinds import Member
from pleat.core.document.book import Book
from pleat.core.pleats.extras.kinds.booklet import Booklet
from pleat.core.whole.planning import Plan
from pleat.services.planned import plan_of
from pleat.store import books as store
from pleat.store.books import NoSuchBook


def followed(session: Session, book: Book) -> Book:
    """The book with every booklet that is another book as large and as thick as that one is planned now. One
    that is gone stays as it was."""
    items = {
        key: _now(session, item, item.book_id) if isinstance(item, Booklet) and item.book_id else item
        for key, item in book.extras.items.items()
    }
    return book if items == book.extras.items else _with(book, items)


def as_booklet(session: Session, book_id: int) -> dict[str, object]:
    """The fields of a booklet that is another book: its number, its title, its closed size and thickness.
    Raises NoSuchBook."""
    other = store.load(session, book_id).book
    return {"book_id": book_id, "title": other.title[:80], **closed(plan_of(other))}


def taken(book: Book, key: str, fields: Mapping[str, object]) -> Book:
    """The booklet of a key with these fields. Raises BadBook."""
    record = book.extras.items.get(key)
    if not isinstance(record, Booklet):
        raise BadBook([FieldProblem("", "the booklet", "", "It is not there any more.")])
    return _with(book, {**book.extras.items, key: record.model_copy(update=dict(fields))})


def let_go(book: Book) -> Book:
    """A book from elsewhere: what its booklets were there is unknown here, so they keep their size."""
    items = {
        key: item.model_copy(update={"book_id": None}) if isinstance(item, Booklet) and item.book_id else item
        for key, item in book.extras.items.items()
    }
    return book if items == book.extras.items else _with(book, items)


def closed(plan: Plan) -> dict[str, float]:
    """The closed size of a book, its thickness and how far that may be off, in mm, as the fields of a
    booklet."""
    thick = plan.cover.spine.plus(plan.extras.beyond)
    covers = 2 * plan.cover.board_mm
    found = {
        "width_mm": plan.cover.front_width_mm,
        "height_mm": plan.cover.front_height_mm,
        "thick_mm": thick.likely + covers,
        "doubt_mm": max(thick.high - thick.likely, thick.likely - thick.low),
    }
    most = {
        "width_mm": (15.0, 600.0),
        "height_mm": (15.0, 600.0),
        "thick_mm": (0.1, 80.0),
        "doubt_mm": (0.0, 40.0),
    }
    return {name: round(min(max(value, most[name][0]), most[name][1]), 3) for name, value in found.items()}


def _now(session: Session, record: Booklet, book_id: int) -> Booklet:
    try:
        return record.model_copy(update=as_booklet(session, book_id))
    except NoSuchBook:
        return record


def _with(book: Book, items: Mapping[str, Member]) -> Book:
    return book.model_copy(update={"extras": book.extras.model_copy(update={"items": dict(items)})})
