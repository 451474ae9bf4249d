"""Arranging a large pile in the background: how far it has come, and stopping it, with the best found so
far."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from pleat.core.base.errors import BadBook
from pleat.core.document.book import Book
from pleat.core.pleats.pages.arrange import Arranged
from pleat.services import piles
from pleat.services.jobs import Job, Jobs

LONGEST_S: Final = 8.0
"""However large the pile, the search ends after so long, with the best it has met."""


@dataclass(kw_only=True)
class Search(Job):
    """One search, "searching" until it is "done" or has "failed". ``share`` of it is done; stopping it keeps
    what it has."""

    book_id: int
    share: float = 0.0
    proposal: Arranged | None = None


def takes_long(book: Book, sections: int) -> bool:
    """Whether a search is worth a bar: large piles, and long sections, in which every step weighs the whole
    section."""
    sheets = len(piles.pages_of(book).pile)
    return sheets > 150 or sheets * sheets > 12_000 * max(1, sections)


def within(seconds: float, told: Callable[[float], bool] = lambda _: True) -> Callable[[float], bool]:
    """What to ask a search that may last so long: it goes on while there is time and ``told`` agrees."""
    end = time.monotonic() + seconds
    return lambda share: told(share) and time.monotonic() < end


class Arrangings:
    """The searches of one process, one at a time; the oldest are forgotten."""

    def __init__(self) -> None:
        self._jobs: Jobs[Search] = Jobs("arrange")
        self.find = self._jobs.find

    def start(self, book_id: int, book: Book, sections: int, seed: int, unlike_now: bool) -> Search:
        for before in self._jobs.all():
            before.stop = before.stop or before.book_id == book_id
        job = self._jobs.keep(Search(book_id=book_id, state="searching"))
        self._jobs.run(job, lambda job: self._search(job, book, sections, seed, unlike_now))
        return job

    def _search(self, job: Search, book: Book, sections: int, seed: int, unlike_now: bool) -> None:
        def told(share: float) -> bool:
            job.share = share
            time.sleep(0.0005)  # other requests go on meanwhile
            return not job.stop

        try:
            job.proposal = piles.propose(book, sections, seed, unlike_now, within(LONGEST_S, told))
            job.state = "done"
        except BadBook as error:
            job.error = error.problems[0].message
            job.state = "failed"
