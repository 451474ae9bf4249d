"""The browser's page, watched: any console error, blocked resource or request to another address fails the
test."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

expect.set_options(timeout=12_000)
EXPECTED = re.compile("422|409|INTERNET_DISCONNECTED")
"""What a browser calls an error and a test brings about."""
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


@pytest.fixture(scope="session")
def profile(browser: Browser, browser_context_args: dict[str, Any], port: int) -> Iterator[BrowserContext]:
    """One browser's profile for all tests of a worker: ninety files are shipped with each page, and loading
    them anew for every test took longer than the tests."""
    made = browser.new_context(**browser_context_args, base_url=f"http://127.0.0.1:{port}")
    yield made
    made.close()


@pytest.fixture
def context(profile: BrowserContext, served: str) -> Iterator[BrowserContext]:
    """The profile with nothing in it but what is shipped. Addresses may be said without the server's, which
    is still there when the windows close."""
    yield profile
    for page in profile.pages:
        if page.url.startswith(served):
            told = profile.new_cdp_session(page)
            told.send("Storage.clearDataForOrigin", {"origin": served, "storageTypes": "local_storage"})
        page.close()
    profile.clear_cookies()


@pytest.fixture
def desk(page: Page, served: str) -> Iterator[Page]:
    """A window on the demo's books, at no page yet."""
    troubles: list[str] = []
    page.on(
        "console",
        lambda message: (
            troubles.append(message.text)
            if message.type == "error" and not EXPECTED.search(message.text)
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
