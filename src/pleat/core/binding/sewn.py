"""What a binding with thread through the folds hands to the right."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.binding.path import Fault, ThreadPath
from pleat.core.binding.result import BindingResult
from pleat.core.binding.thread import ThreadNeed


@dataclass(frozen=True, kw_only=True)
class SewnResult(BindingResult):
    """Stations in mm from the leaf's head, in so many rows; the path through them and the kind's own, and what is sewn with."""

    rows: int
    symmetric: bool
    path: ThreadPath
    path_faults: tuple[Fault, ...]
    usual_path: tuple[int, ...]
    own_path: bool
    need: ThreadNeed
    thread_name: str
    thread_diameter_mm: float
    strands: int
    tail_mm: float
