"""A drawing as SVG: the same shapes for the screen (classes, scaled to fit) and for print (plain attributes,
in mm)."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from html import escape
from typing import Final

from pleat.core.base.units import written_fractions
from pleat.drawing.shapes import Anchor, Curve, Dim, Dot, Drawing, EdgeSide, Group, Label, Line, Rect, Shape


@dataclass(frozen=True)
class Pen:
    """How scale-free things are drawn, in the pen's units (px on the screen, mm on paper).

    ``level`` is the distance between dimension lines, ``text`` the height of a figure. ``styles`` maps a
    style to presentation attributes; without it styles become classes. ``write`` sets a text of a style with
    its anchor at a point; without it the text goes out as it is, its fractions as spans, for a browser to
    set.
    """

    level: float
    tick: float
    gap: float
    arrow: float
    dot: float
    text: float
    edge: float
    styles: Mapping[str, str] | None = None
    write: Callable[[float, float, str, str, Anchor], str] | None = None

    def style(self, name: str) -> str:
        if self.styles is None:
            return f'class="{name}"'
        return self.styles.get(name, self.styles["line"])

    def lettering(self, name: str) -> str:
        """The same of a text."""
        return self.style(name) if self.styles is None else self.styles.get(name, self.styles["label"])


_FIELD: Final[dict[EdgeSide, float]] = {"left": 92, "right": 92, "top": 46, "bottom": 46}
"""Room a field takes across its dimension line, in px: fields stand on the screen only."""
_FIELD_AWAY: Final[dict[EdgeSide, float]] = {"left": 56, "right": 56, "top": 32, "bottom": 44}
_STROKE: Final = re.compile(r' stroke-width="[^"]*"')
SCREEN: Final = Pen(level=34, tick=5, gap=5, arrow=7, dot=5, text=15, edge=14)


STANDING: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=2, text=8, edge=0)


@dataclass(frozen=True)
class Rendered:
    """SVG text, with each spot's place as shares (0 to 1) of the picture's width and height, the scale used,
    and the width and height in px."""

    svg: str
    spots: dict[str, tuple[float, float]]
    scale: float
    width: float
    height: float


@dataclass(frozen=True)
class _Frame:
    scale: float
    left: float
    top: float
    pen: Pen

    def x(self, mm: float) -> float:
        return self.left + mm * self.scale

    def y(self, mm: float) -> float:
        return self.top + mm * self.scale


def render_screen(
    drawing: Drawing, width: float = 820, height: float = 430, pen: Pen = SCREEN, css: str = "drawing"
) -> Rendered:
    """The drawing fitted into ``width`` x ``height`` px with room for its dimension lines, centred."""
    room = {side: _room(drawing, side, pen) for side in ("left", "right", "top", "bottom")}
    scale = min(
        (width - room["left"] - room["right"]) / drawing.width,
        (height - room["top"] - room["bottom"]) / drawing.height,
    )
    left = room["left"] + (width - room["left"] - room["right"] - drawing.width * scale) / 2
    top = room["top"] + (height - room["top"] - room["bottom"] - drawing.height * scale) / 2
    frame = _Frame(scale, left, top, pen)
    body, spots = _body(drawing, frame)
    places = {name: (x / width, y / height) for name, (x, y) in spots.items()}
    svg = (
        f'<svg class="{css}" viewBox="0 0 {width:g} {height:g}" role="img" '
        f'aria-label="{escape(drawing.says)}" data-scale="{scale:.5f}">{body}</svg>'
    )
    return Rendered(svg, places, scale, width, height)


def render_fitted(drawing: Drawing, x: float, y: float, width: float, height: float, pen: Pen) -> str:
    """The drawing fitted into a place of a page, with room for its dimension lines; mm."""
    room = {side: _room(drawing, side, pen) for side in ("left", "right", "top", "bottom")}
    across, down = width - room["left"] - room["right"], height - room["top"] - room["bottom"]
    scale = min(across / drawing.width, down / drawing.height)
    left = x + room["left"] + (across - drawing.width * scale) / 2
    top = y + room["top"] + (down - drawing.height * scale) / 2
    return f"<g>{_body(drawing, _Frame(scale, left, top, pen))[0]}</g>"


def render_standing(drawing: Drawing, width: float, height: float, scale: float, css: str) -> str:
    """The drawing standing in the middle of ``width`` x ``height`` px at ``scale`` px a mm, so that several
    compare; smaller if it must be."""
    scale = min(scale, (width - 2) / drawing.width, (height - 2) / drawing.height)
    frame = _Frame(scale, (width - drawing.width * scale) / 2, height - 1 - drawing.height * scale, STANDING)
    body, _ = _body(drawing, frame)
    return f'<svg class="{css}" viewBox="0 0 {width:g} {height:g}" aria-hidden="true">{body}</svg>'


def render_print(drawing: Drawing, x_mm: float, y_mm: float, pen: Pen) -> str:
    """The drawing at true size with its corner at a point of the page, as an SVG group in mm."""
    return f"<g>{_body(drawing, _Frame(1.0, x_mm, y_mm, pen))[0]}</g>"


def _room(drawing: Drawing, side: str, pen: Pen) -> float:
    reaches = [
        _away(dim, pen) + (_FIELD[dim.side] / 2 if dim.spot else pen.level * 0.35)
        for dim in drawing.dims
        if dim.side == side
    ]
    return pen.edge + max(
        [*reaches, *(kept for kept_side, kept in drawing.room if kept_side == side)], default=0.0
    )


def _away(dim: Dim, pen: Pen) -> float:
    """How far outside the drawing a dimension line runs; one with a field keeps the field clear of the
    drawing."""
    return (dim.level - 1) * pen.level + (_FIELD_AWAY[dim.side] if dim.spot else pen.level * 0.65)


def _body(drawing: Drawing, frame: _Frame) -> tuple[str, dict[str, tuple[float, float]]]:
    parts = [_shape(shape, frame) for shape in drawing.shapes]
    spots = {
        spot.name: (frame.x(spot.x) + spot.shift[0], frame.y(spot.y) + spot.shift[1])
        for spot in drawing.spots
    }
    for dim in drawing.dims:
        svg, middle = _dim(dim, drawing, frame)
        parts.append(svg)
        if dim.spot:
            spots[dim.spot] = middle
    return "".join(parts), spots


def _shape(shape: Shape, frame: _Frame) -> str:
    style = frame.pen.style(shape.style)
    match shape:
        case Rect():
            radius = f' rx="{shape.radius * frame.scale:.2f}"' if shape.radius else ""
            return (
                f'<rect {style} x="{frame.x(shape.x):.2f}" y="{frame.y(shape.y):.2f}" '
                f'width="{shape.width * frame.scale:.2f}" height="{shape.height * frame.scale:.2f}"{radius}/>'
            )
        case Line():
            x1, y1, x2, y2 = frame.x(shape.x1), frame.y(shape.y1), frame.x(shape.x2), frame.y(shape.y2)
            head = _arrow(x1, y1, x2, y2, frame.pen.arrow, style) if shape.arrow else ""
            return f'<path {style} d="M{x1:.2f} {y1:.2f}L{x2:.2f} {y2:.2f}"/>{head}'
        case Curve():
            thick = f' stroke-width="{shape.width * frame.scale:.2f}"' if shape.width is not None else ""
            if thick:
                style = _STROKE.sub("", style)  # a true width goes before that of a style
            return f'<path {style}{thick} d="{"".join(_command(c, n, frame) for c, n in shape.commands)}"/>'
        case Dot():
            radius_ = (
                shape.radius_mm * frame.scale if shape.radius_mm is not None else shape.radius * frame.pen.dot
            )
            return (
                f'<circle {style} cx="{frame.x(shape.x):.2f}" cy="{frame.y(shape.y):.2f}" r="{radius_:.2f}"/>'
            )
        case Label():
            x, y = frame.x(shape.x), frame.y(shape.y)
            text = _text(
                x + shape.shift[0],
                y + shape.shift[1],
                shape.text,
                frame.pen,
                shape.style,
                shape.anchor,
                turned=shape.turned,
            )
            return f'<g transform="rotate(180 {x:.2f} {y:.2f})">{text}</g>' if shape.upside_down else text
        case Group():
            data = "".join(f' data-{name}="{escape(value)}"' for name, value in shape.data)
            return f"<g {style}{data}>{''.join(_shape(one, frame) for one in shape.shapes)}</g>"


def _command(letter: str, numbers: tuple[float, ...], frame: _Frame) -> str:
    if letter == "A":
        rx, ry, turn, large, sweep, x, y = numbers
        return (
            f"A{rx * frame.scale:.2f} {ry * frame.scale:.2f} {turn:g} {large:g} {sweep:g} "
            f"{frame.x(x):.2f} {frame.y(y):.2f}"
        )
    pairs = zip(numbers[::2], numbers[1::2], strict=True)
    return letter + " ".join(f"{frame.x(x):.2f} {frame.y(y):.2f}" for x, y in pairs)


def _arrow(x1: float, y1: float, x2: float, y2: float, size: float, style: str) -> str:
    angle = math.atan2(y2 - y1, x2 - x1)
    ends = [
        (x2 - size * math.cos(angle + turn), y2 - size * math.sin(angle + turn)) for turn in (0.45, -0.45)
    ]
    return (
        f'<path {style} d="M{ends[0][0]:.2f} {ends[0][1]:.2f}L{x2:.2f} {y2:.2f}L{ends[1][0]:.2f} '
        f'{ends[1][1]:.2f}"/>'
    )


def _dim(dim: Dim, drawing: Drawing, frame: _Frame) -> tuple[str, tuple[float, float]]:
    """The dimension line with its ticks and number, and where the number's middle is."""
    pen, away = frame.pen, _away(dim, frame.pen)
    across = dim.side in ("top", "bottom")
    a, b = (frame.x(dim.start), frame.x(dim.end)) if across else (frame.y(dim.start), frame.y(dim.end))
    edges: dict[EdgeSide, float] = {
        "top": frame.y(0) - away,
        "bottom": frame.y(drawing.height) + away,
        "left": frame.x(0) - away,
        "right": frame.x(drawing.width) + away,
    }
    at, middle, t = edges[dim.side], (a + b) / 2, pen.tick
    if across:
        lines = (
            f"M{a:.2f} {at:.2f}H{b:.2f}M{a:.2f} {at - t:.2f}V{at + t:.2f}M{b:.2f} {at - t:.2f}V{at + t:.2f}"
        )
        place = (middle, at - pen.gap)
    else:
        lines = (
            f"M{at:.2f} {a:.2f}V{b:.2f}M{at - t:.2f} {a:.2f}H{at + t:.2f}M{at - t:.2f} {b:.2f}H{at + t:.2f}"
        )
        place = (at - pen.gap, middle)
    text = (
        ""
        if dim.spot or not dim.text
        else _text(*place, dim.text, pen, "dimtext", "middle", turned=not across)
    )
    return f'<path {pen.style("dim")} d="{lines}"/>{text}', (middle, at) if across else (at, middle)


def _text(x: float, y: float, text: str, pen: Pen, style: str, anchor: Anchor, *, turned: bool) -> str:
    turn = f' transform="rotate(-90 {x:.2f} {y:.2f})"' if turned else ""
    if pen.write is None:
        return (
            f'<text {pen.style(style)} x="{x:.2f}" y="{y:.2f}" '
            f'text-anchor="{anchor}"{turn}>{_with_fractions(text)}</text>'
        )
    written = pen.write(x, y, text, pen.lettering(style), anchor)
    return f"<g{turn}>{written}</g>" if turn else written


def _with_fractions(text: str) -> str:
    """Fractions set as fractions: raised and lowered small figures around a fraction bar."""
    return "".join(
        escape(piece)
        if isinstance(piece, str)
        else f'<tspan font-size="0.68em" dy="-0.42em" dx="0.12em">{piece[0]}</tspan><tspan '
        f'dy="0.29em">⁄</tspan><tspan font-size="0.68em">{piece[1]}</tspan>'
        for piece in written_fractions(text)
    )
