"""Copies that come from the page: they arrive part by part, and are put back in the background, with a
bar."""

from __future__ import annotations

import os
import re
import secrets
import shutil
import time
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from pleat.services.copies import PutBack, restore
from pleat.services.jobs import Job, Jobs
from pleat.store import backups
from pleat.store.backups import BadBackup

_BREATH: Final = 20
"""Things after which the reader lets other requests run."""


class _Stopped(Exception):
    """The maker stopped it."""


@dataclass(kw_only=True)
class Restoring(Job):
    """A copy on its way: "reading" until all of it is read, then "done", "stopped" or "failed". ``back`` says
    what became of it."""

    name: str
    back: PutBack | None = None


class Restorings:
    """The copies being put back into one database, one after the other."""

    def __init__(self, database: Path) -> None:
        self._database = database
        self._jobs: Jobs[Restoring] = Jobs("restore")
        self.find = self._jobs.find

    def start(self, name: str, given: Path, passing: bool) -> Restoring:
        """Begin to put a copy back; a ``passing`` one is thrown away afterwards."""
        job = self._jobs.keep(Restoring(name=name, state="reading"))
        self._jobs.run(job, lambda job: self._restore(job, given, passing))
        return job

    def _restore(self, job: Restoring, given: Path, passing: bool) -> None:
        def told(done: int, of: int) -> None:
            job.done, job.total = done, max(1, of)
            if done % _BREATH == 0:
                time.sleep(0.001)  # other requests go on meanwhile
            if job.stop:
                raise _Stopped

        try:
            job.back = restore(self._database, given, told)
            job.state = "done"
        except _Stopped:
            job.state = "stopped"
        except BadBackup as error:
            job.error = error.text.replace(str(given), "The file")
            job.state = "failed"
        finally:
            if passing:
                given.unlink(missing_ok=True)


class Parts:
    """Copies that a browser sends part by part, so that the disk alone says how large one may be; each grows
    in a file of its own."""

    MOST: Final = 4

    def __init__(self, database: Path) -> None:
        self._place = backups.folder(database)

    def begin(self, size: int) -> str:
        """The token of a copy of so many bytes. Raises BadBackup where the disk has no room for it and what
        is made of it."""
        try:
            self._place.mkdir(parents=True, exist_ok=True)
            room = shutil.disk_usage(self._place).free
            if room < _ROOM_FOR * size:
                raise BadBackup(
                    f"The copy is {_megabytes(size)}, and putting it back takes three times that for a "
                    f"while: the disk has {_megabytes(room)} left."
                )
            for old in sorted(self._place.glob(".given-*.part"), key=lambda path: path.stat().st_mtime)[
                : 1 - self.MOST
            ]:
                old.unlink(missing_ok=True)
            token = secrets.token_hex(8)
            self._file(token).touch(0o600)
        except OSError as error:
            raise BadBackup(f"There is no room for the copy ({error.strerror}).") from error
        return token

    def add(self, token: str, at: int, data: bytes) -> None:
        """One part, which begins at a byte; one that is sent again is written again. Raises BadBackup for one
        that leaves a gap."""
        try:
            with self.file(token).open("r+b") as file:
                if file.seek(0, os.SEEK_END) < at:
                    raise BadBackup("A part of the copy was lost on its way. Try it once more.")
                file.seek(at)
                file.write(data)
        except OSError as error:
            raise BadBackup(f"The copy could not be kept ({error.strerror}).") from error

    def file(self, token: str) -> Path:
        """Where a copy grows. Raises BadBackup for one that is no longer there."""
        if not (_TOKEN.fullmatch(token) and self._file(token).is_file()):
            raise BadBackup("This copy is no longer here. Choose it again.")
        return self._file(token)

    def _file(self, token: str) -> Path:
        return self._place / f".given-{token}.part"


_ROOM_FOR: Final = 3
_TOKEN: Final = re.compile("[0-9a-f]{16}")


def _megabytes(size: int) -> str:
    return f"{size / 1e6:,.0f} MB"
