"""Whether what is kept is safe, by hand and at length: requests and files gone wrong, kills and restores in
the middle of edits, a large copy out and back."""

from __future__ import annotations

import io
import itertools
import random
import re
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.error
from collections import Counter
from collections.abc import Callable
from contextlib import closing
from http.client import HTTPException
from pathlib import Path
from typing import Final

from pleat.core.document.book import Book
from pleat.core.document.bookfile import read_book, write_book
from pleat.demo import fill
from pleat.examples import names, text
from pleat.services import books
from pleat.store import backups
from pleat.store.database import close, open_engine, transaction
from pleat.store.packing import unpacked
from pleat.store.whole import verify
from pleat.web.app import create_app
from tests.fuzz import Fuzzer, mutated_books, mutated_tables
from tests.process import ROOT, Window, on_its_page, running, serve, serving

REQUESTS: Final = 20_000
KILLS: Final = 100
RESTORES: Final = 50
COPY_BYTES: Final = 50_000_000


def fuzz(folder: Path) -> None:
    """20,000 requests to every route of the real server with the demo and all examples in it, 600 book files
    and 600 tables gone wrong."""
    app = create_app(folder / "fuzz.db", {"WTF_CSRF_ENABLED": False})
    with transaction(app.extensions["pleat_engine"]) as session:
        fill(session)
        for name in names():
            books.add(session, read_book(text(name)), "", "an example")
    counted, bad, slowest = Counter[int](), [], 0.0
    epoch = on_its_page(app).environ_base["HTTP_X_EPOCH"]
    with serving(app) as served:
        fuzzer = Fuzzer(served, app, epoch, int(sys.argv[2]) if sys.argv[2:] else 20261201)
        for _ in range(REQUESTS):
            begun = time.perf_counter()
            method, address, status = fuzzer.request()
            slowest = max(slowest, time.perf_counter() - begun)
            counted[status] += 1
            if status >= 500:
                bad.append((method, address[:120], status))
    print(
        f"{REQUESTS} requests: {dict(sorted(counted.items()))}, slowest {slowest:.2f} s, failed: "
        f"{bad[:8] or 'none'}"
    )
    client = on_its_page(app)
    table = client.get("/materials/table/materials.csv").get_data(as_text=True).lstrip("\ufeff")
    for name, files, address in (
        ("book files", mutated_books(write_book(Book()), 1), "/import"),
        ("tables", mutated_tables(table, 1), "/materials/table"),
    ):
        codes = Counter(
            client.post(address, data={"file": (io.BytesIO(raw), "x")}).status_code
            for raw in itertools.islice(files, 600)
        )
        print(f"600 {name} gone wrong: {dict(sorted(codes.items()))} (303 was taken, 422 told)")


