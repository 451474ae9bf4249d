"""What can cover a block."""

from typing import Final

from pleat.core.base.kinds import Registry
from pleat.core.pleats.cover.kinds import (
    bare,
    boards,
    cards,
    case,
    coveredboards,
    flapped,
    flatwrap,
    layered,
    padcover,
    padded,
    punchedboards,
    quarter,
    sheath,
    threepiece,
    wrap,
)
from pleat.core.pleats.cover.result import CoverKind

COVERS: Final[Registry[CoverKind]] = Registry(
    "cover",
    (
        wrap.KIND,
        flapped.KIND,
        flatwrap.KIND,
        layered.KIND,
        case.KIND,
        quarter.KIND,
        padded.KIND,
        threepiece.KIND,
        sheath.KIND,
        boards.KIND,
        coveredboards.KIND,
        cards.KIND,
        punchedboards.KIND,
        padcover.KIND,
        bare.KIND,
    ),
)
