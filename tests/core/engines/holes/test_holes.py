"""Where holes lie, how they are punched, and what goes round them: against standards, brute force and
polylines."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString

from pleat.core.engines.holes import band
from pleat.core.engines.holes.places import PATTERNS, PITCHES, centred, folded, inset, missed, nearest, row
from pleat.core.engines.holes.punch import in_a_lift, lifts, pitch_plan, strokes_match
from pleat.core.trade.holes import ELASTIC_CUT, HOLE_END_MM

EDGES = st.floats(60, 500)


def test_filing_holes_are_where_iso_838_has_them():
    """ISO 838:1974: holes of 6 mm, 80 mm apart, 12 mm from the edge, symmetric about the middle; on A4 from
    the head 108.5 and 188.5 mm."""
    two = PATTERNS["iso2"]
    assert (two.hole, two.inset, two.gaps) == (6.0, 12.0, (80.0,))
    assert centred(297, two.gaps) == (108.5, 188.5)
    assert centred(297, PATTERNS["iso4"].gaps) == (28.5, 108.5, 188.5, 268.5)
    assert centred(210, two.gaps) == (65.0, 145.0)


def test_patterns_and_pitches_of_the_trade():
    """Common practice: three holes 4 1/4 in apart; from memory: six holes 19-19-70-19-19 mm; 3, 2 and 4 holes
    to the inch."""
    assert PATTERNS["three"].span == pytest.approx(215.9)
    assert centred(279.4, PATTERNS["three"].gaps) == pytest.approx((31.75, 139.7, 247.65))
    assert PATTERNS["six-a5"].span == 146
    assert {name: round(25.4 / mm) for name, mm in PITCHES.items()} == {"3:1": 3, "2:1": 2, "4:1": 4}
    assert len(row(297, PITCHES["3:1"], 4.0)) == 34
    assert len(row(279.4, PITCHES["4:1"], 4.0)) == 42


@given(EDGES, st.integers(1, 9), st.floats(5, 25))
def test_holes_are_the_same_from_both_ends(edge, count, end):
    for found in (
        folded(edge, count),
        inset(edge, count, end),
        centred(edge, [end] * (count - 1)),
        row(edge, end, 4.0),
    ):
        assert sorted(edge - at for at in found) == pytest.approx(list(found))
        assert missed(found, edge) == pytest.approx(0, abs=1e-6)


@given(EDGES, st.floats(4, 30), st.floats(2, 8))
def test_a_row_is_as_long_as_it_can_be_and_breaks_no_end(edge, pitch, hole):
    found = row(edge, pitch, hole)
    if found:
        assert nearest(found, edge, hole)[0] >= HOLE_END_MM - 1e-6
        assert (len(found) + 0) * pitch + 2 * (HOLE_END_MM + hole / 2) > edge - 1e-6


def test_a_folded_strip_shows_its_folds():
    """Folded in half and half again a strip of 200 has creases at 50, 100 and 150: two rings at the quarter
    points."""
    creases = {200 * number / 4 for number in (1, 2, 3)}
    assert set(folded(200, 2)) == creases - {100.0}


@given(st.integers(1, 600), st.floats(0.04, 0.8), st.floats(0.3, 5))
def test_lifts_hold_whole_sheets(sheets, caliper, takes):
    """Against punching them: as many sheets as go in, again and again."""
    left, found = sheets, 0
    each = 0
    while (each + 1) * caliper <= takes + 1e-9:
        each += 1
    while left > 0 and each:
        left -= each
        found += 1
    assert (lifts(sheets, caliper, takes), in_a_lift(caliper, takes)) == (found, each)


def test_a_stack_divided_by_the_capacity_is_often_one_lift_too_few():
    cases = [(sheets, caliper) for sheets in range(5, 120, 5) for caliper in (0.1, 0.11, 0.13, 0.15, 0.19)]
    wrong = [
        1
        for sheets, caliper in cases
        if lifts(sheets, caliper, 1.0) != math.ceil(sheets * caliper / 1.0 - 1e-9)
    ]
    assert len(wrong) > len(cases) / 5


@given(
    st.floats(60, 420),
    st.sampled_from([25.4 / 4, 25.4 / 3, 25.4 / 2, 10.0]),
    st.floats(2, 6),
    st.integers(4, 60),
)
def test_a_pitch_punch_makes_the_row_and_no_pin_breaks_an_edge(edge, pitch, hole, pins):
    """Every pin that is left in, put where it comes down, either makes a hole of the row or misses the
    paper."""
    positions = row(edge, pitch, hole)
    plan = pitch_plan(edge, positions, pitch, hole, pins)
    if not positions:
        assert not plan.strokes
        return
    assert strokes_match(plan, positions)
    made: list[float] = []
    for number, stroke in enumerate(plan.strokes):
        first = (stroke.holes_mm[0] - (stroke.pins[0] - 1) * pitch) if not stroke.on_last else made[-1]
        last = number == len(plan.strokes) - 1
        for pin in range(1, pins + 1):
            at = first + (pin - 1) * pitch
            if any(abs(at - hole_) < 1e-6 for hole_ in positions):
                continue  # it makes a hole of the row, now or again
            touches = -hole / 2 < at < edge + hole / 2
            pulled = pin in plan.pulled and (last or len(plan.strokes) == 1)
            assert not touches or pulled or pin in stroke.pins, (number, pin, at)
        made += stroke.holes_mm
    first = plan.strokes[0]
    assert -first.stop_mm == pytest.approx(positions[0] - (first.pins[0] - 1) * pitch)


def test_the_stop_by_brute_force_over_stops_and_pins():
    """Of all stops at which some run of pins makes the row, the plan's is one; and fewer pins cannot be
    pulled."""
    edge, pitch, hole, pins = 210.0, 25.4 / 3, 4.0, 34
    positions = row(edge, pitch, hole)
    plan = pitch_plan(edge, positions, pitch, hole, pins)
    can = []
    for first in range(1, pins - len(positions) + 2):
        head = positions[0] - (first - 1) * pitch
        touching = [
            pin
            for pin in range(1, pins + 1)
            if not first <= pin < first + len(positions)
            and -hole / 2 < (pin - 1) * pitch + head < edge + hole / 2
        ]
        can.append((len(touching), first))
    assert min(can)[0] == len(plan.pulled)
    assert (len(plan.pulled), plan.strokes[0].pins[0]) in can


@given(st.floats(60, 250), st.floats(0.5, 40), st.floats(2, 20), st.floats(0.5, 5))
def test_a_band_by_polyline(spacing, stack, stick, thick):
    """Along the back, up at both holes, and round the ends of the stick, drawn as a line and measured."""
    radius = (stick + thick) / 2
    turn = np.linspace(0, math.pi, 400)
    left = [(-radius * math.sin(a), stack + radius - radius * math.cos(a)) for a in turn]
    right = [(spacing + radius * math.sin(a), stack + radius - radius * math.cos(a)) for a in reversed(turn)]
    line = LineString([*reversed(left), (0, 0), (spacing, 0), *reversed(right)])
    assert band.band_need(spacing, stack, stick, thick) == pytest.approx(line.length, rel=1e-4)
    longest = band.band_need(spacing, stack, stick, thick)
    assert band.most_stack(longest, spacing, stick, thick) == pytest.approx(stack)


@given(st.lists(st.floats(3, 12), min_size=2, max_size=6), st.floats(0.1, 1.0), st.floats(0.0, 10))
def test_a_woven_strip_by_polyline(sticks, cloth, room):
    """Over one stick and under the next: tangents and arcs, drawn finely and measured."""
    pitches = [(a + b) / 2 + cloth + room for a, b in itertools.pairwise(sticks)]
    total = 0.0
    for pitch, (one, other) in zip(pitches, itertools.pairwise(sticks), strict=True):
        r, s = (one + cloth) / 2, (other + cloth) / 2
        lean = math.asin(min(1.0, (r + s) / pitch))
        points = [(r * math.sin(a), r * math.cos(a)) for a in np.linspace(0, lean, 200)]
        points += [(pitch - s * math.sin(a), -s * math.cos(a)) for a in np.linspace(lean, 0, 200)]
        total += LineString(points).length
    assert band.woven(pitches, sticks, cloth) == pytest.approx(total, rel=1e-4)
    with pytest.raises(ValueError, match="too close"):
        band.woven([1.0], [5.0, 5.0], 0.3)


def test_elastic_is_cut_shorter_than_its_path():
    assert [round(band.stretched(share) * 100) for share in (ELASTIC_CUT[0], ELASTIC_CUT[2])] == [18, 11]


@given(st.floats(0.5, 3), st.floats(4, 12), st.floats(1, 20), st.floats(3, 25))
def test_a_coil_runs_aslant_through_its_hole(wire, pitch, stack, radius):
    """A helix, followed from one side of the stack to the other: how far it climbs there, and its own
    thickness."""
    half = math.asin(min(1.0, stack / (2 * radius)))
    angles = np.linspace(-half, half, 50)
    climb = (angles[-1] - angles[0]) / (2 * math.pi) * pitch
    assert band.coil_hole(wire, pitch, stack, radius) == pytest.approx(wire + climb)
