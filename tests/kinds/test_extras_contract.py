"""What every kind of thing put in owes the house, on every recipe: a plan, pictures, pieces, parts, steps
that can be done, prints, plain data, a file."""

from __future__ import annotations

import json
from itertools import combinations
from xml.etree import ElementTree

import pytest

from pleat.core.base.fields import rule_on
from pleat.core.document import editing
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.document.labels import label_of
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.extras import placing
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.extras.spots import over
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan
from pleat.drawing import extras as drawing
from pleat.drawing import looks
from pleat.drawing.bulk import bulk_map
from pleat.drawing.svg import render_screen
from pleat.printing.parts import part_rows
from pleat.printing.sheets import print_sheets
from pleat.services import extras as service
from tests.fits import FITS
from tests.profiles import some
from tests.put import at, everything, of, put


@pytest.mark.every(4)
@pytest.mark.parametrize("one", some(RECIPES, 2), ids=lambda one: one.name)
def test_everything_goes_into_every_kind_of_book(one):
    book = everything(one.book())
    plan = make_plan(book)
    result = plan.extras
    assert [item.kind.name for item in result.items] == [kind.name for kind in EXTRAS.members]
    json.dumps(plan_data(plan))
    FITS.validate(json.loads(write_book(book)))
    assert read_book(write_book(book)) == book
    waits_for([step.step for step in plan.bench.work])
    keys = [step.step.key for step in plan.bench.work]
    assert len(set(keys)) == len(keys)
    for look in (
        looks.main(result, plan),
        looks.strip(result, plan),
        *(drawing.opening(result, plan, face.name) for face in result.faces[:8]),
    ):
        assert ElementTree.fromstring(render_screen(look).svg).get("aria-label")
    shown = render_screen(
        bulk_map(result.bulk, plan.pages.leaf_width_mm, plan.pages.leaf_height_mm, plan.brief.ruler), 200, 200
    )
    assert shown.svg.count("<rect") < 1500
    rows = dict(part_rows(plan))
    for item in result.items:
        if item.spots:
            assert item.title in rows or any(item.title in name for name in rows), item.title
            assert any(key.startswith(f"extra_{item.key}") for key in keys), f"{item.title} has a step"
    for check in result.checks:
        assert check.offers or check.no_fix
        for offer in check.offers:
            editing.apply(book, offer.changes)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", ["journal", "rings", "hills", "crossfold", "filing", "row"])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_what_is_put_in_is_printed_with_its_openings_and_a_list_to_tick(name, ruler):
    plan = make_plan(everything(of(name, ("brief.ruler", ruler))))
    sheets = print_sheets(plan, "x", "a4" if ruler == "mm" else "letter")
    titles = {sheet.title.split(",")[0] for sheet in sheets}
    assert titles >= {"where it lies", "what goes in"}
    for sheet in sheets:
        ElementTree.fromstring(sheet.svg)


def test_openings_that_have_the_same_are_printed_once():
    book = put(
        of("longstitch"),
        {"kind": "pocket", "places": [{"on": f"page {n}", "x_mm": 20, "y_mm": 60} for n in range(5, 60, 6)]},
    )
    where = [
        sheet for sheet in print_sheets(make_plan(book), "x", "a4") if sheet.title.startswith("where it lies")
    ]
    assert len(where) == 1
    assert "The same on" in where[0].svg


@pytest.mark.parametrize("kind", EXTRAS.members, ids=lambda kind: kind.name)
def test_every_field_of_a_kind_has_words_a_rule_and_an_example_that_can_be_put_back(kind):
    assert kind.title
    assert kind.summary.endswith(".")
    assert kind.group
    book = service.put(of("journal"), kind.name, "page 7")
    key = next(iter(book.extras.items))
    thing = make_plan(book).extras.items[0].thing
    assert thing.figures
    assert all(figure.how and figure.rules for figure in thing.figures)
    assert thing.work.make or thing.work.fix or thing.work.flat
    for name, field in kind.record.model_fields.items():
        if rule_on(field):
            path = f"extras.items.{key}.{name}"
            assert "_" not in label_of(path)
            value = getattr(book.extras.items[key], name)
            assert editing.apply(book, ((path, value),)) == book


@pytest.mark.parametrize(
    ("kind", "fit"), [("fastener", 12), ("picture", 1), ("waterfall", 1), ("eyelet", 12)]
)
def test_a_thing_is_put_where_nothing_lies_yet_while_there_is_room(kind, fit):
    book = of("journal")
    for _ in range(fit):
        book = service.put(book, kind, "page 7")
    plan = make_plan(book)
    boxes = [item.spots[0].box for item in plan.extras.items]
    assert not any(over(one, two) for one, two in combinations(boxes, 2))
    assert "F9" not in {check.key for check in plan.extras.checks}


def test_a_book_takes_sixty_designs_and_then_says_so():
    book = of("longstitch")
    book = put(book, *({"kind": "picture", "goes": "card", "places": at("page 5")} for _ in range(60)))
    assert placing.added(book.extras, "pocket", "page 5") is None
    assert len(make_plan(book).extras.items) == 60
