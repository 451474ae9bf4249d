"""Boards, cloth and papers of a cover: taken from the materials, counted there, told back, linked anew in a
book from elsewhere."""

from __future__ import annotations

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.bookfile import write_book
from pleat.core.document.labels import field_at, label_of
from pleat.core.document.recipes import recipe
from pleat.core.materials.items import Board, Cloth, Hardware, Paper, ThreadSpool
from pleat.core.pleats.paper.record import CAN_SERVE, ROLES
from pleat.core.whole.planning import make_plan
from pleat.services import books, counts, library, materials, offered
from pleat.store import items as store
from tests.conftest import edited

BOARD = Board(
    name="Millboard", sheet_width_mm=700, sheet_height_mm=500, thickness_mm=2.5, grain="short", owned=9
)
CLOTH = Cloth(name="Canvas", roll_width_mm=1200, length_left_mm=3000, thickness_mm=0.6)
PAPER = Paper(
    name="Pasted paper",
    kind="drawing",
    sheet_width_mm=700,
    sheet_height_mm=500,
    grammage=120,
    grain="short",
    owned=5,
)


@pytest.fixture
def kept(session):
    """The ids of a board, a cloth and a paper among the materials, by name."""
    return {item.name: store.add(session, item, books.now()) for item in (BOARD, CLOTH, PAPER)}


def covered(session, kept, **roles):
    """A case whose materials are those of these names."""
    book = recipe("case").book()
    for role, name in roles.items():
        book = books.use_material(book, store.find_material(session, kept[name]), role)
    return books.add(session, book, "one", "started")


def opened(session, book_id):
    return books.open_book(session, book_id)


def test_each_role_is_offered_what_can_serve_in_it(session, kept):
    book = opened(session, covered(session, kept, board="Millboard")).book
    for role in ROLES:
        names = {choice.paper.name for choice in offered.papers_for(session, book, role)}
        expected = {item.name for item in (BOARD, CLOTH, PAPER) if isinstance(item, CAN_SERVE[role])}
        assert names == expected, role
    (choice,) = offered.papers_for(session, book, "board")
    assert choice.in_use
    assert choice.gives >= 4
    assert choice.with_grain is True


def test_what_cannot_serve_is_refused_and_nothing_changes(session, kept):
    book = recipe("case").book()
    with pytest.raises(BadBook):
        books.use_material(book, CLOTH, "board")
    with pytest.raises(BadBook):
        books.use_material(book, BOARD, "covering")
    assert books.use_material(book, PAPER, "covering").paper.covering == PAPER


def test_boards_are_taken_when_they_are_cut_and_given_back(session, kept):
    book_id = covered(session, kept, board="Millboard", covering="Canvas")
    before = opened(session, book_id)
    takes = before.plan.cutting.takes["board"]
    assert takes >= 1
    assert before.book.paper.board.owned == 9

    def tick(done):
        return books.tick_step(session, book_id, None, "one", "cut_board", done).opened

    tick(True)
    assert store.load(session, kept["Millboard"]).item.owned == 9 - takes
    assert opened(session, book_id).book.paper.board.owned == 9, "what this book has cut counts as there"
    tick(False)
    assert store.load(session, kept["Millboard"]).item.owned == 9


def test_the_materials_and_a_book_tell_each_other(session, kept):
    book_id = covered(session, kept, board="Millboard", covering="Canvas", lining="Pasted paper")
    assert opened(session, book_id).otherwise == ()
    materials.set_fields(session, kept["Millboard"], thickness_mm=2.4)
    materials.set_fields(session, kept["Canvas"], length_left_mm=500.0)
    now = opened(session, book_id)
    assert now.otherwise == ("board",), "how much is left does not make it another one"
    assert now.book.paper.covering.length_left_mm == 500
    assert counts.tell(session, now.book.paper.board) == "Millboard"
    assert store.load(session, kept["Millboard"]).item.thickness_mm == 2.5
    assert opened(session, book_id).otherwise == ()
    materials.take_off(session, kept["Canvas"])
    assert opened(session, book_id).book.paper.covering.stock_id is None
    with pytest.raises(BadBook):
        counts.tell(session, CLOTH)


def test_a_book_from_elsewhere_finds_the_same_boards_and_cloth_here(session, kept):
    book_id = covered(session, kept, board="Millboard", covering="Canvas")
    _, text = library.export(session, book_id)
    taken, lost = library.take_in(session, text.replace('"Canvas"', '"Sailcloth"').encode())
    own = opened(session, taken).book.paper
    assert own.board.stock_id == str(kept["Millboard"])
    assert (own.covering.name, own.covering.stock_id, lost) == ("Sailcloth", None, ["Sailcloth"])


