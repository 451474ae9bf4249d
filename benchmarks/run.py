"""Measures what architecture promises and prints it: plan time, answers with many books, first screen, edits through a kill, start.

Usage: python -m benchmarks.run [plan] [edits] [shelf] [screen] [swap] [kill] [demo]; without names all but demo, which clones the project
and installs it with empty caches. Times depend on the machine: the medians are for comparing one state of the code with another.
"""

from __future__ import annotations

import gzip
import os
import random
import re
import shutil
import signal
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

from pleat.core import editing
from pleat.core.book import Book
from pleat.core.materials.items import Paper
from pleat.core.planning import make_plan
from pleat.demo import demo_items
from pleat.services import books, piles
from pleat.services.clock import now
from pleat.store import items as store
from pleat.store.database import migrate, open_engine, transaction
from tests.process import ROOT, Window, running, serve

MANY = 1000


def spread(name: str, seconds: list[float]) -> None:
    """Median and 95th percentile in ms."""
    ranked = sorted(seconds)
    p95 = ranked[min(len(ranked) - 1, int(len(ranked) * 0.95))]
    print(f"{name}: median {statistics.median(ranked) * 1000:.2f} ms, p95 {p95 * 1000:.2f} ms, {len(ranked)} times")


def timed(action: Callable[[], object]) -> float:
    start = time.perf_counter()
    action()
    return time.perf_counter() - start


def plan(_: Path) -> None:
    book = Book()
    spread("whole plan in the core", [timed(lambda: make_plan(book)) for _ in range(1000)])
    kept = [item for item in demo_items() if isinstance(item, Paper)]
    mixed = editing.apply(Book(), [("pages.sections", 30)])
    for number in range(20):
        mixed = piles.add(mixed, kept[number % len(kept)], 9)
    mixed = piles.arranged(mixed, piles.propose(mixed, 30, 1, unlike_now=False))
    spread("plan of 180 mixed sheets in 30 sections", [timed(lambda: make_plan(mixed)) for _ in range(200)])
    sixty = piles.remove(editing.apply(mixed, [("pages.pile", [sheet.model_dump(mode="json") for sheet in mixed.pages.pile[:61]])]), 61)
    spread(
        "arranging 120 leaves in 8 sections",
        [timed(lambda seed=seed: piles.propose(sixty, 8, seed, unlike_now=False)) for seed in range(10)],
    )  # type: ignore[misc]


def edits(folder: Path) -> None:
    """Edits in every pleat, each answered by a server with a thousand books stored."""
    database = folder / "many.db"
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        for number in range(MANY):
            books.add(session, Book(title=f"Log {number}"), "", "benchmark")
    engine.dispose()
    process, address = serve(database)
    changes = [
        ("brief.leaf_width_mm", ("140", "148.5")),
        ("pages.count", ("40 pages", "44 pages")),
        ("cover.square_mm", ("3", "4")),
        ("binding.station.0", ("38", "40")),
    ]
    try:
        window = Window(address, 500)
        for path, values in changes:
            window.edit(path, values[0])
            times = [timed(lambda path=path, value=values[n % 2]: window.edit(path, value)) for n in range(1, 101)]  # type: ignore[misc]
            spread(f"edit of {path} with {MANY} books stored", times)
        spread("the shelf's first page", [timed(lambda: urllib.request.urlopen(address).read()) for _ in range(50)])
    finally:
        process.kill()


def shelf(folder: Path) -> None:
    """Finding among five thousand things, as the page asks while a maker types."""
    database = folder / "shelf.db"
    migrate(database)
    engine = open_engine(database)
    kept = demo_items()
    with transaction(engine) as session:
        for start in range(0, 5000, 50):
            items = [item.model_copy(update={"name": f"{item.name[:50]} {start + n}"}) for n, item in enumerate((*kept, *kept)[:50])]
            store.insert_columns(session, [store.columns_of(item, now()) for item in items])
    engine.dispose()
    process, address = serve(database)

    def found(query: str) -> None:
        urllib.request.urlopen(urllib.request.Request(f"{address}shelf?{query}", headers={"HX-Request": "true"})).read()

    try:
        for query in (
            "q=night+card",
            "q=4321",
            "kind=paper&sort=thin+first",
            "q=indigo&use=cover&sort=few+left+first",
            "q=nothing+of+that",
        ):
            found(query)
            spread(f"the shelf of 5000, {query}", [timed(lambda query=query: found(query)) for _ in range(60)])  # type: ignore[misc]
        spread("what could I make, of 5000", [timed(lambda: found("kind=tool&q=awl&make=140+x+200")) for _ in range(30)])
    finally:
        process.kill()


