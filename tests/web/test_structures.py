"""Folded structures in the browser: decided on their sheets, opened and shut panel by panel, drawn freely,
and their orders of shutting compared."""

from __future__ import annotations

import json
import math
import random
import re

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from pleat.core.document import editing
from pleat.core.document.recipes import recipe
from pleat.core.engines.folding.convex import rectangle
from pleat.core.engines.folding.poses import folded
from pleat.core.engines.folding.tree import LIFT_MM, tree
from pleat.core.pleats.binding.hinged.record import MOST_DRAWN
from pleat.core.whole.planning import make_plan
from pleat.services import books as service
from pleat.store.database import close, open_engine, transaction
from pleat.web.folding import made_of
from tests.core.pleats.structures.samples import FOLDED, HINGED
from tests.profiles import some
from tests.web.conftest import in_script, typed

SCENE = "Alpine.$data(document.querySelector('[data-folding]'))"


class Shelf:
    """The books of a running Pleat, reached beside it."""

    def __init__(self, engine):
        self.engine = engine

    def stored(self, name, *changes):
        with transaction(self.engine) as session:
            return service.add(session, editing.apply(recipe(name).book(), changes), "", "made")

    def now(self, book_id):
        with transaction(self.engine, reading=True) as session:
            return service.open_book(session, book_id).book


@pytest.fixture
def shelf(served, tmp_path):
    engine = open_engine(tmp_path / "served.db")
    yield Shelf(engine)
    close(engine)


def stored(app, name, *changes):
    return Shelf(app.extensions["pleat_engine"]).stored(name, *changes)


def held_now(app, book_id):
    return Shelf(app.extensions["pleat_engine"]).now(book_id)


def data_of(page: str):
    return json.loads(
        re.search(r"data-folding=\"([^\"]*)\"", page)[1].replace("&#34;", '"').replace("&#39;", "'")
    )


@pytest.mark.parametrize("name", FOLDED)
def test_every_structure_has_its_view_its_pictures_and_what_its_script_needs(app, client, name):
    book_id = stored(app, name)
    answer = client.get(f"/books/{book_id}/folding")
    plan = make_plan(recipe(name).book())
    made = plan.binding.made if name in HINGED else plan.pages.made
    if not made.programme.closing:
        assert (answer.status_code, name) == (302, "pocketpages")
        return
    page = answer.get_data(as_text=True)
    assert answer.status_code == 200
    data = data_of(page)
    states = len(data["groups"]) + 1
    assert len(re.findall(r"<figure", page)) == states + 1, "a picture of every state, and the cut"
    assert all(len(node["lifts"]) == states for node in data["nodes"])
    assert [node["parent"] for node in data["nodes"]].count(-1) == 1
    assert all(0 <= group < states - 1 for node in data["nodes"] for group, _ in node["turns"])
    assert len(json.dumps(data)) < 60_000
    assert client.get("/books/999/folding").status_code == 404
    workspace = client.get(f"/books/{book_id}?open=pages").get_data(as_text=True)
    assert f'href="/books/{book_id}/folding?of=' in workspace


def test_what_has_no_folds_leads_back_to_the_book(app, client):
    for name in ("journal", "pocketpages"):
        answer = client.get(f"/books/{stored(app, name)}/folding")
        assert answer.status_code == 302
    assert client.get(f"/books/{stored(app, 'journal')}/folding/ways").status_code == 404
    leaf = client.get(f"/books/{stored(app, 'connectors')}/folding?of=pages").get_data(as_text=True)
    assert [one["name"] for one in data_of(leaf)["groups"]] == ["flip"]
    whole = client.get(f"/books/{stored(app, 'connectors')}/folding?of=nonsense").get_data(as_text=True)
    assert data_of(whole)["opens"]


