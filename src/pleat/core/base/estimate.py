"""Values that are not known exactly: low, likely and high, and where the width of the range comes from.

An Estimate keeps, for each named source of doubt, how far it may pull the value down and up. The error of one
paper's caliper is the same error in every leaf of it, so equal sources add linearly; different sources are
independent and add in quadrature (root of the sum of squares), as the "Guide to the expression of uncertainty
in measurement" (JCGM 100:2008, 5.1 and 5.2) has it.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from pleat.core.trade.paper import READING_FAR_OFF


@dataclass(frozen=True)
class Estimate:
    """A likely value with, for each source of doubt, a (down, up) pair in the same unit, both >= 0.

    >>> sheet = Estimate.ranged(0.09, 0.10, 0.12, "caliper")
    >>> ten = sheet.times(10)
    >>> round(ten.low, 3), round(ten.likely, 3), round(ten.high, 3)
    (0.9, 1.0, 1.2)
    """

    likely: float
    doubts: Mapping[str, tuple[float, float]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if not math.isfinite(self.likely):
            raise ValueError("an estimate needs a finite likely value")
        for down, up in self.doubts.values():
            if down < 0 or up < 0:
                raise ValueError("how far a value may be pulled cannot be negative")
        object.__setattr__(self, "doubts", MappingProxyType(dict(self.doubts)))

    @classmethod
    def exact(cls, value: float) -> Estimate:
        """A value without doubt."""
        return cls(value)

    @classmethod
    def ranged(cls, low: float, likely: float, high: float, source: str) -> Estimate:
        """A value between ``low`` and ``high`` for one reason. Raises ValueError unless low <= likely <=
        high."""
        if not low <= likely <= high:
            raise ValueError(f"low {low}, likely {likely}, high {high} are out of order")
        return cls(likely, {source: (likely - low, high - likely)})

    @property
    def low(self) -> float:
        return self.likely - math.hypot(*(down for down, _ in self.doubts.values()))

    @property
    def high(self) -> float:
        return self.likely + math.hypot(*(up for _, up in self.doubts.values()))

    @property
    def width(self) -> float:
        """high - low."""
        return self.high - self.low

    def times(self, factor: float) -> Estimate:
        """The estimate multiplied by an exact number >= 0."""
        if factor < 0:
            raise ValueError("an estimate is multiplied by numbers from 0 up")
        return Estimate(
            self.likely * factor, {k: (d * factor, u * factor) for k, (d, u) in self.doubts.items()}
        )

    def multiplied(self, other: Estimate) -> Estimate:
        """The product of two estimates >= 0, each source's pull taken with the other at its likely value."""
        return total(
            [Estimate(0.0, self.times(other.likely).doubts), Estimate(0.0, other.times(self.likely).doubts)],
            self.likely * other.likely,
        )

    def plus(self, other: Estimate) -> Estimate:
        return total([self, other])

    def questions(self, reading: float) -> bool:
        """Whether a reading of the same thing is hardly possible: far past the range, or half or double of
        what is likely."""
        return (
            not max(self.low / READING_FAR_OFF, 0.51 * self.likely)
            <= reading
            <= min(self.high * READING_FAR_OFF, 1.99 * self.likely)
        )

    def main_doubt(self) -> str | None:
        """The source that makes most of the range, or None when there is no range."""
        if not self.doubts or self.width < 1e-9:
            return None
        return max(self.doubts, key=lambda source: sum(self.doubts[source]))

    def width_without(self, source: str) -> float:
        """How wide the range would be if ``source`` were known exactly."""
        return Estimate(self.likely, {k: v for k, v in self.doubts.items() if k != source}).width


def weighted(estimates: Iterable[tuple[Estimate, float]]) -> Estimate:
    """The sum of estimates, each so many times; sources of the same name add linearly.

    >>> weighted([(Estimate.exact(0.1), 4), (Estimate.exact(0.2), 1)]).likely
    0.6000000000000001
    """
    likely = 0.0
    doubts: dict[str, tuple[float, float]] = {}
    for estimate, times in estimates:
        likely += estimate.likely * times
        for source, (down, up) in estimate.doubts.items():
            before = doubts.get(source, (0.0, 0.0))
            doubts[source] = (before[0] + down * times, before[1] + up * times)
    return Estimate(likely, doubts)


def total(estimates: Iterable[Estimate], plus: float = 0.0) -> Estimate:
    """The sum of estimates and an exact number; sources of the same name add linearly. Empty gives
    ``plus``."""
    estimate = weighted((one, 1.0) for one in estimates)
    return Estimate(estimate.likely + plus, estimate.doubts) if plus else estimate
