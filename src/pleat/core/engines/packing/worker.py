"""A process of its own that makes a plan better: a problem comes in by the standard input, and a line goes
out for every round, with the plan where it became better."""

from __future__ import annotations

import json
import os
import sys
from typing import Final

from pydantic import TypeAdapter

from pleat.core.engines.packing.planner import plan
from pleat.core.engines.packing.problem import Packing, Problem

PROBLEM: Final = TypeAdapter(Problem)
PACKING: Final = TypeAdapter(Packing)


def main() -> None:
    """So many rounds as the first argument says, or until nothing is left to do."""
    from pleat.core.engines.packing.improve import Improver  # a solver, which takes a while to load

    os.nice(10)  # the pages go first
    problem = PROBLEM.validate_json(sys.stdin.read())
    improver = Improver(problem, plan(problem))
    shown: Packing | None = None
    rounds = int(sys.argv[1])
    for number in range(1, rounds + 1):
        more = improver.round()
        if more and number == rounds:
            improver.settle()
        best = None if improver.packing == shown else PACKING.dump_python(improver.packing, mode="json")
        shown = improver.packing
        sys.stdout.write(json.dumps({"round": number, "more": more, "packing": best}) + "\n")
        sys.stdout.flush()
        if not more:
            return


if __name__ == "__main__":
    main()
