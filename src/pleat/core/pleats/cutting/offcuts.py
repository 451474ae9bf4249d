"""What is left of the sheets when the pieces are out: strips to the right and below, and places not used on
the last sheet."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.materials.items import Paper
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.paper.stocks import GrainAxis
from pleat.core.trade.making import OFFCUT_MM


@dataclass(frozen=True)
class Offcut:
    """Equal pieces that are left of a stock's sheets: size in mm, how many, and the axis the grain runs along
    (None: not known)."""

    stock: str
    role: str
    width_mm: float
    height_mm: float
    count: int
    grain: GrainAxis | None


def left_over(cut: StockCut) -> tuple[Offcut, ...]:
    """The offcuts of a cut that are worth keeping; empty when nothing fits.

    The whole height is parted off first, then what is below: so the strip to the right is as high as the
    sheet.
    """
    lay, sheets = cut.better, cut.sheets
    if not sheets or cut.needs_no_cut:
        return ()
    wide, high = lay.columns * lay.piece_width_mm, lay.rows * lay.piece_height_mm
    pieces = (
        (cut.stock.sheet_width_mm - wide, cut.stock.sheet_height_mm, sheets),
        (wide, cut.stock.sheet_height_mm - high, sheets),
        (lay.piece_width_mm, lay.piece_height_mm, sheets * lay.count - cut.part.count),
    )
    return tuple(
        Offcut(cut.stock.name, cut.stock.role, round(width, 2), round(height, 2), count, cut.stock.grain)
        for width, height, count in pieces
        if min(width, height) >= OFFCUT_MM and count > 0
    )


def offcuts(cut: StockCut, paper: Paper) -> tuple[Paper, ...]:
    """The offcuts of a cut as papers to put among the materials, each with its size, count and grain."""
    return tuple(_paper(paper, offcut) for offcut in left_over(cut))


def _paper(paper: Paper, offcut: Offcut) -> Paper:
    if offcut.grain is None:
        grain = "unknown"
    elif (offcut.height_mm >= offcut.width_mm) == (offcut.grain == "h"):
        grain = "long"
    else:
        grain = "short"
    changes = {
        "name": paper.name if paper.name.endswith(", offcut") else f"{paper.name[:51]}, offcut",
        "form": "offcut",
        "sheet_width_mm": offcut.width_mm,
        "sheet_height_mm": offcut.height_mm,
        "owned": offcut.count,
        "grain": grain,
    }
    return paper.model_copy(update={**changes, "stock_id": None, "designs": 1, "each": 1})
