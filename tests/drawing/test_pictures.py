"""Things on the shelf, drawn: sound, to scale, with what is written beside them; every style known."""

from __future__ import annotations

import re
from pathlib import Path
from xml.etree import ElementTree

import pytest

import pleat
from pleat.core.base.units import RULERS
from pleat.core.materials.editing import build
from pleat.core.materials.items import KINDS, Paper, kind_of
from pleat.core.pleats.pages.leaves import FoldOut, PlainPaper, leaves_of_paper, openings
from pleat.core.whole.planning import make_plan
from pleat.demo import demo_items, mixed_journal
from pleat.drawing import materials
from pleat.drawing.pages import sections as pages
from pleat.drawing.shapes import Curve, Dot, Group, Line, Rect
from pleat.drawing.svg import render_screen
from pleat.web.items import card, thumb

SHELF = demo_items()
CSS = "".join(
    (Path(pleat.__file__).parent / f"web/static/css/{name}.css").read_text()
    for name in ("drawing", "materials", "pile")
)


def flat(shapes):
    for shape in shapes:
        if isinstance(shape, Group):
            yield from flat(shape.shapes)
        else:
            yield shape


@pytest.mark.parametrize("item", SHELF, ids=lambda item: item.name)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_every_thing_is_drawn_soundly_with_its_size_beside_it(item, ruler):
    drawing = materials.picture(item, RULERS[ruler])
    rendered = render_screen(drawing, 520, 400)
    root = ElementTree.fromstring(rendered.svg)
    assert item.name in root.get("aria-label")
    assert "nan" not in rendered.svg
    for shape in flat(drawing.shapes):
        for style in shape.style.split():
            assert f".{style}" in CSS or style in ("label", "warning"), style
    if kind_of(item) in ("paper", "board"):
        assert set(rendered.spots) == {"sheet_width_mm", "sheet_height_mm"}, (
            "its sizes are fields on the drawing"
        )


def test_sheets_are_drawn_as_large_as_they_are():
    paper = Paper(name="Log", sheet_width_mm=297, sheet_height_mm=210, grain="short")
    drawing = materials.picture(paper, RULERS["mm"])
    sheet = next(shape for shape in drawing.shapes if isinstance(shape, Rect))
    assert (sheet.width, sheet.height) == (297, 210)
    arrows = [shape for shape in drawing.shapes if isinstance(shape, Line) and shape.arrow]
    assert all(line.x1 == line.x2 for line in arrows), "the grain runs along the short side, upright here"
    edge = materials.edge_on(paper.model_copy(update={"kind": "copier", "grammage": 80}), RULERS["mm"])
    thick = [shape.height for shape in edge.shapes if isinstance(shape, Rect)]
    assert thick == pytest.approx([1.04] * 10), "ten sheets of 0.104 mm, ten times as thick"


def test_what_is_said_of_a_paper_is_seen_on_it():
    def drawn(**changes):
        paper = Paper(name="Log", sheet_width_mm=300, sheet_height_mm=400, **changes)
        return [shape.style for shape in flat(materials.picture(paper, RULERS["mm"]).shapes)]

    assert "blank-back" in drawn(sides=1)
    assert "blank-back" not in drawn()
    assert drawn(pattern="directional").count("pattern") > 10
    assert "pattern-dot" in drawn(pattern="all-over")
    assert len([style for style in drawn(form="pad") if style.startswith("sheet")]) == 3
    assert len([style for style in drawn(form="roll") if style.startswith("sheet")]) == 2


@pytest.mark.parametrize("kind", KINDS)
def test_every_shape_of_a_kind_has_a_picture_of_its_own(kind):
    texts = {
        "name": "x",
        "size": "A4",
        "sheet_width_mm": "300",
        "sheet_height_mm": "400",
        "thickness_mm": "2",
        "width_mm": "9",
    }
    texts |= {
        "roll_width_mm": "900",
        "length_left_mm": "1 m",
        "inner_mm": "30",
        "length_mm": "200",
        "longest_mm": "300",
    }
    known = {
        name: text
        for name, text in texts.items()
        if name in KINDS[kind].model.model_fields or (kind == "paper" and name == "size")
    }
    shape = KINDS[kind].model.model_fields.get("shape")
    pictures = set()
    for word in re.findall(r"'([^']+)'", str(shape.annotation)) if shape else [None]:
        item = build(kind, known | ({"shape": word} if word else {}), "mm")
        pictures.add(str(thumb(item)))
        assert "<svg" in thumb(item)
    if shape and kind in ("tool", "hardware", "elastic"):
        assert len(pictures) >= 2


