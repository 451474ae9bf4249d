"""Sewn sticks: the spine from outside with a stick on every section, and the strips that are woven between
the lashings."""

from __future__ import annotations

from pleat.core.pleats.binding.kinds.sticks import SticksResult
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.binding.fold import ruler_line, spots
from pleat.drawing.looks import main, strip
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import Curve, Drawing, Label, Line, Rect, Shape


@main.register
def large(result: SticksResult, plan: Plan) -> Drawing:
    """The spine, head on the left and the front on top, sticks at their thickness where there is room."""
    ruler, height = plan.brief.ruler, result.height_mm
    share = height / 210
    deep = sum(result.pitch_mm)
    by = min(2.4, 70 * share / deep)
    lead = 12 * share
    top = lead + deep * by + 34 * share
    true = "" if by == 1 else f", drawn {by:.1f} times as wide"
    shapes: list[Shape] = [
        Label(0, 0, f"the spine from outside, front on top{true}", "side-label", "start", (0, 14))
    ]
    shapes += woven(result, lead + 5 * share, by)
    shapes += [Line(place, lead + deep * by + 10 * share, place, top, "guide") for place in result.places_mm]
    shapes += ruler_line(height, ruler, top, share)
    says = (
        f"The spine from outside: {result.rows} sticks, {len(result.strips_mm)} strips woven between the "
        "lashings."
    )
    return Drawing(height, top + 26 * share, says, shapes, spots=spots(result, top))


def woven(result: SticksResult, top: float, by: float) -> list[Shape]:
    """Sticks, strips over and under them, and the lashings; the rows drawn so many times as wide as they
    are."""
    deep = sum(result.pitch_mm) * by
    shapes: list[Shape] = [Rect(0, top, result.height_mm, deep, "spine-row")]
    shapes += [Rect(at, top - 4, wide, deep + 8, "strip-cloth") for at, wide in result.strips_mm]
    start, edge = (result.height_mm - result.stick_long_mm) / 2, top
    for row, pitch in enumerate(result.pitch_mm):
        middle, thick = edge + pitch * by / 2, result.stick_mm * by
        shapes.append(
            Rect(start, middle - thick / 2, result.stick_long_mm, thick, "stick", radius=min(thick / 2, 3))
        )
        if result.woven:
            shapes += [
                Rect(at, edge, wide, pitch * by, "strip-cloth")
                for number, (at, wide) in enumerate(result.strips_mm)
                if (row + number) % 2
            ]
        for position in result.positions_mm:
            shapes += [
                Curve(
                    (
                        ("M", (position + off - 0.8, middle - thick * 0.55)),
                        ("L", (position + off + 0.8, middle + thick * 0.55)),
                    ),
                    f"thread thread-shown colour-{result.thread_swatch}",
                )
                for off in (-1.1, 1.1)
            ]
        edge += pitch * by
    return shapes


@strip.register
def small(result: SticksResult, _plan: Plan) -> Drawing:
    """The same, small, head up."""
    deep = sum(result.pitch_mm)
    wide = max(deep, result.height_mm * 0.2)
    shapes: list[Shape] = []
    edge = 0.0
    for pitch in result.pitch_mm:
        at = (edge + pitch / 2) / deep * wide
        shapes.append(
            Rect(
                at - 0.35 * wide / len(result.pitch_mm),
                0,
                0.7 * wide / len(result.pitch_mm),
                result.height_mm,
                "spine-band",
            )
        )
        edge += pitch
    shapes += [Rect(0, at, wide, long, "strip-cloth") for at, long in result.strips_mm]
    return Drawing(wide, result.height_mm, "sticks", shapes)


@portraits.held.register
def outside(result: SticksResult, cover: CoverResult, body: Body) -> list[Shape]:
    """Sticks along the spine, the strips over them."""
    square, total = cover.square_head_mm, sum(result.pitch_mm)
    shapes: list[Shape] = []
    start = square + (result.height_mm - result.stick_long_mm) / 2
    edge = 0.0
    for pitch in result.pitch_mm:
        depth = [(edge + share * pitch) / total * body.thick for share in (0.15, 0.85)]
        corners = [
            (0, start, depth[0]),
            (0, start, depth[1]),
            (0, start + result.stick_long_mm, depth[1]),
            (0, start + result.stick_long_mm, depth[0]),
        ]
        shapes.append(body.face(corners, "portrait-stick"))
        edge += pitch
    for at, wide in result.strips_mm:
        corners = [
            (0, square + at, 0),
            (0, square + at, body.thick),
            (0, square + at + wide, body.thick),
            (0, square + at + wide, 0),
        ]
        shapes.append(body.face(corners, "portrait-cloth"))
    return shapes
