"""What is decided of any binding through holes along an edge, and what it hands to the right."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from pydantic import Field

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, TextRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.holes.punch import PitchPlan
from pleat.core.engines.holes.ring import Limits, Ring
from pleat.core.pleats.binding.record import MOST_STATIONS
from pleat.core.pleats.binding.result import BindingResult, LeftOfBinding
from pleat.core.trade.holes import NOTCH_JIG_MM, STRONG_ADDS_MM

Place = Annotated[float, LengthRule("a hole", 0, 1000)]
Along = Literal["side", "head"]


class Punched(Member):
    """Pleat 5 for leaves with holes along one edge. What is None is as this kind proposes it."""

    bound_at: Annotated[
        Along, ChoiceRule("bound", (("side", "at the side"), ("head", "at the head, to flip up")))
    ] = "side"
    inset_mm: Annotated[float, LengthRule("holes from the edge, to their middle", 2, 60)] | None = None
    hole_mm: Annotated[float, LengthRule("the hole's width", 1, 20, fine=True)] | None = None
    hinge_mm: Annotated[float, LengthRule("leaves scored to turn, from the edge", 5, 80)] | None = None
    reinforce: Annotated[
        Literal["none", "patches", "strip", "eyelets"],
        ChoiceRule(
            "holes made strong by",
            (
                ("none", "nothing"),
                ("patches", "patches round each"),
                ("strip", "a strip along the edge"),
                ("eyelets", "eyelets"),
            ),
        ),
    ] = "none"
    covers_punched: Annotated[
        Literal["mirrored", "same"],
        ChoiceRule(
            "covers punched", (("mirrored", "face to face, mirrored"), ("same", "both the same way round"))
        ),
    ] = "mirrored"
    punch_takes_mm: Annotated[float, LengthRule("your punch takes", 0.1, 20, fine=True)] | None = None
    lifts_planned: Annotated[int, NumberRule("lifts you mean to punch", 1, 2000, whole=True)] | None = None
    jig_mm: Annotated[float, LengthRule("the width of a jig you have", 3, 120)] | None = None


class HolesByHand(Punched):
    """A binding whose holes can be set one by one, or as pairs from the middle."""

    moved: Annotated[
        Literal["pairs", "single"],
        ChoiceRule("moving holes", (("pairs", "as pairs"), ("single", "one by one"))),
    ] = "pairs"
    positions_mm: tuple[Place, ...] | None = Field(
        default=None, max_length=MOST_STATIONS, description="holes set by hand, from the head"
    )


class Gear(HolesByHand):
    """A binding with hardware that is bought: what it is called, and the item among the materials."""

    gear: Annotated[str, TextRule("what it is called", 60, required=False)] = ""
    stock_id: str | None = Field(
        default=None, max_length=40, description="the item among the materials it was taken from"
    )


@dataclass(frozen=True)
class Usual:
    """Where a kind puts its holes by itself, lengths in mm: from the head (or the left), their width, from
    their middle to the edge; and the rule that says so. A ``notch`` is cut into the edge itself."""

    positions: tuple[float, ...]
    hole: float
    inset: float
    rule: Rule
    how: str
    fixed: bool = False
    notch: bool = False


@dataclass(frozen=True)
class Bored:
    """The holes as they are, lengths in mm along and from the edge that is held; ``by_hand`` when the maker
    set them, ``misfit`` how many were set by hand for another number of them."""

    record: Punched
    left: LeftOfBinding
    usual: Usual
    along: Along
    edge: float
    reach: float
    positions: tuple[float, ...]
    hole: float
    inset: float
    by_hand: bool
    misfit: int = 0

    @property
    def bridge(self) -> float:
        """The paper between a hole and the edge."""
        return self.inset - self.hole / 2

    @property
    def jig(self) -> float:
        """As wide as the strip it is laid on: to the score, as the hinge of the pages, or so that the holes
        run along its middle and it may be turned over."""
        return (
            self.record.hinge_mm
            or self.left.pages.own_hinge_mm
            or (NOTCH_JIG_MM if self.usual.notch else 2 * self.inset)
        )

    @property
    def leaf(self) -> float:
        """The thickness in mm of one leaf where it is punched: a page as it is made, else the leaf paper."""
        return (
            self.left.paper.leaf.caliper.likely
            if self.left.pages.leaf_mm is None
            else self.left.pages.leaf_mm
        )

    @property
    def covers(self) -> float:
        """The thickness in mm of both covers, as the book is made of them."""
        return covers_mm(self.left)

    @property
    def stack(self) -> float:
        """Leaves, what goes in, and covers: what is held, at the holes; mm."""
        return (
            self.left.pages.thickness.likely + self.left.extras.added.likely + self.covers + self.strengthened
        )

    @property
    def middle(self) -> float:
        """How much thicker the leaves are away from the holes, with what is put in; mm."""
        return self.left.pages.middle_mm + self.left.extras.beyond.likely

    @property
    def strengthened(self) -> float:
        """What patches, strips or eyelets on every leaf add at the holes, in mm."""
        return self.left.pages.leaves * STRONG_ADDS_MM[self.record.reinforce]


def covers_mm(left: LeftOfBinding) -> float:
    """Two covers of what this book's cover is made of, in mm; 0 for a book that has none."""
    roles = left.brief.made_of.cover.roles
    role = next((one for one in ("board", "cover") if one in roles), None)
    return 2 * left.paper.stock(role).caliper.likely if role else 0.0


