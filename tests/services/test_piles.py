"""The mixed pile: on and off it, moved by hand, arranged; and the plan of a book that is made of one."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.bench.order import waits_for
from pleat.core.whole.planning import make_plan
from pleat.printing.sheets import print_sheets
from pleat.services import piles
from tests.profiles import examples

MAP = Paper(
    name="Site map",
    kind="coated",
    grammage=90,
    sheet_width_mm=420,
    sheet_height_mm=297,
    grain="short",
    sides=1,
    swatch="moss",
    tags="map hill",
)
OLD = Paper(
    name="Old pages",
    kind="other",
    grammage=70,
    sheet_width_mm=180,
    sheet_height_mm=120,
    toughness="weak",
    swatch="cream",
    tags="old",
)
BAG = Paper(
    name="Flour bag",
    kind="kraft",
    grammage=90,
    sheet_width_mm=297,
    sheet_height_mm=210,
    grain="short",
    toughness="tough",
    swatch="kraft",
    tags="bag",
)
CARD = Paper(
    name="Thick card",
    kind="cardstock",
    grammage=300,
    sheet_width_mm=297,
    sheet_height_mm=210,
    grain="long",
    swatch="rust",
    tags="card",
)


def pile(*papers, book=None, sections=1):
    book = editing.apply(book or Book(), [("pages.sections", sections)])
    for paper, count in papers:
        book = piles.add(book, paper, count)
    return book


def ids(book):
    return [[one.id for one in section] for section in make_plan(book).pages.mixed]


def keys(book):
    return {check.key for _, check in make_plan(book).checks}


SMALL_LEAF = pile((MAP, 1), (BAG, 1), book=editing.edit(Book(), {"brief.size": "100 x 200"}))
"""Maps of 420 leave 220 beside two leaves of 100, bags of 297 leave 97."""


def test_a_book_made_of_a_pile_by_hand_arithmetic():
    """2 maps of 0.081 mm, 3 bags of 0.135: 5 sheets, 20 pages; at the fold 2 x (2 x 0.081 + 3 x 0.135) x
    1.02."""
    plan = make_plan(pile((MAP, 2), (BAG, 3)))
    assert (plan.pages.folios, plan.pages.leaves, plan.pages.pages) == (5, 10, 20)
    assert plan.pages.thickness.likely == pytest.approx(2 * (2 * 0.081 + 3 * 0.135) * 1.02)
    assert plan.cover.spine.likely == pytest.approx(plan.pages.thickness.likely + plan.binding.swell.likely)
    maps, cover = plan.cutting.cuts
    assert (maps.part.width_mm, maps.part.height_mm, maps.part.count) == (297, 210, 2), (
        "a map gives one piece"
    )
    assert (maps.better.count, maps.better.turned, maps.better.with_grain) == (1, False, True)
    assert cover.part.key == "cover", "nothing of the pile comes out of the leaf paper"
    assert plan.cutting.sheets == {"p1": 2, "cover": 1}
    parts = print_sheets(plan, "Pile", "a4")[-1].svg
    assert "from 2 sheets of Site map" in parts
    assert parts.count("grain along the height") == 1, "only the cover's"
    steps = {one.step.key: one.step for one in plan.bench.work}
    assert steps["cut_leaves"].title == "Cut 2 pieces for the pile"
    assert "2 × Site map, 3 × Flour bag" in steps["nested"].detail
    one = plan.pages.mixed[0][0]
    assert (one.leaf_width_mm, one.leaf_height_mm, one.cut, one.with_grain) == (148.5, 210, True, True)


def test_the_sheet_folds_the_way_round_that_gives_the_larger_leaf():
    wide = OLD.model_copy(update={"sheet_width_mm": 120.0, "sheet_height_mm": 180.0})
    for paper in (OLD, wide):
        one = make_plan(pile((paper, 1))).pages.mixed[0][0]
        assert (one.leaf_width_mm, one.leaf_height_mm) in ((90, 120), (60, 180))
        assert one.leaf_width_mm * one.leaf_height_mm == 10800


@pytest.mark.parametrize(
    ("slip", "wrong", "right"),
    [
        ("B3", pile((OLD, 2)), pile((BAG, 2))),
        ("B7", pile((CARD, 1)), pile((BAG, 1))),
        ("C1", pile((CARD, 6)), pile((BAG, 6))),
        ("C2", pile((OLD, 1), (BAG, 3)), pile((BAG, 3))),
        (
            "C3",
            piles.mark(piles.mark(pile((BAG, 3)), 1, window="yes"), 2, window="yes"),
            piles.mark(pile((BAG, 3)), 1, window="yes"),
        ),
        ("C3_alike", pile((MAP, 2)), pile((MAP, 1), (BAG, 1))),
        (
            "C5",
            editing.apply(pile((OLD, 1), (BAG, 3)), [("pages.creep", "trim")]),
            editing.apply(pile((BAG, 3)), [("pages.creep", "trim")]),
        ),
        (
            "C7",
            editing.apply(pile((BAG, 2), (MAP, 1), (OLD, 1)), [("pages.pairs", [[1, 4]])]),
            editing.apply(pile((BAG, 2), (MAP, 1)), [("pages.pairs", [[1, 2]])]),
        ),
        ("C6", piles.flap(SMALL_LEAF, 1, "85", ""), piles.flap(SMALL_LEAF, 1, "80", "")),
        ("flap_room", piles.flap(SMALL_LEAF, 2, "80", "2"), piles.flap(SMALL_LEAF, 1, "80", "2")),
        ("flap_room", piles.flap(pile((BAG, 1)), 1, "60", "1"), pile((BAG, 1))),
        ("B9", piles.flap(SMALL_LEAF, 1, "70", "1"), piles.flap(SMALL_LEAF, 1, "70", "2")),
        (
            "owned",
            pile((BAG.model_copy(update={"owned": 2}), 3)),
            pile((BAG.model_copy(update={"owned": 3}), 3)),
        ),
        (
            "owned",
            editing.apply(pile((BAG.model_copy(update={"owned": 5}), 3)), [("brief.quantity", 2)]),
            editing.apply(pile((BAG.model_copy(update={"owned": 6}), 3)), [("brief.quantity", 2)]),
        ),
    ],
)
def test_slips_of_a_pile(slip, wrong, right):
    assert slip in keys(wrong)
    assert slip not in keys(right)
    check = next(check for _, check in make_plan(wrong).checks if check.key == slip)
    for fix in check.offers:
        assert slip not in keys(editing.apply(wrong, fix.changes)), fix.label


def test_sheets_are_moved_pinned_paired_and_taken_off():
    book = pile((BAG, 3), (MAP, 2), sections=2)
    first = ids(book)[0][0]
    book = piles.move(book, first, 1, 0)
    assert ids(book)[1][0] == first
    book = piles.move(book, first, 9, 0)
    assert ids(book)[-1] == [first]
    assert len(ids(book)) == 3
    book = piles.mark(book, first, pinned=True)
    again = piles.arranged(book, piles.propose(book, 3, 7, True))
    assert ids(again)[2][0] == first
    outer = ids(again)[0][0]
    kept = piles.pair(again, outer, True)
    assert kept.pages.pairs == ((outer, ids(again)[0][1]),)
    assert piles.pair(kept, outer, False).pages.pairs == ()
    assert piles.remove(kept, outer).pages.pairs == ()
    for sheet in [sheet.id for sheet in book.pages.pile]:
        book = piles.remove(book, sheet)
    assert make_plan(book).pages.mixed == ()
    for wrong in (
        lambda: piles.move(kept, 99, 0, 0),
        lambda: piles.propose(book, 1, 0, False),
        lambda: piles.propose(kept, 99, 0, False),
        lambda: piles.add(kept, BAG, 500),
        lambda: piles.add(kept, BAG, 0),
        lambda: piles.pair(kept, ids(kept)[0][-1], True),
        lambda: piles.flap(kept, 99, "50", ""),
        lambda: piles.flap(kept, outer, "50", "two"),
        lambda: piles.flap(kept, outer, "4000", "9"),
        lambda: piles.place_typed(kept, 99, "1"),
        lambda: piles.place_typed(kept, outer, "0.1"),
        lambda: piles.place_typed(kept, outer, "1.99"),
        lambda: piles.arranged(piles.remove(kept, outer), piles.propose(kept, 2, 0, False)),
    ):
        with pytest.raises(BadBook):
            wrong()


def test_single_leaves_on_stubs_and_tipped_in_by_hand_arithmetic():
    """3 bags folded, an old page on a stub, one tipped in: 8 leaves, 16 pages; at the spine 3 x 2 + 2 + 1
    thicknesses."""
    book = pile((BAG, 3), (OLD, 2))
    stub, tipped = ids(book)[0][3:]
    book = piles.join(piles.join(book, stub, "stub"), tipped, "tipped")
    plan = make_plan(book)
    bag, old = 0.135, 0.07 * (0.8 + 1.9) / 2
    assert (plan.pages.folios, plan.pages.leaves, plan.pages.pages) == (5, 8, 16)
    assert plan.pages.thickness.likely == pytest.approx((6 * bag + 3 * old) * 1.02)
    assert plan.pages.through.likely == pytest.approx(3 * bag + old), (
        "the thread does not pass what is tipped in"
    )
    single = {one.id: one for one in plan.pages.mixed[0]}[stub]
    assert (single.leaf_width_mm, single.leaf_height_mm) == (120, 180), "not folded, so the larger way round"
    assert "C2" not in keys(book), "a stub is as high as the book"
    steps = [one.step.key for one in plan.bench.work]
    assert steps.index("fold") < steps.index("join") < steps.index("nested")
    words = "5 sheets, 2 of them single leaves = 8 leaves = 16 pages"
    assert words in plan.pages.figures[0].how
    assert words in next(one.step.detail for one in plan.bench.work if one.step.key == "fold")
    assert words in print_sheets(plan, "Pile", "a4")[-1].svg
    assert "join" not in [
        one.step.key
        for one in make_plan(piles.join(piles.join(book, stub, "folded"), tipped, "folded")).bench.work
    ]
    loose = pile((BAG, 3), (OLD, 2))
    check = next(check for _, check in make_plan(loose).checks if check.key == "C2")
    mended = editing.apply(loose, check.offers[-1].changes)
    assert check.offers[-1].label == "put those 2 on stubs, as single leaves"
    assert make_plan(mended).pages.leaves == 8


@pytest.mark.parametrize(("flap_on", "flapped"), [("innermost", 2), ("every", 7)])
def test_a_book_of_one_paper_becomes_a_pile_of_its_own_sheets_and_back(flap_on, flapped):
    paper = BAG.model_copy(update={"sheet_width_mm": 420.0, "sheet_height_mm": 297.0, "owned": 4})
    book = editing.edit(
        Book(),
        {"brief.size": "100 x 140", "pages.count": "28 pages", "pages.sections": "2", "pages.flap_mm": "60"},
    )
    book = editing.apply(book, [("paper.leaf", paper.model_dump(mode="json")), ("pages.flap_on", flap_on)])
    one, pile = make_plan(book), make_plan(begun := piles.begun(book))
    assert (pile.pages.pages, pile.pages.sections) == (one.pages.pages, one.pages.sections) == (28, (4, 3))
    assert pile.pages.thickness.likely == pytest.approx(one.pages.thickness.likely)
    assert [(leaf.page, leaf.flap_mm, leaf.second) for leaf in pile.pages.in_order] == [
        (leaf.page, leaf.flap_mm, leaf.second) for leaf in one.pages.in_order
    ]
    assert sum(sheet.flap_mm == 60 for sheet in begun.pages.pile) == flapped
    assert pile.cutting.sheets["p1"] == one.cutting.sheets["leaf"], "as many whole sheets as before"
    assert make_plan(piles.cleared(piles.join(begun, 1, "stub"))).pages == one.pages
    for wrong in (
        begun,
        editing.apply(book, [("pages.folds", 2)]),
        editing.edit(book, {"pages.count": "2000 pages"}),
    ):
        with pytest.raises(BadBook):
            piles.begun(wrong)


def test_a_trimmed_pile_is_cut_larger_and_small_leaves_stay_small():
    """A leaf of 100 x 200, 3 mm off head, tail and fore edge: maps are cut to 2 x 103 x 206; old pages of 90
    x 120 keep their size."""
    book = editing.apply(
        pile((MAP, 1), (OLD, 1), book=editing.edit(Book(), {"brief.size": "100 x 200"})),
        [("pages.edges", "trim")],
    )
    plan = make_plan(book)
    large, small = (
        next(one for one in plan.pages.mixed[0] if one.name == name) for name in ("Site map", "Old pages")
    )
    assert (large.first_piece_mm, large.piece_height_mm, large.leaf_width_mm, large.leaf_height_mm) == (
        103,
        206,
        100,
        200,
    )
    assert (small.second_piece_mm, small.leaf_width_mm, small.leaf_height_mm, small.cut) == (
        90,
        90,
        120,
        False,
    )
    (part,) = plan.pages.parts
    assert (part.width_mm, part.height_mm, part.folds[0].position_mm) == (206, 206, 103)
    assert "C5" in keys(book)
    flapped = piles.flap(book, 1, "60", "1")
    assert "flap_trim" in keys(flapped)
    check = next(check for _, check in make_plan(flapped).checks if check.key == "flap_trim")
    for fix in check.offers:
        assert "flap_trim" not in keys(editing.apply(flapped, fix.changes)), fix.label
    assert "flap_trim" in keys(editing.edit(Book(), {"pages.flap_mm": "60", "pages.creep": "trim"}))


def test_inner_sheets_of_a_pile_are_cut_narrower_where_they_reach_the_edge():
    book = editing.apply(
        pile((BAG, 3), (OLD, 1)), [("pages.creep", "narrow"), ("pages.order", [[1, 2, 4, 3]])]
    )
    (off,) = make_plan(book).pages.narrower_mm
    bag, old, middle = 0.135, 0.07 * (0.8 + 1.9) / 2, (1 + 3.14159265 / 2) / 2
    assert off == pytest.approx((0, middle * bag, 0, middle * (2 * bag + old)), abs=1e-6), (
        "the old page ends long before the edge"
    )
    single = piles.join(book, 3, "stub")
    step = next(one.step for one in make_plan(single).bench.work if one.step.key == "narrow")
    assert f"{middle * (2 * bag + old):.1f} mm" in step.detail, "a single leaf gives it up once"


def test_places_are_typed_as_section_and_place():
    book = pile((BAG, 4), (MAP, 2), sections=2)
    first = ids(book)[0][0]
    for text, section, place in (("2", 0, 1), ("2.1", 1, 0), ("2, 3", 1, 2), (" 1/1 ", 0, 0), ("3.1", 2, 0)):
        book = piles.place_typed(book, first, text)
        assert ids(book)[section][place] == first, text


def test_a_fold_out_goes_through_to_numbers_parts_and_bench():
    book = editing.apply(piles.flap(SMALL_LEAF, 1, "7 cm", "2"), [("pages.numbered", "yes")])
    plan = make_plan(book)
    assert (book.pages.pile[0].flap_mm, book.pages.pile[0].flap_panels) == (70.0, 2)
    assert plan.pages.pages == 8, "the sides of a fold-out are not counted as pages"
    steps = {one.step.key: one.step for one in plan.bench.work}
    assert "Site map: 2 panels of 70 mm, back and forth like an accordion" in steps["flap"].detail
    assert waits_for(tuple(steps.values()))["nested"] == ("fold", "flap")
    assert "1 piece of 340 × 200 mm from 1 sheet of Site map, fold-out and all" in steps["cut_leaves"].detail
    assert [fold.position_mm for fold in plan.cutting.cuts[0].part.folds] == [100, 200, 270]
    assert (
        steps["cut_leaves"].signature
        != {one.step.key: one.step for one in make_plan(SMALL_LEAF).bench.work}["cut_leaves"].signature
    )
    assert "flap" not in {one.step.key for one in make_plan(piles.flap(book, 1, "", "")).bench.work}
    assert [one.name for one in plan.pages.numbered] == ["Site map", "Flour bag"]
    dummy = next(sheet for sheet in print_sheets(plan, "Pile", "a4") if "dummy" in sheet.title)
    assert "Site map" in dummy.svg


def test_a_pattern_with_a_top_that_folds_sideways_is_told():
    sideways = MAP.model_copy(
        update={"pattern": "directional", "sheet_width_mm": 210.0, "sheet_height_mm": 297.0}
    )
    assert "B10" in keys(pile((sideways, 1)))
    assert "B10" not in keys(pile((MAP.model_copy(update={"pattern": "directional"}), 1)))


@settings(max_examples=examples(30))
@given(
    st.lists(st.tuples(st.sampled_from([MAP, OLD, BAG, CARD]), st.integers(1, 6)), min_size=1, max_size=5),
    st.integers(1, 5),
    st.lists(st.tuples(st.integers(1, 30), st.integers(-1, 6), st.integers(-1, 9)), max_size=6),
)
def test_whatever_is_done_to_a_pile_every_sheet_is_there_once(papers, sections, moves):
    book = pile(*papers, sections=sections)
    wanted = sorted(sheet.id for sheet in book.pages.pile)
    for sheet, section, place in moves:
        if sheet in wanted:
            book = piles.move(book, sheet, section, place)
    assert sorted(one for section in ids(book) for one in section) == wanted
    plan = make_plan(book)
    assert plan.pages.pages == 4 * len(wanted)
    assert all(plan.pages.sections)
    proposal = piles.propose(book, sections, 3, False)
    assert sorted(one for section in ids(piles.arranged(book, proposal)) for one in section) == wanted


def test_pieces_of_two_sizes_from_one_paper_share_its_sheet():
    """Two folios of 297 x 210 and one with a fold-out of 80 come out of one chart of 900 x 640, the one there
    is."""
    chart = MAP.model_copy(
        update={
            "name": "Chart",
            "sheet_width_mm": 900,
            "sheet_height_mm": 640,
            "owned": 1,
            "grain": "unknown",
        }
    )
    book = editing.apply(pile((chart, 3)), [("brief.leaf_width_mm", 148.5), ("brief.leaf_height_mm", 210)])
    sheets = [
        one.model_copy(update={"flap_mm": 80.0 if at == 2 else one.flap_mm})
        for at, one in enumerate(book.pages.pile)
    ]
    book = editing.apply(book, [("pages.pile", [one.model_dump() for one in sheets])])
    plan = make_plan(book)
    assert len([cut for cut in plan.cutting.cuts if cut.stock.role == "pile"]) == 2
    assert {key: plan.cutting.takes[key] for key in plan.pages.whole_sheets} == {"p1": 1}
    assert "owned" not in keys(book)
    (told,) = [
        check
        for _, check in make_plan(editing.apply(book, [("brief.quantity", 9)])).checks
        if check.key == "owned"
    ]
    assert told.title.startswith("The pile takes more sheets for 9 books than there are: Chart ")
    more = editing.apply(editing.apply(book, [("brief.quantity", 9)]), told.offers[0].changes)
    assert "owned" not in keys(more)
