"""The store: revisions, undo across restarts, the bin, migrations, and writers that meet."""

from __future__ import annotations

import sqlite3
from concurrent.futures import ThreadPoolExecutor

import pytest
from sqlalchemy import inspect
from sqlalchemy.exc import IntegrityError

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.services import books, library, offered, starting
from pleat.services.clock import now
from pleat.services.starting import Answers
from pleat.store import books as repository
from pleat.store.books import ChangedElsewhere, NoSuchBook
from pleat.store.database import migrate, open_engine, transaction
from pleat.store.models import Base, ChangeRow, RevisionRow


@pytest.fixture
def engine(database):
    migrate(database)
    engine = open_engine(database)
    yield engine
    engine.dispose()


def add(engine, book=None):
    with transaction(engine) as session:
        return books.add(session, book or Book(title="Dark-sky log"), "one", "started")


def edit(engine, book_id, version, window, **texts):
    with transaction(engine) as session:
        return books.change(
            session,
            book_id,
            version,
            window,
            "edit",
            lambda book: editing.edit(book, {k.replace("__", "."): v for k, v in texts.items()}),
        )


def square(engine, book_id):
    with transaction(engine, reading=True) as session:
        return repository.load(session, book_id).book.cover.square_mm


def undo(engine, book_id, by, version, window="one"):
    with transaction(engine) as session:
        return books.undo(session, book_id, by, version, window)


def test_undo_and_redo_across_a_restart(engine, database):
    book_id = add(engine)
    for version, value in enumerate(("4", "5", "6"), 1):
        assert edit(engine, book_id, version, "one", cover__square_mm=value).changed == (
            "cover",
            "cutting",
            "bench",
        )
    assert undo(engine, book_id, -1, 4).opened.stored.can_redo == "edit"
    engine.dispose()
    again = open_engine(database)
    undo(again, book_id, -1, 5)
    assert square(again, book_id) == 4
    undo(again, book_id, 1, 6)
    assert square(again, book_id) == 5
    outcome = edit(again, book_id, 7, "one", cover__square_mm="9")
    assert outcome.opened.stored.can_redo == "", "a new edit gives up what was undone"
    for _ in range(5):
        undo(again, book_id, -1, None)
    assert square(again, book_id) == 3
    assert undo(again, book_id, -1, None).opened.stored.can_undo == ""
    again.dispose()


def test_a_second_window_is_told_and_can_take_over(engine):
    book_id = add(engine)
    edit(engine, book_id, 1, "one", cover__square_mm="4")
    with pytest.raises(ChangedElsewhere) as caught:
        edit(engine, book_id, 1, "two", cover__square_mm="7")
    assert caught.value.label == "edit"
    assert square(engine, book_id) == 4
    assert edit(engine, book_id, 1, "one", cover__square_mm="5").opened.stored.version == 3, (
        "its own edits never stop a window"
    )
    for version in (1, 99, 0, -1):
        with pytest.raises(
            ChangedElsewhere
        ):  # an edit that changes nothing must not hand a stale window the newest version
            edit(engine, book_id, version, "two", cover__square_mm="5")
    with pytest.raises(ChangedElsewhere):
        undo(engine, book_id, -1, 1, "two")
    taken = edit(engine, book_id, None, "two", cover__square_mm="7")
    assert len(taken.changed) == 8
    assert square(engine, book_id) == 7


def test_nothing_is_half_written(engine):
    book_id = add(engine)
    with pytest.raises(BadBook):
        edit(engine, book_id, 1, "one", cover__square_mm="5", brief__quantity="none")
    assert square(engine, book_id) == 3

    def break_off():
        with transaction(engine) as session:
            repository.save(session, repository.load(session, book_id), Book(), "{}", "one", "x", now=now())
            raise RuntimeError("in the middle")

    with pytest.raises(RuntimeError):
        break_off()
    with transaction(engine, reading=True) as session:
        assert repository.load(session, book_id).version == 1


