"""The pile's drawings as the form, in Chromium: dragged in fans and openings, tapped, typed, and all of it by
keyboard."""

from __future__ import annotations

import itertools
import re

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.web.conftest import open_book, typed


def orders(page: Page) -> list[list[str]]:
    """The sheets as they lie on the screen, section by section from the outside in."""
    found: list[list[str]] = page.evaluate(
        "[...document.querySelectorAll('.pile-section')].map(s => [...s.querySelectorAll('.fan-sheet')]"
        ".sort((a, b) => a.dataset.place - b.dataset.place).map(el => el.dataset.sheet))"
    )
    return found


def lies(page: Page, sheet: str, section: int, place: int) -> None:
    """Wait until a sheet lies at a section and place, both from 0."""
    expect(page.locator(f"#sheet-{sheet}[data-section='{section}'][data-place='{place}']")).to_have_count(1)


def middle(target: Locator, across: float = 0.5) -> tuple[float, float]:
    target.scroll_into_view_if_needed()
    box = target.bounding_box()
    return box["x"] + box["width"] * across, box["y"] + box["height"] / 2


def drag(page: Page, source: Locator, target: Locator, across: float) -> None:
    """Press on one thing, move in steps as a hand does, and let go at a share of another's width."""
    page.mouse.move(*middle(source))
    page.mouse.down()
    for _ in range(2):
        page.mouse.move(*middle(target, across), steps=4)
    page.mouse.up()


@pytest.fixture
def pile(desk: Page) -> Page:
    open_book(desk, "Found-paper field journal", "pages")
    desk.locator(".pile-section").first.scroll_into_view_if_needed()
    return desk


def test_a_mixed_journal_from_pile_to_stations(desk: Page):
    open_book(desk, "Dark-sky log", "pages")
    desk.locator("#drawer-pile summary").click()
    for name, sheets in (("Old observing pages", "3"), ("Flour bag paper", "3"), ("Log paper, cream", "2")):
        row = desk.locator(".pile-add", has_text=name).first
        row.locator("input[name=sheets]").fill(sheets)
        row.get_by_role("button").click()
        expect(desk.locator(".fan-name", has_text=name)).to_have_count(int(sheets))
    expect(desk.locator("#strip-pages .strip-figure")).to_have_text("32 pages")
    desk.locator("#pile-sections").fill("2")
    desk.get_by_role("button", name="arrange", exact=True).click()
    expect(desk.locator(".pile-section")).to_have_count(2)
    expect(desk.locator(".wish-met").first).to_contain_text("equally thick")
    first = orders(desk)[0][0]
    desk.locator(f"#sheet-{first} + .fan-pin").click()
    expect(desk.locator(f"#sheet-{first}")).to_have_class(re.compile("pinned"))
    desk.get_by_role("button", name="another way").click()
    lies(desk, first, 0, 0)
    desk.locator("#strip-binding").click()
    desk.locator("#i-binding-station-count-3").locator("xpath=..").click()
    typed(desk, "binding.station.0", "12")
    expect(desk.locator("#body-binding [data-check=C2]")).to_contain_text("held by fewer than two")


def test_sheets_are_dragged_within_a_fan_to_another_and_into_a_new_section(pile: Page):
    before = orders(pile)
    sheet = before[0][1]
    drag(pile, pile.locator(f"#sheet-{sheet}"), pile.locator(f"#sheet-{before[0][4]}"), 0.8)
    lies(pile, sheet, 0, 4)
    drag(pile, pile.locator(f"#sheet-{sheet}"), pile.locator(f"#sheet-{before[0][0]}"), 0.2)
    lies(pile, sheet, 0, 0)
    drag(pile, pile.locator(f"#sheet-{sheet}"), pile.locator(f"#sheet-{before[1][3]}"), 0.2)
    lies(pile, sheet, 1, 3)
    drag(pile, pile.locator(f"#sheet-{sheet}"), pile.locator(".fan-new"), 0.5)
    lies(pile, sheet, 2, 0)
    expect(pile.locator(".pile-section")).to_have_count(3)
    expect(pile.locator(".slip")).not_to_be_visible()
    assert sorted(itertools.chain(*orders(pile))) == sorted(itertools.chain(*before))