def test_cards_are_drawn_once_and_say_the_few_facts():
    by_name = {item.name: item for item in SHELF}
    assert card(by_name["Greyboard, 2 mm"], "mm").facts == ("500 × 700 mm", "2.0 mm", "6 left")
    assert card(by_name["Chart roll, white"], "mm").facts[0] == "610 mm wide, 18 m left"
    assert card(by_name["Card from the fair"], "mm").facts[1].startswith("about"), "its grade is not known"
    assert card(by_name["White glue"], "in").facts == ("move it for 5 min, dry after 60 min",)
    assert card(by_name["Small trimmer"], "mm").facts == ("takes 310 mm", "0.350 mm at most")
    assert card(by_name["Flat magnet, 10 mm"], "mm") is card(by_name["Flat magnet, 10 mm"], "mm")


def test_the_fan_shows_which_holes_hold_and_the_spreads_every_opening():
    kept = {item.name: item for item in SHELF if isinstance(item, Paper)}
    plan = make_plan(mixed_journal(kept))
    for number, section in enumerate(plan.pages.mixed):
        fan = pages.fan(section, plan.pages.leaf_height_mm, (5.0, 102.5, 200.0), 620.0)
        assert fan.width == pytest.approx(620.0)
        assert len(fan.spots) == 2 * len(section)
        dots = [shape.style for shape in fan.shapes if isinstance(shape, Dot)]
        small = sum(one.leaf_height_mm < plan.pages.leaf_height_mm - 1 for one in section)
        assert dots.count("hole-held") + dots.count("hole-loose") == 3 * len(section)
        assert dots.count("hole-loose") == 2 * small, (
            "the outer holes miss the small leaves, the middle one holds"
        )
        own = [one for one in plan.pages.in_order if one.section == number]
        together = frozenset((section[0].id, section[1].id))
        drawn = pages.spreads(
            openings(own), plan.pages.leaf_width_mm, plan.pages.leaf_height_mm, frozenset((together,))
        )
        numbers = [shape.text for shape in drawn.shapes if getattr(shape, "style", "") == "spread-number"]
        assert numbers[0] == f"| {own[0].page}"
        assert len(numbers) == 2 * len(section) + 1
        blank = sum(
            shape.style == "leaf blank-page" for shape in flat(drawn.shapes) if isinstance(shape, Rect)
        )
        assert blank == 2 * sum(one.sides == 1 for one in section), "the two backs of each one-sided sheet"
        marks = [
            dict(shape.data)["act"]
            for shape in drawn.shapes
            if isinstance(shape, Group) and shape.style == "keep"
        ]
        assert (marks.count("part"), marks.count("pair")) == (2, 2 * (len(section) - 2)), (
            "a pair meets before the fold and behind it"
        )


@pytest.mark.parametrize(("panels", "blank"), [(1, True), (2, False), (3, True)])
def test_a_fold_out_lies_folded_in_over_the_inner_side_and_shows_its_back_or_not(panels, blank):
    leaves = leaves_of_paper((2,), PlainPaper(100.0, 150.0, "moss", 1), FoldOut(60.0, panels))
    drawn = pages.spreads(openings(leaves), 100.0, 150.0)
    flaps = [shape for shape in flat(drawn.shapes) if isinstance(shape, Rect) and "folded-in" in shape.style]
    (page,) = (
        group
        for group in drawn.shapes
        if isinstance(group, Group) and any(one in flaps for one in group.shapes)
    )
    leaf = page.shapes[0]
    assert (flaps[0].x + flaps[0].width, flaps[0].width) == (leaf.x + leaf.width, 60.0), (
        "hinged at the fore edge of a right-hand page"
    )
    assert ("blank-page" in flaps[0].style) == blank
    assert drawn.shapes.index(page) == 3 * 2 + 1, "the right page of the middle opening"


def test_the_bend_test_is_drawn_both_ways():
    along, across = materials.bend_test(True), materials.bend_test(False)
    assert "long side" in along.says
    assert "short side" in across.says
    assert not any(isinstance(shape, Curve) for shape in along.shapes)
