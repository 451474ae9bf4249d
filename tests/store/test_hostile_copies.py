"""Copies that are broken, foreign or meant ill: each refused with one line before anything is replaced; a
good one brings its rows and nothing else."""

from __future__ import annotations

import json
import os
import shutil
import sqlite3
import sys
from collections.abc import Callable, Iterator
from contextlib import closing
from datetime import datetime
from pathlib import Path

import pytest
from click.testing import CliRunner

from pleat.cli import main
from pleat.core.document.book import FORMAT
from pleat.services import copies
from pleat.store import backups
from pleat.store.backups import BadBackup
from pleat.store.models import Base
from pleat.store.packing import packed
from pleat.store.putting_back import put_back
from tests.store.copying import VERSIONS, contents, of_version, wrecked

Wreck = Callable[[Path], Path]


def says(text: str) -> str:
    """The states of one book say something else."""
    return f"UPDATE revisions SET state = x'{packed(text).hex()}' WHERE book_id = 5"


SCRIPTS = {
    "a trigger that keeps the old state": (
        "CREATE TRIGGER t BEFORE INSERT ON revisions BEGIN SELECT RAISE(IGNORE); END",
        "a trigger (t)",
    ),
    "a trigger that throws away": (
        "CREATE TRIGGER t AFTER UPDATE ON books BEGIN DELETE FROM books WHERE id != new.id; END",
        "a trigger",
    ),
    "a view beside": ("CREATE VIEW more AS SELECT * FROM books", "a view (more)"),
    "a view in the place of a table": (
        "ALTER TABLE practice RENAME TO p2; CREATE VIEW practice AS SELECT * FROM p2",
        "a view (practice)",
    ),
    "a picture that is a page": (
        "INSERT INTO log (book_id, step, kind, text, picture, at) VALUES (1, 'fold', 'noted', '', "
        "CAST('<script>' AS BLOB), '2026-01-01 00:00:00.000000')",
        "number 1 of the log",
    ),
    "a count of copies without end": (
        "INSERT INTO log (book_id, step, kind, text, at) VALUES (1, 'fold', 'ticked', '"
        + "9" * 5000
        + "', '2026-01-01 00:00:00.000000')",
        "number 1 of the log",
    ),
    "an entry of no kind": (
        "INSERT INTO log (book_id, step, kind, text, at) VALUES (1, 'fold', 'sung', '', '2026-01-01 "
        "00:00:00.000000')",
        "number 1 of the log",
    ),
    "a foreign table": ("CREATE TABLE birds (name TEXT)", "“birds”, which Pleat never makes"),
    "a column more": ("ALTER TABLE books ADD COLUMN birds TEXT", "“birds” in the copy's table “books”"),
    "a column that is worked out": (
        "ALTER TABLE items ADD COLUMN t TEXT AS (hex(id))",
        "“t” in the copy's table",
    ),
    "another type": (
        "ALTER TABLE practice DROP COLUMN wrong; ALTER TABLE practice ADD COLUMN wrong TEXT NOT NULL DEFAULT "
        "''",
        "“wrong” in the copy's table “practice”",
    ),
    "no key": (
        "CREATE TABLE p2 AS SELECT * FROM practice; DROP TABLE practice; ALTER TABLE p2 RENAME TO practice",
        "in the copy's table “practice”",
    ),
    "no link": (
        "CREATE TABLE t2 (id INTEGER NOT NULL PRIMARY KEY, book_id INTEGER NOT NULL, step VARCHAR(40) NOT "
        "NULL,"
        " item_id INTEGER NOT NULL, amount INTEGER NOT NULL); DROP TABLE takings; ALTER TABLE t2 RENAME TO "
        "takings",
        "“link from book_id” is missing",
    ),
    "a newer Pleat": (
        "UPDATE alembic_version SET version_num = '9999'",
        "made by a newer Pleat (schema 9999)",
    ),
    "an unknown Pleat": ("UPDATE alembic_version SET version_num = 'abc'", "of no Pleat"),
    "no revision": ("DELETE FROM alembic_version", "does not say which Pleat"),
    "two revisions": ("INSERT INTO alembic_version VALUES ('0001')", "does not say which Pleat"),
    "an older revision than its tables": ("UPDATE alembic_version SET version_num = '0003'", "copy"),
    "a head that is not there": (
        "UPDATE books SET head = 99 WHERE id = 5",
        "1 of its books have lost their last state",
    ),
    "states of no book": ("DELETE FROM books WHERE id = 5", "rows have lost what they belong to"),
    "a version of nothing": ("UPDATE books SET version = 0", "counts nothing"),
    "a version without end": ("UPDATE books SET version = 1 << 61 WHERE id = 5", "counts nothing"),
    "a version that is a text": ("UPDATE books SET version = 'three' WHERE id = 5", "does not belong there"),
    "an id below nothing": ("UPDATE items SET id = -5 WHERE id = 3; DELETE FROM takings", "counts nothing"),
    "a title that is bytes": ("UPDATE books SET title = x'00ff' WHERE id = 5", "does not belong there"),
    "a title in no writing": ("UPDATE books SET title = CAST(x'fffe' AS TEXT) WHERE id = 5", "copy"),
    "a state that is a text": (
        "UPDATE revisions SET state = '{}' WHERE book_id = 5",
        "does not belong there",
    ),
    "a state that is nothing": ("UPDATE revisions SET state = x'' WHERE book_id = 5", "state 1 of book 5"),
    "a state of another packing": ("UPDATE revisions SET state = x'09aabb' WHERE book_id = 5", "a way 9"),
    "a state cut off": ("UPDATE revisions SET state = substr(state, 1, 80) WHERE book_id = 5", "book 5"),
    "a state with more behind it": (
        "UPDATE revisions SET state = CAST(state || x'00' AS BLOB) WHERE book_id = 5",
        "not whole",
    ),
    "a state that bursts": (says("x" * 9_000_000), "not whole"),
    "a state that is no book": (says("[]"), "not a book file"),
    "a state of no text": (says("{"), "cannot be read as JSON"),
    "a book of a newer Pleat": (
        says(json.dumps({"format": FORMAT + 1})),
        "A newer Pleat will open it",
    ),
    "a book that cannot be": (
        says('{"brief": {"leaf_width_mm": 3}}'),
        "too small",
    ),
    "a time that is none": (
        "UPDATE revisions SET made_at = 'yesterday' WHERE book_id = 5",
        "the table “revisions”",
    ),
    "a day that is none": (
        "UPDATE books SET changed_at = '2026-13-45 00:00:00.000000' WHERE id = 5",
        "books",
    ),
    "a time with its zone": (
        "UPDATE books SET created_at = '2026-01-01 10:00:00+02:00' WHERE id = 5",
        "zone",
    ),
    "a time of a device": (
        "INSERT INTO devices VALUES (1, 'x', 'x', 'now', 'now', NULL)",
        "the table “devices”",
    ),
    "a time that is a number": ("UPDATE books SET binned_at = 5 WHERE id = 5", "does not belong there"),
    "a thing of no kind": ("UPDATE items SET kind = 'bird' WHERE id = 3", "there is no kind “bird”"),
    "a thing of another kind": ("UPDATE items SET kind = 'glue' WHERE id = 1", "number 1 of the materials"),
    "a thing without fields": ("UPDATE items SET document = '{}' WHERE id = 1", "number 1 of the materials"),
    "a thing that is no text": ("UPDATE items SET document = '[' WHERE id = 1", "number 1 of the materials"),
    "a count that is a text": ("UPDATE items SET owned = 'many' WHERE id = 1", "does not belong there"),
    "changes newer than their book": ("UPDATE changes SET version = 2 WHERE book_id = 5", ""),
}
"""What is done to a good copy, and what is said of it; "" where it does no harm."""


