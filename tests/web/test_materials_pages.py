"""The shelf in the browser and without: finding by keyboard, items, measuring with the stand-in, the grain,
tables with a preview."""

from __future__ import annotations

import io
import re
import time

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from playwright.sync_api import Page, expect

from pleat.caliper.standin import StandIn
from pleat.core.materials.items import KINDS
from tests.profiles import examples
from tests.web.conftest import open_book, typed

HTMX = {"HX-Request": "true"}


def text_of(client, address):
    answer = client.get(address)
    assert answer.status_code == 200, address
    return answer.get_data(as_text=True)


@pytest.fixture
def stand_in(app):
    made = StandIn(seed=3)
    made.start()
    app.config["PLEAT_CALIPER"] = made.address
    yield made
    made.shutdown()


def test_finding_answers_with_what_was_asked(client):
    assert "49 things" in text_of(client, "/materials")
    found = client.get("/materials?q=magnet", headers=HTMX).get_data(as_text=True)
    assert found.startswith('<div id="found">')
    assert "Flat magnet" in found
    assert "Log paper" not in found
    assert "240 leaves, 480 pages" in text_of(client, "/materials?make=140+x+200")
    assert "None of your papers is large enough" in text_of(client, "/materials?make=500+x+900")
    assert "width first" in text_of(client, "/materials?make=large")

    assert "8 1/2" in text_of(client, "/materials?ruler=in&q=rust")
    assert 'aria-current="true"><span>in' in text_of(client, "/materials"), "the ruler is remembered"
    assert "Try fewer words" in text_of(client, "/materials?q=zzz&kind=paper")
    for address in ("/materials/999", "/materials/new/hat", "/materials/table/nothing"):
        assert client.get(address).status_code == 404


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_can_be_put_on_the_shelf_and_says_what_is_missing(client, kind):
    refused = client.post(f"/materials/new/{kind}", data={"name": "", "tags": "kept"})
    assert refused.status_code == 422
    assert "This is missing" in refused.get_data(as_text=True)
    assert 'value="kept"' in refused.get_data(as_text=True)
    texts = {
        "name": "Comet thing",
        "size": "A4",
        "sheet_width_mm": "300",
        "sheet_height_mm": "400",
        "thickness_mm": "2",
        "width_mm": "9",
    }
    texts |= {"roll_width_mm": "900", "length_left_mm": "1 m", "inner_mm": "30", "length_mm": "200"}
    page = text_of(client, f"/materials/new/{kind}")
    fields = set(re.findall(r'name="field\.(\w+)"', page))
    made = client.post(
        f"/materials/new/{kind}", data={name: text for name, text in texts.items() if name in fields}
    )
    assert made.status_code == 303
    shown = text_of(client, made.headers["Location"])
    assert "Comet thing" in shown
    assert '<svg class="drawing"' in shown


def test_an_item_is_changed_field_by_field_and_nonsense_keeps_everything(client):
    page = text_of(client, "/materials/1")
    assert 'value="297"' in page
    saved = client.post("/materials/1", data={"weight": "110 lb", "swatch": "moss"}, headers=HTMX)
    assert saved.status_code == 200
    assert 'value="110 lb"' in saved.get_data(as_text=True)
    assert "The grade from the packet" in saved.get_data(as_text=True)
    refused = client.post("/materials/1", data={"weight": "heavy", "owned": "7"}, headers=HTMX)
    assert refused.status_code == 422
    assert 'value="heavy"' in refused.get_data(as_text=True)
    assert 'value="110 lb"' in text_of(client, "/materials/1"), "nothing is half saved"
    client.post("/materials/1/take-off")
    assert "put it back" in text_of(client, "/materials/1")
    assert "Log paper, cream" not in text_of(client, "/materials?q=log+paper")
    client.post("/materials/1/put-back")
    copied = client.post("/materials/1/copy")
    assert "Log paper, cream (copy)" in text_of(client, copied.headers["Location"])


def measured(client, **given):
    return client.post("/materials/2/measure", data=given).get_data(as_text=True)


