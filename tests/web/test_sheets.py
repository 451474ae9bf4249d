"""The Cutting pleat: each material once, its sheets with their cuts, and what follows when more is made."""

from __future__ import annotations

import html
import io
import re

import ezdxf
import pytest
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.document.bookfile import read_book
from pleat.core.document.recipes import recipe
from pleat.core.whole.planning import worked_out
from pleat.services import books
from pleat.store.database import transaction
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


def made(app, name, *changes):
    with transaction(app.extensions["pleat_engine"]) as session:
        return books.add(session, editing.apply(recipe(name).book(), changes), "", "made")


def test_a_sheet_is_cut_given_back_and_told_in_another_window(desk: Page):
    """One of forty sheets: 39 are left, and the bench waits for them; a second window learns of it."""
    open_book(desk, "Almanac of the society", "cutting")
    second = desk.context.new_page()
    second.goto("/books/9?open=brief")
    leaves = desk.locator(".cut", has_text="Thin log paper")
    leaves.get_by_role("button", name="one is cut").click()
    expect(leaves.locator("figcaption")).to_contain_text("39 sheets")
    expect(leaves.locator("h3")).to_contain_text("40 sheets")
    done = leaves.locator(".cut-done li")
    expect(done).to_contain_text("1 × folio, 296 × 210 mm")
    typed(second, "brief.quantity", "2")
    expect(second.locator("#notice")).to_contain_text("a sheet was cut")
    done.get_by_role("button", name="not cut after all").click()
    expect(done).to_have_count(0)
    leaves.get_by_role("button", name="pin it").click()
    expect(leaves.get_by_role("button", name="pinned")).to_have_attribute("aria-pressed", "true")
    leaves.get_by_role("button", name="pinned").click()
    leaves.get_by_role("button", name="pin it").focus()
    leaves.get_by_role("button", name="all 40 are cut").click()
    expect(leaves.locator(".cut-done li")).to_contain_text("40 × folio")
    desk.locator("#strip-bench").click()
    expect(desk.locator("#tick-cut_leaves")).to_have_attribute("aria-pressed", "true")
    desk.locator("#tick-cut_leaves").click()
    expect(desk.locator("#tick-cut_leaves")).to_have_attribute("aria-pressed", "false")


def test_a_better_plan_is_looked_for_beside_the_page_and_kept(desk: Page, whole_app):
    """The folding card of twelve zigzag books: the first plan is not known to be the best, the rounds prove
    what is; another look at the book begins nothing."""
    number = made(whole_app, "zigzag", ("brief.quantity", 12))
    desk.goto(f"/books/{number}?open=cutting")
    card = desk.locator(".cut", has_text="Folding card")
    expect(card.locator("h3")).to_contain_text("8 sheets, best possible", timeout=60_000)
    expect(desk.locator(".better")).to_have_count(0)
    with transaction(whole_app.extensions["pleat_engine"], reading=True) as session:
        opened = books.open_book(session, number)
        (kept,) = opened.packings.values()
    assert kept.done
    (first,) = (own for own in worked_out(opened.book).cutting.plans if own.stock.role == "card")
    assert first.above > 0
    desk.reload()
    expect(card.locator("h3")).to_contain_text("best possible")


def test_a_search_that_is_stopped_keeps_what_it_has(desk: Page, whole_app):
    number = made(whole_app, "hills", ("brief.quantity", 40))
    desk.goto(f"/books/{number}?open=cutting")
    desk.locator("form.better").first.scroll_into_view_if_needed()
    bar = desk.locator("form.better", has_text="stop").first
    bar.get_by_role("button", name="stop").click(timeout=60_000)
    expect(desk.get_by_role("button", name="go on looking").first).to_be_visible(timeout=60_000)


@pytest.mark.parametrize("form", ["svg", "dxf"])
def test_a_sheet_goes_out_at_true_size(client, form):
    page = client.get("/books/9?open=cutting").get_data(as_text=True)
    for address in re.findall(rf'href="(/books/9/sheets/[^"]+\.{form})"', page):
        answer = client.get(address)
        assert answer.status_code == 200
        plans = worked_out(read_book(client.get("/books/9/export").get_data())).cutting.plans
        sheet = next(one for own in plans for one in own.sheets if one.key in address)
        if form == "svg":
            assert f'width="{sheet.width_mm + 10:.3f}mm"' in answer.text
            continue
        drawing = ezdxf.read(io.StringIO(answer.text)).modelspace()
        boxes = [shape for shape in drawing if shape.dxf.layer == "PIECES"]
        assert len(boxes) == sum(sheet.counts().values())
        assert len([shape for shape in drawing if shape.dxf.layer == "CUTS"]) == len(sheet.cuts)
        (edge,) = (shape for shape in drawing if shape.dxf.layer == "SHEET")
        assert {round(x, 3) for x, *_ in edge.get_points()} == {0, sheet.width_mm}
    assert client.get(f"/books/9/sheets/nothing.{form}").status_code == 404


def test_what_is_no_longer_so_is_told_and_changes_nothing(client):
    for action, data in {
        "cut": {"sheet": "leafnone", "times": "1"},
        "uncut": {"fact": "77"},
        "aside": {"part": "boards"},
        "pin": {"sheet": "leafnone"},
        "also": {"stock": "leaf", "item": "99999"},
        "better": {"stock": "nothing"},
        "better/none": {"stock": "leaf"},
    }.items():
        answer = client.post(f"/books/9/sheets/{action}", data={"takeover": "1", **data})
        assert answer.status_code == 422, action


