"""Folding one sheet: how large it must be, what it gives, which edges stay closed, and which way it must lie.

A sheet folded f times is 2^f leaves: once across its width; twice: head fold, then the spine; three times:
fore edge, head, spine. The spine is always the last fold, so the grain must run along it. Arithmetic.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

from pleat.core.materials.sizes import size_name

Folds = Literal[1, 2, 3]
COLUMNS_ROWS: Final[dict[int, tuple[int, int]]] = {1: (2, 1), 2: (2, 2), 3: (4, 2)}
"""Leaves across and down an open sheet, by folds."""
CLOSED: Final[dict[int, tuple[str, ...]]] = {1: (), 2: ("head",), 3: ("head", "fore edge")}
"""Edges where folds join leaves (bolts), to be slit or trimmed away."""
WORDS: Final = {1: "folded once", 2: "folded twice", 3: "folded three times"}


def folios_a_sheet(folds: int) -> int:
    """Folios (pairs of leaves in one fold) that one folded sheet makes.

    >>> [folios_a_sheet(folds) for folds in (1, 2, 3)]
    [1, 2, 4]
    """
    return 1 << (folds - 1)


@dataclass(frozen=True)
class Open:
    """An open sheet for one folding: its size in mm, and where its folds lie from the left and from the
    head."""

    width_mm: float
    height_mm: float
    across_mm: tuple[float, ...]
    down_mm: tuple[float, ...]


def open_sheet(leaf_width_mm: float, leaf_height_mm: float, folds: int, trim_mm: float) -> Open:
    """The sheet that gives leaves of this size after ``trim_mm`` is cut off head, tail and fore edge (0:
    slit, nothing lost).

    >>> open_sheet(108, 140, 2, 0)
    Open(width_mm=216, height_mm=280, across_mm=(108,), down_mm=(140,))
    """
    columns, rows = COLUMNS_ROWS[folds]
    width, height = leaf_width_mm + trim_mm, leaf_height_mm + 2 * trim_mm
    across = tuple(width * n for n in range(1, columns))
    return Open(columns * width, rows * height, across, tuple(height * n for n in range(1, rows)))


@dataclass(frozen=True)
class Folded:
    """What a sheet gives when it is folded so often one way: the leaf in mm, and whether the grain runs along
    the spine (None: not known)."""

    folds: int
    turned: bool
    leaf_width_mm: float
    leaf_height_mm: float
    with_grain: bool | None

    @property
    def leaves(self) -> int:
        return int(2**self.folds)

    @property
    def name(self) -> str | None:
        return size_name(self.leaf_width_mm, self.leaf_height_mm)


@lru_cache(maxsize=500)
def ways_to_fold(
    sheet_width_mm: float, sheet_height_mm: float, grain: Literal["w", "h"] | None
) -> tuple[Folded, ...]:
    """Each number of folds, both ways round: lying upright, and turned so that the spine runs across the
    sheet's height."""
    found = []
    for folds, (columns, rows) in COLUMNS_ROWS.items():
        for turned in (False, True):
            across, down = (sheet_height_mm, sheet_width_mm) if turned else (sheet_width_mm, sheet_height_mm)
            right_grain = "w" if turned else "h"
            with_grain = None if grain is None else grain == right_grain
            found.append(Folded(folds, turned, across / columns, down / rows, with_grain))
    return tuple(found)