@pytest.mark.parametrize(("there", "here"), [("Brass rings", True), ("Rings of another", False)])
def test_what_holds_a_book_from_elsewhere_is_found_by_its_name_or_let_go(session, there, here):
    """Numbers of another maker's materials mean something else here: rings, sticks and thread are linked
    anew, by name."""
    rings = store.add(session, Hardware(name="Brass rings", inner_mm=25), books.now())
    spool = store.add(session, ThreadSpool(name="Waxed cord", diameter_mm=0.8), books.now())
    for name, changes in (
        ("rings", [("binding.gear", there), ("binding.stock_id", "7")]),
        (
            "sticks",
            [
                ("binding.thread.name", "Waxed cord"),
                ("binding.thread.stock_id", "7"),
                ("binding.gear", there),
                ("binding.stock_id", "8"),
            ],
        ),
    ):
        taken, lost = library.take_in(
            session, write_book(editing.apply(recipe(name).book(), changes)).encode()
        )
        own = opened(session, taken).book.binding
        assert own.stock_id == (str(rings) if here else None)
        assert lost == ([] if here else [there])
        assert name == "rings" or own.thread.stock_id == str(spool)


@pytest.mark.parametrize(
    ("path", "text", "value"),
    [
        ("paper.board.thickness_mm", "3 mm", 3.0),
        ("paper.board.thickness_mm", "80 pt", 2.032),
        ("paper.covering.roll_width_mm", "1 m", 1000.0),
        ("paper.covering.thickness_mm", "0.4", 0.4),
        ("paper.lining.grammage", "90", 90.0),
        ("paper.side.sides", "1", 1),
    ],
)
def test_a_field_of_any_role_is_typed(path, text, value):
    book = edited(recipe("quarter").book(), {path: text})
    at = book
    for name in path.split("."):
        at = getattr(at, name)
    assert at == pytest.approx(value)
    assert "_" not in label_of(path)
    assert field_at(path, book) is not None


def test_a_size_is_typed_for_sheets_and_rolls():
    book = edited(
        recipe("case").book(),
        {"paper.board.size": "60 x 40 cm", "paper.covering.size": "500 x 900", "paper.lining.size": "A2"},
    )
    assert (book.paper.board.sheet_width_mm, book.paper.board.sheet_height_mm) == (600, 400)
    assert (book.paper.covering.roll_width_mm, book.paper.covering.length_left_mm) == (500, 900)
    assert sorted((book.paper.lining.sheet_width_mm, book.paper.lining.sheet_height_mm)) == [420, 594]


def test_only_what_a_book_uses_is_told_of():
    for name, roles in {
        "journal": ("leaf", "cover"),
        "case": ("leaf", "board", "covering", "lining"),
        "quarter": ("leaf", "board", "covering", "side", "lining"),
        "link": ("leaf", "board"),
        "sheath": ("leaf", "cover", "board"),
    }.items():
        plan = make_plan(recipe(name).book())
        assert plan.paper.roles == roles
        told = {figure.key.rsplit("_", 1)[0] for figure in plan.paper.figures}
        assert told == set(roles)


def test_several_books_from_one_short_roll_are_told_to_be_too_many():
    book = editing.apply(
        recipe("case").book(), [("brief.quantity", 12), ("paper.covering.length_left_mm", 400.0)]
    )
    (check,) = [check for _, check in make_plan(book).checks if check.key == "owned"]
    assert "and 400 mm are left" in check.title
    assert check.no_fix


def test_a_new_case_takes_boards_cloth_and_linings_from_the_materials(session, kept):
    store.add(
        session,
        Paper(
            name="Chart", kind="drawing", sheet_width_mm=420, sheet_height_mm=297, grammage=110, grain="short"
        ),
        books.now(),
    )
    book = offered.from_materials(session, recipe("case").book())
    assert (book.paper.board.name, book.paper.covering.name, book.paper.lining.name) == (
        "Millboard",
        "Canvas",
        "Chart",
    )
    assert book.paper.board.stock_id == str(kept["Millboard"])
    assert offered.from_materials(session, recipe("journal").book()) == recipe("journal").book(), (
        "a soft wrap takes none of them"
    )
    tall = editing.apply(
        recipe("case").book(), [("brief.leaf_width_mm", 600.0), ("brief.leaf_height_mm", 600.0)]
    )
    assert offered.from_materials(session, tall).paper.board == tall.paper.board, (
        "no board of the materials gives it"
    )
