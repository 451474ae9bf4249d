"""What is to be cut out of what, and what came of it.

Lengths are whole ticks, so that millimetres and sixteenths of an inch are exact and a sum of lengths is
either the sheet or it is not. A piece may be turned where its demand allows it. Cuts go from edge to edge of
what is being cut (guillotine cuts).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from hashlib import blake2b
from typing import Final, NamedTuple

TICKS_PER_MM: Final = 10_000
"""A sixteenth of an inch is 15,875 ticks."""

Box = tuple[int, int, int, int]
"""(x, y, width, height) in ticks; x to the right, y down from the corner of the sheet."""


def ticks(mm: float) -> int:
    """A length as whole ticks, to the nearest."""
    return round(mm * TICKS_PER_MM)


def overlap(one: Box, other: Box) -> bool:
    """Whether two rectangles have more than an edge in common."""
    return (
        one[0] < other[0] + other[2]
        and other[0] < one[0] + one[2]
        and one[1] < other[1] + other[3]
        and other[1] < one[1] + one[3]
    )


@dataclass(frozen=True, slots=True)
class PieceDemand:
    """``count`` equal pieces. Those of demands with one name in ``twins`` all come from one sheet."""

    width: int
    height: int
    count: int
    may_turn: bool = False
    twins: str = ""

    @property
    def area(self) -> int:
        return self.width * self.height


@dataclass(frozen=True)
class SheetSource:
    """Equal sheets to cut from, at a price each; ``count`` is how many there are (None: as many as it takes).

    Of a ``roll`` the width lies across, the height is the length that is there, and the price is that of the
    whole length: what is cut off is paid for by its share. ``margins`` (left, top, right, bottom) cannot be
    used, nor can what is ``blocked``, though a cut may run through it.
    """

    width: int
    height: int
    price: float
    count: int | None = None
    roll: bool = False
    margins: tuple[int, int, int, int] = (0, 0, 0, 0)
    blocked: tuple[Box, ...] = ()

    @cached_property
    def usable(self) -> Box:
        left, top, right, bottom = self.margins
        return left, top, max(self.width - left - right, 0), max(self.height - top - bottom, 0)

    @property
    def area(self) -> int:
        return self.usable[2] * self.usable[3]


@dataclass(frozen=True)
class Problem:
    """Demands and sources; ``kerf`` is lost at every cut."""

    demands: tuple[PieceDemand, ...]
    sources: tuple[SheetSource, ...]
    kerf: int = 0

    @property
    def key(self) -> str:
        """What tells it from every other problem."""
        return blake2b(repr((self.demands, self.sources, self.kerf)).encode(), digest_size=20).hexdigest()


@dataclass(frozen=True, slots=True, order=True)
class PlacedPiece:
    """A piece where it lies on its sheet, as wide and high as it lies there; ``demand`` is its number."""

    y: int
    x: int
    width: int
    height: int
    demand: int


class PieceGrid(NamedTuple):
    """Equal pieces in rows and columns: the corner of the first, the size of one as it lies, how many across
    and down, and what is lost between two."""

    demand: int
    x: int
    y: int
    width: int
    height: int
    across: int = 1
    down: int = 1
    gap: int = 0

    @property
    def amount(self) -> int:
        return self.across * self.down

    @property
    def box(self) -> Box:
        wide = self.across * (self.width + self.gap) - self.gap
        return self.x, self.y, wide, self.down * (self.height + self.gap) - self.gap

    @property
    def pieces(self) -> tuple[PlacedPiece, ...]:
        return tuple(
            PlacedPiece(
                self.y + row * (self.height + self.gap),
                self.x + column * (self.width + self.gap),
                self.width,
                self.height,
                self.demand,
            )
            for row in range(self.down)
            for column in range(self.across)
        )


@dataclass(frozen=True)
class SheetLayout:
    """One sheet of a source with its pieces; ``times`` equal sheets are cut so. ``length`` is what is cut off
    a roll, and the height of a sheet."""

    source: int
    grids: tuple[PieceGrid, ...]
    length: int
    times: int = 1

    @property
    def placed(self) -> tuple[PlacedPiece, ...]:
        """Every piece by itself; of rolls and large sheets that may be very many."""
        return tuple(sorted(piece for grid in self.grids for piece in grid.pieces))

    def counts(self, demands: int) -> list[int]:
        """How many pieces of each demand lie on one such sheet."""
        counts = [0] * demands
        for grid in self.grids:
            counts[grid.demand] += grid.amount
        return counts


@dataclass(frozen=True)
class Packing:
    """The sheets of a plan; ``unplaced`` are the pieces of each demand that found no sheet, ``bound`` is a
    cost below which no plan can be that places as many."""

    layouts: tuple[SheetLayout, ...]
    unplaced: tuple[int, ...]
    cost: float
    bound: float

    @property
    def complete(self) -> bool:
        return not any(self.unplaced)

    @property
    def proven(self) -> bool:
        """Whether no plan is cheaper."""
        return self.complete and self.cost <= self.bound * (1 + 1e-9) + 1e-9


def cost_of(problem: Problem, layouts: Sequence[SheetLayout]) -> float:
    """What the sheets of a plan cost; a roll by the length that is cut off it."""
    total = 0.0
    for layout in layouts:
        source = problem.sources[layout.source]
        share = layout.length / source.height if source.roll else 1.0
        total += source.price * share * layout.times
    return total
