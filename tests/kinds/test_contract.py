"""What every member of every registry owes the house: a plan for whatever book, drawings, steps, a form,
prints, a portrait, the command line.

A new member is one line in ``BOOKS``.
"""

from __future__ import annotations

import json
import re
from graphlib import CycleError
from xml.etree import ElementTree

import pytest
from click.testing import CliRunner
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pleat.cli import main
from pleat.core.base.kinds import TAG
from pleat.core.base.plan import Changes
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.bookfile import book_schema, read_book, write_book
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.bench.order import waits_for
from pleat.core.whole.overview import overview
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import PLEATS, REGISTRIES, make_plan, worked_out
from pleat.drawing import looks
from pleat.drawing import members as _drawings  # noqa: F401 - makes all drawings known
from pleat.drawing.handles import handles
from pleat.drawing.portraits import portrait
from pleat.drawing.svg import render_screen
from pleat.printing.sheets import print_sheets
from pleat.services import books as service
from pleat.store.database import transaction
from pleat.web.forms import entries
from tests.kinds import howto
from tests.process import pdf_of
from tests.profiles import LONG, examples, some
from tests.strategies import books
from tests.web.test_swaps import parts

pytestmark = pytest.mark.usefixtures("tiny_kinds")
BOOKS: dict[str, Changes] = {
    "single section, pamphlet stitch, soft wrap": (),
    "its own cover": (("cover.kind", "bare"),),
    "stapled booklet": (("binding.kind", "stapled"), ("pages.amount", 24)),
    "stack on one ring": (("pages.kind", "leaves"), ("binding.kind", "onering"), ("cover.kind", "bare")),
}
GIVEN_BY_NOBODY = {
    "cover.ready",
    "cover.set",
    "cover.on",
    "cover.scored",
    "block.trimmed",
    "leaf.ready",
    "leaf.tried",
    "board.pierced",
    "supports.ready",
    "fold.notched",
    "board.ready",
    "board.cut",
    "block.banded",
    "block.marked",
    "block.in",
    "block.ended",
    "block.nested",
    "spine.lined",
    "filler.in",
    "liner.in",
    "cover.dry",
    "cover.joined",
    "book.dry",
    "covering.backed",
    "thread.trimmed",
    "leaf.scored",
    "leaf.reinforced",
    "gear.ready",
    "cover.punched",
    "strips.woven",
    "book.creased",
}
"""States that only some books have: without a step that gives them they are met."""


BOOKS |= howto.contract()
BOOKS |= {f"recipe: {one.title}": one.begun_on(RULERS["mm"]) for one in RECIPES}
TURN = {kind: number for number, kind in enumerate(BOOKS)}
"""What the quick run does by turns."""


def made(changes, book=None):
    return editing.apply(book or Book(), changes)


def example(kind):
    """The example of a recipe, else the usual book of a kind."""
    return next((one.book() for one in RECIPES if kind == f"recipe: {one.title}"), None) or made(BOOKS[kind])


