"""How much thread a sewing takes, part by part, and where to knot on when that is too long to sew with.

Hole to hole along the fold; through every fold and cover at every passage; up the spine from the middle of
one section to the next, and over the thread that swells it; round what is caught or wrapped. All arithmetic:
the pieces of a line through the middle of the thread.
"""

from __future__ import annotations

import bisect
import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.engines.sewing.moves import Bed, Thread
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.trade.sewing import KNOT_ON_MM, LONGEST_THREAD_MM


@dataclass(frozen=True)
class Lengths:
    """One thread in mm: hole to hole, through the paper, up and round, without tails."""

    spans_mm: float = 0.0
    passages_mm: float = 0.0
    links_mm: float = 0.0
    wraps_mm: float = 0.0

    @property
    def run_mm(self) -> float:
        return self.spans_mm + self.passages_mm + self.links_mm + self.wraps_mm

    @property
    def parts(self) -> tuple[float, float, float, float]:
        return self.spans_mm, self.passages_mm, self.links_mm, self.wraps_mm


def measured(
    stretches: Sequence[Stretch], bed: Bed, diameter_mm: float, swell_mm: float = 0.0
) -> tuple[float, ...]:
    """The length of each stretch in mm; ``swell_mm`` is what thread adds between two rows. Tails and knots
    are counted elsewhere: 0."""
    place, ring = bed.places_mm, math.pi * diameter_mm
    through = [row.fold_mm + row.cover_mm for row in bed.rows]
    middles = _middles(bed, swell_mm)
    tapes = [(support.at, 2 * support.thick_mm) for support in bed.supports if support.kind == "tape"]
    found = []
    for _, _, what, row, start, to, end, side, kind, times in stretches:
        if what == "passage":
            length = through[row - 1]
        elif what == "span":
            length = abs(place[end] - place[start])
            if tapes and side == "outside":
                length += sum(over for at, over in tapes if min(start, end) < at < max(start, end))
        elif what == "climb":
            length = math.hypot(place[end] - place[start], middles[to] - middles[row])
        elif what == "catch":
            length = 2 * abs(middles[to] - middles[row]) + ring
        elif what == "wrap":
            rise = bed.rows[row - 1].thick_mm if kind == "board" else 0.0
            length = times * (_round_mm(kind, start, bed, ring) + rise)
        else:
            length = 0.0
        found.append(length)
    return tuple(found)


def _middles(bed: Bed, swell_mm: float) -> list[float]:
    """Where the middle of each row lies on the spine, by its number from 1, with the thread between rows."""
    found, edge = [0.0], 0.0
    for row in bed.rows:
        found.append(edge + row.thick_mm / 2)
        edge += row.thick_mm + swell_mm
    return found


def _round_mm(kind: str, at: float, bed: Bed, ring: float) -> float:
    """Once round a cord; or over the face of a board, through its hole and back between board and block. The
    way up from the fold of the outermost section to its board, and down again, comes on top."""
    support = next((one for one in bed.supports if one.kind == kind and one.at == at), None)
    thick = support.thick_mm if support else 0.0
    return 2 * bed.reach_mm + 2 * thick + ring if kind == "board" else math.pi * thick + ring


_PART: Final = {"span": 0, "passage": 1, "climb": 2, "catch": 2, "wrap": 3}


def thread_lengths(
    stretches: Sequence[Stretch], lengths_mm: Sequence[float], threads: int
) -> tuple[Lengths, ...]:
    """The lengths of each thread, from those of its stretches."""
    sums = [[0.0, 0.0, 0.0, 0.0] for _ in range(threads)]
    for stretch, length in zip(stretches, lengths_mm, strict=True):
        if stretch.what in _PART:
            sums[stretch.thread][_PART[stretch.what]] += length
    return tuple(Lengths(*parts) for parts in sums)


@dataclass(frozen=True)
class WorkingLength:
    """A length to cut, in mm, with its tails, knots and spare; ``from_step`` is the move it is knotted on
    after, None for the first."""

    length_mm: float
    from_step: int | None = None


def working_lengths(
    thread: Thread, stretches: Sequence[Stretch], lengths_mm: Sequence[float], tails_mm: float, spare: float
) -> tuple[WorkingLength, ...]:
    """A thread as lengths to sew with, each of at most LONGEST_MM where the holes allow it, as few and then
    as even as can be.

    A new length is knotted on inside a fold, just after the needle came in. ``stretches`` are those of this
    thread alone.
    """
    runs: list[tuple[float, int]] = []  # (mm sewn so far, step) wherever a new length can be knotted on
    sewn, last = 0.0, len(thread) - 2
    for stretch, length in zip(stretches, lengths_mm, strict=True):
        sewn += length
        if stretch.what == "passage" and stretch.side == "inside" and stretch.step < last:
            runs.append((sewn, stretch.step))
    total = (sewn + tails_mm) * (1 + spare)
    if total <= LONGEST_THREAD_MM or not runs:
        return (WorkingLength(total),)
    most = LONGEST_THREAD_MM / (1 + spare) - 2 * KNOT_ON_MM
    places = _cut(runs, sewn, most)
    low, high = sewn / (len(places) + 1), most
    for _ in range(14):  # the same number, as even as the places allow
        middle = (low + high) / 2
        tried = _cut(runs, sewn, middle)
        low, high = (low, middle) if len(tried) <= len(places) else (middle, high)
    places = _cut(runs, sewn, high)
    edges: list[tuple[float, int | None]] = [(0.0, None), *places, (sewn, None)]
    lengths = []
    for number, ((start, step), (end, _)) in enumerate(itertools.pairwise(edges)):
        ends = (KNOT_ON_MM if number else tails_mm / 2) + (
            tails_mm / 2 if number == len(places) else KNOT_ON_MM
        )
        lengths.append(WorkingLength((end - start + ends) * (1 + spare), step))
    return tuple(lengths)


def _cut(runs: Sequence[tuple[float, int]], whole: float, most: float) -> list[tuple[float, int | None]]:
    """Where to knot on so that no length is over ``most``, if the places allow it: each as late as can be,
    which gives the fewest."""
    found: list[tuple[float, int | None]] = []
    since, number = 0.0, 0
    while whole - since > most:
        last = bisect.bisect_right(runs, since + most, lo=number, key=lambda run: run[0])
        number = max(last, number + 1)  # beyond the limit where no hole comes sooner
        if number > len(runs) or runs[number - 1][0] >= whole:
            break
        since = runs[number - 1][0]
        found.append(runs[number - 1])
    return found
