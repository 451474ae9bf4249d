"""How thick what is put in comes to by place: a map of all leaves on each other, with its profiles."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from pleat.core.base.units import Ruler
from pleat.core.engines.bulk import Bulk
from pleat.drawing.outlines import outline
from pleat.drawing.shapes import Dot, Drawing, Rect, Shape

STEPS: Final = 6
"""Shades of the map, from thin to the thickest place."""
SAMPLES: Final = 40
"""Squares across the map."""
PROFILE: Final = 0.16
"""How much of the map its profiles take beside it."""


def bulk_map(bulk: Bulk, width: float, height: float, ruler: Ruler, most: float = 0.0) -> Drawing:
    """All leaves on each other, spine at the left: the thicker, the darker, ``most`` mm darkest; the thickest
    place is marked. Below and beside it how thick it is at most, spine to fore edge and head to tail."""
    shapes: list[Shape] = [Rect(0, 0, width, height, "leaf")]
    cells, step_x, step_y = sampled(bulk, width, height)
    high = float(cells.max()) if cells.size else 0.0
    most = max(most, high)
    if high > 0:
        shades = np.ceil(STEPS * cells / most - 1e-9).astype(int)
        shapes += [
            Rect(x * step_x, y * step_y, (x1 - x) * step_x, (y1 - y) * step_y, f"bulk bulk-{shade}")
            for x, y, x1, y1, shade in merged(shades)
        ]
        shapes += _profiles(cells, step_x, step_y, most, width, height)
        worst = bulk.worst()
        x, y = min(max(worst.x_mm, 0.0), width), min(max(worst.y_mm, 0.0), height)
        shapes.append(Dot(x, y, "bulk-worst", 1.4))
    says = f"How thick what is put in comes to over all leaves: {ruler.thin(high)} at most."
    more = 1 + PROFILE if high > 0 else 1.0
    return Drawing(
        width * more,
        height * more,
        says,
        shapes,
        room=(("left", 4.0), ("top", 4.0), ("right", 4.0), ("bottom", 4.0)),
    )


def sampled(bulk: Bulk, width: float, height: float) -> tuple[NDArray[Any], float, float]:
    """(thickness in mm at the middle of every square, their width and height in mm) over a face."""
    across, down = SAMPLES, max(1, round(SAMPLES * height / width))
    step_x, step_y = width / across, height / down
    if not bulk.likely.size:
        return np.zeros((across, down)), step_x, step_y
    xs = np.searchsorted(bulk.xs, (np.arange(across) + 0.5) * step_x, "right") - 1
    ys = np.searchsorted(bulk.ys, (np.arange(down) + 0.5) * step_y, "right") - 1
    own = bulk.likely
    inside = (
        (xs >= 0)[:, None] & (xs < own.shape[0])[:, None] & (ys >= 0)[None, :] & (ys < own.shape[1])[None, :]
    )
    found = own[np.ix_(np.clip(xs, 0, own.shape[0] - 1), np.clip(ys, 0, own.shape[1] - 1))]
    return np.where(inside, found, 0.0), step_x, step_y


def merged(shades: NDArray[Any]) -> list[tuple[int, int, int, int, int]]:
    """(column, row, past the last column, past the last row, shade) of rectangles that cover every cell with
    a shade once."""
    open_: dict[tuple[int, int, int], int] = {}
    found: list[tuple[int, int, int, int, int]] = []
    for row in range(shades.shape[1] + 1):
        line = shades[:, row].tolist() if row < shades.shape[1] else []
        runs: dict[tuple[int, int, int], int] = {}
        at = 0
        for shade, same in groupby(line):
            count = len(list(same))
            if shade:
                run = (at, at + count, shade)
                runs[run] = open_.pop(run, row)
            at += count
        found += [(x, begun, x1, row, shade) for (x, x1, shade), begun in open_.items()]
        open_ = runs
    return found


def _profiles(
    cells: NDArray[Any], step_x: float, step_y: float, most: float, width: float, height: float
) -> list[Shape]:
    """The thickest of every column below the map, and of every row beside it."""
    deep = PROFILE * 0.85
    begins = 1 + PROFILE * 0.1
    below = [(width, height * begins), (0.0, height * begins)]
    for start, end, high in _runs(cells.max(axis=1).tolist()):
        y = height * (begins + deep * high / most)
        below += [(start * step_x, y), (end * step_x, y)]
    beside = [(width * begins, height), (width * begins, 0.0)]
    for start, end, high in _runs(cells.max(axis=0).tolist()):
        x = width * (begins + deep * high / most)
        beside += [(x, start * step_y), (x, end * step_y)]
    return [outline(tuple(below), "bulk-profile", 0.0, 0.0), outline(tuple(beside), "bulk-profile", 0.0, 0.0)]


def _runs(values: list[float]) -> Iterator[tuple[int, int, float]]:
    """(first, past the last, value) of equal neighbours."""
    at = 0
    for value, same in groupby(values):
        count = len(list(same))
        yield at, at + count, value
        at += count
