"""How a sheet is parted into its pieces: cuts from edge to edge in their order, and what is left whole.

A cell is a rectangle that comes off by cuts; it is a piece, a grid of equal pieces, an offcut, or is cut on
into cells side by side.
Of the ways to part a sheet that its pieces allow, the one is taken that leaves the largest offcut; of equal
ones that with the fewest settings of a fence, then the fewest cuts.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final, Literal

from pleat.core.engines.packing.problem import Box, PieceGrid

Axis = Literal["x", "y"]
"""Along which cells lie side by side: cuts across it are upright for ``x``."""
_PLACE: Final[dict[Axis, int]] = {"x": 0, "y": 1}
APART: Final = 120
"""Pieces of a grid that are parted one by one, together with what lies beside them."""


@dataclass(frozen=True)
class Cell:
    """A rectangle of a sheet: pieces, cells side by side along ``axis``, or an offcut. A grid of many pieces
    is not parted into cells of its own: its strips are cut across together."""

    box: Box
    grid: PieceGrid | None = None
    axis: Axis = "x"
    cells: tuple[Cell, ...] = ()

    @property
    def is_offcut(self) -> bool:
        return self.grid is None and not self.cells

    @cached_property
    def offcuts(self) -> tuple[Box, ...]:
        """The offcuts in it; what the kerf takes whole is none."""
        if self.is_offcut:
            return (self.box,) if self.box[2] and self.box[3] else ()
        return tuple(box for cell in self.cells for box in cell.offcuts)

    @cached_property
    def settings(self) -> frozenset[int]:
        """The distances from the edge at which a fence is set, in ticks."""
        own = {cell.box[2 + _PLACE[self.axis]] for cell in self.cells[:-1]}
        if self.grid and self.grid.across > 1:
            own.add(self.grid.width)
        if self.grid and self.grid.down > 1:
            own.add(self.grid.height)
        return frozenset(own).union(*(cell.settings for cell in self.cells))

    @cached_property
    def cuts(self) -> int:
        """How many cuts it takes."""
        own = self.grid.amount - 1 if self.grid else max(len(self.cells) - 1, 0)
        return own + sum(cell.cuts for cell in self.cells)

    @property
    def _rank(self) -> tuple[int, int, int]:
        largest = max((box[2] * box[3] for box in self.offcuts), default=0)
        return -largest, len(self.settings), self.cuts


@dataclass(frozen=True)
class GuillotineCut:
    """A cut right through ``box``, ``fence`` ticks from its left edge (``x``) or its upper one (``y``)."""

    box: Box
    axis: Axis
    fence: int

    @property
    def length(self) -> int:
        return self.box[3 if self.axis == "x" else 2]


def part_sheet(box: Box, grids: Sequence[PieceGrid], kerf: int = 0) -> Cell:
    """The cells of a sheet. Raises ValueError where no cut from edge to edge parts the grids."""
    known: dict[tuple[Box, tuple[PieceGrid, ...]], Cell] = {}

    def parted(box: Box, own: tuple[PieceGrid, ...]) -> Cell:
        key = (box, own)
        if key not in known:
            known[key] = _parted(box, own)
        return known[key]

    def _parted(box: Box, own: tuple[PieceGrid, ...]) -> Cell:
        if not own:
            return Cell(box)
        (first, *others) = own
        if not others and box == first.box:
            return Cell(box, first)
        ways = []
        for axis in _PLACE:
            rows = _side_by_side(box, own, axis, kerf)
            if len(rows) > 1:
                ways.append(Cell(box, None, axis, tuple(parted(*row) for row in rows)))
        if not ways:
            raise ValueError("no cut from edge to edge parts these pieces")
        return min(ways, key=lambda cell: cell._rank)

    single = [
        grid._replace(x=piece.x, y=piece.y, across=1, down=1)
        for grid in grids
        if grid.amount <= APART
        for piece in grid.pieces
    ]
    return parted(box, tuple(sorted([*single, *(grid for grid in grids if grid.amount > APART)])))


def _side_by_side(
    box: Box, grids: Sequence[PieceGrid], axis: Axis, kerf: int
) -> list[tuple[Box, tuple[PieceGrid, ...]]]:
    """The rectangles that cuts across an axis part a box into, each with its pieces; those without are
    offcuts."""
    place = _PLACE[axis]
    rows: list[tuple[int, int, list[PieceGrid]]] = []
    for grid in sorted(grids, key=lambda one: one.box[place]):
        start = grid.box[place]
        end = start + grid.box[place + 2]
        if rows and start < rows[-1][1] + kerf:
            rows[-1] = (rows[-1][0], max(rows[-1][1], end), [*rows[-1][2], grid])
        else:
            rows.append((start, end, [grid]))
    found: list[tuple[Box, tuple[PieceGrid, ...]]] = []
    edge, last = box[place], box[place] + box[place + 2]
    for start, end, own in rows:
        if start > edge:
            found.append((_slice(box, place, edge, max(start - kerf, edge)), ()))
        found.append((_slice(box, place, start, end), tuple(sorted(own))))
        edge = end + kerf
    if edge - kerf < last:
        found.append((_slice(box, place, min(edge, last), last), ()))
    return found


def _slice(box: Box, place: int, start: int, end: int) -> Box:
    if place == 0:
        return start, box[1], end - start, box[3]
    return box[0], start, box[2], end - start


def cuts_of(cell: Cell) -> tuple[GuillotineCut, ...]:
    """Every cut in an order that works: what lies side by side is parted first, then each of it by itself.
    The strips of a large grid are cut across together."""
    if cell.grid:
        return tuple(_grid_cuts(cell.grid))
    place = _PLACE[cell.axis]
    found = []
    rest = cell.box
    for part in cell.cells[:-1]:
        found.append(GuillotineCut(rest, cell.axis, part.box[place] + part.box[place + 2] - rest[place]))
        edge = part.box[place] + part.box[place + 2]
        rest = _slice(rest, place, edge, rest[place] + rest[place + 2])
    return (*found, *(cut for part in cell.cells for cut in cuts_of(part)))


def _grid_cuts(grid: PieceGrid) -> Iterator[GuillotineCut]:
    x, y, wide, high = grid.box
    for column in range(grid.across - 1):
        gone = column * (grid.width + grid.gap)
        yield GuillotineCut((x + gone, y, wide - gone, high), "x", grid.width)
    for row in range(grid.down - 1):
        gone = row * (grid.height + grid.gap)
        yield GuillotineCut((x, y + gone, wide, high - gone), "y", grid.height)
