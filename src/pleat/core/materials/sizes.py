"""Named sheet sizes, and reading a size typed as a name or as two lengths.

Sources: ISO 216:2007 (A and B series, each size half the one before, rounded down to a whole mm, and its
tolerances); US letter, legal and tabloid as in ANSI/ASME Y14.1 (letter = A, tabloid = B) and common practice
for legal; craft pads 12 x 12, 8 x 8 and 6 x 6 in are common practice and nominal. Envelopes: ISO 269:1985
(closed sizes).
"""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Final

from pleat.core.base.errors import LengthError
from pleat.core.base.units import MM_PER_INCH, RulerName, parse_length, tidy
from pleat.core.trade.paper import ENVELOPE_FLAP


def _series(letter: str, width: int, height: int) -> dict[str, tuple[float, float]]:
    sizes = {}
    for number in range(9):
        sizes[f"{letter}{number}"] = (float(width), float(height))
        width, height = height // 2, width
    return sizes


def _inches(width: float, height: float) -> tuple[float, float]:
    return width * MM_PER_INCH, height * MM_PER_INCH


SIZES: Final[dict[str, tuple[float, float]]] = {
    **_series("A", 841, 1189),
    **_series("B", 1000, 1414),
    "letter": _inches(8.5, 11),
    "half letter": _inches(5.5, 8.5),
    "legal": _inches(8.5, 14),
    "tabloid": _inches(11, 17),
    "12 in pad": _inches(12, 12),
    "8 in pad": _inches(8, 8),
    "6 in pad": _inches(6, 6),
}
"""(width, height) in mm, upright, by name."""

ENVELOPES: Final[dict[str, tuple[float, float]]] = {
    "C4": (229.0, 324.0),
    "C5": (162.0, 229.0),
    "C6": (114.0, 162.0),
    "DL": (110.0, 220.0),
    "C6/5": (114.0, 229.0),
}
"""(width, height) in mm of closed envelopes, upright, by name."""
_OPENED = re.compile(r"(.*?)(?: envelope)?,? opened(?: flat)?", re.IGNORECASE)

_BETWEEN = re.compile(r"\s*(?:×|x|\*|\bby\b)\s*", re.IGNORECASE)


def tolerance_mm(side_mm: float) -> float:
    """How far a side of an ISO size may be off (ISO 216: 1.5 mm up to 150, 2 mm to 600, 3 mm above)."""
    if side_mm <= 150:
        return 1.5
    if side_mm <= 600:
        return 2.0
    return 3.0


@lru_cache(maxsize=2000)
def size_name(width_mm: float, height_mm: float) -> str | None:
    """The name of a size within 0.2 mm, whichever way it lies; None when it has none.

    >>> size_name(297, 210), size_name(140, 200)
    ('A4', None)
    """
    short, long = sorted((width_mm, height_mm))
    for name, (width, height) in SIZES.items():
        if abs(width - short) < 0.2 and abs(height - long) < 0.2:
            return name
    return None


def opened_flat(width_mm: float, height_mm: float) -> tuple[float, float]:
    """(width, height) in mm of the sheet a closed envelope gives, opened along its seams: front, back and
    flap above one another.

    The seams' narrow tabs are cut away. The flap is estimated, so the height is a first idea until it is
    measured.

    >>> [round(side, 1) for side in opened_flat(162, 114)]
    [162, 273.6]
    """
    short, long = sorted((width_mm, height_mm))
    return long, short * (2 + ENVELOPE_FLAP)


def parse_size(text: str, unit: RulerName = "mm") -> tuple[float, float, tuple[str, str]]:
    """(width_mm, height_mm, both lengths as typed or "" for a name) from ``A5``, ``letter landscape``, ``140
    x 200`` or ``5 1/2 x 8 1/2 in``.

    A unit behind the second length counts for both. An envelope opened flat is typed as ``C6 opened`` or
    ``114 x 162 opened``. Raises LengthError.
    """
    text = tidy(text)
    opened = _OPENED.fullmatch(text)
    if opened and not _OPENED.fullmatch(opened[1]):
        width, height = ENVELOPES.get(opened[1].upper(), (0.0, 0.0))
        return (*opened_flat(*((width, height) if width else parse_size(opened[1], unit)[:2])), ("", ""))
    cleaned = text.lower()
    turned = cleaned.endswith((" landscape", " wide"))
    name = cleaned.removesuffix(" landscape").removesuffix(" wide").removesuffix(" upright")
    for known, (width, height) in SIZES.items():
        if name == known.lower():
            return (height, width, ("", "")) if turned else (width, height, ("", ""))
    sides = two_sides(text)
    if not sides:
        raise LengthError(
            text, "Type a size such as A5, letter, 140 × 200, 5 1/2 × 8 1/2 in or C6 opened: width first."
        )
    return parse_length(sides[0], unit).mm, parse_length(sides[1], unit).mm, sides


def two_sides(text: str) -> tuple[str, str] | None:
    """The two lengths of a size, the second one's unit said with the first where that has none; None where
    there are not two.

    >>> two_sides("6 x 9 in"), two_sides("140 × 200")
    (('6 in', '9 in'), ('140', '200'))
    """
    sides = [side.strip() for side in _BETWEEN.split(text)]
    if len(sides) != 2 or not all(sides):
        return None
    bare = re.fullmatch(r"[\d\s.,/⁄½¼¾⅛⅜⅝⅞-]+", sides[0])
    spoken = re.search(r"[^\d\s.,/⁄½¼¾⅛⅜⅝⅞-]+\.?$", sides[1])
    return sides[0] + (f" {spoken[0]}" if bare and spoken else ""), sides[1]
