"""The bench steps of cutting: what to lay out, and a step for each sort of pieces."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Final

from pleat.core.base.cautions import KNIFE
from pleat.core.base.plan import Step, signature
from pleat.core.base.scenes import Lying, Scene
from pleat.core.base.staged import laid_out
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined, many
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.left import LeftOfCutting
from pleat.core.pleats.cutting.owned import together
from pleat.core.pleats.cutting.shared import StockPlan, sheets_of

_SHEETS: Final = Scene(kind="cut")
"""The sheets of the plan itself are the picture."""
_LEAVES: Final = ("leaf", "pile")


def of(
    left: LeftOfCutting, cuts: Sequence[StockCut], plans: Sequence[StockPlan], takes: Mapping[str, int]
) -> tuple[Step, ...]:
    """Every step of cutting; ``takes`` are the sheets of each stock, by its key."""
    roles = list(dict.fromkeys(cut.stock.role for cut in cuts if cut.stock.role not in _LEAVES))
    leaves = [cut for cut in cuts if cut.stock.role in _LEAVES]
    steps = [_gather(left, plans, takes)] if takes else []
    if leaves or left.pages.whole_sheets:
        steps.append(_leaves(left, leaves, plans, takes))
    for role in roles:
        own = [cut for cut in cuts if cut.stock.role == role]
        early = [cut for cut in own if not cut.part.needs]
        late = [cut for cut in own if cut.part.needs]
        if (
            early and late and role == "board"
        ):  # leaves of board are cut long before the boards that are measured for
            steps += _others(left.brief.ruler, f"cut_{role}_first", early, (f"{role}.first",))
            steps += _others(left.brief.ruler, f"cut_{role}", late, (f"{role}.cut",))
        else:
            steps += _others(left.brief.ruler, f"cut_{role}", own, (f"{role}.cut", f"{role}.first"))
    return tuple(steps)


def _gather(left: LeftOfCutting, plans: Sequence[StockPlan], takes: Mapping[str, int]) -> Step:
    """Whole sheets of each paper; a paper that no piece comes out of is not laid out."""
    pile = sum(takes[key] for key in left.pages.whole_sheets)
    listed = [f"{many(pile, 'sheet')} for the pile"] if pile else []
    own = {key: count for key, count in takes.items() if key not in left.pages.whole_sheets}
    for stocks in together(left.paper.stock(key) for key in own):
        name = stocks[0].name
        whole, serving = (
            sum(own[stock.key] for stock in stocks),
            [plan for plan in plans if plan.stock in stocks],
        )
        thing = "piece" if stocks[0].roll else "sheet"
        amounts = [many(whole, thing)] if whole else []
        offcuts = sum(plan.from_offcuts for plan in serving)
        amounts += [many(offcuts, "offcut")] if offcuts else []
        amount = joined(amounts) or "nothing"
        others = [
            f"{many(count, 'sheet')} of {other}"
            for plan in serving
            for other, count in plan.from_others.items()
        ]
        if any(plan.lacking for plan in serving):
            listed.append(f"no {name} yet, since the piece does not come out of it")
        else:
            listed.append(joined([*([f"{amount} of {name}"] if amounts else []), *others]))
    grain = {1: "its grain", 2: "the grain of both"}.get(len(listed), "the grain of each")
    return Step(
        key="gather",
        title="Lay out the paper",
        detail=f"{', '.join(listed)}. Find {grain}.",
        gives=("stock.gathered",),
        signature=signature({left.paper.stock(key).role: count for key, count in own.items()}),
        for_all=True,
        kind="tidy",
        shows=lambda: laid_out(
            Lying(
                stock.name,
                0.0,
                0.0,
                stock.sheet_width_mm,
                stock.sheet_height_mm,
                stock=stock.key,
                grain=stock.grain or "",
                times=max(own[stock.key], 1),
            )
            for stock in (left.paper.stock(key) for key in own)
        ),
    )


def _leaves(
    left: LeftOfCutting, cuts: Sequence[StockCut], plans: Sequence[StockPlan], takes: Mapping[str, int]
) -> Step:
    """Cutting what is folded or held: all of it together, whatever it comes from."""
    ruler, whole = left.brief.ruler, left.pages.whole_sheets
    pieces = [(cut.part.width_mm, cut.part.height_mm, cut.part.count) for cut in cuts]
    nothing = all(cut.needs_no_cut for cut in cuts)
    if nothing:
        title = "Nothing to cut for the leaves"
        state = "stacked" if left.pages.unit == "leaf" else "folded"
        detail = f"The sheets are {state} as they are. Trimming a side that is right already only adds error."
        if whole:
            detail = "Every sheet of the pile is folded as it is."
    elif whole:
        title = f"Cut {many(sum(cut.part.count for cut in cuts), 'piece')} for the pile"
        listed = "; ".join(_from(ruler, cut, plans) for cut in cuts)
        detail = f"{listed}. Which way round each lies is drawn under Cutting."
    else:
        title = "Cut the sheets"
        detail = f"{'; '.join(_piece(ruler, cut) for cut in cuts)}, {cuts[0].grain_words}."
        detail += f" {cuts[0].side_words}" if cuts[0].side_words else ""
    return Step(
        key="cut_leaves",
        title=title,
        detail=detail,
        tools=() if nothing else _cutters(cuts),
        needs=(
            "stock.gathered",
            *(dict.fromkeys(need for cut in cuts for need in cut.part.needs) or ("leaf.tried",)),
        ),
        gives=("leaf.cut",),
        cautions=() if nothing else (KNIFE,),
        signature=left.pages.cut_signature or signature(*pieces),
        minutes=0 if nothing else 3 + 0.5 * sum(cut.part.count for cut in cuts),
        takes=tuple(whole) or tuple(dict.fromkeys(cut.stock.key for cut in cuts if cut.stock.key in takes)),
        cuts=() if whole else tuple(cut.part.key for cut in cuts if cut.stock.role != "pile"),
        for_all=True,
        kind="cut",
        set_up=3,
        shows=lambda: None if nothing else _SHEETS,
    )


def _others(ruler: Ruler, key: str, cuts: Sequence[StockCut], gives: tuple[str, ...]) -> list[Step]:
    """Cutting the pieces of one stock, a step for each sort of them; its sheets are taken with the first. One
    tick for all of them, as it was once, stands for each."""
    parts = [cut.part for cut in cuts]
    together_ = signature(*(side for part in parts for side in (part.width_mm, part.height_mm)))
    return [
        Step(
            key=f"{key}_{cut.part.key}" if number else key,
            title=f"Cut the {cut.part.name}",
            detail=" ".join(
                words
                for words in (f"{_piece(ruler, cut)}, {cut.grain_words}.", cut.side_words, cut.part.advice)
                if words
            ),
            tools=_cutters([cut]),
            needs=("stock.gathered", *cut.part.needs),
            gives=gives,
            cautions=(KNIFE,),
            signature=signature(cut.part.width_mm, cut.part.height_mm),
            was=(key, together_),
            takes=() if number else tuple(dict.fromkeys(one.stock.key for one in cuts)),
            cuts=(cut.part.key,),
            minutes=2 + 2 * cut.part.count,
            pieces=cut.part.count,
            for_all=True,
            kind="cut",
            set_up=2,
            shows=lambda: _SHEETS,
        )
        for number, cut in enumerate(cuts)
    ]


def _piece(ruler: Ruler, cut: StockCut) -> str:
    size = ruler.size(cut.part.width_mm, cut.part.height_mm)
    trimmed = f" (they are trimmed to {ruler.size(*cut.trimmed_mm)} later)" if cut.trimmed_mm else ""
    return f"{many(cut.part.count, 'piece')} of {size}{trimmed}"


def _from(ruler: Ruler, cut: StockCut, plans: Sequence[StockPlan]) -> str:
    sheets = sheets_of(cut.part.key, plans)
    gives = (
        f"from {many(sheets, 'sheet')} of {cut.stock.name}"
        if sheets
        else f"that do not come out of {cut.stock.name}"
    )
    return f"{_piece(ruler, cut)} {gives}" + (", fold-out and all" if len(cut.part.folds) > 1 else "")


def _cutters(cuts: Sequence[StockCut]) -> tuple[str, ...]:
    """The trimmer where it takes every edge, else knife, rule and mat."""
    return ("trimmer",) if all(cut.by_trimmer for cut in cuts) else ("steel rule", "knife", "mat")
