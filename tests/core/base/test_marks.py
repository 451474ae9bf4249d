"""What nobody typed lies on the marks of the ruler a book was made on, and stays there when it is shown on
another."""

from __future__ import annotations

import re
from fractions import Fraction
from itertools import pairwise

import pytest

from pleat.core.base.fields import LengthRule, declared
from pleat.core.base.marks import on_marks
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.bookfile import validate_book
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.pages.kinds import BLOCKS
from pleat.core.whole.planning import make_plan, worked_out
from tests.profiles import some
from tests.put import of

RECORDS = [
    Brief,
    *(kind.record for registry in (BLOCKS, BINDINGS, COVERS, EXTRAS) for kind in registry.members),
]
INCHES = RULERS["in"]


def lengths(record):
    """(name, rule, value) of every length that was chosen and not measured."""
    for name, field in type(record).model_fields.items():
        rule, value = declared(field).rule, getattr(record, name)
        if isinstance(rule, LengthRule) and not rule.fine and isinstance(value, float):
            yield name, rule, value


@pytest.mark.parametrize("record", RECORDS)
def test_every_length_a_record_begins_with_lies_on_the_marks_of_either_ruler(record):
    plain = record()
    assert on_marks(plain, RULERS["mm"]) is plain, "declared in millimetres, on their marks"
    for name, rule, mm in lengths(on_marks(plain, INCHES)):
        assert INCHES.is_on_mark(mm), name
        assert rule.low_mm <= mm <= rule.high_mm, name
        assert abs(mm - getattr(plain, name)) <= max(0.06 * mm, INCHES.step_mm), f"{name} is much the same"
    given = {name: mm for name, _, mm in lengths(plain)}
    assert on_marks(record(**given), INCHES) == plain, "what is typed stays as it was typed"


def begun(name, ruler):
    kind = next(one for one in RECIPES if one.name == name)
    return editing.apply(validate_book({"brief": {"ruler": ruler}}), kind.begun_on(RULERS[ruler]))


@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_a_book_begun_in_inches_has_every_length_on_their_marks(name):
    book = begun(name, "in")
    for part in (book.brief, book.pages, book.binding, book.cover):
        for field, _, mm in lengths(part):
            assert INCHES.is_on_mark(mm), f"{field} {mm}"


def another(one, other):
    """Whether a piece is cut another number of times, or by a tenth larger or smaller than a mark
    explains."""
    sides = ((one.width_mm, other.width_mm), (one.height_mm, other.height_mm))
    return one.count != other.count or any(abs(a - b) > 2 * INCHES.step_mm + a / 10 for a, b in sides)


@pytest.mark.parametrize("name", some([one.name for one in RECIPES], 2, first=1))
def test_the_ruler_changes_nothing_in_silence(name):
    """By the pieces that are cut, which the check itself does not look at."""
    book = of(name)
    other = editing.apply(book, [("brief.ruler", "in")])
    assert editing.apply(other, [("brief.ruler", "mm")]) == book
    assert other.model_copy(update={"brief": book.brief}) == book
    before, after = (
        {one.key: one for one in worked_out(book).parts if hasattr(one, "width_mm")} for book in (book, other)
    )
    told = next((check for _, check in worked_out(other).checks if check.key == "marks"), None)
    changed = [key for key in before.keys() & after.keys() if another(before[key], after[key])]
    assert not changed or told, changed
    if told:
        assert " mm" not in told.title + told.why
        assert [make_plan(editing.apply(other, offer.changes)).book.brief.marks for offer in told.offers] == [
            None,
            None,
        ]


def test_what_is_put_in_later_lies_on_the_marks_of_that_moment():
    in_inches = editing.apply(of("folder"), [("brief.ruler", "in")])
    book = editing.apply(in_inches, [("extras.items.star", {"kind": "corner"})])
    assert INCHES.is_on_mark(book.extras.items["star"].side_mm)
    assert book.pages == in_inches.pages


def test_typing_what_is_shown_is_a_value_like_any_other():
    book = editing.apply(of("folder"), [("pages.tab_mm", 12.0), ("brief.ruler", "in")])
    assert INCHES.number(book.pages.tab_mm) == "1/2"
    typed = editing.edit(book, {"pages.tab_mm": "1/2"})
    assert typed.pages.tab_mm == 12.7
    assert editing.edit(typed, {"pages.tab_mm": "1/2"}) == typed


NUMBER = r"\d+ \d+/\d+|\d+/\d+|\d+(?:\.\d+)?"
TERM = rf"[^+−=;:.\d]*?(?:(\d+) × )?[^+−=;:.\d]*?({NUMBER})[^+−=;:.\d]*?"


def value(text):
    return sum((Fraction(word) for word in text.split()), Fraction(0))


def sums(text):
    """(what the terms of a sum come to, what stands behind the sign of equality) for every sum in a text,
    with its products."""
    for sentence in re.split(r"[.;:] ", text):
        for left, right in pairwise(sentence.split(" = ")):
            shown, (first, *more) = re.match(NUMBER, right), re.split(r" ([+−]) ", left)
            signs = [1, *(1 if sign == "+" else -1 for sign in more[::2])]
            terms = [re.fullmatch(rf".*?{TERM}", term) for term in (first, *more[1::2])]
            if shown and more and all(terms):
                came = [int(one[1] or 1) * value(one[2]) for one in terms]
                yield sum(sign * one for sign, one in zip(signs, came, strict=True)), value(shown[0])


@pytest.mark.every(2)
@pytest.mark.parametrize("ruler", some(["mm", "in"], 2, first=1))
@pytest.mark.parametrize("name", some([one.name for one in RECIPES], 2))
def test_every_sum_of_a_book_begun_on_a_ruler_comes_to_what_is_shown(name, ruler):
    plan = worked_out(begun(name, ruler))
    for _, result in plan:
        for figure in result.figures:
            for came, shown in sums(figure.how):
                assert came == shown, figure.how


def test_a_sum_with_products_is_read():
    assert list(sums("Strip 1/2 + 2 × joint 5/16 + 2 × 5/8 on to the boards = 2 3/8")) == [
        (Fraction(19, 8), Fraction(19, 8))
    ]
    assert list(sums("Wide: leaf 6 − set-back 15/64 + square 1/8 = 5 57/64, at the next mark 5 15/16.")) == [
        (Fraction(377, 64), Fraction(377, 64))
    ]
