"""Pages, leaves and folios: reading a count with its unit word, and turning one into the others."""

from __future__ import annotations

import math
import re
from typing import Final, Literal

from pleat.core.base.errors import LengthError
from pleat.core.base.units import tidy
from pleat.core.base.words import by_count, many
from pleat.core.pleats.pages.folding import WORDS, folios_a_sheet

CountUnit = Literal["pages", "leaves", "folios", "unsaid"]
_WORDS: Final[dict[str, CountUnit]] = {
    "page": "pages",
    "pages": "pages",
    "pp": "pages",
    "p": "pages",
    "sides": "pages",
    "leaf": "leaves",
    "leaves": "leaves",
    "folio": "folios",
    "folios": "folios",
    "sheet": "folios",
    "sheets": "folios",
    "folded sheets": "folios",
}
_PER_FOLIO: Final[dict[CountUnit, int]] = {"pages": 4, "unsaid": 4, "leaves": 2, "folios": 1}
_COUNT = re.compile(r"([0-9]{1,6}) ?([a-z ]*?)\.?")


def parse_count(text: str) -> tuple[int, CountUnit]:
    """``(48, "pages")`` from ``48 pages``; a bare number has the unit ``unsaid``. Raises LengthError."""
    found = _COUNT.fullmatch(tidy(text).lower())
    if not found:
        raise LengthError(text, "Type a count such as 48 pages, 24 leaves or 12 sheets.")
    if found[2] and found[2] not in _WORDS:
        raise LengthError(text, f"I do not know “{found[2]}”. Count in pages, leaves or folded sheets.")
    return int(found[1]), _WORDS.get(found[2], "unsaid")


def folios_for(amount: int, unit: CountUnit, folds: int = 1) -> int:
    """How many folios hold that many: a folio is 2 leaves or 4 pages, rounded up, at least 1; a sheet makes
    1, 2 or 4, by its folds.

    >>> folios_for(30, "pages"), folios_for(30, "leaves")
    (8, 15)
    """
    folios = amount * folios_a_sheet(folds) if unit == "folios" else math.ceil(amount / _PER_FOLIO[unit])
    return max(1, folios)


def count_words(folios: int, folds: int = 1, leaves: int | None = None) -> str:
    """Sheets, leaves and pages together, since the last two are constantly confused.

    ``leaves`` is given where some sheets of a pile are single leaves.

    >>> count_words(5, leaves=8)
    '5 sheets, 2 of them single leaves = 8 leaves = 16 pages'
    """
    if leaves is not None and leaves != 2 * folios:
        single = 2 * folios - leaves
        which = (
            f", {single} of them {by_count(single, 'a single leaf', 'single leaves')}"
            if folios > 1
            else ", a single leaf"
        )
        return f"{many(folios, 'sheet')}{which} = {many(leaves, 'leaf', 'leaves')} = {2 * leaves} pages"
    return (
        f"{many(folios // folios_a_sheet(folds), 'sheet')} {WORDS[folds]} = {2 * folios} leaves = "
        f"{4 * folios} pages"
    )