def test_an_album_of_many_leaves_shows_some_of_them_and_says_so(app, client):
    page = client.get(f"/books/{stored(app, 'hills', ('pages.amount', 60))}/folding").get_data(as_text=True)
    assert len(data_of(page)["groups"]) == 1 + MOST_DRAWN
    assert f"{MOST_DRAWN} of the 60 leaves are shown" in page
    assert len(page) < 500_000
    fewer = client.get(f"/books/{stored(app, 'hills', ('pages.amount', MOST_DRAWN))}/folding").get_data(
        as_text=True
    )
    assert len(data_of(fewer)["groups"]) == 1 + MOST_DRAWN
    assert "leaves are shown" not in fewer


def show(desk: Page, book_id: int, path: str = "/folding") -> None:
    desk.goto(f"/books/{book_id}{path}")


def test_a_flap_is_tapped_open_and_one_that_is_covered_says_what_lies_over_it(shelf, desk):
    desk.emulate_media(reduced_motion="reduce")  # how it moves is another test's
    show(desk, shelf.stored("crossfold"))
    says, group = desk.locator("#moving-says"), desk.locator("[data-group]")
    expect(says).to_have_text("open")
    group.nth(0).click()
    expect(says).to_have_text("tail shut")
    group.nth(2).click()
    expect(says).to_have_text("left shut")
    group.nth(0).click()
    expect(says).to_have_text("left lies over tail: open that first")
    group.nth(1).click()
    expect(says).to_have_text("left is shut already, and head goes under it: open that first")
    group.nth(2).click()
    expect(says).to_have_text("left open")
    group.nth(0).click()
    expect(says).to_have_text("tail open")
    desk.locator("#moving-play").click()
    expect(says).to_have_text("right shut: all is shut")
    expect(group.nth(3)).to_have_attribute("aria-pressed", "true")


def test_a_panel_is_tapped_on_the_picture_itself(shelf, desk):
    show(desk, shelf.stored("folder"))
    expect(desk.locator("#moving-says")).to_have_text("open")
    for panel, said in (("back", "this panel lies still"), ("front", "front shut")):
        x, y = desk.evaluate(
            f"() => {{ const one = {SCENE}, node = one.data.nodes.findIndex(node => node.name === '{panel}');"
            " const corners = one.scene.shown.findLast(each => each.node === node).points; return [0, "
            "1].map(axis => corners.reduce((sum, p) => sum + p[axis], 0) / corners.length); }"
        )
        desk.locator(".folding-stage").click(position={"x": x, "y": y})
        expect(desk.locator("#moving-says")).to_have_text(said)
    desk.locator(".folding-stage").click(position={"x": 2, "y": 2})
    expect(desk.locator("#moving-says")).to_have_text("front shut")


@pytest.mark.every(2)
@pytest.mark.parametrize(
    "name",
    ["folder", "crossfold", "bagfolio", "nested", "concertina", "hills", "connectors", "zigzag", "free"],
)
def test_the_script_turns_panels_as_the_states_have_them(shelf, desk, name):
    """In each whole state every panel lies where the kernel has it, but for the lifts that keep layers apart:
    nothing drifts, nothing is mirrored. On the whole way all of it is on the stage."""
    show(desk, shelf.stored(name))
    worked = made_of(make_plan(recipe(name).book()))[1].worked
    lies = desk.evaluate(
        f"() => {{ const one = {SCENE}; return one.data.groups.map((_, n) => "
        "n).concat(one.data.groups.length)"
        ".map(state => { one.set(state * 100); return one.scene.world.map(pose => [...pose]); }); }"
    )
    nodes, base = tree(worked), worked.states[0].poses[tree(worked)[0].key]
    assert len(lies) == len(worked.states)
    for state, poses in zip(worked.states, lies, strict=True):
        for node, pose in zip(nodes, poses, strict=True):
            if node.parent >= 0 and not node.key[0].startswith("on "):
                lifted = LIFT_MM * 2 * len(nodes)
                meant = base.back.after(state.poses[node.key])
                assert pose[:9] == pytest.approx([*meant.x, *meant.y, *meant.z], abs=1e-3), (
                    state.name,
                    node.key,
                )
                assert math.dist(pose[9:], meant.at) < lifted, (state.name, node.key)
    left, top, right, bottom, width, height = desk.evaluate(
        f"() => {{ const one = {SCENE}, at = [[], []]; for (let n = 0; n <= 60; n++) {{ one.set(one.most * n "
        "/ 60);"
        " one.scene.shown.forEach(each => each.points.forEach(p => { at[0].push(p[0]); at[1].push(p[1]); "
        "})); }"
        " const { clientWidth, clientHeight } = document.querySelector('.folding-stage');"
        " return [Math.min(...at[0]), Math.min(...at[1]), Math.max(...at[0]), Math.max(...at[1]), "
        "clientWidth, clientHeight]; }"
    )
    assert min(left, top, width - right, height - bottom) >= 0
    assert right - left > 0.8 * width or bottom - top > 0.8 * height


