"""The materials: listing, items, measuring, finding the grain. Tables in and out are in ``tables``."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, Response, current_app, make_response, redirect, render_template, request, url_for
from werkzeug.exceptions import NotFound
from werkzeug.wrappers import Response as AnyResponse

from pleat.caliper.client import CaliperError
from pleat.core.base.errors import BadBook, LengthError
from pleat.core.base.units import RULERS, RulerName
from pleat.core.materials.editing import label_of
from pleat.core.materials.grain import TESTS, conclude
from pleat.core.materials.items import KINDS, Paper
from pleat.core.materials.sizes import parse_size
from pleat.core.trade.paper import USES_MM
from pleat.services import materials, measuring, offered
from pleat.services.materials import PER_PAGE, Wanted
from pleat.store import items as store
from pleat.store.items import SORTS, ItemChanged
from pleat.web import asked
from pleat.web import items as view
from pleat.web.database import FIELD, reading, writing

pages = Blueprint("materials", __name__, url_prefix="/materials")


def ruler_in_use() -> RulerName:
    """The ruler chosen on the materials' pages; a cookie keeps it."""
    return "in" if request.args.get("ruler", request.cookies.get("ruler")) == "in" else "mm"


@pages.after_request
def _keep_ruler(response: Response) -> Response:
    if "ruler" in request.args:
        response.set_cookie("ruler", ruler_in_use(), max_age=31_536_000, samesite="Strict", httponly=True)
    return response


