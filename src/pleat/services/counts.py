"""How a book and the materials know of each other: counts of its papers, links, and what the bench took and
put back."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document.book import Book
from pleat.core.materials.items import Board, Cloth, Item, Material, Paper, known_as
from pleat.core.pleats.cutting.offcuts import as_material
from pleat.core.pleats.paper.record import ROLES
from pleat.core.whole.planning import Plan
from pleat.services import cutting
from pleat.services.clock import now
from pleat.store import items as store

Place = str
"""The role of a material in a book, or ``pile``."""


_NOT_COUNTED: Final[dict[type[Item], dict[str, object]]] = {
    Paper: {"owned": None, "stock_id": None},
    Board: {"owned": None, "stock_id": None},
    Cloth: {"length_left_mm": 0.0, "stock_id": None},
}
_ROLL: Final[dict[str, object]] = {"sheet_height_mm": 100.0}
"""Of a roll of paper its length as well."""
"""What does not make a material another one: how much of it is left, and where it was taken from."""


def _bare(own: Material) -> Material:
    """A material without how much of it is left."""
    roll = _ROLL if isinstance(own, Paper) and own.form == "roll" else {}
    return own.model_copy(update=_NOT_COUNTED[type(own)] | roll)


def with_materials(session: Session, book_id: int, book: Book) -> tuple[Book, tuple[Place, ...]]:
    """The book with the sheets its papers have among the materials now, and where it has a paper that the
    materials have otherwise by now.

    What this book has cut already counts as there. A paper that was taken away stays as the book knows it,
    without the link. The sheets of a pile are counted alike.
    """
    linked = {int(paper.stock_id) for paper in book.paper.by_key().values() if paper.stock_id}
    if not linked:
        return book, ()
    there = {item_id: one for item_id in linked if (one := store.find_material(session, item_id))}
    taken: dict[int, int] = {}
    for rows in store.takings(session, book_id).values():
        for item_id, amount in rows:
            taken[item_id] = taken.get(item_id, 0) + max(amount, 0)

    def counted(own: Material) -> Material:
        held = there.get(int(own.stock_id)) if own.stock_id else None
        if held is None:
            return own.model_copy(update={"stock_id": None}) if own.stock_id else own
        own_taken = taken.get(int(own.stock_id or 0), 0)
        if isinstance(held, Cloth) or isinstance(own, Cloth):
            left = held.length_left_mm + own_taken if isinstance(held, Cloth) else None
            return own if left is None else own.model_copy(update={"length_left_mm": left})
        if isinstance(held, Paper) and isinstance(own, Paper) and cutting.is_roll(held):
            return own.model_copy(
                update={"sheet_height_mm": held.sheet_height_mm + own_taken, "owned": held.owned}
            )
        owned = None if held.owned is None else held.owned + own_taken
        return own if own.owned == owned else own.model_copy(update={"owned": owned})

    book = with_papers(book, counted)

    def known_otherwise(own: Material) -> bool:
        held = there[int(own.stock_id)] if own.stock_id else own
        return _bare(held) != _bare(own)

    otherwise: list[Place] = [role for role in ROLES if known_otherwise(getattr(book.paper, role))]
    if any(known_otherwise(paper) for paper in book.paper.more.values()):
        otherwise.append("pile")
    return book, tuple(otherwise)


def as_known(session: Session, book: Book) -> Callable[[Book], Book]:
    """How to change a book so that every sheet of its pile is as the materials have it now; sheets that are
    not from the materials stay."""
    there = {
        paper.stock_id: store.find_paper(session, int(paper.stock_id))
        for paper in book.paper.more.values()
        if paper.stock_id
    }

    def alter(now_: Book) -> Book:
        more = {key: there.get(paper.stock_id or "") or paper for key, paper in now_.paper.more.items()}
        return now_.model_copy(update={"paper": now_.paper.model_copy(update={"more": more})})

    return alter


def tell(session: Session, own: Material) -> str:
    """Let the materials know a paper, board or cloth as a book has it, readings and all, but for how much is
    left; its name. Raises BadBook."""
    there = store.find_material(session, int(own.stock_id)) if own.stock_id else None
    if not own.stock_id or type(there) is not type(own):
        raise BadBook([FieldProblem("", "paper", "", "That paper is no longer among the materials.")])
    left = {name: getattr(there, name) for name in _NOT_COUNTED[type(own)] if name != "stock_id"}
    store.change(session, int(own.stock_id), own.model_copy(update={**left, "stock_id": None}), now())
    return own.name


def relinked(session: Session, book: Book) -> tuple[Book, list[str]]:
    """A book from elsewhere with its papers linked to those of these materials that are the same; names of
    those that are not here."""
    here = {
        known_as(stored.item): stored.id
        for kind in ("paper", "board", "cloth")
        for stored in store.of_kind(session, kind)
        if isinstance(stored.item, Material)
    }
    lost: list[str] = []

    def link(own: Material) -> Material:
        if not own.stock_id:
            return own
        item_id = here.get(known_as(own))
        if item_id is None and own.name not in lost:
            lost.append(own.name)
        return own.model_copy(update={"stock_id": None if item_id is None else str(item_id)})

    return _held_anew(session, _own_offcuts_only(with_papers(book, link)), lost), lost


def _own_offcuts_only(book: Book) -> Book:
    """Offcuts and other sheets are known by their numbers among the materials, which elsewhere are other
    things."""
    pins = tuple(pin for pin in book.cutting.pins if not pin.offcut)
    cutting_ = book.cutting.model_copy(update={"also": {}, "spared": (), "pins": pins})
    return book.model_copy(update={"cutting": cutting_})


HOLDING: Final = ("thread", "hardware", "stick", "elastic")
"""Kinds of items that hold a book, which its binding knows by their names."""


def _held_anew(session: Session, book: Book, lost: list[str]) -> Book:
    """What the binding was taken from, by its name among these materials; without a link where it is not
    here."""
    binding = book.binding
    thread = getattr(binding, "thread", None)
    if not getattr(binding, "stock_id", None) and not getattr(thread, "stock_id", None):
        return book
    here = {stored.item.name: str(stored.id) for stored in store.of_kinds(session, HOLDING)}

    def found(name: str) -> str | None:
        if name not in here and name not in lost:
            lost.append(name)
        return here.get(name)

    changed: dict[str, object] = {}
    if getattr(binding, "stock_id", None):
        changed["stock_id"] = found(getattr(binding, "gear", ""))
    if thread is not None and thread.stock_id:
        changed["thread"] = thread.model_copy(update={"stock_id": found(thread.name)})
    return book.model_copy(update={"binding": binding.model_copy(update=changed)})


def with_papers(book: Book, alter: Callable[[Material], Material]) -> Book:
    """The book with every one of its materials, by role and of the pile, as ``alter`` makes it."""
    roles = {role: alter(getattr(book.paper, role)) for role in ROLES}
    more = {key: alter(paper) for key, paper in book.paper.more.items()}
    return book.model_copy(update={"paper": book.paper.model_copy(update={**roles, "more": more})})


def settle(session: Session, book_id: int, before: Book, after: Book, plan: Plan) -> str:
    """Take what newly ticked steps use from the materials, and give back what unticked ones took. Sheets that
    are cut are facts of their own, which ``cutting`` keeps: this is about the sheets of a pile.

    Returns what was moved, in words; "" for nothing.
    """
    if before.bench.ticks.keys() == after.bench.ticks.keys():
        return ""
    there = store.takings(session, book_id)
    said: list[str] = []
    for key, moved in there.items():
        if key in before.bench.ticks and key not in after.bench.ticks:
            for item_id, amount in moved:
                cutting.add(session, item_id, amount)
            store.forget_takings(session, book_id, key)
            said += cutting.in_words(session, moved, back=True)
    own = after.paper.by_key()
    for step in (one.step for one in plan.bench.work if one.step.takes and not one.step.cuts):
        if step.key in after.bench.ticks and step.key not in before.bench.ticks and step.key not in there:
            moved = [move for stock in step.takes for move in _take(session, own[stock], stock, plan)]
            store.record_takings(session, book_id, step.key, moved)
            said += cutting.in_words(session, moved, back=False)
    return "; ".join(said)


def _take(session: Session, own: Material, stock: str, plan: Plan) -> list[tuple[int, int]]:
    """What the sheets of one stock of a pile take from its item, and the offcuts they bring: (item, amount)
    with offcuts below 0."""
    there = store.find_material(session, int(own.stock_id)) if own.stock_id else None
    if not own.stock_id or not isinstance(own, Paper) or not isinstance(there, Paper):
        return []
    item_id, moved = int(own.stock_id), []
    left = store.owned_of(session, [item_id]).get(item_id)
    if left is not None:
        amount = min(left, plan.cutting.takes.get(stock, 0))
        cutting.add(session, item_id, -amount)
        moved.append((item_id, amount))
    for offcut in plan.cutting.offcuts:
        if offcut.key == stock:
            piece = as_material(own, offcut.width_mm, offcut.height_mm, offcut.count, offcut.grain)
            moved += cutting.lay_down(session, piece)
    return moved
