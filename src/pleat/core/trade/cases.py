"""Boards and cases."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
BLOCK_DISAGREES_MM: Final = number("BLOCK_DISAGREES_MM", 0.5, "mm", HOUSE,
    "two readings of one block that differ by more cannot both be right")
BOARDS_TWINS_MM: Final = number("BOARDS_TWINS_MM", 0.5, "mm", HOUSE,
    "boards that differ by more do not lie on each other")
CORNER_BOARDS: Final = number("CORNER_BOARDS", (1.5, 2.0), "board thicknesses", PRACTICE,
    "how far off the board's corner the covering is cut, in board thicknesses, and the covering's own "
    "thickness more")
ENDPAPER_PASTE_MM: Final = number("ENDPAPER_PASTE_MM", 3.0, "mm", PRACTICE,
    "the line of paste along the fold of an endpaper")
FILLER_CLEAR_MM: Final = number("FILLER_CLEAR_MM", 1.0, "mm", HOUSE,
    "what a filler stays clear of the turn-ins all round")
GAP_BOARDS: Final = number("GAP_BOARDS", 3.0, "board thicknesses", PRACTICE,
    "the gap either side of the spine board of a three-piece case")
GIVES_BOARDS: Final = number("GIVES_BOARDS", 2.6, "board thicknesses", HOUSE,
    "how far a hollow back lets the strip come off the block, in strip thicknesses")
HINGE_MEETS_MM: Final = number("HINGE_MEETS_MM", 1.0, "mm", HOUSE,
    "hinge folds that are farther from the bending lines pull at the boards")
INSIDE_STEP_MM: Final = number("INSIDE_STEP_MM", 0.15, "mm", HOUSE,
    "a step inside that is higher keeps a hinge from lying flat")
JOINT_BOARDS: Final = number("JOINT_BOARDS", 4.0, "board thicknesses", PRACTICE,
    "the joint of a case at most; two at least")
JOINT_MM: Final = number("JOINT_MM", (7.0, 10.0), "mm", PRACTICE,
    "the joint of a case, from and to; or by JOINT_BOARDS")
LEAST_TURN_IN_MM: Final = number("LEAST_TURN_IN_MM", 12.0, "mm", HOUSE,
    "a turn-in is not proposed shorter, where cloth is short")
LINING_BORDER_MM: Final = number("LINING_BORDER_MM", 3.0, "mm", PRACTICE,
    "the even border that a lining leaves at head and tail (3 mm, 1/8 in)")
OPENS_BOARDS: Final = number("OPENS_BOARDS", 2.7, "board thicknesses", HOUSE,
    "a joint so wide opens flat, in the middle of common practice")
PADDING_STOPS_MM: Final = number("PADDING_STOPS_MM", 10.0, "mm", PRACTICE,
    "how far short of the spine edge padding stops, so that the joint stays sharp")
QUARTER_OVERLAP_MM: Final = number("QUARTER_OVERLAP_MM", 3.0, "mm", PRACTICE,
    "by how much the sides lie on it")
QUARTER_SHARE: Final = number("QUARTER_SHARE", (0.2, 0.25), "share", PRACTICE,
    "how much of the board the spine's covering goes on to (a fifth to a quarter)")
SEAM_MM: Final = number("SEAM_MM", 15.0, "mm", PRACTICE,
    "by how much the two halves of a joined covering overlap (10 to 20 mm)")
SPINE_LINING_MM: Final = number("SPINE_LINING_MM", 15.0, "mm", PRACTICE,
    "how far the lining of the spine goes on to either board")
STRIP_BORDER_MM: Final = number("STRIP_BORDER_MM", 1.0, "mm", HOUSE,
    "how much a strip that dresses a gap stays off its folds on each side")
TURN_IN_MM: Final = number("TURN_IN_MM", (10.0, 18.0), "mm", PRACTICE,
    "the least turn-in that holds, and the usual one (15 to 20 mm)")
WEDGE_MM: Final = number("WEDGE_MM", 1.0, "mm", HOUSE,
    "a fore edge this much thicker or thinner than the spine shows")
# fmt: on
