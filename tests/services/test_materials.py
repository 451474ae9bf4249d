"""The shelf's services: counts that follow the bench, offcuts, the old schema's papers, imports that write
all or nothing."""

from __future__ import annotations

import json
import sqlite3
import time
from functools import partial

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.document import editing
from pleat.core.document.book import FORMAT, Book
from pleat.core.materials.items import Paper
from pleat.core.materials.table import write_table
from pleat.core.pleats.paper.record import Papers
from pleat.demo import demo_items, fill
from pleat.services import books, clock, counts, library, materials, offered
from pleat.services.imports import MOST_JOBS, Imports
from pleat.services.materials import Wanted
from pleat.store import books as book_store
from pleat.store import items as store
from pleat.store.database import migrate, open_engine, transaction
from pleat.store.items import NoSuchItem


@pytest.fixture
def engine(database):
    migrate(database)
    engine = open_engine(database)
    yield engine
    engine.dispose()


@pytest.fixture
def stocked(engine):
    with transaction(engine) as session:
        fill(session)
    return engine


def paper_named(engine, name) -> Paper:
    with transaction(engine, reading=True) as session:
        found = (stored.item for stored in store.of_kind(session, "paper"))
        return next(item for item in found if isinstance(item, Paper) and item.name == name)


def book_of(engine, leaf, cover, **texts) -> int:
    with transaction(engine) as session:
        kept = {
            stored.item.name: store.find_paper(session, stored.id)
            for stored in store.of_kind(session, "paper")
        }
        book = Book(title="Log", paper=Papers(leaf=kept[leaf], cover=kept[cover]))
        for path, text in texts.items():
            book = editing.edit(book, {path.replace("__", "."): text})
        return books.add(session, book, "one", "started")


def change(engine, book_id, alter):
    with transaction(engine) as session:
        return books.change(session, book_id, None, "one", "x", alter).opened


def tick(engine, book_id, key, done=True):
    with transaction(engine) as session:
        return books.tick_step(session, book_id, None, "one", key, done).opened


def undo(engine, book_id, by=-1):
    with transaction(engine) as session:
        return books.undo(session, book_id, by, None, "one")


def left(engine, name):
    return paper_named(engine, name).owned


def test_ticking_the_cut_takes_from_the_shelf_and_unticking_gives_back(stocked):
    book_id = book_of(
        stocked, "Copier paper", "Night card, indigo", brief__quantity="3", pages__count="40 pages"
    )
    sheets = change(stocked, book_id, lambda book: book).plan.cutting.sheets
    assert left(stocked, "Copier paper") == 500
    tick(stocked, book_id, "cut_leaves")
    assert left(stocked, "Copier paper") == 500 - sheets["leaf"]
    opened = tick(stocked, book_id, "cut_cover")
    assert left(stocked, "Night card, indigo") == 30 - sheets["cover"]
    assert opened.book.paper.leaf.owned == 500, "for this book its own sheets count as there"
    change(stocked, book_id, lambda book: editing.edit(book, {"brief.quantity": "5"}))
    assert left(stocked, "Copier paper") == 500 - sheets["leaf"], (
        "what was cut is cut, whatever is planned since"
    )
    tick(stocked, book_id, "cut_leaves")
    assert left(stocked, "Copier paper") == 500 - sheets["leaf"] // 3 * 5, "two books more"
    tick(stocked, book_id, "cut_leaves", False)
    assert left(stocked, "Copier paper") == 500
    tick(stocked, book_id, "cut_leaves")
    taken = left(stocked, "Copier paper")
    undo(stocked, book_id)
    assert left(stocked, "Copier paper") == taken, "a sheet that is cut is a fact, and no state of the book"
    tick(stocked, book_id, "cut_leaves", False)
    tick(stocked, book_id, "cut_cover", False)
    assert (left(stocked, "Copier paper"), left(stocked, "Night card, indigo")) == (500, 30)


def test_another_book_sees_what_is_left(stocked):
    first = book_of(stocked, "Copier paper", "Moss card", brief__quantity="10", pages__count="40 pages")
    second = book_of(stocked, "Copier paper", "Moss card")
    tick(stocked, first, "cut_leaves")
    with transaction(stocked, reading=True) as session:
        assert books.open_book(session, second).book.paper.leaf.owned == left(stocked, "Copier paper") < 500


