"""The catalogue of checks: each slip is told of a book that commits it and not of one that does not, at a
level and in a pleat of its row."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Final, get_args

import pytest
from hypothesis import given

from pleat.core.base.plan import Check, Step
from pleat.core.base.slips import CATALOGUE, SlipCode
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.bookfile import read_book, validate_book
from pleat.core.materials.sheet import CutPiece, CutSheet, SheetCut, Shelf
from pleat.core.materials.tools import NO_TOOLS, Tools
from pleat.core.whole.planning import Plan, worked_out
from pleat.examples import names, text
from tests.strategies import books
from tools import tables

COMMITTED: Final[dict[str, tuple[str, dict[str, Any]]]] = {
    "A1": ("pocket", {"cover.piece_width_mm": 290}),
    "A2": ("flapped", {"cover.gusset_mm": 20}),
    "A3": ("pocket", {"cover.score_offset_mm": 3}),
    "A4": ("coveredboards", {"cover.border_mm": 0}),
    "A5": ("nested", {"pages.mat_width_mm": 140}),
    "A6": ("zigzag", {"binding.panels": 400}),
    "A7": ("threepiece", {"cover.liner_width_mm": 196}),
    "A8": ("planner", {"binding.jig_mm": 66}),
    "A9": ("pocket", {"cover.measured_spine_mm": 9}),
    "A10": ("journal", {"typed": {"brief.leaf_width_mm": "15.2 cm", "brief.leaf_height_mm": "8 in"}}),
    "A11": ("pocket", {"pages.counted_in": "unsaid"}),
    "B1": ("journal", {"brief.leaf_width_mm": 222}),
    "B2": ("folder", {"pages.tab_mm": 6}),
    "B3": ("found", {"brief.leaf_width_mm": 155}),
    "B4": ("pocket", {"brief.quantity": 6, "paper.cover.form": "offcut"}),
    "B6": ("pocket", {"cutting.counted.leaf": 2}),
    "B7": ("pocket", {"paper.leaf.grain": "short"}),
    "B8": ("journal", {"paper.leaf.grammage": None, "paper.leaf.pounds": 110}),
    "B9": ("flapped", {"paper.cover.sides": 1}),
    "B10": ("padcover", {"paper.cover.pattern": "directional"}),
    "B11": ("journal", {"paper.leaf.grammage": 700}),
    "C1": ("journal", {"paper.leaf.grammage": 700}),
    "C2": ("rings", {"pages.odd_amount": 4, "pages.odd_at": "tail", "pages.odd_height_mm": 140}),
    "C3": (
        "found",
        {
            "pages.pile": [
                {"id": 1, "paper": "p1", "window": "yes"},
                {"id": 2, "paper": "p2", "window": "yes"},
            ]
        },
    ),
    "C3_alike": (
        "pocket",
        {
            "pages.pile": [{"id": 1, "paper": "p1"}, {"id": 2, "paper": "p1"}],
            "paper.more": {"p1": {"name": "Old page", "sheet_width_mm": 297, "sheet_height_mm": 210}},
        },
    ),
    "C4": ("pocket", {"paper.leaf.grammage": 240}),
    "C5": ("found", {"brief.leaf_width_mm": 398, "pages.edges": "trim"}),
    "C6": ("foldout", {"brief.leaf_width_mm": 70}),
    "C7": ("found", {"pages.pairs": [[1, 6]]}),
    "D1": ("pocket", {"bench.ticks": {"sew": "(2, 1, 3, 2)|inside"}}),
    "D2": ("own", {"binding.station_count": 1}),
    "D3": ("pocket", {"binding.thread_cut_mm": 300}),
    "D4": ("pocket", {"binding.cover_holes_mm": []}),
    "D5": ("strips", {"brief.leaf_height_mm": 105}),
    "D6": ("strips", {"binding.pitch_mm": 105}),
    "D7": ("rings", {"binding.lifts_planned": 1}),
    "D8": ("rings", {"paper.leaf.grammage": 700}),
    "D9": ("rings", {"binding.covers_punched": "same", "binding.positions_mm": [40.0, 160.0]}),
    "D10": ("stickband", {"pages.amount": 2000}),
    "D11": ("sticks", {"binding.stick_long_mm": 43}),
    "E1": ("case", {"cover.piece_width_mm": 342}),
    "E2": ("pocket", {"cover.square_mm": 0}),
    "E3": ("case", {"cover.turn_in_mm": 9}),
    "E4": ("threepiece", {"brief.leaf_width_mm": 300}),
    "E5": ("padded", {"paper.cover.grammage": 20}),
    "E6": ("double", {"binding.kind": "tapes", "cover.kind": "quarter", "cover.spine_lining": "no"}),
    "F1": ("pockets", {"extras.items": {"d0": {"kind": "band", "goes": "a7"}}}),
    "F2": ("journal", {"extras.items": {"d0": {"places": [{"on": "page 5", "x_mm": 0.0}], "mouth": "left"}}}),
    "F3": ("flapped", {"cover.fastened_mm": 20}),
    "F4": (
        "journal",
        {
            "bench.ticks": {"cover_scored": "152.50"},
            "extras.items": {"d0": {"kind": "window", "places": [{"on": "inside front cover"}]}},
        },
    ),
    "F5": (
        "journal",
        {"extras.items": {"d0": {"kind": "fastener", "places": [{"on": "page 5"}], "thick_mm": 1.5}}},
    ),
    "F6": (
        "journal",
        {
            "extras.items": {
                "d0": {"kind": "booklet", "places": [{"on": "page 1"}, {"on": "page 3"}, {"on": "page 5"}]}
            }
        },
    ),
    "F7": (
        "journal",
        {"extras.items": {"d0": {"kind": "flap", "places": [{"on": "page 5"}], "hinge": "left"}}},
    ),
    "F8": ("flapped", {"cover.gusset_mm": 2}),
    "F9": ("pockets", {"brief.leaf_width_mm": 52}),
    "F10": ("crossfold", {"brief.leaf_width_mm": 56}),
    "G2": (
        "journal",
        {
            "bench.ticks": {"cover_scored": "152.50"},
            "extras.items": {"d1": {"kind": "eyelet", "places": [{"on": "inside back cover"}]}},
        },
    ),
    "backed": ("case", {"paper.covering.backed": "no"}),
    "changed": ("pocket", {"bench.ticks": {"try": "148.50|210.00"}}),
    "cotton": ("journal", {"binding.thread.fibre": "cotton"}),
    "crease": ("pocket", {"cover.creases": "one", "cover.measured_spine_mm": 9}),
    "deep": ("machine", {"paper.leaf.grammage": 700}),
    "drawn": (
        "free",
        {
            "pages.sheets": [
                {
                    "name": "sheet",
                    "widths_mm": [5.0],
                    "heights_mm": [5.0],
                    "panels": [{"name": "cell 1", "column": 0, "row": 0}],
                    "base": "cell 1",
                }
            ]
        },
    ),
    "flap_folds": ("pocket", {"pages.flap_mm": 60}),
    "flap_room": ("foldout", {"brief.leaf_width_mm": 210}),
    "flap_trim": ("thick", {"pages.edges": "trim", "pages.flap_mm": 11}),
    "grade": ("journal", {"paper.leaf.grammage": None, "paper.leaf.pounds": 20}),
    "grain": ("journal", {"paper.leaf.grain": "unknown"}),
    "grip": ("journal", {"extras.items": {"d0": {"goes": "card", "stand_mm": 0.0}}}),
    "hinge": ("rings", {"cover.hinge_mm": 1}),
    "holds": ("journal", {"extras.items": {"d0": {"kind": "fastener", "through": "padded"}}}),
    "joint": ("case", {"cover.joint_mm": 2}),
    "kind": ("journal", {"binding.kind": "moonstitch"}),
    "layers": ("layered", {"paper.cover.grammage": 700}),
    "cut_otherwise": ("case", {}),
    "marks": ("rings", {"brief.ruler": "in"}),
    "measured": ("pocket", {"pages.measured_block_mm": 4}),
    "mirrored": ("batten", {"binding.kind": "keyring"}),
    "narrow": ("pocket", {"pages.creep": "narrow"}),
    "order": ("pocket", {"bench.ticks": {"sew": "(2, 1, 3, 2)|inside"}}),
    "over_holes": (
        "rings",
        {
            "extras.items": {
                "d0": {"kind": "corner", "places": [{"on": "page 4"}], "side_mm": 223.98064963471927}
            }
        },
    ),
    "overlap": (
        "journal",
        {
            "extras.items": {
                "d0": {"places": [{"on": "page 5"}]},
                "d1": {"kind": "picture", "places": [{"on": "page 5"}]},
            }
        },
    ),
    "owned": ("journal", {"paper.leaf.owned": 0}),
    "owned_pad": (
        "crossfold",
        {
            "paper.mat.designs": 3,
            "paper.mat.each": 1,
            "pages.mats": "yes",
            "pages.given": {"folio/left:A": 2, "folio/left:B": 2, "folio/right:A": 2},
        },
    ),
    "padding": ("padded", {"cover.stops_mm": 2}),
    "painted": ("foldout", {"brief.purpose": "painting"}),
    "perforated": ("machine", {"binding.pitch_mm": 2}),
    "pin": (
        "case",
        {
            "cutting.pins": [
                {
                    "stock": "board",
                    "width_mm": 700,
                    "height_mm": 500,
                    "pieces": [{"part": "boards", "x_mm": 0, "y_mm": 0, "width_mm": 9, "height_mm": 9}],
                }
            ]
        },
    ),
    "quarter": ("quarter", {"cover.onto_mm": 5}),
    "readings": ("journal", {"paper.leaf.readings_mm": [1.0]}),
    "scoring": ("journal", {}),
    "seam": ("threepiece", {"paper.leaf.grammage": 20}),
    "sections": ("pleat", {"pages.sections": 1}),
    "slant": ("journal", {"extras.items": {"d0": {"goes": "card", "slant_mm": 60.0}}}),
    "stacked": (
        "journal",
        {"extras.items": {"d0": {"kind": "band", "places": [{"on": "page 5"}], "pockets": 5}}},
    ),
    "stations": ("eight", {"binding.insets_mm": []}),
    "thread": ("journal", {"paper.leaf.grammage": 20}),
    "through": (
        "journal",
        {
            "extras.items": {
                "d0": {"kind": "window", "places": [{"on": "page 5"}]},
                "d1": {"places": [{"on": "page 6"}]},
            }
        },
    ),
    "trimmer": ("journal", {}),
    "tuck": ("sheath", {"cover.tuck_mm": 5}),
    "unfit": ("programme", {"cover.kind": "boards"}),
    "unknown": ("journal", {"paper.leaf.grammage": None}),
    "warp": ("threepiece", {"brief.leaf_height_mm": 600}),
    "wedge": ("flapped", {"cover.inserts_mm": 6}),
    "weight": ("pocket", {"paper.leaf.readings_mm": [2.0]}),
    "window": (
        "pocket",
        {
            "pages.pile": [{"id": 1, "paper": "p1", "window": "yes", "window_width_mm": 120.0}],
            "paper.more": {"p1": {"name": "Old page", "sheet_width_mm": 250.0, "sheet_height_mm": 200.0}},
        },
    ),
}
"""By slip: an example that does not commit it, and what changes make it do so."""
SMALL_TOOLS: Final = Tools(trimmer_longest_mm=100.0, trimmer_thickest_mm=1.0, scoring_longest_mm=100.0)
CUT_ALREADY: Final = CutSheet(
    number=1,
    step="",
    stock="board",
    of="",
    material="Greyboard, 2 mm",
    grain="h",
    roll=False,
    sheet=SheetCut(1, 700, 500, (CutPiece("boards", 0, 0, 140, 210, turned=False),), (), (), "boards"),
    names=(("boards", "board"),),
)
TOOLS: Final = {
    "scoring": SMALL_TOOLS,
    "trimmer": SMALL_TOOLS,
    "cut_otherwise": Tools(shelf=Shelf(cut=(CUT_ALREADY,))),
}
"""With whose tools a slip is committed that hangs on them."""


def told(plan: Plan) -> Iterator[tuple[str, Check]]:
    return ((pleat, check) for pleat, result in plan for check in result.checks)


def committed(code: str) -> Plan:
    example, changes = COMMITTED[code]
    book = read_book(text(example))
    if "typed" in changes:
        book = editing.edit(book, changes["typed"])
    elif code == "kind":
        data = book.model_dump(mode="json")
        data["binding"] = {"kind": changes["binding.kind"]}
        book = validate_book(data)
    else:
        book = editing.apply(book, changes.items())
    return worked_out(book, TOOLS.get(code, NO_TOOLS))


@pytest.mark.parametrize("code", get_args(SlipCode))
def test_a_slip_is_told_of_a_book_that_commits_it_and_of_none_else(code: SlipCode):
    assert code in {check.code for _, check in told(committed(code))}
    assert code not in {check.code for _, check in told(worked_out(read_book(text(COMMITTED[code][0]))))}


def in_its_row(plan: Plan) -> None:
    for pleat, check in told(plan):
        row = CATALOGUE[check.code]
        assert pleat in row.pleats, (check.code, pleat)
        assert check.level in row.levels, (check.code, check.level)
    for step in (one.step for one in plan.bench.work if one.step.missing):
        assert isinstance(step, Step)
        assert step.missing is None or "bench" in CATALOGUE[step.missing.slip].pleats


@given(books)
def test_what_is_told_of_any_book_is_told_where_and_as_badly_as_the_catalogue_says(book: Book):
    in_its_row(worked_out(book))


def test_what_is_told_of_examples_and_slips_is_in_the_catalogue():
    for example in names():
        in_its_row(worked_out(read_book(text(example))))
    for code in get_args(SlipCode):
        in_its_row(committed(code))


def test_the_catalogue_has_a_row_for_each_code_and_its_page_is_made_from_it():
    assert tuple(CATALOGUE) == get_args(SlipCode)
    assert tables.CHECKS.read_text() == tables.checks()
