"""What lies on the faces of something folded, against the gussets that close over it (slips F5 and F8)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Check, Offer
from pleat.core.base.points import point
from pleat.core.base.units import HAIR_MM, Ruler
from pleat.core.engines.bulk import Bulk, Patch
from pleat.core.engines.folding.assembly import Key
from pleat.core.pleats.extras.spots import PlacedItem
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.pleats.structures.made import Room, proposed

MOST_MM: Final = 80.0
"""No wider gusset is proposed: the narrowest limit of any folio."""


@point("gussets", "what closes over what is put in")
def checks(
    _block: Block, _put: Sequence[tuple[PlacedItem, tuple[Patch, ...]]], _ruler: Ruler
) -> tuple[Check, ...]:
    """Leaves that are held at one edge have no gussets."""
    return ()


@checks.register
def _folded(
    block: FoldedBlock, put: Sequence[tuple[PlacedItem, tuple[Patch, ...]]], ruler: Ruler
) -> tuple[Check, ...]:
    found = [
        _room(block, room, more, ruler)
        for room in block.made.rooms
        if (more := most(block, room, put)).likely
    ]
    return tuple(check for check in found if check)


def most(block: FoldedBlock, room: Room, put: Sequence[tuple[PlacedItem, tuple[Patch, ...]]]) -> Estimate:
    """The most that things put in add between the two panels of a gusset, over one place; the fullest copy
    counts."""
    inside = within(block, room.wall)
    each: dict[int, list[Patch]] = {}
    for item, patches in put:
        if side_of(item.face.name) in inside:
            each.setdefault(item.face.leaf, []).extend(patches)
    return max(
        (Bulk(tuple(on)).worst().thick for on in each.values()),
        key=lambda estimate: estimate.likely,
        default=Estimate.exact(0.0),
    )


def side_of(name: str) -> tuple[str, str, str]:
    """(piece, panel, side) of a face by its name."""
    where, _, side = name.rpartition(":")
    piece, _, panel = where.partition("/")
    first, _, rest = piece.partition(" ")
    return (rest if first.isdigit() else piece), panel, side


def within(block: FoldedBlock, wall: Key) -> frozenset[tuple[str, str, str]]:
    """The faces between the two panels that a gusset joins, when it is shut."""
    shut, piece = block.made.folded.shut, block.made.folded.assembly.pieces[wall[0]]
    ends = [
        crease.other if crease.one == wall[1] else crease.one
        for crease in piece.creases
        if wall[1] in crease.between
    ]
    places = sorted(shut.pile.index((wall[0], end)) for end in ends if (wall[0], end) in shut.pile)
    if len(places) < 2:
        return frozenset()
    low, high = shut.pile[places[0]], shut.pile[places[-1]]
    found = {(*key, side) for key in shut.pile[places[0] + 1 : places[-1]] for side in "AB"}
    for key, up in ((low, True), (high, False)):
        found.add((*key, "A" if (shut.poses[key].z[2] > 0) == up else "B"))
    return frozenset(found)


def _value(block: FoldedBlock, room: Room, size: float) -> float | list[float]:
    """What the field of a gusset is set to: its size, or those of all that stand in one list with it."""
    path = block.gussets[room.name]
    listed = [one for one in block.made.rooms if block.gussets.get(one.name) == path]
    if len(listed) < 2:
        return size
    return [size if one is room else one.has_mm for one in listed]


def _room(block: FoldedBlock, room: Room, more: Estimate, ruler: Ruler) -> Check | None:
    need = room.stiff.plus(more)
    if need.likely <= room.has_mm + max(ruler.step_mm / 2, HAIR_MM):
        return None
    first = block.made.programme.closing[:1]
    later = not any(room.name in names for group in first for fold in group.folds for names in fold.angles)
    size = proposed(need, ruler)
    path = block.gussets.get(room.name) if size <= MOST_MM else None
    return Check(
        code="F8" if later else "F5",
        level="stop",
        title=f"With what is put in, {ruler.thin(need.likely)} lie in the {room.name} of "
        f"{ruler.thin(room.has_mm)}.",
        why=f"{ruler.thin(more.likely)} of that is put in. What closes over it cannot come down flat: it "
        f"gapes by {ruler.thin(need.likely - room.has_mm)}.",
        offers=(Offer(label=f"{room.name} {ruler.show(size)}", changes=((path, _value(block, room, size)),)),)
        if path
        else (),
        no_fix="" if path else f"Make the {room.name} {ruler.show(size)}, or put thinner things in.",
    )
