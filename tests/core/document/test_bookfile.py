"""Books as files: what is written reads back equal, what is wrong is named by its field, the schema
agrees."""

import copy
import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given

from pleat.core.base.errors import BadBook
from pleat.core.base.kinds import Member
from pleat.core.document import editing
from pleat.core.document.book import FORMAT, Book
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.document.labels import MEMBERS, label_of, rule_of
from pleat.core.document.recipes import recipe
from pleat.core.whole.planning import make_plan, worked_out
from pleat.examples import names, text
from tests.fits import FITS
from tests.profiles import LONG, some
from tests.strategies import books


@given(books)
def test_a_written_book_reads_back_equal_and_fits_the_schema(book):
    text = write_book(book)
    assert read_book(text) == book
    assert read_book(text.encode()) == book
    FITS.validate(json.loads(text))


def test_a_book_written_by_hand_may_have_lengths_with_units():
    by_hand = {
        "title": "Dark-sky log",
        "brief": {"leaf_width_mm": "5 1/2 in", "leaf_height_mm": 216},
        "cover": {"square_mm": "1/8 in"},
    }
    FITS.validate(by_hand)
    book = read_book(json.dumps(by_hand))
    assert book.brief.leaf_width_mm == pytest.approx(139.7)
    assert book.cover.square_mm == pytest.approx(3.175)
    assert book.typed == {"brief.leaf_width_mm": "5 1/2 in", "cover.square_mm": "1/8 in"}
    assert Book() == read_book("{}")


@pytest.mark.parametrize(
    ("text", "path", "word"),
    [
        ("", "", "JSON"),
        ("[1]", "", "named fields"),
        ("{" * 200, "", "JSON"),
        ("[" * 100_000, "", "JSON"),
        ("\x00\xff", "", "JSON"),
        (" " * 1_000_001, "", "1 MB"),
        ('{"format": 13}', "format", "newer"),
        ('{"format": "x"}', "format", "12"),
        ('{"format": 1, "paper": 3}', "paper", "group"),
        ('{"colour": 3}', "colour", "does not know"),
        ('{"brief": 3}', "brief", "group"),
        ('{"brief": {"leaf_width_mm": "wide"}}', "brief.leaf_width_mm", "not a length"),
        ('{"brief": {"leaf_width_mm": 8.25}}', "brief.leaf_width_mm", "Did you mean 8.25 in?"),
        ('{"brief": {"leaf_width_mm": null}}', "brief.leaf_width_mm", "length"),
        ('{"brief": {"leaf_width_mm": true}}', "brief.leaf_width_mm", "length"),
        ('{"brief": {"leaf_width_mm": NaN}}', "brief.leaf_width_mm", "too"),
        ('{"brief": {"quantity": 1.5}}', "brief.quantity", "whole number"),
        ('{"brief": {"purpose": "hats"}}', "brief.purpose", "one of"),
        ('{"pages": {"amount": 0}}', "pages.amount", "from 1"),
        ('{"binding": {"station_count": 4}}', "binding.station_count", "one of"),
        ('{"binding": {"insets_mm": [1, 2, 3, 4, 5, 6, 7, 8]}}', "binding.insets_mm", "too many"),
        ('{"paper": {"leaf": {"name": "x"}}}', "paper.leaf.sheet_width_mm", "missing"),
        (
            '{"paper": {"leaf": {"name": "  ", "sheet_width_mm": 100, "sheet_height_mm": 100}}}',
            "paper.leaf.name",
            "letters",
        ),
        ('{"title": "%s"}' % ("x" * 81), "title", "at most 80"),
        ('{"bench": {"ticks": []}}', "bench.ticks", "group"),
    ],
)
def test_a_bad_file_names_the_field_and_what_is_wrong(text, path, word):
    with pytest.raises(BadBook) as caught:
        read_book(text)
    assert caught.value.problems[0].path == path
    assert word in caught.value.problems[0].message


