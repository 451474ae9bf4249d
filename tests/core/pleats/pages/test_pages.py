"""Sections: counts, creep, limits, fold-outs."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.errors import LengthError
from pleat.core.base.estimate import Estimate
from pleat.core.document.book import Book
from pleat.core.document.editing import apply
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.pages.counting import folios_for, parse_count
from pleat.core.pleats.pages.creep import creep_range, innermost_creep, nested_creep, shorter_by
from pleat.core.pleats.pages.limits import fold_limit
from pleat.core.whole.planning import make_plan
from tests.conftest import edited


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("48 pages", (48, "pages")),
        ("48pp", (48, "pages")),
        ("24 leaves", (24, "leaves")),
        ("1 leaf", (1, "leaves")),
        ("12 folded sheets", (12, "folios")),
        ("48", (48, "unsaid")),
    ],
)
def test_counts_keep_their_unit_word(text, expected):
    assert parse_count(text) == expected


@pytest.mark.parametrize("text", ["", "pages", "4.5 pages", "-4", "4 x", "1234567"])
def test_what_is_not_a_count_is_refused(text):
    with pytest.raises(LengthError):
        parse_count(text)


@given(st.integers(1, 2000), st.sampled_from(["pages", "leaves", "folios", "unsaid"]))
def test_a_folded_sheet_is_two_leaves_and_four_pages(amount, unit):
    folios = folios_for(amount, unit)
    held = {"pages": 4, "unsaid": 4, "leaves": 2, "folios": 1}[unit] * folios
    assert held >= amount > held - {"pages": 4, "unsaid": 4, "leaves": 2, "folios": 1}[unit]
    plan = make_plan(edited(Book(), {"pages.count": f"{amount} {unit}" if unit != "unsaid" else str(amount)}))
    assert plan.pages.pages == 2 * plan.pages.leaves == 4 * plan.pages.folios
    assert sum(part.count for part in plan.pages.parts) == folios


@given(st.floats(0.03, 0.6), st.integers(1, 40))
def test_creep_lies_within_what_nested_arcs_and_flat_folds_give(caliper, folios):
    """An independent model: sheets of equal length laid over each other, round the fold as half circles, by
    summing small chords."""
    length, steps = 300.0, 400

    def reach(radius):
        points = [
            (radius * math.cos(a), radius * math.sin(a))
            for a in (math.pi * k / steps for k in range(steps + 1))
        ]
        arc = sum(math.dist(p, q) for p, q in itertools.pairwise(points))
        return (length - arc) / 2

    outer, inner = reach((folios - 0.5) * caliper), reach(0.5 * caliper)
    flat, round_ = creep_range(caliper, folios - 1)
    assert inner - outer == pytest.approx(round_, rel=1e-4, abs=1e-6)
    likely = innermost_creep(Estimate.exact(caliper), folios)
    assert flat - 1e-9 <= likely.low <= likely.likely <= likely.high <= round_ + 1e-9


@given(st.lists(st.floats(0.03, 0.6), min_size=1, max_size=20))
def test_sheets_cut_narrower_end_level(calipers):
    """Each leaf gives up what it creeps over the outermost: less than nothing for none, all of the creep for
    the innermost."""
    off = shorter_by(calipers)
    assert len(off) == len(calipers)
    assert off[0] == 0
    assert list(off) == sorted(off)
    assert off[-1] == pytest.approx(nested_creep([Estimate.exact(one) for one in calipers]).likely)


def test_narrower_sheets_are_said_at_the_bench_by_hand_arithmetic():
    """5 sheets of 0.104 mm: each stands (1 + pi/2) / 2 x 0.104 = 0.134 further out, so 0.27 comes off a sheet
    more than off the one outside."""
    plan = make_plan(edited(Book(), {"pages.count": "20 pages", "pages.creep": "narrow"}))
    steps = {one.step.key: one.step for one in plan.bench.work}
    assert "0, 0.5, 0.5, 1, 1 mm" in steps["narrow"].detail
    waits = waits_for(tuple(steps.values()))
    assert (waits["narrow"], waits["fold"]) == (("cut_leaves",), ("cut_leaves", "narrow"))
    two = make_plan(
        edited(Book(), {"pages.count": "44 pages", "pages.sections": "2", "pages.creep": "narrow"})
    )
    detail = next(one.step.detail for one in two.bench.work if one.step.key == "narrow")
    assert "section 1: " in detail
    assert "section 2: " in detail
    twice = edited(Book(), {"pages.creep": "narrow", "pages.folds": "2"})
    (check,) = [check for check in make_plan(twice).pages.checks if check.key == "narrow"]
    assert "narrow" not in {one.step.key for one in make_plan(twice).bench.work}
    for fix in check.offers:
        assert "narrow" not in {one.key for one in make_plan(apply(twice, fix.changes)).pages.checks}, (
            fix.label
        )


@pytest.mark.parametrize(
    ("caliper", "low", "high"), [(0.104, 6, 12), (0.156, 4, 8), (0.27, 3, 5), (0.31, 2, 4), (0.51, 2, 3)]
)
def test_fold_limits_agree_with_the_guides(caliper, low, high):
    """Common practice, no source: copier 6 to 12 folios, drawing 4 to 8, cardstock and watercolour 2 or 3."""
    assert low <= fold_limit(caliper).folios <= high


@given(st.floats(0.02, 3))
def test_a_limit_is_never_below_one_and_falls_with_thickness(caliper):
    assert 1 <= fold_limit(caliper * 1.2).folios <= fold_limit(caliper).folios


def test_thickness_of_the_section_by_hand():
    """40 pages of copier paper: 20 leaves x 0.104 mm = 2.08, lying flat 1.00 to 1.05."""
    section = make_plan(Book()).pages
    assert section.thickness.likely == pytest.approx(20 * 0.104 * 1.02)
    assert 20 * 0.100 <= section.thickness.low < section.thickness.high <= 20 * 0.108 * 1.05
    measured = make_plan(edited(Book(), {"pages.measured_block_mm": "2.6 mm"})).pages
    assert measured.thickness.likely == 2.6
    assert measured.thickness.width < 0.5


def test_a_fold_out_is_cut_with_its_folio_and_kept_off_the_gutter():
    book = edited(Book(), {"paper.leaf.size": "450 x 210", "pages.flap_mm": "120"})
    plan = make_plan(book)
    flap, plain = sorted(plan.pages.parts, key=lambda part: part.count)
    assert (flap.width_mm, flap.count, len(flap.folds)) == (2 * 148.5 + 120, 1, 2)
    assert (plain.width_mm, plain.count) == (297, 9)
    every = make_plan(edited(book, {"pages.flap_on": "every"})).pages
    assert [part.count for part in every.parts] == [10]
    assert "C6" in {check.key for check in make_plan(edited(book, {"pages.flap_mm": "130"})).pages.checks}
    assert "flap" in {one.step.key for one in plan.bench.work}
