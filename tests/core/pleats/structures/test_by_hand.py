"""Structures added up by hand, and against models that know no formula: numbered paper folded step by step,
pieces counted one by one, sums written out."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.assembly import Assembly
from pleat.core.engines.folding.pile import gussets
from pleat.core.engines.folding.programme import work
from pleat.core.engines.folding.sheet import Span, board, piece, scores
from pleat.core.pleats.pages.kinds.album import leaves_of
from pleat.core.pleats.structures.dressing import PHOTOS, Dressed, filling, places
from pleat.core.pleats.structures.pads import assigned, order_of
from tests.core.pleats.structures.samples import plan_of
from tests.profiles import examples

CARD = {"paper.card.weight": "240 g/m²"}
"""Card of 240 x 1.25 = 300 um."""
PLAIN = {**CARD, "pages.mats": "no", "pages.photo": "none"}


def figure(result, key):
    return next(one for one in result.figures if one.key == key)


def sizes(plan):
    return {room.name: room.has_mm for room in plan.pages.made.rooms}


def test_a_cross_fold_folio_without_anything_on_it_by_hand():
    """Middle 100 x 150, four arms a millimetre short, card 0.3: shut tail, head, left, right. Under the
    second arm lies the first (0.3), under the third two (0.6), under the fourth three (0.9); a tenth more, up
    to the half millimetre: 0.5, 0.5, 1, 1. Wide 99 + 1 + 100 + 1 + 99 = 300, high 149 + 0.5 + 150 + 0.5 + 149
    = 449."""
    plan = plan_of("crossfold", {**PLAIN, "brief.size": "100 x 150"})
    assert sizes(plan) == {"tail gusset": 0.5, "head gusset": 0.5, "left gusset": 1.0, "right gusset": 1.0}
    assert [round(room.stiff.likely, 3) for room in plan.pages.made.rooms] == [0.0, 0.3, 0.6, 0.9]
    assert plan.pages.flats[0].piece.size_mm == pytest.approx((300.0, 449.0))
    assert scores(plan.pages.flats[0].piece) == pytest.approx((99.0, 100.0, 200.0, 201.0))
    assert scores(plan.pages.flats[0].piece, upright=False) == pytest.approx((149.0, 149.5, 299.5, 300.0))
    assert plan.pages.thickness.likely == pytest.approx(1.5), "middle and four arms"
    last_first = plan_of("crossfold", {**PLAIN, "brief.size": "100 x 150", "pages.right_gusset_mm": "0.5"})
    (check,) = [one for _, one in last_first.checks if one.key == "F8"]
    assert "0.9 mm lie in it" in check.title


def test_the_same_folio_with_photographs_on_every_face_by_hand():
    """Papers 0.15 on every face and photographs 0.3 on the ten: between middle and first arm lie two dressed
    faces, 2 x 0.45 = 0.9; under the second arm the first, dressed on both sides, and two faces more: 0.3 + 2
    x 0.45 + 0.9 = 2.1; and so on by 1.2."""
    plan = plan_of(
        "crossfold",
        {**CARD, "brief.size": "113 x 163", "paper.mat.readings_mm": "1.5", "pages.photo": "10x15"},
    )
    assert plan.pages.made.places == 10
    assert [round(room.stiff.likely, 3) for room in plan.pages.made.rooms] == [0.9, 2.1, 3.3, 4.5]
    assert sizes(plan) == {"tail gusset": 1.0, "head gusset": 2.5, "left gusset": 4.0, "right gusset": 5.0}
    assert figure(plan.pages, "papers").value == "10, of 3 sizes"
    middle = next(one for one in plan.pages.made.dressings if one.key[1] == "middle")
    assert (middle.width_mm, middle.height_mm) == (107.0, 157.0), "113 - 2 x 3, 163 - 2 x 3"


def test_nested_folders_by_hand():
    """150 x 200, each 4 mm smaller on each side; nothing in them: the innermost spine holds nothing, each
    further one two cards more of 0.3, which is 0.6 and 1.2."""
    plan = plan_of("nested", {**PLAIN, "brief.size": "150 x 200"})
    assert [round(room.stiff.likely, 3) for room in plan.pages.made.rooms] == [1.2, 0.6, 0.0]
    assert sizes(plan) == {"spine 1": 1.5, "spine 2": 1.0, "spine 3": 0.5}
    assert [flat.piece.size_mm for flat in plan.pages.flats] == [
        (301.5, 200.0),
        (285.0, 192.0),
        (268.5, 184.0),
    ]
    spines = list(sizes(plan).values())
    assert spines == sorted(spines, reverse=True), "they shrink towards the inside"


def test_a_pocket_page_by_hand():
    """140 wide with a hinge of 20: page 120, its back 119, so 20 + 120 + 119 + 20 = 279; 200 high and a tab
    of 12: 212. The slant takes 70 off 119 of its head: 4165 mm2."""
    plan = plan_of("pocketpages", PLAIN)
    strip = plan.pages.flats[0].piece
    assert strip.size_mm == (279.0, 212.0)
    assert scores(strip) == (20.0, 140.0, 259.0)
    corner = plan.pages.made.programme.pieces[1]
    assert corner.area_mm2 == pytest.approx(119 * 70 / 2)
    assert strip.area_mm2 == pytest.approx(20 * 200 + 120 * 212 + 119 * 200 + 20 * 200 - corner.area_mm2)
    main, second = sorted(plan.pages.made.pockets, key=lambda one: one.wall[0] == "corner pocket")
    assert (main.wall[1], main.mouth, set(main.held)) == ("back", "head", {"left", "right", "tail"})
    assert (main.throat_mm, main.depth_mm, main.shallow_mm) == pytest.approx((119.0, 200.0, 130.0))
    assert second.wall[0] == "corner pocket"
    assert plan.pages.thickness.likely == pytest.approx(10 * 2 * 0.3), "two layers in the holes"
    assert plan.pages.middle_mm == pytest.approx(10 * 0.6), "front, back, tab and corner: four less two"


def test_a_folder_and_what_slides_into_it_by_hand():
    """A5 with pockets of 84 and tabs of 12: the mouth is 148 - 12 = 136 between fold and tab."""
    plan = plan_of("folder", {**PLAIN, "pages.insert_width_mm": "120", "pages.insert_height_mm": "180"})
    assert {(one.throat_mm, one.depth_mm) for one in plan.pages.made.pockets} == {(136.0, 84.0)}
    assert figure(plan.pages, "fits").value == pytest.approx(96.0), "180 high, 84 deep"
    (room,) = plan.pages.made.rooms
    assert room.stiff.likely == pytest.approx(2 * (0.5 + 0.3)), (
        "two papers of 0.5 under two pockets of 0.3; the tabs lie beside them"
    )


@pytest.mark.parametrize("count", range(2, 24))
def test_a_concertina_of_numbered_paper_folded_step_by_step(count):
    """Panels numbered on both sides in a row; from the far end each is folded over or under what lies there:
    the model is a list that is turned round."""
    plan = plan_of("concertina", {**PLAIN, "pages.amount": str(count)})
    worked = plan.pages.made.worked
    lying = [(count, "A")]  # what has been folded up already, from the table up, side that looks up
    for panel in range(count - 1, 0, -1):
        over = panel % 2 == 1  # the first fold is a valley, then to and fro
        turned = [(number, "B" if side == "A" else "A") for number, side in reversed(lying)]
        lying = [(panel, "A"), *turned] if over else [*turned, (panel, "A")]
    expected = [(f"panel {number}", side) for number, side in lying]
    found = [
        (key[1], "A" if worked.shut.poses[key].up else "B") for key in worked.shut.pile if key[1] != "tab"
    ]
    assert found == expected
    strips = list(plan.pages.made.programme.pieces)
    each = len([panel for panel in strips[0].panels if panel.name != "tab"])
    sides = [
        number * each % 2 for number in range(1, len(strips))
    ]  # a tab lies at one edge of the pile or at the other
    assert plan.pages.thickness.likely == pytest.approx(0.3 * (count + max(sides.count(0), sides.count(1))))


@pytest.mark.parametrize(
    ("sheet", "size", "count"),
    [
        ((700, 500), (120, 160), 8),
        ((500, 350), (120, 160), 12),
        ((420, 297), (100, 140), 9),
        ((297, 210), (95, 140), 7),
        ((1000, 700), (150, 210), 20),
    ],
)
def test_strips_of_a_concertina_against_sheets_cut_up_one_by_one(sheet, size, count):
    """Every way of cutting tried by laying panels along the sheet until none fits; a tab is what is left, and
    eight millimetres at least."""
    wide, high = size
    texts = {
        **PLAIN,
        "brief.size": f"{wide} x {high}",
        "paper.card.size": f"{sheet[0]} x {sheet[1]}",
        "paper.card.grain": "unknown",
        "pages.amount": str(count),
    }
    plan = plan_of("concertina", texts)
    best = None
    for along, across in (sheet, sheet[::-1]):
        laid, at = 0, 0.0
        while at + wide <= along + 0.05 and laid < count:
            laid, at = laid + 1, at + wide
        beside = 0
        while (beside + 1) * high <= across + 0.05:
            beside += 1
        if laid < count and along - at < 8:
            laid -= 1
        if laid > 0 and beside:
            strips = math.ceil(count / laid)
            best = min(best or 999, math.ceil(strips / beside))
    assert plan.cutting.sheets["card"] == best
    assert not [check for _, check in plan.checks if check.key == "B2"]
    panels = sum(
        sum(1 for panel in one.piece.panels if panel.name.startswith("panel")) * one.count
        for one in plan.pages.flats
    )
    assert panels == count


def test_a_strip_of_hills_by_hand():
    """6 leaves of two papers of 0.25, nothing on them; hills of 12, card 0.3: a leaf and its hill take 0.5 +
    0.6 = 1.1, a gap 1.5 with a tenth to spare. Five gaps and a leaf take 8.6; with two boards of 2 the spine
    board is 12.6, so 13, the gaps 6: the case opens
    25. Five gaps 7.5, so each end (25 - 7.5) / 2 = 8.75."""
    plan = plan_of(
        "hills",
        {
            **PLAIN,
            "pages.amount": "6",
            "paper.leaf.readings_mm": "2.5",
            "paper.leaf.measured_sheets": "10",
            "paper.board.thickness_mm": "2 mm",
        },
    )
    assert figure(plan.binding, "gap").value == 1.5
    assert plan.binding.need.likely == pytest.approx(6.6)
    assert plan.cover.shell.strip == 13.0
    assert plan.binding.floor_mm == pytest.approx(25.0)
    assert plan.binding.end_mm == pytest.approx(8.75)
    (strip,) = plan.binding.flats
    assert strip.piece.size_mm[0] == pytest.approx(2 * 25 + 2 * 8.75 + 12 * 12 + 5 * 1.5)
    assert not [check for _, check in plan.checks if check.key == "E1"]


@pytest.mark.every(2)
@pytest.mark.parametrize("name", ["hills", "connectors"])
@pytest.mark.parametrize("count", [2, 5, 9, 14])
@pytest.mark.parametrize("bulk", ["flat", "layered", "bulky"])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_a_hinge_made_by_itself_meets_its_case(name, count, bulk, ruler):
    """Whatever the leaves, the outer folds lie where the three-piece case bends: no E1, in either ruler."""
    plan = plan_of(
        name, {"brief.ruler": ruler, "pages.amount": str(count), "pages.bulk": bulk, "pages.photo": "10x15"}
    )
    assert plan.binding.floor_mm == pytest.approx(
        plan.cover.shell.strip + 2 * plan.cover.shell.joint, abs=0.01
    )
    assert not [check for _, check in plan.checks if check.level == "stop"]


def test_the_residual_of_a_connector_chain_is_the_board_gap_and_at_right_angles_root_two_of_it():
    """A case of front, gap, spine, gap and back; a chain of connectors glued to front and back whose gussets
    leave the gaps out. Flat, the last flange misses the front board by both gaps; shared, by one at either
    end; with the front at right angles, up and across by one each."""
    gap, spine, wide, high = 6.0, 20.0, 150.0, 200.0
    for shared, right_angle in itertools.product((False, True), repeat=2):
        case = piece(
            "case",
            "case",
            [
                Span("front", wide),
                Span("gap a", gap),
                Span("spine", spine),
                Span("gap b", gap),
                Span("back", wide),
            ],
            [Span("", high)],
        )
        chain = piece(
            "chain",
            "card",
            [Span("upper", 20.0), Span("gusset", spine), Span("lower", 20.0)],
            [Span("", high)],
        )
        assembly = Assembly()
        assembly.add(case, "spine")
        assembly.add(chain, "gusset")
        start = wide + gap + (0.0 if shared else gap)
        assembly.lay(("chain", "gusset"), ("case", "spine"), (start, 0.0))
        if right_angle:
            assembly.fold("case", ("front", "gap a", 90.0))
            assembly.fold("chain", ("upper", "gusset", 90.0))
        # where the chain's upper fold lies, and where the board's inner edge is
        fold = assembly.poses["chain", "gusset"].place((20.0, 0.0, 0.0))
        edge = assembly.poses["case", "front"].place((wide, 0.0, 0.0))
        flat_miss = math.dist(fold[:2], edge[:2])
        assert flat_miss == pytest.approx(gap if shared else 2 * gap)
        if right_angle and shared:
            # the joint bends in the middle of the gap: the board's edge then stands a gap up and a gap across
            # from the fold
            corner = (edge[0], gap)
            assert math.hypot(fold[0] - corner[0], corner[1]) == pytest.approx(gap * math.sqrt(2))


def test_what_a_chain_misses_is_told_as_the_arithmetic_has_it():
    """A chain of 3 x 1 + 2 x 1 in a case that bends farther apart: half of what is missing lies at either
    end, and its flanges reach over it."""
    plan = plan_of(
        "connectors",
        {
            **CARD,
            "pages.flips": "none",
            "pages.mats": "no",
            "pages.amount": "4",
            "binding.gusset_mm": "1",
            "binding.end_mm": "1",
        },
    )
    hinge = plan.binding
    opens = plan.cover.shell.strip + 2 * plan.cover.shell.joint
    (check,) = [one for name, one in plan.checks if one.key == "E1" and name == "cover"]
    missing = (opens - (3 * 1 + 2 * 1)) / 2
    assert check.title == f"The hinge folds inside lie 5 mm apart, the cover bends {opens:g} mm apart."
    assert (
        f"reach over {missing:.1f} mm at either side, and {20 - missing:.1f} mm of them are left" in check.why
    )
    assert hinge.floor_mm == 5.0


@pytest.mark.parametrize("name", ["hills", "connectors", "zigzag"])
@settings(max_examples=examples(12))
@given(st.integers(1, 12), st.floats(0.2, 6.0), st.floats(5.0, 40.0))
def test_the_kernel_finds_between_two_hills_what_the_sums_say(name, count, thick, reach):
    """Gaps of a leaf's thickness hold it exactly, as the shut stack has it layer by layer."""
    from pleat.core.pleats.binding.hinged import stack

    made = stack.hills(
        count, (reach, 1.0, reach, thick, reach), (150.0, 200.0), ("card", "album leaf", "case")
    )
    worked = work(made)
    calipers = {"card": Estimate.exact(0.3), "album leaf": Estimate.exact(thick), "case": Estimate.exact(2.0)}
    found = {one.wall[1]: one for one in gussets(worked.assembly, worked.shut, calipers)}
    for number in range(1, count):
        assert found[f"gap {number}"].stiff.likely == pytest.approx(thick, abs=1e-6)
        assert found[f"gap {number}"].has_mm == pytest.approx(thick)
    height = worked.shut.poses["front board", "body"].place((0.0, 0.0, 0.0))[2]
    assert height == pytest.approx((count - 1) * thick + 2 * 1.0), "gaps and ends stand up as the spine"


