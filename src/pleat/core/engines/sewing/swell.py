"""What thread adds to the spine: counted where it lies inside the folds, gap by gap along them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import Final

from pleat.core.base.estimate import Estimate, total
from pleat.core.engines.sewing.moves import Bed
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.trade.sewing import SWELL_FIRST, SWELL_FURTHER

DOUBT: Final = "how far the thread is pressed into the paper"


def of_strands(strands: int, diameter_mm: float) -> Estimate:
    """What so many threads side by side in one fold add, in mm."""
    if not strands:
        return Estimate.exact(0.0)
    low, likely, high = (
        diameter_mm * first * (1 + further * (strands - 1))
        for first, further in zip(SWELL_FIRST, SWELL_FURTHER, strict=True)
    )
    return Estimate.ranged(low, likely, high, DOUBT)


def profile(stretches: Sequence[Stretch], bed: Bed, diameter_mm: float, strands: int) -> tuple[Estimate, ...]:
    """What the thread adds in each gap between holes, all rows together; the first gap is that of the
    head."""
    inside = Counter(
        (stretch.row, gap)
        for stretch in stretches
        if stretch.what == "span" and stretch.side == "inside"
        for gap in stretch.gaps
    )
    estimates = []
    for gap in range(1, bed.stations):
        by_strands = Counter(inside[row, gap] * strands for row in range(1, len(bed.rows) + 1))
        estimates.append(
            total([of_strands(count, diameter_mm).times(rows) for count, rows in by_strands.items() if count])
            if any(by_strands)
            else Estimate.exact(0.0)
        )
    return tuple(estimates)


def largest(gaps: Sequence[Estimate]) -> Estimate:
    """The swell the cover has to give room for: that of the thickest gap."""
    return max(gaps, key=lambda estimate: estimate.likely, default=Estimate.exact(0.0))
