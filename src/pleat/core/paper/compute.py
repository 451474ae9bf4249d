"""Paper: the chosen papers with their thickness as low, likely and high, and the axis their grain runs along."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from pleat.core.brief.compute import BriefResult
from pleat.core.estimate import Estimate
from pleat.core.materials.items import Paper, PaperKind
from pleat.core.materials.sizes import size_name
from pleat.core.materials.thickness import Thickness, thickness
from pleat.core.materials.uses import fits_pattern, grain_axis
from pleat.core.paper import checks
from pleat.core.paper.record import Papers
from pleat.core.plan import Figure, PleatResult, Rule
from pleat.core.units import RULERS, Ruler

GrainAxis = Literal["w", "h"]


@dataclass(frozen=True)
class Stock:
    """A paper ready for use: sizes in mm; ``grain`` is the sheet's axis (w or h) or None when not known. Pieces name it by its ``key``.

    ``upright_only`` says that its pattern has a top, along the sheet's height. ``in_materials`` sheets are counted among the materials, not in the book.
    """

    key: str
    role: Literal["leaf", "cover", "pile"]
    name: str
    kind: PaperKind
    form: str
    sheet_width_mm: float
    sheet_height_mm: float
    thick: Thickness
    grain: GrainAxis | None
    owned: int | None
    swatch: str
    grammage: float | None
    pounds: float | None
    grade: str | None
    sides: int
    upright_only: bool
    in_materials: bool = False
    price: float | None = None

    @property
    def serves(self) -> str:
        """What it is for, in words: ``the leaves``."""
        return {"leaf": "the leaves", "cover": "the cover", "pile": "the pile"}[self.role]

    @property
    def caliper(self) -> Estimate:
        return self.thick.sheet

    @property
    def measured(self) -> bool:
        return self.thick.source == "measured"

    @property
    def size_name(self) -> str | None:
        return size_name(self.sheet_width_mm, self.sheet_height_mm)


@dataclass(frozen=True, kw_only=True)
class PaperResult(PleatResult):
    """The palette handed to the right: the papers by their keys; ``roles`` are those this book uses."""

    leaf: Stock
    cover: Stock
    more: Mapping[str, Stock]
    roles: tuple[str, ...]

    def stock(self, key: str) -> Stock:
        """The paper that pieces name by this key. Raises KeyError."""
        return self.leaf if key == "leaf" else self.cover if key == "cover" else self.more[key]


def compute(papers: Papers, brief: BriefResult) -> PaperResult:
    """The palette on the ruler of ``brief``; only papers that this kind of book uses are told of."""
    ruler, roles = brief.ruler, brief.made_of.roles
    stocks = {"leaf": stock_of("leaf", papers.leaf, ruler), "cover": stock_of("cover", papers.cover, ruler)}
    told = [stocks[role] for role in stocks if role in roles]
    figures = tuple(figure for stock in told for figure in (_caliper_figure(stock), _sheet_figure(stock, ruler)))
    own = papers.by_key()
    return PaperResult(
        key_figure=figures[0] if figures else _nothing(),
        figures=figures,
        checks=tuple(check for stock in told for check in checks.find(stock.key, own[stock.key], stock.thick, ruler)),
        leaf=stocks["leaf"],
        cover=stocks["cover"],
        more={key: stock_of(key, paper, ruler) for key, paper in papers.more.items()},
        roles=roles,
    )


def _nothing() -> Figure:
    return Figure(key="nothing", label="papers", value="none", show="text", how="This kind of book takes no paper of yours.", rules=())


@lru_cache(maxsize=2000)
def stock_of(key: str, paper: Paper, ruler: Ruler = RULERS["mm"]) -> Stock:
    """A paper made ready for use, for the leaves, the cover or, under any other key, as one of a pile."""
    return Stock(
        key=key,
        role=key if key in ("leaf", "cover") else "pile",  # type: ignore[arg-type]
        name=paper.name,
        kind=paper.kind,
        form=paper.form,
        sheet_width_mm=paper.sheet_width_mm,
        sheet_height_mm=paper.sheet_height_mm,
        thick=thickness(paper, ruler),
        grain=grain_axis(paper.sheet_width_mm, paper.sheet_height_mm, paper.grain),
        owned=paper.owned,
        swatch=paper.swatch,
        grammage=paper.grammage,
        pounds=paper.pounds,
        grade=paper.grade,
        sides=paper.sides,
        upright_only=fits_pattern(paper),
        in_materials=paper.stock_id is not None,
        price=paper.price,
    )


def _caliper_figure(stock: Stock) -> Figure:
    thick = stock.thick
    how = f"{thick.how} {thick.narrow}".strip()
    return Figure(
        key=f"{stock.role}_caliper", label=f"one {stock.role} sheet is", value=thick.sheet, show="fine", how=how, rules=thick.rules
    )


def _sheet_figure(stock: Stock, ruler: Ruler) -> Figure:
    name = f" That is {stock.size_name}." if stock.size_name else ""
    return Figure(
        key=f"{stock.role}_sheet",
        label=f"{stock.role} sheet",
        value=(stock.sheet_width_mm, stock.sheet_height_mm),
        show="size",
        how=f"The sheet as you have it, width first.{name} Cut sheets may be off by {ruler.between(1.5, 3.0, Ruler.show)}.",
        rules=(Rule("chosen by you", "sheet size"), Rule("standard", "ISO 216 allows ±1.5 mm up to 150 mm, ±2 mm to 600 mm, ±3 mm above")),
    )
