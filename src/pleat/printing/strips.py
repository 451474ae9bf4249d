"""Strips at true size: the stations on the fold, and the scores of the cover. Long ones are cut into tiles
that overlap."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Final

from pleat.core.base.plan import PleatResult
from pleat.core.base.points import point
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.whole.planning import Plan
from pleat.drawing.shapes import Dot, Drawing, Label, Line, Rect, Shape
from pleat.printing.letters import size_mm
from pleat.printing.pen import STYLES

STRIP_MM: Final = 24.0
"""How wide a strip is: enough to fold lengthwise and hold."""
LABELS_MM: Final = STRIP_MM + 3.6
"""Where the words beside a strip begin."""
LABEL_MM: Final = 4.4
"""How far the words of two marks are kept apart."""
OVERLAP_MM: Final = 10.0
"""How much two tiles share, so that they can be glued mark on mark."""


@dataclass(frozen=True)
class MarkOn:
    """A mark across a strip at ``at_mm`` from its top; a ``hole`` is a point to pierce, or ``hole_mm`` wide
    to punch."""

    at_mm: float
    text: str
    style: str
    hole: bool = False
    hole_mm: float = 0.0


@dataclass(frozen=True)
class Strip:
    """A strip of ``length_mm`` with its marks; ``top`` and ``bottom`` name its ends.

    ``rows_mm`` are where its holes lie across it, from the left; ``folded_mm`` are the lines along which it
    is folded or scored lengthwise.
    """

    name: str
    length_mm: float
    marks: tuple[MarkOn, ...]
    top: str
    bottom: str
    width_mm: float = STRIP_MM
    rows_mm: tuple[float, ...] = (STRIP_MM / 2,)
    folded_mm: tuple[float, ...] = ()

    @property
    def labels_mm(self) -> float:
        """Where the words beside it begin."""
        return self.width_mm + LABELS_MM - STRIP_MM

    @property
    def key(self) -> str:
        """What it is called in an address or a file name."""
        return re.sub(r"[^a-z]+", "-", self.name.lower().split(",")[0]).strip("-")


@dataclass(frozen=True)
class Tile:
    """The piece of a strip from ``start_mm`` to ``end_mm``; ``letter`` names the join at its top, "" for the
    first."""

    strip: Strip
    start_mm: float
    end_mm: float
    letter_above: str
    letter_below: str


@point("print: strips", "strips to hold beside the work, at true size")
def strips_of(_result: PleatResult, _plan: Plan) -> tuple[Strip, ...]:
    """The strips that a result is worked by, found by its type; most have none."""
    return ()


@strips_of.register
def station_strip(result: SewnResult, plan: Plan) -> tuple[Strip, ...]:
    """As long as the cover, with the leaf's head and tail on it: one strip for the section and the cover."""
    ruler, square = plan.brief.ruler, plan.cover.square_head_mm
    if not result.positions_mm:
        return ()
    length = plan.pages.leaf_height_mm + 2 * square
    marks = [MarkOn(length / 2, "fold here first", "fold")]
    if square > 0.05:
        marks += [MarkOn(square, "leaf head", "leaf-end"), MarkOn(length - square, "leaf tail", "leaf-end")]
    for number, position in enumerate(result.positions_mm, 1):
        marks.append(MarkOn(position + square, f"{number}: {ruler.number(position)}", "cross", hole=True))
    marks.sort(key=lambda mark: (mark.at_mm, not mark.hole))
    name = "Stations, for section and cover" if plan.brief.made_of.cover.sewn_through else "Stations"
    strip = Strip(name, length, tuple(marks), "HEAD", "tail")
    return (strip, _trough(strip), *_spine(strip, plan))


def _trough(strip: Strip) -> Strip:
    """The same marks on a strip folded lengthwise, to lie in the trough under the fold."""
    wide = 2 * STRIP_MM
    return replace(
        strip,
        name="Trough guide, folded along the middle",
        width_mm=wide,
        rows_mm=(wide / 2,),
        folded_mm=(wide / 2,),
    )


SPINE_EDGE_MM: Final = 8.0
"""How far the spine template goes on to the covers at either side, so that it can be held there."""


def _spine(strip: Strip, plan: Plan) -> tuple[Strip, ...]:
    """The cover's spine with a row of holes for every section, the first next to the front; none where there
    is one row."""
    cover = plan.cover
    if not isinstance(cover, WrapResult) or len(cover.rows_mm) < 2 or cover.wrap.valleys:
        return ()
    scores = cover.wrap.scores_mm
    left = (scores[0] if len(scores) > 1 else min(cover.rows_mm)) - SPINE_EDGE_MM
    right = (scores[-1] if len(scores) > 1 else max(cover.rows_mm)) + SPINE_EDGE_MM
    marks = tuple(mark for mark in strip.marks if mark.style != "fold")
    lines = tuple(score - left for score in scores)
    rows = tuple(row - left for row in cover.rows_mm)
    return (
        Strip(
            "Spine template, outside up, front on the right",
            strip.length_mm,
            marks,
            strip.top,
            strip.bottom,
            right - left,
            rows,
            lines,
        ),
    )


