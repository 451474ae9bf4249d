"""What stands in a row on a spine, or draws out of one: tabs under cords, and a concertina by its ends."""

from __future__ import annotations

from pleat.core.pleats.binding.kinds.ends import EndsResult
from pleat.core.pleats.binding.kinds.eyecords import RowResult
from pleat.core.trade.holes import EYELET_END_MM
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import Curve, Dim, Dot, Drawing, Label, Line, Rect, Shape

EYELET_MM: float = 2.0
MOST_PANELS: int = 24


def _spine(result: RowResult, plan: Plan) -> list[Shape]:
    high = result.height_mm
    shapes: list[Shape] = [Rect(0, 0, result.width_mm, high, f"filled wrap swatch-{plan.paper.cover.swatch}")]
    for number in range(result.pairs):
        left = result.room_mm + number * (result.tab_mm + result.room_mm)
        shapes.append(Rect(left, 0, result.tab_mm, high, f"filled leaf swatch-{plan.pages.swatch}"))
    edge = plan.brief.ruler.near(EYELET_END_MM)
    for cord in result.cords_mm:
        shapes.append(Line(cord, edge, cord, high - edge, "thread thread-inside"))
        shapes += [Dot(cord, y, "hole", radius_mm=EYELET_MM) for y in (edge, high - edge)]
    return shapes


@main.register
def large(result: RowResult, plan: Plan) -> Drawing:
    """The spine from inside: tabs, cords over them, an eyelet at either end of each."""
    ruler, high = plan.brief.ruler, result.height_mm
    first = result.room_mm
    dims = (
        Dim("bottom", 0, result.width_mm, ruler.show(result.width_mm), level=2),
        Dim("bottom", first, first + result.tab_mm, ruler.number(result.tab_mm)),
        Dim("left", 0, high, ruler.number(high)),
        Dim("right", 0, ruler.near(EYELET_END_MM), ruler.number(ruler.near(EYELET_END_MM))),
    )
    says = f"The spine from inside, {result.pairs} tabs in a row under {len(result.cords_mm)} cords."
    return Drawing(result.width_mm, high, says, _spine(result, plan), dims=dims)


@strip.register
def little(result: RowResult, plan: Plan) -> Drawing:
    return Drawing(result.width_mm, result.height_mm, "row", _spine(result, plan))


def _to_and_fro(result: EndsResult, wide: float, high: float) -> list[Shape]:
    """The concertina from its head, drawn out a little; what is glued is marked."""
    panels = min(result.panels, MOST_PANELS)
    step = wide / panels
    points = [(number * step, 0.0 if number % 2 else high) for number in range(panels + 1)]
    shapes: list[Shape] = [
        Curve((("M", points[0]), *(("L", point) for point in points[1:])), "folio", width=None)
    ]
    for glued, (start, end), name in (
        (result.first, points[:2], "first panel"),
        (result.last, points[-2:], "last panel"),
    ):
        if glued:
            shapes.append(Line(*start, *end, "paste-line"))
            shapes.append(
                Label(
                    *start if name.startswith("first") else end,
                    f"{name} glued",
                    "quiet",
                    "start" if name.startswith("first") else "end",
                    (0, 20),
                )
            )
    return shapes


@main.register
def drawn_out(result: EndsResult, plan: Plan) -> Drawing:
    """From its head, drawn out a little."""
    wide = plan.pages.leaf_width_mm * 2
    return Drawing(
        wide,
        30,
        f"The concertina of {result.panels} panels from its head, drawn out.",
        _to_and_fro(result, wide, 30),
        room=(("bottom", 30.0),),
    )


@strip.register
def drawn_little(result: EndsResult, _plan: Plan) -> Drawing:
    return Drawing(
        40,
        14,
        "concertina",
        _to_and_fro(EndsResult(**{**vars(result), "first": False, "last": False}), 40, 14),
    )
