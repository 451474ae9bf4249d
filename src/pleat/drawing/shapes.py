"""What a drawing is made of. All coordinates are mm with y downwards; a style is a name, never a colour.

Sizes that stay the same at any scale (dots, arrows, dimension lines) are left to the pen that draws them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

Anchor = Literal["start", "middle", "end"]
EdgeSide = Literal["top", "bottom", "left", "right"]


@dataclass(frozen=True)
class Rect:
    x: float
    y: float
    width: float
    height: float
    style: str
    radius: float = 0.0


@dataclass(frozen=True)
class Line:
    x1: float
    y1: float
    x2: float
    y2: float
    style: str
    arrow: bool = False


@dataclass(frozen=True)
class Curve:
    """A path: (command, numbers) pairs of M, L, C, Q, A and Z in mm; an A's flags stay as they are.

    ``width`` is a stroke's true width in mm, for things with a thickness.
    """

    commands: tuple[tuple[str, tuple[float, ...]], ...]
    style: str
    width: float | None = None


@dataclass(frozen=True)
class Dot:
    """A circle of ``radius`` pen units around a point, or of ``radius_mm`` to scale."""

    x: float
    y: float
    style: str
    radius: float = 1.0
    radius_mm: float | None = None


@dataclass(frozen=True)
class Label:
    """A text at a point; ``shift`` moves it by pen units, ``turned`` sets it reading upward, ``upside_down`` on its head around the point."""

    x: float
    y: float
    text: str
    style: str = "label"
    anchor: Anchor = "middle"
    shift: tuple[float, float] = (0.0, 0.0)
    turned: bool = False
    upside_down: bool = False


@dataclass(frozen=True)
class Dim:
    """A dimension line outside the drawing, from ``start`` to ``end`` along the axis of its ``side``.

    Levels count outward from 1. With a ``spot`` the place of the number is left free for an input of that name.
    """

    side: EdgeSide
    start: float
    end: float
    text: str
    level: int = 1
    spot: str = ""


@dataclass(frozen=True)
class Spot:
    """A named place on the drawing where the page puts a control; ``shift`` in pen units."""

    name: str
    x: float
    y: float
    shift: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Group:
    """Shapes that belong together, with a style of their own and data the page's script may read."""

    style: str
    shapes: tuple[Shape, ...]
    data: tuple[tuple[str, str], ...] = ()


Shape = Rect | Line | Curve | Dot | Label | Group


@dataclass(frozen=True)
class Drawing:
    """A drawing ``width`` x ``height`` mm with what is in it, and a sentence that says what it shows."""

    width: float
    height: float
    says: str
    shapes: Sequence[Shape]
    dims: Sequence[Dim] = field(default=())
    spots: Sequence[Spot] = field(default=())


def grain_arrow(x: float, y: float, length: float, axis: Literal["w", "h"]) -> tuple[Shape, ...]:
    """A two-headed arrow of ``length`` mm around a point, along the grain."""
    if axis == "h":
        return (Line(x, y, x, y - length / 2, "grain", arrow=True), Line(x, y, x, y + length / 2, "grain", arrow=True))
    return (Line(x, y, x - length / 2, y, "grain", arrow=True), Line(x, y, x + length / 2, y, "grain", arrow=True))
