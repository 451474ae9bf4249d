"""Creep: how far inner folios stand out past the outermost at the fore edge.

With n folios of caliper t the innermost stands out by (n-1)t when the folds are pressed dead flat (each inner
fold lies one caliper further in) and by (pi/2)(n-1)t when the folds nest as half circles, whose arcs each
differ by pi t, half of it on either side. Both are arithmetic; a real fold lies between.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

from pleat.core.base.estimate import Estimate, total


def creep_range(caliper_mm: float, nested: int) -> tuple[float, float]:
    """(dead flat, round) creep in mm of a folio with ``nested`` folios outside it; (0, 0) for the outermost.

    Raises ValueError for a negative number of folios.
    """
    if nested < 0:
        raise ValueError("folios outside cannot be fewer than none")
    flat = nested * caliper_mm
    return flat, math.pi / 2 * flat


def nested_creep(calipers: Sequence[Estimate]) -> Estimate:
    """Creep of the innermost of folios that may differ, given from the outside in: what lies outside it, flat
    to round."""
    outside = total(calipers[:-1])
    flat, middle, round_ = (
        outside.likely,
        outside.likely * (1 + math.pi / 2) / 2,
        outside.likely * math.pi / 2,
    )
    shape = Estimate.ranged(flat, middle, round_, "how sharply the folds are pressed")
    return Estimate(middle, {**outside.times((1 + math.pi / 2) / 2).doubts, **shape.doubts})


def shorter_by(calipers_mm: Sequence[float]) -> tuple[float, ...]:
    """How much narrower in mm each leaf is cut, from the outside in, so that all of them end level with the
    outermost; likely values.

    >>> [round(one, 2) for one in shorter_by([0.1, 0.1, 0.2])]
    [0.0, 0.13, 0.26]
    """
    return tuple(
        (1 + math.pi / 2) / 2 * outside for outside in itertools.accumulate(calipers_mm[:-1], initial=0.0)
    )


def innermost_creep(caliper: Estimate, folios: int) -> Estimate:
    """Creep of the innermost of ``folios`` folios: halfway between flat and round, with the caliper's own
    doubt."""
    flat, round_ = creep_range(caliper.likely, folios - 1)
    middle = (flat + round_) / 2
    shape = Estimate.ranged(flat, middle, round_, "how sharply the folds are pressed")
    per_caliper = (1 + math.pi / 2) / 2 * (folios - 1)
    return Estimate(middle, {**caliper.times(per_caliper).doubts, **shape.doubts})
