"""Whether a file is a whole copy of Pleat's books: it has the tables of its own time and nothing else, and in
them what belongs there.

A copy comes from wherever the maker kept it, and may have been changed there. What a table, a trigger or a
view of a foreign file would do once it was ours is found before anything is replaced. What the states of the
books say is read by ``services.copies``.
"""

from __future__ import annotations

import sqlite3
import stat
import tempfile
from contextlib import closing
from functools import cache
from pathlib import Path
from typing import Any, Final

from alembic.config import Config
from alembic.script import ScriptDirectory

from pleat.store.backups import BadBackup, address
from pleat.store.database import MIGRATIONS, migrate

_HELD: Final = {
    "INTEGER": "'integer'",
    "BOOLEAN": "'integer'",
    "FLOAT": "'real', 'integer'",
    "BLOB": "'blob'",
}
"""What a column of a declared type holds; all others hold texts."""
_NUMBERS: Final = (
    ("books", "id"),
    ("books", "version"),
    ("books", "head"),
    ("revisions", "number"),
    ("changes", "version"),
    ("items", "id"),
    ("items", "version"),
)
_LARGEST: Final = 2**53
"""Numbers that count something stay far below; larger ones would not be counted on."""
_IN_USE: Final = ("-wal", "-journal")


def verify(path: Path) -> str:
    """The schema revision of a copy that is whole. Raises BadBackup with one line that says why it is
    none."""
    _is_file(path)
    try:
        with closing(sqlite3.connect(address(path, "mode=ro&immutable=1"), uri=True)) as connection:
            connection.execute("PRAGMA trusted_schema=OFF")
            revision = _revision(connection)
            _only_tables(connection)
            said = str(connection.execute("PRAGMA integrity_check(1)").fetchone()[0]).splitlines()[0]
            if said != "ok" or connection.execute("PRAGMA foreign_key_check").fetchone():
                trouble = "rows have lost what they belong to" if said == "ok" else said
                raise BadBackup(f"The file is damaged: {trouble}.")
            _shaped(connection, revision)
            _held(connection)
            return revision
    except (sqlite3.Error, UnicodeDecodeError) as error:
        raise BadBackup("The file is no copy of Pleat's books, or it is damaged.") from error


def _is_file(path: Path) -> None:
    """Raises BadBackup, also for a database that some program has open: part of it may be in a second
    file."""
    try:
        about = path.stat()
        if not stat.S_ISREG(about.st_mode):
            what = "a folder" if stat.S_ISDIR(about.st_mode) else "no file"
            raise BadBackup(f"{path} is {what}, and no copy of Pleat's books.")
        for end in _IN_USE:
            beside = path.with_name(path.name + end)
            if beside.exists() and beside.stat().st_size:
                raise BadBackup(
                    f"{path} is in use by some program, or was not closed: make a copy of it with “pleat "
                    "backup” first."
                )
        with path.open("rb") as file:
            if file.read(16) != b"SQLite format 3\0":
                raise BadBackup("The file is no copy of Pleat's books.")
    except FileNotFoundError as error:
        raise BadBackup(f"There is no file {path}.") from error
    except OSError as error:
        raise BadBackup(f"{path} cannot be read ({error.strerror}).") from error


def _revision(connection: sqlite3.Connection) -> str:
    """The schema revision that a copy says it has."""
    tables = {
        str(name) for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    }
    if not {"alembic_version", "books"} <= tables:
        raise BadBackup("The file is no copy of Pleat's books: it is a database of another program.")
    rows = connection.execute("SELECT version_num FROM alembic_version").fetchall()
    if len(rows) != 1 or not isinstance(rows[0][0], str):
        raise BadBackup("The file is not whole: it does not say which Pleat it is of.")
    known = _revisions()
    if rows[0][0] not in known:
        if rows[0][0].isdecimal() and rows[0][0] > max(known):
            raise BadBackup(
                f"The copy was made by a newer Pleat (schema {rows[0][0][:20]}): put it back with that one."
            )
        raise BadBackup("The file is of no Pleat that this one knows of.")
    return rows[0][0]


