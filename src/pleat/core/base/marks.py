"""What nobody typed, on the marks of a ruler: the lengths a record is declared with, as a maker with that
ruler would choose them.

Thicknesses stay, and so does what tells of a material: both are measured and not chosen.
"""

from __future__ import annotations

from functools import cache
from typing import TypeVar

from pleat.core.base.fields import FieldRule, LengthRule, Record, declared
from pleat.core.base.units import Ruler

R = TypeVar("R", bound=Record)


def chosen_near(rule: FieldRule | None, value: object, ruler: Ruler) -> object:
    """A value that nobody typed: of a length in mm the mark of the ruler that is near, within the bounds of
    its field; any other as it is."""
    if not isinstance(rule, LengthRule) or rule.fine or not isinstance(value, float):
        return value
    near = ruler.near(value)
    return near if rule.low_mm <= near <= rule.high_mm else value


def on_marks(record: R, ruler: Ruler) -> R:
    """The record, and those within it, with every length that was not given on a mark of the ruler; itself
    where all of them are."""
    changed: dict[str, object] = {}
    for name, held in record:
        rule = _lengths(type(record)).get(name)
        now = (
            _within(held, ruler)
            if rule is None or name in record.model_fields_set
            else chosen_near(rule, held, ruler)
        )
        if now is not held and now != held:
            changed[name] = now
    return record.model_copy(update=changed) if changed else record


def _within(held: object, ruler: Ruler) -> object:
    if isinstance(held, Record):
        return on_marks(held, ruler)
    if isinstance(held, dict):
        return {key: _within(one, ruler) for key, one in held.items()}
    return tuple(_within(one, ruler) for one in held) if isinstance(held, tuple) else held


@cache
def _lengths(record: type[Record]) -> dict[str, LengthRule]:
    rules = {name: declared(field).rule for name, field in record.model_fields.items()}
    return {name: rule for name, rule in rules.items() if isinstance(rule, LengthRule)}
