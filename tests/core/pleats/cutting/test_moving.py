"""Pieces moved by hand, and sheets of which not all can be used. Where pieces lie is judged by ``shapely``,
and whether cuts from edge to edge part them by the validator, which knows neither planner nor pins."""

from __future__ import annotations

from collections import Counter
from itertools import combinations

import pytest
from shapely.geometry import box

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.engines.packing.problem import ticks
from pleat.core.engines.packing.validator import _edge_to_edge
from pleat.core.materials.facts import facts
from pleat.core.materials.items import Paper
from pleat.core.materials.sheet import Remnant, Shelf
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.materials.uses import SheetFacts, what_gives
from pleat.core.pleats.cutting.moving import (
    NoRoomError,
    PieceMove,
    can_be_moved,
    fresh_sheets,
    moved,
    single_pieces,
)
from pleat.core.pleats.paper.record import ROLES
from pleat.core.whole.planning import worked_out
from tests.profiles import some

NAMES = [one.name for one in RECIPES]
HAIR_MM2 = 0.01


def sound(plan):
    """Every sheet of a plan can be cut, out of what can be used of it."""
    for sheet in plan.sheets:
        pieces = single_pieces(sheet)
        boxes = [box(p.x_mm, p.y_mm, p.x_mm + p.width_mm, p.y_mm + p.height_mm) for p in pieces]
        (left, top, right, bottom), windows = plan.unusable(sheet)
        usable = box(left, top, sheet.width_mm - right, sheet.height_mm - bottom)
        for x, y, wide, high in windows:
            usable = usable.difference(box(x, y, x + wide, y + high))
        assert all(one.difference(usable).area < HAIR_MM2 for one in boxes)
        assert all(a.intersection(b).area < HAIR_MM2 for a, b in combinations(boxes[:40], 2))
        corners = [(ticks(p.x_mm), ticks(p.y_mm), ticks(p.width_mm), ticks(p.height_mm)) for p in pieces]
        assert _edge_to_edge(corners, 0)
        assert all(box(x, y, x + w, y + h).difference(usable).area < HAIR_MM2 for x, y, w, h in sheet.offcuts)


def pinned(book, pins):
    return editing.apply(book, [("cutting.pins", [one.model_dump() for one in pins])])


def counted(plan):
    found = Counter()
    for sheet in plan.all_sheets:
        for part, count in sheet.counts().items():
            found[part] += count * sheet.times
    return found


