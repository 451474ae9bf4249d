"""Where the focus is after every control, the browser's back, keys, refused texts, and what a phone shows."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.profiles import some
from tests.web.conftest import open_book, typed

PLEATS = ("brief", "paper", "pages", "binding", "cover", "cutting", "bench")
_LOST = "document.activeElement === document.body || document.activeElement === null"
_CONTROLS = """name => [...document.querySelectorAll([
    'button:not([disabled])', 'input[name=value]:not([type=hidden])', 'select']
    .map(one => `#body-${name} ${one}`).join(', '))]
    .filter(el => el.getClientRects().length && !el.closest('details:not([open])')
      && !el.matches('[data-open-pleat], [data-scroll]'))
    .map((el, at) => (el.dataset.walked = at, at))"""


def settled(page: Page) -> None:
    expect(page.locator(".htmx-request")).to_have_count(0)


@pytest.mark.parametrize("name", PLEATS)
def test_after_every_control_of_a_pleat_the_focus_is_somewhere(desk: Page, served: str, name: str):
    address = f"{served}/books/{5 if name == 'bench' else 2}?open={name}"
    desk.goto(address)
    expect(desk.locator(f"#body-{name}")).to_be_visible()
    for number in some(desk.evaluate(_CONTROLS, name), 8, PLEATS.index(name)):
        control = desk.locator(f"[data-walked='{number}']")
        if control.count() == 0:
            desk.evaluate(_CONTROLS, name)  # swapped meanwhile: what is there now is walked on
            continue
        kind = control.evaluate("el => el.tagName === 'INPUT' ? el.type : el.tagName")
        control.focus()
        if kind == "text":
            control.fill(control.input_value() + "1")
            control.press("Enter")
        elif kind == "SELECT":
            control.select_option(index=control.locator("option").count() - 1)
        elif kind == "radio":
            control.press("ArrowRight")
        else:
            control.press("Enter")
        desk.wait_for_timeout(30)
        settled(desk)
        assert not desk.evaluate(_LOST), (
            f"lost after {control.evaluate('el => el.outerHTML')[:120] if control.count() else number}"
        )


def test_back_goes_to_the_pleat_before(desk: Page):
    open_book(desk, "Dark-sky log")
    desk.locator("#strip-cover").click()
    expect(desk.locator("#head-cover")).to_be_focused()
    desk.keyboard.press("3")
    expect(desk.locator("#body-pages")).to_be_visible()
    desk.go_back()
    expect(desk.locator("#body-cover")).to_be_visible()
    desk.go_back()
    expect(desk.locator("#book")).to_be_visible()
    desk.go_forward()
    expect(desk.locator("#body-cover")).to_be_visible()


def test_a_field_is_sent_once_and_a_refused_one_stays_and_shows(desk: Page):
    sent = []
    desk.on("request", lambda request: sent.append(request.post_data) if request.method == "POST" else None)
    open_book(desk, "Dark-sky log", "cover")
    field = desk.locator("#i-cover-square-mm")
    field.fill("4")
    field.press("Enter")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("213")
    assert len(sent) == 1, "Enter sends once"
    field.fill("a smidge")
    field.press("Enter")
    expect(desk.locator("#n-cover-square-mm")).to_contain_text("not a length")
    desk.locator("#strip-pages").click()
    expect(desk.locator("#strip-cover .strip-refused")).to_be_visible()
    desk.reload()
    expect(desk.locator("#strip-cover .strip-refused")).to_be_visible()
    desk.locator("#strip-cover").click()
    expect(field).to_have_value("a smidge")
    expect(desk.locator("#n-cover-square-mm")).to_contain_text(
        "not a length I can read. Try 210, 21 cm or 8 1/4 in."
    )
    field.fill("5")
    field.press("Enter")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("215")
    desk.reload()
    expect(field).to_have_value("5")
    expect(desk.locator(".pleat[data-refused]")).to_have_count(0)


def test_what_is_typed_goes_before_a_nudge_on_its_way(desk: Page):
    open_book(desk, "Visitor notes, first draft", "binding")
    desk.locator("#grip-binding-station-0").focus()
    desk.keyboard.press("ArrowRight")
    typed(desk, "binding.station.0", "50")
    desk.wait_for_timeout(500)
    settled(desk)
    expect(desk.locator("#i-binding-station-0")).to_have_value("50")
    expect(desk.locator("#grip-binding-station-0")).to_have_attribute("aria-valuetext", "50 mm")


def test_what_is_typed_while_an_answer_is_on_its_way_stays_whatever_comes_of_it(desk: Page):
    held: list[Route] = []
    desk.route("**/bodies?*", lambda route: held.append(route))
    open_book(desk, "Dark-sky log", "cover")
    typed(desk, "cover.square_mm", "4")
    while not held:
        desk.wait_for_timeout(50)
    square = desk.locator("#i-cover-square-mm")
    typed(desk, "cover.square_mm", "a smidge")
    held[0].continue_()
    expect(desk.locator(".strip[data-behind]")).to_have_count(0)
    expect(square).to_have_value("a smidge")
    expect(desk.locator("#n-cover-square-mm")).to_contain_text("not a length I can read")
    expect(square).to_have_value("a smidge")


def test_what_lies_folded_follows_when_there_is_time_or_when_it_is_opened(desk: Page):
    asked: list[str] = []
    desk.on("request", lambda request: asked.append(request.url) if "/bodies" in request.url else None)
    open_book(desk, "Dark-sky log", "cover")
    typed(desk, "cover.square_mm", "4")
    expect(desk.locator("#strip-cutting[data-behind]")).to_have_count(1)
    expect(desk.locator("#strip-cutting[data-behind]")).to_have_count(0)
    assert len(asked) == 1
    assert set(re.findall(r"\w+", asked[0].partition("of=")[2].partition("&")[0])) == {"cutting", "bench"}
    typed(desk, "cover.square_mm", "6")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("217")
    desk.locator("#strip-cutting").click()
    expect(desk.locator("#body-cutting")).to_contain_text("217")
    desk.locator("#strip-cover").click()
    typed(desk, "cover.square_mm", "5")
    expect(desk.locator("#strip-bench[data-behind]")).to_have_count(1)
    desk.locator("#strip-book").click()
    desk.get_by_role("button", name="to the bench").click()
    expect(desk.locator("#body-bench [id^=step-]:focus-within")).to_have_count(1)
    expect(desk.locator("#strip-bench[data-behind]")).to_have_count(0)


def test_keys_work_from_a_choice_are_listed_and_can_be_switched_off(desk: Page):
    open_book(desk, "Dark-sky log", "cover")
    desk.locator("#i-cover-creases-two").focus()
    desk.keyboard.press("7")
    expect(desk.locator("#head-cutting")).to_be_focused()
    desk.keyboard.press("?")
    expect(desk.locator("#keys")).to_be_visible()
    desk.locator("#keys-single").uncheck()
    desk.keyboard.press("Escape")
    expect(desk.locator("#keys")).to_be_hidden()
    desk.keyboard.press("2")
    expect(desk.locator("#body-cutting")).to_be_visible()
    desk.keyboard.press("ArrowLeft")
    expect(desk.locator("#body-cover")).to_be_visible()
    typed(desk, "cover.square_mm", "4")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("213")
    desk.locator("#head-cover").click()
    desk.keyboard.press("Control+z")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("211")
    expect(desk.locator("#do-undo")).to_have_attribute("aria-disabled", "true")
    desk.keyboard.press("Control+y")
    expect(desk.locator("#strip-cover .strip-figure")).to_contain_text("213")
    desk.locator("#do-undo").focus()
    desk.keyboard.press("Enter")
    expect(desk.locator("#do-undo")).to_be_focused()


def test_the_slip_closes_by_escape_and_a_wrong_answer_at_the_start_is_in_sight(desk: Page):
    desk.goto("/books/6?open=pages")
    desk.locator(".fan-sheet").first.click()
    expect(desk.locator(".slip")).to_be_visible()
    desk.keyboard.press("Escape")
    expect(desk.locator(".slip")).to_be_hidden()
    desk.goto("/new")
    desk.get_by_label("leaf size, width first").fill("A5")
    desk.get_by_text("Log paper, cream").click()
    desk.get_by_label("how many pages or leaves").fill("many")
    desk.get_by_role("button", name="work it out").click()
    expect(desk.get_by_label("how many pages or leaves")).to_be_focused()
    expect(desk.locator("#p-count")).to_be_in_viewport()


def test_ticking_a_cut_says_what_it_takes_from_the_materials(desk: Page):
    open_book(desk, "Visitor notes, first draft", "bench")
    desk.locator("#tick-cut_leaves").click()
    expect(desk.locator("#notice")).to_contain_text("14 sheets of Copier paper taken, 486 there now")
    desk.locator("#tick-cut_leaves").click()
    expect(desk.locator("#notice")).to_contain_text("14 sheets of Copier paper given back, 500 there now")


def test_a_long_search_shows_its_bar_and_can_be_stopped(desk: Page):
    desk.goto("/books/6?open=pages")
    desk.locator("#drawer-pile summary").click()
    paper = desk.locator(".pile-add", has_text="Copier paper, letter")
    paper.locator("input[name=sheets]").fill("300")
    paper.get_by_role("button", name="add Copier paper, letter").click()
    expect(desk.locator("#strip-pages .strip-figure")).to_have_text(re.compile("1272 pages"))
    desk.get_by_role("button", name="arrange", exact=True).click()
    expect(desk.locator("#arranging progress")).to_be_visible()
    desk.get_by_role("button", name="stop, and take the best so far").click()
    expect(desk.locator("#arranging")).to_have_count(0)
    expect(desk.locator("#do-undo")).to_have_attribute("title", re.compile("arranged in 2 sections"))


def test_a_phone_shows_eight_marks_and_the_open_pleat_at_the_top(desk: Page):
    desk.set_viewport_size({"width": 400, "height": 860})
    desk.goto("/books/5")
    marks = [strip.bounding_box() for strip in desk.locator(".strip").all()]
    assert len({round(box["y"]) for box in marks}) == 1, "one row"
    assert desk.locator("#bar").bounding_box()["height"] < 64, "the bar is one row too"
    desk.mouse.wheel(0, 3000)
    desk.locator("#strip-bench").click()
    expect(desk.locator("#head-bench")).to_be_in_viewport()
    assert desk.locator("#head-bench").bounding_box()["y"] < 160
    desk.mouse.wheel(0, 900)
    expect(desk.locator("#head-bench")).to_be_in_viewport()
    desk.locator("#bar-menu").click()
    expect(desk.get_by_role("link", name="materials")).to_be_visible()


def test_an_old_page_of_a_material_is_told_and_may_take_over(desk: Page):
    desk.goto("/materials/1")
    other = desk.context.new_page()
    other.goto("/materials/1")
    for page, owned in ((other, "90"), (desk, "80")):
        page.locator("#i-owned").fill(owned)
        page.locator("#i-owned").press("Tab")
        if page is other:
            expect(page.get_by_text("saved", exact=True)).to_be_visible()
    expect(desk.locator("#notice")).to_contain_text("was changed elsewhere")
    expect(desk.locator("#i-owned")).to_have_value("80")
    desk.get_by_role("button", name="save mine all the same").click()
    expect(desk.locator("#notice")).to_be_empty()
    desk.reload()
    expect(desk.locator("#i-owned")).to_have_value("80")


HELD = """() => {
  const real = window.fetch, now = performance.now.bind(performance);
  const gate = new Promise(done => { window.letGo = done; });
  window.fetch = async (...all) => { await gate; return real(...all); };
  performance.now = () => 100 * now();
}"""
"""No answer comes until it is let go, much later for whoever reads the clock."""


@pytest.mark.parametrize(
    ("address", "grip", "at"),
    [
        ("/books/5?open=binding", "#body-binding [role=slider]:not([aria-disabled])", "data-mm"),
        ("/books/14?open=extras&design=programme", "#grip-extras-items-programme-place-0", "data-x"),
    ],
    ids=["handle", "thing on a face"],
)
def test_a_nudge_goes_on_from_the_one_whose_answer_is_on_its_way(
    desk: Page, address: str, grip: str, at: str
):
    """Three in a row whose answers take long: three steps in all."""
    desk.goto(address)
    moved = desk.locator(grip).first
    moved.focus()
    before, step = float(moved.get_attribute(at)), float(moved.get_attribute("data-step"))
    desk.evaluate(HELD)
    for nth in range(3):
        moved.press("ArrowRight")
        if nth < 2:
            desk.wait_for_timeout(400)  # it is sent
    desk.evaluate("() => window.letGo()")
    expect(moved).to_have_attribute(at, re.compile(rf"^{before + 3 * step:.2f}"), timeout=15_000)
    desk.wait_for_timeout(1400)
    assert float(moved.get_attribute(at)) == pytest.approx(before + 3 * step, abs=0.01), "and stays there"
    desk.locator("#undo").click() if desk.locator("#undo").count() else desk.get_by_role(
        "button", name="undo"
    ).click()
    expect(moved).to_have_attribute(at, re.compile(rf"^{before + 2 * step:.2f}"), timeout=15_000)
    moved.press("ArrowRight")
    expect(moved).to_have_attribute(at, re.compile(rf"^{before + 3 * step:.2f}"), timeout=15_000)


def test_a_drawer_tapped_as_an_answer_comes_opens_and_fills(desk: Page):
    """The tap is taken before the swap that follows in the same moment; what stood open already is fetched
    anew."""
    open_book(desk, "Almanac of the society", "paper")
    desk.locator("#drawer-board summary").click()
    expect(desk.locator("#papers-board .paper-choice").first).to_be_visible()
    desk.evaluate("""() => document.addEventListener("htmx:before:swap", (event) => {
      const changes = event.detail.ctx.request.method === "POST";
      if (changes) document.querySelector("#drawer-covering summary").click();
    })""")
    typed(desk, "paper.board.thickness_mm", "2.5")
    for role in ("board", "covering"):
        expect(desk.locator(f"#papers-{role} .paper-choice").first).to_be_visible()
