"""Cutting, drying and pace."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, number

# fmt: off
BOOK_DRIES_MINUTES: Final = number("BOOK_DRIES_MINUTES", 480, "minutes", HOUSE,
    "a book hung into its case, under weight; the glue's own label comes first")
COVERING_DRIES_MINUTES: Final = number("COVERING_DRIES_MINUTES", 120, "minutes", HOUSE,
    "covered boards, under weight; the glue's own label comes first")
FOLDED_DRIES_MINUTES: Final = number("FOLDED_DRIES_MINUTES", 60, "minutes", HOUSE,
    "a folded structure, under weight; the glue's own label comes first")
LAYERS_LARGER_MM: Final = number("LAYERS_LARGER_MM", 3.0, "mm", HOUSE,
    "layers that become one are cut larger by so much on every edge, and trimmed together")
OFFCUT_MM: Final = number("OFFCUT_MM", 40.0, "mm", HOUSE,
    "an offcut with a shorter side is not worth keeping")
OTHERWISE_SHARE: Final = number("OTHERWISE_SHARE", 0.1, "share", HOUSE,
    "a length that differs by more than a mark of the ruler, and by more than this part of it, is told")
PACE_SHARE: Final = number("PACE_SHARE", (0.7, 1.6), "share", HOUSE,
    "hands differ: so much quicker and slower than the house's minutes")
ROUNDED_TWICE_MM: Final = number("ROUNDED_TWICE_MM", 0.5, "mm", HOUSE,
    "a metric length this near a quarter of an inch, but not on it, was probably rounded from it")
INCH_NEAR_SHARE: Final = number("INCH_NEAR_SHARE", 0.06, "share", HOUSE,
    "a quarter or an eighth of an inch is taken for a length that is off by less than this part of it (12 mm "
    "are 1/2 in)")
# fmt: on