def test_measuring_with_the_stand_in_and_with_each_fault(client, stand_in):
    page = measured(client, do="zero", sheets="10")
    assert "with closed jaws: good" in page
    readings = ""
    for _ in range(3):
        page = measured(client, do="reading", zero="0.0", sheets="10", readings=readings)
        readings = re.search(r'name="readings" value="([^"]*)"', page)[1]
    assert re.search(r"keep 0\.10[2-6] mm", page)
    for fault, words in (("garbage", "no reading"), ("inches", "in inches"), ("extra", "one too many")):
        stand_in.state.settings = type(stand_in.state.settings)(fault=fault)
        page = measured(client, do="reading", zero="0.0", sheets="10", readings="")
        assert words in page
        assert "keep 0" not in page
        refused = client.post(
            "/materials/2/measure",
            data={
                "do": "keep",
                "zero": "0",
                "sheets": "10",
                "readings": "0.041 0.041" if fault == "inches" else "",
            },
        )
        assert refused.status_code == 200
    assert 'name="field.readings_mm" value=""' in text_of(client, "/materials/2"), "no wrong value was stored"
    kept = client.post(
        "/materials/2/measure", data={"do": "keep", "zero": "0.0", "sheets": "10", "readings": readings}
    )
    assert kept.status_code == 303
    assert "3 readings of a stack of 10" in text_of(client, "/materials/2")
    assert client.get("/materials/25/measure").status_code == 303, "a thread is not measured as a stack"


def test_without_a_caliper_readings_are_typed(client, app):
    app.config["PLEAT_CALIPER"] = "127.0.0.1:9"
    assert "There is no caliper on the line" in measured(client, do="zero")
    assert "First check zero" in measured(client, do="typed", typed="1.04")
    page = measured(client, **{"do": "typed-zero", "zero_typed": "−0,05"})
    assert "-0.05 mm" in page
    page = measured(client, do="typed", typed="0.99", zero="-0.05", sheets="10")
    assert "1.04 mm" in page
    assert "not a length" in measured(client, do="typed", typed="thick", zero="0", readings="1.04")
    page = measured(client, do="drop-0", zero="0", readings="1.30 1.04")
    assert "1.30 mm" not in page
    assert 'name="zero"' not in measured(client, do="again", zero="0", readings="1.04")


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=examples(60))
@given(
    do=st.sampled_from(["typed", "typed-zero", "keep", "again", "drop-0", "drop-99", "drop-²", ""]),
    junk=st.text(max_size=12) | st.sampled_from(["nan", "1e999", "-", "1/0", "٣"]),
)
def test_no_junk_in_measuring_the_grain_or_an_item_brings_a_500(client, do, junk):
    for data in (
        {"typed": junk, "zero": "0"},
        {"zero_typed": junk},
        {"zero": junk, "readings": junk, "sheets": junk},
    ):
        assert client.post("/materials/2/measure", data={"do": do, **data}).status_code in (200, 303, 422)
    assert client.post(
        "/materials/2/grain", data={"bend": junk, "damp_clear": junk, "do": "keep"}
    ).status_code in (200, 303)
    assert client.post("/materials/3", data={"name": "x", "size": junk, "owned": junk}).status_code in (
        200,
        422,
    )
    assert (
        client.get(
            "/materials", query_string={"q": junk, "make": junk, "kind": junk, "page": junk}
        ).status_code
        == 200
    )


def upload(client, text):
    return client.post("/materials/table", data={"file": (io.BytesIO(text.encode()), "winter.csv")})


def ready(client, address):
    for _ in range(300):
        page = text_of(client, address)
        if 'hx-trigger="load delay' not in page:
            return page
        time.sleep(0.02)
    raise AssertionError("the import does not end")


