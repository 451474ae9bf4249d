"""Cutting: every part with its size, count and grain; what each sheet gives; how many sheets that takes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from pleat.core.base.plan import Figure, Offer, Part, PleatResult, Rule
from pleat.core.base.words import many
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.cutting import checks, steps
from pleat.core.pleats.cutting.cut import StockCut, cut_part
from pleat.core.pleats.cutting.left import LeftOfCutting
from pleat.core.pleats.cutting.offcuts import Offcut, left_over
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.paper.stocks import Stock


@dataclass(frozen=True, kw_only=True)
class CuttingResult(PleatResult):
    """All cuts; the sheets that are cut, and those that are taken, of each stock by its key; and what is left
    of them."""

    cuts: tuple[StockCut, ...]
    sheets: Mapping[str, int]
    takes: Mapping[str, int]
    offcuts: tuple[Offcut, ...]


def compute(cutting: Cutting, left: LeftOfCutting) -> CuttingResult:
    """What to cut from which stock, for the parts of all pleats to the left."""
    pieces = (*left.pages.parts, *left.extras.parts, *left.binding.parts, *left.cover.parts)
    parts = [piece for piece in pieces if isinstance(piece, Part)]
    cuts = tuple(
        cut_part(part, left.paper.stock(part.stock), left.tools, cutting.lies.get(part.stock, "auto"))
        for part in parts
    )
    sheets: dict[str, int] = {}
    for cut in cuts:
        sheets[cut.stock.key] = sheets.get(cut.stock.key, 0) + (cut.sheets or 0)
    for cut in cuts:
        if not cut.sheets:  # no number of sheets is enough for a piece that comes out of none
            sheets[cut.stock.key] = 0
    takes = {
        **left.pages.whole_sheets,
        **{key: count for key, count in sheets.items() if key not in left.pages.whole_sheets},
    }
    pile = tuple(cut for cut in cuts if cut.stock.role == "pile")
    own = {cut.stock.key: cut.stock for cut in cuts if cut.stock.role != "pile"}
    figures = tuple(_sheets_figure(stock, sheets[key], cuts, left.brief) for key, stock in own.items())
    return CuttingResult(
        key_figure=_key(cuts),
        figures=(_pile_figure(pile, left.brief), *figures) if pile else figures,
        checks=checks.find(cutting, left, cuts, takes),
        offers=tuple(
            _way(cut)
            for cut in cuts
            if cut.stock.role != "pile" and (cut.chosen or cut.other.count > cut.better.count)
        ),
        steps=steps.of(left, cuts, takes),
        cuts=cuts,
        sheets=sheets,
        takes=takes,
        offcuts=tuple(offcut for cut in cuts for offcut in left_over(cut)),
    )


def _way(cut: StockCut) -> Offer:
    """The other way round for the pieces of a stock, where it gives more, or back to the better one where
    another was chosen."""
    path = f"cutting.lies.{cut.part.stock}"
    if cut.chosen:
        return Offer(label="lay it the better way", changes=((path, "auto"),), group=cut.part.key)
    lies = "turned" if cut.other.turned else "upright"
    grain = {True: ", with the grain", False: ", across the grain", None: ""}[cut.other.with_grain]
    label = f"lay it {lies}: {cut.other.count} a sheet{grain}"
    return Offer(
        label=label, changes=((path, lies),), group=cut.part.key, good=cut.other.with_grain is not False
    )


def _key(cuts: tuple[StockCut, ...]) -> Figure:
    by_use: dict[str, int] = {}
    for cut in cuts:
        by_use[cut.stock.serves] = by_use.get(cut.stock.serves, 0) + (cut.sheets or 0)
    split = " + ".join(f"{number} for {serves}" for serves, number in by_use.items())
    return Figure(
        key="sheets",
        label="to cut",
        value=many(sum(by_use.values()), "sheet"),
        show="text",
        how=f"{split}. Each part has sheets of its own."
        if split
        else "Nothing of this book is cut from a sheet.",
        rules=(Rule("arithmetic", "pieces divided by pieces a sheet, rounded up"),),
    )


def _pile_figure(cuts: tuple[StockCut, ...], brief: BriefResult) -> Figure:
    pieces, sheets = sum(cut.part.count for cut in cuts), sum(cut.sheets or 0 for cut in cuts)
    sizes = "; ".join(
        f"{cut.part.count} of {brief.ruler.size(cut.part.width_mm, cut.part.height_mm)} from "
        f"{cut.stock.name}, {cut.better.count} a sheet"
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


def _sheets_figure(stock: Stock, count: int, cuts: tuple[StockCut, ...], brief: BriefResult) -> Figure:
    lines = []
    for cut in cuts:
        if cut.stock.key == stock.key:
            size = brief.ruler.size(cut.part.width_mm, cut.part.height_mm)
            gives = (
                f"{cut.better.count} a sheet, {many(cut.sheets, 'sheet')}"
                if cut.sheets
                else "none comes out of this sheet"
            )
            lines.append(f"{cut.part.count} × {cut.part.name} {size}: {gives}")
    owned = f" You own {stock.owned}." if stock.owned is not None else ""
    return Figure(
        key=f"sheets_{stock.key}",
        label=f"{stock.name}",
        value=many(count, "sheet") if count else "none fits",
        show="text",
        how="; ".join(lines) + "." + owned,
        rules=(Rule("arithmetic", "whole pieces in rows and columns, the better way round, grain first"),),
    )
