"""A case with a flat back: two boards and a spine strip covered in one piece, into which the block is
hung."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.kinds import Traits
from pleat.core.pleats.cover import hard
from pleat.core.pleats.cover.hard import HardCoverSpec, HardResult
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.shell import Hard, Shell


class Case(Hard):
    """Pleat 6: a case."""

    kind: Literal["case"] = "case"


def _own(cover: Case, shell: Shell, left: LeftOfCover) -> HardCoverSpec:
    covering, parts = hard.one_piece(cover, shell, left)
    return HardCoverSpec(covering, parts)


def compute(cover: Case, left: LeftOfCover) -> HardResult:
    """The case around the block."""
    return hard.compute(cover, left, _own)


KIND: Final = CoverKind(
    name="case",
    title="case with a flat back",
    summary="Two boards and a spine strip covered in cloth or paper; the sewn block is hung in.",
    record=Case,
    compute=compute,
    roles=("board", "covering", "lining"),
    takes=frozenset({"block", "spine"}),
    hung=True,
    traits=Traits(glue=True),
)
