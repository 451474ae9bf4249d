"""Pictures of what is put in: the opening with every thing where it lies, what is behind it, its pieces, and
the map of the bulk."""

from __future__ import annotations

from typing import Any
from xml.etree import ElementTree

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.estimate import Estimate
from pleat.core.base.units import RULERS
from pleat.core.engines.bulk import Bulk, Patch
from pleat.core.whole.planning import make_plan
from pleat.drawing import extras as drawing
from pleat.drawing.bulk import SAMPLES, STEPS, bulk_map, merged, sampled
from pleat.drawing.shapes import Curve, Dot, Line, Rect
from pleat.drawing.svg import render_screen
from tests.put import at, everything, of, put

POCKET = {"kind": "pocket", "goes": "card"}


def opening(book, face, chosen=""):
    plan = make_plan(book)
    return drawing.opening(plan.extras, plan, face, chosen)


def rects(picture, style):
    return [shape for shape in picture.shapes if isinstance(shape, Rect) and style in shape.style.split()]


@given(st.lists(st.lists(st.integers(0, 3), min_size=5, max_size=5), min_size=1, max_size=7))
def test_the_rectangles_of_the_map_cover_every_cell_once_in_its_shade(rows):
    shades = np.array(rows).T
    painted = np.zeros_like(shades)
    for x, y, x1, y1, shade in merged(shades):
        assert (painted[x:x1, y:y1] == 0).all(), "no cell twice"
        painted[x:x1, y:y1] = shade
    assert (painted == shades).all()


