"""Sheets that are cut: facts beside the book, taken from what lies there, whatever the book is later. What
the materials hold is counted here by itself."""

from __future__ import annotations

from collections import Counter

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.bookfile import write_book
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.materials.items import Board, Cloth, Material, Paper
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.cutting.pinned import as_pin
from pleat.core.pleats.paper.record import ROLES
from pleat.core.whole.planning import worked_out
from pleat.services import books, cutting, library, materials
from pleat.store import items as store
from tests.profiles import some

PLENTY = 5000


def kept(session, book):
    """The book with every material taken from the materials, of which there is plenty."""
    for role in ROLES:
        material = getattr(book.paper, role)
        left = {"length_left_mm": 90_000.0} if isinstance(material, Cloth) else {"owned": PLENTY}
        named = {"name": f"{material.name}, {role}", "stock_id": None}
        number = store.add(session, material.model_copy(update={**named, **left}), books.now())
        book = books.use_material(book, store.find_material(session, number), role)
    return books.add(session, book, "one", "started")


def held(session):
    """How much there is of everything: sheets, or mm of a roll, of what is there."""
    return {
        (stored.id, stored.item.name): getattr(stored.item, "length_left_mm", None) or stored.item.owned
        for stored in store.of_kinds(session, ("paper", "board", "cloth"))
    }


def tick(session, number, key, done=True):
    return books.tick_step(session, number, None, "one", key, done).opened


def change(session, number, **typed):
    changes = {path.replace("__", "."): text for path, text in typed.items()}
    return books.change(session, number, None, "one", "x", lambda book: editing.edit(book, changes)).opened


def cut(session, number, work):
    return books.cut(session, number, None, "one", "x", work).opened


def keys_of(opened, code):
    return [check for check in opened.plan.cutting.checks if check.code == code]


@pytest.mark.every(2)
@pytest.mark.parametrize("name", some([one.name for one in RECIPES if not one.pile], 2))
def test_what_is_cut_is_taken_counted_and_given_back(session, name):
    """Every cutting step of every kind: the book asks for what it asked for before, nothing more is cut, and
    to untick them leaves the materials as they were."""
    number = kept(session, recipe(name).book())
    before, first = held(session), books.open_book(session, number)
    steps = [one.step for one in first.plan.bench.work if one.step.cuts]
    for step in steps:
        tick(session, number, step.key)
    after = books.open_book(session, number)
    assert not any(plan.sheets for plan in after.plan.cutting.plans), "all of it is cut"
    assert after.plan.cutting.takes == first.plan.cutting.takes
    assert {step.key for step in steps} <= {one.step.key for one in after.plan.bench.work if one.done}
    assert not keys_of(after, "owned") + keys_of(after, "cut_otherwise")
    assert after.stored.book.model_dump() == first.stored.book.model_dump(), "facts are no state of the book"
    now = held(session)
    for plan in first.plan.cutting.plans:
        own = (int(plan.stock.item), plan.stock.name)
        taken = plan.length_mm if plan.stock.roll else plan.needed
        assert before[own] - now[own] == pytest.approx(taken, abs=len(plan.sheets))
    for step in reversed(steps):
        tick(session, number, step.key, False)
    left = {fact.number for plan in books.open_book(session, number).plan.cutting.plans for fact in plan.done}
    if left:  # of a step whose other sheets were given back with another step's
        cut(session, number, lambda _: cutting.give_back(session, number, left))
    assert held(session) == before
    assert books.open_book(session, number).plan.cutting.sheets == first.plan.cutting.sheets


def test_one_of_many_is_cut_and_the_rest_is_planned_around_it(session):
    number = kept(session, editing.apply(recipe("case").book(), [("brief.quantity", 30)]))
    opened = books.open_book(session, number)
    (plan,) = (plan for plan in opened.plan.cutting.plans if plan.stock.role == "board")
    sheet = max(plan.sheets, key=lambda one: one.times)
    assert sheet.times > 1
    key = plan.stock.key + sheet.key
    after = cut(session, number, lambda plan: cutting.cut_sheet(session, number, plan, key, 1))
    (now,) = (own for own in after.plan.cutting.plans if own.stock.role == "board")
    assert now.needed == plan.needed
    assert sum(one.times for one in now.sheets) == plan.needed - 1
    assert [fact.sheet.counts() for fact in now.done] == [sheet.counts()]
    with pytest.raises(BadBook):
        cut(session, number, lambda plan: cutting.cut_sheet(session, number, plan, key, 99))