def cut(at: float) -> Wreck:
    def work(copy: Path) -> Path:
        raw = copy.read_bytes()
        copy.write_bytes(raw[: int(len(raw) * at)])
        return copy

    return work


def flipped(copy: Path) -> Path:
    raw = bytearray(copy.read_bytes())
    for at in range(5000, len(raw), 4096):
        raw[at : at + 40] = b"\x5a" * 40
    copy.write_bytes(raw)
    return copy


def written(raw: bytes) -> Wreck:
    def work(copy: Path) -> Path:
        copy.write_bytes(raw)
        return copy

    return work


def folder(copy: Path) -> Path:
    return copy.parent


def missing(copy: Path) -> Path:
    return copy.with_name("nothing.db")


def pipe(copy: Path) -> Path:
    os.mkfifo(copy.with_name("pipe.db"))
    return copy.with_name("pipe.db")


def in_use(copy: Path) -> Path:
    copy.with_name(copy.name + "-wal").write_bytes(b"x" * 100)
    return copy


def itself(copy: Path) -> Path:
    return copy.with_name("pleat.db")


def linked(copy: Path) -> Path:
    copy.with_name("link.db").symlink_to("pleat.db")
    return copy.with_name("link.db")


def nowhere(copy: Path) -> Path:
    copy.with_name("link.db").symlink_to("not there")
    return copy.with_name("link.db")


