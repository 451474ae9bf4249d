"""How the maker cuts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, Record, Word
from pleat.core.base.yields import LIES

Counted = Annotated[int, NumberRule("pieces from one sheet", 0, 100000, "pieces", whole=True)]
Larger = Annotated[float, LengthRule("cut larger on every edge", 0, 50)]
Matching = Annotated[
    Literal["no", "yes"],
    ChoiceRule("of one book", (("no", "from any sheets"), ("yes", "from one sheet, to match"))),
]
Lying = Annotated[
    Literal["auto", "upright", "turned", "either"],
    ChoiceRule("pieces lie", (*LIES, ("either", "either way, as it comes best"))),
]


Placed = Annotated[float, Field(ge=0, le=300_000, allow_inf_nan=False)]
"""Lengths in mm that nobody types: where a piece lies on a sheet, and how large it is."""
_Times = Annotated[int, Field(ge=1, le=100_000)]


class PinnedPiece(Record):
    """Equal pieces side by side on a pinned sheet, in mm from its left upper corner."""

    part: Word
    x_mm: Placed
    y_mm: Placed
    width_mm: Placed
    height_mm: Placed
    turned: bool = False
    across: _Times = 1
    down: _Times = 1


class PinnedSheet(Record):
    """A sheet that stays as it was planned: ``stock`` is the key of what it is a sheet of, ``offcut`` the
    number of the offcut it is."""

    stock: Word
    offcut: Word = ""
    width_mm: Placed
    height_mm: Placed
    times: _Times = 1
    pieces: tuple[PinnedPiece, ...] = Field(max_length=400)


class Cutting(Record):
    """Pleat 7, by the key of each stock: how many pieces the maker counted out of one sheet, where they did,
    which way round pieces lie, by how much they are cut ``larger`` than the book takes them, to be trimmed
    later, and whether all of a book have to ``match`` and come from one sheet; ``spared`` are the offcuts, by
    their numbers among the materials, that are to stay whole, ``also`` the sheets that serve for a stock as
    well as its own, ``pins`` the sheets that stay as they were planned."""

    counted: dict[Word, Counted | None] = Field(default_factory=dict, max_length=400)
    lies: dict[Word, Lying] = Field(default_factory=dict, max_length=400)
    larger: dict[Word, Larger | None] = Field(default_factory=dict, max_length=400)
    match: dict[Word, Matching] = Field(default_factory=dict, max_length=400)
    spared: tuple[Word, ...] = Field(default=(), max_length=400)
    also: dict[Word, tuple[Word, ...]] = Field(default_factory=dict, max_length=400)
    pins: tuple[PinnedSheet, ...] = Field(default=(), max_length=200)

    @field_validator("lies", "counted", "also", "larger", "match")
    @classmethod
    def _only_what_was_said(cls, value: dict[str, object]) -> dict[str, object]:
        """What is left to Pleat, or not counted, is not kept."""
        return {key: one for key, one in value.items() if one not in ("auto", "no", None, ())}
