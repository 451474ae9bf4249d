"""Whole books worked out by hand arithmetic beside the plan, in millimetres and in inches."""

import math

import pytest

from pleat.core.base.units import RULERS
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.planning import make_plan
from tests.conftest import edited

IN = 25.4
LETTER = Paper(
    name="Log paper",
    kind="copier",
    sheet_width_mm=11 * IN,
    sheet_height_mm=8.5 * IN,
    grammage=75,
    grain="short",
    owned=40,
)
TABLOID = Paper(
    name="Night card",
    kind="cardstock",
    sheet_width_mm=17 * IN,
    sheet_height_mm=11 * IN,
    grammage=216,
    grain="short",
    owned=10,
)
A4 = Paper(
    name="Log paper",
    kind="copier",
    sheet_width_mm=297,
    sheet_height_mm=210,
    grammage=80,
    grain="short",
    owned=60,
)
A2 = Paper(
    name="Night card",
    kind="cardstock",
    sheet_width_mm=594,
    sheet_height_mm=420,
    grammage=250,
    grain="short",
    owned=3,
)


@pytest.fixture(scope="module")
def inch_log():
    """8 letter sheets folded once: 32 pages of 5 1/2 x 8 1/2 in, sewn with 3 stations 1 1/2 in from the ends,
    square 3/16 in."""
    book = Book(paper=Papers(leaf=LETTER, cover=TABLOID))
    texts = {
        "brief.ruler": "in",
        "brief.size": "5 1/2 x 8 1/2",
        "pages.count": "32 pages",
        "cover.square_mm": "3/16",
        "binding.station.0": "1 1/2",
    }
    return make_plan(edited(book, texts))


def test_pages_and_thickness_in_inches(inch_log):
    sheet = 75 * 1.30 / 1000  # mm: 75 g/m2 at the middle of bulk 1.25 to 1.35
    assert inch_log.paper.leaf.caliper.likely == pytest.approx(sheet)
    assert (inch_log.pages.folios, inch_log.pages.leaves, inch_log.pages.pages) == (8, 16, 32)
    assert inch_log.pages.thickness.likely == pytest.approx(16 * sheet * 1.02)
    low, high = inch_log.pages.creep.low, inch_log.pages.creep.high
    assert low < 7 * sheet < 7 * sheet * math.pi / 2 < high, (
        "pressed dead flat to round, and the caliper's doubt besides"
    )


def test_stations_and_thread_in_inches(inch_log):
    assert [at / IN for at in inch_log.binding.positions_mm] == pytest.approx([1.5, 4.25, 7.0])
    spans = (4.25 - 1.5) + (7.0 - 1.5) + (7.0 - 4.25)
    assert inch_log.binding.need.run.spans_mm / IN == pytest.approx(spans) == pytest.approx(11)
    sheet, card = 75 * 1.30 / 1000, 216 * 1.25 / 1000
    passages = 4 * (8 * sheet + card)
    assert inch_log.binding.need.run.passages_mm == pytest.approx(passages)
    assert inch_log.binding.need.total_mm == pytest.approx((11 * IN + passages + 2 * 90) * 1.07)
    assert inch_log.binding.need.total_mm < 3 * 8.5 * IN, "the rule of thumb leaves more"


def test_cover_and_cutting_in_inches(inch_log):
    spine = 16 * 75 * 1.30 / 1000 * 1.02 + 0.55 * math.sqrt(4 * (1653.5 * 3 / 18) / (1000 * math.pi * 0.9))
    assert inch_log.cover.spine.likely == pytest.approx(spine)
    assert inch_log.cover.creases == 1
    panel = (5.5 + 3 / 16) + spine / 2 / IN
    assert inch_log.cover.wrap.width_mm == pytest.approx(2 * math.ceil(panel * 16) / 16 * IN), (
        "each panel up to the next sixteenth"
    )
    assert inch_log.cover.wrap.height_mm / IN == pytest.approx(8.5 + 2 * 3 / 16)
    assert inch_log.cover.wrap.scores_mm == pytest.approx([inch_log.cover.wrap.width_mm / 2])
    leaf, cover = inch_log.cutting.cuts
    assert (leaf.better.count, inch_log.cutting.sheets["leaf"], leaf.needs_no_cut) == (1, 8, True)
    assert (cover.better.count, inch_log.cutting.sheets["cover"]) == (1, 1)
    assert [
        at - place for at, place in zip(inch_log.cover.holes_mm, inch_log.binding.positions_mm, strict=True)
    ] == pytest.approx([3 / 16 * IN] * 3)
    shown = {figure.key: figure for figure in inch_log.cover.figures}
    assert RULERS["in"].size(*shown["wrap"].value) == "11 1/2 × 8 7/8 in"


@pytest.mark.parametrize(
    ("quantity", "pages", "sheets"),
    [(1, 40, 10), (6, 40, 60), (3, 20, 15), (5, 44, 55)],
)
def test_a_run_of_books_takes_so_many_sheets(quantity, pages, sheets):
    """A4 sheets folded once are a folio each; a cover of about 305 x 216 comes once out of 594 x 420, grain
    along the short side."""
    book = edited(
        Book(paper=Papers(leaf=A4, cover=A2)),
        {"brief.quantity": str(quantity), "pages.count": f"{pages} pages"},
    )
    plan = make_plan(book)
    wide, high = plan.cover.wrap.width_mm, plan.cover.wrap.height_mm
    assert (int(594 // wide), int(420 // high)) == (1, 1), (
        "upright one comes out, along the grain; turned, none"
    )
    assert plan.cutting.sheets == {"leaf": sheets, "cover": quantity}
    assert plan.cutting.sheets["leaf"] == quantity * pages // 4
    assert ("owned" in {check.key for _, check in plan.checks}) == (sheets > 60 or quantity > 3)


def test_a_planner_of_sixteen_pages_from_one_sheet_folded_three_times():
    """SRA-like sheet 420 x 594, folded three times: 8 leaves of 105 x 297, 16 pages, all page numbers in
    place."""
    sheet = Paper(
        name="Planner sheet",
        kind="drawing",
        sheet_width_mm=420,
        sheet_height_mm=594,
        grammage=90,
        grain="long",
    )
    book = edited(
        Book(paper=Papers(leaf=sheet, cover=A2)),
        {"brief.size": "105 x 297", "pages.folds": "3", "pages.count": "16 pages", "pages.numbered": "yes"},
    )
    plan = make_plan(book)
    assert (plan.pages.folios, plan.cutting.sheets["leaf"], plan.cutting.cuts[0].needs_no_cut) == (4, 1, True)
    only = plan.pages.numbered[0]
    assert [[cell.page for cell in row] for row in only.outer] == [[5, 12, 9, 8], [4, 13, 16, 1]], (
        "the trade's 16-page form"
    )
    assert [cell.upside_down for cell in only.outer[0]] == [True] * 4
    assert [step.step.key for step in plan.bench.work if step.step.key == "slit"] == ["slit"]
