"""What is put in, in the browser: put, dragged, moved by keys, typed, spread, staggered, taken out; followed
from another book; nonsense told beside its field."""

from __future__ import annotations

import html
import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from pleat.services import following
from pleat.store import books as store
from pleat.store.database import transaction
from tests.profiles import examples, some
from tests.put import at, of, put
from tests.web.conftest import open_book, typed
from tests.web.test_structures import Shelf, held_now, shelf, stored  # noqa: F401 - a fixture of theirs
from tests.web.test_swaps import parts

HTMX = {"HX-Request": "true"}
GUIDE = "Guide to the open night"
POCKET = {"kind": "pocket", "goes": "card"}


def version(client, book_id):
    return re.search(r'name="version" value="(\d+)"', client.get(f"/books/{book_id}").get_data(as_text=True))[
        1
    ]


def post(client, book_id, action, **data):
    return client.post(
        f"/books/{book_id}/{action}",
        data={"version": version(client, book_id), "window": "w", **data},
        headers=HTMX,
    )


def of_put(app, name, *designs):
    """A stored book with designs put in."""
    engine = app.extensions["pleat_engine"]
    with transaction(engine) as session:
        return service.add(session, put(of(name), *designs), "", "made")


PUT_ON = [(name, kind) for kind in EXTRAS.members for name in ("journal", "rings", "crossfold")]


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "kind"), some(PUT_ON, 4), ids=lambda one: getattr(one, "name", one))
def test_every_kind_is_put_on_a_face_shown_and_taken_out_again(app, client, name, kind):
    book_id = stored(app, name)
    faces = make_plan(of(name)).extras.faces
    face = next(one.name for one in faces if not one.cover)
    answer = post(client, book_id, "extras/put", kind=kind.name, on=face)
    text = answer.get_data(as_text=True)
    assert answer.status_code == 200
    assert f"extras.items.{kind.name}-1.place.0" in text
    page = client.get(f"/books/{book_id}?open=extras").get_data(as_text=True)
    assert page.count('x-data="placed"') == 1
    key = f"{kind.name}-1"
    for other in faces[:4]:
        looked = client.get(
            f"/books/{book_id}/extras", query_string={"face": other.name, "design": key}, headers=HTMX
        )
        assert looked.status_code == 200
    gone = post(client, book_id, "extras/off", which=key, place="0")
    assert gone.status_code == 200
    assert not held_now(app, book_id).extras.items
    assert post(client, book_id, "undo").status_code == 200
    assert list(held_now(app, book_id).extras.items) == [key]


ODD = [
    ("extras/put", {"kind": "no such", "on": "page 1"}, 422),
    ("extras/put", {"kind": "pocket", "on": "page 9999"}, 422),
    ("extras/put", {"kind": "pocket", "on": "\0💥" * 200}, 422),
    ("extras/put", {}, 422),
    ("extras/also", {"which": "no-such", "on": "page 3"}, 422),
    ("extras/also", {"which": "d0", "on": "page 5"}, 422),
    ("extras/off", {"which": "d0", "place": "77"}, 422),
    ("extras/off", {"which": "no-such", "place": "x"}, 200),
    ("extras/booklet", {"which": "d0", "other": "0"}, 422),
    ("extras/booklet", {"which": "d0", "other": "999999"}, 404),
    ("edit", {"path": "extras.items.d0.place.0", "value": "20"}, 422),
    ("edit", {"path": "extras.items.d0.place.9", "value": "20; 20"}, 422),
    ("edit", {"path": "extras.items.no-such.place.0", "value": "20; 20"}, 422),
    ("edit", {"path": "extras.items.d0.width_mm", "value": "as wide as it goes"}, 422),
    ("edit", {"path": "extras.items.d0.nested", "value": "5000"}, 422),
    ("edit", {"path": "extras.items.d0.no_such", "value": "1"}, 422),
    ("edit", {"path": "extras.items", "value": "1"}, 422),
    ("edit", {"path": "extras.items.gone.thick_mm", "value": "9"}, 422),
    ("edit", {"path": "extras.items.gone.thick_mm.more", "value": "9"}, 422),
    ("edit", {"path": "extras.items.", "value": "9"}, 422),
    ("edit", {"path": "extras.items..", "value": "9"}, 422),
    ("edit", {"path": "extras.items.d0.", "value": "9"}, 422),
    ("edit", {"path": "extras.items.d0.places", "value": "9"}, 422),
    ("edit", {"path": "extras.items.d0.places.0.x_mm", "value": "9"}, 422),
    ("edit", {"path": "extras.items.d0.kind", "value": "mat"}, 422),
    ("edit", {"path": "extras.items.d0", "value": "1"}, 422),
]