def moves(plan, sheet):
    """Every sort of move of the first, the middle and the last piece of a sheet."""
    last = len(single_pieces(sheet)) - 1
    for piece in sorted({0, last // 2, last}):
        yield from (PieceMove(sheet.key, piece, towards=way) for way in ("left", "right", "up", "down"))
        yield PieceMove(sheet.key, piece, turn=True)
        yield PieceMove(sheet.key, piece, at=(sheet.width_mm * 0.6, sheet.height_mm * 0.7))
        yield PieceMove(sheet.key, piece, at=(-500.0, 9e5))
        yield from (PieceMove(sheet.key, piece, fresh=True, offcut=one) for one, _, _ in fresh_sheets(plan))
        yield from (
            PieceMove(sheet.key, piece, onto=other.key) for other in plan.sheets if other is not sheet
        )


@pytest.mark.every(2)
@pytest.mark.parametrize("name", some(NAMES, 3))
def test_a_piece_is_moved_and_the_rest_planned_around_it(name):
    """Whatever is moved, all pieces are still cut, every sheet can be, and the one it lies on stays."""
    book = recipe(name).book()
    took = 0
    for plan in worked_out(book).cutting.plans:
        if plan.stock.role == "pile":
            continue
        own = [cut for cut in worked_out(book).cutting.cuts if cut.stock in plan.stocks]
        for sheet in [one for one in plan.sheets if can_be_moved(one)][:2]:
            for move in some(list(moves(plan, sheet)), 2):
                try:
                    pins = moved(plan, own, book.cutting.pins, move)
                except NoRoomError:
                    continue
                took += 1
                then = worked_out(pinned(book, pins))
                after = next(one for one in then.cutting.plans if one.stock.key == plan.stock.key)
                sound(after)
                assert counted(after) == counted(plan)
                assert after.lacking == plan.lacking
                assert any(one.pinned for one in after.sheets)
                assert not [check for check in then.cutting.checks if check.code == "pin"]
    assert took or name in ("pile", "found", "wide")


def test_a_piece_goes_where_it_is_put():
    """Two boards and a strip on one greyboard: a board put past the corner lies in it."""
    book = recipe("case").book()
    (plan,) = [one for one in worked_out(book).cutting.plans if one.stock.key == "board"]
    own = [cut for cut in worked_out(book).cutting.cuts if cut.stock.key == "board"]
    (sheet,) = plan.sheets
    number = next(
        n for n, one in enumerate(single_pieces(sheet)) if one.part == "boards" and (one.x_mm or one.y_mm)
    )
    far = (sheet.width_mm, sheet.height_mm)
    (pin,) = moved(plan, own, (), PieceMove(sheet.key, number, at=far))
    corners = {(piece.x_mm + piece.width_mm, piece.y_mm + piece.height_mm) for piece in pin.pieces}
    assert far in corners
    with pytest.raises(NoRoomError, match="further to the left"):
        moved(plan, own, (), PieceMove(sheet.key, 0, towards="left"))
    with pytest.raises(NoRoomError, match="no longer"):
        moved(plan, own, (), PieceMove("gone", 0))
    with pytest.raises(NoRoomError, match="no longer"):
        moved(plan, own, (), PieceMove(sheet.key, 99))


def test_a_piece_turned_against_its_grain_is_told_with_the_way_back():
    book = recipe("case").book()
    cutting = worked_out(book).cutting
    (plan,) = [one for one in cutting.plans if one.stock.key == "board"]
    own = [cut for cut in cutting.cuts if cut.stock.key == "board"]
    assert own[0].better.with_grain
    pins = moved(plan, own, (), PieceMove(plan.sheets[0].key, 0, turn=True))
    turned = pinned(book, pins)
    (told,) = [check for check in worked_out(turned).cutting.checks if check.code == "B7"]
    assert told.title.startswith("1 × board lies the other way round")
    mended = worked_out(editing.apply(turned, told.offers[0].changes)).cutting
    assert not [check for check in mended.checks if check.code == "B7"]
    either = worked_out(editing.apply(turned, [("cutting.lies.board", "either")])).cutting
    assert not [check for check in either.checks if check.code == "B7"], "it does not matter there"


def test_of_a_pinned_sheet_that_gives_a_piece_away_the_rest_stays_and_offcuts_are_taken_once():
    book = editing.apply(recipe("case").book(), [("brief.quantity", 5), ("paper.board.stock_id", "7")])
    shelf = Shelf((("7", (Remnant("9", "piece", 400, 300, "h", 1),)),))
    tools = Tools(shelf=shelf)
    plan = next(one for one in worked_out(book, tools).cutting.plans if one.stock.key == "board")
    own = [cut for cut in worked_out(book, tools).cutting.cuts if cut.stock.key == "board"]
    on = next(one for one in plan.sheets if one.offcut)
    assert on.times == 1
    pins = moved(plan, own, (), PieceMove(on.key, 0, fresh=True))
    again = pinned(book, pins)
    after = next(one for one in worked_out(again, tools).cutting.plans if one.stock.key == "board")
    assert counted(after) == counted(plan)
    assert sum(one.times for one in after.sheets if one.offcut) <= 1
    twice = pinned(book, [*pins, *pins, *pins])
    some_ = next(one for one in worked_out(twice, tools).cutting.plans if one.stock.key == "board")
    assert counted(some_) == counted(plan), "no more of a pinned sheet than pieces are left for"


@pytest.mark.every(2)
@pytest.mark.parametrize("name", some(NAMES, 3, 1))
def test_no_piece_lies_on_an_edge_or_a_hole_that_cannot_be_used(name):
    """Every paper of a book gets a soft edge and a hole in its middle; what finds no place is told."""
    book = recipe(name).book()
    for role in ROLES:
        paper = getattr(book.paper, role)
        if isinstance(paper, Paper):
            wide, high = paper.sheet_width_mm, paper.sheet_height_mm
            hole = f"{wide * 0.45}; {high * 0.6}; {wide * 0.1}; {high * 0.05}"
            book = editing.edit(
                book, {f"paper.{role}.margins_mm": "2; 4; 6; 3", f"paper.{role}.windows_mm": hole}
            )
    made = worked_out(book)
    for plan in made.cutting.plans:
        sound(plan)
        wanted = {cut.part.key: cut.part.count for cut in made.cutting.cuts if cut.stock in plan.stocks}
        found = counted(plan)
        assert {key: found[key] + plan.lacking.get(key, 0) for key in wanted} == wanted
        assert not plan.lacking or any(check.level == "stop" for _, check in made.checks)


def test_what_cannot_be_used_of_an_offcut_turns_with_it():
    """A quarter turn to the right: what was the left edge is the upper one, what was 30 from the top lies so
    far from the right edge."""
    was = Remnant("1", "x", 200, 300, "w", 1, margins=(1, 2, 3, 4), windows=((10, 30, 40, 20),))
    assert was.turned.margins == (4, 1, 2, 3)
    assert was.turned.windows == ((300 - 30 - 20, 10, 20, 40),)
    assert was.turned.turned.turned.turned == was


@pytest.mark.parametrize(
    ("text", "words"),
    [("1; 2; 3", "two for the sides"), ("-4", "below zero"), ("4 kg", "unit “kg”")],
)
def test_edges_that_make_no_sense_are_told(text, words):
    with pytest.raises(BadBook) as told:
        editing.edit(recipe("case").book(), {"paper.leaf.margins_mm": text})
    assert words in told.value.problems[0].message


def test_pieces_are_cut_larger_and_those_that_match_come_from_one_sheet():
    """By hand: two liners of 148 × 210 for each of 3 books, 4 mm larger all round, are 156 × 218; a sheet of
    420 × 594 takes 2 × 2 of them (312 × 436), so at most two pairs."""
    book = editing.apply(recipe("coveredboards").book(), [("brief.quantity", 3)])
    book = editing.edit(book, {"cutting.larger.lining": "4", "cutting.match.lining": "yes"})
    made = worked_out(book).cutting
    (cut,) = [one for one in made.cuts if one.stock.key == "lining"]
    plain = next(
        one for one in worked_out(recipe("coveredboards").book()).cutting.cuts if one.stock.key == "lining"
    )
    assert (cut.part.width_mm, cut.part.height_mm) == (plain.part.width_mm + 8, plain.part.height_mm + 8)
    assert cut.trimmed_mm == (plain.part.width_mm, plain.part.height_mm)
    (plan,) = [one for one in made.plans if one.stock.key == "lining"]
    assert all(sheet.counts()["liners"] % 2 == 0 for sheet in plan.sheets)
    assert counted(plan)["liners"] == 6
    (figure,) = [one for one in made.figures if one.key == "sheets_lining"]
    assert "trimmed later" in figure.how
    assert "2 of a book from one sheet" in figure.how


def test_layers_are_cut_larger_than_the_cover_they_become():
    made = worked_out(recipe("layered").book())
    (cut,) = [one for one in made.cutting.cuts if one.stock.key == "cover"]
    (part,) = [one for one in made.cover.parts if getattr(one, "stock", "") == "cover"]
    assert (cut.part.width_mm, cut.part.height_mm) == (part.width_mm + 6, part.height_mm + 6)
    inches = worked_out(editing.apply(recipe("layered").book(), [("brief.ruler", "in")]))
    (cut,) = [one for one in inches.cutting.cuts if one.stock.key == "cover"]
    assert cut.part.allowance_mm == pytest.approx(3.175), "an eighth of an inch, the next mark of the ruler"


def test_a_count_is_judged_once_a_stock_by_what_the_plan_has_on_a_sheet():
    """Boards and strip share a greyboard: three pieces on the one sheet, whatever one gives of each alone."""
    book = editing.edit(recipe("case").book(), {"cutting.counted.board": "3"})
    assert not [check for check in worked_out(book, NO_TOOLS).cutting.checks if check.code == "B6"]
    wrong = editing.edit(recipe("case").book(), {"cutting.counted.board": "5"})
    (told,) = [check for check in worked_out(wrong).cutting.checks if check.code == "B6"]
    assert told.title == "You count 5 × pieces out of a sheet; it gives 3."
    mended = editing.apply(wrong, told.offers[0].changes)
    assert not [check for check in worked_out(mended).cutting.checks if check.code == "B6"]


def test_pieces_that_no_sheet_gives_all_of_are_told_that_they_cannot_match():
    book = editing.edit(recipe("hills").book(), {"cutting.match.mat": "yes"})
    (told,) = [
        check for check in worked_out(book).cutting.checks if check.code == "B4" and check.of == "paper_A"
    ]
    assert "16 × paper A" in told.title
    mended = worked_out(editing.apply(book, told.offers[0].changes)).cutting
    assert not [check for check in mended.checks if check.code == "B4"]


def test_several_pairs_that_match_share_a_sheet_beside_its_hole():
    """By hand: liners of 197 × 204 out of 640 × 450 with a hole from 200 to 240: one column of two at its
    left, two columns of two at its right (394 of 400), so all three pairs on one sheet; the spine linings on
    another."""
    typed = {
        "brief.size": "200 x 200",
        "brief.quantity": "3",
        "paper.lining.size": "640 x 450",
        "paper.lining.grain": "short",
        "paper.lining.windows_mm": "200; 100; 40; 40",
        "cutting.match.lining": "yes",
        "cutting.larger.lining": "2",
    }
    made = worked_out(editing.edit(recipe("threepiece").book(), typed)).cutting
    (plan,) = [one for one in made.plans if one.stock.key == "lining"]
    sound(plan)
    assert sorted(tuple(sheet.counts().items()) for sheet in plan.sheets) == [
        (("liners", 6),),
        (("spine_lining", 3),),
    ]
    assert plan.above == 0


def test_edges_that_are_all_of_a_sheet_leave_nothing_to_cut_from_and_are_told():
    """A slip among the materials and in a book: nothing comes out of it, and whatever asks goes on."""
    book = editing.edit(recipe("case").book(), {"paper.leaf.margins_mm": "290"})
    made = worked_out(book)
    assert any(check.level == "stop" for _, check in made.checks)
    assert [plan.needed for plan in made.cutting.plans if plan.stock.key == "leaf"] == [0]
    known = facts(book.paper.leaf)
    sheet = SheetFacts(1, "slip", known.width_mm, known.height_mm, None, None)
    assert what_gives([sheet], 105, 148) == []