@pytest.mark.every(3)
@pytest.mark.parametrize("kind", BOOKS)
@settings(max_examples=examples(10), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(book=books)
def test_whatever_book_of_a_kind_plans_draws_prints_and_goes_out(kind, book):
    book = made(BOOKS[kind], book)
    plan = worked_out(book)
    json.dumps(plan_data(plan))
    assert read_book(write_book(book)) == book
    for _, check in plan.checks:
        assert all(editing.apply(book, offer.changes) != book for offer in check.offers), check.key
    for name, result in plan:
        assert result.key_figure.how
        assert ElementTree.fromstring(render_screen(looks.strip(result, plan), 44, 132).svg).get("aria-label")
        if name in ("pages", "binding", "cover"):
            drawing = render_screen(looks.main(result, plan))
            assert {one.path for one in handles(result, plan)} <= set(drawing.spots), (
                "a handle without its place"
            )
    assert portrait(plan).width >= plan.cover.front_width_mm
    assert len(overview(plan, {}).scrap) <= 6
    for paper in some(("a4", "letter"), 2, TURN[kind] % 2):
        assert len(print_sheets(plan, book.title, paper)) >= 2


@pytest.mark.every(3)
@pytest.mark.parametrize("kind", BOOKS)
def test_a_kind_is_worked_from_the_first_step_to_the_last(kind):
    """Every need is given by a step, or is one that only other books have; nothing says what this book has
    not."""
    book = example(kind)
    plan = make_plan(book)
    assert not [check for _, check in plan.checks if check.level == "stop" and check.key != "C1"]
    steps = [one.step for one in plan.bench.work]
    given_ = {state for step in steps for state in step.gives}
    assert {need for step in steps for need in step.needs} - given_ <= GIVEN_BY_NOBODY
    assert steps[-1].key == "check"
    for step in steps[:-1]:
        assert step.key in {first for firsts in waits_for(steps).values() for first in firsts}, step.key
    words = " ".join(f"{step.title} {step.detail}" for step in steps)
    assert ("thread" in words) == (hasattr(book.binding, "thread") and book.binding.kind != "loop")
    if book.cover.kind == "bare":
        said = (
            words.lower()
            .replace("discover", "")
            .replace("past the cover", "")
            .replace("boards and a weight", "")
        )
        assert "cover" not in said
        assert "board" not in said
    elif book.cover.kind != "boards":
        assert "cover" in words.lower()
    for step in steps:
        book = service.tick(book, plan, step.key, True)
        plan = make_plan(book, before=plan)
    assert plan.bench.current is None
    assert not plan.bench.checks


@pytest.mark.every(4)
@pytest.mark.parametrize("kind", BOOKS)
def test_the_command_line_plans_a_kind(kind, tmp_path):
    file = tmp_path / "book.json"
    file.write_text(write_book(example(kind)))
    for part in ("list", "steps", "checks", "cutting"):
        result = CliRunner().invoke(main, ["plan", str(file), "--part", part])
        assert result.exit_code == 0, result.output
        assert result.output.strip()
    assert json.loads(CliRunner().invoke(main, ["plan", str(file)]).output)["plan_format"] == 7


DRAWERS = ("threads", "papers?role=leaf", "papers?role=board", "history")
"""What a page of a book fetches when it is opened, whether or not that book shows it."""


@pytest.mark.every(3)
@pytest.mark.parametrize("kind", BOOKS)
def test_every_page_of_a_kind_is_made_and_a_swapped_one_is_the_reloaded_one(kind, app, client):
    """In the quick run each kind takes every third edit, its neighbours the others."""
    book = example(kind)
    with transaction(app.extensions["pleat_engine"]) as session:
        book_id = service.add(session, book, "", "made")
    shown = parts(client.get(f"/books/{book_id}").get_data(as_text=True))
    assert {*PLEATS, "bar", "state", "book"} == set(shown)
    for group in ("pages", "binding", "cover"):
        for one in entries(book, group):
            if not one.path.endswith(("pile", "order")) and one.text:
                assert f'name="path" value="{one.path}"' in shown[group] or group != "binding", one.path
    assert client.get("/").status_code == client.get(f"/books/{book_id}/print").status_code == 200
    for drawer in DRAWERS:
        asked = client.get(f"/books/{book_id}/{drawer}")
        assert asked.status_code == (
            404 if drawer == "threads" and not hasattr(book.binding, "thread") else 200
        ), drawer
    if LONG or TURN[kind] % 6 == 0:
        assert pdf_of(client, f"/books/{book_id}/print.pdf")[:4] == b"%PDF"
    edits = [
        ("brief.leaf_width_mm", "120"),
        ("brief.ruler", "in"),
        ("brief.quantity", "3"),
        ("binding.kind", "pamphlet"),
        ("cover.kind", "wrap"),
        ("pages.kind", "sections"),
    ]
    for path, value in some(edits, 3, TURN[kind] % 3):
        version = re.search(r'name="version" value="(\d+)"', shown["state"])[1]
        answer = client.post(
            f"/books/{book_id}/edit",
            data={"path": path, "value": value, "version": version, "window": "w"},
            headers={"HX-Request": "true"},
        )
        assert answer.status_code == 200
        shown |= parts(answer.get_data(as_text=True))
        for name, text in parts(client.get(f"/books/{book_id}").get_data(as_text=True)).items():
            assert shown[name] == text, f"{name} is stale after {path} {value}"


@settings(max_examples=examples(30), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(books, st.lists(st.tuples(st.sampled_from(REGISTRIES), st.integers(0, 9)), max_size=4))
def test_any_members_together_plan_and_what_does_not_go_together_says_the_way_out(book, picks):
    for registry, number in picks:
        book = editing.apply(
            book, [(f"{registry.pleat}.{TAG}", registry.members[number % len(registry.members)].name)]
        )
    try:
        plan = worked_out(book)
    except CycleError as error:  # pragma: no cover - what the test is about
        raise AssertionError("steps wait for each other") from error
    json.dumps(plan_data(plan))
    for _, check in plan.checks:
        if check.key == "unfit":
            for offer in check.offers:
                mended = worked_out(editing.apply(book, offer.changes))
                assert ("unfit", check.title) not in [(one.key, one.title) for _, one in mended.checks]


@pytest.mark.parametrize("near", [("binding.insets_mm", [10.0]), ("binding.inset_mm", 10.0)])
def test_holes_near_the_end_of_the_cover_are_spread_by_the_binding_that_made_them(near):
    kind = "pamphlet" if near[0].endswith("insets_mm") else "stapled"
    book = made(
        [
            ("binding.kind", kind),
            near,
            ("pages.amount", 16),
            ("cover.piece_height_mm", Book().brief.leaf_height_mm - 6),
        ]
    )
    (check,) = [check for check in make_plan(book).cover.checks if check.key == "D5"]
    mended = make_plan(editing.apply(book, check.offers[0].changes))
    assert "D5" not in {check.key for check in mended.cover.checks}


def test_what_was_decided_for_a_member_left_behind_comes_back():
    book = editing.edit(Book(), {"binding.tail_mm": "120", "binding.station_count": "5"})
    other = editing.apply(
        editing.edit(editing.apply(book, [("binding.kind", "stapled")]), {"binding.staples": "3"}), []
    )
    assert (other.binding.staples, other.aside["binding"]["pamphlet"]["tail_mm"]) == (3, 120)
    back = editing.apply(other, [("binding.kind", "pamphlet")])
    assert back.binding == book.binding
    assert editing.apply(back, [("binding.kind", "stapled")]).binding.staples == 3


def test_a_member_nobody_knows_is_kept_whole_and_told(app, client):
    data = json.loads(write_book(Book(title="From afar"))) | {
        "binding": {"kind": "spiral", "turns": 9, "tail_mm": "8 1/4 in"}
    }
    book = read_book(json.dumps(data))
    assert json.loads(write_book(book))["binding"] == data["binding"]
    plan = make_plan(book)
    (check,) = [check for check in plan.binding.checks if check.key == "kind"]
    assert "“spiral”" in check.title
    known = editing.apply(book, check.offers[0].changes)
    assert known.binding == Book().binding
    assert known.aside["binding"]["spiral"] == {"turns": 9, "tail_mm": "8 1/4 in"}
    with transaction(app.extensions["pleat_engine"]) as session:
        book_id = service.add(session, book, "", "made")
    page = client.get(f"/books/{book_id}").get_data(as_text=True)
    assert "“spiral”" in page
    assert "take pamphlet stitch" in page


def test_the_schema_knows_every_member():
    assert {"Sections", "Leaves", "Pamphlet", "Stapled", "OneRing", "Wrap", "Bare"} <= set(
        book_schema()["$defs"]
    )
