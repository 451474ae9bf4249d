"""How much thread: against a line in space that is measured point by point, and against each other over
sizes."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.engines.sewing.lengths import measured
from pleat.core.engines.sewing.moves import Sewing
from pleat.core.engines.sewing.patterns import along, through
from pleat.core.engines.sewing.swell import largest, of_strands, profile
from pleat.core.engines.sewing.walk import walk
from pleat.core.pleats.binding.record import Thread
from pleat.core.pleats.binding.thread import Use, diameter_mm, needle_for, suits, tex, thread_need
from pleat.core.trade.sewing import LONGEST_THREAD_MM
from tests.core.engines.sewing.patterns import bed, small

THREAD_MM = 0.6


ROUND_MM = {"cord": 3.0, "stick": 5.0}
"""What patterns are tried on, as thick as it is there."""


def points(sewing):
    """The thread as points (along, across, up) in mm: the outside at 0, the inside of a fold below it by what
    the needle passes."""
    bed_ = sewing.bed
    middles = [
        sum(row.thick_mm for row in bed_.rows[:number]) + row.thick_mm / 2
        for number, row in enumerate(bed_.rows)
    ]

    def at(row, place, side):
        deep = 0.0 if side == "outside" else -(bed_.rows[row - 1].fold_mm + bed_.rows[row - 1].cover_mm)
        return bed_.places_mm[place], middles[row - 1], deep

    def ring(middle, radius):
        return [
            (
                middle[0] + radius * math.sin(t / 360 * math.pi),
                middle[1],
                middle[2] + radius * (1 - math.cos(t / 360 * math.pi)),
            )
            for t in range(721)
        ]

    for thread in sewing.threads:
        line, here = [], None
        for move in thread:
            if move.do == "catch":
                own, far = at(here.row, here.at, here.side), at(move.row, move.at, here.side)
                line += [own, (own[0], far[1], far[2]), *ring((own[0], far[1], far[2]), THREAD_MM / 2), own]
                continue
            before = at(move.row, move.at, here.side) if here else at(move.row, move.at, move.side)
            tape = [
                one
                for one in bed_.supports
                if here
                and one.kind == "tape"
                and here.side == "outside"
                and min(here.at, move.at) < one.at < max(here.at, move.at)
                and here.row == move.row
            ]
            if tape:
                low, high = at(here.row, here.at, "outside"), at(move.row, move.at, "outside")
                line += [(low[0], low[1], tape[0].thick_mm), (high[0], high[1], tape[0].thick_mm)]
            line.append(before)
            if move.do == "wrap" and move.what in ROUND_MM:
                line += [*ring(before, (ROUND_MM[move.what] + THREAD_MM) / 2), before]
            if move.do == "wrap" and move.what == "board":
                x, y, z = before
                up = (
                    y - sewing.bed.rows[here.row - 1].thick_mm / 2
                )  # the board lies on its section, whose fold is in the middle
                line += [
                    (x, up - 2, z),
                    (x, up - 2, z - 8),
                    (x, up, z - 8),
                    (x, up, z),
                    before,
                    *ring(before, THREAD_MM / 2),
                ]
            line.append(at(move.row, move.at, move.side))
            here = move
        yield line


@pytest.mark.parametrize(("name", "sewing"), [*small()], ids=lambda one: one if isinstance(one, str) else "")
def test_a_thread_is_as_long_as_its_line_in_space(name, sewing):
    drawn = sum(math.dist(a, b) for line in points(sewing) for a, b in itertools.pairwise(line))
    if "two-on" in name:
        return  # its slanted stitches go over a tape and up at once; their tapes are left out of the sum
    run = sum(measured(walk(sewing.threads), sewing.bed, THREAD_MM))
    assert run == pytest.approx(drawn, rel=0.002)


def test_common_practice_three_and_five_stations_by_hand():
    """1.5, 4.125, 6.75 in: 10.5 in of path; 40, 105, 170: 65 + 130 + 65, and four passages of 1.8 mm."""
    sewing = Sewing(
        bed(1, 3, 0.3, height=260),
        (through.straight_past(3, "inside"),),
        through.straight_past_promise(3, True),
    )
    need = thread_need(sewing, walk(sewing.threads), Use(THREAD_MM, 90))
    assert (need.run.spans_mm, need.run.passages_mm) == (pytest.approx(65 + 130 + 65), pytest.approx(4 * 1.8))
    assert need.total_mm == pytest.approx((260 + 7.2 + 180) * 1.07)
    assert need.shortest_mm == pytest.approx(260 + 7.2 + 150)
    assert thread_need(sewing, walk(sewing.threads), Use(THREAD_MM, 90, 2)).total_mm == pytest.approx(
        2 * need.total_mm
    )
    assert need.run.spans_mm <= 2 * (195 - 65), "at most twice the distance between the outermost stations"


@given(st.integers(2, 20), st.integers(2, 7), st.floats(100, 400), st.floats(1.01, 1.5))
def test_the_mirrored_path_is_equally_long_and_length_grows_with_height(rows, stations, height, more):
    def run(height, mirrored=False):
        sewing = Sewing(
            bed(rows, stations, height=height),
            (along.link(rows, stations, False),),
            through.loop_promise(False),
        )
        return sum(measured(walk((sewing.mirrored if mirrored else sewing).threads), sewing.bed, THREAD_MM))

    assert run(height, mirrored=True) == pytest.approx(run(height))
    assert run(height * more) > run(height)


@pytest.mark.parametrize(("rows", "stations"), [(3, 4), (8, 4), (20, 5), (40, 9), (60, 13)])
def test_a_long_thread_is_cut_into_few_even_lengths_knotted_on_inside(rows, stations):
    thread = along.link(rows, stations, False)
    sewing = Sewing(bed(rows, stations, height=210), (thread,), through.loop_promise(False))
    need = thread_need(sewing, walk(sewing.threads), Use(THREAD_MM, 90))
    assert all(piece <= LONGEST_THREAD_MM + 1e-6 for piece in need.pieces_mm)
    assert sum(need.pieces_mm) == pytest.approx(need.total_mm)
    assert len(need.pieces_mm) <= need.total_mm / (LONGEST_THREAD_MM - 260) + 1
    assert max(need.pieces_mm) - min(need.pieces_mm) < 2 * 210, "even but for where the holes are"
    assert all(thread[step].do == "pass" and thread[step].side == "inside" for step in need.knots_on)


def test_swell_counts_the_thread_inside_gap_by_gap():
    """Half a diameter a section, of two strands the second half as much again, none where only the outside
    has thread (house rules)."""
    one = of_strands(1, 0.6)
    assert (one.low, one.likely, one.high) == (pytest.approx(0.18), pytest.approx(0.33), pytest.approx(0.48))
    assert of_strands(2, 0.6).likely == pytest.approx(1.5 * 0.33)
    sewing = dict(small())["tapes 5 x 6"]
    gaps = profile(walk(sewing.threads), sewing.bed, 0.6, 1)
    assert [gap.likely for gap in gaps] == pytest.approx([5 * 0.33, 0, 5 * 0.33, 0, 5 * 0.33]), (
        "none under the tapes"
    )
    assert largest(gaps).likely == pytest.approx(1.65)
    two = dict(small())["two-on 6 x 8"]
    paired = profile(walk(two.threads), two.bed, 0.6, 1)
    assert paired[2].likely == pytest.approx(5 * 0.33), "a pair swells as much as one"


def test_lea_and_tex():
    """1 lea = 300 yd per lb: 453.59237 g / (300 x 0.9144 m) = 1.6535 g/m. 18/3 comes to about 0.6 mm."""
    assert tex(Thread(lea=4, plies=4)) == pytest.approx(453.59237 / (300 * 0.9144) * 1000, rel=1e-4)
    assert diameter_mm(Thread(lea=18, plies=3)) == pytest.approx(0.62, abs=0.01)
    assert diameter_mm(Thread(lea=18, plies=12)) == pytest.approx(2 * diameter_mm(Thread(lea=18, plies=3)))
    assert needle_for(0.3) != needle_for(0.9)
    assert "thick" in suits(1.2, 0.3)
    assert "thin" in suits(0.2, 3.0)
    assert suits(0.6, 1.6) == ""
