"""Books on hardware as a maker plans them in the browser: started, changed to another kind, held by what is
owned, worked at the bench."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.document.bookfile import write_book
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from pleat.store.database import transaction
from pleat.store.models import BookRow
from tests.profiles import some
from tests.web.conftest import open_book, typed
from tests.web.test_swaps import parts

HELD = [one.name for one in RECIPES if chosen(one.book()).binding.at == "edge"]


def stored(app, name, *changes):
    with transaction(app.extensions["pleat_engine"]) as session:
        return service.add(session, editing.apply(recipe(name).book(), changes), "", "made")


def begin(desk: Page, kind: str, count: str) -> None:
    """From the start page to the overview of a new book."""
    desk.goto("/new")
    desk.locator(".recipe", has_text=kind).click()
    expect(desk.locator("#look h2")).to_have_text(kind[0].upper() + kind[1:])
    desk.get_by_label("how many pages or leaves").fill(count)
    desk.get_by_role("button", name="work it out").click()
    expect(desk.locator("#book")).to_be_visible()


def test_a_first_book_on_wire_is_right_from_three_answers(desk: Page):
    begin(desk, "notebook on wire", "100 pages")
    expect(desk.locator(".book-kind")).to_contain_text("50 leaves, 100 pages")
    expect(desk.locator(".scrap")).to_contain_text("24 holes")
    desk.locator("#strip-binding").click()
    body = desk.locator("#body-binding")
    expect(body.locator("#why-diameter .figure-value")).to_have_text(re.compile(r"\d+(\.\d)? mm"))
    expect(body.locator(".check-stop")).to_have_count(0)
    body.locator("#why-stop button").click()
    expect(body.locator("#answer-stop")).to_contain_text("Set the stop so that")
    desk.keyboard.press("Escape")
    body.get_by_label("2 to the inch").check()
    expect(body.locator("#why-holes .figure-value")).to_have_text("16 holes")
    body.get_by_label("your own", exact=True).check()
    typed(desk, "binding.nominal_mm", "6")
    expect(body.locator("[data-check=D8]")).to_contain_text("too small")
    typed(desk, "binding.nominal_mm", "900")
    expect(desk.locator("#n-binding-nominal-mm")).to_contain_text("too large")
    expect(desk.locator("#i-binding-nominal-mm")).to_have_value("900")
    typed(desk, "binding.nominal_mm", "")
    expect(body.locator("[data-check=D8]")).to_have_count(0)


def test_a_journal_becomes_leaves_on_rings_and_goes_back_with_all_its_pages(desk: Page):
    open_book(desk, "Dark-sky log", "brief")
    pages = desk.locator("#strip-pages .strip-figure").inner_text()
    desk.locator("#drawer-become summary").click()
    desk.locator("#become").get_by_role("button", name="leaves on two rings").click()
    desk.get_by_role("button", name="make it so").click()
    expect(desk.locator("#strip-pages .strip-figure")).to_have_text("16 leaves")
    expect(desk.locator("#strip-binding .strip-figure")).to_contain_text("leaves")
    desk.locator("#strip-cover").click()
    expect(desk.locator("#body-cover")).to_contain_text("holes in the covers")
    expect(desk.locator("#body-cover").get_by_role("link", name="open and close it")).to_have_count(0)
    desk.get_by_role("button", name="undo").click()
    expect(desk.locator("#strip-pages .strip-figure")).to_have_text(pages)


def test_another_way_to_hold_the_leaves_keeps_them_and_their_cover(desk: Page):
    open_book(desk, "Constellation cards", "binding")
    desk.locator("#drawer-stitches summary").click()
    for title, key in (
        ("screw posts", "#why-packing"),
        ("stick and band", "#why-spacing"),
        ("filing holes", "#why-takes"),
    ):
        if not desk.locator("#drawer-stitches[open]").count():
            desk.locator("#drawer-stitches summary").click()
        desk.locator("#drawer-stitches").get_by_role("button", name=f"take {title}", exact=True).click()
        expect(desk.locator(f"#body-binding {key}")).to_be_visible()
        expect(desk.locator("#strip-pages .strip-figure")).to_have_text("40 leaves")
        expect(desk.locator("#strip-cover .sign-stop")).to_have_count(0)
    for _ in range(3):
        desk.get_by_role("button", name="undo").click()
    expect(desk.locator("#why-gear .figure-value")).to_contain_text("2 × ring")


def test_rings_put_among_the_materials_are_offered_first_and_counted_for_the_book(desk: Page):
    desk.goto("/materials/new/hardware")
    desk.get_by_label("the name").fill("Brass rings")
    desk.get_by_label("the inner diameter").fill("22")
    desk.get_by_label("how many are left").fill("1")
    desk.locator("main form button[type=submit], main form .btn-main").first.click()
    desk.goto("/")
    open_book(desk, "Constellation cards", "binding")
    desk.locator("#drawer-sizes summary").click()
    row = desk.locator("#drawer-sizes tr", has_text="Brass rings")
    expect(row).to_contain_text("among your materials, 1 left")
    row.get_by_role("button", name="take Brass rings").click()
    expect(desk.locator("#why-gear .figure-value")).to_have_text("2 × Brass rings")
    expect(desk.locator("#i-binding-inner-mm")).to_have_value("22")
    desk.keyboard.press("0")
    expect(desk.locator(".book-stock tr", has_text="Brass rings")).to_contain_text("1")
    desk.locator("#strip-binding").click()
    typed(desk, "binding.inner_mm", "30")
    expect(desk.locator("#why-gear .figure-value")).to_contain_text("ring, 30 mm inside")


def test_flipped_to_the_head_everything_is_measured_from_the_left(desk: Page):
    open_book(desk, "Constellation cards", "binding")
    desk.locator("#drawer-punching summary").click()
    desk.locator("#drawer-punching").get_by_label("at the head, to flip up").check()
    expect(desk.locator("#why-jig .figure-value")).to_contain_text("20 × 148")
    expect(desk.locator("#i-binding-hole-0")).to_have_value("37")
    desk.locator("#why-holes button").click()
    expect(desk.locator("#answer-holes")).to_contain_text("from the left")
    desk.keyboard.press("Escape")
    expect(desk.locator("#drawer-punching")).to_have_attribute("open", "")
    desk.locator("#strip-cover").click()
    expect(desk.locator("#why-covers .figure-value")).to_contain_text("154 × 213")


def test_the_lifts_one_means_to_punch_are_checked_against_the_punch(desk: Page):
    open_book(desk, "Constellation cards", "binding")
    desk.locator("#drawer-punching summary").click()
    typed(desk, "binding.punch_takes_mm", "0.5")
    expect(desk.locator("#why-lifts .figure-value")).to_have_text("10 lifts")
    typed(desk, "binding.lifts_planned", "4")
    check = desk.locator("#body-binding [data-check=D7]")
    expect(check).to_contain_text("the punch takes 0.5 mm")
    check.get_by_role("button").first.click()
    expect(check).to_have_count(0)
    expect(desk.locator("#i-binding-lifts-planned")).to_have_value("10")
    typed(desk, "binding.jig_mm", "18")
    expect(desk.locator("#body-binding [data-check=A8]")).to_contain_text("18 mm wide")


def test_sewn_sticks_are_planned_sewn_along_and_boards_hang_on_strips(desk: Page):
    open_book(desk, "Driftwood almanac", "binding")
    body = desk.locator("#body-binding")
    spine = body.locator("#why-stick-spine .figure-value")
    before = spine.inner_text()
    typed(desk, "binding.stick_mm", "7")
    expect(spine).not_to_have_text(before)
    typed(desk, "binding.strip_cut_mm", "100")
    expect(body.locator("[data-check=D11]")).to_contain_text("too short for these sticks")
    body.locator("[data-check=D11] .fixes button").first.click()
    expect(body.locator("[data-check=D11]")).to_have_count(0)
    body.get_by_label("behind all sticks").check()
    expect(body.locator("#why-strip .figure-value")).to_contain_text("122 × 25")
    desk.locator("#strip-bench").click()
    expect(desk.locator("#body-bench")).to_contain_text("Glue the strips to the boards")
    expect(desk.locator("#body-bench")).not_to_contain_text("Pierce the boards")
    desk.locator("#strip-binding").click()
    desk.get_by_role("link", name="sew it, move by move").click()
    expect(desk.locator("body")).to_contain_text("Round the stick")


@pytest.mark.every(2)
@pytest.mark.parametrize("name", HELD)
def test_a_swapped_page_is_the_reloaded_one_whatever_is_changed_of_its_holes(app, client, name):
    book_id = stored(app, name)
    shown = parts(client.get(f"/books/{book_id}").get_data(as_text=True))
    edits = [
        ("binding.inset_mm", "14"),
        ("binding.bound_at", "head"),
        ("binding.hinge_mm", "1 in"),
        ("binding.reinforce", "patches"),
        ("pages.amount", "90"),
        ("pages.middle_mm", "6"),
        ("brief.ruler", "in"),
        ("paper.leaf.grammage", "220"),
    ]
    for path, value in some(edits, 2, HELD.index(name) % 2):
        if path == "pages.middle_mm" and not hasattr(recipe(name).book().pages, "middle_mm"):
            continue  # pocket pages say themselves how thick they are in the middle
        version = re.search(r'name="version" value="(\d+)"', shown["state"])[1]
        data = {"path": path, "value": value, "version": version, "window": "w"}
        answer = client.post(f"/books/{book_id}/edit", data=data, headers={"HX-Request": "true"})
        assert answer.status_code == 200, path
        shown |= parts(answer.get_data(as_text=True))
        for pleat, text in parts(client.get(f"/books/{book_id}").get_data(as_text=True)).items():
            assert shown[pleat] == text, f"{pleat} is stale after {path} {value}"


@pytest.mark.every(2)
@pytest.mark.parametrize("name", HELD)
def test_every_offer_on_the_pleat_is_taken_by_its_button(app, client, name):
    """Sizes, other ways to hold, and fixes: each key on the page is found again on the server."""
    book_id = stored(app, name, ("pages.amount", 180))
    page = client.get(f"/books/{book_id}?open=binding").get_data(as_text=True)
    body = parts(page)["binding"]
    keys = dict.fromkeys(re.findall(r'name="offer" value="([0-9a-f]+)"', body))
    assert len(keys) > 5
    for key in some(list(keys)[:14], 5, HELD.index(name) % 5):
        version = re.search(r'name="version" value="(\d+)"', page)[1]
        answer = client.post(
            f"/books/{book_id}/take",
            data={"offer": key, "label": "x", "version": version, "window": "w"},
            headers={"HX-Request": "true"},
        )
        assert answer.status_code in (200, 409, 422), key
        client.post(
            f"/books/{book_id}/undo", data={"version": version, "window": "w"}, headers={"HX-Request": "true"}
        )
        page = client.get(f"/books/{book_id}?open=binding").get_data(as_text=True)
    assert (
        json.loads(write_book(recipe(name).book()))["binding"]["kind"]
        == make_plan(recipe(name).book()).brief.made_of.binding.name
    )


@pytest.mark.every(2)
@pytest.mark.parametrize("name", HELD)
def test_what_is_ticked_on_the_figures_shown_stays_ticked(app, client, name):
    """The steps are signed with what the maker's punches can do, as they are shown; the shelf marks the book
    as its pleats do."""
    book_id = stored(app, name)
    with transaction(app.extensions["pleat_engine"]) as session:
        opened = service.open_book(session, book_id)
        about = json.loads(session.get_one(BookRow, book_id).summary)
    marks = {result.mark for _, result in opened.plan}
    assert about["mark"] == next((mark for mark in ("stop", "watch") if mark in marks), "fine")
    version = re.search(r'name="version" value="(\d+)"', client.get(f"/books/{book_id}").text)[1]
    for step in [one.step.key for one in opened.plan.bench.work]:
        data = {"step": step, "done": "1", "version": version, "window": "w"}
        answer = client.post(f"/books/{book_id}/tick", data=data, headers={"HX-Request": "true"})
        assert answer.status_code == 200
        version = re.search(r'name="version" value="(\d+)"', answer.text)[1]
    with transaction(app.extensions["pleat_engine"]) as session:
        bench = service.open_book(session, book_id).plan.bench
    assert all(one.done and not one.changed for one in bench.work)
    assert not bench.checks