@pytest.mark.parametrize(("action", "data", "status"), ODD)
def test_what_cannot_be_is_told_and_changes_nothing(app, client, action, data, status):
    book_id = of_put(app, "journal", {**POCKET, "places": at("page 5", 20, 60)})
    before = held_now(app, book_id)
    answer = post(client, book_id, action, **data)
    assert answer.status_code == status, answer.get_data(as_text=True)[:300]
    assert held_now(app, book_id) == before


@pytest.mark.parametrize(
    "query",
    [{"face": "page 9999"}, {"face": "<b>", "design": "'\""}, {"design": "\0"}, {}, {"face": "x" * 5000}],
)
def test_whatever_face_is_asked_for_something_is_shown(app, client, query):
    book_id = of_put(app, "journal", {**POCKET, "places": at("page 5", 20, 60)})
    for where in (f"/books/{book_id}/extras", f"/books/{book_id}"):
        answer = client.get(where, query_string={**query, "open": "extras"})
        assert answer.status_code == 200
        assert "page 4" in answer.get_data(as_text=True)
    assert client.get(f"/books/{book_id}/extras/stagger", query_string=query).status_code == 200
    assert client.get("/books/99999/extras").status_code == 404
    assert client.get("/books/99999/extras/stagger").status_code == 404


def test_the_face_looked_at_is_kept_through_changes_and_undo(app, client):
    book_id = of_put(
        app,
        "journal",
        {**POCKET, "places": at("page 5", 20, 60)},
        {"kind": "corner", "places": at("page 9", 10, 10)},
    )
    answer = post(
        client, book_id, "edit", path="extras.items.d0.nested", value="2", face="page 5", design="d0"
    )
    text = answer.get_data(as_text=True)
    assert "page 4 and page 5" in text
    assert 'name="face" value="page 5"' in text
    assert "page 8 and page 9" in client.get(f"/books/{book_id}?open=extras&face=page+9").get_data(
        as_text=True
    )


def test_a_booklet_follows_the_book_it_is(app, client):
    """Its closed size and thickness are those of the other book's plan, now and after that book changed; let
    go, it keeps them."""
    engine = app.extensions["pleat_engine"]
    other = stored(app, "programme")
    book_id = of_put(app, "journal", {"kind": "booklet", "places": at("page 5", 10, 10)})
    listed = client.get(f"/books/{book_id}/extras/books?design=d0").get_data(as_text=True)
    assert f'value="{other}"' in listed
    assert f'name="other" value="{book_id}"' not in listed, "not itself"
    assert post(client, book_id, "extras/booklet", which="d0", other=str(other)).status_code == 200
    own = held_now(app, book_id).extras.items["d0"]
    plan = make_plan(held_now(app, other))
    assert (own.width_mm, own.height_mm) == pytest.approx(
        (plan.cover.front_width_mm, plan.cover.front_height_mm)
    )
    assert own.thick_mm == pytest.approx(plan.cover.spine.likely, abs=0.01)
    assert own.title == held_now(app, other).title
    post(client, other, "edit", path="pages.count", value="32 pages")
    thicker = held_now(app, book_id).extras.items["d0"]
    assert thicker.thick_mm > own.thick_mm * 1.5
    page = client.get(f"/books/{book_id}?open=extras").get_data(as_text=True)
    assert f"/books/{other}" in page
    assert 'id="i-extras-items-d0-width-mm"' not in page, "its size is not typed"
    assert post(client, book_id, "extras/booklet", which="d0", other="0").status_code == 200
    post(client, other, "edit", path="pages.count", value="8 pages")
    assert held_now(app, book_id).extras.items["d0"].thick_mm == pytest.approx(thicker.thick_mm)
    with transaction(engine) as session:
        fields = following.as_booklet(session, other)
        linked = following.taken(store.load(session, book_id).book, "d0", fields)
        assert following.let_go(linked).extras.items["d0"].book_id is None, (
            "a file from elsewhere knows no book of ours"
        )
        store.move_to_bin(session, other, service.now())
        assert following.followed(session, linked) == linked, "what is in the bin is followed no more"
    assert post(client, book_id, "extras/booklet", which="d0", other=str(book_id)).status_code == 404


def things(desk: Page):
    return desk.locator("#body-extras .placed-grip")