@pytest.mark.parametrize("name", some(["crossfold", "concertina", "hills"], 2))
def test_the_view_moves_by_itself_and_stops(shelf, desk, name):
    """How many pictures a second it shows is measured by ``benchmarks.run moving``."""
    show(desk, shelf.stored(name))
    expect(desk.locator("#moving-says")).to_have_text(re.compile("open|shut"))
    frames = desk.evaluate(
        f"() => new Promise(done => {{ const one = {SCENE}; const before = one.frames; one.toggle();"
        " setTimeout(() => { one.playing = false; done(one.frames - before); }, 1000); })"
    )
    assert frames >= 2
    desk.wait_for_timeout(200)
    now = desk.evaluate(f"{SCENE}.frames")
    desk.wait_for_timeout(300)
    assert desk.evaluate(f"{SCENE}.frames") == now, "stopped"
    dots = (
        "() => [...document.querySelector('.folding-stage').getContext('2d').getImageData(0, 0, 1088, "
        "400).data].reduce((sum, one) => sum + one, 0)"
    )
    light = desk.evaluate(dots)
    desk.get_by_role("button", name="dark").click()
    assert desk.evaluate(dots) < light


@pytest.mark.every(2)
@pytest.mark.parametrize("seed", range(6))
def test_of_faces_that_lie_anyhow_the_nearest_is_painted_last(shelf, desk, seed):
    """Faces through each other and on each other: at any place of the picture what was painted last there is
    what a ray from the eye meets first; a face that is cut keeps its area."""
    show(desk, shelf.stored("folder"))
    chance, eye, faces = random.Random(seed), (0.0, 0.0, 900.0), []
    for number in range(14):
        spin, leans = (chance.choice((0.0, 90.0, chance.uniform(0, 360))) for _ in range(2))
        pose = folded(
            (0.0, 0.0), (math.cos(math.radians(spin)), math.sin(math.radians(spin))), (1.0, 1.0), leans
        )
        pose = pose._replace(at=(chance.uniform(-60, 60), chance.uniform(-60, 60), chance.uniform(-60, 60)))
        corners = rectangle(-40, -30, chance.uniform(20, 110), chance.uniform(20, 110))
        points = [pose.place((x, y, 0.0)) for x, y in corners]
        faces.append({"node": number, "points": points, "normal": pose.z, "real": [True] * 4})
    painted = in_script(desk, "solid", "(faces, eye) => m.ordered(faces, eye)", faces, eye)
    for number, face in enumerate(faces):
        parts = [np.array(one["points"]) for one in painted if one["node"] == number]
        assert sum(_area(part) for part in parts) == pytest.approx(_area(np.array(face["points"])), rel=1e-2)
    towards = np.array([(chance.uniform(-0.12, 0.12), chance.uniform(-0.12, 0.12), -1.0) for _ in range(400)])
    met, seen = (
        np.array([_met(one, np.array(eye), towards) for one in several]) for several in (faces, painted)
    )
    looked = 0
    for ray in range(len(towards)):
        near = np.argsort(met[:, ray])
        if np.isinf(met[near[0], ray]) or met[near[1], ray] - met[near[0], ray] < 0.5:
            continue
        looked += 1
        assert painted[np.flatnonzero(np.isfinite(seen[:, ray]))[-1]]["node"] == near[0]
    assert looked > 100


