"""Sheets: how soon a first plan is there, how good it is, and what rounds make of it, by hand.

The jobs are those of the engine's tests: made up, with the best cost that is known and a proven bound;
the library's cost is what rectpack 0.2.2 reached at best over all its guillotine rules, as recorded.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from pathlib import Path
from typing import Final

from pleat.core.engines.packing.improve import Improver
from pleat.core.engines.packing.planner import plan
from pleat.core.engines.packing.validator import faults
from tests.core.engines.packing.test_packing import JOBS, problem

ROUNDS: Final = 12


def sheets(_: Path) -> None:
    """Every job: first plan, rounds, proof; then the sums."""
    totals = {"first": 0.0, "rounds": 0.0, "best known": 0.0, "bound": 0.0, "library": 0.0}
    firsts, wholes, proven = [], [], 0
    for job in JOBS["maker"]:
        asked = problem(job)  # type: ignore[no-untyped-call]
        start = time.perf_counter()
        first = plan(asked)
        firsts.append(time.perf_counter() - start)
        improver = Improver(asked, first)
        while improver.rounds < ROUNDS and improver.round():
            pass
        wholes.append(time.perf_counter() - start)
        made = improver.packing
        assert not faults(asked, made)
        proven += made.proven
        for name, cost in zip(
            totals, (first.cost, made.cost, job["best"]["cost"], made.bound, job["rectpack"]), strict=True
        ):
            totals[name] += cost
        print(
            f"{job['id']} {job['name']}: first {first.cost:g}, after {improver.rounds} rounds {made.cost:g}, "
            f"bound {made.bound:g}, best known {job['best']['cost']:g}, library {job['rectpack']:g}, "
            f"{wholes[-1]:.1f} s"
        )
    print(", ".join(f"{name} {cost:g}" for name, cost in totals.items()), f"; proven {proven}")
    for name, seconds in (("first plan", firsts), ("with rounds", wholes)):
        print(f"{name}: median {statistics.median(seconds) * 1000:.0f} ms, most {max(seconds) * 1000:.0f} ms")


SHEETS: Final[dict[str, Callable[[Path], None]]] = {"sheets": sheets}
