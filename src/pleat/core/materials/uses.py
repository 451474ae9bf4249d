"""What a paper is good for, and what it would give a book of some size."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.yields import Lay, both_ways
from pleat.core.materials.items import Paper
from pleat.core.trade.paper import USES_MM

Use = Literal["leaves", "pockets", "cover"]


def good_for(sheet: Estimate) -> tuple[Use, ...]:
    """The uses whose span holds the likely thickness, thinnest first; empty for what is thicker than any.

    >>> good_for(Estimate.exact(0.25))
    ('pockets', 'cover')
    """
    return tuple(use for use, (low, high) in USES_MM.items() if low <= sheet.likely <= high)


def grain_axis(width_mm: float, height_mm: float, grain: str) -> Literal["w", "h"] | None:
    """The sheet's axis the grain runs along, None when it is not known. On a square sheet ``long`` means
    upright."""
    if grain == "unknown":
        return None
    return "h" if (height_mm >= width_mm) == (grain == "long") else "w"


@dataclass(frozen=True)
class SheetFacts:
    """What has to be known of a paper to say what it gives: sizes and thickness in mm, the grain's axis, how
    many are there."""

    key: int
    name: str
    width_mm: float
    height_mm: float
    grain: Literal["w", "h"] | None
    owned: int | None
    upright_only: bool = False
    thickness_mm: float | None = None


@dataclass(frozen=True)
class Gives:
    """Folios a sheet gives, whether with the grain (None: not known), and leaves all sheets give together
    (None: not counted)."""

    sheet: SheetFacts
    folios: int
    with_grain: bool | None
    turned: bool
    leaves: int | None

    @property
    def leaves_a_sheet(self) -> int:
        return 2 * self.folios


def folio_on(sheet: SheetFacts, leaf_width_mm: float, leaf_height_mm: float) -> Lay:
    """How folios of leaves of that size lie best on a sheet."""
    better, _ = both_ways(
        2 * leaf_width_mm, leaf_height_mm, sheet.width_mm, sheet.height_mm, sheet.grain, sheet.upright_only
    )
    return better


def what_gives(sheets: Iterable[SheetFacts], leaf_width_mm: float, leaf_height_mm: float) -> list[Gives]:
    """The sheets a leaf of this size comes out of, folded once; those with the grain first, then the most
    leaves.

    A pattern with a top that would lie sideways does not count.
    """
    found = []
    known: dict[tuple[float, float, str | None, bool], Lay] = {}  # shelves hold many papers of few sizes
    for sheet in sheets:
        size = (sheet.width_mm, sheet.height_mm, sheet.grain, sheet.upright_only)
        if size not in known:
            known[size] = folio_on(sheet, leaf_width_mm, leaf_height_mm)
        better = known[size]
        if better.count and not (sheet.upright_only and better.turned):
            leaves = None if sheet.owned is None else 2 * better.count * sheet.owned
            found.append(Gives(sheet, better.count, better.with_grain, better.turned, leaves))
    return sorted(
        found,
        key=lambda give: (
            give.with_grain is False,
            give.with_grain is None,
            -(give.leaves or 0),
            give.sheet.name,
        ),
    )


def fits_pattern(paper: Paper) -> bool:
    """Whether pieces may only be cut upright, since the paper's pattern has a top."""
    return paper.pattern == "directional"
