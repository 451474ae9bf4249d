"""What lies on what in a state of an assembly: thickness by place, the room that gussets and spines need, and
what shows."""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Any

import numpy as np
from numpy.typing import NDArray

from pleat.core.base.estimate import Estimate, weighted
from pleat.core.engines.folding.assembly import Assembly, Key, Side, State
from pleat.core.engines.folding.convex import (
    POINT_MM,
    Point,
    Polygon,
    area,
    bounds,
    clipped,
    common,
    edges,
    holds,
    is_rectangle,
    meets,
    overlap,
    rectangle,
)
from pleat.core.trade.folding import TAB_SHARE

NONE = Estimate.exact(0.0)
Array = NDArray[Any]
Box = tuple[float, float, float, float]
"""(left, top, right, bottom) of a rectangle."""


@dataclass(frozen=True)
class PileColumn:
    """A place on the table and the layers over it, from the table up."""

    outline: Polygon
    layers: tuple[Key, ...]


@dataclass(frozen=True)
class Gusset:
    """A panel that stands between two layers, in mm: the room it gives, and what lies between them:
    ``draped`` right beside it, ``stiff`` at the worst place that both cover. ``inner`` are gussets that lie
    between them, with the room they keep open."""

    wall: Key
    low: Key
    high: Key
    has_mm: float
    draped: Estimate
    stiff: Estimate
    inner: tuple[tuple[Key, float], ...] = ()


@dataclass(frozen=True)
class PanelFace:
    """A face that shows: the panel and its side, how far it is turned clockwise from the way it lies on its
    own sheet (0, 90, 180, 270 or between), and what of it shows in mm2 and as a share of the panel;
    ``largest`` is the largest convex part of that, in its piece's own mm."""

    key: Key
    side: Side
    turn: float
    area_mm2: float
    share: float
    largest: Polygon = ()


def cells(assembly: Assembly, state: State, layers: Sequence[Key] | None = None) -> tuple[PileColumn, ...]:
    """The table cut up at every coordinate that occurs; cells that nothing covers are left out. A cell that a
    slanting side crosses belongs to a layer that covers its middle."""
    found = list(state.pile if layers is None else layers)
    shadows = {key: state.shadow(key, assembly.pieces) for key in found}
    xs = _marks(x for shadow in shadows.values() for x, _ in shadow)
    ys = _marks(y for shadow in shadows.values() for _, y in shadow)
    over: dict[tuple[int, int], list[Key]] = {}
    for key in found:
        left, top, right, bottom = bounds(shadows[key])
        whole = is_rectangle(shadows[key])
        for x in range(bisect_left(xs, left - POINT_MM), bisect_left(xs, right - POINT_MM)):
            for y in range(bisect_left(ys, top - POINT_MM), bisect_left(ys, bottom - POINT_MM)):
                if whole or holds(shadows[key], ((xs[x] + xs[x + 1]) / 2, (ys[y] + ys[y + 1]) / 2)):
                    over.setdefault((x, y), []).append(key)
    return tuple(
        PileColumn(rectangle(xs[x], ys[y], xs[x + 1] - xs[x], ys[y + 1] - ys[y]), tuple(layers_))
        for (x, y), layers_ in sorted(over.items())
    )


def _marks(values: Iterable[float]) -> list[float]:
    found: list[float] = []
    for value in sorted(values):
        if not found or value - found[-1] > POINT_MM:
            found.append(value)
    return found


def thick(assembly: Assembly, layers: Iterable[Key], calipers: Mapping[str, Estimate]) -> Estimate:
    """The thickness of layers on each other in mm: sheets of one stock share their doubt. A stock that is not
    told has none."""
    counts: dict[str, int] = {}
    for piece, _ in layers:
        stock = assembly.pieces[piece].stock
        counts[stock] = counts.get(stock, 0) + 1
    return weighted((calipers.get(stock, NONE), count) for stock, count in counts.items())


@dataclass(frozen=True)
class _TableGrid:
    """The table cut up at every coordinate that occurs, with how thick it lies on each cell by what is
    likely, and where each layer lies."""

    xs: list[float]
    ys: list[float]
    high: Array
    over: Mapping[Key, Array]

    def fullest(
        self, assembly: Assembly, calipers: Mapping[str, Estimate], among: Array | None = None
    ) -> Estimate:
        """The thickness at the worst place, likely first, of those ``among`` the cells."""
        high = self.high if among is None else np.where(among, self.high, 0.0)
        if not high.size:
            return NONE
        at = np.unravel_index(np.argmax(high), high.shape)
        if among is not None and not among[at]:
            return NONE
        return thick(assembly, (key for key, there in self.over.items() if there[at]), calipers)

    def along(self, line: tuple[Point, Point]) -> Array:
        """The cells that a line runs along."""
        left, top, right, bottom = bounds(line)
        found = np.zeros(self.high.shape, dtype=bool)
        for x in range(
            max(0, bisect_left(self.xs, left - POINT_MM) - 1),
            min(len(self.xs) - 1, bisect_right(self.xs, right + POINT_MM)),
        ):
            for y in range(
                max(0, bisect_left(self.ys, top - POINT_MM) - 1),
                min(len(self.ys) - 1, bisect_right(self.ys, bottom + POINT_MM)),
            ):
                cell = rectangle(
                    self.xs[x], self.ys[y], self.xs[x + 1] - self.xs[x], self.ys[y + 1] - self.ys[y]
                )
                found[x, y] = any(common(line, side) for side in edges(cell))
        return found


