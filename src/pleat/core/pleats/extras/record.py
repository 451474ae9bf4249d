"""What goes into the book."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from pleat.core.base.fields import Record
from pleat.core.base.kinds import Member, OneOf
from pleat.core.pleats.extras.kinds import EXTRAS

MOST: int = 60
Key = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[a-z][a-z0-9-]*$")]


class Extras(Record):
    """Pleat 4: each design by the maker's own key, in the order they are put in."""

    items: dict[Key, Annotated[Member, OneOf(EXTRAS)]] = Field(default_factory=dict, max_length=MOST)

    def __eq__(self, other: object) -> bool:
        """The order in which things are put in counts: a mat before what lies on it is another book than a
        mat after it."""
        return (
            isinstance(other, Extras) and list(self.items) == list(other.items) and self.items == other.items
        )

    __hash__ = None  # type: ignore[assignment]


def stocks_of(extras: Extras) -> tuple[str, ...]:
    """The stocks that what is put in is cut from."""
    return tuple(
        dict.fromkeys(
            stock for item in extras.items.values() if (stock := getattr(item, "stock", "have")) != "have"
        )
    )