def test_what_was_cut_stays_when_the_book_changes_and_is_told(session):
    number = kept(session, recipe("case").book())
    tick(session, number, "cut_board")
    wider = change(session, number, brief__leaf_width_mm="140")
    told = keys_of(wider, "cut_otherwise")
    assert [check.of for check in told] == ["boards"]
    assert "2 × board were cut as 145 × 216 mm" in told[0].title
    assert "137 × 216 mm is needed now" in told[0].title
    assert "trimmed" in told[0].why
    books.undo(session, number, -1, None, "one")
    back = books.open_book(session, number)
    assert not keys_of(back, "cut_otherwise")
    assert next(one for one in back.plan.bench.work if one.step.key == "cut_board").done
    change(session, number, brief__quantity="2")
    both = change(session, number, brief__quantity="1")
    assert not keys_of(both, "cut_otherwise")


def test_pieces_of_no_use_are_laid_aside_and_cut_again(session):
    """145 x 216 mm that a narrower book takes nothing of gives its boards of 137 x 216 mm: no new sheet."""
    number = kept(session, recipe("case").book())
    tick(session, number, "cut_board")
    change(session, number, brief__leaf_width_mm="140")
    after = cut(session, number, lambda plan: cutting.lay_aside(session, number, plan, "boards"))
    assert not keys_of(after, "cut_otherwise")
    (plan,) = (own for own in after.plan.cutting.plans if own.stock.role == "board")
    assert plan.from_offcuts >= 1
    assert plan.needed == 1, "only the sheet that is cut already"
    with pytest.raises(BadBook):
        cut(session, number, lambda plan: cutting.lay_aside(session, number, plan, "boards"))


def test_offcuts_are_cut_before_whole_sheets_with_their_grain(session):
    """A board needs 216 mm along the grain: an offcut with its grain across does not give it."""
    number = kept(session, recipe("case").book())
    board = books.open_book(session, number).book.paper.board
    assert isinstance(board, Board)
    plain = {"name": f"{board.name}, offcut", "stock_id": None, "owned": 1, "price": None}

    def with_offcut(width, height, grain):
        size = {"sheet_width_mm": width, "sheet_height_mm": height, "grain": grain}
        item = store.add(session, board.model_copy(update=plain | size), books.now())
        (plan,) = (o for o in books.open_book(session, number).plan.cutting.plans if o.stock.role == "board")
        store.set_gone(session, item, books.now())
        return plan.needed, plan.from_offcuts

    assert with_offcut(230.0, 350.0, "short") == (0, 1), "turned, its grain runs along the boards"
    assert with_offcut(230.0, 350.0, "long")[0] == 1, "one board comes out of it, so a sheet is cut anyway"


def test_a_roll_is_taken_by_the_length_that_is_cut_off(session):
    number = kept(session, recipe("case").book())
    opened = books.open_book(session, number)
    cloth = opened.book.paper.covering
    step = next(one.step for one in opened.plan.bench.work if one.step.cuts == ("covering",))
    tick(session, number, step.key)
    left = store.load(session, int(cloth.stock_id)).item
    assert left.length_left_mm == 90_000 - 252
    (piece,) = (item.item for item in store.of_kind(session, "cloth") if item.item.name.endswith(", offcut"))
    assert (piece.roll_width_mm, piece.length_left_mm) == (cloth.roll_width_mm - 358.5, 252)
    after = books.open_book(session, number)
    assert after.book.paper.covering.length_left_mm == 90_000, "what this book has cut counts as there"
    tick(session, number, step.key, False)
    assert store.load(session, int(cloth.stock_id)).item.length_left_mm == 90_000


def test_another_material_leaves_what_was_cut_out_of_the_plan(session):
    number = kept(session, recipe("case").book())
    tick(session, number, "cut_board")
    other = Board(name="Millboard", sheet_width_mm=700, sheet_height_mm=500, thickness_mm=2, owned=3)
    there = store.find_material(session, store.add(session, other, books.now()))
    after = books.change(
        session, number, None, "one", "x", lambda book: books.use_material(book, there, "board")
    ).opened
    told = keys_of(after, "cut_otherwise")
    assert all("the book takes Millboard now" in check.title for check in told)
    assert {check.of for check in told} == {"boards", "strip"}
    assert not any(isinstance(one, Material) and one.name == "" for one in (there,))


