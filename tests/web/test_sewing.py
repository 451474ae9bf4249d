"""The sewing pages in the browser: sewing along, practising, and a stitch of one's own; and what they answer
whatever is sent."""

import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.engines.sewing.moves import Move
from pleat.core.engines.sewing.practice import allowed, moves_of, variants
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.services import books as service
from pleat.services.practising import PARTS
from pleat.store.database import transaction
from tests.profiles import examples
from tests.web.conftest import open_book

SEWN = [one.name for one in RECIPES if one.name != "machine" and chosen(one.book()).block.unit == "section"]


def stored(app, name):
    with transaction(app.extensions["pleat_engine"]) as session:
        return service.add(session, recipe(name).book(), "", "made")


@pytest.mark.every(3)
@pytest.mark.parametrize("name", SEWN)
def test_every_sewing_is_told_part_by_part_and_practised_to_its_end(app, client, name):
    book_id = stored(app, name)
    with transaction(app.extensions["pleat_engine"], reading=True) as session:
        sewing = service.open_book(session, book_id).plan.binding.sewing
    first = client.get(f"/books/{book_id}/sewing").get_data(as_text=True)
    parts = int(re.search(r'data-parts="(\d+)"', first)[1])
    told = []
    for part in range(parts):
        page = client.get(f"/books/{book_id}/sewing?part={part}", headers={"HX-Request": "true"}).get_data(
            as_text=True
        )
        told += [int(number) for number in re.findall(r'data-move="(\d+)"', page)]
    assert told == list(range(len(moves_of(sewing))))
    assert "left-handed" in client.get(f"/books/{book_id}/sewing?hand=left").get_data(as_text=True)
    ways = variants(sewing)
    sewn: tuple[Move, ...] = ()
    goal = int(
        re.search(
            r"0 of (\d+) moves", client.get(f"/books/{book_id}/sewing/practice").get_data(as_text=True)
        )[1]
    )
    assert parts > PARTS or goal == len(moves_of(sewing))
    data = {"sewn": "", "taps": "0", "rights": "0", "missed": "0"}
    for _ in range(goal):
        move = allowed(ways, sewn)[0]
        hole = f"{move.row}.{int(move.at) if move.do != 'catch' else round(move.at + 0.01)}"
        page = client.post(
            f"/books/{book_id}/sewing/practice", data=data | {"do": move.do, "hole": hole}
        ).get_data(as_text=True)
        assert "said-wrong" not in page, (move, re.search(r"said-wrong.*", page))
        fields = dict(re.findall(r'name="(sewn|taps|rights|missed)" value="([^"]*)"', page))
        data = {key: value.replace("&gt;", ">") for key, value in fields.items()}
        sewn = (*sewn, move)
    assert "right at the first tap" in page
    assert "Every move right" in page


@settings(max_examples=examples(60), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    act=st.sampled_from(["", "back", "clear", "typed", "keep", "use"]),
    text=st.sampled_from(
        ["", "2 in | 2 1 3 2 =over", "2 in |", "1.1 out | 1 2", "x", "9.9 in | 99", "1 in | " + "1 2 " * 90]
    )
    | st.text(max_size=40),
    do=st.sampled_from(["pass", "catch", "wrap", "tie", "start", "?", ""]),
    hole=st.sampled_from(["1.1", "1.2", "2.3", "60.15", "", ".", "1.x", "99.99", "0.0"])
    | st.text(max_size=8),
    what=st.sampled_from(["", "over", "tail", "stitch", "knot", "x"]),
)
def test_nothing_that_is_tapped_or_typed_brings_a_500_or_loses_the_stitch(client, act, text, do, hole, what):
    data = {
        "act": act,
        "sewn": text,
        "typed": text,
        "do": do,
        "hole": hole,
        "what": what,
        "side": "inside",
        "name": "",
        "taps": "x",
        "rights": "",
    }
    assert client.post("/books/1/sewing/own", data=data).status_code in (200, 302, 409, 422)
    assert client.post("/books/1/sewing/practice", data=data).status_code == 200
    assert client.get("/books/1").status_code == 200


def test_a_book_that_is_not_sewn_goes_back_to_its_page(app, client):
    book_id = stored(app, "machine")
    assert client.get(f"/books/{book_id}/sewing").status_code == 302
    assert client.get(f"/books/{book_id}/sewing/practice").status_code == 302
    assert client.get(f"/books/{book_id}/sewing/own").status_code == 404
    assert client.get("/books/999/sewing").status_code == 404


def test_the_player_goes_on_by_key_tap_and_by_itself_without_anything_shifting(desk: Page):
    open_book(desk, "Moon sketchbook", "binding")
    desk.get_by_role("link", name="sew it, move by move").click()
    desk.evaluate(
        "() => { window.shifted = 0; new PerformanceObserver(list => list.getEntries().forEach(one => { "
        "window.shifted += one.value; })).observe({ type: 'layout-shift', buffered: false }); }"
    )
    now = desk.locator(".sewing-now")
    expect(now).to_have_text(re.compile("^Begin outside at 3"))
    desk.keyboard.press("ArrowRight")
    expect(now).to_have_text(re.compile("^In at 3"))
    expect(desk.locator(".sewing-view-1 [data-step='4']").first).to_have_class(re.compile("ahead"))
    desk.locator(".sewing-views").click()
    expect(now).to_have_text(re.compile("^Along the inside, out at 2"))
    desk.keyboard.press("PageUp")
    expect(now).to_have_text(re.compile("^In at 3"))
    desk.get_by_label("speed").fill("4")
    desk.get_by_role("button", name="play").click()
    expect(now).to_have_text(re.compile("^Bring the two tails"), timeout=15_000)
    expect(desk.locator(".sewing-play")).to_have_text("play")
    assert desk.evaluate("window.shifted") < 0.001
    assert desk.evaluate("document.querySelector('[aria-live=polite].sewing-now').textContent").startswith(
        "Bring"
    )
    desk.reload()
    expect(now).to_have_text(re.compile("^Bring the two tails"))
    desk.get_by_role("link", name="left-handed").click()
    expect(desk.locator(".sewing-moves li").nth(2)).to_contain_text("out at 4")


