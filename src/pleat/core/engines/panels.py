"""Panel plans: one piece of stock as a row of panels with a fold between each two.

Positions run from the left end, so that errors do not pile up: a position is rounded, a width never is.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import accumulate

from pleat.core.base.plan import Fold


@dataclass(frozen=True)
class RowPanel:
    """One panel: its name and width in mm."""

    name: str
    width_mm: float

    def __post_init__(self) -> None:
        if self.width_mm < 0:
            raise ValueError(f"panel {self.name} is narrower than nothing")


@dataclass(frozen=True)
class PanelPlan:
    """Panels left to right, all ``height_mm`` high; every fold between them goes the same way but those in
    ``valleys``, by number from 0."""

    panels: tuple[RowPanel, ...]
    height_mm: float
    valleys: frozenset[int] = frozenset()

    @property
    def width_mm(self) -> float:
        return sum(panel.width_mm for panel in self.panels)

    @property
    def edges_mm(self) -> tuple[float, ...]:
        """Every panel edge from the left end: 0, the folds, the right end."""
        return tuple(accumulate((panel.width_mm for panel in self.panels), initial=0.0))

    @property
    def scores_mm(self) -> tuple[float, ...]:
        """The folds alone."""
        return self.edges_mm[1:-1]

    @property
    def folds(self) -> tuple[Fold, ...]:
        return tuple(
            Fold(position, "valley" if number in self.valleys else "mountain")
            for number, position in enumerate(self.scores_mm)
        )
