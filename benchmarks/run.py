"""Measures what architecture promises and prints it: plan time, answers with many books, first screen, edits
through a kill, start.

Usage: python -m benchmarks.run [plan] [sewing] [covers] [holes] [structures] [extras] [edits] [materials]
[screen] [swap] [fuzz] [kill] [copy] [demo]; without names all but demo, which clones the project and installs
it with empty caches. Times depend on the machine: the medians are for comparing one state of the code with
another.
"""

from __future__ import annotations

import gzip
import os
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
from dataclasses import replace
from functools import partial
from pathlib import Path

from benchmarks.safety import SAFETY
from benchmarks.sheets import SHEETS
from pleat.core.base.estimate import Estimate
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.recipes import RECIPES
from pleat.core.engines.folding.assembly import Assembly
from pleat.core.engines.folding.closing import ways
from pleat.core.engines.folding.pile import faces, gussets
from pleat.core.engines.folding.sheet import Span, board, piece
from pleat.core.engines.holes.ring import Ring
from pleat.core.engines.holes.turning import frames
from pleat.core.engines.sewing.notation import write
from pleat.core.materials.items import Paper
from pleat.core.pleats.extras import placing
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.pages.record import PileSheet, Sections
from pleat.core.pleats.paper.record import Papers
from pleat.core.pleats.structures.made import Made
from pleat.core.whole.planning import make_plan
from pleat.demo import demo_items, fill
from pleat.drawing import cutting
from pleat.drawing.svg import render_screen
from pleat.printing.pdf import to_pdf
from pleat.printing.sheets import print_sheets
from pleat.services import arranging, books, piles
from pleat.services.clock import now
from pleat.store import items as store
from pleat.store.database import migrate, open_engine, transaction
from tests.process import ROOT, Window, running, serve

MANY = 1000
WATCH = """() => {
  window.spent = [];
  const change = (event) => event.detail.ctx.request.method === 'POST';
  document.addEventListener('htmx:before:request', (event) => {
    if (change(event)) window.begun = performance.now();
  });
  document.addEventListener('htmx:before:swap', (event) => {
    if (change(event)) window.came = performance.now();
  });
  document.addEventListener('htmx:after:swap', () => requestAnimationFrame(() => {
    if (window.came) window.spent.push([performance.now() - window.came, performance.now() - window.begun]);
    window.came = 0;
  }));
}"""
"""Notes, in the page, the ms from the arrival of a change's answer and from its request to the next picture;
what follows later is not noted."""
ALBUMS = (
    (
        "nested",
        (("pages.folders", 6),),
        (("pages.shrink_mm", 4.0), ("pages.border_mm", 3.0), ("brief.leaf_width_mm", 113.0)),
    ),
    ("concertina", (("pages.amount", 9),), (("pages.border_mm", 3.0), ("brief.leaf_width_mm", 113.0))),
    (
        "hills",
        (("pages.amount", 20),),
        (("binding.hill_mm", 12.0), ("pages.border_mm", 3.0), ("brief.leaf_width_mm", 152.0)),
    ),
)
"""Albums of 20 pieces or leaves: recipe, changes, and the fields that are edited from which value on."""