def test_offcuts_come_back_from_cutting_and_go_again(stocked):
    book_id = book_of(stocked, "Copier paper", "Night card, indigo", brief__size="100 x 150")
    name = "Night card, indigo, offcut"

    def offcuts():
        with transaction(stocked, reading=True) as session:
            return {
                (stored.item.sheet_width_mm, stored.item.sheet_height_mm): stored.item.owned
                for stored in store.of_kind(session, "paper")
                if stored.item.name == name
            }

    before = offcuts()
    tick(stocked, book_id, "cut_cover")
    fresh = {size: count for size, count in offcuts().items() if size not in before}
    assert fresh
    assert all(min(size) >= 40 for size in fresh)
    tick(stocked, book_id, "cut_cover", False)
    assert offcuts() == before


def test_a_pile_takes_each_of_its_papers_from_the_shelf(stocked):
    with transaction(stocked, reading=True) as session:
        book_id = next(one.id for one in library.listing(session, "Found-paper", 1)[0])
    before = {
        name: left(stocked, name) for name in ("Flour bag paper", "Site map, folded", "Log paper, cream")
    }
    tick(stocked, book_id, "cut_leaves")
    assert {name: before[name] - left(stocked, name) for name in before} == {
        "Flour bag paper": 3,
        "Site map, folded": 1,
        "Log paper, cream": 3,
    }
    assert left(stocked, "Site map, folded, offcut") == 1, (
        "two folios come out of one map; what is left of it lies on the shelf"
    )
    tick(stocked, book_id, "cut_leaves", False)
    assert {name: left(stocked, name) for name in before} == before


def test_a_pile_counts_and_knows_what_the_shelf_knows(stocked):
    with transaction(stocked) as session:
        book_id = next(one.id for one in library.listing(session, "Found-paper", 1)[0])
        ids = {stored.item.name: stored.id for stored in store.of_kind(session, "paper")}

        def of_pile(opened, name):
            return next(paper for paper in opened.book.paper.more.values() if paper.name == name)

        def owned_checks(opened):
            return [check for _, check in opened.plan.checks if check.key == "owned"]

        assert owned_checks(books.open_book(session, book_id)) == []
        materials.set_fields(session, ids["Flour bag paper"], owned=2)
        opened = books.open_book(session, book_id)
        assert of_pile(opened, "Flour bag paper").owned == 2
        (check,) = owned_checks(opened)
        assert "Flour bag paper 3, you own 2" in check.title
        assert not check.offers, (
            "the shelf's count is the one that is read again; setting it in the book would not last"
        )
        assert "among the materials" in check.no_fix
        assert opened.otherwise == (), "a count is not another paper"
        materials.set_fields(session, ids["Flour bag paper"], owned=9, readings_mm=(1.5, 1.52, 1.51))
        assert books.open_book(session, book_id).otherwise == ("pile",)
        after = books.change(session, book_id, None, "one", "x", counts.as_known(session, opened.book)).opened
        assert (after.otherwise, of_pile(after, "Flour bag paper").readings_mm) == ((), (1.5, 1.52, 1.51))
        materials.take_off(session, ids["Flour bag paper"])
        assert of_pile(books.open_book(session, book_id), "Flour bag paper").stock_id is None
        _, text = library.export(session, book_id)
        taken, lost = library.take_in(session, text.replace('"Site map, folded"', '"Another map"').encode())
        own = {
            paper.name: paper.stock_id for paper in book_store.load(session, taken).book.paper.more.values()
        }
        assert (lost, own["Another map"], own["Flour bag paper"]) == (
            ["Another map", "Flour bag paper"],
            None,
            None,
        ), "what is not here, or was taken away"
        assert own["Log paper, cream"] == str(ids["Log paper, cream"]), (
            "the same paper here, whatever number it had elsewhere"
        )


def test_too_few_on_the_shelf_is_not_mended_in_the_book(stocked):
    book_id = book_of(stocked, "Copier paper", "Moss card", brief__quantity="200", pages__count="40 pages")
    with transaction(stocked, reading=True) as session:
        opened = books.open_book(session, book_id)
    checks = [check for _, check in opened.plan.checks if check.key == "owned"]
    assert [check.offers for check in checks] == [()] * len(checks)
    assert "among the materials" in checks[0].no_fix


def test_the_shelf_never_goes_below_none(stocked):
    book_id = book_of(
        stocked,
        "Moss card",
        "Moss card",
        brief__quantity="100",
        pages__count="8 pages",
        brief__size="100 x 140",
    )
    tick(stocked, book_id, "cut_leaves")
    assert left(stocked, "Moss card") == 0
    tick(stocked, book_id, "cut_leaves", False)
    assert left(stocked, "Moss card") == 16


