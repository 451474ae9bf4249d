"""A plan: which pieces come from which sheets, as cheaply as can be found, and how good that is.

Partial plans are kept side by side (a beam). Each goes on with one more sheet of each source, filled with
what is left; those that promise to be cheapest go on. The same input gives the same plan.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final, NamedTuple

from pleat.core.engines.packing.bounds import least_cost
from pleat.core.engines.packing.fill import FilledSheet, fill
from pleat.core.engines.packing.problem import (
    Box,
    Packing,
    PieceDemand,
    PieceGrid,
    Problem,
    SheetLayout,
    SheetSource,
    cost_of,
)


@dataclass(frozen=True)
class Effort:
    """How hard to try: partial plans kept beside each other, and states of a sheet."""

    plans: int = 3
    states: int = 6


HASTY: Final = Effort(1, 3)
FIRST: Final = ((300, Effort()), (1_000, Effort(2, 4)))
"""How hard the first plan is tried for, up to so many sorts of pieces × pieces × sources: an edit waits for
it, and better ones come by rounds."""
ROLL_LENGTHS: Final = 400
"""Lengths of a roll that are tried at most."""


class _Partial(NamedTuple):
    cost: float
    left: tuple[int, ...]
    stock: tuple[int | None, ...]
    layouts: tuple[SheetLayout, ...]


def plan(problem: Problem, effort: Effort | None = None) -> Packing:
    """The cheapest plan found. Pieces that no sheet takes, or for which no sheet is left, are unplaced; as
    many as can be are placed, whatever that costs."""
    effort = effort or _first_effort(problem)
    first = _Planner(problem, effort).run()
    if first.proven or len(problem.demands) < 2 or any(source.roll for source in problem.sources):
        return first
    other = _Planner(problem, effort, large_first=True).run()
    return min(first, other, key=lambda one: (sum(one.unplaced), one.cost))


def _first_effort(problem: Problem) -> Effort:
    pieces = sum(demand.count for demand in problem.demands)
    size = len(problem.demands) * pieces * len(problem.sources)
    return next((effort for most, effort in FIRST if size <= most), HASTY)


class _Planner:
    def __init__(self, problem: Problem, effort: Effort, large_first: bool = False) -> None:
        self.problem, self.effort, self.large_first = problem, effort, large_first
        kerf = problem.kerf
        self.demands = [
            PieceDemand(
                demand.width + kerf, demand.height + kerf, demand.count, demand.may_turn, demand.twins
            )
            for demand in problem.demands
        ]
        self.areas = [demand.area for demand in self.demands]
        self.free = [free_of(source, kerf) for source in problem.sources]
        self.filled: dict[tuple[int, tuple[int, ...]], tuple[FilledSheet, ...]] = {}
        self.whole: dict[tuple[int, tuple[int, ...]], int] = {}
        """The largest rectangle that stays whole of a filled sheet, by its source and its pieces."""
        endless = [source for source in problem.sources if source.count is None] or problem.sources
        self.rate = min(
            (source.price / max(source.area, 1) for source in endless if source.area), default=0.0
        )

    def run(self) -> Packing:
        counts = tuple(demand.count for demand in self.demands)
        start = _Partial(0.0, counts, tuple(source.count for source in self.problem.sources), ())
        beam, ends = [start], []
        while beam:
            reached: dict[tuple[tuple[int, ...], tuple[int | None, ...]], _Partial] = {}
            for partial in beam:
                further = self._further(partial)
                if not further:
                    ends.append(partial)
                for one in further:
                    known = reached.get((one.left, one.stock))
                    if known is None or one.cost < known.cost:
                        reached[one.left, one.stock] = one
            beam = sorted(reached.values(), key=self._promise)[: self.effort.plans]
        best = min(ends, key=lambda one: (self._area(one.left), round(one.cost, 9), -self._whole(one)))
        layouts = tuple(best.layouts)
        placed = [count - left for count, left in zip(counts, best.left, strict=True)]
        return Packing(layouts, best.left, cost_of(self.problem, layouts), least_cost(self.problem, placed))

    def _promise(self, partial: _Partial) -> tuple[float, int]:
        return partial.cost + self._area(partial.left) * self.rate, self._area(partial.left)

    def _area(self, left: Sequence[int]) -> int:
        return sum(area * count for area, count in zip(self.areas, left, strict=True))

    def _whole(self, partial: _Partial) -> int:
        """The largest rectangle that stays whole on any sheet."""
        return max((self._rest(layout) for layout in partial.layouts), default=0)

    def _rest(self, layout: SheetLayout) -> int:
        return self.whole.get((layout.source, tuple(layout.counts(len(self.demands)))), 0)

    def _further(self, partial: _Partial) -> list[_Partial]:
        """The partial plan with one more layout of each source, as often as there are pieces for it."""
        found = []
        for number, source in enumerate(self.problem.sources):
            stock = partial.stock[number]
            if stock == 0 or not any(partial.left):
                continue
            for layout, counts in self._next(number, source, partial.left):
                times = min(left // count for left, count in zip(partial.left, counts, strict=True) if count)
                times = max(1, times if stock is None else min(times, stock))
                found.append(self._with(partial, layout, counts, 1 if source.roll else times))
        return found

    def _with(self, partial: _Partial, layout: SheetLayout, counts: Sequence[int], times: int) -> _Partial:
        layout = replace(layout, times=times)
        after = list(partial.stock)
        stock = after[layout.source]
        if stock is not None:
            after[layout.source] = stock - times
        return _Partial(
            partial.cost + cost_of(self.problem, [layout]),
            tuple(was - times * count for was, count in zip(partial.left, counts, strict=True)),
            tuple(after),
            (*partial.layouts, layout),
        )

    def _next(
        self, number: int, source: SheetSource, left: tuple[int, ...]
    ) -> list[tuple[SheetLayout, Sequence[int]]]:
        """(layout, its pieces) of the sheets that a plan may go on with."""
        if source.roll:
            layout, counts = self._off_the_roll(number, source, left)
            return [(layout, counts)] if layout else []
        return [
            (SheetLayout(number, shrunk(filled.grids, self.problem.kerf), source.height), filled.counts)
            for filled in self._fill(number, left)
        ]

    def _fill(self, number: int, left: tuple[int, ...]) -> tuple[FilledSheet, ...]:
        """The fullest sheet that is found; where large pieces go first, also one with as many of them as it
        takes."""
        key = (number, left)
        if key not in self.filled:
            done = [self._filling(self.free[number], left)]
            if self.large_first:
                done.append(self._filled_large_first(number, left))
            self.filled[key] = tuple({filled.counts: filled for filled in done if filled}.values())
            self.whole |= {(number, filled.counts): filled.largest for filled in self.filled[key]}
        return self.filled[key]

    def _filled_large_first(self, number: int, left: tuple[int, ...]) -> FilledSheet | None:
        """A sheet of the largest pieces that it takes, and the others in what they leave free. Nothing where
        one sort is left, or twins are."""
        sorts = [one for one, count in enumerate(left) if count]
        if len(sorts) < 2 or any(self.demands[one].twins for one in sorts):
            return None
        free = self.free[number][0]
        for largest in sorted(sorts, key=lambda one: (-self.areas[one], one)):
            own = tuple(count if one == largest else 0 for one, count in enumerate(left))
            first = fill(free, self.demands, own, self.areas, self.effort.states)
            if first:
                others = tuple(0 if one == largest else count for one, count in enumerate(left))
                rest = fill(first.free, self.demands, others, self.areas, self.effort.states)
                return _both(first, rest) if rest else first
        return None

    def _filling(self, ways: Sequence[tuple[Box, ...]], left: tuple[int, ...]) -> FilledSheet | None:
        best: FilledSheet | None = None
        for free in ways:
            for filled in self._fillings(free, left):
                if best is None or (filled.value, filled.largest) > (best.value, best.largest):
                    best = filled
        return best

    def _fillings(self, free: tuple[Box, ...], left: tuple[int, ...]) -> list[FilledSheet]:
        """A sheet without twins, and one for each sort of twins that it takes all of, with as many further
        sets as go on it, filled up."""
        alike = {
            self._sort_of(name, left): name
            for name in sorted({demand.twins for demand in self.demands if demand.twins}, reverse=True)
        }
        twins = sorted(name for sort, name in alike.items() if sort)
        single = tuple(0 if demand.twins else count for demand, count in zip(self.demands, left, strict=True))
        found = [fill(free, self.demands, single, self.areas, self.effort.states)]
        names = sorted({demand.twins for demand in self.demands if demand.twins})
        for first in twins:
            filled = self._with_twins(FilledSheet((), (0,) * len(left), 0.0, tuple(free)), left, first)
            if filled is None:
                continue
            for name in names:
                if name != first and self._sort_of(name, left):
                    filled = self._with_twins(filled, left, name) or filled
            rest = fill(filled.free, self.demands, single, self.areas, self.effort.states)
            found.append(_both(filled, rest) if rest else filled)
        return [filling for filling in found if filling]

    def _with_twins(self, filled: FilledSheet, left: Sequence[int], name: str) -> FilledSheet | None:
        """A sheet with a set of twins on it as well; None where it does not take all of them."""
        own = tuple(
            count if demand.twins == name else 0 for demand, count in zip(self.demands, left, strict=True)
        )
        more = fill(filled.free, self.demands, own, self.areas, self.effort.states)
        return _both(filled, more) if more and more.counts == own else None

    def _sort_of(self, twins: str, left: Sequence[int]) -> tuple[tuple[int, int, bool, int], ...]:
        """What twins that are left are like, so that of equal ones the first are tried alone."""
        return tuple(
            (demand.width, demand.height, demand.may_turn, count)
            for demand, count in zip(self.demands, left, strict=True)
            if demand.twins == twins and count
        )

    def _off_the_roll(
        self, number: int, source: SheetSource, left: tuple[int, ...]
    ) -> tuple[SheetLayout | None, Sequence[int]]:
        """All that is left in the least length found: lengths that are sums of sides, halved by trying."""
        x, y, wide, high = self.free[number][0][0]
        takes = tuple(
            count if any(side <= wide for side in _across(demand)) else 0
            for demand, count in zip(self.demands, left, strict=True)
        )
        best: tuple[int, FilledSheet] | None = None
        lengths = lengths_of(self.demands, takes, wide, high)
        low, top = 0, len(lengths) - 1
        while low <= top:
            middle = (low + top) // 2
            filled = self._filling([((x, y, wide, lengths[middle]),)], takes)
            if filled and filled.counts == takes:
                best, top = (lengths[middle], filled), middle - 1
            else:
                low = middle + 1
        if best is None:
            filled = self._filling([((x, y, wide, high),)], takes)
            if filled is None:
                return None, ()
            best = (max(grid.box[1] + grid.box[3] for grid in filled.grids) - y, filled)
        length, filled = best
        cut = y + length - self.problem.kerf + source.margins[3]
        return SheetLayout(number, shrunk(filled.grids, self.problem.kerf), cut), filled.counts


def lengths_of(demands: Sequence[PieceDemand], left: Sequence[int], wide: int, high: int) -> list[int]:
    """Sums of the sides that may lie along the height of what is so ``wide`` and ``high``, from the least
    that the area allows."""
    least = -(-sum(demand.area * count for demand, count in zip(demands, left, strict=True)) // wide)
    sums = {0}
    for demand, count in zip(demands, left, strict=True):
        sides = {demand.height, demand.width} if demand.may_turn else {demand.height}
        for side in sorted(sides, reverse=True):
            for _ in range(min(count, 60)):
                more = {total + side for total in sums if total + side <= high}
                if more <= sums or len(sums | more) > ROLL_LENGTHS * 40:
                    break
                sums |= more
    good = sorted(total for total in sums if total >= least)
    step = max(1, len(good) // ROLL_LENGTHS)
    return good[::step]


def _across(demand: PieceDemand) -> tuple[int, ...]:
    return (demand.width, demand.height) if demand.may_turn else (demand.width,)


def _both(first: FilledSheet, rest: FilledSheet) -> FilledSheet:
    counts = tuple(a + b for a, b in zip(first.counts, rest.counts, strict=True))
    return FilledSheet((*first.grids, *rest.grids), counts, first.value + rest.value, rest.free)


def shrunk(grids: tuple[PieceGrid, ...], kerf: int) -> tuple[PieceGrid, ...]:
    """Pieces without the kerf that was planned with each."""
    if not kerf:
        return grids
    return tuple(
        grid._replace(width=grid.width - kerf, height=grid.height - kerf, gap=kerf) for grid in grids
    )


def free_of(source: SheetSource, kerf: int) -> list[tuple[Box, ...]]:
    """What is free of a sheet as rectangles, in each of the ways to cut round what is blocked."""
    x, y, wide, high = source.usable
    ways: list[tuple[Box, ...]] = [((x, y, wide + kerf, high + kerf),)]
    for blocked in source.blocked:
        ways = [around for free in ways for around in _round(free, blocked)]
    return list(dict.fromkeys(ways))


def usable_of(box: Box, source: SheetSource, length: int) -> tuple[Box, ...]:
    """What can be used of a rectangle of a sheet that is ``length`` high, parted so that the largest piece of
    it stays whole."""
    left, top, right, bottom = source.margins
    x, y = max(box[0], left), max(box[1], top)
    wide = min(box[0] + box[2], source.width - right) - x
    high = min(box[1] + box[3], length - bottom) - y
    if wide <= 0 or high <= 0:
        return ()
    ways: list[tuple[Box, ...]] = [((x, y, wide, high),)]
    for blocked in source.blocked:
        ways = [around for free in ways for around in _round(free, blocked)]
    return max(ways, key=lambda way: max((one[2] * one[3] for one in way), default=0))


def _round(free: tuple[Box, ...], blocked: Box) -> list[tuple[Box, ...]]:
    """The rectangles without a blocked one: strips along it first, and strips across it first."""
    left, top = blocked[0], blocked[1]
    right, bottom = left + blocked[2], top + blocked[3]
    along: list[Box] = []
    across: list[Box] = []
    for box in free:
        x, y, wide, high = box
        if left >= x + wide or right <= x or top >= y + high or bottom <= y:
            along.append(box)
            across.append(box)
            continue
        inner_left, inner_right = max(left, x), min(right, x + wide)
        inner_top, inner_bottom = max(top, y), min(bottom, y + high)
        along += [
            (x, y, inner_left - x, high),
            (inner_right, y, x + wide - inner_right, high),
            (inner_left, y, inner_right - inner_left, inner_top - y),
            (inner_left, inner_bottom, inner_right - inner_left, y + high - inner_bottom),
        ]
        across += [
            (x, y, wide, inner_top - y),
            (x, inner_bottom, wide, y + high - inner_bottom),
            (x, inner_top, inner_left - x, inner_bottom - inner_top),
            (inner_right, inner_top, x + wide - inner_right, inner_bottom - inner_top),
        ]
    return [
        tuple(
            sorted((box for box in way if box[2] > 0 and box[3] > 0), key=lambda box: (box[2] * box[3], box))
        )
        for way in (along, across)
    ]