def spread(name: str, seconds: list[float]) -> None:
    """Median and 95th percentile in ms."""
    ranked = sorted(seconds)
    p95 = ranked[min(len(ranked) - 1, int(len(ranked) * 0.95))]
    print(
        f"{name}: median {statistics.median(ranked) * 1000:.2f} ms, p95 {p95 * 1000:.2f} ms, {len(ranked)} "
        "times"
    )


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
    sixty = piles.remove(
        editing.apply(
            mixed,
            [("pages.pile", [sheet.model_dump(mode="json") for sheet in piles.pages_of(mixed).pile[:61]])],
        ),
        61,
    )
    spread(
        "arranging 120 leaves in 8 sections",
        [timed(partial(piles.propose, sixty, 8, seed, unlike_now=False)) for seed in range(10)],
    )

    found = [
        Paper(
            name=f"Found {n}",
            tags=f"tag {n % 11}",
            sheet_width_mm=200 + n % 50,
            sheet_height_mm=200,
            grammage=60 + n % 80,
        )
        for n in range(400)
    ]
    dealt = Book(
        paper=Papers(more={f"p{n}": paper for n, paper in enumerate(found)}),
        pages=Sections(pile=tuple(PileSheet(id=n, paper=f"p{n}") for n in range(len(found))), sections=40),
    )
    spread(
        "plan of 400 different papers without an order", [timed(lambda: make_plan(dealt)) for _ in range(20)]
    )
    for sections in (40, 1):
        asked = arranging.within(arranging.LONGEST_S)
        spread(
            f"arranging 400 sheets in {sections}",
            [timed(partial(piles.propose, dealt, sections, 1, False, asked))],
        )
    roll = Paper(name="Roll", form="roll", sheet_width_mm=5000, sheet_height_mm=100000, grammage=80)
    tiny = editing.edit(Book(paper=Papers(leaf=roll, cover=roll)), {"brief.size": "30 x 40"})
    made = make_plan(tiny).cutting
    drawn = render_screen(cutting.sheet(made.plans[0], made.plans[0].sheets[0], made.cuts, RULERS["mm"])).svg
    print(f"30 x 40 from a roll of 5 x 100 m is drawn in {len(drawn) / 1000:.0f} kB")
    numbered = editing.edit(editing.edit(Book(), {"pages.count": "2000 pages"}), {"pages.numbered": "yes"})
    sheets = print_sheets(make_plan(numbered), "Planner", "a4")
    spread(
        f"a dummy of 2000 pages, {len(sheets)} pages of PDF",
        [timed(lambda: to_pdf(sheets, "Planner")) for _ in range(3)],
    )


def sewing(_: Path) -> None:
    """Plans of long sewings, cold: nothing of a pattern is kept between them; and a maker's own stitch of the
    same size, looked at."""
    for sections, stations in ((40, 9), (60, 13)):
        changes = [
            ("binding.kind", "link"),
            ("cover.kind", "bare"),
            ("pages.sections", sections),
            ("pages.amount", 8 * sections),
        ]
        book = editing.apply(Book(), [*changes, ("binding.station_count", stations)])
        spread(
            f"link stitch of {sections} sections x {stations} stations",
            [timed(partial(make_plan, book)) for _ in range(100)],
        )
        line = write(make_plan(book).binding.sewing.threads, stations)  # type: ignore[attr-defined]
        own = editing.apply(
            book,
            [("binding.kind", "own"), ("binding.station_count", stations), ("binding.moves", line[:12_000])],
        )
        spread(
            f"one's own stitch of {len(line[:12_000])} letters",
            [timed(partial(make_plan, own)) for _ in range(20)],
        )


def covers(_: Path) -> None:
    """Plans with every cover, and the folding kernel: twenty pieces with all that is asked of them."""
    for one in RECIPES:
        book = one.book()
        if one.kept and "cover.kind" in dict(one.kept):
            spread(f"plan of the {one.title}", [timed(lambda: make_plan(book)) for _ in range(100)])  # noqa: B023
    calipers = {"card": Estimate.exact(0.3)}

    def twenty() -> None:
        assembly = Assembly()
        assembly.add(
            piece("wrap", "card", [Span("a", 148), Span("b", 20), Span("c", 148)], [Span("", 210)]), "a"
        )
        for number in range(19):
            assembly.add(board(f"card {number}", "card", 40 + number, 60))
            assembly.lay((f"card {number}", "body"), ("wrap", "a"), (5 + 4 * number, 5 + 6 * number))
        assembly.fold("wrap", ("a", "b", 90.0), ("b", "c", 90.0))
        shut = assembly.mark("shut")
        (
            gussets(assembly, shut, calipers),
            faces(assembly, shut),
            faces(assembly, shut, above=False),
            assembly.misfits(),
        )

    spread("kernel, 20 pieces with all checks", [timed(twenty) for _ in range(50)])


def holes(_: Path) -> None:
    """Plans of 500 leaves with all that holds leaves along an edge, and the frames of a book that is turned
    round its rings."""
    for one in RECIPES:
        if dict(one.kept).get("pages.kind") == "leaves":
            book = editing.apply(one.book(), [("pages.amount", 500)])
            spread(f"500 leaves, {one.title}", [timed(lambda: make_plan(book)) for _ in range(100)])  # noqa: B023
    for ring, stack in ((Ring(12.5, 2.2, 6, 10), 18.0), (Ring(8, 2, 5, 12), 5.0)):
        spread(f"frames, {ring}", [timed(lambda: frames(ring, stack / 2, stack / 2)) for _ in range(10)])  # noqa: B023


