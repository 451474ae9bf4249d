"""How heavy papers are: bulk ranges, US pounds in each grade, and papers known only by what they are called.

Thickness (um) = grammage (g/m2) x bulk (cm3/g): bulk as ISO 534 defines it (apparent sheet volume), grammage
as ISO 536. The bulk ranges are common practice, with no published source. Basis sizes: US paper trade basis
sizes, as in TAPPI T 410.
"""

from __future__ import annotations

import re
from typing import Final

from pleat.core.base.errors import LengthError
from pleat.core.base.units import grammage_from_pounds, tidy
from pleat.core.materials.items import Grade, PaperKind

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

BASIS_IN: Final[dict[Grade, tuple[float, float]]] = {
    "bond": (17, 22),
    "text": (25, 38),
    "cover": (20, 26),
    "index": (25.5, 30.5),
    "bristol": (22.5, 28.5),
    "tag": (24, 36),
}
"""Basis size in inches by grade."""
_SAME_GRADE: Final[dict[str, Grade]] = {
    **{grade: grade for grade in BASIS_IN},
    "book": "text",
    "offset": "text",
    "ledger": "bond",
    "writing": "bond",
    "copy": "bond",
    "copier": "bond",
}

KNOWN_BY_NAME: Final[tuple[tuple[str, PaperKind, tuple[float, float, float]], ...]] = (
    (r"printer|copier|copy paper|office|photocopy", "copier", (70, 80, 100)),
    (r"water\s?colou?r", "watercolour", (185, 250, 300)),
    (r"card\s?stock|\bcard\b|post\s?card", "cardstock", (160, 250, 300)),
    (r"\bbags?\b|kraft|wrapping|parcel", "kraft", (60, 80, 120)),
    (r"envelope", "copier", (75, 90, 120)),
    (r"book page|old page|novel|dictionary", "other", (45, 65, 90)),
    (r"\bmaps?\b|\bcharts?\b", "coated", (70, 90, 120)),
    (r"magazine|catalogue|brochure", "coated", (60, 90, 130)),
    (r"sketch|drawing|cartridge", "drawing", (90, 120, 160)),
)
"""What papers known only by their name usually are: a pattern, their kind, and low, likely, high g/m2 (common
practice, no source)."""

_WEIGHT = re.compile(r"([0-9]{1,9}(?:[.,][0-9]{1,9})?) ?(.*)")


def pounds_in_every_grade(pounds: float) -> dict[Grade, float]:
    """What ``pounds`` would be in g/m2 in each grade.

    >>> {grade: round(g) for grade, g in pounds_in_every_grade(110).items()}["index"]
    199
    """
    return {grade: grammage_from_pounds(pounds, *basis) for grade, basis in BASIS_IN.items()}


def grammage_of(pounds: float, grade: Grade) -> float:
    """g/m2 of a paper of so many pounds in a grade, to a tenth."""
    return round(grammage_from_pounds(pounds, *BASIS_IN[grade]), 1)


def parse_weight(text: str) -> tuple[float | None, float | None, Grade | None]:
    """(grammage, pounds, grade) from ``90``, ``90 gsm``, ``110 lb cover`` or ``110 lb``.

    Pounds without a grade are never guessed: the grammage and the grade stay open, and the plan asks. Raises
    LengthError.
    """
    found = _WEIGHT.fullmatch(tidy(text).lower())
    if not found:
        raise LengthError(
            text, f"“{text.strip()[:30]}” is not a weight I can read. Try 90 g/m² or 65 lb cover."
        )
    number, words = float(found[1].replace(",", ".")), found[2].replace("#", "lb ").split()
    if not words or " ".join(words) in ("g", "gsm", "g/m2", "g/m²", "g / m2", "grams"):
        return number, None, None
    if words[0] not in ("lb", "lbs", "lb.", "pound", "pounds"):
        raise LengthError(
            text, f"I do not know the weight unit “{words[0][:20]}”. Use g/m² or lb with its grade."
        )
    grade = next((_SAME_GRADE[word] for word in words[1:] if word in _SAME_GRADE), None)
    if words[1:] and grade is None:
        raise LengthError(
            text,
            f"I do not know the grade “{' '.join(words[1:])[:30]}”. Pounds come in: {', '.join(BASIS_IN)}.",
        )
    return (grammage_of(number, grade) if grade else None), number, grade


def by_name(name: str) -> tuple[PaperKind, tuple[float, float, float]] | None:
    """The usual kind and (low, likely, high) grammage of a paper known only by its name, such as "printer
    paper"."""
    for pattern, kind, grammages in KNOWN_BY_NAME:
        if re.search(pattern, name, re.IGNORECASE):
            return kind, grammages
    return None
