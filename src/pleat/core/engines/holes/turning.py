"""Leaves turned round a ring, from shut to folded right round: where each part lies at every angle, and where
it binds.

Seen from the end of the book. The part that stays lies to the right, its sheets level; the other part turns
over it as one. A sheet is a line: a bridge of paper inside the ring, the hole over the wire, and the page
beyond it. From flat open to right round is the same the other way up.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from pleat.core.engines.holes.ring import Ring

STEP: Final = 4
"""Degrees between two frames."""
SHEETS: Final = 9
"""Lines that a part is shown by; also what it is tried with."""
SLIDES: Final = 7
FINE: Final = 40
"""Places tried in a radius."""
AT_ONCE: Final = 10
"""Places tried together, the nearest first."""
PAGE_MM: Final = 60.0
"""How much of a page is looked at for what it would run into."""
_TOUCH: Final = 1e-6
Array = NDArray[np.float64]


@dataclass(frozen=True)
class Frame:
    """A moment: the angle in degrees, the heights of the sheets that stay with where their holes begin, the
    offsets of those that turn with where theirs do, in mm; whether it binds there."""

    angle: int
    stays: tuple[tuple[float, float], ...]
    turns: tuple[tuple[float, float], ...]
    binds: bool


@dataclass(frozen=True)
class _Lying:
    """Sheets that lie level, as they are in the way: heights, where each bridge begins and ends, its page
    begins."""

    heights: Array
    holes: Array
    bridge: float
    hole: float

    def clear(self, start: tuple[Array, Array], end: tuple[Array, Array]) -> NDArray[np.bool_]:
        """Which of the straight pieces from ``start`` to ``end``, each (x, y) arrays of one shape, cross none
        of the sheets."""
        (x0, y0), (x1, y1) = start, end
        rise = np.where(np.abs(y1 - y0) < 1e-9, 1e-9, y1 - y0)
        at = (self.heights - y0[..., None]) / rise[..., None]
        x = x0[..., None] + at * (x1 - x0)[..., None]
        inside = (at > _TOUCH) & (at < 1 - _TOUCH)
        on_bridge = (x > self.holes - self.bridge + _TOUCH) & (x < self.holes - _TOUCH)
        on_page = x > self.holes + self.hole + _TOUCH
        return np.logical_not((inside & (on_bridge | on_page)).any(axis=-1))


def _slides(ring: Ring, offsets: Array) -> tuple[Array, Array]:
    """How far a sheet at each offset from the ring's middle may slide: the least and the most of where its
    hole begins; least > most where it cannot lie."""
    inner = ring.radius**2 - offsets**2
    q = np.sqrt(np.maximum(inner, 0.0))
    outer = np.sqrt(np.maximum((ring.radius + ring.wire) ** 2 - offsets**2, 0.0))
    low = np.maximum(outer - ring.hole, ring.bridge - q)
    return np.where(inner < 0, 1.0, low), np.where(inner < 0, 0.0, q)


def _at_rest(ring: Ring, offsets: Array) -> tuple[Array, bool]:
    """Where the holes of sheets at these offsets begin: level with each other as far as they can; and whether
    all can lie so."""
    low, high = _slides(ring, offsets)
    level = high.min()
    return np.clip(level, low, np.maximum(high, low)), bool((low <= high + 1e-6).all())


def _turned(
    ring: Ring, angle: float, thick: float, wanted: float, lying: _Lying
) -> tuple[Array, Array, bool]:
    """Offsets and holes of the sheets that turn, at an angle in radians: as near to the offset wanted of the
    first as they can lie."""
    across = (math.cos(angle), math.sin(angle))
    away = (-across[1], across[0])
    inside = np.linspace(0.0, thick, SHEETS)
    found = _tried(ring, (across, away), inside, np.array([wanted]), lying)
    if found[2] or thick >= 2 * ring.radius:
        return found
    near = np.arange(-ring.radius, ring.radius - thick, ring.radius / FINE)
    near = near[np.argsort(np.abs(near - wanted))]
    for first in range(0, len(near), AT_ONCE):
        tried = _tried(ring, (across, away), inside, near[first : first + AT_ONCE], lying)
        if tried[2]:
            return tried
    return found


Way = tuple[tuple[float, float], tuple[float, float]]


def _tried(ring: Ring, way: Way, inside: Array, starts: Array, lying: _Lying) -> tuple[Array, Array, bool]:
    """The first of these starts at which all sheets of the part lie free, with where their holes begin; else
    the first of all."""
    across, away = way
    offsets = starts[:, None] + inside[None, :]
    low, high = _slides(ring, offsets)
    share = np.linspace(1.0, 0.0, SLIDES)
    holes = low[..., None] + (high - low)[..., None] * share
    line = offsets[..., None]
    ends = [
        (line * away[0] + at * across[0], line * away[1] + at * across[1])
        for at in (holes - ring.bridge, holes, holes + ring.hole, holes + ring.hole + PAGE_MM)
    ]
    free = lying.clear(ends[0], ends[1]) & lying.clear(ends[2], ends[3]) & (low <= high + 1e-6)[..., None]
    good = free.any(axis=-1).all(axis=-1)
    if not good.any():
        return offsets[0], np.clip(high[0].min(), low[0], np.maximum(high[0], low[0])), False
    best = int(good.argmax())
    first = free[best].argmax(axis=-1)
    return offsets[best], holes[best][np.arange(len(inside)), first], True


def frames(ring: Ring, stays: float, turns: float) -> tuple[Frame, ...]:
    """From shut to flat open, every few degrees; thicknesses in mm of the part that stays and the part that
    turns.

    Raises ValueError for a ring on which no sheet lies.
    """
    if not ring.passes:
        raise ValueError("no sheet lies on this ring")
    most = ring.height(ring.reach)
    found = []
    for angle in range(0, 181, STEP):
        shut, flat = (
            max(-(stays + turns) / 2, -most),
            -stays / 2,
        )  # shut, the book hangs about the middle of its rings
        at_rest = shut + (flat - shut) * angle / 180
        frame = _frame(ring, angle, stays, turns, at_rest)
        found.append(
            _frame(ring, angle, stays, turns, -most) if frame.binds else frame
        )  # where it would catch, what lies sinks as low as it can
    return tuple(found)


def _frame(ring: Ring, angle: int, stays: float, turns: float, base: float) -> Frame:
    """A moment, with the lowest sheet that stays at a height."""
    heights = base + np.linspace(0.0, stays, SHEETS)
    holes, lies = _at_rest(ring, heights)
    shut, flat = base + stays, -turns / 2
    wanted = shut + (flat - shut) * angle / 180
    if angle == 0:
        offsets = wanted + np.linspace(0.0, turns, SHEETS)
        at, fits = _at_rest(ring, offsets)
    else:
        lying = _Lying(heights, holes, ring.bridge, ring.hole)
        offsets, at, fits = _turned(ring, math.radians(angle), turns, wanted, lying)
    return Frame(angle, _pairs(heights, holes), _pairs(offsets, at), not (fits and lies))


def _pairs(one: Array, other: Array) -> tuple[tuple[float, float], ...]:
    return tuple((round(float(a), 2), round(float(b), 2)) for a, b in zip(one, other, strict=True))


def shut(ring: Ring, stack: float) -> tuple[tuple[float, float], ...]:
    """Sheets of a stack that lies shut, about the ring's middle: their heights with where their holes begin,
    mm; as if all could lie there."""
    heights = np.linspace(-stack / 2, stack / 2, SHEETS)
    return _pairs(heights, _at_rest(ring, np.clip(heights, -ring.radius, ring.radius))[0])
