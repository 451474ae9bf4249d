"""Every printed page of every demo book, in both rulers and on both papers, read as text with the box of each
word (poppler)."""

from __future__ import annotations

import itertools
import re
import subprocess
from xml.etree import ElementTree

import pytest

from pleat.core.base.units import written_fractions
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.recipes import recipe
from pleat.core.engines.folding.sheet import scores
from pleat.core.whole.planning import make_plan
from pleat.demo import demo_books, filled_journal
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import PAPERS, print_sheets, suggested
from tests import profiles
from tests.conftest import edited
from tests.put import everything

TALLEST_PT = 30
LONG = {
    "pages.count": "400 pages",
    "pages.numbered": "yes",
    "pages.sections": "6",
    "pages.folds": "2",
    "brief.size": "A6",
}
BOOKS = {
    **{book.title: book for book in demo_books()},
    **{
        name: recipe(name).book()
        for name in (
            "case",
            "quarter",
            "threepiece",
            "flapped",
            "pockets",
            "sheath",
            "coveredboards",
            "padcover",
        )
    },
    "with things put in": filled_journal(),
    "leaves on rings with everything put in": everything(recipe("rings").book()),
    "sections of odd length": edited(Book(title="Planner"), LONG),
    "flush, with holes near the ends": edited(
        Book(title="Flush"), {"cover.square_mm": "0", "binding.station.0": "6", "brief.size": "A4"}
    ),
    "a title without end": edited(
        Book(title="W" * 80), {"pages.sections": "2", "cover.square_mm": "12", "brief.quantity": "12"}
    ),
}


def words(pdf: bytes, folder) -> list[list[tuple[str, float, float, float, float]]]:
    """(word, left, top, right, bottom) of every page, in points."""
    (folder / "x.pdf").write_bytes(pdf)
    text = subprocess.run(
        ["pdftotext", "-bbox", str(folder / "x.pdf"), "-"], check=True, capture_output=True
    ).stdout
    root = ElementTree.fromstring(re.sub(rb"<!DOCTYPE[^>]*>", b"", text))
    space = "{http://www.w3.org/1999/xhtml}"
    return [
        [
            (
                word.text or "",
                float(word.get("xMin")),
                float(word.get("yMin")),
                float(word.get("xMax")),
                float(word.get("yMax")),
            )
            for word in page.iter(f"{space}word")
        ]
        for page in root.iter(f"{space}page")
    ]


def overlapping(page):
    """Pairs of words that lie on each other; the ascenders and descenders of neighbouring lines may touch,
    and a fraction's parts do."""
    found = []
    rows = [
        (word, left + 0.4, top + 0.28 * (bottom - top), right - 0.4, bottom - 0.28 * (bottom - top))
        for word, left, top, right, bottom in page
    ]
    rows = [row for row in rows if not re.fullmatch(r"[\d⁄]+", row[0])]
    for number, (word, left, top, right, bottom) in enumerate(rows):
        for other, left_2, top_2, right_2, bottom_2 in rows[number + 1 :]:
            if left < right_2 and left_2 < right and top < bottom_2 and top_2 < bottom:
                found.append((word, other))
    return found


PRINTED = [(name, ruler, paper) for name in BOOKS for ruler in ("mm", "in") for paper in ("a4", "letter")]
BY_TURNS = [PRINTED[number + number // 4 % 4] for number in range(0, len(PRINTED), 4)]
"""Each book on one ruler and one paper, its neighbours on the others."""


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "ruler", "paper"), PRINTED if profiles.LONG else BY_TURNS)
def test_every_page_can_be_read(name, ruler, paper, tmp_path):
    plan = make_plan(editing.edit(BOOKS[name], {"brief.ruler": ruler}))
    sheets = print_sheets(plan, BOOKS[name].title, paper)
    pages = words(to_pdf(sheets, "x"), tmp_path)
    assert len(pages) == len(sheets)
    width, height = (side / 25.4 * 72 for side in PAPERS[paper])
    for page in pages:
        assert page
        for word, left, top, right, bottom in page:
            assert -1 < left < right < width + 1, word
            assert -1 < top < bottom < height + 1, word
            assert bottom - top < TALLEST_PT, word
        assert overlapping(page) == []
    printed = re.sub(r"[\s⁄/]", "", "".join(word for page in pages for word, *_ in page))
    for figure in figures(plan):
        assert re.sub(r"[\s⁄/]", "", figure) in printed, figure


def figures(plan):
    """What stands in the screen's part list and is needed beside the knife."""
    ruler = plan.brief.ruler
    yield from (ruler.size(cut.part.width_mm, cut.part.height_mm) for cut in plan.cutting.cuts)
    yield from (f"{cut.part.count} ×" for cut in plan.cutting.cuts)
    shell = getattr(plan.cover, "shell", None)
    for one in plan.cover.pieces if shell is None else ():
        yield from (
            ruler.number(ruler.snap(at))
            for upright in (True, False)
            for at in scores(one.piece, upright=upright)
        )
    if shell is not None:
        yield from (ruler.number(ruler.snap(at)) for at in shell.marks_inside)
        yield from (ruler.number(ruler.snap(at)) for at in (shell.reach, shell.reach + shell.height))
    yield from (ruler.number(position) for position in plan.binding.positions_mm)
    if hasattr(plan.binding, "need") and len(plan.binding.need.pieces_mm) == 1:
        yield ruler.show(ruler.snap_up(plan.binding.need.total_mm))
    if len(rows := getattr(plan.cover, "rows_mm", ())) > 1:
        yield from (ruler.number(row) for row in rows)


def test_only_what_a_ruler_has_is_set_as_a_fraction():
    for plain in ("linen 18/3", "6/20 steps", "5/4", "12/11/2026", "25/3", "2/4 of it"):
        assert list(written_fractions(plain)) == [plain]
    assert list(written_fractions("1/2 of 8 3/16 in")) == [("1", "2"), " of 8", ("3", "16"), " in"]


def test_print_starts_on_the_paper_that_ruler_and_sheets_suggest():
    assert [
        suggested(make_plan(edited(Book(), texts)))
        for texts in ({}, {"brief.ruler": "in"}, {"paper.leaf.size": "letter"})
    ] == [
        "a4",
        "letter",
        "letter",
    ]


def test_a_part_list_of_forty_papers_takes_several_pages(tmp_path):
    from pleat.core.materials.items import Paper
    from pleat.services import piles

    book = edited(Book(), {"brief.size": "100 x 150"})
    for number in range(40):
        book = piles.add(
            book,
            Paper(name=f"Found paper number {number}", sheet_width_mm=300 + number, sheet_height_mm=300),
            1,
        )
    plan = make_plan(book)
    pages = words(to_pdf(print_sheets(plan, "x", "a4"), "x"), tmp_path)
    text = ["".join(word for word, *_ in page) for page in pages]
    assert sum("parts," in page for page in text) >= 2
    every = [word for page in pages for word, *_ in page]
    told = {after.rstrip(",;.:") for word, after in itertools.pairwise(every) if word == "number"}
    assert told >= {str(number) for number in range(40)}