@cache
def _revisions() -> frozenset[str]:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return frozenset(str(script.revision) for script in ScriptDirectory.from_config(config).walk_revisions())


def _only_tables(connection: sqlite3.Connection) -> None:
    """Pleat makes tables and indexes; anything else acts by itself, or shows what is not there."""
    row = connection.execute(
        "SELECT type, name FROM sqlite_master WHERE type NOT IN ('table', 'index') ORDER BY name"
    ).fetchone()
    if row:
        raise BadBackup(
            f"The copy holds a {row[0]} ({str(row[1])[:40]}), which Pleat never makes: it would change or "
            "hide what is kept."
        )


Shape = dict[str, dict[str, tuple[Any, ...]]]
"""By table: its columns with type, whether they may be empty and their place in the key; and what it points
to."""


def _shape(connection: sqlite3.Connection) -> Shape:
    found: Shape = {}
    names = [
        str(row[0])
        for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")
    ]
    for name in names:
        if name.startswith("sqlite_"):
            continue
        columns = connection.execute(
            'SELECT name, upper(type), "notnull", pk, hidden FROM pragma_table_xinfo(?)', (name,)
        ).fetchall()
        points = connection.execute(
            'SELECT "from", "table", "to", on_delete FROM pragma_foreign_key_list(?)', (name,)
        ).fetchall()
        found[name] = {str(row[0]): tuple(row[1:]) for row in columns} | {
            f"link from {row[0]}": tuple(row[1:]) for row in points
        }
    return found


@cache
def _made_by(revision: str) -> Shape:
    """The shape that a database of a revision has, read off one that is made for it."""
    with tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "shape.db"
        migrate(made, revision)
        with closing(sqlite3.connect(made)) as connection:
            return _shape(connection)


def _shaped(connection: sqlite3.Connection, revision: str) -> None:
    """Raises BadBackup unless the tables are those of the file's own revision, column by column."""
    wanted, has = _made_by(revision), _shape(connection)
    for table in sorted(wanted.keys() | has.keys()):
        if table not in has:
            raise BadBackup(f"The copy is not whole: its table “{table}” is missing.")
        if table not in wanted:
            raise BadBackup(f"The copy holds a table “{table[:40]}”, which Pleat never makes.")
        for column in sorted(wanted[table].keys() | has[table].keys()):
            if column not in has[table]:
                raise BadBackup(f"The copy is not whole: “{column}” is missing in its table “{table}”.")
            if wanted[table].get(column) != has[table][column]:
                raise BadBackup(f"“{column[:40]}” in the copy's table “{table}” is not as Pleat makes it.")


def _held(connection: sqlite3.Connection) -> None:
    """Raises BadBackup for a column that holds what it cannot hold; SQLite itself would not mind."""
    for table, columns in _shape(connection).items():
        for column, about in columns.items():
            if column.startswith("link from "):
                continue
            held = _HELD.get(about[0], "'text'") + ("" if about[1] or about[2] else ", 'null'")
            if connection.execute(
                f'SELECT 1 FROM "{table}" WHERE typeof("{column}") NOT IN ({held}) LIMIT 1'
            ).fetchone():
                raise BadBackup(
                    f"“{column}” in the copy's table “{table}” holds something that does not belong there."
                )
    there = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    for table, column in _NUMBERS:
        if table in there and column in {
            row[1] for row in connection.execute(f'PRAGMA table_info("{table}")')
        }:
            wild = f'SELECT 1 FROM "{table}" WHERE "{column}" NOT BETWEEN 1 AND {_LARGEST} LIMIT 1'
            if connection.execute(wild).fetchone():
                raise BadBackup(
                    f"“{column}” in the copy's table “{table}” holds a number that counts nothing."
                )
    lost = connection.execute(
        "SELECT count(*) FROM books LEFT JOIN revisions ON book_id = id AND number = head WHERE number IS "
        "NULL"
    ).fetchone()[0]
    if lost:
        raise BadBackup(f"The copy is not whole: {lost} of its books have lost their last state.")
