"""Another leaf size as changes to a book, with what was placed on the old one and would not fit the new."""

from __future__ import annotations

from typing import Final

from pleat.core.base.plan import Changes
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.trade.pages import FLAP_GAP_MM

SMALLEST_MM: Final = (30.0, 40.0)
LARGEST_MM: Final = 600.0


def possible(width_mm: float, height_mm: float) -> bool:
    """Whether a book can have leaves of this size."""
    return SMALLEST_MM[0] <= width_mm <= LARGEST_MM and SMALLEST_MM[1] <= height_mm <= LARGEST_MM


def resized(
    brief: BriefResult, width_mm: float, height_mm: float, flap_mm: float | None = None
) -> tuple[Changes, str]:
    """(changes to another leaf, words on what goes with them): stations are spread anew where the height
    changes, and a fold-out that would reach the gutter is left out."""
    changes: list[tuple[str, object]] = [
        ("brief.leaf_width_mm", width_mm),
        ("brief.leaf_height_mm", height_mm),
    ]
    words = ""
    if abs(height_mm - brief.leaf_height_mm) > 0.05:
        changes += [(path, None) for path in brief.made_of.placed]
        words = ", holes spread anew" if brief.made_of.placed else ""
    if flap_mm and flap_mm > width_mm - FLAP_GAP_MM:
        changes.append(("pages.flap_mm", None))
        words += ", without the fold-out"
    return tuple(changes), words
