"""A sheet as it is cut: where its pieces lie, the cuts in their order, what is left. One that was cut is a
fact and stays as it was."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, field, replace
from hashlib import blake2b
from typing import Final, Literal

from pleat.core.engines.packing.problem import Packing

GrainAxis = Literal["w", "h"]
"""The side of a sheet that its grain runs along."""

SAME_MM: Final = 0.05
"""Sizes that are the same to the eye and the knife."""


@dataclass(frozen=True)
class CutPiece:
    """Equal pieces side by side, ``across`` and ``down``, where the first of them lies on a sheet, in mm from
    its left upper corner; ``part`` is the key of their part."""

    part: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    turned: bool
    across: int = 1
    down: int = 1

    @property
    def count(self) -> int:
        return self.across * self.down

    @property
    def own_size(self) -> tuple[float, float]:
        """(width, height) in mm as its part has them."""
        return (self.height_mm, self.width_mm) if self.turned else (self.width_mm, self.height_mm)

    def is_as(self, width_mm: float, height_mm: float) -> bool:
        """Whether it is of that size."""
        width, height = self.own_size
        return abs(width - width_mm) <= SAME_MM and abs(height - height_mm) <= SAME_MM


@dataclass(frozen=True)
class CutLine:
    """A cut from edge to edge of what is there, ``fence_mm`` from the left edge of that (upright) or from its
    upper edge (level); cuts are made in the order of their numbers."""

    number: int
    axis: Literal["upright", "level"]
    x_mm: float
    y_mm: float
    length_mm: float
    fence_mm: float


@dataclass(frozen=True)
class SheetCut:
    """Equal sheets, ``times`` of them, that are cut in one way; of a roll the ``height_mm`` that is cut off.
    ``offcuts`` are (x, y, width, height) in mm; ``offcut`` is the number among the materials of the offcut it
    is, "" where it is a whole sheet; ``other`` the name of the material where it is a whole sheet of another
    one, whose number ``offcut`` is then."""

    times: int
    width_mm: float
    height_mm: float
    pieces: tuple[CutPiece, ...]
    cuts: tuple[CutLine, ...]
    offcuts: tuple[tuple[float, float, float, float], ...]
    first_part: str
    offcut: str = ""
    other: str = ""
    pinned: bool = False

    @property
    def key(self) -> str:
        """What tells it from every other sheet of a plan, however many of it there are."""
        told = repr((self.offcut, self.width_mm, self.height_mm, self.pieces))
        return blake2b(told.encode(), digest_size=6).hexdigest()

    def counts(self) -> dict[str, int]:
        """How many pieces of each part lie on it, by the part's key."""
        found: dict[str, int] = {}
        for piece in self.pieces:
            found[piece.part] = found.get(piece.part, 0) + piece.count
        return found


@dataclass(frozen=True)
class CutSheet:
    """Sheets that were cut, whatever the book is by now: ``of`` is the number of the material among the
    materials and ``material`` its name, ``stock`` the key in the book of what they were cut for, ``step`` the
    bench step by whose tick (""; by a tick of their own), ``names`` those of the parts by their keys, and
    ``number`` that of the fact."""

    number: int
    step: str
    stock: str
    of: str
    material: str
    grain: GrainAxis | None
    roll: bool
    sheet: SheetCut
    names: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Remnant:
    """Equal offcuts among the materials: their number there, size in mm, and how many there are. ``whole``
    sheets of another material that serves as well have a ``price`` each, and without a count (None) as many
    as it takes. ``margins`` (left, top, right, bottom) and ``windows`` (x, y, width, height) cannot be
    used."""

    number: str
    name: str
    width_mm: float
    height_mm: float
    grain: GrainAxis | None
    count: int | None
    whole: bool = False
    price: float | None = None
    margins: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    windows: tuple[tuple[float, float, float, float], ...] = ()

    @property
    def turned(self) -> Remnant:
        """It a quarter turn to the right."""
        left, top, right, bottom = self.margins
        return replace(
            self,
            width_mm=self.height_mm,
            height_mm=self.width_mm,
            grain={"w": "h", "h": "w", None: None}[self.grain],
            margins=(bottom, left, top, right),
            windows=tuple((self.height_mm - y - high, x, high, wide) for x, y, wide, high in self.windows),
        )


@dataclass(frozen=True)
class Shelf:
    """What lies there for one book beside its own sheets: offcuts of each of its materials by the number of
    that material, sheets that serve as well by the key of the stock, what was cut for it already, and plans
    that were made better by the keys of their problems."""

    remnants: tuple[tuple[str, tuple[Remnant, ...]], ...] = ()
    also: tuple[tuple[str, tuple[Remnant, ...]], ...] = ()
    cut: tuple[CutSheet, ...] = field(default=(), repr=False)
    better: tuple[tuple[str, Packing], ...] = field(default=(), repr=False)

    def without(self, spared: Collection[str]) -> Shelf:
        """The shelf without offcuts of those numbers."""
        if not spared:
            return self
        left = (
            (item, tuple(remnant for remnant in own if remnant.number not in spared))
            for item, own in self.remnants
        )
        return replace(self, remnants=tuple(left))

    def beside(self, item: str) -> tuple[Remnant, ...]:
        return next((remnants for number, remnants in self.remnants if item and number == item), ())

    def serving(self, stocks: Collection[str]) -> tuple[Remnant, ...]:
        """Sheets of other materials that serve for any of these stocks, each once."""
        found = {one.number: one for key, own in self.also if key in stocks for one in own}
        return tuple(found.values())


EMPTY_SHELF: Final = Shelf()


def done_of(part: str, width_mm: float, height_mm: float, cut: Iterable[CutSheet]) -> int:
    """How many pieces of a part were cut in the size it has now."""
    return sum(
        piece.count * fact.sheet.times
        for fact in cut
        for piece in fact.sheet.pieces
        if piece.part == part and piece.is_as(width_mm, height_mm)
    )


def longest_cut_mm(sheets: Sequence[SheetCut]) -> float:
    return max((cut.length_mm for sheet in sheets for cut in sheet.cuts), default=0.0)