def test_put_in_dragged_moved_by_keys_and_typed(desk, shelf):  # noqa: F811
    open_book(desk, "Visitor notes, first draft", "extras")
    body = desk.locator("#body-extras")
    expect(body).to_contain_text("Nothing is in this book yet")
    body.get_by_role("button", name="after ›").click()
    expect(body).to_contain_text("page 2 and page 3")
    body.get_by_role("button", name="page 3", exact=True).click()
    expect(body.get_by_role("button", name="page 3", exact=True)).to_have_attribute("aria-current", "true")
    body.get_by_role("button", name="page 2", exact=True).click()
    expect(body).to_contain_text("put something on page 2")
    body.get_by_role("button", name="put in a pocket").click()
    expect(things(desk)).to_have_count(1)
    body.locator("#drawer-put").evaluate("one => { one.open = true; }")
    body.get_by_role("button", name="put in a corner pocket").click()
    expect(body.locator(".design h3")).to_contain_text("corner pocket"), "what was just put in is looked at"
    expect(things(desk)).to_have_count(2)
    body.get_by_role("button", name="take it out altogether").click()
    expect(things(desk)).to_have_count(1)
    expect(body.locator(".picture-main svg")).to_have_attribute("aria-label", re.compile("page 2 and page 3"))
    grip = things(desk)
    expect(grip).to_have_attribute("aria-label", re.compile("on page 2, "))
    grip.scroll_into_view_if_needed()
    box = grip.bounding_box()
    desk.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    desk.mouse.down()
    desk.mouse.move(box["x"] + box["width"] / 2 - 30, box["y"] + box["height"] / 2 + 25, steps=5)
    desk.mouse.up()
    field = body.locator("#i-extras-items-pocket-1-place-0")
    expect(field).to_have_value(re.compile(r"^[\d.]+, [\d.]+$"))
    dragged = field.input_value()
    grip = things(desk)
    grip.focus()
    grip.press("ArrowRight")
    grip.press("ArrowRight")
    expect(field).not_to_have_value(dragged)
    across, down = (float(word) for word in dragged.split(","))
    expect(field).to_have_value(f"{across + 1:g}, {down:g}")
    typed(desk, "extras.items.pocket-1.place.0", "30, 70")
    expect(things(desk)).to_have_attribute("aria-label", re.compile("30 from the left, 70 from the head"))
    typed(desk, "extras.items.pocket-1.place.0", "thirty")
    expect(body.locator("#n-extras-items-pocket-1-place-0")).to_contain_text("Two lengths")
    expect(field).to_have_value("thirty")
    desk.reload()
    expect(things(desk)).to_have_attribute("aria-label", re.compile("30 from the left, 70 from the head"))


def test_a_pocket_for_a_postcard_on_every_third_leaf_and_staggered(desk, shelf):  # noqa: F811
    book_id = shelf.stored("longstitch")
    desk.goto(f"/books/{book_id}?open=extras")
    body = desk.locator("#body-extras")
    body.get_by_role("button", name="after ›").click()
    body.get_by_role("button", name="put in a pocket").click()
    body.locator("#f-extras-items-pocket-1-goes").get_by_role("combobox").select_option("4x6")
    expect(body).to_contain_text("pocket for a photo 4 × 6 in")
    body.locator("#f-extras-items-pocket-1-goes").get_by_role("combobox").select_option("card")
    expect(body).to_contain_text("pocket for a bank card")
    typed(desk, "extras.items.pocket-1.goes_thick_mm", "1.5")
    body.get_by_text("on several faces at once").click()
    body.get_by_role("button", name=re.compile("on every third leaf")).click()
    expect(body.get_by_role("group", name="what is put in")).to_contain_text("· 16")
    expect(body.locator("[data-check=F6], [data-check=F5]").first).to_be_visible()
    before = make_plan(shelf.now(book_id)).extras.worst.thick.likely
    body.get_by_text("stagger them").click()
    expect(body.locator(".before-after svg")).to_have_count(2)
    body.get_by_role("button", name=re.compile("stagger")).click()
    expect(desk.locator("#do-undo")).to_have_attribute("title", re.compile("stagger"))
    body.get_by_label("used:").select_option("page 7")
    expect(things(desk)).to_have_count(1)
    after = make_plan(shelf.now(book_id)).extras
    assert after.worst.thick.likely < before
    desk.get_by_role("button", name="undo").click()
    expect(desk.locator("#do-redo")).to_have_attribute("title", re.compile("stagger"))
    assert make_plan(shelf.now(book_id)).extras.worst.thick.likely == pytest.approx(before)


