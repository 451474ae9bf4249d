"""Drawings: true proportions, fields clear of what they measure, every text escaped, every style known on
paper."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import pytest
from hypothesis import given, settings

import pleat
from pleat.core.document.book import Book
from pleat.core.pleats.pages.leaves import openings
from pleat.core.whole.planning import make_plan
from pleat.drawing import cutting, looks, paper
from pleat.drawing import members as _members  # noqa: F401 - makes all drawings known
from pleat.drawing.pages import sections as pages
from pleat.drawing.portraits import portrait
from pleat.drawing.shapes import Curve, Dim, Dot, Drawing, Group, Label, Rect
from pleat.drawing.svg import render_screen
from pleat.printing.pen import STYLES
from pleat.printing.strips import draw, score_strip, station_strip, tiles
from tests.profiles import examples
from tests.strategies import books


def all_drawings(plan):
    ruler = plan.brief.ruler
    for _, result in plan:
        yield looks.strip(result, plan)
        if looks.main.dispatch(type(result)) is not looks.main.dispatch(object):
            yield looks.main(result, plan)
    yield portrait(plan)
    yield from (paper.sheet(stock, plan.brief) for stock in (plan.paper.leaf, plan.paper.cover))
    yield from (
        pages.fold_detail(plan.pages, ruler),
        pages.fore_edge_detail(plan.pages, ruler),
        pages.fore_edge_detail(plan.pages, ruler, 4.0),
        pages.folio_flat(plan.pages, ruler),
    )
    yield from (pages.numbered(sheet, inner) for sheet in plan.pages.numbered[:3] for inner in (True, False))
    for section in plan.pages.mixed:
        yield pages.fan(section, plan.pages.leaf_height_mm, plan.binding.positions_mm, 600.0)
    yield pages.spreads(
        openings(plan.pages.in_order[:40]), plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    )
    yield from (
        cutting.sheet(own, sheet, [cut for cut in plan.cutting.cuts if cut.stock in own.stocks], ruler)
        for own in plan.cutting.plans
        for sheet in own.sheets
    )


@settings(max_examples=examples(15))
@given(books)
def test_any_book_draws_as_sound_svg_within_its_picture(book):
    for drawing in all_drawings(make_plan(book)):
        rendered = render_screen(drawing, 820, 430)
        root = ElementTree.fromstring(rendered.svg)
        assert root.get("aria-label")
        assert rendered.scale > 0
        assert "nan" not in rendered.svg
        assert "style=" not in rendered.svg
        assert all(-0.1 <= share <= 1.1 for spot in rendered.spots.values() for share in spot)


def test_a_square_stays_square_and_numbers_stay_on_the_picture():
    drawing = Drawing(
        50,
        50,
        "square",
        [Rect(0, 0, 50, 50, "leaf")],
        dims=[Dim("bottom", 0, 50, "8 1/4 <in>"), Dim("left", 0, 50, "x", spot="side")],
    )
    rendered = render_screen(drawing, 400, 300)
    rect = ElementTree.fromstring(rendered.svg).find("rect")
    assert rect.get("width") == rect.get("height")
    assert float(rect.get("width")) / 50 == pytest.approx(rendered.scale, abs=1e-3)
    assert rendered.spots["side"][0] * 400 < float(rect.get("x")) - 45, (
        "a field stands clear of what it measures"
    )
    assert "&lt;in&gt;" in rendered.svg
    assert re.search(r"8<tspan[^>]*>1</tspan><tspan[^>]*>⁄</tspan><tspan[^>]*>4</tspan>", rendered.svg), (
        "a true fraction"
    )


def test_sections_are_drawn_in_true_proportions():
    """Each nested folio is as thick as it lies, and all of them fill the section's thickness."""
    section: Any = make_plan(Book()).pages
    curves = [
        shape
        for shape in pages.fold_detail(section, make_plan(Book()).brief.ruler).shapes
        if isinstance(shape, Curve)
    ]
    assert len(curves) == section.folios
    tops = [curve.commands[0][1][1] for curve in curves]
    assert tops == sorted(tops)
    assert tops[1] - tops[0] == pytest.approx(section.thickness.likely / (2 * section.folios))


def styles_of(shapes):
    for shape in shapes:
        yield shape.style
        if isinstance(shape, Group):
            yield from styles_of(shape.shapes)


def test_every_style_is_known_to_the_pen_that_draws_it():
    css = "".join(
        (Path(pleat.__file__).parent / f"web/static/css/{name}.css").read_text()
        for name in ("drawing", "sewing")
    )
    plan: Any = make_plan(Book())
    for drawing in all_drawings(plan):
        for style in styles_of(drawing.shapes):
            for name in style.split():
                assert f".{name}" in css or name in ("label", "tail"), name
    for strip in (*station_strip(plan.binding, plan), *score_strip(plan.cover, plan)):
        for tile in tiles(strip, 120):
            assert set(styles_of(draw(tile).shapes)) <= set(STYLES)
    assert isinstance(draw(tiles(station_strip(plan.binding, plan)[0], 500)[0]).shapes[0], Rect | Label | Dot)
