"""Reading and writing lengths, and the two rulers a maker may use.

Everything inside is float millimetres. Inches become millimetres when a text is read and become inches again
only when a number is shown, so switching rulers never changes a value.

Sources: 1 in = 25.4 mm exactly (international inch, as in ISO 80000-3 and NIST SP 811).
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from itertools import accumulate, pairwise
from typing import Final, Literal

from pleat.core.base.errors import LengthError
from pleat.core.trade.making import INCH_NEAR_SHARE

MM_PER_INCH: Final = 25.4
HAIR_MM: Final = 0.05
"""Lengths that differ by no more are the same length: a tenth of what a ruler shows."""
SQUARE_INCH_POUND_GRAMMAGE: Final = 1406.14
"""g/m2 = pounds per 500 sheets x this / basis area in square inches.

Arithmetic: 453.59237 g/lb / 500 sheets / 0.00064516 m2/in2 = 1406.14.
"""

RulerName = Literal["mm", "in"]

_MM_PER_UNIT: Final = {"mm": Fraction(1), "cm": Fraction(10), "m": Fraction(1000), "in": Fraction(254, 10)}
_UNIT_WORDS: Final = {
    "mm": "mm",
    "millimetre": "mm",
    "millimetres": "mm",
    "millimeter": "mm",
    "millimeters": "mm",
    "m": "m",
    "metre": "m",
    "metres": "m",
    "meter": "m",
    "meters": "m",
    "cm": "cm",
    "centimetre": "cm",
    "centimetres": "cm",
    "centimeter": "cm",
    "centimeters": "cm",
    "in": "in",
    "in.": "in",
    "inch": "in",
    "inches": "in",
    '"': "in",
    "″": "in",
    "”": "in",
    "''": "in",
}
_GLYPHS: Final = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}
_LENGTH = re.compile(
    r"""^\s*
    (?:(?P<whole>\d+)(?:\s+|\s*-\s*))?(?P<top>\d+)\s*[/⁄]\s*(?P<bottom>\d+)\s*(?P<unit_a>[^\d\s].*?)?\s*$
    |
    ^\s*(?P<number>\d*[.,]?\d+|\d+[.,])\s*(?P<unit_b>[^\d\s.,].*?)?\s*$""",
    re.VERBOSE,
)


LONGEST_TEXT: Final = 300
"""Letters that are read of any one value; a longer text is none."""
_THOUSANDS = re.compile(r"[1-9]\d{0,2},\d{3}")
_WRITTEN = re.compile(r"(?:(?<=\d) )?(?<![\d/])(\d{1,2})/(\d{1,2})(?![\d/])")
_PARTS_OF_AN_INCH: Final = (2, 3, 4, 8, 16, 32, 64)


def tidy(text: str, longest: int = LONGEST_TEXT) -> str:
    """A typed text with single blanks and none at its ends; read by this first, no text is long enough to
    keep a pattern busy.

    Raises LengthError for one that is longer than any value is.
    """
    if len(text) > longest:
        raise LengthError(
            text[:60] + "…", f"That is {len(text)} letters long; no value has more than {longest}."
        )
    return " ".join(text.split())


@dataclass(frozen=True)
class ReadLength:
    """A length as it was typed: its value in mm and the unit word it was given in."""

    mm: float
    unit: Literal["mm", "cm", "m", "in"]


def parse_length(text: str, unit: RulerName = "mm", fine: bool = False) -> ReadLength:
    """Read a length typed by a maker.

    A unit that is typed always wins. A fraction without a unit is inches, since no millimetre ruler has
    quarters; any other bare number is in ``unit``, the ruler in use. A comma before three digits may be meant
    for thousands and is asked about, unless the length is ``fine``: a caliper shows three decimals.

    >>> parse_length("8 1/4").mm, parse_length("8.25in").mm, parse_length("21 cm").mm, parse_length("210").mm
    (209.55, 209.55, 210.0, 210.0)

    Raises LengthError with the typed text for anything that is not a length, the empty text too.
    """
    cleaned = tidy(text).lower()
    if len(cleaned) > 60:
        raise LengthError(text[:60] + "…", "That is too long to be one length. " + _example(unit))
    for glyph, plain in _GLYPHS.items():
        cleaned = cleaned.replace(glyph, f" {plain}")
    if not cleaned:
        raise LengthError(text, "A length is missing. " + _example(unit))
    if cleaned.startswith(("-", "−")):
        raise LengthError(text, "A length cannot be below zero.")
    found = _LENGTH.match(cleaned)
    if not found:
        raise LengthError(text, f"“{text.strip()}” is not a length I can read. " + _example(unit))
    word = (found["unit_a"] or found["unit_b"] or "").strip()
    if word and word not in _UNIT_WORDS:
        raise LengthError(text, f"I do not know the unit “{word}”. Use mm, cm, m or in.")
    if found["top"]:
        if int(found["bottom"]) == 0:
            raise LengthError(text, "A fraction cannot have 0 below the line.")
        value = Fraction(int(found["whole"] or 0)) + Fraction(int(found["top"]), int(found["bottom"]))
        name = _UNIT_WORDS.get(word, "in")
    else:
        if not fine and _THOUSANDS.fullmatch(found["number"]):
            whole, rest = found["number"].split(",")
            raise LengthError(
                text, f"“{text.strip()}” may be {whole}.{rest} or {whole}{rest}: type it without the comma."
            )
        value = Fraction(found["number"].replace(",", ".").rstrip("."))
        name = _UNIT_WORDS.get(word, unit)
    mm = float(value * _MM_PER_UNIT[name])
    return ReadLength(mm, name)  # type: ignore[arg-type]


def _example(unit: RulerName) -> str:
    return "Try 8 1/4 in, 8.25in or 21 cm." if unit == "in" else "Try 210, 21 cm or 8 1/4 in."


def grammage_from_pounds(pounds: float, basis_width_in: float, basis_height_in: float) -> float:
    """Grammage in g/m2 of a paper of ``pounds`` per 500 sheets of the basis size in inches (arithmetic)."""
    return pounds * SQUARE_INCH_POUND_GRAMMAGE / (basis_width_in * basis_height_in)


@lru_cache(maxsize=8192)
def _written(steps: int, step_mm: float, name: RulerName) -> str:
    """So many marks of a ruler: as a decimal of millimetres, or as inches with a fraction."""
    if name == "mm":
        return f"{steps * step_mm:.2f}".rstrip("0").removesuffix(".")
    whole, rest = divmod(steps, round(MM_PER_INCH / step_mm))
    if not rest:
        return f"{whole}"
    part = Fraction(rest, round(MM_PER_INCH / step_mm))
    fraction = f"{part.numerator}/{part.denominator}"
    return f"{whole} {fraction}" if whole else fraction


@dataclass(frozen=True)
class Ruler:
    """How lengths are marked and shown: millimetres to 0.5 or inches to 1/16."""

    name: RulerName
    step_mm: float

    def snap(self, mm: float) -> float:
        """The mark of this ruler nearest to ``mm``. Use it on positions, never on widths."""
        return math.floor(mm / self.step_mm + 0.5) * self.step_mm

    def snap_up(self, mm: float) -> float:
        """The first mark at or past ``mm``."""
        return math.ceil(mm / self.step_mm - 1e-6) * self.step_mm

    def snap_down(self, mm: float) -> float:
        """The last mark at or before ``mm``."""
        return math.floor(mm / self.step_mm + 1e-6) * self.step_mm

    def near(self, mm: float) -> float:
        """A length that nobody typed, as a maker with this ruler would choose it: on the coarsest marks that
        come near enough, never 0 for something.

        >>> RULERS["in"].near(12.0), RULERS["in"].near(1.0), RULERS["mm"].near(148.5)
        (12.7, 1.5875, 148.5)
        """
        if self.name == "mm":
            return self.snap(mm) or (self.step_mm if mm else 0.0)
        coarse = next(
            (
                step
                for step in (4 * self.step_mm, 2 * self.step_mm)
                if abs(round(mm / step) * step - mm) < INCH_NEAR_SHARE * mm
            ),
            self.step_mm,
        )
        return round(mm / coarse) * coarse or (coarse if mm else 0.0)

    def number(self, mm: float) -> str:
        """The value as this ruler shows it, without the unit: ``139.5`` or ``5 1/2``."""
        return self._marked(mm, self.step_mm)

    def _marked(self, mm: float, step_mm: float) -> str:
        """The value to the nearest of marks ``step_mm`` apart, without the unit."""
        steps = math.floor(abs(mm) / step_mm + 0.5)
        written = _written(steps, step_mm, self.name)
        return f"−{written}" if mm < 0 and steps else written

    @property
    def thin_mm(self) -> float:
        """The finest marks that a thickness is shown on: 0.1 mm, 1/64 in."""
        return 0.1 if self.name == "mm" else MM_PER_INCH / 64

    def show(self, mm: float) -> str:
        """The value with its unit: ``139.5 mm`` or ``5 1/2 in``."""
        return f"{self.number(mm)} {self.name}"

    def size(self, width_mm: float, height_mm: float) -> str:
        """Width x height with the unit once, width first: ``140 × 210 mm``."""
        return f"{self.number(width_mm)} × {self.number(height_mm)} {self.name}"

    def thin(self, mm: float) -> str:
        """A thickness of a whole section or book, finer than the ruler: ``2.3 mm`` or ``3/32 in``."""
        if self.name == "mm":
            return f"{mm:.1f} mm"
        return (
            f"under 1/64 {self.name}"
            if 0.01 < mm < self.thin_mm / 2
            else f"{self._marked(mm, self.thin_mm)} {self.name}"
        )

    def between(
        self, low_mm: float, high_mm: float, show: Callable[[Ruler, float], str] | None = None
    ) -> str:
        """A range as ``show`` (else ``thin``) writes it: the unit once, and one number where both ends look
        alike.

        >>> mm, inch = RULERS["mm"], RULERS["in"]
        >>> mm.between(1.2, 1.4), inch.between(1.2, 1.3), mm.between(0.1, 0.108, Ruler.fine)
        ('1.2 to 1.4 mm', '3/64 in', '0.100 to 0.108 mm')
        """
        low, high = ((show or Ruler.thin)(self, mm) for mm in (low_mm, high_mm))
        return high if low == high else f"{low.removesuffix(f' {self.name}')} to {high}"

    def summed(self, parts_mm: Sequence[float], finest: bool = False) -> tuple[list[str], str]:
        """(the parts, their sum) as numbers that add up as they are shown: on the coarsest marks that show
        all of them, else on the finest, where positions are rounded and the parts are what lies between,
        unless some are equal and have to look it. ``finest`` takes those marks at once.

        >>> RULERS["mm"].summed([93.25, 93.25]), RULERS["mm"].summed([151.53, 2.4486, 151.53])
        ((['93.25', '93.25'], '186.5'), (['151.5', '2.4', '151.5'], '305.4'))
        """
        steps = (
            [0.5, 0.25, 0.1] if self.name == "mm" else [MM_PER_INCH / 16, MM_PER_INCH / 32, MM_PER_INCH / 64]
        )
        for step in steps[-1:] if finest else steps:
            if all(abs(round(part / step) * step - part) < 0.005 for part in parts_mm):
                break
        if len({round(part, 2) for part in parts_mm}) < len(parts_mm):
            marks = [math.floor(part / step + 0.5) for part in parts_mm]
        else:
            marks = [
                b - a
                for a, b in pairwise(math.floor(at / step + 0.5) for at in accumulate(parts_mm, initial=0.0))
            ]
        return [self._marked(mark * step, step) for mark in marks], self._marked(sum(marks) * step, step)

    def fine(self, mm: float) -> str:
        """A thickness of one sheet or thread: ``0.104 mm`` or ``0.0041 in``."""
        return f"{mm:.3f} mm" if self.name == "mm" else f"{mm / MM_PER_INCH:.4f} in"

    def is_on_mark(self, mm: float) -> bool:
        """Whether ``mm`` lies on a mark of this ruler, within a hair (0.02 mm)."""
        return abs(self.snap(mm) - mm) < 0.02


RULERS: Final[dict[RulerName, Ruler]] = {"mm": Ruler("mm", 0.5), "in": Ruler("in", MM_PER_INCH / 16)}


def written_fractions(text: str) -> Iterator[str | tuple[str, str]]:
    """A text in pieces: plain ones, and each fraction of an inch as (above, below) without the blank before
    it.

    Only what a ruler has counts as a fraction, so that a thread's ``18/3`` or a progress of ``6/20`` stays as
    it is.

    >>> list(written_fractions("8 1/4 in of linen 18/3"))
    ['8', ('1', '4'), ' in of linen 18/3']
    """
    at = 0
    for found in _WRITTEN.finditer(text):
        top, bottom = int(found[1]), int(found[2])
        if bottom not in _PARTS_OF_AN_INCH or not 0 < top < bottom or math.gcd(top, bottom) > 1:
            continue
        if found.start() > at:
            yield text[at : found.start()]
        yield found[1], found[2]
        at = found.end()
    if at < len(text):
        yield text[at:]