def test_a_table_is_shown_row_by_row_before_anything_is_written(client):
    answer = upload(
        client,
        "name;sheet width (cm);sheet height (cm);owned\nLog paper, "
        "cream;29,7;21;90\nComet;21;29,7;3\nBad;x;1;\n",
    )
    address = answer.headers["Location"]
    assert "What are they, all of them?" in text_of(client, address), "no column says what kind the rows are"
    client.post(f"{address}/kind", data={"kind": "paper"})
    page = ready(client, address)
    for words in ("owned 120 → 90", "+ new", "× not taken", "is not a length"):
        assert words in page

    assert "Nothing of that here" in text_of(client, "/materials?q=comet")
    client.post(f"{address}/agree")
    assert "1 added, 1 changed" in ready(client, address)
    assert "3 left" in text_of(client, "/materials?q=comet")
    client.post(f"{address}/forget")
    assert client.get(address).status_code == 404
    for text, words in (("", "empty"), ("a;b\n1;2\n", "headed")):
        refused = upload(client, text)
        assert (refused.status_code, words in refused.get_data(as_text=True)) == (422, True)
    exported = client.get("/materials/table/materials.csv?decimal=comma")
    assert exported.data.startswith(b"\xef\xbb\xbfkind of item;name;")


def test_a_page_made_while_the_work_ends_shows_one_state(client, monkeypatch):
    """The reader may finish between two looks at the job; the page looks once."""

    class Turning:
        token, name, total, done, entries, unknown, error, told = "x", "x.csv", 1, 1, (), (), "", ""
        looks = 0

        @property
        def state(self):
            self.looks += 1
            return "reading" if self.looks == 1 else "ready"

        def count(self, _):
            return 0

    monkeypatch.setattr("pleat.web.tables._job", lambda _: Turning())
    assert "Reading the table" in text_of(client, "/materials/table/x")


def test_the_shelf_by_keyboard(desk: Page):
    desk.goto("/materials")
    desk.keyboard.press("/")
    expect(desk.locator("#finder-q")).to_be_focused()
    desk.keyboard.type("indigo")
    expect(desk.locator(".found-count")).to_contain_text("found")
    expect(desk.locator(".good").first).to_contain_text("indigo", ignore_case=True)
    assert "q=indigo" in desk.url
    desk.locator("#finder-q").fill("")
    desk.locator("#finder-q").blur()
    desk.keyboard.press("8")
    expect(desk.locator(".found-count")).to_have_text("4 things found")
    desk.locator(".good").first.focus()
    desk.keyboard.press("ArrowRight")
    expect(desk.locator(".good").nth(1)).to_be_focused()
    desk.keyboard.press("Enter")
    expect(desk.locator("h1")).to_contain_text("Flat magnet")
    expect(desk.locator(".caution")).to_contain_text("emergency")


def test_an_item_saves_as_it_is_changed(desk: Page):
    desk.goto("/materials/22")
    field = desk.locator("#i-thickness-mm")
    field.fill("80 pt")
    field.press("Tab")
    expect(field).to_have_value("2.032 mm")
    expect(desk.locator(".saved-note")).to_be_visible()
    width = desk.locator("#i-sheet-width-mm")
    width.fill("wide")
    width.press("Tab")
    expect(desk.locator("#n-sheet-width-mm")).to_contain_text("not a length")
    expect(width).to_have_value("wide")
    width.fill("10 in")
    width.press("Tab")
    expect(width).to_have_value("254")
    desk.reload()
    expect(desk.locator("#i-thickness-mm")).to_have_value("2.032 mm")


def test_a_paper_is_measured_and_the_book_takes_what_the_shelf_knows(desk: Page):
    open_book(desk, "Dark-sky log", "paper")
    desk.locator("#body-paper").get_by_role("link", name="measure it").first.click()
    desk.locator("input[name=zero_typed]").fill("0.00")
    desk.locator("button[value=typed-zero]").click()
    for reading in ("1.24", "1.25", "1.37", "1.23"):
        desk.locator("input[name=typed]").fill(reading)
        desk.locator("button[value=typed]").click()
        expect(desk.locator(".readings")).to_contain_text(f"{reading} mm")
    expect(desk.locator(".thrown")).to_contain_text("one sheet too many")
    desk.get_by_role("button", name="keep 0.124 mm").click()
    expect(desk.locator("#why-sheet")).to_contain_text("0.124 mm")
    desk.get_by_role("link", name="all books").click()
    open_book(desk, "Dark-sky log", "paper")
    expect(desk.locator("#strip-paper .strip-figure")).to_have_text("0.120 mm")
    desk.get_by_role("button", name="take what the materials have").click()
    expect(desk.locator("#strip-paper .strip-figure")).to_have_text("0.124 mm")
    expect(desk.get_by_role("button", name="take what the materials have")).to_have_count(0)


