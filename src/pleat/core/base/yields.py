"""How many equal pieces come out of one sheet, in rows and columns, each way round."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

from pleat.core.base.units import HAIR_MM

Lies = Literal["auto", "upright", "turned"]
LIES: Final = (("auto", "the better way"), ("upright", "upright"), ("turned", "turned"))
"""Which way round pieces lie on their sheet."""


def lies(width_mm: float, height_mm: float, sheet_width_mm: float, sheet_height_mm: float) -> bool:
    """Whether a piece comes out of a sheet upright."""
    return width_mm <= sheet_width_mm + HAIR_MM and height_mm <= sheet_height_mm + HAIR_MM


@dataclass(frozen=True)
class Lay:
    """Pieces laid out in a grid: ``turned`` pieces lie with their height across the sheet.

    ``with_grain`` says whether the piece's own height (the spine's direction) lies along the grain; None when
    the grain is not known. ``used`` is the share of the sheet that becomes pieces.
    """

    turned: bool
    columns: int
    rows: int
    piece_width_mm: float
    piece_height_mm: float
    with_grain: bool | None
    used: float

    @property
    def count(self) -> int:
        return self.columns * self.rows


def lay(
    width_mm: float,
    height_mm: float,
    sheet_width_mm: float,
    sheet_height_mm: float,
    grain: Literal["w", "h"] | None,
    turned: bool,
) -> Lay:
    """The grid of pieces ``width`` x ``height`` on a sheet, upright or turned. Raises ValueError for sizes
    not above 0."""
    if min(width_mm, height_mm, sheet_width_mm, sheet_height_mm) <= 0:
        raise ValueError("pieces and sheets have a width and a height")
    across, along = (height_mm, width_mm) if turned else (width_mm, height_mm)
    columns = math.floor((sheet_width_mm + HAIR_MM) / across)
    rows = math.floor((sheet_height_mm + HAIR_MM) / along)
    spine_axis = "w" if turned else "h"
    used = columns * rows * width_mm * height_mm / (sheet_width_mm * sheet_height_mm)
    return Lay(
        turned, columns, rows, across, along, None if grain is None else grain == spine_axis, min(used, 1.0)
    )


@lru_cache(maxsize=2000)
def both_ways(
    width_mm: float,
    height_mm: float,
    sheet_width_mm: float,
    sheet_height_mm: float,
    grain: Literal["w", "h"] | None,
    upright_only: bool = False,
) -> tuple[Lay, Lay]:
    """(better, other): grain first, then more pieces, then upright. A way that gives nothing is never better.

    ``upright_only`` puts upright before all else, for sheets whose pattern has a top.
    """
    ways = [
        lay(width_mm, height_mm, sheet_width_mm, sheet_height_mm, grain, turned) for turned in (False, True)
    ]
    ways.sort(
        key=lambda operation: (
            operation.count > 0,
            upright_only and not operation.turned,
            operation.with_grain is not False,
            operation.count,
            not operation.turned,
        ),
        reverse=True,
    )
    return ways[0], ways[1]
