"""The sewing: the fold seen from the side, head on the left; thread above it runs inside, below it outside."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Final

from pleat.core.binding.path import Span
from pleat.core.binding.sewn import SewnResult
from pleat.core.cover.result import CoverResult
from pleat.core.planning import Plan
from pleat.core.units import MM_PER_INCH, Ruler
from pleat.drawing import portraits
from pleat.drawing.handles import Handle, handles
from pleat.drawing.looks import main, strip
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import Curve, Dot, Drawing, Group, Label, Line, Rect, Shape, Spot

BAND_MM = 3.0
"""How thick the fold is drawn: thicker than it is, so that holes show; said on the drawing."""


@main.register
def fold(result: SewnResult, plan: Plan) -> Drawing:
    """Stations on the fold with the thread's path; each span is a group with its number, for stepping through."""
    ruler, height = plan.brief.ruler, result.height_mm
    share = height / 210
    levels = _levels(result.path.spans)
    highest = max((levels[span.number] for span in result.path.spans if span.side == "inside"), default=0)
    rise, base = 8 * share, (24 + 8 * highest) * share
    band = BAND_MM * share
    shapes: list[Shape] = [
        Label(0, base, "inside the fold", "side-label", "start", (0, -12)),
        Label(0, base + band, "outside, on the spine", "side-label", "start", (0, 24)),
        Rect(0, base, height, band, "fold-band"),
    ]
    for position in result.positions_mm:
        shapes.append(Rect(position - 0.7 * share, base - 0.1, 1.4 * share, band + 0.2, "hole-gap"))
    at = _Band(base, band, rise, share)
    shapes += [_span(span, levels[span.number], result.positions_mm, at) for span in result.path.spans]
    shapes += _tails(result, base, band, share)
    ruler_top = base + band + 33 * share
    shapes += _ruler(height, ruler, ruler_top, share)
    for number, position in enumerate(result.positions_mm, 1):
        shapes.append(Line(position, base + band, position, ruler_top, "guide"))
        shapes.append(Label(position, base, str(number), "hole-number", shift=(13, 11)))
    spots = [Spot(f"binding.station.{i}", position, ruler_top, (0, 0)) for i, position in enumerate(result.positions_mm)]
    return Drawing(
        height,
        ruler_top + 10 * share,
        f"The fold from the side with {len(result.positions_mm)} stations and the thread in {len(result.path.spans)} spans.",
        shapes,
        spots=spots,
    )


def _levels(spans: tuple[Span, ...]) -> dict[int, int]:
    """A level for each span by number, so that spans on one side that overlap do not lie on each other."""
    placed: list[tuple[Span, int]] = []
    for span in spans:
        taken = {level for one, level in placed if one.side == span.side and set(one.gaps) & set(span.gaps)}
        level = next(level for level in range(len(spans) + 1) if level not in taken)
        placed.append((span, level))
    return {span.number: level for span, level in placed}


@dataclass(frozen=True)
class _Band:
    """Where the fold is drawn: its upper edge, how thick, how far a level of thread is off it, and the share of the usual size; mm."""

    base: float
    thick: float
    rise: float
    share: float


def _span(span: Span, level: int, positions: tuple[float, ...], at: _Band) -> Group:
    """One span: out of its hole, along, into the next, with its number in the middle and an arrow."""
    inside = span.side == "inside"
    share = at.share
    edge = at.base if inside else at.base + at.thick
    away = -1 if inside else 1
    far = edge + away * at.rise * (1 + level)
    start, end = positions[span.start - 1], positions[span.end - 1]
    way = 1 if end > start else -1
    bend, off = 3 * share * way, 0.5 * share * way
    commands: tuple[tuple[str, tuple[float, ...]], ...] = (
        ("M", (start + off, edge)),
        ("L", (start + off, far - away * 3 * share)),
        ("Q", (start + off, far, start + off + bend, far)),
        ("L", (end - off - bend, far)),
        ("Q", (end - off, far, end - off, far - away * 3 * share)),
        ("L", (end - off, edge)),
    )
    first = min(span.start, span.end)
    after = first if span.gaps else first - 1  # a thread going back through its own hole covers no gap
    middle = (positions[first - 1] + positions[after]) / 2
    shapes: tuple[Shape, ...] = (
        Curve(commands, f"thread thread-{span.side}"),
        Line(middle + 5 * share * way, far, middle + 9 * share * way, far, "thread-arrow", arrow=True),
        Dot(middle, far, "step-dot", 2.2),
        Label(middle, far, str(span.number), "step-number", shift=(0, 5)),
    )
    return Group("span", shapes, (("step", str(span.number)),))


