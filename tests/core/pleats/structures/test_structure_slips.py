"""The slips of folded and glued things: each with a book that commits it and one that does not, told apart;
every fix that is offered mends it."""

from __future__ import annotations

import pytest

from pleat.core.document import editing
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from tests.core.pleats.structures.samples import book_of

CROSS, FOLDER, HILLS = "crossfold", "folder", "hills"
SMALL = {"brief.size": "113 x 163"}
IN_IT = {"pages.insert_height_mm": "180"}
ROWS = [
    ("A1", "pages", (CROSS, {"pages.cut_width_mm": "300"}), (CROSS, {"pages.cut_width_mm": "346"})),
    ("A1", "pages", ("nested", {"pages.cut_height_mm": "190"}), ("nested", {"pages.cut_height_mm": "200"})),
    ("A2", "binding", (HILLS, {"binding.last_flange_mm": "20"}), (HILLS, {"binding.last_flange_mm": "25"})),
    ("A4", "pages", (CROSS, {"pages.border_mm": "0"}), (CROSS, {"pages.border_mm": "2"})),
    (
        "A4",
        "pages",
        (HILLS, {"pages.border_mm": "1", "pages.border_said": "whole"}),
        (HILLS, {"pages.border_mm": "3"}),
    ),
    (
        "A5",
        "pages",
        ("nested", {"pages.mat_width_mm": "140"}),
        ("nested", {"pages.folders": "1", "pages.mat_width_mm": "144"}),
    ),
    (
        "A5",
        "pages",
        (CROSS, {"pages.mat_width_mm": "107", "pages.mat_height_mm": "157"}),
        ("zigzag", {"pages.mat_width_mm": "84"}),
    ),
    ("A6", "pages", (CROSS, {"pages.wanted": "12"}), (CROSS, {"pages.wanted": "10"})),
    ("A6", "pages", (HILLS, {"pages.wanted": "20"}), (HILLS, {"pages.wanted": "16"})),
    (
        "A6",
        "pages",
        ("row", {"pages.photo": "card", "pages.wanted": "99"}),
        ("row", {"pages.photo": "card", "pages.wanted": "28"}),
    ),
    ("A6", "binding", ("zigzag", {"binding.panels": "10"}), ("zigzag", {"binding.panels": "16"})),
    (
        "A6",
        "pages",
        ("free", {"pages.fastener": "magnet", "pages.groups": "bare"}),
        ("free", {"pages.fastener": "magnet"}),
    ),
    (
        "A7",
        "pages",
        ("nested", {"pages.folders": "1", "pages.mat_width_mm": "147", "pages.mat_height_mm": "197"}),
        ("nested", {"pages.folders": "1", "pages.mat_width_mm": "144", "pages.mat_height_mm": "194"}),
    ),
    ("A11", "pages", (HILLS, {"pages.counted_in": "unsaid"}), (HILLS, {"pages.counted_in": "leaves"})),
    ("A11", "pages", ("row", {"pages.counted_in": "unsaid"}), ("row", {"pages.counted_in": "pages"})),
    (
        "A11",
        "pages",
        ("concertina", {"pages.counted_in": "unsaid"}),
        ("concertina", {"pages.counted_in": "leaves"}),
    ),
    ("B1", "cutting", (CROSS, {"paper.card.size": "letter"}), (CROSS, {"paper.card.size": "500 x 700"})),
    ("B1", "cutting", ("nested", {"paper.card.size": "A4"}), ("nested", {"paper.card.size": "420 x 297"})),
    (
        "B2",
        "pages",
        ("concertina", {"pages.cut": "long", "brief.size": "116 x 160"}),
        ("concertina", {"pages.cut": "auto", "brief.size": "116 x 160"}),
    ),
    ("B2", "pages", ("concertina", {"pages.tab_mm": "5"}), ("concertina", {"pages.tab_mm": "12"})),
    (
        "B9",
        "pages",
        ("bagfolio", {"paper.card.sides": "1"}),
        ("bagfolio", {"paper.card.sides": "1", "pages.mats": "yes"}),
    ),
    (
        "B9",
        "pages",
        (FOLDER, {"paper.card.sides": "1", "pages.mats": "no"}),
        (FOLDER, {"paper.card.sides": "2", "pages.mats": "no"}),
    ),
    (
        "B10",
        "pages",
        (
            CROSS,
            {
                "paper.card.pattern": "directional",
                "pages.mats": "no",
                "pages.left_mm": "0",
                "pages.right_mm": "0",
            },
        ),
        ("nested", {"paper.card.pattern": "directional", "pages.mats": "no"}),
    ),
    ("C6", "pages", ("connectors", {"pages.flip_mm": "150"}), ("connectors", {"pages.flip_mm": "100"})),
    ("D10", "binding", ("row", {"binding.on_a_cord": "3"}), ("row", {"binding.on_a_cord": "2"})),
    ("D11", "binding", ("row", {"binding.spine_mm": "30"}), ("row", {"binding.spine_mm": "60"})),
    ("E1", "cover", (HILLS, {"binding.end_mm": "1"}), (HILLS, {})),
    (
        "E1",
        "cover",
        ("connectors", {"binding.gusset_mm": "2", "binding.end_mm": "2"}),
        ("connectors", {"binding.gusset_mm": "2"}),
    ),
    ("E1", "cover", (HILLS, {"cover.joint_mm": "12"}), (HILLS, {"cover.joint_mm": "6"})),
    (
        "F1",
        "pages",
        (FOLDER, {**IN_IT, "pages.insert_width_mm": "135"}),
        (FOLDER, {**IN_IT, "pages.insert_width_mm": "130"}),
    ),
    (
        "F1",
        "pages",
        (FOLDER, {**IN_IT, "pages.insert_width_mm": "100", "pages.stand_mm": "20"}),
        (FOLDER, {**IN_IT, "pages.insert_width_mm": "100", "pages.stand_mm": "96"}),
    ),
    (
        "F2",
        "pages",
        ("bagfolio", {**IN_IT, "pages.insert_width_mm": "130"}),
        ("bagfolio", {**IN_IT, "pages.insert_width_mm": "110"}),
    ),
    (
        "F3",
        "pages",
        (CROSS, {"pages.fastener": "magnet", "pages.fastened_mm": "30"}),
        (CROSS, {"pages.fastener": "magnet", "pages.fastened_mm": "101"}),
    ),
    (
        "F5",
        "pages",
        (FOLDER, {"pages.gusset_mm": "1", "pages.photo": "a7", "pages.bulk": "bulky"}),
        (FOLDER, {"pages.gusset_mm": "20", "pages.photo": "a7", "pages.bulk": "bulky"}),
    ),
    (
        "F5",
        "pages",
        ("row", {"pages.tab_mm": "1", "pages.photo": "card", "pages.bulk": "bulky"}),
        ("row", {"pages.tab_mm": "12", "pages.photo": "card", "pages.bulk": "bulky"}),
    ),
    ("F5", "binding", (HILLS, {"binding.gap_mm": "1"}), (HILLS, {"binding.gap_mm": "4.5"})),
    (
        "F5",
        "binding",
        ("connectors", {"binding.gusset_mm": "0.5", "pages.photo": "a7", "pages.bulk": "layered"}),
        ("connectors", {"pages.photo": "a7", "pages.bulk": "layered"}),
    ),
    ("F5", "cover", ("row", {"cover.spine_mm": "20"}), ("row", {"cover.spine_mm": "60"})),
    ("F6", "pages", (HILLS, {"pages.lie": "same"}), (HILLS, {"pages.lie": "moved"})),
    ("F7", "pages", ("connectors", {"pages.flips": "spine"}), ("connectors", {"pages.flips": "fore"})),
    (
        "F8",
        "pages",
        (CROSS, {**SMALL, "pages.right_gusset_mm": "2"}),
        (CROSS, {**SMALL, "pages.right_gusset_mm": "5"}),
    ),
    (
        "F8",
        "pages",
        ("bagfolio", {"pages.left_gusset_mm": "0.5", "pages.mats": "yes"}),
        ("bagfolio", {"pages.left_gusset_mm": "6", "pages.mats": "yes"}),
    ),
    (
        "F9",
        "pages",
        (FOLDER, {"pages.insert_width_mm": "100", "pages.insert_height_mm": "220"}),
        (FOLDER, {"pages.insert_width_mm": "100", "pages.insert_height_mm": "200"}),
    ),
    ("F10", "pages", (CROSS, {"pages.photo": "13x18"}), (CROSS, {"pages.photo": "a7"})),
    ("F10", "pages", ("zigzag", {"pages.photo": "10x15"}), ("zigzag", {"pages.photo": "card"})),
]


