"""Sewing."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, MEMORY, PRACTICE, number

# fmt: off
BOARD_REACH_MM: Final = number("BOARD_REACH_MM", 8.0, "mm", PRACTICE,
    "how far a board's holes lie from its spine edge (8 to 10 mm)")
COVER_MARGIN_MM: Final = number("COVER_MARGIN_MM", 10.0, "mm", PRACTICE,
    "no station nearer than this to the cover's head or tail (8 to 10 mm)")
ELASTIC_KNOT_MM: Final = number("ELASTIC_KNOT_MM", 60.0, "mm", PRACTICE,
    "what the knot of a piece of elastic takes, both ends together")
KETTLE_MM: Final = number("KETTLE_MM", 12.0, "mm", PRACTICE,
    "where the outermost holes of a linked sewing lie from the ends (10 to 15 mm)")
KNOT_ON_MM: Final = number("KNOT_ON_MM", 80.0, "mm", HOUSE,
    "what knotting on a new length takes of each of the two ends")
LASHING_MM: Final = number("LASHING_MM", 8.0, "mm", HOUSE,
    "kept free for each lashing between two strips")
LEAF_MARGIN_MM: Final = number("LEAF_MARGIN_MM", 5.0, "mm", PRACTICE,
    "a station lies at least this far inside the leaf's own head and tail, or it tears out")
LONGEST_SPAN_MM: Final = number("LONGEST_SPAN_MM", 70.0, "mm", HOUSE,
    "a longer stitch hangs loose: more height asks for more holes (3 holes up to 220 mm, 5 up to 420)")
LONGEST_THREAD_MM: Final = number("LONGEST_THREAD_MM", 1500.0, "mm", PRACTICE,
    "a longer thread tangles and frays before it is sewn (an arm's length and a half, 1.2 to 1.5 m)")
MACHINE_SEWS_MM: Final = number("MACHINE_SEWS_MM", 2.5, "mm", HOUSE,
    "paper that a household machine sews through (its own instructions come first)")
NARROWEST_TAPE_MM: Final = number("NARROWEST_TAPE_MM", 6.0, "mm", HOUSE,
    "the narrowest tape that is proposed")
NEEDLE_HOLES_SHARE: Final = number("NEEDLE_HOLES_SHARE", 1 / 3, "share", HOUSE,
    "of the fold, the part that needle holes may take; more tears along the seam like a stamp")
SHORTEST_TAIL_MM: Final = number("SHORTEST_TAIL_MM", 75.0, "mm", PRACTICE,
    "the least a tail can be tied with (75 to 100 mm)")
STATION_SHARES: Final = number(
    "STATION_SHARES", {3: (1.5 / 8.25,), 5: (1.5 / 8, 3 / 8), 7: (1 / 8, 2 / 8, 3 / 8)},
    "share", PRACTICE,
    "insets as shares of the height, by the number of holes: 1.5 in on 8.25 in; 1.5 and 3 in on 8 in; of "
    "seven every eighth (house rule)")
STICK_STRAIGHT_MM: Final = number("STICK_STRAIGHT_MM", 1.5, "mm", HOUSE,
    "a stick may bend by so much over its length and still lie in the fold")
SWELL_FIRST: Final = number("SWELL_FIRST", (0.3, 0.55, 0.8), "share", HOUSE,
    "share of the thread's diameter that stays after pressing, low, likely and high, for the first "
    "thread in a fold")
SWELL_FURTHER: Final = number("SWELL_FURTHER", (0.0, 0.5, 1.0), "share", HOUSE,
    "how much of that each further thread beside it adds")
TAPE_LAP_MM: Final = number("TAPE_LAP_MM", 30.0, "mm", PRACTICE,
    "how far a tape or cord goes on to each board (25 to 40 mm)")
TAPE_MM: Final = number("TAPE_MM", 0.4, "mm", MEMORY,
    "how thick a cotton tape is")
THREAD_SPARE_SHARE: Final = number("THREAD_SPARE_SHARE", 0.07, "share", PRACTICE,
    "added for tension and mishaps (5 to 10 %)")
# fmt: on
