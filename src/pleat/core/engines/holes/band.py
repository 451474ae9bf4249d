"""Elastic, bands and posts: how long for what they go round. Lengths are mm."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence


def stretched(share: float) -> float:
    """By which part of its length elastic is stretched that was cut to a share of its path.

    >>> round(stretched(0.85), 3)
    0.176
    """
    return 1 / share - 1


def band_need(spacing: float, stack: float, stick: float, band: float) -> float:
    """How long a band has to become: across the back, through the stack at both holes, and round both ends of
    the stick (arithmetic).

    >>> round(band_need(100, 10, 6, 2), 1)
    145.1
    """
    return spacing + 2 * stack + math.pi * (stick + band)


def most_stack(longest: float, spacing: float, stick: float, band: float) -> float:
    """The thickest stack that a band still goes round when it is as long as it gets."""
    return max(0.0, (longest - spacing - math.pi * (stick + band)) / 2)


def woven(pitches: Sequence[float], sticks: Sequence[float], strip: float) -> float:
    """The length of a strip woven over and under sticks this far apart, from the middle of the first to that
    of the last: straight between them, and round each by half of what it turns there. Raises ValueError where
    two sticks leave no room for it."""
    total = 0.0
    for pitch, (one, other) in zip(pitches, itertools.pairwise(sticks), strict=True):
        gap = (one + other) / 2 + strip
        if gap > pitch + 1e-9:
            raise ValueError("the sticks lie too close to weave between them")
        turn = min(1.0, gap / pitch)
        total += math.sqrt(max(pitch**2 - gap**2, 0.0)) + gap * math.asin(turn)
    return total


def coil_hole(wire: float, pitch: float, stack: float, radius: float) -> float:
    """The narrowest hole that a coil still screws through: it runs aslant through the stack (arithmetic)."""
    return wire + pitch * math.asin(min(1.0, stack / (2 * radius))) / math.pi if radius > 0 else math.inf
