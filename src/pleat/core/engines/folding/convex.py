"""Convex polygons in the plane, in mm: their area, what a line cuts off them, where two of them overlap."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Sequence
from itertools import pairwise
from operator import itemgetter
from typing import Final

Point = tuple[float, float]
Polygon = tuple[Point, ...]
"""The corners of a convex polygon, in order; empty for nothing."""
NEAR_MM: Final = 1e-5
"""A corner this near a side lies on it."""
POINT_MM: Final = 1e-6
"""Lengths below this are none; areas below its square root in mm2 are only a touch."""


def rectangle(x: float, y: float, width: float, height: float) -> Polygon:
    return ((x, y), (x + width, y), (x + width, y + height), (x, y + height))


def edges(polygon: Polygon) -> Iterable[tuple[Point, Point]]:
    """Its sides, corner to corner."""
    return pairwise((*polygon, polygon[0])) if polygon else ()


def area(polygon: Polygon) -> float:
    """The area in mm2, whichever way round the corners run; 0 for nothing.

    >>> area(rectangle(0, 0, 20, 30))
    600.0
    """
    if not polygon:
        return 0.0
    found, (bx, by) = 0.0, polygon[-1]
    for x, y in polygon:
        found += bx * y - x * by
        bx, by = x, y
    return abs(found) / 2


def middle(polygon: Polygon) -> Point:
    """The mean of its corners, which lies inside it."""
    return sum(x for x, _ in polygon) / len(polygon), sum(y for _, y in polygon) / len(polygon)


def bounds(polygon: Iterable[Point]) -> tuple[float, float, float, float]:
    """(left, top, right, bottom)."""
    xs, ys = zip(*polygon, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def side_of(start: Point, end: Point, point: Point) -> float:
    """How far a point lies from the line through two others in mm: one sign on one side, the other on the
    other."""
    across, along = end[0] - start[0], end[1] - start[1]
    return (across * (point[1] - start[1]) - along * (point[0] - start[0])) / math.hypot(across, along)


def clipped(polygon: Polygon, start: Point, end: Point, *, positive: bool) -> Polygon:
    """What of ``polygon`` lies on one side of the line from ``start`` to ``end``; empty where nothing does.

    >>> clipped(rectangle(0, 0, 20, 30), (0, 10), (1, 10), positive=False)
    ((0, 0), (20, 0), (20.0, 10.0), (0.0, 10.0))
    """
    sign = 1.0 if positive else -1.0
    away = [sign * side_of(start, end, point) for point in polygon]
    kept: list[Point] = []
    for number, point in enumerate(polygon):
        other = (number + 1) % len(polygon)
        here, there = away[number], away[other]
        if here >= -POINT_MM:
            kept.append(point)
        if (here > POINT_MM and there < -POINT_MM) or (here < -POINT_MM and there > POINT_MM):
            part = here / (here - there)
            end_ = polygon[other]
            kept.append((point[0] + part * (end_[0] - point[0]), point[1] + part * (end_[1] - point[1])))
    return tuple(kept) if len(kept) > 2 and area(tuple(kept)) > POINT_MM else ()


def overlap(one: Polygon, other: Polygon) -> Polygon:
    """Where two convex polygons lie on each other; empty where they do not, or only touch."""
    found = one
    turned = sum(a[0] * b[1] - b[0] * a[1] for a, b in edges(other)) > 0
    for start, end in edges(other):
        if not found:
            break
        found = clipped(found, start, end, positive=turned)
    return found


def meets(one: Polygon, other: Polygon) -> bool:
    """Whether two convex polygons lie on each other by more than a touch."""
    a, b = bounds(one), bounds(other)
    if (
        a[2] <= b[0] + POINT_MM
        or b[2] <= a[0] + POINT_MM
        or a[3] <= b[1] + POINT_MM
        or b[3] <= a[1] + POINT_MM
    ):
        return False
    if is_rectangle(one) and is_rectangle(other):
        return True
    return area(overlap(one, other)) > 1e-3


def is_rectangle(polygon: Polygon) -> bool:
    """Whether it is one with level and upright sides."""
    if len(polygon) != 4:
        return False
    bx, by = polygon[3]
    for x, y in polygon:
        if abs(x - bx) >= POINT_MM and abs(y - by) >= POINT_MM:
            return False
        bx, by = x, y
    return True


def holds(polygon: Polygon, point: Point) -> bool:
    """Whether a point lies inside it."""
    sides = [side_of(a, b, point) for a, b in edges(polygon)]
    return all(side > -POINT_MM for side in sides) or all(side < POINT_MM for side in sides)


def common(one: Sequence[Point], other: Sequence[Point]) -> tuple[Point, Point] | None:
    """The stretch that two lines, each from point to point, have in common; None where they only cross or
    touch.

    >>> common([(0, 0), (0, 30)], [(0, 50), (0, 10)])
    ((0, 10), (0, 30))
    """
    (a, b), (c, d) = one, other
    if abs(side_of(a, b, c)) > 1e-5 or abs(side_of(a, b, d)) > 1e-5:
        return None
    axis = 0 if abs(a[0] - b[0]) > abs(a[1] - b[1]) else 1
    (low, high), (low_, high_) = (sorted(line, key=lambda point: point[axis]) for line in ((a, b), (c, d)))
    start, end = (
        max(low, low_, key=lambda point: point[axis]),
        min(high, high_, key=lambda point: point[axis]),
    )
    return (start, end) if end[axis] - start[axis] > POINT_MM else None


def united(polygons: Sequence[Polygon]) -> tuple[Polygon, ...]:
    """The outlines of polygons that lie side by side and do not overlap: sides that two of them share are
    left out, the others are chained. Several where they are apart or leave a window; such an outline need not
    be convex.
    """
    corners = {_tidy(point) for polygon in polygons for point in polygon}
    sorted_ = (sorted(corners), sorted(corners, key=itemgetter(1)))
    open_: dict[tuple[Point, Point], None] = {}
    for polygon in polygons:
        own = tuple(_tidy(point) for point in polygon)
        turned = sum(a[0] * b[1] - b[0] * a[1] for a, b in edges(own)) > 0
        for start, end in edges(own if turned else own[::-1]):
            for a, b in pairwise(_split(start, end, _beside(start, end, sorted_))):
                if (b, a) in open_:
                    del open_[(b, a)]
                else:
                    open_[(a, b)] = None
    return tuple(_straightened(one) for one in _chained(list(open_)))


def _tidy(point: Point) -> Point:
    return round(point[0], 6) + 0.0, round(point[1], 6) + 0.0


def _beside(start: Point, end: Point, corners: tuple[list[Point], list[Point]]) -> list[Point]:
    """The corners that may lie on a side, of all of them sorted by x and by y: of an upright or a level side
    those at its own place, between its ends."""
    for axis, along in ((0, 1), (1, 0)):
        if abs(start[axis] - end[axis]) < POINT_MM:
            first = bisect_left(corners[axis], start[axis] - NEAR_MM, key=itemgetter(axis))
            last = bisect_right(corners[axis], start[axis] + NEAR_MM, key=itemgetter(axis))
            low, high = min(start[along], end[along]), max(start[along], end[along])
            return [corner for corner in corners[axis][first:last] if low < corner[along] < high]
    return corners[0]


def _split(start: Point, end: Point, corners: Iterable[Point]) -> list[Point]:
    """The side from start to end with every corner that lies on it."""
    long = math.dist(start, end)
    if long < POINT_MM:
        return [start]
    between = [
        (math.dist(start, corner), corner)
        for corner in corners
        if corner not in (start, end)
        and abs(side_of(start, end, corner)) < NEAR_MM
        and math.dist(start, corner) + math.dist(corner, end) < long + NEAR_MM
    ]
    return [start, *(one for _, one in sorted(between)), end]


def _chained(sides: list[tuple[Point, Point]]) -> list[Polygon]:
    follow: dict[Point, list[Point]] = {}
    for start, end in sides:
        follow.setdefault(start, []).append(end)
    found = []
    while follow:
        start = next(iter(follow))
        chain, at = [start], follow[start].pop()
        while at != start:
            chain.append(at)
            at, here = follow[at].pop(), at
            if not follow[here]:
                del follow[here]
        if not follow[start]:
            del follow[start]
        found.append(tuple(chain))
    return found


def _straightened(outline: Polygon) -> Polygon:
    """Without the corners that lie on a straight side."""
    around = zip((outline[-1], *outline), outline, (*outline[1:], outline[0]), strict=False)
    return tuple(
        here
        for before, here, after in around
        if abs(side_of(before, after, here)) > 1e-5 or math.dist(before, after) < POINT_MM
    )
