"""What is seen on panels when a structure is opened and shut: papers of album leaves, and the places on all
papers."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass

from pleat.core.engines.folding.assembly import Key, Side, lies
from pleat.core.engines.folding.convex import Polygon, rectangle
from pleat.core.engines.folding.programme import LayOperation
from pleat.core.pleats.structures.dressing import Dressing, spread
from pleat.core.pleats.structures.made import BARE, Made


@dataclass(frozen=True)
class Mark:
    """A paper, or else a place on one or on the bare panel, on one side of a panel, in its piece's own mm."""

    side: Side
    outline: Polygon
    paper: bool


Marks = Mapping[Key, tuple[Mark, ...]]


def marks(made: Made) -> Marks:
    """The places on a structure by the panel they are painted on: papers are pieces and carry their own, bare
    panels carry theirs."""
    found: dict[Key, list[Mark]] = defaultdict(list)
    laid = {(lay.host, lay.side): added.piece for added, lay in made.laid}
    for dressing in made.dressings:
        paper = laid.get((dressing.key, dressing.side))
        if not dressing.places or paper is None:
            continue
        if paper.stock == BARE:
            found[dressing.key] += [
                Mark(dressing.side, place, paper=False) for place in _places(dressing, *dressing.corner)
            ]
        else:
            found[paper.name, paper.panels[0].name] += [
                Mark("A", place, paper=False) for place in _places(dressing, 0.0, 0.0)
            ]
    return {key: tuple(own) for key, own in found.items()}


def on_leaf(made: Made) -> tuple[Mark, ...]:
    """Papers and places of an album leaf worked out by itself, as they lie on the one piece that stands for
    it where leaves are hinged. What hangs on the leaf and turns, such as a flip, is left out."""
    programme = made.bare or made.programme
    first, pieces = programme.pieces[0], {piece.name: piece for piece in programme.pieces}
    glued = {
        operation.laid[0]: (
            operation,
            lies(
                pieces[operation.laid[0]].panels[0].outline,
                operation.at,
                operation.face,
                operation.side,
                operation.turn,
            ),
        )
        for operation in programme.build
        if isinstance(operation, LayOperation)
        and operation.host[0] == first.name
        and operation.at is not None
        and len(pieces[operation.laid[0]].panels) == 1
    }
    papered = {(lay.host, lay.side) for added, lay in made.laid if added.piece.stock != BARE}
    found = []
    for dressing in made.dressings:
        name, side = dressing.key[0], dressing.side
        own = (
            [Mark(side, rectangle(*dressing.corner, dressing.width_mm, dressing.height_mm), paper=True)]
            if (dressing.key, side) in papered
            else []
        )
        own += [Mark(side, place, paper=False) for place in _places(dressing, *dressing.corner)]
        if name == first.name:
            found += own
        elif name in glued and side != glued[name][0].face:
            lay, pose = glued[name]
            found += [Mark(lay.side, pose.on_table(mark.outline), mark.paper) for mark in own]
    return tuple(found)


def _places(dressing: Dressing, left: float, top: float) -> list[Polygon]:
    return (
        [rectangle(*place, *dressing.each_mm) for place in spread(dressing, left, top)]
        if dressing.places
        else []
    )