def _area(points):
    """Of a flat convex polygon in space."""
    return (
        sum(
            np.linalg.norm(np.cross(points[n] - points[0], points[n + 1] - points[0]))
            for n in range(1, len(points) - 1)
        )
        / 2
    )


def _met(face, eye, towards):
    """How far along each ray a face is met; endless where it passes, or so near an edge that it is
    nobody's."""
    points, normal = np.array(face["points"]), np.array(face["normal"])
    slant = towards @ normal
    with np.errstate(divide="ignore", invalid="ignore"):
        far = normal @ (points[0] - eye) / slant
        at = eye + far[:, None] * towards
        sides = np.array(
            [
                np.cross(points[(n + 1) % len(points)] - points[n], at - points[n]) @ normal
                for n in range(len(points))
            ]
        )
    on = (sides > 1e-6).all(axis=0) | (sides < -1e-6).all(axis=0)
    return np.where(on & (abs(slant) >= 1e-3), far, np.inf)


def test_where_nothing_may_move_the_states_follow_at_once(shelf, page):
    page.emulate_media(reduced_motion="reduce")
    page.goto(f"/books/{shelf.stored('nested')}/folding")
    page.locator("#moving-play").click()
    expect(page.locator("#moving-says")).to_contain_text("all is shut")


def test_orders_of_shutting_are_compared_and_one_is_taken(shelf, desk):
    book_id = shelf.stored("crossfold")
    show(desk, book_id, "?open=pages")
    desk.get_by_text("other orders of shutting: 23").click()
    table = desk.locator("#drawer-orders table")
    expect(table.locator("tr")).to_have_count(24)
    expect(table).to_contain_text("as it is")
    row = table.locator("tr", has_text="shut left, right, tail and head")
    expect(row).to_contain_text("fullest gusset")
    row.get_by_role("button").click()
    expect(desk.locator("#body-pages")).to_contain_text("head gusset")
    for _ in range(40):
        if shelf.now(book_id).pages.order[0] == "left":
            break
        desk.wait_for_timeout(100)
    assert shelf.now(book_id).pages.order == ("left", "right", "tail", "head")


def test_a_gusset_that_is_typed_too_small_is_told_and_mended_beside_the_drawing(shelf, desk):
    book_id = shelf.stored("crossfold")
    show(desk, book_id, "?open=pages")
    body = desk.locator("#body-pages")
    typed(desk, "pages.right_gusset_mm", "1")
    check = body.locator("[data-check=F8]")
    expect(check).to_contain_text("too small")
    check.get_by_role("button", name="right gusset 5 mm").click()
    expect(body.locator("[data-check=F8]")).to_have_count(0)
    typed(desk, "pages.left_mm", "nonsense")
    expect(body).to_contain_text("not a length I can read")
    expect(body.locator("#i-pages-left-mm")).to_have_value("nonsense")
    assert shelf.now(book_id).pages.left_mm is None


