"""Two books with things put in, worked out with pencil and paper before they were planned, and single things
by hand."""

from __future__ import annotations

import pytest

from pleat.core.document import editing
from pleat.core.whole.planning import make_plan
from tests.put import at, of, put, told

SIXTEENTH = 25.4 / 16


def thing(*designs, book=None):
    return make_plan(put(book or of("journal"), *designs)).extras.items[0].thing


def test_a_pocket_for_a_photograph_in_inches_does_not_fit_level_and_does_upright():
    """4 × 6 in level: 6 in + 3 mm = 155.4 mm, more than a leaf of 5 1/2 in (139.7). Upright: 101.6 + 3 =
    104.6, so 4 1/8 in; 152.4 - 19.05 = 133.35, 5 1/4 in. Its tabs are half an inch."""
    book = editing.edit(of("journal", ("brief.ruler", "in")), {"brief.size": "5 1/2 x 8 1/2 in"})
    level = put(
        book, {"kind": "pocket", "goes": "4x6", "lies": "level", "stand_mm": 19.05, "places": at("page 12")}
    )
    check = told(make_plan(level), "F9")[0]
    assert "6 1/8 × 3 1/4 in" in check.title
    offer = next(one for one in check.offers if "upright" in one.label)
    upright = make_plan(editing.apply(level, offer.changes))
    assert not told(upright, "F9")
    pocket = upright.extras.items[0].thing
    assert (pocket.width_mm, pocket.height_mm) == (
        pytest.approx(66 * SIXTEENTH),
        pytest.approx(84 * SIXTEENTH),
    )
    assert pocket.pieces[0].size_mm == (
        pytest.approx((66 + 2 * 8) * SIXTEENTH),
        pytest.approx((84 + 8) * SIXTEENTH),
    )
    assert pocket.mouth.throat_mm == pytest.approx(66 * SIXTEENTH)
    assert pocket.stands_mm == pytest.approx(152.4 - 133.35)


def test_a_waterfall_of_four_and_the_spacers_it_asks_for():
    """85.6 + 3 + 12 = 100.6, so 101 mm; panels 30, 42, 42, 54, 54, 66, 66, 78 = 432. At its foot eight panels
    of 0.275 and four cards of 0.3 lie on each other: 3.4 mm, which takes 13 strips."""
    design = {
        "kind": "waterfall",
        "goes": "card",
        "lies": "level",
        "goes_thick_mm": 0.3,
        "pockets": 4,
        "depth_mm": 30,
        "step_mm": 12,
    }
    book = put(of("journal"), {**design, "places": at("page 7", 20, 100)})
    plan = make_plan(book)
    made = plan.extras.items[0].thing
    assert made.pieces[0].size_mm == (101, pytest.approx(432))
    assert plan.extras.worst.thick.likely == pytest.approx(8 * 0.275 + 4 * 0.3)
    assert made.mouth.throat_mm == 101 - 12
    gapes = told(plan, "F5")[0]
    assert "gapes by 3.4 mm" in gapes.title
    offer = gapes.offers[0]
    assert offer.label.startswith("13 spacers")
    after = make_plan(editing.apply(book, offer.changes))
    assert after.extras.added.likely == pytest.approx(13 * 0.275)
    assert after.cover.spine.likely == pytest.approx(plan.cover.spine.likely + 13 * 0.275)
    cut = {
        one.part.key: (one.part.width_mm, one.part.height_mm, one.part.count) for one in after.cutting.cuts
    }
    assert cut["extra_spacers"] == (15, 210, 13)


def test_a_flap_is_cut_with_its_hinge_and_reaches_as_far_as_it_is_high():
    made = thing({"kind": "flap", "goes": "9x13", "hinge": "tail", "tab_mm": 15, "places": at("page 5")})
    assert (made.width_mm, made.height_mm) == (90 + 6, 130 + 6), "3 mm round what lies on it"
    assert made.pieces[0].size_mm == (96, 136 + 15)
    assert (made.swing.hinge, made.swing.reach_mm) == ("tail", 136)


def test_a_fold_out_may_be_a_leaf_less_twenty_millimetres():
    for wide, fits in ((128, True), (129, False)):
        design = {
            "kind": "flap",
            "way": "foldout",
            "hinge": "right",
            "goes": "none",
            "width_mm": wide,
            "height_mm": 150,
        }
        plan = make_plan(put(of("journal"), {**design, "places": at("page 5")}))
        assert bool(told(plan, "C6")) is not fits, f"{wide} on a leaf of {plan.pages.leaf_width_mm}"


