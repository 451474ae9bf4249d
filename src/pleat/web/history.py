"""A book's history: its last states, naming one, going back to one."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from pydantic_core import PydanticCustomError
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.fields import TextRule
from pleat.services import books
from pleat.store import books as store
from pleat.web import asked
from pleat.web.database import reading, writing

pages = Blueprint("history", __name__, url_prefix="/books/<int:book_id>/history")
_NAME = TextRule("the name", 80, required=False)


@pages.get("")
def index(book_id: int) -> str:
    return _page(book_id, "")


def _page(book_id: int, problem: str) -> str:
    with reading() as session:
        title, points = store.load(session, book_id).book.title, store.history(session, book_id)
    return render_template("library/history.html", book_id=book_id, title=title, points=points, problem=problem, kept=store.EDITS_KEPT)


@pages.post("/name")
def name(book_id: int) -> AnyResponse | tuple[str, int]:
    """Name a state: it is kept for good."""
    try:
        given = str(_NAME.read(asked.word(request.form, "name", 900)))
    except PydanticCustomError as error:
        return _page(book_id, error.message()), 422
    with writing() as session:
        store.name_point(session, book_id, asked.number(request.form, "number"), given)
    return redirect(url_for("history.index", book_id=book_id), 303)


@pages.post("/back")
def back(book_id: int) -> AnyResponse:
    """Make the book what it was, as a new edit that can be undone."""
    with writing() as session:
        book, called = store.at_point(session, book_id, asked.number(request.form, "number"))
        books.change(session, book_id, None, "history", f"back to: {called}", lambda _: book)
    return redirect(url_for("workspace.show", book_id=book_id), 303)
