"""Folded and glued structures."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
ARMS_NEARLY_SHARE: Final = number("ARMS_NEARLY_SHARE", 0.35, "share", HOUSE,
    "opposite arms that differ by no more than this part of the larger one look like a mistake; others "
    "are meant")
ARM_CLEAR_MM: Final = number("ARM_CLEAR_MM", 1.0, "mm", HOUSE,
    "an arm ends so far short of the fold it comes down to, or by a mark of the ruler where that is more")
BAG_FLANGE_MM: Final = number("BAG_FLANGE_MM", 20.0, "mm", PRACTICE,
    "how far a joining strip is glued on to a bag (3/4 in)")
CORD_TAB_MM: Final = number("CORD_TAB_MM", 6.0, "mm", HOUSE,
    "a tab that a cord can hold")
DRESSED_MM: Final = number("DRESSED_MM", 25.0, "mm", HOUSE,
    "a panel narrower than this is a gusset or a tab and is not dressed")
FOLDED_FASTENER_MM: Final = number("FOLDED_FASTENER_MM", 10.0, "mm", HOUSE,
    "from the free edge of the outermost panel to the middle of a fastener")
FOLDER_POCKET_SHARE: Final = number("FOLDER_POCKET_SHARE", 0.4, "share", HOUSE,
    "how high a pocket is, as a share of its panel")
GLUE_FREE_FOLD_MM: Final = number("GLUE_FREE_FOLD_MM", 3.0, "mm", PRACTICE,
    "beside a fold that moves, so much stays free of glue (1/8 in)")
GLUE_FREE_MOUTH_MM: Final = number("GLUE_FREE_MOUTH_MM", 6.0, "mm", HOUSE,
    "before a mouth, so much stays free of glue")
GUSSET_SPARE_SHARE: Final = number("GUSSET_SPARE_SHARE", 0.1, "share", PRACTICE,
    "a gusset is made a tenth wider than what lies in it")
LEAST_FLIP_MM: Final = number("LEAST_FLIP_MM", 15.0, "mm", HOUSE,
    "a flip that reaches less hides nothing")
LEAST_TAB_MM: Final = number("LEAST_TAB_MM", 8.0, "mm", PRACTICE,
    "a narrower tab or flange holds nothing once it is glued")
LOOP_FITS_MM: Final = number("LOOP_FITS_MM", 0.05, "mm", HOUSE,
    "parts of a loop that miss each other by less fit")
MOST_TAB_MM: Final = number("MOST_TAB_MM", 20.0, "mm", HOUSE,
    "a joining tab is made no wider")
POCKET_CLEAR_MM: Final = number("POCKET_CLEAR_MM", 1.5, "mm", HOUSE,
    "how far a pocket stays off the fold beside it")
SAME_SIZE_MM: Final = number("SAME_SIZE_MM", 0.6, "mm", HOUSE,
    "sizes this near are the same one, read off a ruler")
SLANT_SHARE: Final = number("SLANT_SHARE", 0.35, "share", HOUSE,
    "how far the slant comes down, as a share of the page")
TAB_SHARE: Final = number("TAB_SHARE", 0.5, "share", HOUSE,
    "of a panel it is glued on, a tab covers this part at most")
USUAL_BORDER_MM: Final = number("USUAL_BORDER_MM", 3.0, "mm", PRACTICE,
    "the usual border of a paper on its panel")
# fmt: on
