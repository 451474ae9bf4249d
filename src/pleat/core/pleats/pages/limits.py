"""How many folios nest well in one fold: the folded thickness and the creep set it, not the count."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.base.units import RULERS, Ruler
from pleat.core.materials.items import PaperKind
from pleat.core.pleats.pages.creep import creep_range
from pleat.core.trade.pages import MOST_CREEP_MM, MOST_MIXED, THICKEST_FOLD_MM

GUIDES: Final[dict[PaperKind, str]] = {
    "copier": "6 to 12 folios of copier paper",
    "drawing": "4 to 8 folios of text-weight or drawing paper",
    "cardstock": "2 or 3 folios of cardstock",
    "coated": "4 to 8 folios of text-weight paper",
    "watercolour": "2 or 3 folios of heavy watercolour paper",
    "kraft": "4 to 8 folios of text-weight paper",
    "other": "4 to 8 folios of text-weight paper",
}
"""Common practice, no source."""
MOST_BY_GUIDE: Final[dict[PaperKind, int]] = {
    "copier": 12,
    "drawing": 8,
    "cardstock": 3,
    "coated": 8,
    "watercolour": 3,
    "kraft": 8,
    "other": 8,
}
"""The upper ends of the guides: thickness, creep and guide all hold, the smallest wins."""


@dataclass(frozen=True)
class FoldLimit:
    """``folios`` is the most that nest well, ``reason`` what sets it."""

    folios: int
    reason: str


def fold_limit(
    caliper_mm: float,
    most: int = MOST_MIXED,
    guide: str = "up to 12 light mixed sheets",
    ruler: Ruler = RULERS["mm"],
) -> FoldLimit:
    """The most folios of this caliper in one fold, at least 1: by thickness, by creep and by the guide,
    whichever is least.

    Raises ValueError unless the caliper is above 0.
    """
    if caliper_mm <= 0:
        raise ValueError("a sheet has a thickness")
    by_thickness = int(THICKEST_FOLD_MM / (2 * caliper_mm) + 1e-9)
    by_creep = 1
    while creep_range(caliper_mm, by_creep)[1] <= MOST_CREEP_MM and by_creep <= by_thickness:
        by_creep += 1
    if most < min(by_thickness, by_creep):
        return FoldLimit(most, f"the guide of {guide}")
    if by_thickness <= by_creep:
        return FoldLimit(max(1, by_thickness), f"a fold of {ruler.thin(THICKEST_FOLD_MM)}")
    return FoldLimit(max(1, by_creep), f"a creep of {ruler.thin(MOST_CREEP_MM)}")
