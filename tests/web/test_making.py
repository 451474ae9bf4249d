"""Making a book with one step on the screen: by keys, by touch, and without a connection."""

from __future__ import annotations

import re
from zipfile import ZipFile

import pytest
from playwright.sync_api import Page, expect

from pleat.core.document.bookfile import read_book
from pleat.services import books
from pleat.store.database import transaction
from tests.process import pdf_of
from tests.profiles import LONG
from tests.services.test_log import taken
from tests.web.conftest import BOOKS, in_script, open_book

JOURNAL = BOOKS["Dark-sky log"]
CUT_OFF = "() => document.documentElement.scrollWidth > innerWidth + 1"


def done_in(app, book_id):
    with transaction(app.extensions["pleat_engine"], reading=True) as session:
        return [one.step.key for one in books.open_book(session, book_id).plan.bench.work if one.done]


def test_a_book_is_made_by_keys_alone(desk: Page):
    open_book(desk, "Dark-sky log", "bench")
    desk.locator("#to-making").click()
    expect(desk.locator("h1:visible")).to_have_text("Press the section")
    done = desk.locator("#making-done")
    for copy in range(1, 7):
        expect(done).to_have_text(f"copy {copy} of 6")
        desk.keyboard.press("Enter")
        if copy == 3:
            expect(desk.locator(".making-offline")).to_be_hidden()
            desk.reload()  # three of six are kept
    expect(desk.locator("h1:visible")).to_have_text("Measure the pressed section at the fold")
    expect(desk.locator(".wait-chip")).to_contain_text(re.compile("Press the section: (60|59) min"))
    desk.keyboard.press("PageUp")
    expect(desk.locator("#making-done")).to_have_attribute("aria-pressed", "true")
    desk.keyboard.press(" ")
    desk.keyboard.press("ArrowRight")
    expect(desk.locator("h1:visible")).to_have_text("Cut the cover")
    desk.reload()
    expect(desk.locator("h1:visible")).to_have_text("Cut the cover")  # the address says where one is
    desk.locator(".bar-button", has_text="list").click()
    expect(desk.locator("#tick-press")).to_have_attribute("aria-pressed", "true")
    expect(desk.locator(".wait-chip")).to_contain_text("Press the section")
    desk.locator(".wait-chip").click()
    expect(desk.locator(".wait-chip")).to_have_count(0)


def test_a_swipe_turns_to_the_next_step_and_a_tap_ticks(desk: Page):
    desk.set_viewport_size({"width": 400, "height": 860})
    desk.goto(f"/books/{JOURNAL}/making?step=strip")
    stage = desk.locator(".making-stage")
    finger = {"pointerType": "touch", "isPrimary": True, "clientY": 300, "bubbles": True}
    for x, title in ((-160, "Put the cover round the section"), (160, "Make one station strip")):
        for kind, by in (("pointerdown", 0), ("pointerup", x)):
            stage.dispatch_event(kind, {**finger, "clientX": 200 + by})
        expect(desk.locator("h1:visible")).to_have_text(title)
    desk.locator("#making-done").click()
    expect(desk.locator("h1:visible")).to_have_text("Put the cover round the section")


def test_ticks_wait_while_the_connection_is_cut_and_none_is_lost_or_doubled(desk: Page, whole_app):
    """Every step ticked and unticked by turns; in the middle of it the connection goes, and the page too."""
    rounds = 30 if LONG else 2
    desk.goto(f"/books/{JOURNAL}/making?step=gather")
    steps = desk.locator(".making-step").count()
    wanted = in_script_ticks(desk, 0, steps)
    desk.context.set_offline(True)
    for number in range(rounds):
        wanted = in_script_ticks(desk, number, steps)
    expect(desk.locator(".making-offline")).to_be_visible()
    desk.context.set_offline(False)
    desk.reload()  # the browser was shut meanwhile: what waited is kept
    expect(desk.locator(".making-offline")).to_be_hidden(timeout=30_000)
    assert done_in(whole_app, JOURNAL) == wanted


def in_script_ticks(desk: Page, number: int, steps: int) -> list[str]:
    """Every third step turned, from another one each round; what is done then by the page."""
    for at in range(number % 3, steps, 3):
        desk.locator(".making-row button").nth(at).click()
        every = desk.locator("#making-all")
        (every if every.is_visible() else desk.locator("#making-done")).click()
    done: list[str] = desk.evaluate(
        """() => { const all = [...document.querySelectorAll('.making-step')];
        return all.filter((step, at) => document.querySelectorAll('.making-row button')[at].classList
          .contains('done')).map((step) => step.dataset.key); }"""
    )
    return done


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (400, 860)])
def test_every_step_is_a_picture_within_the_screen(desk: Page, width, height):
    desk.set_viewport_size({"width": width, "height": height})
    for book in (JOURNAL, BOOKS["Almanac of the society"]):
        desk.goto(f"/books/{book}/making?step=gather")
        buttons = desk.locator(".making-row button")
        for at in range(buttons.count()):
            desk.evaluate("at => document.querySelectorAll('.making-row button')[at].click()", at)
            seen = desk.locator(".making-picture:visible svg")
            assert seen.get_attribute("aria-label")
            assert seen.bounding_box()["height"] > 100, at
            assert not desk.evaluate(CUT_OFF), (book, at)
            foot = desk.locator(".making-foot").bounding_box()
            assert round(foot["y"] + foot["height"]) <= height, "what ticks is always at hand"


