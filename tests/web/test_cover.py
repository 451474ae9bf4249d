"""Covers in the browser: decided on the drawing, covered from the materials, and opened and closed before the
eyes."""

import json
import re

import pytest
from playwright.sync_api import expect

from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.pleats.cover.kinds import COVERS
from pleat.services import books as service
from pleat.store.database import transaction
from tests.web.conftest import open_book, typed

BOOK = "Almanac of the society"


def stored(app, name):
    with transaction(app.extensions["pleat_engine"]) as session:
        return service.add(session, recipe(name).book(), "", "made")


@pytest.mark.every(3)
@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_every_cover_has_its_page_its_pictures_and_what_its_script_needs(app, client, name):
    book_id = stored(app, name)
    answer = client.get(f"/books/{book_id}/cover")
    page = answer.get_data(as_text=True)
    assert answer.status_code == 200
    data = json.loads(
        re.search(r"data-cover=\"([^\"]*)\"", page)[1].replace("&#34;", '"').replace("&#39;", "'")
    )
    states = len(data["names"])
    assert len(re.findall(r"<figure", page)) == states, "a picture of every state where nothing moves"
    assert all(len(panel["angles"]) == len(panel["lifts"]) == states for panel in data["panels"])
    assert [panel["parent"] for panel in data["panels"]].count(-1) == 1
    assert all(panel["parent"] < place for place, panel in enumerate(data["panels"]))
    assert len(page) < 60_000
    assert client.get("/books/999/cover").status_code == 404
    workspace = client.get(f"/books/{book_id}?open=cover").get_data(as_text=True)
    assert "open and close it" in workspace or recipe(name).book().cover.kind in (
        "bare",
        "boards",
        "cards",
        "punchedboards",
    )


def test_a_joint_set_on_the_drawing_says_what_the_cover_opens_to_and_its_fix_mends_it(desk):
    open_book(desk, BOOK, "cover")
    body = desk.locator("#body-cover")
    before = body.locator(".close-up svg").nth(1).get_attribute("aria-label")
    assert "opens flat" in before
    typed(desk, "cover.joint_mm", "4")
    expect(body.locator("[data-check=joint]")).to_contain_text("opens only to about")
    expect(body.locator(".close-up svg").nth(1)).not_to_have_attribute("aria-label", before)
    grip = body.locator("[role=slider]")
    grip.focus()
    grip.press("ArrowRight")
    expect(grip).to_have_attribute("aria-valuetext", "4.5 mm")
    body.locator("[data-check=joint]").get_by_role("button", name="joint 8 mm").click()
    expect(body.locator("[data-check=joint]")).to_have_count(0)
    typed(desk, "cover.turn_in_mm", "4")
    expect(body.locator("[data-check=E3]")).to_contain_text("too short to hold")
    typed(desk, "cover.turn_in_mm", "nonsense")
    expect(desk.locator("#n-cover-turn-in-mm")).to_contain_text("nonsense")
    expect(desk.locator("#i-cover-turn-in-mm")).to_have_value("nonsense")
    typed(desk, "cover.turn_in_mm", "18")
    expect(body.locator("[data-check=E3]")).to_have_count(0)


def test_boards_and_cloth_are_picked_from_the_materials_and_told_back(desk):
    open_book(desk, BOOK, "paper")
    body = desk.locator("#body-paper")
    for role in ("board", "covering"):
        body.locator(f"#drawer-{role} summary").click()
        choice = body.locator(f"#papers-{role} .paper-choice").first
        expect(choice).to_be_visible()
        name = choice.locator("b").inner_text()
        choice.click()
        expect(body.locator(".paper-side h3", has_text=name)).to_be_visible()
    typed(desk, "paper.board.thickness_mm", "3")
    expect(desk.locator("#strip-cover")).to_contain_text("mm")
    expect(body.locator(".otherwise")).to_contain_text("otherwise than this book")
    body.locator(".otherwise").get_by_role("button", name="tell the materials").click()
    expect(body.locator(".otherwise")).to_have_count(0)
    desk.locator("#strip-cover").click()
    expect(desk.locator("#body-cover #why-strip")).to_contain_text("mm")


