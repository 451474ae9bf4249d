"""The workspace of one book, and every change to it. Answers hold just the pleats that changed."""

from __future__ import annotations

import secrets
from collections.abc import Callable, Iterable

from flask import Blueprint, Response, abort, make_response, render_template, request
from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.fields import ChoiceRule
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.labels import named, rule_of
from pleat.core.materials.thread import spool_diameter_mm
from pleat.core.pleats.paper.record import ROLES
from pleat.core.whole.planning import PLEATS
from pleat.services import books, counts, offered
from pleat.services import threads as threads_
from pleat.services.books import Label, Opened, Outcome
from pleat.services.planned import plan_of
from pleat.store.books import ChangedElsewhere
from pleat.web import asked
from pleat.web.database import FIELD, reading, writing
from pleat.web.pleats import book_view, questions, stale, strip_view, view

pages = Blueprint("workspace", __name__, url_prefix="/books/<int:book_id>")


@pages.get("")
def show(book_id: int) -> str:
    with reading() as session:
        opened = books.open_book(session, book_id)
    wanted = request.args.get("open", "")
    return render_template(
        "workspace.html",
        opened=opened,
        views=_views(opened, PLEATS),
        pleats=PLEATS,
        questions=questions(opened),
        window=secrets.token_hex(8),
        open=wanted if wanted in PLEATS else "book",
    )


@pages.get("/bodies")
def bodies(book_id: int) -> str:
    """Pleats that lay folded while the book changed, as they are now."""
    asked_for = asked.word(request.args, "of", 100).split()
    with reading() as session:
        opened = books.open_book(session, book_id)
    whole = [name for name in PLEATS if name in asked_for]
    return render_template(
        "_bodies.html",
        opened=opened,
        whole=whole,
        views=_views(opened, whole),
        questions=questions(opened),
        pleats=PLEATS,
        open=_open(),
    )


@pages.post("/edit")
def edit(book_id: int) -> Response:
    path, text = asked.word(request.form, "path"), request.form.get("value", "")
    return change(
        book_id,
        lambda book: f"{named(path, book)}: {_value(path, text, book)}",
        lambda book: editing.edit(book, {path: text}),
    )


def _value(path: str, text: str, book: Book) -> str:
    """What was typed, or the words of what was chosen."""
    rule = rule_of(path, book)
    typed = " ".join(text[:60].split()) or "none"
    return dict(rule.words).get(typed, typed) if isinstance(rule, ChoiceRule) else typed


@pages.post("/take")
def take(book_id: int) -> Response:
    """Take an offer, found again by its key in the plan as it is now: a check's, or one of several ways a
    pleat can go."""
    key, label = asked.word(request.form, "offer"), asked.word(request.form, "label", 400)
    with reading() as session:
        tools = books.open_book(session, book_id).tools

    def alter(book: Book) -> Book:
        for _, result in plan_of(book, tools):
            for offer in (*result.offers, *(offer for check in result.checks for offer in check.offers)):
                if offer.key == key:
                    return editing.apply(book, offer.changes)
        raise BadBook(
            [
                FieldProblem(
                    "", "this offer", label, "It no longer applies: the book has changed since it was made."
                )
            ]
        )

    return change(book_id, label, alter)


@pages.post("/tick")
def tick(book_id: int) -> Response:
    key, done = asked.word(request.form, "step"), request.form.get("done") == "1"
    return answered(
        f"{books.TICKED[done]}: {key.replace('_', ' ')}",
        lambda session: books.tick_step(session, book_id, version(), window(), key, done),
    )


@pages.post("/stations")
def stations(book_id: int) -> Response:
    unlocked = request.form.get("unlocked") == "1"
    mode = "one by one" if unlocked else "symmetric"
    return change(
        book_id,
        f"stations {mode}",
        lambda book: books.unlock_stations(book, unlocked),
    )


@pages.post("/fit")
def fit(book_id: int) -> Response:
    """Make the leaf what the sheet gives when it is folded once."""

    def alter(book: Book) -> Book:
        width, height = books.folded_once(book.paper.leaf)
        return editing.apply(book, [("brief.leaf_width_mm", width), ("brief.leaf_height_mm", height)])

    return change(book_id, "leaf fits the paper", alter)


@pages.get("/papers")
def papers(book_id: int) -> str:
    """The drawer with what the materials have for one role of the book's own."""
    role = asked.word(request.args, "role", 20)
    role = role if role in ROLES else "leaf"
    with reading() as session:
        opened = books.open_book(session, book_id)
        choices = offered.papers_for(session, opened.book, role)
    return render_template("pleats/_papers.html", opened=opened, role=role, choices=choices)


@pages.post("/paper")
def paper(book_id: int) -> Response:
    """Take a paper from the materials."""
    role = _role()
    with reading() as session:
        chosen = offered.material(session, asked.number(request.form, "paper", low=-10))

    def alter(book: Book) -> Book:
        if chosen is None:
            raise BadBook([FieldProblem("", "paper", "", "That paper is no longer among the materials.")])
        return books.use_material(book, chosen, role)

    name = chosen.name if chosen else "?"
    return change(book_id, f"{ROLES[role].one}: {name}", alter)


