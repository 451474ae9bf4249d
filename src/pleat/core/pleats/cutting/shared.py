"""Every piece of a book on the sheets it comes from: pieces of one material share its sheets."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from pleat.core.base.words import many
from pleat.core.engines.packing.cuts import GuillotineCut, cuts_of, part_sheet
from pleat.core.engines.packing.planner import plan, usable_of
from pleat.core.engines.packing.problem import (
    Packing,
    PieceDemand,
    PieceGrid,
    Problem,
    SheetLayout,
    SheetSource,
    ticks,
)
from pleat.core.engines.packing.settle import settled
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
from pleat.core.pleats.cutting.sources import in_mm, lying, remnant_source, whole_sheet
from pleat.core.pleats.paper.stocks import Stock


@dataclass(frozen=True)
class StockPlan:
    """All that comes out of one material: ``done`` are sheets that were cut, ``sheets`` those still to be.

    ``stocks`` are the places it serves; ``above`` is how much more it takes than is known to be needed, as a
    share: 0 is the best possible. ``lacking`` are pieces that come out of no sheet, ``places`` the stock that
    each part names and ``names`` what it is called, ``remnants`` the offcuts it may take, by their numbers
    among the materials; ``sources`` is all that is cut from by those numbers, "" for its own sheets.
    ``fewer`` are the sheets by which it is better than the first plan of its ``problem``.
    """

    stocks: tuple[Stock, ...]
    sheets: tuple[SheetCut, ...]
    above: float
    places: Mapping[str, str]
    lacking: Mapping[str, int]
    done: tuple[CutSheet, ...] = ()
    remnants: Mapping[str, Remnant] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict, repr=False)
    sources: Mapping[str, SheetSource] = field(default_factory=dict, repr=False, compare=False)
    problem: Problem | None = field(default=None, repr=False, compare=False)
    fewer: int = 0

    @property
    def stock(self) -> Stock:
        return self.stocks[0]

    def unusable(
        self, sheet: SheetCut
    ) -> tuple[tuple[float, float, float, float], tuple[tuple[float, float, float, float], ...]]:
        """The edges and the holes of one of its sheets that cannot be used, as it lies."""
        remnant = self.remnants.get(sheet.offcut)
        if remnant is None:
            return self.stock.margins, self.stock.windows
        own = lying(remnant, self.stock)
        return own.margins, own.windows

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
        groups.setdefault((item, size, stock.margins, stock.windows), []).append(cut)
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
    whole = whole_sheet(first)
    beside = (*shelf.beside(first.item), *shelf.serving([stock.key for stock in stocks]))
    remnants = () if first.role == "pile" else tuple({one.number: one for one in beside}.values())
    left = {cut.part.key: left_to_cut(cut, done) for cut in cuts if cut.better.count}
    sources = [whole, *(remnant_source(remnant, first, whole) for remnant in remnants)]
    there = dict(zip(("", *(remnant.number for remnant in remnants)), sources, strict=True))
    rest = dict(there)
    pinned = _pinned(pins, cuts, left, rest)
    wanted = [one for cut in cuts for one in _groups(cut, left.get(cut.part.key, 0))]
    fitting = [cut for cut, _, _ in wanted]
    demands = tuple(_demand(cut, whole, count, twins) for cut, count, twins in wanted)
    problem = Problem(demands, tuple(rest.values()))
    packing = _packed(problem, rounds) if fitting else Packing((), (), 0.0, 0.0)
    first_plan = packing
    if shelf.better and not done and not pinned and not packing.proven:
        packing = dict(shelf.better).get(problem.key, packing)
    lacking = {cut.part.key: cut.part.count for cut in cuts if not cut.better.count}
    for cut, count in zip(fitting, packing.unplaced, strict=True):
        if count:
            lacking[cut.part.key] = lacking.get(cut.part.key, 0) + count
    return StockPlan(
        stocks=stocks,
        sheets=(
            *pinned,
            *_same_together(_sheet(problem, layout, fitting, remnants) for layout in packing.layouts),
        ),
        above=packing.cost / packing.bound - 1 if packing.bound and not packing.proven else 0.0,
        places={cut.part.key: cut.stock.key for cut in cuts},
        lacking=lacking,
        done=done,
        remnants={remnant.number: remnant for remnant in remnants},
        names={cut.part.key: cut.part.name for cut in cuts},
        sources=there,
        problem=problem,
        fewer=_whole_sheets(first_plan) - _whole_sheets(packing),
    )


def _pinned(
    pins: Sequence[PinnedSheet],
    cuts: Sequence[StockCut],
    left: dict[str, int],
    sources: dict[str, SheetSource],
) -> list[SheetCut]:
    """The pinned sheets that can still be cut; their pieces are not ``left`` to be planned, nor are their
    sheets there any more."""
    found = []
    keys = {cut.stock.key for cut in cuts}
    for pin in pins:
        source = sources.get(pin.offcut)
        if pin.stock not in keys or source is None:
            continue
        times = times_held(pin, cuts, left, source)
        if times:
            grids = grids_of(pin, [cut.part.key for cut in cuts], source)
            lines, offcuts = _parted(replace(source, count=None), ticks(pin.height_mm), grids)
            first = cuts[min(grid.demand for grid in grids)].part.key
            size = (pin.width_mm, pin.height_mm)
            sheet = SheetCut(times, *size, pieces_of(pin), lines, offcuts, first, pin.offcut, pinned=True)
            found.append(sheet)
            if source.count is not None:
                sources[pin.offcut] = replace(source, count=source.count - times)
            for key, count in sheet.counts().items():
                left[key] -= count * sheet.times
    return found


def _whole_sheets(packing: Packing) -> int:
    return sum(layout.times for layout in packing.layouts if layout.source == 0)


def _groups(cut: StockCut, left: int) -> Iterator[tuple[StockCut, int, str]]:
    """The pieces of a part that are still to be cut: all together, or those that have to match by the name of
    their twins."""
    if not left or not cut.twins:
        yield from [(cut, left, "")] if left else []
        return
    for number, start in enumerate(range(0, left, cut.twins)):
        yield cut, min(cut.twins, left - start), f"{cut.part.key} {number}"


def _same_together(sheets: Iterable[SheetCut]) -> Iterator[SheetCut]:
    """Sheets of which several are cut alike as one."""
    found: dict[str, SheetCut] = {}
    for sheet in sheets:
        known = found.get(sheet.key)
        found[sheet.key] = replace(sheet, times=sheet.times + known.times) if known else sheet
    yield from found.values()


def _demand(cut: StockCut, source: SheetSource, count: int, twins: str) -> PieceDemand:
    """The pieces of a part as they lie: a hair smaller where so many are a hair more than the sheet."""
    lay = cut.better
    return PieceDemand(
        min(ticks(lay.piece_width_mm), source.usable[2] // lay.columns),
        min(ticks(lay.piece_height_mm), source.usable[3] // lay.rows),
        count,
        may_turn=cut.free,
        twins=twins,
    )


@lru_cache(maxsize=2000)
def _packed(problem: Problem, rounds: int) -> Packing:
    """The same pieces from the same sheets are planned once."""
    first = settled(problem, plan(problem))
    if not rounds or first.proven:
        return first
    from pleat.core.engines.packing.improve import improve  # a solver, which only better plans need

    return improve(problem, first, rounds)


def _sheet(
    problem: Problem, layout: SheetLayout, cuts: Sequence[StockCut], remnants: Sequence[Remnant]
) -> SheetCut:
    source = problem.sources[layout.source]
    lines, offcuts = _parted(replace(source, count=None), layout.length, layout.grids)
    remnant = remnants[layout.source - 1] if layout.source else None
    return SheetCut(
        times=layout.times,
        width_mm=in_mm(source.width),
        height_mm=in_mm(layout.length),
        pieces=tuple(
            CutPiece(
                part=cuts[piece.demand].part.key,
                x_mm=in_mm(piece.x),
                y_mm=in_mm(piece.y),
                width_mm=in_mm(piece.width),
                height_mm=in_mm(piece.height),
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
    source: SheetSource, length: int, grids: tuple[PieceGrid, ...]
) -> tuple[tuple[CutLine, ...], tuple[tuple[float, float, float, float], ...]]:
    """The cuts of a sheet and what can be used of its offcuts."""
    cell = part_sheet((0, 0, source.width, length), grids)
    lines = tuple(_line(number, cut) for number, cut in enumerate(cuts_of(cell), 1))
    offcuts = [box for offcut in cell.offcuts for box in usable_of(offcut, source, length)]
    return lines, tuple((in_mm(x), in_mm(y), in_mm(wide), in_mm(high)) for x, y, wide, high in offcuts)


def _line(number: int, cut: GuillotineCut) -> CutLine:
    x, y = cut.box[:2]
    upright = cut.axis == "x"
    return CutLine(
        number=number,
        axis="upright" if upright else "level",
        x_mm=in_mm(x + cut.fence if upright else x),
        y_mm=in_mm(y if upright else y + cut.fence),
        length_mm=in_mm(cut.length),
        fence_mm=in_mm(cut.fence),
    )