@pages.get("")
def index() -> str:
    given = request.args
    wanted = Wanted(
        asked.word(given, "q"),
        asked.word(given, "kind", 20),
        asked.word(given, "use", 20),
        given.get("sort", "name"),
        asked.number(given, "page", 1, 1, 10**6),
    )
    makes, problem = None, ""
    ruler = ruler_in_use()
    with reading() as session:
        stored_items, count, kinds = materials.listing(session, wanted)
        if given.get("make", "").strip():
            try:
                width, height, _ = parse_size(given["make"][:80], ruler)
                makes = offered.could_make(session, width, height)
            except LengthError as error:
                problem = error.reason
    template = "materials/_found.html" if request.headers.get("HX-Request") else "materials/index.html"
    return render_template(
        template,
        cards=[(stored.id, view.card(stored.item, ruler)) for stored in stored_items],
        count=count,
        kinds=kinds,
        wanted=wanted,
        makes=makes,
        make=asked.word(given, "make"),
        problem=problem,
        last=max(1, -(-count // PER_PAGE)),
        sorts=SORTS,
        uses=USES_MM,
        KINDS=KINDS,
        ruler=RULERS[ruler],
    )


@pages.get("/new/<kind>")
def new(kind: str) -> str | tuple[str, int]:
    return _new(kind, {}, {})


@pages.post("/new/<kind>")
def start(kind: str) -> AnyResponse | tuple[str, int]:
    texts = _texts()
    try:
        with writing() as session:
            item_id = materials.start(
                session, kind, {name: text for name, text in texts.items() if text.strip()}, ruler_in_use()
            )
    except BadBook as error:
        return _new(kind, texts, {problem.path: problem.message for problem in error.problems}), 422
    return redirect(url_for("materials.show", item_id=item_id), 303)


def _new(kind: str, texts: dict[str, str], problems: dict[str, str]) -> str:
    if kind not in KINDS:
        raise NotFound
    fields = view.fields(kind, None, ruler_in_use(), texts, problems)
    return render_template(
        "materials/new.html",
        kind=kind,
        words=KINDS[kind],
        fields=fields,
        KINDS=KINDS,
        ruler=RULERS[ruler_in_use()],
    )


@pages.get("/<int:item_id>")
def show(item_id: int) -> str:
    with reading() as session:
        stored = store.load(session, item_id)
    return render_template("materials/item.html", **view.page(stored, ruler_in_use()))


@pages.post("/<int:item_id>")
def edit(item_id: int) -> Response | tuple[str, int]:
    """Every field at once: those that show what the page was made with change nothing."""
    texts = _texts()
    shown = {name.removeprefix("was."): text for name, text in texts.items() if name.startswith("was.")}
    texts = {
        name: text
        for name, text in texts.items()
        if not name.startswith("was.") and name not in ("version", "takeover")
    }
    taking_over = request.form.get("takeover") == "1" or "version" not in request.form
    version = None if taking_over else asked.number(request.form, "version", -1, -1)
    ruler: RulerName = "in" if request.form.get("ruler", ruler_in_use()) == "in" else "mm"
    try:
        with writing() as session:
            stored = materials.edit(session, item_id, texts, ruler, version, shown or None)
    except BadBook as error:
        with reading() as session:
            stored = store.load(session, item_id)
        problems = {problem.path: problem.message for problem in error.problems}
        return render_template("materials/_item.html", **view.page(stored, ruler, texts, problems)), 422
    except ItemChanged as error:
        names = ", ".join(label_of(store_kind(item_id), name) for name in error.fields[:4])
        given = {
            name: value[:400]
            for name, value in request.form.items()
            if name not in ("version", "takeover", "csrf_token", FIELD)
        }
        page = render_template(
            "_conflict_swap.html",
            error=error,
            what="this material",
            label=names,
            given=given,
            action=request.path,
        )
        return page, 409
    return make_response(render_template("materials/_item.html", **view.page(stored, ruler), saved=True))


def store_kind(item_id: int) -> str:
    with reading() as session:
        return store.load(session, item_id).kind


@pages.post("/<int:item_id>/copy")
def copy(item_id: int) -> AnyResponse:
    with writing() as session:
        made = materials.copy(session, item_id)
    return redirect(url_for("materials.show", item_id=made), 303)


@pages.post("/<int:item_id>/take-off")
def take_off(item_id: int) -> AnyResponse:
    with writing() as session:
        materials.take_off(session, item_id)
    return redirect(url_for("materials.show", item_id=item_id), 303)


@pages.post("/<int:item_id>/put-back")
def put_back(item_id: int) -> AnyResponse:
    with writing() as session:
        materials.put_back(session, item_id)
    return redirect(url_for("materials.show", item_id=item_id), 303)


# --- measuring ----------------------------------------------------------------------------------------------


@pages.route("/<int:item_id>/measure", methods=["GET", "POST"])
def measure(item_id: int) -> AnyResponse | str | tuple[str, int]:
    """The procedure; how far it has come stands in the page, and nothing is stored before ``keep``."""
    with reading() as session:
        stored = store.load(session, item_id)
    paper = stored.item
    if not isinstance(paper, Paper):
        return redirect(url_for("materials.show", item_id=item_id), 303)
    given = request.form
    state = view.session_of(given, paper)
    said, said_at = "", ""
    try:
        state = _next(state, given.get("do", ""), given, paper)
    except CaliperError as error:
        said, said_at = error.text, "zero" if state.zero_mm is None else "reading"
    except LengthError as error:
        said, said_at = error.reason, "typed-zero" if given.get("do") == "typed-zero" else "typed"
    judged = state.judged(paper)
    if given.get("do") == "keep" and judged.sheet:
        try:
            with writing() as session:
                materials.set_fields(session, item_id, measured_sheets=state.sheets, readings_mm=judged.kept)
            return _to_item(item_id)
        except BadBook as error:
            said, said_at = error.problems[0].message, "reading"
    page = render_template(
        "materials/measure.html",
        stored=stored,
        paper=paper,
        state=state,
        judged=judged,
        said=said,
        said_at=said_at,
        typed=given.get("typed", "") if said_at == "typed" else "",
        wanted=measuring.READINGS,
        caliper=current_app.config["PLEAT_CALIPER"],
        ruler=RULERS[ruler_in_use()],
    )
    return (page, 422) if said else page


def _next(state: measuring.Session, do: str, given: Any, paper: Paper) -> measuring.Session:
    """The measuring after one tap. Raises CaliperError, LengthError."""
    address = current_app.config["PLEAT_CALIPER"]
    match do:
        case "zero":
            return replace(state, zero_mm=measuring.take_zero(address))
        case "typed-zero":
            text = given.get("zero_typed", "")[:300].strip().replace("−", "-")
            sign = -1 if text.startswith("-") else 1
            return replace(state, zero_mm=sign * view.small_length(text.lstrip("-+")))
        case "reading" if state.may_go_on:
            return view.with_reading(state, measuring.take_reading(address, paper, state.sheets))
        case "typed" if state.may_go_on:
            return view.with_reading(state, measuring.typed_reading(given.get("typed", "")[:300]))
        case "again":
            return measuring.Session(state.sheets, None, ())
    if do.startswith("drop-") and do[5:].isdecimal() and len(do) < 9 and int(do[5:]) < len(state.readings_mm):
        number = int(do[5:])
        return replace(state, readings_mm=state.readings_mm[:number] + state.readings_mm[number + 1 :])
    return state


# --- the grain ----------------------------------------------------------------------------------------------


@pages.route("/<int:item_id>/grain", methods=["GET", "POST"])
def grain(item_id: int) -> AnyResponse | str:
    with reading() as session:
        stored = store.load(session, item_id)
    if not hasattr(stored.item, "grain"):
        return redirect(url_for("materials.show", item_id=item_id), 303)
    answers = view.answers_of(request.form)
    answer = conclude(answers)
    if request.form.get("do") == "keep" and answer.grain != "unknown":
        sure = {"grain_sure": answer.sure} if isinstance(stored.item, Paper) else {}
        with writing() as session:
            materials.set_fields(session, item_id, grain=answer.grain, **sure)
        return _to_item(item_id)
    return render_template(
        "materials/grain.html",
        stored=stored,
        tests=TESTS,
        answers=answers,
        found=answer,
        bends=view.bends(),
        ruler=RULERS[ruler_in_use()],
    )


def _to_item(item_id: int) -> AnyResponse:
    """On to an item's page: told to the page's script where it asked, since it would swap a redirected page
    into its place."""
    address = url_for("materials.show", item_id=item_id)
    if request.headers.get("HX-Request"):
        return Response(status=200, headers={"HX-Redirect": address})
    return redirect(address, 303)


def _texts() -> dict[str, str]:
    return {
        name.removeprefix("field."): text[:20_001]
        for name, text in request.form.items()
        if name not in ("csrf_token", FIELD, "do", "ruler")
    }
