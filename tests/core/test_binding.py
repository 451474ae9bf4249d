"""Stations, paths and thread. The path as a trail is checked against networkx."""

import networkx
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.binding import stations
from pleat.core.binding.kinds import pamphlet
from pleat.core.binding.path import faults, walk
from pleat.core.binding.record import Pamphlet, Thread
from pleat.core.binding.thread import diameter_mm, swell, tex, thread_need
from pleat.core.book import Book
from pleat.core.planning import make_plan
from pleat.core.units import RULERS
from tests.conftest import edited

IN = 25.4


def test_three_stations_an_inch_and_a_half_in_on_eight_and_a_quarter():
    """Common practice: 1.5, 4.125, 6.75 in and a path of 10.5 in before tails."""
    plan = make_plan(edited(Book(), {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/4"}))
    assert [position / IN for position in plan.binding.positions_mm] == pytest.approx([1.5, 4.125, 6.75])
    assert plan.binding.path.spans_mm / IN == pytest.approx(10.5)


def test_five_stations_on_eight_inches():
    """Common practice: the middle, 1 in and 2.5 in either side of it: 1.5, 3, 4, 5, 6.5 in."""
    plan = make_plan(edited(Book(), {"brief.ruler": "in", "brief.size": "5 x 8", "binding.station_count": "5"}))
    assert [position / IN for position in plan.binding.positions_mm] == pytest.approx([1.5, 3, 4, 5, 6.5])


@given(st.sampled_from([3, 5]), st.lists(st.floats(1, 40), min_size=6, max_size=6), st.sampled_from(["inside", "outside"]))
def test_the_pamphlet_path_is_a_closed_trail_that_covers_what_it_promises(count, gaps, start):
    positions = [sum(gaps[: n + 1]) for n in range(count)]
    holes = pamphlet.holes(count)
    path = walk(holes, start, positions)
    graph = networkx.MultiGraph()
    for span in path.spans:
        graph.add_edge(span.start, span.end, key=span.side, weight=span.length_mm)
    assert graph.number_of_edges() == len(path.spans), "no span is sewn twice on one side"
    assert set(graph.nodes) == set(range(1, count + 1))
    assert networkx.is_eulerian(graph), "a closed trail: every hole is entered as often as it is left"
    assert path.spans_mm == pytest.approx(graph.size(weight="weight"))
    assert path.spans_mm <= 2 * (positions[-1] - positions[0]) + 1e-6
    assert (path.holes[0], path.start_side) == (path.holes[-1], path.end_side)
    assert [span.side for span in path.spans] == [("outside", "inside")[(n + (start == "outside")) % 2] for n in range(len(path.spans))]
    assert faults(holes, path, count) == ()
    if count == 5:
        for side in ("inside", "outside"):
            assert {gap for span in path.spans if span.side == side for gap in span.gaps} == {1, 2, 3, 4}


@pytest.mark.parametrize(
    ("holes", "kinds"),
    [
        ([2, 1, 3, 2], []),
        ([2, 3, 1, 2], []),
        ([2, 1, 2], ["missed", "wrong side", "bare"]),
        ([1, 2, 3], ["other hole", "wrong side"]),
        ([2, 1, 1, 3, 2], ["undone", "wrong side"]),
        ([2, 1, 9, 3, 2], ["unknown"]),
        ([1, 2, 3, 1], ["untied"]),
        ([9, 8], ["unknown", "missed"]),
    ],
)
def test_paths_that_do_not_hold_are_told_what_is_wrong(holes, kinds):
    path = walk(holes, "inside", [38, 105, 172])
    assert [fault.kind for fault in faults(holes, path, 3)] == kinds


@given(st.floats(60, 500), st.sampled_from([3, 5]), st.sampled_from(["mm", "in"]))
def test_default_stations_are_symmetric_inside_their_margins_and_on_the_ruler(height, count, name):
    ruler = RULERS[name]
    places = stations.place(Pamphlet(station_count=count), height, ruler)
    assert len(places) == count
    assert [height - place for place in reversed(places)] == pytest.approx(places)
    assert places[0] >= 10 - 1e-9
    for inset in places[: count // 2]:
        assert ruler.is_on_mark(inset) or inset in (10.0, height / 2)


@given(st.integers(0, 4), st.floats(-50, 400), st.booleans())
def test_moving_a_station_keeps_their_order_and_symmetry(index, to, unlocked):
    ruler, height = RULERS["mm"], 210.0
    binding = Pamphlet(station_count=5)
    if unlocked:
        binding = binding.model_copy(update={"positions_mm": stations.place(binding, height, ruler)})
    moved = stations.place(stations.move(binding, index, to, height, ruler), height, ruler)
    assert list(moved) == sorted(moved)
    assert all(0 <= place <= height for place in moved)
    if not unlocked:
        assert [height - place for place in reversed(moved)] == pytest.approx(moved)
        assert moved[2] == 105
    with pytest.raises(IndexError):
        stations.move(binding, 5, to, height, ruler)


def test_thread_numbers():
    """1 lea = 300 yd per lb: 453.59237 g / (300 x 0.9144 m) = 1.6535 g/m. 18/3 comes to about 0.6 mm."""
    assert tex(Thread(lea=4, plies=4)) == pytest.approx(453.59237 / (300 * 0.9144) * 1000, rel=1e-4)
    assert diameter_mm(Thread(lea=18, plies=3)) == pytest.approx(0.62, abs=0.01)
    assert diameter_mm(Thread(lea=18, plies=12)) == pytest.approx(2 * diameter_mm(Thread(lea=18, plies=3)))
    assert swell(Thread(), 2).likely == pytest.approx(2 * swell(Thread(), 1).likely)


def test_thread_length_by_hand():
    """Spans 268 + 4 passages x 1 mm + two tails of 90 = 452; 7 % spare makes 483.64. Double takes twice that."""
    path = walk([2, 1, 3, 2], "inside", [38, 105, 172])
    need = thread_need(path, 1.0, 90, 1)
    assert need.total_mm == pytest.approx(452 * 1.07)
    assert need.shortest_mm == pytest.approx(268 + 4 + 150)
    assert thread_need(path, 1.0, 90, 2).total_mm == pytest.approx(2 * need.total_mm)
