"""What a maker does, in Chromium against the served application."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, expect

from tests.profiles import LONG, some
from tests.web.conftest import open_book, typed


def strip(page: Page, name: str):
    return page.locator(f"#strip-{name} .strip-figure")


def test_three_answers_give_a_whole_plan(desk: Page):
    desk.goto("/new")
    desk.get_by_label("leaf size, width first").fill("wide")
    desk.get_by_role("button", name="work it out").click()
    expect(desk.locator("#p-size")).to_contain_text("width first")
    desk.get_by_label("leaf size, width first").fill("A5")
    desk.get_by_text("Log paper, cream").click()
    desk.get_by_label("how many pages or leaves").fill("40")
    desk.get_by_role("button", name="work it out").click()
    expect(desk.locator("#book")).to_be_visible()
    desk.locator("#strip-pages").click()
    for name, figure in {
        "brief": "148 × 210 mm",
        "pages": "40 pages",
        "binding": "3 stations",
        "cutting": "sheets",
        "bench": "0 / 20",
    }.items():
        expect(strip(desk, name)).to_contain_text(figure)
    note = desk.locator("[data-check=A11]")
    expect(note).to_contain_text("20 leaves")
    note.get_by_role("button", name="I meant 40 leaves").click()
    expect(strip(desk, "pages")).to_have_text("80 pages")
    expect(note).to_have_count(0)
    expect(desk.locator("#body-pages [data-check=C1]")).to_have_count(
        0
    )  # what was offered has the sections that so many need
    expect(desk.locator("#body-pages")).to_contain_text("3 sections")
    assert "sheets folded once" in desk.locator("#why-count .why").text_content()


def test_a_book_that_fits_its_paper(desk: Page):
    desk.goto("/new")
    desk.get_by_label("what my paper gives").check()
    desk.get_by_label("find another paper").fill("letter")
    desk.get_by_text("Copier paper, letter").click()
    desk.get_by_label("how many pages or leaves").fill("12 leaves")
    desk.get_by_label("in", exact=True).locator("xpath=..").click()
    desk.get_by_role("button", name="work it out").click()
    expect(strip(desk, "brief")).to_contain_text("5 1/2")
    expect(strip(desk, "pages")).to_have_text("24 pages")


def test_an_edit_on_the_drawing_swaps_what_follows_and_nothing_else(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    desk.evaluate(
        "document.querySelectorAll('.pleat').forEach(p => p.querySelector('.strip').untouched = true)"
    )
    before = desk.locator("#body-binding .picture-main svg").inner_html()
    typed(desk, "cover.square_mm", "1/4 in")
    expect(strip(desk, "cover")).to_contain_text("217.5")
    expect(desk.locator("#i-cover-square-mm")).to_have_value("6.5")
    expect(desk.locator("#step-cut_cover")).to_contain_text("217.5 mm")
    assert desk.locator("#body-binding .picture-main svg").inner_html() == before
    typed(desk, "cover.square_mm", "6.5")
    desk.locator("label[for=ruler-in], .ruler-switch label").nth(1).click()
    expect(desk.locator("#i-cover-square-mm")).to_have_value("1/4")
    expect(strip(desk, "cover")).to_contain_text("in")


def test_what_cannot_be_read_stays_with_its_message(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    typed(desk, "cover.square_mm", "a smidge")
    note = desk.locator("#n-cover-square-mm")
    expect(note).to_contain_text("not a length")
    expect(desk.locator("#i-cover-square-mm")).to_have_attribute("aria-invalid", "true")
    desk.locator("#i-cover-creases-two").locator("xpath=..").click()
    expect(desk.locator("#body-cover")).to_contain_text("spine")
    expect(desk.locator("#body-cover .figures")).to_contain_text("and")
    expect(desk.locator("#i-cover-square-mm")).to_have_value("a smidge")
    expect(note).to_contain_text("not a length")
    typed(desk, "cover.square_mm", "4")
    expect(note).to_be_empty()
    expect(desk.locator("#i-cover-square-mm")).not_to_have_attribute("aria-invalid", "true")
    expect(strip(desk, "cover")).to_contain_text("213")


def test_the_keyboard_alone_opens_pleats_and_asks_why(desk: Page):
    open_book(desk, "Dark-sky log")
    for key, name in (
        ("6", "cover"),
        ("ArrowRight", "cutting"),
        ("ArrowLeft", "cover"),
        ("1", "brief"),
        ("8", "bench"),
        ("ArrowRight", "bench"),
        ("3", "pages"),
    ):
        desk.keyboard.press(key)
        expect(desk.locator(f"#body-{name}")).to_be_visible()
        expect(desk.locator(f"#strip-{name}")).to_have_attribute("aria-expanded", "true")
    assert desk.url.endswith("open=pages")
    summary = desk.locator("#why-thickness button")
    summary.focus()
    desk.keyboard.press("Enter")
    expect(desk.locator("#why-thickness .why")).to_contain_text("leaves ×")
    expect(desk.locator("#why-thickness .why")).to_contain_text("house rule")
    desk.keyboard.press("Escape")
    expect(desk.locator("#why-thickness .why")).to_be_hidden()
    desk.locator("#i-pages-count").fill("8")
    desk.keyboard.press("1")
    expect(desk.locator("#body-pages")).to_be_visible()
    assert desk.locator("#i-pages-count").input_value() == "81", "digits typed into a field are digits"
    desk.keyboard.press("Enter")
    expect(strip(desk, "pages")).to_have_text("84 pages")


def test_stations_are_dragged_typed_and_nudged_with_their_partner(desk: Page):
    open_book(desk, "Visitor notes, first draft", "binding")
    first, last = desk.locator("#i-binding-station-0"), desk.locator("#i-binding-station-2")
    expect(first).to_have_value("38")
    handle = desk.locator("#grip-binding-station-0").bounding_box()
    x, y = handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2
    desk.mouse.move(x, y)
    desk.mouse.down()
    desk.mouse.move(x + 30, y, steps=6)
    dragged = float(first.input_value())
    assert dragged > 43
    assert dragged * 2 == round(dragged * 2), "it snaps to the ruler"
    desk.mouse.up()
    expect(last).to_have_value(re.compile(f"^{210 - dragged:g}$"))
    desk.locator("#grip-binding-station-2").focus()
    desk.keyboard.press("ArrowRight")
    desk.keyboard.press("ArrowRight")
    expect(first).to_have_value(f"{dragged - 1:g}")
    typed(desk, "binding.station.0", "1 1/2")
    expect(first).to_have_value("38")
    typed(desk, "binding.station.1", "100")
    expect(desk.locator("#n-binding-station-1")).to_contain_text("Unlock")
    desk.locator("#stations-free").locator("xpath=..").click()
    expect(desk.locator("#grip-binding-station-1")).not_to_have_attribute("aria-disabled", "true")
    desk.locator("#i-binding-station-1").press("Enter")
    expect(desk.locator("#grip-binding-station-1")).to_have_attribute("aria-valuetext", "100 mm")
    expect(last).to_have_value("172")


def test_the_thread_is_walked_hole_by_hole(desk: Page):
    open_book(desk, "Moon sketchbook", "binding")
    spans = desk.locator("#body-binding .span[data-step='3']")
    desk.get_by_role("button", name="one hole on").click()
    expect(desk.locator("[data-walk='0']")).to_have_class(re.compile("here"))
    expect(spans).to_have_class(re.compile("ahead"))
    for _ in range(3):
        desk.get_by_role("button", name="one hole on").click()
    expect(spans).to_have_class(re.compile("here"))
    desk.get_by_role("button", name="one hole back").click()
    expect(desk.locator("[data-walk='2']")).to_have_class(re.compile("here"))
    typed(desk, "binding.tail_mm", "100")
    expect(desk.locator("[data-walk='0']")).to_contain_text("100 mm")
    expect(spans).to_have_class(re.compile("ahead"))
    desk.get_by_role("button", name="whole path").click()
    expect(spans).not_to_have_class(re.compile("ahead"))


def test_ways_side_by_side_are_taken_with_one_tap(desk: Page):
    open_book(desk, "Visitor notes, first draft", "pages")
    ways = desk.locator("#body-pages .ways", has_text="In sections")
    ways.get_by_role("button", name="take 2 sections of 7 sheets").click()
    expect(ways.locator(".way-chosen")).to_contain_text("2 sections of 7 sheets")
    expect(desk.locator("#i-pages-sections")).to_have_value("2")
    expect(desk.locator("#body-cover .hole")).to_have_count(6)
    folded = desk.locator("#body-pages .ways", has_text="This whole sheet, folded")
    folded.get_by_role("button", name="take twice, sheet turned").click()
    expect(strip(desk, "brief")).to_contain_text("148.5 × 105")
    desk.locator("#i-pages-numbered-yes").locator("xpath=..").click()
    expect(desk.locator(".numbered li")).to_have_count(7)
    expect(desk.locator(".numbered svg").first).to_have_attribute(
        "aria-label", re.compile("Section 1, sheet 1, inner side: pages")
    )


def test_a_thread_is_taken_from_the_materials(desk: Page):
    open_book(desk, "Moon sketchbook", "binding")
    desk.locator("#drawer-thread summary").click()
    desk.locator("#drawer-thread .paper-choice", has_text="Hemp cord").click()
    expect(desk.locator("#drawer-thread summary")).to_contain_text("Hemp cord for ties")
    expect(desk.locator("#why-diameter")).to_contain_text("1.100 mm")
    expect(desk.locator("#step-thread")).to_contain_text("Hemp cord for ties, taken single")
    expect(desk.locator("#i-binding-thread-lea")).to_have_count(0)


def test_undo_and_redo_with_buttons_and_keys(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    typed(desk, "cover.square_mm", "5")
    expect(strip(desk, "cover")).to_contain_text("215")
    desk.get_by_role("button", name="undo").click()
    expect(strip(desk, "cover")).to_contain_text("211")
    expect(desk.locator("#i-cover-square-mm")).to_have_value("3")
    desk.locator("h2", has_text="Cover").click()
    desk.keyboard.press("Control+Shift+Z")
    expect(strip(desk, "cover")).to_contain_text("215")
    desk.keyboard.press("Control+z")
    expect(strip(desk, "cover")).to_contain_text("211")
    desk.reload()
    expect(desk.get_by_role("button", name="redo")).to_be_enabled()


def test_steps_are_ticked_one_by_one_and_a_forgotten_cover_is_told(desk: Page):
    open_book(desk, "Dark-sky log", "bench")
    desk.locator("#tick-press").click()
    expect(strip(desk, "bench")).to_have_text("6 / 20")
    desk.locator("#tick-sew").click()
    told = desk.locator("#body-bench [data-check=D1]")
    expect(told).to_contain_text("the cover is not round the section")
    told.get_by_role("button", name="untick").click()
    expect(told).to_have_count(0)
    desk.reload()
    expect(desk.locator("#tick-press")).to_have_attribute("aria-pressed", "true")
    expect(desk.locator("#step-pierce .caution")).to_contain_text("awl")


def test_two_windows_on_one_book(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    other = desk.context.new_page()
    other.goto(desk.url)
    typed(other, "cover.square_mm", "5")
    expect(strip(other, "cover")).to_contain_text("215")
    typed(desk, "cover.square_mm", "8")
    expect(desk.locator("#notice")).to_contain_text("Another window changed this book")
    expect(desk.locator("#i-cover-square-mm")).to_have_value("8")
    desk.get_by_role("button", name="save mine all the same").click()
    expect(strip(desk, "cover")).to_contain_text("221")
    expect(desk.locator("#notice")).to_be_empty()
    typed(desk, "cover.square_mm", "7")
    expect(strip(desk, "cover")).to_contain_text("219")


def test_a_paper_is_picked_from_the_materials(desk: Page):
    open_book(desk, "Dark-sky log", "paper")
    desk.locator("#drawer-cover summary").click()
    choice = desk.locator("#papers-cover .paper-choice", has_text="Kraft card")
    expect(choice).to_contain_text("a sheet")
    choice.click()
    expect(desk.locator("#body-paper")).to_contain_text("Cover: Kraft card")
    expect(desk.locator("#body-paper #why-cover-caliper")).to_contain_text("0.360 mm")
    typed(desk, "paper.leaf.weight", "110 lb velvet")
    expect(desk.locator("#n-paper-leaf-weight")).to_contain_text("I do not know the grade")
    typed(desk, "paper.leaf.weight", "60# offset")
    expect(desk.locator("#i-paper-leaf-weight")).to_have_value("60 lb text")
    expect(desk.locator("#why-leaf-caliper .why")).to_contain_text("88.8 g/m² (60 lb text)")


def test_a_book_file_goes_out_and_a_broken_one_is_refused(desk: Page, tmp_path):
    open_book(desk, "Dark-sky log")
    with desk.expect_download() as download:
        desk.get_by_role("link", name="save a file").click()
    path = tmp_path / "log.pleat.json"
    download.value.save_as(path)
    data = json.loads(path.read_text())
    data["brief"]["leaf_width_mm"] = "broad"
    broken = tmp_path / "broken.json"
    broken.write_text(json.dumps(data))
    desk.get_by_role("link", name="all books").click()
    desk.locator("#file").set_input_files(broken)
    desk.get_by_role("button", name="take it in").click()
    expect(desk.get_by_role("alert")).to_contain_text("the leaf's width")
    desk.locator("#file").set_input_files(path)
    desk.get_by_role("button", name="take it in").click()
    expect(strip(desk, "brief")).to_contain_text("148 × 205")


def test_dark_is_remembered(desk: Page):
    desk.goto("/")
    desk.get_by_role("button", name="dark", exact=True).click()
    expect(desk.locator("html")).to_have_attribute("data-theme", "dark")
    desk.reload()
    expect(desk.locator("html")).to_have_attribute("data-theme", "dark")


SIZES = ((1280, 800), (1024, 768), (400, 860))
OPENED = "document.querySelectorAll('details').forEach((drawer) => { drawer.open = true; })"
CUT_OFF = """name => {
    const wide = (part) => part.scrollWidth <= part.clientWidth + 1;
    const named = innerWidth < 760 ? '.strip-number' : '.strip .strip-name';
    const words = [...document.querySelectorAll(named)].filter((word) => word.checkVisibility());
    return [
        document.documentElement.scrollWidth > innerWidth + 1 ? ['the page'] : [],
        name && !wide(document.getElementById('body-' + name)) ? ['the pleat'] : [],
        name ? words.filter((word) => word.getBoundingClientRect().height <= 8)
        .map((word) => word.textContent) : [],
    ].flat();
}"""
"""What of a page or of an open pleat stands out sideways or has no room left."""
PLAIN = (
    "/",
    "/new",
    "/books/5/print",
    "/books/8/sewing?part=1",
    "/books/8/sewing/practice",
    "/books/3/sewing/own",
    "/books/9/cover",
    "/books/10/turning",
    "/books/12/folding",
    "/books/13/folding",
    "/materials?make=140+x+200",
    "/materials/4",
    "/materials/2/measure",
    "/materials/6/grain",
    "/materials/table",
)
OPEN = (
    *((2, name) for name in ("brief", "paper", "extras", "binding", "cover", "cutting", "bench")),
    (6, "pages"),
    (12, "pages"),
    (13, "pages"),
    (13, "binding"),
    (13, "cover"),
)


def test_nothing_is_cut_off_sideways_on_any_screen(desk: Page):
    """In the quick run on a phone and on one of the two larger screens, by turns."""
    views = [
        *((address, "") for address in PLAIN),
        *((f"/books/{book}?open={name}", name) for book, name in OPEN),
    ]
    for number, (address, name) in enumerate(some(views, 3)):
        desk.goto(address)
        desk.evaluate(OPENED)
        for width, height in SIZES if LONG else (SIZES[number % 2], SIZES[2]):
            desk.set_viewport_size({"width": width, "height": height})
            assert desk.evaluate(CUT_OFF, name) == [], (address, width)


STRETCHED = """name => {
    document.getElementById('strip-' + name).click();
    return [...document.querySelectorAll(`#body-${name} .picture:has([data-spot-x])`)].filter((picture) => {
        const svg = picture.querySelector('svg'), box = svg.getBoundingClientRect();
        const drawn = svg.viewBox.baseVal, held = picture.getBoundingClientRect();
        return box.width && (Math.abs(box.width / box.height - drawn.width / drawn.height) > 0.02
          || Math.abs(box.width - held.width) > 1);
    }).map((picture) => picture.outerHTML.slice(0, 200));
}"""
"""The pictures whose shares are not those of what is drawn."""


def test_what_stands_on_a_picture_stands_where_it_is_drawn(desk: Page):
    """A picture that its window keeps low is no wider than it is drawn: fields, handles and grips are placed
    by shares of it."""
    for book in some(range(1, 15), 5):
        desk.set_viewport_size({"width": 1280, "height": 800})
        desk.goto(f"/books/{book}")
        for height in (800, 520):
            desk.set_viewport_size({"width": 1280, "height": height})
            for name in ("pages", "extras", "binding", "cover"):
                assert desk.evaluate(STRETCHED, name) == [], (book, name, height)
    desk.goto("/books/14?open=extras&design=programme")
    typed(desk, "extras.items.programme.place.0", "20, 500")
    grip = desk.locator("#grip-extras-items-programme-place-0")
    expect(grip).to_have_attribute("data-y", re.compile("^500"))
    drawn = desk.locator("#body-extras .picture-main rect.thing-chosen")
    expect(drawn).to_have_count(1)
    for side in ("x", "y", "width", "height"):
        assert grip.bounding_box()[side] == pytest.approx(drawn.bounding_box()[side], abs=4), side


def test_the_first_screen_is_light(desk: Page):
    """Under 300 kB over the wire with nothing cached."""
    client = desk.context.new_cdp_session(desk)
    client.send("Network.enable")
    client.send("Network.setCacheDisabled", {"cacheDisabled": True})
    sizes: list[float] = []
    client.on("Network.loadingFinished", lambda event: sizes.append(event["encodedDataLength"]))
    desk.goto("/books/5")
    desk.wait_for_load_state("networkidle")
    assert 20_000 < sum(sizes) < 300_000
