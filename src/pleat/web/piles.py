"""The mixed pile in the Pages pleat: adding from the shelf, arranging, moving, pinning."""

from __future__ import annotations

from flask import Blueprint, Response, render_template, request

from pleat.core.book import Book
from pleat.core.errors import BadBook, FieldProblem
from pleat.services import books, materials, piles
from pleat.store.items import listing
from pleat.web import items as item_view
from pleat.web.database import reading
from pleat.web.workspace import change, not_taken

pages = Blueprint("piles", __name__, url_prefix="/books/<int:book_id>/pile")


@pages.get("/papers")
def papers(book_id: int) -> str:
    """The drawer with the shelf's papers, to add from."""
    search = request.args.get("q", "")[:80]
    with reading() as session:
        opened = books.open_book(session, book_id)
        found = listing(session, search, "paper", "", "name", 1, 30)
    cards = [(stored.id, item_view.card(stored.item, opened.plan.brief.ruler.name)) for stored in found]
    return render_template("pleats/_pile_papers.html", opened=opened, cards=cards, search=search)


@pages.post("/add")
def add(book_id: int) -> Response:
    sheets, wanted = request.form.get("sheets", 1, type=int), request.form.get("paper", 0, type=int)
    with reading() as session:
        chosen = materials.paper(session, wanted)

    def alter(book: Book) -> Book:
        if chosen is None:
            raise BadBook([FieldProblem("", "paper", "", "That paper is no longer on the shelf.")])
        return piles.add(book, chosen, sheets)

    return change(book_id, f"{sheets} × {chosen.name if chosen else '?'} on the pile", alter)


@pages.post("/remove")
def remove(book_id: int) -> Response:
    return change(book_id, "a sheet off the pile", lambda book: piles.remove(book, _sheet()))


@pages.post("/pin")
def pin(book_id: int) -> Response:
    pinned = request.form.get("on") == "1"
    return change(book_id, "pinned" if pinned else "unpinned", lambda book: piles.mark(book, _sheet(), pinned=pinned))


@pages.post("/window")
def window(book_id: int) -> Response:
    has = "yes" if request.form.get("on") == "1" else "no"
    return change(book_id, "a window" if has == "yes" else "no window", lambda book: piles.mark(book, _sheet(), window=has))


@pages.post("/pair")
def pair(book_id: int) -> Response:
    together = request.form.get("on") == "1"
    return change(book_id, "kept together" if together else "may part", lambda book: piles.pair(book, _sheet(), together))


@pages.post("/move")
def move(book_id: int) -> Response:
    section, place = request.form.get("section", 0, type=int), request.form.get("place", 0, type=int)
    return change(book_id, "a sheet moved", lambda book: piles.move(book, _sheet(), section, place))


@pages.post("/arrange")
def arrange(book_id: int) -> Response:
    """Worked out before the book is locked for writing, so that nobody waits for it."""
    sections, seed = request.form.get("sections", 1, type=int), request.form.get("seed", 0, type=int)
    with reading() as session:
        book = books.open_book(session, book_id).book
    try:
        proposal = piles.propose(book, sections, seed % 1_000_000, request.form.get("other") == "1")
    except BadBook as error:
        return not_taken(error)
    return change(book_id, f"arranged in {len(proposal.sections)} sections", lambda book: piles.arranged(book, proposal))


def _sheet() -> int:
    return request.form.get("sheet", -1, type=int)
