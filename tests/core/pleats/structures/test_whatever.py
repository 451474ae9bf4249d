"""Any structure, whatever a maker decides of it within the bounds of its fields: it plans, shuts, opens again
and keeps its areas, or says why it does not."""

from __future__ import annotations

import json

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape

from pleat.core.base.errors import BadBook
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, rule_on
from pleat.core.document import editing
from pleat.core.engines.folding.poses import apart
from pleat.core.engines.folding.programme import built
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan, worked_out
from tests.core.pleats.structures.samples import FOLDED, book_of, made_in
from tests.profiles import examples

LONG = {"amount": 12, "sheets": 0}
"""Where a field's own bounds would make a structure of hundreds of leaves, so many are enough here."""


def decisions(record, pleat):
    """Anything that may be decided of the fields of a record, by path."""
    found = {}
    for name, field in type(record).model_fields.items():
        rule = rule_on(field)
        if isinstance(rule, LengthRule) and name not in ("spines_mm",):
            values = st.one_of(
                st.none(), st.floats(rule.low_mm, min(rule.high_mm, 300.0)).map(lambda value: round(value, 1))
            )
            if field.default is not None:
                values = st.floats(rule.low_mm, min(rule.high_mm, 300.0)).map(lambda value: round(value, 1))
        elif isinstance(rule, NumberRule):
            values = st.integers(int(rule.low), min(int(rule.high), LONG.get(name, 8)))
        elif isinstance(rule, ChoiceRule):
            values = st.sampled_from([int(word) if word.isdecimal() else word for word, _ in rule.words])
        else:
            continue
        found[f"{pleat}.{name}"] = values
    return found


@st.composite
def whatever(draw, name):
    """An example with some of its decisions made otherwise; those that a book refuses are left as they
    were."""
    book = book_of(name)
    size = (draw(st.integers(60, 260)), draw(st.integers(70, 300)))
    book = editing.apply(
        book, [("brief.leaf_width_mm", float(size[0])), ("brief.leaf_height_mm", float(size[1]))]
    )
    choices = {**decisions(book.pages, "pages"), **decisions(book.binding, "binding")}
    for path in draw(st.lists(st.sampled_from(sorted(choices)), max_size=5, unique=True)):
        try:
            book = editing.apply(book, [(path, draw(choices[path]))])
        except BadBook:
            continue
    return book


@pytest.mark.every(2)
@pytest.mark.parametrize("name", FOLDED)
@settings(max_examples=examples(25))
@given(st.data())
def test_it_shuts_opens_again_and_keeps_its_areas_or_says_so(name, data):
    book = data.draw(whatever(name))
    plan = make_plan(book)
    json.dumps(plan_data(plan))
    stops = [check for _, check in plan.checks if check.level == "stop"]
    for made in made_in(plan):
        worked = made.worked
        if worked.assembly.faults:
            assert stops, "paper through paper, and nobody says so"
        assert not worked.assembly.misfits()
        for state in worked.states:
            for key in state.pile:
                own = Shape(worked.assembly.pieces[key[0]][key[1]].outline)
                assert Shape(state.shadow(key, worked.assembly.pieces)).area == pytest.approx(own.area)
        start = built(made.programme)
        before = dict(start.poses)
        angles = dict(start.mark("before").angles)
        if not made.programme.opens:
            for group in made.programme.closing:
                for fold in group.folds:
                    start.fold(fold.piece, *fold.angles)
            for group in reversed(made.programme.closing):
                for fold in reversed(group.folds):
                    creases = [
                        (start.pieces[fold.piece].crease(one, other), one, other)
                        for one, other, _ in fold.angles
                    ]
                    start.fold(
                        fold.piece,
                        *(
                            (one, other, angles.get((fold.piece, crease.one, crease.other), 0.0))
                            for crease, one, other in creases
                        ),
                    )
            assert all(
                apart(before[key], start.poses[key], start.pieces[key[0]][key[1]].outline) < 1e-6
                for key in before
            )


@pytest.mark.every(2)
@pytest.mark.parametrize("name", FOLDED)
@settings(max_examples=examples(15))
@given(st.data())
def test_a_gusset_by_itself_holds_what_lies_in_it(name, data):
    """Nothing that is proposed is too small: every room that was not typed holds the stiff layers at its
    worst place."""
    book = data.draw(whatever(name))
    plan = make_plan(book)
    for made in made_in(plan):
        for room in made.rooms:
            if not room.typed:
                assert room.has_mm >= room.stiff.likely - 1e-9
                assert room.draped.likely <= room.stiff.likely + 1e-9


@pytest.mark.every(4)
@pytest.mark.parametrize("name", FOLDED)
@settings(max_examples=examples(15))
@given(st.data())
def test_every_way_out_that_is_offered_can_be_taken(name, data):
    book = data.draw(whatever(name))
    plan = make_plan(book)
    for _, result in plan:
        for offer in (*result.offers, *(offer for check in result.checks for offer in check.offers)):
            if offer.changes and not offer.chosen:
                worked_out(editing.apply(book, offer.changes))


@pytest.mark.every(2)
@pytest.mark.parametrize("name", FOLDED)
@settings(max_examples=examples(10))
@given(st.integers(1, 40))
def test_thicker_things_never_need_a_smaller_gusset(name, tenths):
    if name in ("pocketpages", "zigzag"):
        return
    book = book_of(name, {"pages.photo": "card"})
    thin = worked_out(editing.apply(book, [("pages.bulk_mm", 0.2)]))
    thick = worked_out(editing.apply(book, [("pages.bulk_mm", 0.2 + tenths / 10)]))
    for one, other in zip(made_in(thin), made_in(thick), strict=True):
        assert one.thick.likely <= other.thick.likely + 1e-9
        for a, b in zip(one.rooms, other.rooms, strict=True):
            assert a.has_mm <= b.has_mm + 1e-9
