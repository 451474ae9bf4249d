"""A folio that is drawn: whatever is done to its sheet, it hangs together, keeps what it has, plans, and
every tap that is offered can be taken and undone."""

from __future__ import annotations

import json
from itertools import accumulate

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape
from shapely.ops import unary_union

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.engines.folding.programme import work
from pleat.core.pleats.pages.kinds.free import drawn
from pleat.core.pleats.structures import redrawn
from pleat.core.pleats.structures.drawn import (
    DrawnFold,
    DrawnGroup,
    DrawnPanel,
    DrawnSheet,
    DrawnStep,
    piece_of,
    programme_of,
)
from pleat.core.whole.planning import make_plan
from tests.core.pleats.structures.samples import FOLDED, book_of
from tests.profiles import examples

NAMES = [f"cell {number}" for number in range(1, 26)]


def first_of(book):
    """The first sheet as it is drawn: of the leaf's size to begin with."""
    return drawn(book.pages, book.brief.leaf_width_mm, book.brief.leaf_height_mm).sheets[0]


@st.composite
def drawn_sheets(draw):
    """A sheet of some columns and rows with cells cut away at random, as long as it hangs together."""
    widths = draw(st.lists(st.integers(5, 120), min_size=1, max_size=4))
    heights = draw(st.lists(st.integers(5, 120), min_size=1, max_size=3))
    cells = [(x, y) for x in range(len(widths)) for y in range(len(heights))]
    panels = tuple(DrawnPanel(name=NAMES[number], column=x, row=y) for number, (x, y) in enumerate(cells))
    sheet = DrawnSheet(
        name="sheet",
        widths_mm=tuple(map(float, widths)),
        heights_mm=tuple(map(float, heights)),
        panels=panels,
        base=NAMES[0],
    )
    for name in draw(st.lists(st.sampled_from(NAMES), max_size=4)):
        if any(panel.name == name for panel in sheet.panels) and redrawn.can_be_cut(sheet, name):
            sheet = redrawn.cut_away(sheet, name)
    return sheet


@given(drawn_sheets())
def test_a_drawn_sheet_is_what_its_cells_are(sheet):
    """By shapely: the outline is the union of its cells, and every crease is a side that two of them
    share."""
    piece = piece_of(sheet)
    lefts, tops = [0.0, *accumulate(sheet.widths_mm)], [0.0, *accumulate(sheet.heights_mm)]
    cells = {
        panel.name: Shape.from_bounds(
            lefts[panel.column], tops[panel.row], lefts[panel.column + 1], tops[panel.row + 1]
        )
        for panel in sheet.panels
    }
    assert {panel.name for panel in piece.panels} == set(cells)
    for panel in piece.panels:
        assert Shape(panel.outline).equals(cells[panel.name])
    shared = {
        frozenset((one, other)): cells[one].intersection(cells[other]).length
        for one in cells
        for other in cells
        if one < other
    }
    assert {crease.between for crease in piece.creases} == {
        pair for pair, long in shared.items() if long > 1e-6
    }
    assert unary_union(list(cells.values())).area == pytest.approx(piece.area_mm2)
    assert redrawn.hangs_together(sheet)


@given(drawn_sheets(), st.sampled_from(["x", "y"]), st.integers(0, 3))
def test_a_new_score_keeps_the_sheet_and_the_old_names_on_its_left(sheet, axis, number):
    number = number % len(redrawn.sizes(sheet, axis))
    after = redrawn.split(sheet, axis, number)
    before, now = piece_of(sheet), piece_of(after)
    assert now.area_mm2 == pytest.approx(before.area_mm2)
    assert now.size_mm == pytest.approx(before.size_mm)
    old = {panel.name: Shape(panel.outline) for panel in before.panels}
    new = {panel.name: Shape(panel.outline) for panel in now.panels}
    assert set(old) <= set(new)
    split = [name for name in old if not old[name].equals(new[name])]
    assert (
        len(new) - len(old)
        == len(
            [panel for panel in sheet.panels if getattr(panel, "column" if axis == "x" else "row") == number]
        )
        == len(split)
    )
    for name in split:
        assert new[name].bounds[:2] == old[name].bounds[:2], "the old name stays towards left and head"
        assert new[name].area == pytest.approx(old[name].area / 2)


