"""What a request asks for, bounded: a number that no table can hold, or a text without end, is no number and
no text."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from flask import g

MOST: Final = 10**9


def number(given: Mapping[str, str], name: str, default: int = 0, low: int = 0, high: int = MOST) -> int:
    """A whole number of a request within bounds; what is no number counts as ``default``."""
    text = given.get(name, "").strip()
    sign, digits = (-1, text[1:]) if text.startswith("-") else (1, text)
    if not (digits.isascii() and digits.isdecimal() and len(digits) < 20):
        return default
    return min(max(sign * int(digits), low), high)


def word(given: Mapping[str, str], name: str, longest: int = 80) -> str:
    """A text of a request, cut to what any such text needs, without signs that no text can hold."""
    return given.get(name, "")[:longest].replace("\0", "").encode("utf-8", "ignore").decode()


def looked_at(given: Mapping[str, str]) -> dict[str, str]:
    """The face and the design that the page looks at, to be kept through a change; a design that was just put
    in is looked at."""
    return {"face": word(given, "face", 120), "design": g.get("put_in") or word(given, "design", 40)}
