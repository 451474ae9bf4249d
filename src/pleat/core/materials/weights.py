"""How heavy and how thick papers are: bulk ranges, and US pounds in each grade.

Thickness (um) = grammage (g/m2) x bulk (cm3/g): bulk as ISO 534 defines it (apparent sheet volume),
grammage as ISO 536. The bulk ranges are common practice, with no published source.
Basis sizes: US paper trade basis sizes, as in TAPPI T 410.
"""

from __future__ import annotations

import re
from typing import Final

from pleat.core.book import Paper, PaperKind
from pleat.core.errors import LengthError
from pleat.core.estimate import Estimate
from pleat.core.units import grammage_from_pounds

BULK_CM3_PER_G: Final[dict[PaperKind, tuple[float, float]]] = {
    "copier": (1.25, 1.35),
    "drawing": (1.10, 1.30),
    "cardstock": (1.15, 1.35),
    "coated": (0.80, 1.00),
    "watercolour": (1.50, 1.90),
    "kraft": (1.40, 1.60),
    "other": (0.80, 1.90),
}
"""(low, high) bulk; ``other`` spans them all, since nothing is known."""

BASIS_IN: Final[dict[str, tuple[float, float]]] = {
    "bond": (17, 22),
    "text": (25, 38),
    "cover": (20, 26),
    "index": (25.5, 30.5),
    "bristol": (22.5, 28.5),
    "tag": (24, 36),
}
"""Basis size in inches by grade."""
_SAME_GRADE: Final = {"book": "text", "offset": "text", "ledger": "bond", "writing": "bond", "copy": "bond"}

CALIPER_READING_ERROR_MM: Final = 0.03
"""How far one reading of a cheap caliper may be off, for the whole stack (house rule)."""

_WEIGHT = re.compile(r"^\s*(\d+(?:[.,]\d+)?)\s*(.*?)\s*$")


def thickness(paper: Paper) -> Estimate | None:
    """The caliper of one sheet in mm, or None when neither a measurement nor a grammage is there."""
    if paper.measured_mm is not None:
        likely = paper.measured_mm / paper.measured_sheets
        error = min(CALIPER_READING_ERROR_MM / paper.measured_sheets, likely)
        return Estimate.ranged(likely - error, likely, likely + error, f"the reading of your stack of {paper.name}")
    if paper.grammage is None:
        return None
    low, high = BULK_CM3_PER_G[paper.kind]
    um = [paper.grammage * bulk / 1000 for bulk in (low, (low + high) / 2, high)]
    return Estimate.ranged(um[0], um[1], um[2], f"the thickness of {paper.name}, which is not measured")


def pounds_in_every_grade(pounds: float) -> dict[str, float]:
    """What ``pounds`` would be in g/m2 in each grade.

    >>> {grade: round(g) for grade, g in pounds_in_every_grade(110).items()}["index"]
    199
    """
    return {grade: grammage_from_pounds(pounds, *basis) for grade, basis in BASIS_IN.items()}


def parse_weight(text: str) -> float:
    """Grammage in g/m2 from ``90``, ``90 gsm``, ``90 g/m2`` or ``110 lb cover``.

    Pounds without a grade are never guessed: LengthError then names what each grade would mean.
    """
    found = _WEIGHT.match(text.lower())
    if not found:
        raise LengthError(text, f"“{text.strip()[:30]}” is not a weight I can read. Try 90 g/m² or 65 lb cover.")
    number, words = float(found[1].replace(",", ".")), found[2].replace("#", "lb ").split()
    if not words or " ".join(words) in ("g", "gsm", "g/m2", "g/m²", "g / m2", "grams"):
        return number
    if words[0] not in ("lb", "lbs", "lb.", "pound", "pounds"):
        raise LengthError(text, f"I do not know the weight unit “{words[0][:20]}”. Use g/m² or lb with its grade.")
    readings = pounds_in_every_grade(number)
    for word in words[1:]:
        grade = _SAME_GRADE.get(word, word)
        if grade in readings:
            return round(readings[grade], 1)
    choices = ", ".join(f"{number:g} lb {grade} is {grammage:.0f} g/m²" for grade, grammage in readings.items())
    raise LengthError(text, f"Pounds mean little without the grade: {choices}. Add the grade from the packet.")