def test_a_book_whose_paper_is_gone_or_known_better(stocked):
    book_id = book_of(stocked, "Copier paper", "Moss card")
    with transaction(stocked) as session:
        ids = {stored.item.name: stored.id for stored in store.of_kind(session, "paper")}
        materials.set_fields(session, ids["Copier paper"], readings_mm=(1.04, 1.05, 1.03))
        assert books.open_book(session, book_id).otherwise == ("leaf",)
        materials.take_off(session, ids["Moss card"])
        opened = books.open_book(session, book_id)
        assert opened.book.paper.cover.stock_id is None
        assert opened.book.paper.cover.name == "Moss card"
        materials.put_back(session, ids["Moss card"])
        assert books.open_book(session, book_id).book.paper.cover.stock_id
        _, text = library.export(session, book_id)
        strange = text.replace(f'"stock_id": "{ids["Copier paper"]}"', '"stock_id": "3"').replace(
            "Moss card", "Card of another maker"
        )
        taken, lost = library.take_in(session, strange.encode())
        papers = book_store.load(session, taken).book.paper
        assert (papers.leaf.stock_id, papers.cover.stock_id, lost) == (
            str(ids["Copier paper"]),
            None,
            ["Card of another maker"],
        )


def test_finding_among_everything(stocked):
    with transaction(stocked, reading=True) as session:

        def names(**wanted):
            return [stored.item.name for stored in materials.listing(session, Wanted(**wanted))[0]]

        assert names(search="night CARD") == ["Night card, indigo", "Night card, indigo, offcut"]
        assert names(search="MAGNET") == ["Flat magnet, 10 mm"]
        assert names(search="100%_") == []
        assert names(kind="paper", sort="few left first")[0] == "Chart roll, white"
        assert names(kind="board", sort="thick first") == ["Greyboard, 2 mm", "Chipboard, 60 point"]
        assert "Log paper, cream" in names(use="leaves")
        assert "Night card, indigo" not in names(use="leaves")
        assert names(kind="nonsense", sort="nonsense") == names()
        assert materials.listing(session, Wanted(search="hook"))[2] == {"fastener": 1}
        makes = {give.sheet.name: give for give in offered.could_make(session, 140, 200)}
        assert makes["Copier paper"].with_grain is False
        assert makes["Log paper, cream"].leaves == 240
        with pytest.raises(NoSuchItem):
            store.load(session, 999)
        with pytest.raises(BadBook):
            materials.start(session, "hat", {}, "mm")


def test_papers_of_the_first_schema_come_along_with_their_ids(database):
    migrate(database, "0001")
    old = {
        "name": "Log paper",
        "stock_id": None,
        "kind": "drawing",
        "sheet_width_mm": 297.0,
        "sheet_height_mm": 210.0,
        "grammage": 100.0,
    }
    old |= {"measured_sheets": 10, "measured_mm": 1.2, "grain": "short", "owned": 7, "swatch": "cream"}
    book = json.loads(Book(title="Old log").model_dump_json())
    for paper in (book["paper"][role] for role in ("leaf", "cover")):
        for name in set(paper) - {*old, "stock_id"}:
            del paper[name]
        paper["measured_mm"] = None
    book |= {"format": 1}
    book["paper"]["leaf"] = old | {"stock_id": "5"}
    with sqlite3.connect(database) as plain:
        plain.execute("INSERT INTO papers VALUES (5, 'Log paper', ?)", (json.dumps(old),))
        plain.execute("INSERT INTO books VALUES (1, 'Old log', '{}', 1, 1, '2026-01-01', '2026-01-01', NULL)")
        plain.execute("INSERT INTO revisions VALUES (1, 1, ?, 'started', '2026-01-01')", (json.dumps(book),))
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        paper = store.find_paper(session, 5)
        assert (paper.readings_mm, paper.owned, paper.grain) == ((1.2,), 7, "short")
        opened = books.open_book(session, 1)
        assert (opened.book.title, opened.book.format, opened.book.paper.leaf.readings_mm) == (
            "Old log",
            FORMAT,
            (1.2,),
        )
        assert opened.otherwise == ()
        row = materials.listing(session, Wanted(search="log"))[0][0]
        assert row.id == 5
        assert [one.id for one in materials.listing(session, Wanted(use="leaves"))[0]] == [5]
        assert materials.listing(session, Wanted(use="cover"))[0] == []
        sheet = store.sheets(session, 200, 280)[0]
        assert (sheet.grain, sheet.owned) == ("h", 7)
    engine.dispose()


