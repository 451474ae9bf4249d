"""What Binding is worked out from, and what every binding hands to the right."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.kinds import BindingMember, Edge
from pleat.core.base.plan import PleatResult
from pleat.core.materials.tools import Tools
from pleat.core.pleats.extras.compute import ExtrasResult
from pleat.core.pleats.pages.block import Block, LeftOfPages
from pleat.core.trade.holes import RING_HOLE_MM

NO_SWELL: Final = Estimate.exact(0.0)


@dataclass(frozen=True)
class LeftOfBinding(LeftOfPages):
    """Brief, papers, the block and what goes into it; and what the maker owns to hold it with."""

    pages: Block
    extras: ExtrasResult
    tools: Tools


@dataclass(frozen=True, kw_only=True)
class BindingResult(PleatResult):
    """How the block is held, lengths in mm.

    ``positions_mm`` are the holes from the leaf's head, ``inset_mm`` how far they lie from the edge that is
    held (0: in the fold). ``usual_mm`` is where this binding puts the outermost hole by itself; None where
    that is not for it to say. ``swell`` is what it adds to the thickness there. ``cover_holes_mm`` are holes
    that the cover has already, from its own head. ``pleat_mm`` is how deep the cover is folded inward between
    two sections. ``look`` is what to look at when the book is done. ``boards_by`` says whether boards are
    caught by the thread, or hang on strips that are glued to them. ``floor_mm`` is how far a hinge strip is
    from one of its outer folds to the other.
    """

    at: Edge
    height_mm: float
    positions_mm: tuple[float, ...] = ()
    inset_mm: float = 0.0
    usual_mm: float | None = None
    swell: Estimate = NO_SWELL
    cover_holes_mm: tuple[float, ...] | None = None
    pleat_mm: float = 0.0
    look: str = ""
    floor_mm: float | None = None
    boards_by: Literal["thread", "strips"] = "thread"

    @property
    def at_head(self) -> bool:
        """Whether it is held along the head and not along the spine."""
        return False

    @property
    def through_mm(self) -> float:
        """How wide a hole of a cover is that it goes through."""
        return RING_HOLE_MM


@dataclass(frozen=True, kw_only=True)
class BindingKind(BindingMember):
    """A member of Binding with its computation, which never raises."""

    compute: Callable[[Any, LeftOfBinding], BindingResult]
