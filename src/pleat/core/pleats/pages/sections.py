"""Splitting folios into equal sections, and comparing neighbours of a split."""

from __future__ import annotations

import math
from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.pleats.pages.creep import innermost_creep
from pleat.core.pleats.pages.folding import folios_a_sheet
from pleat.core.pleats.pages.limits import FoldLimit


@dataclass(frozen=True)
class Split:
    """``sections`` equal sections of ``folios`` folios each; thickness of one at its fold and its creep in
    mm."""

    sections: int
    folios: int
    section_mm: float
    creep_mm: float
    fits: bool

    @property
    def pages(self) -> int:
        return 4 * self.sections * self.folios


def split(folios: int, sections: int, folds: int) -> tuple[int, ...]:
    """Folios of each section: as equal as whole sheets allow, the thicker ones in the middle; their sum is at
    least ``folios``.

    >>> split(13, 3, 1), split(13, 3, 2)
    ((4, 5, 4), (4, 6, 4))
    """
    by = folios_a_sheet(folds)
    sheets = max(sections, math.ceil(folios / by))
    each, more = divmod(sheets, sections)
    first = (sections - more) // 2
    return tuple(by * (each + (first <= number < first + more)) for number in range(sections))


def compare(
    folios: int, chosen: int, folds: int, caliper: Estimate, lay: float, limit: FoldLimit
) -> tuple[Split, ...]:
    """The chosen number of sections among its neighbours and the fewest that nest well, each of equal
    sections."""
    by = folios_a_sheet(folds)
    fewest = math.ceil(folios / max(by, limit.folios // by * by))
    numbers = sorted(
        {
            number
            for number in (chosen - 1, chosen, chosen + 1, fewest, fewest + 1)
            if 1 <= number <= math.ceil(folios / by)
        }
    )
    splits = []
    for number in numbers:
        each = by * math.ceil(math.ceil(folios / by) / number)
        creep = innermost_creep(caliper, each).likely
        splits.append(Split(number, each, 2 * each * caliper.likely * lay, creep, each <= limit.folios))
    return tuple(splits)
