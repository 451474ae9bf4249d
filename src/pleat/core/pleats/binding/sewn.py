"""What a binding with thread through the folds hands to the right."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.engines.sewing.faults import Fault
from pleat.core.engines.sewing.moves import Sewing, Side
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.pleats.binding.result import BindingResult
from pleat.core.pleats.binding.stations import HoleRange, Layout
from pleat.core.pleats.binding.thread import ThreadNeed


@dataclass(frozen=True, kw_only=True)
class SewnResult(BindingResult):
    """Stations in mm from the leaf's head, the sewing through them, and what it is sewn with.

    ``places_mm`` are what is set along the fold: holes, or the middles of tapes. ``sewing`` is empty of
    threads where the pattern cannot be sewn on so many sections; ``stretches`` is the thread followed from
    its start. ``pattern`` is the kind's name, and ``own`` says that the path is the maker's. ``swell_by_gap``
    is what the thread adds between each two holes, all sections together.
    """

    layout: Layout
    places_mm: tuple[float, ...]
    window: HoleRange
    symmetric: bool
    sewing: Sewing
    stretches: tuple[Stretch, ...]
    faults: tuple[Fault, ...]
    pattern: str
    own: bool
    need: ThreadNeed
    swell_by_gap: tuple[Estimate, ...]
    thread_name: str
    thread_diameter_mm: float
    thread_swatch: str
    strands: int
    tail_mm: float

    @property
    def rows(self) -> int:
        return len(self.sewing.bed.rows)

    @property
    def starts(self) -> Side:
        """The side the first thread starts on."""
        return self.sewing.threads[0][0].side if self.sewing.threads else "inside"
