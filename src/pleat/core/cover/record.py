"""What is decided of the cover."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.fields import ChoiceRule, LengthRule
from pleat.core.kinds import Member

FARTHEST_SCORE_MM: Final = 60.0
LARGEST_SQUARE_MM: Final = 40.0


class Wrap(Member):
    """Pleat 6: the soft wrap."""

    kind: Literal["wrap"] = "wrap"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    creases: Annotated[
        Literal["auto", "one", "two"], ChoiceRule("creases", (("auto", "by thickness"), ("one", "one crease"), ("two", "two creases")))
    ] = "auto"
    score_offset_mm: Annotated[float, LengthRule("the score from the middle", 0, FARTHEST_SCORE_MM)] | None = None
    piece_width_mm: Annotated[float, LengthRule("the width of the piece you cut", 30, 2000)] | None = None
    piece_height_mm: Annotated[float, LengthRule("the height of the piece you cut", 30, 2000)] | None = None
