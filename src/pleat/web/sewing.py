"""Sewing at the bench: the thread move by move from three sides; practising it; and a stitch of one's own,
tapped hole by hole."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from flask import Blueprint, abort, make_response, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from pleat.core.base.errors import BadBook
from pleat.core.engines.sewing import notation
from pleat.core.engines.sewing.chapters import Chapter, chapters
from pleat.core.engines.sewing.moves import Bed, Do, Sewing, Side
from pleat.core.engines.sewing.walk import walk, where
from pleat.core.engines.sewing.words import told
from pleat.core.pleats.binding.record import MOST_STATIONS
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.drawing.binding import views
from pleat.drawing.svg import Pen, render_screen
from pleat.services import books, practising, stitches
from pleat.services.books import Opened
from pleat.store.books import ChangedElsewhere
from pleat.web import asked
from pleat.web.database import reading, writing
from pleat.web.display import drawn

pages = Blueprint("sewing", __name__, url_prefix="/books/<int:book_id>/sewing")
VIEW: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3.2, text=14, edge=20)
WIDTH: Final = 760
HEIGHTS: Final = (230, 130, 220)


@pages.get("")
def page(book_id: int) -> str | Response:
    """The player, opened at one section; the fragment alone where the page asks for it."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    if not _has_thread(opened):
        return redirect(url_for("workspace.show", book_id=book_id, open="binding"))
    whole = request.headers.get("HX-Request") is None
    return render_template(
        "sewing/page.html" if whole else "sewing/_chapter.html", opened=opened, **player(opened)
    )


def _has_thread(opened: Opened) -> bool:
    """Whether there is something to sew: not where the pattern cannot be sewn on the book's sections, or
    nothing is sewn."""
    result = opened.plan.binding
    return isinstance(result, SewnResult) and bool(result.sewing.threads)


def sewn(opened: Opened, hand: str) -> SewnResult:
    """The book's sewing as this hand sews it. Answers 404 for a book that is not sewn."""
    result = opened.plan.binding
    if not isinstance(result, SewnResult):
        abort(404)
    if hand != "left":
        return result
    mirrored = result.sewing.mirrored
    return replace(result, sewing=mirrored, stretches=walk(mirrored.threads))


def player(opened: Opened) -> dict[str, object]:
    """One section of the sewing: its three views and its moves in words."""
    hand = "left" if request.args.get("hand") == "left" else "right"
    result = sewn(opened, hand)
    parts = chapters(result.sewing)
    number = min(max(asked.number(request.args, "part", 0) or 0, 0), len(parts) - 1)
    part = parts[number]
    moves = [
        words
        for thread in told(result.sewing, f"a tail of {opened.plan.brief.ruler.show(result.tail_mm)}")
        for words in thread
    ]
    shown = [
        drawn(render_screen(view, WIDTH, height, VIEW))
        for view, height in zip(views.three(result, part), HEIGHTS, strict=True)
    ]
    return {
        "result": result,
        "parts": parts,
        "part": part,
        "hand": hand,
        "views": shown,
        "moves": [
            (step, moves[step][0].upper() + moves[step][1:]) for step in range(part.first, part.last + 1)
        ],
        "total": len(moves),
        "knots": {step for step in result.need.knots_on if part.first <= step <= part.last},
    }


# --- practising
# -----------------------------------------------------------------------------------------------


@pages.get("/practice")
def practice(book_id: int) -> str | Response:
    with reading() as session:
        opened = books.open_book(session, book_id)
        if not _has_thread(opened):
            return redirect(url_for("workspace.show", book_id=book_id, open="binding"))
        state = practising.start(session, sewn(opened, "right"))
    return render_template("sewing/practice.html", opened=opened, **_practised(state))


@pages.post("/practice")
def tap(book_id: int) -> str | Response:
    """One tap: the board with it, or with why it was not right."""
    form = request.form
    with writing() as session:
        opened = books.open_book(session, book_id)
        if not _has_thread(opened):  # changed in another window
            return make_response(
                "", 204, {"HX-Redirect": url_for("workspace.show", book_id=book_id, open="binding")}
            )
        score = (
            asked.number(form, "taps", 0) or 0,
            asked.number(form, "rights", 0) or 0,
            form.get("missed") == "1",
        )
        state = practising.tap(
            session, sewn(opened, "right"), form.get("sewn", "")[:20_000], _tapped(), score
        )
    return render_template("sewing/_practice.html", opened=opened, **_practised(state))


def _tapped() -> practising.Tap:
    """What the form says was tapped: what to do, the section and the hole; a hole is named ``row.at``."""
    row, _, at = asked.word(request.form, "hole", 9).partition(".")
    do = asked.word(request.form, "do", 9)
    return _DOES.get(do, "pass"), int(row) if row.isdecimal() else 1, int(at) if at.isdecimal() else 1


_DOES: Final[dict[str, Do]] = {
    "pass": "pass",
    "catch": "catch",
    "wrap": "wrap",
    "tie": "tie",
    "start": "start",
}


def _practised(state: practising.Practice) -> dict[str, object]:
    result, part = practising.shown(state.result, state.sewn)
    does = {move.do for thread in state.result.sewing.threads for move in thread}
    return {
        "state": state,
        "board": _board(result, part),
        "does": [(do, words) for do, words in _WAYS if do in does],
        "inside": _inside(result, part),
    }


_WAYS: Final = (
    ("pass", "through the hole"),
    ("catch", "under the stitch"),
    ("wrap", "round the support"),
    ("tie", "tie there"),
)


