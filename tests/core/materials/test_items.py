"""Items from typed texts, what the shelf knows of them, finding the grain, and offcuts. References: pint, US
trade usage for points."""

from typing import Any

import pint
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import parse_thickness
from pleat.core.document.book import Book
from pleat.core.materials.editing import build, fields_of, label_of, text_of
from pleat.core.materials.facts import facts
from pleat.core.materials.grain import TESTS, conclude
from pleat.core.materials.items import KINDS, Paper, ThreadSpool, kind_of
from pleat.core.materials.thread import spool_diameter_mm, tex_of
from pleat.core.materials.tools import tools_from
from pleat.core.materials.uses import SheetFacts, good_for, what_gives
from pleat.core.pleats.cutting.offcuts import as_material, left_over
from pleat.core.pleats.paper.record import Papers
from pleat.core.trade.making import OFFCUT_MM
from pleat.core.whole.planning import make_plan
from pleat.demo import demo_items
from tests.conftest import edited

UNITS = pint.UnitRegistry()
SHELF = demo_items()


@pytest.mark.parametrize("item", SHELF, ids=lambda item: item.name)
def test_what_is_shown_of_an_item_makes_the_same_item_again(item):
    kind = kind_of(item)
    for ruler in ("mm", "in"):
        texts = {
            name: text_of(item, kind, name, ruler)
            for name in fields_of(kind)
            if name not in ("grammage", "pounds", "grade")
        }
        if kind == "paper":
            texts |= {name: text_of(item, kind, name, ruler) for name in ("weight", "size")}
        assert build(kind, texts, ruler, item) == item
    if kind != "paper":
        again = build(kind, {name: text_of(item, kind, name, "mm") for name in fields_of(kind)}, "mm")
        assert facts(again).words == facts(item).words


def test_every_field_has_a_name_and_every_kind_is_on_the_demos_shelf():
    for kind in KINDS:
        for name in fields_of(kind):
            assert "_" not in label_of(kind, name), (kind, name)
    assert {kind_of(item) for item in SHELF} == set(KINDS)


@pytest.mark.parametrize(
    ("kind", "texts", "values"),
    [
        (
            "paper",
            {"name": "Log", "size": "A4", "weight": "65 lb cover"},
            {"sheet_width_mm": 210, "grammage": 175.8, "grade": "cover"},
        ),
        (
            "paper",
            {"name": "Log", "size": "9 x 12 in", "readings_mm": "1,04; 1,05"},
            {"sheet_height_mm": 304.8, "readings_mm": (1.04, 1.05)},
        ),
        (
            "paper",
            {"name": "Roll", "form": "roll", "sheet_width_mm": "61 cm", "sheet_height_mm": "18 m"},
            {"sheet_height_mm": 18000},
        ),
        (
            "paper",
            {"name": "Pad", "form": "pad", "size": "12 in pad", "designs": "12", "each": "2"},
            {"owned": 24},
        ),
        (
            "board",
            {"name": "Grey", "sheet_width_mm": "500", "sheet_height_mm": "700", "thickness_mm": "60 pt"},
            {"thickness_mm": 1.524},
        ),
        ("thread", {"name": "Linen", "lea": "18", "plies": "3"}, {"lea": 18}),
        ("glue", {"name": "Paste", "shape": "paste", "drying_minutes": "90 minutes"}, {"drying_minutes": 90}),
    ],
)
def test_items_are_made_from_what_a_maker_types(kind, texts, values):
    item = build(kind, texts, "mm")
    for name, value in values.items():
        assert getattr(item, name) == (
            pytest.approx(value) if isinstance(value, float | int | tuple) else value
        )


@pytest.mark.parametrize(
    ("kind", "texts", "path", "word"),
    [
        ("paper", {"size": "A4"}, "name", "missing"),
        ("paper", {"name": "x"}, "sheet_width_mm", "missing"),
        ("paper", {"name": "x", "size": "vast"}, "size", "width first"),
        ("paper", {"name": "x", "size": "A4", "weight": "110 lb silk"}, "weight", "grade"),
        ("paper", {"name": "x", "size": "A4", "grain": "diagonal"}, "grain", "long side"),
        (
            "board",
            {"name": "x", "sheet_width_mm": "500", "sheet_height_mm": "700", "thickness_mm": "2 in"},
            "thickness_mm",
            "too large",
        ),
        ("fastener", {"name": "x", "width_mm": "", "thickness_mm": "1"}, "width_mm", "missing"),
        ("stick", {"name": "x", "length_mm": "long", "thickness_mm": "6"}, "length_mm", "not a length"),
        ("stick", {"name": "x", "colour": "red"}, "colour", "no such field"),
    ],
)
def test_what_cannot_be_taken_names_its_field(kind, texts, path, word):
    with pytest.raises(BadBook) as caught:
        build(kind, texts, "mm")
    found = {problem.path: problem.message for problem in caught.value.problems}
    assert word in found[path]


@given(st.floats(12, 120))
def test_points_are_thousandths_of_an_inch(points):
    assert parse_thickness(f"{points:.2f} pt") == pytest.approx(
        (round(points, 2) * UNITS.inch / 1000).to("mm").magnitude
    )
    assert parse_thickness("2 mm") is None