@pages.get("/threads")
def threads(book_id: int) -> str:
    """The drawer with the threads among the materials."""
    search = asked.word(request.args, "find")
    with reading() as session:
        opened = books.open_book(session, book_id)
        own = getattr(opened.book.binding, "thread", None)
        if own is None:
            abort(404, "Nothing is sewn with thread in this book.")
        found, count = offered.threads(session, search)
    choices = [
        (item_id, spool, spool_diameter_mm(spool), threads_.with_thread(opened, item_id, spool))
        for item_id, spool in found
    ]
    return render_template(
        "pleats/_threads.html", opened=opened, choices=choices, count=count, search=search, own=own
    )


@pages.post("/thread")
def thread(book_id: int) -> Response:
    """Take a thread from the materials."""
    wanted = asked.number(request.form, "thread")
    with reading() as session:
        chosen = offered.thread(session, wanted)

    def alter(book: Book) -> Book:
        if chosen is None:
            raise BadBook([FieldProblem("", "thread", "", "That thread is no longer among the materials.")])
        return books.use_thread(book, wanted, chosen)

    name = chosen.name if chosen else "?"
    return change(book_id, f"thread: {name}", alter)


@pages.post("/keep-paper")
def keep_paper(book_id: int) -> Response:
    """Put the book's own paper among the materials."""
    role = _role()
    with writing() as session:
        opened = books.open_book(session, book_id)
        kept = getattr(opened.book.paper, role)
        offered.keep(session, kept)
    return make_response(
        render_template(
            "_notice_swap.html",
            title=f"{kept.name} is among the materials",
            text="Any book can take it from there.",
            kind="good",
        )
    )


@pages.post("/tell")
def tell(book_id: int) -> Response:
    """Let the materials know a paper as this book has it."""
    role = _role()
    try:
        with writing() as session:
            name = counts.tell(session, getattr(books.open_book(session, book_id).book.paper, role))
            opened = books.open_book(session, book_id)
    except BadBook as error:
        return not_taken(error)
    return swapped(Outcome(opened, PLEATS, f"The materials have {name} as this book has it now"))


@pages.post("/undo")
def undo(book_id: int) -> Response:
    return _move(book_id, -1)


@pages.post("/redo")
def redo(book_id: int) -> Response:
    return _move(book_id, 1)


def _role() -> str:
    role = asked.word(request.form, "role", 20)
    return role if role in ROLES else "leaf"


def window() -> str:
    return asked.word(request.form, "window", 40)


def _open() -> str:
    """The pleat that is open in the page; what lies folded is sent without its body. Nothing where the page
    does not say."""
    shown = asked.word(request.values, "open", 10)
    return shown if shown in (*PLEATS, "book") else ""


def version() -> int | None:
    """The version the page was on; None when the maker takes over what another window did."""
    return None if request.form.get("takeover") == "1" else asked.number(request.form, "version", -1, -1)


def change(book_id: int, label: Label, alter: Callable[[Book], Book]) -> Response:
    """Alter a book as the request's form asks, and answer."""
    return answered(
        label if isinstance(label, str) else "what you changed",
        lambda session: books.change(session, book_id, version(), window(), label, alter),
    )


def _move(book_id: int, by: int) -> Response:
    return answered(
        "undo" if by < 0 else "redo",
        lambda session: books.undo(session, book_id, by, version(), window()),
    )


def answered(label: str, work: Callable[[Session], Outcome]) -> Response:
    """Do something to a book in a transaction of its own, and answer with the pleats that changed, or with
    why it could not be."""
    try:
        with writing() as session:
            outcome = work(session)
    except BadBook as error:
        return not_taken(error)
    except ChangedElsewhere as error:
        return _changed_elsewhere(error, label)
    return swapped(outcome)


def swapped(outcome: Outcome) -> Response:
    opened, shown = outcome.opened, _open()
    changed = stale(outcome.changed, ("extras",) if opened.plan.extras.idle else ())
    folded = [name for name in changed if shown not in ("", name)]
    whole = [name for name in changed if name not in folded]
    return make_response(
        render_template(
            "_swap.html",
            opened=opened,
            whole=whole,
            folded=folded,
            views=_views(opened, whole) | {name: strip_view(name, opened) for name in folded},
            said=outcome.said,
            questions=questions(opened),
            pleats=PLEATS,
            field=asked.word(request.form, "path"),
            open=shown,
        )
    )


def not_taken(error: BadBook) -> Response:
    """422 with the message for the field; what was typed stays in it, since nothing there is swapped."""
    return make_response(
        render_template(
            "_problem_swap.html", problems=error.problems, field=asked.word(request.form, "path")
        ),
        422,
    )


def _changed_elsewhere(error: ChangedElsewhere, label: str) -> Response:
    given = {
        name: value[:20_000]
        for name, value in request.form.items()
        if name not in ("version", "window", "takeover", "csrf_token", FIELD)
    }
    return make_response(
        render_template("_conflict_swap.html", error=error, label=label, given=given, action=request.path),
        409,
    )


def _views(opened: Opened, names: Iterable[str]) -> dict[str, dict[str, object]]:
    return {"book": book_view(opened), **{name: view(name, opened) for name in names}}