def test_the_bin_keeps_books_until_they_are_taken_back(engine):
    book_id = add(engine)
    with transaction(engine) as session:
        repository.move_to_bin(session, book_id, now())
    with transaction(engine, reading=True) as session:
        assert library.listing(session, "", 1)[1] == 0
        assert [book.title for book in library.listing(session, "", 1, binned=True)[0]] == ["Dark-sky log"]
        with pytest.raises(NoSuchBook):
            repository.load(session, book_id)
    with transaction(engine) as session:
        repository.restore(session, book_id)
        copy = library.duplicate(session, book_id)
        assert repository.load(session, copy).book.title == "Dark-sky log (copy)"
    with transaction(engine, reading=True) as session:
        assert library.listing(session, "SKY", 1)[1] == 2
        assert library.listing(session, "%", 1)[1] == 0
        assert len(library.listing(session, "", 2, per_page=1)[0]) == 1


def test_files_out_and_in_are_the_same_book(engine):
    book_id = add(engine, editing.edit(Book(title="Späte Sterne: 8 1/2″"), {"brief.leaf_width_mm": "5 1/2"}))
    with transaction(engine) as session:
        name, text = library.export(session, book_id)
        again, _ = library.take_in(session, text.encode())
        assert repository.load(session, again).book == repository.load(session, book_id).book
        with pytest.raises(BadBook):
            library.take_in(session, b'{"brief": 3}')
    assert name.endswith(".pleat.json")


def test_eight_writers_at_once_lose_nothing(engine):
    book_id = add(engine)

    def write(number):
        edit(engine, book_id, None, f"window {number % 8}", cover__square_mm=str(1 + number / 2))

    with ThreadPoolExecutor(8) as pool:
        list(pool.map(write, range(48)))
    with transaction(engine, reading=True) as session:
        stored = repository.load(session, book_id)
        assert stored.version == 49
        assert session.query(RevisionRow).count() == 49
        assert [row.version for row in session.query(ChangeRow).order_by(ChangeRow.version)] == list(
            range(1, 50)
        )


def test_migrations_make_the_models_tables_and_run_again_without_harm(engine, database):
    migrate(database)
    there = inspect(engine)
    for table in Base.metadata.sorted_tables:
        assert {column["name"] for column in there.get_columns(table.name)} == {
            column.name for column in table.columns
        }
        assert {index["name"] for index in there.get_indexes(table.name)} == {
            index.name for index in table.indexes
        }
    assert there.get_foreign_keys("revisions")[0]["options"] == {"ondelete": "CASCADE"}
    with engine.connect() as connection:
        settings = {
            name: connection.exec_driver_sql(f"PRAGMA {name}").scalar()
            for name in ("journal_mode", "synchronous", "foreign_keys")
        }
    assert settings == {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1}


def test_a_migration_keeps_the_rows_that_hang_on_others(engine, database):
    """Rebuilding a parent table with foreign keys on would delete its children; migrations run with them
    off."""
    book_id = add(engine)
    engine.dispose()
    migrate(database)
    with sqlite3.connect(database) as plain:
        assert plain.execute("SELECT count(*) FROM revisions WHERE book_id = ?", (book_id,)).fetchone() == (
            1,
        )
    with pytest.raises(IntegrityError), transaction(engine) as session:
        session.add(RevisionRow(book_id=999, number=1, document="{}", label="x", made_at=now()))


def test_a_first_book_needs_no_shelf(engine):
    with transaction(engine) as session:
        starter = offered.suited(session, 148, 210, "")[0]
        book_id = starting.start(session, Answers(fits=True, paper=str(starter.id), count="40 pages"), "one")
        book = repository.load(session, book_id).book
        assert (book.brief.leaf_width_mm, book.brief.leaf_height_mm) == (148.5, 210)
        with pytest.raises(BadBook) as caught:
            starting.start(session, Answers(size="huge", paper="99", count="some", title="x" * 99), "one")
    assert [problem.path for problem in caught.value.problems] == ["paper", "size", "count"]
