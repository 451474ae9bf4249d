"""The thread: how thick it is, and how much of it a path takes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.binding.path import ThreadPath
from pleat.core.binding.record import Thread
from pleat.core.estimate import Estimate
from pleat.core.materials.thread import diameter_of_tex, tex_of

SPARE: Final = 0.07
"""Added for tension and mishaps (common practice: 5 to 10 %)."""
SHORTEST_TAIL_MM: Final = 75.0
"""The least a tail can be tied with (common practice: 75 to 100 mm)."""
SWELL: Final = (0.3, 0.55, 0.8)
"""Share of the thread's diameter that stays after pressing, per section (house rule)."""


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
    """What one book takes, in mm: spans and passages, both tails, the spare, and the three added up."""

    spans_mm: float
    passages_mm: float
    tails_mm: float
    spare_mm: float
    total_mm: float
    shortest_mm: float


def thread_need(path: ThreadPath, fold_stack_mm: float, tail_mm: float, strands: int) -> ThreadNeed:
    """Length to cut for ``path`` through a fold ``fold_stack_mm`` thick; a double thread takes everything twice.

    ``shortest_mm`` is what could still be tied: no spare, tails of 75 mm.
    """
    spans, passages = path.spans_mm, path.passages * fold_stack_mm
    run, tails = spans + passages, 2 * tail_mm
    spare = SPARE * (run + tails)
    shortest = run + 2 * min(SHORTEST_TAIL_MM, tail_mm)
    return ThreadNeed(
        strands * spans, strands * passages, strands * tails, strands * spare, strands * (run + tails + spare), strands * shortest
    )


def swell(thread: Thread, strands: int) -> Estimate:
    """What the thread in one fold adds to the spine, in mm."""
    width = diameter_mm(thread) * strands
    low, likely, high = (share * width for share in SWELL)
    return Estimate.ranged(low, likely, high, "how far the thread is pressed into the paper")
