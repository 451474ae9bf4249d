"""What is decided of stations, path and thread."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from pleat.core.fields import ChoiceRule, LengthRule, NumberRule, Record, TextRule
from pleat.core.kinds import Member

Position = Annotated[float, LengthRule("a station", 0, 1000)]


class Thread(Record):
    """A thread by its trade number, lea and plies as in 18/3; a tex wins over that, and a measured diameter over both.

    ``name`` is what it is called among the materials; empty for a linen thread known by its number.
    """

    stock_id: str | None = Field(default=None, max_length=40, description="the item among the materials it was taken from")
    name: Annotated[str, TextRule("the thread's name", 60, required=False)] = ""
    lea: Annotated[int, NumberRule("the lea number", 4, 120, whole=True)] = 18
    plies: Annotated[int, NumberRule("the plies", 1, 12, whole=True)] = 3
    tex: Annotated[float, NumberRule("the tex", 5, 5000, "tex")] | None = None
    diameter_mm: Annotated[float, LengthRule("the thread's measured diameter", 0.05, 8, fine=True)] | None = None


class Pamphlet(Member):
    """Pleat 5: stations from the leaf's head, the path of the thread, and the thread itself."""

    kind: Literal["pamphlet"] = "pamphlet"
    station_count: Annotated[Literal[3, 5], ChoiceRule("stations", (("3", "3 stations"), ("5", "5 stations")))] = 3
    insets_mm: tuple[Position, ...] | None = Field(
        default=None, max_length=2, description="symmetric stations: their distances from the head, outermost first"
    )
    positions_mm: tuple[Position, ...] | None = Field(default=None, max_length=5, description="unlocked stations, from the head")
    knot: Annotated[
        Literal["inside", "outside"], ChoiceRule("knot", (("inside", "inside, in the fold"), ("outside", "outside, on the spine")))
    ] = "inside"
    own_path: tuple[Annotated[int, NumberRule("a hole", 1, 5, whole=True)], ...] | None = Field(
        default=None, min_length=2, max_length=40, description="the maker's own order of holes, 1 at the head"
    )
    thread: Thread = Thread()
    strands: Annotated[Literal[1, 2], ChoiceRule("thread taken", (("1", "single"), ("2", "double")))] = 1
    tail_mm: Annotated[float, LengthRule("each tail", 30, 1000)] = 90.0
    thread_cut_mm: Annotated[float, LengthRule("the thread you cut", 10, 20000)] | None = None
    cover_holes_mm: tuple[Position, ...] | None = Field(
        default=None, max_length=5, description="holes already made in the cover, from the cover's head"
    )
