"""Making the book: one step fills the screen, with its picture. All steps are in the one page, which goes on
when the connection does not; what is ticked waits there until it can be sent."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from flask import Blueprint, Response, abort, render_template, request, url_for
from flask.typing import ResponseReturnValue
from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook
from pleat.core.base.plan import Step
from pleat.core.document import editing
from pleat.core.document.labels import label_of
from pleat.core.pleats.bench.compute import BenchStep
from pleat.drawing.scenes import has_own, numbers, picture
from pleat.drawing.svg import SCREEN, Pen, render_screen
from pleat.services import books
from pleat.services.books import Opened
from pleat.services.library import file_name
from pleat.services.log import count_copies, small, struck
from pleat.services.log import note as keep_note
from pleat.services.log import packed as log_packed
from pleat.store import log
from pleat.store.log import LogEntry
from pleat.web import asked
from pleat.web.database import reading, writing
from pleat.web.display import drawn, exact_mm
from pleat.web.downloads import download

pages = Blueprint("making", __name__, url_prefix="/books/<int:book_id>/making")
SCENE: Final = Pen(level=46, tick=8, gap=6, arrow=13, dot=6, text=22, edge=30)
WIDTH: Final = 760
HEIGHT: Final = 560
MOST_COPIES: Final = 10_000


@dataclass(frozen=True)
class StepShown:
    """A step as it stands on the page: ``copies`` of it are done, ``of`` so many. ``cautions`` are a word and
    the whole, and whether the whole stood at a step before."""

    one: BenchStep
    picture: dict[str, object]
    numbers: tuple[tuple[str, tuple[str, ...]], ...]
    cautions: tuple[tuple[str, str, bool], ...]
    entries: tuple[LogEntry, ...]
    read: str
    copies: int
    of: int


@pages.get("")
def page(book_id: int) -> str:
    """Every step, opened at the one named in the address, or at the first that is not done."""
    with reading() as session:
        opened = books.open_book(session, book_id)
        noted, counted = log.entries(session, book_id), log.counts(session, book_id)
    work = opened.plan.bench.work
    wanted = request.args.get("step", "")
    current = opened.plan.bench.current
    at = next((place for place, one in enumerate(work) if one.step.key == wanted), None)
    if at is None:
        at = work.index(current) if current else len(work) - 1
    return render_template(
        "making/page.html", opened=opened, book_id=book_id, shown=shown(opened, noted, counted), at=at
    )


def shown(opened: Opened, noted: Sequence[LogEntry], counted: Mapping[str, int]) -> list[StepShown]:
    """Every step with its picture; a caution in full where it stands first."""
    plan = opened.plan
    seen: set[str] = set()
    found = []
    for one in plan.bench.work:
        pen, css = (SCENE, "drawing scene") if has_own(one.step) else (SCREEN, "drawing")
        of = 1 if one.step.for_all else plan.brief.quantity
        copies = counted.get(one.step.key, 0)
        found.append(
            StepShown(
                one,
                drawn(render_screen(picture(one.step, plan), WIDTH, HEIGHT, pen, css)),
                numbers(one.step, plan),
                tuple((_word(text), text, text in seen) for text in one.step.cautions),
                tuple(entry for entry in noted if entry.step == one.step.key),
                _read(opened, one.step),
                of if one.done else copies % of,  # all of them, and unticked since: none
                of,
            )
        )
        seen.update(one.step.cautions)
    return found


def _word(caution: str) -> str:
    """What a caution is called once it was read."""
    return caution.partition(":")[0] if ":" in caution[:24] else "Careful"


def _read(opened: Opened, step: Step) -> str:
    """What was read already, as its field shows it."""
    pleat, _, name = step.reading.partition(".")
    value = getattr(getattr(opened.book, pleat), name, None) if name else None
    return exact_mm(value)


@pages.post("/reading", endpoint="reading")
def reading_taken(book_id: int) -> ResponseReturnValue:
    """Take what was measured at a step; the page is shown anew, since what follows goes by it."""
    key, text = asked.word(request.form, "step", 60), request.form.get("value", "")[:200]
    try:
        with writing() as session:
            plan = books.open_book(session, book_id).plan
            path = next((one.step.reading for one in plan.bench.work if one.step.key == key), "")
            if not path:
                abort(404)
            label = f"{label_of(path)}: {' '.join(text.split())[:60] or 'none'}"
            books.change(
                session, book_id, None, "making", label, lambda book: editing.edit(book, {path: text})
            )
    except BadBook as error:
        said = " ".join(problem.message for problem in error.problems)
        return render_template(
            "making/_reading.html", book_id=book_id, key=key, label=label_of(path), typed=text, problem=said
        )
    return Response("", 204, {"HX-Redirect": url_for("making.page", book_id=book_id, step=key)})


@pages.post("/tick")
def tick(book_id: int) -> ResponseReturnValue:
    """A step is done, or not, or of some copies: sent again it is the same. Answers with all that is done."""
    key, done = asked.word(request.form, "step", 60), request.form.get("done") == "1"
    copies = asked.number(request.form, "copies", -1, 0, MOST_COPIES)
    try:
        with writing() as session:
            if copies >= 0:
                count_copies(session, book_id, key, copies)
            window = asked.word(request.form, "window", 40)
            outcome = books.tick_step(session, book_id, None, window, key, done)
            return _done(session, outcome.opened)
    except BadBook as error:
        return {"problem": " ".join(problem.message for problem in error.problems)}, 422


@pages.get("/state")
def state(book_id: int) -> ResponseReturnValue:
    """All that is done, for a page that was looked away from."""
    with reading() as session:
        return _done(session, books.open_book(session, book_id))


def _done(session: Session, opened: Opened) -> dict[str, object]:
    """The keys of the steps that are done, and the copies that were counted of each."""
    done = [one.step.key for one in opened.plan.bench.work if one.done]
    return {"done": done, "copies": log.counts(session, opened.stored.id)}


@pages.post("/note")
def note(book_id: int) -> ResponseReturnValue:
    """Keep what was noted at a step; what was typed stays, with the reason, where it cannot be."""
    key, text = asked.word(request.form, "step", 60), request.form.get("note", "")
    given = request.files.get("photograph")
    try:
        taken = given.read() if given else b""
        made = small(taken) if taken else None  # before others have to wait
        with writing() as session:
            keep_note(session, book_id, key, text, made)
    except BadBook as error:
        said = " ".join(problem.message for problem in error.problems)
        return _noted(book_id, key, said, text[:20_000])
    return _noted(book_id, key)


@pages.post("/strike")
def strike(book_id: int) -> ResponseReturnValue:
    """A note that does not hold any more: it stays, struck."""
    key = asked.word(request.form, "step", 60)
    try:
        with writing() as session:
            struck(session, book_id, asked.number(request.form, "entry", 0) or 0)
    except log.NoSuchEntry:
        abort(404)
    return _noted(book_id, key)


@pages.get("/log.zip")
def packed(book_id: int) -> Response:
    """The book's file with its log and photographs."""
    with reading() as session:
        title, made = books.open_book(session, book_id).book.title, log_packed(session, book_id)
    return download(made, f"{file_name(title)}-with-its-log.zip", "application/zip")


@pages.get("/photograph/<int:number>.jpg")
def photograph(book_id: int, number: int) -> Response:
    try:
        with reading() as session:
            return Response(log.picture(session, book_id, number), mimetype="image/jpeg")
    except log.NoSuchEntry:
        abort(404)


def _noted(book_id: int, key: str, problem: str = "", typed: str = "") -> ResponseReturnValue:
    """What was noted at a step, and the form for more."""
    with reading() as session:
        entries = [entry for entry in log.entries(session, book_id) if entry.step == key]
    return render_template(
        "making/_log.html", book_id=book_id, key=key, entries=entries, problem=problem, typed=typed
    )
