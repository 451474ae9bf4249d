"""What is drawn of holes and hardware, against polygons and the figures of the plan."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from shapely import LineString, Point, Polygon, box

from pleat.core.document import editing
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.engines.holes.turning import frames
from pleat.core.whole.planning import make_plan
from pleat.drawing import looks
from pleat.drawing import members as _drawings  # noqa: F401 - makes all drawings known
from pleat.drawing.binding.ringside import ring_side
from pleat.drawing.binding.turned import picture
from pleat.drawing.handles import handles
from pleat.drawing.portraits import portrait
from pleat.drawing.shapes import Curve, Dot, Group, Line, Rect
from pleat.printing.strips import strips_of, tiles

HELD = [one.name for one in RECIPES if chosen(one.book()).binding.at == "edge"]
ROUND = [name for name in HELD if make_plan(recipe(name).book()).binding.cross]


def plan_of(name, *changes):
    return make_plan(editing.apply(recipe(name).book(), changes))


def flat(shapes):
    for shape in shapes:
        if isinstance(shape, Group):
            yield from flat(shape.shapes)
        else:
            yield shape


def dots(drawing, style):
    return [one for one in flat(drawing.shapes) if isinstance(one, Dot) and one.style == style]


def polygon(curve):
    return Polygon([numbers for letter, numbers in curve.commands if letter in "ML"])


@pytest.mark.parametrize("name", HELD)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_the_held_edge_is_drawn_to_scale_with_every_hole_where_it_is(name, ruler):
    plan = plan_of(name, ("brief.ruler", ruler), ("binding.hinge_mm", 25.0))
    result, drawing = plan.binding, looks.main(plan.binding, plan)
    leaf = next(one for one in flat(drawing.shapes) if isinstance(one, Rect) and one.style.startswith("leaf"))
    assert leaf.width == drawing.width == result.edge_mm
    holes = dots(drawing, "hole")
    assert [hole.x for hole in holes] == pytest.approx(list(result.positions_mm))
    assert {round(hole.y - leaf.y, 6) for hole in holes} == {round(result.inset_mm, 6)}
    assert {hole.radius_mm for hole in holes} == {result.hole_mm / 2}
    (score,) = [one for one in flat(drawing.shapes) if isinstance(one, Line) and one.style == "score"]
    assert score.y1 - leaf.y == pytest.approx(25)
    lost = next(one for one in flat(drawing.shapes) if isinstance(one, Rect) and one.style == "lost-zone")
    assert lost.height == result.lost_mm == 25
    few = len(result.positions_mm) <= 6 and result.movable
    assert len(handles(result, plan)) == (len(result.positions_mm) if few else 0)
    for one in handles(result, plan):
        assert one.low_mm <= one.value_mm <= one.high_mm
    assert len(dots(looks.strip(result, plan), "hole-held")) >= 1


def test_what_goes_through_the_holes_is_drawn_as_what_it_is():
    def drawn(name, kind, style, *changes):
        plan = plan_of(name, *changes)
        return [
            one
            for one in flat(looks.main(plan.binding, plan).shapes)
            if isinstance(one, kind) and one.style == style
        ]

    assert len(drawn("rings", Curve, "ring-front", ("binding.count", 4))) == 4
    assert [curve.width for curve in drawn("wire", Curve, "ring-front")] == [1.0] * 24
    coil = drawn("coil", Curve, "ring-front")[0].commands
    assert coil[0][1][0] < coil[1][1][0], "a coil runs aslant"
    (bar,) = drawn("strips", Rect, "metal")
    assert bar.width == 180
    (stick,) = drawn("stickband", Rect, "stick")
    assert (stick.width, stick.height) == (210, 6)
    (batten,) = drawn("batten", Rect, "stick")
    assert batten.height == 24
    assert len(drawn("posts", Dot, "metal")) == 2
    assert len(drawn("keyring", Dot, "metal")) == 1


@pytest.mark.parametrize("name", ROUND)
def test_the_cross_section_shows_ring_and_stack_at_their_size(name):
    plan = plan_of(name)
    cross = plan.binding.cross
    drawing = ring_side(plan.binding, plan.brief.ruler)
    (wire,), (inside,) = dots(drawing, "ring-wire"), dots(drawing, "ring-inside")
    assert wire.radius_mm - inside.radius_mm == pytest.approx(cross.ring.wire)
    bridge, page = (
        polygon(one) for one in flat(drawing.shapes) if isinstance(one, Curve) and one.style == "stack filled"
    )
    for one in (bridge, page):
        low, high = one.bounds[1], one.bounds[3]
        assert high - low == pytest.approx(cross.stack, abs=0.02)
    ring = Point(inside.x, inside.y)
    assert ring.buffer(cross.ring.radius + 0.1).contains(bridge), "the bridges lie inside the ring"
    assert page.distance(ring) >= cross.ring.radius + cross.ring.wire - 0.15, "the pages begin beyond it"
    assert drawing.width >= 0
    assert page.bounds[2] <= drawing.width + 1e-6


@pytest.mark.parametrize("name", ["posts", "batten"])
def test_what_posts_hold_adds_up_between_their_heads(name):
    plan = plan_of(name)
    clamp = plan.binding.clamp
    drawing = ring_side(plan.binding, plan.brief.ruler)
    rows = [one for one in drawing.shapes if isinstance(one, Rect) and one.style != "metal"]
    assert sum(one.height for one in rows) == pytest.approx(
        2 * clamp.batten + 2 * clamp.cover + clamp.block + clamp.packing, abs=0.05
    )
    for upper, lower in pairwise(rows):
        assert lower.y == pytest.approx(upper.y + upper.height), "nothing floats"
    post = next(
        one for one in drawing.shapes if isinstance(one, Rect) and one.style == "metal" and one.height > 2.5
    )
    assert post.height == pytest.approx(clamp.post)


@pytest.mark.parametrize("name", ROUND)
def test_a_book_that_turns_goes_through_nothing_at_any_moment(name):
    """Ring, the part that stays and the part that turns, as polygons: bridges inside, pages outside, and none
    in another's way."""
    plan = plan_of(name)
    cross = plan.binding.cross
    ring, half = cross.ring, cross.stack / 2
    shown = frames(ring, half, half)
    drawn = {}
    for angle in range(0, 361, 20):
        drawing = picture(cross, shown, angle)
        middle = Point(drawing.width / 2, drawing.height / 2)
        parts = [polygon(one) for one in drawing.shapes if isinstance(one, Curve)]
        stays, turns = parts[:2], parts[2:]
        for bridge, page in (stays, turns):
            assert middle.buffer(ring.radius + 0.15, quad_segs=64).contains(bridge), angle
            assert page.distance(middle) >= ring.radius + ring.wire - 0.2, angle
        for one in stays:
            for other in turns:
                assert one.intersection(other).area < 0.05 * min(one.area, other.area) + 0.2, angle
        drawn[angle] = parts
    for angle in range(0, 180, 20):  # folded behind it is the same the other way up
        for one, other in zip(drawn[angle], drawn[360 - angle], strict=True):
            assert one.area == pytest.approx(other.area, rel=1e-6)
            assert one.centroid.x == pytest.approx(other.centroid.x, abs=1e-6)