def test_what_is_left_of_a_wait_in_words(desk: Page):
    desk.goto("/")
    lefts = [0, 1, 60_000, 61_000, 119 * 60_000, 480 * 60_000]
    told = in_script(desk, "waits", "lefts => lefts.map(m.lasting)", lefts)
    assert told == ["over", "1 min", "1 min", "2 min", "119 min", "8 h"]


def test_one_copy_less_and_all_at_once(desk: Page, whole_app):
    desk.goto(f"/books/{JOURNAL}/making?step=press")
    done = desk.locator("#making-done")
    done.click()
    done.click()
    expect(done).to_have_text("copy 3 of 6")
    desk.locator("#making-less").click()
    expect(done).to_have_text("copy 2 of 6")
    expect(desk.locator(".making-offline")).to_be_hidden()
    assert "press" not in done_in(whole_app, JOURNAL)
    desk.locator("#making-all").click()
    expect(desk.locator("h1:visible")).to_have_text("Measure the pressed section at the fold")
    expect(desk.locator(".making-offline")).to_be_hidden()
    assert "press" in done_in(whole_app, JOURNAL)


def test_what_another_window_did_shows_when_one_comes_back(desk: Page):
    desk.goto(f"/books/{JOURNAL}/making?step=press")
    expect(desk.locator("#making-done")).to_have_text("copy 1 of 6")
    other = desk.context.new_page()
    other.goto(f"/books/{JOURNAL}/making?step=press")
    for _ in range(2):
        other.locator("#making-done").click()
    expect(other.locator(".making-offline")).to_be_hidden()
    other.close()
    desk.evaluate("dispatchEvent(new Event('focus'))")
    expect(desk.locator("#making-done")).to_have_text("copy 3 of 6")


def test_what_is_noted_at_a_step_stays_there_and_is_struck(desk: Page):
    desk.goto(f"/books/{JOURNAL}/making?step=press")
    step = desk.locator(".making-step:visible")
    step.locator("summary", has_text="note or photograph").click()
    step.get_by_role("button", name="keep it").click()
    expect(step.locator(".field-note")).to_have_text("Write something, or choose a photograph.")
    step.locator("textarea").fill("the weight was too light; 1/2 kg more")
    step.locator("input[type=file]").set_input_files(
        {"name": "book.jpg", "mimeType": "image/jpeg", "buffer": taken((1200, 900), turned=6)}
    )
    step.get_by_role("button", name="keep it").click()
    expect(step.locator(".making-entry p")).to_contain_text("the weight was too light")
    seen = step.locator(".making-entry img")
    expect(seen).to_have_js_property("naturalWidth", 1200)  # upright, as another reader has it
    desk.keyboard.press("Escape")
    desk.reload()
    step.get_by_role("button", name="strike this note").click()
    expect(step.locator(".making-entry.struck p")).to_contain_text("the weight was too light")
    desk.goto(f"/books/{JOURNAL}/making?step=fold")
    expect(desk.locator(".making-step:visible .making-entry")).to_have_count(0)
    open_book(desk, "Dark-sky log", "bench")
    with desk.expect_download() as going:
        desk.get_by_role("link", name="save it with its notes").click()
    with ZipFile(going.value.path()) as file:
        (picture,) = (name for name in file.namelist() if name.startswith("photographs/"))
        assert read_book(file.read("book.pleat.json")).title == "Dark-sky log"
        log = file.read("log.csv").decode()
        assert file.read(picture).startswith(b"\xff\xd8\xff")
    assert "the weight was too light; 1/2 kg more" in log
    assert f"{picture},struck" in log


def test_what_is_read_is_typed_at_its_step_and_the_cover_follows(desk: Page, whole_app):
    desk.goto(f"/books/{JOURNAL}/making?step=measure")
    step = desk.locator(".making-step:visible")
    field = step.locator("input[name=value]")
    field.fill("a finger")
    field.press("Enter")
    expect(step.locator(".making-reading .field-note")).to_contain_text("a finger")
    expect(step.locator("input[name=value]")).to_have_value("a finger")
    step.locator("input[name=value]").fill("3.4")
    step.get_by_role("button", name="take it").click()
    expect(step.locator("input[name=value]")).to_have_value("3.4 mm")
    expect(desk.locator("h1:visible")).to_have_text("Measure the pressed section at the fold")
    with transaction(whole_app.extensions["pleat_engine"], reading=True) as session:
        plan = books.open_book(session, JOURNAL).plan
    assert plan.pages.measured
    assert plan.pages.thickness.likely == pytest.approx(3.4)


def test_a_caution_stands_once_in_full(client):
    page = client.get(f"/books/{JOURNAL}/making").text
    cautions = re.findall(r'class="caution">.*?</b> ([^<]+)', page)
    assert cautions
    assert len(cautions) == len(set(cautions))


def test_the_booklet_goes_out_as_pdf_and_as_one_page(client):
    page = client.get(f"/books/{JOURNAL}/print").text
    assert f"/books/{JOURNAL}/booklet.pdf" in page
    assert pdf_of(client, f"/books/{JOURNAL}/booklet.pdf?paper=letter").startswith(b"%PDF")
    sent = client.get(f"/books/{JOURNAL}/booklet.html")
    assert "how-to-make-it.html" in sent.headers["Content-Disposition"]
    assert sent.text.count("<svg") > 5
