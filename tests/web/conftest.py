"""The browser's page, watched: any console error, blocked resource or request to another address fails the test."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

expect.set_options(timeout=12_000)


@pytest.fixture
def desk(page: Page, served: str) -> Iterator[Page]:
    troubles: list[str] = []
    page.on(
        "console",
        lambda message: (
            troubles.append(message.text) if message.type == "error" and "422" not in message.text and "409" not in message.text else None
        ),
    )
    page.on("pageerror", lambda error: troubles.append(str(error)))
    page.on("request", lambda request: troubles.append(request.url) if not request.url.startswith((served, "data:", "blob:")) else None)
    page.set_default_timeout(20_000)
    page.goto(served)
    yield page
    assert troubles == []


def open_book(page: Page, title: str, pleat: str = "") -> None:
    """From the shelf into a book, and to one of its pleats."""
    page.get_by_role("link", name=title, exact=True).click()
    expect(page.locator("#strip-book")).to_have_attribute("aria-expanded", "true")  # set once the page's scripts have run
    if pleat:
        page.locator(f"#strip-{pleat}").click()
        expect(page.locator(f"#body-{pleat}")).to_be_visible()


def typed(page: Page, path: str, text: str) -> None:
    """Type into a field and leave it, as a maker does."""
    field = page.locator(f"#i-{path.replace('.', '-').replace('_', '-')}")
    field.fill(text)
    field.press("Tab")
