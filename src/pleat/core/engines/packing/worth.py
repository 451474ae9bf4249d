"""The most that one sheet can be worth when each piece has a value: an exact dynamic programme over cuts from
edge to edge of any depth, any number of each piece.

A cut that does not lie where pieces end can be moved there, so only sums of sides matter (Herz, "Recursive
computational procedure for two-dimensional stock cutting", 1972; Beasley, "Algorithms for unconstrained
two-dimensional guillotine cutting", 1985; both from memory).
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from pleat.core.engines.packing.problem import PieceDemand, PieceGrid

MOST_PLACES: Final = 720
"""Places of cuts along a side; of a sheet with more nothing is said."""
NEAR: Final = 1e-9
"""Values that differ by less are equal."""


@dataclass(frozen=True)
class Worth:
    """The most a sheet can be worth, and pieces that are worth it, of each as many as come out of it."""

    value: float
    grids: tuple[PieceGrid, ...]


def most_worth(wide: int, high: int, demands: Sequence[PieceDemand], values: Sequence[float]) -> Worth | None:
    """The most valuable pieces of one sheet, any number of each; None where there are too many cuts."""
    lies = [
        (number, across, down, value)
        for number, (demand, value) in enumerate(zip(demands, values, strict=True))
        if value > 0
        for across, down in _ways(demand)
        if across <= wide and down <= high
    ]
    if not lies:
        return Worth(0.0, ())
    xs, ys = _sums({lie[1] for lie in lies}, wide), _sums({lie[2] for lie in lies}, high)
    if xs is None or ys is None:
        return None
    table = _WorthTable(xs, ys, lies)
    return Worth(table.value, tuple(table.pieces(len(xs) - 1, len(ys) - 1, 0, 0)))


def _ways(demand: PieceDemand) -> list[tuple[int, int]]:
    ways = [(demand.width, demand.height)]
    if demand.may_turn and demand.width != demand.height:
        ways.append((demand.height, demand.width))
    return ways


def _sums(sides: Collection[int], most: int) -> list[int] | None:
    """Sums of sides up to the whole, each side as often as it goes into it; 0 among them."""
    sums = {0}
    for side in sorted(sides):
        frontier = sums
        while frontier:
            frontier = {total + side for total in frontier if total + side <= most} - sums
            sums |= frontier
            if len(sums) > MOST_PLACES:
                return None
    return sorted(sums)


class _WorthTable:
    """The value of every rectangle whose sides are sums, smaller ones first."""

    def __init__(
        self, xs: Sequence[int], ys: Sequence[int], lies: Sequence[tuple[int, int, int, float]]
    ) -> None:
        self.xs, self.ys, self.lies = np.asarray(xs), np.asarray(ys), lies
        self.table = table = np.zeros((len(xs), len(ys)))
        for _, wide, high, value in lies:
            i, j = self._place(self.xs, wide), self._place(self.ys, high)
            np.maximum(table[i:, j:], value, out=table[i:, j:])
        halves = [self._halves(self.ys, j) for j in range(len(ys))]
        for i in range(1, len(xs)):
            row = table[i]
            for k, rest in zip(*self._halves(self.xs, i), strict=True):
                np.maximum(row, table[k] + table[rest], out=row)
            np.maximum(row, table[i - 1], out=row)
            for j in range(1, len(ys)):
                first, rests = halves[j]
                best = max(row[j], row[j - 1])
                if len(first):
                    best = max(best, float((row[first] + row[rests]).max()))
                row[j] = best

    @property
    def value(self) -> float:
        return float(self.table[-1, -1])

    def _place(self, sums: NDArray[np.int64], side: int) -> int:
        """The place of the largest sum that is no more than a side."""
        return int(np.searchsorted(sums, side, side="right")) - 1

    def _halves(self, sums: NDArray[np.int64], place: int) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
        """(places of cuts up to the middle, places of what is left beyond each)."""
        first = np.arange(1, self._place(sums, int(sums[place]) // 2) + 1)
        return first, np.searchsorted(sums, sums[place] - sums[first], side="right") - 1

    def pieces(self, i: int, j: int, x: int, y: int) -> Iterator[PieceGrid]:
        """The pieces that a rectangle of the table is worth, from its corner on."""
        value = self.table[i, j]
        if value <= 0:
            return
        for number, wide, high, own in self.lies:
            if own >= value - NEAR and wide <= self.xs[i] and high <= self.ys[j]:
                yield PieceGrid(number, x, y, wide, high)
                return
        first, rests = self._halves(self.xs, i)
        for k, rest in zip(first, rests, strict=True):
            if self.table[k, j] + self.table[rest, j] >= value - NEAR:
                yield from self.pieces(int(k), j, x, y)
                yield from self.pieces(int(rest), j, x + int(self.xs[k]), y)
                return
        first, rests = self._halves(self.ys, j)
        for k, rest in zip(first, rests, strict=True):
            if self.table[i, k] + self.table[i, rest] >= value - NEAR:
                yield from self.pieces(i, int(k), x, y)
                yield from self.pieces(i, int(rest), x, y + int(self.ys[k]))
                return
        if i and self.table[i - 1, j] >= value - NEAR:
            yield from self.pieces(i - 1, j, x, y)
        elif j:
            yield from self.pieces(i, j - 1, x, y)
