"""Brief: the intent."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.kinds import Chosen
from pleat.core.base.plan import Figure, PleatResult, Rule
from pleat.core.base.units import RULERS, Ruler
from pleat.core.materials.sizes import size_name
from pleat.core.pleats.brief.record import Brief


@dataclass(frozen=True, kw_only=True)
class BriefResult(PleatResult):
    """The intent handed to the right: the members the book is made of, leaf size in mm, how many books, and
    the ruler for everything shown."""

    made_of: Chosen
    leaf_width_mm: float
    leaf_height_mm: float
    purpose: str
    quantity: int
    ruler: Ruler


def compute(brief: Brief, made_of: Chosen) -> BriefResult:
    ruler = RULERS[brief.ruler]
    name = size_name(brief.leaf_width_mm, brief.leaf_height_mm)
    naming = f", which is {name}" if name else ""
    size = Figure(
        key="leaf",
        label="leaf",
        value=(brief.leaf_width_mm, brief.leaf_height_mm),
        show="size",
        how=f"The size you gave{naming}. One leaf is two pages.",
        rules=(Rule("chosen by you", "leaf size"),),
        scrap=ruler.size(brief.leaf_width_mm, brief.leaf_height_mm),
    )
    opened = Figure(
        key="open",
        label="open on the table",
        value=(2 * brief.leaf_width_mm, brief.leaf_height_mm),
        show="size",
        how=f"Two leaves side by side: 2 × {ruler.show(brief.leaf_width_mm)} wide.",
        rules=(Rule("arithmetic", "twice the leaf's width"),),
    )
    quantity = Figure(
        key="quantity",
        label="to make",
        value=brief.quantity,
        show="count",
        unit="book" if brief.quantity == 1 else "books",
        how="As many as you said.",
        rules=(Rule("chosen by you", "quantity"),),
    )
    return BriefResult(
        key_figure=size,
        figures=(size, opened, quantity),
        checks=(),
        made_of=made_of,
        leaf_width_mm=brief.leaf_width_mm,
        leaf_height_mm=brief.leaf_height_mm,
        purpose=brief.purpose,
        quantity=brief.quantity,
        ruler=ruler,
    )
