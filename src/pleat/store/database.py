"""Opening the database: one engine a process, one transaction a request, and the migrations run at the
start."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import Final

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from pleat.core.base.errors import PleatError
from pleat.store import backups

_PRAGMAS: Final = ("journal_mode=WAL", "synchronous=FULL", "busy_timeout=5000")
MIGRATIONS: Final = Path(__file__).parent / "migrations"


def open_engine(path: Path | str, foreign_keys: bool = True) -> Engine:
    """An engine on the SQLite file at ``path``: WAL, synced on every commit, foreign keys on except for
    migrations."""
    engine = create_engine(
        URL.create("sqlite", database=str(path))
    )  # by parts: a ? or % in a name is part of the name

    @event.listens_for(engine, "connect")
    def _connect(connection: sqlite3.Connection, _: object) -> None:
        connection.isolation_level = (
            None  # the driver's own BEGIN comes too late and lets writers read stale rows
        )
        switch = "ON" if foreign_keys else "OFF"
        for pragma in (*_PRAGMAS, f"foreign_keys={switch}"):
            connection.execute(f"PRAGMA {pragma}").close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        reading = connection.get_execution_options().get("reading", False)
        connection.exec_driver_sql("BEGIN" if reading else "BEGIN IMMEDIATE")

    return engine


@contextmanager
def transaction(engine: Engine, reading: bool = False) -> Iterator[Session]:
    """A session in one transaction: committed at the end, rolled back on any error.

    A writing one takes the write lock at its beginning, so that it never finds out at its end that it may
    not.
    """
    with (
        engine.connect().execution_options(reading=reading) as connection,
        Session(connection, expire_on_commit=False) as session,
        connection.begin(),
    ):
        yield session
        session.flush()


class CannotOpen(PleatError):
    """A file that is no database of this Pleat, or cannot be used; ``text`` says in one line why."""

    def __init__(self, text: str) -> None:
        self.text = text
        super().__init__(text)


def migrate(path: Path | str, revision: str = "head") -> None:
    """Bring the database at ``path`` to a schema revision, making the file when there is none, readable only
    by its owner.

    A database that has to change is copied first (``backups``). Raises CannotOpen for a file that is none, is
    broken, or comes from a newer Pleat.
    """
    path = Path(path)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        os.close(os.open(path, os.O_RDWR | os.O_CREAT, 0o600))
        path.chmod(0o600)
    except OSError as error:
        raise CannotOpen(f"{path} cannot be written to ({error.strerror}).") from error
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["engine"] = open_engine(path, foreign_keys=False)
    try:
        scripts = ScriptDirectory.from_config(config)
        present, wanted = (
            _present(path, scripts),
            scripts.get_current_head() if revision == "head" else revision,
        )
        if present != wanted:
            if present:
                backups.before_migration(path, present)
            command.upgrade(config, revision)
            if present:
                with (
                    suppress(sqlite3.Error),
                    closing(sqlite3.connect(path)) as connection,
                ):  # it may hold far less than before
                    connection.execute("VACUUM")
    except sqlite3.Error as error:
        raise CannotOpen(f"{path} cannot be opened: {error}.") from error
    except SQLAlchemyError as error:
        raise CannotOpen(f"{path} cannot be opened: {getattr(error, 'orig', error)}.") from error
    finally:
        config.attributes["engine"].dispose()


def _present(path: Path, scripts: ScriptDirectory) -> str:
    """The schema revision of the file, "" for an empty one. Raises CannotOpen for one that is not Pleat's or
    is newer."""
    with closing(sqlite3.connect(path)) as connection:
        tables = {
            name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        }
        if not tables - {"sqlite_sequence"}:
            return ""
        if not {"alembic_version", "books"} <= tables:
            raise CannotOpen(
                f"{path} is a database of another program: Pleat leaves it alone. Name another file."
            )
        rows = connection.execute("SELECT version_num FROM alembic_version").fetchall()
    present = str(rows[0][0]) if rows else ""
    if present not in {script.revision for script in scripts.walk_revisions()}:
        raise CannotOpen(
            f"{path} was made by a newer Pleat (schema {present or 'unknown'}): open it with that one."
        )
    return present


def close(engine: Engine) -> None:
    """Close a database so that its file is all there is of it: what the log still holds is written into
    it."""
    with suppress(SQLAlchemyError), engine.connect() as connection:
        connection.connection.driver_connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").close()  # type: ignore[union-attr]
    engine.dispose()
