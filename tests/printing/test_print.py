"""Printed paper, measured: page boxes with pypdf, the 100 mm bar after rasterising, strips tiled without a
gap."""

from __future__ import annotations

import itertools
import re
import subprocess
from io import BytesIO
from typing import Any

import numpy
import pytest
from PIL import Image
from pypdf import PdfReader

from pleat.core.document.book import Book
from pleat.core.whole.planning import make_plan
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import MARGIN_MM, PAPERS, print_sheets
from pleat.printing.strips import OVERLAP_MM, draw, score_strip, station_strip, tiles
from tests.conftest import edited

DPI = 600


@pytest.fixture(scope="module")
def plan():
    return make_plan(edited(Book(), {"brief.ruler": "in", "brief.size": "5 1/2 x 8 1/4"}))


def rasterised(pdf: bytes, page: int, tmp_path) -> numpy.ndarray:
    (tmp_path / "book.pdf").write_bytes(pdf)
    command = [
        "pdftoppm",
        "-r",
        str(DPI),
        "-gray",
        "-f",
        str(page),
        "-l",
        str(page),
        "-singlefile",
        str(tmp_path / "book.pdf"),
        str(tmp_path / "page"),
    ]
    subprocess.run(command, check=True)
    return numpy.asarray(Image.open(tmp_path / "page.pgm"))


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_pages_are_exactly_as_large_as_their_paper_and_not_to_be_scaled(plan, paper):
    reader: Any = PdfReader(BytesIO(to_pdf(print_sheets(plan, "Dark-sky log", paper), "Dark-sky log")))
    for page in reader.pages:
        size = (float(page.mediabox.width) / 72 * 25.4, float(page.mediabox.height) / 72 * 25.4)
        assert size == pytest.approx(PAPERS[paper], abs=0.02)
    assert reader.trailer["/Root"]["/ViewerPreferences"]["/PrintScaling"] == "/None"
    text = " ".join(page.extract_text() for page in reader.pages)
    for words in ("Dark-sky log", "100 mm", "4 in", "HEAD", "stations from the head", "folio"):
        assert words in text
    fonts = {
        str(font.get_object()["/BaseFont"])
        for page in reader.pages
        for font in page["/Resources"]["/Font"].values()
    }
    assert fonts
    assert all("Pleat" in font for font in fonts), "the fonts shipped with Pleat, whatever the machine has"


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_the_bars_measure_100_mm_and_4_in_on_paper(plan, paper, tmp_path):
    pixels = rasterised(to_pdf(print_sheets(plan, "x", paper), "x"), 1, tmp_path)
    top = PAPERS[paper][1] - MARGIN_MM - 11
    for offset, length in ((1.2, 100.0), (5.8, 101.6)):
        row = pixels[round((top + offset) / 25.4 * DPI)]
        dark = numpy.flatnonzero(row[: round((MARGIN_MM + 103) / 25.4 * DPI)] < 128)
        # both bars begin and end with the outline of a field, half of whose stroke lies outside
        measured = (dark.max() - dark.min() + 1) / DPI * 25.4
        assert measured == pytest.approx(length, abs=0.2)


def test_stations_lie_where_the_plan_says(plan, tmp_path):
    """The cross lines of the strip, from its head edge, measured on the raster: stations at 1.5, 4.125 and
    6.75 in."""
    pixels = rasterised(to_pdf(print_sheets(plan, "x", "a4"), "x"), 2, tmp_path)
    column = pixels[:, round((MARGIN_MM + 3) / 25.4 * DPI)]
    lines = [
        group.mean() / DPI * 25.4
        for group in numpy.split(
            numpy.flatnonzero(column < 140),
            numpy.flatnonzero(numpy.diff(numpy.flatnonzero(column < 140)) > 1) + 1,
        )
    ]
    head = MARGIN_MM + 16 + plan.cover.square_head_mm
    for station in (1.5, 4.125, 6.75):
        assert min(abs(line - head - station * 25.4) for line in lines) < 0.2


@pytest.mark.parametrize("room", [120, 231, 250.5])
@pytest.mark.parametrize("width", ["90", "148.5", "300"])
def test_long_strips_are_tiled_with_overlaps_and_lose_no_mark(room, width):
    plan: Any = make_plan(edited(Book(), {"brief.leaf_width_mm": width}))
    for strip in (*score_strip(plan.cover, plan), *station_strip(plan.binding, plan)):
        pieces = tiles(strip, room)
        assert pieces[0].start_mm == 0
        assert pieces[-1].end_mm == pytest.approx(strip.length_mm)
        assert all(piece.end_mm - piece.start_mm <= room + 1e-9 for piece in pieces)
        for above, below in itertools.pairwise(pieces):
            assert above.end_mm - below.start_mm == pytest.approx(OVERLAP_MM)
            assert above.letter_below == below.letter_above != ""
        for mark in strip.marks:
            assert any(piece.start_mm <= mark.at_mm <= piece.end_mm for piece in pieces)
        assert sum(len(draw(piece).shapes) for piece in pieces) > 3
    with pytest.raises(ValueError, match="room"):
        tiles(score_strip(plan.cover, plan)[0], 15)


@pytest.mark.parametrize(
    ("pages", "folds", "dummies"), [("64 pages", "1", 1), ("400 pages", "1", 3), ("64 pages", "3", 1)]
)
def test_the_dummy_holds_every_page_of_a_numbered_book(pages, folds, dummies):
    book = edited(
        Book(), {"pages.count": pages, "pages.folds": folds, "pages.numbered": "yes", "brief.size": "A6"}
    )
    sheets = print_sheets(make_plan(book), "Planner", "a4")
    shown = [sheet for sheet in sheets if sheet.title.startswith("dummy")]
    assert len(shown) >= dummies
    numbers = sorted(
        int(text) for sheet in shown for text in re.findall(r'font-size="3.6"[^>]*>(\d+)<', sheet.svg)
    )
    assert numbers == list(range(1, int(pages.split()[0]) + 1))
    text = " ".join(page.extract_text() for page in PdfReader(BytesIO(to_pdf(sheets, "x"))).pages)
    assert "glue them back to back" in " ".join(text.split())


def test_a_title_cannot_break_the_page():
    plan = make_plan(Book())
    sheets = print_sheets(plan, '<b>&"Moon" ½ — 夜', "a4")
    assert "<b>" not in sheets[0].svg
    assert len(PdfReader(BytesIO(to_pdf(sheets, "x"))).pages) == len(sheets)
    assert re.search(r'width="210\.0000mm"', sheets[0].svg)
