"""One sheet filled with pieces, so that little of it is lost: a beam search over blocks of equal pieces.

A state is what is free of the sheet as rectangles that no cut has crossed, and what is left to place. A block
of equal pieces goes into the corner of the smallest free rectangle that takes something; the rest of it is
parted into two by a cut along or across. The pieces of any state are therefore cut edge to edge.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final, NamedTuple

from pleat.core.engines.packing.problem import Box, PieceDemand, PieceGrid

WIDTH: Final = 6
"""States kept of each round, where nothing else is said."""


class _BeamState(NamedTuple):
    lost: int
    free: tuple[Box, ...]
    left: tuple[int, ...]
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
    lies = [_ways(demand) for demand in demands]
    beam = [_BeamState(0, tuple(free), tuple(left), (), 0.0)]
    best: _BeamState | None = None
    while beam:
        reached: dict[tuple[tuple[Box, ...], tuple[int, ...]], _BeamState] = {}
        for state in beam:
            grown = False
            for further in _grow(state, lies, values):
                grown = True
                key = (further.free, further.left)
                known = reached.get(key)
                if known is None or further.lost < known.lost:
                    reached[key] = further
            if not grown and state.blocks and (best is None or _rank(state) < _rank(best)):
                best = state
        beam = sorted(reached.values(), key=_promise)[:width]
    if best is None:
        return None
    counts = [before - after for before, after in zip(left, best.left, strict=True)]
    return FilledSheet(best.blocks, tuple(counts), best.value, best.free)


def _ways(demand: PieceDemand) -> tuple[tuple[int, int], ...]:
    """The sizes a piece may lie in."""
    upright = (demand.width, demand.height)
    return (upright, upright[::-1]) if demand.may_turn and demand.width != demand.height else (upright,)


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


def _grow(
    state: _BeamState, lies: Sequence[tuple[tuple[int, int], ...]], values: Sequence[float]
) -> Iterator[_BeamState]:
    """Every block that goes into the smallest free rectangle that takes anything, parted both ways."""
    fitting = None
    for place, box in enumerate(state.free):
        if any(
            count and any(wide <= box[2] and high <= box[3] for wide, high in ways)
            for count, ways in zip(state.left, lies, strict=True)
        ):
            fitting = place
            break
    if fitting is None:
        return
    x, y, wide, high = state.free[fitting]
    others = state.free[:fitting] + state.free[fitting + 1 :]
    for number, (count, ways) in enumerate(zip(state.left, lies, strict=True)):
        if not count:
            continue
        for piece_wide, piece_high in ways:
            columns, rows = wide // piece_wide, high // piece_high
            if not columns or not rows:
                continue
            for across, down in _grids(columns, rows, count):
                block = PieceGrid(number, x, y, piece_wide, piece_high, across, down)
                after = list(state.left)
                after[number] -= across * down
                value = state.value + values[number] * across * down
                for parted in _parted(x, y, wide, high, across * piece_wide, down * piece_high):
                    free, lost = _kept(others, parted, after, lies)
                    yield _BeamState(state.lost + lost, free, tuple(after), (*state.blocks, block), value)


def _grids(columns: int, rows: int, count: int) -> list[tuple[int, int]]:
    """Grids of at most so many pieces: one alone, a row, a column, and as many whole rows and columns as
    there are pieces for."""
    across, down = min(columns, count), min(rows, count)
    grids = {
        (1, 1),
        (across, 1),
        (1, down),
        (across, min(rows, count // across)),
        (min(columns, count // down), down),
    }
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
    others: tuple[Box, ...],
    parted: tuple[Box, ...],
    left: Sequence[int],
    lies: Sequence[tuple[tuple[int, int], ...]],
) -> tuple[tuple[Box, ...], int]:
    """The free rectangles from the smallest on, and the area of the new ones that take nothing any more."""
    lost = 0
    for box in parted:
        if not any(
            count and any(wide <= box[2] and high <= box[3] for wide, high in ways)
            for count, ways in zip(left, lies, strict=True)
        ):
            lost += box[2] * box[3]
    free = sorted((*others, *parted), key=lambda box: (box[2] * box[3], box))
    return tuple(free), lost
