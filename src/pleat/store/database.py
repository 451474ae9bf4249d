"""Opening the database: one engine a process, one transaction a request, and the migrations run at the start."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, Final

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session

_PRAGMAS: Final = ("journal_mode=WAL", "synchronous=FULL", "busy_timeout=5000")
MIGRATIONS: Final = Path(__file__).parent / "migrations"


def open_engine(path: Path | str, foreign_keys: bool = True) -> Engine:
    """An engine on the SQLite file at ``path``: WAL, synced on every commit, foreign keys on except for migrations."""
    engine = create_engine(f"sqlite:///{path}")

    @event.listens_for(engine, "connect")
    def _connect(connection: sqlite3.Connection, _: Any) -> None:
        connection.isolation_level = None  # the driver's own BEGIN comes too late and lets writers read stale rows
        for pragma in (*_PRAGMAS, f"foreign_keys={'ON' if foreign_keys else 'OFF'}"):
            connection.execute(f"PRAGMA {pragma}").close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        reading = connection.get_execution_options().get("reading", False)
        connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")

    return engine


@contextmanager
def transaction(engine: Engine, reading: bool = False) -> Iterator[Session]:
    """A session in one transaction: committed at the end, rolled back on any error.

    A writing one takes the write lock at its beginning, so that it never finds out at its end that it may not.
    """
    with (
        engine.connect().execution_options(reading=reading) as connection,
        Session(connection, expire_on_commit=False) as session,
        connection.begin(),
    ):
        yield session
        session.flush()


def migrate(path: Path | str, revision: str = "head") -> None:
    """Bring the database at ``path`` to a schema revision, making the file when there is none."""
    Path(path).parent.mkdir(parents=True, exist_ok=True)
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["engine"] = open_engine(path, foreign_keys=False)
    try:
        command.upgrade(config, revision)
    finally:
        config.attributes["engine"].dispose()
