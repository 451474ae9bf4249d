"""The nearby size: leaves within 5 % that come out of the sheet with fewer sheets or less left over; up to 8
% smaller where that saves a third."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import product
from typing import Final, Literal

from pleat.core.base.yields import Lay, both_ways
from pleat.core.pleats.pages.folding import COLUMNS_ROWS

NEAR: Final = 0.05
"""How far either side may differ from the one wanted."""
SMALLER: Final = 0.08
"""How much smaller a side may be where at least a third of the sheets is saved."""
MOST: Final = 3


@dataclass(frozen=True)
class Nearby:
    """A leaf in mm near the wanted one, the sheets it takes, how many pieces each gives, and the share of a
    sheet that becomes leaves."""

    leaf_width_mm: float
    leaf_height_mm: float
    sheets: int
    each: int
    used: float
    with_grain: bool | None


def nearby_sizes(
    leaf_width_mm: float,
    leaf_height_mm: float,
    folds: int,
    pieces: int,
    sheet_width_mm: float,
    sheet_height_mm: float,
    *,
    grain: Literal["w", "h"] | None,
    upright_only: bool = False,
) -> tuple[Lay, tuple[Nearby, ...]]:
    """(how the wanted leaf lies, which may give none; better ones near it, best first).

    Better is fewer sheets, or as many with at least 3 % less waste; a leaf that gives up the grain is not
    better.
    """
    columns, rows = COLUMNS_ROWS[folds] if folds else (1, 1)

    def lay(width: float, height: float) -> Lay:
        return both_ways(
            columns * width, rows * height, sheet_width_mm, sheet_height_mm, grain, upright_only
        )[0]

    now = lay(leaf_width_mm, leaf_height_mm)
    needed = math.ceil(pieces / now.count) if now.count else None
    widths = _near(leaf_width_mm, columns, (sheet_width_mm, sheet_height_mm))
    heights = _near(leaf_height_mm, rows, (sheet_width_mm, sheet_height_mm))
    found: dict[tuple[float, float], Nearby] = {}
    for width, height in product(widths, heights):
        operation = lay(width, height)
        if (
            not operation.count
            or (width, height) == (leaf_width_mm, leaf_height_mm)
            or (operation.with_grain is False and now.with_grain is not False)
        ):
            continue
        sheets = math.ceil(pieces / operation.count)
        small = min(width / leaf_width_mm, height / leaf_height_mm) < 1 - NEAR - 1e-9
        if small and needed is not None and sheets > needed * 2 / 3:
            continue
        if needed is None or sheets < needed or (sheets == needed and operation.used > now.used + 0.03):
            found[(round(width, 2), round(height, 2))] = Nearby(
                width, height, sheets, operation.count, operation.used, operation.with_grain
            )
    best = sorted(
        found.values(),
        key=lambda neighbour: (neighbour.with_grain is False, neighbour.sheets, -neighbour.used),
    )
    return now, tuple(best[:MOST])


def _near(wanted: float, leaves: int, sides: tuple[float, ...]) -> list[float]:
    """The wanted side, and every whole part of a sheet's side from 8 % below to 5 % above it, for so many
    leaves across one piece."""
    parts = {
        side / (leaves * count)
        for side in sides
        for count in range(1, max(2, int(side / (leaves * wanted * (1 - SMALLER))) + 2))
    }
    near = (
        part
        for part in parts
        if wanted * (1 - SMALLER) <= part <= wanted * (1 + NEAR) and abs(part - wanted) > 0.01
    )
    return [wanted, *sorted(near)]
