"""Drawings of covers: what stands on them is what was worked out, nothing lies outside them, and every state
is seen from above as it is folded."""

from __future__ import annotations

import itertools
import re
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape
from shapely.ops import unary_union

from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.pleats.cover.opening import motion_of, turning, worked
from pleat.core.whole.planning import make_plan
from pleat.drawing import looks
from pleat.drawing import members as _members  # noqa: F401 - makes all drawings known
from pleat.drawing.cover import hard
from pleat.drawing.cover.states import pictures
from pleat.drawing.outlines import APART, PAST, running
from pleat.drawing.shapes import Curve, Group, Label, Line, Rect, moved
from pleat.drawing.svg import render_screen
from tests.core.pleats.cover.test_covers import HARD, LAID, book_of
from tests.profiles import examples

NAMES = [one.name for one in RECIPES]


def points(shape):
    match shape:
        case Rect():
            return [(shape.x, shape.y), (shape.x + shape.width, shape.y + shape.height)]
        case Line():
            return [(shape.x1, shape.y1), (shape.x2, shape.y2)]
        case Curve():
            return [
                pair
                for letter, numbers in shape.commands
                if letter in "ML"
                for pair in zip(numbers[::2], numbers[1::2], strict=True)
            ]
    return []


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", LAID)
def test_everything_that_is_drawn_lies_on_the_drawing(name, ruler):
    plan = make_plan(book_of(name, ("brief.ruler", ruler)))
    drawing = looks.main(plan.cover, plan)
    for shape in drawing.shapes:
        if getattr(shape, "style", "") == "leader":
            continue
        for x, y in points(shape):
            assert -1e-6 <= x <= drawing.width + 1e-6, shape
            assert -1e-6 <= y <= drawing.height + 1e-6, shape
    assert ElementTree.fromstring(render_screen(drawing).svg).get("aria-label") == drawing.says


@pytest.mark.parametrize("name", HARD)
def test_the_flat_cover_shows_every_running_position_and_widths_that_add_up(name):
    plan = make_plan(recipe(name).book())
    shell, ruler = plan.cover.shell, plan.brief.ruler
    drawing = looks.main(plan.cover, plan)
    shown = [shape.text for shape in drawing.shapes if isinstance(shape, Label) and shape.style == "running"]
    assert shown == [ruler.number(at) for at in shell.edges[1:-1]]
    numbers = [float(number) for number in re.findall(r"\d+(?:\.\d+)?", drawing.says.split(":")[1])]
    assert sum(numbers[:7]) == pytest.approx(numbers[7], abs=0.51)
    assert {spot.name for spot in drawing.spots} == {"cover.square_mm", "cover.turn_in_mm", "cover.joint_mm"}


@pytest.mark.parametrize("name", HARD)
@pytest.mark.parametrize("strip", ["between", "over"])
def test_the_shut_book_is_drawn_at_its_true_thickness_with_its_doubt_as_a_shadow(name, strip):
    plan: Any = make_plan(book_of(name, ("cover.strip", strip)))
    shell, block = plan.cover.shell, plan.cover.shell.spine.used
    shapes = hard.shut(plan.cover, plan).shapes
    heights = {shape.style.split()[0]: shape.height for shape in shapes if isinstance(shape, Rect)}
    assert (heights["shadow"], heights["shadow-line"], heights["leaf"]) == pytest.approx(
        (block.high, block.low, block.likely)
    )
    boards = [shape for shape in shapes if isinstance(shape, Rect) and shape.style.startswith("board-end")]
    upright = [
        shape for shape in boards if shape.height > shape.width or shape.height == pytest.approx(shell.strip)
    ]
    assert upright[0].height == pytest.approx(shell.strip)
    flat = [shape for shape in boards if shape not in upright]
    assert {round(shape.height, 6) for shape in flat} == {round(shell.board, 6)}
    gap = abs(flat[0].y - flat[1].y) - shell.board
    assert gap >= block.likely - 1e-6, "the block lies between the boards"


def test_a_corner_is_drawn_as_far_off_as_it_says():
    plan = make_plan(recipe("case").book())
    shell = plan.cover.shell
    drawing = hard.corner(shell, plan.brief.ruler, "indigo")
    wrap, off = (Shape(points(shape)) for shape in drawing.shapes[:2])
    board = drawing.shapes[2]
    corner = Shape(
        [
            (board.x, board.y),
            (board.x + board.width, board.y),
            (board.x + board.width, board.y + board.height),
        ]
    )
    assert off.distance(corner) == pytest.approx(shell.corner, abs=1e-6)
    assert wrap.intersection(off).area < 1e-6


