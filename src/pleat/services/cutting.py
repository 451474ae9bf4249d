"""Sheets that are cut: taken from the materials, offcuts put there; and what lies there for a book."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from math import ceil
from typing import Final

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.base.words import many
from pleat.core.document.book import Book
from pleat.core.materials.items import Board, Cloth, Material, Paper
from pleat.core.materials.sheet import CutSheet, Remnant, SheetCut, Shelf
from pleat.core.materials.uses import grain_axis
from pleat.core.pleats.cutting.facts import fits
from pleat.core.pleats.cutting.offcuts import SUFFIX, as_material, offcut_name, worth_keeping
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.trade.making import OFFCUT_MM
from pleat.core.whole.planning import Plan
from pleat.services.clock import now
from pleat.store import cut_sheets as facts
from pleat.store import items as store

Moves = list[tuple[int, int]]
"""(item, amount): what was taken of it, below 0 what was put there; sheets, of a roll millimetres."""
_KEY: Final = "sheet:"
SHORTEST_ROLL_MM: Final = 30.0
"""What is shorter is no roll any more."""


def shelf_of(session: Session, book_id: int, book: Book) -> Shelf:
    """Offcuts of the book's materials, and what was cut for it."""
    linked = {
        material.stock_id: material
        for material in book.paper.by_key().values()
        if material.stock_id and not material.name.endswith(SUFFIX)
    }
    named = store.named(session, {offcut_name(material) for material in linked.values()})
    remnants = []
    for number, material in linked.items():
        name = offcut_name(material)
        own = [
            _remnant(item) for item in named if item.item.name == name and type(item.item) is type(material)
        ]
        own = [remnant for remnant in own if remnant.count]
        if own:
            remnants.append((number, tuple(own)))
    also = tuple((key, _serving(session, numbers)) for key, numbers in sorted(book.cutting.also.items()))
    return Shelf(tuple(remnants), also, facts.of_book(session, book_id))


def _serving(session: Session, numbers: Sequence[str]) -> tuple[Remnant, ...]:
    """Sheets of other materials that are to serve as well; those that are no longer there do not."""
    there = (store.find_material(session, int(number)) for number in numbers if number.isdecimal())
    found = []
    for item in there:
        if isinstance(item, Paper | Board) and not is_roll(item):
            width, height = item.sheet_width_mm, item.sheet_height_mm
            axis = grain_axis(width, height, item.grain)
            number = item.stock_id or ""
            own = Remnant(number, item.name, width, height, axis, item.owned, whole=True, price=item.price)
            found.append(_with_edges(own, item))
    return tuple(found)


def _remnant(stored: store.StoredItem) -> Remnant:
    item = stored.item
    number = str(stored.id)
    if isinstance(item, Cloth):
        return Remnant(number, item.name, item.roll_width_mm, item.length_left_mm, "h", 1)
    assert isinstance(item, Paper | Board)
    width, height = item.sheet_width_mm, item.sheet_height_mm
    count = 1 if item.owned is None else item.owned
    own = Remnant(number, item.name, width, height, grain_axis(width, height, item.grain), count)
    return _with_edges(own, item)


def _with_edges(remnant: Remnant, item: Paper | Board) -> Remnant:
    """A remnant with what cannot be used of it."""
    if isinstance(item, Board):
        return remnant
    return replace(remnant, margins=item.margins, windows=item.windows)


def cut_step(session: Session, book_id: int, plan: Plan, key: str) -> str:
    """Cut every sheet that still holds a piece of a bench step; what was moved, in words."""
    step = next(one.step for one in plan.bench.work if one.step.key == key)
    said = []
    for own in plan.cutting.plans:
        for sheet in own.sheets:
            if not sheet.counts().keys().isdisjoint(step.cuts):
                said += _cut(session, book_id, plan.book, own, sheet, step=key)
    return "; ".join(said)


def can_cut(plan: Plan, key: str, done: bool) -> bool:
    """Whether the tick of a bench step cuts sheets, or to untick it gives some back."""
    step = next((one.step for one in plan.bench.work if one.step.key == key), None)
    if step is None or not step.cuts:
        return False
    if done:
        sheets = (sheet for own in plan.cutting.plans for sheet in own.sheets)
    else:
        sheets = (fact.sheet for own in plan.cutting.plans for fact in own.done)
    return any(not sheet.counts().keys().isdisjoint(step.cuts) for sheet in sheets)