def test_a_free_folio_is_drawn_scored_flapped_cut_and_shut(shelf, desk):
    """From two panels and a gusset: a flap at the tail, folded over last; a score dragged by keys and typed;
    everything undone."""
    book_id = shelf.stored("free")
    show(desk, book_id, "?open=pages")
    body = desk.locator("#body-pages")
    body.get_by_role("button", name="add a flap at the tail").click()
    expect(body).to_contain_text("213 × 188")
    body.get_by_role("button", name="fold tail flap over back").click()
    expect(body.get_by_role("button", name="fold tail flap to the outside")).to_be_visible()
    grip = body.locator("[role=slider]").first
    grip.focus()
    grip.press("ArrowRight")
    grip.press("ArrowRight")
    expect(body).to_contain_text("106, 108")
    typed(desk, "pages.score.0.x.2", "110")
    expect(body).to_contain_text("106, 110")
    book = shelf.now(book_id)
    assert [group.name for group in book.pages.groups] == ["front", "tail flap"]
    assert book.pages.sheets[0].widths_mm == (106.0, 4.0, 103.0)
    typed(desk, "pages.score.0.x.2", "far too much")
    expect(body).to_contain_text("not a length I can read")
    desk.locator("#strip-book").click()
    steps = 0
    while shelf.now(book_id).pages != recipe("free").book().pages:
        version = desk.locator("#state [name=version]").input_value()
        desk.get_by_role("button", name="undo").first.click()
        expect(desk.locator("#state [name=version]")).not_to_have_value(version)
        steps += 1
    assert steps in (4, 5), "arrows pressed close together are one step or two"


def test_any_structure_is_made_free_and_comes_back(shelf, desk):
    book_id = shelf.stored("folder")
    show(desk, book_id, "?open=pages")
    desk.locator("#body-pages").get_by_role("button", name="make it free").click()
    expect(desk.locator("#body-pages")).to_contain_text("free folio")
    book = shelf.now(book_id)
    assert book.pages.kind == "free"
    assert book.aside["pages"]["folder"]["pockets"] == "both"
    assert make_plan(book).pages.made.thick.likely == pytest.approx(
        make_plan(recipe("folder").book()).pages.made.thick.likely
    )


def test_a_folio_is_begun_without_a_number_of_pages(desk):
    """At the start the question for pages is left out where there is nothing to count; the paper chosen is
    what it is folded from."""
    desk.goto("/new")
    desk.locator("[name=recipe][value=crossfold]").check(force=True)
    expect(desk.locator("[name=count]")).to_be_hidden()
    desk.locator("[name=size]").fill("100 × 150")
    desk.locator("[name=title]").fill("Six nights")
    desk.get_by_role("button", name="work it out").click()
    expect(desk.locator("#strip-book")).to_have_attribute("aria-expanded", "true")
    desk.locator("#strip-pages").click()
    expect(desk.locator("#body-pages")).to_contain_text("5 panels")


def test_papers_of_a_pad_are_given_with_one_tap(shelf, desk):
    book_id = shelf.stored("crossfold", ("paper.mat.designs", 4), ("paper.mat.each", 6))
    show(desk, book_id, "?open=pages")
    body = desk.locator("#body-pages")
    body.get_by_role("button", name="give all 10 faces their papers").click()
    expect(body).to_contain_text("papers from the pad")
    assert len(shelf.now(book_id).pages.given) == 10
    body.get_by_role("button", name="take the papers back").click()
    expect(body).not_to_contain_text("papers from the pad")


@pytest.mark.parametrize(
    "wrong",
    [
        "score.0.x.0",
        "score.9.x.1",
        "score.0.z.1",
        "size.0.x.99",
        "score.0.x.1.2",
        "score.0.x.-1",
        "size.0.y.x",
    ],
)
def test_a_score_that_is_not_there_is_told_and_changes_nothing(app, client, wrong):
    book_id = stored(app, "free")
    page = client.get(f"/books/{book_id}").get_data(as_text=True)
    version = re.search(r'name="version" value="(\d+)"', page)[1]
    answer = client.post(
        f"/books/{book_id}/edit",
        data={"path": f"pages.{wrong}", "value": "50", "version": version, "window": "w"},
        headers={"HX-Request": "true"},
    )
    assert answer.status_code == 422
    assert held_now(app, book_id) == recipe("free").book()