def book(name, texts):
    """A book; one row takes all folds of a free folio away."""
    bare = texts.get("pages.groups") == "bare"
    found = book_of(name, {path: text for path, text in texts.items() if path != "pages.groups"})
    return editing.apply(found, [("pages.groups", [])]) if bare else found


def slips(found, key):
    return [(pleat, check) for pleat, check in make_plan(found).checks if check.key == key]


@pytest.mark.every(2)
@pytest.mark.parametrize(
    ("slip", "pleat", "wrong", "right"),
    ROWS,
    ids=[f"{slip} {wrong[0]} {number}" for number, (slip, _, wrong, _) in enumerate(ROWS)],
)
def test_the_slip_is_told_with_its_numbers_from_its_mended_twin_and_every_fix_mends_it(
    slip, pleat, wrong, right
):
    told = [check for where, check in slips(book(*wrong), slip) if where == pleat]
    assert len(told) == 1, f"{[(where, check.key) for where, check in make_plan(book(*wrong)).checks]}"
    assert any(letter.isdigit() for letter in told[0].title + told[0].why) or slip in ("F7", "A6")
    assert not [check for where, check in slips(book(*right), slip) if where == pleat]
    assert told[0].offers or told[0].no_fix
    for offer in told[0].offers:
        mended = editing.apply(book(*wrong), offer.changes)
        left = [check for where, check in slips(mended, slip) if where == pleat]
        assert not left or left[0].level == "note", f"{offer.label} leaves it"


