"""Measuring a paper: zero first, then three readings of a stack, judged as they come; nothing is kept before
the maker says so."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.caliper.client import read_caliper
from pleat.core.base.errors import LengthError
from pleat.core.base.fields import parse_thickness
from pleat.core.base.units import parse_length
from pleat.core.materials.items import Paper
from pleat.core.materials.measuring import LARGEST_ZERO_MM, Judged, judge, zero_problem
from pleat.core.materials.thickness import thickness, weighed

READINGS: Final = 3
"""Readings at different places that the procedure asks for; more may be taken."""
MOST_READINGS: Final = 20


@dataclass(frozen=True)
class Session:
    """How far a measuring has come: sheets in the stack, what it showed with closed jaws (None: not checked),
    readings in mm."""

    sheets: int
    zero_mm: float | None
    readings_mm: tuple[float, ...]

    @property
    def zero_said(self) -> str:
        """What to do about the zero; "" when it is good or not checked yet."""
        return "" if self.zero_mm is None else zero_problem(self.zero_mm)

    @property
    def may_go_on(self) -> bool:
        return self.zero_mm is not None and abs(self.zero_mm) <= LARGEST_ZERO_MM

    @property
    def corrected_mm(self) -> tuple[float, ...]:
        """The readings without the zero error; those below nothing stay, to be thrown out with a reason."""
        return tuple(round(reading - (self.zero_mm or 0.0), 4) for reading in self.readings_mm)

    def judged(self, paper: Paper) -> Judged:
        return judge(self.corrected_mm, self.sheets, weighed(paper))


def take_zero(address: str) -> float:
    """What the caliper shows with its jaws closed, in mm. Raises CaliperError."""
    return read_caliper(address, "jaws closed").mm


def take_reading(address: str, paper: Paper, sheets: int) -> float:
    """One reading of the stack, in mm. Raises CaliperError."""
    expected = thickness(paper).sheet.likely
    return read_caliper(address, f"stack of {sheets}, one sheet about {expected:.4f} mm").mm


def typed_reading(text: str) -> float:
    """A reading typed by hand, in mm unless a unit is typed. Raises LengthError."""
    points = parse_thickness(text)
    mm = points if points is not None else parse_length(text, "mm", fine=True).mm
    if not 0 < mm <= 200:
        raise LengthError(
            text, f"{text.strip()} cannot be a stack of paper. Type what the caliper shows, for example 1.04."
        )
    return mm
