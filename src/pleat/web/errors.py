"""What a maker sees when something is not there or went wrong; never a bare status line."""

from __future__ import annotations

from flask import Flask, render_template, request
from flask_wtf.csrf import CSRFError
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import Forbidden, HTTPException, NotFound

from pleat.store.books import NoSuchBook
from pleat.store.epochs import PutBackSince
from pleat.store.items import NoSuchItem

_WORDS = {
    403: ("That is not let in", "Reload the page and try again."),
    404: ("There is nothing here", "The address may be mistyped, or the book is in the bin."),
    405: ("That does not work this way", "Go back to your books and try from there."),
    413: (
        "That file is too large",
        "A book file is a few kilobytes, a table of materials at most a few megabytes. Is it the right file?",
    ),
    500: (
        "Pleat made a mistake",
        "Nothing was changed, and your books are as they were. Go back and try it another way.",
    ),
}


def register(app: Flask) -> None:
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(NoSuchBook, lambda _: _page(404))
    app.register_error_handler(NoSuchItem, lambda _: _page(404))
    app.register_error_handler(OperationalError, _database)
    app.register_error_handler(PutBackSince, _put_back_since)
    app.register_error_handler(
        CSRFError,
        lambda _: _page(
            400,
            "This page is too old",
            "It was opened before Pleat was last started afresh. Reload it and try again; what you typed is "
            "still in its field.",
        ),
    )


def _http(error: HTTPException) -> tuple[str, int]:
    title, text = _WORDS.get(
        error.code or 500, ("That could not be done", error.description or "Go back and try again.")
    )
    own = {404: NotFound.description, 403: Forbidden.description}.get(error.code or 0)
    if own and error.description and error.description != own:
        text = error.description
    return _page(error.code or 500, title, text)


def _put_back_since(_: PutBackSince) -> tuple[str, int]:
    return _page(
        409,
        "A copy was put back",
        "Everything here was replaced since this page was opened, and your change was not made. Reload the "
        "page to see what is there now.",
    )


_DATABASE = (
    (
        "locked",
        "Pleat's file is in use",
        "Another program has held it for more than five seconds. Close that one and try again.",
    ),
    ("full", "The disk is full", "Nothing was changed. Make room on it and try again."),
    (
        "readonly",
        "Pleat's file may not be written to",
        "Nothing was changed. Give yourself the right to write to it, or move it where you have it.",
    ),
)


def _database(error: OperationalError) -> tuple[str, int]:
    """What stands in the way of reading or writing the database, in words."""
    said = str(error.orig)
    for sign, title, text in _DATABASE:
        if sign in said:
            return _page(503, title, f"{text} What you typed is still in its field.")
    return _page(
        503,
        "Pleat's file cannot be used",
        f"Nothing was changed ({said[:120]}). A copy of a day before is in the folder beside it.",
    )


def _page(code: int, title: str = _WORDS[404][0], text: str = _WORDS[404][1]) -> tuple[str, int]:
    if request.headers.get("HX-Request"):
        return render_template("_notice_swap.html", title=title, text=text), code
    return render_template("error.html", title=title, text=text), code