def test_pairs_in_a_row_by_hand():
    """7 pairs with tabs of 6 and 2 mm beside each: 7 x 6 + 8 x 2 = 58; 4 cords, 8 eyelets; a cord down 148
    - 20 and back, and two knots: 2 x 128 + 160 = 416."""
    plan = plan_of("row", PLAIN)
    assert figure(plan.binding, "row").value == 58.0
    assert {part.key: getattr(part, "count", 0) for part in plan.binding.parts} == {"cord": 4, "eyelets": 8}
    assert plan.binding.parts[0].length_mm == pytest.approx(416.0)
    assert plan.cover.spine.likely == pytest.approx(58 + 2 * plan.paper.cover.caliper.likely)
    narrow = plan_of("row", {**PLAIN, "binding.spine_mm": "40"})
    (check,) = [one for _, one in narrow.checks if one.key == "D11"]
    assert "4 pairs" in check.why, "40 - 2 = 38, 8 a pair"


def test_a_zigzag_by_hand():
    """8 tags: 16 panels of 25 and two ends of 40: 480; thick 8 x (0.3 + 0.6) = 7.2."""
    plan = plan_of("zigzag", PLAIN)
    assert plan.binding.flats[0].piece.size_mm == (480.0, 150.0)
    assert plan.binding.need.likely == pytest.approx(8 * 0.9)