def test_a_band_from_edge_to_edge_lets_through_its_width_less_its_glue():
    made = thing({"kind": "band", "goes": "none", "height_mm": 40, "places": at("page 5")})
    assert made.width_mm == 148
    assert made.mouth.throat_mm == 148 - 2 * 15
    assert made.pieces[0].size_mm == (148 + 30, 40)
    slides = thing({"kind": "band", "goes": "none", "ends": "slide", "places": at("page 5")})
    assert slides.mouth.throat_mm == 148
    buckled = make_plan(
        put(of("journal"), {"kind": "band", "goes": "none", "ends": "buckle", "places": at("page 5")})
    )
    assert [part.name for part in buckled.extras.parts if part.name == "buckle"] == ["buckle"]


@pytest.mark.parametrize(("border", "size"), [(6, (136, 198)), (0, (148, 210)), (20, (108, 170))])
def test_a_mat_has_an_even_border_on_every_side(border, size):
    made = thing({"kind": "mat", "goes": "none", "border_mm": border, "places": at("page 5")})
    assert (made.width_mm, made.height_mm) == size


def test_an_accordion_is_one_strip_of_its_panels_and_lies_as_thick_as_all_of_them():
    plan = make_plan(
        put(
            of("journal"),
            {"kind": "picture", "goes": "a7", "stock": "card", "panels": 4, "places": at("page 5")},
        )
    )
    made = plan.extras.items[0].thing
    assert made.pieces[0].size_mm == (4 * 74, 105)
    assert plan.extras.worst.thick.likely == pytest.approx(4 * plan.paper.stock("card").caliper.likely)


def test_eyelets_in_a_row_are_counted_and_reach_from_the_first_to_the_last():
    plan = make_plan(
        put(
            of("journal", ("brief.quantity", 3)),
            {"kind": "eyelet", "across_mm": 8, "rows": 5, "apart_mm": 20, "places": at("page 5")},
        )
    )
    made = plan.extras.items[0].thing
    assert made.height_mm == 4 * 20 + 8
    assert next(part.count for part in plan.extras.parts if part.name == "eyelet") == 15


def test_a_magnet_pair_for_each_place_and_book():
    places = [{"on": f"page {page}", "x_mm": 120, "y_mm": 100} for page in (5, 9)]
    plan = make_plan(put(of("journal", ("brief.quantity", 2)), {"kind": "fastener", "places": places}))
    assert [part.count for part in plan.extras.parts] == [2 * 2 * 2]


def test_a_pocket_hidden_behind_a_flap_is_as_thick_as_what_lies_on_each_other():
    """For 70 × 95: 70 + 3 = 73 by 95 - 20 = 75, cut 97 × 87. The flap 73 + 14 = 87 by 7 + 75 + 7 + 20 + 15 =
    124, cut 139 high. A tab 0.275, what lies on it 0.5, the pocket 0.275 and the flap 0.275: 1.325 mm;
    nowhere more, for the tabs are mitred where they meet."""
    goes = {"goes": "own", "goes_width_mm": 70, "goes_height_mm": 95, "goes_thick_mm": 0.5}
    book = put(of("journal"), {"kind": "pocket", **goes, "places": at("page 5")})
    plan = make_plan(book)
    pocket = plan.extras.items[0]
    assert (pocket.thing.mouth.throat_mm, pocket.thing.mouth.depth_mm) == (73, 75)
    assert pocket.thing.pieces[0].size_mm == (97, 87)
    assert pocket.spots[0].box == ((148 - 73) / 2, (210 - 75) / 2, (148 + 73) / 2, (210 + 75) / 2)
    (hide,) = [offer for offer in plan.extras.offers if offer.group == "with d0"]
    after = make_plan(editing.apply(book, hide.changes))
    assert after.extras.items[1].thing.pieces[0].size_mm == (87, 139)
    assert after.extras.worst.thick.likely == pytest.approx(0.275 + 0.5 + 0.275 + 0.275)
    assert after.cover.spine == plan.cover.spine, "it lies away from the spine"


def test_a_window_in_a_case_and_a_band_with_two_pockets_in_inches():
    """A band across a page of 148 mm, 2 in high: its ends of 15 mm are 5/8: 148 + 31.75; two pockets of equal
    free height are 50.8 and 25.4; 5/16 more for a tab, 163.9 wide, then a quarter of 25.4, 31.75 by 160.7."""
    designs = (
        {"kind": "window", "width_mm": 63.5, "height_mm": 38.1, "places": at("inside front cover", 40, 60)},
        {"kind": "band", "goes": "none", "height_mm": 50.8, "pockets": 2, "places": at("page 9")},
    )
    plan = make_plan(put(editing.edit(of("case"), {"brief.ruler": "in"}), *designs))
    sizes = [sheet.size_mm for sheet in plan.extras.items[1].thing.pieces]
    assert sizes == [pytest.approx(size) for size in ((179.75, 50.8), (163.875, 58.7375), (160.7, 31.75))]
    step = next(one.step for one in plan.bench.work if one.step.key == "extra_d0_cover")
    assert "1 9/16 from the left, 2 3/8 from the head, from where the leaf begins" in step.detail