def ticked_before(plan: Plan) -> frozenset[str]:
    """The parts whose step at the bench is ticked without their sheets being facts, as in books of before:
    what they took is kept with the tick."""
    done = (one.step for one in plan.bench.work if one.done)
    return frozenset(part for step in done for part in step.cuts) - plan.cutting.out


def cut_sheet(session: Session, book_id: int, plan: Plan, key: str, times: int) -> str:
    """Cut so many of the sheets of that key; what was moved, in words. Raises BadBook where the plan has none
    such any more."""
    for own in plan.cutting.plans:
        for sheet in own.sheets:
            if own.stock.key + sheet.key == key and 0 < times <= sheet.times:
                if ticked_before(plan).issuperset(sheet.counts()):
                    raise _gone("Its step is ticked at the bench. Untick it there first.")
                return "; ".join(_cut(session, book_id, plan.book, own, replace(sheet, times=times)))
    raise _gone("The plan has changed since the page showed it. Look at it again, and cut then.")


def _cut(
    session: Session, book_id: int, book: Book, own: StockPlan, sheet: SheetCut, *, step: str = ""
) -> list[str]:
    """Keep a sheet as cut, take it from the materials and put its offcuts there."""
    sheet = replace(sheet, pinned=False)
    stock = own.places[sheet.first_part]
    material = book.paper.by_key()[stock]
    held = store.find_material(session, int(material.stock_id)) if material.stock_id else None
    known = held if type(held) is type(material) else None
    counts = sheet.counts()
    fact = CutSheet(
        number=0,
        step=step,
        stock=stock,
        of=material.stock_id or "",
        material=material.name,
        grain=own.stock.grain,
        roll=own.stock.roll,
        sheet=sheet,
        names=tuple((key, name) for key, name in own.names.items() if key in counts),
    )
    number = facts.add(session, book_id, fact, now())
    moved = _take(session, fact, material, known is not None)
    origin = store.find_material(session, int(sheet.offcut)) if sheet.other else known
    if origin is not None:
        for (width, height), count in worth_keeping(sheet).items():
            moved += lay_down(session, as_material(origin, width, height, count, own.stock.grain))
    store.record_takings(session, book_id, f"{_KEY}{number}", moved)
    return in_words(session, moved, back=False)


def _take(session: Session, fact: CutSheet, material: Material, known: bool) -> Moves:
    sheet = fact.sheet
    if sheet.offcut:
        remnant = store.find_material(session, int(sheet.offcut))
        if remnant is None:
            raise _gone(f"An offcut of {material.name} is no longer there. Look at the plan again.")
        if isinstance(remnant, Cloth):
            store.set_gone(session, int(sheet.offcut), now())
            return [(int(sheet.offcut), ceil(remnant.length_left_mm))]
        add(session, int(sheet.offcut), -sheet.times)
        return [(int(sheet.offcut), sheet.times)]
    if not known:
        return []
    item_id = int(fact.of)
    if fact.roll:
        amount = ceil(sheet.height_mm * sheet.times - 1e-6)
        return [(item_id, -add(session, item_id, -amount))]
    left = store.owned_of(session, [item_id]).get(item_id)
    if left is None:
        return []
    return [(item_id, -add(session, item_id, -sheet.times))]


def give_back_step(session: Session, book_id: int, plan: Plan, key: str) -> str:
    """The sheets that hold a piece of a bench step were not cut after all."""
    step = next(one.step for one in plan.bench.work if one.step.key == key)
    own = {fact.number for stock in plan.cutting.plans for fact in stock.done if _holds(fact, step.cuts)}
    return give_back(session, book_id, own)


def _holds(fact: CutSheet, parts: Collection[str]) -> bool:
    return not fact.sheet.counts().keys().isdisjoint(parts)


def give_back(session: Session, book_id: int, numbers: Collection[int]) -> str:
    """Sheets that were not cut after all: they lie among the materials again, and their offcuts do not. In
    words. Raises BadBook where there is no such fact."""
    known = {fact.number for fact in facts.of_book(session, book_id)}
    if not numbers or not known.issuperset(numbers):
        raise _gone("That sheet is not among those that were cut.")
    said: list[str] = []
    for number in sorted(numbers):
        moved = store.takings(session, book_id).get(f"{_KEY}{number}", [])
        for item_id, amount in moved:
            add(session, item_id, amount)
        store.forget_takings(session, book_id, f"{_KEY}{number}")
        said += in_words(session, moved, back=True)
    facts.forget(session, book_id, numbers)
    return "; ".join(said)