def finished(job, state):
    for _ in range(600):
        if job.state in (state, "failed"):
            break
        time.sleep(0.02)
    assert job.state == state, job.error
    return job


@pytest.fixture
def imports(engine):
    return Imports(partial(transaction, engine, reading=True), partial(transaction, engine))


def test_export_then_import_gives_the_same_shelf_and_again_changes_nothing(engine, imports):
    text = ("\ufeff" + write_table(demo_items(), ";", ",")).encode()
    job = finished(imports.start("materials.csv", text), "ready")
    assert (job.count("new"), job.count("not")) == (len(demo_items()), 0)
    with transaction(engine, reading=True) as session:
        assert store.everything(session) == [], "nothing is written until agreed"
    imports.agree(job)
    finished(job, "done")
    imports.agree(job)
    with transaction(engine, reading=True) as session:
        assert [stored.item for stored in store.everything(session)] == list(demo_items())
    again = finished(imports.start("materials.csv", text), "ready")
    assert again.count("same") == len(demo_items())


def test_a_table_changes_what_it_names_and_says_what(stocked, imports):
    job = finished(
        imports.start(
            "x.csv", b"kind of item;name;size;owned\npaper;Log paper, cream;297 x 210;90\npaper;Comet;A4;3\n"
        ),
        "ready",
    )
    assert [(entry.action, entry.why) for entry in job.entries] == [("change", "owned 120 → 90"), ("new", "")]
    imports.agree(finished(job, "ready"))
    finished(job, "done")
    assert (left(stocked, "Log paper, cream"), paper_named(stocked, "Log paper, cream").swatch) == (
        90,
        "cream",
    )
    for number in range(MOST_JOBS + 1):
        imports.start(f"{number}.csv", b"name;size\nx;A4\n")
    assert imports.find(job.token) is None, "the oldest is forgotten"


def test_an_import_that_fails_in_the_middle_writes_nothing(engine, imports, monkeypatch):
    job = finished(imports.start("x.csv", b"kind of item;name;size\npaper;One;A4\npaper;Two;A4\n"), "ready")

    def broken(session, rows):
        real(session, rows[:1])
        raise RuntimeError("disk full")

    real = store.insert_columns
    monkeypatch.setattr(store, "insert_columns", broken)
    imports.agree(job)
    finished(job, "failed") if job.state == "failed" else time.sleep(0.3)
    assert job.state == "failed"
    assert "Nothing was changed" in job.error
    with transaction(engine, reading=True) as session:
        assert store.everything(session) == []


def test_a_table_agreed_to_after_something_changed_is_shown_once_more(stocked):
    imports = Imports(partial(transaction, stocked, reading=True), partial(transaction, stocked))
    job = finished(
        imports.start("x.csv", b"kind of item;name;size;owned\npaper;Copier paper;A4;90\n"), "ready"
    )
    with transaction(stocked) as session:
        ids = {stored.item.name: stored.id for stored in store.of_kind(session, "paper")}
        materials.set_fields(session, ids["Copier paper"], owned=470)
    imports.agree(job)
    finished(job, "ready")
    assert "once more" in job.told
    assert job.entries[0].why == "owned 470 → 90"
    imports.agree(job)
    finished(job, "done")
    with transaction(stocked, reading=True) as session:
        assert store.load(session, ids["Copier paper"]).item.owned == 90


def test_the_paper_that_suits_best_is_offered_first_among_however_many(engine):
    like = Paper(name="like", kind="drawing", grammage=100, sheet_width_mm=297, sheet_height_mm=210)
    with transaction(engine) as session:
        for number in range(300):
            store.add(
                session,
                like.model_copy(update={"name": f"A paper {number}", "grain": "long", "owned": 500}),
                clock.now(),
            )
        best = store.add(
            session,
            like.model_copy(update={"name": "Z, with the grain", "grain": "short", "owned": 10}),
            clock.now(),
        )
        card = store.add(
            session,
            like.model_copy(update={"name": "Card", "kind": "cardstock", "grammage": 300, "owned": 900}),
            clock.now(),
        )
        offered_ = offered.suited(session, 148, 210, "", str(card))
        assert [offered_[0].id, offered_[-1].id, len(offered_)] == [best, card, offered.FIRST + 1]
        assert [one.id for one in offered.suited(session, 148, 210, "the grain")] == [best]
