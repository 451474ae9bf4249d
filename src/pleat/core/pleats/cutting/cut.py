"""One part on its stock."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from pleat.core.base.plan import Part
from pleat.core.base.units import HAIR_MM
from pleat.core.base.yields import Lay, Lies, both_ways, lay
from pleat.core.materials.tools import Tools
from pleat.core.pleats.paper.stocks import GrainAxis, Stock


@dataclass(frozen=True)
class StockCut:
    """One part on its stock: the better way to lay it, the other way, and sheets needed (None when none
    fits).

    ``by_trimmer`` says that the maker's trimmer takes every cut of it, the first one right across the sheet
    too; ``chosen`` that the maker chose the way it lies.
    """

    part: Part
    stock: Stock
    better: Lay
    other: Lay
    sheets: int | None
    by_trimmer: bool = False
    chosen: bool = False

    @property
    def grain_words(self) -> str:
        """Which way the grain lies in the piece as it is cut: along the side its folds run, across it, or not
        known."""
        known = self.better.with_grain
        side = "height" if self.part.grain == "h" else "width"
        if known is None:
            return "grain not known"
        if known:
            return f"grain along the {side}"
        return "across the grain"

    @property
    def needs_no_cut(self) -> bool:
        """Whether one sheet is one piece, to its very edges (slip B5 would cut it all the same)."""
        sides = sorted((self.stock.sheet_width_mm, self.stock.sheet_height_mm))
        own = sorted((self.part.width_mm, self.part.height_mm))
        return all(abs(a - b) < 0.05 for a, b in zip(sides, own, strict=True))


def _laid(part: Part, stock: Stock, turned: bool, tools: Tools) -> StockCut:
    """The cut of a piece that lies one way round, with the other way beside it."""
    upright, across = _both(part, stock)
    return _cut(part, stock, *((across, upright) if turned else (upright, across)), tools)


def cut_part(part: Part, stock: Stock, tools: Tools, way: Lies = "auto") -> StockCut:
    """The better and the other way to cut ``part`` from ``stock``, and the sheets it takes; the maker's own
    ``way`` goes before, and the part's before that."""
    if part.lies != "auto":
        return _laid(part, stock, part.lies == "turned", tools)
    if way != "auto":
        return replace(_laid(part, stock, way == "turned", tools), chosen=True)
    sides = (part.width_mm, part.height_mm, stock.sheet_width_mm, stock.sheet_height_mm)
    better, other = both_ways(*sides, _grain(part, stock), stock.upright_only)
    return _cut(part, stock, better, other, tools)


def _both(part: Part, stock: Stock) -> tuple[Lay, Lay]:
    """The piece upright and turned."""
    sides = (part.width_mm, part.height_mm, stock.sheet_width_mm, stock.sheet_height_mm)
    grain = _grain(part, stock)
    return lay(*sides, grain, False), lay(*sides, grain, True)


def _grain(part: Part, stock: Stock) -> GrainAxis | None:
    """The stock's grain as a piece sees it whose own should run along its height: one that wants it along its
    width sees it turned."""
    if part.grain == "h" or stock.grain is None:
        return stock.grain
    return "w" if stock.grain == "h" else "h"


def _cut(part: Part, stock: Stock, better: Lay, other: Lay, tools: Tools) -> StockCut:
    by_trimmer = tools.trims(
        longest_cut_mm(better, stock.sheet_width_mm, stock.sheet_height_mm), stock.caliper.likely
    )
    return StockCut(
        part, stock, better, other, math.ceil(part.count / better.count) if better.count else None, by_trimmer
    )


def longest_cut_mm(operation: Lay, sheet_width_mm: float, sheet_height_mm: float) -> float:
    """The longest cut that parts a sheet into its pieces: the first go right across, those in the strips are
    as long as a piece.

    Of the two orders the one with the shorter longest cut counts; 0 where the sheet is one piece.
    """
    across = sheet_height_mm - operation.rows * operation.piece_height_mm > HAIR_MM or operation.rows > 1
    along = sheet_width_mm - operation.columns * operation.piece_width_mm > HAIR_MM or operation.columns > 1
    if not across and not along:
        return 0.0
    if not along:
        return sheet_width_mm
    if not across:
        return sheet_height_mm
    return min(max(sheet_width_mm, operation.piece_height_mm), max(sheet_height_mm, operation.piece_width_mm))
