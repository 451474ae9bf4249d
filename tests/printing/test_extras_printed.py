"""What is put in, on paper: every opening, place and list, read as text on both rulers."""

from __future__ import annotations

import re
from xml.etree import ElementTree

import pytest

from pleat.core.document import editing
from pleat.core.whole.planning import make_plan
from pleat.demo import filled_journal
from pleat.printing.further import pages_of
from pleat.printing.layout import HEAD_MM
from pleat.printing.parts import part_rows
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import print_sheets
from pleat.printing.strips import strips_of
from tests.printing.test_every_page import words
from tests.put import at, of, put


@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_the_guides_openings_places_and_ticks_can_be_read(ruler, tmp_path):
    plan = make_plan(editing.edit(filled_journal(), {"brief.ruler": ruler}))
    sheets = print_sheets(plan, "Guide to the open night", "a4" if ruler == "mm" else "letter")
    pages = words(to_pdf(sheets, "x"), tmp_path)
    where = " ".join(
        word
        for sheet, page in zip(sheets, pages, strict=True)
        if sheet.title.startswith("where it lies")
        for word, *_ in page
    )
    goes = " ".join(
        word
        for sheet, page in zip(sheets, pages, strict=True)
        if sheet.title.startswith("what goes in")
        for word, *_ in page
    )
    for item in plan.extras.items:
        assert item.title in where, item.title
        if item.thing.work.fill:
            assert item.title in goes
            for spot in item.spots:
                assert spot.face.title in goes
    assert "keep it free of glue" in where
    assert "from the left" in where
    used = {spot.face.title for item in plan.extras.items for spot in item.spots}
    for title in used:
        assert re.search(rf"\b{title}\b", where), title
    ruled = plan.brief.ruler
    first = plan.extras.items[0].spots[0]
    plain = re.sub(r"[\s⁄/]", "", where)
    assert re.sub(r"[\s⁄/]", "", ruled.size(first.thing.width_mm, first.thing.height_mm)) in plain
    said = where.replace("100 mm", "")
    assert (" mm" in said) == (ruler == "mm")


def test_scores_of_every_piece_are_a_strip_at_true_size():
    design = {
        "kind": "pocket",
        "goes": "none",
        "width_mm": 90,
        "height_mm": 70,
        "tab_mm": 12,
        "places": at("page 5"),
    }
    plan = make_plan(put(of("journal"), design))
    across, down = strips_of(plan.extras, plan)
    assert across.length_mm == 90 + 24
    assert [mark.at_mm for mark in across.marks] == pytest.approx([12, 102])
    assert down.length_mm == 70 + 12
    assert [mark.at_mm for mark in down.marks] == pytest.approx([70])
    rows = dict(part_rows(plan))
    assert rows["pocket"] == "90 × 70 mm on page 5; throat 90 mm, depth 70 mm"
    assert "12, 102" in rows["scores, d0"]


def test_a_waterfalls_strip_has_a_mark_for_every_fold():
    design = {
        "kind": "waterfall",
        "goes": "none",
        "width_mm": 90,
        "pockets": 3,
        "depth_mm": 40,
        "step_mm": 15,
        "places": at("page 5"),
    }
    plan = make_plan(put(of("journal"), design))
    (down,) = strips_of(plan.extras, plan)
    assert [mark.at_mm for mark in down.marks] == pytest.approx([40, 95, 150, 220, 290])
    assert down.length_mm == 375


def test_nothing_is_printed_of_extras_where_there_are_none():
    sheets = print_sheets(make_plan(of("journal")), "x", "a4")
    assert not [sheet for sheet in sheets if sheet.title.startswith(("where it lies", "what goes in"))]


@pytest.mark.parametrize(("x", "y"), [(-300, 20), (900, 20), (20, -300), (20, 900), (20, 60)])
def test_what_lies_off_the_page_is_printed_beside_the_words_and_on_the_paper(x, y):
    plan = make_plan(put(of("journal"), {"kind": "pocket", "goes": "card", "places": at("page 5", x, y)}))
    ((_, svg),) = (page for page in pages_of(plan.extras, plan, 210.0, 260.0) if page[0] == "where it lies")
    marks = [
        {name: float(rect.get(name)) for name in ("x", "y", "width", "height")}
        for rect in ElementTree.fromstring(svg).iter("rect")
    ]
    begins = min(float(found) for found in re.findall(r'font-size="2.7" fill="#333" x="([\d.]+)"', svg))
    assert len(marks) >= 3
    for mark in marks:
        assert 0 < mark["x"] < mark["x"] + mark["width"] < begins
        assert HEAD_MM < mark["y"] < mark["y"] + mark["height"] < 260.0
