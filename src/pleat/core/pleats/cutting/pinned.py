"""Sheets that stay as they were planned, as long as every piece on them is one that the book still takes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from pleat.core.engines.packing.cuts import part_sheet
from pleat.core.engines.packing.problem import TICKS_PER_MM, Box, PieceGrid, SheetSource, overlap, ticks
from pleat.core.materials.sheet import SAME_MM, CutPiece, SheetCut
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.record import PinnedPiece, PinnedSheet


def as_pin(stock: str, sheet: SheetCut) -> PinnedSheet:
    """A planned sheet as the book keeps it."""
    pieces = tuple(
        PinnedPiece(
            part=piece.part,
            x_mm=piece.x_mm,
            y_mm=piece.y_mm,
            width_mm=piece.width_mm,
            height_mm=piece.height_mm,
            turned=piece.turned,
            across=piece.across,
            down=piece.down,
        )
        for piece in sheet.pieces
    )
    return PinnedSheet(
        stock=stock,
        offcut=sheet.offcut,
        width_mm=sheet.width_mm,
        height_mm=sheet.height_mm,
        times=sheet.times,
        pieces=pieces,
    )


def grids_of(pin: PinnedSheet, places: Sequence[str], source: SheetSource) -> tuple[PieceGrid, ...]:
    """The pieces of a pinned sheet as the engine has them, called by their places among the parts. Raises
    ValueError where they lie on what cannot be used of the ``source``, or cannot be parted by cuts from edge
    to edge."""
    box: Box = (0, 0, ticks(pin.width_mm), ticks(pin.height_mm))
    left, top, right, bottom = source.margins
    grids = tuple(
        PieceGrid(
            places.index(piece.part),
            ticks(piece.x_mm),
            ticks(piece.y_mm),
            ticks(piece.width_mm),
            ticks(piece.height_mm),
            piece.across,
            piece.down,
        )
        for piece in pin.pieces
    )
    for grid in grids:
        x, y, wide, high = grid.box
        if x < left or y < top or x + wide > box[2] - right or y + high > box[3] - bottom or not grid.amount:
            raise ValueError("a piece lies outside what can be used of the sheet")
        if any(overlap(grid.box, window) for window in source.blocked):
            raise ValueError("a piece lies on what cannot be used of the sheet")
    part_sheet(box, grids)
    return grids


def times_held(
    pin: PinnedSheet, cuts: Sequence[StockCut], left: Mapping[str, int], source: SheetSource
) -> int:
    """How many of a pinned sheet can still be cut so: of the size that its ``source`` has, and with pieces
    that are still to be cut in the size they have on it. 0 where none can."""
    wide, high = source.width / TICKS_PER_MM, source.height / TICKS_PER_MM
    fits = pin.height_mm <= high if source.roll else abs(pin.height_mm - high) <= SAME_MM
    if not pin.pieces or not fits or abs(pin.width_mm - wide) > SAME_MM:
        return 0
    parts = {cut.part.key: cut.part for cut in cuts}
    counts: dict[str, int] = {}
    for piece in pin.pieces:
        part = parts.get(piece.part)
        if part is None or not _as_piece(piece).is_as(part.width_mm, part.height_mm):
            return 0
        counts[piece.part] = counts.get(piece.part, 0) + piece.across * piece.down
    try:
        grids_of(pin, list(parts), source)
    except ValueError:
        return 0
    there = pin.times if source.count is None else min(pin.times, source.count)
    return min(there, *(left.get(key, 0) // count for key, count in counts.items()))


def _as_piece(piece: PinnedPiece) -> CutPiece:
    return CutPiece(
        piece.part,
        piece.x_mm,
        piece.y_mm,
        piece.width_mm,
        piece.height_mm,
        turned=piece.turned,
        across=piece.across,
        down=piece.down,
    )


def key_of(pin: PinnedSheet) -> str:
    """The key of the sheet that a pin holds."""
    sheet = SheetCut(pin.times, pin.width_mm, pin.height_mm, pieces_of(pin), (), (), "", pin.offcut)
    return sheet.key


def pieces_of(pin: PinnedSheet) -> tuple[CutPiece, ...]:
    return tuple(_as_piece(piece) for piece in pin.pieces)