def test_the_map_is_read_at_the_middle_of_every_square():
    """A patch over the left half and a thicker one over the lower quarter, on a leaf of 112 × 56 mm."""
    patches = (Patch(0, 0, 0, 56, 56, Estimate.exact(1.0)), Patch(1, 0, 42, 112, 56, Estimate.exact(2.0)))
    cells, step_x, step_y = sampled(Bulk(patches), 112.0, 56.0)
    assert cells.shape == (SAMPLES, SAMPLES // 2)
    assert (step_x, step_y) == (112 / SAMPLES, 56 / (SAMPLES // 2))
    assert cells[0, 0] == 1.0
    assert cells[-1, 0] == 0.0
    assert cells[0, -1] == 3.0
    assert cells[-1, -1] == 2.0
    assert cells.sum() * step_x * step_y == pytest.approx(Bulk(patches).volume_mm3)
    empty, _, _ = sampled(Bulk(()), 100.0, 140.0)
    assert not empty.any()


def test_one_shade_means_the_same_on_every_map():
    thin = Bulk((Patch(0, 10, 10, 40, 40, Estimate.exact(1.0)),))
    alone = bulk_map(thin, 100, 140, RULERS["mm"])
    beside_thicker = bulk_map(thin, 100, 140, RULERS["mm"], most=STEPS)
    assert rects(alone, f"bulk-{STEPS}")
    assert not rects(beside_thicker, f"bulk-{STEPS}")
    assert rects(beside_thicker, "bulk-1")
    assert "1.0 mm" in alone.says
    assert [(dot.x, dot.y) for dot in alone.shapes if isinstance(dot, Dot)] == [(25, 25)], (
        "the thickest place is marked"
    )
    nothing = bulk_map(Bulk(()), 100, 140, RULERS["mm"])
    assert len(nothing.shapes) == 1


def test_every_thing_stands_on_its_face_at_its_own_place():
    book = put(
        of("journal"),
        {**POCKET, "places": at("page 5", 20, 60)},
        {"kind": "corner", "side_mm": 60, "places": at("page 4", 70, 130)},
    )
    picture = opening(book, "page 5")
    width = make_plan(book).pages.leaf_width_mm
    assert picture.width == pytest.approx(2 * width)
    assert {spot.name: (spot.x, spot.y) for spot in picture.spots} == {
        "extras.items.d0.place.0": (pytest.approx(width + 20), 60),
        "extras.items.d1.place.0": (70, 130),
    }
    pocket = next(one for one in rects(picture, "thing") if one.height > 40)
    assert (pocket.x, pocket.y) == (pytest.approx(width + 20), 60)
    triangle = next(shape for shape in picture.shapes if isinstance(shape, Curve) and "thing" in shape.style)
    assert len(triangle.commands) >= 3
    mouths = [shape for shape in picture.shapes if isinstance(shape, Line) and shape.style == "mouth"]
    assert len(mouths) == 2
    assert "page 4 and page 5" in picture.says


def test_what_lies_behind_is_seen_through_the_leaf_mirrored():
    book = put(of("journal"), {**POCKET, "width_mm": 60, "height_mm": 50, "places": at("page 6", 10, 30)})
    ghost = rects(opening(book, "page 5"), "ghost")[-1]
    width = make_plan(book).pages.leaf_width_mm
    assert ghost.x == pytest.approx(width + width - 10 - 60)
    assert (ghost.y, ghost.width, ghost.height) == (30, 60, 50)


def test_a_flap_shows_where_it_swings_to_and_a_fastener_its_other_half():
    flap = {
        "kind": "flap",
        "goes": "none",
        "width_mm": 60,
        "height_mm": 40,
        "hinge": "head",
        "places": at("page 5", 20, 60),
    }
    picture = opening(put(of("journal"), flap), "page 5")
    swung = next(one for one in rects(picture, "ghost") if one.width == 60)
    assert swung.y == 60 - 40
    width = make_plan(of("journal")).pages.leaf_width_mm
    magnets = put(of("journal"), {"kind": "fastener", "across_mm": 12, "places": at("page 5", 100, 20)})
    other = rects(opening(magnets, "page 5"), "thing-hole")
    assert [(one.x, one.y) for one in other] == [(pytest.approx(width - 100 - 12), 20)]


def test_a_tab_reaches_past_the_edge_it_is_on():
    """The leaves keep their size; the picture grows by what stands out."""
    for edge in ("right", "head", "tail"):
        book = put(of("journal"), {"kind": "tab", "edge": edge, "out_mm": 9, "places": at("page 5")})
        picture = opening(book, "page 5")
        out = next(one for one in rects(picture, "thing") if 9 in (one.width, one.height))
        leaf = rects(picture, "leaf")[-1]
        reach = {
            "right": out.x - leaf.x - leaf.width,
            "head": leaf.y - out.y - 9,
            "tail": out.y - leaf.y - leaf.height,
        }
        assert reach[edge] == pytest.approx(0)
        grown = (picture.width - 2 * leaf.width, picture.height - leaf.height)
        assert grown == pytest.approx((9, 0) if edge == "right" else (0, 9))


@given(
    x=st.floats(-500, 2000), y=st.floats(-500, 2000), hinge=st.sampled_from(["left", "right", "head", "tail"])
)
def test_whatever_lies_off_the_page_is_in_the_picture_where_it_can_be_taken_back(x, y, hinge):
    flap = {"kind": "flap", "goes": "none", "width_mm": 60, "height_mm": 40, "hinge": hinge}
    picture = opening(put(of("journal"), {**flap, "places": at("page 5", x, y)}), "page 5")
    for one in [shape for shape in picture.shapes if isinstance(shape, Rect)]:
        assert -1e-6 <= one.x <= one.x + one.width <= picture.width + 1e-6
        assert -1e-6 <= one.y <= one.y + one.height <= picture.height + 1e-6
    assert [shape.style for shape in picture.shapes[:3]].count("leaf") == 2, (
        "leaves first, so that none hides a thing"
    )
    grip, leaf = picture.spots[0], rects(picture, "leaf")[-1]
    assert (grip.x - leaf.x, grip.y - leaf.y) == pytest.approx((x, y))
    across = next(dim for dim in picture.dims if dim.side == "top")
    assert across.start == pytest.approx(rects(picture, "leaf")[0].x), (
        "the dimension stands over the leaf it measures"
    )


LINES: dict[str, tuple[dict[str, Any], int]] = {
    "waterfall": ({"kind": "waterfall", "goes": "none", "width_mm": 90, "pockets": 4}, 4),
    "nested": ({**POCKET, "width_mm": 90, "height_mm": 90, "nested": 3}, 2),
    "photo corners": ({"kind": "picture", "goes": "9x13", "way": "corners"}, 4),
    "tucks": ({"kind": "picture", "goes": "9x13", "way": "tucks"}, 2),
    "frame": ({"kind": "mat", "way": "frame", "goes": "9x13"}, 4),
    "band with pockets": ({"kind": "band", "goes": "none", "height_mm": 90, "pockets": 3}, 3),
}


@pytest.mark.parametrize("case", LINES)
def test_the_edges_that_show_on_a_thing_are_drawn_on_it(case):
    design, count = LINES[case]
    book = put(of("journal"), {**design, "places": at("page 5", 6, 20)})
    thing = make_plan(book).extras.items[0].thing
    assert len(thing.lines) == count
    for ends in thing.lines:
        for x, y in ends:
            assert -1e-6 <= x <= thing.width_mm + 1e-6
            assert -1e-6 <= y <= thing.height_mm + 1e-6
    drawn = [
        shape
        for shape in opening(book, "page 5").shapes
        if isinstance(shape, Line) and shape.style == "thing-line"
    ]
    assert len(drawn) == count


@pytest.mark.every(2)
@pytest.mark.parametrize("name", ["journal", "rings", "crossfold", "concertina"])
def test_every_opening_of_a_full_book_is_a_picture_with_words(name):
    book = everything(of(name))
    plan = make_plan(book)
    for face in plan.extras.faces[:12]:
        picture = drawing.opening(plan.extras, plan, face.name)
        svg = ElementTree.fromstring(render_screen(picture, 640, 400).svg)
        assert face.title in svg.get("aria-label")
    for item in plan.extras.items:
        if item.thing.pieces:
            flat = drawing.pieces(item.thing.pieces, "cream", plan.brief.ruler)
            assert flat.width >= max(piece.size_mm[0] for piece in item.thing.pieces)
            ElementTree.fromstring(render_screen(flat, 300, 320).svg)