def test_a_file_of_the_first_format_is_read_with_its_one_reading():
    old = json.loads(write_book(Book())) | {"format": 1}
    for paper, measured in ((old["paper"]["leaf"], 1.04), (old["paper"]["cover"], None)):
        for name in (
            "readings_mm",
            "pounds",
            "grade",
            "form",
            "designs",
            "each",
            "grain_sure",
            "sides",
            "pattern",
            "toughness",
            "tags",
            "price",
        ):
            del paper[name]
        paper["measured_mm"] = measured
    book = read_book(json.dumps(old))
    assert book.format == FORMAT
    assert book.paper.leaf.readings_mm == (1.04,)
    assert book.paper.cover.readings_mm == ()
    with pytest.raises(BadBook):
        read_book(json.dumps(old | {"format": 2}))


def test_every_length_of_the_book_has_a_name_in_the_makers_words():
    def lengths(model, prefix=""):
        for name, field in model.model_fields.items():
            inner = field.annotation
            if inner is Member:
                for kind in MEMBERS[name].members:
                    yield from lengths(kind.record, f"{name}.")
            elif hasattr(inner, "model_fields"):
                yield from lengths(inner, f"{prefix}{name}.")
            elif name.endswith("_mm"):
                yield f"{prefix}{name}"

    paths = list(lengths(Book))
    assert len(paths) > 15
    for path in paths:
        assert rule_of(path) is not None, path
        assert "_" not in label_of(path)
    assert label_of("") == "the file"
    assert rule_of("brief.nothing") is None


def test_a_field_has_its_own_rule_however_many_were_asked_for():
    """Groups with the maker's own keys have as many paths as there are texts; what is remembered of one is
    never taken for another."""
    for number in range(3000):
        assert rule_of(f"cutting.counted.k{number}").label == "pieces from one sheet"
        assert rule_of(f"cutting.lies.k{number}").label == "pieces lie"
        assert rule_of(f"typed.k{number}") is None


SAMPLES = {
    path.name.split(".")[0].removeprefix("format"): path.read_text()
    for path in (Path(__file__).parent / "samples").iterdir()
}


@pytest.mark.parametrize("number", SAMPLES)
def test_a_file_of_every_format_is_read_planned_and_written_in_the_present_one(number):
    book = read_book(SAMPLES[number])
    assert book.title.startswith("Of the ")
    make_plan(book)
    written = json.loads(write_book(book))
    assert written["format"] == FORMAT == len(SAMPLES)
    assert read_book(write_book(book)) == book
    if number != "4":  # which holds a binding that nobody knows
        FITS.validate(written)


def test_what_older_formats_had_otherwise_comes_along():
    books = {number: read_book(text) for number, text in SAMPLES.items()}
    assert books["1"].paper.leaf.readings_mm == (1.2,)
    two = books["2"]
    assert [sheet.paper for sheet in two.pages.pile] == ["p1", "p2", "p1"], "equal papers once"
    assert {key: paper.name for key, paper in two.paper.more.items()} == {"p1": "Log paper", "p2": "Site map"}
    assert make_plan(two).pages.leaves == 6
    three = books["3"]
    assert (three.pages.pile[1].flap_mm, three.binding.tail_mm, three.typed) == (
        60,
        101.6,
        {"binding.tail_mm": "4 in"},
    )
    four = books["4"]
    assert (four.binding.kind, list(four.paper.more)) == ("scroll", ["p1"]), (
        "counted among the materials, so one paper"
    )
    assert (four.cutting.counted, four.cutting.lies) == ({"leaf": 2}, {"cover": "turned"})
    assert make_plan(four).binding.checks[0].key == "kind"
    five = editing.apply(books["5"], [("cover.kind", "wrap")])
    assert five.cover.square_mm == 5, "what was laid aside comes back"
    assert (five.binding.kind, five.binding.moves) == ("own", "3 out | 3 4 5 4 2 1 2 3 =over"), (
        "with the tie's place"
    )
    assert not make_plan(five).binding.faults
    six = editing.apply(books["6"], [("binding.kind", "own")])
    assert not make_plan(six).binding.faults
    in_inches = json.loads(SAMPLES["10"])
    in_inches["brief"]["ruler"] = "in"
    del in_inches["binding"]["tail_mm"]
    assert read_book(json.dumps(in_inches)).brief.made_on == "mm", (
        "what nobody typed was in millimetres for every book"
    )
    del in_inches["format"]
    assert read_book(json.dumps(in_inches)).brief.made_on == "in", "a file without a format is written today"


