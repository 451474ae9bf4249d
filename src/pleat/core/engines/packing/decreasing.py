"""Sheets filled piece by piece, the large ones first, each where it fits most snugly on any sheet that was
begun: quick, and of another sort than the sheets that are filled one after the other.

The usual ways to order the pieces, to choose the rectangle and to part what is left of it are all tried
(Jylänki, "A thousand ways to pack the bin", 2010, from memory).
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import product
from typing import Final

from pleat.core.engines.packing.fill import FilledSheet
from pleat.core.engines.packing.problem import Box, PieceDemand, PieceGrid

MOST_PIECES: Final = 300
"""Of more pieces nothing is tried."""
_Order = Callable[[PieceDemand], tuple[int, int]]
_Fit = Callable[[int, int], tuple[int, int]]

_ORDERS: Final[tuple[_Order, ...]] = (
    lambda demand: (-demand.area, -max(demand.width, demand.height)),
    lambda demand: (-max(demand.width, demand.height), -demand.area),
    lambda demand: (-min(demand.width, demand.height), -demand.area),
    lambda demand: (-demand.height, -demand.width),
    lambda demand: (-demand.width, -demand.height),
)
_FITS: Final[tuple[_Fit, ...]] = (
    lambda right, below: (min(right, below), max(right, below)),
    lambda right, below: (max(right, below), min(right, below)),
)
"""How snug a piece lies in a rectangle that leaves so much beside and below it: the less the better."""
_SHORT, _LONG = True, False


class _Sheet:
    """A sheet that was begun: what is free of it, and what lies on it."""

    def __init__(self, free: Sequence[Box]) -> None:
        self.free = list(free)
        self.grids: list[PieceGrid] = []

    def put(self, number: int, place: int, wide: int, high: int, short: bool) -> None:
        """A piece into the corner of a free rectangle, the rest of which is parted along its shorter or its
        longer side."""
        x, y, all_wide, all_high = self.free.pop(place)
        self.grids.append(PieceGrid(number, x, y, wide, high))
        right, below = all_wide - wide, all_high - high
        if (right < below) == short:
            rest = ((x + wide, y, right, high), (x, y + high, all_wide, below))
        else:
            rest = ((x + wide, y, right, all_high), (x, y + high, wide, below))
        self.free += [box for box in rest if box[2] and box[3]]


def sheets_by_size(
    free: Sequence[Box], demands: Sequence[PieceDemand], counts: Sequence[int]
) -> Iterator[FilledSheet]:
    """The sheets of every way, of a source with those ``free`` rectangles and as many as it takes."""
    pieces = [number for number, count in enumerate(counts) for _ in range(count)]
    if len(pieces) > MOST_PIECES:
        return
    for order, fit, short in product(_ORDERS, _FITS, (_SHORT, _LONG)):
        own = sorted(pieces, key=lambda number: (order(demands[number]), number))
        for sheet in _filled(free, demands, own, fit, short):
            on_it = [0] * len(demands)
            for grid in sheet.grids:
                on_it[grid.demand] += 1
            yield FilledSheet(tuple(sheet.grids), tuple(on_it), 0.0, tuple(sheet.free))


def _filled(
    free: Sequence[Box], demands: Sequence[PieceDemand], pieces: Sequence[int], fit: _Fit, short: bool
) -> list[_Sheet]:
    """Sheets with all pieces that any takes."""
    sheets: list[_Sheet] = []
    for number in pieces:
        demand = demands[number]
        sides = [(demand.width, demand.height)]
        if demand.may_turn and demand.width != demand.height:
            sides.append((demand.height, demand.width))
        found = _snuggest(sheets, sides, fit)
        if found is None:
            fresh = _Sheet(free)
            found = _snuggest([fresh], sides, fit)
            if found is None:
                continue
            sheets.append(fresh)
        sheet, place, (wide, high) = found
        sheet.put(number, place, wide, high, short)
    return sheets


def _snuggest(
    sheets: Sequence[_Sheet], sides: Sequence[tuple[int, int]], fit: _Fit
) -> tuple[_Sheet, int, tuple[int, int]] | None:
    """Where a piece lies best: (sheet, free rectangle, the way round); None where it does not go."""
    best: tuple[_Sheet, int, tuple[int, int]] | None = None
    snug: tuple[int, int] | None = None
    for sheet in sheets:
        for place, (_, _, wide, high) in enumerate(sheet.free):
            for side in sides:
                if side[0] <= wide and side[1] <= high:
                    now = fit(wide - side[0], high - side[1])
                    if snug is None or now < snug:
                        best, snug = (sheet, place, side), now
    return best
