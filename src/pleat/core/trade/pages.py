"""Pages, sections and piles."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
ALIKE_SHARE: Final = number("ALIKE_SHARE", 0.6, "share", HOUSE,
    "papers that share more of their words than this look the same in the book")
BACKING_MM: Final = number("BACKING_MM", (0.5, 0.8, 1.2), "mm", PRACTICE,
    "the board at the back of a pad")
BLOCK_READING_MM: Final = number("BLOCK_READING_MM", 0.15, "mm", HOUSE,
    "what a reading of a pressed block may be off, either way: it is soft, and a ruler or caliper presses it")
EQUAL_SHARE: Final = number("EQUAL_SHARE", 0.1, "share", HOUSE,
    "sections whose thicknesses differ by up to this share of their mean count as equally thick")
FLAP_GAP_MM: Final = number("FLAP_GAP_MM", 19.0, "mm", PRACTICE,
    "how much shorter than the leaf a fold-out must be to stay clear of the gutter (3/4 in, about 20 mm)")
LAY_FACTORS: Final = number(
    "LAY_FACTORS", {"flat": (1.0, 1.02, 1.05), "handled": (1.1, 1.2, 1.35), "crumpled": (1.5, 1.65, 1.8)},
    "share", HOUSE,
    "how much thicker paper lies than its caliper says (to be set by the maker's own log)")
MEASURING_DOUBT_MM: Final = number("MEASURING_DOUBT_MM", 0.2, "mm", HOUSE,
    "how well a pressed section can be measured with a ruler or caliper")
MOST_CREEP_MM: Final = number("MOST_CREEP_MM", 3.0, "mm", HOUSE,
    "fully round folds (the usual square)")
MOST_MIXED: Final = number("MOST_MIXED", 12, "sheets", PRACTICE,
    "sheets of a mixed section (up to 12 light mixed sheets)")
NARROWEST_LEAF_MM: Final = number("NARROWEST_LEAF_MM", 15.0, "mm", HOUSE,
    "a leaf narrower than this is no leaf; both leaves of such a sheet are equal")
SMALL_LEAF_SHARE: Final = number("SMALL_LEAF_SHARE", 0.8, "share", HOUSE,
    "a leaf lower than this share of the highest counts as small")
STIFF_STACK_MM: Final = number("STIFF_STACK_MM", 12.0, "mm", HOUSE,
    "a stack of stiff leaves this thick is told: it is what makes a book too thick")
STUB_LAP_MM: Final = number("STUB_LAP_MM", 8.0, "mm", PRACTICE,
    "what a leaf laps on its stub")
STUB_MM: Final = number("STUB_MM", 25.0, "mm", PRACTICE,
    "how wide a stub is")
THICKEST_FOLD_MM: Final = number("THICKEST_FOLD_MM", 2.5, "mm", HOUSE,
    "folded section, pressed")
TIP_MM: Final = number("TIP_MM", 4.0, "mm", PRACTICE,
    "the line of glue of a leaf tipped in")
WINDOW_EDGE_MM: Final = number("WINDOW_EDGE_MM", 5.0, "mm", PRACTICE,
    "paper that is left around a window")
# fmt: on
