"""Figures and checks held against hand arithmetic, in both rulers: covers scored on the ruler, trims,
stations, readings, piles, runs."""

from __future__ import annotations

import pytest

from pleat.core.base.plan import Part
from pleat.core.base.slips import LEVELS
from pleat.core.base.units import MM_PER_INCH
from pleat.core.base.yields import Lies, lay
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.materials.sheet import longest_cut_mm
from pleat.core.materials.tools import NO_TOOLS
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.cutting.cut import cut_part
from pleat.core.pleats.cutting.shared import plan_sheets
from pleat.core.pleats.pages.arrange import PileFolio, told
from pleat.core.pleats.pages.limits import GUIDES, MOST_BY_GUIDE
from pleat.core.pleats.pages.mixed import folio
from pleat.core.pleats.pages.pile_cuts import gives
from pleat.core.pleats.pages.record import PileSheet
from pleat.core.pleats.paper.record import Papers
from pleat.core.pleats.paper.stocks import stock_of
from pleat.core.whole.planning import make_plan
from pleat.services import piles
from tests.conftest import edited

INCH = {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/2 in", "cover.square_mm": "1/8 in"}


def keys(book, tools=NO_TOOLS):
    return [check.key for _, check in make_plan(book, tools).checks]


def check(book, key):
    return next(one for _, one in make_plan(book).checks if one.key == key)


def steps(book):
    return {one.step.key: one.step for one in make_plan(book).bench.work}


def test_an_own_score_makes_a_new_piece_of_leaf_and_square():
    """Leaf 90, square 0, scores 3 either side: 90 + 6 + 90; the leaves end with the cover, whatever the block
    is."""
    plan = make_plan(
        edited(
            Book(),
            {
                "brief.size": "90 x 120",
                "cover.square_mm": "0",
                "cover.score_offset_mm": "3",
                "pages.measured_block_mm": "3.9",
            },
        )
    )
    assert [panel.width_mm for panel in plan.cover.wrap.panels] == [90, 6, 90]
    assert plan.cover.square_fore_mm == pytest.approx(0)


@pytest.mark.parametrize("block", ["3.9", "4.6", "5.2", "5.36", "7"])
@pytest.mark.parametrize("texts", [{}, INCH])
def test_the_scored_spine_is_on_the_ruler_and_never_narrower_than_what_is_inside(block, texts):
    plan = make_plan(edited(Book(), {**texts, "pages.measured_block_mm": f"{block} mm"}))
    ruler, spine = plan.brief.ruler, plan.cover.spine.likely
    left, right = plan.cover.wrap.scores_mm
    shown = ruler.snap(right) - ruler.snap(left)
    assert spine - 1e-9 <= shown < spine + ruler.step_mm, "as the maker reads the two marks off the ruler"
    assert ruler.is_on_mark(right - left)
    figure = next(one for one in plan.cover.figures if one.key == "scores")
    assert ("wider than what is inside" in figure.aside) == (shown - spine >= ruler.thin_mm)


@pytest.mark.parametrize(
    ("texts", "told_"),
    [
        ({}, True),
        ({"pages.creep": "trim"}, False),
        ({"pages.creep": "narrow"}, False),
        ({"pages.edges": "trim", "pages.trim_mm": "3"}, False),
        ({"pages.count": "8 pages", "cover.square_mm": "0"}, False),
    ],
)
def test_creep_is_only_told_where_it_stands_out(texts, told_):
    """12 sheets of 0.104 mm creep 1.1 to 1.8 mm; two of them 0.1, which a flush cover bears."""
    assert (
        "C4" in keys(edited(Book(), {"cover.square_mm": "1", "pages.count": "48 pages", **texts}))
    ) == told_


def test_stations_count_the_covers_ends_and_stay_in_order():
    low = edited(Book(), {"cover.square_mm": "0", "binding.station.0": "6"})
    assert "6 mm from the end of the cover" in check(low, "D5").title
    assert "D5" not in keys(edited(Book(), {"cover.square_mm": "3", "binding.station.0": "6"})), (
        "6 and 3 are 9"
    )
    past = editing.apply(Book(), [("binding.insets_mm", [150])])
    assert make_plan(past).binding.positions_mm == (60, 105, 150)
    assert "D5" not in keys(past)
    assert (
        "40 mm outside the leaf" in check(editing.apply(Book(), [("binding.insets_mm", [250])]), "D5").title
    )
    misfit = editing.apply(Book(), [("binding.insets_mm", [20]), ("binding.station_count", 5)])
    assert [fix.label for fix in check(misfit, "stations").offers] == ["3 stations", "spread them anew"]
    assert "spread from the middle" in make_plan(misfit).binding.figures[0].how


@pytest.mark.parametrize(
    "size", ["6 x 9 in", "5.5 x 8.5 in", "5 1/2 x 8 1/2", "140 x 200 mm", "14 x 20 cm", "A5"]
)
def test_one_size_in_one_unit_is_not_mixed(size):
    book = edited(edited(Book(), {"brief.ruler": "in"} if "in" in size else {}), {"brief.size": size})
    assert "A10" not in keys(book)
    assert set(book.typed) <= {"brief.leaf_width_mm", "brief.leaf_height_mm"}
    assert "A10" not in keys(book.model_copy(update={"typed": dict.fromkeys(book.typed, size)})), (
        "as formats up to 3 kept it"
    )


def test_what_was_typed_goes_with_the_paper_it_was_typed_for():
    book = edited(Book(), {"paper.leaf.sheet_width_mm": "8 1/2 in", "brief.leaf_width_mm": "140 mm"})
    assert "A10" in keys(book)
    taken = editing.apply(
        book,
        [
            (
                "paper.leaf",
                Paper(name="Other", sheet_width_mm=300, sheet_height_mm=400).model_dump(mode="json"),
            )
        ],
    )
    assert list(taken.typed) == ["brief.leaf_width_mm"]
    assert "A10" not in keys(taken)


@pytest.mark.parametrize(
    ("reading", "far"), [("2.4", False), ("6", True), ("12", True), ("1", True), ("3", False)]
)
def test_a_reading_far_from_the_paper_is_asked_about_and_the_estimate_stays(reading, far):
    """40 pages of 0.104 mm: 20 leaves, 2.1 mm."""
    book = edited(Book(), {"pages.measured_block_mm": reading})
    assert ("measured" in keys(book)) == far
    assert any(one.key == "estimated" for one in make_plan(book).pages.figures)
    two = steps(edited(book, {"pages.sections": "2"}))["measure"]
    assert two.title == "Measure the 2 pressed sections together"
    assert "the whole block" in two.detail


def test_a_pile_of_unknown_grain_lies_as_gives_most_and_may_be_turned():
    """3 x 2 in on letter, 8.5 x 11: a folio is 6 x 2 in; upright 1 x 5, turned 4 x 1 ... the better of both,
    and the other by a tap."""
    letter = Paper(name="Handout", sheet_width_mm=8.5 * MM_PER_INCH, sheet_height_mm=11 * MM_PER_INCH)
    upright, turned = (
        lay(6 * MM_PER_INCH, 2 * MM_PER_INCH, letter.sheet_width_mm, letter.sheet_height_mm, None, way).count
        for way in (False, True)
    )
    assert gives(letter, 3 * MM_PER_INCH, 2 * MM_PER_INCH) == max(upright, turned)
    ways: tuple[tuple[Lies, int], ...] = (("upright", upright), ("turned", turned))
    for lies, each in ways:
        assert folio(
            PileSheet(id=1, paper="own", lies=lies), letter, 3 * MM_PER_INCH, 2 * MM_PER_INCH
        ).turned == (lies == "turned")
        book = piles.mark(piles.add(edited(Book(), {"brief.size": "80 x 60"}), letter, 1), 1, lies=lies)
        assert make_plan(book).pages.parts[0].lies == lies, each


def test_the_other_way_round_is_taken_by_a_tap_and_given_back():
    """Leaves of 100 x 100 out of 297 x 420, grain long (h): folios of 200 x 100 upright 1 x 4, turned 2 x 2;
    grain first, then the tap."""
    paper = Paper(name="x", sheet_width_mm=330, sheet_height_mm=410, grain="long", grammage=80)
    book = edited(Book(paper=Papers(leaf=paper, cover=paper)), {"brief.size": "100 x 150"})
    plan = make_plan(book)
    cut = plan.cutting.cuts[0]
    assert (cut.better.count, cut.better.turned, cut.other.count) == (2, False, 4)
    way = next(one for one in plan.cutting.offers if one.group == "folio")
    assert way.label == "lay it turned: 4 a sheet, across the grain"
    taken = editing.apply(book, way.changes)
    assert make_plan(taken).cutting.cuts[0].better.count == 4
    assert check(taken, "B7").offers[0].label == "lay it with the grain"
    assert make_plan(taken).cutting.cuts[0].grain_words == "across the grain"
    assert "across the grain" in steps(taken)["cut_leaves"].detail
    back = next(one for one in make_plan(taken).cutting.offers if one.group == "folio")
    assert editing.apply(taken, back.changes) == book


@pytest.mark.parametrize(
    ("sheet", "piece", "longest"),
    [
        ((297, 420), (297, 210), 297),
        ((300, 420), (297, 210), 300),
        ((210, 297), (210, 297), 0),
        ((420, 300), (200, 150), 300),
        ((320, 450), (305, 216), 320),
    ],
)
def test_the_trimmer_must_take_the_first_cut_right_across(sheet, piece, longest):
    """297 x 210 of 297 x 420: one cut of 297. 300 x 420: 300 across first, then 210 along the pieces."""
    part = Part(key="x", name="x", width_mm=piece[0], height_mm=piece[1], count=1, stock="leaf")
    stock = stock_of("leaf", Paper(name="x", sheet_width_mm=sheet[0], sheet_height_mm=sheet[1], grain="long"))
    (plan,) = plan_sheets([cut_part(part, stock, "upright")])
    assert longest_cut_mm(plan.sheets) == longest


def test_single_leaves_count_once_in_equally_thick_sections():
    """Two folded sheets of 0.1 mm are 0.4 at the fold; two leaves tipped in are 0.2."""
    pile = [
        PileFolio(1, 0.1, 200),
        PileFolio(2, 0.1, 200),
        PileFolio(3, 0.1, 200, at_fold=1),
        PileFolio(4, 0.1, 200, at_fold=1),
    ]
    assert told(((1, 2), (3, 4)), pile)["equal"].words == "0.2 to 0.4 mm"
    assert told(((1, 3), (2, 4)), pile)["equal"].met
    assert all(one.words or one.met for one in told(((1, 3), (2, 4)), pile).values())
    assert not any(" 0 " in f" {one.words}" for one in told(((1, 2), (3, 4)), pile).values()), (
        "nothing is said of what is not there"
    )


def test_a_run_multiplies_every_step():
    """12 books in 2 sections: thread cut 24 times; piercing, sewing and pressing for each; one strip for
    all."""
    run = steps(edited(Book(), {"brief.quantity": "12", "pages.sections": "2"}))
    assert run["thread"].title.endswith("24 times")
    for key in ("pierce", "sew", "press", "fold", "cover_scored", "measure"):
        assert "Each of the 12 books." in run[key].detail, key
    for key in ("strip", "cut_leaves", "cut_cover", "gather"):
        assert "Each of" not in run[key].detail, key
    thread = make_plan(edited(Book(), {"brief.quantity": "12"})).binding.figures[1]
    assert "12 books" in thread.aside


@pytest.mark.parametrize(
    ("kind", "grammage"),
    [
        ("coated", 90),
        ("drawing", 100),
        ("kraft", 80),
        ("cardstock", 200),
        ("copier", 80),
        ("watercolour", 185),
    ],
)
def test_the_guide_beside_the_limit_holds_too(kind, grammage):
    plan = make_plan(
        Book(
            paper=Papers(
                leaf=Paper(name="x", kind=kind, grammage=grammage, sheet_width_mm=420, sheet_height_mm=297),
                cover=Book().paper.cover,
            )
        )
    )
    assert plan.pages.limit.folios <= MOST_BY_GUIDE[kind]
    assert str(MOST_BY_GUIDE[kind]) in GUIDES[kind]
    figure = next(one for one in plan.pages.figures if one.key == "limit")
    assert plan.pages.limit.reason in figure.how


def test_a_fold_out_three_quarters_of_an_inch_short_passes_and_none_turns_the_grain():
    wide = Paper(
        name="x", sheet_width_mm=20 * MM_PER_INCH, sheet_height_mm=9 * MM_PER_INCH, grain="short", grammage=80
    )
    book = edited(
        Book(paper=Papers(leaf=wide, cover=wide)),
        {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/2", "pages.flap_mm": "4 3/4"},
    )
    assert "C6" not in keys(book)
    assert "C6" in keys(edited(book, {"pages.flap_mm": "4 13/16"}))
    square = wide.model_copy(update={"sheet_width_mm": 300.0, "sheet_height_mm": 420.0, "grain": "long"})
    plan = make_plan(edited(Book(paper=Papers(leaf=square, cover=wide)), {"brief.size": "148 x 210"}))
    assert plan.pages.flap_room_mm == 0, "turned there would be 120 mm, but across the grain"


def test_sizes_near_by_go_farther_down_where_they_save_a_third():
    """Leaves of 108 x 150 folded once from 420 x 297: 216 x 150, one a row; 105 wide, 3 % less, gives two;
    never 3 instead of 3."""
    paper = Paper(name="x", sheet_width_mm=420, sheet_height_mm=297, grain="short", grammage=80)
    found = [
        one
        for one in make_plan(
            edited(Book(paper=Papers(leaf=paper, cover=paper)), {"brief.size": "113 x 148"})
        ).pages.offers
        if one.group == "sizes near this one"
    ]
    assert found
    assert "105 × " in found[0].label
    assert found[0].facts[0].startswith("4 pieces a sheet instead of 2")
    for one in found:
        first = one.facts[0].split()
        assert not ("instead" in first and first[0] == first[-1])


def test_the_worst_check_comes_first_and_rounded_counts_are_said_beside_the_figure():
    plan = make_plan(edited(Book(), {"pages.folds": "2", "pages.count": "30", "pages.flap_mm": "60"}))
    levels = [LEVELS.index(one.level) for one in plan.pages.worst_first]
    assert levels == sorted(levels)
    assert plan.pages.figures[0].aside == "you asked for 30 pages; whole sheets make more"


def test_a_narrower_sheet_may_be_narrower_on_one_leaf_and_a_window_has_its_place():
    """250 wide for leaves of 148: both 125, or 148 and 102. A window of 60 x 40, 20 from the fore edge, 30
    from the head."""
    old = Paper(name="Old page", sheet_width_mm=250, sheet_height_mm=200, grain="short")
    book = piles.add(edited(Book(), {"brief.size": "148 x 200"}), old, 2)
    widths = {}
    for way in ("both", "first", "second"):
        one = make_plan(piles.mark(book, 1, narrow=way)).pages.mixed[0][0]
        widths[way] = (one.first_width_mm, one.second_width_mm, one.cut)
    assert widths == {"both": (125, 125, False), "first": (102, 148, False), "second": (148, 102, False)}
    cut = piles.window(
        book, 1, {"window_width": "60", "window_height": "40", "window_fore": "20", "window_head": "30"}
    )
    made = steps(cut)
    assert "60 × 40 mm, 20 from the fore edge, 30 from the head" in made["windows"].detail
    assert waits_for(tuple(made.values()))["fold"] == ("cut_leaves", "windows")
    assert made["windows"].cautions
    assert "windows" not in steps(piles.mark(book, 1, window="yes")), (
        "a window without a size is there already"
    )
    assert "window" in keys(piles.window(book, 1, {"window_width": "120", "window_fore": "20"}))
    assert piles.mark(cut, 1, window="no").pages.pile[0].window_width_mm is None
