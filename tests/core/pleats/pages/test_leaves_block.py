"""A block of single leaves: counts, thickness, leaves of another size, what is told of it, and what it is cut
from."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.plan import Part
from pleat.core.document import editing
from pleat.core.document.recipes import recipe
from pleat.core.materials.items import Paper
from pleat.core.pleats.pages.kinds.leaves import Leaves, leaves_of, odd_of, odd_size
from pleat.core.whole.planning import make_plan
from tests.conftest import edited


def plan_of(*changes, **texts):
    book = editing.apply(recipe("rings").book(), changes)
    return make_plan(edited(book, {path.replace("__", "."): text for path, text in texts.items()}))


@pytest.mark.parametrize(
    ("text", "leaves", "told"),
    [
        ("40 leaves", 40, False),
        ("80 pages", 40, False),
        ("81 pages", 41, False),
        ("1 page", 1, False),
        ("12 sheets", 12, False),
        ("80", 40, True),
    ],
)
def test_a_count_means_what_its_word_says(text, leaves, told):
    plan = plan_of(pages__count=text)
    assert (plan.pages.leaves, plan.pages.pages) == (leaves, 2 * leaves)
    assert plan.pages.key_figure.aside == f"{2 * leaves} pages"
    asked = [check for check in plan.pages.checks if check.key == "A11"]
    assert bool(asked) == told
    if told:
        meant = [
            make_plan(editing.apply(editing.edit(recipe("rings").book(), {"pages.count": text}), one.changes))
            for one in asked[0].offers
        ]
        assert [one.pages.leaves for one in meant] == [40, 80]


@given(st.integers(1, 2000), st.sampled_from(["leaves", "pages", "unsaid", "folios"]), st.integers(0, 500))
def test_odd_leaves_are_among_the_others_and_never_all_of_them(amount, counted, odd):
    pages = Leaves(amount=amount, counted_in=counted, odd_amount=odd)
    leaves = leaves_of(pages)
    assert leaves == (math.ceil(amount / 2) if counted in ("pages", "unsaid") else amount)
    assert 0 <= odd_of(pages) < max(leaves, 1) + (leaves == 0)
    assert odd_size(pages, 100, 200) == (100, 200), "what is not said of them is as the others"


def test_a_stack_is_as_thick_as_its_leaves_lie():
    """100 g/m2 of drawing paper at 1.2 cm3/g is 0.12 mm; forty of them, lying flat to 1.02, 4.9 mm; handled
    1.2 times, 5.8."""
    flat, handled, crumpled = (
        plan_of(("pages.lay", lay)).pages.thickness for lay in ("flat", "handled", "crumpled")
    )
    assert flat.likely == pytest.approx(40 * 0.12 * 1.02)
    assert handled.likely == pytest.approx(40 * 0.12 * 1.2)
    assert crumpled.low > handled.likely
    assert flat.low < flat.likely < flat.high
    measured = plan_of(pages__measured_block_mm="5.2").pages
    assert (measured.thickness.likely, measured.measured) == (5.2, True)
    assert measured.thickness.width < flat.width


def test_leaves_of_another_size_are_cut_apart_and_shown():
    plan = plan_of(pages__odd_amount="6", pages__odd_width_mm="100", pages__odd_height_mm="120")
    parts = {part.key: part for part in plan.pages.parts if isinstance(part, Part)}
    assert (parts["leaf"].count, parts["odd"].count) == (34, 6)
    assert (parts["odd"].width_mm, parts["odd"].height_mm) == (100, 120)
    assert plan.pages.odd == ((100, 120, "middle"),)
    assert next(one for one in plan.pages.figures if one.key == "odd").value == (100, 120)
    assert "6 of the other size" in next(step for step in plan.pages.steps if step.key == "stack").detail
    assert {cut.part.key for cut in plan.cutting.cuts} >= {"leaf", "odd", "cover"}
    several = plan_of(("brief.quantity", 3), pages__odd_amount="6")
    assert [part.count for part in several.pages.parts] == [102, 18]


@pytest.mark.parametrize(
    ("at", "height", "held"),
    [
        ("middle", 200, 2),
        ("middle", 130, 2),
        ("middle", 110, 0),
        ("head", 110, 1),
        ("tail", 110, 1),
        ("head", 170, 2),
    ],
)
def test_odd_leaves_are_held_by_the_holes_that_fall_into_them(at, height, held):
    """Holes at 52.5 and 157.5 of 210, each with 7 mm to its rim and the paper round it."""
    plan = plan_of(("pages.odd_at", at), pages__odd_amount="3", pages__odd_height_mm=str(height))
    told = [check for check in plan.binding.checks if check.key == "C2"]
    assert bool(told) == (held < 2)
    if told:
        assert told[0].level == ("stop" if held == 0 else "watch")
        for offer in told[0].offers:
            book = editing.apply(
                recipe("rings").book(),
                [
                    ("pages.odd_at", at),
                    ("pages.odd_amount", 3),
                    ("pages.odd_height_mm", float(height)),
                    *offer.changes,
                ],
            )
            assert "C2" not in {check.key for check in make_plan(book).binding.checks}


def test_leaves_are_cut_with_the_grain_along_the_held_edge():
    along = Paper(
        name="Along", kind="drawing", sheet_width_mm=152, sheet_height_mm=214, grammage=100, grain="long"
    )
    across = along.model_copy(update={"grain": "short"})
    right, wrong = (plan_of(("paper.leaf", paper.model_dump(mode="json"))) for paper in (along, across))
    assert "B7" not in {check.key for _, check in right.checks}
    assert "B7" in {check.key for _, check in wrong.checks}


def test_stiff_leaves_are_told_and_a_score_lets_them_turn():
    card = ("paper.leaf.readings_mm", (4.0,))  # ten sheets
    plan = plan_of(card)
    (told,) = [check for check in plan.binding.checks if check.key == "hinge"]
    assert "do not bend by themselves" in told.title
    scored = plan_of(card, *told.offers[0].changes)
    assert "hinge" not in {check.key for check in scored.binding.checks}
    assert scored.binding.hinge_mm == 17
    assert scored.binding.lost_mm == scored.binding.jig_mm == 17
    assert "Score every leaf" in [one.step.title for one in scored.bench.work]
    through = plan_of(card, ("binding.hinge_mm", 11.0))
    assert [check.level for check in through.binding.checks if check.key == "hinge"] == ["stop"]
    beyond = plan_of(card, ("binding.hinge_mm", 80.0), ("cover.hinge_mm", 80.0))
    assert [
        check.level for check in (*beyond.binding.checks, *beyond.cover.checks) if check.key == "hinge"
    ] == ["watch", "watch"]


def test_too_many_stiff_leaves_are_told_with_how_many_would_do():
    plan = plan_of(("paper.leaf.readings_mm", (4.0,)), ("pages.amount", 50))
    (told,) = [check for check in plan.pages.checks if check.key == "B11"]
    assert "0.400 mm" in told.title
    fewer = plan_of(("paper.leaf.readings_mm", (4.0,)), ("pages.amount", 50), *told.offers[0].changes)
    assert "B11" not in {check.key for check in fewer.pages.checks}
    assert fewer.pages.thickness.likely < 12.1


def test_the_leaves_go_through_the_bench_in_an_order_that_works():
    titles = [
        one.step.key
        for one in plan_of(("binding.reinforce", "patches"), ("binding.hinge_mm", 20.0)).bench.work
    ]
    order = ["cut_leaves", "stack", "hinge", "jig", "punch", "reinforce", "hang", "check"]
    assert [key for key in titles if key in order] == order
    assert titles.index("cover_punch") < titles.index("hang")
    assert titles.index("jig") < titles.index("cover_punch")


@given(st.integers(1, 600), st.integers(1, 600))
def test_more_leaves_are_never_thinner_and_take_no_fewer_sheets(few, more):
    low, high = sorted((few, more))
    one, other = (plan_of(("pages.amount", count)) for count in (low, high))
    assert one.pages.thickness.likely <= other.pages.thickness.likely
    sheets = [plan.cutting.sheets["leaf"] for plan in (one, other)]
    assert sheets[0] <= sheets[1]
    assert sheets[1] == math.ceil(high / 2), "an A4 sheet gives two"
