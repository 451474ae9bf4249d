"""Starting a book: what shall it be, how big, from what, how many pages; every answer shows at once what it
does to the portrait."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from typing import Any, Final

from flask import Blueprint, Response, redirect, render_template, request, url_for
from markupsafe import Markup
from werkzeug.wrappers import Response as AnyResponse

from pleat.core.base.errors import BadBook, FieldProblem, LengthError
from pleat.core.base.units import RULERS
from pleat.core.document.book import Book
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, USES, WISHES, Recipe, advise, recipe
from pleat.core.materials.sizes import parse_size
from pleat.core.whole.overview import overview
from pleat.core.whole.planning import make_plan
from pleat.drawing.portraits import portrait
from pleat.drawing.svg import render_standing
from pleat.services import books, materials, offered, starting
from pleat.services.starting import Answers
from pleat.web import asked
from pleat.web.database import reading, writing
from pleat.web.workspace import change

pages = Blueprint("starting", __name__)
PX_PER_MM: Final = 0.42
"""Recipes are all drawn to this one scale."""


@lru_cache(maxsize=1)
def cards() -> tuple[dict[str, Any], ...]:
    """Each recipe with its portrait, what it takes and how long, worked out once from its example."""
    found = []
    for one in RECIPES:
        book = one.book()
        plan = make_plan(book)
        tools = dict.fromkeys(tool for step in plan.bench.work for tool in step.step.tools)
        found.append(
            {
                "recipe": one,
                "portrait": Markup(render_standing(portrait(plan), 120, 104, PX_PER_MM, "portrait-drawing")),
                "time": overview(plan, {}).work_short,
                "tools": [tool for tool in tools if tool in _TELLING],
                "wishes": " ".join(sorted(one.wishes(chosen(book)))),
            }
        )
    return tuple(found)


_TELLING: Final = ("needle", "awl", "long-arm stapler", "paper punch", "glue")
"""Tools that decide whether a maker can make it; a rule, a knife and a bone folder they all want."""


def _wishes_to_ask() -> dict[str, str]:
    """Only those that at least one recipe meets, and not all do."""
    met = [set(card["wishes"].split()) for card in cards()]
    return {name: words for name, words in WISHES.items() if 0 < sum(name in one for one in met) < len(met)}


def _answers(given: Mapping[str, str]) -> Answers:
    return Answers(
        recipe=asked.word(given, "recipe", 40),
        size=given.get("size", "")[:400],
        fits=given.get("fit") == "paper",
        paper=asked.word(given, "paper", 20),
        own_name=given.get("own_name", "")[:400],
        own_size=given.get("own_size", "")[:400],
        own_weight=given.get("own_weight", "")[:400],
        count=given.get("count", "")[:400],
        title=given.get("title", "")[:900],
        ruler="in" if given.get("ruler") == "in" else "mm",
    )


def _page(given: Mapping[str, str], problems: Mapping[str, str]) -> str:
    answers = _answers(given)
    with reading() as session:
        choices = offered.suited(session, *_leaf(answers), "", answers.paper)
    return render_template(
        "starting/new.html",
        cards=cards(),
        uses=USES,
        wishes=_wishes_to_ask(),
        choices=choices,
        given=given,
        problems=problems,
        ruler=RULERS[answers.ruler],
        **_look(given),
    )


def _leaf(answers: Answers) -> tuple[float, float]:
    """The leaf that was asked for, or that of the recipe where it cannot be read yet."""
    try:
        width, height, _ = parse_size(answers.size, answers.ruler)
    except LengthError:
        width, height, _ = parse_size((recipe(answers.recipe) or RECIPES[0]).size, "mm")
    return width, height


@pages.get("/new")
def new() -> str:
    first = recipe(asked.word(request.args, "recipe", 40)) or RECIPES[0]
    with reading() as session:
        width, height, _ = parse_size(first.size, "mm")
        best = next(iter(offered.suited(session, width, height, "")), None)
    return _page(
        {
            "recipe": first.name,
            "size": first.size,
            "count": first.count,
            "ruler": "mm",
            "paper": str(best.id) if best else "",
        },
        {},
    )


@pages.get("/new/look")
def look() -> str:
    """What the answers so far make: the portrait and a few figures."""
    return render_template("starting/_look.html", **_look(request.args))


def _look(given: Mapping[str, str]) -> dict[str, Any]:
    """The book the answers make so far, drawn, with its figures."""
    answers = _answers(given)
    kind = recipe(answers.recipe) or RECIPES[0]
    with reading() as session:
        book, guessed = starting.so_far(session, answers)
    plan = make_plan(book)
    return {
        "plan": plan,
        "kind": kind,
        "guessed": guessed,
        "picture": Markup(render_standing(portrait(plan), 300, 250, 1.0, "portrait-drawing")),
        "over": overview(plan, {}),
    }


@pages.get("/new/papers")
def papers() -> str:
    """Papers that suit the answers so far, or those that a search finds."""
    answers = _answers(request.args)
    with reading() as session:
        choices = offered.suited(session, *_leaf(answers), asked.word(request.args, "q"), answers.paper)
    return render_template(
        "starting/_papers.html", choices=choices, given=request.args, ruler=RULERS[answers.ruler]
    )


@pages.get("/new/advise")
def advice() -> str:
    """What suits three answers best, with the reasons, and two runners-up."""
    use, count = asked.word(request.args, "use"), asked.number(request.args, "pages", 24, 1, 10**6)
    found = advise(use, count or 24, frozenset(request.args.getlist("wish")))
    shown = {card["recipe"].name: card for card in cards()}
    return render_template(
        "starting/_advice.html", advice=[(one, shown[one.recipe.name]) for one in found[:3]]
    )


@pages.post("/new")
def start() -> AnyResponse | tuple[str, int]:
    answers = _answers(request.form)
    try:
        with writing() as session:
            book_id = starting.start(session, answers, "")
    except BadBook as error:
        return _page(request.form, {problem.path: problem.message for problem in error.problems}), 422
    return redirect(url_for("workspace.show", book_id=book_id), 303)


@pages.get("/books/<int:book_id>/become")
def become(book_id: int) -> str:
    """The kinds of book this one can become, or, once one is chosen, what would change before it happens."""
    kind = recipe(asked.word(request.args, "recipe", 40))
    with reading() as session:
        opened = books.open_book(session, book_id)
    change_, problem = None, ""
    try:
        change_ = starting.becoming(opened.book, kind, opened.tools) if kind else None
    except BadBook as error:
        problem = " ".join(one.message for one in error.problems)
    picture = (
        Markup(render_standing(portrait(change_.plan), 200, 190, 0.7, "portrait-drawing")) if change_ else ""
    )
    return render_template(
        "starting/_become.html",
        opened=opened,
        cards=cards(),
        change=change_,
        picture=picture,
        problem=problem,
    )


@pages.post("/books/<int:book_id>/become")
def make_it(book_id: int) -> Response:
    """Make another kind of book of it; undo brings all back."""
    kind: Recipe | None = recipe(asked.word(request.form, "recipe", 40))
    with reading() as session:
        tools = materials.tools(session)

    def alter(book: Book) -> Book:
        if kind is None:
            raise BadBook([FieldProblem("", "the kind", "", "There is no such kind of book.")])
        return starting.becoming(book, kind, tools).book

    return change(book_id, f"made it a {kind.title}" if kind else "kind", alter)
