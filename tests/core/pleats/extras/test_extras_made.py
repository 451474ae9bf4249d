"""What is put in, placed and made: names of faces last, parts and steps for every place, designs on many
faces; nothing nonsense breaks it."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.extras import placing
from pleat.core.pleats.extras.faces import inner_faces
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan
from tests.profiles import examples
from tests.put import POCKET, at, keys, of, put
from tests.strategies import put_in


def test_an_album_leaf_and_a_cover_are_named_and_a_bare_book_has_no_cover():
    names = [face.name for face in make_plan(of("journal")).extras.faces]
    assert (names[0], names[1], names[-1], len(names)) == (
        "inside front cover",
        "page 1",
        "inside back cover",
        2 * 16 + 2,
    )
    assert not any(face.cover for face in make_plan(of("programme")).extras.faces)
    facing = {face.name: face.facing for face in make_plan(of("journal")).extras.faces}
    assert (facing["inside front cover"], facing["page 1"], facing["page 2"], facing["page 3"]) == (
        "page 1",
        "inside front cover",
        "page 3",
        "page 2",
    )


def test_names_of_faces_last_when_the_book_grows_and_a_lost_place_is_kept():
    book = put(of("journal"), {**POCKET, "places": at("page 30", 10, 40)})
    larger = editing.edit(book, {"pages.count": "40 pages"})
    assert make_plan(larger).extras.items[0].spots[0].face.name == "page 30"
    smaller = editing.edit(book, {"pages.count": "16 pages"})
    plan = make_plan(smaller)
    assert (len(plan.extras.items[0].spots), len(plan.extras.items[0].lost)) == (0, 1)
    assert not [cut for cut in plan.cutting.cuts if "d0" in cut.part.key], "it is not cut"
    assert plan.extras.bulk.volume_mm3 == 0
    back = editing.edit(smaller, {"pages.count": "32 pages"})
    assert make_plan(back).extras.items[0].spots[0].x_mm == 10


def test_parts_are_cut_for_every_place_and_every_book():
    design = {**POCKET, "places": [{"on": f"page {n}"} for n in (3, 9, 15)]}
    plan = make_plan(put(of("journal", ("brief.quantity", 4)), design))
    assert [cut.part.count for cut in plan.cutting.cuts if cut.part.key == "extra_d0"] == [12]
    assert "card" in plan.paper.roles


def test_steps_come_in_an_order_that_can_be_done():
    """Cut-outs while the sheet is flat, mats before what sits on them, glue dry before anything slides in;
    nothing is filled before all is on."""
    book = put(
        of("longstitch"),
        {"kind": "window", "places": at("page 3")},
        {"kind": "mat", "places": at("page 5")},
        {"kind": "picture", "goes": "a7", "places": at("page 5")},
        {**POCKET, "places": at("page 9")},
        {"kind": "eyelet", "places": at("page 13", 5, 5)},
        {"kind": "booklet", "way": "sewn", "places": at("page 17")},
    )
    order = [one.step.key for one in make_plan(book).bench.work]
    place = {key: number for number, key in enumerate(order)}
    assert place["extra_d0_flat"] < min(number for key, number in place.items() if "fold" in key)
    assert max(place["extra_d4_flat"], place["extra_d5_flat"]) < min(
        number for key, number in place.items() if "fold" in key
    )
    assert place["extra_d1_fix"] < place["extra_d2_fix"]
    assert place["extra_d3_make"] < place["extra_d3_fix"] < place["extras_fill"]
    assert "Knife" in " ".join(
        next(one.step for one in make_plan(book).bench.work if one.step.key == "extra_d0_flat").cautions
    )


LATE = {
    "G2": ({"kind": "eyelet", "places": at("page 5", 5, 5)}, "extra_d0_flat", "leaves.flat"),
    "F4": ({"kind": "window", "places": at("page 5")}, "extra_d0_flat", "leaves.flat"),
    "F3": ({"kind": "fastener", "places": at("page 5")}, "extra_d0_fix", "fastener.face"),
}


@pytest.mark.parametrize("slip", ["G2", "F4"])
def test_what_wants_flat_sheets_is_missed_once_they_are_folded(slip):
    design, key, place = LATE[slip]
    book = put(of("longstitch"), design)
    work = make_plan(book).bench.work
    later = next(one.step for one in work if place in one.step.closes)
    early = editing.apply(book, (("bench.ticks", {later.key: later.signature}),))
    found = [check for check in make_plan(early).bench.checks if check.key == slip]
    assert found
    assert found[0].level == "stop"
    in_time = editing.apply(
        book,
        (
            (
                "bench.ticks",
                {
                    one.step.key: one.step.signature
                    for one in work[: [w.step.key for w in work].index(later.key) + 1]
                },
            ),
        ),
    )
    assert slip not in {check.key for check in make_plan(in_time).bench.checks}
    for offer in found[0].offers:
        assert slip not in {
            check.key for check in make_plan(editing.apply(early, offer.changes)).bench.checks
        }
    assert key in [one.step.key for one in work]


def test_a_pocket_is_hidden_behind_a_flap_that_frees_its_mouth_when_it_is_lifted():
    """By hand: 7 mm round a pocket of 100 × 80 at 20 and 90, 20 that stand out at its head, a tab of 15
    beyond."""
    book = put(
        of("journal"),
        {
            **POCKET,
            "goes": "own",
            "goes_width_mm": 70,
            "goes_height_mm": 88,
            "width_mm": 100,
            "height_mm": 80,
            "places": at("page 5", 20, 90),
        },
    )
    plan = make_plan(book)
    assert plan.extras.items[0].thing.stands_mm == pytest.approx(88 - 80)
    (offer,) = [one for one in plan.extras.offers if one.group == "with d0"]
    after = make_plan(editing.apply(book, offer.changes))
    flap = after.extras.items[1]
    assert flap.spots[0].box == pytest.approx((13, 90 - 8 - 7 - 15, 127, 90 + 80 + 7))
    assert "F2" not in keys(editing.apply(book, offer.changes))
    assert not [one for one in after.extras.offers if one.group == "with d0"], "once is enough"


@pytest.mark.parametrize("side", ["head", "tail", "left", "right"])
@pytest.mark.parametrize("kind", ["pocket", "waterfall", "band"])
@pytest.mark.parametrize("face", ["page 4", "page 5"])
@given(x=st.floats(-20, 140), y=st.floats(-20, 200), size=st.floats(20, 130))
@settings(max_examples=examples(12))
def test_a_flap_that_hides_is_offered_where_it_fits_and_shuts_nothing(kind, side, face, x, y, size):
    book = put(
        of("journal"),
        {
            "kind": kind,
            **({"mouth": side, "width_mm": size, "height_mm": size} if kind == "pocket" else {}),
            "places": at(face, x, y),
        },
    )
    for offer in [one for one in make_plan(book).extras.offers if one.group.startswith("with")]:
        after = make_plan(editing.apply(book, offer.changes)).extras
        hidden, flap = after.items[0].spots[0].box, after.items[1].spots[0]
        assert flap.box[0] <= hidden[0]
        assert flap.box[1] <= hidden[1]
        assert flap.box[2] >= hidden[2]
        assert flap.box[3] >= hidden[3]
        assert {check.key for check in after.checks} - {
            check.key for check in make_plan(book).extras.checks
        } <= {"F6", "F5"}


@pytest.mark.parametrize("mouth", ["head", "tail", "left", "right"])
@pytest.mark.parametrize("deep", [60.0, 120.0])
def test_a_pull_is_cut_from_where_it_is_glued_to_where_it_stands_out(mouth, deep):
    """Of a card 50 × 80 in a pocket: 15 glued, what lies between its edge and the mouth, and 12 past
    whichever is farther out."""
    upright = mouth in ("head", "tail")
    sizes = {"width_mm": 80, "height_mm": deep} if upright else {"width_mm": deep, "height_mm": 80}
    goes = {
        "goes": "own",
        "goes_width_mm": 50 if upright else 80,
        "goes_height_mm": 80 if upright else 50,
        "lies": "upright",
    }
    book = put(
        of("journal"),
        {"kind": "pocket", "mouth": mouth, "stand_mm": 0, "places": at("page 5", 20, 40), **sizes, **goes},
    )
    without_pull = make_plan(book).extras.items[0].thing
    inside_by = deep - 80
    assert ("grip" in {check.key for check in without_pull.checks}) == (inside_by > 0)
    pulled = make_plan(editing.apply(book, (("extras.items.d0.pull_mm", 12.0),)))
    thing = pulled.extras.items[0].thing
    assert thing.figures[-1].value == pytest.approx(15 + max(inside_by, 0.0) + 12)
    assert thing.stands_mm == pytest.approx(max(-inside_by, 0.0) + 12)
    strip = next(part for part in pulled.parts if part.key.startswith("extra_d0 pull"))
    assert sorted((strip.width_mm, strip.height_mm)) == pytest.approx(
        sorted((20, 15 + max(inside_by, 0.0) + 12))
    )
    assert "grip" not in {check.key for check in thing.checks}
    assert "Glue the pull" in thing.work.make


COVER_USED = {
    "cover_scored",
    "cover_hinge",
    "cover_punch",
    "score_strips",
    "sheathe",
    "glue_boards",
    "boards",
    "hang_in",
    "glue_strips",
    "cover_on",
}


@pytest.mark.parametrize("name", [one.name for one in RECIPES if one.book().cover.kind != "bare"])
def test_what_goes_through_a_cover_is_done_after_it_is_cut_and_before_it_is_folded_covered_or_hung(name):
    """A window while board or card is flat; an eyelet through covered boards once they are dry; neither has
    to do with the leaves."""
    holes = (
        {"kind": "window", "places": at("inside front cover")},
        {"kind": "eyelet", "places": at("inside back cover")},
    )
    plan = make_plan(put(of(name), *holes))
    work = {one.step.key: number for number, one in enumerate(plan.bench.work)}
    cut = [number for key, number in work.items() if key in ("cut_cover", "cut_board")]
    dry = [number for key, number in work.items() if key == "dry_cover"]
    covered = "covering" in plan.brief.made_of.cover.roles
    assert max(cut) < work["extra_d0_cover"]
    assert max(dry if covered else cut) < work["extra_d1_cover"]
    after = COVER_USED & work.keys()
    assert after, "something waits for it"
    for key in after:
        assert work["extra_d0_cover"] < work[key]
        assert work["extra_d1_cover"] < work[key] or (covered and key == "glue_boards")
    assert {"extra_d0_flat", "extra_d1_flat"}.isdisjoint(work)
    late = next(one.step for one in plan.bench.work if one.step.key in after)
    told = make_plan(
        editing.apply(put(of(name), *holes), (("bench.ticks", {late.key: late.signature}),))
    ).bench.checks
    assert "F4" in {check.key for check in told}
    boards = {"board", "covering"} & set(plan.brief.made_of.cover.roles)
    assert ("Board:" in " ".join(plan.bench.work[work["extra_d0_cover"]].step.cautions)) == bool(boards)


@pytest.mark.parametrize("text", ["", "20; 35", "20 mm; 35 mm", "1 in; 2 1/2 in", "0; 0"])
def test_a_place_is_typed_as_two_lengths_and_shown_as_it_was_typed(text):
    book = put(of("journal"), {**POCKET, "places": at("page 5", 1, 2)})
    after = editing.edit(book, {"extras.items.d0.place.0": text})
    place = after.extras.items["d0"].places[0]
    if not text:
        assert (place.x_mm, place.y_mm) == (None, None)
    else:
        assert editing.edit(after, {"extras.items.d0.place.0": placing.shown(place, "mm")}) == after


@pytest.mark.parametrize("text", ["20", "a; b", "1; 2; 3", "20; -900", "1e9; 2", "; ;", "💥", "20 35 50"])
def test_a_place_that_is_none_is_told_and_changes_nothing(text):
    book = put(of("journal"), {**POCKET, "places": at("page 5", 1, 2)})
    with pytest.raises(BadBook) as error:
        editing.edit(book, {"extras.items.d0.place.0": text})
    assert error.value.problems[0].message
    with pytest.raises(BadBook):
        editing.edit(book, {"extras.items.d0.place.7": "20; 20"})


def test_designs_are_put_in_under_keys_of_their_own_put_on_more_faces_and_taken_off():
    book = of("journal")
    for number in range(3):
        book = editing.apply(book, placing.added(book.extras, "pocket", f"page {2 * number + 1}"))
    assert list(book.extras.items) == ["pocket-1", "pocket-2", "pocket-3"]
    book = editing.apply(book, placing.also_on(book.extras, "pocket-1", "page 9"))
    assert [place.on for place in book.extras.items["pocket-1"].places] == ["page 1", "page 9"]
    assert placing.also_on(book.extras, "pocket-1", "page 9") is None
    book = editing.apply(book, placing.off(book.extras, "pocket-1", 0))
    assert [place.on for place in book.extras.items["pocket-1"].places] == ["page 9"]
    book = editing.apply(book, placing.off(book.extras, "pocket-1", 0))
    assert "pocket-1" not in book.extras.items
    book = editing.apply(book, placing.added(book.extras, "pocket", "page 1"))
    assert "pocket-1" in book.extras.items
    assert placing.added(book.extras, "no such", "page 1") is None
    assert placing.off(book.extras, "no such", 0) is None


def test_a_design_goes_on_many_faces_at_once_and_stays_on_the_leaves():
    book = put(of("longstitch"), {**POCKET, "places": at("page 5", 20, 60)})
    offers = {
        offer.label.split(":")[0]: offer
        for offer in make_plan(book).extras.offers
        if offer.group == "spread d0"
    }
    assert set(offers) == {"on every third leaf", "on every leaf", "in alternate corners", "on facing pairs"}
    for offer in offers.values():
        after = make_plan(editing.apply(book, offer.changes))
        spots = after.extras.items[0].spots
        assert len(spots) > 1
        assert not any(spot.face.cover for spot in spots)
        assert not {check.key for check in after.extras.checks} & {"A6", "F9"}
    pairs = make_plan(editing.apply(book, offers["on facing pairs"].changes)).extras.items[0].spots
    left, right = pairs[0], pairs[1]
    assert left.face.facing == right.face.name
    assert left.face.width_mm - left.box[2] == pytest.approx(right.x_mm), "mirrored about the fold"


@settings(
    max_examples=examples(80),
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)
@given(st.data())
def test_whatever_is_put_anywhere_is_planned_and_its_fixes_apply(data):
    """Any kind with any sizes its fields take, on any face of four very different books: a plan, finite
    figures, and offers that apply."""
    book = of(data.draw(st.sampled_from(["journal", "rings", "hills", "nested"])))
    faces = [face.name for face in make_plan(book).extras.faces] + ["page 999"]
    book = book.model_copy(update={"extras": data.draw(put_in(faces))})
    plan = make_plan(book)
    assert math.isfinite(plan.extras.bulk.volume_mm3)
    for item in plan.extras.items:
        for spot in item.spots:
            assert min(spot.thing.width_mm, spot.thing.height_mm) > 0
            assert all(min(layer.width_mm, layer.height_mm) >= 0 for layer in spot.thing.layers)
    for check in plan.extras.checks:
        for offer in check.offers:
            assert editing.apply(book, offer.changes) != book


@settings(
    max_examples=examples(40),
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)
@given(st.data())
def test_a_plan_that_starts_from_the_one_before_is_the_plan_made_anew(data):
    """Designs changed, added, taken out or of one title with another, on a leaf of another size or ruler, in
    any order of edits."""
    name = data.draw(st.sampled_from(["journal", "rings", "nested"]))
    faces = [face.name for face in make_plan(of(name)).extras.faces][:12]
    plan = None
    for _ in range(3):
        book = of(
            name,
            *data.draw(
                st.sampled_from(
                    [
                        (),
                        (("brief.ruler", "in"),),
                        (("brief.leaf_width_mm", 111.0),),
                        (("cover.kind", "bare"),),
                    ]
                )
            ),
        )
        kept = {one.key: one.record for one in plan.extras.items} if plan and data.draw(st.booleans()) else {}
        book = book.model_copy(update={"extras": Extras(items={**kept, **data.draw(put_in(faces)).items})})
        after = make_plan(book, before=plan)
        assert after == make_plan(book)
        assert after.extras.steps == make_plan(book).extras.steps
        plan = after
    again = make_plan(editing.edit(book, {"brief.quantity": "2"}), before=plan)
    assert again == make_plan(editing.edit(book, {"brief.quantity": "2"}))


@pytest.mark.parametrize(
    "name", [one.name for one in RECIPES if isinstance(make_plan(one.book()).pages, FoldedBlock)]
)
def test_the_faces_of_a_structure_are_where_they_are_with_everything_on_it(name):
    """They are read off the structure folded without its papers where that is known: the same places, without
    folding it again."""
    block: Any = make_plan(of(name)).pages
    again = replace(block, made=replace(block.made, bare=None))
    assert inner_faces(block) == inner_faces(again)
    plan = make_plan(of(name))
    assert "faces" not in vars(plan.extras), "not before they are asked for"
    known = {
        "key_figure",
        "figures",
        "checks",
        "offers",
        "parts",
        "steps",
        "added",
        "worst",
        "items",
        "bulk",
        "faces",
    }
    assert set(plan_data(plan)["extras"]) == known, "nothing of what it was worked out from goes out"
    assert [face.name for face in plan.extras.faces if not face.cover] == [
        face.name for face in inner_faces(block)
    ]


@pytest.mark.parametrize("pockets", [0, 3])
@pytest.mark.parametrize("ends", ["glued", "slide"])
def test_a_band_that_runs_down_is_one_across_turned(ends, pockets):
    """On a square leaf it has the pieces of the other with their sides exchanged, holds what goes in turned
    round, and opens to the sides."""
    square = [("brief.leaf_width_mm", 150.0), ("brief.leaf_height_mm", 150.0)]
    design = {
        "kind": "band",
        "ends": ends,
        "pockets": pockets,
        "height_mm": 48.0,
        "goes": "a7",
        "places": at("page 7"),
    }
    across, down = (
        make_plan(editing.apply(put(of("journal"), {**design, **more}), square)).extras.items[0].thing
        for more in ({"runs": "across", "lies": "level"}, {"runs": "down", "lies": "upright"})
    )
    assert (down.width_mm, down.height_mm) == (across.height_mm, across.width_mm) == (48.0, 150.0)
    assert [one.size_mm[::-1] for one in down.pieces] == [one.size_mm for one in across.pieces]
    assert len(across.pieces) == 1 + pockets
    assert [(one.x_mm, one.y_mm, one.width_mm, one.height_mm) for one in down.layers] == [
        (one.y_mm, one.x_mm, one.height_mm, one.width_mm) for one in across.layers
    ]
    assert (across.mouth.side, down.mouth.side) == ("head", "left")
    assert down.mouth.throat_mm == across.mouth.throat_mm
    for one in down.pieces:
        assert set(one.glued) <= {panel.name for panel in one.panels}
