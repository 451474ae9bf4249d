"""Better plans of sheets, and the proof of how good they are: worked out by a process of their own, by
rounds, and kept beside the books by the key of what they are plans of."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Final

from pleat.core.engines.packing.planner import plan
from pleat.core.engines.packing.problem import Problem
from pleat.core.engines.packing.worker import PACKING, PROBLEM
from pleat.services.jobs import Job, Jobs
from pleat.store.packings import KeptPacking

ROUNDS: Final = 60
"""More than any job of a maker took (m17 of the shared jobs: 120 pieces, about 40)."""
Keep = Callable[[str, KeptPacking], None]


@dataclass(kw_only=True)
class Proof(Job):
    """One problem on its way: "working" until it is "done" or has "failed". ``done`` rounds of ``total``;
    stopping it keeps what it has."""

    key: str
    book_id: int
    above: float = 0.0
    process: subprocess.Popen[bytes] | None = field(default=None, repr=False)

    def end(self) -> None:
        """Stop it now; what it has is kept."""
        self.stop = True
        if self.process is not None:
            self.process.kill()


class Proofs:
    """The proofs of one process, one at a time; threads of their own that no exit waits for."""

    def __init__(self) -> None:
        self._jobs: Jobs[Proof] = Jobs("prove", most=30)
        self._one = threading.Lock()
        self.find = self._jobs.find

    def of(self, key: str) -> Proof | None:
        """The one that works on this problem now."""
        working = ("waiting", "working")
        return next((job for job in self._jobs.all() if job.key == key and job.state in working), None)

    def start(self, book_id: int, problem: Problem, keep: Keep) -> Proof:
        """Begin, or the one that works on it already."""
        there = self.of(problem.key)
        if there:
            return there
        job = self._jobs.keep(Proof(key=problem.key, book_id=book_id, total=ROUNDS))
        work = threading.Thread(target=self._work, args=(job, problem, keep), daemon=True)
        work.start()
        return job

    def end(self) -> None:
        """Stop all of them."""
        for job in self._jobs.all():
            job.end()

    def _work(self, job: Proof, problem: Problem, keep: Keep) -> None:
        with self._one:
            Jobs.guarded(job, lambda job: self._rounds(job, problem, keep))

    @staticmethod
    def _rounds(job: Proof, problem: Problem, keep: Keep) -> None:
        command = [sys.executable, "-m", "pleat.core.engines.packing.worker", str(ROUNDS)]
        best, ended = plan(problem), False
        job.state = "working"
        with subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE) as process:
            assert process.stdin is not None
            assert process.stdout is not None
            job.process = process
            if job.stop:
                process.kill()
            with suppress(BrokenPipeError):
                process.stdin.write(PROBLEM.dump_json(problem))
                process.stdin.close()
            for line in process.stdout:
                told = json.loads(line)
                if told["packing"] is not None:
                    best = PACKING.validate_python(told["packing"])
                job.done = told["round"]
                job.above = best.cost / best.bound - 1 if best.bound else 0.0
                ended = not told["more"] or job.done >= ROUNDS
                keep(job.key, KeptPacking(best, job.done, ended))
        keep(job.key, KeptPacking(best, job.done, ended))
        if not (ended or job.stop):
            raise RuntimeError("the process ended by itself")
        job.state = "done"
