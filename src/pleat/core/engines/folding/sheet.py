"""A piece of stock as named columns and rows: its panels, the folds between them, what is cut away, and the
scores to make.

Positions run from one edge: they may be rounded to a ruler, widths never are, so that errors do not pile up.
The piece is described flat, side A up, x to the right and y downwards, in mm.
"""

from __future__ import annotations

import math
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import accumulate
from typing import Final, Literal

from pleat.core.engines.folding.convex import (
    POINT_MM,
    Point,
    Polygon,
    area,
    bounds,
    clipped,
    is_rectangle,
    middle,
    rectangle,
    side_of,
    united,
)

CreaseKind = Literal["fold", "bend", "guide"]
"""A fold is scored and folded; a bend moves and is never scored; a guide is scored and never moves."""
BODY: Final = "body"
"""The panel of a piece whose column and row have no name."""


@dataclass(frozen=True)
class Span:
    """A column, left to right, or a row, head to tail: its name and size in mm, and what the edge it begins
    with is."""

    name: str
    size_mm: float
    edge: CreaseKind = "fold"

    def __post_init__(self) -> None:
        if not self.size_mm >= 0:
            raise ValueError(f"{self.name or BODY} is narrower than nothing")


@dataclass(frozen=True)
class Cut:
    """A straight cut from ``start`` to ``end`` across the panels named in ``only`` (all of them where it is
    empty); the side of ``off`` goes."""

    start: Point
    end: Point
    off: Point
    only: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Panel:
    """A panel flat, by its name; its outline is convex."""

    name: str
    outline: Polygon

    def __post_init__(self) -> None:
        if area(self.outline) <= 0:
            raise ValueError(f"panel {self.name} has no area")

    @cached_property
    def middle(self) -> tuple[float, float, float]:
        """A place inside it, on its own sheet."""
        return (*middle(self.outline), 0.0)


@dataclass(frozen=True)
class Crease:
    """The line between two panels, which both have as a side."""

    one: str
    other: str
    start: Point
    end: Point
    kind: CreaseKind = "fold"

    @property
    def upright(self) -> bool:
        return abs(self.start[0] - self.end[0]) < POINT_MM

    @property
    def between(self) -> frozenset[str]:
        return frozenset({self.one, self.other})


@dataclass(frozen=True)
class Piece:
    """One piece of stock. ``good`` are its sides fit to be seen: both, or only A. ``directed`` says that its
    pattern has a top, towards y = 0.

    ``rigid`` pieces, boards and blocks, are one panel and stand for what is thick. ``glued`` names the panels
    that glue goes on.
    """

    name: str
    stock: str
    panels: tuple[Panel, ...]
    creases: tuple[Crease, ...] = ()
    good: Literal["both", "A"] = "both"
    directed: bool = False
    rigid: bool = False
    offcuts: tuple[Polygon, ...] = ()
    glued: frozenset[str] = frozenset()

    def __getitem__(self, name: str) -> Panel:
        """The panel of that name. Raises KeyError."""
        panel = self._named.get(name)
        if panel is None:
            raise KeyError(f"{self.name} has no panel {name}")
        return panel

    @cached_property
    def _named(self) -> dict[str, Panel]:
        return {panel.name: panel for panel in self.panels}

    @cached_property
    def around(self) -> Mapping[str, tuple[tuple[Crease, str], ...]]:
        """The creases of each panel, with the panel on the other side of it."""
        found: dict[str, list[tuple[Crease, str]]] = {panel.name: [] for panel in self.panels}
        for crease in self.creases:
            found[crease.one].append((crease, crease.other))
            found[crease.other].append((crease, crease.one))
        return {name: tuple(own) for name, own in found.items()}

    def crease(self, one: str, other: str) -> Crease:
        """The crease between two panels. Raises KeyError."""
        for crease, beyond in self.around.get(one, ()):
            if beyond == other:
                return crease
        raise KeyError(f"{self.name} has no fold between {one} and {other}")

    @cached_property
    def outlines(self) -> tuple[Polygon, ...]:
        """Its outline, and those of its windows."""
        if len(self.panels) == 1 and is_rectangle(self.panels[0].outline):
            return (self.panels[0].outline,)
        return united([panel.outline for panel in self.panels])

    @property
    def size_mm(self) -> tuple[float, float]:
        """Width and height of the least rectangle it is cut from, upright."""
        left, top, right, bottom = bounds(point for panel in self.panels for point in panel.outline)
        return right - left, bottom - top

    @property
    def area_mm2(self) -> float:
        return sum(area(panel.outline) for panel in self.panels)


