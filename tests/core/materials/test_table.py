"""The shelf as CSV: out and in gives the same shelf, in every dialect; formulas are tamed; every fault has
its row and its words."""

import csv
import io
from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.materials.items import Paper, Stick
from pleat.core.materials.table import MOST_ROWS, BadTable, KindMissing, read_table, write_table
from pleat.demo import demo_items

SHELF = demo_items()
DIALECTS = [(";", "."), (";", ","), (",", ".")]


def rows(text, mark=False):
    unknown, found = read_table((("\ufeff" if mark else "") + text).encode(), "paper")
    return unknown, list(found)


@pytest.mark.parametrize(("delimiter", "decimal"), DIALECTS)
@pytest.mark.parametrize("mark", [False, True])
def test_out_and_in_is_the_same_shelf(delimiter, decimal, mark):
    unknown, found = rows(write_table(SHELF, delimiter, decimal), mark)
    assert unknown == []
    assert [row.item for row in found] == list(SHELF)
    assert all(row.over(row.item) == row.item for row in found)


names = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"]), min_size=1, max_size=20)


@given(
    st.lists(
        st.builds(
            Paper,
            name=names | st.sampled_from(["=1+2", "+cmd", "-x", "@sum", "'quoted", 'a "b"', "a;b,c"]),
            tags=st.sampled_from(["", "=HYPERLINK(1)", "moon; stars"]),
            sheet_width_mm=st.floats(30, 5000).map(lambda mm: round(mm, 4)),
            sheet_height_mm=st.floats(30, 5000).map(lambda mm: round(mm, 4)),
            grammage=st.none() | st.floats(20, 700).map(lambda g: round(g, 2)),
            readings_mm=st.lists(st.floats(0.05, 20).map(lambda mm: round(mm, 3)), max_size=3).map(tuple),
            owned=st.none() | st.integers(0, 100000),
        ),
        min_size=1,
        max_size=5,
    ),
    st.sampled_from(DIALECTS),
)
def test_any_papers_survive_the_way_and_no_cell_is_a_formula(papers, dialect):
    text = write_table(papers, *dialect)
    assert [row.item for row in rows(text)[1]] == papers
    for line in csv.reader(io.StringIO(text), delimiter=dialect[0]):
        assert not any(cell.startswith(("=", "+", "-", "@", "\t", "\r")) for cell in line)


def test_units_in_the_headings_and_other_peoples_headings():
    text = (
        "Name,Sheet Width [in],sheet height (in),Weight,Colour of the box\nStar log,8.5,11,65 lb cover,red\n"
    )
    unknown, found = rows(text)
    assert unknown == ["Colour of the box"]
    item = found[0].item
    assert (item.sheet_width_mm, item.sheet_height_mm, item.grade) == (
        pytest.approx(215.9),
        pytest.approx(279.4),
        "cover",
    )
    metres = rows(
        "kind of item;name;roll width (cm);length left (m);thickness (mm)\ncloth;Moss;140;1,8;0,6\n"
    )[1][0].item
    assert (metres.roll_width_mm, metres.length_left_mm, metres.thickness_mm) == (1400, 1800, 0.6)
    assert rows("kind of item\tname\tlength (cm)\tthickness (mm)\nstick\tTwig\t26\t7\n")[1][0].item == Stick(
        name="Twig", length_mm=260, thickness_mm=7
    )
    assert (
        rows("name;sheet width (mm);sheet height (mm);pounds (lb);grade\nx;210;297;110;index\n")[1][
            0
        ].item.grammage
        == 198.9
    )


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("paper;;210;297", "the name: This is missing"),
        ("paper;x;;297", "the sheet's width: This is missing"),
        ("paper;x;wide;297", "not a length"),
        ("paper;x;1;297", "too small"),
        ("paper;x;1.234,5;297", "both a comma and a point"),
        ("pepper;x;210;297", "no kind “pepper”"),
        ("paper;x;210;297;9", "more cells than headings"),
        ("stick;x;210;297", "has no such field"),
    ],
)
def test_a_row_that_cannot_be_taken_says_why_and_the_others_are_taken(line, words):
    _, found = rows(
        f"kind of item;name;sheet width (mm);sheet height (mm)\n{line}\npaper;Good;210;297\n\n;;;\n"
    )
    assert [row.item is None for row in found] == [True, False]
    assert words in " ".join(found[0].problems)
    assert found[0].line == 2


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "empty"),
        (b"\xff\xfeN\x00a\x00", "UTF-8"),
        ("name;Größe\n".encode("latin-1"), "UTF-8"),
        (b"name\x00;x", "no text"),
        (b"size;weight\nA4;80\n", "headed"),
        (b"name\n" + b"x\n" * (MOST_ROWS + 1), "at most"),
        (b"x" * 8_000_001, "8 MB"),
    ],
)
def test_what_is_no_table_is_refused_whole(data, words):
    with pytest.raises(BadTable) as caught:
        list(read_table(data, "paper")[1])
    assert words in caught.value.text


def test_a_row_changes_only_what_it_says():
    held = SHELF[0]
    row = rows(
        "name;owned;price\nLog paper, cream;90;\n".replace(
            "name;", "name;sheet width (mm);sheet height (mm);"
        ).replace("cream;", "cream;297;210;")
    )[1][0]
    changed = row.over(held)
    assert (changed.owned, changed.price) == (90, None), "an empty cell clears what may be empty"
    assert (changed.grain, changed.swatch, changed.tags) == (held.grain, held.swatch, held.tags)


def test_headings_that_are_nearly_right_pounds_with_their_grade_and_a_kind_that_is_missing():
    unknown, found = rows(
        "name;sheet width (mm);sheet height;wieght;pounds\nCard;210;297;90;65 cover\nOther;210;297;;65 lb\n"
    )
    assert unknown == ["wieght (is it “weight”?)"]
    card, other = (row.item for row in found)
    assert (card.pounds, card.grade, round(card.grammage)) == (65, "cover", 176)
    assert (other.pounds, other.grade) == (65, None)
    with pytest.raises(KindMissing):
        read_table(b"name\nCard\n")
    for heading in (b'"name\nand more";size\n', b'"name;size\nCard;A4', b"name (mm;[(size\nCard;A4\n"):
        with suppress(BadTable):
            list(read_table(heading, "paper")[1])