@strips_of.register
def score_strip(result: WrapResult, plan: Plan) -> tuple[Strip, ...]:
    """As long as the cover is wide, from its left edge seen from the outside, with the sections' rows of
    holes where there are several."""
    wrap, ruler, rows = result.wrap, plan.brief.ruler, result.rows_mm
    marks = [MarkOn(score, f"score {ruler.number(score)}", "score") for score in wrap.scores_mm]
    if len(rows) > 1:
        marks += [
            MarkOn(row, f"row of section {len(rows) - number}: {ruler.number(row)}", "cross")
            for number, row in enumerate(rows)
        ]
    marks.sort(key=lambda mark: mark.at_mm)
    mirrored = tuple(
        MarkOn(wrap.width_mm - score, f"score {ruler.number(wrap.width_mm - score)}", "score")
        for score in reversed(wrap.scores_mm)
    )
    outside = Strip(
        "Scores of the cover, outside up",
        wrap.width_mm,
        tuple(marks),
        "LEFT EDGE (back)",
        "right edge (front)",
    )
    if all(abs(mark.at_mm - score) < 0.01 for mark, score in zip(mirrored, wrap.scores_mm, strict=True)):
        return (outside,)  # turned over it is the same
    return (
        outside,
        Strip(
            "Scores inside up, turned over", wrap.width_mm, mirrored, "LEFT EDGE (front)", "right edge (back)"
        ),
    )


def tiles(strip: Strip, room_mm: float) -> tuple[Tile, ...]:
    """The strip in pieces of at most ``room_mm``, each sharing OVERLAP_MM with the next. Raises ValueError
    when there is no room."""
    if room_mm <= 2 * OVERLAP_MM:
        raise ValueError("a tile needs more room than its overlaps")
    pieces, start, number = [], 0.0, 0
    while True:
        end = min(start + room_mm, strip.length_mm)
        last = end >= strip.length_mm - 1e-9
        pieces.append(
            Tile(strip, start, end, chr(64 + number) if number else "", "" if last else chr(65 + number))
        )
        if last:
            return tuple(pieces)
        start, number = end - OVERLAP_MM, number + 1


def draw(tile: Tile) -> Drawing:
    """One tile upright at true size: marks across it, their words beside it, kept apart and led to their
    marks."""
    strip, height = tile.strip, tile.end_mm - tile.start_mm
    there = [
        (mark, mark.at_mm - tile.start_mm)
        for mark in strip.marks
        if -1e-6 <= mark.at_mm - tile.start_mm <= height + 1e-6
    ]
    wide, labels = strip.width_mm, strip.labels_mm
    shapes: list[Shape] = [
        Rect(0, 0, wide, height, "strip"),
        *(Line(x, 0, x, height, "score") for x in strip.folded_mm),
    ]
    for (mark, y), level in zip(there, apart([y for _, y in there], height), strict=True):
        shapes.append(Line(0, y, wide, y, mark.style))
        for x in strip.rows_mm if mark.hole else ():
            radius = mark.hole_mm / 2 or (0.8 if len(strip.rows_mm) == 1 else 0.5)
            shapes += [Line(x, y - 2, x, y + 2, "cross"), Dot(x, y, "hole", radius_mm=radius)]
        style = "bold" if mark.hole or mark.style == "score" else "small"
        shapes += [
            Line(wide, y, labels - 0.6, level, "cross"),
            Label(labels, level, mark.text, style, "start", (0, 1.1)),
        ]
    lines = [y for _, y in there]
    clear = (
        strip.folded_mm[0] if strip.folded_mm else wide
    )  # an end's name keeps off the lines along the strip
    shapes += _end(tile.letter_above, strip.top, lines, height, clear, from_top=True)
    shapes += _end(tile.letter_below, strip.bottom, lines, height, clear, from_top=False)
    return Drawing(wide, height, strip.name, shapes)


def apart(wanted: list[float], height_mm: float) -> list[float]:
    """Where labels stand that want to stand at these places, in order, so that none lies on another or beyond
    the ends.

    >>> apart([0, 1, 50], 60)
    [0.0, 4.4, 50.0]
    """
    found: list[float] = []
    for at in wanted:
        found.append(max(at, found[-1] + LABEL_MM) if found else float(at))
    below = height_mm + 2.0
    for number in reversed(range(len(found))):
        found[number] = min(found[number], below)
        below = found[number] - LABEL_MM
    return found


def _end(
    letter: str, name: str, lines: list[float], height: float, wide: float, from_top: bool
) -> list[Shape]:
    """A true end with its name, clear of the marks; or a join with the mark that meets the next tile's."""
    edge, way = (0.0, 1) if from_top else (height, -1)
    if not letter:
        return [Label(wide / 2, _clear(edge, way, lines, height), name, "small")]
    join, middle = edge + way * OVERLAP_MM, wide * 0.8
    return [
        Line(0, join, wide, join, "join"),
        Line(middle - 2, join, middle, edge, "join"),
        Line(middle + 2, join, middle, edge, "join"),
        Label(1.4, _clear(edge, way, [*lines, join], height), f"overlap {letter}", "small", "start"),
    ]


def _clear(edge: float, way: int, lines: list[float], height: float) -> float:
    """The baseline nearest to an end of the strip at which a small text crosses no mark."""
    tall = size_mm(STYLES["small"])
    for step in range(int(height)):
        base = edge + way * (0.8 + step * 0.5) + (tall if way > 0 else 0.0)
        if not any(base - tall * 0.95 < line < base + tall * 0.4 for line in lines):
            return base
    return edge + way * height / 2
