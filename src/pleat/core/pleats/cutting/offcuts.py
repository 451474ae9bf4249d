"""What is left of the sheets when the pieces are out."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.materials.items import Paper
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.paper.stocks import GrainAxis
from pleat.core.trade.making import OFFCUT_MM


@dataclass(frozen=True)
class Offcut:
    """Equal pieces that are left of a stock's sheets: size in mm, how many, and the axis the grain runs along
    (None: not known). ``key`` is that of the stock whose sheets they are left of."""

    key: str
    stock: str
    role: str
    width_mm: float
    height_mm: float
    count: int
    grain: GrainAxis | None


def left_over(plan: StockPlan) -> tuple[Offcut, ...]:
    """The offcuts of a plan that are worth keeping, equal ones together, the largest first."""
    counts: dict[tuple[str, float, float], int] = {}
    for sheet in plan.sheets:
        for _, _, width, height in sheet.offcuts:
            if min(width, height) >= OFFCUT_MM:
                same = (plan.places[sheet.first_part], round(width, 2), round(height, 2))
                counts[same] = counts.get(same, 0) + sheet.times
    stocks = {stock.key: stock for stock in plan.stocks}
    return tuple(
        Offcut(key, stocks[key].name, stocks[key].role, width, height, count, stocks[key].grain)
        for (key, width, height), count in sorted(
            counts.items(), key=lambda one: (-one[0][1] * one[0][2], one[0])
        )
    )


def as_paper(offcut: Offcut, paper: Paper) -> Paper:
    """An offcut of ``paper`` as one to put among the materials, with its size, count and grain."""
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
