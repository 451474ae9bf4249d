"""Strips at true size: the stations on the fold, and the scores of the cover. Long ones are cut into tiles that overlap."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.planning import Plan
from pleat.drawing.shapes import Dot, Drawing, Label, Line, Rect, Shape

STRIP_MM: Final = 24.0
"""How wide a strip is: enough to fold lengthwise and hold."""
OVERLAP_MM: Final = 10.0
"""How much two tiles share, so that they can be glued mark on mark."""


@dataclass(frozen=True)
class MarkOn:
    """A mark across a strip at ``at_mm`` from its top."""

    at_mm: float
    text: str
    style: str
    hole: bool = False


@dataclass(frozen=True)
class Strip:
    """A strip of ``length_mm`` with its marks; ``top`` and ``bottom`` name its ends."""

    name: str
    length_mm: float
    marks: tuple[MarkOn, ...]
    top: str
    bottom: str


@dataclass(frozen=True)
class Tile:
    """The piece of a strip from ``start_mm`` to ``end_mm``; ``letter`` names the join at its top, "" for the first."""

    strip: Strip
    start_mm: float
    end_mm: float
    letter_above: str
    letter_below: str


def station_strip(plan: Plan) -> Strip:
    """As long as the cover, with the leaf's head and tail on it: one strip for the section and the cover."""
    ruler, square = plan.brief.ruler, plan.cover.square_head_mm
    length = plan.pages.leaf_height_mm + 2 * square
    marks = [MarkOn(length / 2, "fold here first", "fold")]
    if square > 0.05:
        marks += [MarkOn(square, "leaf head", "leaf-end"), MarkOn(length - square, "leaf tail", "leaf-end")]
    for number, position in enumerate(plan.binding.positions_mm, 1):
        marks.append(MarkOn(position + square, f"{number}: {ruler.number(position)}", "cross", hole=True))
    return Strip("Stations, for section and cover", length, tuple(marks), "HEAD", "tail")


def score_strip(plan: Plan) -> Strip:
    """As long as the cover is wide, from its left edge seen from the outside."""
    wrap, ruler = plan.cover.wrap, plan.brief.ruler
    marks = tuple(MarkOn(score, f"score {ruler.number(score)}", "score") for score in wrap.scores_mm)
    return Strip("Scores of the cover, outside up", wrap.width_mm, marks, "LEFT EDGE (back)", "right edge (front)")


def tiles(strip: Strip, room_mm: float) -> tuple[Tile, ...]:
    """The strip in pieces of at most ``room_mm``, each sharing OVERLAP_MM with the next. Raises ValueError when there is no room."""
    if room_mm <= 2 * OVERLAP_MM:
        raise ValueError("a tile needs more room than its overlaps")
    pieces, start, number = [], 0.0, 0
    while True:
        end = min(start + room_mm, strip.length_mm)
        last = end >= strip.length_mm - 1e-9
        pieces.append(Tile(strip, start, end, chr(64 + number) if number else "", "" if last else chr(65 + number)))
        if last:
            return tuple(pieces)
        start, number = end - OVERLAP_MM, number + 1


def draw(tile: Tile) -> Drawing:
    """One tile upright at true size."""
    strip, height = tile.strip, tile.end_mm - tile.start_mm
    shapes: list[Shape] = [Rect(0, 0, STRIP_MM, height, "strip")]
    for mark in strip.marks:
        y = mark.at_mm - tile.start_mm
        if not -1e-6 <= y <= height + 1e-6:
            continue
        shapes.append(Line(0, y, STRIP_MM, y, mark.style))
        if mark.hole:
            shapes += [Line(STRIP_MM / 2, y - 2, STRIP_MM / 2, y + 2, "cross"), Dot(STRIP_MM / 2, y, "hole", radius_mm=0.8)]
        shapes.append(Label(STRIP_MM + 2, y, mark.text, "bold" if mark.hole or mark.style == "score" else "small", "start", (0, 1.1)))
    shapes += _end(tile.letter_above, strip.top, 0.0, OVERLAP_MM, 4.5)
    shapes += _end(tile.letter_below, strip.bottom, height, height - OVERLAP_MM, -2.0)
    return Drawing(STRIP_MM, height, strip.name, shapes)


def _end(letter: str, name: str, edge: float, join: float, shift: float) -> list[Shape]:
    """A true end with its name, or a join with the mark that meets the next tile's."""
    if not letter:
        return [Label(STRIP_MM / 2, edge, name, "small", shift=(0, shift))]
    middle = STRIP_MM * 0.8
    return [
        Line(0, join, STRIP_MM, join, "join"),
        Line(middle - 2, join, middle, edge, "join"),
        Line(middle + 2, join, middle, edge, "join"),
        Label(STRIP_MM * 0.25, (edge + join) / 2, f"overlap {letter}", "small", shift=(0, 1)),
    ]
