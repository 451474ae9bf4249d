"""What is put in."""

from __future__ import annotations

from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
AT_SPINE_MM: Final = number("AT_SPINE_MM", 8.0, "mm", HOUSE,
    "what lies nearer to the spine than this makes it thicker")
BAND_WRAP_MM: Final = number("BAND_WRAP_MM", 15.0, "mm", HOUSE,
    "what a band is glued round the edge of its page by")
CARD_BLOCK_MM: Final = number("CARD_BLOCK_MM", 8.0, "mm", HOUSE,
    "so many leaves of card are a block that is hard to shut")
CARD_LEAF_MM: Final = number("CARD_LEAF_MM", 0.3, "mm", HOUSE,
    "a leaf as thick as this is card; with much put in, the book comes out too thick")
CORNER_BORDER_MM: Final = number("CORNER_BORDER_MM", 6.0, "mm", HOUSE,
    "so far from the edges of a face lies what is put in its corners")
EASE_MM: Final = number("EASE_MM", 3.0, "mm", PRACTICE,
    "by how much what slides in is narrower than the throat")
FLAP_GUTTER_MM: Final = number("FLAP_GUTTER_MM", 20.0, "mm", PRACTICE,
    "a flap that folds in stays so far off the spine")
FRAME_LAP_MM: Final = number("FRAME_LAP_MM", 3.0, "mm", HOUSE,
    "how far a frame lies over what it holds, on each side")
GAPES_MM: Final = number("GAPES_MM", 2.0, "mm", HOUSE,
    "a book gapes from so much on, and from a quarter of its leaves")
GLUED_EDGE_MM: Final = number("GLUED_EDGE_MM", 6.0, "mm", PRACTICE,
    "what a line of glue or tape along an edge takes of the throat (a quarter inch)")
HAND_MM: Final = number("HAND_MM", 20.0, "mm", HOUSE,
    "a hand needs so much before a mouth to pull something out")
LOWEST_POCKET_MM: Final = number("LOWEST_POCKET_MM", 10.0, "mm", HOUSE,
    "nothing stays in a pocket that is lower")
LOW_SIDE_MM: Final = number("LOW_SIDE_MM", 10.0, "mm", HOUSE,
    "what a slant leaves of a pocket's low side, to be glued")
MAGNETS_HOLD_MM: Final = number("MAGNETS_HOLD_MM", 10.0, "mm", PRACTICE,
    "a pair so far across holds through two cards")
MOUTH_FREE_MM: Final = number("MOUTH_FREE_MM", 6.0, "mm", HOUSE,
    "before a mouth, so much stays free of other things")
PULL_MM: Final = number("PULL_MM", (20.0, 15.0), "mm", HOUSE,
    "how wide a pull is, and how much of it is glued to what goes in")
SET_MM: Final = number("SET_MM", 8.0, "mm", PRACTICE,
    "how far across a set eyelet or brad is")
SET_THICK_MM: Final = number(
    "SET_THICK_MM", {"eyelet": (0.8, 1.2, 1.6), "brad": (1.2, 1.8, 2.5), "button": (2.0, 3.0, 4.5)},
    "mm", HOUSE,
    "what is set in a page adds to it: low, likely and high")
SMALLEST_POCKET_MM: Final = number("SMALLEST_POCKET_MM", 15.0, "mm", HOUSE,
    "no pocket is made smaller")
TAKEN_MM: Final = number("TAKEN_MM", 4.0, "mm", HOUSE,
    "what stands out less cannot be taken hold of")
THICK_THING_MM: Final = number("THICK_THING_MM", 0.8, "mm", HOUSE,
    "a thing from so thick on counts as thick")
THINGS_APART_MM: Final = number("THINGS_APART_MM", 3.0, "mm", HOUSE,
    "so much is left between two things")
# fmt: on