def bore(record: Punched, left: LeftOfBinding, usual: Callable[[float], Usual]) -> Bored:
    """The holes of a record: ``usual`` says where its kind puts them along an edge so long."""
    at_head = record.bound_at == "head"
    edge, reach = left.pages.leaf_height_mm, left.pages.leaf_width_mm
    if at_head:
        edge, reach = reach, edge
    own = _on_marks(usual(edge), left.brief.ruler)
    placed: tuple[float, ...] | None = None if own.fixed else getattr(record, "positions_mm", None)
    fits = placed is not None and len(placed) == len(own.positions)
    return Bored(
        record=record,
        left=left,
        usual=own,
        along=record.bound_at,
        edge=edge,
        reach=reach,
        positions=tuple(sorted(placed)) if placed and fits else own.positions,
        hole=record.hole_mm or own.hole,
        inset=own.inset if record.inset_mm is None or own.notch else record.inset_mm,
        by_hand=fits,
        misfit=0 if placed is None or fits else len(placed),
    )


def _on_marks(usual: Usual, ruler: Ruler) -> Usual:
    """Where the maker is free, the holes lie on a mark from the edge, and one in the corner as far from the
    head; a binder's and a machine's are where they are."""
    if usual.fixed or usual.notch or usual.rule.origin == "standard":
        return usual
    inset = ruler.near(usual.inset)
    return replace(
        usual, inset=inset, positions=(inset,) if usual.positions == (usual.inset,) else usual.positions
    )


@dataclass(frozen=True)
class Cross:
    """What is seen from the end of the book, mm: the ring, the stack at the holes with its covers, in the
    middle, and the limits.

    ``coil`` says that pages shift when they are opened.
    """

    ring: Ring
    leaves: int
    block: float
    cover: float
    middle: float
    limits: Limits
    coil: bool = False

    @property
    def stack(self) -> float:
        return self.block + 2 * self.cover


@dataclass(frozen=True)
class Clamp:
    """What posts hold together, seen from the end of the book, mm: leaves, one cover, one batten, packing,
    the post's length and thickness."""

    block: float
    cover: float
    batten: float
    packing: float
    post: float
    post_thick: float


@dataclass(frozen=True, kw_only=True)
class PunchedResult(BindingResult):
    """A binding through holes along an edge, mm: the edge and how far the leaf goes on from it, the holes'
    width, the score that leaves turn on, the jig's width, what turns on what; ``movable`` says that holes can
    be dragged. ``sticks_mm`` is how long a stick or bar is, how thick a batten."""

    along: Along
    edge_mm: float
    reach_mm: float
    hole_mm: float
    hinge_mm: float | None
    lost_mm: float
    jig_mm: float
    title: str
    movable: bool = False
    cross: Cross | None = None
    clamp: Clamp | None = None
    pitch: PitchPlan | None = None
    what: str = "ring"
    thick_mm: float = 2.0
    sticks_mm: float = 0.0

    @property
    def at_head(self) -> bool:
        return self.along == "head"

    @property
    def through_mm(self) -> float:
        return self.hole_mm
