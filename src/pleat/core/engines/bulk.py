"""Thickness by place: what lies on the leaves of a book, as patches from the spine and from the head, and how
high they come to when it is shut."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from pleat.core.base.estimate import Estimate, total

POINT_MM = 1e-6
Array = NDArray[Any]
NONE = Estimate.exact(0.0)


@dataclass(frozen=True)
class Patch:
    """A rectangle of one thickness in mm on a leaf, from the spine and from the head: ``leaf`` is its number
    from 0, ``of`` what it belongs to."""

    leaf: int
    left_mm: float
    top_mm: float
    right_mm: float
    bottom_mm: float
    thick: Estimate
    of: str = ""

    @property
    def volume_mm3(self) -> float:
        """Area times thickness, as is likely."""
        return (self.right_mm - self.left_mm) * (self.bottom_mm - self.top_mm) * self.thick.likely

    def covers(self, x_mm: float, y_mm: float) -> bool:
        """Whether a point lies on it."""
        return self.left_mm < x_mm < self.right_mm and self.top_mm < y_mm < self.bottom_mm


@dataclass(frozen=True)
class Worst:
    """The thickest place: how thick, the middle of it in mm, and what lies there."""

    thick: Estimate
    x_mm: float
    y_mm: float
    of: tuple[str, ...]


NOWHERE = Worst(NONE, 0.0, 0.0, ())


@dataclass(frozen=True)
class Bulk:
    """The sum of patches over all leaves, cut up at every edge of one."""

    patches: tuple[Patch, ...]

    @cached_property
    def xs(self) -> list[float]:
        return marks(edge for patch in self.patches for edge in (patch.left_mm, patch.right_mm))

    @cached_property
    def ys(self) -> list[float]:
        return marks(edge for patch in self.patches for edge in (patch.top_mm, patch.bottom_mm))

    @cached_property
    def likely(self) -> Array:
        """The likely thickness in mm, one number a cell: columns from the spine, rows from the head."""
        found: Array = np.zeros((max(0, len(self.xs) - 1), max(0, len(self.ys) - 1)))
        sides = (
            np.array(
                [(patch.left_mm, patch.right_mm, patch.top_mm, patch.bottom_mm) for patch in self.patches]
            ).reshape(-1, 4)
            - POINT_MM
        )
        across, down = (
            np.searchsorted(self.xs, sides[:, :2]).tolist(),
            np.searchsorted(self.ys, sides[:, 2:]).tolist(),
        )
        for patch, (left, right), (top, bottom) in zip(self.patches, across, down, strict=True):
            found[left:right, top:bottom] += patch.thick.likely
        return found

    @property
    def volume_mm3(self) -> float:
        """Thickness times area, over all cells."""
        if not self.patches:
            return 0.0
        return float(np.diff(self.xs) @ self.likely @ np.diff(self.ys))

    def worst(self, within_mm: float | None = None) -> Worst:
        """The thickest place, of those ``within_mm`` of the spine where that is said."""
        if within_mm not in self._found:
            self._found[within_mm] = self._worst(within_mm)
        return self._found[within_mm]

    @cached_property
    def _found(self) -> dict[float | None, Worst]:
        return {}

    def _worst(self, within_mm: float | None) -> Worst:
        high = self.likely
        if within_mm is not None:
            high = high[: max(0, bisect_left(self.xs, within_mm - POINT_MM))]
        if not high.size or high.max() <= 0:
            return NOWHERE
        x, y = (int(number) for number in np.unravel_index(int(np.argmax(high)), high.shape))
        middle = (self.xs[x] + self.xs[x + 1]) / 2, (self.ys[y] + self.ys[y + 1]) / 2
        there = [patch for patch in self.patches if patch.covers(*middle)]
        return Worst(
            total(patch.thick for patch in there), *middle, tuple(dict.fromkeys(patch.of for patch in there))
        )

    def at(self, leaf: int) -> Bulk:
        """What lies on one leaf."""
        return Bulk(tuple(patch for patch in self.patches if patch.leaf == leaf))


def span(edges: Sequence[float], low: float, high: float) -> slice:
    """The cells between two edges."""
    return slice(bisect_left(edges, low - POINT_MM), bisect_left(edges, high - POINT_MM))


def marks(values: Iterable[float]) -> list[float]:
    """Every value once, in order; those a hair apart are one."""
    found: list[float] = []
    for value in sorted(values):
        if not found or value - found[-1] > POINT_MM:
            found.append(value)
    return found
