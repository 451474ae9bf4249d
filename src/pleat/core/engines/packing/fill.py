"""One sheet filled with pieces, so that little of it is lost: a beam search over blocks of equal pieces.

A state is what is free of the sheet as rectangles that no cut has crossed, and what is left to place. A block
of equal pieces goes into the corner of the smallest free rectangle that takes something; the rest of it is
parted into two by a cut along or across. The pieces of any state are therefore cut edge to edge.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from heapq import nsmallest
from typing import Final, Literal, NamedTuple

from pleat.core.engines.packing.problem import Box, PieceDemand, PieceGrid

WIDTH: Final = 6
"""States kept of each round, where nothing else is said."""
CHOICES: Final = 14
"""Pieces that are tried in one rectangle."""
Keeps = Literal["full", "few", "even", "whole"]
"""What a search goes by: ``full`` loses little; ``few`` has few free rectangles first, ``even`` second; and
``whole`` the largest free one first."""
KEEPS: Final[tuple[Keeps, ...]] = ("full", "few", "even", "whole")
LINES: Final = 24
"""Of more rows or columns only whole grids are tried."""
_Lying = tuple[int, int, int]
"""The number of a demand, and the width and height of its piece one way round."""


class _SmallestPieces(NamedTuple):
    """What says whether a rectangle takes any piece that is left: for each of ``widths``, which ascend, the
    least of the ``heights`` of all pieces that are no wider; ``demands`` are those whose pieces these are."""

    widths: tuple[int, ...]
    heights: tuple[int, ...]
    demands: frozenset[int]

    def fit(self, box: Box) -> bool:
        at = bisect_right(self.widths, box[2]) - 1
        return at >= 0 and self.heights[at] <= box[3]


def _smallest(lies: Sequence[_Lying], left: Sequence[int]) -> _SmallestPieces:
    """Of pieces that are left, the ways they lie by ascending width and height."""
    stair: list[_Lying] = []
    for number, wide, high in lies:
        if left[number] and (not stair or high < stair[-1][2]):
            stair.append((number, wide, high))
    return _SmallestPieces(
        tuple(wide for _, wide, _ in stair),
        tuple(high for _, _, high in stair),
        frozenset(number for number, _, _ in stair),
    )


class _BeamState(NamedTuple):
    lost: int
    free: tuple[Box, ...]
    left: tuple[int, ...]
    smallest: _SmallestPieces
    blocks: tuple[PieceGrid, ...]
    value: float


@dataclass(frozen=True)
class FilledSheet:
    """A filled sheet: its grids, what each demand has on it, their value, and what is free."""

    grids: tuple[PieceGrid, ...]
    counts: tuple[int, ...]
    value: float
    free: tuple[Box, ...]

    @property
    def largest(self) -> int:
        """The area of the largest free rectangle."""
        return max((wide * high for _, _, wide, high in self.free), default=0)


def fill(
    free: Sequence[Box],
    demands: Sequence[PieceDemand],
    left: Sequence[int],
    values: Sequence[float],
    width: int = WIDTH,
) -> FilledSheet | None:
    """The best filling found of the ``free`` rectangles of a sheet by ``left`` pieces of each demand, each
    worth its value; of equal ones the one that leaves the largest rectangle whole. None where nothing fits.

    The same input gives the same filling.
    """
    return next(iter(fillings(free, demands, left, values, width, 1)), None)


def fillings(
    free: Sequence[Box],
    demands: Sequence[PieceDemand],
    left: Sequence[int],
    values: Sequence[float],
    width: int = WIDTH,
    most: int = 40,
    *,
    keep: Keeps = "full",
) -> list[FilledSheet]:
    """The best fillings that were found, at most one for the same pieces, the best first; the search goes by
    what it is to ``keep``."""
    promise, rank = _PROMISES[keep], _few_first if keep == "few" else _rank
    lies = [way for number, demand in enumerate(demands) if left[number] for way in _ways(number, demand)]
    narrow_first = sorted(lies, key=lambda lying: (lying[1], lying[2]))
    beam = [_BeamState(0, tuple(free), tuple(left), _smallest(narrow_first, left), (), 0.0)]
    ends: dict[tuple[int, ...], _BeamState] = {}
    while beam:
        reached: dict[tuple[tuple[Box, ...], tuple[int, ...]], _BeamState] = {}
        for state in beam:
            grown = False
            for further in _grow(state, lies, narrow_first, values):
                grown = True
                key = (further.free, further.left)
                known = reached.get(key)
                if known is None or further.lost < known.lost:
                    reached[key] = further
            if not grown and state.blocks:
                end = ends.get(state.left)
                if end is None or rank(state) < rank(end):
                    ends[state.left] = state
        beam = sorted(reached.values(), key=promise)[:width]
    return [
        FilledSheet(
            state.blocks,
            tuple(before - after for before, after in zip(left, state.left, strict=True)),
            state.value,
            state.free,
        )
        for state in nsmallest(most, ends.values(), key=rank)
    ]


def _ways(number: int, demand: PieceDemand) -> tuple[_Lying, ...]:
    """The ways a piece may lie."""
    upright, turned = (number, demand.width, demand.height), (number, demand.height, demand.width)
    return (upright, turned) if demand.may_turn and demand.width != demand.height else (upright,)


def _rank(state: _BeamState) -> tuple[float, int]:
    """The most valuable first; of equal ones that with the largest free rectangle."""
    return -state.value, -max((wide * high for _, _, wide, high in state.free), default=0)


def _promise(state: _BeamState) -> tuple[float, float, int]:
    """The state that lost the least for what it placed first, and of equal ones that with the largest free
    rectangle."""
    return (
        state.lost / (state.value + state.lost + 1.0),
        -state.value,
        -max((wide * high for _, _, wide, high in state.free), default=0),
    )


def _few_first(state: _BeamState) -> tuple[float, int, float]:
    return -state.value, len(state.free), _rank(state)[1]


def _few(state: _BeamState) -> tuple[float, ...]:
    return (len(state.free), *_promise(state))


def _even(state: _BeamState) -> tuple[float, ...]:
    lost, value, _ = _promise(state)
    return lost, len(state.free), value


def _whole(state: _BeamState) -> tuple[float, ...]:
    lost, value, largest = _promise(state)
    return largest, lost, value


_PROMISES: Final[dict[Keeps, Callable[[_BeamState], tuple[float, ...]]]] = {
    "full": _promise,
    "few": _few,
    "even": _even,
    "whole": _whole,
}


def _grow(
    state: _BeamState, lies: Sequence[_Lying], narrow_first: Sequence[_Lying], values: Sequence[float]
) -> Iterator[_BeamState]:
    """Every block that goes into the smallest free rectangle that takes anything, parted both ways."""
    place = next((place for place, box in enumerate(state.free) if state.smallest.fit(box)), None)
    if place is None:
        return
    x, y, wide, high = state.free[place]
    others = state.free[:place] + state.free[place + 1 :]
    for number, piece_wide, piece_high in _choices(wide, high, state.left, lies):
        for across, down in _grids(wide // piece_wide, high // piece_high, state.left[number]):
            block = PieceGrid(number, x, y, piece_wide, piece_high, across, down)
            after = list(state.left)
            after[number] -= across * down
            smallest = state.smallest
            if not after[number] and number in smallest.demands:
                smallest = _smallest(narrow_first, after)
            value = state.value + values[number] * across * down
            for parted in _parted(x, y, wide, high, across * piece_wide, down * piece_high):
                free, lost = _kept(others, parted, smallest)
                blocks = (*state.blocks, block)
                yield _BeamState(state.lost + lost, free, tuple(after), smallest, blocks, value)


def _choices(wide: int, high: int, left: Sequence[int], lies: Sequence[_Lying]) -> Sequence[_Lying]:
    """The pieces that a rectangle takes; of very many those that fill a side of it, and the largest."""
    fitting = [one for one in lies if left[one[0]] and one[1] <= wide and one[2] <= high]
    if len(fitting) <= CHOICES:
        return fitting
    return nsmallest(
        CHOICES, fitting, key=lambda one: (one[1] != wide and one[2] != high, -one[1] * one[2], one)
    )


def _grids(columns: int, rows: int, count: int) -> list[tuple[int, int]]:
    """Grids of at most so many pieces: as many whole rows and columns as there are pieces for; and where a
    rectangle takes no more than a few, a row, a column, and one piece alone."""
    across, down = min(columns, count), min(rows, count)
    grids = {(across, min(rows, count // across)), (min(columns, count // down), down)}
    if rows <= LINES:
        grids.add((across, 1))
    if columns <= LINES:
        grids.add((1, down))
    if rows <= LINES and columns <= LINES:
        grids.add((1, 1))
    return sorted(grids, reverse=True)


def _parted(x: int, y: int, wide: int, high: int, block_wide: int, block_high: int) -> list[tuple[Box, ...]]:
    """What is left of a rectangle beside and below a block in its corner, cut along first or across first."""
    right, below = wide - block_wide, high - block_high
    if not right and not below:
        return [()]
    if not right:
        return [((x, y + block_high, wide, below),)]
    if not below:
        return [((x + block_wide, y, right, high),)]
    return [
        ((x + block_wide, y, right, high), (x, y + block_high, block_wide, below)),
        ((x + block_wide, y, right, block_high), (x, y + block_high, wide, below)),
    ]


def _kept(
    others: tuple[Box, ...], parted: tuple[Box, ...], smallest: _SmallestPieces
) -> tuple[tuple[Box, ...], int]:
    """The free rectangles from the smallest on, and the area of the new ones that take nothing any more."""
    lost = sum(box[2] * box[3] for box in parted if not smallest.fit(box))
    free = sorted((*others, *parted), key=lambda box: (box[2] * box[3], box))
    return tuple(free), lost
