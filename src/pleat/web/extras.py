"""What is done on the Extras pleat beyond typing: put something in, on more faces, off again; which face is
looked at; staggering, shown before it is done."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Final

from flask import Blueprint, Response, g, make_response, render_template, request

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.labels import design_named
from pleat.core.pleats.extras import placing
from pleat.core.pleats.extras.faces import in_words
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.whole.planning import PLEATS
from pleat.drawing.bulk import bulk_map
from pleat.drawing.svg import render_screen
from pleat.services import books, following, library
from pleat.services import extras as putting
from pleat.services.planned import plan_of
from pleat.store.books import NoSuchBook
from pleat.web import asked
from pleat.web.database import reading
from pleat.web.display import drawn
from pleat.web.pleats import questions, view
from pleat.web.workspace import change

pages = Blueprint("extras", __name__, url_prefix="/books/<int:book_id>/extras")
SECONDS: Final = 0.9
SHOWN: Final = 100
"""So many books are offered as a booklet, those changed last."""


@pages.get("")
def look(book_id: int) -> Response:
    """Another face, or another design, to be looked at."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    return make_response(
        render_template(
            "extras/_look.html",
            opened=opened,
            name="extras",
            views={"extras": view("extras", opened)},
            questions=questions(opened),
            pleats=PLEATS,
            open="extras",
        )
    )


@pages.post("/put")
def put(book_id: int) -> Response:
    """Something new on the face that is looked at."""
    kind, face = asked.word(request.form, "kind", 30), asked.word(request.form, "on", 120)

    def alter(book: Book) -> Book:
        after = putting.put(book, kind, face)
        g.put_in = next(reversed(after.extras.items))
        return after

    known = EXTRAS.find(kind)
    name = known.title if known else kind
    return change(book_id, f"put in: {name}", alter)


@pages.post("/also")
def also(book_id: int) -> Response:
    """A design on the face that is looked at as well."""
    key, face = asked.word(request.form, "which", 40), asked.word(request.form, "on", 120)
    return change(
        book_id,
        lambda book: f"{design_named(key, book)} on {in_words(face)}",
        lambda book: _changed(book, placing.also_on(book.extras, key, face)),
    )


@pages.post("/off")
def off(book_id: int) -> Response:
    """A design taken off one place, or altogether."""
    key, number = asked.word(request.form, "which", 40), asked.number(request.form, "place", -1, -1)
    if number is None or number < 0:
        return change(
            book_id,
            lambda book: f"{design_named(key, book)} taken out",
            lambda book: editing.apply(book, placing.removed(book.extras, key)),
        )
    return change(
        book_id,
        lambda book: f"{design_named(key, book)} taken off",
        lambda book: _changed(book, placing.off(book.extras, key, number)),
    )


@pages.get("/books")
def others(book_id: int) -> str:
    """The maker's other books, to be taken as the booklet that is looked at."""
    with reading() as session:
        opened = books.open_book(session, book_id)
        rows = [
            (row.id, row.title)
            for row in library.listing(session, "", 1, per_page=SHOWN)[0]
            if row.id != book_id
        ]
    return render_template(
        "extras/_books.html", opened=opened, rows=rows, design=asked.word(request.args, "design", 40)
    )


@pages.post("/booklet")
def booklet(book_id: int) -> Response:
    """A booklet made to follow another book, or let go of it."""
    key, other = asked.word(request.form, "which", 40), asked.number(request.form, "other")
    if other == book_id:
        raise NoSuchBook(other)
    with reading() as session:
        fields = following.as_booklet(session, other) if other else {"book_id": None}
    return change(
        book_id,
        "taken as the booklet" if other else "let go of its book",
        lambda book: following.taken(book, key, fields),
    )


def _changed(book: Book, changes: placing.Changes | None) -> Book:
    if changes is None:
        raise BadBook([FieldProblem("", "this", "", "It is there already, or not there any more.")])
    return editing.apply(book, changes)


def _in_time() -> Callable[[], bool]:
    end = time.monotonic() + SECONDS
    return lambda: time.monotonic() < end


@pages.get("/stagger")
def stagger(book_id: int) -> str:
    """The map before and after staggering."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    result, pages_ = opened.plan.extras, opened.plan.pages
    changes, after = placing.staggered(result, _in_time())
    ruler = opened.plan.brief.ruler
    maps = [
        drawn(
            render_screen(
                bulk_map(bulk, pages_.leaf_width_mm, pages_.leaf_height_mm, ruler, result.worst.thick.likely),
                250,
                270,
            )
        )
        for bulk in (result.bulk, after)
    ]
    return render_template(
        "extras/_stagger.html",
        opened=opened,
        maps=maps,
        before=result.worst.thick,
        after=after.worst().thick,
        changes=changes,
    )


@pages.post("/stagger")
def staggered(book_id: int) -> Response:
    """Take what staggering proposes."""

    def alter(book: Book) -> Book:
        changes, _ = placing.staggered(plan_of(book).extras, _in_time())
        return editing.apply(book, changes) if changes else book

    return change(book_id, "staggered", alter)