def test_what_would_take_fewer_sheets_is_tried_and_taken(desk: Page):
    """A leaf 0.7 % narrower gives two covers of a sheet of card; another paper as thick serves as well and is
    let go again."""
    desk.goto("/books/10?open=cutting")
    desk.locator("#drawer-near summary").click()
    offered = desk.locator("#drawer-near .near-sizes button, #drawer-near p").first
    expect(offered).to_be_visible()
    open_book(desk, "Almanac of the society", "cutting")
    leaves = desk.locator(".cut", has_text="Thin log paper")
    also = leaves.locator("[id^=drawer-also] summary")
    also.click()
    leaves.get_by_role("button", name="also Copier paper").click()
    expect(also).to_contain_text("another paper serves as well: Copier paper")
    expect(leaves.locator("h3")).to_contain_text("sheets")
    leaves.get_by_role("button", name="folio", exact=True).click()
    expect(desk.locator("#body-pages")).to_be_visible()
    desk.locator("#strip-cutting").click()
    leaves.get_by_role("button", name="not Copier paper").click()
    expect(also).not_to_contain_text("Copier paper")


OVERLAPPING = """() => [...document.querySelectorAll('.cut')].filter(cut => {
    const told = cut.querySelector('.cut-told').getBoundingClientRect();
    return [...cut.querySelectorAll('.sheets-drawn .picture')].some(picture => {
        const box = picture.getBoundingClientRect();
        const beside = box.right <= told.left + 1 || box.left >= told.right;
        return box.width < 240 || !(beside || box.bottom <= told.top + 1 || box.top >= told.bottom);
    });
}).map(cut => cut.querySelector('h3').textContent)"""


@pytest.mark.parametrize("width", [1280, 1024, 820, 390])
def test_sheets_and_their_words_stand_beside_or_under_each_other_on_any_screen(desk: Page, width: int):
    desk.set_viewport_size({"width": width, "height": 900})
    open_book(desk, "Almanac of the society", "cutting")
    assert desk.evaluate(OVERLAPPING) == []


def corner(page: Page, grip: str) -> tuple[float, float]:
    """Where a piece lies, from the words of its button."""
    found = re.search(
        r"([\d.]+) from the left, ([\d.]+) from the top", page.locator(grip).get_attribute("aria-label")
    )
    return float(found[1]), float(found[2])


def test_a_piece_is_dragged_pushed_turned_and_laid_on_another_sheet(desk: Page):
    """The board to the right of its sheet by hand, then along it by the keys, and onto a sheet of its own."""
    open_book(desk, "Almanac of the society", "cutting")
    grip = desk.locator("#grip-board-1-1")
    grip.scroll_into_view_if_needed()
    expect(grip).to_have_css("touch-action", "auto")
    grip.click()
    expect(grip).to_have_css("touch-action", "none")
    told = desk.locator("#piece-board")
    expect(told).to_contain_text("Board, 145 × 216 mm")
    expect(told.get_by_role("button", name="Cover")).to_be_visible()
    box, sheet = grip.bounding_box(), desk.locator("[data-sheet^=board] svg").bounding_box()
    desk.mouse.move(box["x"] + 9, box["y"] + 9)
    desk.mouse.down()
    desk.mouse.move(box["x"] + 90, box["y"], steps=3)
    desk.mouse.move(sheet["x"] + sheet["width"] - 60, sheet["y"] + sheet["height"] - 90, steps=3)
    desk.mouse.up()
    board = desk.locator(".cut", has_text="Greyboard")
    expect(board.get_by_role("button", name="pinned")).to_be_visible()
    places = {corner(desk, f"#grip-board-1-{number}") for number in range(3)}
    assert (555.0, 284.0) in places, "700 - 145 and 500 - 216"
    number = next(n for n in range(3) if corner(desk, f"#grip-board-1-{n}") == (555.0, 284.0))
    desk.locator(f"#grip-board-1-{number}").focus()
    desk.keyboard.press("ArrowUp")
    expect(desk.locator("[aria-label^='board, 555']").first).not_to_have_attribute(
        "aria-label", re.compile("284")
    )
    desk.locator("[id^=grip-board-1]").first.click()
    told.get_by_role("button", name="onto a sheet of its own").click()
    expect(board.locator("h3")).to_contain_text("2 sheets")
    desk.get_by_role("button", name="undo", exact=True).click()
    expect(board.locator("h3")).to_contain_text("1 sheet")


def test_a_piece_that_has_nowhere_to_go_is_told_and_stays(desk: Page):
    open_book(desk, "Almanac of the society", "cutting")
    desk.locator("#grip-leaf-1-0").focus()
    desk.keyboard.press("ArrowLeft")
    expect(desk.locator("#notice")).to_contain_text("no place for it further to the left")
    expect(desk.locator("#grip-leaf-1-0")).to_be_focused()


def test_edges_holes_and_what_is_cut_larger_are_typed_and_drawn(desk: Page):
    open_book(desk, "Almanac of the society", "paper")
    typed(desk, "paper.lining.margins_mm", "10")
    typed(desk, "paper.lining.windows_mm", "100; 100; 50")
    expect(desk.locator("#n-paper-lining-windows-mm")).to_contain_text("four lengths")
    typed(desk, "paper.lining.windows_mm", "100; 100; 50; 60")
    expect(desk.locator("#body-paper .void").first).to_be_attached()
    desk.locator("#strip-cutting").click()
    lining = desk.locator(".cut", has_text="Lining paper")
    expect(lining.locator("svg .void").first).to_be_attached()
    lining.get_by_text("how they are cut").click()
    expect(desk.locator("#i-cutting-match-lining-no")).to_be_checked()
    typed(desk, "cutting.larger.lining", "5")
    expect(lining).to_contain_text("306 × 220 mm")
    expect(lining).to_contain_text("trimmed later to 296 × 210 mm")