def test_pounds_without_a_grade_are_asked_with_what_each_would_mean(desk: Page):
    open_book(desk, "Dark-sky log", "paper")
    typed(desk, "paper.leaf.weight", "60 lb")
    asked = desk.locator("[data-check=grade_leaf]")
    expect(asked).to_contain_text("means little without the grade")
    desk.locator("#strip-pages").click()
    told = desk.locator("#body-pages [data-check=B8]")
    expect(told).to_contain_text("text: 89 g/m², this section")
    told.get_by_role("button", name="text: 89").click()
    expect(told).to_have_count(0)
    desk.locator("#strip-paper").click()
    expect(desk.locator("#i-paper-leaf-weight")).to_have_value("60 lb text")


def test_the_grain_is_found_by_tests_that_agree(desk: Page):
    desk.goto("/materials/6/grain")
    desk.locator("input[name=bend][value=long]").check()
    expect(desk.locator(".result")).to_contain_text("along the long side")
    desk.locator("input[name=tear][value=short]").check()
    expect(desk.locator(".result")).to_contain_text("disagree")
    desk.locator("input[name=damp][value=long]").check()
    desk.get_by_role("button", name=re.compile("runs along the long side")).click()
    expect(desk.locator("#i-grain-long")).to_be_checked()


def test_ten_thousand_rows_come_in_behind_a_bar_while_other_pages_answer(desk: Page, tmp_path):
    table = tmp_path / "many.csv"
    table.write_text(
        "kind of item;name;sheet width (mm);sheet height (mm);owned\n"
        + "".join(f"paper;Star card {n};210;297;{n % 50}\n" for n in range(10_000))
    )
    desk.goto("/materials/table")
    desk.locator("#file").set_input_files(table)
    desk.get_by_role("button", name="show what would be taken").click()
    expect(desk.locator("progress")).to_be_visible()
    other = desk.context.new_page()
    other.goto("/materials?q=magnet")
    expect(other.locator(".good").first).to_contain_text("magnet")
    expect(desk.locator(".preview-word")).to_contain_text("10000 new", timeout=30_000)
    desk.get_by_role("button", name="add 10000").click()
    expect(desk.locator(".notice-good")).to_contain_text("10000 added", timeout=30_000)
    desk.goto("/materials?q=star+card+9999")
    expect(desk.locator(".found-count")).to_contain_text("1 thing found")


@pytest.mark.every(3)
@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_kind_is_changed_on_its_page(desk: Page, kind: str):
    """A field's name must not take its form's own properties away, whatever the kind has."""
    desk.goto(f"/materials/new/{kind}")
    desk.locator("#i-name").fill(f"Another {kind}")
    for name, text in {
        "size": "A4",
        "sheet-width-mm": "300",
        "sheet-height-mm": "400",
        "thickness-mm": "2",
        "roll-width-mm": "900",
        "length-left-mm": "900",
    }.items():
        if desk.locator(f"input#i-{name}").count():
            desk.locator(f"#i-{name}").fill(text)
    for name in ("width-mm", "inner-mm", "length-mm"):
        if desk.locator(f"input#i-{name}").count():
            desk.locator(f"#i-{name}").fill("20")
    desk.get_by_role("button", name="add it").click()
    expect(desk.locator("h1")).to_have_text(f"Another {kind}")
    typed(desk, "tags", "comet")
    expect(desk.get_by_text("saved", exact=True)).to_be_visible()
    assert re.search(r'id="i-tags"[^>]* value="comet"', desk.request.get(desk.url).text())
