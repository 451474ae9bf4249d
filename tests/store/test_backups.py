"""Copies: consistent while others write, checked, put back whole; foreign, newer and broken files told in a
line; history thinned."""

from __future__ import annotations

import sqlite3
import stat
import threading
from contextlib import closing
from datetime import date, datetime, timedelta
from functools import partial

import pytest
from click.testing import CliRunner

from pleat.cli import main
from pleat.core.document.book import Book
from pleat.core.materials.items import Paper
from pleat.services import books, copies, library, materials
from pleat.services.clock import now
from pleat.store import backups, items, whole
from pleat.store import books as repository
from pleat.store.database import CannotOpen, close, migrate, open_engine, transaction


@pytest.fixture
def engine(database):
    migrate(database)
    made = open_engine(database)
    yield made
    made.dispose()


def add(engine, title="Dark-sky log"):
    with transaction(engine) as session:
        return books.add(session, Book(title=title), "one", "made")


def titles(database):
    with closing(sqlite3.connect(database)) as connection:
        return sorted(row[0] for row in connection.execute("SELECT title FROM books"))


def test_a_copy_made_while_books_are_changed_is_whole(engine, database, tmp_path):
    book_id = add(engine)
    stop = threading.Event()

    def titled(title, book):
        return book.model_copy(update={"title": title})

    def write():
        number = 0
        while not stop.is_set():
            number += 1
            with transaction(engine) as session:
                books.change(session, book_id, None, "w", "x", partial(titled, f"Log {number}"))

    writer = threading.Thread(target=write)
    writer.start()
    try:
        for copy in range(4):
            assert backups.backup(database, tmp_path / f"{copy}.db") == 1
    finally:
        stop.set()
        writer.join()
    for copy in range(4):
        assert whole.verify(tmp_path / f"{copy}.db")
    assert [one.name for one in tmp_path.glob(".*part")] == []


def test_a_copy_comes_back_and_what_was_there_is_kept(engine, database, tmp_path):
    add(engine, "First")
    copy = tmp_path / "copy.db"
    backups.backup(database, copy)
    add(engine, "Second")
    back = copies.restore(database, copy)
    assert (back.books, titles(database), titles(back.kept)) == (1, ["First"], ["First", "Second"])
    assert add(engine, "Third") == 3, "the number of a book that is gone is given to no other"


def test_the_command_line_copies_restores_and_writes_everything_out(engine, database, tmp_path):
    add(engine, "Sternbuch für Zoë")
    add(engine, "नक्षत्र")
    with transaction(engine) as session:
        items.add(session, Paper(name="＝Chart", sheet_width_mm=210, sheet_height_mm=297), now())
    run = CliRunner().invoke
    database_ = ["--database", str(database)]
    assert "2 books" in run(main, ["backup", str(tmp_path / "a.db"), *database_]).output
    add(engine, "Third")
    assert "2 books are back" in run(main, ["restore", str(tmp_path / "a.db"), *database_]).output
    assert run(main, ["restore", str(database.parent / "secret.none"), *database_]).exit_code == 1
    out = run(main, ["export", str(tmp_path / "all"), *database_]).output
    assert "2 books and 1 materials" in out
    assert sorted(one.name for one in (tmp_path / "all").iterdir()) == [
        "materials.csv",
        "sternbuch-für-zoë.pleat.json",
        "नक्षत्र.pleat.json",
    ]
    assert "'＝Chart" in (tmp_path / "all/materials.csv").read_text(encoding="utf-8-sig"), (
        "no spreadsheet takes it for a formula"
    )
    assert (
        run(main, ["backup", str(tmp_path / "b.db"), "--database", str(tmp_path / "none.db")]).exit_code == 1
    )


def test_what_is_no_database_of_this_pleat_is_told_in_a_line(tmp_path):
    broken, foreign, newer = tmp_path / "broken.db", tmp_path / "foreign.db", tmp_path / "newer.db"
    broken.write_bytes(b"not a database, though it is called one" * 50)
    with closing(sqlite3.connect(foreign)) as connection:
        connection.execute("CREATE TABLE birds (name TEXT)")
    migrate(newer)
    with closing(sqlite3.connect(newer)) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
        connection.commit()
    for path, words in ((broken, "cannot be opened"), (foreign, "another program"), (newer, "newer Pleat")):
        with pytest.raises(CannotOpen, match=words):
            migrate(path)
        said = CliRunner().invoke(main, ["serve", "--port", "0", "--database", str(path)])
        assert said.exit_code == 1
        assert said.output.count("\n") == 1, said.output
    odd = tmp_path / "log?mode=x%20y#1.db"
    migrate(odd)
    assert odd.exists(), "signs of an address in a name are part of the name"
    assert stat.S_IMODE(odd.stat().st_mode) == 0o600
    assert add(open_engine(odd)) == 1


