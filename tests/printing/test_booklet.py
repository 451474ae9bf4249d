"""The booklet, read as text, and with the box of each word (poppler): every step, number and caution, on its
ruler."""

from __future__ import annotations

import re
from html import unescape
from html.parser import HTMLParser

import pytest

from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.drawing.scenes import numbers
from pleat.printing.booklet import as_html, booklet
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import PAPERS
from tests.printing.test_every_page import words

NAMES = [one.name for one in RECIPES]
WRITTEN = re.compile(r">([^<]+)</text>")


def bare(text: str) -> str:
    return re.sub(r"[\s⁄/]", "", text)


@pytest.mark.every(8)
@pytest.mark.parametrize("paper", ["a4", "letter"])
@pytest.mark.parametrize("name", NAMES)
def test_every_step_number_and_caution_stands_once_within_its_page(name, paper, tmp_path):
    ruler = "in" if paper == "letter" else "mm"
    changes = [("brief.ruler", ruler), ("brief.quantity", 3)]
    plan = make_plan(editing.apply(recipe(name).book(), changes))
    sheets = booklet(plan, f"Booklet of {name}", paper)
    pages = words(to_pdf(sheets, "x"), tmp_path)
    assert len(pages) == len(sheets)
    width, height = (side / 25.4 * 72 for side in PAPERS[paper])
    for page in pages:
        for word, left, top, right, bottom in page:
            assert -1 < left < right < width + 1, word
            assert -1 < top < bottom < height + 1, word
    told = bare("".join(unescape(text) for sheet in sheets for text in WRITTEN.findall(sheet.svg)))
    for one in plan.bench.work:
        assert told.count(bare(f"{one.number} {one.step.title}")) >= 1, one.step.title
        assert bare(one.step.detail) in told, one.step.detail
        for where, values in numbers(one.step, plan):
            assert bare(f"{' · '.join(values)} {ruler} {where}") in told
    for text in {text for one in plan.bench.work for text in one.step.cautions}:
        assert told.count(bare(text)) == 1, "a caution stands once, in full"


class Outside(HTMLParser):
    """What a page asks for from elsewhere."""

    def __init__(self):
        super().__init__()
        self.asked = []

    def handle_starttag(self, tag, attrs):  # noqa: ARG002 - so the parser calls it
        self.asked += [value for name, value in attrs if name in ("src", "href") and value]


def test_the_page_to_send_has_all_it_needs():
    plan = make_plan(recipe("journal").book())
    sheets = booklet(plan, "Stars & <comets>", "a4")
    page = as_html(sheets, "Stars & <comets>")
    asked = Outside()
    asked.feed(page)
    assert asked.asked == []
    assert re.findall(r"url\((?!data:)", page) == []
    assert page.count("<svg") == len(sheets)
    assert "<title>Stars &amp; &lt;comets&gt;</title>" in page


def test_a_copy_has_a_box_of_its_own(tmp_path):
    """Of twelve copies at most; what is done once for all has one."""
    one, three, many = (
        booklet(make_plan(editing.apply(recipe("journal").book(), [("brief.quantity", count)])), "x", "a4")
        for count in (1, 3, 40)
    )
    boxes = [
        sum(len(re.findall(r'width="4\.00" height="4\.00"', sheet.svg)) for sheet in sheets)
        for sheets in (one, three, many)
    ]
    plan = make_plan(recipe("journal").book())
    each = sum(not work.step.for_all for work in plan.bench.work)
    assert boxes == [len(plan.bench.work), len(plan.bench.work) + 2 * each, len(plan.bench.work)]
