"""Holes along an edge in the browser: set on the drawing, other sizes taken, and the book turned right round
its rings."""

from __future__ import annotations

import io
import json
import re

import pytest
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from pleat.store.database import transaction
from pleat.web.turning import PARTS, SHOWN
from tests.web.conftest import open_book, typed

BOOK = "Constellation cards"
HELD = [one.name for one in RECIPES if chosen(one.book()).binding.at == "edge"]
ROUND = [name for name in HELD if make_plan(recipe(name).book()).binding.cross]


def stored(app, name, *changes):
    with transaction(app.extensions["pleat_engine"]) as session:
        return service.add(session, editing.apply(recipe(name).book(), changes), "", "made")


@pytest.mark.every(2)
@pytest.mark.parametrize("name", ROUND)
def test_every_book_on_a_ring_is_turned_with_pictures_where_nothing_moves(app, client, name):
    book_id = stored(app, name)
    for part in (*PARTS, "nonsense"):
        answer = client.get(f"/books/{book_id}/turning?part={part}")
        page = answer.get_data(as_text=True)
        assert answer.status_code == 200
        data = json.loads(re.search(r"data-turning=\"([^\"]*)\"", page)[1].replace("&#34;", '"'))
        assert [frame["angle"] for frame in data["frames"]][::45] == [0, 180]
        assert not any(frame["binds"] for frame in data["frames"]), "the examples turn"
        assert len(re.findall(r"<figure", page)) == len(SHOWN)
    assert len(page) < 90_000
    assert f'href="/books/{book_id}/turning"' in client.get(f"/books/{book_id}?open=binding").get_data(
        as_text=True
    )


def test_what_does_not_turn_leads_back_to_its_pleat(app, client):
    for name, changes in (("posts", ()), ("journal", ()), ("rings", (("binding.hole_mm", 1.5),))):
        book_id = stored(app, name, *changes)
        answer = client.get(f"/books/{book_id}/turning")
        assert (answer.status_code, "open=binding" in answer.headers["Location"]) == (302, True)
    assert client.get("/books/999/turning").status_code == 404


def test_an_overfull_ring_binds_and_says_where(app, client):
    book_id = stored(app, "rings", ("pages.amount", 260))
    page = client.get(f"/books/{book_id}/turning").get_data(as_text=True)
    data = json.loads(re.search(r"data-turning=\"([^\"]*)\"", page)[1].replace("&#34;", '"'))
    assert any(frame["binds"] for frame in data["frames"])
    assert 'class="way-not"' in page


def test_a_book_is_turned_by_slider_keys_and_play(desk: Page):
    open_book(desk, BOOK, "binding")
    desk.get_by_role("link", name="turn it right round").click()
    says, slide, play = (
        desk.locator("#turning-says"),
        desk.locator("#turning-at"),
        desk.locator("#turning-play"),
    )
    expect(says).to_have_text("shut")
    page = desk.locator(".turned-stack").nth(1)
    shut = page.get_attribute("d")
    slide.fill("90")
    expect(says).to_have_text("turned to 90°")
    assert page.get_attribute("d") != shut
    slide.press("ArrowRight")
    expect(says).to_have_text("turned to 91°")
    slide.press("End")
    expect(says).to_have_text("right round")
    expect(play).to_have_text("turn it back")
    slide.press("Home")
    play.click()
    expect(play).to_have_text("stop")
    desk.wait_for_function("() => Number(document.querySelector('#turning-at').value) > 60")
    play.click()
    expect(play).to_have_text("turn it")
    frames = desk.evaluate(
        "() => new Promise(done => { const one = Alpine.$data(document.querySelector('[data-turning]')); "
        "const before = one.frames; one.toggle();"
        " setTimeout(() => { one.playing = false; done(one.frames - before); }, 1000); })"
    )
    assert frames >= 8, f"{frames} pictures in a second"
    desk.get_by_role("link", name="the front cover alone").click()
    expect(desk.get_by_role("link", name="the front cover alone")).to_have_attribute("aria-current", "true")
    desk.get_by_role("link", name="back to the plan").click()
    expect(desk.locator("#body-binding")).to_be_visible()