def circle(copy: Path) -> Path:
    copy.with_name("link.db").symlink_to("link.db")
    return copy.with_name("link.db")


def long_name(copy: Path) -> Path:
    return copy.with_name("x" * 300)


def other_letters(copy: Path) -> Path:
    """The same rows, kept in UTF-16."""
    with closing(sqlite3.connect(copy)) as good, closing(sqlite3.connect(copy.with_name("wide.db"))) as wide:
        wide.execute("PRAGMA encoding = 'UTF-16'")
        wide.executescript("\n".join(line for line in good.iterdump() if "sqlite_sequence" not in line))
    return copy.with_name("wide.db")


FILES: dict[str, tuple[Wreck, str]] = {
    **{f"cut at {at:.0%}": (cut(at), "copy") for at in (0.001, 0.02, 0.3, 0.9)},
    "scribbled over": (flipped, "copy"),
    "nothing": (written(b""), "no copy"),
    "a text": (written(b"not a copy, though it is called one" * 200), "no copy"),
    "only its first line": (written(b"SQLite format 3\0" + b"\0" * 9000), "copy"),
    "a folder": (folder, "is a folder"),
    "no file": (missing, "There is no file"),
    "a pipe": (pipe, "is no file"),
    "one in use": (in_use, "in use by some program"),
    "the database itself": (itself, "the database itself"),
    "a link to the database": (linked, "the database itself"),
    "a link to nowhere": (nowhere, "There is no file"),
    "a link to itself": (circle, "copy"),
    "a name too long for any disk": (long_name, "cannot be used"),
    "other letters": (other_letters, ""),
}


def dropped() -> Iterator[tuple[str, str]]:
    """Each table and each column taken out, and what is missed."""
    for table in Base.metadata.sorted_tables:
        yield f"DROP TABLE {table.name}", "copy"
        for column in table.columns:
            yield (
                f'ALTER TABLE {table.name} DROP COLUMN "{column.name}"',
                f"“{column.name}” is missing in its table “{table.name}”",
            )


@pytest.fixture
def copy(demo_database: Path, database: Path, tmp_path: Path) -> Path:
    """A copy of the demo beside a database with the demo in it."""
    shutil.copyfile(demo_database, database)
    backups.backup(demo_database, tmp_path / "copy.db")
    return tmp_path / "copy.db"


def refused(database: Path, given: Path, words: str) -> None:
    before = contents(database)
    with pytest.raises(BadBackup) as caught:
        copies.restore(database, given)
    assert words in caught.value.text, caught.value.text
    assert "\n" not in caught.value.text
    assert contents(database) == before
    left = backups.folder(database)
    assert not left.exists() or [one.name for one in left.iterdir()] == [], (
        "nothing of it is left lying about"
    )


@pytest.mark.parametrize("name", [name for name, (_, words) in SCRIPTS.items() if words])
def test_a_copy_that_was_changed_is_refused_in_one_line(copy, database, name):
    script, words = SCRIPTS[name]
    refused(database, wrecked(copy, script), words)


@pytest.mark.parametrize("name", FILES)
def test_a_file_that_is_no_copy_is_refused_in_one_line(copy, database, name):
    work, words = FILES[name]
    refused(database, work(copy), words)


def test_each_table_and_each_column_is_missed(copy, database, tmp_path):
    tried = 0
    for number, (script, words) in enumerate(dropped()):
        other = tmp_path / f"{number}.db"
        shutil.copyfile(copy, other)
        try:
            wrecked(other, script)
        except sqlite3.OperationalError:  # SQLite drops no column of a key or an index
            continue
        refused(database, other, words)
        tried += 1
    assert tried > 30


