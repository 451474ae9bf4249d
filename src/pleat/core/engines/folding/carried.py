"""Places carried from one panel to another through a state: where the other half of a fastener lands."""

from __future__ import annotations

from pleat.core.engines.folding.assembly import Assembly, Key, State
from pleat.core.engines.folding.convex import Point, holds


def carried(assembly: Assembly, state: State, of: Key, point: Point, to: Key) -> Point | None:
    """The place on ``to``, in its piece's own mm, that lies over or under a point of ``of`` in a state; None
    where it misses the panel."""
    x, y, z = state.poses[of].place((*point, 0.0))
    pose = state.poses[to]
    level = pose.place((*assembly.pieces[to[0]][to[1]].outline[0], 0.0))[2]
    back = pose.back.place((x, y, level if pose.level else z))
    found = (back[0], back[1])
    return found if holds(assembly.pieces[to[0]][to[1]].outline, found) else None