def folded_in(book: Book) -> Made:
    """The structure of a book's Pages."""
    pages = make_plan(book).pages
    assert isinstance(pages, FoldedBlock)
    return pages.made


def structures(folder: Path) -> None:
    """Plans of folded structures, small and large, every order of shutting, and edits of an album with a
    thousand books stored."""
    sizes = (
        ("crossfold", ()),
        ("nested", (("pages.folders", 6),)),
        ("bagfolio", (("pages.mats", "yes"),)),
        ("concertina", (("pages.amount", 9),)),
        ("concertina", (("pages.amount", 46),)),
        ("hills", (("pages.amount", 20),)),
    )
    examples = {one.name: one.book() for one in RECIPES}
    for name, changes in sizes:
        book = editing.apply(examples[name], changes)
        count = len(folded_in(book).programme.pieces)
        anew = [editing.edit(book, {"brief.leaf_width_mm": f"{110 + 0.3 * n:.1f}"}) for n in range(30)]
        spread(
            f"plan of {name}, {count} pieces, each of a size of its own",
            [timed(partial(make_plan, one)) for one in anew],
        )
    made = folded_in(examples["crossfold"])
    spread("24 orders of shutting", [timed(lambda: ways(made.programme, made.calipers)) for _ in range(10)])
    more = replace(made.programme, closing=(*made.programme.closing, made.programme.closing[0]))
    spread("48 orders of shutting", [timed(lambda: ways(more, made.calipers)) for _ in range(10)])
    database = folder / "albums.db"
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        for number in range(MANY):
            books.add(session, Book(title=f"Log {number}"), "", "benchmark")
        ids = [
            books.add(session, editing.apply(examples[name], changes), "", "benchmark")
            for name, changes, _ in ALBUMS
        ]
    engine.dispose()
    process, address = serve(database)
    try:
        for album, (name, _, edits_of) in zip(ids, ALBUMS, strict=True):
            window = Window(address, album)
            for path, first in edits_of:
                window.edit(path, f"{first}")
                times = [timed(partial(window.edit, path, f"{first + 0.04 * n:.2f}")) for n in range(1, 101)]
                spread(f"album of 20 pieces, {name}: edit of {path} with {MANY} books stored", times)
    finally:
        process.kill()


def sixty(shift: float = 0.0) -> Book:
    """A journal of 40 leaves with 60 things in 12 designs, all kinds but those that cut into the page."""
    kinds = (
        "pocket",
        "corner",
        "waterfall",
        "flap",
        "band",
        "mat",
        "picture",
        "booklet",
        "fastener",
        "tab",
        "spacer",
        "eyelet",
    )
    changes: list[tuple[str, object]] = [
        ("pages.amount", 40),
        ("pages.counted_in", "leaves"),
        ("pages.sections", 5),
    ]
    for number, kind in enumerate(kinds):
        places = [
            {"on": f"page {1 + (number + 12 * n) % 80}", "x_mm": 6.0 + 2 * n + shift, "y_mm": 20.0 + number}
            for n in range(5)
        ]
        changes.append((f"extras.items.{kind}-1", {"kind": kind, "places": places}))
    return editing.apply(next(one for one in RECIPES if one.name == "longstitch").book(), tuple(changes))