def test_one_a_day_for_a_week_and_one_before_a_change(engine, database, tmp_path):
    add(engine)
    for day in range(10):
        assert backups.daily(database, date(2026, 3, 1) + timedelta(days=day))
    assert backups.daily(database, date(2026, 3, 10)) is None
    kept = sorted(one.name for one in backups.folder(database).glob("day-*"))
    assert (len(kept), kept[0]) == (7, "day-2026-03-04.db")
    old = tmp_path / "old.db"
    migrate(old, "0002")
    migrate(old)
    assert [one.name for one in backups.folder(old).iterdir()] == ["before-change-of-0002-1.db"]


def test_a_database_that_was_closed_is_one_file(engine, database, tmp_path):
    add(engine)
    close(engine)
    (tmp_path / "alone.db").write_bytes(database.read_bytes())
    assert titles(tmp_path / "alone.db") == ["Dark-sky log"]


def test_history_keeps_named_states_the_last_edits_and_one_a_day(engine):
    book_id = add(engine)
    with transaction(engine) as session:
        repository.name_point(session, book_id, 1, "as first thought of")
    for number in range(repository.EDITS_KEPT + 60):
        with transaction(engine) as session:
            stored = repository.load(session, book_id)
            day = datetime(2026, 1, 1) + timedelta(hours=12 * number)
            repository.save(
                session,
                stored,
                stored.book.model_copy(update={"title": f"Log {number}"}),
                "{}",
                "w",
                f"edit {number}",
                now=day,
            )
    with transaction(engine) as session:
        points = repository.history(session, book_id)
        assert (points[-1].name, points[0].shown) == ("as first thought of", True)
        assert len(points) == repository.EDITS_KEPT + 1
        book, called = repository.at_point(session, book_id, 1)
        assert (book.title, called) == ("Dark-sky log", "as first thought of")
        steps = 0
        while repository.step(session, book_id, -1, "w", now()):
            steps += 1
    assert repository.EDITS_KEPT <= steps < repository.EDITS_KEPT + 60, "undo steps over what was thinned out"
    with transaction(engine, reading=True) as session:
        assert repository.load(session, book_id).book.title == "Dark-sky log"


def test_the_bin_is_emptied_for_good(engine):
    kept, gone = add(engine, "Kept"), add(engine, "Gone")
    with transaction(engine) as session:
        repository.move_to_bin(session, gone, now())
        assert repository.empty_bin(session, [kept, gone, 99]) == 1
    with transaction(engine, reading=True) as session:
        assert [one.id for one in library.listing(session, "", 1)[0]] == [kept]
        assert repository.history(session, kept)


def test_flipping_the_ruler_or_the_same_title_is_no_step(engine):
    book_id = add(engine)

    def change(version, **values):
        def alter(book):
            brief = (
                book.brief.on(values["ruler"]) if "ruler" in values else book.brief.model_copy(update=values)
            )
            return book.model_copy(update=values if "title" in values else {"brief": brief})

        with transaction(engine) as session:
            return books.change(session, book_id, version, "w", "x", alter).opened.stored

    change(1, leaf_width_mm=120.0)
    with transaction(engine) as session:
        books.undo(session, book_id, -1, None, "w")
    stored = change(None, ruler="in")
    assert (stored.can_undo, stored.can_redo, stored.book.brief.ruler) == ("", "x", "in"), (
        "what can be redone stays"
    )
    assert change(None, title="Dark-sky log").can_redo == "x"
    with transaction(engine) as session:
        assert books.undo(session, book_id, 1, None, "w").opened.book.brief.ruler == "in", (
            "the ruler stays as it is"
        )


def test_an_old_page_of_a_material_does_not_bring_its_count_back(engine):
    with transaction(engine) as session:
        paper = items.add(
            session,
            Paper(name="Chart", sheet_width_mm=210, sheet_height_mm=297, owned=120, tags="old"),
            now(),
        )
        shown = {
            name: materials.text_of(items.load(session, paper).item, "paper", name, "mm")
            for name in ("name", "tags", "owned")
        }
        materials.set_fields(session, paper, owned=90)
        stored = materials.edit(session, paper, {**shown, "tags": "new"}, "mm", 1, shown)
        assert (stored.item.owned, stored.item.tags, stored.version) == (90, "new", 3)
        for version in (1, 99):
            with pytest.raises(items.ItemChanged) as caught:
                materials.edit(session, paper, {**shown, "owned": "100"}, "mm", version, shown)
            assert caught.value.fields == ("owned",)
        assert materials.edit(session, paper, {**shown, "owned": "100"}, "mm", None, shown).item.owned == 100
