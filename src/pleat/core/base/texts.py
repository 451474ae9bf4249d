"""Reading what was typed into one field, by the field's rule; the messages name what would do."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from pydantic.fields import FieldInfo

from pleat.core.base.errors import LengthError
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, TextRule, declared, parse_thickness
from pleat.core.base.units import LONGEST_TEXT, RULERS, RulerName, parse_length, tidy

LONGEST_LIST = 20_000
"""Letters of a field that holds several values."""
Reading = tuple[object, str]
"""A value, and how it was typed with its unit ("" where that is not worth keeping)."""


def read_field(
    field: FieldInfo, text: str, held: Any, ruler: RulerName, typed: bool = False
) -> Reading | None:
    """What ``text`` sets a field to; None when it only shows what is ``held`` already. A text that was
    ``typed`` counts even where a length between two marks looks the same.

    Raises LengthError, or pydantic's custom error from the field's rule.
    """
    known = declared(field)
    rule = known.rule
    if not isinstance(rule, TextRule):
        text = tidy(text, LONGEST_LIST if known.many else LONGEST_TEXT)
    if not text.strip() and known.may_be_empty:
        if known.many and field.get_default() == ():
            return (), ""
        return ("" if isinstance(rule, TextRule) else None), ""
    if known.many and isinstance(rule, LengthRule):
        if held and text.strip() == shown_list(held):
            return None
        return tuple(_length(rule, word, ruler) for word in split_list(text)), ""
    match rule:
        case LengthRule():
            if not typed and isinstance(held, float) and shows(text, held, ruler, rule.fine):
                return None
            mm = _length(rule, text, ruler)
            unit = "mm" if rule.fine else ruler
            return None if mm == held else (mm, with_unit(text, unit))
        case NumberRule() | TextRule():
            return rule.read(text), ""
        case ChoiceRule():
            return int(text) if text.isdecimal() and text.isascii() else text, ""
    raise LengthError(text, "There is no such field here.")


def shown(field: FieldInfo, value: Any, ruler: RulerName) -> str:
    """What stands in a field: lengths on the ruler, thicknesses in mm as they were measured, nothing for what
    is not known."""
    rule, on = declared(field).rule, RULERS[ruler]
    if value is None or value == ():
        return ""
    if isinstance(rule, LengthRule):
        if isinstance(value, tuple):
            return shown_list(value) if rule.fine else ", ".join(on.number(one) for one in value)
        return f"{value:g} mm" if rule.fine else on.number(value)
    if isinstance(value, tuple):
        return " ".join(str(one) for one in value)
    return f"{value:g}" if isinstance(value, float) else str(value)


def shown_list(values: Sequence[float]) -> str:
    """Several thicknesses as their field shows them."""
    return "; ".join(f"{value:g}" for value in values)


def split_list(text: str) -> list[str]:
    """Values in a row: parted by semicolons or by commas with a space behind, so that a decimal comma stays
    in its number.

    >>> split_list("1,04; 1,05"), split_list("41, 108, 175"), split_list("41,108,175")
    (['1,04', '1,05'], ['41', '108', '175'], ['41', '108', '175'])
    """
    words = re.split(r" ?; ?|, ", " ".join(text.split()))
    if len(words) == 1 and words[0].count(",") > 1:
        words = words[0].split(",")
    return [word for word in words if word.strip()]


def _length(rule: LengthRule, text: str, ruler: RulerName) -> float:
    unit: RulerName = "mm" if rule.fine else ruler
    points = parse_thickness(text) if rule.fine else None
    mm = points if points is not None else parse_length(text, unit, rule.fine).mm
    if not rule.low_mm <= mm <= rule.high_mm:
        raise LengthError(text, _out_of_bounds(rule, text, mm, ruler))
    return mm


def _out_of_bounds(rule: LengthRule, text: str, mm: float, ruler: RulerName) -> str:
    """A length that cannot be, with the span on the ruler in use and the unit that was perhaps meant."""
    on = RULERS[ruler]

    def on_ruler(mm: float) -> str:
        return on.show(mm) if abs(on.snap(mm) - mm) < 0.3 * mm or not mm else f"{mm:g} mm"

    show = on.fine if rule.fine else on_ruler
    side = "small" if mm < rule.low_mm else "large"
    said = (
        f"{text.strip()} is too {side} for {rule.label}: it goes from {show(rule.low_mm)} to "
        f"{show(rule.high_mm)}."
    )
    number = re.match(r"\s*[\d.,]+(?!\s*[\d/])", text)
    if number and parse_thickness(text) is None:
        other = "in" if parse_length(text, ruler, rule.fine).unit != "in" else "mm"
        if rule.low_mm <= parse_length(f"{number[0]} {other}", fine=True).mm <= rule.high_mm:
            return f"{said} Did you mean {number[0].strip()} {other}?"
    return said


def shows(text: str, mm: float, ruler: RulerName, fine: bool = False) -> bool:
    """Whether ``text`` is exactly how ``mm`` stands on the screen."""
    on = RULERS[ruler]
    return text.strip() in ((on.fine(mm), f"{mm:g} mm") if fine else (on.number(mm), on.show(mm)))


def with_unit(text: str, ruler: RulerName) -> str:
    """The typed text with the unit it was read in, so that it can be read again on its own."""
    text = " ".join(text.split())
    if re.search(r"[a-z″\"”]\.?$", text.lower()) or "/" in text:
        return text
    return f"{text} {ruler}" if re.search(r"\d$", text) else text