def test_a_long_strip_is_cut_at_the_top_of_a_hill():
    """30 hills do not come out of a sheet 700 long: the strips end at peaks, and their widths add up to the
    whole."""
    plan = plan_of("hills", {**PLAIN, "pages.amount": "30"})
    strips = [one.piece for one in plan.binding.flats]
    assert len(strips) > 1
    assert all(one.size_mm[0] <= 700.05 for one in strips)
    for strip in strips[:-1]:
        assert strip.panels[-1].name.endswith("front")
    _, hill, gap = figure(plan.binding, "hills").how, 12.0, figure(plan.binding, "gap").value
    whole = 2 * 25 + 60 * hill + 29 * gap + 2 * plan.binding.end_mm
    assert sum(one.size_mm[0] for one in strips) == pytest.approx(whole)


@settings(max_examples=examples(200))
@given(
    st.floats(20, 400),
    st.floats(20, 400),
    st.sampled_from(sorted(set(PHOTOS) - {"none", "own"})),
    st.floats(0, 20),
)
def test_places_on_a_paper_against_things_laid_one_by_one(width, height, photo, border):
    """Rows and columns laid until the next would come too near the edge."""
    fill = filling(Dressed(kind="x", photo=photo, border_mm=border))
    count, each = places(width, height, fill)
    best = 0
    for wide, high in ((fill.width_mm, fill.height_mm), (fill.height_mm, fill.width_mm)):
        columns = rows = 0
        while border + (columns + 1) * (wide + border) <= width + 1e-6:
            columns += 1
        while border + (rows + 1) * (high + border) <= height + 1e-6:
            rows += 1
        best = max(best, columns * rows)
    assert count == best
    assert {round(one, 6) for one in each} == {round(fill.width_mm, 6), round(fill.height_mm, 6)}


