"""The picture of a step: what lies on the table, what the hands do, and what has to be right afterwards.

A scene is made of what the plan holds already, in mm on a table whose corner is at the head and left; y runs
down. It has no colours, no place on a page, and no words but names. Distances are measured from one edge,
never chained. What is ``now`` is moved or made by the step; what ``rests`` is there before; what is ``later``
comes with another mark of the same step.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

SceneKind = Literal[
    "lay out",
    "cut",
    "mark",
    "fold",
    "nest",
    "pierce",
    "punch",
    "sew",
    "thread",
    "glue",
    "lay on",
    "turn in",
    "hang in",
    "press",
    "measure",
    "set",
    "put in",
    "look",
]
When = Literal["rests", "now", "later"]
Axis = Literal["upright", "level"]
LineKind = Literal["score", "mark", "fold", "cut", "stop"]
Side = Literal["top", "bottom", "left", "right"]
Point = tuple[float, float]


@dataclass(frozen=True)
class Lying:
    """A piece flat on the table, or edge on; ``stock`` is the key of its stock in the palette, "" for a tool,
    ``grain`` the axis of its grain where it matters, ``times`` how many lie on each other."""

    name: str
    x: float
    y: float
    width: float
    height: float
    when: When = "rests"
    stock: str = ""
    grain: Literal["w", "h", ""] = ""
    times: int = 1


@dataclass(frozen=True)
class LineOn:
    """A line across what lies there: upright or level, at ``at`` from the table's left edge or head."""

    axis: Axis
    at: float
    start: float
    end: float
    kind: LineKind
    when: When = "now"


@dataclass(frozen=True)
class HoleAt:
    """A hole, with its diameter; 0 for one that a needle or an awl makes."""

    x: float
    y: float
    across: float = 0.0
    when: When = "now"


@dataclass(frozen=True)
class GlueZone:
    """A part of a face that is glued, or that has to stay free of glue."""

    x: float
    y: float
    width: float
    height: float
    glued: bool = True


@dataclass(frozen=True)
class PathOn:
    """A line through points: a sheet seen edge on, a thread, a tool."""

    points: tuple[Point, ...]
    when: When = "rests"


@dataclass(frozen=True)
class Distance:
    """A measure that has to be right, along the axis of its side; ``level`` counts outward from 1. It is told
    on the marks of the ruler, or finer where it is a ``thin`` thing's thickness."""

    side: Side
    start: float
    end: float
    level: int = 1
    thin: bool = False

    @property
    def value_mm(self) -> float:
        return self.end - self.start


@dataclass(frozen=True)
class NumberAt:
    """A number beside what it belongs to: above a line that is measured from the left edge, left of one or
    right of a hole that is measured from the head."""

    x: float
    y: float
    mm: float
    side: Side


@dataclass(frozen=True)
class Moved:
    """A hand moves something from one point to another."""

    start: Point
    end: Point


@dataclass(frozen=True, kw_only=True)
class Scene:
    """What a step looks like, ``width`` x ``height`` mm. ``numbers`` are those of its lines and holes;
    ``copies`` says how often the same is done."""

    kind: SceneKind
    width: float = 1.0
    height: float = 1.0
    lying: tuple[Lying, ...] = ()
    lines: tuple[LineOn, ...] = ()
    holes: tuple[HoleAt, ...] = ()
    zones: tuple[GlueZone, ...] = ()
    strokes: tuple[PathOn, ...] = ()
    distances: tuple[Distance, ...] = ()
    moves: tuple[Moved, ...] = ()
    numbers: tuple[NumberAt, ...] = ()
    copies: int = 1

    @property
    def is_elsewhere(self) -> bool:
        """Whether the plan has already what is drawn."""
        return self.kind in ELSEWHERE


ELSEWHERE: Final[tuple[SceneKind, ...]] = ("cut", "sew")
"""What the plan has already as it has to be drawn: its sheets, and the moves of its sewing. Such a scene says
no more than its kind."""
SceneMaker = Callable[[], Scene | None]
"""A scene is made when it is looked at: a plan does not wait for it."""
