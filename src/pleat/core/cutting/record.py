"""How the maker cuts."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from pleat.core.fields import ChoiceRule, NumberRule, Record, Word
from pleat.core.yields import LIES, Lies

Counted = Annotated[int, NumberRule("pieces from one sheet", 0, 1000, "pieces", whole=True)]
Lying = Annotated[Lies, ChoiceRule("pieces lie", LIES)]


class Cutting(Record):
    """Pleat 7, by the key of each stock: how many pieces the maker counted out of one sheet, where they did, and which way round pieces lie."""

    counted: dict[Word, Counted | None] = Field(default_factory=dict, max_length=400)
    lies: dict[Word, Lying] = Field(default_factory=dict, max_length=400)
