"""Sewn sticks: what the spine and the strips need, whatever the sticks; the lashings as a sewing; the boards
that hang on the strips."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pleat.core.base.plan import Length, Part
from pleat.core.document import editing
from pleat.core.document.recipes import recipe
from pleat.core.engines.sewing.faults import find
from pleat.core.engines.sewing.notation import read, write
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.trade.sewing import LASHING_MM
from pleat.core.whole.planning import make_plan
from tests.profiles import examples


def plan_of(*changes):
    return make_plan(editing.apply(recipe("sticks").book(), changes))


def figure(result, key):
    return next(one for one in result.figures if one.key == key)


@settings(max_examples=examples(40))
@given(
    st.integers(1, 20),
    st.floats(2, 20),
    st.floats(120, 400),
    st.sampled_from(["woven", "behind"]),
    st.sampled_from([0, 3, 5]),
)
def test_the_spine_holds_every_stick_and_the_strips_lie_between_the_lashings(
    sections, stick, height, strips, stations
):
    plan = plan_of(
        ("pages.sections", sections),
        ("pages.amount", 16 * sections),
        ("binding.stick_mm", stick),
        ("brief.leaf_height_mm", height),
        ("binding.strips", strips),
        ("binding.station_count", stations),
    )
    result = plan.binding
    wide = figure(result, "stick_spine").value
    cloth = plan.paper.stock("strip").caliper.likely if strips == "woven" else 0.0
    assert wide == pytest.approx(sum(result.pitch_mm))
    assert wide >= plan.pages.thickness.likely - 1e-6, "never narrower than its sections"
    assert min(result.pitch_mm) >= stick + cloth - 1e-6, "room for each stick and the strip beside it"
    assert plan.cover.spine.likely == pytest.approx(wide + 2 * plan.paper.stock("board").caliper.likely)
    assert result.strip_long_mm >= 80 + wide - result.pitch_mm[0] / 2 - result.pitch_mm[-1] / 2 - 1e-6
    for (low, high), (at, width) in zip(
        itertools.pairwise(result.positions_mm), result.strips_mm, strict=True
    ):
        assert low + LASHING_MM / 2 - 1e-6 <= at
        assert at + width <= high - LASHING_MM / 2 + 1e-6
    assert not find(result.sewing)
    assert not find(result.sewing.mirrored)
    assert (
        read(write(result.sewing.threads, len(result.positions_mm)), len(result.positions_mm))
        == result.sewing.threads
    )
    assert len(result.sewing.threads) == len(result.sewing.bed.rows) * len(result.positions_mm)


@given(st.floats(2, 12), st.floats(0.1, 8))
def test_a_thicker_stick_never_takes_a_narrower_spine_nor_a_shorter_strip(stick, more):
    one, other = (plan_of(("binding.stick_mm", thick)).binding for thick in (stick, stick + more))
    assert figure(one, "stick_spine").value <= figure(other, "stick_spine").value
    assert one.strip_long_mm <= other.strip_long_mm
    threads = [
        next(part.length_mm for part in result.parts if isinstance(part, Length)) for result in (one, other)
    ]
    assert threads[0] <= threads[1], "the thread goes round it"


@pytest.mark.parametrize("cover", [kind.name for kind in COVERS.members if "spine" in kind.takes])
def test_whatever_covers_it_the_boards_hang_on_the_strips_and_are_not_pierced(cover):
    plan = plan_of(("cover.kind", cover))
    keys = [one.step.key for one in plan.bench.work]
    assert "weave" in keys
    assert "boards" not in keys, "no board is pierced"
    assert ("glue_strips" in keys) == COVERS.find(cover).boards
    if "glue_strips" in keys:
        assert (
            keys.index("weave") < keys.index("press_block") < keys.index("glue_strips") < keys.index("check")
        )
        assert plan.cover.holes_mm == ()
        assert "strip" in next(one.step.detail for one in plan.bench.work if one.step.key == "weave")


@pytest.mark.parametrize(("ends", "words"), [("inside", "glued inside"), ("outside", "outside of the board")])
def test_both_schools_of_ends_are_told(ends, words):
    weave = next(one.step for one in plan_of(("binding.ends", ends)).bench.work if one.step.key == "weave")
    assert words in weave.detail
    bare = next(
        one.step
        for one in plan_of(("binding.ends", ends), ("cover.kind", "bare")).bench.work
        if one.step.key == "weave"
    )
    assert "board" not in bare.detail


def test_strips_that_are_too_short_are_told_with_both_ways_out():
    plan = plan_of(("binding.strip_cut_mm", 90.0))
    (told,) = [check for check in plan.binding.checks if check.key == "D11"]
    assert "too short for these sticks" in told.title
    anew, narrower = told.offers
    assert "cut strips of" in anew.label
    lap = dict(narrower.changes)["binding.lap_mm"]
    shorter = plan_of(("binding.strip_cut_mm", 90.0), *narrower.changes)
    assert not [check for check in shorter.binding.checks if check.key == "D11"]
    assert shorter.binding.strip_long_mm <= 90
    assert 2 * lap + (plan.binding.strip_long_mm - 80) == pytest.approx(90, abs=1.5)
    (strip,) = [part for part in shorter.binding.parts if isinstance(part, Part)]
    assert strip.width_mm == shorter.binding.strip_long_mm
