"""Every step of every recipe has a picture, whose figures are those of its words."""

from __future__ import annotations

import re

import pytest

from pleat.core.base.scenes import Lying
from pleat.core.base.staged import folded, nested, threaded
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.scenes import has_own, numbers, picture
from pleat.drawing.shapes import Label
from pleat.drawing.svg import render_screen

IDS = [one.name for one in RECIPES]
NUMBER = re.compile(r"\d+(?: \d+/\d+|\.\d+|/\d+)?")


@pytest.mark.every(4)
@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", IDS)
def test_every_step_has_a_picture_and_its_numbers_stand_in_its_words(name, ruler):
    (found,) = (one for one in RECIPES if one.name == name)
    plan = make_plan(editing.apply(found.book(), [("brief.ruler", ruler)]))
    for one in plan.bench.work:
        drawing = picture(one.step, plan)
        rendered = render_screen(drawing, 760, 560)
        assert drawing.says
        assert "nan" not in rendered.svg
        scene = one.step.scene
        if scene is None:
            continue
        for lying in scene.lying:
            assert lying.x >= -0.01, (one.step.key, lying)
            assert lying.x + lying.width <= scene.width + 0.01, (one.step.key, lying)
            assert lying.y >= -0.01, (one.step.key, lying)
            assert lying.y + lying.height <= scene.height + 0.01, (one.step.key, lying)
        told = {text.strip() for text in NUMBER.findall(f"{one.step.title} {one.step.detail}")}
        for _, values in numbers(one.step, plan):
            if one.step.key not in WITHOUT_WORDS:
                assert set(values) <= told, (one.step.key, values, one.step.detail)
        measured = {distance_text(one, plan.brief.ruler) for one in scene.distances}
        written = {dim.text for dim in drawing.dims} | {
            shape.text for shape in drawing.shapes if isinstance(shape, Label)
        }
        assert not has_own(one.step) or measured <= written, "every measure stands in the picture"
        if one.step.key not in MEASURED_ALONE:
            assert measured <= told, (one.step.key, measured, one.step.detail)


def distance_text(distance, ruler):
    return ruler.thin(distance.value_mm) if distance.thin else ruler.number(distance.value_mm)


WITHOUT_WORDS = frozenset({"pierce", "cover_pierced"})
"""Steps that are worked along a strip: its numbers were said when it was made."""
MEASURED_ALONE = frozenset({"fold", "check", "measure", "measure_sewn", "glue_boards", "punch"})
"""Steps whose words name no measure: along a jig or marks, by the step before, or as a range."""


def test_a_cover_held_at_the_head_is_drawn_with_its_head_on_top():
    """The holes lie along the head of cover and leaf alike, a square further on the cover."""
    plan = make_plan(recipe("fliptop").book())
    steps = {one.step.key: one.step for one in plan.bench.work}
    leaf, cover = steps["punch"].scene, steps["cover_punch"].scene
    (card,) = cover.lying
    assert (card.width, card.height) == (plan.cover.front_width_mm, plan.cover.front_height_mm)
    assert {line.axis for scene in (leaf, cover) for line in scene.lines} == {"level"}
    shifts = {
        (round(b.x - a.x, 6), round(b.y - a.y, 6)) for a, b in zip(leaf.holes, cover.holes, strict=True)
    }
    assert len(shifts) == 1
    ((across, down),) = shifts
    assert across == pytest.approx((card.width - leaf.lying[0].width) / 2)
    assert down >= 0


@pytest.mark.parametrize(("folds", "sheet"), [(1, (296, 210)), (2, (296, 420)), (3, (592, 420))])
def test_a_sheet_folded_as_often_as_it_says_is_a_leaf(folds, sheet):
    """A sheet of two, four and eight leaves of 148 x 210."""
    scene = folded(Lying("", 0.0, 0.0, *sheet), folds)
    after = scene.lying[-1]
    assert (after.width, after.height) == (148, 210)
    assert len([line for line in scene.lines if line.when == "now"]) == folds


def test_every_sheet_of_a_section_is_a_line_and_a_thread_is_as_long_as_it_says():
    assert len(nested([4], 148.0).strokes) == 4
    for length in (120.0, 485.0, 2400.0):
        (stroke,) = threaded(length).strokes
        along = [
            abs(b[0] - a[0]) for a, b in zip(stroke.points, stroke.points[1:], strict=False) if a[1] == b[1]
        ]
        assert sum(along) == pytest.approx(length)
