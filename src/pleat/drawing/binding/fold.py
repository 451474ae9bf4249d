"""One fold seen from the side, head on the left: thread above it runs inside, below it outside."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.units import MM_PER_INCH, Ruler
from pleat.core.engines.sewing.moves import SIDES
from pleat.core.engines.sewing.walk import Stretch
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.drawing.shapes import ControlSpot, Curve, Dot, Drawing, Group, Label, Line, Rect, Shape

BAND_MM: Final = 3.0
"""How thick the fold is drawn: thicker than it is, so that holes show; said on the drawing."""
Commands = tuple[tuple[str, tuple[float, ...]], ...]


@dataclass(frozen=True)
class FoldBand:
    """Where the fold is drawn: its upper edge, how thick, how far a level of thread is off it, and the share
    of the usual size; mm."""

    base: float
    thick: float
    rise: float
    share: float


def alike(result: SewnResult) -> bool:
    """Whether every section is sewn as the first one, with threads of its own, so that one fold shows them
    all."""
    threads = result.sewing.threads
    each = len(threads) // max(result.rows, 1)
    return bool(threads) and all(
        len({move.row for move in thread}) == 1
        and [m.at for m in thread] == [m.at for m in threads[number % each]]
        for number, thread in enumerate(threads)
    )


def side_view(result: SewnResult, ruler: Ruler) -> Drawing:
    """Stations on the fold with the thread's path; each stretch is a group with its step, for stepping
    through."""
    height, first = (
        result.height_mm,
        [stretch for stretch in result.stretches if stretch.row == 1 and stretch.to_row == 1],
    )
    share, spans = height / 210, [one for one in first if one.what == "span"]
    levels = _levels(spans)
    highest = max((levels[span.step] for span in spans if span.side == "inside"), default=0)
    base, thick = (24 + 8 * highest) * share, BAND_MM * share
    fold = FoldBand(base, thick, 8 * share, share)
    places = (0.0, *result.positions_mm, height)
    row = result.sewing.bed.rows[0]
    above = f"in {row.sides[0]}" if row.sides != SIDES else "inside the fold"
    below = f"in {row.sides[1]}" if row.sides != SIDES else "outside, on the spine"
    shapes: list[Shape] = [
        Label(0, base, above, "side-label", "start", (0, -12)),
        Label(0, base + thick, below, "side-label", "start", (0, 24)),
        Rect(0, base, height, thick, "fold-band"),
    ]
    shapes += [
        Rect(x - 0.7 * share, base - 0.1, 1.4 * share, thick + 0.2, "hole-gap") for x in result.positions_mm
    ]
    shapes += [_span(span, levels[span.step], places, fold, number) for number, span in enumerate(spans, 1)]
    shapes += _edges(first, places, fold)
    shapes += _tails(first, places, fold)
    top = base + thick + 33 * share
    return Drawing(
        height,
        top + 10 * share,
        f"The fold from the side with {len(result.positions_mm)} stations and the thread in {len(spans)} "
        "spans.",
        [*shapes, *ruler_line(height, ruler, top, share), *numbers(result, base, base + thick, top)],
        spots=spots(result, top),
    )


def spots(result: SewnResult, top: float) -> list[ControlSpot]:
    return [
        ControlSpot(f"binding.station.{number}", place, top, (0, 0))
        for number, place in enumerate(result.places_mm)
    ]


def numbers(
    result: SewnResult, base: float, below: float, top: float, style: str = "hole-number"
) -> list[Shape]:
    """Each hole with its number, and a line down to its place on the ruler, on which a bar says where holes
    may lie; a tape's two holes share the line of its middle."""
    window = result.window
    shapes: list[Shape] = [
        Rect(
            window.low_mm,
            top,
            max(window.high_mm - window.low_mm, 0.0),
            0.9 * result.height_mm / 210,
            "window-bar",
        )
    ]
    shapes += [Line(place, below, place, top, "guide") for place in result.places_mm]
    return shapes + [
        Label(x, base, str(number), style, shift=(13, 11)) for number, x in enumerate(result.positions_mm, 1)
    ]


