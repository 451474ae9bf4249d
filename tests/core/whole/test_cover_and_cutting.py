"""The wrap by hand arithmetic, yields against a brute search, and the whole plan's laws."""

import math
from graphlib import CycleError

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.plan import Check, Step
from pleat.core.base.yields import both_ways, lay
from pleat.core.document.book import Book
from pleat.core.engines.panels import PanelPlan, RowPanel
from pleat.core.pleats.bench.order import in_order, waits_for
from pleat.core.whole.planning import PLEATS, make_plan, worked_out
from tests.conftest import edited
from tests.strategies import books


def test_a_wrap_with_two_creases_by_hand():
    """Leaf 140 x 200, square 3, spine 6 scored: panels 143 + 6 + 143 = 292, high 206, scores at 143 and
    149."""
    book = edited(
        Book(),
        {"brief.size": "140 x 200", "cover.score_offset_mm": "3", "pages.measured_block_mm": "5.6566 mm"},
    )
    cover = make_plan(book).cover
    assert cover.spine.likely == pytest.approx(6, abs=0.001)
    assert cover.wrap.width_mm == pytest.approx(292, abs=0.001)
    assert cover.wrap.height_mm == 206
    assert cover.wrap.scores_mm == pytest.approx((143, 149), abs=0.001)
    assert [panel.name for panel in cover.wrap.panels] == ["back", "spine", "front"]


def test_one_crease_or_two_by_thickness():
    """Common practice: one crease serves up to about 3 to 4 mm."""
    thin, thick = (make_plan(edited(Book(), {"pages.measured_block_mm": mm})).cover for mm in ("2", "5"))
    assert (thin.creases, thick.creases) == (1, 2)
    assert thin.wrap.scores_mm == pytest.approx((thin.wrap.width_mm / 2,))
    assert thin.wrap.width_mm == 306, "148.5 + 3 + 2.34 / 2 = 152.67, up to the mark at 153, twice"
    assert (thick.wrap.width_mm, thick.wrap.panels[1].width_mm) == (308.5, 5.5), (
        "5 and 0.34 of the thread, on the next mark"
    )
    assert make_plan(edited(Book(), {"cover.creases": "two"})).cover.creases == 2


def test_holes_of_the_cover_are_those_of_the_leaves_moved_by_the_square():
    plan = make_plan(edited(Book(), {"cover.square_mm": "5"}))
    assert plan.cover.holes_mm == pytest.approx([place + 5 for place in plan.binding.positions_mm])


def test_panel_plans():
    plan = PanelPlan((RowPanel("back", 100.3), RowPanel("spine", 2.4), RowPanel("front", 100.3)), 200)
    assert plan.edges_mm == pytest.approx((0, 100.3, 102.7, 203))
    assert plan.width_mm == pytest.approx(203)
    with pytest.raises(ValueError, match="narrower"):
        RowPanel("x", -1)


@given(
    st.floats(20, 300),
    st.floats(20, 300),
    st.floats(50, 700),
    st.floats(50, 700),
    st.sampled_from(["w", "h", None]),
)
def test_yields_agree_with_laying_pieces_down_one_by_one(width, height, sheet_width, sheet_height, grain):
    for turned in (False, True):
        across, along = (height, width) if turned else (width, height)
        count, y = 0, 0.0
        while y + along <= sheet_height + 0.05:
            x = 0.0
            while x + across <= sheet_width + 0.05:
                count, x = count + 1, x + across
            y += along
        way = lay(width, height, sheet_width, sheet_height, grain, turned)
        assert abs(way.count - count) <= max(way.columns, way.rows) * (
            abs(way.count - count) > 0 and _edge(sheet_width, across, sheet_height, along)
        )
        assert way.used <= 1
    better, other = both_ways(width, height, sheet_width, sheet_height, grain)
    assert better.turned != other.turned
    if other.count and better.count:
        assert better.with_grain or not other.with_grain
    assert better.count or not other.count


