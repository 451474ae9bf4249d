"""What a drawing is made of. All coordinates are mm with y downwards; a style is a name, never a colour.

Sizes that stay the same at any scale (dots, arrows, dimension lines) are left to the pen that draws them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
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
    """A text at a point; ``shift`` moves it by pen units, ``turned`` sets it reading upward, ``upside_down``
    on its head around the point."""

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

    Levels count outward from 1. With a ``spot`` the place of the number is left free for an input of that
    name.
    """

    side: EdgeSide
    start: float
    end: float
    text: str
    level: int = 1
    spot: str = ""


@dataclass(frozen=True)
class ControlSpot:
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
    """A drawing ``width`` x ``height`` mm with what is in it, and a sentence that says what it shows;
    ``room`` are pen units kept free beside it."""

    width: float
    height: float
    says: str
    shapes: Sequence[Shape]
    dims: Sequence[Dim] = field(default=())
    spots: Sequence[ControlSpot] = field(default=())
    room: Sequence[tuple[EdgeSide, float]] = field(default=())


def scaled(drawing: Drawing, by: float) -> Drawing:
    """The drawing so many times as large, its lines and letters as they are; without dimension lines and
    spots."""
    return Drawing(
        drawing.width * by,
        drawing.height * by,
        drawing.says,
        tuple(_scaled(shape, by) for shape in drawing.shapes),
    )


def _scaled(shape: Shape, by: float) -> Shape:
    match shape:
        case Rect():
            place = {name: getattr(shape, name) * by for name in ("x", "y", "width", "height", "radius")}
            return replace(shape, **place)
        case Line():
            return replace(shape, x1=shape.x1 * by, y1=shape.y1 * by, x2=shape.x2 * by, y2=shape.y2 * by)
        case Curve():
            width = None if shape.width is None else shape.width * by
            return replace(
                shape,
                commands=tuple((letter, _points(letter, numbers, by)) for letter, numbers in shape.commands),
                width=width,
            )
        case Dot():
            return replace(
                shape,
                x=shape.x * by,
                y=shape.y * by,
                radius_mm=None if shape.radius_mm is None else shape.radius_mm * by,
            )
        case Label():
            return replace(shape, x=shape.x * by, y=shape.y * by)
    return replace(shape, shapes=tuple(_scaled(one, by) for one in shape.shapes))


def moved(shape: Shape, x: float, y: float) -> Shape:
    """The shape so many mm to the right and down."""
    match shape:
        case Line():
            return replace(shape, x1=shape.x1 + x, y1=shape.y1 + y, x2=shape.x2 + x, y2=shape.y2 + y)
        case Curve():
            return replace(
                shape,
                commands=tuple(
                    (letter, _shifted(letter, numbers, x, y)) for letter, numbers in shape.commands
                ),
            )
        case Group():
            return replace(shape, shapes=tuple(moved(one, x, y) for one in shape.shapes))
    return replace(shape, x=shape.x + x, y=shape.y + y)


def framed(drawing: Drawing) -> Drawing:
    """The drawing grown until every shape in it is inside, whatever lies past its edges; words and arcs are
    not reached for."""
    points = [point for shape in drawing.shapes for point in _ends(shape)]
    left, top = (min([0.0, *(point[axis] for point in points)]) for axis in (0, 1))
    right, bottom = (
        max([far, *(point[axis] for point in points)])
        for axis, far in ((0, drawing.width), (1, drawing.height))
    )
    dims = tuple(
        replace(dim, start=dim.start - shift, end=dim.end - shift)
        for dim in drawing.dims
        for shift in [_along(dim, left, top)]
    )
    return replace(
        drawing,
        width=right - left,
        height=bottom - top,
        shapes=tuple(moved(shape, -left, -top) for shape in drawing.shapes),
        dims=dims,
        spots=tuple(replace(spot, x=spot.x - left, y=spot.y - top) for spot in drawing.spots),
    )


def _along(dim: Dim, left: float, top: float) -> float:
    """How far the axis of a dimension line moves."""
    return left if dim.side in ("top", "bottom") else top


def _ends(shape: Shape) -> list[tuple[float, float]]:
    """Points no straight shape reaches past."""
    match shape:
        case Rect():
            return [(shape.x, shape.y), (shape.x + shape.width, shape.y + shape.height)]
        case Line():
            return [(shape.x1, shape.y1), (shape.x2, shape.y2)]
        case Curve():
            return [
                pair
                for letter, n in shape.commands
                if letter != "A"
                for pair in zip(n[::2], n[1::2], strict=True)
            ]
        case Group():
            return [point for one in shape.shapes for point in _ends(one)]
    return []


def _shifted(letter: str, numbers: tuple[float, ...], x: float, y: float) -> tuple[float, ...]:
    """The numbers of a command; of an arc only its end moves."""
    first = 5 if letter == "A" else 0
    moved = [number + (y if place % 2 else x) for place, number in enumerate(numbers[first:])]
    return (*numbers[:first], *moved)


def _points(letter: str, numbers: tuple[float, ...], by: float) -> tuple[float, ...]:
    """The numbers of a command; an arc's turn and flags stay."""
    return tuple(
        number if letter == "A" and place in (2, 3, 4) else number * by
        for place, number in enumerate(numbers)
    )


def unusable(
    width: float,
    height: float,
    margins: tuple[float, float, float, float],
    windows: Sequence[tuple[float, float, float, float]],
) -> list[Shape]:
    """What cannot be used of a sheet: edges up to a dashed line, and holes in it."""
    left, top, right, bottom = margins
    shapes: list[Shape] = []
    if any(margins):
        shapes.append(Rect(left, top, max(width - left - right, 0), max(height - top - bottom, 0), "ghost"))
    return shapes + [
        Rect(x, y, min(wide, width - x), min(high, height - y), "void")
        for x, y, wide, high in windows
        if x < width and y < height
    ]


def grain_arrow(x: float, y: float, length: float, axis: Literal["w", "h"]) -> tuple[Shape, ...]:
    """A two-headed arrow of ``length`` mm around a point, along the grain."""
    if axis == "h":
        return (
            Line(x, y, x, y - length / 2, "grain", arrow=True),
            Line(x, y, x, y + length / 2, "grain", arrow=True),
        )
    return (
        Line(x, y, x - length / 2, y, "grain", arrow=True),
        Line(x, y, x + length / 2, y, "grain", arrow=True),
    )
