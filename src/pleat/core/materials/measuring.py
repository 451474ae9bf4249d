"""Judging readings of a stack: which agree, which are thrown out and why, and how well the thickness of one
sheet is then known.

The error of the mean is Student's t at 95 % times the standard deviation of the mean, as the "Guide to the
expression of uncertainty in measurement" (JCGM 100:2008, 4.2 and annex G) has it, with the caliper's own
error in quadrature.
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.trade.paper import CALIPER_ERROR_MM, CALIPER_REPEATS_MM, CALIPER_ZERO_MM, READINGS_AGREE_MM

LARGEST_ZERO_MM: Final = 1.0
"""More than this with closed jaws is no zero error: something is between them."""
REPEATS_KNOWN: Final = 10
"""... and with how many degrees of freedom that is pooled with the readings' own scatter."""
_INCH: Final = 25.4
_STUDENT_95: Final = (
    12.71,
    4.30,
    3.18,
    2.78,
    2.57,
    2.45,
    2.36,
    2.31,
    2.26,
    2.23,
    2.20,
    2.18,
    2.16,
    2.14,
    2.13,
    2.12,
    2.11,
    2.10,
    2.09,
)
"""t for 95 % by degrees of freedom from 1 (JCGM 100:2008, table G.2)."""


@dataclass(frozen=True)
class Thrown:
    """A reading that was thrown out, and why."""

    mm: float
    reason: str


@dataclass(frozen=True)
class Judged:
    """Readings of a stack: those that agree, those thrown out, the mean and its error in mm, and what still
    stands in the way.

    ``sheet`` is the thickness of one; None while ``problem`` says why there is none yet.
    """

    kept: tuple[float, ...]
    thrown: tuple[Thrown, ...]
    sheets: int
    mean_mm: float
    error_mm: float
    problem: str = ""

    @property
    def sheet(self) -> Estimate | None:
        if self.problem or not self.kept:
            return None
        likely, error = self.mean_mm / self.sheets, min(self.error_mm, self.mean_mm) / self.sheets
        return Estimate.ranged(likely - error, likely, likely + error, "the reading of the stack")


def judge(readings_mm: Sequence[float], sheets: int, expected: Estimate | None = None) -> Judged:
    """What readings of a stack of ``sheets`` say. ``expected`` is one sheet as its weight has it, to name a
    slip by.

    Raises ValueError for a stack of no sheets. No readings give a mean of 0 and a problem.
    """
    if sheets < 1:
        raise ValueError("a stack has at least one sheet")
    nothing = tuple(
        Thrown(reading, "no more than the caliper shows with closed jaws")
        for reading in readings_mm
        if reading <= 0
    )
    readings_mm = [reading for reading in readings_mm if reading > 0]
    if not readings_mm:
        return Judged(
            (),
            nothing,
            sheets,
            0.0,
            0.0,
            "No reading yet." if not nothing else "With its zero taken off, no reading is left.",
        )
    middle = statistics.median(readings_mm)
    if len(readings_mm) == 2 and abs(readings_mm[0] - readings_mm[1]) > 2 * READINGS_AGREE_MM:
        low, high = sorted(readings_mm)
        text = (
            f"The two readings are {high - low:.2f} mm apart: {why_off(low, high, sheets)}. Take a third; "
            "the odd one is then thrown out."
        )
        return Judged(tuple(readings_mm), nothing, sheets, middle, abs(readings_mm[0] - readings_mm[1]), text)
    scatter = statistics.median(abs(reading - middle) for reading in readings_mm)
    # 1.4826 makes the median deviation a standard deviation of normal readings; no stack differs by a
    # twentieth from place to place
    slack = max(READINGS_AGREE_MM, min(3 * 1.4826 * scatter, middle / 20))
    kept = tuple(reading for reading in readings_mm if abs(reading - middle) <= slack)
    thrown = (
        *nothing,
        *(
            Thrown(reading, why_off(middle, reading, sheets))
            for reading in readings_mm
            if abs(reading - middle) > slack
        ),
    )
    if len(kept) * 2 <= len(readings_mm):
        return Judged(
            kept,
            thrown,
            sheets,
            middle,
            slack,
            "The readings do not agree: fewer than half lie together. Clear the jaws and start again.",
        )
    mean = statistics.fmean(kept)
    return Judged(kept, thrown, sheets, mean, mean_error(kept), _slip(mean, sheets, expected))


def mean_error(readings_mm: Sequence[float]) -> float:
    """How far the mean of readings that agree may be off, in mm.

    Their scatter is pooled with what is known of such calipers (JCGM 100:2008, 4.2.4), so that one reading is
    not the surest of all, and a further one that agrees does not make the mean less sure.

    >>> [round(mean_error([1.04, 1.05, 1.03][:n]), 3) for n in (1, 2, 3)]
    [0.054, 0.042, 0.038]
    """
    freedom = REPEATS_KNOWN + len(readings_mm) - 1
    own = statistics.variance(readings_mm) * (len(readings_mm) - 1) if len(readings_mm) > 1 else 0.0
    pooled = math.sqrt((REPEATS_KNOWN * CALIPER_REPEATS_MM**2 + own) / freedom)
    student = _STUDENT_95[min(freedom, len(_STUDENT_95)) - 1]
    return math.hypot(student * pooled / math.sqrt(len(readings_mm)), CALIPER_ERROR_MM)


def why_off(middle: float, reading: float, sheets: int) -> str:
    """A reading that does not agree with the middle of the others, in the maker's words."""
    apart, one = reading - middle, middle / sheets
    if _near(reading * _INCH, middle) or _near(reading, middle * _INCH):
        return "it looks like inches: press the unit key"
    if sheets > 1 and abs(abs(apart) - one) < 0.35 * one:
        amount = "many" if apart > 0 else "few"
        return f"about one sheet too {amount} in the jaws"
    compared = "more" if apart > 0 else "less"
    return f"{abs(apart):.2f} mm {compared} than the others: a corner, a burr, or the jaws askew"


def _slip(mean: float, sheets: int, expected: Estimate | None) -> str:
    """A mean that cannot be the paper it is said to be: inches, or a sheet too many or too few; "" when it
    can."""
    if expected is None:
        return ""
    low, high = expected.low * sheets, expected.high * sheets
    if low - CALIPER_ERROR_MM <= mean <= high + CALIPER_ERROR_MM:
        return ""
    if low <= mean * _INCH <= high:
        return (
            f"{mean:.3f} is what {sheets} sheets of this weight measure in inches. Press the unit key "
            "until it shows mm, and measure again."
        )
    for count, word in ((sheets + 1, "one too many"), (sheets - 1, "one too few")):
        if count and expected.low <= mean / count <= expected.high:
            return (
                f"{mean:.2f} mm is {count} sheets of this weight, {word}: count the stack again. If it is "
                f"{sheets} all the same, correct the weight or clear it."
            )
    return ""


def zero_problem(zero_mm: float) -> str:
    """What to do about a caliper that shows ``zero_mm`` with its jaws closed; "" when it is near enough to
    zero."""
    if abs(zero_mm) <= CALIPER_ZERO_MM:
        return ""
    if abs(zero_mm) > LARGEST_ZERO_MM:
        return (
            f"It shows {zero_mm:.2f} mm: something is between the jaws. Take it out, wipe both jaws, "
            "close them gently and check zero again."
        )
    return (
        f"It shows {zero_mm:+.2f} mm with closed jaws. Wipe them, close them, press its zero key and "
        "check again; or go on, and Pleat takes that off each reading."
    )


def _near(a: float, b: float) -> bool:
    return abs(a - b) <= 0.12 * abs(b)