def test_b1_makes_the_whole_for_the_sheet_there_is_and_keeps_every_relation():
    wrong = book_of(CROSS, {"paper.card.size": "letter", "pages.photo": "none"})
    (check,) = [check for _, check in slips(wrong, "B1")]
    plan = make_plan(editing.apply(wrong, check.offers[0].changes))
    sheet = plan.pages.flats[0].piece
    wide, high = sorted(sheet.size_mm)
    assert wide <= 215.9 + 0.05
    assert high <= 279.4 + 0.05
    assert wide > 215.9 - 4 or high > 279.4 - 4, "no more than that"
    reach = {panel.name: panel.outline for panel in sheet.panels}
    assert reach["left"][1][0] - reach["left"][0][0] == pytest.approx(plan.brief.leaf_width_mm - 1)
    assert not [one for _, one in plan.checks if one.key == "B1"]


def test_the_paper_there_is_says_how_large_it_can_be():
    found = book_of(CROSS, {"paper.card.size": "500 x 700"})
    (offer,) = [one for one in make_plan(found).pages.offers if one.label.startswith("as large as one sheet")]
    plan = make_plan(editing.apply(found, offer.changes))
    wide, high = sorted(plan.pages.flats[0].piece.size_mm)
    assert (500 - 4 < wide <= 500.05) or (700 - 4 < high <= 700.05)
    assert not [one for _, one in plan.checks if one.key == "B1"]


def test_what_goes_in_says_how_large_it_is():
    """A photograph of 10 x 15 cm with a border on its paper and the paper's on the panel, an arm a millimetre
    short: 100 + 4 x 3 + 1."""
    offers = [
        one
        for one in make_plan(book_of(CROSS, {"pages.photo": "10x15", "brief.size": "90 x 90"})).pages.offers
        if one.label.startswith("made for")
    ]
    assert {tuple(value for _, value in one.changes[:2]) for one in offers} == {
        (113.0, 163.0),
        (163.0, 113.0),
    }
    for offer in offers:
        plan = make_plan(editing.apply(book_of(CROSS, {"pages.photo": "10x15"}), offer.changes))
        assert plan.pages.made.places == 10


@pytest.mark.parametrize(
    ("name", "texts", "early", "late", "slip"),
    [
        ("bagfolio", {"pages.mats": "yes"}, "folio_join_1", "folio_shape", "F4"),
        (CROSS, {"pages.photo": "10x15"}, "folio_fill", "folio_papers", "F4"),
        (CROSS, {"pages.fastener": "magnet"}, "folio_papers", "fastener_first", "F3"),
    ],
)
def test_what_was_done_before_what_it_needs_is_told_by_its_slip(name, texts, early, late, slip):
    found = book_of(name, texts)
    ticked = service.tick(found, make_plan(found), early, True)
    told = [check for where, check in slips(ticked, slip) if where == "bench"]
    assert len(told) == 1
    assert any(
        late == path.rsplit(".", 1)[-1] or "ticks" in path
        for offer in told[0].offers
        for path, _ in offer.changes
    )
    assert not [check for where, check in slips(found, slip) if where == "bench"]


def test_a_paper_whose_face_is_gone_is_told_and_left_out():
    given_ = editing.apply(book_of(CROSS), [("pages.given", {"folio/left:A": 2, "folio/middle:A": 1})])
    gone = editing.edit(given_, {"pages.left_mm": "0"})
    assert not slips(given_, "A6")
    (where, check) = slips(gone, "A6")[0]
    assert (where, "1 paper of the pad has no face" in check.title) == ("pages", True)
    mended = editing.apply(gone, check.offers[0].changes)
    assert mended.pages.given == {"folio/middle:A": 1}
    assert not slips(mended, "A6")


def test_more_faces_than_a_pad_gives_is_told():
    pad = {"paper.mat.designs": "3", "paper.mat.each": "1", "pages.liked": "2"}
    found = editing.apply(
        book_of(CROSS, pad),
        [
            (
                "pages.given",
                dict.fromkeys(
                    ("folio/left:A", "folio/left:B", "folio/right:A", "folio/right:B", "folio/head:A"), 2
                ),
            )
        ],
    )
    checks = {check.key: check for _, check in make_plan(found).checks}
    assert "Design 2 is wanted for 5 faces, its sheets give 2" in checks["owned_pad"].title
