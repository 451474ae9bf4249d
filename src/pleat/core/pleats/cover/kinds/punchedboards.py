"""Two bare boards, drilled as the leaves are punched."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.pleats.cover.laid import LaidResult
from pleat.core.pleats.cover.punched import TwoCovers, compute
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover


class PunchedBoards(TwoCovers):
    """Pleat 6: two boards; they do not bend, and need no score."""

    kind: Literal["punchedboards"] = "punchedboards"


def of_board(cover: PunchedBoards, left: LeftOfCover) -> LaidResult:
    return compute(cover, left, "board", "board")


KIND: Final = CoverKind(
    name="punchedboards",
    title="two punched boards",
    summary="A board in front and one behind, drilled where the leaves have their holes.",
    record=PunchedBoards,
    compute=of_board,
    roles=("board",),
    takes=frozenset({"edge"}),
)
