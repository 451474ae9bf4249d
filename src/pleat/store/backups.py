"""Copies of the database: on demand, before it is changed by a newer Pleat, and one a day for a week.

Made by SQLite's own backup, which copies a consistent state while others write; a copied file of a running
Pleat would lack what its log still holds.
"""

from __future__ import annotations

import os
import sqlite3
import threading
import time
from contextlib import closing, suppress
from datetime import date
from pathlib import Path
from typing import Final

from pleat.core.base.errors import PleatError

DAYS_KEPT: Final = 7
_LEFT_S: Final = 86_400.0
_TABLES: Final = {"alembic_version", "books", "revisions", "changes"}


class BadBackup(PleatError):
    """A file that is no whole copy of Pleat's books; ``text`` says why."""

    def __init__(self, text: str) -> None:
        self.text = text
        super().__init__(text)


def folder(database: Path) -> Path:
    """Where the copies of a database are kept, beside it."""
    return database.with_name(f"{database.stem}-backups")


def backup(database: Path, target: Path) -> int:
    """Copy the database to a new file, check the copy, and return how many books it holds.

    Written beside the target first, so that a file that is there is never half a copy. Raises BadBackup, in
    one line.
    """
    try:
        target = target.resolve()
    except (OSError, RuntimeError) as error:  # a link that leads round in a circle
        raise BadBackup(f"{target} leads nowhere: name another file for the copy.") from error
    made = target.with_name(f".{target.name}.{os.getpid()}.{threading.get_ident()}.part")
    try:
        _may_be_written(database, target)
        target.parent.mkdir(parents=True, exist_ok=True)
        os.close(os.open(made, os.O_RDWR | os.O_CREAT | os.O_TRUNC, 0o600))
        with (
            closing(sqlite3.connect(address(database, "mode=ro"), uri=True)) as source,
            closing(sqlite3.connect(made)) as copy,
        ):
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        books = _checked(made)
        made.replace(target)
    except sqlite3.Error as error:
        raise BadBackup(f"The copy could not be made: {error}.") from error
    except OSError as error:
        raise BadBackup(f"{target} cannot be written to ({error.strerror}).") from error
    finally:
        with suppress(OSError):
            made.unlink(missing_ok=True)
    return books


_BESIDE: Final = ("-wal", "-shm", "-journal")
"""What a database that is in use has beside it."""
_WAL: Final = b"\x02\x02"
"""Bytes 18 and 19 of an SQLite file that is written through a log (its file format, 1.3.3); no copy is."""


def _may_be_written(database: Path, target: Path) -> None:
    """Raise BadBackup for a target that is ours, that some program has open, or that is there and no copy.
    Raises OSError."""
    path = database.resolve()
    if target in {path, path.with_name("secret.key"), *(path.with_name(path.name + end) for end in _BESIDE)}:
        raise BadBackup(f"{target} is Pleat's own file: name another one for the copy.")
    if not target.exists():
        return
    if target.is_dir():
        raise BadBackup(f"{target} is a folder: name a file in it for the copy.")
    if not target.is_file():
        raise BadBackup(f"{target} is no file: name another one for the copy.")
    if path.exists() and target.samefile(path):
        raise BadBackup(f"{target} is Pleat's own file: name another one for the copy.")
    if target.parent == folder(path):
        raise BadBackup(f"{target} is a copy that Pleat keeps by itself: name another file.")
    with target.open("rb") as file:
        head = file.read(20)
    if head and not head.startswith(b"SQLite format 3\0"):
        raise BadBackup(f"{target} is no copy of Pleat's books, and is left as it is: name another file.")
    if head[18:20] == _WAL or any(target.with_name(target.name + end).exists() for end in _BESIDE):
        raise BadBackup(f"{target} is a database in use, and no copy: name another file.")
    if head:
        _checked(target)


def _checked(path: Path) -> int:
    """How many books a copy holds that was just made. Raises BadBackup unless it is whole and Pleat's."""
    try:
        with closing(sqlite3.connect(address(path, "mode=ro&immutable=1"), uri=True)) as connection:
            tables = {
                name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
            }
            said = connection.execute("PRAGMA integrity_check(1)").fetchone()[0]
            if not tables >= _TABLES or said != "ok":
                raise BadBackup(f"{path} is no copy of Pleat's books, or it is damaged.")
            return int(connection.execute("SELECT count(*) FROM books WHERE binned_at IS NULL").fetchone()[0])
    except sqlite3.Error as error:
        raise BadBackup(f"{path} is no copy of Pleat's books, or it is damaged.") from error


def before_migration(database: Path, revision: str) -> Path:
    """A copy of a database before its schema changes."""
    target = free_name(folder(database), f"before-change-of-{revision}")
    target.parent.mkdir(parents=True, exist_ok=True)
    with closing(sqlite3.connect(database)) as source, closing(sqlite3.connect(target)) as copy:
        source.backup(copy)
    target.chmod(0o600)
    return target


def daily(database: Path, today: date) -> Path | None:
    """Today's copy where there is none yet; copies of more than a week ago are thrown away."""
    target = folder(database) / f"day-{today:%Y-%m-%d}.db"
    if target.exists():
        return None
    backup(database, target)
    for left in folder(database).glob(".*.part"):  # of a Pleat that was stopped while it made one
        if left.stat().st_mtime < time.time() - _LEFT_S:
            left.unlink(missing_ok=True)
    for old in sorted(folder(database).glob("day-*.db"))[:-DAYS_KEPT]:
        old.unlink(missing_ok=True)
    return target


def free_name(place: Path, name: str) -> Path:
    """A file name that is not taken."""
    number = 1
    while (target := place / f"{name}-{number}.db").exists():
        number += 1
    return target


def address(path: Path, how: str) -> str:
    """A path as SQLite's addresses have it, with how it is opened."""
    quoted = str(path.absolute()).replace("%", "%25").replace("?", "%3f").replace("#", "%23")
    return f"file:{quoted}?{how}"
