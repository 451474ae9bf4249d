"""What is put in: pieces and throats by geometry, the same on every kind of book; each slip caught and told apart; every fix mends; nothing nonsense breaks it."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from pleat.core import editing
from pleat.core.errors import BadBook
from pleat.core.extras import placing
from pleat.core.extras.faces import inner_faces
from pleat.core.extras.goesin import EASE_MM
from pleat.core.extras.gussets import most, side_of, within
from pleat.core.extras.record import Extras
from pleat.core.pages.folded import FoldedBlock
from pleat.core.planfile import plan_data
from pleat.core.planning import make_plan
from pleat.core.recipes import RECIPES
from pleat.core.structures.dressing import PHOTOS
from pleat.core.units import RULERS
from tests.put import at, keys, of, put, told
from tests.strategies import put_in

ISO = {"a6": (105, 148), "a7": (74, 105), "card": (53.98, 85.60)}
"""ISO 216 and ISO/IEC 7810 ID-1, in mm, from memory."""
INCHES = {"3.5x5": (3.5, 5), "4x6": (4, 6), "5x7": (5, 7)}
POCKET = {"kind": "pocket", "goes": "card", "goes_thick_mm": 0.8}


def first(book):
    return make_plan(book).extras.items[0].spots[0].thing


def test_what_goes_in_has_its_standard_size():
    for name, (wide, high) in ISO.items():
        assert PHOTOS[name][1:] == pytest.approx((wide, high), abs=0.5), name
    for name, (wide, high) in INCHES.items():
        assert PHOTOS[name][1:] == pytest.approx((wide * 25.4, high * 25.4), abs=0.3), name


@pytest.mark.parametrize("stands", [0, 10, 20, 35])
@pytest.mark.parametrize("name", ["card", "a7", "4x6"])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_a_pocket_for_a_card_has_a_throat_it_slides_through_and_stands_out_as_wanted(name, stands, ruler):
    """Card + ease + a tab on each side wide, card - standing + a tab high; the piece is two tabs wider and one higher."""
    step = RULERS[ruler].step_mm
    thing = first(put(of("journal", ("brief.ruler", ruler)), {**POCKET, "goes": name, "stand_mm": stands, "places": at("page 12")}))
    wide, high = PHOTOS[name][1:]
    assert 0 <= thing.width_mm - (wide + EASE_MM + 24) < step + 1e-6
    assert 0 <= thing.height_mm - (high - stands + 12) < step + 1e-6
    assert thing.mouth.throat_mm == pytest.approx(thing.width_mm - 24)
    assert thing.mouth.depth_mm == pytest.approx(thing.height_mm - 12)
    assert high - thing.mouth.depth_mm == pytest.approx(thing.stands_mm, abs=1e-6) or not thing.stands_mm
    assert thing.stands_mm <= stands + 1e-6
    piece = thing.pieces[0]
    assert piece.size_mm == pytest.approx((thing.width_mm + 24, thing.height_mm + 12))
    assert wide <= thing.mouth.throat_mm - EASE_MM + 1e-6
    assert not told(make_plan(put(of("journal"), {**POCKET, "goes": name, "stand_mm": stands, "places": at("page 12", 5, 50)})), "F1")


@pytest.mark.parametrize("name", ["card", "a7", "4x6", "5x7", "a6"])
def test_what_fits_a_pocket_is_what_it_was_made_for_and_what_is_smaller(name):
    thing = first(put(of("case"), {**POCKET, "goes": name, "places": at("page 12")}))
    fits = next(figure.value for figure in thing.figures if figure.key == "fits")
    assert PHOTOS[name][0] in fits
    for title, wide, high in PHOTOS.values():
        if wide and title in fits.replace(" and ", ", ").split(", "):
            assert min(wide, high) <= thing.mouth.throat_mm - EASE_MM + 0.1


@pytest.mark.parametrize("way", ["glued", "clear", "envelope"])
def test_glue_takes_a_quarter_inch_and_an_envelope_its_seam(way):
    thing = first(put(of("journal"), {**POCKET, "way": way, "width_mm": 100, "height_mm": 80, "places": at("page 5")}))
    lost = {"glued": 6, "clear": 6, "envelope": 1}[way]
    assert thing.mouth.throat_mm == 100 - 2 * lost
    assert thing.mouth.depth_mm == 80 - lost
    assert bool(thing.pieces) == (way == "glued")
    assert bool(thing.counts) == (way != "glued"), "film and envelopes are counted out"


def test_a_corner_pocket_and_a_slants_offcut_are_right_angled_triangles():
    corner = first(put(of("journal"), {"kind": "corner", "side_mm": 80, "places": at("page 5")}))
    assert corner.mouth.throat_mm == pytest.approx(math.hypot(80, 80) - 12)
    assert Polygon(corner.outline).area == pytest.approx(80 * 80 / 2)
    design = {**POCKET, "goes": "none", "width_mm": 90, "height_mm": 100, "slant_mm": 40, "offcut": "second", "places": at("page 5")}
    slanted = first(put(of("journal"), design))
    second = next(figure for figure in slanted.figures if figure.key == "second")
    assert second.value == pytest.approx(math.hypot(90, 40) - 12)
    assert Polygon(slanted.outline).area == pytest.approx(90 * 100 - 90 * 40 / 2)


@pytest.mark.parametrize(("pockets", "depth", "step"), [(2, 40, 15), (3, 40, 15), (5, 25, 10), (10, 20, 5)])
def test_a_waterfall_folds_up_to_its_mouths_and_down_to_one_floor(pockets, depth, step):
    """Folded by hand: up to a mouth, down to the floor, and the back a step above the last mouth."""
    design = {
        "kind": "waterfall",
        "goes": "none",
        "width_mm": 100,
        "pockets": pockets,
        "depth_mm": depth,
        "step_mm": step,
        "places": at("page 5"),
    }
    thing = first(put(of("journal"), design))
    edges = sorted({round(y, 6) for one in thing.pieces[0].panels for _, y in one.outline})
    panels = [low - high for high, low in pairwise(edges)]
    height, mouths = float(depth), [depth]
    for number, panel in enumerate(panels):
        height += panel if number % 2 else -panel
        if number % 2:
            mouths.append(height)
        else:
            assert height == pytest.approx(0), "every floor on one line"
    assert mouths[:-1] == pytest.approx([depth + number * step for number in range(pockets)])
    assert (len(panels), mouths[-1], thing.height_mm) == (
        2 * pockets,
        pytest.approx(depth + pockets * step),
        pytest.approx(depth + pockets * step),
    )


SEWN, RINGS, ALBUM = of("longstitch"), of("rings"), of("crossfold")
SAME = {
    "pocket": POCKET,
    "corner": {"kind": "corner", "side_mm": 60},
    "waterfall": {"kind": "waterfall", "goes": "card", "lies": "level"},
    "band": {"kind": "band", "goes": "none", "width_mm": 90},
    "tag": {"kind": "picture", "goes": "a7", "stock": "card"},
}


def panel_of(book):
    return next(face.name for face in make_plan(book).extras.faces if not face.cover)


@pytest.mark.parametrize("design", SAME.values(), ids=SAME)
def test_the_same_thing_on_a_sewn_leaf_a_ring_page_and_an_album_panel_is_the_same_piece(design):
    things = [first(put(book, {**design, "places": at(panel_of(book))})) for book in (SEWN, RINGS, ALBUM)]
    sizes = [[(piece.size_mm, piece.outlines) for piece in thing.pieces] for thing in things]
    assert sizes[0]
    assert sizes[0] == sizes[1] == sizes[2]
    assert len({(thing.width_mm, thing.height_mm, thing.mouth and thing.mouth.throat_mm) for thing in things}) == 1


THICK = {"kind": "booklet", "width_mm": 60, "height_mm": 80, "thick_mm": 3.0, "doubt_mm": 0.2}
FLAP = {"kind": "flap", "goes": "none", "width_mm": 60, "height_mm": 50}
ONE_SIDED = ("paper.card.sides", 1)
SLIPS = {
    # what is told: (book, changes, what commits it, what does not)
    "A6: its face is gone": ("journal", (), [{**POCKET, "places": at("page 999")}], [{**POCKET, "places": at("page 9")}]),
    "B9: the blank side of a flap": (
        "journal",
        (ONE_SIDED,),
        [{**FLAP, "places": at("page 5")}],
        [{**FLAP, "stock": "leaf", "places": at("page 5")}],
    ),
    "B10: a pattern on its head": (
        "journal",
        (("paper.card.pattern", "directional"),),
        [{**FLAP, "hinge": "tail", "places": at("page 5")}],
        [{**FLAP, "hinge": "right", "places": at("page 5")}],
    ),
    "B11: leaves of card": (
        "sketchbook",
        (("pages.amount", 60), ("paper.leaf.grammage", 400.0)),
        [{**POCKET, "places": at("page 5")}],
        None,
    ),
    "C6: a fold-out into the gutter": (
        "journal",
        (),
        [{**FLAP, "way": "foldout", "hinge": "right", "width_mm": 140, "places": at("page 5")}],
        [{**FLAP, "way": "foldout", "hinge": "right", "width_mm": 120, "places": at("page 5")}],
    ),
    "D10: a key ring held by glue": (
        "journal",
        (),
        [{"kind": "tab", "way": "loop", "places": at("page 5")}],
        [{"kind": "tab", "way": "loop", "strong": "brad", "places": at("page 5")}],
    ),
    "D10: a brad wider than its strip": (
        "journal",
        (),
        [{"kind": "tab", "wide_mm": 9, "strong": "brad", "places": at("page 5")}],
        [{"kind": "tab", "wide_mm": 18, "strong": "brad", "places": at("page 5")}],
    ),
    "F1: as wide as its pocket": (
        "journal",
        (),
        [{**POCKET, "way": "glued", "width_mm": 66, "height_mm": 70, "places": at("page 5")}],
        [{**POCKET, "way": "glued", "width_mm": 70, "height_mm": 74, "places": at("page 5")}],
    ),
    "F1: higher than wanted": (
        "journal",
        (),
        [{**POCKET, "width_mm": 90, "height_mm": 40, "places": at("page 5", 10, 100)}],
        [{**POCKET, "width_mm": 90, "height_mm": 80, "places": at("page 5", 10, 100)}],
    ),
    "F1: behind a band": (
        "journal",
        (),
        [{"kind": "band", "goes": "a6", "lies": "level", "places": at("page 5")}],
        [{"kind": "band", "goes": "a6", "places": at("page 5")}],
    ),
    "F1: in a waterfall": (
        "journal",
        (),
        [{"kind": "waterfall", "goes": "a6", "width_mm": 112, "places": at("page 5")}],
        [{"kind": "waterfall", "goes": "a6", "width_mm": 121, "places": at("page 5", 10, 100)}],
    ),
    "F2: behind a glue tab": (
        "journal",
        (),
        [{**POCKET, "width_mm": 70, "height_mm": 80, "places": at("page 5")}],
        [{**POCKET, "width_mm": 82, "height_mm": 80, "places": at("page 5")}],
    ),
    "F2: a mouth glued shut": (
        "journal",
        (),
        [{**POCKET, "places": at("page 5", 20, 100)}, {"kind": "picture", "goes": "card", "places": at("page 5", 30, 40)}],
        [{**POCKET, "places": at("page 5", 20, 100)}, {"kind": "picture", "goes": "3x3", "places": at("page 5", 30, 5)}],
    ),
    "F2: a mouth in the gutter": (
        "journal",
        (),
        [{**POCKET, "mouth": "left", "places": at("page 5", 22, 50)}],
        [{**POCKET, "mouth": "right", "places": at("page 5", 22, 50)}],
    ),
    "F3: nothing to hold on to": (
        "linkbare",
        (),
        [{"kind": "fastener", "places": at("page 1")}],
        [{"kind": "fastener", "places": at("page 2")}],
    ),
    "F4: the mat after what lies on it": (
        "journal",
        (),
        [{"kind": "picture", "goes": "a7", "places": at("page 5")}, {"kind": "mat", "places": at("page 5")}],
        [{"kind": "mat", "places": at("page 5")}, {"kind": "picture", "goes": "a7", "places": at("page 5")}],
    ),
    "F5: the book gapes": (
        "journal",
        (),
        [{**THICK, "places": at("page 5")}],
        [{**THICK, "thick_mm": 1.0, "doubt_mm": 0.1, "places": at("page 5")}],
    ),
    "F6: all on one spot": (
        "journal",
        (),
        [{**THICK, "thick_mm": 1.0, "places": [{"on": f"page {n}", "x_mm": 10, "y_mm": 10} for n in (5, 7, 9)]}],
        [
            {
                **THICK,
                "thick_mm": 1.0,
                "places": [{"on": f"page {n}", "x_mm": x, "y_mm": y} for n, x, y in ((5, 10, 10), (7, 80, 10), (9, 10, 110))],
            }
        ],
    ),
    "F7: hinged at the spine": (
        "journal",
        (),
        [{**FLAP, "hinge": "left", "places": at("page 5")}],
        [{**FLAP, "hinge": "right", "places": at("page 5")}],
    ),
    "F7: flaps into each other": (
        "journal",
        (),
        [{**FLAP, "places": at("page 5", 20, 40)}, {**FLAP, "hinge": "tail", "places": at("page 5", 30, 60)}],
        [{**FLAP, "places": at("page 5", 20, 40)}, {**FLAP, "hinge": "tail", "places": at("page 5", 20, 100)}],
    ),
    "F9: longer than its page": (
        "pocket",
        (),
        [{**THICK, "height_mm": 170, "places": at("page 5")}],
        [{**THICK, "height_mm": 120, "places": at("page 5")}],
    ),
    "F9: past the edge": ("journal", (), [{**THICK, "places": at("page 5", 100, 10)}], [{**THICK, "places": at("page 5", 80, 10)}]),
    "F9: what stands out is past it": (
        "journal",
        (),
        [{**POCKET, "stand_mm": 40, "places": at("page 5", 20, 20)}],
        [{**POCKET, "stand_mm": 40, "places": at("page 5", 20, 45)}],
    ),
    "F10: larger than its mat": (
        "journal",
        (),
        [{"kind": "mat", "width_mm": 80, "height_mm": 100, "goes": "a6", "places": at("page 5")}],
        [{"kind": "mat", "goes": "a6", "places": at("page 5")}],
    ),
    "F10: larger than its frame": (
        "journal",
        (),
        [{"kind": "mat", "way": "frame", "width_mm": 80, "height_mm": 100, "goes": "a6", "places": at("page 5")}],
        [{"kind": "mat", "way": "frame", "goes": "a6", "places": at("page 5")}],
    ),
    "overlap: one below the other": (
        "journal",
        (),
        [{**THICK, "places": at("page 5", 20, 20)}, {"kind": "picture", "goes": "a7", "places": at("page 5", 30, 30)}],
        [{**THICK, "places": at("page 5", 5, 5)}, {"kind": "picture", "goes": "a7", "places": at("page 5", 70, 100)}],
    ),
    "slant: more than half its height": (
        "journal",
        (),
        [{**POCKET, "slant_mm": 60, "places": at("page 5")}],
        [{**POCKET, "slant_mm": 30, "places": at("page 5")}],
    ),
    "slant: at its side": (
        "journal",
        (),
        [{**POCKET, "mouth": "right", "slant_mm": 20, "places": at("page 5")}],
        [{**POCKET, "mouth": "right", "places": at("page 5")}],
    ),
    "holds: magnets through padding": (
        "journal",
        (),
        [{"kind": "fastener", "through": "padded", "places": at("page 5")}],
        [{"kind": "fastener", "way": "dot", "through": "padded", "places": at("page 5")}],
    ),
    "holds: magnets too small": (
        "journal",
        (),
        [{"kind": "fastener", "across_mm": 6, "places": at("page 5")}],
        [{"kind": "fastener", "across_mm": 12, "places": at("page 5")}],
    ),
    "through: a window in the back of it": (
        "journal",
        (),
        [{"kind": "window", "places": at("page 5", 40, 40)}, {"kind": "picture", "goes": "a7", "places": at("page 6", 40, 40)}],
        [{"kind": "window", "places": at("page 5", 90, 150)}, {"kind": "picture", "goes": "a7", "places": at("page 6", 70, 10)}],
    ),
}
"""Each slip by a book that commits it and one that does not."""


@pytest.mark.parametrize("case", SLIPS)
def test_each_slip_is_caught_told_apart_and_mended_by_every_fix(case):
    slip = case.split(":")[0]
    name, changes, commits, does_not = SLIPS[case]
    book = put(of(name, *changes), *commits)
    checks = told(make_plan(book), slip)
    assert checks, f"{case} is told"
    if does_not is not None:
        assert slip not in keys(put(of(name, *changes), *does_not)), f"{case} is told apart"
    for check in checks:
        assert check.offers or check.no_fix, "every check says what to do"
        assert check.title[0].isupper()
        assert check.why.endswith(".")
        for offer in check.offers:
            after = make_plan(editing.apply(book, offer.changes))
            same = [one for one in told(after, slip) if one.title == check.title]
            assert not same, f"{offer.label!r} mends {check.title!r}"


def test_a_gusset_that_closes_over_what_is_put_in_is_told_and_grows():
    """F5 and F8 on a folio: what lies between the two panels of a gusset counts, what lies outside does not."""
    book = of("crossfold")
    block = make_plan(book).pages
    room = max(block.made.rooms, key=lambda one: one.has_mm)
    inside, faces = within(block, room.wall), make_plan(book).extras.faces
    face = next(one for one in faces if side_of(one.name) in inside)
    out = next(
        one for one in faces if not one.cover and all(side_of(one.name) not in within(block, other.wall) for other in block.made.rooms)
    )
    thick = {"kind": "booklet", "width_mm": 40, "height_mm": 40, "thick_mm": 9.0, "doubt_mm": 0.0}
    told_ = [check for check in make_plan(put(book, {**thick, "places": at(face.name)})).extras.checks if check.key in ("F5", "F8")]
    assert told_
    assert any(room.name in check.title for check in told_)
    assert not {"F5", "F8"} & keys(put(book, {**thick, "places": at(out.name)}))
    for check in told_:
        for offer in check.offers:
            after = make_plan(editing.apply(put(book, {**thick, "places": at(face.name)}), offer.changes))
            assert check.title not in [one.title for one in after.extras.checks]
    assert most(block, room, ()).likely == 0


def test_spacers_make_the_spine_as_thick_as_what_the_leaves_hold():
    book = put(of("journal"), {**THICK, "places": at("page 5")})
    before = make_plan(book)
    offer = told(before, "F5")[0].offers[0]
    after = make_plan(editing.apply(book, offer.changes))
    card = after.paper.stock("card").caliper.likely
    strips = sum(len(one.thing.pieces) for item in after.extras.items if item.key == "spacers" for one in item.spots)
    assert strips * card >= before.extras.beyond.likely
    assert (strips - 1) * card < before.extras.beyond.likely
    assert after.extras.added.likely == pytest.approx(strips * card)
    assert after.cover.spine.likely > before.cover.spine.likely + strips * card - 0.1


RIGHT = {
    "a wrap's spine": ("longstitch", lambda plan: plan.cover.spine.likely),
    "a case's fore edge": ("case", lambda plan: next(figure.value.likely for figure in plan.cover.figures if figure.key == "fore_edge")),
    "the gaps of a hinge": ("hills", lambda plan: next(figure.value for figure in plan.binding.figures if figure.key == "gap")),
    "gussets of a chain": ("connectors", lambda plan: next(figure.value for figure in plan.binding.figures if figure.key == "gusset")),
    "a post": ("posts", lambda plan: plan.binding.swell.likely + plan.cover.spine.likely),
}


@pytest.mark.parametrize("case", RIGHT)
def test_what_is_put_in_goes_to_what_holds_the_leaves(case):
    """A thing that lies right up to the spine of many pages makes it, its gap or its gusset wider."""
    name, measure = RIGHT[case]
    book = of(name)
    faces = [face for face in make_plan(book).extras.faces if not face.cover][::2]
    design = {"kind": "spacer", "layers": 4, "places": [{"on": face.name} for face in faces[:20]]}
    assert measure(make_plan(put(book, design))) > measure(make_plan(book))


def test_sticks_lie_farther_apart_once_sections_are_thicker_than_they_are():
    """Six sections of 1 mm and sticks of 2 mm: 22 mm of spacers make every section thicker than its stick."""
    book = of("sticks", ("binding.stick_mm", 2.0))
    faces = [face for face in make_plan(book).extras.faces if not face.cover][::2]
    full = put(book, {"kind": "spacer", "layers": 4, "places": [{"on": face.name} for face in faces[:20]]})
    before, after = make_plan(book), make_plan(full)
    assert sum(after.binding.pitch_mm) > sum(before.binding.pitch_mm)
    held = before.pages.thickness.likely + after.extras.added.likely
    assert sum(after.binding.pitch_mm) >= held - 0.1


def test_rings_hold_what_lies_at_them_and_what_stands_up_in_the_middle():
    rings = of("rings", ("binding.inner_mm", 19.0))
    many_ = [{"on": f"page {n}", "x_mm": 60, "y_mm": 60} for n in range(1, 80, 2)]
    full = put(rings, {**THICK, "thick_mm": 2.0, "places": many_})
    assert "D8" in {check.key for check in make_plan(full).binding.checks}
    assert "D8" not in {check.key for check in make_plan(rings).binding.checks}
    assert "F5" not in keys(full), "rings have room of their own, and say what they allow"


@pytest.mark.parametrize("name", ["rings", "fliptop", "posts"])
def test_what_lies_over_the_holes_is_told_and_moved_off_them(name):
    book = of(name)
    for face, width in (("page 5", 40), ("page 6", 40), ("page 5", 5000)):
        size = make_plan(book).pages.leaf_width_mm
        x = 0.0 if face == "page 5" else size - 40
        thing = {**THICK, "thick_mm": 0.5, "doubt_mm": 0.0, "width_mm": min(width, size - 1), "height_mm": 30, "places": at(face, x, 0.0)}
        plan = make_plan(put(book, thing))
        check = next(one for one in plan.binding.checks if one.key == "over_holes")
        for offer in check.offers:
            after = make_plan(editing.apply(put(book, thing), offer.changes))
            assert "over_holes" not in {one.key for one in after.binding.checks}
    clear = put(book, {**THICK, "thick_mm": 0.5, "doubt_mm": 0.0, "height_mm": 30, "places": at("page 5", 40.0, 60.0)})
    assert "over_holes" not in {one.key for one in make_plan(clear).binding.checks}


def test_an_album_leaf_and_a_cover_are_named_and_a_bare_book_has_no_cover():
    names = [face.name for face in make_plan(of("journal")).extras.faces]
    assert (names[0], names[1], names[-1], len(names)) == ("inside front cover", "page 1", "inside back cover", 2 * 16 + 2)
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
    assert not [cut for cut in plan.cutting.cuts if "d0" in cut.part.name], "it is not cut"
    assert plan.extras.bulk.volume_mm3 == 0
    back = editing.edit(smaller, {"pages.count": "32 pages"})
    assert make_plan(back).extras.items[0].spots[0].x_mm == 10


def test_parts_are_cut_for_every_place_and_every_book():
    design = {**POCKET, "places": [{"on": f"page {n}"} for n in (3, 9, 15)]}
    plan = make_plan(put(of("journal", ("brief.quantity", 4)), design))
    assert [cut.part.count for cut in plan.cutting.cuts if cut.part.name == "d0"] == [12]
    assert "card" in plan.paper.roles


def test_steps_come_in_an_order_that_can_be_done():
    """Cut-outs while the sheet is flat, mats before what sits on them, glue dry before anything slides in; nothing is filled before all is on."""
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
    assert max(place["extra_d4_flat"], place["extra_d5_flat"]) < min(number for key, number in place.items() if "fold" in key)
    assert place["extra_d1_fix"] < place["extra_d2_fix"]
    assert place["extra_d3_make"] < place["extra_d3_fix"] < place["extras_fill"]
    assert "Knife" in " ".join(next(one.step for one in make_plan(book).bench.work if one.step.key == "extra_d0_flat").cautions)


LATE = {
    "G2": ({"kind": "eyelet", "places": at("page 5", 5, 5)}, "extra_d0_flat", "fold"),
    "F4": ({"kind": "window", "places": at("page 5")}, "extra_d0_flat", "fold"),
    "F3": ({"kind": "fastener", "places": at("page 5")}, "extra_d0_fix", "hiding paper"),
}


@pytest.mark.parametrize("slip", ["G2", "F4"])
def test_what_wants_flat_sheets_is_missed_once_they_are_folded(slip):
    design, key, tag = LATE[slip]
    book = put(of("longstitch"), design)
    work = make_plan(book).bench.work
    later = next(one.step for one in work if tag in one.step.tags)
    early = editing.apply(book, (("bench.ticks", {later.key: later.signature}),))
    found = [check for check in make_plan(early).bench.checks if check.key == slip]
    assert found
    assert found[0].level == "stop"
    in_time = editing.apply(
        book, (("bench.ticks", {one.step.key: one.step.signature for one in work[: [w.step.key for w in work].index(later.key) + 1]}),)
    )
    assert slip not in {check.key for check in make_plan(in_time).bench.checks}
    for offer in found[0].offers:
        assert slip not in {check.key for check in make_plan(editing.apply(early, offer.changes)).bench.checks}
    assert key in [one.step.key for one in work]


def test_a_pocket_is_hidden_behind_a_flap_that_frees_its_mouth_when_it_is_lifted():
    """By hand: 7 mm round a pocket of 100 × 80 at 20 and 90, 20 that stand out at its head, a tab of 15 beyond."""
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
    assert plan.extras.items[0].thing.stands_mm == pytest.approx(88 - (80 - 12))
    (offer,) = [one for one in plan.extras.offers if one.group == "with d0"]
    after = make_plan(editing.apply(book, offer.changes))
    flap = after.extras.items[1]
    assert flap.spots[0].box == pytest.approx((13, 90 - 7 - 20 - 15, 127, 90 + 80 + 7))
    assert "F2" not in keys(editing.apply(book, offer.changes))
    assert not [one for one in after.extras.offers if one.group == "with d0"], "once is enough"


@pytest.mark.parametrize("side", ["head", "tail", "left", "right"])
@pytest.mark.parametrize("kind", ["pocket", "waterfall", "band"])
@pytest.mark.parametrize("face", ["page 4", "page 5"])
@given(x=st.floats(-20, 140), y=st.floats(-20, 200), size=st.floats(20, 130))
@settings(max_examples=12)
def test_a_flap_that_hides_is_offered_where_it_fits_and_shuts_nothing(kind, side, face, x, y, size):
    book = put(
        of("journal"),
        {"kind": kind, **({"mouth": side, "width_mm": size, "height_mm": size} if kind == "pocket" else {}), "places": at(face, x, y)},
    )
    for offer in [one for one in make_plan(book).extras.offers if one.group.startswith("with")]:
        after = make_plan(editing.apply(book, offer.changes)).extras
        hidden, flap = after.items[0].spots[0].box, after.items[1].spots[0]
        assert flap.box[0] <= hidden[0]
        assert flap.box[1] <= hidden[1]
        assert flap.box[2] >= hidden[2]
        assert flap.box[3] >= hidden[3]
        assert {check.key for check in after.checks} - {check.key for check in make_plan(book).extras.checks} <= {"F6", "F5"}


@pytest.mark.parametrize("mouth", ["head", "tail", "left", "right"])
@pytest.mark.parametrize("deep", [60.0, 120.0])
def test_a_pull_is_cut_from_where_it_is_glued_to_where_it_stands_out(mouth, deep):
    """Of a card 50 × 80 in a pocket: 15 glued, what lies between its edge and the mouth, and 12 past whichever is farther out."""
    upright = mouth in ("head", "tail")
    sizes = {"width_mm": 80, "height_mm": deep} if upright else {"width_mm": deep, "height_mm": 80}
    goes = {"goes": "own", "goes_width_mm": 50 if upright else 80, "goes_height_mm": 80 if upright else 50, "lies": "upright"}
    book = put(of("journal"), {"kind": "pocket", "mouth": mouth, "stand_mm": 0, "places": at("page 5", 20, 40), **sizes, **goes})
    without_pull = make_plan(book).extras.items[0].thing
    inside_by = deep - 12 - 80
    assert ("grip" in {check.key for check in without_pull.checks}) == (inside_by > 0)
    pulled = make_plan(editing.apply(book, (("extras.items.d0.pull_mm", 12.0),)))
    thing = pulled.extras.items[0].thing
    assert thing.figures[-1].value == pytest.approx(15 + max(inside_by, 0.0) + 12)
    assert thing.stands_mm == pytest.approx(max(-inside_by, 0.0) + 12)
    strip = next(part for part in pulled.parts if part.key.startswith("extra_d0 pull"))
    assert sorted((strip.width_mm, strip.height_mm)) == pytest.approx(sorted((20, 15 + max(inside_by, 0.0) + 12)))
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
    """A window while board or card is flat; an eyelet through covered boards once they are dry; neither has to do with the leaves."""
    holes = ({"kind": "window", "places": at("inside front cover")}, {"kind": "eyelet", "places": at("inside back cover")})
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
    told = make_plan(editing.apply(put(of(name), *holes), (("bench.ticks", {late.key: late.signature}),))).bench.checks
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
    offers = {offer.label.split(":")[0]: offer for offer in make_plan(book).extras.offers if offer.group == "spread d0"}
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


@settings(max_examples=80, deadline=None, suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large])
@given(st.data())
def test_whatever_is_put_anywhere_is_planned_and_its_fixes_apply(data):
    """Any kind with any sizes its fields take, on any face of four very different books: a plan, finite figures, and offers that apply."""
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


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large])
@given(st.data())
def test_a_plan_that_starts_from_the_one_before_is_the_plan_made_anew(data):
    """Designs changed, added, taken out or of one title with another, on a leaf of another size or ruler, in any order of edits."""
    name = data.draw(st.sampled_from(["journal", "rings", "nested"]))
    faces = [face.name for face in make_plan(of(name)).extras.faces][:12]
    plan = None
    for _ in range(3):
        book = of(
            name, *data.draw(st.sampled_from([(), (("brief.ruler", "in"),), (("brief.leaf_width_mm", 111.0),), (("cover.kind", "bare"),)]))
        )
        kept = {one.key: one.record for one in plan.extras.items} if plan and data.draw(st.booleans()) else {}
        book = book.model_copy(update={"extras": Extras(items={**kept, **data.draw(put_in(faces)).items})})
        after = make_plan(book, before=plan)
        assert after == make_plan(book)
        assert after.extras.steps == make_plan(book).extras.steps
        plan = after
    again = make_plan(editing.edit(book, {"brief.quantity": "2"}), before=plan)
    assert again == make_plan(editing.edit(book, {"brief.quantity": "2"}))


@pytest.mark.parametrize("name", [one.name for one in RECIPES if isinstance(make_plan(one.book()).pages, FoldedBlock)])
def test_the_faces_of_a_structure_are_where_they_are_with_everything_on_it(name):
    """They are read off the structure folded without its papers where that is known: the same places, without folding it again."""
    block = make_plan(of(name)).pages
    again = replace(block, made=replace(block.made, bare=None))
    assert inner_faces(block) == inner_faces(again)
    plan = make_plan(of(name))
    assert "faces" not in vars(plan.extras), "not before they are asked for"
    known = {"key_figure", "figures", "checks", "offers", "parts", "steps", "added", "worst", "items", "bulk", "faces"}
    assert set(plan_data(plan)["extras"]) == known, "nothing of what it was worked out from goes out"
    assert [face.name for face in plan.extras.faces if not face.cover] == [face.name for face in inner_faces(block)]
