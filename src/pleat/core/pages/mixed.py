"""A pile of mixed papers as folios: how each folds into the book, how thick it is, and in which section it lies."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache
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

    ``piece_*`` is one leaf of it before the block is trimmed, ``leaf_*`` after.

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
    piece_width_mm: float
    piece_height_mm: float
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
    arranged: PileFolio = field(init=False, repr=False, compare=False)
    """The same sheet as arranging sees it."""

    def __post_init__(self) -> None:
        seen = PileFolio(self.id, self.caliper.likely, self.leaf_height_mm, self.toughness, self.words, self.window)  # type: ignore[arg-type]
        object.__setattr__(self, "arranged", seen)

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


def same_paper(paper: Paper) -> tuple[object, ...]:
    """What makes two sheets of a pile the same paper: the shelf's item, else name and size."""
    return (paper.stock_id,) if paper.stock_id else (paper.name, paper.sheet_width_mm, paper.sheet_height_mm)


@dataclass(frozen=True)
class _Way:
    """How a sheet is folded: its leaf in mm, whether it is cut for that, and which of its sides (w or h) the spine lies along."""

    width_mm: float
    height_mm: float
    cut: bool
    with_grain: bool | None
    spine: Literal["w", "h"]
    room_mm: float


def folio(
    sheet: PileSheet,
    leaf_width_mm: float,
    leaf_height_mm: float,
    joined: Literal["folded", "stub", "tipped"] = "folded",
    trim_mm: float = 0.0,
) -> MixedFolio:
    """How a sheet goes into a book of this leaf: the way round that gives the larger leaf, with the grain where both do.

    On a stub, or tipped in, it is a single leaf and not folded. A fold-out goes before all else.
    ``trim_mm`` comes off head, tail and fore edge of the finished block.
    """
    paper = sheet.paper
    beside = (sheet.flap_mm or 0.0) * sheet.flap_panels
    way = _way(
        paper.sheet_width_mm, paper.sheet_height_mm, paper.grain, fits_pattern(paper),
        leaf_width_mm + trim_mm, leaf_height_mm + 2 * trim_mm, 2 if joined == "folded" else 1, beside,
    )  # fmt: skip
    return MixedFolio(
        sheet.id, paper.name, _words(paper.name, paper.tags, paper.swatch), paper.swatch, paper.sides, paper.toughness,
        sheet.window == "yes", sheet.pinned, thickness(paper).sheet, min(way.width_mm, leaf_width_mm),
        min(way.height_mm, leaf_height_mm), way.width_mm, way.height_mm, way.cut, way.with_grain,
        fits_pattern(paper) and way.spine == "w", way.spine == "w", same_paper(paper), paper.owned, paper.stock_id is not None,
        sheet.flap_mm or 0.0, sheet.flap_panels, way.room_mm, joined,
    )  # fmt: skip


@lru_cache(maxsize=2000)
def _way(
    sheet_width: float,
    sheet_height: float,
    grain: str,
    upright_only: bool,
    leaf_width: float,
    leaf_height: float,
    parts: int,
    beside: float,
) -> _Way:
    """The better way round for a sheet of ``parts`` leaves with so much beside them; the sheets of one paper ask for the same."""
    axis = grain_axis(sheet_width, sheet_height, grain)
    ways: list[tuple[tuple[bool, int, bool, bool, bool], _Way]] = []
    sides: tuple[tuple[float, float, Literal["w", "h"]], ...] = ((sheet_width, sheet_height, "h"), (sheet_height, sheet_width, "w"))
    for across, along, spine in sides:
        width, height = min(across / parts, leaf_width), min(along, leaf_height)
        room = max(0.0, across - parts * leaf_width)
        cut = across > parts * leaf_width + beside + HAIR_MM or along > leaf_height + HAIR_MM
        with_grain = None if axis is None else axis == spine
        upright = not upright_only or spine == "h"
        wishes = (beside <= room + HAIR_MM, round(width * height), upright, with_grain is not False, not cut)
        ways.append((wishes, _Way(width, height, cut, with_grain, spine, room)))
    return max(ways, key=lambda one: one[0])[1]


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
    size = (leaf_width_mm, leaf_height_mm)
    trim = pages.trim_mm if pages.edges == "trim" else 0.0
    folios = {sheet.id: folio(sheet, *size, singles.get(sheet.id, "folded"), trim) for sheet in pages.pile}
    order = pages.order
    wanted = min(pages.sections, len(folios))
    if sorted(one for section in order for one in section) != sorted(folios) or len(order) != wanted or not all(order):
        order = dealt([one.arranged for one in folios.values()], wanted)
    return tuple(tuple(folios[one] for one in section) for section in order)
