"""What everything that can be put into a book has: where it goes, what it is cut from, and what comes of
it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Final, Literal

from pydantic import Field

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, Record, Word
from pleat.core.base.kinds import Kind, Member
from pleat.core.base.plan import Check, Count, Figure
from pleat.core.base.states import WorkTag
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.programme import Where
from pleat.core.engines.folding.sheet import Piece
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.paper.compute import PaperResult

MOST_PLACES: Final = 120
STOCKS: Final = (("card", "folding card"), ("mat", "face paper"), ("leaf", "leaf paper"))
Stocked = Annotated[Literal["card", "mat", "leaf"], ChoiceRule("cut from", STOCKS)]
Sided = Annotated[
    Literal["head", "left", "right", "tail"],
    ChoiceRule("its mouth", (("head", "head"), ("left", "left"), ("right", "right"), ("tail", "tail"))),
]


class Placed(Record):
    """One place: the face by its name, and where its corner lies on it in mm, from the left edge as one looks
    and from the head; in the middle where nothing is said."""

    on: Word
    x_mm: Annotated[float, LengthRule("from the left edge", -500, 2000)] | None = None
    y_mm: Annotated[float, LengthRule("from the head", -500, 2000)] | None = None


class Extra(Member):
    """One design, and every place it is put."""

    places: tuple[Placed, ...] = Field(default=(), max_length=MOST_PLACES)


@dataclass(frozen=True)
class Face:
    """A face that something can be put on, mm: its name, which lasts; what it is called; the leaf it is a
    side of, by number from 0, and whether one looks at its front. ``spine`` is the side of it where it is
    held as one looks at it. ``origin``, ``across`` and ``down`` take a point of it to where that lies in the
    shut book, from the spine and from the head. ``facing`` is the face it lies against; ``cover`` says that
    it is the inside of a cover, which is there before the pleat that makes it: it is taken to be as large as
    the leaves."""

    name: str
    title: str
    leaf: int
    width_mm: float
    height_mm: float
    spine: Literal["left", "right", "none"] = "none"
    origin: tuple[float, float] = (0.0, 0.0)
    across: tuple[float, float] = (1.0, 0.0)
    down: tuple[float, float] = (0.0, 1.0)
    facing: str = ""
    behind: str = ""
    good: bool = True
    cover: bool = False

    def placed(self, x: float, y: float) -> tuple[float, float]:
        """Where a point lies in the shut book."""
        return (
            self.origin[0] + x * self.across[0] + y * self.down[0],
            self.origin[1] + x * self.across[1] + y * self.down[1],
        )


@dataclass(frozen=True)
class LeftOfExtras:
    """What extras are worked out from."""

    brief: BriefResult
    paper: PaperResult
    pages: Block


@dataclass(frozen=True)
class Layer:
    """A rectangle of one thickness within a thing, mm from its corner."""

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    thick: Estimate


@dataclass(frozen=True)
class Mouth:
    """Where something slides in, mm: the side that is open, what passes between what holds it, and how deep
    it goes; ``held`` are the sides that are glued, each with what that takes of the room."""

    side: Where
    throat_mm: float
    depth_mm: float
    held: Mapping[Where, float]


@dataclass(frozen=True)
class Swing:
    """What turns on a hinge: the side of the thing the hinge lies on, and how far it reaches past it when it
    is open, mm."""

    hinge: Where
    reach_mm: float


@dataclass(frozen=True)
class WorkWords:
    """What is done for it, in words: making it, putting it on, filling it. ``flat`` work wants the sheet
    flat, before folding in and binding; ``cuts`` says that a knife goes through the page."""

    make: str = ""
    fix: str = ""
    fill: str = ""
    flat: str = ""
    cautions: tuple[str, ...] = ()
    tags: frozenset[WorkTag] = frozenset()
    wait_minutes: int = 30


@dataclass(frozen=True, kw_only=True)
class Thing:
    """What an extra comes to, in mm: its outline on the page, the pieces it is cut from, its layers, what it
    counts out, where something slides in and how it swings. ``hole`` goes through the leaf, ``partner`` has
    its other half where it lands on the facing page. ``inside`` are those of its layers that slide in, and
    ``stands_mm`` is how far they stand out past its mouth; ``stuck`` is the rectangle (left, head, right,
    tail) of it that is fixed, where not all of it is; ``out`` is the side on which it is meant to reach past
    the edge of its face, and how far; ``outline`` are its corners where it is no rectangle, those of its
    mouth first; ``lines`` are edges that show on it; ``at`` is where its corner lies by itself, in the middle
    where nothing is said; ``checks`` are about itself, wherever it is."""

    title: str
    width_mm: float
    height_mm: float
    pieces: tuple[Piece, ...] = ()
    layers: tuple[Layer, ...] = ()
    counts: tuple[Count, ...] = ()
    mouth: Mouth | None = None
    swing: Swing | None = None
    inside: tuple[Layer, ...] = ()
    stands_mm: float = 0.0
    stuck: tuple[float, float, float, float] | None = None
    out: tuple[Where, float] | None = None
    outline: tuple[Point, ...] = ()
    lines: tuple[tuple[Point, Point], ...] = ()
    at: tuple[float, float] | None = None
    figures: tuple[Figure, ...] = ()
    checks: tuple[Check, ...] = ()
    work: WorkWords = WorkWords()
    hole: bool = False
    partner: bool = False
    flat_mat: bool = False
    sheet_stock: str = ""


@dataclass(frozen=True, kw_only=True)
class ExtraKind(Kind):
    """A member of Extras: ``compute`` takes (record, its id, the face, what stands to the left) and gives a
    Thing. ``group`` is what it is listed under, ``begins`` what is decided when it is put in."""

    compute: Callable[[Any, str, Face, LeftOfExtras], Thing]
    group: str
    begins: Mapping[str, object] = field(default_factory=dict)
