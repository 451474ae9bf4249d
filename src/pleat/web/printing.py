"""Printing at true size: a look at the pages, and the PDF."""

from __future__ import annotations

from flask import Blueprint, Response, render_template, request
from markupsafe import Markup

from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import PaperName, print_sheets
from pleat.services import books
from pleat.web.database import reading

pages = Blueprint("print", __name__, url_prefix="/books/<int:book_id>")


@pages.get("/print")
def preview(book_id: int) -> str:
    paper = _paper()
    with reading() as session:
        opened = books.open_book(session, book_id)
    sheets = [(sheet, Markup(sheet.svg)) for sheet in print_sheets(opened.plan, opened.book.title, paper)]
    return render_template("print/preview.html", opened=opened, sheets=sheets, paper=paper)


@pages.get("/print.pdf")
def pdf(book_id: int) -> Response:
    with reading() as session:
        opened = books.open_book(session, book_id)
    made = to_pdf(print_sheets(opened.plan, opened.book.title, _paper()), opened.book.title)
    return Response(made, mimetype="application/pdf", headers={"Content-Disposition": f'inline; filename="pleat-book-{book_id}.pdf"'})


def _paper() -> PaperName:
    return "letter" if request.args.get("paper") == "letter" else "a4"
