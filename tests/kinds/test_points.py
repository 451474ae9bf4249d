"""Where kinds plug in: every point is a known one, has answers, and answers for whatever a kind comes to."""

from __future__ import annotations

import ast
from pathlib import Path

import pytest

import pleat
from pleat.core.base.points import POINTS, point
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planning import make_plan
from pleat.drawing import looks
from tools import tables

SOURCE = Path(pleat.__file__).parent


def test_a_function_that_is_found_by_type_is_a_point_and_stands_on_the_page():
    for path in SOURCE.rglob("*.py"):
        names = {
            alias.name
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.ImportFrom)
            for alias in node.names
        }
        assert "singledispatch" not in names or path.name == "points.py", path
    assert tables.WHERE.read_text() == tables.points()
    assert all(one.own for one in POINTS.values())
    with pytest.raises(ValueError, match="two points called drawing"):
        point("drawing", "once more")(lambda _: None)


@pytest.mark.parametrize("recipe", RECIPES, ids=lambda one: one.name)
def test_every_result_of_a_kind_is_drawn_large_and_small(recipe):
    """These two have no general answer: a kind whose result nobody draws would be found by the maker."""
    plan = make_plan(recipe.book())
    for name in ("pages", "binding", "cover"):
        result = plan[name]
        for asked in (looks.main, looks.strip):
            own = asked.dispatch(type(result))
            assert own is not asked.registry[object], (name, type(result).__name__)
