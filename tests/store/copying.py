"""Databases of a maker to be copied, wrecked and put back, and what is in them."""

from __future__ import annotations

import gzip
import hashlib
import sqlite3
from contextlib import closing
from pathlib import Path

VERSIONS = sorted(
    Path(__file__).parent.glob("versions/*.db.gz"),
    key=lambda one: [int(part) for part in one.name[:-6].split(".")],
)
"""A database of each version, made with the last commit before the next one: each of its first books edited
four times, one edit of it undone, a step ticked, a state named where that could be, the second book in the
bin."""
SECOND = 2


def of_version(file: Path, into: Path) -> Path:
    """That database, as a file of its own."""
    made = into / file.name.removesuffix(".gz")
    made.write_bytes(gzip.decompress(file.read_bytes()))
    return made


def contents(database: Path) -> str:
    """All rows of all tables, as a mark that is equal where they are."""
    made = hashlib.sha256()
    with closing(sqlite3.connect(database)) as connection:
        for line in connection.iterdump():
            made.update(line.encode())
    return made.hexdigest()


def wrecked(copy: Path, script: str) -> Path:
    """A copy changed by a script; what it would do to its own rows by foreign keys is not done."""
    with closing(sqlite3.connect(copy, isolation_level=None)) as connection:
        connection.executescript(
            "PRAGMA foreign_keys=OFF; PRAGMA legacy_alter_table=ON; PRAGMA journal_mode=DELETE;"
        )
        connection.executescript(script)
    return copy