def test_holes_are_dragged_typed_and_nudged_and_the_covers_follow(desk: Page):
    open_book(desk, BOOK, "binding")
    first, second = desk.locator("#i-binding-hole-0"), desk.locator("#i-binding-hole-1")
    expect(first).to_have_value("52.5")
    typed(desk, "binding.hole.0", "45")
    expect(second).to_have_value("165")
    desk.locator("#grip-binding-hole-0").press("ArrowRight")
    expect(first).to_have_value("45.5")
    expect(second).to_have_value("164.5")
    grip = desk.locator("#grip-binding-hole-1")
    box = grip.bounding_box()
    desk.mouse.move(box["x"] + box["width"] / 2, box["y"] + 15)
    desk.mouse.down()
    desk.mouse.move(box["x"] + box["width"] / 2 - 40, box["y"] + 15, steps=5)
    desk.mouse.up()
    expect(second).to_have_value(re.compile(r"^1[0-5][\d.]+$"))
    moved = float(second.input_value())
    expect(first).to_have_value(f"{210 - moved:g}")
    typed(desk, "binding.hole.0", "150")
    expect(desk.locator("#n-binding-hole-0")).to_contain_text("lies between")
    typed(desk, "binding.hole.0", "40")
    typed(desk, "binding.inset_mm", "4")
    expect(desk.locator("#body-binding [data-check=D5]")).to_contain_text("paper holds each hole")
    desk.locator("#body-binding [data-check=D5] .fixes button").first.click()
    expect(desk.locator("#body-binding [data-check=D5]")).to_have_count(0)
    desk.locator("#strip-cover").click()
    expect(desk.locator("#why-cover-holes .figure-value")).to_contain_text("43, 173")


def test_another_size_is_taken_and_what_it_holds_follows(desk: Page):
    open_book(desk, BOOK, "binding")
    before = desk.locator("#why-takes .figure-value").inner_text()
    desk.locator("#drawer-sizes summary").click()
    desk.locator("#drawer-sizes .btn").last.click()
    expect(desk.locator("#why-takes .figure-value")).not_to_have_text(before)
    typed(desk, "binding.inner_mm", "8")
    expect(desk.locator("#body-binding [data-check=D8]")).to_be_visible()
    desk.locator("#body-binding [data-check=D8] .fixes button").first.click()
    expect(desk.locator("#body-binding [data-check=D8]")).to_have_count(0)
    desk.locator("#strip-pages").click()
    expect(desk.locator("#i-pages-odd-width-mm")).to_have_count(0)
    desk.locator("#drawer-leaves summary").click()
    typed(desk, "pages.odd_amount", "6")
    typed(desk, "pages.odd_height_mm", "100")
    expect(desk.locator("#body-pages svg.drawing text", has_text="148 × 100")).to_be_visible()
    typed(desk, "pages.amount", "3000")
    expect(desk.locator("#n-pages-amount")).to_contain_text("goes from 1 to 2000")


def test_the_jig_is_printed_true_and_comes_for_a_cutter(app, client):
    import ezdxf

    book_id = stored(app, "rings")
    page = client.get(f"/books/{book_id}/print").get_data(as_text=True)
    assert "Jig for the leaves" in page
    assert "Jig for the covers" in page
    svg = client.get(f"/books/{book_id}/templates/jig-for-the-leaves.svg").get_data(as_text=True)
    assert 'r="3.00"' in svg
    text = client.get(f"/books/{book_id}/templates/jig-for-the-covers.dxf").get_data(as_text=True)
    circles = [one for one in ezdxf.read(io.StringIO(text)).modelspace() if one.dxftype() == "CIRCLE"]
    assert sorted(216 - round(one.dxf.center.y, 2) for one in circles) == [55.5, 160.5]
    assert {one.dxf.radius for one in circles} == {3.0}
