"""What is left of the sheets when the pieces are out, and as what it lies among the materials then."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.materials.items import Cloth, Material, Paper
from pleat.core.materials.sheet import GrainAxis, SheetCut
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.trade.making import OFFCUT_MM

SUFFIX: Final = ", offcut"
NAME_LETTERS: Final = 60
"""As long as a name among the materials can be."""


def worth_keeping(sheet: SheetCut) -> dict[tuple[float, float], int]:
    """How many offcuts of each (width, height) in mm a sheet leaves that are worth keeping."""
    counts: dict[tuple[float, float], int] = {}
    for _, _, width, height in sheet.offcuts:
        if min(width, height) >= OFFCUT_MM:
            same = (round(width, 2), round(height, 2))
            counts[same] = counts.get(same, 0) + sheet.times
    return counts


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
        for (width, height), count in worth_keeping(sheet).items():
            same = (plan.places[sheet.first_part], width, height)
            counts[same] = counts.get(same, 0) + count
    stocks = {stock.key: stock for stock in plan.stocks}
    return tuple(
        Offcut(key, stocks[key].name, stocks[key].role, width, height, count, stocks[key].grain)
        for (key, width, height), count in sorted(
            counts.items(), key=lambda one: (-one[0][1] * one[0][2], one[0])
        )
    )


def offcut_name(material: Material) -> str:
    """What offcuts of a material are called among the materials."""
    name = material.name
    return name if name.endswith(SUFFIX) else f"{name[: NAME_LETTERS - len(SUFFIX)]}{SUFFIX}"


def as_material(
    material: Material, width_mm: float, height_mm: float, count: int, axis: GrainAxis | None
) -> Material:
    """Offcuts of a material as what is put among the materials: with their size, count and grain, and without
    a price, for they are paid for. Cloth has its warp along the height."""
    named: dict[str, object] = {"name": offcut_name(material), "stock_id": None, "price": None}
    if isinstance(material, Cloth):
        return material.model_copy(update={**named, "roll_width_mm": width_mm, "length_left_mm": height_mm})
    if axis is None:
        grain = "unknown"
    elif (height_mm >= width_mm) == (axis == "h"):
        grain = "long"
    else:
        grain = "short"
    named |= {"sheet_width_mm": width_mm, "sheet_height_mm": height_mm, "owned": count, "grain": grain}
    if isinstance(material, Paper):
        named |= {"form": "offcut", "designs": 1, "each": 1, "margins_mm": (), "windows_mm": ()}
    return material.model_copy(update=named)