@given(drawn_sheets(), st.sampled_from(["x", "y"]), st.integers(1, 3), st.floats(-50, 600))
def test_a_score_is_dragged_between_its_neighbours_and_no_further(sheet, axis, number, to):
    sizes = redrawn.sizes(sheet, axis)
    if len(sizes) < 2:
        return
    number = 1 + (number - 1) % (len(sizes) - 1)
    after = redrawn.sizes(redrawn.scored_at(sheet, axis, number, to), axis)
    assert sum(after) == pytest.approx(sum(sizes))
    assert min(after[number - 1], after[number]) >= min(redrawn.LEAST_MM, *sizes) - 1e-9
    assert [one for place, one in enumerate(after) if place not in (number - 1, number)] == [
        one for place, one in enumerate(sizes) if place not in (number - 1, number)
    ]
    edges = [0.0, *accumulate(sizes)]
    if edges[number - 1] + redrawn.LEAST_MM <= to <= edges[number + 1] - redrawn.LEAST_MM:
        assert sum(after[:number]) == pytest.approx(to)


@given(drawn_sheets(), st.sampled_from(["left", "right", "head", "tail"]))
def test_a_flap_is_one_panel_more_beside_the_base(sheet, side):
    after, name = redrawn.flapped(sheet, side)
    before, now = piece_of(sheet), piece_of(after)
    assert {panel.name for panel in now.panels} == {panel.name for panel in before.panels} | {name}
    axis = 0 if side in ("left", "right") else 1
    assert now.size_mm[axis] == pytest.approx(
        before.size_mm[axis] + redrawn.FLAP_MM
    ) or not redrawn.hangs_together(after)


@settings(max_examples=examples(60))
@given(drawn_sheets(), st.lists(st.tuples(st.integers(0, 30), st.sampled_from([180.0, -180.0])), max_size=5))
def test_whatever_is_drawn_and_folded_plans_or_says_why_it_does_not_shut(sheet, folds):
    piece = piece_of(sheet)
    groups = tuple(
        DrawnGroup(
            name=f"fold {number}",
            folds=(DrawnFold(sheet="sheet", one=crease.one, other=crease.other, degrees=degrees),),
        )
        for number, (place, degrees) in enumerate(folds)
        if piece.creases
        for crease in [piece.creases[place % len(piece.creases)]]
    )
    book = editing.apply(
        book_of("free"),
        [
            ("pages.sheets", [sheet.model_dump(mode="json")]),
            ("pages.groups", [one.model_dump(mode="json") for one in groups]),
        ],
    )
    assert read_book(write_book(book)) == book
    plan = make_plan(book)
    programme = programme_of(book.pages.sheets, book.pages.steps, book.pages.groups)
    worked = work(programme)
    told = [check for _, check in plan.checks if check.key in ("F7", "A6") and check.level == "stop"]
    assert bool(worked.assembly.faults) == bool([check for check in told if "does not shut" in check.title])
    assert plan.pages.leaf_width_mm > 0
    for key in worked.shut.poses:
        if worked.shut.poses[key].level:
            assert Shape(worked.shut.shadow(key, worked.assembly.pieces)).area == pytest.approx(
                Shape(worked.assembly.pieces[key[0]][key[1]].outline).area
            )


@settings(max_examples=examples(25))
@given(st.lists(st.integers(0, 60), min_size=1, max_size=6))
def test_every_tap_that_is_offered_can_be_taken_one_after_the_other(picks):
    book = book_of("free")
    for pick in picks:
        plan = make_plan(book)
        offers = [one for one in plan.pages.offers if one.group in ("draw", "order")]
        labels = [one.label for one in offers]
        assert len(set(labels)) == len(labels), "two taps that read alike"
        offer = offers[pick % len(offers)]
        after = editing.apply(book, offer.changes)
        assert after != book
        book = after
    plan = make_plan(book)
    assert redrawn.hangs_together(first_of(book))
    assert plan.pages.flats
    json.dumps(book.model_dump(mode="json"))


