"""The panels of a worked programme as a tree that a moving view turns: each hangs on another by a fold or
lies on it, with its angle open and shut.

The axes are those of the kernel and of a browser alike: x to the right, y down, z towards the eye.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Final

from pleat.core.engines.folding.assembly import Key, State
from pleat.core.engines.folding.convex import Point, Polygon, middle, side_of
from pleat.core.engines.folding.poses import FLAT, Pose, Vector
from pleat.core.engines.folding.programme import FoldResult

LIFT_MM: Final = 0.35
"""Layers are drawn so far apart, so that the upper one is seen (house rule)."""


@dataclass(frozen=True)
class Node:
    """A panel of the tree: its parent's place in the list (-1: it lies still), its outline and the line it
    turns about in its piece's own mm, and where its piece lies on the parent before it turns.

    ``angle`` is that of the open thing in degrees, positive towards the eye; ``turns`` are (number of a
    closing group, degrees it adds). ``lifts`` shift it in the parent's own axes in every state, to keep
    layers apart.
    """

    key: Key
    parent: int
    outline: Polygon
    line: tuple[Point, Point] | None
    place: Pose
    angle: float
    turns: tuple[tuple[int, float], ...]
    lifts: tuple[Vector, ...]


def tree(worked: FoldResult) -> tuple[Node, ...]:
    """Every panel that hangs together with the first piece's base, parents first."""
    assembly = worked.assembly
    first = next(iter(assembly.pieces.values()))
    root = (first.name, _base(worked))
    heights = [_heights(worked, state) for state in worked.states]
    order = {root: 0}
    nodes = [
        Node(root, -1, first[root[1]].outline, None, FLAT, 0.0, (), ((0.0, 0.0, 0.0),) * len(worked.states))
    ]
    todo = [root]
    while todo:
        key = todo.pop(0)
        for other, line, place, angles in _near(worked, key):
            if other in order:
                continue
            order[other] = len(nodes)
            todo.append(other)
            lifts = tuple(
                _lift(state.poses[key], high.get(other, 0.0) - high.get(key, 0.0))
                for state, high in zip(worked.states, heights, strict=True)
            )
            outline = assembly.pieces[other[0]][other[1]].outline
            turns = tuple(
                (number, after - before)
                for number, (before, after) in enumerate(itertools.pairwise(angles))
                if after != before
            )
            nodes.append(Node(other, order[key], outline, line, place, angles[0], turns, lifts))
    return tuple(nodes)


def _base(worked: FoldResult) -> str:
    """The panel that never moves."""
    first = next(iter(worked.assembly.pieces.values()))
    return next(
        (
            panel.name
            for panel in first.panels
            if all(state.poses[first.name, panel.name] == FLAT for state in worked.states)
        ),
        first.panels[0].name,
    )


def _near(worked: FoldResult, key: Key) -> list[tuple[Key, tuple[Point, Point] | None, Pose, list[float]]]:
    """What hangs on a panel: (panel, the line it turns about with the panel on its positive side, where its
    piece lies, the angle in each state)."""
    name, panel = key
    piece = worked.assembly.pieces[name]
    found: list[tuple[Key, tuple[Point, Point] | None, Pose, list[float]]] = []
    for crease in piece.creases:
        if panel not in crease.between:
            continue
        other = crease.other if crease.one == panel else crease.one
        ends = (crease.start, crease.end)
        if side_of(*ends, middle(piece[other].outline)) < 0:
            ends = ends[::-1]
        angles = [state.angles.get((name, crease.one, crease.other), 0.0) for state in worked.states]
        found.append(((name, other), ends, FLAT, angles))
    for join in worked.assembly.joins:
        if key == join.host:
            found.append((join.laid, None, join.pose, [0.0] * len(worked.states)))
        elif key == join.laid:
            found.append((join.host, None, join.pose.back, [0.0] * len(worked.states)))
    return found


def _heights(worked: FoldResult, state: State) -> dict[Key, float]:
    """How high each layer is drawn above where the kernel has it, which gives paper no thickness; what stands
    goes with what it stands on."""
    found = {key: LIFT_MM * number for number, key in enumerate(state.pile)}
    flat = dict(found)
    for name, piece in worked.assembly.pieces.items():
        for crease in piece.creases:
            for one, other in ((crease.one, crease.other), (crease.other, crease.one)):
                if (name, one) not in flat and (name, other) in flat:
                    low = min(found.get((name, one), flat[name, other]), flat[name, other])
                    found[name, one] = low
    return found


def _lift(parent: Pose, by: float) -> Vector:
    """A shift straight up, in the parent's own axes."""
    return (round(parent.x[2] * by, 3), round(parent.y[2] * by, 3), round(parent.z[2] * by, 3))
