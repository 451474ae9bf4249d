"""Starting a book from a few answers, and making another kind of book of one that is there."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem, LengthError
from pleat.core.base.plan import Figure
from pleat.core.base.texts import with_unit
from pleat.core.base.units import RULERS, RulerName
from pleat.core.base.words import many
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.bookfile import validate_book
from pleat.core.document.recipes import RECIPES, Recipe, recipe
from pleat.core.materials.editing import build
from pleat.core.materials.items import Paper
from pleat.core.materials.sizes import parse_size
from pleat.core.materials.tools import Tools
from pleat.core.pleats.pages.counting import parse_count
from pleat.core.pleats.pages.record import Sections
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.planning import PLEATS, Plan, make_plan
from pleat.services import books, counts, offered, piles

OWN: Final = "own"
"""The answer to "from what?" of a paper that is not among the materials."""

_OWN: Final = {"name": "own_name", "size": "own_size", "weight": "own_weight"}
"""The answers that tell of such a paper, by the field of the paper."""


@dataclass(frozen=True)
class Answers:
    """What a maker answered, as typed: the recipe, how big, from what, how many pages, a title.

    ``fits`` asks for the leaf that the sheet gives folded once. ``paper`` is an item's id, or ``OWN`` with
    name, size and weight.
    """

    recipe: str = ""
    size: str = ""
    fits: bool = False
    paper: str = ""
    own_name: str = ""
    own_size: str = ""
    own_weight: str = ""
    count: str = ""
    title: str = ""
    ruler: RulerName = "mm"


def begun(session: Session, answers: Answers, leaf: Paper | None = None) -> Book:
    """The book these answers make, of the paper ``leaf`` where that is given. Raises BadBook naming every
    answer that cannot be taken."""
    kind = recipe(answers.recipe) or RECIPES[0]
    problems: list[FieldProblem] = []
    leaf = leaf or _paper(session, answers, problems)
    size = _size(answers, leaf, problems)
    counted: editing.Changes = []
    try:
        if kind.counted:
            amount, unit = parse_count(answers.count)
            counted = [("pages.amount", amount), ("pages.counted_in", unit)]
    except LengthError as error:
        problems.append(FieldProblem("count", "pages", answers.count, error.reason))
    if problems or leaf is None or size is None:
        raise BadBook(problems)
    width, height, typed = size
    changes: editing.Changes = [
        *kind.begun_on(RULERS[answers.ruler]),
        ("brief.leaf_width_mm", width),
        ("brief.leaf_height_mm", height),
        *counted,
        ("title", answers.title.strip() or "Untitled book"),
    ]
    papers = Papers(cover=offered.cover_for(session, width, height) or Papers().cover)
    blank = validate_book({"brief": {"ruler": answers.ruler}})
    book = blank.model_copy(update={"paper": papers.model_copy(update={kind.made_from: leaf})})
    try:
        book = editing.apply(book, changes, typed)
    except BadBook as error:
        raise BadBook([_as_answer(problem, answers) for problem in error.problems]) from error
    return piles.begun(book) if kind.pile else offered.from_materials(session, book)


def so_far(session: Session, answers: Answers) -> tuple[Book, tuple[str, ...]]:
    """The book these answers make, with what the recipe has in place of those that cannot be taken yet; and
    which those are."""
    try:
        return begun(session, answers), ()
    except BadBook as error:
        guessed = tuple(dict.fromkeys(problem.path for problem in error.problems))
    kind = recipe(answers.recipe) or RECIPES[0]
    width, height, _ = parse_size(kind.size, "mm")
    read = replace(
        answers,
        size=f"{width:g} × {height:g} mm" if "size" in guessed else answers.size,
        count=kind.count if "count" in guessed else answers.count,
        title="" if "title" in guessed else answers.title,
    )
    try:
        return begun(
            session,
            read,
            None
            if {"paper", *_OWN.values()}.isdisjoint(guessed)
            else getattr(kind, kind.made_from) or getattr(Papers(), kind.made_from),
        ), guessed
    except BadBook:  # such as more sheets than a pile holds
        return editing.apply(kind.book(), [("brief.ruler", answers.ruler), ("brief.marks", None)]), guessed


def start(session: Session, answers: Answers, window: str) -> int:
    """A new book from the answers: its id. Raises BadBook."""
    book = begun(session, answers)
    if answers.paper == OWN:
        mine: Paper = getattr(book.paper, (recipe(answers.recipe) or RECIPES[0]).made_from)
        linked = {"stock_id": str(offered.keep(session, mine))}
        book = counts.with_papers(book, lambda own: own.model_copy(update=linked) if own == mine else own)
    return books.add(session, book, window, "started")


def _paper(session: Session, answers: Answers, problems: list[FieldProblem]) -> Paper | None:
    if answers.paper == OWN:
        texts = {"name": answers.own_name, "size": answers.own_size or " ? ", "weight": answers.own_weight}
        try:
            made = build("paper", texts, answers.ruler)
        except BadBook as error:
            for problem in error.problems:
                path = _OWN.get(problem.path, "own_size")
                problems.append(FieldProblem(path, problem.label, problem.typed, problem.message))
            return None
        assert isinstance(made, Paper)
        return made
    paper = (
        offered.paper(session, int(answers.paper))
        if answers.paper.lstrip("-").isdecimal() and len(answers.paper) < 10
        else None
    )
    if paper is None:
        problems.append(FieldProblem("paper", "paper", "", "Choose the paper for the leaves."))
    return paper


def _size(
    answers: Answers, leaf: Paper | None, problems: list[FieldProblem]
) -> tuple[float, float, dict[str, str]] | None:
    """(width, height, how they were typed) of the leaf."""
    if answers.fits:
        return (*books.folded_once(leaf), {}) if leaf else None
    try:
        width, height, notes = parse_size(answers.size.strip() or " ? ", answers.ruler)
    except LengthError as error:
        problems.append(FieldProblem("size", "size", answers.size, error.reason))
        return None
    typed = dict(
        zip(
            ("brief.leaf_width_mm", "brief.leaf_height_mm"),
            (with_unit(note, answers.ruler) for note in notes),
            strict=True,
        )
    )
    return width, height, {path: note for path, note in typed.items() if note}


def _as_answer(problem: FieldProblem, answers: Answers) -> FieldProblem:
    group = problem.path.split(".")[0]
    answer, typed = {"brief": ("size", answers.size), "pages": ("count", answers.count)}.get(
        group, ("title", problem.typed)
    )
    return FieldProblem(answer, answer, typed, problem.message)


@dataclass(frozen=True)
class Becoming:
    """What making another kind of book of one would change, before it happens."""

    recipe: Recipe
    book: Book
    plan: Plan
    figures: tuple[tuple[str, str, Figure | None, Figure | None], ...]
    aside: tuple[str, ...]
    goes: tuple[str, ...]
    stops: tuple[str, ...]


def _counted(book: Book, kind: Recipe) -> editing.Changes:
    """How many pages a book has, for a kind that may not hold as many: then as many as it holds."""
    found = [
        (f"pages.{name}", getattr(book.pages, name))
        for name in ("amount", "counted_in")
        if hasattr(book.pages, name)
    ]
    rule = kind.counts
    return [
        (path, min(max(value, int(rule.low)), int(rule.high)) if path.endswith("amount") and rule else value)
        for path, value in found
    ]


def becoming(book: Book, kind: Recipe, tools: Tools) -> Becoming:
    """The book as this recipe has it, with every figure that changes (pleat, label, before, after), the
    members that are laid aside, what goes and what would not work. Size, papers, count and everything else
    that carries over stays. Raises BadBook where it cannot be one."""
    had, before_plan = book.pages.pile if isinstance(book.pages, Sections) else (), make_plan(book, tools)
    after = book
    if had and not kind.pile:
        after = editing.apply(
            piles.cleared(book), [("pages.amount", before_plan.pages.pages), ("pages.counted_in", "pages")]
        )
    counted = _counted(after, kind)
    after = editing.apply(after, kind.made_on(before_plan.brief.ruler))
    if type(after.pages) is not type(book.pages) and kind.counted:
        after = editing.apply(after, counted)
    if kind.pile and not had:
        after = piles.begun(after)
    plan = make_plan(after, tools)
    changed = []
    for name in PLEATS[:-1]:
        then, now = ({figure.key: figure for figure in plan_[name].figures} for plan_ in (before_plan, plan))
        for key in dict.fromkeys((*then, *now)):
            old, new = then.get(key), now.get(key)
            told = new or old
            if told and (old is None or new is None or old.value != new.value):
                changed.append((name, told.label, old, new))
    known: Mapping[str, Mapping[str, object]] = book.aside
    aside = tuple(
        member
        for pleat, members in after.aside.items()
        for member in members
        if member not in known.get(pleat, {})
    )
    goes = (
        (f"The pile of {many(len(had), 'sheet')} goes: it is made of one paper, {after.paper.leaf.name}.",)
        if had and not kind.pile
        else ()
    )
    stops = tuple(check.title for _, check in plan.checks if check.level == "stop")
    return Becoming(kind, after, plan, tuple(changed), aside, goes, stops)
