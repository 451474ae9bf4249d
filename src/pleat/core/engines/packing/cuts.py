"""How a sheet is parted into its pieces: cuts from edge to edge in their order, and what is left whole.

A cell is a rectangle that comes off by cuts; it is a piece, a grid of equal pieces, an offcut, or is cut on
into cells side by side.
Of the ways to part a sheet that its pieces allow, the one is taken that leaves the largest offcut; of those
that do about as well the one with the fewest cuts, then the fewest settings of a fence.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final, Literal, NamedTuple

from pleat.core.engines.packing.problem import Box, PieceGrid

Axis = Literal["x", "y"]
"""Along which cells lie side by side: cuts across it are upright for ``x``."""
_PLACE: Final[dict[Axis, int]] = {"x": 0, "y": 1}
WORTH_SHARE: Final = 0.02
"""Offcuts that differ by less than this part of a sheet are as good as each other."""
APART: Final = 120
"""Pieces of a grid that are parted one by one, together with what lies beside them."""
TOGETHER: Final = 12
"""Of more pieces each row is parted by itself, though one cut could trim two of them."""


class Cell(NamedTuple):
    """A rectangle of a sheet: pieces, cells side by side along ``axis``, or an offcut. A grid of many pieces
    is not parted into cells of its own: its strips are cut across together.

    ``settings`` are the distances from the edge at which a fence is set, in ticks; ``cuts`` is how many cuts
    it takes; ``largest`` is the area of its largest offcut.
    """

    box: Box
    grid: PieceGrid | None = None
    axis: Axis = "x"
    cells: tuple[Cell, ...] = ()
    settings: frozenset[int] = frozenset()
    cuts: int = 0
    largest: int = 0

    @property
    def offcuts(self) -> tuple[Box, ...]:
        """The offcuts in it; what the kerf takes whole is none."""
        if self.grid is None and not self.cells:
            return (self.box,) if self.largest else ()
        return tuple(box for cell in self.cells for box in cell.offcuts)


def _of_grid(box: Box, grid: PieceGrid) -> Cell:
    sides = ((grid.across, grid.width), (grid.down, grid.height))
    settings = frozenset(side for count, side in sides if count > 1)
    return Cell(box, grid, settings=settings, cuts=grid.amount - 1)


def _of_cells(box: Box, axis: Axis, cells: tuple[Cell, ...]) -> Cell:
    side = 2 + _PLACE[axis]
    own = frozenset(cell.box[side] for cell in cells[:-1])
    return Cell(
        box,
        None,
        axis,
        cells,
        settings=own.union(*(cell.settings for cell in cells)),
        cuts=len(cells) - 1 + sum(cell.cuts for cell in cells),
        largest=max(cell.largest for cell in cells),
    )


def _rank(cell: Cell, step: float) -> tuple[int, int, int]:
    return -int(cell.largest / step), cell.cuts, len(cell.settings)


@dataclass(frozen=True)
class GuillotineCut:
    """A cut right through ``box``, ``fence`` ticks from its left edge (``x``) or its upper one (``y``)."""

    box: Box
    axis: Axis
    fence: int

    @property
    def length(self) -> int:
        return self.box[3 if self.axis == "x" else 2]


_Boxed = tuple[Box, PieceGrid]
"""A grid with the rectangle it takes."""
_Row = tuple[Box, tuple[_Boxed, ...]]
"""A rectangle that cuts across an axis part off, with its pieces."""


def part_sheet(box: Box, grids: Sequence[PieceGrid], kerf: int = 0) -> Cell:
    """The cells of a sheet. Raises ValueError where no cut from edge to edge parts the grids."""
    known: dict[tuple[Box, tuple[_Boxed, ...]], Cell] = {}
    step = max(box[2] * box[3] * WORTH_SHARE, 1.0)

    def parted(box: Box, own: tuple[_Boxed, ...]) -> Cell:
        if not own:
            return Cell(box, largest=box[2] * box[3])
        if len(own) == 1 and box == own[0][0]:
            return _of_grid(*own[0])
        key = (box, own)
        if key not in known:
            rows_by_axis = {axis: _side_by_side(box, own, axis, kerf) for axis in _PLACE}
            ways = [
                _of_cells(box, axis, tuple(parted(*row) for row in rows))
                for axis, rows in rows_by_axis.items()
                if len(rows) > 1
            ]
            if not ways:
                raise ValueError("no cut from edge to edge parts these pieces")
            best = min(ways, key=lambda way: _rank(way, step))
            if best.cuts > len(own) and len(own) <= TOGETHER:
                ways += [
                    _of_cells(
                        box, axis, tuple(cell for half in halves for cell in _flat(parted(*half), axis))
                    )
                    for axis, rows in rows_by_axis.items()
                    for halves in _halves(rows, _PLACE[axis])
                ]
                best = min(ways, key=lambda way: _rank(way, step))
            known[key] = best
        return known[key]

    single = [
        grid._replace(x=piece.x, y=piece.y, across=1, down=1)
        for grid in grids
        if grid.amount <= APART
        for piece in grid.pieces
    ]
    own = [*single, *(grid for grid in grids if grid.amount > APART)]
    return parted(box, tuple(sorted((grid.box, grid) for grid in own)))


def _halves(rows: Sequence[_Row], place: int) -> Iterator[tuple[_Row, _Row]]:
    """What lies side by side in two parts, in each way but those with one of it alone in both."""
    if len(rows) > 2:
        for middle in range(1, len(rows)):
            yield _together(rows[:middle], place), _together(rows[middle:], place)


def _together(rows: Sequence[_Row], place: int) -> _Row:
    """Neighbours as one: what they leave free is then cut off all of them at once."""
    first, last = rows[0][0], rows[-1][0]
    box = _slice(first, place, first[place], last[place] + last[place + 2])
    return box, tuple(sorted(boxed for _, own in rows for boxed in own))


def _flat(cell: Cell, axis: Axis) -> tuple[Cell, ...]:
    """The cells that lie side by side along an axis in a cell."""
    return cell.cells if cell.cells and cell.axis == axis else (cell,)


def _side_by_side(box: Box, grids: Sequence[_Boxed], axis: Axis, kerf: int) -> list[_Row]:
    """The rectangles that cuts across an axis part a box into, each with its pieces; those without are
    offcuts."""
    place = _PLACE[axis]
    found: list[_Row] = []
    edge, last = box[place], box[place] + box[place + 2]
    start = end = -1
    own: list[_Boxed] = []

    def close() -> None:
        """What was gathered is a rectangle, with an offcut before it where it does not begin at the edge."""
        nonlocal edge
        if start > edge:
            found.append((_slice(box, place, edge, max(start - kerf, edge)), ()))
        found.append((_slice(box, place, start, end), tuple(sorted(own))))
        edge = end + kerf

    for boxed in sorted(grids, key=lambda one: one[0][place]):
        left = boxed[0][place]
        right = left + boxed[0][place + 2]
        if own and left < end + kerf:
            end = max(end, right)
            own.append(boxed)
            continue
        if own:
            close()
        start, end, own = left, right, [boxed]
    close()
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
