"""Soft covers."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
BOW_MM: Final = number("BOW_MM", 250.0, "mm", HOUSE,
    "what a ribbon needs for its bow, beyond its way")
CLEAR_OF_SPINE_MM: Final = number("CLEAR_OF_SPINE_MM", 10.0, "mm", HOUSE,
    "what a flap stays clear of the spine")
COVER_HOLE_END_MM: Final = number("COVER_HOLE_END_MM", 8.0, "mm", PRACTICE,
    "the least from a hole to the cover's head or tail (8 to 10 mm)")
CREASE_AT_MOST_MM: Final = number("CREASE_AT_MOST_MM", 4.0, "mm", PRACTICE,
    "above this one crease no longer serves (3 to 4 mm)")
FASTENER_INSET_MM: Final = number("FASTENER_INSET_MM", 12.0, "mm", HOUSE,
    "how far a fastener is from the edge it holds, at most half its flap")
FASTENER_KNOT_MM: Final = number("FASTENER_KNOT_MM", 30.0, "mm", HOUSE,
    "what the knots of an elastic round a cover take, both together")
FLAP_FASTENER_SHARE: Final = number("FLAP_FASTENER_SHARE", (0.25, 1 / 3), "share", PRACTICE,
    "where the flap carries its fastener, as a share of the front panel from the fore edge")
FLAP_PAST_MM: Final = number("FLAP_PAST_MM", 18.0, "mm", HOUSE,
    "how far the flap goes past its fastener")
FLUSH_BEARS_MM: Final = number("FLUSH_BEARS_MM", 0.5, "mm", HOUSE,
    "creep that is hardly seen at a flush cover")
GLUE_LAYER_MM: Final = number("GLUE_LAYER_MM", 0.03, "mm", HOUSE,
    "what a layer of glue adds")
GLUE_LINE_MM: Final = number("GLUE_LINE_MM", 5.0, "mm", PRACTICE,
    "how wide glue goes along a flap's edge")
GLUE_TAB_MM: Final = number("GLUE_TAB_MM", 12.0, "mm", PRACTICE,
    "the tabs that close the pocket at its sides (10 to 15 mm)")
GUSSET_LOOSE_MM: Final = number("GUSSET_LOOSE_MM", 6.0, "mm", HOUSE,
    "a gusset that is more than double, and so much more, than what it closes round is told")
HALVES_MISS_MM: Final = number("HALVES_MISS_MM", 2.0, "mm", HOUSE,
    "halves of a fastener that are farther apart do not hold")
HOLES_OFF_MM: Final = number("HOLES_OFF_MM", 0.75, "mm", HOUSE,
    "holes of cover and leaves farther apart than this pull the fold askew")
LEAST_TUCK_MM: Final = number("LEAST_TUCK_MM", 25.0, "mm", HOUSE,
    "a strip that tucks in less pulls out")
ONE_CREASE_MM: Final = number("ONE_CREASE_MM", 3.5, "mm", PRACTICE,
    "up to here one crease serves a section (about 3 to 4 mm)")
PAD_FLAP_SHARE: Final = number("PAD_FLAP_SHARE", 0.3, "share", HOUSE,
    "how deep the flap of a cover for a pad is, as a share of its front")
PAD_POCKET_SHARE: Final = number("PAD_POCKET_SHARE", 1 / 3, "share", HOUSE,
    "how high the pocket is, as a share of the back")
PLEAT_HOLE_MM: Final = number("PLEAT_HOLE_MM", 3.0, "mm", HOUSE,
    "how far the holes in a pleat lie from its foot, and so the sections' folds from the spine")
SAME_BOOK_SHARE: Final = number("SAME_BOOK_SHARE", 0.6, "share", HOUSE,
    "a leaf that loses more of its area is another book")
SCORE_FROM_MM: Final = number("SCORE_FROM_MM", 0.22, "mm", HOUSE,
    "a cover thicker than this turns on a score")
SQUARES_UNEQUAL_MM: Final = number("SQUARES_UNEQUAL_MM", 2.0, "mm", HOUSE,
    "squares that differ by more look like a mistake")
TUCK_ROUND_MM: Final = number("TUCK_ROUND_MM", 5.0, "mm", PRACTICE,
    "the corners of ends that are tucked in are rounded by this")
TUCK_SHARE: Final = number("TUCK_SHARE", 1 / 3, "share", HOUSE,
    "how far the spine strip goes into either cover, as a share of the board")
USUAL_SQUARE_MM: Final = number("USUAL_SQUARE_MM", 3.0, "mm", PRACTICE,
    "the usual square, by which a cover stands out past the leaves")
WRAP_STIFF_MM: Final = number("WRAP_STIFF_MM", 1.2, "mm", HOUSE,
    "a wrap that is thicker springs open at its creases")
# fmt: on
