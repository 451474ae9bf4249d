"""What is read off a folding programme: pockets and where no glue may go, ways to shut, the order of work;
against plain geometry."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon as Shape

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.closing import moved_by, ways
from pleat.core.engines.folding.pockets import pockets, zones
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Programme,
    Where,
    work,
)
from pleat.core.engines.folding.sheet import Cut, Panel, Piece, Span, board, piece
from pleat.core.engines.folding.tasks import in_order, tasks
from pleat.core.trade.folding import GLUE_FREE_FOLD_MM, GLUE_FREE_MOUTH_MM


def pocket_sheet(wide, high, tall, tabs, cut=()):
    """A back with a front folded up at its tail, tabs at one side, both or none."""
    columns = [Span("left tab", tabs[0]), Span("", wide), Span("right tab", tabs[1])]
    kept = [(name, "front") for name, size in (("left tab", tabs[0]), ("right tab", tabs[1])) if size]
    return piece("sheet", "card", columns, [Span("back", high), Span("front", tall)], kept=kept, cuts=cut)


def pocketed(wide, high, tall, tabs, cut=()):
    sheet = pocket_sheet(wide, high, tall, tabs, cut)
    names = [f"{side} tab, front" for side, size in (("left", tabs[0]), ("right", tabs[1])) if size]
    folds = [FoldOperation("sheet", tuple(("front", name, 180.0) for name in names))] if names else []
    lays = [LayOperation(("sheet", name), ("sheet", "back")) for name in names]
    return Programme((Add(sheet, "back"), *folds, FoldOperation("sheet", (("back", "front", 180.0),)), *lays))


@given(
    st.integers(60, 300), st.integers(60, 300), st.floats(0.2, 1.0), st.integers(0, 20), st.integers(0, 20)
)
def test_a_pocket_is_as_wide_as_its_mouth_between_the_tabs_and_as_deep_as_its_front(
    wide, high, share, left, right
):
    tall = high * share
    programme = pocketed(wide, high, tall, (left, right))
    worked = work(programme)
    assert not worked.assembly.faults
    found = pockets(worked)
    held = {"tail"} | ({"left"} if left else set()) | ({"right"} if right else set())
    if len(held) < 2:
        assert not found, "held along one side it is a flap"
        return
    (pocket,) = found
    assert set(pocket.held) == held
    assert pocket.mouth == "head"
    assert pocket.throat_mm == pytest.approx(wide - left - right)
    assert pocket.depth_mm == pytest.approx(tall)
    assert pocket.shallow_mm == pytest.approx(tall)


@given(st.integers(80, 200), st.integers(100, 200), st.integers(10, 60))
def test_a_slanted_mouth_is_deep_on_one_side_and_shallow_on_the_other(wide, high, slant):
    tall = high - 10.0
    x = 12.0
    cut = Cut(
        (x, high + tall), (x + wide, high + tall - slant), (x + wide, high + tall), frozenset({"front"})
    )
    sheet = pocket_sheet(wide, high, tall, (12.0, 0.0), (cut,))
    programme = Programme(
        (
            Add(sheet, "back"),
            FoldOperation("sheet", (("front", "left tab, front", 180.0),)),
            FoldOperation("sheet", (("back", "front", 180.0),)),
            LayOperation(("sheet", "left tab, front"), ("sheet", "back")),
        )
    )
    (pocket,) = pockets(work(programme))
    assert pocket.depth_mm == pytest.approx(tall)
    assert pocket.shallow_mm == pytest.approx(tall - slant)
    assert sheet.offcuts


def test_a_corner_glued_along_two_sides_is_a_pocket_and_glued_all_over_is_none():
    triangle = Piece("corner", "card", (Panel("body", ((0.0, 60.0), (80.0, 0.0), (80.0, 60.0))),))
    page = piece("page", "card", [Span("", 100.0)], [Span("", 150.0)])
    cases: tuple[tuple[tuple[Where, ...], int], ...] = ((("tail", "right"), 1), ((), 0))
    for edges, count in cases:
        programme = Programme(
            (
                Add(page),
                Add(triangle),
                LayOperation(("corner", "body"), ("page", "body"), (20.0, 90.0), edges=edges),
            )
        )
        found = pockets(work(programme))
        assert len(found) == count
        if found:
            assert (found[0].mouth, found[0].depth_mm) == ("head", 60.0)


def test_what_lies_in_a_pocket_is_none_itself():
    programme = pocketed(100, 150, 60, (10, 10))
    more = Programme(
        (
            *programme.build,
            Add(board("card", "insert", 70, 100)),
            LayOperation(("card", "body"), ("sheet", "back"), (25.0, 50.0), by="tuck"),
        )
    )
    assert len(pockets(work(more))) == 1


def test_glue_stays_off_folds_that_move_and_mouths():
    """Beside every fold that shuts it 3 mm on both panels and both sides; at a mouth 6 mm, on the faces that
    look at each other."""
    build = pocketed(100, 150, 60, (10, 10)).build
    wide = piece("cover", "card", [Span("front", 90.0), Span("back", 100.0)], [Span("", 150.0)])
    programme = Programme(
        (Add(wide, "back"),), (FoldGroup("front", (FoldOperation("cover", (("back", "front", 180.0),)),)),)
    )
    worked = work(programme)
    bands = zones(programme, worked)
    assert {(zone.key[1], zone.side) for zone in bands} == set(itertools.product(("front", "back"), "AB"))
    for zone in bands:
        shape = Shape(zone.band)
        assert shape.area == pytest.approx(GLUE_FREE_FOLD_MM * 150)
        assert shape.bounds[0] == pytest.approx(90.0 - GLUE_FREE_FOLD_MM if zone.key[1] == "front" else 90.0)
    pocket = Programme(build)
    worked = work(pocket)
    mouths = [zone for zone in zones(pocket, worked, pockets(worked)) if zone.at == "mouth"]
    assert sorted((zone.key[1], zone.side) for zone in mouths) == [("back", "A"), ("front", "A")]
    for zone in mouths:
        assert Shape(zone.band).area == pytest.approx(GLUE_FREE_MOUTH_MM * 100)


def cross(arms):
    """A middle of 100 with arms of these lengths, each on a gusset of 5."""
    names = ("left", "right", "head", "tail")
    size = dict(zip(names, arms, strict=True))

    def spans(before, after):
        first = [Span(before, size[before]), Span(f"{before} gusset", 5.0)] if size[before] else []
        last = [Span(f"{after} gusset", 5.0), Span(after, size[after])] if size[after] else []
        return [*first, Span("", 100.0), *last]

    sheet = piece("sheet", "card", spans("left", "right"), spans("head", "tail"))
    there = [name for name in names if size[name]]
    groups = tuple(
        FoldGroup(
            name,
            (FoldOperation("sheet", (("body", f"{name} gusset", 90.0), (f"{name} gusset", name, 90.0))),),
        )
        for name in there
    )
    return Programme((Add(sheet, "body"),), groups, turns=True)


@given(st.lists(st.sampled_from([0.0, 30.0, 60.0, 99.0]), min_size=4, max_size=4))
def test_a_gusset_holds_what_was_shut_before_it_where_both_lie_over_each_other(arms):
    """Counted by hand for every order: under an arm lie the arms shut before that reach under it; left and
    right of 30 do not meet."""
    programme = cross(arms)
    if not programme.closing:
        return
    size = dict(zip(("left", "right", "head", "tail"), arms, strict=True))
    for way in ways(programme, {"card": Estimate.exact(1.0)}):
        for number, name in enumerate(way.order):
            before = [one for one in way.order[:number] if meet(size, one, name)]
            need = way.needs["sheet", f"{name} gusset"].likely
            assert need <= len(before)
            assert (need > 0) == bool(before)
        assert way.faults == 0


def meet(size, one, other):
    """Whether two arms lie on each other when both are shut over the middle of 100."""
    opposite = {one, other} in ({"left", "right"}, {"head", "tail"})
    return not opposite or size[one] + size[other] > 100.0


def test_orders_are_counted_and_ranked():
    programme = cross((99.0, 99.0, 99.0, 0.0))
    found = ways(programme, {"card": Estimate.exact(1.0)})
    assert len(found) == math.factorial(3)
    assert [one.fullest_mm for one in found] == sorted(one.fullest_mm for one in found)
    fixed = Programme(programme.build, programme.closing)
    assert len(ways(fixed, {})) == 1


def test_each_group_moves_its_own_arm_and_nothing_else():
    worked = work(cross((60.0, 60.0, 30.0, 30.0)))
    moved = moved_by(worked)
    for name, keys in moved.items():
        assert {key[1] for key in keys} == {name, f"{name} gusset"}


def test_work_is_ordered_cut_shape_score_fold_join_tuck():
    programme = pocketed(100, 150, 60, (10, 10))
    more = Programme(
        (
            *programme.build[:3],
            Add(board("card", "insert", 70, 100)),
            LayOperation(("card", "body"), ("sheet", "back"), (25.0, 50.0), by="tuck"),
            *programme.build[3:],
        )
    )
    found = tasks(more)
    kinds = [found[number].kind for number in in_order(found)]
    assert kinds == ["shape", "score", "fold", "fold", "join", "join", "tuck"], (
        "what slides in waits for all glue, wherever it stands in the list"
    )
