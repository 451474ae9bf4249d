"""The mixed pile in the Pages pleat: adding from the materials, arranging, moving, pinning."""

from __future__ import annotations

from collections.abc import Callable

from flask import Blueprint, Response, current_app, make_response, render_template, request

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.words import many
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.pages.arrange import Arranged
from pleat.core.pleats.pages.pile_cuts import gives
from pleat.core.pleats.pages.record import MOST_SECTIONS
from pleat.services import arranging, books, counts, offered, piles
from pleat.store.items import listing
from pleat.web import asked
from pleat.web import items as item_view
from pleat.web.database import reading
from pleat.web.workspace import change, not_taken

pages = Blueprint("piles", __name__, url_prefix="/books/<int:book_id>/pile")


@pages.get("/papers")
def papers(book_id: int) -> str:
    """The drawer with the papers among the materials, to add from."""
    search = asked.word(request.args, "q")
    with reading() as session:
        opened = books.open_book(session, book_id)
        stored_items = listing(session, search, "paper", "", "name", per_page=30)
    brief = opened.plan.brief
    cards = [
        (
            stored.id,
            item_view.card(stored.item, brief.ruler.name),
            gives(stored.item, brief.leaf_width_mm, brief.leaf_height_mm),
        )
        for stored in stored_items
        if isinstance(stored.item, Paper)
    ]
    return render_template("pleats/_pile_papers.html", opened=opened, cards=cards, search=search)


@pages.post("/add")
def add(book_id: int) -> Response:
    sheets, wanted = asked.number(request.form, "sheets", 0, -1), asked.number(request.form, "paper", low=-10)
    with reading() as session:
        chosen = offered.paper(session, wanted)

    def alter(book: Book) -> Book:
        if chosen is None:
            raise BadBook([FieldProblem("", "paper", "", "That paper is no longer among the materials.")])
        return piles.add(book, chosen, sheets)

    name = chosen.name if chosen else "?"
    return change(book_id, f"{sheets} × {name} on the pile", alter)


@pages.post("/sheet")
def sheet(book_id: int) -> Response:
    """What one of a sheet's buttons says, or where it was dropped: section and place are where it lies, or
    where it is to go."""
    do, given = request.form.get("do", ""), request.form
    sheet_id = asked.number(given, "sheet", -1)
    section, place = asked.number(given, "section"), asked.number(given, "place", low=-1)
    size = {
        name: given.get(name, "")[:300]
        for name in ("window_width", "window_height", "window_fore", "window_head")
    }
    acts: dict[str, tuple[str, Callable[[Book], Book]]] = {
        "move": ("a sheet moved", lambda book: piles.move(book, sheet_id, section, place)),
        "outward": ("a sheet moved outward", lambda book: piles.move(book, sheet_id, section, place - 1)),
        "inward": ("a sheet moved inward", lambda book: piles.move(book, sheet_id, section, place + 1)),
        "before": (
            "a sheet to the section before",
            lambda book: piles.move(book, sheet_id, section - 1, place),
        ),
        "next": ("a sheet to the next section", lambda book: piles.move(book, sheet_id, section + 1, place)),
        "pin": ("a sheet pinned", lambda book: piles.mark(book, sheet_id, pinned=True)),
        "unpin": ("a sheet unpinned", lambda book: piles.mark(book, sheet_id, pinned=False)),
        "window": ("a window", lambda book: piles.mark(book, sheet_id, window="yes")),
        "no window": ("no window", lambda book: piles.mark(book, sheet_id, window="no")),
        "window size": ("a window's size", lambda book: piles.window(book, sheet_id, size)),
        "both": ("narrower on both leaves", lambda book: piles.mark(book, sheet_id, narrow="both")),
        "first": ("narrower on its first leaf", lambda book: piles.mark(book, sheet_id, narrow="first")),
        "second": ("narrower on its second leaf", lambda book: piles.mark(book, sheet_id, narrow="second")),
        "upright": ("a sheet upright", lambda book: piles.mark(book, sheet_id, lies="upright")),
        "turned": ("a sheet turned", lambda book: piles.mark(book, sheet_id, lies="turned")),
        "pair": ("two sheets kept together", lambda book: piles.pair(book, sheet_id, True)),
        "part": ("two sheets may part", lambda book: piles.pair(book, sheet_id, False)),
        "fold": ("a sheet folded in", lambda book: piles.join(book, sheet_id, "folded")),
        "stub": ("a leaf on a stub", lambda book: piles.join(book, sheet_id, "stub")),
        "tip": ("a leaf tipped in", lambda book: piles.join(book, sheet_id, "tipped")),
        "flap": (
            "a fold-out",
            lambda book: piles.flap(
                book, sheet_id, given.get("flap", "")[:300], given.get("panels", "")[:300]
            ),
        ),
        "place": ("a sheet moved", lambda book: piles.place_typed(book, sheet_id, given.get("at", "")[:300])),
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
    """Take what the materials have of the pile's papers by now."""
    with reading() as session:
        alter = counts.as_known(session, books.open_book(session, book_id).book)
    return change(book_id, "the pile as the materials have it", alter)


@pages.post("/arrange")
def arrange(book_id: int) -> Response:
    """Worked out before the book is locked for writing, so that nobody waits for it; a large pile in the
    background, with a bar."""
    sections, other = asked.number(request.form, "sections", -1, -1), request.form.get("other") == "1"
    with reading() as session:
        opened = books.open_book(session, book_id)
    seed = opened.stored.version % 1_000_000
    try:
        if arranging.takes_long(opened.book, sections) and 1 <= sections <= MOST_SECTIONS:
            return _going(book_id, _arrangings().start(book_id, opened.book, sections, seed, other))
        proposal = piles.propose(opened.book, sections, seed, other, arranging.within(arranging.LONGEST_S))
    except BadBook as error:
        return not_taken(error)
    return _taken(book_id, proposal)


def _taken(book_id: int, proposal: Arranged) -> Response:
    return change(
        book_id,
        f"arranged in {many(len(proposal.sections), 'section')}",
        lambda book: piles.arranged(book, proposal),
    )


def _arrangings() -> arranging.Arrangings:
    found: arranging.Arrangings = current_app.extensions["pleat_arrangings"]
    return found


def _going(book_id: int, job: arranging.Search) -> Response:
    return make_response(render_template("pleats/_arranging.html", book_id=book_id, job=job))


@pages.post("/arranging/<token>")
def going_on(book_id: int, token: str) -> Response:
    """How far a search is; asked again and again by its bar, which may also stop it. Once it is done its
    proposal is taken."""
    job = _arrangings().find(token)
    if job is None or job.book_id != book_id:
        return not_taken(
            BadBook([FieldProblem("", "the pile", "", "That search is no longer known. Arrange it again.")])
        )
    job.stop = job.stop or request.form.get("stop") == "1"
    if job.state == "failed":
        return not_taken(BadBook([FieldProblem("", "the pile", "", job.error)]))
    if job.proposal is None:
        return _going(book_id, job)
    return _taken(book_id, job.proposal)