def extras(folder: Path) -> None:
    """Sixty things in a journal of 40 leaves: its plan, edits with a thousand books stored, staggering, and
    the map redrawn in Chromium."""
    from playwright.sync_api import sync_playwright

    anew = iter([sixty(0.1 * n) for n in range(30)])
    spread(
        "plan of 40 leaves with 60 extras, each otherwise placed",
        [timed(lambda: make_plan(next(anew))) for _ in range(30)],
    )
    result = make_plan(sixty()).extras
    spread("60 extras staggered", [timed(lambda: placing.staggered(result)) for _ in range(5)])
    database = folder / "extras.db"
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        for number in range(MANY):
            books.add(session, Book(title=f"Log {number}"), "", "benchmark")
        book_id = books.add(session, sixty(), "", "benchmark")
    engine.dispose()
    process, address = serve(database)
    try:
        window = Window(address, book_id)
        for path, values in (
            ("extras.items.pocket-1.place.0", [f"{10 + 0.1 * n:.1f}; 40" for n in range(101)]),
            ("extras.items.booklet-1.thick_mm", [f"{2 + 0.02 * n:.2f}" for n in range(101)]),
        ):
            window.edit(path, values[0])
            times = [timed(partial(window.edit, path, value)) for value in values[1:]]
            spread(f"60 extras: edit of {path} with {MANY} books stored", times)
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(
                executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
                args=["--no-sandbox", "--disable-gpu"],
            )
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"{address}/books/{book_id}?open=extras&face=page+1&design=pocket-1")
            page.evaluate(WATCH)
            for number in range(30):
                field = page.locator("#i-extras-items-pocket-1-place-0")
                field.fill(f"{12 + number}, 44")
                field.press("Enter")
                page.wait_for_timeout(600)
            spent = page.evaluate("window.spent")
            spread("map redrawn, from the answer's arrival to the picture", [one[0] / 1000 for one in spent])
            spread("the whole edit, from the key to the picture", [one[1] / 1000 for one in spent])
            browser.close()
    finally:
        process.kill()


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
        ("brief.leaf_width_mm", 120, 0.2),
        ("pages.count", 40, 4),
        ("cover.square_mm", 3, 0.04),
        ("binding.station.0", 38, 0.04),
    ]
    try:
        window = Window(address, 500)
        for path, first, more in changes:
            window.edit(path, f"{first}")
            times = [timed(partial(window.edit, path, f"{first + more * n:g}")) for n in range(1, 101)]
            spread(f"edit of {path} with {MANY} books stored", times)
        spread(
            "the list of books", [timed(lambda: urllib.request.urlopen(address).read()) for _ in range(50)]
        )
    finally:
        process.kill()


def materials_(folder: Path) -> None:
    """Finding among five thousand things, as the page asks while a maker types."""
    database = folder / "materials.db"
    migrate(database)
    engine = open_engine(database)
    kept = demo_items()
    with transaction(engine) as session:
        for start in range(0, 5000, 50):
            items = [
                item.model_copy(update={"name": f"{item.name[:50]} {start + n}"})
                for n, item in enumerate((*kept, *kept)[:50])
            ]
            store.insert_columns(session, [store.columns_of(item, now()) for item in items])
    engine.dispose()
    process, address = serve(database)

    def found(query: str) -> None:
        urllib.request.urlopen(
            urllib.request.Request(f"{address}materials?{query}", headers={"HX-Request": "true"})
        ).read()

    try:
        for query in (
            "q=night+card",
            "q=4321",
            "kind=paper&sort=thin+first",
            "q=indigo&use=cover&sort=few+left+first",
            "q=nothing+of+that",
        ):
            found(query)
            spread(f"among 5000 materials, {query}", [timed(partial(found, query)) for _ in range(60)])
        spread(
            "what could I make, of 5000",
            [timed(lambda: found("kind=tool&q=awl&make=140+x+200")) for _ in range(30)],
        )
    finally:
        process.kill()


MOVING = """() => new Promise(done => {
  const one = Alpine.$data(document.querySelector('[data-folding]')), before = one.frames;
  one.toggle();
  setTimeout(() => { one.playing = false; done(one.frames - before); }, 1000);
})"""


def moving(folder: Path) -> None:
    """Pictures a second while a structure opens and shuts by itself in Chromium without a graphics card, each
    three times."""
    from playwright.sync_api import sync_playwright

    database = folder / "moving.db"
    migrate(database)
    engine = open_engine(database)
    examples = {one.name: one.book() for one in RECIPES}
    with transaction(engine) as session:
        ids = {
            f"{name} {changes or ''}": books.add(
                session, editing.apply(examples[name], changes), "", "benchmark"
            )
            for name, changes in (
                ("crossfold", ()),
                ("hills", (("pages.amount", 24),)),
                ("hills", (("pages.amount", 12),)),
                ("concertina", (("pages.amount", 46),)),
            )
        }
    engine.dispose()
    with running(database) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
            args=["--no-sandbox", "--disable-gpu"],
        )
        for name, book_id in ids.items():
            shown = []
            for _ in range(3):
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                page.goto(f"{address}/books/{book_id}/folding")
                page.wait_for_timeout(600)
                panels = page.evaluate(
                    "Alpine.$data(document.querySelector('[data-folding]')).data.nodes.filter(node => "
                    "!node.paper).length"
                )
                shown.append(page.evaluate(MOVING))
                page.close()
            print(f"{name}, {panels} panels: {sorted(shown)} pictures in a second")
        browser.close()


