"""How the maker cuts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from pleat.core.base.fields import ChoiceRule, NumberRule, Record, Word
from pleat.core.base.yields import LIES

Counted = Annotated[int, NumberRule("pieces from one sheet", 0, 100000, "pieces", whole=True)]
Lying = Annotated[
    Literal["auto", "upright", "turned", "either"],
    ChoiceRule("pieces lie", (*LIES, ("either", "either way, as it comes best"))),
]


class Cutting(Record):
    """Pleat 7, by the key of each stock: how many pieces the maker counted out of one sheet, where they did,
    and which way round pieces lie; ``spared`` are the offcuts, by their numbers among the materials, that are
    to stay whole, ``also`` the sheets that serve for a stock as well as its own."""

    counted: dict[Word, Counted | None] = Field(default_factory=dict, max_length=400)
    lies: dict[Word, Lying] = Field(default_factory=dict, max_length=400)
    spared: tuple[Word, ...] = Field(default=(), max_length=400)
    also: dict[Word, tuple[Word, ...]] = Field(default_factory=dict, max_length=400)

    @field_validator("lies", "counted", "also")
    @classmethod
    def _only_what_was_said(cls, value: dict[str, object]) -> dict[str, object]:
        """What is left to Pleat, or not counted, is not kept."""
        return {key: one for key, one in value.items() if one not in ("auto", None, ())}
