"""Stations, the kinds of sewing and what they suit; common-practice figures by hand."""

import json

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from pleat.core.base.plan import Length
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.engines.sewing.faults import find
from pleat.core.pleats.binding import stations
from pleat.core.pleats.binding.kinds import BINDINGS, own
from pleat.core.pleats.binding.record import Pamphlet
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.binding.stations import Layout
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan, worked_out
from tests.conftest import edited
from tests.profiles import examples
from tests.strategies import records_of

IN = 25.4
SEWN = [kind for kind in BINDINGS.members if kind.name != "machine" and "section" in kind.takes]


def sewn(kind, sections=4, *changes, cover="bare", pages=None):
    """A book of a kind of sewing, eight leaves a section."""
    given_ = [
        ("binding.kind", kind),
        ("pages.sections", sections),
        ("pages.amount", pages or 16 * sections),
        ("cover.kind", cover),
        *changes,
    ]
    return editing.apply(Book(), given_)


def checks(book, key):
    return [check for _, check in make_plan(book).checks if check.key == key]


def test_three_stations_an_inch_and_a_half_in_on_eight_and_a_quarter():
    """Common practice: 1.5, 4.125, 6.75 in and a path of 10.5 in before tails."""
    plan = make_plan(edited(Book(), {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/4"}))
    assert [position / IN for position in plan.binding.positions_mm] == pytest.approx([1.5, 4.125, 6.75])
    assert plan.binding.need.run.spans_mm / IN == pytest.approx(10.5)


def test_five_stations_on_eight_inches():
    """Common practice: the middle, 1 in and 2.5 in either side of it: 1.5, 3, 4, 5, 6.5 in."""
    plan = make_plan(
        edited(Book(), {"brief.ruler": "in", "brief.size": "5 x 8", "binding.station_count": "5"})
    )
    assert [position / IN for position in plan.binding.positions_mm] == pytest.approx([1.5, 3, 4, 5, 6.5])


@given(
    st.floats(60, 500),
    st.integers(1, 12),
    st.sampled_from(["share", "kettle"]),
    st.sampled_from(["usual", "quarters", "even"]),
    st.sampled_from(["mm", "in"]),
)
def test_default_places_are_symmetric_inside_their_margins_and_on_the_ruler(
    height, count, ends, spread, name
):
    ruler, layout = RULERS[name], Layout(count, ends)
    places = stations.place(Pamphlet(spread=spread), layout, height, ruler)
    assert len(places) == count
    assert [height - place for place in reversed(places)] == pytest.approx(places)
    assert places[0] >= 10 - 1e-9
    for inset in places[: count // 2]:
        assert ruler.is_on_mark(inset) or inset in (10.0, height / 2)


@given(st.integers(0, 6), st.floats(-50, 400), st.booleans(), st.integers(2, 7))
def test_moving_a_place_keeps_their_order_and_symmetry(index, to, unlocked, count):
    ruler, height, layout = RULERS["mm"], 210.0, Layout(count)
    binding = Pamphlet()
    if unlocked:
        binding = binding.model_copy(update={"positions_mm": stations.place(binding, layout, height, ruler)})
    if index >= count:
        with pytest.raises(IndexError):
            stations.move(binding, layout, index, to, height, ruler)
        return
    moved = stations.place(stations.move(binding, layout, index, to, height, ruler), layout, height, ruler)
    assert list(moved) == sorted(moved)
    assert all(0 <= place <= height for place in moved)
    if not unlocked:
        assert [height - place for place in reversed(moved)] == pytest.approx(moved)


def test_a_tape_is_placed_by_its_middle_and_its_holes_follow():
    book = edited(sewn("tapes"), {"binding.tapes": "3", "binding.station.1": "50"})
    result = make_plan(book).binding
    assert result.places_mm == (12, 50, 105, 160, 198)
    assert result.positions_mm == (12, 44, 56, 99, 111, 154, 166, 198)
    wider = make_plan(edited(book, {"binding.tape_mm": "20"})).binding
    assert wider.positions_mm[1:3] == (40, 60)


@pytest.mark.every(2)
@pytest.mark.parametrize("kind", SEWN, ids=lambda kind: kind.name)
@pytest.mark.parametrize("sections", [1, 2, 3, 6, 7, 11, 24, 60])
def test_every_kind_is_sewn_right_on_the_sections_it_takes_and_refuses_others_with_the_way_out(
    kind, sections
):
    book = sewn(kind.name, sections)
    result = make_plan(book).binding
    assert isinstance(result, SewnResult)
    if kind.suits.fits(sections):
        assert not find(result.sewing)
        assert not find(result.sewing.mirrored)
        assert result.steps
        assert all(part.length_mm > 0 for part in result.parts if isinstance(part, Length))
    else:
        (told,) = checks(book, "sections")
        assert told.level == "stop"
        assert kind.suits.refuses in told.title
        for offer in told.offers:
            assert not checks(editing.apply(book, offer.changes), "sections")


@pytest.mark.parametrize(
    ("kind", "sections", "level", "says"),
    [
        ("pamphlet", 2, None, ""),
        ("pamphlet", 5, "watch", "good for 1 to 2 sections, this has 5"),
        ("longstitch", 20, "watch", "good for 2 to 12 sections"),
        ("twoon", 7, "stop", "even number from six"),
        ("double", 3, "stop", "two sections"),
        ("link", 5, None, ""),
    ],
)
def test_a_wrong_stitch_is_refused_with_the_reason_and_another_proposed(kind, sections, level, says):
    found = checks(sewn(kind, sections), "sections")
    assert [check.level for check in found] == ([level] if level else [])
    if found:
        assert says in found[0].title
        assert found[0].offers[0].label.startswith("take ")


def test_too_much_paper_for_one_passage_is_told():
    thick = sewn("link", 2, pages=240)
    (told,) = checks(thick, "sections")
    assert "goes through 2.5 mm at once" in told.title


def test_weak_paper_is_not_proposed_a_stitch_that_pulls_at_it():
    weak = editing.apply(sewn("link", 5), [("paper.leaf.toughness", "weak")])
    (told,) = checks(weak, "sections")
    assert "weak paper" in told.title
    assert not {offer.label for offer in told.offers} & {"take link stitch", "take sewn on raised cords"}


def test_a_proposal_takes_a_cover_that_goes_with_it():
    plan = make_plan(sewn("pamphlet", 5, cover="wrap"))
    for offer in plan.binding.offers:
        taken = make_plan(editing.apply(sewn("pamphlet", 5, cover="wrap"), offer.changes))
        assert not [check for check in taken.cover.checks if check.key == "unfit"], offer.label


def test_only_the_sections_that_hold_more_paper_are_thicker_for_the_needle():
    book = sewn("link", 3, pages=56)  # 14 sheets: 5, 5 and 4
    folds = [row.fold_mm for row in make_plan(book).binding.sewing.bed.rows]
    assert folds[0] / folds[2] == pytest.approx(5 / 4)


def test_the_leaf_is_higher_so_there_are_more_holes():
    counts = [
        len(make_plan(edited(Book(), {"brief.leaf_height_mm": str(height)})).binding.positions_mm)
        for height in (148, 220, 260, 390)
    ]
    assert counts == [3, 3, 5, 5]
    assert [
        len(make_plan(edited(sewn("link"), {"brief.leaf_height_mm": str(height)})).binding.positions_mm)
        for height in (148, 210, 297)
    ] == [3, 4, 5]


def test_knot_and_piercing_schools_change_the_work_and_not_the_holes():
    steps = {
        one.step.key: one.step
        for one in make_plan(
            edited(Book(), {"binding.pierce": "outside", "binding.knot": "outside"})
        ).bench.work
    }
    assert "from the outside" in steps["pierce"].detail
    assert "hang from them" in steps["tails"].detail


def test_an_older_books_own_path_is_tied_where_it_began():
    assert own.closed([2, 3, 1, 2], "outside") == "2 out | 2 3 1 2 =over"
    assert own.closed([3, 2, 1, 2, 3, 4, 5, 4], "inside").endswith("=tail@3")


def test_ones_own_stitch_grows_to_the_book_or_says_why_not():
    pamphlet = editing.edit(sewn("own", 3), {"binding.moves": "2 1 3 2"})
    assert len(make_plan(pamphlet).binding.sewing.threads) == 3
    linked = editing.edit(sewn("own", 3), {"binding.moves": "1.1 out | 1 2 3 2.3 2 1 =tail"})
    (told,) = checks(linked, "D2")
    assert "tap it on 3" in told.title
    assert make_plan(linked).binding.steps == ()
    assert not checks(editing.apply(linked, told.offers[0].changes), "D2")


@settings(max_examples=examples(40))
@given(height=st.floats(60, 420), needle=st.floats(0.5, 2), pitch=st.floats(1, 12))
@example(height=60.0, needle=1.0, pitch=2.875)
@example(height=60.0, needle=1.0, pitch=3.0)
def test_a_seam_that_tears_like_a_stamp_is_mended_although_its_stitches_are_made_whole(height, needle, pitch):
    """Thirty millimetres in stitches of 3 are ten; over another length the same stitch comes out shorter."""
    book = sewn(
        "machine",
        1,
        ("brief.leaf_height_mm", height),
        ("binding.needle_mm", needle),
        ("binding.pitch_mm", pitch),
    )
    told = [check for check in make_plan(book).binding.checks if check.key == "perforated"]
    for check in told:
        (offer,) = check.offers
        assert not [
            one
            for one in make_plan(editing.apply(book, offer.changes)).binding.checks
            if one.key == "perforated"
        ]
    assert bool(told) == (needle / make_plan(book).binding.pitch_mm > 1 / 3 + 1e-9)


@pytest.mark.every(2)
@pytest.mark.parametrize("kind", BINDINGS.members, ids=lambda kind: kind.name)
@settings(max_examples=examples(15))
@given(data=st.data())
def test_whatever_is_decided_of_a_sewing_plans_and_every_way_out_is_one(kind, data):
    """Any record of the kind on leaves of any height and any sections: a plan, or a check whose offers change
    something and can be taken."""
    record = data.draw(records_of(kind.record))
    heights, sections = st.floats(60, 420), st.integers(1, 9)
    begun = sewn(
        kind.name,
        data.draw(sections),
        ("brief.leaf_height_mm", data.draw(heights)),
        cover=data.draw(st.sampled_from(["bare", "wrap", "boards"])),
    )
    book = begun.model_copy(update={"binding": record})
    plan = worked_out(book)
    json.dumps(plan_data(plan))
    for check in plan.binding.checks:
        for offer in check.offers:
            taken = editing.apply(book, offer.changes)
            assert taken != book
            mended = {one.key: one.title for one in worked_out(taken).binding.checks}
            assert mended.get(check.key) != check.title, (check.title, offer.label)
