"""What is left of the sheets when the pieces are out: strips to the right and below, and places not used on the last sheet."""

from __future__ import annotations

from typing import Final

from pleat.core.cutting.cut import Cut
from pleat.core.materials.items import Paper

SMALLEST_MM: Final = 40.0
"""An offcut with a shorter side is not worth keeping (house rule)."""


def offcuts(cut: Cut, paper: Paper) -> tuple[Paper, ...]:
    """The offcuts of a cut as papers to put on the shelf, each with its size, count and grain; empty when nothing fits.

    The whole height is parted off first, then what is below: so the strip to the right is as high as the sheet.
    """
    lay, sheets = cut.better, cut.sheets
    if not sheets or cut.needs_no_cut:
        return ()
    wide, high = lay.columns * lay.piece_width_mm, lay.rows * lay.piece_height_mm
    spare = sheets * lay.count - cut.part.count
    pieces = (
        (cut.stock.sheet_width_mm - wide, cut.stock.sheet_height_mm, sheets),
        (wide, cut.stock.sheet_height_mm - high, sheets),
        (lay.piece_width_mm, lay.piece_height_mm, spare),
    )
    return tuple(
        _paper(paper, cut, width, height, count) for width, height, count in pieces if min(width, height) >= SMALLEST_MM and count > 0
    )


def _paper(paper: Paper, cut: Cut, width: float, height: float, count: int) -> Paper:
    width, height = round(width, 2), round(height, 2)  # before the grain is named: which side is the longer one must not turn
    grain = "unknown" if cut.stock.grain is None else "long" if (height >= width) == (cut.stock.grain == "h") else "short"
    name = paper.name if paper.name.endswith(", offcut") else f"{paper.name[:51]}, offcut"
    changes = {
        "name": name,
        "form": "offcut",
        "sheet_width_mm": width,
        "sheet_height_mm": height,
        "owned": count,
        "grain": grain,
    }
    return paper.model_copy(update={**changes, "stock_id": None, "designs": 1, "each": 1})
