"""What pieces are cut from, as the engine has it: a material's sheets, its offcuts, and others that serve."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.engines.packing.problem import TICKS_PER_MM, Box, SheetSource, ticks
from pleat.core.materials.sheet import Remnant
from pleat.core.pleats.paper.stocks import Stock

ROLL_MM: Final = 200_000.0
"""How long a roll is taken to be for planning: what is missing of one that is shorter is told as a length."""
REMNANT_SHARE: Final = 0.05
"""What an offcut is worth beside a whole sheet of its size: it is paid for, and lies in the way."""


def whole_sheet(stock: Stock) -> SheetSource:
    """The sheets of a material, as many as it takes, or its roll."""
    high = ROLL_MM if stock.roll else stock.sheet_height_mm
    return SheetSource(
        ticks(stock.sheet_width_mm),
        ticks(high),
        1.0,
        roll=stock.roll,
        margins=_margins(stock.margins),
        blocked=_boxes(stock.windows),
    )


def lying(remnant: Remnant, stock: Stock) -> Remnant:
    """An offcut as it lies to be cut: with its grain as that of the whole sheets; a pattern with a top stays
    upright."""
    if remnant.grain and stock.grain and remnant.grain != stock.grain and not stock.upright_only:
        return remnant.turned
    return remnant


def remnant_source(remnant: Remnant, stock: Stock, whole: SheetSource) -> SheetSource:
    """An offcut, or a sheet that serves as well, at its price beside that of a ``whole`` sheet."""
    remnant = lying(remnant, stock)
    wide, high = ticks(remnant.width_mm), ticks(remnant.height_mm)
    share = wide * high / (whole.width * whole.height)
    if not remnant.whole:
        price = REMNANT_SHARE * share
    elif remnant.price and stock.price:
        price = remnant.price / stock.price
    else:
        price = share
    return SheetSource(
        wide, high, price, remnant.count, margins=_margins(remnant.margins), blocked=_boxes(remnant.windows)
    )


def in_mm(length: int) -> float:
    """Ticks as mm."""
    return length / TICKS_PER_MM


def _margins(mm: tuple[float, float, float, float]) -> tuple[int, int, int, int]:
    left, top, right, bottom = mm
    return ticks(left), ticks(top), ticks(right), ticks(bottom)


def _boxes(windows: Sequence[tuple[float, float, float, float]]) -> tuple[Box, ...]:
    return tuple((ticks(x), ticks(y), ticks(wide), ticks(high)) for x, y, wide, high in windows)
