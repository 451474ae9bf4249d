"""What Cover is worked out from, and what every cover hands to the right."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pleat.core.base.estimate import Estimate
from pleat.core.base.kinds import CoverMember
from pleat.core.base.plan import PleatResult
from pleat.core.pleats.binding.result import BindingResult, LeftOfBinding


@dataclass(frozen=True)
class LeftOfCover(LeftOfBinding):
    """The block, and how it is held."""

    binding: BindingResult


@dataclass(frozen=True, kw_only=True)
class CoverResult(PleatResult):
    """The book as it is covered, lengths in mm: its front as it lies shut, its thickness at the spine, and
    its colour.

    ``square_head_mm`` is how far it stands past the leaves at head and tail, ``holes_mm`` its holes from its
    own head, ``board_mm`` how thick it is before and behind the leaves; ``hides_spine`` says that what the
    block is sewn with does not show.
    """

    front_width_mm: float
    front_height_mm: float
    spine: Estimate
    swatch: str
    square_fore_mm: float = 0.0
    square_head_mm: float = 0.0
    holes_mm: tuple[float, ...] = ()
    board_mm: float = 0.0
    hides_spine: bool = False


@dataclass(frozen=True, kw_only=True)
class CoverKind(CoverMember):
    """A member of Cover with its computation, which never raises."""

    compute: Callable[[Any, LeftOfCover], CoverResult]
