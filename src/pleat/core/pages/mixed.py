"""A pile of mixed papers as folios: how each folds into the book, how thick it is, and in which section it lies."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.book import Pages, PileSheet
from pleat.core.estimate import Estimate
from pleat.core.materials.thickness import thickness
from pleat.core.materials.uses import grain_axis
from pleat.core.pages.arrange import PileFolio, dealt

HAIR_MM: Final = 0.05


@dataclass(frozen=True)
class MixedFolio:
    """A sheet of the pile folded once; lengths in mm. ``cut`` says that it has to be cut down to the book's leaf first."""

    id: int
    name: str
    words: frozenset[str]
    swatch: str
    sides: int
    toughness: str
    window: bool
    pinned: bool
    caliper: Estimate
    leaf_width_mm: float
    leaf_height_mm: float
    cut: bool
    with_grain: bool | None

    @property
    def arranged(self) -> PileFolio:
        """As arranging sees it."""
        return PileFolio(self.id, self.caliper.likely, self.leaf_height_mm, self.toughness, self.words, self.window)  # type: ignore[arg-type]


def folio(sheet: PileSheet, leaf_width_mm: float, leaf_height_mm: float) -> MixedFolio:
    """How a sheet folds into a book of this leaf: the way round that gives the larger leaf, with the grain where both do."""
    paper = sheet.paper
    axis = grain_axis(paper.sheet_width_mm, paper.sheet_height_mm, paper.grain)
    ways = []
    for across, along, spine in ((paper.sheet_width_mm, paper.sheet_height_mm, "h"), (paper.sheet_height_mm, paper.sheet_width_mm, "w")):
        width, height = min(across / 2, leaf_width_mm), min(along, leaf_height_mm)
        cut = across / 2 > leaf_width_mm + HAIR_MM or along > leaf_height_mm + HAIR_MM
        with_grain = None if axis is None else axis == spine
        ways.append((round(width * height), with_grain is not False, not cut, width, height, cut, with_grain))
    *_, width, height, cut, with_grain = max(ways, key=lambda way: way[:3])
    words = frozenset(f"{paper.name} {paper.tags} {paper.swatch}".lower().replace(",", " ").split())
    return MixedFolio(
        sheet.id, paper.name, words, paper.swatch, paper.sides, paper.toughness, sheet.window == "yes", sheet.pinned,
        thickness(paper).sheet, width, height, cut, with_grain,
    )  # fmt: skip


def sections_of(pages: Pages, leaf_width_mm: float, leaf_height_mm: float) -> tuple[tuple[MixedFolio, ...], ...]:
    """The pile as sections of folios from the outside in: as arranged, else dealt out; empty for a book without a pile."""
    if not pages.pile:
        return ()
    folios = {sheet.id: folio(sheet, leaf_width_mm, leaf_height_mm) for sheet in pages.pile}
    order = pages.order
    wanted = min(pages.sections, len(folios))
    if sorted(one for section in order for one in section) != sorted(folios) or len(order) != wanted or not all(order):
        order = dealt([one.arranged for one in folios.values()], wanted)
    return tuple(tuple(folios[one] for one in section) for section in order)
