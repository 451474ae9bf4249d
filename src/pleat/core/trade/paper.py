"""Paper, boards and cloth, and how they are measured."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.trade.number import HOUSE, MEMORY, PRACTICE, number

# fmt: off
ANY_GRAMMAGE: Final = number("ANY_GRAMMAGE", (60.0, 110.0, 300.0), "g/m2", HOUSE,
    "what is planned with while nothing at all is known of a paper (shown as a check)")
AS_SOLD: Final = number("AS_SOLD", {"board": 0.05, "cloth": 0.1}, "share", HOUSE,
    "by how much of it a thickness that was read off a label may be wrong, either way")
CALIPER_ERROR_MM: Final = number("CALIPER_ERROR_MM", 0.03, "mm", HOUSE,
    "how far any reading of a cheap caliper may be off, for the whole stack")
CALIPER_REPEATS_MM: Final = number("CALIPER_REPEATS_MM", 0.02, "mm", HOUSE,
    "scatter of a cheap caliper's readings of one stack, as far as it is known beforehand")
CALIPER_ZERO_MM: Final = number("CALIPER_ZERO_MM", 0.02, "mm", HOUSE,
    "a caliper with its jaws closed that shows more than this wants its zero set")
ENVELOPE_FLAP: Final = number("ENVELOPE_FLAP", 0.4, "share", PRACTICE,
    "depth of an envelope's flap as a share of its shorter side: measure yours")
LINEN_G_PER_CM3: Final = number("LINEN_G_PER_CM3", 0.9, "g/cm3", MEMORY,
    "a twisted linen thread with the air in it")
READINGS_AGREE_MM: Final = number("READINGS_AGREE_MM", 0.06, "mm", HOUSE,
    "readings of one stack that lie closer than this to their middle agree, whatever their spread (twice "
    "the caliper's error)")
USES_MM: Final[dict[Literal["leaves", "pockets", "cover"], tuple[float, float]]] = number(
    "USES_MM", {"leaves": (0.04, 0.22), "pockets": (0.12, 0.38), "cover": (0.2, 0.7)},
    "mm", HOUSE,
    "one sheet by what it serves for: leaves that drape, pockets that hold, covers that keep their shape")
READING_FAR_OFF: Final = number("READING_FAR_OFF", 1.5, "times", HOUSE,
    "a reading so many times past an estimate's range is questioned")
# fmt: on
