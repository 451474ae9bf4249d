"""Pieces as they are cut: where each lies on a drawing, how many there are of it, and the fields that stand
on the drawing."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from pleat.core.engines.folding.convex import POINT_MM, bounds
from pleat.core.engines.folding.sheet import Piece

GAP_SHARE = 0.06
CLOSE_SHARE = (0.18, 0.15)
"""Two fields nearer than these shares of the drawing's width and height would lie over each other."""
BELOW_SHARE = 0.78
"""Where a field stands on a panel that is as high as the drawing: below the panel's name."""


@dataclass(frozen=True)
class Flat:
    """A piece as it lies on a drawing: its corner in mm, the part it is, how many are cut of it for one book,
    and what it is called."""

    piece: Piece
    x_mm: float
    y_mm: float
    part: str
    count: int = 1
    title: str = ""

    @property
    def name(self) -> str:
        return self.title or self.piece.name


@dataclass(frozen=True)
class FieldAnchor:
    """A field that stands on the drawing: its path, where it points in mm, what it comes to by itself, and
    whether it stands below or at the right."""

    path: str
    x_mm: float
    y_mm: float
    by_itself_mm: float
    below: bool = False


@dataclass(frozen=True)
class Dragged:
    """A score that may be dragged along its axis: the path that sets it, where it is, and how far it goes; mm
    on the drawing."""

    path: str
    axis: Literal["x", "y"]
    at_mm: float
    low_mm: float
    high_mm: float


def rows(pieces: Iterable[tuple[Piece, str, int, str]], wide: float = 1.9) -> tuple[Flat, ...]:
    """Pieces side by side and below each other, so that all together are at most about ``wide`` times as wide
    as high: (piece, part, count, title)."""
    listed = list(pieces)
    if not listed:
        return ()
    whole = sum(piece.size_mm[0] * piece.size_mm[1] for piece, *_ in listed)
    gap = GAP_SHARE * whole**0.5
    limit = max((whole * wide * 1.6) ** 0.5, max(piece.size_mm[0] for piece, *_ in listed))
    x = y = tall = 0.0
    flats = []
    for piece, part, count, title in listed:
        width, height = piece.size_mm
        if x and x + width > limit:
            x, y, tall = 0.0, y + tall + 2.2 * gap, 0.0
        flats.append(Flat(piece, x, y, part, count, title))
        x, tall = x + width + gap, max(tall, height)
    return tuple(flats)


def spots(fields: Iterable[tuple[str, str, str, float]], flats: Iterable[Flat]) -> tuple[FieldAnchor, ...]:
    """Fields on a drawing, each at the middle of its panel, below the name where there is room: (path, piece,
    panel, value by itself); those whose panel is not drawn are left out. One that would lie over another goes
    down its panel, or up."""
    laid = list(flats)
    drawn = {(flat.piece.name, panel.name): (flat, panel) for flat in laid for panel in flat.piece.panels}
    close_x = CLOSE_SHARE[0] * max((flat.x_mm + flat.piece.size_mm[0] for flat in laid), default=0.0)
    close_y = CLOSE_SHARE[1] * max((flat.y_mm + flat.piece.size_mm[1] for flat in laid), default=0.0)
    anchors: list[FieldAnchor] = []
    for path, piece, name, value in fields:
        if (piece, name) in drawn:
            flat, panel = drawn[piece, name]
            left, top, right, bottom = bounds(panel.outline)
            room = bottom - top > 4 * close_y
            x, first = (
                flat.x_mm + (left + right) / 2,
                flat.y_mm + top + (bottom - top) * (BELOW_SHARE if room else 0.5),
            )
            near = [anchor.y_mm for anchor in anchors if abs(anchor.x_mm - x) < close_x]
            tried = [first, *(first + turn * close_y for step in range(1, 5) for turn in (step, -step))]
            free = [
                y for y in tried if y >= 0 and all(abs(y - other) >= close_y - POINT_MM for other in near)
            ]
            y = next(
                (y for y in free if flat.y_mm + top <= y <= flat.y_mm + bottom), free[0] if free else first
            )
            anchors.append(FieldAnchor(path, x, y, value))
    return tuple(anchors)