def piece(
    name: str,
    stock: str,
    columns: Sequence[Span],
    rows: Sequence[Span],
    *,
    kept: Iterable[tuple[str, str]] = (),
    gone: Iterable[tuple[str, str]] = (),
    cuts: Iterable[Cut] = (),
    good: Literal["both", "A"] = "both",
    directed: bool = False,
    glued: Iterable[str] = (),
    body: str = BODY,
) -> Piece:
    """A piece of named columns x named rows. A cell with one name is the panel of that name, one without is
    called ``body``; one with two is a corner and cut away, unless it is among ``kept``: then it is the panel
    ``"column, row"``; those of ``gone`` are cut away as well. Spans of no size are left out.
    """
    kept, gone = set(kept), set(gone)
    across, down = (
        [column for column in columns if column.size_mm > POINT_MM],
        [row for row in rows if row.size_mm > POINT_MM],
    )
    lefts, tops = (
        [*accumulate((c.size_mm for c in across), initial=0.0)],
        [*accumulate((r.size_mm for r in down), initial=0.0)],
    )
    named = _named(across, down, kept, gone, body)
    if len(set(named.values())) < len(named):
        raise ValueError(f"two panels of {name} have one name")
    panels = {
        at: rectangle(lefts[at[0]], tops[at[1]], across[at[0]].size_mm, down[at[1]].size_mm) for at in named
    }
    creases = _creases(named, across, down, lefts, tops)
    every = tuple(Panel(named[at], outline) for at, outline in panels.items())
    return cut_off(Piece(name, stock, every, tuple(creases), good, directed, glued=frozenset(glued)), cuts)


def _named(
    across: Sequence[Span],
    down: Sequence[Span],
    kept: Collection[tuple[str, str]],
    gone: Collection[tuple[str, str]],
    body: str,
) -> dict[tuple[int, int], str]:
    """The panels' names by their cells, (column, row)."""
    named: dict[tuple[int, int], str] = {}
    for x, column in enumerate(across):
        for y, row in enumerate(down):
            if (column.name, row.name) in gone:
                continue
            if column.name and row.name:
                if (column.name, row.name) not in kept:
                    continue
                named[x, y] = f"{column.name}, {row.name}"
            else:
                named[x, y] = column.name or row.name or body
    return named


def _creases(
    named: Mapping[tuple[int, int], str],
    across: Sequence[Span],
    down: Sequence[Span],
    lefts: Sequence[float],
    tops: Sequence[float],
) -> list[Crease]:
    """A crease between every two panels that lie side by side, or one below the other."""
    return [
        *(
            Crease(
                named[x, y],
                named[x + 1, y],
                (lefts[x + 1], tops[y]),
                (lefts[x + 1], tops[y + 1]),
                across[x + 1].edge,
            )
            for x, y in named
            if (x + 1, y) in named
        ),
        *(
            Crease(
                named[x, y],
                named[x, y + 1],
                (lefts[x], tops[y + 1]),
                (lefts[x + 1], tops[y + 1]),
                down[y + 1].edge,
            )
            for x, y in named
            if (x, y + 1) in named
        ),
    ]


def board(name: str, stock: str, width_mm: float, height_mm: float) -> Piece:
    """A board, a card or a block: one panel that does not fold."""
    return Piece(name, stock, (Panel(BODY, rectangle(0, 0, width_mm, height_mm)),), rigid=True)


