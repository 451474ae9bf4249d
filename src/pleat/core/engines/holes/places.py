"""Where holes lie along an edge: patterns and pitches of the trade, spread by folding, or set by hand.
Lengths are mm from the head."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.plan import Rule
from pleat.core.base.units import MM_PER_INCH
from pleat.core.trade.holes import HOLE_END_MM


@dataclass(frozen=True)
class Pattern:
    """Holes a fixed distance apart: the gaps between them, the hole, from its middle to the edge, and where
    that comes from; mm."""

    title: str
    gaps: tuple[float, ...]
    hole: float
    inset: float
    rule: Rule

    @property
    def span(self) -> float:
        """From the first hole to the last."""
        return sum(self.gaps)


ISO_838: Final = Rule("two_holes", "ISO 838: holes of 6 mm, 80 mm apart, 12 mm from the edge")
_MEMORY: Final = "six-hole spacing for planner leaves"
PATTERNS: Final[dict[str, Pattern]] = {
    "iso2": Pattern("two holes, 80 mm apart", (80.0,), 6.0, 12.0, ISO_838),
    "iso4": Pattern("four holes, 80 mm apart", (80.0, 80.0, 80.0), 6.0, 12.0, ISO_838),
    "three": Pattern(
        "three holes, 4 1/4 in apart",
        (4.25 * MM_PER_INCH,) * 2,
        8.0,
        12.7,
        Rule("three_holes", "three holes 4 1/4 in apart, 1/2 in from the edge; no source"),
    ),
    "six-a5": Pattern(
        "six holes, A5",
        (19.0, 19.0, 70.0, 19.0, 19.0),
        5.5,
        8.0,
        Rule("six_holes", f"{_MEMORY}: 19-19-70-19-19 mm"),
    ),
    "six-small": Pattern(
        "six holes, small",
        (19.0, 19.0, 51.0, 19.0, 19.0),
        5.5,
        8.0,
        Rule("six_holes", f"{_MEMORY}: 19-19-51-19-19 mm"),
    ),
}
"""Patterns by their names in book files."""
PITCHES: Final = {"3:1": MM_PER_INCH / 3, "2:1": MM_PER_INCH / 2, "4:1": MM_PER_INCH / 4}
"""Holes to the inch of wire and coil (common practice)."""


def centred(edge_mm: float, gaps: Sequence[float]) -> tuple[float, ...]:
    """Holes with these gaps between them, as far from one end as from the other.

    >>> centred(297, [80])
    (108.5, 188.5)
    """
    first = (edge_mm - sum(gaps)) / 2
    return tuple(itertools.accumulate(gaps, initial=first))


def folded(edge_mm: float, count: int) -> tuple[float, ...]:
    """Holes where a strip as long as the edge has its folds: two at the quarter points, each in the middle of
    its share.

    >>> folded(200, 2)
    (50.0, 150.0)
    """
    return tuple(edge_mm * (2 * number + 1) / (2 * count) for number in range(count))


def inset(edge_mm: float, count: int, end_mm: float) -> tuple[float, ...]:
    """The outermost holes so far from the ends, the others spread between them; a single one in the
    middle."""
    if count == 1:
        return (edge_mm / 2,)
    step = (edge_mm - 2 * end_mm) / (count - 1)
    return tuple(end_mm + number * step for number in range(count))


def row(edge_mm: float, pitch_mm: float, hole_mm: float, keep_mm: float = HOLE_END_MM) -> tuple[float, ...]:
    """As many holes at a pitch as the edge has room for, centred; empty where there is room for none."""
    room = edge_mm - 2 * (keep_mm + hole_mm / 2)
    count = math.floor(room / pitch_mm + 1e-9) + 1 if room >= 0 else 0
    return centred(edge_mm, [pitch_mm] * (count - 1)) if count else ()


def nearest(positions: Sequence[float], edge_mm: float, hole_mm: float) -> tuple[float, float]:
    """(the paper between an outermost rim and its end of the edge, the paper between two rims) in mm;
    negative where a hole breaks it."""
    if not positions:
        return edge_mm, edge_mm
    ordered = sorted(positions)
    end = min(ordered[0], edge_mm - ordered[-1]) - hole_mm / 2
    between = min((b - a for a, b in itertools.pairwise(ordered)), default=edge_mm + hole_mm) - hole_mm
    return end, between


def missed(positions: Sequence[float], edge_mm: float) -> float:
    """By how much the holes of a piece that was punched the wrong way round miss those of the others, in mm;
    0 where it does not matter.

    >>> missed((50, 160), 200)
    10.0
    """
    turned = sorted(edge_mm - position for position in positions)
    return float(max((abs(a - b) for a, b in zip(sorted(positions), turned, strict=True)), default=0.0))
