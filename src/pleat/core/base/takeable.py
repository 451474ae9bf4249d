"""Drops offers whose values lie outside the bounds of their field: taken, they would set nothing."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Final, TypeVar

from pleat.core.base.fields import FieldRule, LengthRule, NumberRule
from pleat.core.base.plan import Check, Offer, PleatResult

BEYOND: Final = "What would mend it is more, or less, than its field takes."
Rules = Callable[[str], FieldRule | None]
"""The rule of a field of the book, by its path."""
R = TypeVar("R", bound=PleatResult)


def takeable(result: R, rule_of: Rules) -> R:
    """The result with those of its offers that the book's fields take; a check that is left without one says
    so."""
    checks = tuple(_told(check, rule_of) for check in result.checks)
    offers = tuple(offer for offer in result.offers if _fits(offer, rule_of))
    return (
        result
        if checks == result.checks and offers == result.offers
        else replace(result, checks=checks, offers=offers)
    )


def _told(check: Check, rule_of: Rules) -> Check:
    offers = tuple(offer for offer in check.offers if _fits(offer, rule_of))
    if len(offers) == len(check.offers):
        return check
    return replace(check, offers=offers, no_fix=check.no_fix or ("" if offers else BEYOND))


def _fits(offer: Offer, rule_of: Rules) -> bool:
    anew = tuple(
        path.removesuffix("kind") for path, _ in offer.changes if path.endswith(".kind")
    )  # their fields are another member's
    return all(
        _takes(path, value, rule_of) for path, value in offer.changes if not (anew and path.startswith(anew))
    )


def _takes(path: str, value: object, rule_of: Rules) -> bool:
    if not isinstance(value, (int, float)) or isinstance(value, bool):
        return True
    rule = rule_of(path)
    if isinstance(rule, LengthRule):
        return rule.low_mm <= value <= rule.high_mm
    return not isinstance(rule, NumberRule) or rule.low <= value <= rule.high
