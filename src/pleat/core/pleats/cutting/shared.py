"""Every piece of a book on the sheets it comes from: pieces of one material share its sheets."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

from pleat.core.engines.packing.cuts import GuillotineCut, cuts_of, part_sheet
from pleat.core.engines.packing.planner import plan
from pleat.core.engines.packing.problem import (
    TICKS_PER_MM,
    Packing,
    PieceDemand,
    PieceGrid,
    Problem,
    SheetLayout,
    SheetSource,
    ticks,
)
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.paper.stocks import Stock

ROLL_MM: Final = 200_000.0
"""How long a roll is taken to be for planning: what is missing of one that is shorter is told as a length."""


@dataclass(frozen=True)
class CutPiece:
    """Equal pieces side by side, ``across`` and ``down``, where the first of them lies on a sheet, in mm from
    its left upper corner; ``part`` is the key of their part."""

    part: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    turned: bool
    across: int = 1
    down: int = 1

    @property
    def count(self) -> int:
        return self.across * self.down


@dataclass(frozen=True)
class CutLine:
    """A cut from edge to edge of what is there, ``fence_mm`` from the left edge of that (upright) or from its
    upper edge (level); cuts are made in the order of their numbers."""

    number: int
    axis: Literal["upright", "level"]
    x_mm: float
    y_mm: float
    length_mm: float
    fence_mm: float


@dataclass(frozen=True)
class SheetCut:
    """Equal sheets, ``times`` of them, that are cut in one way; of a roll the ``height_mm`` that is cut off.
    ``offcuts`` are (x, y, width, height) in mm."""

    times: int
    width_mm: float
    height_mm: float
    pieces: tuple[CutPiece, ...]
    cuts: tuple[CutLine, ...]
    offcuts: tuple[tuple[float, float, float, float], ...]
    first_part: str


@dataclass(frozen=True)
class StockPlan:
    """All that comes out of one material. ``stocks`` are the places it serves; ``above`` is how much more it
    takes than is known to be needed, as a share: 0 is the best possible. ``lacking`` are pieces that come out
    of no sheet, ``places`` the stock that
    each part names."""

    stocks: tuple[Stock, ...]
    sheets: tuple[SheetCut, ...]
    above: float
    places: Mapping[str, str]
    lacking: Mapping[str, int]

    @property
    def stock(self) -> Stock:
        return self.stocks[0]

    @property
    def needed(self) -> int:
        """Sheets; of a roll the pieces that are cut off it."""
        return sum(sheet.times for sheet in self.sheets)

    @property
    def length_mm(self) -> float:
        """What is cut off a roll."""
        return sum(sheet.height_mm * sheet.times for sheet in self.sheets)

    @property
    def by_stock(self) -> dict[str, int]:
        """The sheets of each stock by its key: each counts where its first piece goes. None are taken while a
        piece comes out of no sheet, for no number of them is enough."""
        counts = {stock.key: 0 for stock in self.stocks}
        if self.lacking:
            return counts
        for sheet in self.sheets:
            counts[self.places[sheet.first_part]] += sheet.times
        return counts

    def of(self, part: str) -> tuple[SheetCut, ...]:
        """The sheets that a part lies on."""
        return tuple(sheet for sheet in self.sheets if any(piece.part == part for piece in sheet.pieces))

    def in_first(self, sheets: int) -> int:
        """How many pieces come out of the first so many sheets."""
        found = 0
        for sheet in self.sheets:
            found += sum(piece.count for piece in sheet.pieces) * min(sheet.times, max(sheets, 0))
            sheets -= sheet.times
        return found


def sheets_of(part: str, plans: Sequence[StockPlan]) -> int:
    """How many sheets a part lies on."""
    return sum(sheet.times for plan in plans for sheet in plan.of(part))


def longest_cut_mm(sheets: Sequence[SheetCut]) -> float:
    return max((cut.length_mm for sheet in sheets for cut in sheet.cuts), default=0.0)


def plan_sheets(cuts: Sequence[StockCut], rounds: int = 0) -> tuple[StockPlan, ...]:
    """A plan for each material, in the order its first piece comes; pieces lie as ``cuts`` says. The first
    plan is made better by so many ``rounds``, as long as it is not known to be the best."""
    groups: dict[tuple[object, ...], list[StockCut]] = {}
    for cut in cuts:
        stock = cut.stock
        shared = stock.item and stock.role != "pile"  # a pile says itself which of its sheets are cut
        item = ("item", stock.item) if shared else ("key", stock.key)
        size = (stock.sheet_width_mm, stock.sheet_height_mm, stock.grain, stock.upright_only)
        groups.setdefault((item, size), []).append(cut)
    return tuple(_plan(group, rounds) for group in groups.values())


def _plan(cuts: Sequence[StockCut], rounds: int) -> StockPlan:
    stocks = tuple({cut.stock.key: cut.stock for cut in cuts}.values())
    first, fitting = stocks[0], [cut for cut in cuts if cut.better.count]
    high = ROLL_MM if first.roll else first.sheet_height_mm
    source = SheetSource(ticks(first.sheet_width_mm), ticks(high), 1.0, roll=first.roll)
    problem = Problem(tuple(_demand(cut, source) for cut in fitting), (source,))
    packing = _packed(problem, rounds) if fitting else Packing((), (), 0.0, 0.0)
    return StockPlan(
        stocks=stocks,
        sheets=tuple(_sheet(problem, layout, fitting) for layout in packing.layouts),
        above=packing.cost / packing.bound - 1 if packing.bound and not packing.proven else 0.0,
        places={cut.part.key: cut.stock.key for cut in cuts},
        lacking={cut.part.key: cut.part.count for cut in cuts if not cut.better.count},
    )


def _demand(cut: StockCut, source: SheetSource) -> PieceDemand:
    """The pieces of a part as they lie: a hair smaller where so many are a hair more than the sheet."""
    lay = cut.better
    return PieceDemand(
        min(ticks(lay.piece_width_mm), source.width // lay.columns),
        min(ticks(lay.piece_height_mm), source.height // lay.rows),
        cut.part.count,
    )


@lru_cache(maxsize=2000)
def _packed(problem: Problem, rounds: int) -> Packing:
    """The same pieces from the same sheets are planned once."""
    first = plan(problem)
    if not rounds or first.proven:
        return first
    from pleat.core.engines.packing.improve import improve  # a solver, which only better plans need

    return improve(problem, first, rounds)


def _sheet(problem: Problem, layout: SheetLayout, cuts: Sequence[StockCut]) -> SheetCut:
    source = problem.sources[layout.source]
    lines, offcuts = _parted(source.width, layout.length, layout.grids)
    return SheetCut(
        times=layout.times,
        width_mm=_mm(source.width),
        height_mm=_mm(layout.length),
        pieces=tuple(
            CutPiece(
                part=cuts[piece.demand].part.key,
                x_mm=_mm(piece.x),
                y_mm=_mm(piece.y),
                width_mm=_mm(piece.width),
                height_mm=_mm(piece.height),
                turned=cuts[piece.demand].better.turned,
                across=piece.across,
                down=piece.down,
            )
            for piece in layout.grids
        ),
        cuts=lines,
        first_part=cuts[min(piece.demand for piece in layout.grids)].part.key,
        offcuts=offcuts,
    )


@lru_cache(maxsize=2000)
def _parted(
    width: int, length: int, grids: tuple[PieceGrid, ...]
) -> tuple[tuple[CutLine, ...], tuple[tuple[float, float, float, float], ...]]:
    """The cuts of a sheet and its offcuts."""
    cell = part_sheet((0, 0, width, length), grids)
    lines = tuple(_line(number, cut) for number, cut in enumerate(cuts_of(cell), 1))
    return lines, tuple((_mm(x), _mm(y), _mm(wide), _mm(high)) for x, y, wide, high in cell.offcuts)


def _line(number: int, cut: GuillotineCut) -> CutLine:
    x, y = cut.box[:2]
    upright = cut.axis == "x"
    return CutLine(
        number=number,
        axis="upright" if upright else "level",
        x_mm=_mm(x + cut.fence if upright else x),
        y_mm=_mm(y if upright else y + cut.fence),
        length_mm=_mm(cut.length),
        fence_mm=_mm(cut.fence),
    )


def _mm(length: int) -> float:
    return length / TICKS_PER_MM
