"""One part on its stock."""

from __future__ import annotations

from dataclasses import dataclass, replace

from pleat.core.base.plan import Part
from pleat.core.base.yields import Lay, both_ways, lay
from pleat.core.materials.sheet import GrainAxis
from pleat.core.pleats.cutting.record import Lying
from pleat.core.pleats.paper.stocks import Stock


@dataclass(frozen=True)
class StockCut:
    """One part on its stock: the way it lies, with what a sheet would yield of it alone, and the other way.

    ``by_trimmer`` says that the maker's trimmer takes every cut of the sheets it lies on; ``chosen`` that the
    maker chose the way it lies, ``free`` that they let it lie either way. What it shares its sheets with is
    ``shared.StockPlan``'s.
    """

    part: Part
    stock: Stock
    better: Lay
    other: Lay
    by_trimmer: bool = False
    chosen: bool = False
    free: bool = False

    def lying(self, turned: bool) -> StockCut:
        """It lying the one way or the other."""
        if self.better.turned == turned:
            return self
        return replace(self, better=self.other, other=self.better)

    @property
    def twins(self) -> int:
        """How many come from one sheet, so that they match; 0 where none have to, or no sheet gives them."""
        return self.part.twins if self.part.twins <= self.better.count else 0

    @property
    def trimmed_mm(self) -> tuple[float, float] | None:
        """(width, height) it is trimmed to later; None where it is cut to its size."""
        if not self.part.allowance_mm:
            return None
        more = 2 * self.part.allowance_mm
        return self.part.width_mm - more, self.part.height_mm - more

    @property
    def side_words(self) -> str:
        """Where to mark a material that is good on one side; "" where either will do."""
        return "Mark it on its back, where all is mirrored." if self.stock.sides == 1 else ""

    @property
    def grain_words(self) -> str:
        """Which way the grain lies in the piece as it is cut: along the side its folds run, across it, or not
        known."""
        known = self.better.with_grain
        if self.free:
            return "grain either way"
        side = "height" if self.part.grain == "h" else "width"
        if known is None:
            return "grain not known"
        if known:
            return f"grain along the {side}"
        return "across the grain"

    @property
    def needs_no_cut(self) -> bool:
        """Whether one sheet is one piece, to its very edges (slip B5 would cut it all the same)."""
        if not self.stock.whole:
            return False
        sides = sorted((self.stock.sheet_width_mm, self.stock.sheet_height_mm))
        own = sorted((self.part.width_mm, self.part.height_mm))
        return all(abs(a - b) < 0.05 for a, b in zip(sides, own, strict=True))


def as_cut(part: Part, larger_mm: float | None, match: bool, books: int) -> Part:
    """A part in the size it is cut to: larger on every edge by its own allowance, or by what the maker says;
    those of one of so many ``books`` match where that is wanted."""
    more = part.allowance_mm if larger_mm is None else larger_mm
    twins = part.count // books if match and not part.count % books else part.twins
    return replace(
        part,
        width_mm=part.width_mm + 2 * more,
        height_mm=part.height_mm + 2 * more,
        folds=tuple(replace(fold, position_mm=fold.position_mm + more) for fold in part.folds),
        allowance_mm=more,
        twins=twins if twins > 1 else 0,
    )


def cut_part(part: Part, stock: Stock, way: Lying = "auto") -> StockCut:
    """The way ``part`` lies on ``stock``, and the other way; the maker's own ``way`` goes before what is
    better, and the part's before that."""
    upright, turned = _both(part, stock)
    if part.lies != "auto":
        return StockCut(part, stock, *((turned, upright) if part.lies == "turned" else (upright, turned)))
    if way in ("upright", "turned"):
        ways = (turned, upright) if way == "turned" else (upright, turned)
        return StockCut(part, stock, *ways, chosen=True)
    sides = (part.width_mm, part.height_mm, stock.usable_width_mm, stock.usable_height_mm)
    both = both_ways(*sides, _grain(part, stock), stock.upright_only)
    free = way == "either" and not stock.upright_only
    return StockCut(part, stock, *both, chosen=way == "either", free=free)


def _both(part: Part, stock: Stock) -> tuple[Lay, Lay]:
    """The piece upright and turned."""
    sides = (part.width_mm, part.height_mm, stock.usable_width_mm, stock.usable_height_mm)
    grain = _grain(part, stock)
    return lay(*sides, grain, False), lay(*sides, grain, True)


def _grain(part: Part, stock: Stock) -> GrainAxis | None:
    """The stock's grain as a piece sees it whose own should run along its height: one that wants it along its
    width sees it turned."""
    if part.grain == "h" or stock.grain is None:
        return stock.grain
    return "w" if stock.grain == "h" else "h"
