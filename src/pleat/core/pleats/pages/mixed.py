"""A pile of mixed papers as folios: how each folds into the book, how thick it is, and in which section it
lies."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.units import HAIR_MM
from pleat.core.materials.items import Paper
from pleat.core.materials.thickness import thickness
from pleat.core.materials.uses import fits_pattern, grain_axis
from pleat.core.pleats.pages.arrange import PileFolio, dealt
from pleat.core.pleats.pages.record import PileSheet, Sections
from pleat.core.trade.pages import NARROWEST_LEAF_MM


@dataclass(frozen=True)
class MixedFolio:
    """A sheet of the pile folded once; lengths in mm. ``cut`` says that it has to be cut down to the book's
    leaf first.

    ``first_*`` and ``second_*`` are its leaves before and behind the fold, of which one may be narrower; a
    single leaf is a first one. ``..._piece_mm`` are their widths before the block is trimmed,
    ``..._width_mm`` after. ``window`` is the window's place on the first leaf as (from the fore edge, from
    the head, width, height), ``window_cut`` says that it is still to be cut.

    ``flap_room_mm`` is what the sheet leaves beside its leaves for a fold-out, all panels together. ``stock``
    is the key of its paper, of which ``owned`` are there (None: not counted), counted ``in_materials`` or in
    the book. ``turned`` says that the spine lies along the sheet's width.
    """

    id: int
    name: str
    words: frozenset[str]
    swatch: str
    sides: int
    toughness: Literal["weak", "usual", "tough"]
    window: tuple[float, float, float, float] | None
    window_cut: bool
    pinned: bool
    caliper: Estimate
    first_width_mm: float
    second_width_mm: float
    leaf_height_mm: float
    first_piece_mm: float
    second_piece_mm: float
    piece_height_mm: float
    cut: bool
    with_grain: bool | None
    sideways: bool
    turned: bool = False
    stock: str = ""
    owned: int | None = None
    in_materials: bool = False
    flap_mm: float = 0.0
    flap_panels: int = 1
    flap_room_mm: float = 0.0
    joined: Literal["folded", "stub", "tipped"] = "folded"
    arranged: PileFolio = field(init=False, repr=False, compare=False)
    """The same sheet as arranging sees it."""

    def __post_init__(self) -> None:
        seen = PileFolio(
            self.id,
            self.caliper.likely,
            self.leaf_height_mm,
            self.toughness,
            self.words,
            self.window is not None,
            self.at_fold,
        )
        object.__setattr__(self, "arranged", seen)

    @property
    def leaf_width_mm(self) -> float:
        """The width of its wider leaf."""
        return (
            max(self.first_width_mm, self.second_width_mm) if self.joined == "folded" else self.first_width_mm
        )

    @property
    def least_width_mm(self) -> float:
        """The width of its narrower leaf."""
        return (
            min(self.first_width_mm, self.second_width_mm) if self.joined == "folded" else self.first_width_mm
        )

    @property
    def flap_leaf_mm(self) -> float:
        """The width of the leaf that a fold-out hangs on."""
        return self.second_width_mm if self.joined == "folded" else self.first_width_mm

    @property
    def open_mm(self) -> float:
        """Its width, opened, before the block is trimmed."""
        return self.first_piece_mm + (self.second_piece_mm if self.joined == "folded" else 0.0)

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


@dataclass(frozen=True)
class _Way:
    """How a sheet is folded: its leaves in mm, whether it is cut for that, and which of its sides (w or h)
    the spine lies along."""

    first_mm: float
    second_mm: float
    height_mm: float
    cut: bool
    with_grain: bool | None
    spine: Literal["w", "h"]
    room_mm: float


def folio(
    sheet: PileSheet,
    paper: Paper,
    leaf_width_mm: float,
    leaf_height_mm: float,
    joined: Literal["folded", "stub", "tipped"] = "folded",
    trim_mm: float = 0.0,
) -> MixedFolio:
    """How a sheet of ``paper`` goes into a book of this leaf: the way round that gives the larger leaf, with
    the grain where both do.

    On a stub, or tipped in, it is a single leaf and not folded. A fold-out goes before all else. ``trim_mm``
    comes off head, tail and fore edge of the finished block.
    """
    beside = (sheet.flap_mm or 0.0) * sheet.flap_panels
    leaf = _Wanted(
        leaf_width_mm + trim_mm, leaf_height_mm + 2 * trim_mm, 2 if joined == "folded" else 1, beside
    )
    way = _way(
        (paper.sheet_width_mm, paper.sheet_height_mm),
        paper.grain,
        fits_pattern(paper),
        leaf,
        sheet.lies,
        sheet.narrow,
    )
    first, height = min(way.first_mm, leaf_width_mm), min(way.height_mm, leaf_height_mm)
    return MixedFolio(
        id=sheet.id,
        name=paper.name,
        words=_words(paper.name, paper.tags, paper.swatch),
        swatch=paper.swatch,
        sides=paper.sides,
        toughness=paper.toughness,
        window=_window(sheet, first, height),
        window_cut=sheet.window == "yes"
        and (sheet.window_width_mm is not None or sheet.window_height_mm is not None),
        pinned=sheet.pinned,
        caliper=thickness(paper).sheet,
        first_width_mm=first,
        second_width_mm=min(way.second_mm, leaf_width_mm),
        leaf_height_mm=height,
        first_piece_mm=way.first_mm,
        second_piece_mm=way.second_mm,
        piece_height_mm=way.height_mm,
        cut=way.cut,
        with_grain=way.with_grain,
        sideways=fits_pattern(paper) and way.spine == "w",
        turned=way.spine == "w",
        stock=sheet.paper,
        owned=paper.owned,
        in_materials=paper.stock_id is not None,
        flap_mm=sheet.flap_mm or 0.0,
        flap_panels=sheet.flap_panels,
        flap_room_mm=way.room_mm,
        joined=joined,
    )


def _window(sheet: PileSheet, width: float, height: float) -> tuple[float, float, float, float] | None:
    """The window on a leaf of this size: as it was said, else in the middle."""
    if sheet.window == "no":
        return None
    wide = sheet.window_width_mm if sheet.window_width_mm is not None else width * 0.4
    high = sheet.window_height_mm if sheet.window_height_mm is not None else height * 0.3
    fore = sheet.window_fore_mm if sheet.window_fore_mm is not None else (width - wide) / 2
    return (
        fore,
        sheet.window_head_mm if sheet.window_head_mm is not None else (height - high) / 2,
        wide,
        high,
    )


@dataclass(frozen=True)
class _Wanted:
    """The leaf in mm that is wanted of a sheet, how many of them it is to give, and what hangs beside
    them."""

    width_mm: float
    height_mm: float
    parts: int
    beside_mm: float


@lru_cache(maxsize=2000)
def _way(
    sheet_mm: tuple[float, float],
    grain: str,
    upright_only: bool,
    leaf: _Wanted,
    lies: str = "auto",
    narrow: str = "both",
) -> _Way:
    """The better way round for a sheet of these leaves; the sheets of one paper ask for the same.

    Where the grain speaks for neither, the way that gives more pieces is the better one.
    """
    sheet_width, sheet_height = sheet_mm
    leaf_width, leaf_height, parts, beside = leaf.width_mm, leaf.height_mm, leaf.parts, leaf.beside_mm
    axis = grain_axis(sheet_width, sheet_height, grain)
    ways: list[tuple[tuple[bool, bool, int, bool, bool, int, bool], _Way]] = []
    sides: tuple[tuple[float, float, Literal["w", "h"]], ...] = (
        (sheet_width, sheet_height, "h"),
        (sheet_height, sheet_width, "w"),
    )
    for across, along, spine in sides:
        first, second = _leaves(across, leaf_width, parts, narrow)
        height = min(along, leaf_height)
        room = max(0.0, across - parts * leaf_width)
        cut = across > parts * leaf_width + beside + HAIR_MM or along > leaf_height + HAIR_MM
        with_grain = None if axis is None else axis == spine
        upright = not upright_only or spine == "h"
        pieces = int((across + HAIR_MM) / (parts * leaf_width + beside)) * int(
            (along + HAIR_MM) / leaf_height
        )
        wishes = (
            lies == "auto" or (lies == "turned") == (spine == "w"),
            beside <= room + HAIR_MM,
            round((first + second) / 2 * height),
            upright,
            with_grain is not False,
            pieces,
            not cut,
        )
        ways.append((wishes, _Way(first, second, height, cut, with_grain, spine, room)))
    return max(ways, key=lambda one: one[0])[1]


def _leaves(across: float, leaf: float, parts: int, narrow: str) -> tuple[float, float]:
    """The widths of the leaves of a sheet so wide: as wide as the book's, else both narrower or the one that
    was chosen."""
    half = min(across / parts, leaf)
    if parts == 1 or narrow == "both" or half == leaf or across - leaf < NARROWEST_LEAF_MM:
        return half, half
    return (across - leaf, leaf) if narrow == "first" else (leaf, across - leaf)


@lru_cache(maxsize=2000)
def _words(*texts: str) -> frozenset[str]:
    """What a paper is known by; papers that share many of these words look alike."""
    return frozenset(" ".join(texts).lower().replace(",", " ").split())


def sections_of(
    pages: Sections, papers: Mapping[str, Paper], leaf_width_mm: float, leaf_height_mm: float
) -> tuple[tuple[MixedFolio, ...], ...]:
    """The pile as sections of folios from the outside in: as arranged, else dealt out; empty for a book
    without a pile.

    ``papers`` are the book's own by their keys.
    """
    if not pages.pile:
        return ()
    singles: dict[int, Literal["folded", "stub", "tipped"]] = dict.fromkeys(pages.stubs, "stub")
    singles.update(dict.fromkeys(pages.tipped, "tipped"))
    size = (leaf_width_mm, leaf_height_mm)
    trim = pages.trim_mm if pages.edges == "trim" else 0.0
    folios = {
        sheet.id: folio(sheet, papers[sheet.paper], *size, singles.get(sheet.id, "folded"), trim)
        for sheet in pages.pile
    }
    order = pages.order
    wanted = min(pages.sections, len(folios))
    if (
        sorted(one for section in order for one in section) != sorted(folios)
        or len(order) != wanted
        or not all(order)
    ):
        order = dealt([one.arranged for one in folios.values()], wanted)
    return tuple(tuple(folios[one] for one in section) for section in order)