def lay_aside(session: Session, book_id: int, plan: Plan, part: str) -> str:
    """Lay the pieces of a part that were cut and do not go into the book as it is now among the offcuts. In
    words. Raises BadBook where there are none."""
    wanted = {cut.part.key: cut for cut in plan.cutting.cuts}
    moved: Moves = []
    found = False
    for fact in facts.of_book(session, book_id):
        cut = wanted.get(part)
        spare = [piece for piece in fact.sheet.pieces if piece.part == part and not fits(fact, piece, cut)]
        if not spare:
            continue
        held = store.find_material(session, int(fact.of)) if fact.of else None
        own: Moves = []
        for piece in spare:
            size = (piece.width_mm, piece.height_mm)
            if held is not None and min(size) >= OFFCUT_MM:
                count = piece.count * fact.sheet.times
                own += lay_down(session, as_material(held, *size, count, fact.grain))
        rest = tuple(piece for piece in fact.sheet.pieces if piece not in spare)
        facts.change(session, replace(fact, sheet=replace(fact.sheet, pieces=rest)))
        store.record_takings(session, book_id, f"{_KEY}{fact.number}", own)
        moved += own
        found = True
    if not found:
        raise _gone("No piece of that name was cut that the book does not use.")
    return "; ".join(in_words(session, moved, back=False)) or "too small to keep as offcuts"


def in_words(session: Session, moved: Sequence[tuple[int, int]], back: bool) -> list[str]:
    """``5 sheets of Log paper taken, 115 left``; offcuts count below 0."""
    items = store.load_many(session, [item_id for item_id, _ in moved])
    words = []
    for item_id, amount in moved:
        if not amount:
            continue
        item = items[item_id].item
        if amount < 0:
            direction = "taken away again" if back else "put there"
            words.append(f"{-amount} of {item.name} {direction}")
            continue
        direction = "given back" if back else "taken"
        if is_roll(item):
            words.append(f"{amount} mm of {item.name} {direction}")
        else:
            words.append(
                f"{many(amount, 'sheet')} of {item.name} {direction}, {getattr(item, 'owned', 0)} there now"
            )
    return words


def is_roll(item: object) -> bool:
    """Whether lengths are cut off it."""
    return isinstance(item, Cloth) or (isinstance(item, Paper) and item.form == "roll")


def lay_down(session: Session, piece: Material) -> Moves:
    """An offcut among the materials, with others like it where there are some; cloth each by itself."""
    if isinstance(piece, Cloth):
        return [(store.add(session, piece, now()), -1)]
    same = store.same_offcut(session, piece)
    count = piece.owned or 0
    if same is None:
        return [(store.add(session, piece, now()), -count)]
    add(session, same, count)
    return [(same, -count)]


def add(session: Session, item_id: int, amount: int) -> int:
    """Change how many sheets, or how many mm of a roll, are left, never below none; by how much it was
    changed. An offcut of which none is left goes away, and comes back when it is given back."""
    stored = store.load(session, item_id)
    item = stored.item
    if is_roll(item):
        name = "length_left_mm" if isinstance(item, Cloth) else "sheet_height_mm"
        was = float(getattr(item, name))
        left = max(0.0, was + amount)
        if item.name.endswith(SUFFIX) or stored.gone or left < SHORTEST_ROLL_MM:
            store.set_gone(session, item_id, None if amount > 0 else now())  # its length stays as it was
            return amount
        store.change(session, item_id, item.model_copy(update={name: left}), now())
        return round(left - was)
    owned: int | None = getattr(item, "owned", None)
    if owned is None:
        return 0
    left_now = max(0, owned + amount)
    store.set_owned(session, item_id, left_now, now())
    if item.name.endswith(SUFFIX) or getattr(item, "form", "") == "offcut":
        store.set_gone(session, item_id, None if left_now > 0 else now())
    return left_now - owned


def _gone(words: str) -> BadBook:
    return BadBook([FieldProblem("", "the sheets", "", words)])
