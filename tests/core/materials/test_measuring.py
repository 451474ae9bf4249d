"""Readings judged. The mean and its error are checked against numpy and against Student's t integrated
numerically."""

import math
import statistics

import numpy
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.estimate import Estimate
from pleat.core.materials.items import Paper
from pleat.core.materials.measuring import _STUDENT_95, REPEATS_KNOWN, judge, mean_error, zero_problem
from pleat.core.materials.thickness import thickness, weighed
from pleat.core.trade.paper import CALIPER_ERROR_MM, CALIPER_REPEATS_MM

COPIER = Paper(name="Log paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)
EXPECTED = weighed(COPIER)


@pytest.mark.parametrize("freedom", range(1, 20))
def test_the_table_is_students_t_at_95_percent(freedom):
    """JCGM 100:2008, table G.2; here the density is integrated up to the tabled value."""
    t = _STUDENT_95[freedom - 1]
    x = numpy.linspace(0, t, 20001)
    scale = math.gamma((freedom + 1) / 2) / (math.sqrt(freedom * math.pi) * math.gamma(freedom / 2))
    density = scale * (1 + x**2 / freedom) ** (-(freedom + 1) / 2)
    assert 2 * numpy.trapezoid(density, x) == pytest.approx(0.95, abs=0.001)


@given(st.lists(st.floats(1.0, 1.03), min_size=2, max_size=12))
def test_mean_and_error_agree_with_numpy(readings):
    judged = judge(readings, 10)
    assert judged.thrown == ()
    assert judged.mean_mm == pytest.approx(numpy.mean(readings))
    freedom = REPEATS_KNOWN + len(readings) - 1
    pooled = numpy.sqrt(
        (REPEATS_KNOWN * CALIPER_REPEATS_MM**2 + (len(readings) - 1) * numpy.var(readings, ddof=1)) / freedom
    )
    t = _STUDENT_95[min(freedom, 19) - 1]
    assert judged.error_mm == pytest.approx(
        math.hypot(t * pooled / numpy.sqrt(len(readings)), CALIPER_ERROR_MM)
    )
    assert judged.sheet.likely == pytest.approx(statistics.fmean(readings) / 10)
    same = [mean_error(readings[:1] * times) for times in range(1, 7)]
    assert same == sorted(same, reverse=True), "a further reading that agrees makes it surer"


@pytest.mark.parametrize(
    ("readings", "sheets", "thrown", "words"),
    [
        ((1.04, 1.05, 1.03), 10, [], ""),
        ((1.04, 1.05, 1.03, 1.15), 10, [1.15], "one sheet too many"),
        ((1.04, 1.05, 1.03, 0.94), 10, [0.94], "one sheet too few"),
        ((1.04, 1.05, 0.041), 10, [0.041], "inches"),
        ((1.04, 1.05, 1.04, 1.33), 10, [1.33], "a corner, a burr"),
        ((1.04, 1.05, 1.04, 1.05, 26.5), 10, [26.5], "inches"),
    ],
)
def test_readings_that_do_not_agree_are_thrown_out_with_their_reason(readings, sheets, thrown, words):
    judged = judge(readings, sheets)
    assert [one.mm for one in judged.thrown] == thrown
    assert all(words in one.reason for one in judged.thrown)
    assert judged.sheet.likely == pytest.approx(0.104, abs=0.001)


@pytest.mark.parametrize(
    ("readings", "expected", "words"),
    [
        ((), None, "No reading"),
        ((1.04, 1.3), None, "Take a third"),
        ((1.0, 2.0, 3.0, 4.0), None, "do not agree"),
        ((0.041, 0.041, 0.041), EXPECTED, "in inches"),
        ((1.145, 1.15, 1.14), EXPECTED, "11 sheets of this weight, one too many"),
        ((0.93, 0.935), EXPECTED, "9 sheets of this weight, one too few"),
    ],
)
def test_what_stands_in_the_way_is_said_and_no_thickness_is_given(readings, expected, words):
    judged = judge(readings, 10, expected)
    assert words in judged.problem
    assert judged.sheet is None


@given(st.lists(st.floats(0.02, 200), max_size=8), st.integers(1, 500))
def test_any_readings_are_judged_and_every_one_is_accounted_for(readings, sheets):
    judged = judge(readings, sheets, EXPECTED)
    if readings and not judged.problem:
        assert sorted([*judged.kept, *(one.mm for one in judged.thrown)]) == sorted(readings)
        assert judged.sheet.low >= 0
    assert judged.sheet is not None or judged.problem
    with pytest.raises(ValueError, match="at least one"):
        judge(readings, 0)


def test_zero_comes_first():
    assert zero_problem(0.01) == zero_problem(-0.02) == ""
    assert "press its zero key" in zero_problem(0.13)
    assert "between the jaws" in zero_problem(1.4)


def test_a_measured_stack_narrows_what_the_weight_leaves_open():
    by_weight = thickness(COPIER)
    measured = thickness(COPIER.model_copy(update={"readings_mm": (1.04, 1.05, 1.03)}))
    assert (by_weight.source, measured.source) == ("weight", "measured")
    assert measured.sheet.width < by_weight.sheet.width
    assert "±0.004" in by_weight.narrow
    refused = thickness(COPIER.model_copy(update={"readings_mm": (1.15, 1.14)}))
    assert refused.source == "weight", "readings that cannot be are not used"
    assert refused.sheet == by_weight.sheet
    assert "count the stack" in refused.how


@pytest.mark.parametrize(
    ("name", "low", "high"),
    [
        ("Printer paper", 0.087, 0.135),
        ("old book pages", 0.03, 0.18),
        ("kraft bags", 0.08, 0.2),
        ("no idea", 0.04, 0.6),
    ],
)
def test_a_paper_known_only_by_its_name(name, low, high):
    found = thickness(Paper(name=name, sheet_width_mm=210, sheet_height_mm=297))
    assert found.source == ("nothing" if name == "no idea" else "name")
    assert low <= found.sheet.low <= found.sheet.high <= high
    assert isinstance(found.sheet, Estimate)