def test_the_cover_opens_and_closes_by_slider_keys_and_play(desk):
    open_book(desk, BOOK, "cover")
    desk.get_by_role("link", name="open and close it").click()
    slide, says = desk.locator("#moving-at"), desk.locator("#moving-says")
    expect(says).to_have_text("the spine up")
    front = desk.locator(".moving-panel").nth(1)
    turned = front.evaluate("one => one.style.transform")
    slide.focus()
    desk.keyboard.press("Home")
    expect(says).to_have_text("open flat")
    assert front.evaluate("one => one.style.transform") != turned
    desk.keyboard.press("End")
    expect(says).to_have_text("shut")
    desk.locator("#moving-play").click()
    expect(desk.locator("#moving-play")).to_have_text("stop")
    expect(says).to_have_text("open flat")
    expect(desk.locator("#moving-play")).to_have_text("shut it")
    desk.get_by_role("button", name="the spine up").click()
    expect(says).to_have_text("the spine up")
    shifts = desk.evaluate(
        "() => new Promise(done => { let sum = 0; new PerformanceObserver(list => "
        "list.getEntries().forEach(one => sum += one.value))"
        ".observe({type: 'layout-shift', buffered: true}); setTimeout(() => done(sum), 300); })"
    )
    assert shifts < 0.02


def test_with_reduced_motion_it_steps_and_without_script_there_are_pictures(browser, desk, served):
    open_book(desk, BOOK, "cover")
    book_id = desk.url.rstrip("/").split("/")[-1].split("?")[0]
    calm = browser.new_context(reduced_motion="reduce").new_page()
    calm.goto(f"{served}/books/{book_id}/cover")
    calm.locator("#moving-play").click()
    expect(calm.locator("#moving-says")).to_have_text("shut")
    expect(calm.locator("#moving-play")).to_have_text("open it")
    calm.context.close()
    plain = browser.new_context(java_script_enabled=False).new_page()
    plain.goto(f"{served}/books/{book_id}/cover")
    expect(plain.locator(".moving")).to_be_hidden()
    expect(plain.locator(".states figure svg")).to_have_count(3)
    plain.context.close()


def test_another_cover_keeps_what_was_decided_for_the_one_left_behind(desk):
    open_book(desk, BOOK, "cover")
    typed(desk, "cover.square_mm", "5")
    expect(desk.locator("#i-cover-square-mm")).to_have_value("5")
    for title, back in (("quarter covering", False), ("case with a flat back", True)):
        if not desk.locator("#drawer-covers[open]").count():
            desk.locator("#drawer-covers summary").click()
        desk.locator("#drawer-covers").get_by_role("button", name=f"take {title}", exact=True).click()
        expect(desk.locator("#i-cover-square-mm")).to_have_value("5" if back else "3")
    assert len(COVERS.members) == 15


def test_the_block_is_measured_and_every_piece_follows(desk):
    open_book(desk, BOOK, "cover")
    body = desk.locator("#body-cover")
    before = body.locator("#why-covering .figure-value").inner_text()
    desk.locator("#drawer-cover-done summary").click()
    typed(desk, "cover.measured_spine_mm", "20")
    expect(body.locator("#why-strip .figure-value")).to_contain_text("24")
    expect(body.locator("#why-covering .figure-value")).not_to_have_text(before)
    expect(body.locator("#why-spine-estimated")).to_be_visible()
    expect(desk.locator("#drawer-cover-done")).to_have_attribute("open", "")
    typed(desk, "cover.measured_spine_mm", "2000")
    expect(desk.locator("#n-cover-measured-spine-mm")).to_contain_text("too large")
    desk.get_by_role("button", name="undo").click()
    expect(body.locator("#why-covering .figure-value")).to_have_text(before)


def test_every_piece_goes_out_for_a_cutter_from_the_print_page(desk):
    open_book(desk, BOOK)
    desk.get_by_role("link", name="print", exact=True).click()
    one = desk.locator(".print-one", has_text="front board")
    with desk.expect_download() as came:
        one.get_by_role("link", name="DXF").click()
    text = came.value.path().read_text()
    assert "LWPOLYLINE" in text
    assert "CUT" in text
    with desk.expect_download() as came:
        desk.locator(".print-one", has_text="covering").first.get_by_role("link", name="SVG").click()
    assert "mm" in came.value.path().read_text()
