"""Ranges: equal sources add linearly, different ones in quadrature (JCGM 100:2008, 5.1 and 5.2)."""

import math

import numpy
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.estimate import Estimate, total

sizes = st.floats(0, 50)


def test_one_papers_error_is_the_same_in_every_leaf():
    leaf = Estimate.ranged(0.09, 0.10, 0.12, "caliper")
    twenty = total([leaf] * 20)
    assert (twenty.low, twenty.likely, twenty.high) == pytest.approx((1.8, 2.0, 2.4))
    assert twenty == leaf.times(20) or twenty.width == pytest.approx(leaf.times(20).width)


def test_independent_errors_add_in_quadrature_as_a_simulation_shows():
    a, b = Estimate.ranged(7, 10, 13, "a"), Estimate.ranged(16, 20, 24, "b")
    assert total([a, b]).high == pytest.approx(35)
    draws = numpy.random.default_rng(3).normal(size=(2, 400_000))
    spread = numpy.std(10 + 3 * draws[0] + 20 + 4 * draws[1])
    assert spread == pytest.approx(total([a, b]).high - 30, rel=0.01)


@given(sizes, sizes, sizes, st.floats(0, 10))
def test_laws(down, likely, up, factor):
    one = Estimate.ranged(likely - down, likely, likely + up, "x")
    assert one.low <= one.likely <= one.high
    assert one.times(factor).width == pytest.approx(one.width * factor, abs=1e-6)
    assert one.plus(Estimate.exact(3)).likely == pytest.approx(likely + 3)
    assert one.width_without("x") == 0
    other = Estimate.ranged(0, 1, 2, "y")
    assert one.plus(other).width <= one.width + other.width + 1e-9
    assert one.plus(other).likely == other.plus(one).likely


def test_products_and_the_main_doubt():
    paper, lay = Estimate.ranged(0.9, 1.0, 1.1, "paper"), Estimate.ranged(0.8, 1.0, 1.2, "lay")
    both = paper.multiplied(lay)
    assert both.likely == 1
    assert both.high == pytest.approx(1 + math.hypot(0.1, 0.2))
    assert both.main_doubt() == "lay"
    assert both.width_without("lay") == pytest.approx(0.2)
    assert Estimate.exact(4).main_doubt() is None
    assert total([]).likely == 0


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: Estimate.ranged(2, 1, 3, "x"),
        lambda: Estimate(math.nan),
        lambda: Estimate(1, {"x": (-1, 0)}),
        lambda: Estimate(1).times(-1),
    ],
)
def test_nonsense_is_refused(wrong):
    with pytest.raises(ValueError, match=r".+"):
        wrong()
