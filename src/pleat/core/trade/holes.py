"""Holes, rings, posts and cords."""

from __future__ import annotations

import math
from typing import Final

from pleat.core.trade.number import HOUSE, PRACTICE, number

# fmt: off
BAND_SNUG_SHARE: Final = number("BAND_SNUG_SHARE", 0.6, "share", HOUSE,
    "how far into its stretch a band is best when the book is as thick as it is now: it holds, and can "
    "still grow")
BARS_SOLD_MM: Final = number(
    "BARS_SOLD_MM", ((15.0, 1.8), (20.0, 2.0), (25.0, 2.2), (30.0, 2.5)),
    "mm", PRACTICE,
    "ring bars that are sold: inner diameter of the ring and wire")
BETWEEN_BARS_MM: Final = number("BETWEEN_BARS_MM", 3.0, "mm", HOUSE,
    "between two bars in a row")
BINDER_RINGS_SOLD_MM: Final = number(
    "BINDER_RINGS_SOLD_MM", ((16.0, 2.0), (20.0, 2.2), (25.0, 2.5), (30.0, 2.8), (40.0, 3.0)),
    "mm", PRACTICE,
    "binders' rings that are sold: inner diameter and wire")
BRAD_LEG_MM: Final = number("BRAD_LEG_MM", 4.0, "mm", HOUSE,
    "a brad's legs fold over behind the stack by at least so much")
COILS_SOLD_MM: Final = number(
    "COILS_SOLD_MM", (6.0, 8.0, 10.0, 12.0, 14.0, 16.0, 20.0, 25.0, 32.0, 40.0, 50.0),
    "mm", PRACTICE,
    "outer diameters of coil that are sold")
CORD_KNOT_MM: Final = number("CORD_KNOT_MM", 80.0, "mm", HOUSE,
    "what the knot of a cord takes at each end")
EYELET_END_MM: Final = number("EYELET_END_MM", 10.0, "mm", HOUSE,
    "from the ends of the spine to its eyelets")
HOLES_APART_MM: Final = number("HOLES_APART_MM", 3.0, "mm", HOUSE,
    "paper left between two holes")
HOLES_FIT_MM: Final = number("HOLES_FIT_MM", 0.6, "mm", HOUSE,
    "holes that miss their hardware by less still go on it")
HOLE_BREAKS_MM: Final = number("HOLE_BREAKS_MM", 2.0, "mm", HOUSE,
    "less paper than this round a hole does not hold")
HOLE_BRIDGE_MM: Final = number("HOLE_BRIDGE_MM", 4.0, "mm", PRACTICE,
    "the least paper left between a hole's rim and the edge that is held (4 to 5 mm)")
HOLE_END_MM: Final = number("HOLE_END_MM", 5.0, "mm", PRACTICE,
    "paper left between a hole's rim and the ends of the edge (4 to 5 mm)")
HOLE_GLUED_MM: Final = number("HOLE_GLUED_MM", 2.0, "mm", HOUSE,
    "so much paper stays between a hole and what is glued on")
HOLE_PLACES_MM: Final = number("HOLE_PLACES_MM", 2.0, "mm", HOUSE,
    "two holes are at least so far apart, and from the ends")
KEYRING_CLEAR_MM: Final = number("KEYRING_CLEAR_MM", 6.0, "mm", HOUSE,
    "the ring hangs so far clear of the edge")
LEAVES_LEAN_RAD: Final = number("LEAVES_LEAN_RAD", math.radians(30), "rad", HOUSE,
    "how far leaves lean that bend at the held edge: 30 degrees")
LOOP_LAP_MM: Final = number("LOOP_LAP_MM", 8.0, "mm", PRACTICE,
    "the loop goes on past the brad's hole by so much at either end (6 to 10 mm)")
MOST_ON_A_CORD: Final = number("MOST_ON_A_CORD", 2, "tabs", PRACTICE,
    "tabs that one cord holds without letting them slip")
NOTCH_JIG_MM: Final = number("NOTCH_JIG_MM", 24.0, "mm", HOUSE,
    "a jig for notches: wide enough to hold")
NOTCH_MM: Final = number("NOTCH_MM", 6.0, "mm", HOUSE,
    "a notch is a half circle so wide")
POSTS_SOLD_MM: Final = number(
    "POSTS_SOLD_MM", (5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 18.0, 20.0, 25.0, 30.0, 35.0, 40.0,
     50.0, 60.0, 75.0, 100.0),
    "mm", PRACTICE,
    "screw posts that are sold, by their length inside")
POST_TAKES: Final = number("POST_TAKES", 0.97, "share", PRACTICE,
    "a screw post closes on a stack of at most its length over this: paper gives a little")
PUNCH_TAKES_MM: Final = number("PUNCH_TAKES_MM", 1.0, "mm", PRACTICE,
    "what a hand punch takes at once where nothing is said of it: about ten sheets of copier paper")
RINGS_SOLD_MM: Final = number(
    "RINGS_SOLD_MM", ((15.0, 1.8), (19.0, 2.0), (25.0, 2.2), (32.0, 2.5), (38.0, 2.8), (50.0, 3.0)),
    "mm", PRACTICE,
    "loose rings that are sold: inner diameter and wire")
RING_FREE_SHARE: Final = number("RING_FREE_SHARE", 0.15, "share", HOUSE,
    "left free so that pages turn without being lifted")
RING_HOLE_MM: Final = number("RING_HOLE_MM", 6.0, "mm", PRACTICE,
    "the usual hole for a ring")
RING_INSET_MM: Final = number("RING_INSET_MM", 10.0, "mm", HOUSE,
    "from the held edge to the middle of a ring's hole")
STICK_OVERHANG_MM: Final = number("STICK_OVERHANG_MM", 10.0, "mm", PRACTICE,
    "the stick stands out past each hole by at least so much")
STRONG_ADDS_MM: Final = number(
    "STRONG_ADDS_MM", {"none": 0.0, "patches": 0.08, "strip": 0.1, "eyelets": 0.6},
    "mm", HOUSE,
    "what each way to make holes strong adds to a leaf: a thin patch, a strip of thin paper, both rims "
    "of an eyelet")
TAB_ROOM_MM: Final = number("TAB_ROOM_MM", 2.0, "mm", HOUSE,
    "room beside every tab, so that pairs turn")
THICK_BEGINS_SHARE: Final = number("THICK_BEGINS_SHARE", 0.25, "share", HOUSE,
    "where what makes leaves thick begins, as a part of the leaf's width")
WIRE_THREE_MM: Final = number("WIRE_THREE_MM", (6.4, 8.0, 9.5, 11.0, 12.7, 14.3), "mm", PRACTICE,
    "outer diameters of wire with three loops to the inch that are sold")
WIRE_TWO_MM: Final = number("WIRE_TWO_MM", (16.0, 19.0, 22.0, 25.4, 28.6, 32.0), "mm", PRACTICE,
    "outer diameters of wire with two loops to the inch that are sold")
ELASTIC_CUT: Final = number("ELASTIC_CUT", (0.85, 0.875, 0.9), "share", PRACTICE,
    "elastic is cut to this part of its way, before the knot: tight, snug and loose (85 to 90 %)")
# fmt: on
