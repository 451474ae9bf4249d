"""What a soft wrap hands to the right."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.engines.panels import PanelPlan
from pleat.core.pleats.cover.laid import LaidResult


@dataclass(frozen=True, kw_only=True)
class WrapResult(LaidResult):
    """The wrap as a panel plan; squares in mm as they really come out, holes from the cover's own head.

    ``rows_mm`` are the sections' rows of holes from the left edge, ``on_board`` says that it can be scored on
    the maker's scoring board.
    """

    wrap: PanelPlan
    creases: int
    score_offset_mm: float | None
    square_mm: float
    rows_mm: tuple[float, ...]
    on_board: bool

    @property
    def flap_mm(self) -> float:
        """What is folded in at either fore edge."""
        first = self.wrap.panels[0]
        return first.width_mm if first.name == "flap" else 0.0