def _edge(sheet_width, across, sheet_height, along):
    """Whether a piece fits by a hair, where summing and dividing may round apart."""
    return (
        min(
            (sheet_width + 0.05) % across,
            (sheet_height + 0.05) % along,
            across - (sheet_width + 0.05) % across,
            along - (sheet_height + 0.05) % along,
        )
        < 1e-6
    )


@pytest.mark.parametrize(
    ("piece", "sheet", "count"),
    [
        ((105, 148), (210, 297), 4),
        ((148, 105), (210, 297), 4),
        ((297, 210), (297, 210), 1),
        ((90, 55), (210, 297), 10),
        ((298, 210), (279.4, 215.9), 0),
    ],
)
def test_yields_known_from_the_bench(piece, sheet, count):
    assert both_ways(*piece, *sheet, None)[0].count == count


def test_yields_refuse_pieces_without_size():
    with pytest.raises(ValueError, match="width"):
        lay(0, 10, 100, 100, None, False)


@given(books)
def test_any_valid_book_plans_and_keeps_its_promises(book):
    plan = make_plan(book)
    assert [name for name, _ in plan] == list(PLEATS)
    assert plan.cover.wrap.edges_mm[-1] == pytest.approx(plan.cover.wrap.width_mm)
    for name, result in plan:
        assert result.mark in ("fine", "watch", "stop", "idle")
        for figure in (result.key_figure, *result.figures):
            assert figure.how, f"{figure.key} of {name} cannot be asked why"
            assert figure.rules or name == "extras"
        for check in result.checks:
            assert check.title
            assert check.offers or check.no_fix
    for cut in plan.cutting.cuts:
        on = [
            sheet.times * piece.count
            for own in plan.cutting.plans
            for sheet in own.sheets
            for piece in sheet.pieces
            if piece.part == cut.part.key
        ]
        assert sum(on) == (cut.part.count if cut.better.count else 0), "every piece, or none comes out"
    for own in plan.cutting.plans:
        alone = [
            math.ceil(cut.part.count / cut.better.count)
            for cut in plan.cutting.cuts
            if cut.stock in own.stocks and cut.better.count
        ]
        assert own.stock.roll or own.needed <= sum(alone), "no more than with sheets for each piece"
    keys = [one.step.key for one in plan.bench.work]
    assert len(set(keys)) == len(keys)
    waits = waits_for([one.step for one in plan.bench.work])
    assert all(keys.index(before) < keys.index(key) for key, first in waits.items() for before in first)
    assert keys.index("cover_on") < keys.index("pierce") < keys.index("sew")
    assert make_plan(book) == plan
    assert plan.changed_since(make_plan(book)) == ()


@given(books, st.floats(1, 15))
def test_an_edit_changes_only_its_own_pleat_and_those_to_its_right(book, square):
    """But for what is offered, which is a way out of the whole book."""
    after = worked_out(book.model_copy(update={"cover": book.cover.model_copy(update={"square_mm": square})}))
    changed = worked_out(book).changed_since(after)
    assert set(changed) <= {"cover", "cutting", "bench"}


def test_steps_that_wait_for_each_other_are_refused():
    with pytest.raises(CycleError):
        in_order(
            (
                Step(key="a", title="A", detail="", needs=("cover.on",), gives=("cover.cut",)),
                Step(key="b", title="B", detail="", needs=("cover.cut",), gives=("cover.on",)),
            )
        )
    with pytest.raises(ValueError, match="neither"):
        Check(code="order", level="watch", title="t", why="w")


def test_cautions_stand_at_the_steps_that_can_hurt():
    steps = {
        one.step.key: one.step for one in make_plan(edited(Book(), {"paper.leaf.size": "A3"})).bench.work
    }
    for key, word in (
        ("cut_leaves", "Knife"),
        ("cut_cover", "Knife"),
        ("pierce", "awl"),
        ("sew", "needle"),
        ("press", "fingers"),
    ):
        assert any(word in caution for caution in steps[key].cautions), key
