"""Extras: nothing can be put in yet, so nothing is added to the book; the result says so."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from pleat.core.estimate import Estimate
from pleat.core.extras.record import Extras
from pleat.core.plan import Figure, PleatResult


@dataclass(frozen=True, kw_only=True)
class ExtrasResult(PleatResult):
    """The thickness in mm that is added to the book, and to the sections it goes into, by their numbers from 0."""

    added: Estimate
    in_unit: Mapping[int, float] = field(default_factory=dict)

    @property
    def idle(self) -> bool:
        return not self.parts


def compute(_extras: Extras) -> ExtrasResult:
    """What the extras add: nothing, while none can be put in."""
    nothing = Figure(
        key="added", label="added", value="nothing yet", show="text", how="No pockets, flaps, bands or tags are in this book.", rules=()
    )
    return ExtrasResult(key_figure=nothing, figures=(), checks=(), added=Estimate.exact(0.0))
