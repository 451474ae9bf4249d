"""Lengths. Reference: the units library pint; inch = 25.4 mm (international inch, NIST SP 811)."""

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.errors import LengthError
from pleat.core.base.units import RULERS, grammage_from_pounds, parse_length

ureg = pint.UnitRegistry()
MM, INCH = RULERS["mm"], RULERS["in"]


@pytest.mark.parametrize(
    ("text", "ruler", "mm"),
    [
        ("8 1/4", "in", 209.55),
        ("8 1/4", "mm", 209.55),  # no millimetre ruler has quarters
        ("8-1/4 in", "mm", 209.55),
        ("8¼", "in", 209.55),
        ('8 1/4"', "mm", 209.55),
        ("1/2", "in", 12.7),
        ("8.25in", "mm", 209.55),
        ("8,25 in", "mm", 209.55),
        ("21 cm", "in", 210.0),
        ("210", "mm", 210.0),
        ("210 mm", "in", 210.0),
        ("  210.5 MM ", "in", 210.5),
        (".5 in", "mm", 12.7),
        ("10", "in", 254.0),
        ("3 ⁄ 4 inches", "mm", 19.05),
    ],
)
def test_lengths_are_read_as_makers_write_them(text, ruler, mm):
    assert parse_length(text, ruler).mm == pytest.approx(mm, abs=1e-9)


@pytest.mark.parametrize(
    "text",
    [
        "",
        "   ",
        "abc",
        "8 1/0",
        "-3",
        "−3 mm",
        "8 furlongs",
        "1/2/3",
        "8..2",
        "mm",
        "1e9",
        "nan",
        "8 1/4 1/4",
        "x" * 99,
        "8 1/4 in x",
        "½½½ 3 4",
    ],
)
def test_what_is_not_a_length_is_refused_with_a_reason(text):
    with pytest.raises(LengthError) as caught:
        parse_length(text)
    assert caught.value.reason
    assert caught.value.typed is not None


@given(st.integers(1, 9999), st.sampled_from(["mm", "cm", "in"]))
def test_conversion_agrees_with_pint(hundredths, unit):
    ours = parse_length(f"{hundredths / 100} {unit}").mm
    theirs = ureg.Quantity(hundredths / 100, {"in": "inch"}.get(unit, unit)).to("mm").magnitude
    assert ours == pytest.approx(theirs, rel=1e-12)


@given(st.floats(0.1, 2000), st.sampled_from([MM, INCH]))
def test_what_is_shown_reads_back_as_the_mark_it_names(mm, ruler):
    assert parse_length(ruler.show(mm), ruler.name).mm == pytest.approx(ruler.snap(mm), abs=1e-9)
    assert abs(ruler.snap(mm) - mm) <= ruler.step_mm / 2 + 1e-9
    assert ruler.snap_down(mm) <= mm + 1e-5
    assert ruler.snap_up(mm) >= mm - 1e-5


@pytest.mark.parametrize(
    ("mm", "in_mm", "in_inches"),
    [
        (209.55, "209.5 mm", "8 1/4 in"),
        (210, "210 mm", "8 1/4 in"),
        (0, "0 mm", "0 in"),
        (12.7, "12.5 mm", "1/2 in"),
        (25.4, "25.5 mm", "1 in"),
        (-3, "−3 mm", "−1/8 in"),
    ],
)
def test_numbers_stand_as_the_ruler_shows_them(mm, in_mm, in_inches):
    assert (MM.show(mm), INCH.show(mm)) == (in_mm, in_inches)


def test_thicknesses_are_finer_than_the_ruler():
    assert (MM.thin(2.34), INCH.thin(2.34), MM.fine(0.104), INCH.fine(0.104)) == (
        "2.3 mm",
        "3/32 in",
        "0.104 mm",
        "0.0041 in",
    )
    assert MM.size(140, 200.5) == "140 × 200.5 mm"
    assert INCH.is_on_mark(12.7)
    assert not INCH.is_on_mark(12)


@pytest.mark.parametrize(
    ("pounds", "basis", "grammage"),
    [
        (20, (17, 22), 75.2),
        (24, (17, 22), 90.2),
        (60, (25, 38), 88.8),
        (80, (20, 26), 216.3),
        (110, (25.5, 30.5), 198.9),
        (110, (20, 26), 297.4),
        (140, (22.5, 28.5), 307.0),
    ],
)
def test_pounds_agree_with_pint_and_with_the_trade_tables(pounds, basis, grammage):
    """US trade basis sizes (TAPPI T 410); the rounded results are those of paper merchants' conversion
    tables, from memory."""
    ours = grammage_from_pounds(pounds, *basis)
    sheet = ureg.Quantity(basis[0], "inch") * ureg.Quantity(basis[1], "inch")
    theirs = (ureg.Quantity(pounds, "pound") / 500 / sheet).to("gram / meter ** 2").magnitude
    assert ours == pytest.approx(theirs, rel=1e-5)
    assert ours == pytest.approx(grammage, abs=0.1)
