"""Ways to close a folded thing: every order of its closing groups tried, with the room its gussets then need
and what gets in the way."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice, permutations
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.assembly import Assembly, Key
from pleat.core.engines.folding.convex import meets
from pleat.core.engines.folding.pile import gussets, thickest
from pleat.core.engines.folding.programme import FoldGroup, FoldResult, Programme, built, closed

MOST: Final = 48
"""Orders that are tried; more groups than four have more, of which the first are taken."""


@dataclass(frozen=True)
class ClosingOrder:
    """An order of closing: the groups by name, what each gusset needs stiff in mm, the shut thickness, and
    how many faults paper would have."""

    order: tuple[str, ...]
    needs: Mapping[Key, Estimate]
    thick: Estimate
    faults: int

    @property
    def fullest_mm(self) -> float:
        """What the fullest gusset needs."""
        return max((estimate.likely for estimate in self.needs.values()), default=0.0)


def ways(programme: Programme, calipers: Mapping[str, Estimate]) -> tuple[ClosingOrder, ...]:
    """The orders of the closing groups, those without faults first, then by the fullest gusset."""
    start = built(programme)
    orders = list(islice(permutations(programme.closing), MOST)) if programme.turns else [programme.closing]
    found = [_way(start.copy(), order, calipers) for order in orders]
    return tuple(sorted(found, key=lambda order: (order.faults, round(order.fullest_mm, 3))))


def _way(assembly: Assembly, order: tuple[FoldGroup, ...], calipers: Mapping[str, Estimate]) -> ClosingOrder:
    before = len(assembly.faults)
    closed(assembly, order)
    shut = assembly.mark("shut")
    needs = {gusset.wall: gusset.stiff for gusset in gussets(assembly, shut, calipers)}
    return ClosingOrder(
        tuple(group.name for group in order),
        needs,
        thickest(assembly, shut, calipers),
        len(assembly.faults) - before,
    )


def moved_by(worked: FoldResult) -> dict[str, tuple[Key, ...]]:
    """The panels that each closing group turns over or raises."""
    found = {}
    for group, before, after in zip(
        worked.programme.closing, worked.states[:-1], worked.states[1:], strict=True
    ):
        found[group.name] = tuple(key for key, pose in after.poses.items() if pose != before.poses[key])
    return found


def blocked(worked: FoldResult) -> dict[str, tuple[str, ...]]:
    """For each closing group the later ones whose panels lie over its own when all is shut: they have to be
    opened first."""
    moved = moved_by(worked)
    names, shut, pieces = list(moved), worked.shut, worked.assembly.pieces
    place = {key: number for number, key in enumerate(shut.pile)}
    first = {key: name for name in names for key in _fresh(moved, name)}
    found = {}
    for number, name in enumerate(names):
        own = [key for key, of in first.items() if of == name and key in place]
        found[name] = tuple(
            later
            for later in names[number + 1 :]
            if any(
                place[over] > place[key] and meets(shut.shadow(over, pieces), shut.shadow(key, pieces))
                for over in moved[later]
                if over in place and first.get(over) == later
                for key in own
            )
        )
    return found


def _fresh(moved: Mapping[str, tuple[Key, ...]], name: str) -> Iterator[Key]:
    """What no group after this one moves."""
    names = list(moved)
    later = {key for one in names[names.index(name) + 1 :] for key in moved[one]}
    return (key for key in moved[name] if key not in later)
