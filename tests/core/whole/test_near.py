"""Leaves near this one that take fewer sheets: against every mark of the ruler, one by one."""

from __future__ import annotations

import pytest

from pleat.core.document import editing
from pleat.core.document.recipes import recipe
from pleat.core.whole.near import costly_pieces, freed_parts, near_sizes
from pleat.core.whole.planning import worked_out

STOP = "stop"


def of(name, *changes):
    return editing.apply(recipe(name).book(), [("brief.quantity", 3), *changes])


def needed(plan):
    return {own.stock.name: own.needed for own in plan.cutting.plans}


@pytest.mark.parametrize(
    ("name", "path"),
    [("rings", "leaf_width_mm"), ("keyring", "leaf_width_mm"), ("concertina", "leaf_height_mm")],
)
def test_the_nearest_leaf_that_saves_sheets_is_found(name, path):
    """Every half millimetre below: none nearer saves a sheet without costing another."""
    plan = worked_out(of(name))
    now = getattr(plan.book.brief, path)
    before = needed(plan)
    (near,) = (one for one in near_sizes(plan) if one.path == f"brief.{path}" and one.share < 0)
    value = now - 0.5
    while value > now * 0.92:
        after = needed(worked_out(of(name, (f"brief.{path}", value))))
        if after != before and all(after[key] <= before[key] for key in before):
            break
        value -= 0.5
    assert near.value_mm == value
    assert {key: (was, then) for key, was, then in near.sheets} == {
        key: (before[key], after[key]) for key in before if before[key] != after[key]
    }


@pytest.mark.parametrize("name", ["sheath", "bagfolio", "row"])
def test_a_larger_leaf_takes_no_more_sheets_and_the_next_mark_does_not_work_so(name):
    plan = worked_out(of(name))
    for near in (one for one in near_sizes(plan) if one.share > 0):
        assert needed(worked_out(of(name, (near.path, near.value_mm)))) == needed(plan)
        assert 0.01 <= near.share < 0.0501
        further = near.value_mm + 0.5
        if further <= getattr(plan.book.brief, near.path.split(".")[1]) * 1.05:
            assert needed(worked_out(of(name, (near.path, further)))) != needed(plan)


def test_the_piece_that_costs_a_sheet_is_named():
    """Of three three-piece covers in a larger run: a spine lining of 61.5 x 200 that finds no room beside the
    others."""
    plan = worked_out(of("sheath"))
    (costly,) = costly_pieces(plan)
    assert (costly.part, costly.now - costly.without) == ("spine strip", 1)
    assert not costly_pieces(worked_out(of("case")))


def test_pieces_that_may_lie_either_way_take_fewer_sheets():
    """As many sheets as were told, and each piece in its size, whichever way it lies."""
    book = editing.apply(recipe("pocketpages").book(), [("brief.quantity", 12)])
    plan = worked_out(book)
    for freed in freed_parts(plan):
        after = worked_out(editing.edit(book, {freed.path: "either"}))
        (own,) = (own for own in after.cutting.plans if own.stock.name == freed.material)
        assert (own.needed, needed_of(plan, freed.material)) == (freed.then, freed.now)
        assert freed.path not in {one.path for one in freed_parts(after)}
        for sheet in own.sheets:
            for piece in sheet.pieces:
                (part,) = (cut.part for cut in after.cutting.cuts if cut.part.key == piece.part)
                assert piece.is_as(part.width_mm, part.height_mm)


def needed_of(plan, material):
    (own,) = (own for own in plan.cutting.plans if own.stock.name == material)
    return own.needed