def test_boards_that_were_described_as_a_paper_become_boards_and_what_was_cut_stays_cut():
    """Format 6 cut the boards of an open sewing from the cover's paper; a board that was measured keeps its
    reading."""
    data = json.loads(write_book(recipe("link").book()))
    paper = {
        "name": "Greyboard, 2 mm",
        "kind": "other",
        "sheet_width_mm": 700,
        "sheet_height_mm": 500,
        "grammage": 700,
        "grain": "short",
        "owned": 4,
        "swatch": "grey",
        "measured_sheets": 1,
        "readings_mm": [2.1, 2.1, 2.1],
    }
    papers = {role: data["paper"][role] for role in ("leaf", "cover", "more")} | {"cover": paper}
    old = {**data, "format": 6, "paper": papers, "bench": {"ticks": {"cut_cover": "x", "fold": "y"}}}
    book = read_book(json.dumps(old))
    board = book.paper.board
    assert (board.name, board.owned, board.grain, board.swatch) == ("Greyboard, 2 mm", 4, "short", "grey")
    assert board.thickness_mm == pytest.approx(2.1)
    assert set(book.bench.ticks) == {"cut_board", "fold"}
    plan = make_plan(book)
    assert plan.paper.roles == ("leaf", "board")
    assert {part.stock for part in plan.cover.parts} == {"board"}
    nonsense = {**old, "paper": {**papers, "cover": {"name": 3}}}
    with pytest.raises(BadBook):
        read_book(json.dumps(nonsense))
    plain = {**old, "cover": {"kind": "wrap"}, "bench": {"ticks": {"cut_cover": "x"}}}
    assert set(read_book(json.dumps(plain)).bench.ticks) == {"cut_cover"}


def places(data: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[tuple[Any, ...], str | None]]:
    """Each text of a document by where it stands, and each key (with its group)."""
    for key, value in data.items() if isinstance(data, dict) else enumerate(data):
        if isinstance(data, dict):
            yield path, str(key)
        if isinstance(value, (dict, list)):
            yield from places(value, (*path, key))
        elif isinstance(value, str):
            yield (*path, key), None


@pytest.mark.parametrize("name", sorted({"found", *some(names(), 14)}))
def test_what_points_to_nothing_is_refused_and_never_breaks_the_plan(name):
    """Each text and each key of an example is another one: the file is refused, or the book plans."""
    document, seen = json.loads(read_book(text(name)).model_dump_json()), set()
    for path, key in places(document):
        sort = (re.sub(r"\d+", "#", ".".join(str(one) for one in path)), key)
        if sort in seen:
            continue
        seen.add(sort)
        for other in ("nonsense", "9") if LONG else ("nonsense",):
            wrong = place = copy.deepcopy(document)
            for step in path if key is not None else path[:-1]:
                place = place[step]
            if key is not None:
                place[other] = place.pop(key)
            else:
                place[path[-1]] = other
            try:
                book = read_book(json.dumps(wrong))
            except BadBook:
                continue
            worked_out(book)


@pytest.mark.parametrize(("at", "paper"), [(0, "nonsense"), (2, "")])
def test_a_sheet_of_a_paper_that_the_book_has_not_is_named_with_those_it_has(at, paper):
    found = json.loads(text("found"))
    found["pages"]["pile"][at]["paper"] = paper
    with pytest.raises(BadBook) as caught:
        read_book(json.dumps(found))
    assert caught.value.problems[0].path == f"pages.pile.{at}.paper"
    if paper:
        assert "has no paper “nonsense”" in caught.value.problems[0].message
