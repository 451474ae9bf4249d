"""The parts of the page's scripts that work something out, each against something that is not itself."""

from __future__ import annotations

import math
import random

import numpy as np
import pytest
from playwright.sync_api import Page
from shapely import Point, Polygon

from pleat.core.base.units import RULERS, RulerName
from tests.web.conftest import in_script


@pytest.fixture
def start(desk: Page) -> Page:
    desk.goto("/")
    return desk


@pytest.mark.parametrize("ruler", RULERS)
def test_a_length_that_is_dragged_reads_as_the_core_writes_it(start: Page, ruler: RulerName):
    lengths = [step * RULERS[ruler].step_mm for step in range(200)]
    shown = in_script(start, "ruler", "(all, ruler) => all.map((mm) => m.onRuler(mm, ruler))", lengths, ruler)
    assert shown == [RULERS[ruler].number(mm) for mm in lengths]


def test_what_is_dragged_is_caught_by_edges_middle_and_neighbours_and_else_lies_on_a_mark(start: Page):
    """A thing of 40 mm on a face of 150 mm, beside one from 60 to 80 mm."""
    places = [mm / 4 for mm in range(0, 440)]
    got = in_script(
        start, "snapping", "(all) => all.map((mm) => m.caught(mm, 40, 150, [[60, 80]], 0.5))", places
    )
    caught = [0, 6, 55, 104, 110, 60, 80, 20, 40]
    for mm, to in zip(places, got, strict=True):
        nearest = min(abs(mm - one) for one in caught)
        if nearest < 2.5:
            assert abs(mm - to) == pytest.approx(nearest)
        else:
            assert to * 2 == round(to * 2)
            assert abs(mm - to) <= 0.25
    assert in_script(start, "snapping", "(...all) => m.onMark(...all)", 17.3, 0.5, 5, 15) == 15


def test_poses_are_those_of_matrices(start: Page):
    """Turned about a line and carried on, as 4 x 4 matrices multiply."""
    chance = random.Random(5)
    for _ in range(12):
        (ax, ay), (bx, by), angle = (
            (chance.uniform(-9, 9), chance.uniform(-9, 9)),
            (chance.uniform(10, 20), chance.uniform(-9, 9)),
            chance.uniform(-180, 180),
        )
        pose = in_script(
            start,
            "poses",
            "(line, degrees) => m.after(m.about(line, degrees), m.shifted(m.HERE, [3, 4, 5]))",
            [[ax, ay], [bx, by]],
            angle,
        )
        axis = np.array([bx - ax, by - ay, 0.0]) / math.hypot(bx - ax, by - ay)
        cross = np.array([[0, -axis[2], axis[1]], [axis[2], 0, -axis[0]], [-axis[1], axis[0], 0]])
        turn = math.radians(angle)
        rotation = np.eye(3) + math.sin(turn) * cross + (1 - math.cos(turn)) * cross @ cross  # Rodrigues
        at = np.array([ax, ay, 0.0])
        assert pytest.approx(rotation, abs=1e-9) == np.array(pose[:9]).reshape(3, 3).T
        assert pose[9:] == pytest.approx(list(rotation @ (np.array([3.0, 4.0, 5.0]) - at) + at), abs=1e-9)


def test_a_tap_is_in_a_panel_where_geometry_says_so(start: Page):
    chance = random.Random(7)
    corners = [(0, 0), (90, 10), (120, 70), (40, 50), (10, 90)]
    taps = [(chance.uniform(-10, 130), chance.uniform(-10, 100)) for _ in range(300)]
    inside = in_script(
        start, "solid", "(corners, taps) => taps.map(([x, y]) => m.holds(corners, x, y))", corners, taps
    )
    assert inside == [Polygon(corners).contains(Point(tap)) for tap in taps]


def test_a_thing_is_found_by_the_beginnings_of_its_words(start: Page):
    """The words of a thing begin with a space each."""
    asked = ["obs", "jou obs", "ournal", "", "moon", "OBS"]
    found = in_script(
        start, "words", "(all) => all.map((text) => m.found(' observing journal', text))", asked
    )
    assert found == [True, True, False, True, False, True]


@pytest.mark.parametrize(("calm", "least"), [(False, 5), (True, 1)])
def test_what_moves_goes_from_nothing_to_all_and_is_there_at_once_for_who_wants_no_motion(
    start: Page, calm: bool, least: int
):
    work = """(calm) => new Promise((done) => {
      const view = { calm, playing: false }, shares = [];
      m.play(view, 0.3, (share) => {
        shares.push(share);
        if (share === 1) setTimeout(() => done([shares, view.playing]), 50);
      });
    })"""
    shares, playing = in_script(start, "motion", work, calm)
    assert shares == sorted(shares)
    assert (shares[-1], playing) == (1, False)
    assert len(shares) >= least if not calm else len(shares) == 1
