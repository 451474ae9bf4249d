"""What is cut from the sheets of a pile: by geometry, for any paper, leaf and fold-out; and what is left over
of them."""

from __future__ import annotations

from collections import Counter
from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.materials.items import Paper
from pleat.core.materials.uses import grain_axis
from pleat.core.pleats.cutting.cut import cut_part
from pleat.core.pleats.cutting.offcuts import left_over
from pleat.core.pleats.cutting.shared import plan_sheets
from pleat.core.pleats.pages.mixed import folio
from pleat.core.pleats.pages.pile_cuts import folded_whole, gives, pile_cuts
from pleat.core.pleats.pages.record import PileSheet
from pleat.core.pleats.paper.stocks import stock_of

SIDES = st.sampled_from([110.0, 150.0, 210.0, 297.0, 420.0])
SHEETS = st.builds(
    dict,
    paper=st.builds(
        Paper,
        name=st.sampled_from(["Map", "Bag", "Log"]),
        sheet_width_mm=SIDES,
        sheet_height_mm=SIDES,
        grain=st.sampled_from(["long", "short", "unknown"]),
        pattern=st.sampled_from(["plain", "directional"]),
    ),
    flap_mm=st.sampled_from([None, 30.0, 80.0]),
    flap_panels=st.integers(1, 2),
)
JOINED = st.sampled_from(["folded", "stub", "tipped"])


@given(
    st.lists(st.tuples(SHEETS, JOINED), min_size=1, max_size=8),
    st.sampled_from([100.0, 148.5]),
    st.sampled_from([150.0, 210.0]),
    st.integers(1, 3),
)
def test_every_piece_lies_in_its_sheet_as_it_will_be_folded_and_no_more_sheets_are_taken_than_pieces(
    described, leaf_width, leaf_height, quantity
):
    papers = {str(number): sheet["paper"] for number, (sheet, _) in enumerate(described)}
    pile = [
        PileSheet(id=number, **{**sheet, "paper": str(number)}) for number, (sheet, _) in enumerate(described)
    ]
    section = [
        folio(sheet, papers[sheet.paper], leaf_width, leaf_height, joined)
        for sheet, (_, joined) in zip(pile, described, strict=True)
    ]
    found = pile_cuts(papers, [section], quantity)
    assert sum(one.part.count for one in found) == quantity * sum(one.cut for one in section)
    folded = folded_whole([section], quantity)
    assert folded.keys() == {one.stock for one in section}
    assert sum(folded.values()) == quantity * sum(not one.cut for one in section)
    for one in found:
        part, paper = one.part, papers[one.part.stock]
        sheet, turned = stock_of(part.stock, paper), part.lies == "turned"
        cut = cut_part(part, sheet)
        assert part.width_mm <= {"folio": 2, "single": 1}[part.name.split()[0]] * leaf_width + 160
        assert part.height_mm <= leaf_height
        assert all(0 < fold.position_mm < part.width_mm for fold in part.folds)
        if not cut.better.count:
            continue  # the fold-out has no room, and Pages says so
        across, along = (part.height_mm, part.width_mm) if turned else (part.width_mm, part.height_mm)
        assert across <= sheet.sheet_width_mm + 0.05
        assert along <= sheet.sheet_height_mm + 0.05
        (alone,) = plan_sheets([cut])
        assert (cut.better.turned, cut.better.count, alone.needed) == (
            turned,
            one.each,
            ceil(part.count / one.each),
        )
        axis = grain_axis(sheet.sheet_width_mm, sheet.sheet_height_mm, paper.grain)
        assert cut.better.with_grain == (None if axis is None else axis == ("w" if turned else "h"))
        left = sum(offcut.width_mm * offcut.height_mm * offcut.count for offcut in left_over(alone))
        whole = sheet.sheet_width_mm * sheet.sheet_height_mm * alone.needed
        assert left + part.width_mm * part.height_mm * part.count <= whole + 1


def test_a_large_sheet_gives_several_folios():
    """594 x 420 for folios of 297 x 210, grain unknown: two across, two down; seven folios take two sheets,
    for two books four."""
    chart = Paper(name="Chart", sheet_width_mm=594, sheet_height_mm=420)
    section = [folio(PileSheet(id=number, paper="chart"), chart, 148.5, 210.0) for number in range(7)]
    for quantity, sheets in ((1, 2), (2, 4)):
        (one,) = pile_cuts({"chart": chart}, [section], quantity)
        (cut,) = plan_sheets([cut_part(one.part, stock_of("chart", chart))])
        assert (one.each, cut.needed, folded_whole([section], quantity)) == (4, sheets, {"chart": 0})
    assert gives(chart, 148.5, 210.0) == 4
    assert gives(chart, 297.0, 420.0) == gives(chart, 400.0, 500.0) == 1, "folded as it is"


def test_sheets_of_one_paper_are_cut_together_and_others_apart():
    """Three maps of 420 x 297 become 297 x 210, one keeps a fold-out of 80; a log of 297 x 210 needs no
    cut."""
    map_, log = (
        Paper(name=name, sheet_width_mm=w, sheet_height_mm=h)
        for name, w, h in (("Map", 420, 297), ("Log", 297, 210))
    )
    papers = {"map": map_, "log": log}
    pile = [PileSheet(id=number, paper=paper) for number, paper in enumerate(("map", "map", "map", "log"))]
    pile[2] = pile[2].model_copy(update={"flap_mm": 80.0})
    section = [folio(sheet, papers[sheet.paper], 148.5, 210.0) for sheet in pile]
    found = pile_cuts(papers, [section], 2)
    assert [(one.part.name, one.part.width_mm, one.part.height_mm, one.part.count) for one in found] == [
        ("folio of Map", 297.0, 210.0, 4),
        ("folio of Map with fold-out", 377.0, 210.0, 2),
    ]
    assert Counter(fold.direction for one in found for fold in one.part.folds) == {"valley": 3}
    assert [fold.position_mm for fold in found[1].part.folds] == pytest.approx([148.5, 297.0])