def kill(folder: Path) -> None:
    """Two windows edit while the server is killed and copies are put back; whatever was acknowledged must be
    in the database or in a copy."""
    database, saved, answers, stop = folder / "kill.db", set[str](), Counter[str](), threading.Event()
    server = [serve(database)]
    copy = folder / "copy.db"
    backups.backup(database, copy)

    def edits(name: str, book: int) -> None:
        window, number = None, 0
        while not stop.is_set():
            number += 1
            try:
                window = window or Window(server[0][1], book)
                window.edit("title", f"{name} {number}")
                saved.add(f"{name} {number}")
            except urllib.error.HTTPError as error:
                answers[str(error.code)] += 1
                window = None
            except (
                OSError,
                HTTPException,
                AssertionError,
            ):  # nobody there, or gone in the middle of an answer
                answers["gone"] += 1
                window = None
                time.sleep(0.02)

    windows = [threading.Thread(target=edits, args=pair) for pair in (("one", 1), ("two", 5))]
    for one in windows:
        one.start()
    kills = restores = broken_off = 0
    while kills < KILLS or restores < RESTORES:
        time.sleep(random.uniform(0.05, 0.6))
        if random.random() < RESTORES / (KILLS + RESTORES):
            command = [sys.executable, "-m", "pleat", "restore", str(copy), "--database", str(database)]
            putting = subprocess.Popen(
                command, env={"PYTHONPATH": str(ROOT / "src")}, stdout=subprocess.DEVNULL
            )
            if random.random() < 0.2:  # the restore itself is killed
                time.sleep(random.uniform(0.8, 2.0))
                putting.kill()
                broken_off += 1
            restores += putting.wait() == 0
            if restores % 5 == 0:
                backups.backup(database, copy)
        else:
            process, _ = server[0]
            process.kill()
            process.wait()
            kills += 1
            server[0] = serve(database)
    stop.set()
    for one in windows:
        one.join()
    server[0][0].kill()
    server[0][0].wait()
    files = [database, *backups.folder(database).glob("*.db")]
    close(open_engine(database))
    lost = saved - _titles(files)
    print(
        f"{len(saved)} edits acknowledged, {dict(answers)} not; {kills} kills, {restores} copies put back, "
        f"{broken_off} broken off:"
        f" {len(lost)} lost {sorted(lost)[:5]}; {sum(bool(verify(one)) for one in files)} of {len(files)} "
        "files whole"
    )


def _titles(files: list[Path]) -> set[str]:
    """The title of every state in some databases, read without Pleat's own store."""
    found = set()
    for file in files:
        with closing(sqlite3.connect(file)) as connection:
            for (state,) in connection.execute("SELECT state FROM revisions"):
                said = re.search(r'"title":"([^"]*)"', unpacked(state))
                found.add(said[1] if said else "")
    return found


def copy(folder: Path) -> None:
    """A copy of 50 MB out and back by the page, in the browser."""
    from playwright.sync_api import sync_playwright

    database = folder / "copy.db"
    app = create_app(database)
    with transaction(app.extensions["pleat_engine"]) as session:
        fill(session)
    close(app.extensions["pleat_engine"])
    with closing(sqlite3.connect(database)) as connection:
        each = connection.execute("SELECT sum(length(state)) / count(*) + 120 FROM revisions").fetchone()[0]
        states = connection.execute("SELECT count(*) FROM revisions").fetchone()[0]
        times = int(COPY_BYTES / each / states) + 1
        connection.execute(
            "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ?) INSERT INTO "
            "revisions (book_id, number, state, label, made_at)"
            " SELECT book_id, number + 1000 * i, state, label || ' ' || hex(randomblob(30)), made_at FROM "
            "revisions, n",
            (times,),
        )
        connection.commit()
    with running(database) as address, sync_playwright() as started:
        browser = started.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"]
        )
        page = browser.new_page()
        page.goto(f"{address}/copies")
        begun = time.perf_counter()
        with page.expect_download() as coming:
            page.get_by_role("link", name="save a copy now").click()
        saved = folder / "saved.db"
        coming.value.save_as(saved)
        out = time.perf_counter() - begun
        page.get_by_label("a copy", exact=True).set_input_files(saved)
        begun = time.perf_counter()
        page.get_by_role("button", name="put it back", exact=True).first.click()
        page.locator("#going-back").wait_for(timeout=60_000)
        sent = time.perf_counter() - begun
        page.get_by_text("back from the copy").wait_for(timeout=600_000)
        back = time.perf_counter() - begun
        browser.close()
    with closing(sqlite3.connect(saved)) as connection:
        count = connection.execute("SELECT count(*) FROM revisions").fetchone()[0]
    print(
        f"a copy of {saved.stat().st_size / 1e6:.0f} MB, {count} states: out in {out:.1f} s, sent in "
        f"{sent:.1f} s, read whole and back after {back:.1f} s"
    )


SAFETY: Final[dict[str, Callable[[Path], None]]] = {"fuzz": fuzz, "kill": kill, "copy": copy}
