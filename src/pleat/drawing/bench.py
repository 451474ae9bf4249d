"""The bench in small: a box a step, filled when it is done."""

from __future__ import annotations

from pleat.core.bench.compute import BenchResult
from pleat.drawing.shapes import Drawing, Line, Rect, Shape


def strip(result: BenchResult) -> Drawing:
    """Boxes and lines, two columns when there are many."""
    shapes: list[Shape] = []
    for number, step in enumerate(result.steps):
        y = number * 9.0
        shapes.append(Rect(0, y, 6, 6, "box done" if step.done else "box"))
        shapes.append(Line(10, y + 3, 26, y + 3, "box-line"))
    return Drawing(26, max(len(result.steps) * 9.0 - 3, 6), "steps", shapes)
