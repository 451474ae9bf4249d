"""What hinges have in common: what stands to their left, what they hand on, and how wide the case around them
opens."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.flat import FieldAnchor, Flat
from pleat.core.engines.folding.programme import Programme
from pleat.core.pleats.binding.result import BindingResult, LeftOfBinding
from pleat.core.pleats.structures.made import Made
from pleat.core.trade.cases import GAP_BOARDS

CARD: Final = "card"
LEAF: Final = "album leaf"
"""The stock of a whole leaf, with all that is on it."""
CASE: Final = "case"
MOST_DRAWN: Final = 24
"""Leaves that are opened and shut in the moving view; an album with more shows as many."""


@dataclass(frozen=True, kw_only=True)
class HingedResult(BindingResult):
    """A hinge and its leaves; ``flats`` are its pieces, ``spots`` the fields on their drawing. ``need_mm`` is
    what all leaves take at the spine, hinge and all, ``end_mm`` what lies between the outermost leaf and a
    board, ``flange_mm`` what is glued on each board."""

    made: Made = field(compare=False)
    programme: Programme
    flats: tuple[Flat, ...]
    spots: tuple[FieldAnchor, ...] = ()
    need: Estimate
    end_mm: float = 0.0
    flange_mm: float = 0.0


@dataclass(frozen=True)
class Hinge:
    """What a hinge is worked out from, in mm: leaves and their size, how thick one is with all that is on it,
    the card of the hinge, the board of the case, how many layers of card lie at the spine, and what extras
    add to what all leaves take there beyond what they add to the spine."""

    count: int
    width: float
    height: float
    leaf: Estimate
    card: Estimate
    board: float
    ruler: Ruler
    layers: int
    put_in: float = 0.0

    def opens(self, gap_mm: float) -> float:
        """How far the case opens flat between its boards, as the three-piece case makes itself: spine board
        and both gaps, for leaves so far apart."""
        return self.ruler.snap_up(self.inside(gap_mm) + 2 * self.board) + 2 * self.ruler.snap_up(
            GAP_BOARDS * self.board
        )

    def inside(self, gap_mm: float) -> float:
        """What the leaves take at the spine when they stand so far apart: never less than they are thick."""
        return max(
            self.need.likely,
            (self.count - 1) * gap_mm
            + self.leaf.likely
            + (self.layers - 2 * (self.count - 1)) * self.card.likely,
        )

    def swell(self, gap_mm: float) -> Estimate:
        """By how much the block is thicker at the spine than its leaves are."""
        more = self.inside(gap_mm) - self.need.likely + self.put_in
        return self.card.times(self.layers).plus(Estimate.exact(more))

    @property
    def pitch(self) -> float:
        """What one leaf takes at the spine, its two layers of hinge card and all."""
        return self.leaf.likely + 2 * self.card.likely

    @property
    def need(self) -> Estimate:
        """What all of them take."""
        return self.leaf.times(self.count).plus(self.card.times(self.layers))


def hinge_of(left: LeftOfBinding, more: int = 0) -> Hinge:
    """The hinge for this block, two layers of card a leaf and so many ``more``; the case is taken to be as
    the three-piece case makes itself."""
    pages, ruler = left.pages, left.brief.ruler
    count = max(1, len(pages.units))
    card, board = left.paper.stock(CARD).caliper, left.paper.stock("board").caliper.likely
    on_leaf, added = left.extras.on_leaf, left.extras.added.likely
    leaf = pages.thickness.times(1 / count).plus(on_leaf)
    put_in = max(count * on_leaf.likely - added, 0.0)
    return Hinge(
        count, pages.leaf_width_mm, pages.leaf_height_mm, leaf, card, board, ruler, 2 * count + more, put_in
    )
