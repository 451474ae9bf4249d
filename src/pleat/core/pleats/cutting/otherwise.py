"""What comes out otherwise on the ruler in use than on the one a book was made on: told, with the way
back."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Check, Figure, Offer, PleatResult
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.trade.making import OTHERWISE_SHARE

COUNTED: Final = re.compile(r"\d+(?: (?!mm|cm|in\b)[a-z]+)*")
"""A figure that counts something, as it is written."""
NAMED: Final = 4
"""Figures that the title names."""


def find(
    now: Sequence[PleatResult], made: Sequence[PleatResult], ruler: Ruler, made_on: Ruler
) -> list[Check]:
    """One check for all figures of these pleats that differ by a count, or much in length, from what they
    were on the ruler the book was made on."""
    pairs = list(zip(now, made, strict=True))
    found = [words for pair in pairs for words in _differing(*pair, ruler, made_on)]
    stops = [check.title for pair in pairs for check in _new_stops(*pair)]
    if not found and not stops:
        return []
    named = [*found[:NAMED], *([f"{len(found) - NAMED} more"] if len(found) > NAMED else [])]
    told = joined(named) if named else joined(f"“{title.rstrip('.')}”" for title in stops)
    return [
        Check(
            code="marks",
            level="watch",
            title=f"On the ruler in {_WORDS[ruler.name]} it comes out otherwise: {told}.",
            why=f"The book was made on the ruler in {_WORDS[made_on.name]}. What was typed is as it was; "
            "what was not is worked out up to the next "
            "mark of the ruler in use, and its marks lie elsewhere.",
            offers=(
                Offer(
                    label=f"back to the ruler in {_WORDS[made_on.name]}",
                    changes=(("brief.ruler", made_on.name),),
                ),
                Offer(label=f"make it in {_WORDS[ruler.name]} from now on", changes=(("brief.marks", None),)),
            ),
        )
    ]


_WORDS: Final = {"mm": "millimetres", "in": "inches"}


def _differing(now: PleatResult, made: PleatResult, ruler: Ruler, made_on: Ruler) -> Iterator[str]:
    before = {figure.key: figure for figure in made.figures}
    mark = max(ruler.step_mm, made_on.step_mm) + 0.01
    for figure in now.figures:
        old = before.get(figure.key)
        if old is None or figure.show in ("thin", "fine"):
            continue
        if isinstance(figure.value, str) and isinstance(old.value, str):
            if figure.value != old.value and COUNTED.fullmatch(figure.value) and COUNTED.fullmatch(old.value):
                yield f"{figure.label} {figure.value} instead of {old.value}"
        elif figure.show == "count":
            if figure.value != old.value:
                yield f"{figure.label} {figure.value} instead of {old.value}"
        elif any(
            abs(a - b) > max(mark, OTHERWISE_SHARE * b)
            for a, b in zip(_sides(figure), _sides(old), strict=False)
        ):
            yield f"{figure.label} {_shown(figure, ruler)} instead of {_shown(old, ruler)}"


def _sides(figure: Figure) -> tuple[float, ...]:
    value = figure.value.likely if isinstance(figure.value, Estimate) else figure.value
    return value if isinstance(value, tuple) else (float(value),)


def _shown(figure: Figure, ruler: Ruler) -> str:
    sides = _sides(figure)
    return ruler.size(*sides) if len(sides) == 2 else ruler.show(sides[0])


def _new_stops(now: PleatResult, made: PleatResult) -> list[Check]:
    known = {check.key for check in made.checks if check.level == "stop"}
    return [check for check in now.checks if check.level == "stop" and check.key not in known]
