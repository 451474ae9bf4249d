"""A pile of mixed papers as folios: how each folds into the book, how thick it is, and in which section it lies."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Final, Literal

from pleat.core.book import Pages, PileSheet
from pleat.core.estimate import Estimate
from pleat.core.materials.items import Paper
from pleat.core.materials.thickness import thickness
from pleat.core.materials.uses import fits_pattern, grain_axis
from pleat.core.pages.arrange import PileFolio, dealt

HAIR_MM: Final = 0.05


@dataclass(frozen=True)
class MixedFolio:
    """A sheet of the pile folded once; lengths in mm. ``cut`` says that it has to be cut down to the book's leaf first.

    ``flap_room_mm`` is what the sheet leaves beside its leaves for a fold-out, all panels together. Sheets of one ``stock`` are the
    same paper, of which ``owned`` are there (None: not counted), counted ``on_shelf`` or in the book. ``turned`` says that the spine
    lies along the sheet's width.
    """

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
    sideways: bool
    turned: bool = False
    stock: tuple[object, ...] = ()
    owned: int | None = None
    on_shelf: bool = False
    flap_mm: float = 0.0
    flap_panels: int = 1
    flap_room_mm: float = 0.0
    joined: Literal["folded", "stub", "tipped"] = "folded"

    @property
    def leaves(self) -> int:
        return 2 if self.joined == "folded" else 1

    @property
    def in_fold(self) -> bool:
        """Whether the thread passes it: a leaf that is tipped in is only glued to its neighbour."""
        return self.joined != "tipped"

    @property
    def at_fold(self) -> int:
        """How many thicknesses of it lie at the spine: two leaves, a leaf and its stub, or one leaf."""
        return 2 if self.in_fold else 1

    @cached_property
    def arranged(self) -> PileFolio:
        """As arranging sees it."""
        return PileFolio(self.id, self.caliper.likely, self.leaf_height_mm, self.toughness, self.words, self.window)  # type: ignore[arg-type]


def same_paper(paper: Paper) -> tuple[object, ...]:
    """What makes two sheets of a pile the same paper: the shelf's item, else name and size."""
    return (paper.stock_id,) if paper.stock_id else (paper.name, paper.sheet_width_mm, paper.sheet_height_mm)


def folio(
    sheet: PileSheet, leaf_width_mm: float, leaf_height_mm: float, joined: Literal["folded", "stub", "tipped"] = "folded"
) -> MixedFolio:
    """How a sheet goes into a book of this leaf: the way round that gives the larger leaf, with the grain where both do.

    On a stub, or tipped in, it is a single leaf and not folded.
    """
    paper, parts = sheet.paper, 2 if joined == "folded" else 1
    beside = (sheet.flap_mm or 0.0) * sheet.flap_panels
    axis = grain_axis(paper.sheet_width_mm, paper.sheet_height_mm, paper.grain)
    ways = []
    for across, along, spine in ((paper.sheet_width_mm, paper.sheet_height_mm, "h"), (paper.sheet_height_mm, paper.sheet_width_mm, "w")):
        width, height = min(across / parts, leaf_width_mm), min(along, leaf_height_mm)
        cut = across > parts * leaf_width_mm + beside + HAIR_MM or along > leaf_height_mm + HAIR_MM
        room = max(0.0, across - parts * leaf_width_mm)
        with_grain = None if axis is None else axis == spine
        upright = not fits_pattern(paper) or spine == "h"
        wishes = (beside <= room + HAIR_MM, round(width * height), upright, with_grain is not False, not cut)
        ways.append((wishes, (width, height, cut, with_grain, spine, room)))
    width, height, cut, with_grain, spine, room = max(ways, key=lambda way: way[0])[1]
    words = _words(paper.name, paper.tags, paper.swatch)
    return MixedFolio(
        sheet.id, paper.name, words, paper.swatch, paper.sides, paper.toughness, sheet.window == "yes", sheet.pinned,
        thickness(paper).sheet, width, height, cut, with_grain, fits_pattern(paper) and spine == "w",
        spine == "w",
        same_paper(paper), paper.owned, paper.stock_id is not None, sheet.flap_mm or 0.0, sheet.flap_panels, room, joined,
    )  # fmt: skip


@lru_cache(maxsize=2000)
def _words(*texts: str) -> frozenset[str]:
    """What a paper is known by; papers that share many of these words look alike."""
    return frozenset(" ".join(texts).lower().replace(",", " ").split())


def sections_of(pages: Pages, leaf_width_mm: float, leaf_height_mm: float) -> tuple[tuple[MixedFolio, ...], ...]:
    """The pile as sections of folios from the outside in: as arranged, else dealt out; empty for a book without a pile."""
    if not pages.pile:
        return ()
    singles: dict[int, Literal["folded", "stub", "tipped"]] = dict.fromkeys(pages.stubs, "stub")
    singles.update(dict.fromkeys(pages.tipped, "tipped"))
    folios = {sheet.id: folio(sheet, leaf_width_mm, leaf_height_mm, singles.get(sheet.id, "folded")) for sheet in pages.pile}
    order = pages.order
    wanted = min(pages.sections, len(folios))
    if sorted(one for section in order for one in section) != sorted(folios) or len(order) != wanted or not all(order):
        order = dealt([one.arranged for one in folios.values()], wanted)
    return tuple(tuple(folios[one] for one in section) for section in order)
