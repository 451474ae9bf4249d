"""Pockets are found, not declared: a panel held over another on two sides or more, and free on one. Where no
glue may go follows from them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

from pleat.core.engines.folding.assembly import Assembly, Key, Side, State
from pleat.core.engines.folding.convex import (
    Point,
    Polygon,
    area,
    bounds,
    clipped,
    meets,
    middle,
    overlap,
    side_of,
)
from pleat.core.engines.folding.programme import FoldOperation, FoldResult, LayOperation, Programme, Where
from pleat.core.engines.folding.sheet import Crease
from pleat.core.trade.folding import GLUE_FREE_FOLD_MM, GLUE_FREE_MOUTH_MM

SIDES: Final[tuple[Where, ...]] = ("left", "head", "right", "tail")


@dataclass(frozen=True)
class FoldedPocket:
    """A wall over a back, in mm: the sides it is held on, where its mouth is, as one looks at it open;
    ``throat_mm`` is what passes between what holds it, ``depth_mm`` how deep it goes from the highest and
    ``shallow_mm`` from the lowest point of its mouth."""

    wall: Key
    back: Key
    held: tuple[Where, ...]
    mouth: Where
    throat_mm: float
    depth_mm: float
    shallow_mm: float


@dataclass(frozen=True)
class Zone:
    """A band of a panel's side that glue must stay off, in its piece's own mm: beside a fold that moves, or
    at a mouth."""

    key: Key
    side: Side
    band: Polygon
    at: Literal["fold", "mouth"]


def pockets(worked: FoldResult) -> tuple[FoldedPocket, ...]:
    """Every pocket of a thing that lies open."""
    assembly, state = worked.assembly, worked.open
    partly = {
        operation.laid: operation
        for operation in worked.programme.build
        if isinstance(operation, LayOperation) and operation.edges
    }
    place = {key: number for number, key in enumerate(state.pile)}
    tabs = _tabs(assembly, state)
    found = []
    never = {tab for holders in tabs.values() for tab, _ in holders} | set(partly)
    for wall in state.pile:
        if wall in never and wall not in partly:
            continue
        shadow = state.shadow(wall, assembly.pieces)
        backs = [
            one
            for one in state.pile[: place[wall]]
            if one not in never and meets(state.shadow(one, assembly.pieces), shadow)
        ]
        if wall in partly:
            backs = [partly[wall].host]
        backs = [one for one in backs if not assembly.pieces[one[0]].rigid]
        if not backs or assembly.pieces[wall[0]].rigid:
            continue
        back = backs[-1]
        held = (
            dict.fromkeys(partly[wall].edges, 0.0)
            if wall in partly
            else _held(assembly, state, (wall, back), tabs)
        )
        free = [where for where in SIDES if where not in held]
        if len(held) < 2 or not free:
            continue
        mouth = "head" if "head" in free else free[0]
        found.append(_pocket(shadow, (wall, back), held, mouth))
    return tuple(found)


def _tabs(assembly: Assembly, state: State) -> dict[Key, list[tuple[Key, Crease]]]:
    """Panels with the tabs that are folded under them and glued to what lies below."""
    glued = {join.laid for join in assembly.joins if join.by == "glue"}
    found: dict[Key, list[tuple[Key, Crease]]] = {}
    for name, piece in assembly.pieces.items():
        for crease in piece.creases:
            if abs(state.angles.get((name, crease.one, crease.other), 0.0)) != 180:
                continue
            for tab, wall in ((crease.one, crease.other), (crease.other, crease.one)):
                if (name, tab) in glued and area(piece[tab].outline) < area(piece[wall].outline):
                    found.setdefault((name, wall), []).append(((name, tab), crease))
    return found


def _held(
    assembly: Assembly, state: State, pair: tuple[Key, Key], tabs: Mapping[Key, list[tuple[Key, Crease]]]
) -> dict[Where, float]:
    """The sides a wall is held on, with what a tab takes of the room there: by the fold it shares with its
    back, by what goes on from it and is glued, or by glued tabs."""
    wall, back = pair
    shadow, piece = state.shadow(wall, assembly.pieces), assembly.pieces[wall[0]]
    found: dict[Where, float] = {}
    for crease in piece.creases:
        if wall[1] in crease.between and wall[0] == back[0] and back[1] in crease.between:
            found[_where(shadow, state.poses[wall].on_table((crease.start, crease.end)))] = 0.0
        elif wall[1] in crease.between and not state.angles.get((wall[0], crease.one, crease.other)):
            beside = (wall[0], crease.other if crease.one == wall[1] else crease.one)
            if any(beside in (join.laid, join.host) and join.by == "glue" for join in assembly.joins):
                found[_where(shadow, state.poses[wall].on_table((crease.start, crease.end)))] = 0.0
    for tab, crease in tabs.get(wall, ()):
        line = state.poses[wall].on_table((crease.start, crease.end))
        left, top, right, bottom = bounds(state.shadow(tab, assembly.pieces))
        where = _where(shadow, line)
        found[where] = right - left if where in ("left", "right") else bottom - top
    for other, holders in tabs.items():  # a tab of what lies below, folded over and glued into the wall
        if other != back:
            continue
        for tab, crease in holders:
            if any(join.laid == tab and join.host == wall for join in assembly.joins):
                found[_where(shadow, state.poses[other].on_table((crease.start, crease.end)))] = 0.0
    return found


def _where(shadow: Polygon, line: Polygon) -> Where:
    """The side of a panel that a line lies on, as one looks at it."""
    x, y = middle(line)
    cx, cy = middle(shadow)
    upright = abs(line[0][0] - line[1][0]) < abs(line[0][1] - line[1][1])
    if upright:
        return "left" if x < cx else "right"
    return "head" if y < cy else "tail"


def _pocket(
    shadow: Polygon, pair: tuple[Key, Key], held: Mapping[Where, float], mouth: Where
) -> FoldedPocket:
    left, top, right, bottom = bounds(shadow)
    across = mouth in ("head", "tail")
    wide, deep = (right - left, bottom - top) if across else (bottom - top, right - left)
    beside: tuple[Where, Where] = ("left", "right") if across else ("head", "tail")
    floor: dict[Where, Where] = {"head": "tail", "tail": "head", "left": "right", "right": "left"}
    lost = held.get(floor[mouth], 0.0)
    # how far the mouth's edge runs down: corners of the outline away from its floor, without those of the
    # floor itself
    axis = 1 if across else 0
    end = {"head": bottom, "tail": top, "left": right, "right": left}[mouth]
    heights = sorted(abs(point[axis] - end) for point in shadow if abs(point[axis] - end) > 1e-6)
    shallow = heights[0] if heights else deep
    throat = wide - sum(held.get(one, 0.0) for one in beside)
    return FoldedPocket(*pair, tuple(held), mouth, throat, deep - lost, max(shallow - lost, 0.0))


def zones(programme: Programme, worked: FoldResult, found: Iterable[FoldedPocket] = ()) -> tuple[Zone, ...]:
    """Where no glue may go: on both sides of every fold that moves, and between the two walls of a mouth."""
    bands: list[Zone] = []
    for group in programme.closing:
        for fold in group.folds:
            bands += _beside(worked.assembly, fold)
    assembly, state = worked.assembly, worked.open
    for pocket in found:
        above = state.pile.index(pocket.wall) > state.pile.index(pocket.back)
        for key, facing in ((pocket.wall, not above), (pocket.back, above)):
            shadow = state.shadow(pocket.wall, assembly.pieces)
            band = overlap(
                _strip(shadow, pocket.mouth, GLUE_FREE_MOUTH_MM), state.shadow(key, assembly.pieces)
            )
            if band:
                side: Side = "A" if state.poses[key].up == facing else "B"
                bands.append(Zone(key, side, state.poses[key].back.on_table(band), "mouth"))
    return tuple(bands)


def _beside(assembly: Assembly, fold: FoldOperation) -> list[Zone]:
    piece, found = assembly.pieces[fold.piece], []
    for one, other, _ in fold.angles:
        crease = piece.crease(one, other)
        for name in (one, other):
            outline = piece[name].outline
            inner = side_of(crease.start, crease.end, middle(outline)) > 0
            start, end = _shifted(
                crease.start, crease.end, GLUE_FREE_FOLD_MM if inner else -GLUE_FREE_FOLD_MM
            )
            band = clipped(outline, start, end, positive=not inner)
            if band:
                found += [Zone((fold.piece, name), side, band, "fold") for side in ("A", "B")]
    return found


def _shifted(start: Point, end: Point, by: float) -> tuple[Point, Point]:
    """The line moved by so many mm to its positive side."""
    long = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    dx, dy = -(end[1] - start[1]) / long * by, (end[0] - start[0]) / long * by
    return (start[0] + dx, start[1] + dy), (end[0] + dx, end[1] + dy)


def _strip(shadow: Polygon, mouth: Where, depth: float) -> Polygon:
    """The band of a panel along its mouth, following a slanting edge: everything within ``depth`` of the
    sides that face there."""
    left, top, right, bottom = bounds(shadow)
    lines = {
        "head": ((left, top + depth), (right, top + depth)),
        "tail": ((right, bottom - depth), (left, bottom - depth)),
        "left": ((left + depth, bottom), (left + depth, top)),
        "right": ((right - depth, top), (right - depth, bottom)),
    }
    slanted = [
        (a, b)
        for a, b in pairwise((*shadow, shadow[0]))
        if abs(a[0] - b[0]) > 1e-6 and abs(a[1] - b[1]) > 1e-6 and _where(shadow, (a, b)) == mouth
    ]
    start, end = lines[mouth]
    if slanted:
        a, b = slanted[0]
        start, end = _shifted(a, b, depth if side_of(a, b, middle(shadow)) > 0 else -depth)
        return clipped(shadow, start, end, positive=side_of(start, end, middle(shadow)) < 0)
    return clipped(shadow, start, end, positive=False)
