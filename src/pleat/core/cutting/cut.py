"""One part on its stock."""

from __future__ import annotations

import math
from dataclasses import dataclass

from pleat.core.materials.tools import Tools
from pleat.core.paper.compute import Stock
from pleat.core.plan import Part
from pleat.core.yields import Lay, both_ways, lay


@dataclass(frozen=True)
class Cut:
    """One part on its stock: the better way to lay it, the other way, and sheets needed (None when none fits).

    ``by_trimmer`` says that the maker's trimmer takes every edge of it.
    """

    part: Part
    stock: Stock
    better: Lay
    other: Lay
    sheets: int | None
    by_trimmer: bool = False

    @property
    def grain_words(self) -> str:
        """Which way the grain lies in the piece as it is cut: along its height, which becomes the spine, across it, or not known."""
        known = self.better.with_grain
        return "grain not known" if known is None else "grain along the height" if known else "across the grain"

    @property
    def needs_no_cut(self) -> bool:
        """Whether one sheet is one piece, to its very edges (slip B5 would cut it all the same)."""
        sides = sorted((self.stock.sheet_width_mm, self.stock.sheet_height_mm))
        own = sorted((self.part.width_mm, self.part.height_mm))
        return all(abs(a - b) < 0.05 for a, b in zip(sides, own, strict=True))


def cut_as_folded(part: Part, stock: Stock, turned: bool, tools: Tools) -> Cut:
    """The cut of a piece that lies in its sheet as it will be folded, with the other way round beside it."""
    better, other = (
        lay(part.width_mm, part.height_mm, stock.sheet_width_mm, stock.sheet_height_mm, stock.grain, way) for way in (turned, not turned)
    )
    return _cut(part, stock, better, other, tools)


def cut_part(part: Part, stock: Stock, tools: Tools) -> Cut:
    """The better and the other way to cut ``part`` from ``stock``, and the sheets it takes."""
    better, other = both_ways(part.width_mm, part.height_mm, stock.sheet_width_mm, stock.sheet_height_mm, stock.grain, stock.upright_only)
    return _cut(part, stock, better, other, tools)


def _cut(part: Part, stock: Stock, better: Lay, other: Lay, tools: Tools) -> Cut:
    by_trimmer = tools.trims(max(part.width_mm, part.height_mm), stock.caliper.likely)
    return Cut(part, stock, better, other, math.ceil(part.count / better.count) if better.count else None, by_trimmer)
