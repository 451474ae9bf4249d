"""The sheets of the Cutting pleat: what was cut of them, better plans from the background, and each as a
file."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from typing import Final

from flask import Blueprint, Response, abort, current_app, make_response, render_template, request
from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.units import Ruler
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.sheet import SheetCut
from pleat.core.pleats.cutting import moving
from pleat.core.pleats.cutting.pinned import as_pin, key_of
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.paper.record import ROLES
from pleat.core.whole.near import costly_pieces, freed_parts, near_sizes
from pleat.core.whole.planning import Plan
from pleat.printing import sheet_files
from pleat.services import books, cutting, offered, proving
from pleat.services.books import Opened, Outcome
from pleat.services.clock import now
from pleat.services.library import file_name
from pleat.store import packings
from pleat.store.database import transaction
from pleat.web import asked
from pleat.web.database import reading
from pleat.web.downloads import download
from pleat.web.pleats.views import pleat_of
from pleat.web.workspace import answered, change, not_taken, swapped, version, window

FAR_MM: Final = 1e6
"""Farther off no piece is dragged."""
_WAYS: Final[tuple[moving.Towards, ...]] = ("left", "right", "up", "down")
ALIKE: Final = 1.35
"""How many times as thick a paper may be that is shown beside another one."""
pages = Blueprint("sheets", __name__, url_prefix="/books/<int:book_id>/sheets")


@pages.post("/cut")
def cut(book_id: int) -> Response:
    """Sheets of one kind were cut: as many as were asked for, at once."""
    key, times = asked.word(request.form, "sheet", 200), asked.number(request.form, "times")
    work = lambda session, plan: cutting.cut_sheet(session, book_id, plan, key, times)  # noqa: E731
    return _done(book_id, "a sheet was cut", work)


@pages.post("/uncut")
def uncut(book_id: int) -> Response:
    """A sheet was not cut after all."""
    number = asked.number(request.form, "fact")
    return _done(
        book_id,
        "a sheet was not cut after all",
        lambda session, _: cutting.give_back(session, book_id, {number}),
    )


@pages.post("/aside")
def aside(book_id: int) -> Response:
    """Pieces that were cut and are of no use to the book any more become offcuts."""
    part = asked.word(request.form, "part", 80)
    return _done(
        book_id,
        "pieces were laid aside",
        lambda session, plan: cutting.lay_aside(session, book_id, plan, part),
    )


def _done(book_id: int, label: str, work: Callable[[Session, Plan], str]) -> Response:
    return answered(
        label,
        lambda session: books.cut(
            session, book_id, version(), window(), label, lambda plan: work(session, plan)
        ),
    )


@pages.post("/better")
def better(book_id: int) -> Response:
    """Work on a better plan of a material beside the pages, and on the proof of how good it is."""
    stock = asked.word(request.form, "stock")
    opened = _opened(book_id)
    plan = next((own for own in opened.plan.cutting.plans if own.stock.key == stock), None)
    if plan is None or plan.problem is None:
        return _gone()
    engine = current_app.extensions["pleat_engine"]

    def keep(key: str, kept: packings.KeptPacking) -> None:
        with transaction(engine) as session:
            packings.keep(session, key, kept, now())

    job = _proofs().start(book_id, plan.problem, keep)
    return _going(book_id, stock, job)


@pages.post("/better/<token>")
def going_on(book_id: int, token: str) -> Response:
    """How far it is; asked again and again by its bar, which may also stop it. Once it is done the page shows
    the plan as it is then."""
    job, stock = _proofs().find(token), asked.word(request.form, "stock")
    if job is None or job.book_id != book_id:
        return _gone()
    if request.form.get("stop") == "1":
        job.end()
    if job.state == "failed":
        return not_taken(BadBook([FieldProblem("", "the sheets", "", job.error)]))
    if job.state in ("waiting", "working"):
        return _going(book_id, stock, job)
    return swapped(Outcome(_opened(book_id), ("cutting", "bench")))


@pages.post("/pin")
def pin(book_id: int) -> Response:
    """Keep a sheet as it is planned, or let it be planned anew."""
    key = asked.word(request.form, "sheet", 200)
    found = sheet_files.of_key(_opened(book_id).plan.cutting, key)
    if found is None:
        return _gone()
    plan, planned, _ = found

    def alter(book: Book) -> Book:
        rest = [one for one in book.cutting.pins if key_of(one) != planned.key]
        pins = rest if planned.pinned else [*rest, as_pin(plan.stock.key, planned)]
        return editing.apply(book, [("cutting.pins", [one.model_dump() for one in pins])])

    return change(book_id, "a sheet let go" if planned.pinned else "a sheet pinned", alter)


@pages.get("/piece")
def piece(book_id: int) -> str:
    """A piece of a sheet: where it goes in the book, and where it may go instead."""
    key, number = asked.word(request.args, "sheet", 200), asked.number(request.args, "piece")
    opened = _opened(book_id)
    found = sheet_files.of_key(opened.plan.cutting, key)
    if found is None:
        abort(404)
    plan, planned, parts = found
    pieces = moving.single_pieces(planned)
    if not 0 <= number < len(pieces):
        abort(404)
    own = pieces[number]
    return render_template(
        "pleats/_piece.html",
        opened=opened,
        plan=plan,
        sheet=planned,
        number=number,
        piece=own,
        cut=next(cut for cut in parts if cut.part.key == own.part),
        where=pleat_of(own.part, opened),
        ways=list(_ways(plan, planned, opened.plan.brief.ruler)),
    )


def _ways(plan: StockPlan, planned: SheetCut, ruler: Ruler) -> Iterator[tuple[str, dict[str, str]]]:
    """What can be done with a piece by a button: its words, and what it sends."""
    yield "turn it", {"turn": "1"}
    for number, other in enumerate(plan.sheets, 1):
        if other.key != planned.key and moving.can_be_moved(other):
            yield f"onto sheet {number}", {"onto": plan.stock.key + other.key}
    for offcut, width, height in moving.fresh_sheets(plan):
        remnant = plan.remnants.get(offcut)
        if remnant is None:
            words = "onto a length of its own" if plan.stock.roll else "onto a sheet of its own"
        elif remnant.whole:
            words = f"onto {remnant.name}"
        else:
            words = f"onto the offcut of {ruler.size(width, height)}"
        yield words, {"offcut": offcut}


@pages.post("/move")
def move(book_id: int) -> Response:
    """Lay a piece elsewhere: dragged, pushed by a key, turned, or onto another sheet."""
    form = request.form
    key, number = asked.word(form, "sheet", 200), asked.number(form, "piece")
    found = sheet_files.of_key(_opened(book_id).plan.cutting, key)
    if found is None:
        return _gone()
    plan, planned, parts = found
    asked_for = moving.PieceMove(
        sheet=planned.key,
        piece=number,
        onto=asked.word(form, "onto", 200).removeprefix(plan.stock.key),
        fresh="offcut" in form,
        offcut=asked.word(form, "offcut", 20),
        at=_place(form),
        towards=_towards(asked.word(form, "towards", 5)),
        turn=form.get("turn") == "1",
    )

    def alter(book: Book) -> Book:
        try:
            pins = moving.moved(plan, parts, book.cutting.pins, asked_for)
        except moving.NoRoomError as error:
            raise BadBook([FieldProblem("", "the piece", "", str(error))]) from error
        return editing.apply(book, [("cutting.pins", [one.model_dump() for one in pins])])

    return change(book_id, "a piece laid elsewhere", alter)


def _place(form: Mapping[str, str]) -> tuple[float, float] | None:
    """Where a piece was dragged to, in mm; None where it was not dragged, or to nowhere."""
    try:
        x, y = float(form.get("x", "")), float(form.get("y", ""))
    except ValueError:
        return None
    return (x, y) if math.isfinite(x) and math.isfinite(y) and max(abs(x), abs(y)) < FAR_MM else None


def _towards(word: str) -> moving.Towards:
    return next((way for way in _WAYS if way == word), "")


@pages.get("/also")
def also(book_id: int) -> str:
    """Which other sheets among the materials may serve for a stock as well."""
    role = asked.word(request.args, "stock", 20)
    if role not in ROLES:
        abort(404)
    with reading() as session:
        opened = books.open_book(session, book_id)
        choices = offered.papers_for(session, opened.book, role)
    chosen = opened.book.cutting.also.get(role, ())
    thick = opened.plan.paper.stock(role).caliper.likely
    rows = [
        (choice, str(choice.id) in chosen)
        for choice in choices
        if choice.gives and not choice.in_use and choice.id > 0 and not choice.stock.roll
        if str(choice.id) in chosen or ALIKE > choice.stock.caliper.likely / thick > 1 / ALIKE
    ]
    return render_template("pleats/_also.html", opened=opened, role=role, rows=rows)


@pages.post("/also")
def serve_as_well(book_id: int) -> Response:
    """Let a material serve for a stock as well, or no more."""
    role, number = asked.word(request.form, "stock", 20), str(asked.number(request.form, "item"))
    with reading() as session:
        there = offered.material(session, int(number)) is not None

    def alter(book: Book) -> Book:
        before = book.cutting.also.get(role, ())
        if role not in ROLES or not (there or number in before):
            words = "That paper is no longer among the materials."
            raise BadBook([FieldProblem("", "paper", "", words)])
        after = tuple(one for one in before if one != number) if number in before else (*before, number)
        return editing.apply(book, [("cutting.also", {**book.cutting.also, role: after})])

    return change(book_id, "another paper serves as well", alter)


@pages.get("/near")
def near(book_id: int) -> str:
    """Leaves near this one that take fewer sheets or waste less, and which piece makes the sheets many."""
    opened = _opened(book_id)
    return render_template(
        "pleats/_near.html",
        opened=opened,
        sizes=near_sizes(opened.plan, opened.tools),
        costly=costly_pieces(opened.plan),
        freed=freed_parts(opened.plan),
    )


@pages.get("/<key>.<any(svg, dxf):form>")
def sheet(book_id: int, key: str, form: str) -> Response:
    """One sheet at true size for another program. Answers 404 for one that this book has not."""
    opened = _opened(book_id)
    found = sheet_files.of_key(opened.plan.cutting, key)
    if found is None:
        abort(404)
    plan, cut_sheet, parts = found
    name = f"{file_name(opened.book.title)}-sheet.{form}"
    if form == "svg":
        return download(sheet_files.to_svg(plan, cut_sheet, parts), name, "image/svg+xml")
    return download(sheet_files.to_dxf(cut_sheet, parts), name, "image/vnd.dxf")


def _opened(book_id: int) -> Opened:
    with reading() as session:
        return books.open_book(session, book_id)


def _proofs() -> proving.Proofs:
    found: proving.Proofs = current_app.extensions["pleat_proofs"]
    return found


def _going(book_id: int, stock: str, job: proving.Proof) -> Response:
    return make_response(render_template("pleats/_better.html", book_id=book_id, stock=stock, job=job))


def _gone() -> Response:
    words = "That plan is no longer known. Look at the sheets again."
    return not_taken(BadBook([FieldProblem("", "the sheets", "", words)]))
