"""Every step of every recipe has a picture, whose figures are those of its words."""

from __future__ import annotations

import re

import pytest

from pleat.core.base.scenes import Lying
from pleat.core.base.staged import folded, nested, threaded
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planning import make_plan
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.scenes import numbers, picture
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


WITHOUT_WORDS = frozenset({"pierce", "cover_pierced"})
"""Steps that are worked along a strip: its numbers were said when it was made."""


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
