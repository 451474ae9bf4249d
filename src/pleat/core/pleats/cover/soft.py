"""Soft covers in one piece that close over a block: put together as a folding programme, so that gussets,
faces and fasteners are read off it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.assembly import Assembly, State
from pleat.core.engines.folding.carried import carried
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.pile import Gusset, PanelFace, faces, gussets
from pleat.core.engines.folding.sheet import Piece, board
from pleat.core.pleats.cover.fasteners import Landing

WRAP, BLOCK = "wrap", "block"


@dataclass(frozen=True)
class Closed:
    """A soft cover shut over its block: the programme, the state, the room its gussets give and need, and
    what shows from the front."""

    assembly: Assembly
    state: State
    gussets: Mapping[str, Gusset]
    front: tuple[PanelFace, ...]

    def lands(self, on: str, point: Point, other: str) -> Point | None:
        """Where what sits on a panel's point lands on another, in the piece's own mm."""
        return carried(self.assembly, self.state, (WRAP, on), point, (WRAP, other))


def close(
    wrap: Piece,
    base: str,
    block: tuple[float, float, Point],
    folds: Sequence[Sequence[tuple[str, str, float]]],
    calipers: Mapping[str, Estimate],
) -> Closed:
    """The wrap inside up, the block (width, height, its corner on the sheet) laid on its ``base``, then
    folded shut group by group; angles as seen from inside: +90 stands up, +180 lies on it. mm."""
    assembly = Assembly()
    assembly.add(wrap, base, over=True)
    width, height, corner = block
    assembly.add(board(BLOCK, BLOCK, width, height))
    assembly.lay((BLOCK, "body"), (wrap.name, base), corner, face="B", side="B")
    assembly.mark("open")
    for group in folds:
        assembly.fold(wrap.name, *((one, other, -degrees) for one, other, degrees in group))
    state = assembly.mark("shut")
    room = {gusset.wall[1]: gusset for gusset in gussets(assembly, state, calipers)}
    return Closed(assembly, state, room, faces(assembly, state))


def landing(closed: Closed, on: str, point: Point, other: str, edges: Mapping[str, float]) -> Landing | None:
    """Both halves of a fastener, each by its panel, its distance from the panel's edge named in ``edges`` (mm
    from the sheet's left) and from the head; None where the second half would miss its panel."""
    found = closed.lands(on, point, other)
    if found is None:
        return None
    return Landing((on, abs(point[0] - edges[on]), point[1]), (other, abs(found[0] - edges[other]), found[1]))
