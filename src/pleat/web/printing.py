"""Printing at true size: a look at the pages, and the PDF."""

from __future__ import annotations

from flask import Blueprint, Response, abort, render_template, request
from markupsafe import Markup

from pleat.core.planning import Plan
from pleat.printing import templates
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import PaperName, print_sheets, suggested
from pleat.services import books
from pleat.services.library import file_name
from pleat.web.database import reading
from pleat.web.downloads import download

pages = Blueprint("print", __name__, url_prefix="/books/<int:book_id>")


@pages.get("/print")
def preview(book_id: int) -> str:
    with reading() as session:
        opened = books.open_book(session, book_id)
    paper = _paper(opened.plan)
    sheets = [(sheet, Markup(sheet.svg)) for sheet in print_sheets(opened.plan, opened.book.title, paper, opened.overview)]
    return render_template(
        "print/preview.html",
        opened=opened,
        sheets=sheets,
        paper=paper,
        templates={key: templates.title(one) for key, one in templates.files(opened.plan).items()},
    )


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


@pages.get("/print.pdf")
def pdf(book_id: int) -> Response:
    with reading() as session:
        opened = books.open_book(session, book_id)
    made = to_pdf(print_sheets(opened.plan, opened.book.title, _paper(opened.plan), opened.overview), opened.book.title)
    return download(made, f"{file_name(opened.book.title)}.pdf", "application/pdf", inline=True)


def _paper(plan: Plan) -> PaperName:
    """As asked; else what the ruler and the papers suggest."""
    asked = request.args.get("paper")
    return "letter" if asked == "letter" else "a4" if asked == "a4" else suggested(plan)
