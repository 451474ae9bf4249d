"""Double wire closed round a row of holes, three or two to the inch."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.wound import Winding, Wound, compute, no_more
from pleat.core.trade.holes import WIRE_THREE_MM, WIRE_TWO_MM


class Wire(Wound):
    """Double wire."""

    kind: Literal["wire"] = "wire"
    per: Annotated[
        Literal["3:1", "2:1", "own"],
        ChoiceRule("pitch", (("3:1", "3 to the inch"), ("2:1", "2 to the inch"), ("own", "your own"))),
    ] = "3:1"


def _thick(binding: Wound) -> bool:
    return binding.per == "2:1"


def _sold(binding: Wound) -> tuple[float, ...]:
    """The inner widths sold for the holes of a binding, in mm."""
    by_pitch = {"2:1": WIRE_TWO_MM, "3:1": WIRE_THREE_MM}
    return by_pitch.get(binding.per, (*WIRE_THREE_MM, *WIRE_TWO_MM))


WINDING: Final = Winding(
    word="wire",
    sold=_sold,
    hole=lambda binding: 6.0 if _thick(binding) else 4.0,
    inset=lambda binding: 7.0 if _thick(binding) else 6.0,
    shape="wire",
    closing="Hang it on the open loops from the back, and squeeze them shut until the ends meet and no leaf "
    "slips through.",
    caution="Wire ends are sharp, and what is cut off flies: hold it down, and cover your eyes. Follow the "
    "closing tool's own instructions.",
    own=no_more,
)
KIND: Final = gear.kind(
    name="wire",
    title="double wire",
    summary="A comb of wire loops through a row of holes; turns right round and lies flat.",
    record=Wire,
    compute=partial(compute, WINDING),
    refills=False,
    placed=(),
    suits=gear.suits(
        "a row of wire loops, turns right round", good_to=240, hard="some practice", minutes=0.2
    ),
)
