"""Cutting: every part with its size, count and grain; what each sheet gives; how many sheets that takes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from math import ceil
from typing import Final

from pleat.core.base.plan import Figure, Offer, Part, PleatResult, Rule
from pleat.core.base.words import by_count, joined, many
from pleat.core.materials.sheet import Shelf, longest_cut_mm
from pleat.core.materials.tools import Tools
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.cutting import checks, steps
from pleat.core.pleats.cutting.alike import alike
from pleat.core.pleats.cutting.cut import StockCut, as_cut, cut_part
from pleat.core.pleats.cutting.left import LeftOfCutting
from pleat.core.pleats.cutting.offcuts import Offcut, left_over
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.cutting.sequence import CutStep, cut_steps
from pleat.core.pleats.cutting.shared import StockPlan, left_to_cut, plan_sheets

_SHARED: Final = Rule(
    "arithmetic",
    "pieces laid side by side, parted by cuts from edge to edge, on as few sheets as can be found",
)
_BOUND: Final = Rule(
    "arithmetic", "the area of all pieces, and sides weighed so that none fit beside each other past a sheet"
)
NEARLY_NONE: Final = 1e-4


@dataclass(frozen=True, kw_only=True)
class CuttingResult(PleatResult):
    """All pieces, and the sheets they come from; the sheets that are cut, and those that are taken, of each
    stock by its key; and what is left of them. A sheet that serves in several places counts where its first
    piece goes. ``out`` are the keys of the parts of which every piece was cut out."""

    cuts: tuple[StockCut, ...]
    plans: tuple[StockPlan, ...]
    sheets: Mapping[str, int]
    takes: Mapping[str, int]
    offcuts: tuple[Offcut, ...]
    out: frozenset[str]
    tools: Tools = field(repr=False, compare=False)

    @cached_property
    def order(self) -> tuple[CutStep, ...]:
        """The cuts that are still to be made, in their order."""
        own = (plan for plan in self.plans if plan.stock.role != "pile")
        return tuple(step for plan in own for step in cut_steps(plan, self.tools))


def compute(cutting: Cutting, left: LeftOfCutting, rounds: int = 0) -> CuttingResult:
    """What to cut from which stock, for the parts of all pleats to the left; sheets are planned by so many
    rounds more than the first plan takes."""
    pieces = (*left.pages.parts, *left.extras.parts, *left.binding.parts, *left.cover.parts)
    laid = [_laid(piece, cutting, left) for piece in pieces if isinstance(piece, Part)]
    shelf = left.tools.shelf.without(cutting.spared)
    laid = alike(laid, shelf, cutting.pins)
    plans = plan_sheets(laid, rounds, shelf, cutting.pins)
    cuts = tuple(replace(cut, by_trimmer=_trimmed(cut, plans, left.tools)) for cut in laid)
    sheets = {cut.stock.key: 0 for cut in cuts}
    for plan in plans:
        for key, count in plan.by_stock.items():
            sheets[key] += count
    folded = left.pages.whole_sheets
    takes = {key: folded.get(key, 0) + sheets.get(key, 0) for key in (*folded, *sheets)}
    whole = [plan for plan in plans if plan.stock.role == "pile"]
    own = [plan for plan in plans if plan.stock.role != "pile"]
    figures = tuple(_sheets_figure(plan, cuts, left.brief) for plan in own)
    return CuttingResult(
        key_figure=_key(plans),
        figures=(_pile_figure(whole, cuts, left.brief), *figures) if whole else figures,
        checks=checks.find(cutting, left, cuts, plans, takes),
        offers=(
            *_ways(cuts, plans, rounds, shelf),
            *(offer for plan in own for offer in _offcuts(plan, cutting, left.tools.shelf)),
        ),
        steps=steps.of(left, cuts, plans, takes),
        cuts=cuts,
        plans=plans,
        sheets=sheets,
        takes=takes,
        offcuts=tuple(offcut for plan in plans for offcut in left_over(plan)),
        tools=left.tools,
        out=frozenset(
            cut.part.key
            for plan in plans
            if plan.done
            for cut in cuts
            if cut.stock in plan.stocks and not left_to_cut(cut, plan.done)
        ),
    )


def _laid(part: Part, cutting: Cutting, left: LeftOfCutting) -> StockCut:
    """A part as it is cut, on its stock."""
    key = part.stock
    piece = as_cut(part, cutting.larger.get(key), cutting.match.get(key) == "yes", left.brief.quantity)
    return cut_part(piece, left.paper.stock(key), cutting.lies.get(key, "auto"))


def _ways(cuts: Sequence[StockCut], plans: Sequence[StockPlan], rounds: int, shelf: Shelf) -> Iterator[Offer]:
    """The other way round where it takes fewer sheets, and back to the better one where another was
    chosen."""
    for cut in cuts:
        if cut.stock.role == "pile":
            continue
        if cut.chosen or (cut.other.count > cut.better.count and _saves(cut, cuts, plans, rounds, shelf)):
            yield _way(cut)


def _saves(
    cut: StockCut, cuts: Sequence[StockCut], plans: Sequence[StockPlan], rounds: int, shelf: Shelf
) -> bool:
    """Whether the pieces of a stock lying the other way round take fewer sheets, or less of a roll."""
    (plan,) = (one for one in plans if cut.stock in one.stocks)
    own = [one for one in cuts if one.stock in plan.stocks]
    turned = [
        replace(one, better=one.other, other=one.better) if one.stock == cut.stock else one for one in own
    ]
    if any(not one.better.count for one in turned):
        return bool(plan.lacking)
    (other,) = plan_sheets(turned, rounds, shelf)
    return (other.needed, other.length_mm) < (plan.needed, plan.length_mm) or bool(plan.lacking)


def _offcuts(plan: StockPlan, cutting: Cutting, shelf: Shelf) -> Iterator[Offer]:
    """Each offcut that may be cut on to be kept whole, or to be cut on again."""
    for remnant in shelf.beside(plan.stock.item):
        spared = [number for number in cutting.spared if number != remnant.number]
        kept = remnant.number in cutting.spared
        yield Offer(
            label="cut from it again" if kept else "keep it whole",
            changes=(("cutting.spared", spared if kept else [*cutting.spared, remnant.number]),),
            group=f"offcut {remnant.number}",
        )


def _trimmed(cut: StockCut, plans: Sequence[StockPlan], tools: Tools) -> bool:
    """Whether the trimmer takes every cut of the sheets a piece lies on."""
    edge = max(longest_cut_mm(plan.of(cut.part.key)) for plan in plans if cut.stock in plan.stocks)
    return tools.trims(edge, cut.stock.caliper.likely)


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


def _key(plans: Sequence[StockPlan]) -> Figure:
    by_use: dict[str, int] = {}
    for plan in plans:
        serves = joined(dict.fromkeys(stock.serves for stock in plan.stocks))
        by_use[serves] = by_use.get(serves, 0) + sum(sheet.times for sheet in plan.all_sheets)
    split = " + ".join(f"{number} for {serves}" for serves, number in by_use.items())
    done = sum(fact.sheet.times for plan in plans for fact in plan.done)
    cut = f" {many(done, 'sheet')} of them {by_count(done, 'is', 'are')} cut already." if done else ""
    return Figure(
        key="sheets",
        label="to cut",
        value=many(sum(by_use.values()), "sheet"),
        show="text",
        how=f"{split}. Pieces of one material share its sheets.{cut}"
        if split
        else "Nothing of this book is cut from a sheet.",
        rules=(_SHARED,),
    )


def _pile_figure(plans: Sequence[StockPlan], cuts: Sequence[StockCut], brief: BriefResult) -> Figure:
    stocks = {stock.key for plan in plans for stock in plan.stocks}
    own = [cut for cut in cuts if cut.stock.key in stocks]
    sizes = "; ".join(
        f"{cut.part.count} of {brief.ruler.size(cut.part.width_mm, cut.part.height_mm)} from "
        f"{cut.stock.name}, {cut.better.count} a sheet"
        for cut in own
    )
    return Figure(
        key="sheets_pile",
        label="of the pile, to be cut",
        value=many(sum(plan.needed for plan in plans), "sheet"),
        show="text",
        how=f"{many(sum(cut.part.count for cut in own), 'piece')}: {sizes}. The other papers of the pile are "
        "folded as they are.",
        rules=(Rule("arithmetic", "whole pieces in rows and columns, the way round they will be folded"),),
    )


def _sheets_figure(plan: StockPlan, cuts: Sequence[StockCut], brief: BriefResult) -> Figure:
    ruler, stock = brief.ruler, plan.stock
    keys = {one.key for one in plan.stocks}
    lines = []
    for cut in cuts:
        if cut.stock.key in keys:
            size = ruler.size(cut.part.width_mm, cut.part.height_mm)
            gives = "" if cut.better.count else ": none comes out of this sheet"
            trimmed = f", trimmed later to {ruler.size(*cut.trimmed_mm)}" if cut.trimmed_mm else ""
            match = f", {cut.twins} of a book from one sheet" if cut.twins else ""
            lines.append(f"{cut.part.count} × {cut.part.name} {size}{trimmed}{match}{gives}")
    value = many(plan.needed, "sheet")
    if plan.amounts:
        value = joined([value, *plan.amounts] if plan.needed else plan.amounts)
    if stock.roll:
        value = f"{ruler.show(ruler.snap_up(plan.length_mm))} of its length"
    owned = f" You own {stock.owned}." if stock.owned is not None else ""
    if stock.roll:
        owned = f" {ruler.show(stock.sheet_height_mm)} of it are left."
    good = f" Taken together: {how_good(plan)}." if plan.sheets else ""
    if plan.from_offcuts:
        good += f" {plan.from_offcuts} of your offcuts {by_count(plan.from_offcuts, 'is', 'are')} cut first."
    good += "".join(
        f" {many(count, 'sheet')} of {name} {by_count(count, 'serves', 'serve')} as well."
        for name, count in plan.from_others.items()
    )
    done = sum(fact.sheet.times for fact in plan.done)
    if done:
        good += f" {many(done, 'sheet')} {by_count(done, 'is', 'are')} cut already."
    return Figure(
        key=f"sheets_{stock.key}",
        label=f"{stock.name}",
        value=value if plan.all_sheets else "none fits",
        show="text",
        how="; ".join(lines) + f".{good}{owned}",
        rules=(_SHARED, _BOUND),
    )


def how_good(plan: StockPlan) -> str:
    """How far a plan can be from the best there is."""
    if plan.above <= NEARLY_NONE:
        return "best possible"
    return f"at most {ceil(plan.above * 100)} % above the best possible"