def rounded(sheet: Piece, radius_mm: float, at: Iterable[Literal["left", "right"]]) -> Piece:
    """A board with the corners of its left or right side rounded, in steps of 11.25 degrees; its outline
    stays within a tenth of a mm of the arc for radii up to 20 mm."""
    if radius_mm < POINT_MM or len(sheet.panels) != 1:
        return sheet
    left, top, right, bottom = bounds(sheet.panels[0].outline)
    radius = min(radius_mm, (right - left) / 2, (bottom - top) / 2)
    sides = set(at)
    found: list[Point] = []
    for x, y, way, first in (
        (left, top, 1, 180),
        (right, top, -1, 270),
        (right, bottom, -1, 0),
        (left, bottom, 1, 90),
    ):
        if ("left" if way == 1 else "right") not in sides:
            found.append((x, y))
            continue
        centre = (x + way * radius, y + (radius if y == top else -radius))
        angles = [math.radians(first + 11.25 * step) for step in range(9)]
        found += [
            (centre[0] + radius * math.cos(angle), centre[1] + radius * math.sin(angle)) for angle in angles
        ]
    return replace(sheet, panels=(Panel(sheet.panels[0].name, tuple(found)),))


def cut_off(sheet: Piece, cuts: Iterable[Cut]) -> Piece:
    """The piece after straight cuts, with what fell off among its offcuts. A panel that is cut away
    altogether is left out."""
    cuts = tuple(cuts)
    if not cuts:
        return sheet
    outlines = {panel.name: panel.outline for panel in sheet.panels}
    fell: list[Polygon] = []
    touched: set[str] = set()
    for cut in cuts:
        stays = side_of(cut.start, cut.end, cut.off) < 0
        for name, outline in list(outlines.items()):
            if (cut.only and name not in cut.only) or all(
                (side_of(cut.start, cut.end, corner) > 0) == stays for corner in outline
            ):
                continue
            kept, gone = (clipped(outline, cut.start, cut.end, positive=side) for side in (stays, not stays))
            if gone:
                fell.append(gone)
                outlines[name] = kept
                touched.add(name)
    if not touched:
        return sheet
    panels = tuple(Panel(name, outline) for name, outline in outlines.items() if outline)
    creases = []
    for crease in sheet.creases:
        shared: tuple[Point, Point] | None = (crease.start, crease.end)
        if touched & crease.between:  # what is left of it between the panels as they are now
            shared = _left_of(crease, outlines[crease.one], outlines[crease.other])
        if shared:
            creases.append(replace(crease, start=shared[0], end=shared[1]))
    return replace(sheet, panels=panels, creases=tuple(creases), offcuts=(*sheet.offcuts, *fell))


def _left_of(crease: Crease, one: Polygon, other: Polygon) -> tuple[Point, Point] | None:
    """What is left of a crease between two panels that were cut; None where nothing is. Corners of both that
    lie on it bound it."""
    (x1, y1), (x2, y2) = crease.start, crease.end
    along, down = x2 - x1, y2 - y1
    long = along * along + down * down
    low, high = 0.0, 1.0
    for outline in (one, other):
        on = [
            ((x - x1) * along + (y - y1) * down) / long
            for x, y in outline
            if abs((x - x1) * down - (y - y1) * along) < 1e-5 * math.sqrt(long)
        ]
        if len(on) < 2:
            return None
        low, high = max(low, min(on)), min(high, max(on))
    if (high - low) * math.sqrt(long) < POINT_MM:
        return None
    return (x1 + low * along, y1 + low * down), (x1 + high * along, y1 + high * down)


def scores(sheet: Piece, *, upright: bool = True, mirrored: bool = False) -> tuple[float, ...]:
    """Where to score, running from the left edge (of level ones: from the head), each position once;
    ``mirrored`` for a sheet that is turned over, whose left edge was its right one (of level ones: as a sheet
    turned head over tail). What only bends is not scored.
    """
    axis = 0 if upright else 1
    left, top, right, bottom = bounds(point for panel in sheet.panels for point in panel.outline)
    start, end = ((left, right), (top, bottom))[axis]
    found = {
        round(crease.start[axis] - start, 6)
        for crease in sheet.creases
        if crease.kind != "bend" and abs(crease.start[axis] - crease.end[axis]) < POINT_MM
    }
    return tuple(sorted(end - start - at if mirrored else at for at in found))
