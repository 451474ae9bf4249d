"""What drawings of pieces share: polygons as shapes, names of panels, and numbers that run along an edge and
keep apart."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.engines.folding.convex import Polygon, bounds
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.drawing.shapes import Curve, Label, Shape

APART: Final = 14.0
"""How many px two numbers that stand upright need."""
PAST: Final = 60.0
"""How many px all of them together may reach past the first and the last line."""
LINES: Final = {"fold": "score", "guide": "score", "bend": "bend"}
"""How a crease is drawn."""


def outline(polygon: Polygon, style: str, x: float = 0.0, y: float = 0.0) -> Curve:
    """A polygon moved to a place."""
    places = [(a + x, b + y) for a, b in polygon]
    return Curve((("M", places[0]), *(("L", place) for place in places[1:]), ("Z", ())), style)


def running(
    places: Sequence[float], ruler: Ruler, scale: float, x: float = 0.0, y: float = 0.0
) -> list[Shape]:
    """Running positions over their lines, spread where neighbours are too near to be read at ``scale`` px a
    mm; where there is no room for all of them, every second one or fewer."""
    marks = [place * scale for place in places]
    if not marks:
        return []
    every = max(1, math.ceil((len(marks) - 1) * APART / (marks[-1] - marks[0] + PAST)))
    shown = [n for n in range(len(marks)) if n % every == 0]
    spread = _apart([marks[n] for n in shown])
    return [
        Label(
            at + x,
            y,
            ruler.number(ruler.snap(at)),
            "running",
            "start",
            shift=(to - mark + 4, -5),
            turned=True,
        )
        for at, mark, to in ((places[n], marks[n], to) for n, to in zip(shown, spread, strict=True))
    ]


def _apart(marks: Sequence[float]) -> list[float]:
    """Places as near to these as may be that stand ``APART`` px from each other or more: those that would
    meet are moved as one block about their middle."""
    blocks: list[tuple[float, int]] = []  # where the first of it would best stand, and how many there are
    for number, mark in enumerate(marks):
        at, count = mark - number * APART, 1
        while blocks and blocks[-1][0] > at:
            before, many = blocks.pop()
            at, count = (before * many + at * count) / (many + count), many + count
        blocks.append((at, count))
    best = [at for at, count in blocks for _ in range(count)]
    return [at + number * APART for number, at in enumerate(best)]


def names(sheet: Piece, scale: float, ruler: Ruler, x: float = 0.0, y: float = 0.0) -> list[Shape]:
    """The names of a piece's panels, with their size where there is room at ``scale`` px a mm."""
    shapes: list[Shape] = []
    for panel in sheet.panels:
        left, top, right, bottom = bounds(panel.outline)
        name = panel.name.split(", ")[0].rstrip(" 0123456789")
        at = ((left + right) / 2 + x, (top + bottom) / 2 + y)
        across, along = right - left, bottom - top
        wide, high = across * scale, along * scale
        if name == "body" or min(wide, high) < 14:
            continue
        if wide < 9 * len(name):
            if high > 9 * len(name):
                shapes.append(Label(*at, name, "on-sheet", turned=True, shift=(4, 0)))
            continue
        large = wide > 15 * len(name) and high > 46
        shapes.append(Label(*at, name, "panel-name" if large else "on-sheet", shift=(0, 4)))
        if large and wide > 120 and high > 80:
            shapes.append(Label(*at, ruler.size(across, along), "label", shift=(0, 28)))
    return shapes


def levels(
    sheet: Piece, ruler: Ruler, scale: float, x: float = 0.0, y: float = 0.0, *, beside: bool = False
) -> list[Shape]:
    """The running positions of level folds at the left edge of their piece, over their lines or, where one is
    near the one before, under it; ``beside`` it where there is room."""
    places = scores(sheet, upright=False)
    if beside:
        marks = [at * scale for at in places]
        return [
            Label(x, y + at, ruler.number(ruler.snap(at)), "running", "end", shift=(-6, to - mark + 4))
            for at, mark, to in zip(places, marks, _apart(marks), strict=True)
        ]
    shown: list[Shape] = []
    before = -1e9
    for place in places:
        low = (place - before) * scale < 16
        shown.append(
            Label(
                x,
                y + place,
                ruler.number(ruler.snap(place)),
                "on-sheet",
                "start",
                shift=(5, 14 if low else -4),
            )
        )
        before = place
    return shown
