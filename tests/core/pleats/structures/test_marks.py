"""What is seen on panels: papers and places of leaves and folded things, against the sheets they are worked
out on."""

from __future__ import annotations

import pytest
from shapely.geometry import Polygon as Shape

from pleat.core.engines.folding.sheet import Piece
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.marks import marks, on_leaf
from tests.core.pleats.structures.samples import FOLDED, HINGED, plan_of


@pytest.mark.parametrize("name", [name for name in FOLDED if name != "pocketpages"])
@pytest.mark.parametrize("mats", ["yes", "no"])
def test_every_place_that_is_counted_is_seen_once_on_its_panel(name, mats):
    plan = plan_of(name, {"pages.photo": "card", "pages.mats": mats, "pages.border_mm": "2"})
    made: Made = plan.pages.made
    pieces = made.worked.assembly.pieces
    found = marks(made)
    assert sum(len(own) for own in found.values()) == sum(one.places for one in made.dressings)
    for (piece, panel), own in found.items():
        sheet: Piece = pieces[piece]
        assert piece.startswith("on ") == (mats == "yes")
        outline = Shape(sheet[panel].outline)
        shapes = [(mark.side, Shape(mark.outline)) for mark in own]
        for number, (side, shape) in enumerate(shapes):
            assert outline.buffer(0.01).contains(shape)
            assert sorted(
                (shape.bounds[2] - shape.bounds[0], shape.bounds[3] - shape.bounds[1])
            ) == pytest.approx([53.98, 85.6])
            assert all(
                other.intersection(shape).area < 0.01
                for beside, other in shapes[number + 1 :]
                if beside == side
            )


@pytest.mark.parametrize("leaf_is", ["papers", "board", "tag"])
@pytest.mark.parametrize("mats", ["yes", "no"])
def test_both_sides_of_a_hinged_leaf_are_seen_as_it_is_dressed(leaf_is, mats):
    plan = plan_of(
        "hills",
        {"pages.leaf_is": leaf_is, "pages.mats": mats, "pages.border_mm": "4", "brief.leaf_width_mm": "190"},
    )
    own, count = on_leaf(plan.pages.made), {"yes": 1, "no": 0}[mats]
    for side in "AB":
        assert [mark.paper for mark in own if mark.side == side] == [True] * count + [False] * (
            plan.pages.made.places // plan.pages.leaves // 2
        )
    for mark in own:
        left, top, right, bottom = Shape(mark.outline).bounds
        if mark.paper:
            assert (left, top, 190.0 - right, plan.brief.leaf_height_mm - bottom) == pytest.approx((4.0,) * 4)
        else:
            assert left == pytest.approx(190.0 - right)


def test_on_the_back_of_two_papers_what_is_left_is_seen_on_the_right():
    """The back of a leaf is worked out as it is looked at; on the one piece of the hinge it lies the other
    way round. A flip keeps its own."""
    plan = plan_of("connectors", {"pages.leaf_is": "papers"})
    assert any(one.key[0] == "flip" for one in plan.pages.made.dressings)
    by_side = {mark.side: Shape(mark.outline).bounds for mark in on_leaf(plan.pages.made) if mark.paper}
    width = plan.brief.leaf_width_mm
    front, back = by_side["A"], by_side["B"]
    assert front[0] == pytest.approx(3.0)
    assert width - front[2] > 10, "the flip's tab covers the front at the fore edge"
    assert (back[0], width - back[2]) == pytest.approx((3.0, 3.0))


@pytest.mark.parametrize("name", HINGED)
def test_leaves_of_hinges_have_papers_where_their_block_has_them(name):
    plan = plan_of(name)
    if plan.pages.made.programme.pieces[0].name == "leaf":
        assert {mark.side for mark in on_leaf(plan.pages.made)} == {"A", "B"}
