"""Every piece of a book on the sheets it comes from: pieces of one material share its sheets."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Final

from pleat.core.base.words import many
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
from pleat.core.materials.sheet import (
    EMPTY_SHELF,
    CutLine,
    CutPiece,
    CutSheet,
    Remnant,
    SheetCut,
    Shelf,
    done_of,
)
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.pinned import grids_of, pieces_of, times_held
from pleat.core.pleats.cutting.record import PinnedSheet
from pleat.core.pleats.paper.stocks import Stock

ROLL_MM: Final = 200_000.0
"""How long a roll is taken to be for planning: what is missing of one that is shorter is told as a length."""


REMNANT_SHARE: Final = 0.05
"""What an offcut is worth beside a whole sheet of its size: it is paid for, and lies in the way."""


@dataclass(frozen=True)
class StockPlan:
    """All that comes out of one material: ``done`` are sheets that were cut, ``sheets`` those still to be.

    ``stocks`` are the places it serves; ``above`` is how much more it takes than is known to be needed, as a
    share: 0 is the best possible. ``lacking`` are pieces that come out of no sheet, ``places`` the stock that
    each part names and ``names`` what it is called, ``remnants`` the offcuts it may take, by their numbers
    among the materials. ``fewer`` are the sheets by which it is better than the first plan of its
    ``problem``.
    """

    stocks: tuple[Stock, ...]
    sheets: tuple[SheetCut, ...]
    above: float
    places: Mapping[str, str]
    lacking: Mapping[str, int]
    done: tuple[CutSheet, ...] = ()
    remnants: Mapping[str, Remnant] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict, repr=False)
    problem: Problem | None = field(default=None, repr=False, compare=False)
    fewer: int = 0

    @property
    def stock(self) -> Stock:
        return self.stocks[0]

    @property
    def all_sheets(self) -> tuple[SheetCut, ...]:
        """Those that were cut, and those still to be."""
        return (*(fact.sheet for fact in self.done), *self.sheets)

    @property
    def whole(self) -> tuple[SheetCut, ...]:
        """All but offcuts."""
        return tuple(sheet for sheet in self.all_sheets if not sheet.offcut)

    @property
    def needed(self) -> int:
        """Whole sheets; of a roll the pieces that are cut off it."""
        return sum(sheet.times for sheet in self.whole)

    @property
    def from_offcuts(self) -> int:
        """Offcuts that are cut on."""
        return sum(sheet.times for sheet in self.all_sheets if sheet.offcut and not sheet.other)

    @property
    def from_others(self) -> dict[str, int]:
        """Whole sheets of other materials that serve as well, by their names."""
        found: dict[str, int] = {}
        for sheet in self.all_sheets:
            if sheet.other:
                found[sheet.other] = found.get(sheet.other, 0) + sheet.times
        return found

    @property
    def amounts(self) -> tuple[str, ...]:
        """What it takes beside its own sheets, in words."""
        offcuts = (f"{many(self.from_offcuts, 'offcut')} of yours",) if self.from_offcuts else ()
        return (*offcuts, *(f"{many(count, 'sheet')} of {name}" for name, count in self.from_others.items()))

    @property
    def length_mm(self) -> float:
        """What is cut off a roll."""
        return sum(sheet.height_mm * sheet.times for sheet in self.whole)

    @property
    def by_stock(self) -> dict[str, int]:
        """The whole sheets of each stock by its key: each counts where its first piece goes. None are taken
        while a piece comes out of no sheet, for no number of them is enough."""
        counts = {stock.key: 0 for stock in self.stocks}
        if self.lacking:
            return counts
        for sheet in self.whole:
            counts[self.places.get(sheet.first_part, self.stock.key)] += sheet.times
        return counts

    def of(self, part: str) -> tuple[SheetCut, ...]:
        """The sheets that a part lies on."""
        return tuple(sheet for sheet in self.all_sheets if part in sheet.counts())

    def in_first(self, sheets: int) -> int:
        """How many pieces come out of the first so many sheets."""
        found = 0
        for sheet in self.whole:
            found += sum(piece.count for piece in sheet.pieces) * min(sheet.times, max(sheets, 0))
            sheets -= sheet.times
        return found


def sheets_of(part: str, plans: Sequence[StockPlan]) -> int:
    """How many sheets a part lies on."""
    return sum(sheet.times for plan in plans for sheet in plan.of(part))


def plan_sheets(
    cuts: Sequence[StockCut],
    rounds: int = 0,
    shelf: Shelf = EMPTY_SHELF,
    pins: Sequence[PinnedSheet] = (),
) -> tuple[StockPlan, ...]:
    """A plan for each material, in the order its first piece comes; pieces lie as ``cuts`` says. What was cut
    is not cut again, ``pins`` stay as they are, and offcuts of the ``shelf`` are cut before whole sheets. The
    first plan is made better by so many ``rounds``, as long as it is not known to be the best."""
    groups: dict[tuple[object, ...], list[StockCut]] = {}
    for cut in cuts:
        stock = cut.stock
        shared = stock.item and stock.role != "pile"  # a pile says itself which of its sheets are cut
        item = ("item", stock.item) if shared else ("key", stock.key)
        size = (stock.sheet_width_mm, stock.sheet_height_mm, stock.grain, stock.upright_only)
        groups.setdefault((item, size), []).append(cut)
    return tuple(_plan(group, rounds, shelf, pins) for group in groups.values())


def is_of(fact: CutSheet, stock: Stock) -> bool:
    """Whether a sheet that was cut is of a stock as the book has it now; by its name where it was put among
    the materials since, or taken off them."""
    if stock.role == "pile":
        return False
    if fact.of and stock.item:
        return fact.of == stock.item
    return (fact.stock, fact.material) == (stock.key, stock.name)


def left_to_cut(cut: StockCut, done: Sequence[CutSheet]) -> int:
    """How many pieces of a part are still to be cut."""
    part = cut.part
    return max(part.count - done_of(part.key, part.width_mm, part.height_mm, done), 0)


def _plan(cuts: Sequence[StockCut], rounds: int, shelf: Shelf, pins: Sequence[PinnedSheet]) -> StockPlan:
    stocks = tuple({cut.stock.key: cut.stock for cut in cuts}.values())
    first = stocks[0]
    done = tuple(fact for fact in shelf.cut if any(is_of(fact, stock) for stock in stocks))
    high = ROLL_MM if first.roll else first.sheet_height_mm
    whole = SheetSource(ticks(first.sheet_width_mm), ticks(high), 1.0, roll=first.roll)
    remnants = (*shelf.beside(first.item), *shelf.serving([stock.key for stock in stocks]))
    if first.role == "pile":
        remnants = ()
    left = {cut.part.key: left_to_cut(cut, done) for cut in cuts if cut.better.count}
    sources = [whole, *(_remnant(remnant, first, whole) for remnant in remnants)]
    numbers = ["", *(remnant.number for remnant in remnants)]
    pinned = _pinned(pins, cuts, left, dict(zip(numbers, sources, strict=True)))
    for sheet in pinned:
        place = numbers.index(sheet.offcut)
        if sources[place].count is not None:
            sources[place] = replace(sources[place], count=max((sources[place].count or 0) - sheet.times, 0))
    fitting = [cut for cut in cuts if left.get(cut.part.key)]
    problem = Problem(tuple(_demand(cut, whole, left[cut.part.key]) for cut in fitting), tuple(sources))
    packing = _packed(problem, rounds) if fitting else Packing((), (), 0.0, 0.0)
    first_plan = packing
    if shelf.better and not done and not pinned and not packing.proven:
        packing = dict(shelf.better).get(problem.key, packing)
    return StockPlan(
        stocks=stocks,
        sheets=(*pinned, *(_sheet(problem, layout, fitting, remnants) for layout in packing.layouts)),
        above=packing.cost / packing.bound - 1 if packing.bound and not packing.proven else 0.0,
        places={cut.part.key: cut.stock.key for cut in cuts},
        lacking={cut.part.key: cut.part.count for cut in cuts if not cut.better.count},
        done=done,
        remnants={remnant.number: remnant for remnant in remnants},
        names={cut.part.key: cut.part.name for cut in cuts},
        problem=problem,
        fewer=_whole_sheets(first_plan) - _whole_sheets(packing),
    )


def _pinned(
    pins: Sequence[PinnedSheet],
    cuts: Sequence[StockCut],
    left: dict[str, int],
    sources: Mapping[str, SheetSource],
) -> list[SheetCut]:
    """The pinned sheets that can still be cut; their pieces are not ``left`` to be planned."""
    found = []
    keys = {cut.stock.key for cut in cuts}
    for pin in pins:
        source = sources.get(pin.offcut)
        if pin.stock not in keys or source is None:
            continue
        high = pin.height_mm if source.roll else _mm(source.height)
        times = times_held(pin, cuts, left, (_mm(source.width), high))
        if times:
            grids = grids_of(pin, [cut.part.key for cut in cuts])
            lines, offcuts = _parted(ticks(pin.width_mm), ticks(pin.height_mm), grids)
            first = cuts[min(grid.demand for grid in grids)].part.key
            size = (pin.width_mm, pin.height_mm)
            sheet = SheetCut(times, *size, pieces_of(pin), lines, offcuts, first, pin.offcut, pinned=True)
            found.append(sheet)
            for key, count in sheet.counts().items():
                left[key] -= count * sheet.times
    return found


def _whole_sheets(packing: Packing) -> int:
    return sum(layout.times for layout in packing.layouts if layout.source == 0)


def _remnant(remnant: Remnant, stock: Stock, whole: SheetSource) -> SheetSource:
    """An offcut as it lies with its grain as that of the whole sheets; a pattern with a top stays upright."""
    width, height = remnant.width_mm, remnant.height_mm
    if remnant.grain and stock.grain and remnant.grain != stock.grain and not stock.upright_only:
        width, height = height, width
    wide, high = ticks(width), ticks(height)
    share = wide * high / (whole.width * whole.height)
    if not remnant.whole:
        price = REMNANT_SHARE * share
    elif remnant.price and stock.price:
        price = remnant.price / stock.price
    else:
        price = share
    return SheetSource(wide, high, price, remnant.count)


def _demand(cut: StockCut, source: SheetSource, count: int) -> PieceDemand:
    """The pieces of a part as they lie: a hair smaller where so many are a hair more than the sheet."""
    lay = cut.better
    return PieceDemand(
        min(ticks(lay.piece_width_mm), source.width // lay.columns),
        min(ticks(lay.piece_height_mm), source.height // lay.rows),
        count,
        may_turn=cut.free,
    )


@lru_cache(maxsize=2000)
def _packed(problem: Problem, rounds: int) -> Packing:
    """The same pieces from the same sheets are planned once."""
    first = plan(problem)
    if not rounds or first.proven:
        return first
    from pleat.core.engines.packing.improve import improve  # a solver, which only better plans need

    return improve(problem, first, rounds)


def _sheet(
    problem: Problem, layout: SheetLayout, cuts: Sequence[StockCut], remnants: Sequence[Remnant]
) -> SheetCut:
    source = problem.sources[layout.source]
    lines, offcuts = _parted(source.width, layout.length, layout.grids)
    remnant = remnants[layout.source - 1] if layout.source else None
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
                turned=cuts[piece.demand].better.turned != _is_turned(piece, problem),
                across=piece.across,
                down=piece.down,
            )
            for piece in layout.grids
        ),
        cuts=lines,
        first_part=cuts[min(piece.demand for piece in layout.grids)].part.key,
        offcuts=offcuts,
        offcut=remnant.number if remnant else "",
        other=remnant.name if remnant and remnant.whole else "",
    )


def _is_turned(piece: PieceGrid, problem: Problem) -> bool:
    """Whether pieces lie otherwise than they were asked for."""
    return piece.width != problem.demands[piece.demand].width


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