@pytest.mark.parametrize(
    ("name", "width", "height"),
    [
        ("4x6", 101.6, 152.4),
        ("5x7", 127.0, 177.8),
        ("3.5x5", 88.9, 127.0),
        ("a6", 105, 148),
        ("a7", 74, 105),
        ("card", 53.98, 85.6),
        ("10x15", 100, 150),
    ],
)
def test_sizes_by_name_are_those_of_the_standards(name, width, height):
    """Inches of 25.4 mm; ISO 216; ISO/IEC 7810 ID-1, 85.60 x 53.98 mm."""
    assert PHOTOS[name][1:] == pytest.approx((width, height))


def test_papers_of_a_pad_go_where_they_show_most():
    """Liked 3, 1, then 2 and 4 of four designs with plenty of sheets: ten faces in the order they show are
    three of 3, three of 1, three of 2 and one of 4."""
    plan = plan_of("crossfold", {"paper.mat.designs": "4", "paper.mat.each": "9", "pages.liked": "3 1"})
    (offer,) = [one for one in plan.pages.offers if one.group == "papers"]
    given_ = dict(offer.changes)["pages.given"]
    ranked = sorted(plan.pages.made.dressings, key=lambda one: (-round(one.shown, 6), one.name))
    assert [given_[one.name] for one in ranked] == [3, 3, 3, 1, 1, 1, 2, 2, 2, 4]
    assert ranked[0].shown > ranked[-1].shown
    assert order_of("nonsense 9 2", 3) == (2, 1, 3)
    assert set(assigned(ranked, (1, 2), 2).values()) == {1, 2}, "what the sheets do not reach shares the last"


def test_a_border_said_of_both_sides_is_half_of_it_on_each():
    one = plan_of("crossfold", {"pages.border_mm": "6", "pages.border_said": "whole"}).pages.made.dressings
    other = plan_of("crossfold", {"pages.border_mm": "3"}).pages.made.dressings
    assert [(a.width_mm, a.height_mm) for a in one] == [(b.width_mm, b.height_mm) for b in other]


@pytest.mark.parametrize(
    ("amount", "unit", "leaves"), [(8, "leaves", 8), (8, "pages", 4), (9, "pages", 5), (1, "unsaid", 1)]
)
def test_a_leaf_has_two_pages(amount, unit, leaves):
    assert leaves_of(amount, unit) == leaves


def test_a_glued_panel_is_one_thickness_more_and_a_board_is_no_card():
    """The least model: a board on a board."""
    assembly = Assembly()
    assembly.add(board("one", "case", 10, 10))
    assembly.add(board("two", "case", 10, 10))
    assembly.lay(("two", "body"), ("one", "body"), (0.0, 0.0))
    assert [key[0] for key in assembly.mark("x").pile] == ["one", "two"]