def _grid(
    assembly: Assembly, state: State, layers: Sequence[Key], calipers: Mapping[str, Estimate]
) -> _TableGrid:
    """The cells that layers lie on."""
    shadows = {key: state.shadow(key, assembly.pieces) for key in layers}
    xs = _marks(x for shadow in shadows.values() for x, _ in shadow)
    ys = _marks(y for shadow in shadows.values() for _, y in shadow)
    high: Array = np.zeros((max(0, len(xs) - 1), max(0, len(ys) - 1)))
    over = {}
    for key, shadow in shadows.items():
        left, top, right, bottom = bounds(shadow)
        columns = slice(bisect_left(xs, left - POINT_MM), bisect_left(xs, right - POINT_MM))
        rows = slice(bisect_left(ys, top - POINT_MM), bisect_left(ys, bottom - POINT_MM))
        there = np.zeros(high.shape, dtype=bool)
        there[columns, rows] = True
        if not is_rectangle(shadow):
            for x, y in np.argwhere(there):
                there[x, y] = holds(shadow, ((xs[x] + xs[x + 1]) / 2, (ys[y] + ys[y + 1]) / 2))
        high[there] += calipers.get(assembly.pieces[key[0]].stock, NONE).likely
        over[key] = there
    return _TableGrid(xs, ys, high, over)


def thickest(
    assembly: Assembly, state: State, calipers: Mapping[str, Estimate], layers: Sequence[Key] | None = None
) -> Estimate:
    """The thickness at the worst place, likely first; nothing for no layers."""
    return _grid(assembly, state, state.pile if layers is None else layers, calipers).fullest(
        assembly, calipers
    )


def gussets(assembly: Assembly, state: State, calipers: Mapping[str, Estimate]) -> tuple[Gusset, ...]:
    """Every panel that stands upright between two layers that lie on each other, with the room it gives and
    what it needs."""
    place = {key: number for number, key in enumerate(state.pile)}
    found = []
    for name, piece in assembly.pieces.items():
        for panel in piece.panels:
            wall = (name, panel.name)
            if state.poses[wall].level:
                continue
            ends = [
                (name, crease.other if crease.one == panel.name else crease.one)
                for crease in piece.creases
                if panel.name in crease.between
            ]
            flat = sorted((key for key in ends if key in place), key=lambda key: place[key])
            if len(flat) < 2:
                continue
            found.append(_gusset(assembly, state, calipers, wall, (flat[0], flat[-1])))
    inner = {gusset.wall: gusset for gusset in found}
    return tuple(_with_inner(gusset, inner.values(), place) for gusset in found)


def _gusset(
    assembly: Assembly, state: State, calipers: Mapping[str, Estimate], wall: Key, ends: tuple[Key, Key]
) -> Gusset:
    low, high = ends
    piece = assembly.pieces[wall[0]]
    heights = [state.poses[key].place((*piece[key[1]].outline[0], 0.0))[2] for key in ends]
    between = state.pile[state.pile.index(low) + 1 : state.pile.index(high)]
    # a narrow flange holds apart all of what it is glued to, not only what lies over itself
    shadows = [
        [state.shadow(key, assembly.pieces) for key in (end, *_glued_to(assembly, end)) if key in state.poses]
        for end in ends
    ]
    regions = [both for one, other in product(*shadows) if (both := overlap(one, other))]
    inside = [
        key for key in between if any(meets(state.shadow(key, assembly.pieces), both) for both in regions)
    ]
    crease = piece.crease(low[1], wall[1])
    line = state.poses[low].on_table((crease.start, crease.end))
    stacks = _grid(assembly, state, inside, calipers)
    return Gusset(
        wall,
        low,
        high,
        abs(heights[1] - heights[0]),
        stacks.fullest(assembly, calipers, stacks.along((line[0], line[1]))),
        stacks.fullest(assembly, calipers),
    )


def _glued_to(assembly: Assembly, key: Key) -> list[Key]:
    """The panels that lie glued on this one, or it on them."""
    return [
        join.host if join.laid == key else join.laid
        for join in assembly.joins
        if key in (join.laid, join.host) and join.by == "glue"
    ]


