"""Work in the background of one process: kept by a token that a page asks with, one after the other, and
never left hanging."""

from __future__ import annotations

import secrets
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from typing import Final, Generic, TypeVar

MOST_KEPT: Final = 8


@dataclass(kw_only=True)
class Job:
    """Some work: what state it is in, how much of it is done, why it failed. ``stop`` asks it to end."""

    token: str = field(default_factory=lambda: secrets.token_hex(8))
    state: str = "waiting"
    done: int = 0
    total: int = 1
    error: str = ""
    stop: bool = False


J = TypeVar("J", bound=Job)


class Jobs(Generic[J]):
    """The jobs of one sort, in one worker thread; with more than ``most`` the oldest is asked to stop and
    forgotten."""

    def __init__(self, name: str, most: int = MOST_KEPT) -> None:
        self._kept: OrderedDict[str, J] = OrderedDict()
        self._worker = ThreadPoolExecutor(1, thread_name_prefix=f"pleat-{name}")
        self._most = most

    def keep(self, job: J) -> J:
        self._kept[job.token] = job
        while len(self._kept) > self._most:
            self._kept.popitem(last=False)[1].stop = True
        return job

    def run(self, job: J, work: Callable[[J], None]) -> None:
        """Do it when those before it are done; a fault ends the job with a word."""
        self._worker.submit(self.guarded, job, work)

    def find(self, token: str) -> J | None:
        return self._kept.get(token)

    def all(self) -> list[J]:
        return list(self._kept.values())

    def forget(self, token: str) -> None:
        self._kept.pop(token, None)

    @staticmethod
    def guarded(job: J, work: Callable[[J], None]) -> None:
        """Do it here and now; a fault ends the job with a word."""
        try:
            work(job)
        except Exception as error:
            job.error = f"Something went wrong inside Pleat ({type(error).__name__}). Nothing was changed."
            job.state = "failed"
