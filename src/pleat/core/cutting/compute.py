"""Cutting: every part with its size, count and grain; what each sheet gives; how many sheets that takes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from pleat.core.brief.compute import BriefResult
from pleat.core.cover.compute import CoverResult
from pleat.core.cutting import checks
from pleat.core.cutting.cut import Cut, cut_as_folded, cut_part
from pleat.core.cutting.offcuts import Offcut, left_over
from pleat.core.cutting.record import Cutting
from pleat.core.extras.compute import ExtrasResult
from pleat.core.materials.tools import Tools
from pleat.core.pages.compute import PagesResult
from pleat.core.paper.compute import PaperResult, Stock
from pleat.core.plan import Choice, Figure, PleatResult, Rule
from pleat.core.words import many


@dataclass(frozen=True, kw_only=True)
class CuttingResult(PleatResult):
    """All cuts, sheets needed by stock role, and what is left of them."""

    cuts: tuple[Cut, ...]
    sheets: Mapping[str, int]
    offcuts: tuple[Offcut, ...]


def compute(
    cutting: Cutting,
    typed: Mapping[str, str],
    brief: BriefResult,
    paper: PaperResult,
    pages: PagesResult,
    extras: ExtrasResult,
    cover: CoverResult,
    tools: Tools,
) -> CuttingResult:
    """What to cut from which stock; ``typed`` is the book's record of how lengths were typed."""
    stocks = {"leaf": paper.leaf, "cover": paper.cover}
    found = tuple(cut_as_folded(one.part, one.stock, one.turned, tools) for one in pages.pile_cuts)
    ways = {"leaf": cutting.leaf_lies, "cover": cutting.cover_lies}
    single = (cut_part(part, stocks[part.material], tools, ways[part.material]) for part in (*pages.parts, *extras.parts, *cover.parts))
    cuts = (*found, *single)
    sheets: dict[str, int] = {}
    for cut in cuts:
        sheets[cut.stock.role] = sheets.get(cut.stock.role, 0) + (cut.sheets or 0)
    figures = tuple(_sheets_figure(stocks[role], count, cuts, brief) for role, count in sheets.items() if role in stocks)
    if found:
        figures = (_pile_figure(found, brief), *figures)
    return CuttingResult(
        key_figure=_key(sheets),
        figures=figures,
        checks=checks.find(cutting, typed, brief, cuts, sheets, pages, cover, tools),
        choices=tuple(_way(cut) for cut in cuts if cut.stock.role != "pile" and (cut.chosen or cut.other.count > cut.better.count)),
        cuts=cuts,
        sheets=sheets,
        offcuts=tuple(one for cut in cuts for one in left_over(cut)),
    )


def _way(cut: Cut) -> Choice:
    """The other way round for the pieces of a stock, where it gives more, or back to the better one where another was chosen."""
    path = f"cutting.{cut.part.material}_lies"
    if cut.chosen:
        return Choice(cut.part.key, "lay it the better way", (), ((path, "auto"),), False)
    lies = "turned" if cut.other.turned else "upright"
    grain = {True: ", with the grain", False: ", across the grain", None: ""}[cut.other.with_grain]
    return Choice(
        cut.part.key, f"lay it {lies}: {cut.other.count} a sheet{grain}", (), ((path, lies),), False, cut.other.with_grain is not False
    )


def _key(sheets: Mapping[str, int]) -> Figure:
    count = sum(sheets.values())
    split = " + ".join(f"{number} {checks.FOR[role]}" for role, number in sheets.items())
    return Figure(
        key="sheets",
        label="to cut",
        value=many(count, "sheet"),
        show="text",
        how=f"{split}. Each part has sheets of its own.",
        rules=(Rule("arithmetic", "pieces divided by pieces a sheet, rounded up"),),
    )


def _pile_figure(cuts: tuple[Cut, ...], brief: BriefResult) -> Figure:
    pieces, sheets = sum(cut.part.count for cut in cuts), sum(cut.sheets or 0 for cut in cuts)
    sizes = "; ".join(
        f"{cut.part.count} of {brief.ruler.size(cut.part.width_mm, cut.part.height_mm)} from {cut.stock.name}, {cut.better.count} a sheet"
        for cut in cuts
    )
    return Figure(
        key="sheets_pile",
        label="of the pile, to be cut",
        value=many(sheets, "sheet"),
        show="text",
        how=f"{many(pieces, 'piece')}: {sizes}. The other papers of the pile are folded as they are.",
        rules=(Rule("arithmetic", "whole pieces in rows and columns, the way round they will be folded"),),
    )


def _sheets_figure(stock: Stock, count: int, cuts: tuple[Cut, ...], brief: BriefResult) -> Figure:
    lines = []
    for cut in cuts:
        if cut.stock is stock:
            size = brief.ruler.size(cut.part.width_mm, cut.part.height_mm)
            gives = f"{cut.better.count} a sheet, {many(cut.sheets, 'sheet')}" if cut.sheets else "none comes out of this sheet"
            lines.append(f"{cut.part.count} × {cut.part.name} {size}: {gives}")
    owned = f" You own {stock.owned}." if stock.owned is not None else ""
    return Figure(
        key=f"sheets_{stock.role}",
        label=f"{stock.name}",
        value=many(count, "sheet") if count else "none fits",
        show="text",
        how="; ".join(lines) + "." + owned,
        rules=(Rule("arithmetic", "whole pieces in rows and columns, the better way round, grain first"),),
    )