def _with_inner(outer: Gusset, all_: Iterable[Gusset], place: Mapping[Key, int]) -> Gusset:
    """With the gussets whose both layers lie between those of this one."""
    low, high = place[outer.low], place[outer.high]
    inner = tuple(
        (gusset.wall, gusset.has_mm)
        for gusset in all_
        if gusset.wall != outer.wall and low <= place[gusset.low] and place[gusset.high] <= high
    )
    return Gusset(outer.wall, outer.low, outer.high, outer.has_mm, outer.draped, outer.stiff, inner)


def without(polygon: Polygon, other: Polygon) -> tuple[Polygon, ...]:
    """What is left of a convex polygon outside another, in convex pieces."""
    if not meets(polygon, other):
        return (polygon,)
    turned = sum(a[0] * b[1] - b[0] * a[1] for a, b in edges(other)) > 0
    found, rest = [], polygon
    for start, end in edges(other):
        outside = clipped(rest, start, end, positive=not turned)
        if outside:
            found.append(outside)
        rest = clipped(rest, start, end, positive=turned)
        if not rest:
            break
    return tuple(found)


def tabs(assembly: Assembly, state: State) -> frozenset[Key]:
    """The panels on which a larger one was glued, to go on from their sheet: all over on it, they are a part
    of its face."""
    found = set()
    for join in assembly.joins:
        if (
            join.by != "glue"
            or len(assembly.pieces[join.host[0]].panels) < 2
            or not {join.laid, join.host} <= set(state.pile)
        ):
            continue
        tab, panel = (state.shadow(key, assembly.pieces) for key in (join.host, join.laid))
        if area(tab) <= TAB_SHARE * area(panel) and not any(
            area(part) > 1e-3 * area(tab) for part in without(tab, panel)
        ):
            found.add(join.host)
    return frozenset(found)


def faces(
    assembly: Assembly, state: State, *, above: bool = True, less: frozenset[Key] = frozenset()
) -> tuple[PanelFace, ...]:
    """What shows from above, or from below as one looks after turning the whole over like a page; hidden
    faces are left out, and the panels of ``less`` are looked through."""
    order = [key for key in (state.pile[::-1] if above else state.pile) if key not in less]
    shadows = {key: state.shadow(key, assembly.pieces) for key in order}
    plain = all(is_rectangle(shadow) for shadow in shadows.values())
    seen: list[Polygon] = []
    boxes: list[Box] = []
    found = []
    for key, shadow in shadows.items():
        if plain:
            box = _sides(shadow)
            left = _beside(box, boxes)
            boxes.append(box)
        else:
            left = _outside(shadow, seen)
            seen.append(shadow)
        shows, whole = sum(area(one) for one in left), area(shadow)
        if shows > 1e-3 * whole:
            pose = state.poses[key]
            side: Side = "A" if pose.up == above else "B"
            largest = pose.back.on_table(max(left, key=area))
            found.append(PanelFace(key, side, _turned(pose.y, above=above), shows, shows / whole, largest))
    return tuple(found)


def _outside(shadow: Polygon, seen: Sequence[Polygon]) -> list[Polygon]:
    """What is left of a shadow outside of those seen already."""
    left = [shadow]
    for other in seen:
        left = [part for one in left for part in without(one, other)]
        if not left:
            break
    return left


def _beside(shadow: Box, seen: Sequence[Box]) -> list[Polygon]:
    """The same where all are rectangles, by their sides alone."""
    left = [shadow]
    for x0, y0, x1, y1 in seen:
        parts: list[Box] = []
        for box in left:
            a, b, c, d = box
            if c <= x0 + POINT_MM or x1 <= a + POINT_MM or d <= y0 + POINT_MM or y1 <= b + POINT_MM:
                parts.append(box)
                continue
            low, high = max(b, y0), min(d, y1)
            parts += [
                part
                for part in ((a, b, c, y0), (a, y1, c, d), (a, low, x0, high), (x1, low, c, high))
                if part[2] - part[0] > POINT_MM and part[3] - part[1] > POINT_MM
            ]
        left = parts
        if not left:
            break
    return [rectangle(a, b, c - a, d - b) for a, b, c, d in left]


def _sides(box: Polygon) -> Box:
    (ax, ay), (cx, cy) = box[0], box[2]
    return min(ax, cx), min(ay, cy), max(ax, cx), max(ay, cy)


def _turned(foot: tuple[float, float, float], *, above: bool) -> float:
    """How far the panel's foot is turned from pointing down, clockwise as one looks at it, in degrees."""
    x, y = (foot[0] if above else -foot[0]), foot[1]
    return round(math.degrees(math.atan2(-x, y)), 6) % 360