def test_a_roll_of_paper_is_taken_by_its_length(session):
    number = kept(session, recipe("journal").book())
    roll = Paper(
        name="Kraft roll", form="roll", kind="kraft", grammage=200, sheet_width_mm=1000, sheet_height_mm=5000
    )
    there = store.find_material(session, store.add(session, roll, books.now()))
    opened = books.change(
        session, number, None, "one", "x", lambda book: books.use_material(book, there, "cover")
    ).opened
    (plan,) = (own for own in opened.plan.cutting.plans if own.stock.role == "cover")
    tick(session, number, "cut_cover")
    assert store.load(session, int(there.stock_id)).item.sheet_height_mm == pytest.approx(
        5000 - plan.length_mm, abs=1
    )
    after = books.open_book(session, number)
    assert after.otherwise == (), "how much is left does not make it another one"
    tick(session, number, "cut_cover", False)
    assert store.load(session, int(there.stock_id)).item.sheet_height_mm == 5000


def test_an_offcut_that_is_kept_whole_is_not_cut_on(session):
    number = kept(session, recipe("case").book())
    board = books.open_book(session, number).book.paper.board
    size = {"sheet_width_mm": 350.0, "sheet_height_mm": 230.0, "grain": "short", "owned": 1, "stock_id": None}
    item = store.add(session, board.model_copy(update={"name": f"{board.name}, offcut", **size}), books.now())

    def offered(label):
        opened = books.open_book(session, number)
        (plan,) = (own for own in opened.plan.cutting.plans if own.stock.role == "board")
        found = [one for one in opened.plan.cutting.offers if one.label == label]
        return plan.from_offcuts, [one.changes for one in found]

    used, keep = offered("keep it whole")
    assert used == 1
    books.change(session, number, None, "one", "x", lambda book: editing.apply(book, keep[0]))
    used, again = offered("cut from it again")
    assert used == 0
    assert books.open_book(session, number).book.cutting.spared == (str(item),)
    books.change(session, number, None, "one", "x", lambda book: editing.apply(book, again[0]))
    assert offered("keep it whole")[0] == 1


def test_pieces_of_one_sort_from_offcuts_and_whole_sheets_are_told(session):
    """B4: two leaves' worth of an offcut among many whole sheets, and the way out."""
    number = kept(session, recipe("case").book())
    paper = books.open_book(session, number).book.paper.leaf
    size = {"sheet_width_mm": 300.0, "sheet_height_mm": 210.0, "grain": "short", "owned": 3, "stock_id": None}
    item = {"name": f"{paper.name}, offcut", "form": "offcut", **size}
    store.add(session, paper.model_copy(update=item), books.now())
    (check,) = keys_of(books.open_book(session, number), "B4")
    assert "3 × folio come out of offcuts" in check.title
    (offer,) = check.offers
    books.change(session, number, None, "one", "x", lambda book: editing.apply(book, offer.changes))
    assert not keys_of(books.open_book(session, number), "B4")


def test_another_paper_serves_as_well_and_is_taken_counted_and_told(session):
    """Of 40 sheets of leaves 12 lie there of a second white paper at half the price: they come first, the
    rest out of the book's own; each is taken from where it lies."""
    number = kept(session, recipe("case").book())
    opened = books.open_book(session, number)
    paper = opened.book.paper.leaf
    other = paper.model_copy(
        update={"name": "White, second lot", "owned": 12, "price": 0.05, "stock_id": None}
    )
    item = store.add(session, other, books.now())
    own = paper.model_copy(update={"price": 0.1, "stock_id": None})
    store.change(session, int(paper.stock_id), own, books.now())
    books.change(
        session,
        number,
        None,
        "one",
        "x",
        lambda book: editing.apply(
            books.use_material(book, store.find_material(session, int(paper.stock_id)), "leaf"),
            [("cutting.also", {"leaf": [str(item)]})],
        ),
    )
    opened = books.open_book(session, number)
    (plan,) = (one for one in opened.plan.cutting.plans if one.stock.role == "leaf")
    assert (plan.needed, plan.from_others) == (28, {"White, second lot": 12})
    wants = {want.name: want for want in opened.overview.wants}
    assert wants["White, second lot"].needed == 12
    tick(session, number, "cut_leaves")
    assert store.load(session, item).item.owned == 0
    assert store.load(session, int(paper.stock_id)).item.owned == PLENTY - 28
    after = books.open_book(session, number)
    assert next(one for one in after.plan.bench.work if one.step.key == "cut_leaves").done
    tick(session, number, "cut_leaves", False)
    assert store.load(session, item).item.owned == 12
    materials.take_off(session, item)
    assert books.open_book(session, number).plan.cutting.takes["leaf"] == 40


