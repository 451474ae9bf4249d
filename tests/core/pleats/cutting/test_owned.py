"""One item of the materials that serves in several places of a book is there once, not once for each."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from pleat.core.base.plan import Length
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.overview import Good, overview
from pleat.core.whole.planning import make_plan


def shared(name, roles, changes, item="7", quantity=1):
    """The plan of a recipe whose roles are all served by what serves in the first, with ``changes`` to it;
    without an ``item`` it is not from the materials."""
    book = recipe(name).book()
    own = getattr(book.paper, roles[0]).model_copy(update={"stock_id": item, **changes})
    book = editing.apply(book, [("brief.quantity", quantity)])
    return make_plan(editing.apply(book, [(f"paper.{role}", own.model_dump(mode="json")) for role in roles]))


def told(plan):
    return [check for check in plan.cutting.checks if check.key == "owned"]


@pytest.mark.parametrize("owned", [1, 17, 18, 1000])
def test_sheets_for_two_places_are_added_up_before_they_are_compared(owned):
    """16 faces of 174 mm and two liners of 173 lie one on a sheet of 305: 18, and all strips beside them."""
    takes, needed, missing = {"mat": 17, "lining": 1}, 18, max(0, 18 - owned)
    plan = shared("hills", ("mat", "lining"), {"owned": owned})
    assert {role: plan.cutting.takes[role] for role in takes} == takes
    assert len(told(plan)) == bool(missing)
    for check in told(plan):
        assert f"{needed} sheets" in check.title
        assert f"you own {owned}" in check.title
        assert f"{takes['mat']} for the faces and {takes['lining']} for the linings: {missing} " in check.why
    (want,) = [one for one in overview(plan, {}).wants if one.name == plan.paper.stock("mat").name]
    assert (want.use, want.needed, want.missing) == ("faces and linings", needed, missing)
    gather = next(one.step for one in plan.bench.work if one.step.key == "gather")
    assert gather.detail.count(want.name) == 1
    assert f"{needed} sheets of {want.name}" in gather.detail


def test_papers_that_are_not_from_the_materials_are_counted_where_they_are():
    takes = shared("hills", ("mat", "lining"), {"owned": None}, item=None).cutting.takes
    plan = shared("hills", ("mat", "lining"), {"owned": max(takes["mat"], takes["lining"])}, item=None)
    assert not told(plan)
    assert len([one for one in overview(plan, {}).wants if one.name == plan.paper.stock("mat").name]) == 2


def test_a_roll_for_two_places_is_as_long_as_all_pieces_side_by_side():
    """A spine and two sides are 252 high: those of one book lie beside each other across the roll, those of
    eight in rows."""
    plan = shared("quarter", ("covering", "side"), {"length_left_mm": 9000.0})
    cloth = [cut for cut in plan.cutting.cuts if cut.stock.cloth]
    assert {cut.better.piece_height_mm for cut in cloth} == {252.0}
    across = sum(cut.part.count * cut.better.piece_width_mm for cut in cloth)
    (own,) = [one for one in plan.cutting.plans if one.stock.cloth]
    assert across <= own.stock.sheet_width_mm
    assert (own.length_mm, own.above) == (252.0, 0.0)
    (want,) = [one for one in overview(plan, {}).wants if one.name == own.stock.name]
    assert want.needed == 1
    eight = shared("quarter", ("covering", "side"), {"length_left_mm": 9000.0}, quantity=8)
    (own,) = [one for one in eight.cutting.plans if one.stock.cloth]
    assert own.length_mm >= 252 * math.ceil(8 * across / own.stock.sheet_width_mm)
    left = {"length_left_mm": own.length_mm}
    assert not told(shared("quarter", ("covering", "side"), left, quantity=8))
    (check,) = told(
        shared("quarter", ("covering", "side"), {"length_left_mm": own.length_mm - 1}, quantity=8)
    )
    assert "across the roll" in check.why
    (figure,) = [one for one in eight.cutting.figures if one.label == own.stock.name]
    assert "9000 mm of it are left" in figure.how
    assert "You own" not in figure.how
    assert check.no_fix


@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_no_recipe_wants_more_rows_in_the_overview_than_it_has_materials(name):
    """Every stock that is cut stands in one row of what a book takes, with what all its places take."""
    plan = make_plan(recipe(name).book())
    wants = [one for one in overview(plan, {}).wants if one.unit == "sheet"]
    assert sum(one.needed for one in wants) == sum(plan.cutting.takes.values())


def test_a_reel_that_serves_twice_stands_in_one_row():
    """The thread of the sewing and that of a booklet sewn in, off one spool."""
    plan = make_plan(recipe("journal").book())
    (own,) = [one for one in plan.parts if isinstance(one, Length)]
    twice = replace(
        plan.binding, parts=(replace(own, stock="9"), replace(own, key="again", use="ties", stock="9"))
    )
    (want,) = [
        one
        for one in overview(replace(plan, binding=twice), {"9": Good(own.length_mm * 1.5, 2.0)}).wants
        if one.unit == "mm"
    ]
    assert want.use == f"{own.use} and ties"
    assert want.needed == pytest.approx(2 * own.length_mm * own.count)
    assert want.missing == pytest.approx(0.5 * own.length_mm)
    assert want.cost == pytest.approx(2 * 2 * own.length_mm / 1000)
