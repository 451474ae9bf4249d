"""Opening, starting and changing books. Every function works in the caller's transaction."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, partial
from typing import Final, NamedTuple

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.items import Material, Paper, ThreadSpool
from pleat.core.materials.tools import Tools
from pleat.core.pleats.bench.compute import ticked
from pleat.core.pleats.binding.record import Thread
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.cutting.compute import NEARLY_NONE
from pleat.core.whole.overview import Good, Overview, overview
from pleat.core.whole.planning import PLEATS, Plan
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.portraits import portrait
from pleat.drawing.shapes import Drawing
from pleat.drawing.svg import render_standing
from pleat.services import counts, cutting, materials, offered
from pleat.services.clock import now
from pleat.services.counts import Place
from pleat.services.following import followed
from pleat.services.planned import plan_of
from pleat.store import books as repository
from pleat.store import packings
from pleat.store.books import Stored
from pleat.store.packings import KeptPacking

Label = str | Callable[[Book], str]
"""What an edit is called in the history, or how to call it when the book is there."""


@dataclass(frozen=True)
class Opened:
    """A stored book with its plan, worked out for the maker's tools.

    ``otherwise`` names the papers that the materials have better, or at least otherwise, than the book does;
    ``goods`` are what the materials know of other things in the plan, ``packings`` plans of sheets that were
    made better, by the keys of what they are plans of.
    """

    stored: Stored
    plan: Plan
    tools: Tools
    otherwise: tuple[Place, ...] = ()
    goods: Mapping[str, Good] = field(default_factory=dict)
    drawn: Drawing | None = field(default=None, repr=False)
    packings: Mapping[str, KeptPacking] = field(default_factory=dict, repr=False)

    @cached_property
    def portrait(self) -> Drawing:
        """The book as it will stand on the table."""
        return self.drawn or portrait(self.plan)

    @cached_property
    def overview(self) -> Overview:
        """The whole book at one glance."""
        return overview(self.plan, self.goods)

    @property
    def book(self) -> Book:
        return self.stored.book


@dataclass(frozen=True)
class Outcome:
    """What an edit did: the book now, the pleats whose result or inputs changed, and what it took from the
    materials, in words.

    Where the page was not on the newest version, every pleat counts as changed.
    """

    opened: Opened
    changed: tuple[str, ...]
    said: str = ""


def open_book(session: Session, book_id: int) -> Opened:
    """The book and its plan. Raises NoSuchBook."""
    stored = repository.load(session, book_id)
    book, otherwise = counts.with_materials(session, book_id, followed(session, stored.book))
    tools = replace(materials.tools(session), shelf=cutting.shelf_of(session, book_id, book))
    plan, tools, kept = _planned(session, book, tools)
    goods = offered.goods(session, plan)
    return Opened(replace(stored, book=book), plan, tools, otherwise, goods, packings=kept)


class _Planned(NamedTuple):
    """A plan with the tools it is for, and what is known of better plans of its sheets."""

    plan: Plan
    tools: Tools
    packings: Mapping[str, KeptPacking]


def _planned(session: Session, book: Book, tools: Tools, before: Plan | None = None) -> _Planned:
    """The plan of a book, with sheets as they were planned better since."""
    plan = plan_of(book, tools, before)
    keys = [own.problem.key for own in plan.cutting.plans if own.above > NEARLY_NONE and own.problem]
    kept = packings.find(session, keys)
    better = tuple((key, own.packing) for key, own in sorted(kept.items()))
    if better and better != tools.shelf.better:
        tools = replace(tools, shelf=replace(tools.shelf, better=better))
        plan = plan_of(book, tools, before)
    return _Planned(plan, tools, kept)


def folded_once(paper: Paper) -> tuple[float, float]:
    """(width, height) in mm of the leaf a sheet gives when its longer side is halved."""
    short, long = sorted((paper.sheet_width_mm, paper.sheet_height_mm))
    return long / 2, short


def add(session: Session, book: Book, window: str, label: str) -> int:
    """Store a finished Book under a new id."""
    return repository.add(
        session, book, summary(book, plan_of(book, materials.tools(session))), window, label, now()
    )


def change(
    session: Session,
    book_id: int,
    version: int | None,
    window: str,
    label: Label,
    alter: Callable[[Book], Book],
) -> Outcome:
    """Alter a book and store it as a new revision, under a label that may be made from the book as it was.

    ``version`` is the one the edit was made on; with None the edit takes over whatever is there, and every
    pleat counts as changed. An alteration that changes nothing stores nothing, and one of the ruler alone is
    no step to undo. Raises NoSuchBook, BadBook, ChangedElsewhere.
    """
    before = open_book(session, book_id)
    if version is not None:
        repository.check_version(session, before.stored, version, window)
    after, to_cut = _to_cut(before, alter(before.book))
    if after == before.book and to_cut:
        said_of = label if isinstance(label, str) else label(before.book)
        return cut(session, book_id, version, window, said_of, partial(_cut_all, session, book_id, to_cut))
    if after == before.book:
        return Outcome(before, () if version == before.stored.version else PLEATS)
    tools = before.tools
    if (after.paper, after.cutting.also) != (before.book.paper, before.book.cutting.also):
        tools = replace(tools, shelf=cutting.shelf_of(session, book_id, after))
    plan, tools, kept = _planned(session, after, tools, before.plan)
    drawn = portrait(plan)
    if _on_ruler(after, before.book) == before.book:
        stored = repository.amend(
            session, before.stored, after, _summary(after, plan, drawn), window, now=now()
        )
        return Outcome(Opened(stored, plan, tools, before.otherwise, before.goods, drawn, kept), PLEATS)
    said_of = label if isinstance(label, str) else label(before.book)
    stored = repository.save(
        session, before.stored, after, _summary(after, plan, drawn), window, said_of, now=now()
    )
    said = counts.settle(session, book_id, before.book, after, plan)
    said = "; ".join(filter(None, (said, _cut_all(session, book_id, to_cut, plan))))
    same = after.paper == before.book.paper
    counted, otherwise = (
        (after, before.otherwise) if same and not said else counts.with_materials(session, book_id, after)
    )
    if said or to_cut:
        tools = replace(tools, shelf=cutting.shelf_of(session, book_id, counted))
    if counted != after or said or to_cut:
        plan, tools, kept = _planned(session, counted, tools, plan)
        drawn = portrait(plan)
    opened = Opened(
        replace(stored, book=counted), plan, tools, otherwise, offered.goods(session, plan), drawn, kept
    )
    return Outcome(opened, _changed(before, opened) if version == before.stored.version else PLEATS, said)


def _to_cut(before: Opened, after: Book) -> tuple[Book, tuple[str, ...]]:
    """A book without the new ticks of steps that cut sheets, and those steps: their sheets are cut
    instead."""
    fresh = [key for key in after.bench.ticks if key not in before.book.bench.ticks]
    keys = tuple(key for key in fresh if cutting.can_cut(before.plan, key, True))
    if not keys:
        return after, ()
    rest = {key: mark for key, mark in after.bench.ticks.items() if key not in keys}
    return editing.apply(after, [("bench.ticks", rest)]), keys


def _cut_all(session: Session, book_id: int, keys: Sequence[str], plan: Plan) -> str:
    said = (cutting.cut_step(session, book_id, plan, key) for key in keys)
    return "; ".join(filter(None, said))


def _on_ruler(book: Book, of: Book) -> Book:
    """The book on the ruler of another one."""
    return book.model_copy(update={"brief": book.brief.on(of.brief.ruler)})


def undo(session: Session, book_id: int, by: int, version: int | None, window: str) -> Outcome:
    """Undo (-1) or redo (+1) one revision; the ruler stays as it is. Raises NoSuchBook, ChangedElsewhere."""
    before = open_book(session, book_id)
    if version is not None:
        repository.check_version(session, before.stored, version, window)
    found = repository.step(session, book_id, by, window, now())
    if found is None:
        return Outcome(before, () if version == before.stored.version else PLEATS)
    book = _on_ruler(found, before.book)
    if book != found:
        repository.amend(session, repository.load(session, book_id), book, "{}", window, now=now())
    said = counts.settle(session, book_id, before.book, book, plan_of(book, before.tools))
    opened = open_book(session, book_id)
    repository.set_summary(session, book_id, summary(opened.book, opened.plan))
    return Outcome(opened, _changed(before, opened) if version == before.stored.version else PLEATS, said)


def _changed(before: Opened, after: Opened) -> tuple[str, ...]:
    """Pleats whose result changed, or whose own inputs did (a field may show an input that changes no
    result)."""
    if before.book.brief.ruler != after.book.brief.ruler:
        return PLEATS
    results = set(after.plan.changed_since(before.plan))
    own = {name for name in PLEATS if getattr(before.book, name) != getattr(after.book, name)}
    if before.otherwise != after.otherwise:
        own |= {"paper", "pages"}
    return tuple(name for name in PLEATS if name in results or name in own)


def cut(
    session: Session,
    book_id: int,
    version: int | None,
    window: str,
    label: str,
    work: Callable[[Plan], str],
) -> Outcome:
    """Do something to the sheets that were cut for a book, which are no state of it: nothing to undo, and
    other windows are told. ``work`` says what was moved. Raises NoSuchBook, BadBook, ChangedElsewhere."""
    before = open_book(session, book_id)
    if version is not None:
        repository.check_version(session, before.stored, version, window)
    said = work(before.plan)
    counted = open_book(session, book_id)
    own = repository.load(session, book_id).book
    repository.amend(
        session, counted.stored, own, summary(counted.book, counted.plan), window, now=now(), label=label
    )
    opened = open_book(session, book_id)
    return Outcome(opened, _changed(before, opened) if version == before.stored.version else PLEATS, said)


TICKED: Final = {True: "ticked", False: "unticked"}


def tick_step(
    session: Session, book_id: int, version: int | None, window: str, key: str, done: bool
) -> Outcome:
    """Tick a bench step or untick it. One that cuts pieces out cuts the sheets they lie on, which are facts
    and no state of the book; every other is kept in the book. Raises NoSuchBook, BadBook,
    ChangedElsewhere."""
    opened = open_book(session, book_id)
    if any(one.done == done for one in opened.plan.bench.work if one.step.key == key):
        return change(session, book_id, version, window, "", lambda book: book)
    label = f"{TICKED[done]}: {key.replace('_', ' ')}"
    if cutting.can_cut(opened.plan, key, done) and key not in opened.book.bench.ticks:
        work = cutting.cut_step if done else cutting.give_back_step
        return cut(session, book_id, version, window, label, lambda plan: work(session, book_id, plan, key))
    plan = opened.plan
    return change(session, book_id, version, window, label, lambda book: tick(book, plan, key, done))


def tick(book: Book, plan: Plan, key: str, done: bool) -> Book:
    """The book with a bench step ticked on the figures it shows now, or unticked."""
    ticks = {
        k: v for k, v in ticked(book.bench.ticks, [one.step for one in plan.bench.work]).items() if k != key
    }
    step = next((one.step for one in plan.bench.work if one.step.key == key), None)
    if done and step:
        ticks[key] = step.signature
    return editing.apply(book, [("bench.ticks", ticks)])


def unlock_stations(book: Book, unlocked: bool) -> Book:
    """Stations moved one by one, or as pairs about the middle; unlocking leaves every hole where it is."""
    if not unlocked:
        return editing.apply(book, [("binding.positions_mm", None)])
    result = plan_of(book).binding
    if not isinstance(result, SewnResult):
        raise BadBook([FieldProblem("", "stations", "", "This binding has no stations to unlock.")])
    return editing.apply(book, [("binding.positions_mm", list(result.places_mm))])


def use_material(book: Book, paper: Material, role: str) -> Book:
    """The book with a material taken for one of its roles. Raises BadBook for one that cannot serve so."""
    return editing.apply(book, [(f"paper.{role}", paper.model_dump(mode="json"))])


def use_thread(book: Book, item_id: int, spool: ThreadSpool) -> Book:
    """The book sewn with a thread from the materials."""
    if not hasattr(book.binding, "thread"):
        raise BadBook([FieldProblem("", "thread", "", "Nothing is sewn in this book.")])
    thread = Thread(
        stock_id=str(item_id),
        name=spool.name,
        lea=spool.lea or 18,
        plies=spool.plies,
        tex=spool.tex,
        diameter_mm=spool.diameter_mm,
        fibre=spool.fibre,
        waxed=spool.waxed,
        swatch=spool.swatch,
    )
    return editing.apply(book, [("binding.thread", thread.model_dump(mode="json"))])


PX_PER_MM: Final = 0.62
"""Books on the list are drawn to this one scale."""


def summary(book: Book, plan: Plan) -> str:
    """What the list of books shows of one, as JSON; lengths in mm."""
    return _summary(book, plan, portrait(plan))


def _summary(book: Book, plan: Plan, drawn: Drawing) -> str:
    marks = [result.mark for _, result in plan]
    return json.dumps(
        {
            "leaf": [book.brief.leaf_width_mm, book.brief.leaf_height_mm],
            "ruler": book.brief.ruler,
            "pages": plan.pages.pages,
            "quantity": plan.brief.quantity,
            "portrait": render_standing(drawn, 190, 200, PX_PER_MM, "portrait-drawing"),
            "mark": next((mark for mark in ("stop", "watch") if mark in marks), "fine"),
            "done": sum(step.done for step in plan.bench.work),
            "steps": len(plan.bench.work),
        }
    )
