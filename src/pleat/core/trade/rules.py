"""Where figures come from that no single number tells: standards, tables of the trade, and habits.

A figure's rule names a row of these, or a number of the trade (``pleat.core.base.plan.Rule``).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.trade.number import HOUSE, MEMORY, NUMBERS, PRACTICE, Origin


@dataclass(frozen=True)
class Source:
    """What a rule stands on: the kind of origin, what it says, and what was published on it ("" where nothing
    was)."""

    origin: Origin
    says: str
    published: str = ""


# fmt: off
RULES: Final[dict[str, Source]] = {
    "arithmetic": Source("arithmetic", "follows from other figures by a sum that stands beside it"),
    "measured by you": Source("measured by you", "a reading of the maker's own"),
    "chosen by you": Source("chosen by you", "set by the maker"),
    # standards
    "bank_card": Source("standard", "sizes by name", "ISO 216:2007; ISO/IEC 7810, ID-1; nominal inches"),
    "sheet_tolerance": Source("standard", "how far a trimmed sheet may be off", "ISO 216:2007"),
    "two_holes": Source("standard", "filing holes of 6 mm, 80 mm apart, 12 mm from the edge", "ISO 838:1974"),
    "mean_error": Source("standard", "a mean and its error by Student's t at 95 %", "JCGM 100:2008, 4.2 and "
    "annex G"),
    "basis_sizes": Source("standard", "US paper trade basis sizes, by grade", "as in TAPPI T 410"),
    # the trade, without a source
    "three_holes": Source(PRACTICE, "three holes 4 1/4 in apart, 1/2 in from the edge"),
    "six_holes": Source(MEMORY, "six holes 19-19-70-19-19 mm, or 19-19-51-19-19 mm, apart"),
    "bulk": Source(PRACTICE, "bulk by the kind of paper: BULK_CM3_PER_G in core/materials/weights.py",
                   "thickness = grammage x bulk: ISO 536, ISO 534"),
    "known_by_name": Source(PRACTICE, "what papers usually weigh that are known only by name: KNOWN_BY_NAME "
    "beside it"),
    "needles": Source(PRACTICE, "a needle by its thread: NEEDLES in core/pleats/binding/thread.py; numbers "
    "of needles from memory"),
    "machine_stitch": Source(PRACTICE, "long stitches in paper, 3.5 to 5 mm"),
    "quarter_points": Source(PRACTICE, "two rings or posts at the quarter points, found by folding a strip "
    "in half and half again"),
    "corner_ring": Source(PRACTICE, "one ring in the corner, as far from head as from edge"),
    "stick_long": Source(PRACTICE, "a stick as long as the spine"),
    "strips_wide": Source(PRACTICE, "strips of 25 mm through sticks"),
    "pitches": Source(PRACTICE, "3 or 2 holes to the inch for wire, 4 for coil"),
    "fold_guide": Source(PRACTICE, "how many folios nest in one fold, by the kind of paper: MOST_BY_GUIDE in "
    "core/pleats/pages/limits.py"),
    # the house
    "waits": Source(HOUSE, "waiting times; the paper may need longer"),
    "corner_hole": Source(HOUSE, "one hole in the corner, as far from head as from edge"),
    "jig_wide": Source(HOUSE, "a jig is as wide as the strip it is laid on"),
    "rounded_up": Source(HOUSE, "what holds a thickness is no narrower than it: up to the next mark"),
    "flap_wide": Source(HOUSE, "a flap is as large as what lies on it and a little round it"),
    "stands_out": Source(HOUSE, "of what goes into a pocket a third stands out at most"),
    "arranging": Source(HOUSE, "what is weighed in an order of mixed papers, and by how much: WEIGHTS in "
    "core/pleats/pages/arrange.py"),
}
"""By the name that rules have for it."""
# fmt: on


def origin_of(source: str) -> Origin:
    """How sure a rule is that names this number or row. Raises KeyError for one that there is not."""
    return NUMBERS[source].origin if source in NUMBERS else RULES[source].origin