def test_a_wrong_tap_is_explained_and_a_weak_spot_is_kept(desk: Page):
    open_book(desk, "Moon sketchbook", "binding")
    desk.get_by_role("link", name="sew it, move by move").click()
    desk.get_by_role("link", name="practise").click()
    tap = lambda hole: desk.get_by_role("button", name=f"hole {hole}", exact=True).click()  # noqa: E731
    for hole in (3, 3):
        tap(hole)
    expect(desk.locator(".said-right")).to_contain_text("In at 3")
    tap(3)
    expect(desk.locator(".said-wrong")).to_contain_text("undoes")
    desk.get_by_text("what would be right?").click()
    expect(desk.locator(".sewing-said")).to_contain_text("out at 2 or along the inside, out at 4")
    tap(4)
    expect(desk.locator(".sewing-where")).to_contain_text("3 of 10 moves")
    desk.get_by_role("link", name="begin again").click()
    expect(desk.locator(".weak")).to_contain_text("missed 1 time")


def test_a_stitch_is_tapped_kept_and_sewn_in_another_book(desk: Page):
    open_book(desk, "Moon sketchbook", "binding")
    desk.get_by_role("link", name="tap a stitch of your own").click()
    said = desk.locator(".sewing-said")
    tap = lambda hole: desk.get_by_role("button", name=f"hole {hole}", exact=True).click()  # noqa: E731
    for hole in (1, 1, 3, 5):
        tap(hole)
    tap(5)
    expect(said).to_contain_text("a loop")
    desk.get_by_role("button", name="one move back").click()
    for hole in (4, 2):
        tap(hole)
    desk.locator("label:has(#do-tie)").click()
    desk.locator("label:has(#what-tail)").click()
    tap(1)
    expect(said).to_contain_text("different sides")
    desk.locator("label:has(#do-pass)").click()
    tap(3)
    desk.locator("label:has(#do-tie)").click()
    desk.locator("label:has(#what-tail)").click()
    tap(1)
    expect(said).to_contain_text("it holds")
    desk.get_by_role("button", name="begin again").click()
    expect(said).to_contain_text("Tap the hole")
    desk.get_by_label("as a line, to type or to copy").fill("3 in | 3 2 1 2 3 4 5 4 =tail@3")
    desk.get_by_role("button", name="take this line").click()
    expect(said).to_contain_text("it holds")
    desk.get_by_role("button", name="keep it for other books").click()
    expect(desk.locator("#n-stitch-name")).to_contain_text("Give the stitch a name")
    desk.get_by_label("what you call it").fill("Saturn's eight")
    desk.get_by_role("button", name="keep it for other books").click()
    expect(desk.get_by_text("It is among the materials")).to_be_visible()
    desk.get_by_role("button", name="sew this book so").click()
    expect(desk.locator("#body-binding")).to_contain_text("tap it hole by hole")
    expect(desk.locator("#i-binding-moves")).to_have_value("1.3 in | 3 2 1 2 3 4 5 4 =tail@3")
    desk.goto("/materials?kind=stitch")
    expect(desk.locator("main")).to_contain_text("Saturn's eight")
    desk.goto("/books/1/sewing/own")
    expect(desk.get_by_role("button", name="hole 4", exact=True)).to_have_count(0)
    desk.locator("form[data-htmx-powered]").first.wait_for()  # the page's scripts have run
    desk.get_by_role("button", name="Saturn's eight").click()
    expect(desk.locator(".sewing-said")).to_contain_text("it holds")
    desk.get_by_role("button", name="sew this book so").click()
    expect(desk.locator("#i-binding-station-count")).to_have_value("5")
    desk.goto("/books/2/sewing/own")
    desk.locator("form[data-htmx-powered]").first.wait_for()
    desk.locator("#own-stations").fill("7")
    desk.get_by_role("button", name="take so many").click()
    expect(desk.get_by_role("button", name="hole 7", exact=True)).to_have_count(1)


@pytest.mark.parametrize(
    "kind",
    [one for one in BINDINGS.members if one.suits and "section" in one.takes and not one.suits.fits(1)],
    ids=lambda kind: kind.name,
)
def test_a_pattern_that_cannot_be_sewn_on_the_book_has_no_player_and_brings_no_500(app, client, kind):
    with transaction(app.extensions["pleat_engine"]) as session:
        book_id = service.add(
            session, editing.apply(Book(), [("binding.kind", kind.name), ("cover.kind", "bare")]), "", "made"
        )
    for address in ("sewing", "sewing/practice"):
        assert client.get(f"/books/{book_id}/{address}").headers["Location"].endswith("open=binding")
    assert client.post(f"/books/{book_id}/sewing/practice", data={"hole": "1.1"}).status_code == 204
    assert client.get(f"/books/{book_id}/sewing/own").status_code == 200
    for hole in ("1.1", "1.2", "9.9"):
        assert client.post(f"/books/{book_id}/sewing/own", data={"hole": hole, "sewn": ""}).status_code == 200
    assert (
        client.get(f"/books/{book_id}").status_code
        == client.get(f"/books/{book_id}/print").status_code
        == 200
    )