@pytest.mark.parametrize(
    "script",
    [
        "UPDATE items SET document = '{', uses = '' WHERE kind = 'paper'",
        "UPDATE items SET document = '[]', uses = '' WHERE kind = 'paper'",
        "UPDATE revisions SET document = '{'",
        "UPDATE revisions SET document = CAST(x'ff' AS TEXT)",
    ],
)
def test_an_older_copy_that_cannot_be_brought_up_to_date_is_refused_in_one_line(
    copy, database, tmp_path, script
):
    refused(database, wrecked(of_version(VERSIONS[0], tmp_path), script), "copy")


def test_the_command_line_says_it_in_one_line(copy, database):
    for work, words in list(FILES.values())[4:12]:
        given = work(copy)
        said = CliRunner().invoke(main, ["restore", str(given), "--database", str(database)])
        assert said.exit_code == 1
        assert said.output.count("\n") == 1, said.output
        assert words in said.output


def test_what_a_copy_has_drawn_and_sorted_is_made_anew(copy, database):
    """A summary is markup in the page of the books: none comes from outside. Nor does what things are
    searched by."""
    wrecked(
        copy,
        """UPDATE books SET summary = '{"portrait": "<form action=/bin/empty>"}',
            title = '<b>'; UPDATE items SET words = '', uses = ',x,'""",
    )
    copies.restore(database, copy)
    with closing(sqlite3.connect(database)) as connection:
        assert connection.execute(
            "SELECT count(*) FROM books WHERE summary LIKE '%form%' OR title = '<b>'"
        ).fetchone() == (0,)
        assert connection.execute(
            "SELECT count(*) FROM items WHERE words = '' OR uses = ',x,'"
        ).fetchone() == (0,)


def test_a_full_disk_leaves_all_as_it_was(copy, database, monkeypatch):
    """Whichever write the disk has no room for: the copy of the copy, the copy of what is there, the swap
    itself."""

    def full(*_: object, **__: object) -> None:
        raise OSError(28, "No space left on device", str(database))

    before = contents(database)
    for module, name in ((sys.modules["shutil"], "copyfile"), (os, "open")):
        with monkeypatch.context() as patched:
            patched.setattr(module, name, full)
            with pytest.raises(BadBackup, match="No space left on device"):
                copies.restore(database, copy)
    with closing(sqlite3.connect(database)) as connection:
        pages = connection.execute("PRAGMA page_count").fetchone()[0]
    real = sqlite3.connect

    def small(*args: object, **more: object) -> sqlite3.Connection:
        made: sqlite3.Connection = real(*args, **more)  # type: ignore[call-overload]
        if more.get("timeout"):
            made.execute(f"PRAGMA max_page_count = {pages}")
        return made

    big = wrecked(copy, "UPDATE changes SET label = hex(randomblob(100000))")
    with monkeypatch.context() as patched:
        patched.setattr(sqlite3, "connect", small)
        with pytest.raises(BadBackup, match="full"):
            copies.restore(database, big)
    assert contents(database) == before


def test_rows_are_taken_over_and_nothing_else(copy, database):
    """A trigger that a database already has would keep a copy from being put back: it goes."""
    wrecked(database, "CREATE TRIGGER t BEFORE DELETE ON books BEGIN SELECT RAISE(IGNORE); END")
    wrecked(
        copy,
        "DELETE FROM books WHERE id > 3; DELETE FROM revisions WHERE book_id > 3; DELETE FROM changes WHERE "
        "book_id > 3;DELETE FROM takings",
    )
    assert copies.restore(database, copy).books == 3
    with closing(sqlite3.connect(database)) as connection:
        assert connection.execute("SELECT count(*), min(version) > 1 FROM books").fetchone() == (3, 1)
        assert connection.execute("SELECT count(*) FROM sqlite_master WHERE type = 'trigger'").fetchone() == (
            0,
        )


def test_a_copy_that_does_not_fit_is_put_back_not_at_all(copy, database):
    """Straight to the swap, as if nothing had been verified: SQLite's own rules still hold, and all of it is
    taken back."""
    before = contents(database)
    wrecked(copy, "UPDATE changes SET version = 9 WHERE book_id = 5; DELETE FROM books WHERE id = 4")
    with pytest.raises(BadBackup):
        put_back(database, copy, datetime(2026, 1, 1))
    assert contents(database) == before