def screen(folder: Path) -> None:
    """Bytes over the wire of a book's first screen, as a browser asks for it."""
    process, address = serve(folder / "screen.db")
    try:

        def fetched(url: str) -> bytes:
            return urllib.request.urlopen(urllib.request.Request(url, headers={"Accept-Encoding": "gzip"})).read()

        page = fetched(f"{address}books/5")
        text = gzip.decompress(page).decode()
        assets = sorted(set(re.findall(r'(?:src|href)="(/static/[^"]+)"', text)))
        styles = b"".join(gzip.decompress(fetched(address.rstrip("/") + one)) for one in assets if ".css" in one and "house" in one)
        fonts = [f"/static/{found.decode()}" for found in re.findall(rb'url\("\.\./([^"]+)"\)', styles)]
        total = len(page) + sum(len(fetched(address.rstrip("/") + one)) for one in {one.split("?")[0] for one in assets} | set(fonts))
        print(f"first screen: {total / 1000:.0f} kB, of which the page {len(page) / 1000:.0f} kB")
    finally:
        process.kill()


def swap(folder: Path) -> None:
    """A pile of 50 sheets, 200 pages, all its openings shown: from the answer's arrival to the next picture in Chromium, and the whole edit."""
    from playwright.sync_api import sync_playwright

    database = folder / "swap.db"
    migrate(database)
    engine = open_engine(database)
    kept = [item for item in demo_items() if isinstance(item, Paper)]
    book = editing.apply(Book(title="Spreads"), [("pages.sections", 5)])
    for number in range(10):
        book = piles.add(book, kept[number], 5)
    with transaction(engine) as session:
        book_id = books.add(session, piles.arranged(book, piles.propose(book, 5, 1, unlike_now=False)), "", "benchmark")
    engine.dispose()
    watch = """() => {
      window.spent = [];
      document.addEventListener('htmx:before:request', () => { window.begun = performance.now(); });
      document.addEventListener('htmx:before:swap', () => { window.came = window.came || performance.now(); });
      document.addEventListener('htmx:after:swap', () => requestAnimationFrame(() => {
        if (window.came) window.spent.push([performance.now() - window.came, performance.now() - window.begun]);
        window.came = 0;
      }));
    }"""
    with running(database) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium"), args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/books/{book_id}?open=pages")
        page.evaluate(watch)
        for number in range(20):
            page.locator(".fan-pin").nth(number).click()
            page.wait_for_timeout(400)
        spent = page.evaluate("window.spent")
        spread("swap of 200 pages of openings", [one[0] / 1000 for one in spent])
        spread("the whole edit, from tap to picture", [one[1] / 1000 for one in spent])
        browser.close()


def kill(folder: Path) -> None:
    """200 edits; the server is killed at random moments; what was acknowledged must be there."""
    database, lost, kills, acknowledged = folder / "kill.db", 0, 0, "3"
    process, address = serve(database)
    window = Window(address, 5)
    for number in range(200):
        value = f"{1 + number % 300 / 10:.1f}".removesuffix(".0")
        if random.random() < 0.04:
            kills += 1
            pid = process.pid
            subprocess.Popen(["sh", "-c", f"sleep {random.random() * 0.02:.4f}; kill -9 {pid}"]).wait()
        try:
            window.edit("binding.tail_mm", f"{50 + number}")
            acknowledged = f"{50 + number}"
        except OSError:
            process.wait()
            process, address = serve(database)
            window = Window(address, 5)
            held = window.value("binding.tail_mm")
            # an edit that was on its way may be there or not; the last one acknowledged must not be lost
            lost += acknowledged not in (held, "3") and held != f"{50 + number}"
            window.edit("cover.square_mm", value)
    process.send_signal(signal.SIGKILL)
    process.wait()
    process, address = serve(database)
    lost += Window(address, 5).value("binding.tail_mm") != acknowledged
    process.kill()
    print(f"200 edits, {kills} times SIGKILL in the middle: {lost} acknowledged edits lost")


def demo(folder: Path) -> None:
    """``make demo`` from a fresh clone with empty caches until the page answers, and once more."""
    clone, home = folder / "clone", folder / "home"
    home.mkdir()
    subprocess.run(["git", "clone", "-q", str(ROOT), str(clone)], check=True)
    for name in ("first start", "second start"):
        environment = {**os.environ, "HOME": str(home), "XDG_CACHE_HOME": str(home / ".cache")}
        for setting in ("UV_CACHE_DIR", "PIP_CACHE_DIR", "VIRTUAL_ENV"):
            environment.pop(setting, None)
        start = time.perf_counter()
        process = subprocess.Popen(
            ["make", "-s", "demo", "PORT=5197"], cwd=clone, env=environment, stdout=subprocess.DEVNULL, start_new_session=True
        )
        while True:
            try:
                urllib.request.urlopen("http://127.0.0.1:5197/").read()
                break
            except OSError:
                if process.poll() is not None:
                    sys.exit("make demo failed")
                time.sleep(0.02)
        print(f"make demo, {name}: {time.perf_counter() - start:.1f} s")
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()


PARTS: dict[str, Callable[[Path], None]] = {
    "plan": plan,
    "edits": edits,
    "shelf": shelf,
    "screen": screen,
    "swap": swap,
    "kill": kill,
    "demo": demo,
}


def main() -> None:
    for name in sys.argv[1:] or [name for name in PARTS if name != "demo"]:
        folder = Path(tempfile.mkdtemp(prefix="pleat-benchmark-"))
        try:
            PARTS[name](folder)
        finally:
            shutil.rmtree(folder)


if __name__ == "__main__":
    main()
