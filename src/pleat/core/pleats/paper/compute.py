"""Paper: the chosen materials with their thickness as low, likely and high, and the axis their grain runs
along."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from pleat.core.base.plan import Check, Figure, PleatResult, Rule
from pleat.core.base.units import Ruler
from pleat.core.materials.items import Board, Material, Paper
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.paper import checks
from pleat.core.pleats.paper.record import ROLES, Papers
from pleat.core.pleats.paper.stocks import Stock, stock_of

_TOLERANCE: Final = Rule(
    "sheet_tolerance", "ISO 216 allows ±1.5 mm up to 150 mm, ±2 mm to 600 mm, ±3 mm above"
)


@dataclass(frozen=True, kw_only=True)
class PaperResult(PleatResult):
    """The palette handed to the right: the materials by their keys; ``roles`` are those this book uses."""

    stocks: Mapping[str, Stock]
    roles: tuple[str, ...]

    @property
    def leaf(self) -> Stock:
        return self.stocks["leaf"]

    @property
    def cover(self) -> Stock:
        return self.stocks["cover"]

    def stock(self, key: str) -> Stock:
        """The material that pieces name by this key. Raises KeyError."""
        return self.stocks[key]


def compute(papers: Papers, brief: BriefResult) -> PaperResult:
    """The palette on the ruler of ``brief``; only papers that this kind of book uses are told of."""
    ruler, roles = brief.ruler, brief.made_of.roles
    own = papers.by_key()
    stocks = {key: stock_of(key, material, ruler) for key, material in own.items()}
    told = [stocks[role] for role in ROLES if role in roles]
    figures = tuple(
        figure for stock in told for figure in (_caliper_figure(stock), _sheet_figure(stock, ruler))
    )
    return PaperResult(
        key_figure=figures[0] if figures else _nothing(),
        figures=figures,
        checks=tuple(check for stock in told for check in _checks(stock, own[stock.key], ruler)),
        stocks=stocks,
        roles=tuple(stock.role for stock in told),
    )


def _checks(stock: Stock, material: Material, ruler: Ruler) -> tuple[Check, ...]:
    if isinstance(material, Paper):
        return checks.find(stock.key, material, stock.thick, ruler)
    return checks.of_board(stock.key, material) if isinstance(material, Board) else ()


def _nothing() -> Figure:
    return Figure(
        key="nothing",
        label="papers",
        value="none",
        show="text",
        how="This kind of book takes no paper of yours.",
        rules=(),
    )


def _caliper_figure(stock: Stock) -> Figure:
    thick = stock.thick
    how = f"{thick.how} {thick.narrow}".strip()
    return Figure(
        key=f"{stock.role}_caliper",
        label=f"one {stock.role} sheet is" if stock.role in ("leaf", "cover") else f"{stock.role} is",
        value=thick.sheet,
        show="fine",
        how=how,
        rules=thick.rules,
    )


def _sheet_figure(stock: Stock, ruler: Ruler) -> Figure:
    name = f" That is {stock.size_name}." if stock.size_name else ""
    return Figure(
        key=f"{stock.role}_sheet",
        label=f"{stock.role} sheet",
        value=(stock.sheet_width_mm, stock.sheet_height_mm),
        show="size",
        how=f"The sheet as you have it, width first.{name} Cut sheets may be off by "
        f"{ruler.between(1.5, 3.0, Ruler.show)}.",
        rules=(Rule("chosen by you", "sheet size"), _TOLERANCE),
    )
