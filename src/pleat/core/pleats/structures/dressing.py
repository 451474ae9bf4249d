"""What faces are given: papers with an even border, and photographs on them. Sizes of what goes in by
name."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Member
from pleat.core.base.units import MM_PER_INCH
from pleat.core.engines.folding.assembly import Key, Side

Sized = Literal["none", "3.5x5", "4x6", "5x7", "9x13", "10x15", "13x18", "3x3", "a6", "a7", "card", "own"]
PHOTOS: Final[dict[Sized, tuple[str, float, float]]] = {
    "none": ("nothing", 0.0, 0.0),
    "3.5x5": ("photo 3 1/2 × 5 in", 3.5 * MM_PER_INCH, 5 * MM_PER_INCH),
    "4x6": ("photo 4 × 6 in", 4 * MM_PER_INCH, 6 * MM_PER_INCH),
    "5x7": ("photo 5 × 7 in", 5 * MM_PER_INCH, 7 * MM_PER_INCH),
    "9x13": ("photo 9 × 13 cm", 90.0, 130.0),
    "10x15": ("photo 10 × 15 cm", 100.0, 150.0),
    "13x18": ("photo 13 × 18 cm", 130.0, 180.0),
    "3x3": ("square 3 × 3 in", 3 * MM_PER_INCH, 3 * MM_PER_INCH),
    "a6": ("A6 card", 105.0, 148.0),
    "a7": ("A7 card", 74.0, 105.0),
    "card": ("bank card", 53.98, 85.6),
    "own": ("another size", 0.0, 0.0),
}
"""What goes in by name, upright: title, width and height in mm. Inch sizes are nominal (1 in = 25.4 mm); A
sizes by ISO 216; the bank card is ID-1 of ISO/IEC 7810; photographs in cm are sold so (common practice, no
source)."""
SIZED: Final = tuple((str(key), title) for key, (title, _, _) in PHOTOS.items())
"""The names to choose from."""
BULKS: Final[dict[str, tuple[str, float, float, float]]] = {
    "flat": ("flat, as printed", 0.2, 0.3, 0.4),
    "layered": ("on a mat, with labels", 0.8, 1.2, 1.8),
    "bulky": ("with things that stand up", 2.0, 3.0, 5.0),
}
"""How thick a place gets, low, likely and high in mm (house rule: measure one that you have made)."""


class Dressed(Member):
    """What every folded structure decides of its faces. ``border_said`` is whether the border was named for
    each side, or for both together."""

    photo: Annotated[Sized, ChoiceRule("what goes in", SIZED)] = "none"
    photo_width_mm: Annotated[float, LengthRule("its width", 10, 400)] | None = None
    photo_height_mm: Annotated[float, LengthRule("its height", 10, 400)] | None = None
    bulk: Annotated[
        Literal["flat", "layered", "bulky"],
        ChoiceRule("how bulky", tuple((key, title) for key, (title, *_) in BULKS.items())),
    ] = "flat"
    bulk_mm: Annotated[float, LengthRule("one place, measured", 0.05, 40, fine=True)] | None = None
    mats: Annotated[
        Literal["yes", "no"], ChoiceRule("papers on the faces", (("yes", "on every face"), ("no", "none")))
    ] = "yes"
    border_mm: Annotated[float, LengthRule("the border", 0, 40)] = 3.0
    border_said: Annotated[
        Literal["side", "whole"],
        ChoiceRule("the border is", (("side", "on each side"), ("whole", "both sides together"))),
    ] = "side"
    cut_width_mm: Annotated[float, LengthRule("the largest sheet you cut, wide", 10, 3000)] | None = None
    cut_height_mm: Annotated[float, LengthRule("the largest sheet you cut, high", 10, 3000)] | None = None
    wanted: Annotated[int, NumberRule("places you want", 1, 500, whole=True)] | None = None
    mat_width_mm: Annotated[float, LengthRule("the papers you cut, wide", 5, 600)] | None = None
    mat_height_mm: Annotated[float, LengthRule("the papers you cut, high", 5, 600)] | None = None


@dataclass(frozen=True)
class Filling:
    """What goes on a face, in mm: its size upright, how thick it makes a place, the border of the papers, and
    whether there are papers."""

    title: str
    width_mm: float
    height_mm: float
    thick: Estimate
    border_mm: float
    mats: bool

    @property
    def any(self) -> bool:
        """Whether anything goes on the papers."""
        return self.width_mm > 0 and self.height_mm > 0


def filling(record: Dressed) -> Filling:
    """What is decided of the faces. A size of one's own without both sides is nothing yet."""
    title, width, height = PHOTOS[record.photo]
    if record.photo == "own":
        width, height = record.photo_width_mm or 0.0, record.photo_height_mm or 0.0
    _, low, likely, high = BULKS[record.bulk]
    thick = Estimate.ranged(low, likely, high, "how thick one place is")
    if record.bulk_mm is not None:
        thick = Estimate(record.bulk_mm, {"your reading of one place": (0.1, 0.1)})
    border = record.border_mm / (2 if record.border_said == "whole" else 1)
    return Filling(title, width, height, thick, border, record.mats == "yes")


@dataclass(frozen=True)
class Dressing:
    """A face as it is dressed: its panel and side, its paper as (width, height, corner on the piece) in mm,
    how many things lie on it, each (width, height), and whether it is the blank side of a one-sided sheet.
    ``shown`` adds up how much of it shows over all states, ``turn`` is how it is turned where it shows
    most."""

    key: Key
    side: Side
    width_mm: float
    height_mm: float
    corner: tuple[float, float]
    places: int
    each_mm: tuple[float, float]
    blank: bool
    shown: float = 0.0
    turn: float = 0.0

    @property
    def name(self) -> str:
        """What it is called in a book: its panel and its side."""
        return f"{self.key[0]}/{self.key[1]}:{self.side}"


def without_papers(record: Dressed) -> tuple[str, ...]:
    """The roles a dressed thing does without: no paper of the faces where there is none."""
    return () if record.mats == "yes" else ("mat",)


def places(width_mm: float, height_mm: float, filling: Filling) -> tuple[int, tuple[float, float]]:
    """How many things lie on a paper of this size, a border between them and at its edge, all one way up, and
    their size as they lie.

    >>> places(166, 116, filling(Dressed(kind="x", photo="10x15")))
    (1, (150.0, 100.0))
    """
    best: tuple[int, tuple[float, float]] = (0, (filling.width_mm, filling.height_mm))
    if not filling.any:
        return best
    for wide, high in ((filling.width_mm, filling.height_mm), (filling.height_mm, filling.width_mm)):
        across, down = (
            (side - filling.border_mm + 1e-6) // (each + filling.border_mm)
            for side, each in ((width_mm, wide), (height_mm, high))
        )
        if across > 0 and down > 0 and across * down > best[0]:
            best = (int(across * down), (wide, high))
    return best


def spread(dressing: Dressing, left: float, top: float) -> list[tuple[float, float]]:
    """The corners of the places of a face, evenly over its paper."""
    wide, high = dressing.each_mm
    across = max(1, int((dressing.width_mm + 1e-6) // max(wide, 1e-6)))
    across = min(across, dressing.places)
    down = -(-dressing.places // across)
    gap_x, gap_y = (
        (dressing.width_mm - across * wide) / (across + 1),
        (dressing.height_mm - down * high) / (down + 1),
    )
    return [
        (left + gap_x + (n % across) * (wide + gap_x), top + gap_y + (n // across) * (high + gap_y))
        for n in range(dressing.places)
    ]
