"""What can be dragged on a drawing: a place along one axis, in mm, which a text at its path sets as well."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from pleat.core.base.plan import PleatResult
from pleat.core.base.points import point
from pleat.core.whole.planning import Plan


@dataclass(frozen=True)
class Handle:
    """A handle at ``value_mm`` along its axis, between ``low_mm`` and ``high_mm``, on marks of ``step_mm``.

    ``path`` is what it sets, and the name of its spot on the drawing. A ``fixed`` one stays where it is, and
    says so; ``lower`` ones have their field a row further down, where neighbours are close.
    """

    path: str
    label: str
    value_mm: float
    low_mm: float
    high_mm: float
    step_mm: float
    axis: Literal["x", "y"] = "x"
    fixed: bool = False
    lower: bool = False


@point("handles", "what can be dragged on the large drawing")
def handles(_result: PleatResult, _plan: Plan) -> tuple[Handle, ...]:
    """The handles on the large drawing of a result, found by its type; most have none."""
    return ()
