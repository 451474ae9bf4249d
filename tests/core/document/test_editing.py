"""Edits from typed texts: read in the maker's terms, refused with the field named, and never half applied."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.book import Book
from tests.conftest import edited
from tests.strategies import books, millimetres


def value(book, path):
    for name in path.split("."):
        book = getattr(book, name)
    return book


@pytest.mark.parametrize(
    ("path", "text", "changes"),
    [
        ("brief.leaf_width_mm", "5 1/2", {"brief.leaf_width_mm": 139.7}),
        ("brief.size", "A6", {"brief.leaf_width_mm": 105, "brief.leaf_height_mm": 148}),
        ("brief.size", "a5 landscape", {"brief.leaf_width_mm": 210, "brief.leaf_height_mm": 148}),
        ("brief.size", "5 1/2 x 8 1/2 in", {"brief.leaf_width_mm": 139.7, "brief.leaf_height_mm": 215.9}),
        ("brief.size", "14 by 20 cm", {"brief.leaf_width_mm": 140, "brief.leaf_height_mm": 200}),
        (
            "paper.leaf.size",
            "letter",
            {"paper.leaf.sheet_width_mm": 215.9, "paper.leaf.sheet_height_mm": 279.4},
        ),
        ("paper.cover.weight", "65 lb cover", {"paper.cover.grammage": 175.8}),
        ("paper.leaf.weight", "90 gsm", {"paper.leaf.grammage": 90, "paper.leaf.pounds": None}),
        (
            "paper.leaf.weight",
            "110 lb",
            {"paper.leaf.grammage": None, "paper.leaf.pounds": 110, "paper.leaf.grade": None},
        ),
        (
            "paper.leaf.readings_mm",
            "1.04; 1,05; 0.041 in",
            {"paper.leaf.readings_mm": (1.04, 1.05, 0.041 * 25.4)},
        ),
        ("paper.leaf.readings_mm", "", {"paper.leaf.readings_mm": ()}),
        ("paper.leaf.weight", "", {"paper.leaf.grammage": None}),
        ("pages.count", "24 leaves", {"pages.amount": 24, "pages.counted_in": "leaves"}),
        ("pages.count", "12 sheets", {"pages.amount": 12, "pages.counted_in": "folios"}),
        ("pages.count", "48", {"pages.amount": 48, "pages.counted_in": "unsaid"}),
        ("pages.flap_mm", "", {"pages.flap_mm": None}),
        ("binding.station.0", "40", {"binding.insets_mm": (40.0,)}),
        ("binding.station.2", "160", {"binding.insets_mm": (50.0,)}),
        ("binding.cover_holes_mm", "41, 108; 175", {"binding.cover_holes_mm": (41.0, 108.0, 175.0)}),
        ("brief.quantity", "12 books", {"brief.quantity": 12}),
        ("title", "  Moon   log ", {"title": "Moon log"}),
        ("binding.station_count", "5", {"binding.station_count": 5}),
    ],
)
def test_a_typed_text_changes_the_fields_it_names(path, text, changes):
    book = editing.edit(Book(), {path: text})
    for target, expected in changes.items():
        got = value(book, target)
        assert got == (pytest.approx(expected) if isinstance(expected, int | float | tuple) else expected)


@pytest.mark.parametrize(
    ("path", "text", "word"),
    [
        ("brief.leaf_width_mm", "8.25", "Did you mean 8.25 in?"),
        ("brief.leaf_width_mm", "wide", "not a length"),
        ("brief.leaf_width_mm", "", "missing"),
        ("brief.size", "140", "width first"),
        ("brief.size", "5 x 8000 in", "too large"),
        ("paper.leaf.weight", "110 lb velvet", "bond, text, cover"),
        ("paper.leaf.weight", "heavy", "not a weight"),
        ("paper.leaf.weight", "90 stone", "unit"),
        ("paper.leaf.weight", "900", "from 20 to 700"),
        ("pages.count", "many", "48 pages"),
        ("pages.count", "12 bananas", "bananas"),
        ("pages.count", "0", "from 1"),
        ("binding.station.1", "100", "middle"),
        ("binding.station.0", "120", "neighbours"),
        ("binding.station.0", "300", "head and its tail"),
        ("binding.station.9", "30", "no such station"),
        ("binding.knot", "sideways", "one of"),
        ("brief.quantity", "two", "whole number"),
        ("title", "   ", "letters"),
        ("nonsense", "3", "no such field"),
        ("brief.__class__", "3", "no such field"),
        ("extras", "3", "no such field"),
    ],
)
def test_a_text_that_cannot_be_taken_names_its_field_and_changes_nothing(path, text, word):
    book = Book()
    before = book.model_dump()
    with pytest.raises(BadBook) as caught:
        editing.edit(book, {"cover.square_mm": "5", path: text})
    problem = caught.value.problems[0]
    assert problem.path == path
    assert word in problem.message
    assert book.model_dump() == before


@given(books)
def test_switching_rulers_a_hundred_times_changes_nothing(book):
    ruler = {"brief": {"ruler", "marks"}}
    before = book.model_dump(exclude=ruler)
    made_on = book.brief.made_on
    for _ in range(50):
        book = edited(book, {"brief.ruler": "in"})
        book = edited(book, {"brief.ruler": "mm"})
    assert book.model_dump(exclude=ruler) == before
    assert book.brief.made_on == made_on


@given(millimetres | st.floats(40, 500), st.sampled_from(["mm", "in"]))
def test_typing_what_is_shown_is_a_value_like_any_other_and_the_second_time_nothing_new(width, ruler):
    book, shown = (
        editing.apply(Book(), [("brief.leaf_width_mm", width), ("brief.ruler", ruler)]),
        RULERS[ruler],
    )
    typed = editing.edit(book, {"brief.leaf_width_mm": shown.number(width)})
    assert typed.brief.leaf_width_mm == pytest.approx(shown.snap(width), abs=1e-9)
    assert editing.edit(typed, {"brief.leaf_width_mm": shown.show(width)}) == typed
    sized = editing.edit(typed, {"brief.size": shown.size(width, book.brief.leaf_height_mm)})
    assert editing.edit(sized, {"brief.size": shown.size(width, book.brief.leaf_height_mm)}) == sized


def test_how_a_length_was_typed_is_kept_until_something_else_sets_it():
    book = editing.edit(Book(), {"brief.leaf_width_mm": "14 cm"})
    assert book.typed == {"brief.leaf_width_mm": "14 cm"}
    assert editing.edit(book, {"brief.leaf_height_mm": "200"}).typed["brief.leaf_height_mm"] == "200 mm"
    assert editing.apply(book, [("brief.leaf_width_mm", 139.7)]).typed == {}


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize(
    "text", ["8.25", "9", "2 1/2 in", "25 1/2 in", "90 3/4 in", "400 in", "1/2 mm", "2.4", "4000 mm", "90,5"]
)
def test_what_a_refusal_supposes_is_the_number_that_was_typed_and_is_taken(ruler, text):
    for path in ("brief.leaf_width_mm", "cover.square_mm"):
        book = editing.apply(Book(), [("brief.ruler", ruler)])
        try:
            editing.edit(book, {path: text})
        except BadBook as error:
            _, asked, supposed = error.problems[0].message.partition("Did you mean ")
            if asked:
                supposed = supposed.rstrip("?")
                assert supposed.split()[0] in (text, text.removesuffix(" in").removesuffix(" mm")), supposed
                editing.edit(book, {path: supposed})
