"""Paper: the chosen papers with their thickness as low, likely and high, and the axis their grain runs along."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from pleat.core.book import Paper, Papers
from pleat.core.brief.compute import BriefResult
from pleat.core.estimate import Estimate
from pleat.core.materials.sizes import size_name
from pleat.core.materials.weights import BULK_CM3_PER_G, thickness
from pleat.core.plan import Check, Figure, PleatResult, Rule
from pleat.core.units import Ruler

GrainAxis = Literal["w", "h"]
_GUESS_GRAMMAGE = {"leaf": 90.0, "cover": 250.0}
"""What is planned with while nothing at all is known of a paper (house rule, shown as a check)."""


@dataclass(frozen=True)
class Stock:
    """A paper ready for use: sizes and caliper in mm; ``grain`` is the sheet's axis (w or h) or None when not known."""

    role: Literal["leaf", "cover"]
    name: str
    kind: str
    sheet_width_mm: float
    sheet_height_mm: float
    caliper: Estimate
    grain: GrainAxis | None
    owned: int | None
    swatch: str
    measured: bool
    grammage: float | None

    @property
    def size_name(self) -> str | None:
        return size_name(self.sheet_width_mm, self.sheet_height_mm)


@dataclass(frozen=True, kw_only=True)
class PaperResult(PleatResult):
    """The two stocks handed to the right."""

    leaf: Stock
    cover: Stock


def compute(papers: Papers, brief: BriefResult) -> PaperResult:
    leaf, cover = _stock("leaf", papers.leaf), _stock("cover", papers.cover)
    leaf_figure = _caliper_figure(leaf, papers.leaf, brief.ruler)
    figures = (
        leaf_figure,
        _sheet_figure(leaf),
        _caliper_figure(cover, papers.cover, brief.ruler),
        _sheet_figure(cover),
    )
    checks = (*_checks(leaf, papers.leaf), *_checks(cover, papers.cover))
    return PaperResult(key_figure=leaf_figure, figures=figures, checks=checks, leaf=leaf, cover=cover)


def grain_axis(paper: Paper) -> GrainAxis | None:
    """The sheet's axis the grain runs along: ``w`` or ``h``. On a square sheet ``long`` means upright."""
    if paper.grain == "unknown":
        return None
    upright = paper.sheet_height_mm >= paper.sheet_width_mm
    return "h" if upright == (paper.grain == "long") else "w"


def _stock(role: Literal["leaf", "cover"], paper: Paper) -> Stock:
    caliper = thickness(paper)
    if caliper is None:
        caliper = thickness(paper.model_copy(update={"grammage": _GUESS_GRAMMAGE[role]}))
        assert caliper is not None
    return Stock(
        role=role,
        name=paper.name,
        kind=paper.kind,
        sheet_width_mm=paper.sheet_width_mm,
        sheet_height_mm=paper.sheet_height_mm,
        caliper=caliper,
        grain=grain_axis(paper),
        owned=paper.owned,
        swatch=paper.swatch,
        measured=paper.measured_mm is not None,
        grammage=paper.grammage,
    )


def _caliper_figure(stock: Stock, paper: Paper, ruler: Ruler) -> Figure:
    if paper.measured_mm is not None:
        how = f"Your stack of {paper.measured_sheets} measured {ruler.fine(paper.measured_mm)}, divided by {paper.measured_sheets}. The caliper may be off by 0.03 mm over the whole stack."
        rules = (Rule("measured by you", "a stack, divided by its sheets"), Rule("house rule", "0.03 mm doubt for one reading"))
    else:
        low, high = BULK_CM3_PER_G[paper.kind]
        grammage = paper.grammage if paper.grammage is not None else _GUESS_GRAMMAGE[stock.role]
        how = (
            f"{grammage:g} g/m² × bulk {low:g} to {high:g} cm³/g = {grammage * low:.0f} to {grammage * high:.0f} µm. "
            f"A stack of 10 measured with a caliper would narrow it to about ±3 µm."
        )
        rules = (
            Rule("arithmetic", "thickness = grammage × bulk, as ISO 536 and ISO 534 define them"),
            Rule("common practice", f"bulk of {paper.kind} paper, no source"),
        )
    return Figure(key=f"{stock.role}_caliper", label=f"one {stock.role} sheet is", value=stock.caliper, show="fine", how=how, rules=rules)


def _sheet_figure(stock: Stock) -> Figure:
    name = f" That is {stock.size_name}." if stock.size_name else ""
    return Figure(
        key=f"{stock.role}_sheet",
        label=f"{stock.role} sheet",
        value=(stock.sheet_width_mm, stock.sheet_height_mm),
        show="size",
        how=f"The sheet as you have it, width first.{name} Cut sheets may be off by 1.5 to 3 mm.",
        rules=(Rule("chosen by you", "sheet size"), Rule("standard", "ISO 216 allows ±1.5 mm up to 150 mm, ±2 mm to 600 mm, ±3 mm above")),
    )


def _checks(stock: Stock, paper: Paper) -> tuple[Check, ...]:
    found = []
    if paper.grammage is None and paper.measured_mm is None:
        found.append(
            Check(
                f"unknown_{stock.role}",
                "watch",
                f"Nothing is known of the thickness of {paper.name}.",
                f"Pleat reckons with {_GUESS_GRAMMAGE[stock.role]:g} g/m² of any kind, which may be half or double. Spine and cover follow from it.",
                no_fix="Type its weight, or measure ten sheets together.",
            )
        )
    if stock.grain is None:
        found.append(
            Check(
                f"grain_{stock.role}",
                "note",
                f"The grain of {paper.name} is not known.",
                "Leaves and covers fold and drape along the grain; across it folds crack and boards warp.",
                no_fix="Bend the sheet both ways without creasing it: the grain runs along the softer roll. Then tick it here.",
            )
        )
    return tuple(found)
