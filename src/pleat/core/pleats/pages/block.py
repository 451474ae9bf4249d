"""The block: what Pages hands to the right, whatever it is made of."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from pleat.core.base.estimate import Estimate
from pleat.core.base.kinds import BlockMember, UnitKind
from pleat.core.base.plan import Offer, PleatResult
from pleat.core.materials.items import Paper
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.paper.compute import PaperResult


@dataclass(frozen=True)
class LeftOfPages:
    """What a block is worked out from; ``papers`` are the book's own by their keys, as they are described."""

    brief: BriefResult
    paper: PaperResult
    papers: Mapping[str, Paper]


@dataclass(frozen=True)
class Unit:
    """What is held as one: a section, or a leaf. ``through`` is the paper in mm that a needle or a punch
    passes, ``share`` its part of the block's thickness, against those of the others."""

    through: Estimate
    share: float


@dataclass(frozen=True, kw_only=True)
class Block(PleatResult):
    """The block of leaves, lengths in mm.

    ``thickness`` is that of all units pressed, ``measured`` says that it was read and not estimated.
    ``stands_out`` is how far inner leaves stand out past the outermost at the fore edge, None where they end
    level; ``level`` are the ways to make them. ``flap_mm`` is the fold-out at the fore edge. ``middle_mm`` is
    how much thicker it is away from the edge that is held, ``middle_each_mm`` what of it each leaf adds; a
    leaf that is made of something else than leaf paper says how thick it is where it is held (``leaf_mm``),
    and how wide its own hinge is. ``odd`` are leaves of other sizes, each (width, height, where along the
    edge). ``tucked`` leaves go into the cover and are no pages. ``whole_sheets`` are the sheets of a
    pile that are folded as they are, by the key of each of its papers, ``cut_signature`` what its pieces are
    known by then.
    """

    unit: UnitKind
    units: tuple[Unit, ...]
    leaves: int
    leaf_width_mm: float
    leaf_height_mm: float
    thickness: Estimate
    measured: bool
    stands_out_mm: Estimate | None
    swatch: str
    sides: int
    flap_mm: float = 0.0
    middle_mm: float = 0.0
    middle_each_mm: float = 0.0
    leaf_mm: float | None = None
    own_hinge_mm: float | None = None
    odd: tuple[tuple[float, float, str], ...] = ()
    level: tuple[Offer, ...] = ()
    tucked: int = 0
    whole_sheets: Mapping[str, int] = field(default_factory=dict)
    cut_signature: str = ""

    @property
    def pages(self) -> int:
        return 2 * (self.leaves - self.tucked)

    @property
    def cut_states(self) -> tuple[str, ...]:
        """The states of the work in which its pieces are cut."""
        return ("leaf.cut",)

    @property
    def ready(self) -> tuple[str, ...]:
        """The states in which it is made, where it is a thing by itself before it is held."""
        return ()

    @property
    def loose(self) -> tuple[str, ...]:
        """The pieces that what holds it fixes: those that no step of its own has made a part of another."""
        fixed = {key for step in self.steps for key in step.fixes}
        return tuple(key for part in self.parts if (key := f"pages.{part.key}") not in fixed)

    @property
    def through(self) -> Estimate:
        """The most that a needle passes in one unit."""
        return max((one.through for one in self.units), key=lambda estimate: estimate.likely)

    @property
    def in_words(self) -> str:
        """Its leaves and pages together."""
        return f"{self.leaves} leaves, {self.pages} pages"


@dataclass(frozen=True, kw_only=True)
class BlockKind(BlockMember):
    """A member of Pages with its computation, which never raises."""

    compute: Callable[[Any, LeftOfPages], Block]
