"""What is put in: pieces and throats by geometry, the same on every kind of book; each slip caught and told
apart; every fix mends; nothing nonsense breaks it."""

from __future__ import annotations

from itertools import pairwise

import pytest
from shapely.geometry import LineString, Polygon

from pleat.core.base.units import RULERS
from pleat.core.pleats.structures.dressing import PHOTOS, Sized
from pleat.core.trade.extras import EASE_MM
from pleat.core.whole.planning import make_plan
from tests.put import POCKET, at, of, put, told

ISO: dict[Sized, tuple[float, float]] = {"a6": (105, 148), "a7": (74, 105), "card": (53.98, 85.60)}
"""ISO 216 and ISO/IEC 7810 ID-1, in mm, from memory."""
INCHES: dict[Sized, tuple[float, float]] = {"3.5x5": (3.5, 5), "4x6": (4, 6), "5x7": (5, 7)}


def first(book):
    return make_plan(book).extras.items[0].spots[0].thing


def test_what_goes_in_has_its_standard_size():
    for name, (wide, high) in ISO.items():
        assert PHOTOS[name][1:] == pytest.approx((wide, high), abs=0.5), name
    for name, (wide, high) in INCHES.items():
        assert PHOTOS[name][1:] == pytest.approx((wide * 25.4, high * 25.4), abs=0.3), name


TABS = {"mm": 12.0, "in": 12.7}
"""What nobody typed lies on the marks of the ruler: 12 mm, or half an inch."""


@pytest.mark.parametrize("stands", [0, 10, 20, 35])
@pytest.mark.parametrize("name", ["card", "a7", "4x6"])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_a_pocket_for_a_card_has_a_throat_it_slides_through_and_stands_out_as_wanted(name, stands, ruler):
    """Card + ease wide, card - standing high, for its tabs lie under what goes in; the piece is two tabs
    wider and one higher."""
    step = RULERS[ruler].step_mm
    thing = first(
        put(
            of("journal", ("brief.ruler", ruler)),
            {**POCKET, "goes": name, "stand_mm": stands, "places": at("page 12")},
        )
    )
    wide, high = PHOTOS[name][1:]
    assert 0 <= thing.width_mm - (wide + EASE_MM) < step + 1e-6
    assert 0 <= thing.height_mm - (high - stands) < step + 1e-6
    assert thing.mouth.throat_mm == pytest.approx(thing.width_mm)
    assert thing.mouth.depth_mm == pytest.approx(thing.height_mm)
    assert high - thing.mouth.depth_mm == pytest.approx(thing.stands_mm, abs=1e-6) or not thing.stands_mm
    assert thing.stands_mm <= stands + 1e-6
    piece = thing.pieces[0]
    assert piece.size_mm == pytest.approx((thing.width_mm + 2 * TABS[ruler], thing.height_mm + TABS[ruler]))
    assert wide <= thing.mouth.throat_mm - EASE_MM + 1e-6
    assert not told(
        make_plan(
            put(of("journal"), {**POCKET, "goes": name, "stand_mm": stands, "places": at("page 12", 5, 50)})
        ),
        "F1",
    )


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
    thing = first(
        put(of("journal"), {**POCKET, "way": way, "width_mm": 100, "height_mm": 80, "places": at("page 5")})
    )
    lost = {"glued": 6, "clear": 6, "envelope": 1}[way]
    assert thing.mouth.throat_mm == 100 - 2 * lost
    assert thing.mouth.depth_mm == 80 - lost
    assert bool(thing.pieces) == (way == "glued")
    assert bool(thing.counts) == (way != "glued"), "film and envelopes are counted out"


def open_side(across, up):
    """Of a right-angled triangle with 6 mm of glue along both short sides: what is left of the long one, cut
    by shapely."""
    room = Polygon([(6, 6), (6, 1000), (1000, 1000), (1000, 6)]).intersection(
        Polygon([(0, 0), (across, 0), (0, up)])
    )
    return room.intersection(LineString([(across, 0), (0, up)]).buffer(1e-6)).length / 2


def test_a_corner_pocket_and_a_slants_offcut_are_right_angled_triangles():
    corner = first(put(of("journal"), {"kind": "corner", "side_mm": 80, "places": at("page 5")}))
    assert corner.mouth.throat_mm == pytest.approx(open_side(80, 80))
    assert Polygon(corner.outline).area == pytest.approx(80 * 80 / 2)
    design = {
        **POCKET,
        "goes": "none",
        "width_mm": 90,
        "height_mm": 100,
        "slant_mm": 40,
        "offcut": "second",
        "places": at("page 5"),
    }
    slanted = first(put(of("journal"), design))
    second = next(figure for figure in slanted.figures if figure.key == "second")
    assert second.value == pytest.approx(open_side(90, 40))
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
    assert (
        len({(thing.width_mm, thing.height_mm, thing.mouth and thing.mouth.throat_mm) for thing in things})
        == 1
    )
