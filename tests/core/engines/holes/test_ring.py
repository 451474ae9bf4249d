"""The four limits of a ring against a stack of rigid pages that is put on it and turned round it in small
steps."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.engines.holes.ring import NOTHING, Ring
from pleat.core.engines.holes.turning import frames, shut
from tests.profiles import LONG, some

WITHIN_MM = 0.2
"""Two sheets of 0.1 mm."""
GRID = [
    Ring(radius, wire, hole, inset)
    for radius in (6.0, 8.0, 12.5, 19.0)
    for wire, hole in ((1.0, 4.0), (2.0, 5.0), (2.8, 6.0), (3.0, 5.0))
    for inset in (6.0, 9.0, 12.0, 16.0)
    if Ring(radius, wire, hole, inset).passes
]
PAGE = 60.0


def span(ring, height):
    """Where the wire crosses a page at a height: (inner edge, outer edge), or None where the page misses the
    inside."""
    if abs(height) >= ring.radius:
        return None
    return math.sqrt(ring.radius**2 - height**2), math.sqrt((ring.radius + ring.wire) ** 2 - height**2)


def slides(ring, height):
    """Where the hole of a page at a height may begin: (least, most), or None."""
    wire = span(ring, height)
    if wire is None:
        return None
    low, high = max(wire[1] - ring.hole, ring.bridge - wire[0]), wire[0]
    return (low, high) if low <= high + 1e-9 else None


def heights(ring):
    return np.arange(-ring.radius, ring.radius, 0.01)


def test_parallel_is_all_heights_at_which_a_page_lies():
    for ring in GRID:
        can = [at for at in heights(ring) if slides(ring, at)]
        assert max(can) - min(can) == pytest.approx(ring.limits.parallel, abs=0.05), ring


def test_square_is_the_thickest_stack_with_all_its_holes_in_line():
    for ring in GRID:
        ways = [slides(ring, at) or (1e9, -1e9) for at in heights(ring)[::4]]
        low, high = np.array(ways).T
        best = 0
        for start in np.arange(0, ring.radius, 0.05):
            fits = np.concatenate([[0], (low - 1e-9 <= start) & (start <= high + 1e-9), [0]])
            begins, ends = np.flatnonzero(np.diff(fits) == 1), np.flatnonzero(np.diff(fits) == -1)
            best = max(best, int((ends - begins).max(initial=0)))
        assert max(best - 1, 0) * 0.04 == pytest.approx(ring.limits.square, abs=WITHIN_MM), ring


def test_flat_is_the_thickest_stack_that_lies_flat_opened_anywhere():
    """Both parts rest on the table; where pages of both lie at one height their bridges must not run into
    each other."""
    for ring in GRID:
        alone = [at for at in heights(ring) if slides(ring, at)]
        both = [at for at in alone if span(ring, at)[0] >= ring.bridge]
        best = None
        for share in np.linspace(0.002, 0.5, 30):  # the thinner part's share of the stack
            most = 0.0
            if both:
                base = min(both)
                together, over = max(both) - base, max(alone) - base
                most = min(together / share, over / (1 - share))
            best = most if best is None else min(best, most)
        assert best == pytest.approx(ring.limits.flat, abs=WITHIN_MM), ring


class Turner:
    """The upper part of a stack turned over the lower one, as one, at every angle and wherever it finds
    room."""

    def __init__(self, ring, stack, share, apart=0.12):
        self.ring, self.thick = ring, stack * share
        most = ring.height(ring.reach)
        self.top = -most + stack - self.thick
        self.lying = np.linspace(-most, self.top, max(2, int((stack - self.thick) / apart)))
        self.lying = self.lying[np.abs(self.lying) < ring.radius]
        self.begins = np.sqrt(ring.radius**2 - self.lying**2)

    def crosses(self, x0, y0, x1, y1):
        """Whether a straight piece runs through a page that lies: through its bridge inside the ring, or
        through its page beyond."""
        rise = np.where(np.abs(y1 - y0) < 1e-9, 1e-9, y1 - y0)
        at = (self.lying - y0[..., None]) / rise[..., None]
        x = x0[..., None] + at * (x1 - x0)[..., None]
        on = (at > 1e-6) & (at < 1 - 1e-6)
        bridge = (x > self.begins - self.ring.bridge + 1e-6) & (x < self.begins - 1e-6)
        page = x > self.begins + self.ring.hole + 1e-6
        return (on & (bridge | page)).any(axis=-1)

    def fits(self, angle):
        ring = self.ring
        step = min(0.1, ring.radius / 60)
        offsets = np.arange(-ring.radius + 1e-6, ring.radius, step)
        q, outer = np.sqrt(ring.radius**2 - offsets**2), np.sqrt((ring.radius + ring.wire) ** 2 - offsets**2)
        low, high = np.maximum(outer - ring.hole, ring.bridge - q), q
        can = low <= high + 1e-9
        holes = low[:, None] + (high - low)[:, None] * np.linspace(0, 1, 9)[None, :]
        cos, sin, off = math.cos(angle), math.sin(angle), offsets[:, None]
        ends = [
            (-off * sin + at * cos, off * cos + at * sin)
            for at in (holes - ring.bridge, holes, holes + ring.hole, holes + ring.hole + PAGE)
        ]
        clear = ~self.crosses(*ends[0], *ends[1]) & ~self.crosses(*ends[2], *ends[3])
        good = can & clear.any(axis=1)
        longest = run = 0
        for one in good:
            run = run + 1 if one else 0
            longest = max(longest, run)
        return longest >= max(1, math.floor(self.thick / step))


def binds(ring, stack, degrees, shares=(0.0, 0.25, 0.5), apart=0.12):
    """The angles at which some part of a stack does not go over the rest, looked at every so many degrees;
    sheets so far apart."""
    for share in shares:
        turner = Turner(ring, stack, share, apart)
        angles = sorted(
            np.arange(0, 180.01, degrees), key=lambda angle: abs(angle - 135)
        )  # where it binds is found soonest from there
        yield from (angle for angle in angles if not turner.fits(math.radians(angle)))


TURNED = [one for one in GRID if one.radius < 15]
HEAVY = (12.5, 2.8)
"""Radius and wire of which each takes as long as eight others: all of them are left to the long run."""


@pytest.mark.every(2)
@pytest.mark.parametrize(
    "ring", some([one for one in TURNED if LONG or (one.radius, one.wire) != HEAVY], 4), ids=str
)
def test_turning_is_the_thickest_stack_of_which_any_part_goes_over_the_rest(ring):
    limit = ring.limits.turns
    if limit > WITHIN_MM:
        assert not list(binds(ring, limit - WITHIN_MM, 6.0))
    if ring.limits.parallel > limit + 2 * WITHIN_MM and (ring.bridge <= ring.radius or limit):
        if (
            ring.bridge > ring.radius
        ):  # a page that hangs beside the others has to rise over them within a degree or two
            found = binds(ring, limit + WITHIN_MM, 0.5, (0.0,), apart=0.03)
        else:
            found = binds(ring, limit + WITHIN_MM, 2.0)
        assert next(found, None) is not None


@given(st.floats(5, 40), st.floats(0.8, 4), st.floats(3, 9), st.floats(4, 20))
def test_no_limit_is_beyond_what_lies_parallel_and_a_wider_hole_takes_no_less(radius, wire, hole, inset):
    ring = Ring(radius, wire, hole, inset)
    limits = ring.limits
    if not ring.passes:
        assert limits == NOTHING
        return
    assert 0 <= limits.square <= limits.parallel + 1e-9
    assert 0 <= limits.turns <= limits.parallel + 1e-9
    assert limits.flat <= limits.parallel + 1e-9
    larger = Ring(radius + 1, wire, hole, inset)
    assert (
        not larger.passes
        or larger.bridge / 2 < larger.reach
        or larger.limits.parallel >= limits.parallel - 1e-9
    )


def test_a_larger_ring_of_thicker_wire_may_hold_less():
    assert Ring(12.5, 2.0, 4.0, 10.0).limits.works > Ring(14.0, 3.5, 4.0, 10.0).limits.works


@pytest.mark.every(2)
@pytest.mark.parametrize("ring", [one for one in GRID if one.limits.turns > 2][::3], ids=str)
def test_the_moving_view_binds_nowhere_within_the_limit_and_shows_true_places(ring):
    stack = 0.9 * ring.limits.turns
    for share in (0.5, 0.1):
        shown = frames(ring, stack * (1 - share), stack * share)
        assert not [one.angle for one in shown if one.binds], ring
        for one in shown:
            for height, hole in (*one.stays, *one.turns):
                low, high = slides(ring, math.copysign(max(abs(height) - 0.02, 0.0), height))
                assert low - 0.1 <= hole <= high + 0.1
            thick = one.turns[-1][0] - one.turns[0][0]
            assert thick == pytest.approx(stack * share, abs=0.02)
    over = frames(ring, ring.limits.parallel * 0.55, ring.limits.parallel * 0.55)
    assert any(one.binds for one in over)
    assert len(shut(ring, stack)) == len(shown[0].stays)
    with pytest.raises(ValueError, match="no sheet"):
        frames(Ring(5.0, 5.0, 4.0, 8.0), 1.0, 1.0)