def test_a_page_of_an_opening_takes_the_place_of_another_and_pairs_stay_together(pile: Page):
    before = orders(pile)
    sheet, other = before[0][1], before[0][6]
    openings = pile.locator(".pile-section").first.locator(".spreads")
    drag(
        pile,
        openings.locator(f".page[data-sheet='{sheet}']").first,
        openings.locator(f".page[data-sheet='{other}']").first,
        0.5,
    )
    lies(pile, sheet, 0, 6)
    inside = orders(pile)[0][7]
    mark = openings.locator(f".keep[data-sheet='{sheet}']").first
    mark.click()
    expect(openings.locator(f".keep[data-act=part][data-sheet='{sheet}']").first).to_be_visible()
    pile.get_by_role("button", name="another way").click()
    expect(pile.locator("#bar")).to_contain_text("undo")
    pile.wait_for_function(
        "([a, b]) => { const one = document.getElementById('sheet-' + a), two = "
        "document.getElementById('sheet-' + b);"
        " return one.dataset.section === two.dataset.section && Math.abs(one.dataset.place - "
        "two.dataset.place) === 1; }",
        arg=[sheet, inside],
    )


def test_a_pinned_sheet_cannot_be_dragged_and_a_tap_shows_its_slip(pile: Page):
    before = orders(pile)
    sheet = before[0][2]
    pile.locator(f"#sheet-{sheet} + .fan-pin").click()
    expect(pile.locator(f"#sheet-{sheet} + .fan-pin")).to_have_attribute("aria-pressed", "true")
    drag(pile, pile.locator(f"#sheet-{sheet}"), pile.locator(f"#sheet-{before[0][5]}"), 0.8)
    assert orders(pile) == before
    pile.locator(f".page[data-sheet='{sheet}']").first.click()
    slip = pile.locator(".slip")
    expect(slip).to_contain_text("sheet 3 of section 1")
    expect(slip.get_by_role("button", name="pinned")).to_have_attribute("aria-pressed", "true")
    slip.get_by_role("button", name="pinned").click()
    slip.get_by_role("button", name="next section").click()
    lies(pile, sheet, 1, 2)
    expect(slip).to_contain_text("sheet 3 of section 2")
    slip.get_by_role("button", name="window", exact=True).click()
    expect(slip.get_by_role("button", name="window", exact=True)).to_have_attribute("aria-pressed", "true")
    slip.get_by_role("button", name="on a stub").click()
    expect(slip.get_by_role("button", name="on a stub")).to_have_attribute("aria-pressed", "true")
    expect(pile.locator("#strip-pages .strip-figure")).to_have_text("70 pages")
    slip.get_by_role("button", name="off the pile").click()
    expect(pile.locator(f"#sheet-{sheet}")).to_have_count(0)
    expect(slip).not_to_be_visible()
    expect(pile.locator("#strip-pages .strip-figure")).to_have_text("68 pages")


def test_the_slip_stays_with_its_sheet_whatever_is_done_to_others(pile: Page):
    before = orders(pile)
    mine, other = before[0][1], before[0][4]
    pile.locator(f"#sheet-{mine}").click()
    drag(pile, pile.locator(f"#sheet-{other}"), pile.locator(f"#sheet-{before[1][0]}"), 0.2)
    lies(pile, other, 1, 0)
    pile.locator(f"#sheet-{before[0][6]} + .fan-pin").click()
    expect(pile.locator(f"#sheet-{before[0][6]}")).to_have_class(re.compile("pinned"))
    pile.locator(".slip").get_by_role("button", name="inward").click()
    lies(pile, mine, 0, 2)
    lies(pile, other, 1, 0)


