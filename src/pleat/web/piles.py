"""The mixed pile in the Pages pleat: adding from the shelf, arranging, moving, pinning."""

from __future__ import annotations

from collections.abc import Callable

from flask import Blueprint, Response, render_template, request

from pleat.core.book import Book
from pleat.core.errors import BadBook, FieldProblem
from pleat.core.materials.items import Paper
from pleat.core.pages.pile_cuts import gives
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
    brief = opened.plan.brief
    cards = [
        (stored.id, item_view.card(stored.item, brief.ruler.name), gives(stored.item, brief.leaf_width_mm, brief.leaf_height_mm))
        for stored in found
        if isinstance(stored.item, Paper)
    ]
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


@pages.post("/sheet")
def sheet(book_id: int) -> Response:
    """What one of a sheet's buttons says, or where it was dropped: section and place are where it lies, or where it is to go."""
    do, given = request.form.get("do", ""), request.form
    sheet_id = given.get("sheet", -1, type=int)
    section, place = given.get("section", 0, type=int), given.get("place", 0, type=int)
    acts: dict[str, tuple[str, Callable[[Book], Book]]] = {
        "move": ("a sheet moved", lambda book: piles.move(book, sheet_id, section, place)),
        "outward": ("a sheet moved outward", lambda book: piles.move(book, sheet_id, section, place - 1)),
        "inward": ("a sheet moved inward", lambda book: piles.move(book, sheet_id, section, place + 1)),
        "before": ("a sheet to the section before", lambda book: piles.move(book, sheet_id, section - 1, place)),
        "next": ("a sheet to the next section", lambda book: piles.move(book, sheet_id, section + 1, place)),
        "pin": ("a sheet pinned", lambda book: piles.mark(book, sheet_id, pinned=True)),
        "unpin": ("a sheet unpinned", lambda book: piles.mark(book, sheet_id, pinned=False)),
        "window": ("a window", lambda book: piles.mark(book, sheet_id, window="yes")),
        "no window": ("no window", lambda book: piles.mark(book, sheet_id, window="no")),
        "pair": ("two sheets kept together", lambda book: piles.pair(book, sheet_id, True)),
        "part": ("two sheets may part", lambda book: piles.pair(book, sheet_id, False)),
        "fold": ("a sheet folded in", lambda book: piles.join(book, sheet_id, "folded")),
        "stub": ("a leaf on a stub", lambda book: piles.join(book, sheet_id, "stub")),
        "tip": ("a leaf tipped in", lambda book: piles.join(book, sheet_id, "tipped")),
        "flap": ("a fold-out", lambda book: piles.flap(book, sheet_id, given.get("flap", "")[:40], given.get("panels", "")[:10])),
        "place": ("a sheet moved", lambda book: piles.place_typed(book, sheet_id, given.get("at", "")[:20])),
        "remove": ("a sheet off the pile", lambda book: piles.remove(book, sheet_id)),
    }
    if do not in acts:
        return not_taken(BadBook([FieldProblem("", "this", do[:20], "A sheet of the pile cannot do that.")]))
    return change(book_id, *acts[do])


@pages.post("/begin")
def begin(book_id: int) -> Response:
    """A book of one paper becomes a pile of its own sheets."""
    return change(book_id, "its own sheets as a pile", piles.begun)


@pages.post("/clear")
def clear(book_id: int) -> Response:
    return change(book_id, "the pile taken away", piles.cleared)


@pages.post("/known")
def known(book_id: int) -> Response:
    """Take what the shelf knows of the pile's papers by now."""
    with reading() as session:
        alter = materials.as_known(session, books.open_book(session, book_id).book)
    return change(book_id, "the pile as the shelf knows it", alter)


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
