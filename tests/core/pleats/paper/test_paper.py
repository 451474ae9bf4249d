"""Sizes, weights and thickness. References: ISO 216, ISO 534/536, TAPPI T 410, the package papersize."""

import papersize
import pytest

from pleat.core.base.errors import LengthError
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.core.materials.sizes import ENVELOPES, SIZES, parse_size, size_name, tolerance_mm
from pleat.core.materials.thickness import thickness
from pleat.core.materials.uses import grain_axis
from pleat.core.materials.weights import BASIS_IN, BULK_CM3_PER_G, parse_weight, pounds_in_every_grade
from pleat.core.whole.planning import make_plan


@pytest.mark.parametrize(
    "name", [*(f"A{n}" for n in range(9)), *(f"B{n}" for n in range(9)), "letter", "legal", "tabloid"]
)
def test_named_sizes_agree_with_papersize(name):
    width, height = (float(side) for side in papersize.parse_papersize(name.lower(), "mm"))
    slack = 1.01 if name == "B4" else 0.06  # papersize halves the unrounded B3; ISO 216 lists 250 x 353
    assert SIZES[name] == pytest.approx((width, height), abs=slack)


@pytest.mark.parametrize("letter", "AB")
def test_each_iso_size_is_half_the_one_before_to_the_whole_millimetre_below(letter):
    """ISO 216: halving parallel to the short side, rounded down; A0 is 841 x 1189, one square metre within
    0.1 %."""
    for number in range(8):
        width, height = SIZES[f"{letter}{number}"]
        assert SIZES[f"{letter}{number + 1}"] == (height // 2, width)
    assert SIZES["A0"][0] * SIZES["A0"][1] == pytest.approx(1e6, rel=0.001)
    assert [tolerance_mm(side) for side in (105, 150, 297, 600, 841)] == [1.5, 1.5, 2, 2, 3]


def test_sizes_are_named_and_read():
    assert size_name(297, 210) == "A4"
    assert size_name(215.9, 279.4) == "letter"
    assert size_name(140, 200) is None
    assert parse_size("A5") == (148, 210, ("", ""))
    assert parse_size("letter wide")[:2] == pytest.approx((279.4, 215.9))
    assert parse_size("14 x 20 cm")[:2] == pytest.approx((140, 200))
    assert parse_size("5 1/2 × 8 1/2", "in")[:2] == pytest.approx((139.7, 215.9))
    assert parse_size("140mm x 8 in")[:2] == pytest.approx((140, 203.2))
    for wrong in ("", "A", "140", "140 x", "x 200", "1 x 2 x 3"):
        with pytest.raises(LengthError):
            parse_size(wrong)


@pytest.mark.parametrize("name", ["C4", "C5", "C6"])
def test_c_envelopes_lie_between_a_and_b(name):
    """ISO 269: each C size is the geometric mean of the A and the B of its number, to the millimetre; also
    against papersize."""
    mean = [(a * b) ** 0.5 for a, b in zip(SIZES[f"A{name[1]}"], SIZES[f"B{name[1]}"], strict=True)]
    assert ENVELOPES[name] == pytest.approx(mean, abs=0.75)
    assert ENVELOPES[name] == pytest.approx(
        [float(side) for side in papersize.parse_papersize(name.lower(), "mm")], abs=0.06
    )


def test_envelopes_opened_flat_by_hand_arithmetic():
    """A C6 of 114 x 162: front and back of 114 and a flap of 0.4 x 114 make 273.6, as wide as the
    envelope."""
    for text in ("C6 opened", "c6 envelope, opened flat", "114 x 162 opened", "162 x 114 mm opened"):
        assert parse_size(text)[:2] == pytest.approx((162, 273.6)), text
    assert parse_size("4 x 6 opened", "in")[:2] == pytest.approx((152.4, 101.6 * 2.4))
    for wrong in ("opened", "C9 opened", "C6 opened opened"):
        with pytest.raises(LengthError):
            parse_size(wrong)


def test_caliper_is_grammage_times_bulk():
    """ISO 534: bulk (cm3/g) = thickness (um) / grammage (g/m2); 80 g/m2 copier at 1.25 to 1.35 is 100 to 108
    um."""
    sheet = thickness(
        Paper(name="x", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)
    ).sheet
    assert (sheet.low, sheet.likely, sheet.high) == pytest.approx((0.100, 0.104, 0.108))
    for kind, (low, high) in BULK_CM3_PER_G.items():
        unknown = thickness(
            Paper(name="x", kind=kind, sheet_width_mm=210, sheet_height_mm=297, grammage=100)
        ).sheet
        assert (unknown.low, unknown.high) == pytest.approx((low / 10, high / 10))


def test_a_measured_stack_wins_over_the_grammage():
    paper = Paper(
        name="x",
        kind="copier",
        sheet_width_mm=210,
        sheet_height_mm=297,
        grammage=80,
        measured_sheets=10,
        readings_mm=(1.06,),
    )
    assert thickness(paper).sheet.likely == pytest.approx(0.106)
    assert thickness(paper).sheet.width < 0.011
    assert thickness(paper.model_copy(update={"readings_mm": (), "grammage": None})).source == "nothing"


def test_pounds_are_never_read_without_their_grade():
    """A 110 lb paper is 199 g/m2 as index and 298 as cover (TAPPI T 410 basis sizes): half as much again."""
    readings = pounds_in_every_grade(110)
    assert set(readings) == set(BASIS_IN)
    assert (readings["index"], readings["cover"]) == pytest.approx((199, 297.5), abs=0.5)
    assert parse_weight("110 lb") == (None, 110, None)
    assert parse_weight("110# index") == (198.9, 110, "index")
    assert parse_weight("70 lb offset") == parse_weight("70 lb text") == (103.6, 70, "text")
    for wrong in ("", "heavy", "90 stone", "70 lb velvet"):
        with pytest.raises(LengthError):
            parse_weight(wrong)
    open_grade = thickness(
        Paper(name="x", kind="cardstock", sheet_width_mm=210, sheet_height_mm=297, pounds=110)
    )
    assert open_grade.source == "pounds"
    assert open_grade.sheet.low == pytest.approx(readings["text"] * 1.15 / 1000)
    assert open_grade.sheet.high == pytest.approx(readings["bond"] * 1.35 / 1000)


@pytest.mark.parametrize(
    ("width", "height", "grain", "axis"),
    [
        (210, 297, "long", "h"),
        (297, 210, "long", "w"),
        (210, 297, "short", "w"),
        (297, 210, "short", "h"),
        (300, 300, "long", "h"),
        (210, 297, "unknown", None),
    ],
)
def test_the_axis_the_grain_runs_along(width, height, grain, axis):
    assert grain_axis(width, height, grain) == axis


def test_an_unknown_paper_says_so_and_still_plans():
    book = Book.model_validate(
        {"paper": {"leaf": {"name": "found paper", "sheet_width_mm": 300, "sheet_height_mm": 210}}}
    )
    result = make_plan(book).paper
    assert result.leaf.caliper.high > 2 * result.leaf.caliper.low
    assert result.mark == "watch"
