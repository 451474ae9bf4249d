"""Putting a copy in the place of everything, while others read and want to write.

One transaction holds the database from the moment it is copied to the moment the copy's rows stand in it:
what was acknowledged before is in the copy that was made of it, what is asked for afterwards belongs to a new
epoch. Rows are taken over, tables are not: whatever a foreign file has beside its rows stays there.
"""

from __future__ import annotations

import secrets
import sqlite3
from contextlib import closing, suppress
from datetime import datetime
from pathlib import Path
from typing import Final

from pleat.store import backups
from pleat.store.backups import BadBackup, address
from pleat.store.models import Base, DeviceRow, EpochRow

_OURS: Final = {EpochRow.__tablename__, DeviceRow.__tablename__}
"""What is not taken from a copy: it is of this database and this machine."""
WAITS_S: Final = 20.0


def put_back(database: Path, prepared: Path, now: datetime) -> Path:
    """Put the rows of a copy, which was verified and migrated, in the place of the database's own; where what
    was there is kept.

    Raises BadBackup, and then nothing was changed.
    """
    try:
        with closing(
            sqlite3.connect(address(database, "mode=rw"), uri=True, timeout=WAITS_S, isolation_level=None)
        ) as connection:
            connection.execute("PRAGMA foreign_keys=OFF")
            connection.execute("PRAGMA synchronous=FULL")
            connection.execute("ATTACH DATABASE ? AS given", (address(prepared, "mode=ro&immutable=1"),))
            connection.execute("BEGIN IMMEDIATE")
            try:
                kept = backups.free_name(
                    backups.folder(database), "before-restore"
                )  # under the lock, so that no other takes the name
                backups.backup(database, kept)
                _take_over(connection, now)
                connection.execute("COMMIT")
            except BaseException:
                with suppress(sqlite3.Error):
                    connection.execute("ROLLBACK")
                raise
            with suppress(sqlite3.Error):  # others may still be reading; it is done then when they close
                connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    except sqlite3.Error as error:
        raise BadBackup(f"The copy could not be put back: {error}.") from error
    return kept


def _take_over(connection: sqlite3.Connection, now: datetime) -> None:
    stamp = now.isoformat(" ", "microseconds")
    for kind, name in connection.execute(
        "SELECT type, name FROM main.sqlite_master WHERE type IN ('trigger', 'view')"
    ).fetchall():
        connection.execute(f'DROP {kind} main."{name}"')
    above = connection.execute(
        "SELECT max(coalesce((SELECT max(version) FROM main.books), 0), coalesce((SELECT max(version) FROM "
        "main.items), 0))"
    ).fetchone()[0]
    for table in Base.metadata.sorted_tables:
        if table.name in _OURS:
            continue
        columns = ", ".join(f'"{column.name}"' for column in table.columns)
        connection.execute(f'DELETE FROM main."{table.name}"')
        connection.execute(
            f'INSERT INTO main."{table.name}" ({columns}) SELECT {columns} FROM given."{table.name}"'
        )
    # no version and no number is met twice: what a page or a search in the background still knows fits
    # nothing that is here now
    for versioned in ("books", "items"):
        connection.execute(f"UPDATE main.{versioned} SET version = max(version, ?) + 1", (above,))
    connection.execute(
        "INSERT INTO main.changes (book_id, version, window, label, made_at) SELECT id, version, '', 'a copy "
        "was put back', ? FROM main.books",
        (stamp,),
    )
    connection.execute(
        "UPDATE main.sqlite_sequence SET seq = max(seq, coalesce((SELECT seq FROM given.sqlite_sequence AS "
        "other WHERE other.name ="
        " main.sqlite_sequence.name), 0))"
    )
    connection.execute(
        "INSERT INTO main.epochs (token, begun_at) VALUES (?, ?)", (secrets.token_hex(8), stamp)
    )
    if connection.execute("PRAGMA main.foreign_key_check").fetchone():
        raise BadBackup("The copy is not whole: some of its rows belong to nothing.")