def test_place_and_fold_out_are_typed_and_what_cannot_be_taken_stays_in_its_field(pile: Page):
    sheet = next(
        one
        for section in orders(pile)
        for one in section
        if "Site map" in pile.locator(f"#sheet-{one}").get_attribute("data-name")
    )
    pile.locator(f"#sheet-{sheet}").click()
    place, flap = pile.locator("#pile-place"), pile.locator("#pile-flap")
    for field, note, text, words in (
        (place, "#n-pile-place", "7.1", "There are 2 sections; 3 begins a new one."),
        (place, "#n-pile-place", "inside", "section and place such as 2.3"),
        (place, "#n-pile-place", "1.40", "has the places 1 to"),
        (flap, "#n-pile-flap", "wide", "not a length"),
        (flap, "#n-pile-flap", "2", "too small for the fold-out flap"),
    ):
        field.fill(text)
        field.press("Tab")
        expect(pile.locator(note)).to_contain_text(words)
        expect(field).to_have_value(text)
    panels = pile.locator("#pile-panels")
    panels.fill("-3")
    panels.press("Tab")
    expect(pile.locator("#n-pile-flap")).to_contain_text("The number of panels goes from 1 to 6")
    expect(panels).to_have_value("-3")
    expect(flap).to_have_value("2")
    panels.fill("1")
    place.fill("2.3")
    place.press("Enter")
    lies(pile, sheet, 1, 2)
    expect(pile.locator("#n-pile-place")).to_be_empty()
    flap.fill("13 cm")
    flap.press("Enter")
    expect(flap).to_have_value("130")
    expect(pile.locator("#body-pages [data-check=C6]")).to_contain_text("reaches the gutter")
    pile.locator("#body-pages [data-check=C6] .btn").click()
    expect(flap).to_have_value("129")
    expect(pile.locator("#body-pages [data-check=C6]")).to_have_count(0)
    expect(pile.locator(f".page[data-sheet='{sheet}'] .folded-in")).to_have_count(1)
    expect(pile.locator("#step-flap")).to_contain_text("Site map, folded: 129 mm")


def test_the_keyboard_does_all_of_it_and_keeps_its_place(pile: Page):
    before = orders(pile)
    pile.locator(f"#sheet-{before[0][0]}").focus()
    pile.keyboard.press("ArrowRight")
    expect(pile.locator(f"#sheet-{before[0][1]}")).to_be_focused()
    for key, section, place in (
        ("Shift+ArrowRight", 0, 2),
        ("Shift+ArrowDown", 1, 2),
        ("Shift+ArrowLeft", 1, 1),
        ("Shift+ArrowUp", 0, 1),
    ):
        pile.keyboard.press(key)
        lies(pile, before[0][1], section, place)
        expect(pile.locator(f"#sheet-{before[0][1]}")).to_be_focused()
    assert orders(pile) == before
    pile.keyboard.press("p")
    expect(pile.locator(f"#sheet-{before[0][1]}")).to_have_class(re.compile("pinned"))
    expect(pile.locator(f"#sheet-{before[0][1]}")).to_be_focused()
    pile.keyboard.press("Enter")
    expect(pile.locator(".slip")).to_contain_text("sheet 2 of section 1")
    expect(pile.locator("#body-pages")).to_be_visible()
    pile.locator(".slip").get_by_role("button", name="close").click()
    expect(pile.locator(f"#sheet-{before[0][1]}")).to_be_focused()
    pile.keyboard.press("ArrowDown")
    expect(pile.locator(f"#sheet-{before[1][1]}")).to_be_focused()


def test_openings_of_a_book_of_one_paper_show_its_fold_out_and_its_page_numbers(desk: Page):
    open_book(desk, "Star chart companion", "pages")
    drawer = desk.locator("#drawer-openings")
    expect(drawer).to_contain_text("fold-outs lie folded in")
    expect(drawer.locator(".page")).to_have_count(24)
    expect(drawer.locator(".folded-in")).to_have_count(1)
    expect(drawer.locator(".spread-number")).to_contain_text(["| 1", "2 | 3", "24 |"][:2])
