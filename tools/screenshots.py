#!/usr/bin/env python3
"""Takes a PNG of every main view at 1280x800 from the demo's data, into docs/screenshots (or another folder).

Usage: python -m tools.screenshots [--size 1024x768] [--folder FOLDER] [NAME ...]; without names, all views.
"""

from __future__ import annotations

import argparse
import os
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from pleat.caliper.standin import StandIn
from pleat.demo import fill
from pleat.store.database import migrate, open_engine, transaction
from tests.process import ROOT, running


def nothing(_: Page) -> None:
    """A view that is shown as it opens."""


def walk_two_holes(page: Page) -> None:
    for _ in range(3):
        page.get_by_role("button", name="one hole on").click()


def ask_why(page: Page) -> None:
    page.locator("#why-spine button").click()


def six_moves(page: Page) -> None:
    for _ in range(6):
        page.keyboard.press("ArrowRight")


def take_up_a_sheet(page: Page) -> None:
    page.locator(".pile-section").first.evaluate("section => section.scrollIntoView()")
    page.locator(".fan-sheet").nth(2).click()
    page.locator("#pile-flap").fill("90")
    page.locator("#pile-flap").press("Enter")
    page.locator(".folded-in").wait_for()


def half_way(page: Page) -> None:
    page.locator("#moving-at").evaluate("one => { one.value = 450; one.dispatchEvent(new Event('input')); }")


VIEWS: dict[str, tuple[str, Callable[[Page], None]]] = {
    "books": ("/", nothing),
    "start": ("/new", nothing),
    "book": ("/books/5", nothing),
    "brief": ("/books/5?open=brief", nothing),
    "paper": ("/books/5?open=paper", nothing),
    "pages": ("/books/4?open=pages", nothing),
    "pile": ("/books/6?open=pages", take_up_a_sheet),
    "binding": ("/books/5?open=binding", walk_two_holes),
    "sewing": ("/books/8/sewing?part=2", six_moves),
    "rings": ("/books/10?open=binding", nothing),
    "making": ("/books/9/making?step=glue_boards", nothing),
    "cover": ("/books/9?open=cover", nothing),
    "folio": ("/books/12?open=pages", nothing),
    "album": ("/books/13/folding", half_way),
    "extras": ("/books/14?open=extras&face=page+9", nothing),
    "cutting": ("/books/9?open=cutting", nothing),
    "bench": ("/books/5?open=bench", nothing),
    "print": ("/books/5/print", nothing),
    "materials": ("/materials?make=140+x+200", nothing),
}
"""Name of the picture: the address, and what is done there before the picture is taken."""


@contextmanager
def demo(folder: Path) -> Iterator[str]:
    """The address of the demo, freshly made."""
    database = folder / "pleat.db"
    migrate(database)
    engine = open_engine(database)
    with transaction(engine) as session:
        fill(session)
    engine.dispose()
    stand_in = StandIn(seed=1)
    stand_in.start()
    with running(database, {"PLEAT_CALIPER": stand_in.address}) as address:
        yield address


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("names", nargs="*")
    asked.add_argument("--size", default="1280x800")
    asked.add_argument("--dark", action="store_true")
    asked.add_argument("--folder", type=Path, default=ROOT / "docs/screenshots")
    given = asked.parse_args()
    width, height = (int(side) for side in given.size.split("x"))
    given.folder.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        demo(Path(folder)) as address,
        sync_playwright() as playwright,
    ):
        browser = playwright.chromium.launch(
            executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell"),
            args=["--no-sandbox"],
        )
        page = browser.new_page(viewport={"width": width, "height": height}, locale="en-GB")
        page.add_init_script(f"localStorage.setItem('pleat-dark', '{int(given.dark)}')")
        for name in given.names or VIEWS:
            path, prepare = VIEWS[name]
            page.goto(address + path)
            page.evaluate("document.fonts.ready")
            prepare(page)
            page.wait_for_timeout(300)
            page.screenshot(path=given.folder / f"{name}.png")
        browser.close()


if __name__ == "__main__":
    main()
