"""What a field that was left empty comes to: the value that Pleat worked out, as its field shows it."""

from __future__ import annotations

from typing import Any

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.units import Ruler
from pleat.core.document.labels import rule_of
from pleat.services.books import Opened

UNSAID = "by itself"


def by_itself(opened: Opened, path: str) -> str:
    """``4.5, worked out`` for what the plan has under the name of the field; without a number where it has
    none."""
    pleat, _, rest = path.partition(".")
    rule, ruler = rule_of(path, opened.book), opened.plan.brief.ruler
    if pleat == "extras":
        _, key, name = rest.split(".", 2)
        item = next((design for design in opened.plan.extras.items if design.key == key), None)
        return _said(getattr(item.thing, name, None), rule, ruler) if item else UNSAID
    result: Any = opened.plan[pleat]
    known = {
        one.path: one.by_itself_mm for one in (*getattr(result, "spots", ()), *getattr(result, "places", ()))
    }
    if gussets := getattr(result, "gussets", {}):
        known |= {gussets[room.name]: room.has_mm for room in result.made.rooms if room.name in gussets}
    if known.get(path):
        return _said(known[path], rule, ruler)
    plain = rest.removesuffix("_mm")
    figures = {
        figure.key: figure.value for figure in result.figures if figure.show in ("length", "thin", "count")
    }
    return _said(
        getattr(result, rest, None)
        or getattr(getattr(result, "shell", None), plain, None)
        or figures.get(plain),
        rule,
        ruler,
    )


def _said(value: object, rule: object, ruler: Ruler) -> str:
    value = value.likely if isinstance(value, Estimate) else value
    if not isinstance(value, int | float) or isinstance(value, bool) or not value:
        return UNSAID
    if isinstance(rule, LengthRule):
        shown = f"{value:g} mm" if rule.fine else ruler.number(value)
    else:
        shown = f"{value:g}" if isinstance(rule, NumberRule) else ""
    return f"{shown}, worked out" if shown else UNSAID
