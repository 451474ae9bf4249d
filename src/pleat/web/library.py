"""The list of books: start, find, rename, copy, bin, files in and out."""

from __future__ import annotations

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.words import by_count
from pleat.core.document import editing
from pleat.core.document.bookfile import LARGEST_FILE
from pleat.services import books, library
from pleat.services.clock import now
from pleat.store import books as store
from pleat.web import asked
from pleat.web.database import reading, writing
from pleat.web.downloads import download

pages = Blueprint("library", __name__)
PER_PAGE = 48


@pages.get("/")
def index() -> str:
    return _list(binned=False)


@pages.get("/bin")
def bin_() -> str:
    return _list(binned=True)


def _list(binned: bool, problems: list[FieldProblem] | None = None, notice: str = "") -> str:
    search, page = asked.word(request.args, "q"), asked.number(request.args, "page", 1, 1, 10**6)
    with reading() as session:
        found, count = library.listing(session, search, page, binned, PER_PAGE)
        in_bin = store.binned(session) if binned else []
    template = "library/bin.html" if binned else "library/index.html"
    return render_template(
        template,
        found=found,
        in_bin=in_bin,
        count=count,
        search=search,
        page=page,
        last=max(1, -(-count // PER_PAGE)),
        problems=problems or [],
        notice=notice,
    )


@pages.post("/import")
def take_in() -> AnyResponse | tuple[str, int]:
    file = request.files.get("file")
    try:
        if file is None or not file.filename:
            raise BadBook(
                [FieldProblem("", "the file", "", "Choose a book file first: it ends in .pleat.json.")]
            )
        with writing() as session:
            book_id, lost = library.take_in(session, file.read(LARGEST_FILE + 2))
    except BadBook as error:
        return _list(binned=False, problems=error.problems), 422
    if lost:
        names = ", ".join(lost[:4]) + (" and others" if len(lost) > 4 else "")
        flash(
            f"{names} {by_count(len(lost), 'is', 'are')} not among your materials: the book keeps what it "
            "knows, and counts nothing there. Pick yours under Paper."
        )
    return redirect(url_for("workspace.show", book_id=book_id), 303)


@pages.get("/books/<int:book_id>/export")
def export(book_id: int) -> Response:
    with reading() as session:
        name, text = library.export(session, book_id)
    return download(text, name, "application/json")


@pages.post("/books/<int:book_id>/rename")
def rename(book_id: int) -> AnyResponse | tuple[str, int]:
    title = asked.word(request.form, "title", 900)
    try:
        with writing() as session:
            books.change(
                session,
                book_id,
                None,
                "list",
                f"title: {title[:60]}",
                lambda book: editing.edit(book, {"title": title}),
            )
    except BadBook as error:
        return _list(binned=False, problems=error.problems), 422
    return redirect(url_for("library.index"), 303)


@pages.post("/books/<int:book_id>/duplicate")
def duplicate(book_id: int) -> AnyResponse:
    with writing() as session:
        copy = library.duplicate(session, book_id)
    return redirect(url_for("workspace.show", book_id=copy), 303)


@pages.post("/books/<int:book_id>/bin")
def put_in_bin(book_id: int) -> AnyResponse:
    with writing() as session:
        store.move_to_bin(session, book_id, now())
    return redirect(url_for("library.index"), 303)


@pages.post("/books/<int:book_id>/restore")
def restore(book_id: int) -> AnyResponse:
    with writing() as session:
        store.restore(session, book_id)
    return redirect(url_for("library.index"), 303)


@pages.post("/bin/empty")
def empty_bin() -> AnyResponse:
    """Throw away for good what the page showed in the bin, and said what that means; what another window put
    there since stays."""
    shown = [
        int(one)
        for one in asked.word(request.form, "shown", 2_000_000).split()
        if one.isascii() and one.isdecimal() and len(one) < 19
    ]
    with writing() as session:
        count, left = store.empty_bin(session, shown), len(store.binned(session))
    since = (
        f" {left} {by_count(left, 'was', 'were')} put here since, and {by_count(left, 'stays', 'stay')}."
        if left
        else ""
    )
    flash(f"{count} {by_count(count, 'book is', 'books are')} gone for good.{since}")
    return redirect(url_for("library.bin_"), 303)
