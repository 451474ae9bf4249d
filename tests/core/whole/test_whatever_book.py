"""What holds for whatever book: it goes out as JSON, what is shown as a sum adds up, and no text hangs a
reader."""

from __future__ import annotations

import json
import re
import time
from collections.abc import Callable
from contextlib import suppress
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook, LengthError
from pleat.core.base.texts import split_list
from pleat.core.base.units import RULERS, parse_length
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.sizes import parse_size
from pleat.core.materials.table import BadTable, read_table
from pleat.core.materials.weights import parse_weight
from pleat.core.pleats.pages.counting import parse_count
from pleat.core.pleats.structures.dressing import PHOTOS
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan
from tests.profiles import examples
from tests.strategies import books

_NUMBER = r"(?:\d+ \d+/\d+|\d+/\d+|\d+(?:\.\d+)?)"
_SUM = re.compile(rf"((?:[^+=;]+ \+ )+[^+=;]+?) = ({_NUMBER})")


OTHER_UNIT = {"in": re.compile(r"\d ?(mm|cm|µm)\b"), "mm": re.compile(r"\d/\d+ in\b|\d\.\d+ in\b")}


def words(plan):
    """Every sentence of a plan but those on inches and millimetres in one plan, A10."""
    for _, result in plan:
        yield from (f"{one.label} {one.how} {one.aside}" for one in result.figures)
        for check in result.checks:
            if check.key != "A10":
                yield " ".join([check.title, check.why, check.no_fix, *(fix.label for fix in check.offers)])
    yield from (
        f"{one.step.title} {one.step.detail} {' '.join(one.step.cautions)}" for one in plan.bench.work
    )


def value(text: str) -> Fraction:
    return sum((Fraction(word) for word in text.split()), Fraction(0))


def sums(text: str):
    """(parts, whole) of every sum in a text: the last number of each part counts, ``7 % spare 32.5`` is
    32.5."""
    for found in _SUM.finditer(text):
        yield [value(re.findall(_NUMBER, part)[-1]) for part in found[1].split(" + ")], value(found[2])


NAMED = re.compile("|".join(re.escape(title) for title, wide, _ in PHOTOS.values() if wide))


@settings(max_examples=examples(150))
@given(books)
def test_every_plan_goes_out_as_json_its_sums_add_up_and_its_words_keep_to_one_ruler(book):
    plan = make_plan(book)
    for said in words(plan):
        # readings of a caliper stay in mm, as they were taken, and photographs are called as they are sold
        text = NAMED.sub("", said)
        assert "reading" in text or not OTHER_UNIT[book.brief.ruler].search(text), text
    out = json.loads(json.dumps(plan_data(plan)))
    assert len(out["cutting"]["offcuts"]) == len(plan.cutting.offcuts)
    for _, result in plan:
        for text in (
            *(one.how for one in result.figures),
            *(f"{one.title} {one.why}" for one in result.checks),
        ):
            for parts, whole in sums(text):
                assert sum(parts) == whole, text
    for step in plan.bench.work:
        said = f"{step.step.title} {step.step.detail}"
        assert not re.search(r"\b1 (sheets|pieces|books|sections|stations|leaves)\b", said), words
        assert not re.search(r"\b0 sheets", said)
        assert not re.search(r"\d\.\d+ in\b", said), f"no ruler has such marks: {said}"


@given(st.lists(st.floats(0, 900), min_size=1, max_size=6), st.sampled_from(["mm", "in"]), st.booleans())
def test_shown_parts_add_up_to_the_shown_whole(lengths, ruler, finest):
    parts, whole = RULERS[ruler].summed(lengths, finest)
    assert sum(map(value, parts)) == value(whole)
    for shown, length in zip(parts, lengths, strict=True):
        mm = float(value(shown)) * (25.4 if ruler == "in" else 1)
        assert abs(mm - length) <= (25.4 / 64 if ruler == "in" else 0.1) + 1e-6


def test_the_how_of_the_cover_and_the_thread_are_sums():
    """Guards the pattern above: were it to find nothing, it would prove nothing."""
    plan = make_plan(Book())
    assert [
        parts
        for text in (plan.cover.figures[0].how, plan.binding.figures[1].how, plan.binding.figures[2].how)
        for parts, _ in sums(text)
    ]
    assert len(list(sums(plan.cover.figures[0].how))) == 3
    assert next(sums("Spans 276 + 4 passages 9.5 + two tails 180 + 7% spare 32.5 = 498 mm"))[0][
        1
    ] == Fraction("9.5")


READERS: dict[str, Callable[[str], object]] = {
    "length": parse_length,
    "size": parse_size,
    "count": parse_count,
    "weight": parse_weight,
    "list": lambda text: split_list(text[:20_000]),
    "heading": lambda text: list(read_table(text.encode("utf-8", "replace"), "paper")[1]),
    "moves": lambda text: editing.edit(
        editing.apply(Book(), [("binding.kind", "own")]), {"binding.moves": text}
    ),
    "title": lambda text: editing.edit(Book(), {"title": text}),
    "quantity": lambda text: editing.edit(Book(), {"brief.quantity": text}),
    "readings": lambda text: editing.edit(Book(), {"paper.leaf.readings_mm": text}),
}


@pytest.mark.parametrize("reader", READERS)
@pytest.mark.parametrize(
    "run", [" ", "1", "1 ", "x ", ", ", "; ", "× ", "a by ", "1/", "opened ", "(", "lb ", "\t", '"', "1,000"]
)
def test_a_text_without_end_is_read_or_refused_at_once(reader, run):
    for length in (300, 32_000):
        for text in (
            run * (length // len(run)),
            "5" + run * (length // len(run)) + "x",
            run * (length // len(run)) + " envelope opened flat in",
        ):
            start = time.thread_time()
            with suppress(LengthError, BadBook, BadTable, ValueError):
                READERS[reader](text)
            assert time.thread_time() - start < 0.5, (reader, run, length)


@pytest.mark.parametrize(
    ("text", "mm"), [("1.500 mm", 1.5), ("0,500 mm", 0.5), ("1,50 cm", 15.0), ("12,5", 12.5)]
)
def test_a_decimal_comma_is_read(text, mm):
    assert parse_length(text).mm == pytest.approx(mm)


def test_a_comma_that_may_be_for_thousands_is_asked_about():
    with pytest.raises(LengthError, match=r"may be 1\.500 or 1500"):
        parse_length("1,500 mm")
    assert parse_length("1,042", fine=True).mm == pytest.approx(1.042), "a caliper shows three decimals"
    for path, typed, words in (
        ("pages.measured_block_mm", "0", "from 0.1 mm"),
        ("pages.trim_mm", "0.2", "from 0.5 mm"),
    ):
        with pytest.raises(BadBook, match=words):
            editing.edit(Book(), {path: typed})
