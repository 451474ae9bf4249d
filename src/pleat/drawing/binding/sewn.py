"""A sewing on its pleat, small on the folded one, in the portrait, and what of it can be dragged."""

from __future__ import annotations

import itertools
from typing import Final

from pleat.core.engines.sewing.moves import SIDES
from pleat.core.pleats.binding.kinds.machine import SeamResult
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.cover.result import CoverResult
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.binding.fold import alike, ruler_line, side_view
from pleat.drawing.binding.spine import Spread, spine_shapes, spine_view
from pleat.drawing.handles import Handle, handles
from pleat.drawing.looks import main, strip
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import Curve, Dot, Drawing, Label, Rect, Shape


@main.register
def large(result: SewnResult, plan: Plan) -> Drawing:
    """One fold from the side where all are sewn alike, else the spine from outside."""
    return (
        side_view(result, plan.brief.ruler)
        if alike(result) or result.rows == 1
        else spine_view(result, plan.brief.ruler)
    )


@strip.register
def small(result: SewnResult, _plan: Plan) -> Drawing:
    """The spine upright with its holes and the thread waving through them; of several sections sewn together
    the spine lies down."""
    height = result.height_mm
    if not alike(result) and result.rows > 1:
        spread = Spread.of(result, room=48, thick=14)
        return Drawing(height, spread.edges[-1], "the spine", spine_shapes(result, spread, steps=False))
    width = height * 0.16
    middle = width / 2
    places = (0.0, *result.positions_mm, height)
    shapes: list[Shape] = [Rect(middle - width * 0.12, 0, width * 0.24, height, "spine-band")]
    for stretch in result.stretches:
        if stretch.what == "span" and stretch.row == 1:
            a, b = places[int(stretch.start)], places[int(stretch.end)]
            bow = middle + (-1 if stretch.side == "inside" else 1) * width * 0.62
            shapes.append(
                Curve(
                    (("M", (middle, a)), ("Q", (bow, (a + b) / 2, middle, b))),
                    f"thread thread-{stretch.side}",
                )
            )
    shapes += [Dot(middle, position, "hole", 0.9) for position in result.positions_mm]
    return Drawing(width, height, "stations", shapes)


@portraits.held.register
def outside(result: SewnResult, cover: CoverResult, body: Body) -> list[Shape]:
    """The thread as it lies along the spine, row by row, and what lies across it; holes that it only passes
    stay dots."""
    if any(row.sides != SIDES for row in result.sewing.bed.rows):
        return []  # a pleat hides its thread between the sections
    rows, square = max(result.rows, 1), cover.square_head_mm
    places = (-square, *result.positions_mm, result.height_mm + square)

    def spot(row: float, at: float) -> tuple[float, float, float]:
        whole = int(at)
        y = places[whole] if at == whole else (places[whole] + places[whole + 1]) / 2
        return 0.0, y + square, body.thick * (row - 0.5) / rows

    shapes: list[Shape] = []
    for support in result.sewing.bed.supports:
        if support.kind in ("tape", "cord"):
            whole = int(support.at)
            ends = (whole, whole + 1) if support.kind == "tape" else (whole, whole)
            corners = [
                spot(0.5, ends[0]),
                spot(rows + 0.5, ends[0]),
                spot(rows + 0.5, ends[1]),
                spot(0.5, ends[1]),
            ]
            shapes.append(body.face(corners, "portrait-tape"))
    shapes += [
        Dot(*body.at(*spot(row, hole)), "portrait-hole", radius_mm=0.7)
        for row in range(1, rows + 1)
        for hole in range(1, len(result.positions_mm) + 1)
    ]
    for lie in result.stretches:
        if lie.side == "outside" and lie.what in ("span", "climb", "catch"):
            shapes.append(
                body.line(
                    spot(lie.row, lie.start),
                    spot(lie.to_row, lie.end),
                    f"portrait-thread colour-{result.thread_swatch}",
                )
            )
    return shapes


@handles.register
def stations(result: SewnResult, plan: Plan) -> tuple[Handle, ...]:
    """A handle for each place; of those that move as pairs the middle one stays."""
    step, places = plan.brief.ruler.step_mm, (0.0, *result.places_mm, result.height_mm)
    lower = _lower([place / result.height_mm for place in result.places_mm])
    last = len(result.places_mm) - 1
    tapes = result.layout.tape_mm > 0
    return tuple(
        Handle(
            f"binding.station.{number}",
            f"tape {number}, its middle from the head"
            if tapes and 0 < number < last
            else f"station {number + 1} from the head",
            place,
            places[number] + (step if number else 0.0),
            places[number + 2] - (step if number < last else 0.0),
            step,
            fixed=result.symmetric and 2 * number == last,
            lower=number in lower,
        )
        for number, place in enumerate(result.places_mm)
    )


FIELD_SHARE: Final = 0.15
"""A station's field, as a share of the drawing's width on the narrowest screen."""


def _lower(across: list[float]) -> frozenset[int]:
    """Which stations have their field a row lower, so that fields of close neighbours do not lie on each
    other."""
    low: set[int] = set()
    for number, (before, here) in enumerate(itertools.pairwise(across), 1):
        if here - before < FIELD_SHARE and number - 1 not in low:
            low.add(number)
    return frozenset(low)


@main.register
def seam(result: SeamResult, plan: Plan) -> Drawing:
    """The fold with its seam, stitch by stitch."""
    height = result.height_mm
    share = height / 210
    shapes: list[Shape] = [
        Label(0, 14 * share, "the fold, opened flat", "side-label", "start", (0, -8)),
        Rect(0, 14 * share, height, 12 * share, "spine-row"),
        *_stitches(result, 20 * share),
    ]
    return Drawing(
        height,
        50 * share,
        f"A seam of {result.stitches} stitches along the fold.",
        [*shapes, *ruler_line(height, plan.brief.ruler, 40 * share, share)],
    )


def _stitches(result: SeamResult, y: float, upright: bool = False) -> list[Shape]:
    """Each stitch as a dash of four fifths of its length."""
    commands: list[tuple[str, tuple[float, ...]]] = []
    for number in range(result.stitches):
        start = result.begins_mm + result.pitch_mm * (number + 0.1)
        end = start + 0.8 * result.pitch_mm
        commands += [("M", (y, start)), ("L", (y, end))] if upright else [("M", (start, y)), ("L", (end, y))]
    return [Curve(tuple(commands), f"thread thread-shown colour-{result.thread_swatch}")]


@strip.register
def seam_small(result: SeamResult, _plan: Plan) -> Drawing:
    width = result.height_mm * 0.16
    shapes: list[Shape] = [
        Rect(width * 0.38, 0, width * 0.24, result.height_mm, "spine-band"),
        *_stitches(result, width / 2, upright=True),
    ]
    return Drawing(width, result.height_mm, "seam", shapes)


@portraits.held.register
def seam_outside(result: SeamResult, cover: CoverResult, body: Body) -> list[Shape]:
    square = cover.square_head_mm
    return [
        body.line(
            (0, result.begins_mm + square, body.thick / 2),
            (0, result.ends_mm + square, body.thick / 2),
            "portrait-thread",
        )
    ]