def test_the_layers_of_an_edge_lie_on_each_other_ten_times_as_thick():
    for name in LAID:
        plan: Any = make_plan(recipe(name).book())
        layers = [shape for shape in hard.edge(plan.cover, plan).shapes if isinstance(shape, Rect)]
        assert len(layers) == len(plan.cover.layers)
        for shape, layer in zip(layers, plan.cover.layers, strict=True):
            assert shape.height == pytest.approx(max(10 * layer.mm, 0.4))
        assert [shape.y for shape in layers] == pytest.approx(
            [sum(one.height for one in layers[:n]) for n in range(len(layers))]
        )


@pytest.mark.parametrize("name", NAMES)
def test_states_seen_from_above_cover_what_the_folded_paper_covers(name):
    plan = make_plan(recipe(name).book())
    motion = motion_of(plan.cover, plan.pages)
    assembly, states = worked(motion)
    for drawing, state in zip(pictures(motion, "kraft", "white"), states, strict=True):
        drawn = unary_union([Shape(points(shape)) for shape in drawing.shapes])
        folded = unary_union([Shape(state.shadow(key, assembly.pieces)) for key in state.pile])
        assert drawn.area == pytest.approx(folded.area, rel=1e-6)
        assert state.name in drawing.says
    first = states[0]
    assert sum(
        Shape(first.shadow(key, assembly.pieces)).area for key in first.pile if key[0] != "block"
    ) == pytest.approx(motion.piece.area_mm2)


@pytest.mark.parametrize("name", NAMES)
def test_the_moving_view_turns_every_panel_about_a_hinge_on_its_own_edge(name):
    plan = make_plan(recipe(name).book())
    motion = motion_of(plan.cover, plan.pages)
    parts = turning(motion)
    assert {part.name for part in parts} == {panel.name for panel in motion.piece.panels}
    for part in parts:
        if not part.axis:
            continue
        at = 0 if part.axis == "Y" else 1
        for outline in (part.outline, parts[part.parent].outline):
            assert min(abs(point[at] - part.hinge_mm) for point in outline) < 1e-6
    assert sum(Shape(part.outline).area for part in parts) == pytest.approx(motion.piece.area_mm2)
    shut = sum(abs(part.angles[-1]) for part in parts)
    assert shut >= 180, "it closes"


def test_numbers_that_run_along_an_edge_keep_apart():
    from pleat.core.base.units import RULERS

    labels = running([10, 12, 14, 90], RULERS["mm"], 1.0)
    places = [label.x + label.shift[0] for label in labels]
    assert all(b - a >= APART - 1e-6 for a, b in itertools.pairwise(places))
    assert places[3] == pytest.approx(94)
    assert sum(places[:3]) / 3 == pytest.approx(12 + 4), "about their middle"
    assert running([], RULERS["mm"], 1.0) == []


@settings(max_examples=examples(60))
@given(st.lists(st.floats(0, 900), min_size=1, max_size=70, unique=True), st.floats(0.2, 3))
def test_numbers_stand_near_their_lines_or_are_left_out(places, scale):
    """However many there are: none meets another, none strays farther than half of all that stand beside it,
    and the first is always there."""
    from pleat.core.base.units import RULERS

    places = sorted(places)
    labels = running(places, RULERS["mm"], scale)
    at = [label.x * scale + label.shift[0] for label in labels]
    assert all(b - a >= APART - 1e-6 for a, b in itertools.pairwise(at))
    assert labels[0].x == places[0]
    assert (len(labels) - 1) * APART <= (places[-1] - places[0]) * scale + PAST + 1e-6
    assert all(abs(label.shift[0] - 4) <= len(labels) * APART / 2 for label in labels)


def test_a_shape_that_is_moved_keeps_its_size():
    shapes: list[Any] = [
        Rect(1, 2, 3, 4, "x"),
        Line(1, 2, 3, 4, "x"),
        Label(1, 2, "x"),
        Curve((("M", (1, 2)), ("A", (5, 5, 0, 1, 0, 3, 4)), ("Q", (1, 1, 2, 2)), ("Z", ())), "x"),
        Group("g", (Rect(1, 2, 3, 4, "x"),)),
    ]
    for shape in shapes:
        assert moved(moved(shape, 7, -3), -7, 3) == shape
    arc = moved(shapes[3], 10, 20).commands[1][1]
    assert arc == (5, 5, 0, 1, 0, 13, 24)