def screen(folder: Path) -> None:
    """Bytes over the wire of a book's first screen, as a browser asks for it."""
    process, address = serve(folder / "screen.db")
    try:

        def fetched(url: str) -> bytes:
            answer: bytes = urllib.request.urlopen(
                urllib.request.Request(url, headers={"Accept-Encoding": "gzip"})
            ).read()
            return answer

        page = fetched(f"{address}books/5")
        text = gzip.decompress(page).decode()
        assets = sorted(set(re.findall(r'(?:src|href)="(/static/[^"]+)"', text)))
        styles = b"".join(
            gzip.decompress(fetched(address.rstrip("/") + one))
            for one in assets
            if ".css" in one and "house" in one
        )
        fonts = [
            f"{assets[0].split('/css')[0]}/{found.decode()}"
            for found in re.findall(rb'url\("\.\./([^"]+)"\)', styles)
        ]
        total = len(page) + sum(
            len(fetched(address.rstrip("/") + one))
            for one in {one.split("?")[0] for one in assets} | set(fonts)
        )
        print(f"first screen: {total / 1000:.0f} kB, of which the page {len(page) / 1000:.0f} kB")
    finally:
        process.kill()


def swap(folder: Path) -> None:
    """A pile of 50 sheets, 200 pages, all its openings shown: from the answer's arrival to the next picture
    in Chromium, and the whole edit."""
    from playwright.sync_api import sync_playwright

    database = folder / "swap.db"
    migrate(database)
    engine = open_engine(database)
    kept = [item for item in demo_items() if isinstance(item, Paper)]
    book = editing.apply(Book(title="Spreads"), [("pages.sections", 5)])
    for number in range(10):
        book = piles.add(book, kept[number], 5)
    with transaction(engine) as session:
        book_id = books.add(
            session, piles.arranged(book, piles.propose(book, 5, 1, unlike_now=False)), "", "benchmark"
        )
    engine.dispose()
    with running(database) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
            args=["--no-sandbox", "--disable-gpu"],
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/books/{book_id}?open=pages")
        page.evaluate(WATCH)
        for number in range(20):
            page.locator(".fan-pin").nth(number).click()
            page.wait_for_timeout(400)
        spent = page.evaluate("window.spent")
        spread("swap of 200 pages of openings", [one[0] / 1000 for one in spent])
        spread("the whole edit, from tap to picture", [one[1] / 1000 for one in spent])
        browser.close()


def start(folder: Path) -> None:
    """From the start, all answers given, to the whole book on the screen in Chromium; and the portrait after
    each answer."""
    from playwright.sync_api import sync_playwright

    database = folder / "start.db"
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        fill(session)
    engine.dispose()
    watch = """() => {
      document.addEventListener('input', () => { window.typed = performance.now(); }, true);
      document.addEventListener('htmx:after:swap', () => requestAnimationFrame(() => {
        window.shown = window.shown || performance.now() - window.typed;
      }));
    }"""
    painted = "performance.getEntriesByName('first-contentful-paint')[0]?.startTime"
    seen, shown = [], []
    with running(database) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
            args=["--no-sandbox", "--disable-gpu"],
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for number in range(20):
            page.goto(f"{address}/new")
            page.wait_for_timeout(400)
            page.evaluate(watch)
            page.get_by_label("how many pages or leaves").fill(f"{24 + 4 * number} pages")
            page.wait_for_timeout(700)
            shown.append(page.evaluate("window.shown") / 1000)
            page.get_by_role("button", name="work it out").click()
            page.locator(".book .portrait-drawing").wait_for()
            page.wait_for_timeout(300)
            seen += [at / 1000 for at in [page.evaluate(painted)] if at]
        browser.close()
    spread("an answer, to its portrait (180 ms of them wait for more typing)", shown)
    spread("from the last answer to the whole book, first painted", seen)


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
            ["make", "-s", "demo", "PORT=5197"],
            cwd=clone,
            env=environment,
            stdout=subprocess.DEVNULL,
            start_new_session=True,
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
    "sewing": sewing,
    "covers": covers,
    "holes": holes,
    "structures": structures,
    "extras": extras,
    "edits": edits,
    "materials": materials_,
    "moving": moving,
    "screen": screen,
    "swap": swap,
    **SAFETY,
    **SHEETS,
    "start": start,
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
