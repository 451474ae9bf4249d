"""Arranging a large pile in the background: how far it has come, and stopping it, with the best found so far."""

from __future__ import annotations

import secrets
import time
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Final, Literal

from pleat.core.book import Book
from pleat.core.errors import BadBook
from pleat.core.pages.arrange import Arranged
from pleat.services import piles

LONGEST_S: Final = 8.0
"""However large the pile, the search ends after so long, with the best it has met."""
MOST_JOBS: Final = 8


@dataclass
class Job:
    """One search. ``share`` of it is done; ``stop`` ends it with what it has; ``error`` says why there is no proposal."""

    token: str
    book_id: int
    state: Literal["searching", "done", "failed"] = "searching"
    share: float = 0.0
    stop: bool = False
    proposal: Arranged | None = None
    error: str = ""


def takes_long(book: Book, sections: int) -> bool:
    """Whether a search is worth a bar: large piles, and long sections, in which every step weighs the whole section."""
    sheets = len(piles.pages_of(book).pile)
    return sheets > 150 or sheets * sheets > 12_000 * max(1, sections)


def within(seconds: float, told: Callable[[float], bool] = lambda _: True) -> Callable[[float], bool]:
    """What to ask a search that may last so long: it goes on while there is time and ``told`` agrees."""
    end = time.monotonic() + seconds
    return lambda share: told(share) and time.monotonic() < end


class Arrangings:
    """The searches of one process, one at a time; the oldest are forgotten."""

    def __init__(self) -> None:
        self._jobs: OrderedDict[str, Job] = OrderedDict()
        self._worker = ThreadPoolExecutor(1, thread_name_prefix="pleat-arrange")

    def start(self, book_id: int, book: Book, sections: int, seed: int, unlike_now: bool) -> Job:
        for job in self._jobs.values():
            job.stop = job.stop or job.book_id == book_id
        job = Job(secrets.token_hex(8), book_id)
        self._jobs[job.token] = job
        while len(self._jobs) > MOST_JOBS:
            self._jobs.popitem(last=False)[1].stop = True
        self._worker.submit(self._search, job, book, sections, seed, unlike_now)
        return job

    def find(self, token: str) -> Job | None:
        return self._jobs.get(token)

    def _search(self, job: Job, book: Book, sections: int, seed: int, unlike_now: bool) -> None:
        def told(share: float) -> bool:
            job.share = share
            time.sleep(0.0005)  # other requests go on meanwhile
            return not job.stop

        try:
            job.proposal = piles.propose(book, sections, seed, unlike_now, within(LONGEST_S, told))
            job.state = "done"
        except BadBook as error:
            job.state, job.error = "failed", error.problems[0].message
        except Exception as error:
            job.state, job.error = "failed", f"Something went wrong inside Pleat ({type(error).__name__}). Nothing was changed."