@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_nothing_of_a_portrait_lies_outside_its_picture(name):
    drawing = portrait(plan_of(name))
    frame = box(0, 0, drawing.width, drawing.height).buffer(4.5)  # the pen leaves an edge of 4
    for one in flat(drawing.shapes):
        match one:
            case Rect():
                inside = box(one.x, one.y, one.x + one.width, one.y + one.height)
            case Dot():
                inside = Point(one.x, one.y).buffer(one.radius_mm or 0.5)
            case Line():
                inside = LineString([(one.x1, one.y1), (one.x2, one.y2)])
            case Curve():
                points = [numbers[-2:] for letter, numbers in one.commands if letter != "Z"]
                inside = LineString(points) if len(points) > 1 else Point(points[0])
            case _:
                continue
        assert frame.contains(inside), (name, one)


@pytest.mark.parametrize("name", HELD)
@pytest.mark.parametrize(("ruler", "room"), [("mm", 240.0), ("in", 180.0)])
def test_a_jig_has_its_holes_at_true_size_and_every_one_on_some_tile(name, ruler, room):
    """As wide as the strip it is laid on (A8), as long as the edge; the covers' is longer by both squares,
    its holes moved by one."""
    plan = plan_of(
        name, ("brief.ruler", ruler), ("brief.leaf_height_mm", 380.0), ("brief.leaf_width_mm", 230.0)
    )
    result = plan.binding
    leaf, *covers = strips_of(result, plan)
    assert (leaf.length_mm, leaf.width_mm) == (result.edge_mm, result.jig_mm)
    assert leaf.rows_mm == (result.inset_mm,)
    assert [mark.at_mm for mark in leaf.marks] == pytest.approx(list(result.positions_mm))
    assert {mark.hole_mm for mark in leaf.marks} == {result.hole_mm}
    for cover in covers:
        assert cover.length_mm == pytest.approx(result.edge_mm + 6)
        assert [mark.at_mm for mark in cover.marks] == pytest.approx([at + 3 for at in result.positions_mm])
    assert bool(covers) == (plan.brief.made_of.cover.name != "bare")
    for strip in (leaf, *covers):
        pieces = tiles(strip, room)
        for mark in strip.marks:
            on = [tile for tile in pieces if tile.start_mm <= mark.at_mm <= tile.end_mm]
            assert on, "a hole between two tiles"
        assert all(
            later.start_mm == pytest.approx(earlier.end_mm - 10) for earlier, later in pairwise(pieces)
        )


def test_a_score_makes_the_jig_as_wide_as_what_lies_before_it():
    for hinge in (None, 18.0, 30.0):
        plan = plan_of("rings", ("binding.hinge_mm", hinge))
        leaf = strips_of(plan.binding, plan)[0]
        assert leaf.width_mm == (hinge or 20.0)
        assert leaf.rows_mm == (10.0,)
    notched = plan_of("stickband", ("binding.through", "notches"))
    assert strips_of(notched.binding, notched)[0].rows_mm == (0.0,)


def test_sticks_are_drawn_each_on_its_section_with_strips_over_and_under():
    plan = plan_of("sticks")
    drawing = looks.main(plan.binding, plan)
    sticks = [one for one in drawing.shapes if isinstance(one, Rect) and one.style == "stick"]
    strips = [one for one in drawing.shapes if isinstance(one, Rect) and one.style == "strip-cloth"]
    assert len(sticks) == 6
    assert {one.width for one in sticks} == {210}
    over = [
        one
        for one in strips
        if any(math.isclose(one.height, stick.height * 5.4 / 5.0, rel_tol=0.01) for stick in sticks)
    ]
    assert len(over) == 6, "each strip over every second stick, the neighbouring one over the others"
    assert len(strips) - len(over) == 2
    behind = plan_of("sticks", ("binding.strips", "behind"))
    assert (
        len(
            [
                one
                for one in looks.main(behind.binding, behind).shapes
                if isinstance(one, Rect) and one.style == "strip-cloth"
            ]
        )
        == 2
    )