def test_an_offcut_of_cloth_is_cut_before_the_roll(session):
    """The covering of 358.5 x 252 mm lies there already, with its warp along the height."""
    number = kept(session, recipe("case").book())
    cloth = books.open_book(session, number).book.paper.covering
    piece = {
        "name": f"{cloth.name}, offcut",
        "roll_width_mm": 360.0,
        "length_left_mm": 252.0,
        "stock_id": None,
    }
    item = store.add(session, cloth.model_copy(update=piece), books.now())
    opened = books.open_book(session, number)
    (plan,) = (one for one in opened.plan.cutting.plans if one.stock.role == "covering")
    assert (plan.length_mm, plan.from_offcuts) == (0, 1)
    step = next(one.step for one in opened.plan.bench.work if "covering" in one.step.cuts)
    tick(session, number, step.key)
    assert item not in {stored.id for stored in store.of_kind(session, "cloth")}
    tick(session, number, step.key, False)
    assert store.load(session, item).item.length_left_mm == 252
    assert item in {stored.id for stored in store.of_kind(session, "cloth")}


def test_what_was_cut_is_known_when_its_material_is_taken_away(session):
    number = kept(session, recipe("case").book())
    board = books.open_book(session, number).book.paper.board
    tick(session, number, "cut_board")
    materials.take_off(session, int(board.stock_id))
    after = books.open_book(session, number)
    assert not keys_of(after, "cut_otherwise")
    assert next(one for one in after.plan.bench.work if one.step.key == "cut_board").done
    materials.put_back(session, int(board.stock_id))
    tick(session, number, "cut_board", False)
    assert store.load(session, int(board.stock_id)).item.owned == PLENTY


def test_a_book_that_becomes_another_keeps_what_was_cut(session):
    """Nothing of the case's boards goes into a journal: told, given back at the sheet, and the bin and back
    change nothing."""
    number = kept(session, recipe("case").book())
    before = held(session)
    tick(session, number, "cut_board")
    journal = recipe("journal").book()
    book = books.open_book(session, number).book
    after = books.change(
        session, number, None, "one", "x", lambda _: journal.model_copy(update={"paper": book.paper})
    ).opened
    told = keys_of(after, "cut_otherwise")
    assert {check.of for check in told} == {"boards", "strip"}
    facts = {fact.number for fact in after.tools.shelf.cut}
    cut(session, number, lambda _: cutting.give_back(session, number, facts))
    assert held(session) == before


def pinned(session, number, sheet, plan):
    pin = as_pin(plan.stock.key, sheet).model_dump()
    return books.change(
        session,
        number,
        None,
        "one",
        "x",
        lambda book: editing.apply(book, [("cutting.pins", [pin])]),
    ).opened


@pytest.mark.every(2)
@pytest.mark.parametrize("name", ["case", "zigzag", "sheath", "concertina", "crossfold", "flapped"])
def test_a_pinned_sheet_stays_and_the_rest_is_planned_around_it(session, name):
    """Each sheet of each material in turn: nothing is cut twice or forgotten, and no pin costs a sheet that
    was planned beside it already."""
    number = kept(session, editing.apply(recipe(name).book(), [("brief.quantity", 4)]))
    first = books.open_book(session, number)
    for plan in first.plan.cutting.plans:
        for sheet in plan.sheets:
            after = pinned(session, number, sheet, plan)
            (now,) = (own for own in after.plan.cutting.plans if own.stock.key == plan.stock.key)
            (kept_one,) = (one for one in now.sheets if one.pinned)
            assert kept_one.key == sheet.key
            assert kept_one.cuts == sheet.cuts
            assert now.needed <= plan.needed
            counts = Counter()
            for one in now.sheets:
                counts += Counter({key: count * one.times for key, count in one.counts().items()})
            wanted = {
                cut.part.key: cut.part.count for cut in after.plan.cutting.cuts if cut.stock in now.stocks
            }
            assert counts == wanted
            assert not keys_of(after, "pin")


