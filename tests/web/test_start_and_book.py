"""From the start to the overview, what the overview shows, and another kind of book later: as a maker does it
in the browser."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from pleat.core.document.recipes import RECIPES
from tests.profiles import some
from tests.web.conftest import open_book, typed


def test_three_answers_lead_to_the_overview_in_under_twenty_keys(desk: Page):
    keys = 0
    desk.goto("/")
    desk.get_by_role("link", name="start a book").click()
    desk.locator(".recipe", has_text="pocket notebook").click()
    expect(desk.locator("#look h2")).to_have_text("Pocket notebook")
    expect(desk.get_by_label("leaf size, width first")).to_have_value("105 × 148")
    desk.get_by_text("Log paper, cream").click()
    count = desk.get_by_label("how many pages or leaves")
    count.fill("")
    for key in "48 pages":
        count.press(key)
        keys += 1
    expect(desk.locator("#look .look-facts")).to_contain_text("48")
    count.press("Enter")
    expect(desk.locator("#book")).to_be_visible()
    assert keys + 1 < 20
    expect(desk.locator(".book-kind")).to_contain_text("6 sheets folded twice = 24 leaves = 48 pages")
    expect(desk.locator(".scrap")).to_contain_text("105 × 148 mm")
    expect(desk.locator("#strip-pages .strip-figure")).to_contain_text("48 pages")


def test_a_kind_is_found_by_the_beginnings_of_its_words(desk: Page):
    desk.goto("/new")
    shown = desk.locator(".recipe:visible")
    every = shown.count()
    find = desk.get_by_label("find a kind")
    for text, one, other in (
        ("ring", "tags on a key ring", "sketch pad on a coil"),
        ("Key  ri", "tags on a key ring", "leaves on two rings"),
    ):
        find.fill(text)
        find.press("Enter")
        expect(shown.filter(has_text=other)).to_have_count(0)
        expect(shown.filter(has_text=one)).to_have_count(1)
        assert shown.count() < every / 2
    find.fill("xyzzy")
    expect(shown).to_have_count(0)
    expect(desk.get_by_text("Take a word or a wish away")).to_be_visible()
    find.fill("")
    expect(shown).to_have_count(every)
    assert desk.url.endswith("/new"), "Enter in it starts nothing"


def test_each_answer_shows_at_once_and_wrong_ones_come_into_view_and_stay(desk: Page):
    desk.goto("/new")
    thick = desk.locator("#look .look-facts")
    expect(thick).to_contain_text("2.3 mm")
    desk.get_by_label("how many pages or leaves").fill("64 pages")
    expect(thick).to_contain_text("64")
    desk.get_by_role("button", name="200 × 200").click()
    expect(thick).to_contain_text("200 × 200 mm")
    desk.locator(".chip", has_text="no glue").click()
    expect(desk.get_by_text("found-paper journal")).to_be_hidden()
    desk.get_by_text("my paper is not here").click()
    desk.get_by_label("name", exact=True).fill("Star wrapping")
    desk.get_by_label("sheet", exact=True).fill("vast")
    desk.get_by_role("button", name="work it out").click()
    wrong = desk.get_by_label("sheet", exact=True)
    expect(wrong).to_be_focused()
    expect(wrong).to_be_in_viewport()
    expect(wrong).to_have_value("vast")
    expect(desk.get_by_label("name", exact=True)).to_have_value("Star wrapping")
    wrong.fill("500 x 700")
    desk.get_by_label("weight", exact=True).fill("90")
    desk.get_by_role("button", name="work it out").click()
    expect(desk.locator(".book-stock")).to_contain_text("Star wrapping")
    desk.get_by_role("link", name="materials").first.click()
    expect(desk.get_by_text("Star wrapping").first).to_be_visible()


def test_who_is_not_sure_is_advised_with_reasons(desk: Page):
    desk.goto("/new")
    desk.get_by_text("not sure").click()
    desk.get_by_label("What for?").select_option(label="to give away")
    desk.locator("[name=pages]").select_option("12")
    desk.get_by_role("button", name="what suits?").click()
    first = desk.locator(".advice").first
    expect(first).to_contain_text("it is to give away, it suits 4 to")
    expect(desk.locator(".advice")).to_have_count(3)
    first.get_by_role("button", name="take it").click()
    expect(desk.locator("#look h2")).to_have_text("Programme, its own cover")


def test_the_overview_opens_by_key_and_title_and_follows_an_edit(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    desk.keyboard.press("0")
    expect(desk.locator("#book")).to_be_visible()
    expect(desk.locator("#head-book")).to_be_focused()
    stock = desk.locator(".book-stock")
    expect(stock).to_contain_text("48 sheets")
    expect(stock).to_contain_text(re.compile(r"4\.87 of material, 0\.81 a book"))
    desk.locator("#strip-brief").click()
    typed(desk, "brief.quantity", "20")
    desk.locator("#strip-book").click()
    expect(stock).to_contain_text("160 sheets")
    expect(stock.locator(".warn")).to_have_text("40 sheets")
    stop = desk.locator(".book-do .check-stop")
    expect(stop).to_contain_text("160 sheets of Log paper, cream are needed, you own 120")
    stop.get_by_role("button", name=re.compile("^why, under Cutting")).click()
    expect(desk.locator("#body-cutting")).to_be_visible()
    desk.keyboard.press("0")
    typed(desk, "title", "Dark-sky log, all nights")
    expect(desk.locator("#strip-book")).to_have_text("Dark-sky log, all nights")
    desk.get_by_role("button", name="to the bench").click()
    expect(desk.locator("#step-press .tick")).to_be_focused()


@pytest.mark.parametrize("size", [(1280, 800), (400, 860)])
def test_the_overview_of_every_book_of_one_paper_fits_one_screen_or_one_column(
    desk: Page, size: tuple[int, int]
):
    desk.set_viewport_size({"width": size[0], "height": size[1]})
    for number in range(1, 6):
        desk.goto(f"/books/{number}")
        expect(desk.locator(".portrait-drawing")).to_be_visible()
        assert desk.evaluate("document.documentElement.scrollWidth") <= size[0]
        if size[0] > 1000:
            high, room = desk.evaluate(
                "[document.querySelector('#book').scrollHeight, document.querySelector('#book').clientHeight]"
            )
            assert high <= room, f"book {number}"


def test_another_kind_is_shown_before_it_is_made_and_undo_brings_all_back(desk: Page):
    open_book(desk, "Visitor notes, first draft", "cover")
    typed(desk, "cover.square_mm", "5")
    desk.locator("#strip-brief").click()
    desk.get_by_text("make it another kind of book").click()
    desk.locator("#become").get_by_label("find a kind").fill("prog cov")
    expect(desk.locator("#become .recipe:visible")).to_have_count(1)
    desk.locator("#become").get_by_role("button", name="programme, its own cover").click()
    expect(desk.locator("#become")).to_contain_text(
        "Laid aside, for when you come back: what you decided for the wrap."
    )
    expect(desk.locator("#become")).to_contain_text("cut the cover")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("mm")
    desk.get_by_role("button", name="make it so").click()
    expect(desk.locator("#strip-cover .strip-figure")).to_have_text("none")
    desk.locator("#strip-bench").click()
    expect(desk.locator("#step-cover_on")).to_have_count(0)
    desk.locator("#strip-cover").click()
    expect(desk.locator("#body-cover")).to_contain_text("The outermost leaves are the cover")
    desk.locator("#do-undo").click()
    expect(desk.locator("#i-cover-square-mm")).to_have_value("5")


TAKEOVER = {"takeover": "1", "window": "w"}


BECOMING = [5, 6, 9, 10, 12, 13]


@pytest.mark.every(2)
@pytest.mark.parametrize("book", BECOMING, ids=["sections", "pile", "case", "leaves", "folio", "album"])
def test_a_book_of_any_block_becomes_every_kind_and_comes_back(client, book):
    """In the quick run a book meets every tenth of them, each book other ones."""
    before = client.get(f"/books/{book}/export").data
    answered = {**TAKEOVER, "open": "book"}
    for one in some(RECIPES, 10, BECOMING.index(book)):
        preview = client.get(f"/books/{book}/become?recipe={one.name}").text
        assert f"As “{one.title}”" in preview
        assert client.post(f"/books/{book}/become", data={"recipe": one.name, **answered}).status_code == 200
        if "That is what it is already" not in preview:
            assert client.get(f"/books/{book}/export").data != before, (book, one.name)
            assert client.post(f"/books/{book}/undo", data=answered).status_code == 200
        assert client.get(f"/books/{book}/export").data == before, (book, one.name)


def test_a_kind_it_cannot_become_is_told_before_it_is_made(client):
    client.post("/books/1/edit", data={"path": "pages.count", "value": "2000 folios", **TAKEOVER})
    assert (
        "A pile holds up to 400 sheets; this book has 2000" in client.get("/books/1/become?recipe=found").text
    )


@pytest.mark.parametrize(
    ("wrong", "shown"),
    [
        ({"count": "lots"}, ["130 × 190 mm", "<dd>64</dd>"]),
        ({"size": "wide"}, ["148 × 210 mm", "<dd>56</dd>"]),
        ({"paper": "own", "own_size": "?"}, ["130 × 190 mm", "<dd>56</dd>"]),
        ({"paper": "99", "size": "", "count": "-"}, ["148 × 210 mm", "<dd>64</dd>"]),
    ],
)
def test_what_can_be_read_of_the_answers_shows_beside_what_cannot(client, wrong, shown):
    answers = {"recipe": "thick", "size": "130 x 190", "paper": "3", "count": "56", "ruler": "mm", **wrong}
    page = client.get("/new/look", query_string=answers).text
    assert "As usual for this one, where an answer cannot be read yet" in page
    assert all(text in page for text in shown), page
    client.get("/new/look", query_string={**answers, "ruler": "in"})
