"""The Cutting pleat: each material once, its sheets with their cuts, and what follows when more is made."""

from __future__ import annotations

import html
import re

from playwright.sync_api import Page, expect

from pleat.core.document.bookfile import read_book
from pleat.core.whole.planning import worked_out
from tests.web.conftest import open_book, typed


def plain(markup):
    return " ".join(html.unescape(re.sub(r"<[^>]+>", " ", markup)).split())


def test_each_material_is_told_once_with_its_sheets_and_all_cuts(client):
    """Of every book of the demo, against its own plan: a heading a material, a picture a kind of sheet, as
    many numbers as cuts."""
    for number in range(1, 15):
        book = read_book(client.get(f"/books/{number}/export").get_data())
        plans = worked_out(book).cutting.plans
        page = client.get(f"/books/{number}?open=cutting").get_data(as_text=True)
        body = page[page.index('id="body-cutting"') :] if plans else ""
        assert body.count('<article class="cut">') == len(plans)
        assert body.count('<figure class="picture">') == sum(
            len(own.sheets) + len(own.lacking) for own in plans
        )
        told = plain(body)
        for own in plans:
            assert own.stock.name in told
            if own.sheets and not own.stock.roll:
                assert f"{own.needed} sheet" in told
        numbered = [sheet for own in plans for sheet in own.sheets if len(sheet.cuts) <= 30]
        assert body.count('class="cut-number"') == sum(len(sheet.cuts) for sheet in numbered)


def test_a_run_takes_more_boards_at_once(desk: Page):
    """Two boards of 145 x 216 and their strip come out of one sheet; those of twenty books take several."""
    open_book(desk, "Almanac of the society", "cutting")
    board = desk.locator(".cut", has_text="Greyboard")
    expect(board.locator("h3")).to_contain_text("1 sheet, best possible")
    expect(board.locator(".cut-parts li")).to_have_count(2)
    open_book(desk, "Almanac of the society", "brief")
    typed(desk, "brief.quantity", "20")
    expect(desk.locator("#strip-cutting")).to_contain_text("sheets")
    desk.locator("#strip-cutting").click()
    expect(board.locator("h3")).to_contain_text("5 sheets, best possible")
