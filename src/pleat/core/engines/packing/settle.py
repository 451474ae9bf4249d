"""Of plans at one cost the one that leaves the most whole, then with few cuts and few settings of a fence.

Each sheet is filled anew with the pieces it has, by searches that keep what is free together, and within the
narrowest strip of it; and a plan of a few sheets anew, each of them in turn getting what the others leave.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from pleat.core.engines.packing.cuts import WORTH_SHARE, Cell, part_sheet
from pleat.core.engines.packing.fill import KEEPS, FilledSheet, Keeps, fillings
from pleat.core.engines.packing.planner import free_of, lengths_of, shrunk
from pleat.core.engines.packing.problem import Box, Packing, PieceDemand, Problem, SheetLayout

MOST_ALIKE: Final = 60
"""Pieces of a sheet that is filled anew."""


@dataclass(frozen=True)
class Care:
    """``states`` of a sheet that are kept beside each other, what they ``keep``, whether ``all_sheets`` are
    filled anew or the one with most room alone, and up to how many a plan is made anew."""

    states: int = 6
    keep: tuple[Keeps, ...] = ("few",)
    all_sheets: bool = False
    sheets: int = 2


QUICK: Final = Care()
THOROUGH: Final = Care(8, KEEPS, all_sheets=True, sheets=4)


def settled(problem: Problem, packing: Packing, care: Care = QUICK) -> Packing:
    """A plan of the same sheets, and so at the same cost; the plan itself where none is better."""
    if not packing.layouts or not packing.complete:
        return packing
    settler = _Settler(problem, care)
    best = settler.each_anew(packing.layouts)
    for layouts in settler.plans_anew(packing.layouts):
        other = settler.each_anew(layouts)
        if settler.rank(other) < settler.rank(best):
            best = other
    return replace(packing, layouts=best)


class _Settler:
    def __init__(self, problem: Problem, care: Care) -> None:
        self.problem, self.care, kerf = problem, care, problem.kerf
        self.demands = [
            replace(demand, width=demand.width + kerf, height=demand.height + kerf)
            for demand in problem.demands
        ]
        self.areas = [float(demand.area) for demand in self.demands]
        self.step = max(source.area for source in problem.sources) * WORTH_SHARE
        self.cells: dict[SheetLayout, Cell] = {}

    def rank(self, layouts: Sequence[SheetLayout]) -> tuple[int, int, int]:
        """The largest offcut as so many steps of a sheet, the cuts, and the settings: the less the better."""
        cells = [self._cell(layout) for layout in layouts]
        settings = len(frozenset().union(*(cell.settings for cell in cells)))
        cuts = sum(cell.cuts * layout.times for cell, layout in zip(cells, layouts, strict=True))
        return -int(max(cell.largest for cell in cells) / self.step), cuts, settings

    def _cell(self, layout: SheetLayout) -> Cell:
        if layout not in self.cells:
            box = (0, 0, self.problem.sources[layout.source].width, layout.length)
            self.cells[layout] = part_sheet(box, layout.grids, self.problem.kerf)
        return self.cells[layout]

    def each_anew(self, layouts: Sequence[SheetLayout]) -> tuple[SheetLayout, ...]:
        """The sheets, each with its own pieces laid as well as can be found."""
        roomy = max(layouts, key=lambda layout: self._cell(layout).largest)
        return tuple(
            self._anew(layout) if self.care.all_sheets or layout is roomy else layout for layout in layouts
        )

    def _anew(self, layout: SheetLayout) -> SheetLayout:
        counts = tuple(layout.counts(len(self.demands)))
        if sum(counts) > MOST_ALIKE:
            return layout
        free = self._free(layout)
        ways = [way for one in free for keep in self.care.keep for way in self._fillings(one, counts, keep)]
        if len(free) == 1 and len(free[0]) == 1:
            ways += self._strips(free[0][0], counts)
        found = [
            replace(layout, grids=shrunk(way.grids, self.problem.kerf))
            for way in ways
            if way.counts == counts
        ]
        return min((layout, *found), key=lambda one: self.rank([one]))

    def _free(self, layout: SheetLayout) -> list[tuple[Box, ...]]:
        source = self.problem.sources[layout.source]
        if source.roll:
            source = replace(source, height=layout.length)
        return free_of(source, self.problem.kerf)

    def _fillings(
        self, free: tuple[Box, ...], counts: Sequence[int], keep: Keeps, most: int = 3
    ) -> list[FilledSheet]:
        return fillings(free, self.demands, counts, self.areas, self.care.states, most, keep=keep)

    def _strips(self, box: Box, counts: tuple[int, ...]) -> Iterator[FilledSheet]:
        """All pieces in the narrowest strip that is found, along each side: what is beyond it stays whole."""
        x, y, wide, high = box
        for upright in (True, False):
            demands = [_lying(demand) for demand in self.demands] if upright else self.demands
            across, along = (high, wide) if upright else (wide, high)
            lengths = lengths_of(demands, counts, across, along)
            low, top = 0, len(lengths) - 1
            best: FilledSheet | None = None
            while low <= top:
                middle = (low + top) // 2
                long = lengths[middle]
                strip = (x, y, long, high) if upright else (x, y, wide, long)
                filled = next(iter(self._fillings((strip,), counts, "few", 1)), None)
                if filled and filled.counts == counts:
                    best, top = filled, middle - 1
                else:
                    low = middle + 1
            if best:
                yield best

    def plans_anew(self, layouts: Sequence[SheetLayout]) -> Iterator[tuple[SheetLayout, ...]]:
        """The same sheets, each in turn the last to be filled, after the others from the smallest and from
        the largest on."""
        sheets = [replace(layout, times=1) for layout in layouts for _ in range(min(layout.times, 99))]
        if (
            not 1 < len(sheets) <= self.care.sheets
            or any(self.problem.sources[sheet.source].roll for sheet in sheets)
            or any(demand.twins for demand in self.demands)
        ):
            return
        total = [0] * len(self.demands)
        for sheet in sheets:
            total = [a + b for a, b in zip(total, sheet.counts(len(total)), strict=True)]
        if sum(total) > MOST_ALIKE:
            return
        area = {number: source.area for number, source in enumerate(self.problem.sources)}
        orders: dict[tuple[int, ...], None] = {}
        for last, sheet in enumerate(sheets):
            others = [one.source for place, one in enumerate(sheets) if place != last]
            for sign in (1, -1):
                order = (*sorted(others, key=lambda one: (sign * area[one], one)), sheet.source)
                orders[order] = None
        for order in orders:
            found = self._filled(order, total)
            if found:
                yield found

    def _filled(self, order: Sequence[int], total: Sequence[int]) -> tuple[SheetLayout, ...] | None:
        """Sheets filled one after the other as full as can be; None where that leaves pieces over."""
        left, found = list(total), []
        for number in order:
            if not any(left):
                return None
            source = self.problem.sources[number]
            ways = [
                way
                for free in free_of(source, self.problem.kerf)
                for keep in self.care.keep
                for way in self._fillings(free, left, keep, 1)
            ]
            if not ways:
                return None
            full = max(ways, key=lambda way: (way.value, way.largest))
            left = [a - b for a, b in zip(left, full.counts, strict=True)]
            grids = shrunk(full.grids, self.problem.kerf)
            found.append(SheetLayout(number, grids, source.height))
        return None if any(left) else tuple(found)


def _lying(demand: PieceDemand) -> PieceDemand:
    return replace(demand, width=demand.height, height=demand.width)
