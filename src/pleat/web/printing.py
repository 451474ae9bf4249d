"""Printing at true size: a look at the pages, and the PDF."""

from __future__ import annotations

import threading
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Final

from flask import (
    Blueprint,
    Response,
    abort,
    current_app,
    make_response,
    redirect,
    render_template,
    request,
    url_for,
)
from markupsafe import Markup
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.whole.planning import Plan
from pleat.printing import templates
from pleat.printing.booklet import as_html, booklet
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import PaperName, PrintSheet, print_sheets, suggested
from pleat.services import books
from pleat.services.jobs import Job, Jobs
from pleat.services.library import file_name
from pleat.web.database import reading
from pleat.web.downloads import download

pages = Blueprint("print", __name__, url_prefix="/books/<int:book_id>")


@pages.get("/print")
def preview(book_id: int) -> str:
    with reading() as session:
        opened = books.open_book(session, book_id)
    paper = _paper(opened.plan)
    sheets = [
        (sheet, Markup(sheet.svg))
        for sheet in print_sheets(opened.plan, opened.book.title, paper, opened.overview)
    ]
    return render_template(
        "print/preview.html",
        opened=opened,
        sheets=sheets,
        paper=paper,
        templates={key: templates.title(file) for key, file in templates.files(opened.plan).items()},
    )


@pages.get("/booklet.<any(pdf, html):form>")
def instructions(book_id: int, form: str) -> AnyResponse:
    """How to make it: every step with its picture, as a PDF or as one page without outside parts."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    title = opened.book.title
    sheets = booklet(opened.plan, title, _paper(opened.plan), opened.overview)
    if form == "html":
        return download(as_html(sheets, title), f"{file_name(title)}-how-to-make-it.html", "text/html")
    return _set_soon(book_id, sheets, f"{title}, how to make it")


@pages.get("/templates/<name>.<any(svg, dxf):form>")
def template(book_id: int, name: str, form: str) -> Response:
    """One strip or piece at true size for another program. Answers 404 for one that this book has not."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    strip = templates.files(opened.plan).get(name)
    if strip is None:
        abort(404)
    made = templates.written(strip, form)
    kind = "image/svg+xml" if form == "svg" else "image/vnd.dxf"
    return download(made, f"{file_name(opened.book.title)}-{name}.{form}", kind)


AT_ONCE_S: Final = 0.25
"""So long a browser waits for a PDF without a word; what takes longer gets a bar."""


@dataclass(kw_only=True)
class Print(Job):
    """A PDF on its way: "setting" until it is "done" or has "failed"; what of it is done, in letters of its
    drawings."""

    book_id: int
    name: str
    made: bytes = b""
    ready: threading.Event = field(default_factory=threading.Event)


@pages.get("/print.pdf")
def pdf(book_id: int) -> AnyResponse:
    """The PDF, where it is soon done; else the page with its bar."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    sheets = print_sheets(opened.plan, opened.book.title, _paper(opened.plan), opened.overview)
    return _set_soon(book_id, sheets, opened.book.title)


def _set_soon(book_id: int, sheets: Sequence[PrintSheet], name: str) -> AnyResponse:
    job = _prints().keep(
        Print(
            book_id=book_id,
            name=name,
            state="setting",
            total=sum(len(sheet.svg) for sheet in sheets),
        )
    )
    _prints().run(job, partial(_set, sheets))
    if job.ready.wait(AT_ONCE_S):
        return _sent(job)
    return redirect(url_for("print.going_on", book_id=book_id, token=job.token), 303)


def _set(sheets: Sequence[PrintSheet], job: Print) -> None:
    def told(sheet: PrintSheet) -> None:
        job.done += len(sheet.svg)
        time.sleep(0.001)  # other requests go on meanwhile

    try:
        job.made = to_pdf(sheets, job.name, told)
        job.state = "done"
    finally:
        job.ready.set()


@pages.get("/print/<token>")
def going_on(book_id: int, token: str) -> AnyResponse:
    """How far a PDF is; the page asks again, and goes to it when it is done."""
    job = _job(book_id, token)
    if job.state == "done" and request.headers.get("HX-Request"):
        return make_response("", 200, {"HX-Redirect": url_for("print.set_pdf", book_id=book_id, token=token)})
    template = "print/_going_on.html" if request.headers.get("HX-Request") else "print/going_on.html"
    return make_response(render_template(template, job=job, state=job.state))


@pages.get("/print/<token>.pdf")
def set_pdf(book_id: int, token: str) -> AnyResponse:
    job = _job(book_id, token)
    return (
        _sent(job)
        if job.state == "done"
        else redirect(url_for("print.going_on", book_id=book_id, token=token), 303)
    )


def _sent(job: Print) -> Response:
    if job.state != "done":
        abort(500)
    return download(job.made, f"{file_name(job.name)}.pdf", "application/pdf", inline=True)


def _job(book_id: int, token: str) -> Print:
    job = _prints().find(token)
    if job is None or job.book_id != book_id:
        abort(404, "This PDF is no longer here. Print the book once more.")
    return job


def _prints() -> Jobs[Print]:
    found: Jobs[Print] = current_app.extensions["pleat_prints"]
    return found


def _paper(plan: Plan) -> PaperName:
    """As asked; else what the ruler and the papers suggest."""
    asked = request.args.get("paper")
    if asked == "letter":
        return "letter"
    if asked == "a4":
        return "a4"
    return suggested(plan)
