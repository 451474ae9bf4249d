"""The cuts of a book in the order they are made: each once, none before the one that makes its rectangle, no
stack thicker than the trimmer takes. The rectangles are cut here again."""

from __future__ import annotations

from itertools import pairwise

import pytest

from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.whole.planning import worked_out
from tests.profiles import some

TRIMMER = Tools(trimmer_longest_mm=450.0, trimmer_thickest_mm=2.0)


@pytest.mark.parametrize("quantity", [1, 12])
@pytest.mark.parametrize("name", some([one.name for one in RECIPES], 3))
def test_every_cut_comes_once_through_a_rectangle_that_is_there(name, quantity):
    book = editing.apply(recipe(name).book(), [("brief.quantity", quantity)])
    result = worked_out(book, TRIMMER).cutting
    for plan in result.plans:
        steps = [step for step in result.order if step.stock == plan.stock.key and plan.stock.role != "pile"]
        rects = {place: [(0.0, 0.0, one.width_mm, one.height_mm)] for place, one in enumerate(plan.sheets)}
        for step in steps:
            sheet = plan.sheets[step.sheet]
            (line,) = (cut for cut in sheet.cuts if cut.number == step.number)
            axis = 0 if step.axis == "upright" else 1
            (rect,) = (
                rect
                for rect in rects[step.sheet]
                if abs((line.x_mm, line.y_mm)[axis] - rect[axis] - step.fence_mm) < 1e-3
                and abs((line.x_mm, line.y_mm)[1 - axis] - rect[1 - axis]) < 1e-3
                and abs(line.length_mm - rect[3 - axis]) < 1e-3
            )
            rects[step.sheet].remove(rect)
            x, y, wide, high = rect
            fence = step.fence_mm
            halves = [(x, y, fence, high), (x + fence, y, wide - fence, high)]
            if axis == 1:
                halves = [(x, y, wide, fence), (x, y + fence, wide, high - fence)]
            rects[step.sheet] += halves
            assert 1 <= step.stack <= sheet.times
            thickness = step.stack * plan.stock.caliper.high
            assert step.stack == 1 or (line.length_mm <= 450.05 and thickness <= 2.0 + 1e-6)
            assert set(step.pieces) <= sheet.counts().keys()
        if plan.stock.role != "pile":
            assert len(steps) == sum(len(sheet.cuts) for sheet in plan.sheets)


def test_equal_settings_stand_together_and_a_knife_cuts_one_by_one():
    """Two boards and a strip: 216 serves three cuts in a row; without a trimmer every sheet by itself."""
    book = editing.apply(recipe("case").book(), [("brief.quantity", 12)])
    for tools in (NO_TOOLS, TRIMMER):
        result = worked_out(book, tools).cutting
        boards = [step for step in result.order if step.stock == "board"]
        fences = [round(step.fence_mm, 1) for step in boards]
        runs = sum(first != second for first, second in pairwise(fences)) + 1
        assert runs <= len(set(fences)) + 2
        assert {step.stack for step in boards} == {1}, "a board is cut with a knife, or is 2 mm thick"
    leaves = [step for step in worked_out(book, TRIMMER).cutting.order if step.stock == "leaf"]
    caliper = worked_out(book).paper.stock("leaf").caliper.high
    assert {step.stack for step in leaves} == {int(2.0 / caliper + 1e-9)}
