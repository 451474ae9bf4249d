"""Every field of every kind: what lies outside its bounds is refused in words, what lies inside is taken, in
both rulers."""

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, TextRule, declared
from pleat.core.base.units import MM_PER_INCH
from pleat.core.materials.editing import build, fields_of, label_of, text_of
from pleat.core.materials.facts import facts
from pleat.core.materials.items import KINDS
from pleat.demo import demo_items

FIRST = {}
for item in demo_items():
    FIRST.setdefault(next(name for name, kind in KINDS.items() if kind.model is type(item)), item)
FIELDS = [(kind, name, declared(field)) for kind in KINDS for name, field in fields_of(kind).items()]
LENGTHS = [
    (kind, name, known.rule)
    for kind, name, known in FIELDS
    if isinstance(known.rule, LengthRule) and not known.many
]
NUMBERS = [(kind, name, known.rule) for kind, name, known in FIELDS if isinstance(known.rule, NumberRule)]
CHOICES = [(kind, name, known) for kind, name, known in FIELDS if isinstance(known.rule, ChoiceRule)]


def named(row):
    return f"{row[0]}.{row[1]}"


def refused(kind, name, text, ruler="mm"):
    with pytest.raises(BadBook) as caught:
        build(kind, {name: text}, ruler, FIRST[kind])
    assert [problem.path for problem in caught.value.problems] == [name]
    return caught.value.problems[0]


@pytest.mark.parametrize("row", LENGTHS, ids=named)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_lengths_are_taken_within_their_bounds_and_refused_outside(row, ruler):
    kind, name, rule = row
    for text, mm in ((f"{rule.low_mm:.4f} mm", rule.low_mm), (f"{rule.high_mm:.4f} mm", rule.high_mm)):
        assert getattr(build(kind, {name: text}, ruler, FIRST[kind]), name) == pytest.approx(mm)
    problem = refused(kind, name, f"{rule.high_mm * 1.5 + 1:.4f} mm", ruler)
    assert "too large" in problem.message
    assert problem.label == label_of(kind, name)
    if rule.low_mm > 0.01:
        assert "too small" in refused(kind, name, f"{rule.low_mm / 3:.4f} mm", ruler).message
    assert "not a length" in refused(kind, name, "a bit more", ruler).message
    assert "below zero" in refused(kind, name, "-3", ruler).message
    inches = (rule.low_mm + rule.high_mm) / 2 / MM_PER_INCH
    assert getattr(build(kind, {name: f"{inches:.5f} in"}, ruler, FIRST[kind]), name) == pytest.approx(
        inches * MM_PER_INCH, abs=0.01
    )


@pytest.mark.parametrize("row", NUMBERS, ids=named)
def test_numbers_are_taken_within_their_bounds_and_refused_outside(row):
    kind, name, rule = row
    for value in (rule.low, rule.high):
        assert getattr(build(kind, {name: f"{value:g}"}, "mm", FIRST[kind]), name) == value
    assert f"{rule.high:g}" in refused(kind, name, f"{rule.high * 2 + 1:g}").message
    for text in ("many", "1e999", "nan", "-7", "²"):
        assert refused(kind, name, text).message
    if rule.whole:
        assert "whole number" in refused(kind, name, "2.5").message


@pytest.mark.parametrize("row", CHOICES, ids=named)
def test_choices_take_each_of_their_words_and_no_other(row):
    kind, name, known = row
    for key, _ in known.rule.words:
        assert str(getattr(build(kind, {name: key}, "mm", FIRST[kind]), name)) == key
    problem = refused(kind, name, "purple-ish")
    assert all(words in problem.message for _, words in known.rule.words[:2])


@pytest.mark.parametrize("kind", KINDS)
def test_what_may_be_empty_can_be_cleared_and_what_may_not_keeps_its_value(kind):
    for name, field in fields_of(kind).items():
        known = declared(field)
        if known.may_be_empty:
            cleared = build(kind, {name: " "}, "mm", FIRST[kind])
            assert getattr(cleared, name) in (None, "", ())
            assert text_of(cleared, kind, name, "mm") == ""
            facts(cleared)
        elif not isinstance(known.rule, ChoiceRule):
            assert refused(kind, name, " ").message


@pytest.mark.parametrize("kind", KINDS)
def test_names_and_words_are_tidied_and_bounded(kind):
    assert build(kind, {"name": "  Night\n card \x00 "}, "mm", FIRST[kind]).name == "Night card"
    rule = declared(fields_of(kind)["name"]).rule
    assert isinstance(rule, TextRule)
    assert "at most 60" in refused(kind, "name", "x" * 61).message
    assert "letters" in refused(kind, "name", "\x00").message
