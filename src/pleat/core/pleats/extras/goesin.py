"""What goes into a pocket or under a flap: its size by name, how it lies and how thick it is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.pleats.extras.base import Extra
from pleat.core.pleats.structures.dressing import PHOTOS, SIZED, Sized
from pleat.core.trade.extras import EASE_MM


def ease_of(thick_mm: float) -> float:
    """How much wider than what goes in a throat has to be on a flat page, in mm: the usual ease, or its
    thickness up and down at either side (arithmetic)."""
    return max(EASE_MM, 2 * thick_mm)


class Filled(Extra):
    """An extra that is made for something: what that is, how it lies, how thick it is."""

    goes: Annotated[Sized, ChoiceRule("made for", SIZED)] = "none"
    goes_width_mm: Annotated[float, LengthRule("it is wide", 5, 600)] | None = None
    goes_height_mm: Annotated[float, LengthRule("it is high", 5, 600)] | None = None
    lies: Annotated[
        Literal["upright", "level"], ChoiceRule("it lies", (("upright", "upright"), ("level", "level")))
    ] = "upright"
    goes_thick_mm: Annotated[float, LengthRule("it is thick", 0.05, 60, fine=True)] = 0.3


@dataclass(frozen=True)
class Goes:
    """What goes in, as it lies, mm."""

    title: str
    width_mm: float
    height_mm: float
    thick: Estimate


def goes_in(record: Filled) -> Goes | None:
    """What was said to go in; nothing where it has no size yet."""
    title, width, height = PHOTOS[record.goes]
    if record.goes == "own":
        width, height = record.goes_width_mm or 0.0, record.goes_height_mm or 0.0
    if width <= 0 or height <= 0:
        return None
    if record.lies == "level":
        width, height = height, width
    thick = record.goes_thick_mm
    return Goes(
        title if record.goes != "own" else "what goes in",
        width,
        height,
        Estimate.ranged(thick * 0.85, thick, thick * 1.2, "how thick what goes in is"),
    )
