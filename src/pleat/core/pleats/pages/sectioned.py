"""The block of folded sheets nested into sections, as it is handed to the right."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from pleat.core.base.estimate import Estimate
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.pages.counting import CountUnit, count_words
from pleat.core.pleats.pages.imposition import NumberedSheet
from pleat.core.pleats.pages.leaves import FoldOut, Leaf, PlainPaper, leaves_of_paper, leaves_of_pile
from pleat.core.pleats.pages.limits import FoldLimit
from pleat.core.pleats.pages.mixed import MixedFolio


@dataclass(frozen=True, kw_only=True)
class SectionsBlock(Block):
    """Folded sheets nested into sections; lengths in mm.

    ``sections`` holds the folios of each, front to back; ``creep`` is that of the innermost folio of the
    thickest. ``trim_mm`` is what comes off head, tail and fore edge. ``narrower_mm`` says by how much each
    leaf is cut narrower, section by section from the outside in; empty where none is. ``calipers_mm`` are the
    likely ones of every folio, and ``mixed`` the folios themselves of a pile.
    """

    folios: int
    sections: tuple[int, ...]
    folds: int
    mixed: tuple[tuple[MixedFolio, ...], ...]
    calipers_mm: tuple[tuple[float, ...], ...]
    trim_mm: float
    creep_how: str
    narrower_mm: tuple[tuple[float, ...], ...]
    counted_in: CountUnit
    creep: Estimate
    limit: FoldLimit
    flap_folios: int
    flap_panels: int
    flap_on: str
    numbered: tuple[NumberedSheet, ...]
    flap_room_mm: float

    @property
    def in_words(self) -> str:
        """Sheets, leaves and pages together; single leaves of a pile are not counted twice."""
        return count_words(self.folios, self.folds, self.leaves)

    @cached_property
    def in_order(self) -> tuple[Leaf, ...]:
        """The leaves of the finished block, front to back; worked out when they are first asked for."""
        if self.mixed:
            return leaves_of_pile(self.mixed)
        paper = PlainPaper(self.leaf_width_mm, self.leaf_height_mm, self.swatch, self.sides)
        flap = FoldOut(self.flap_mm if self.folds == 1 else 0.0, self.flap_panels, self.flap_on)
        return leaves_of_paper(self.sections, paper, flap)
