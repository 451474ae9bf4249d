"""The thread: how thick it is, whether it suits the paper, and how much of it a sewing takes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.engines.sewing.lengths import (
    Lengths,
    WorkingLength,
    measured,
    thread_lengths,
    working_lengths,
)
from pleat.core.engines.sewing.moves import Sewing
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.materials.thread import diameter_of_tex, tex_of
from pleat.core.pleats.binding.record import Thread
from pleat.core.trade.sewing import KNOT_ON_MM, SHORTEST_TAIL_MM, THREAD_SPARE_SHARE


def tex(thread: Thread) -> float:
    """Grams per kilometre of the plied thread: as given, else by lea and plies (arithmetic)."""
    return thread.tex if thread.tex is not None else tex_of(thread.lea, thread.plies)


def diameter_mm(thread: Thread) -> float:
    """Diameter in mm: as measured, else that of a round thread of its mass and linen's density."""
    return thread.diameter_mm if thread.diameter_mm is not None else diameter_of_tex(tex(thread))


def name_of(thread: Thread) -> str:
    """What the thread is called: its own name, else linen and its number."""
    return thread.name or f"linen {thread.lea}/{thread.plies}"


@dataclass(frozen=True)
class ThreadNeed:
    """What the longest of the threads takes, in mm: its run part by part, both tails, the spare, and all
    added up.

    ``pieces_mm`` are the lengths it is sewn in, with what knotting on takes; one, where that is short enough.
    ``threads`` are as many as are cut for one book. ``shortest_mm`` is what could still be tied: no spare,
    tails of 75 mm. ``knots_on`` are the steps after which the next length is knotted on.
    """

    run: Lengths
    tails_mm: float
    spare_mm: float
    total_mm: float
    shortest_mm: float
    threads: int
    pieces_mm: tuple[float, ...]
    knots_on: tuple[int, ...] = ()

    @property
    def each_mm(self) -> float:
        """What is cut at once: the longest of its pieces."""
        return max(self.pieces_mm)

    @property
    def cuts(self) -> int:
        """How many lengths are cut for one book."""
        return self.threads * len(self.pieces_mm)


@dataclass(frozen=True)
class Use:
    """How a thread is used: its diameter in mm, each tail in mm, how many strands side by side, what it
    swells a row by in mm."""

    diameter_mm: float
    tail_mm: float
    strands: int = 1
    swell_mm: float = 0.0


def thread_need(sewing: Sewing, stretches: Sequence[Stretch], use: Use) -> ThreadNeed:
    """What to cut for each thread of a sewing, by the longest of them; a double thread takes everything
    twice."""
    strands, tails = use.strands, 2 * use.tail_mm
    lengths = measured(stretches, sewing.bed, use.diameter_mm, use.swell_mm)
    runs = thread_lengths(stretches, lengths, len(sewing.threads))
    run = max(runs, key=lambda one: one.run_mm, default=Lengths())
    spare = THREAD_SPARE_SHARE * (run.run_mm + tails)
    pieces: tuple[WorkingLength, ...] = (WorkingLength(run.run_mm + tails + spare),)
    if len(sewing.threads) == 1:
        pieces = working_lengths(sewing.threads[0], stretches, lengths, tails, THREAD_SPARE_SHARE)
    joints = 2 * KNOT_ON_MM * (len(pieces) - 1)
    return ThreadNeed(
        run=Lengths(*(strands * part for part in run.parts)),
        tails_mm=strands * (tails + joints),
        spare_mm=strands * (spare + THREAD_SPARE_SHARE * joints),
        total_mm=strands * (run.run_mm + tails + joints) * (1 + THREAD_SPARE_SHARE),
        shortest_mm=strands * (run.run_mm + 2 * min(SHORTEST_TAIL_MM, use.tail_mm)),
        threads=len(sewing.threads),
        pieces_mm=tuple(strands * piece.length_mm for piece in pieces),
        knots_on=tuple(piece.from_step for piece in pieces if piece.from_step is not None),
    )


NEEDLES: Final = (
    (0.45, "fine, no. 22 to 24"),
    (0.75, "medium, no. 18 to 20"),
    (1.1, "strong, no. 16"),
    (99.0, "a sack needle, or a bodkin for cord"),
)
"""Needles by the thread's diameter in mm (common practice, no source; numbers of tapestry needles, from
memory)."""


def needle_for(diameter: float) -> str:
    """The needle whose eye takes the thread without a hole wider than it."""
    return next(name for most, name in NEEDLES if diameter <= most)


def suits(diameter: float, fold_mm: float) -> str:
    """What is to be said of a thread for a fold so thick; "" where it suits. House rule: it cuts paper
    thinner than a third of it, and is lost in a fold of more than twelve times it."""
    if fold_mm < diameter / 3:
        return "thick for so little paper: it stands out of the fold and may cut it"
    if fold_mm > 12 * diameter:
        return "thin for so much paper: taken double or waxed it bears more"
    return ""