def test_folds_follow_a_score_that_is_made_between_their_panels():
    """Front, gusset and back; the gusset scored in half: its outer half is folded with the back still, the
    new one with the front."""
    book = book_of("free")
    wide = editing.edit(book, {"pages.size.0.x.1": "30"})
    (offer,) = [one for one in make_plan(wide).pages.offers if one.label.startswith("score column 2 in half")]
    after = editing.apply(wide, offer.changes)
    assert after.pages.sheets[0].widths_mm == (105.0, 15.0, 15.0, 105.0)
    pairs = {frozenset((fold.one, fold.other)) for group in after.pages.groups for fold in group.folds}
    creases = {crease.between for crease in piece_of(after.pages.sheets[0]).creases}
    assert pairs <= creases
    assert len(pairs) == 2


def test_a_gusset_that_is_drawn_too_small_is_mended_in_the_drawing():
    book = editing.edit(book_of("free"), {"pages.photo": "a7", "pages.bulk": "bulky"})
    (check,) = [one for _, one in make_plan(book).checks if one.key == "F5"]
    mended = editing.apply(book, check.offers[0].changes)
    assert mended.pages.sheets[0].widths_mm[1] > 6
    assert not [one for _, one in make_plan(mended).checks if one.key == "F5"]


@pytest.mark.parametrize("name", [name for name in FOLDED if name != "free"])
def test_made_free_it_is_as_thick_has_as_many_places_and_shuts_in_the_same_order(name):
    book = book_of(name)
    if name == "concertina":  # made free, nothing is glued on its ends
        book = editing.apply(book, [("binding.glued", "free")])
    before = make_plan(book).pages
    (offer,) = [one for one in before.offers if one.label == "make it free"]
    plan = make_plan(editing.apply(book, offer.changes))
    assert plan.pages.made.thick.likely == pytest.approx(before.made.thick.likely)
    assert len(plan.pages.made.dressings) == len(before.made.dressings)
    assert plan.pages.made.places == before.made.places // before.made.copies
    assert [group.name for group in plan.pages.programme.closing] == [
        group.name for group in before.programme.closing
    ]
    assert not [check for _, check in plan.checks if check.level == "stop" and check.key != "B1"]
    assert plan.brief.made_of.binding.name == "itself"


def test_what_names_nothing_that_is_there_is_left_out_of_a_programme():
    sheet = DrawnSheet(
        name="a",
        widths_mm=(50.0, 50.0),
        heights_mm=(80.0,),
        panels=(DrawnPanel(name="one", column=0, row=0), DrawnPanel(name="two", column=1, row=0)),
        base="gone",
    )
    other = sheet.model_copy(update={"name": "b"})
    steps = (
        DrawnStep(laid=("b", "one"), host=("a", "nine"), at_mm=(0.0, 0.0)),
        DrawnStep(folds=(DrawnFold(sheet="c", one="one", other="two", degrees=180.0),)),
        DrawnStep(laid=("b", "one"), host=("a", "one"), at_mm=(1.0, 1.0)),
        DrawnStep(laid=("b", "one"), host=("a", "two"), at_mm=(0.0, 0.0)),
    )
    groups = (
        DrawnGroup(name="x", folds=(DrawnFold(sheet="a", one="one", other="three", degrees=180.0),)),
        DrawnGroup(name="y", folds=(DrawnFold(sheet="a", one="one", other="two", degrees=180.0),)),
    )
    programme = programme_of((sheet, other), steps, groups)
    assert [group.name for group in programme.closing] == ["y"]
    assert [piece.name for piece in programme.pieces] == ["a", "b"]
    assert not work(programme).assembly.loose
    alone = programme_of((sheet, other), (), groups)
    assert [piece.name for piece in alone.pieces] == ["a"], "a sheet that lies on nothing is not part of it"