def _board(result: SewnResult, part: Chapter) -> dict[str, object]:
    view = views.spine(result, part)
    return drawn(render_screen(view, WIDTH, 2 * VIEW.edge + 3.6 * view.height + 20, VIEW))


def _inside(result: SewnResult, part: Chapter) -> dict[str, object]:
    return drawn(render_screen(views.inside(result, part), WIDTH, 130, VIEW))


# --- a stitch of one's own
# ------------------------------------------------------------------------------------


@pages.get("/own")
def own(book_id: int) -> str:
    """The board to tap on; it begins with the book's own stitch, if it has one."""
    with reading() as session:
        opened = books.open_book(session, book_id)
        kept = stitches.stitches(session)
    result = _with_holes(sewn(opened, "right"), 0)
    begun = (
        notation.write(result.sewing.threads, len(result.positions_mm))
        if result.own and result.rows <= _SHOWN
        else ""
    )
    shown = _tapping(result, stitches.tapping(_bed(result), begun))
    return render_template(
        "sewing/own.html", opened=opened, kept=kept, version=opened.stored.version, **shown
    )


@pages.post("/own")
def own_tap(book_id: int) -> Response | str:
    """A tap, a step back, a typed line, or what is to be done with the stitch."""
    form = request.form
    with reading() as session:
        opened = books.open_book(session, book_id)
    result = _with_holes(sewn(opened, "right"), asked.number(form, "stations", 0, 0, MOST_STATIONS))
    act, text = asked.word(form, "act", 9), form.get("sewn", "")[:20_000]
    bed = _bed(result)
    if act in ("use", "keep"):
        return _kept(opened, result, text, act)
    if act == "back":
        state = stitches.without_last(bed, text)
    elif act in ("clear", "typed"):
        state = stitches.tapping(bed, form.get("typed", "")[:20_000] if act == "typed" else "")
    else:
        side: Side = "outside" if form.get("side") == "outside" else "inside"
        state = stitches.with_tap(bed, text, _tapped(), asked.word(form, "what", 9), side)
    return render_template("sewing/_own.html", opened=opened, version=_version(), **_tapping(result, state))


def _version() -> int:
    """The version of the book that the page began with: however long one taps, a change of another window
    meanwhile is told."""
    return asked.number(request.form, "version", -1, -1)


def _kept(opened: Opened, result: SewnResult, text: str, act: str) -> Response:
    """The book sewn so, and back to it; or the stitch among the materials; or why it cannot be, with
    everything as it was.

    Where another window changed the book meanwhile, the maker is told, and asked once more.
    """
    name, stations, book_id, said = (
        asked.word(request.form, "name", 60),
        len(result.positions_mm),
        opened.stored.id,
        "",
    )
    version, status = _version(), 422
    try:
        with writing() as session:
            if act == "keep":
                stitches.keep(session, name, text, stations)
            else:
                books.change(
                    session,
                    book_id,
                    version,
                    "sewing",
                    "a stitch of your own",
                    lambda book: stitches.use(book, text, stations, name),
                )
    except BadBook as error:
        said = error.problems[0].message
    except ChangedElsewhere as error:
        said, version, status = f"{_MEANWHILE} ({error.label})", error.version, 409
    if act == "use" and not said:
        answer = make_response("", 204)
        answer.headers["HX-Redirect"] = url_for("workspace.show", book_id=book_id, open="binding")
        return answer if request.headers.get("HX-Request") else redirect(answer.headers["HX-Redirect"])
    shown = _tapping(result, stitches.tapping(_bed(result), text)) | {
        "name_said": said,
        "was_kept": not said,
        "name": name,
    }
    return make_response(
        render_template("sewing/_own.html", opened=opened, version=version, **shown), status if said else 200
    )


_MEANWHILE: Final = (
    "Another window changed this book since this page was opened, and nothing is sewn "
    "otherwise yet. Press it again to sew the book so all the same"
)


def _with_holes(result: SewnResult, count: int) -> SewnResult:
    """The book's own holes where they are as many as asked for (0: whatever it has), else so many, spread
    over its height."""
    count = count or len(result.positions_mm) or 3
    if count == len(result.positions_mm):
        return result
    step = result.height_mm / (count + 1)
    places = tuple(step * (number + 1) for number in range(count))
    bed = replace(result.sewing.bed, positions_mm=places, supports=())
    return replace(
        result, positions_mm=places, sewing=Sewing(bed, (), result.sewing.promise), stretches=(), own=False
    )


_SHOWN: Final = 6
"""Sections on the board of one's own stitch, at most."""


def _bed(result: SewnResult) -> Bed:
    """The bed to tap on: the book's sections, as many as are shown."""
    rows = result.sewing.bed.rows
    return replace(result.sewing.bed, rows=rows[:_SHOWN])


def _tapping(result: SewnResult, state: stitches.Tapping) -> dict[str, object]:
    sewing = Sewing(state.bed, (), result.sewing.promise)
    cut, part = practising.shown(replace(result, sewing=sewing), state.moves, sewing)
    part = replace(part, low=1, high=len(state.bed.rows)) if len(state.bed.rows) <= _SHOWN else part
    told_ = [words for thread in told(cut.sewing) for words in thread] if state.moves else []
    inner = replace(part, high=where(state.moves)[0]) if state.moves else replace(part, high=1)
    return {
        "state": state,
        "stations": len(result.positions_mm),
        "board": _board(cut, part),
        "inside": _inside(cut, inner),
        "told": told_,
        "name": "",
        "name_said": "",
        "was_kept": False,
    }
