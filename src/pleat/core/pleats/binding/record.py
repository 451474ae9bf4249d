"""What is decided of a binding with thread: where its holes are, how it is sewn and with which thread."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, Record, TextRule
from pleat.core.base.kinds import Member

MOST_STATIONS: Final = 15
"""Holes along one fold."""
Position = Annotated[float, LengthRule("a station", 0, 1000)]
KnotSide = Annotated[
    Literal["inside", "outside"],
    ChoiceRule(
        "knot",
        (("inside", "inside, hidden in the fold"), ("outside", "outside, with tails to hang something from")),
    ),
]

OddStations = Annotated[
    Literal[0, 3, 5, 7], ChoiceRule("stations", (("0", "by height"), ("3", "3"), ("5", "5"), ("7", "7")))
]
"""An odd number of stations, which has a middle to begin and end in; 0 for as many as the height asks for."""


class Thread(Record):
    """A thread by its trade number, lea and plies as in 18/3; a tex wins over that, and a measured diameter
    over both.

    ``name`` is what it is called among the materials; empty for a linen thread known by its number.
    """

    stock_id: str | None = Field(
        default=None, max_length=40, description="the item among the materials it was taken from"
    )
    name: Annotated[str, TextRule("the thread's name", 60, required=False)] = ""
    lea: Annotated[int, NumberRule("the lea number", 4, 120, whole=True)] = 18
    plies: Annotated[int, NumberRule("the plies", 1, 12, whole=True)] = 3
    tex: Annotated[float, NumberRule("the tex", 5, 5000, "tex")] | None = None
    diameter_mm: Annotated[float, LengthRule("the thread's measured diameter", 0.05, 8, fine=True)] | None = (
        None
    )
    fibre: Literal["linen", "cotton", "polyester", "other"] = "linen"
    waxed: Literal["yes", "no"] = "no"
    swatch: Annotated[str, Field(max_length=20)] = "indigo"


class Threaded(Member):
    """Pleat 5 for every sewing through the folds: stations from the leaf's head, and the thread.

    ``insets_mm`` place symmetric stations by their distances from the head, ``positions_mm`` all of them one
    by one; where a tape is held by two holes, its middle is what is placed.
    """

    insets_mm: tuple[Position, ...] | None = Field(
        default=None,
        max_length=7,
        description="symmetric stations: their distances from the head, outermost first",
    )
    positions_mm: tuple[Position, ...] | None = Field(
        default=None, max_length=MOST_STATIONS, description="unlocked stations, from the head"
    )
    spread: Annotated[
        Literal["usual", "quarters", "even"],
        ChoiceRule(
            "spread",
            (
                ("usual", "the usual way"),
                ("quarters", "from the quarter points"),
                ("even", "evenly, from end to end"),
            ),
        ),
    ] = "usual"
    pierce: Annotated[
        Literal["inside", "outside"],
        ChoiceRule(
            "pierced",
            (
                ("inside", "from inside, so that the holes are on the fold"),
                ("outside", "from outside, so that the burr is hidden"),
            ),
        ),
    ] = "inside"
    thread: Thread = Thread()
    strands: Annotated[Literal[1, 2], ChoiceRule("thread taken", (("1", "single"), ("2", "double")))] = 1
    tail_mm: Annotated[float, LengthRule("each tail", 30, 1000)] = 90.0
    thread_cut_mm: Annotated[float, LengthRule("the thread you cut", 10, 100000)] | None = None
    cover_holes_mm: tuple[Position, ...] | None = Field(
        default=None,
        max_length=MOST_STATIONS,
        description="holes already made in the cover, from the cover's head",
    )


class Pamphlet(Threaded):
    """A pamphlet stitch; 0 stations are as many as the height asks for."""

    kind: Literal["pamphlet"] = "pamphlet"
    station_count: OddStations = 0
    way: Annotated[
        Literal["past", "eight"],
        ChoiceRule("sewn", (("past", "straight past the middle"), ("eight", "as a figure of eight"))),
    ] = "past"
    knot: KnotSide = "inside"