@pytest.mark.parametrize(
    "wrong",
    [
        {"widths_mm": []},
        {"widths_mm": [0.0]},
        {"widths_mm": [5.0] * 41},
        {"panels": []},
        {"panels": [{"name": "", "column": 0, "row": 0}]},
        {"panels": [{"name": "a", "column": -1, "row": 0}]},
        {"stock": "gold"},
        {"base": "x" * 61},
        {"cuts": [{"start": [0, 0], "end": [1e9, 0], "off": [0, 1]}]},
    ],
)
def test_a_sheet_that_cannot_be_is_refused_and_the_book_stays(wrong):
    book = book_of("free")
    sheet = first_of(book).model_dump(mode="json") | wrong
    with pytest.raises(BadBook):
        editing.apply(book, [("pages.sheets", [sheet])])


@pytest.mark.parametrize(
    "odd",
    [
        {
            "panels": [{"name": "a", "column": 30, "row": 0}, {"name": "b", "column": 0, "row": 0}],
            "base": "a",
        },
        {"panels": [{"name": "a", "column": 0, "row": 0}, {"name": "a", "column": 1, "row": 0}], "base": "a"},
        {"cuts": [{"start": [0, 0], "end": [0, 0], "off": [1, 1]}]},
        {"glued": ["nothing"]},
    ],
)
def test_a_sheet_that_is_odd_is_planned_for_what_it_is(odd):
    book = book_of("free")
    sheet = first_of(book).model_dump(mode="json") | odd
    plan = make_plan(editing.apply(book, [("pages.sheets", [sheet])]))
    assert plan.pages.flats


def test_scores_are_typed_in_inches_and_none_past_its_neighbours():
    book = editing.edit(book_of("free"), {"brief.ruler": "in"})
    ruler = make_plan(book).brief.ruler
    assert ruler.number(105.0) == "4 1/8"
    assert editing.edit(book, {"pages.score.0.x.1": "4 1/8"}).pages.sheets[0].widths_mm[0] == pytest.approx(
        104.775
    )
    assert editing.edit(book, {"pages.score.0.x.1": "105 mm"}) == book
    for past in ("5", "0"):
        with pytest.raises(BadBook, match="lies between its neighbours"):
            editing.edit(book, {"pages.score.0.x.1": past})
    moved = editing.edit(book, {"pages.score.0.x.1": "4"})
    assert moved.pages.sheets[0].widths_mm[0] == pytest.approx(101.6)
    assert sum(moved.pages.sheets[0].widths_mm) == pytest.approx(213.0)
    grown = editing.edit(book, {"pages.size.0.y.0": "6 in"})
    assert grown.pages.sheets[0].heights_mm == (152.4,)


@pytest.mark.parametrize("size", [(60.0, 90.0), (105.0, 148.0), (150.0, 220.0)])
def test_a_folio_nobody_drew_yet_is_as_large_as_the_leaf(size):
    book = editing.apply(
        book_of("free"), [("brief.leaf_width_mm", size[0]), ("brief.leaf_height_mm", size[1])]
    )
    (flat,) = make_plan(book).pages.flats
    assert flat.piece.size_mm == pytest.approx((2 * size[0] + 3, size[1]))


def test_a_leaf_that_is_typed_of_what_was_drawn_is_told():
    drawn_ = editing.edit(book_of("free"), {"pages.size.0.x.0": "120"})
    assert "drawn" not in {check.key for _, check in make_plan(drawn_).checks}, "its back is the leaf still"
    other = editing.edit(drawn_, {"brief.size": "150 x 220"})
    (check,) = [check for _, check in make_plan(other).checks if check.key == "drawn"]
    assert "150 × 220" in check.title
    for offer in check.offers:
        after = make_plan(editing.apply(other, offer.changes))
        assert "drawn" not in {check.key for _, check in after.checks}
    assert make_plan(editing.apply(other, check.offers[-1].changes)).pages.flats[0].piece.size_mm == (
        303.0,
        220.0,
    )