def test_the_guide_of_the_demo_can_be_walked_through_on_a_phone(desk):
    open_book(desk, GUIDE, "extras")
    desk.set_viewport_size({"width": 390, "height": 780})
    body = desk.locator("#body-extras")
    body.get_by_label("used:").select_option("page 10")
    expect(things(desk)).to_have_count(1)
    assert desk.evaluate("document.documentElement.scrollWidth <= innerWidth + 1"), (
        "nothing stands out sideways"
    )
    body.get_by_role("button", name=re.compile(r"waterfall of 3 pockets · 1")).click()
    expect(body.locator(".design h3")).to_contain_text("waterfall of 3 pockets")
    expect(body.locator("#f-extras-items-hours-pockets")).to_be_visible()
    typed(desk, "extras.items.hours.pockets", "5")
    expect(body.locator(".design h3")).to_contain_text("waterfall of 5 pockets")


def test_a_check_is_mended_where_it_is_told(desk):
    open_book(desk, GUIDE, "extras")
    body = desk.locator("#body-extras")
    gapes = body.locator("[data-check=F5]")
    expect(gapes).to_contain_text("Shut, the book gapes by")
    gapes.get_by_role("button", name=re.compile("spacers of 1 strip")).click()
    expect(body.get_by_role("group", name="what is put in")).to_contain_text("spacer")
    expect(gapes).to_have_count(0)


def test_edits_keep_their_words_in_history(app, client):
    book_id = stored(app, "journal")
    post(client, book_id, "extras/put", kind="pocket", on="page 3")
    post(client, book_id, "edit", path="extras.items.pocket-1.width_mm", value="100")
    page = client.get(f"/books/{book_id}/history").get_data(as_text=True)
    assert "put in: pocket" in page
    assert "extras.items" not in page, "no names of fields"
    assert (
        editing.edit(held_now(app, book_id), {"extras.items.pocket-1.width_mm": ""})
        .extras.items["pocket-1"]
        .width_mm
        is None
    )


CHANGES = st.one_of(
    st.sampled_from(
        [
            {"path": "extras.items.d0.place.0", "value": "5; 90"},
            {"path": "extras.items.d0.place.0", "value": "60; 5"},
            {"path": "extras.items.d0.goes", "value": "4x6"},
            {"path": "extras.items.d0.nested", "value": "3"},
            {"path": "extras.items.d0.mouth", "value": "left"},
            {"path": "extras.items.d1.thick_mm", "value": "9"},
            {"path": "extras.items.d1.thick_mm", "value": "0.4"},
            {"path": "pages.count", "value": "8 pages"},
            {"path": "pages.count", "value": "64 leaves"},
            {"path": "brief.size", "value": "A6"},
            {"path": "brief.ruler", "value": "in"},
            {"path": "paper.card.weight", "value": "400"},
            {"path": "cover.kind", "value": "bare"},
            {"path": "binding.tail_mm", "value": "120"},
        ]
    ).map(lambda data: ("edit", data)),
    st.sampled_from(["pocket", "mat", "spacer", "waterfall"]).map(
        lambda kind: ("extras/put", {"kind": kind, "on": "page 3"})
    ),
    st.just(("extras/also", {"which": "d0", "on": "page 3"})),
    st.just(("extras/off", {"which": "d1", "place": "0"})),
    st.just(("extras/stagger", {})),
    st.sampled_from(["undo", "redo"]).map(lambda action: (action, {})),
)


@settings(
    max_examples=examples(25), deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(
    changes=st.lists(CHANGES, min_size=1, max_size=4),
    face=st.sampled_from(["page 3", "page 5", "inside back cover", ""]),
)
def test_the_swapped_page_is_the_reloaded_one_whatever_is_done_with_extras(app, client, changes, face):
    """Nothing on the page is stale after any change, on whatever face one looks."""
    book_id = of_put(
        app,
        "journal",
        {**POCKET, "places": at("page 5", 20, 60)},
        {"kind": "booklet", "places": at("page 9", 10, 10)},
    )
    query = {"face": face, "design": "d0"}
    shown = parts(client.get(f"/books/{book_id}", query_string=query).get_data(as_text=True))
    for action, data in changes:
        now = re.search(r'name="version" value="(\d+)"', shown["state"])[1]
        answer = client.post(
            f"/books/{book_id}/{action}", data={**query, **data, "version": now, "window": "w"}, headers=HTMX
        )
        assert answer.status_code in (200, 422)
        if answer.status_code == 200:
            shown |= parts(answer.get_data(as_text=True))
        query = {
            name: html.unescape(re.search(rf'name="{name}" value="([^"]*)"', shown["state"])[1])
            for name in ("face", "design")
        }
        reloaded = parts(client.get(f"/books/{book_id}", query_string=query).get_data(as_text=True))
        for name in reloaded:
            if name != "state":
                assert shown[name] == reloaded[name], f"{name} is stale after {action} {data}"
