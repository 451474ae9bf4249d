"""The sewn spine from outside, head on the left and the front on top: every section a band, the thread as it
lies on it.

Thread outside is drawn, thread inside the folds is shown through them. A spine is thin beside its height, so
its sections are drawn thicker than they are where that is needed to see them; the drawing says so.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.drawing.binding.fold import Commands, numbers, ruler_line, spots
from pleat.drawing.shapes import Curve, Dot, Drawing, Group, Label, Line, Rect, Shape

MOST_STEPS: Final = 420
"""Stretches that are drawn one by one, to be stepped through; of more, all of a side are one line."""
ROOM_MM: Final = 30.0
"""Below the ruler, for the fields of the places."""


@dataclass(frozen=True)
class Spread:
    """Where rows are drawn: the upper edge of each, from the front, with the end of the last; mm. ``share``
    is that of the usual size."""

    edges: tuple[float, ...]
    share: float
    places: tuple[float, ...]
    true: bool

    @classmethod
    def of(cls, result: SewnResult, room: float = 84.0, thick: float = 11.0) -> Spread:
        """Rows at their thickness, or all of one that can be seen, within ``room``."""
        rows, share = result.sewing.bed.rows, result.height_mm / 210
        least = min(thick, room / max(len(rows), 1)) * share
        widths = [row.thick_mm for row in rows]
        true = min(widths, default=0) >= least
        widths = widths if true else [least] * len(rows)
        edges, top = [0.0], 0.0
        for width in widths:
            top += width
            edges.append(top)
        return cls(tuple(edges), share, (0.0, *result.positions_mm, result.height_mm), true)

    def y(self, row: int) -> float:
        return (self.edges[row - 1] + self.edges[row]) / 2

    def x(self, at: float) -> float:
        whole = int(at)
        return self.places[whole] if at == whole else (self.places[whole] + self.places[whole + 1]) / 2

    def pitch(self, row: int) -> float:
        return self.edges[row] - self.edges[row - 1]


def spine_view(result: SewnResult, ruler: Ruler) -> Drawing:
    """The whole spine with its holes and supports, the thread on it, and the ruler below with the places that
    can be set."""
    spread = Spread.of(result)
    height, deep, share = result.height_mm, spread.edges[-1], spread.share
    lead = 9 * share
    top = lead + deep + 24 * share
    note = "" if spread.true else "; sections drawn thicker than they are"
    shapes: list[Shape] = [
        Label(
            0,
            0,
            f"the spine from outside, front on top{note}",
            "side-label",
            "start",
            (0, 12),
        )
    ]
    shapes += moved(spine_shapes(result, spread), lead)
    shapes += [
        *ruler_line(height, ruler, top, share),
        *numbers(result, lead - 1.5 * share, lead + deep, top, "station-number"),
    ]
    says = (
        f"The spine from outside: {result.rows} sections, {len(result.positions_mm)} stations, the thread "
        "as it lies."
    )
    return Drawing(height, top + ROOM_MM * share, says, shapes, spots=spots(result, top))


def moved(shapes: Sequence[Shape], down: float) -> list[Shape]:
    """Shapes so much lower."""
    return [_moved(shape, down) for shape in shapes]


def _moved(shape: Shape, down: float) -> Shape:
    match shape:
        case Group():
            return Group(shape.style, tuple(_moved(one, down) for one in shape.shapes), shape.data)
        case Curve():
            lower = tuple(
                (c, tuple(n + down if i % 2 else n for i, n in enumerate(numbers_)))
                for c, numbers_ in shape.commands
            )
            return Curve(lower, shape.style, shape.width)
        case Line():
            return Line(shape.x1, shape.y1 + down, shape.x2, shape.y2 + down, shape.style, shape.arrow)
        case Rect():
            return Rect(shape.x, shape.y + down, shape.width, shape.height, shape.style, shape.radius)
        case Dot():
            return Dot(shape.x, shape.y + down, shape.style, shape.radius, shape.radius_mm)
        case Label():
            return Label(
                shape.x,
                shape.y + down,
                shape.text,
                shape.style,
                shape.anchor,
                shape.shift,
                shape.turned,
                shape.upside_down,
            )


def spine_shapes(result: SewnResult, spread: Spread, steps: bool = True) -> list[Shape]:
    """Sections, supports, thread and holes of the spine, its upper left corner at 0."""
    height = result.height_mm
    shapes: list[Shape] = [
        Rect(0, spread.edges[row], height, spread.edges[row + 1] - spread.edges[row], "spine-row")
        for row in range(result.rows)
    ]
    shapes += _supports(result, spread)
    drawn = [(stretch, curve) for stretch in result.stretches if (curve := stretch_curve(stretch, spread))]
    if steps and len(drawn) <= MOST_STEPS:
        shapes += [
            Group("span", (Curve(curve, _style(one, result)),), (("step", str(one.step)),))
            for one, curve in drawn
        ]
    else:
        for style in sorted({_style(one, result) for one, _ in drawn}):
            commands = tuple(
                command for one, curve in drawn if _style(one, result) == style for command in curve
            )
            shapes.append(Curve(commands, style))
    size = min(
        0.9 * spread.share, 0.2 * min((spread.pitch(row) for row in range(1, result.rows + 1)), default=1.0)
    )
    return shapes + [
        Dot(x, spread.y(row), "spine-hole", radius_mm=size)
        for row in range(1, result.rows + 1)
        for x in result.positions_mm
    ]


def _style(one: Stretch, result: SewnResult) -> str:
    return (
        f"thread thread-{one.side}"
        if one.side == "inside"
        else f"thread thread-shown colour-{result.thread_swatch}"
    )


def _supports(result: SewnResult, spread: Spread) -> list[Shape]:
    shapes: list[Shape] = []
    for support in result.sewing.bed.supports:
        if support.kind == "tape":
            low, high = spread.x(int(support.at)), spread.x(int(support.at) + 1)
            shapes.append(
                Rect(low, -3 * spread.share, high - low, spread.edges[-1] + 6 * spread.share, "tape")
            )
        elif support.kind == "cord":
            width = max(support.thick_mm, 1.2 * spread.share)
            shapes.append(
                Curve(
                    (
                        ("M", (spread.x(support.at), -3 * spread.share)),
                        ("L", (spread.x(support.at), spread.edges[-1] + 3 * spread.share)),
                    ),
                    "cord-drawn",
                    width,
                )
            )
        elif support.kind == "board" and support.at == 1:
            edge = -2.4 * spread.share if support.rows == (1,) else spread.edges[-1]
            shapes.append(Rect(0, edge, result.height_mm, 2.4 * spread.share, "board-edge"))
    return shapes


def stretch_curve(one: Stretch, spread: Spread) -> Commands:
    """How a stretch lies on the spine; nothing for a passage, which is a hole."""
    x, y, to_x, to_y = spread.x(one.start), spread.y(one.row), spread.x(one.end), spread.y(one.to_row)
    match one.what:
        case "span":
            return (("M", (x, y)), ("L", (to_x, y)))
        case "climb":
            outward = 1.8 if one.start > len(spread.places) / 2 - 0.5 else -1.8
            bow = outward * spread.share if x == to_x else 0.0
            return (("M", (x, y)), ("Q", (x + bow, (y + to_y) / 2, to_x, to_y)))
        case "catch":
            x = to_x if one.end != int(one.end) else x  # a span is caught in its middle
            wide = 0.22 * spread.pitch(one.row)
            far = to_y + (to_y - y) * 0.12
            return (
                ("M", (x, y)),
                ("Q", (to_x - wide * 2, (y + to_y) / 2, to_x, far)),
                ("Q", (to_x + wide * 2, (y + to_y) / 2, x, y)),
            )
        case "wrap":
            tall = 0.3 * spread.pitch(one.row)
            return (("M", (x - 1.6 * spread.share, y - tall)), ("L", (x + 1.6 * spread.share, y + tall)))
    return ()
