"""Copies of the database: on demand, before it is changed by a newer Pleat, and one a day for a week.

Made by SQLite's own backup, which copies a consistent state while others write; a copied file of a running Pleat would lack what
its log still holds.
"""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing
from datetime import date
from pathlib import Path
from typing import Final

from pleat.core.errors import PleatError

DAYS_KEPT: Final = 7
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

    Written beside the target first, so that a file that is there is never half a copy. Raises BadBackup, OSError.
    """
    target.parent.mkdir(parents=True, exist_ok=True)
    made = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        os.close(os.open(made, os.O_RDWR | os.O_CREAT | os.O_TRUNC, 0o600))
        with closing(sqlite3.connect(f"file:{_quoted(database)}?mode=ro", uri=True)) as source, closing(sqlite3.connect(made)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        books = verify(made)
        made.replace(target)
    except sqlite3.Error as error:
        raise BadBackup(f"The copy could not be made: {error}.") from error
    finally:
        made.unlink(missing_ok=True)
    return books


def verify(path: Path) -> int:
    """How many books a copy holds. Raises BadBackup unless it is whole and Pleat's."""
    try:
        with closing(sqlite3.connect(f"file:{_quoted(path)}?mode=ro&immutable=1", uri=True)) as connection:
            tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables >= _TABLES:
                raise BadBackup("The file is no copy of Pleat's books.")
            said = connection.execute("PRAGMA integrity_check(1)").fetchone()[0]
            if said != "ok" or connection.execute("PRAGMA foreign_key_check").fetchone():
                raise BadBackup(f"The file is damaged: {said}.")
            lost = connection.execute(
                "SELECT count(*) FROM books LEFT JOIN revisions ON book_id = id AND number = head WHERE number IS NULL"
            ).fetchone()[0]
            if lost:
                raise BadBackup(f"The file is not whole: {lost} of its books have lost their last state.")
            return int(connection.execute("SELECT count(*) FROM books WHERE binned_at IS NULL").fetchone()[0])
    except sqlite3.Error as error:
        raise BadBackup("The file is no copy of Pleat's books, or it is damaged.") from error


def restore(database: Path, source: Path) -> int:
    """Put a copy in the place of the database's contents; how many books it holds. What was there is copied first.

    The database has to be migrated afterwards, since the copy may be older. Raises BadBackup.
    """
    books = verify(source)
    if database.exists() and database.stat().st_size:
        backup(database, _free(folder(database), "before-restore"))
    try:
        database.parent.mkdir(parents=True, exist_ok=True)
        with (
            closing(sqlite3.connect(f"file:{_quoted(source)}?mode=ro&immutable=1", uri=True)) as copy,
            closing(sqlite3.connect(database, timeout=20)) as target,
        ):
            copy.backup(target)
            target.execute("PRAGMA journal_mode=WAL")
    except sqlite3.Error as error:
        raise BadBackup(f"It could not be put back: {error}. Nothing was changed.") from error
    return books


def before_migration(database: Path, revision: str) -> Path:
    """A copy of a database before its schema changes."""
    target = _free(folder(database), f"before-change-of-{revision}")
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
    for old in sorted(folder(database).glob("day-*.db"))[:-DAYS_KEPT]:
        old.unlink(missing_ok=True)
    return target


def _free(place: Path, name: str) -> Path:
    """A file name that is not taken."""
    number = 1
    while (target := place / f"{name}-{number}.db").exists():
        number += 1
    return target


def _quoted(path: Path) -> str:
    """A path as SQLite's addresses have it."""
    return str(path.absolute()).replace("%", "%25").replace("?", "%3f").replace("#", "%23")
