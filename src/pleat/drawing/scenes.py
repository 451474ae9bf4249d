"""The picture of a step: its scene true in proportion. What moves or is made now stands out, what rests is
thin, what was glued is hatched; inside it are only numbers and names."""

from __future__ import annotations

from collections.abc import Iterator
from textwrap import wrap
from typing import Final

from pleat.core.base.plan import Step
from pleat.core.base.scenes import Distance, GlueZone, HoleAt, LineOn, Lying, NumberAt, Scene
from pleat.core.base.units import Ruler
from pleat.core.whole.planning import Plan
from pleat.drawing import looks
from pleat.drawing.cutting import sheet
from pleat.drawing.shapes import (
    Curve,
    Dim,
    Dot,
    Drawing,
    EdgeSide,
    Label,
    Line,
    Rect,
    Shape,
    framed,
    grain_arrow,
)

SHADOWS: Final = 3
"""Sheets that are drawn under the uppermost of several."""
APART_SHARE: Final = 0.038
"""Numbers nearer than this share of the picture would lie on each other: all stand in the words."""
LETTER_SHARE: Final = 0.022
LINE_SHARE: Final = 0.05
"""A letter of a name, and a line of it, take about this share of the picture."""
MOST_LINES: Final = 3
SHORT_SHARE: Final = 0.09
"""What measures less than this share of the picture has its number beside it."""
HATCHES: Final = 16
NAMED_SHARE: Final = 0.12
"""A thing whose shorter side is a smaller share of the picture is not named in it."""


def has_own(step: Step) -> bool:
    """Whether a step's picture is drawn from its scene, and not from what the plan draws already."""
    return step.scene is not None and not step.scene.is_elsewhere


def picture(step: Step, plan: Plan) -> Drawing:
    """What a step looks like; where it has no scene of its own, what it works on."""
    scene = step.scene
    if scene is None:
        return _worked_on(step, plan)
    if scene.kind == "cut":
        return _cut(step, plan)
    if scene.kind == "sew":
        return looks.main(plan.binding, plan)
    return framed(drawn(scene, plan.brief.ruler, plan, step.title))


def _worked_on(step: Step, plan: Plan) -> Drawing:
    """The large drawing of the pleat that a step belongs to."""
    for name in ("extras", "cover", "binding", "pages"):
        if any(one.key == step.key for one in plan[name].steps):
            return looks.main(plan[name], plan)
    return looks.main(plan.pages, plan)


def _cut(step: Step, plan: Plan) -> Drawing:
    """The first sheet on which pieces of the step lie."""
    for stock_plan in plan.cutting.plans:
        for own in stock_plan.all_sheets:
            if not set(own.counts()).isdisjoint(step.cuts):
                return sheet(stock_plan, own, plan.cutting.cuts, plan.brief.ruler)
    return looks.main(plan.pages, plan)


def drawn(scene: Scene, ruler: Ruler, plan: Plan, says: str) -> Drawing:
    """A scene as shapes, in its own mm."""
    longest = max(scene.width, scene.height)
    shapes: list[Shape] = []
    for lying in scene.lying:
        shapes += _piece(lying, plan, longest)
    for zone in scene.zones:
        shapes += _zone(zone)
    shapes += [_line(line) for line in scene.lines]
    shapes += [
        Curve(
            tuple(("L" if place else "M", point) for place, point in enumerate(stroke.points)),
            f"scene-stroke scene-{stroke.when}",
        )
        for stroke in scene.strokes
    ]
    shapes += [_hole(hole) for hole in scene.holes]
    shapes += [Line(*move.start, *move.end, "scene-move", arrow=True) for move in scene.moves]
    shapes += [_placed(number, ruler) for number in _apart(scene)]
    shapes += [_short(distance, scene, ruler) for distance in scene.distances if _is_short(distance, scene)]
    return Drawing(
        scene.width,
        scene.height,
        says,
        shapes,
        dims=tuple(_dim(distance, ruler) for distance in scene.distances if not _is_short(distance, scene)),
        room=_room(scene),
    )


def _room(scene: Scene) -> tuple[tuple[EdgeSide, float], ...]:
    """Room for numbers that stand outside."""
    sides: dict[EdgeSide, float] = {number.side: 80.0 for number in scene.numbers if number.side != "right"}
    sides |= {distance.side: 80.0 for distance in scene.distances if _is_short(distance, scene)}
    return tuple(sides.items())


def numbers(step: Step, plan: Plan) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """What is measured in a step's picture, each edge with its numbers on the ruler."""
    scene = step.scene
    if scene is None or scene.kind not in ("mark", "pierce"):
        return ()
    ruler = plan.brief.ruler
    across = [number.mm for number in scene.numbers if number.side == "top"]
    along = [number.mm for number in scene.numbers if number.side != "top"]
    return tuple(
        (where, tuple(dict.fromkeys(ruler.number(at) for at in values)))
        for where, values in (("from the left edge", across), ("from the head", along))
        if values
    )