def test_lea_and_tex():
    """1 lea = 300 yd per pound: tex is g per 1000 m."""
    one = (1 * UNITS.pound / (300 * UNITS.yard)).to("g/km").magnitude
    assert tex_of(1, 1) == pytest.approx(one, rel=1e-4)
    by_name: dict[str, Any] = {item.name: item for item in SHELF}
    assert spool_diameter_mm(by_name["Hemp cord for ties"]) == 1.1
    assert spool_diameter_mm(by_name["Linen 18/3, waxed"]) == pytest.approx(0.62, abs=0.01)
    assert spool_diameter_mm(ThreadSpool(name="x")) is None


def test_facts_find_an_item_by_what_it_is():
    by_name = {item.name: facts(item) for item in SHELF}
    assert "magnet" in by_name["Flat magnet, 10 mm"].words
    assert by_name["Night card, indigo"].uses == ("pockets", "cover")
    assert by_name["Constellation print"].upright_only
    assert by_name["Log paper, cream"].grain == "h"
    assert by_name["White glue"].thickness_mm is None
    tools = tools_from((str(number), item) for number, item in enumerate(SHELF))
    assert tools.trimmer_longest_mm == 310
    assert tools.trims(300, 0.3)
    assert not tools.trims(300, 0.4)
    assert not tools_from([]).trims(10, 0.1)


@pytest.mark.parametrize(
    ("answers", "grain", "sure"),
    [
        ({}, "unknown", "guess"),
        ({"bend": ("long", True)}, "long", "likely"),
        ({"bend": ("long", False)}, "long", "guess"),
        ({"damp": ("short", True)}, "short", "sure"),
        ({"bend": ("long", True), "tear": ("long", True)}, "long", "sure"),
        ({"bend": ("long", True), "tear": ("short", True)}, "unknown", "guess"),
        ({"bend": ("long", False), "damp": ("short", True)}, "short", "likely"),
        ({"bend": ("long", True), "tear": ("short", False)}, "unknown", "guess"),
    ],
)
def test_the_grain_is_as_sure_as_the_tests_are_clear(answers, grain, sure):
    found = conclude(answers)
    assert (found.grain, found.sure) == (grain, sure)
    assert found.why
    mirrored: dict[str, Any] = {
        test: ("short" if side == "long" else "long", clear) for test, (side, clear) in answers.items()
    }
    assert conclude(mirrored).grain == {"long": "short", "short": "long"}.get(grain, "unknown")
    assert all(test.do and test.long and test.short for test in TESTS)


def test_what_could_a_140_by_200_book_be_made_from():
    sheets = [
        SheetFacts(1, "A4 long", 210, 297, "h", 10),
        SheetFacts(2, "A4 short", 210, 297, "w", 10),
        SheetFacts(3, "A2", 420, 594, "h", None),
        SheetFacts(4, "A5", 148, 210, "h", 500),
        SheetFacts(5, "wallpaper", 210, 297, "w", 10, True),
    ]
    found = {give.sheet.key: give for give in what_gives(sheets, 140, 200)}
    assert set(found) == {1, 2, 3}, "A5 is too small, and the pattern with a top would lie sideways"
    assert (found[2].folios, found[2].with_grain, found[2].leaves) == (1, True, 20)
    assert found[1].with_grain is False
    assert (found[3].folios, found[3].leaves) == (2, None)
    assert [give.sheet.key for give in what_gives(sheets, 140, 200)][-1] == 1, "across the grain comes last"


def test_good_for_by_thickness():
    assert good_for(Estimate.exact(0.1)) == ("leaves",)
    assert good_for(Estimate.exact(0.15)) == ("leaves", "pockets")
    assert good_for(Estimate.exact(2)) == ()


@given(st.floats(60, 290), st.floats(60, 400), st.integers(1, 40))
@example(60.00390625, 60.0, 1)
def test_pieces_and_offcuts_are_not_more_than_the_sheets(width, height, quantity):
    card = Paper(
        name="Night card",
        kind="cardstock",
        grammage=240,
        sheet_width_mm=450,
        sheet_height_mm=640,
        grain="long",
        stock_id="7",
    )
    book = edited(
        Book(paper=Papers(leaf=card, cover=card)), {"brief.quantity": str(quantity), "pages.count": "4 pages"}
    )
    book = book.model_copy(
        update={"brief": book.brief.model_copy(update={"leaf_width_mm": width / 2, "leaf_height_mm": height})}
    )
    cutting = make_plan(book).cutting
    for plan in cutting.plans:
        made = [
            as_material(card, one.width_mm, one.height_mm, one.count, one.grain) for one in left_over(plan)
        ]
        left = [piece for piece in made if isinstance(piece, Paper)]
        assert left == made
        used = sum(
            cut.part.width_mm * cut.part.height_mm * cut.part.count
            for cut in cutting.cuts
            if cut.stock in plan.stocks and cut.better.count
        )
        area = sum(piece.sheet_width_mm * piece.sheet_height_mm * (piece.owned or 0) for piece in left)
        assert area + used <= plan.needed * 450 * 640 + 300
        for piece in left:
            assert min(piece.sheet_width_mm, piece.sheet_height_mm) >= OFFCUT_MM
            assert (piece.form, piece.stock_id) == ("offcut", None)
            assert facts(piece).grain == "h", "an offcut keeps the direction of its grain"