def _levels(spans: Sequence[Stretch]) -> dict[int, int]:
    """A level for each span by its step, so that spans on one side that overlap do not lie on each other."""
    placed: list[tuple[Stretch, int]] = []
    for span in spans:
        taken = {level for one, level in placed if one.side == span.side and set(one.gaps) & set(span.gaps)}
        placed.append((span, next(level for level in range(len(spans) + 1) if level not in taken)))
    return {span.step: level for span, level in placed}


def _span(span: Stretch, level: int, places: Sequence[float], fold: FoldBand, number: int) -> Group:
    """One span: out of its hole, along, into the next, with its number in the middle and an arrow."""
    inside, share = span.side == "inside", fold.share
    edge = fold.base if inside else fold.base + fold.thick
    away = -1 if inside else 1
    far = edge + away * fold.rise * (1 + level)
    start, end = places[int(span.start)], places[int(span.end)]
    way = 1 if end > start else -1
    bend, off = 3 * share * way, 0.5 * share * way
    commands: Commands = (
        ("M", (start + off, edge)),
        ("L", (start + off, far - away * 3 * share)),
        ("Q", (start + off, far, start + off + bend, far)),
        ("L", (end - off - bend, far)),
        ("Q", (end - off, far, end - off, far - away * 3 * share)),
        ("L", (end - off, edge)),
    )
    first = int(min(span.start, span.end))
    middle = (places[first] + places[min(first + 1, len(places) - 1)]) / 2
    shapes: tuple[Shape, ...] = (
        Curve(commands, f"thread thread-{span.side}"),
        Line(middle + 5 * share * way, far, middle + 9 * share * way, far, "thread-arrow", arrow=True),
        Dot(middle, far, "step-dot", 2.2),
        Label(middle, far, str(number), "step-number", shift=(0, 5)),
    )
    return Group("span", shapes, (("step", str(span.step)),))


def _edges(stretches: Sequence[Stretch], places: Sequence[float], fold: FoldBand) -> list[Shape]:
    """Where the thread goes round the edge at head or tail."""
    shapes: list[Shape] = []
    for stretch in stretches:
        if stretch.what == "passage" and int(stretch.end) in (0, len(places) - 1):
            x = places[int(stretch.end)]
            out = -5 * fold.share if stretch.end == 0 else 5 * fold.share
            commands: Commands = (
                ("M", (x, fold.base)),
                ("Q", (x + out, fold.base + fold.thick / 2, x, fold.base + fold.thick)),
            )
            shapes.append(
                Group("span", (Curve(commands, "thread thread-outside"),), (("step", str(stretch.step)),))
            )
    return shapes


def _tails(stretches: Sequence[Stretch], places: Sequence[float], fold: FoldBand) -> list[Shape]:
    """The tails, hanging free on their sides at the first and the last hole of each thread."""
    shapes: list[Shape] = []
    for stretch in stretches:
        if stretch.what not in ("tail", "knot"):
            continue
        way = -1 if stretch.what == "tail" or not stretch.kind else 1
        x, share = places[int(stretch.end)], fold.share
        edge, away = (fold.base, -1) if stretch.side == "inside" else (fold.base + fold.thick, 1)
        bends = ((0.4, 0), (1, 9), (5, 12), (7, 19))
        start, *curve = [(x + way * a * share, edge + away * b * share) for a, b in bends]
        commands: Commands = (("M", start), ("C", tuple(value for point in curve for value in point)))
        shapes.append(
            Group(
                "span",
                (Curve(commands, f"thread thread-{stretch.side} tail"),),
                (("step", str(stretch.step)),),
            )
        )
    return shapes


def ruler_line(height: float, ruler: Ruler, top: float, share: float) -> list[Shape]:
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
                Label(
                    x,
                    top,
                    f"{x:.0f}" if ruler.name == "mm" else f"{number // 4}",
                    "ruler-number",
                    shift=(0, -16),
                )
            )
    return shapes
