"""The map of the bulk, held against areas by shapely, against every way there is, and against what must never
change."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon, box
from shapely.ops import unary_union

from pleat.core.base.estimate import Estimate
from pleat.core.document import editing
from pleat.core.engines.bulk import Bulk, Patch
from pleat.core.pleats.extras import placing
from pleat.core.whole.planning import make_plan
from tests.put import at, of, put

CARD = {"kind": "pocket", "goes": "none", "width_mm": 90.0, "height_mm": 70.0}
CUT = {
    "tabs on three sides": CARD,
    "tabs on two sides": {**CARD, "open_at": "two"},
    "glued": {**CARD, "way": "glued"},
    "open at the right": {**CARD, "mouth": "right"},
    "open at the tail": {**CARD, "mouth": "tail"},
    "open at the left, on two sides": {**CARD, "mouth": "left", "open_at": "two"},
    "nested": {**CARD, "nested": 3},
    "slanted": {**CARD, "slant_mm": 25.0},
    "slanted, its offcut the second": {**CARD, "slant_mm": 25.0, "offcut": "second"},
    "turned over": {**CARD, "turn_mm": 12.0},
    "a leaf of its own": {"kind": "pocket", "goes": "none", "way": "page", "stock": "leaf", "turn_mm": 15.0},
    "corner": {"kind": "corner", "side_mm": 70.0},
    "corner, left": {"kind": "corner", "side_mm": 64.0, "at": "left"},
    "waterfall": {
        "kind": "waterfall",
        "goes": "none",
        "width_mm": 88.0,
        "pockets": 4,
        "depth_mm": 30.0,
        "step_mm": 12.0,
    },
    "flap at the head": {"kind": "flap", "goes": "none", "width_mm": 80.0, "height_mm": 60.0},
    "flap at the right": {
        "kind": "flap",
        "goes": "none",
        "width_mm": 80.0,
        "height_mm": 60.0,
        "hinge": "right",
    },
    "band": {"kind": "band", "goes": "none"},
    "band with pockets": {"kind": "band", "goes": "none", "height_mm": 90.0, "pockets": 3},
    "mat": {"kind": "mat", "goes": "none"},
    "tag": {"kind": "picture", "goes": "a7", "stock": "card"},
    "accordion": {"kind": "picture", "goes": "a7", "stock": "mat", "panels": 5},
    "spacer": {"kind": "spacer", "layers": 3},
}


def within(book):
    """What is put in, of a book that has one design on one face."""
    result = make_plan(book).extras
    return result, result.items[0].spots[0]


@pytest.mark.parametrize("design", CUT.values(), ids=CUT)
def test_the_volume_of_the_map_is_that_of_the_pieces(design):
    """Outlines by shapely, times the caliper of what they are cut from: nothing is counted twice, and nothing
    is left out."""
    book = put(of("journal"), {**design, "places": at("page 5")})
    result, spot = within(book)
    plan = make_plan(book)
    cut = sum(
        unary_union([Polygon(edge) for edge in piece.outlines]).area
        * plan.paper.stock(piece.stock).caliper.likely
        for piece in spot.thing.pieces
    )
    assert spot.thing.pieces
    assert result.bulk.volume_mm3 == pytest.approx(cut, rel=1e-6)
    assert result.bulk.volume_mm3 == pytest.approx(sum(patch.volume_mm3 for patch in result.bulk.patches))


def test_a_frame_is_a_mat_less_its_opening_and_what_lies_behind_it():
    book = put(
        of("journal"),
        {"kind": "mat", "way": "frame", "goes": "9x13", "goes_thick_mm": 0.25, "places": at("page 5")},
    )
    result, spot = within(book)
    mat = make_plan(book).paper.stock("mat").caliper.likely
    width, height = 148.5 - 12, 210 - 12
    assert (spot.thing.width_mm, spot.thing.height_mm) == pytest.approx((width, height), abs=0.6)
    photo = (89.0, 127.0)
    opening = (photo[0] - 6) * (photo[1] - 6)
    area = spot.thing.width_mm * spot.thing.height_mm - opening
    assert result.bulk.volume_mm3 == pytest.approx(area * mat + photo[0] * photo[1] * 0.25, rel=0.01)


def test_both_halves_of_a_fastener_lie_on_each_other_when_it_is_shut():
    book = put(
        of("journal"), {"kind": "fastener", "across_mm": 12, "thick_mm": 1.5, "places": at("page 5", 20, 30)}
    )
    assert make_plan(book).extras.worst.thick.likely == pytest.approx(3.0)


def test_a_tab_adds_only_what_lies_on_the_page():
    book = put(
        of("journal"),
        {"kind": "tab", "wide_mm": 30.0, "glued_mm": 14.0, "out_mm": 9.0, "places": at("page 5")},
    )
    result, spot = within(book)
    card = make_plan(book).paper.stock("card").caliper.likely
    assert result.bulk.volume_mm3 == pytest.approx(30 * 14 * card)
    assert spot.thing.pieces[0].size_mm == pytest.approx((14 + 9 + 9, 30)), "folded over on itself"
    assert (spot.x_mm + 14, spot.thing.out) == (pytest.approx(spot.face.width_mm), ("right", 9.0))


ROOM = st.floats(0, 40)


@given(
    st.tuples(ROOM, ROOM),
    st.tuples(ROOM, ROOM),
    st.sampled_from(["page 5", "page 6", "inside front cover", "inside back cover"]),
)
def test_moving_an_extra_never_changes_the_volume(first, second, face):
    """On a face or to another one, within its edges."""
    designs = [
        {**CARD, "places": at("page 5", *first)},
        {"kind": "corner", "side_mm": 50.0, "places": at("page 9", 10.0, 10.0)},
    ]
    before = make_plan(put(of("journal"), *designs)).extras.bulk
    designs[0]["places"] = at(face, *second)
    after = make_plan(put(of("journal"), *designs)).extras.bulk
    assert after.volume_mm3 == pytest.approx(before.volume_mm3)


@given(st.floats(0.1, 5.0), st.floats(0.0, 5.0), st.tuples(ROOM, ROOM))
def test_a_thicker_insert_never_thins_the_map(thick, more, corner):
    def at_thickness(mm):
        design = {
            "kind": "picture",
            "goes": "a7",
            "goes_thick_mm": round(mm, 3),
            "places": at("page 5", *corner),
        }
        return make_plan(put(of("journal"), design, {**CARD, "places": at("page 7", 20.0, 30.0)})).extras

    thin, fat = at_thickness(thick), at_thickness(thick + more)
    assert thin.bulk.xs == fat.bulk.xs
    assert (fat.bulk.likely >= thin.bulk.likely - 1e-9).all()
    assert fat.worst.thick.likely >= thin.worst.thick.likely - 1e-9


PATCHES = st.lists(
    st.tuples(
        st.integers(0, 3),
        st.integers(0, 9),
        st.integers(0, 9),
        st.integers(1, 9),
        st.integers(1, 9),
        st.integers(1, 5),
    ),
    max_size=7,
)


@given(PATCHES)
def test_the_thickest_place_is_where_most_rectangles_lie_over_each_other(rows):
    """Against shapely: no point of a fine net has more over it, and the volume is the sum of areas."""
    patches = tuple(
        Patch(leaf, x, y, x + w, y + h, Estimate.exact(float(t)), str(n))
        for n, (leaf, x, y, w, h, t) in enumerate(rows)
    )
    bulk = Bulk(patches)
    assert bulk.volume_mm3 == pytest.approx(
        sum(box(p.left_mm, p.top_mm, p.right_mm, p.bottom_mm).area * p.thick.likely for p in patches)
    )
    net = [(x + 0.5, y + 0.5) for x, y in product(range(19), repeat=2)]
    high = max((sum(p.thick.likely for p in patches if p.covers(*point)) for point in net), default=0.0)
    worst = bulk.worst()
    assert worst.thick.likely == pytest.approx(high)
    there = [p for p in patches if p.covers(worst.x_mm, worst.y_mm)]
    assert sum(p.thick.likely for p in there) == pytest.approx(high)
    near = bulk.worst(6.0)
    assert near.thick.likely <= worst.thick.likely + 1e-9
    assert sum(one.volume_mm3 for one in map(bulk.at, range(4))) == pytest.approx(bulk.volume_mm3)


CELLS = st.lists(st.floats(0, 3), min_size=4, max_size=4)


@given(st.lists(st.lists(CELLS, min_size=4, max_size=4), min_size=1, max_size=6))
def test_up_to_six_things_on_four_places_are_spread_as_every_way_tried_would(choices):
    """Brute force over every combination finds no lower height."""
    arrays = [[np.array(way).reshape(2, 2) for way in choice] for choice in choices]
    found = placing.best_of(np.zeros((2, 2)), arrays)
    height = sum(arrays[n][way] for n, way in enumerate(found)).max()
    lowest = min(
        sum(arrays[n][way] for n, way in enumerate(ways)).max()
        for ways in product(range(4), repeat=len(arrays))
    )
    assert height == pytest.approx(lowest, abs=1e-6)


@given(st.lists(st.lists(CELLS, min_size=5, max_size=5), min_size=7, max_size=16))
def test_many_things_are_never_spread_worse_than_they_were(choices):
    arrays = [[np.array(way).reshape(2, 2) for way in choice] for choice in choices]
    found = placing.best_of(np.zeros((2, 2)), arrays)
    given_ = sum(choice[0] for choice in arrays).max()
    assert all(0 <= way < 5 for way in found)
    assert sum(arrays[n][way] for n, way in enumerate(found)).max() <= given_ + 1e-9


@pytest.mark.parametrize("count", [3, 4, 6])
def test_things_all_in_one_spot_are_staggered_to_corners_and_the_book_is_even(count):
    """Cards of 60 x 80 on A5: four corners are free, so that six come to two on each other at most."""
    thing = {"kind": "booklet", "width_mm": 60.0, "height_mm": 80.0, "thick_mm": 3.0, "doubt_mm": 0.0}
    places = [{"on": f"page {2 * n + 1}", "x_mm": 6.0, "y_mm": 6.0} for n in range(count)]
    book = put(of("journal"), {**thing, "places": places})
    result = make_plan(book).extras
    assert result.worst.thick.likely == pytest.approx(3.0 * count)
    changes, after = placing.staggered(result)
    spread = make_plan(editing.apply(book, changes)).extras
    assert spread.worst.thick.likely == pytest.approx(after.worst().thick.likely)
    assert spread.worst.thick.likely == pytest.approx(3.0 * -(-count // 4))
    assert spread.bulk.volume_mm3 == pytest.approx(result.bulk.volume_mm3)
    again, _ = placing.staggered(spread)
    assert again == (), "what is even already is left alone"


def test_staggering_lays_nothing_over_a_mouth_or_over_its_neighbour():
    book = put(
        of("journal"),
        {"kind": "pocket", "goes": "card", "places": at("page 5", 6.0, 40.0)},
        {
            "kind": "booklet",
            "width_mm": 50.0,
            "height_mm": 60.0,
            "thick_mm": 4.0,
            "places": at("page 5", 85.0, 140.0),
        },
        {
            "kind": "booklet",
            "width_mm": 50.0,
            "height_mm": 60.0,
            "thick_mm": 4.0,
            "places": at("page 7", 85.0, 140.0),
        },
        {
            "kind": "booklet",
            "width_mm": 50.0,
            "height_mm": 60.0,
            "thick_mm": 4.0,
            "places": at("page 9", 85.0, 140.0),
        },
    )
    result = make_plan(book).extras
    assert not {check.key for check in result.checks} & {"F2", "overlap"}
    changes, _ = placing.staggered(result)
    assert changes
    after = make_plan(editing.apply(book, changes)).extras
    assert not {check.key for check in after.checks} & {"F2", "overlap", "F9"}
    assert after.worst.thick.likely < result.worst.thick.likely


def test_it_stops_when_its_time_is_up_and_keeps_what_it_has():
    places = [{"on": f"page {2 * n + 1}", "x_mm": 6.0, "y_mm": 6.0} for n in range(14)]
    book = put(
        of("journal"),
        {"kind": "booklet", "width_mm": 60.0, "height_mm": 80.0, "thick_mm": 3.0, "places": places},
    )
    asked = []

    def no_more_time():
        asked.append(1)
        return False

    _, after = placing.staggered(make_plan(book).extras, no_more_time)
    assert len(asked) == 1
    assert after.worst().thick.likely <= 14 * 3.0