def _apart(scene: Scene) -> list[NumberAt]:
    """The numbers that can be read beside each other."""
    found: list[NumberAt] = []
    least = max(scene.width, scene.height) * APART_SHARE
    for number in scene.numbers:
        near = [one for one in found if one.side == number.side]
        if all(abs(one.x - number.x) + abs(one.y - number.y) >= least for one in near):
            found.append(number)
    return found


def _piece(lying: Lying, plan: Plan, longest: float) -> list[Shape]:
    swatch = _swatch(lying.stock, plan)
    step = longest * 0.006
    shapes: list[Shape] = [
        Rect(
            lying.x + step * place,
            lying.y + step * place,
            lying.width,
            lying.height,
            f"leaf {swatch}".strip(),
        )
        for place in range(min(lying.times, SHADOWS) - 1, 0, -1)
    ]
    shapes.append(
        Rect(lying.x, lying.y, lying.width, lying.height, f"scene-piece scene-{lying.when} {swatch}".strip())
    )
    middle = lying.x + lying.width / 2, lying.y + lying.height / 2
    if lying.grain:
        shapes += grain_arrow(middle[0], middle[1], min(lying.width, lying.height) * 0.5, lying.grain)
    if lying.name and min(lying.width, lying.height) >= NAMED_SHARE * longest:
        shapes += _named(lying, longest)
    return shapes


def _named(lying: Lying, longest: float) -> Iterator[Label]:
    """Its name in as many lines as it takes; nothing where it has no room."""
    letters = int(lying.width / (LETTER_SHARE * longest))
    times = f"{lying.times} × " if lying.times > 1 else ""
    lines = wrap(f"{times}{lying.name}", max(letters, 1), break_long_words=False)
    if len(lines) > MOST_LINES or max(map(len, lines)) > letters:
        lines = [times.rstrip(" ×")] if times else []
    y = lying.y + lying.height * (0.2 if lying.grain else 0.5)
    for number, line in enumerate(lines):
        yield Label(lying.x + lying.width / 2, y + number * LINE_SHARE * longest, line, "scene-name")


def _swatch(key: str, plan: Plan) -> str:
    if not key:
        return "scene-tool"
    stock = plan.paper.stocks.get(key)
    return f"swatch-{stock.swatch}" if stock else "swatch-cream"


def _zone(zone: GlueZone) -> list[Shape]:
    if not zone.glued:
        far = zone.x + zone.width, zone.y + zone.height
        return [
            Line(zone.x, zone.y, *far, "scene-free"),
            Line(zone.x, far[1], far[0], zone.y, "scene-free"),
        ]
    shapes: list[Shape] = [Rect(zone.x, zone.y, zone.width, zone.height, "scene-glued")]
    gap = max(zone.width, zone.height) / HATCHES
    reach = zone.width + zone.height
    for number in range(1, int(reach / gap)):
        along = number * gap
        start = (zone.x + min(along, zone.width), zone.y + max(0.0, along - zone.width))
        end = (zone.x + max(0.0, along - zone.height), zone.y + min(along, zone.height))
        shapes.append(Line(*start, *end, "scene-hatch"))
    return shapes


def _line(line: LineOn) -> Line:
    style = f"scene-line scene-{line.kind} scene-{line.when}"
    if line.axis == "upright":
        return Line(line.at, line.start, line.at, line.end, style)
    return Line(line.start, line.at, line.end, line.at, style)


def _hole(hole: HoleAt) -> Dot:
    style = f"scene-hole scene-{hole.when}"
    return (
        Dot(hole.x, hole.y, style, radius_mm=hole.across / 2) if hole.across else Dot(hole.x, hole.y, style)
    )


def _placed(number: NumberAt, ruler: Ruler) -> Label:
    x, y, text = number.x, number.y, ruler.number(number.mm)
    if number.side == "top":
        return Label(x, y, text, "scene-number", "start", (7.0, -8.0), turned=True)
    if number.side == "left":
        return Label(x, y, text, "scene-number", "end", (-12.0, 7.0))
    return Label(x, y, text, "scene-number", "start", (14.0, 7.0))


def _is_short(distance: Distance, scene: Scene) -> bool:
    """Whether a number has no room between the ends of what it measures."""
    return distance.value_mm < SHORT_SHARE * max(scene.width, scene.height)


def _short(distance: Distance, scene: Scene, ruler: Ruler) -> Label:
    """The number alone, outside and beside what it measures."""
    middle, text = (distance.start + distance.end) / 2, _text(distance, ruler)
    if distance.side in ("top", "bottom"):
        below = distance.side == "bottom"
        y, down = (scene.height, 30.0) if below else (0.0, -12.0)
        return Label(middle, y, text, "scene-number", "middle", (0.0, down))
    if distance.side == "left":
        return Label(0.0, middle, text, "scene-number", "end", (-12.0, 7.0))
    return Label(scene.width, middle, text, "scene-number", "start", (12.0, 7.0))


def _text(distance: Distance, ruler: Ruler) -> str:
    return (ruler.thin if distance.thin else ruler.number)(distance.value_mm)


def _dim(distance: Distance, ruler: Ruler) -> Dim:
    return Dim(distance.side, distance.start, distance.end, _text(distance, ruler), distance.level)
