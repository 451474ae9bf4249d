"""A number of the trade, and what is said of it: its unit, where it comes from, what it is a number of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal, TypeVar

Origin = Literal[
    "standard",
    "arithmetic",
    "common practice",
    "from memory",
    "measured by you",
    "house rule",
    "chosen by you",
]
HOUSE: Final = "house rule"
PRACTICE: Final = "common practice"
MEMORY: Final = "from memory"
Value = TypeVar("Value")


@dataclass(frozen=True, kw_only=True)
class Number:
    """A number's row: a value in ``unit``, several of them or one by name; ``origin`` says how sure it is."""

    name: str
    value: object
    unit: str
    origin: Origin
    meaning: str


NUMBERS: Final[dict[str, Number]] = {}
"""Every number of the trade by its name, in the order of the tables."""


def number(name: str, value: Value, unit: str, origin: Origin, meaning: str) -> Value:
    """The value, which gets a row of its name. Raises ValueError where there is one of that name."""
    if name in NUMBERS:
        raise ValueError(f"the trade has two numbers of the name {name}")
    NUMBERS[name] = Number(name=name, value=value, unit=unit, origin=origin, meaning=meaning)
    return value
