"""How the maker cuts."""

from __future__ import annotations

from typing import Annotated

from pleat.core.fields import ChoiceRule, NumberRule, Record
from pleat.core.yields import LIES, Lies

Counted = Annotated[int, NumberRule("pieces from one sheet", 0, 1000, "pieces", whole=True)]


class Cutting(Record):
    """Pleat 7: how many pieces the maker counted out of one sheet, where they did, and which way round pieces lie."""

    counted_leaf: Counted | None = None
    counted_cover: Counted | None = None
    leaf_lies: Annotated[Lies, ChoiceRule("leaf pieces lie", LIES)] = "auto"
    cover_lies: Annotated[Lies, ChoiceRule("the cover lies", LIES)] = "auto"