def test_of_pinned_sheets_those_that_are_left_stay_pinned(session):
    number = kept(session, editing.apply(recipe("tapes").book(), [("brief.quantity", 12)]))
    (plan,) = (p for p in books.open_book(session, number).plan.cutting.plans if p.stock.role == "leaf")
    (sheet,) = plan.sheets
    pinned(session, number, sheet, plan)
    key = plan.stock.key + sheet.key
    after = cut(session, number, lambda plan: cutting.cut_sheet(session, number, plan, key, 2))
    (own,) = (p for p in after.plan.cutting.plans if p.stock.role == "leaf")
    assert [(one.pinned, one.times) for one in own.sheets] == [(True, sheet.times - 2)]
    fewer = change(session, number, brief__quantity="6")
    (own,) = (p for p in fewer.plan.cutting.plans if p.stock.role == "leaf")
    assert [(one.pinned, one.times) for one in own.sheets] == [(True, sheet.times // 2 - 2)]


def test_a_pin_is_cut_and_one_that_fits_no_more_is_told(session):
    number = kept(session, recipe("case").book())
    opened = books.open_book(session, number)
    (plan,) = (own for own in opened.plan.cutting.plans if own.stock.role == "board")
    pinned(session, number, plan.sheets[0], plan)
    tick(session, number, "cut_board")
    after = books.open_book(session, number)
    assert not keys_of(after, "pin"), "its sheet is cut"
    tick(session, number, "cut_board", False)
    told = keys_of(change(session, number, brief__leaf_width_mm="140"), "pin")
    assert [offer.changes for offer in told[0].offers] == [(("cutting.pins", []),)]


def test_an_offer_that_ticks_what_is_cut_cuts_it(session):
    """“All that is done, tick it” at the bench, with cutting among it: its sheets are taken as by its
    tick."""
    number = kept(session, recipe("case").book())
    steps = [one.step for one in books.open_book(session, number).plan.bench.work]
    late = next(key for key, firsts in waits_for(steps).items() if "cut_leaves" in firsts)
    opened = tick(session, number, late)
    (check,) = (one for one in opened.plan.bench.checks if one.code == "order")
    after = books.change(
        session, number, None, "one", "x", lambda book: editing.apply(book, check.offers[0].changes)
    ).opened
    (plan,) = (own for own in after.plan.cutting.plans if own.stock.role == "leaf")
    assert (len(plan.done), plan.sheets) == (1, ())
    assert "cut_leaves" not in after.book.bench.ticks
    assert store.load(session, int(plan.stock.item)).item.owned == PLENTY - 40


def test_numbers_of_other_materials_do_not_come_along_from_elsewhere(session):
    book = editing.apply(
        recipe("case").book(),
        [("cutting.also", {"leaf": ["3"]}), ("cutting.spared", ["4"]), ("cutting.lies", {"leaf": "either"})],
    )
    number, _ = library.take_in(session, write_book(book).encode())
    cutting_ = books.open_book(session, number).book.cutting
    assert (cutting_.also, cutting_.spared, cutting_.lies) == ({}, (), {"leaf": "either"})


def test_a_step_that_was_ticked_before_sheets_were_facts_is_not_cut_again(session):
    """A book of before: its tick stands in the book, and what it took beside it. Unticked, its sheets can be
    cut."""
    book = recipe("case").book()
    step = next(one.step for one in worked_out(book).bench.work if one.step.key == "cut_covering")
    number = kept(session, editing.apply(book, [("bench.ticks", {step.key: step.signature})]))
    opened = books.open_book(session, number)
    (plan,) = [one for one in opened.plan.cutting.plans if one.stock.key == "covering"]
    key = plan.stock.key + plan.sheets[0].key
    assert cutting.ticked_before(opened.plan) == {"covering"}
    with pytest.raises(BadBook, match="bench"):
        cut(session, number, lambda made: cutting.cut_sheet(session, number, made, key, 1))
    tick(session, number, step.key, False)
    after = cut(session, number, lambda made: cutting.cut_sheet(session, number, made, key, 1))
    assert "covering" in after.plan.cutting.out
