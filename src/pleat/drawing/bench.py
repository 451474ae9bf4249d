"""The bench in small: a box a step, filled when it is done."""

from __future__ import annotations

from pleat.core.pleats.bench.compute import BenchResult
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import strip
from pleat.drawing.shapes import Drawing, Line, Rect, Shape


@strip.register
def small(result: BenchResult, _plan: Plan) -> Drawing:
    """Boxes and lines, two columns when there are many."""
    shapes: list[Shape] = []
    for number, step in enumerate(result.work):
        y = number * 9.0
        shapes.append(Rect(0, y, 6, 6, "box done" if step.done else "box"))
        shapes.append(Line(10, y + 3, 26, y + 3, "box-line"))
    return Drawing(26, max(len(result.work) * 9.0 - 3, 6), "steps", shapes)
