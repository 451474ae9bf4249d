"""A book's history: its last states, naming one, going back to one."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from pydantic_core import PydanticCustomError
from sqlalchemy.orm import Session
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.base.fields import TextRule
from pleat.services import books
from pleat.store import books as store
from pleat.store.books import ChangedElsewhere
from pleat.web import asked
from pleat.web.database import reading, writing

pages = Blueprint("history", __name__, url_prefix="/books/<int:book_id>/history")
_NAME = TextRule("the name", 80, required=False)


@pages.get("")
def index(book_id: int) -> str:
    return _page(book_id, "")


def _page(book_id: int, problem: str) -> str:
    with reading() as session:
        stored, points = store.load(session, book_id), store.history(session, book_id)
    return render_template(
        "library/history.html", stored=stored, points=points, problem=problem, kept=store.EDITS_KEPT
    )


def _asked_for(session: Session, book_id: int) -> int:
    """The number of the state that the form names. Raises ChangedElsewhere where the page is old: numbers are
    used again after undo."""
    store.check_version(
        session, store.load(session, book_id), asked.number(request.form, "version", -1, -1), "history"
    )
    return asked.number(request.form, "number")


def _changed(book_id: int, error: ChangedElsewhere) -> tuple[str, int]:
    said = (
        f"The book was changed since this page was shown ({error.label}), and nothing was done. This is "
        "its history now: look again."
    )
    return _page(book_id, said), 409


@pages.post("/name")
def name(book_id: int) -> AnyResponse | tuple[str, int]:
    """Name a state: it is kept for good."""
    try:
        given = str(_NAME.read(asked.word(request.form, "name", 900)))
    except PydanticCustomError as error:
        return _page(book_id, error.message()), 422
    try:
        with writing() as session:
            store.name_point(session, book_id, _asked_for(session, book_id), given)
    except ChangedElsewhere as error:
        return _changed(book_id, error)
    return redirect(url_for("history.index", book_id=book_id), 303)


@pages.post("/back")
def back(book_id: int) -> AnyResponse | tuple[str, int]:
    """Make the book what it was, as a new edit that can be undone."""
    try:
        with writing() as session:
            book, called = store.at_point(session, book_id, _asked_for(session, book_id))
            books.change(session, book_id, None, "history", f"back to: {called}", lambda _: book)
    except ChangedElsewhere as error:
        return _changed(book_id, error)
    return redirect(url_for("workspace.show", book_id=book_id), 303)