def _tails(result: SewnResult, base: float, band: float, share: float) -> list[Shape]:
    """The two tails, hanging free on their sides at the first and the last hole."""
    path = result.path
    if not path.holes:
        return []
    shapes: list[Shape] = []
    last = str(len(path.spans))
    for hole, side, way, step in ((path.holes[0], path.start_side, -1, "0"), (path.holes[-1], path.end_side, 1, last)):
        x = result.positions_mm[hole - 1]
        edge, away = (base, -1) if side == "inside" else (base + band, 1)
        commands: tuple[tuple[str, tuple[float, ...]], ...] = (
            ("M", (x + way * 0.4 * share, edge)),
            (
                "C",
                (
                    x + way * 1 * share,
                    edge + away * 9 * share,
                    x + way * 5 * share,
                    edge + away * 12 * share,
                    x + way * 7 * share,
                    edge + away * 19 * share,
                ),
            ),
        )
        shapes.append(Group("span", (Curve(commands, f"thread thread-{side} tail"),), (("step", step),)))
    return shapes


def _ruler(height: float, ruler: Ruler, top: float, share: float) -> list[Shape]:
    """The ruler the stations snap to, from the head."""
    minor, major = (5.0, 4) if ruler.name == "mm" else (MM_PER_INCH / 4, 4)
    shapes: list[Shape] = [
        Line(0, top, height, top, "ruler-line"),
        Label(0, top, "head", "quiet", "start", (0, 18)),
        Label(height, top, "tail", "quiet", "end", (0, 18)),
    ]
    for number in range(int(height / minor + 1e-6) + 1):
        x, long = number * minor, number % major == 0
        shapes.append(Line(x, top, x, top - (3.4 if long else 1.8) * share, "ruler-line"))
        if long and number:
            shapes.append(
                Label(x, top, f"{x:.0f}" if ruler.name == "mm" else f"{number // 4}", "ruler-number", shift=(0, -16 if share else 0))
            )
    return shapes


@strip.register
def small(result: SewnResult, _plan: Plan) -> Drawing:
    """The spine upright with its holes and the thread waving through them."""
    height = result.height_mm
    width = height * 0.16
    middle = width / 2
    shapes: list[Shape] = [Rect(middle - width * 0.12, 0, width * 0.24, height, "spine-band")]
    for span in result.path.spans:
        a, b = (result.positions_mm[n - 1] for n in (span.start, span.end))
        bow = middle + (-1 if span.side == "inside" else 1) * width * 0.62
        shapes.append(Curve((("M", (middle, a)), ("Q", (bow, (a + b) / 2, middle, b))), f"thread thread-{span.side}"))
    shapes += [Dot(middle, position, "hole", 0.9) for position in result.positions_mm]
    return Drawing(width, height, "stations", shapes)


@portraits.held.register
def _outside(result: SewnResult, cover: CoverResult, body: Body) -> list[Shape]:
    """The thread as it lies along the spine, row by row; holes that it only passes stay dots."""
    shapes: list[Shape] = []
    rows = result.rows
    for row in range(rows):
        depth = body.thick * (row + 0.5) / rows
        places = [position + cover.square_head_mm for position in result.positions_mm]
        shapes += [Dot(*body.at(0, y, depth), "portrait-hole", radius_mm=0.7) for y in places]
        for span in result.path.spans:
            if span.side == "outside":
                start, end = places[span.start - 1], places[span.end - 1]
                shapes.append(body.line((0, start, depth), (0, end, depth), "portrait-thread"))
    return shapes


@handles.register
def stations(result: SewnResult, plan: Plan) -> tuple[Handle, ...]:
    """A handle for each station; of those that move as pairs the middle one stays."""
    step, places = plan.brief.ruler.step_mm, (0.0, *result.positions_mm, result.height_mm)
    lower = _lower([at / result.height_mm for at in result.positions_mm])
    last = len(result.positions_mm) - 1
    return tuple(
        Handle(
            f"binding.station.{number}",
            f"station {number + 1} from the head",
            at,
            places[number] + (step if number else 0.0),
            places[number + 2] - (step if number < last else 0.0),
            step,
            fixed=result.symmetric and 2 * number == last,
            lower=number in lower,
        )
        for number, at in enumerate(result.positions_mm)
    )


FIELD_SHARE: Final = 0.15
"""A station's field, as a share of the drawing's width on the narrowest screen."""


def _lower(across: list[float]) -> frozenset[int]:
    """Which stations have their field a row lower, so that fields of close neighbours do not lie on each other."""
    low: set[int] = set()
    for number, (before, here) in enumerate(itertools.pairwise(across), 1):
        if here - before < FIELD_SHARE and number - 1 not in low:
            low.add(number)
    return frozenset(low)
