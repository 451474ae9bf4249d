"""Books of several sections and of sheets folded more than once, from the pages to the bench."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.planning import make_plan, worked_out
from pleat.printing.sheets import print_sheets
from tests.conftest import edited


def plan(**texts):
    return make_plan(edited(Book(), texts))


def test_two_sections_of_seven_by_hand_arithmetic():
    """56 pages of 0.104 mm copier paper: 14 folios, 2 x 7; the block as thick as before, the creep that of 7,
    twice the thread."""
    one, two = plan(**{"pages.count": "56 pages"}), plan(**{"pages.count": "56 pages", "pages.sections": "2"})
    assert (one.pages.sections, two.pages.sections) == ((14,), (7, 7))
    assert (
        two.pages.thickness.likely
        == pytest.approx(one.pages.thickness.likely)
        == pytest.approx(28 * 0.104 * 1.02)
    )
    assert two.pages.creep.likely == pytest.approx(6 * 0.104 * (1 + 3.14159265 / 2) / 2)
    assert two.binding.swell.likely == pytest.approx(2 * one.binding.swell.likely)
    assert two.binding.need.run.passages_mm < one.binding.need.run.passages_mm
    assert len(two.cover.rows_mm) == 2
    middle = two.cover.wrap.width_mm / 2
    assert sum(two.cover.rows_mm) / 2 == pytest.approx(middle)
    assert two.cover.rows_mm[1] - two.cover.rows_mm[0] == pytest.approx(two.cover.spine.likely / 2)
    assert two.cover.creases == 2
    steps = {step.step.key: step.step for step in two.bench.work}
    assert "2 sections, with so many sheets each, front to back: 7, 7" in steps["nested"].detail
    assert "2 times" in steps["thread"].title
    assert "C1" in {check.key for _, check in one.checks}
    assert "C1" not in {check.key for _, check in two.checks}


def test_too_many_for_one_fold_is_split():
    book = edited(Book(), {"pages.count": "120 pages"})
    check = next(check for _, check in make_plan(book).checks if check.key == "C1")
    assert check.offers[0].label == "split them into 3 sections of 10"
    mended = make_plan(editing.apply(book, check.offers[0].changes))
    assert mended.pages.sections == (10, 10, 10)
    assert {"sections"} <= {check.key for _, check in mended.checks}, "three are many for a pamphlet stitch"


def test_sheets_folded_twice_are_cut_slit_and_counted():
    twice = plan(**{"brief.size": "A6", "pages.count": "32 pages", "pages.folds": "2"})
    part = twice.pages.parts[0]
    assert (part.count, part.width_mm, part.height_mm) == (4, 210, 296)
    assert [(fold.position_mm, fold.axis) for fold in part.folds] == [(105, "upright"), (148, "level")]
    keys = [step.step.key for step in twice.bench.work]
    assert keys.index("fold") < keys.index("slit") < keys.index("nested")
    trimmed = plan(
        **{
            "brief.size": "A6",
            "pages.count": "32 pages",
            "pages.folds": "2",
            "pages.edges": "trim",
            "pages.trim_mm": "2",
        }
    )
    assert (trimmed.pages.parts[0].width_mm, trimmed.pages.parts[0].height_mm) == (214, 304)
    keys = [step.step.key for step in trimmed.bench.work]
    assert "slit" not in keys
    assert keys.index("press") < keys.index("trim") < keys.index("measure")
    assert {figure.key for figure in trimmed.pages.figures} >= {"raw"}


@pytest.mark.parametrize(("folds", "pages"), [("1", 48), ("2", 96), ("3", 192)])
def test_twelve_sheets_are_as_many_pages_as_they_are_folded_for(folds, pages):
    made = plan(**{"pages.folds": folds, "pages.count": "12 sheets", "brief.size": "A6"})
    assert made.pages.pages == pages
    assert made.pages.parts[0].count == 12


@pytest.mark.parametrize(
    ("how", "words"), [("leave", "slants"), ("trim", "instead of 148.5 mm"), ("narrow", "sheets 297, ")]
)
def test_what_is_done_about_the_creep(how, words):
    made = plan(**{"pages.creep": how})
    assert words in next(figure.how for figure in made.pages.figures if figure.key == "creep")
    assert ("trim" in {step.step.key for step in made.bench.work}) == (how == "trim")


def test_an_accordion_folds_back_and_forth_on_a_longer_sheet():
    """Three panels of 100 mm beside two leaves of 140: 580 mm, folded in, back, in; the sheet of 420 has room
    for one."""
    long = Paper(
        name="Chart", kind="drawing", grammage=120, sheet_width_mm=600, sheet_height_mm=210, grain="short"
    )
    texts = {"brief.size": "140 x 200", "pages.flap_mm": "100", "pages.flap_panels": "3"}
    book = edited(Book(paper=Papers(leaf=long)), texts)
    part = make_plan(book).pages.parts[-1]
    assert part.width_mm == 580
    assert [(fold.position_mm, fold.direction) for fold in part.folds] == [
        (140, "valley"),
        (280, "valley"),
        (380, "mountain"),
        (480, "valley"),
    ]
    assert "flap_room" not in {check.key for _, check in make_plan(book).checks}
    short = book.model_copy(update={"paper": Papers(leaf=long.model_copy(update={"sheet_width_mm": 420.0}))})
    check = next(check for _, check in make_plan(short).checks if check.key == "flap_room")
    assert "a single panel" in [fix.label for fix in check.offers]
    for fix in check.offers:
        assert "flap_room" not in {
            check.key for _, check in make_plan(editing.apply(short, fix.changes)).checks
        }, fix.label
    steps = {one.step.key: one.step for one in make_plan(book).bench.work}
    assert "like an accordion" in steps["flap"].detail


def test_a_fold_out_wants_sheets_folded_once():
    book = edited(Book(), {"pages.flap_mm": "60", "pages.folds": "2"})
    check = next(check for _, check in make_plan(book).checks if check.key == "flap_folds")
    for fix in check.offers:
        assert "flap_folds" not in {
            check.key for _, check in make_plan(editing.apply(book, fix.changes)).checks
        }


@given(
    st.integers(1, 400),
    st.integers(1, 9),
    st.sampled_from([1, 2, 3]),
    st.sampled_from(["slit", "trim"]),
    st.booleans(),
)
def test_every_choice_can_be_taken_and_holds_what_it_says(amount, sections, folds, edges, numbered):
    book = editing.apply(
        Book(),
        [
            ("pages.amount", amount),
            ("pages.sections", sections),
            ("pages.folds", folds),
            ("pages.edges", edges),
            ("pages.numbered", "yes" if numbered else "no"),
        ],
    )
    made = make_plan(book)
    pages = made.pages
    assert pages.pages == 2 * pages.leaves == 4 * sum(pages.sections)
    assert pages.pages >= amount
    assert sum(part.count for part in pages.parts) * 2 ** (folds - 1) == pages.folios
    if numbered:
        printed = [
            cell.page
            for sheet in pages.numbered
            for side in (sheet.inner, sheet.outer)
            for row in side
            for cell in row
        ]
        assert sorted(printed) == list(range(1, pages.pages + 1)), "every page once"
        assert any("dummy" in sheet.title for sheet in print_sheets(made, "x", "a4"))
    for choice in pages.offers:
        taken = worked_out(editing.apply(book, choice.changes))
        if choice.group == "in sections":
            assert choice.facts[0] == f"{taken.pages.pages} pages"
            assert choice.good == ("C1" not in {check.key for _, check in taken.checks})
        if choice.group == "this whole sheet, folded":
            assert taken.cutting.cuts[0].better.count >= 1
