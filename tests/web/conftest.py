"""The browser's page, watched: any console error, blocked resource or request to another address fails the
test."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect
from pytest_playwright.pytest_playwright import CreateContextCallback

expect.set_options(timeout=12_000)
OPENED = (
    "Visitor notes, first draft",
    "Meteor count, August",
    "Moon sketchbook",
    "Star chart companion",
    "Dark-sky log",
    "Found-paper field journal",
)
BOOKS = {
    **{title: number for number, title in enumerate(OPENED, 1)},
    "Almanac of the society": 9,
    "Constellation cards": 10,
    "Driftwood almanac": 11,
    "Guide to the open night": 14,
}
"""The books of the demo that tests open, by the numbers in their addresses."""


@pytest.fixture
def context(new_context: CreateContextCallback, served: str) -> BrowserContext:
    """Addresses may be said without the server's; it is still there when the window closes."""
    return new_context(base_url=served)


@pytest.fixture
def desk(page: Page, served: str) -> Iterator[Page]:
    """A window on the demo's books, at no page yet."""
    troubles: list[str] = []
    page.on(
        "console",
        lambda message: (
            troubles.append(message.text)
            if message.type == "error" and "422" not in message.text and "409" not in message.text
            else None
        ),
    )
    page.on("pageerror", lambda error: troubles.append(str(error)))
    page.on(
        "request",
        lambda request: (
            troubles.append(request.url) if not request.url.startswith((served, "data:", "blob:")) else None
        ),
    )
    page.set_default_timeout(20_000)
    yield page
    assert troubles == []


def open_book(page: Page, title: str, pleat: str = "") -> None:
    """A book of the demo, at one of its pleats."""
    page.goto(f"/books/{BOOKS[title]}" + (f"?open={pleat}" if pleat else ""))
    expect(page.locator(f"#strip-{pleat or 'book'}")).to_have_attribute(
        "aria-expanded", "true"
    )  # set once the page's scripts have run
    if pleat:
        expect(page.locator(f"#body-{pleat}")).to_be_visible()


def typed(page: Page, path: str, text: str) -> None:
    """Type into a field and leave it, as a maker does."""
    field = page.locator(f"#i-{path.replace('.', '-').replace('_', '-')}")
    field.fill(text)
    field.press("Tab")


def in_script(page: Page, module: str, work: str, *args: Any) -> Any:
    """What ``work``, which knows the module as ``m``, gives for the arguments."""
    scripts = re.search(r'src="([^"]*)main\.js"', page.content())
    assert scripts
    return page.evaluate(
        f"async ([path, args]) => {{ const m = await import(path); return ({work})(...args); }}",
        [f"{scripts[1]}{module}.js", args],
    )
