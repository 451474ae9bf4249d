"""What is decided of the cover."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.pleats.cover.spine import Spined

FARTHEST_SCORE_MM: Final = 60.0
LARGEST_SQUARE_MM: Final = 40.0


class Wrap(Spined):
    """Pleat 6: the soft wrap. ``hinge_mm`` is where hinge creases lie beside the spine, ``flaps_mm`` what is
    folded in at the fore edges."""

    kind: Literal["wrap"] = "wrap"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    creases: Annotated[
        Literal["auto", "one", "two", "four"],
        ChoiceRule(
            "creases",
            (("auto", "by thickness"), ("one", "one"), ("two", "two"), ("four", "four")),
        ),
    ] = "auto"
    hinge_mm: Annotated[float, LengthRule("hinge creases from the spine", 3, 40)] = 8.0
    flaps_mm: Annotated[float, LengthRule("flaps folded in at the fore edge", 10, 500)] | None = None
    pockets: Annotated[
        Literal["no", "yes"],
        ChoiceRule("the flaps are", (("no", "loose"), ("yes", "glued at head and tail as pockets"))),
    ] = "no"
    score_offset_mm: (
        Annotated[float, LengthRule("the score from the middle", 0, FARTHEST_SCORE_MM)] | None
    ) = None
    piece_width_mm: Annotated[float, LengthRule("the width of the piece you cut", 30, 2000)] | None = None
    piece_height_mm: Annotated[float, LengthRule("the height of the piece you cut", 30, 2000)] | None = None
