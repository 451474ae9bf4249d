"""Whether there is enough of each material. What one item of the materials serves in several places is
counted once, for all of them together."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Final

from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined, many
from pleat.core.materials.sheet import SheetCut
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.pleats.paper.stocks import Stock

NAMED: Final = 4
"""Papers that are named of those of which there is not enough."""
COUNT_ON_SHELF = "If you have more, put the count right among the materials; the book takes it from there."


def together(stocks: Iterable[Stock]) -> tuple[tuple[Stock, ...], ...]:
    """Stocks that are one item of the materials beside each other, the others by themselves, in the order
    they come."""
    found: dict[tuple[str, str], list[Stock]] = {}
    for stock in stocks:
        found.setdefault(("item", stock.item) if stock.item else ("key", stock.key), []).append(stock)
    return tuple(tuple(own) for own in found.values())


def find(
    plans: Sequence[StockPlan], takes: Mapping[str, int], stocks: Iterable[Stock], ruler: Ruler
) -> tuple[Check, ...]:
    """What there is not enough of; ``takes`` are the sheets of each stock, the whole ones of a pile as well,
    which is told of on its own."""
    found: list[Check | None] = []
    for own in together(stocks):
        keys, first = {stock.key for stock in own}, own[0]
        cut = [plan for plan in plans if plan.stock.key in keys]
        needed = sum(takes.get(key, 0) for key in keys)
        if all(stock.role == "pile" for stock in own):
            continue
        if first.roll:
            found.append(_roll(first, cut, ruler))
        elif len(own) > 1:
            found.append(_shared(own, needed, takes))
        else:
            found.append(_offcut(first, needed, cut) if first.form == "offcut" else _owned(first, needed))
    return tuple(check for check in found if check)


def _owned(stock: Stock, needed: int) -> Check | None:
    """More sheets are needed than there are."""
    if stock.owned is None or needed <= stock.owned:
        return None
    missing = needed - stock.owned
    mine = Offer(
        label=f"I have {needed} for {stock.serves} after all", changes=((f"paper.{stock.key}.owned", needed),)
    )
    return Check(
        code="owned",
        level="stop",
        title=f"{many(needed, 'sheet')} of {stock.name} {by_count(needed, 'is', 'are')} needed, you own "
        f"{stock.owned}.",
        why=f"{missing} {by_count(missing, 'is', 'are')} missing. Count before you cut the first one.",
        offers=() if stock.in_materials else (mine,),
        no_fix=COUNT_ON_SHELF if stock.in_materials else "",
    )


def pile(takes: Mapping[str, int], stocks: Iterable[Stock], books: int) -> Check | None:
    """Papers of a pile of which all books of the run take more sheets than are there."""
    own = [stock for stock in stocks if stock.role == "pile" and stock.owned is not None]
    short = [stock for stock in own if takes[stock.key] > (stock.owned or 0)]
    if not short:
        return None
    listed = "; ".join(f"{stock.name} {takes[stock.key]}, you own {stock.owned}" for stock in short[:NAMED])
    mine = [stock for stock in short if not stock.in_materials]
    run = f" for {books} books" if books > 1 else ""
    in_materials = "Put the count right among the materials if you have more; else take some off the pile."
    more = " …" if len(short) > NAMED else ""
    counted = Offer(
        label="I have as many after all",
        changes=tuple((f"paper.more.{stock.key}.owned", takes[stock.key]) for stock in mine),
    )
    mixed = bool(mine) and len(mine) < len(short)
    return Check(
        code="owned",
        level="stop",
        title=f"The pile takes more sheets{run} than there are: {listed}{more}.",
        why="Count before you cut or fold the first one." + (f" {in_materials}" if mixed else ""),
        offers=(counted,) if mine else (),
        no_fix="" if mine else in_materials,
    )


def _shared(own: Sequence[Stock], needed: int, takes: Mapping[str, int]) -> Check | None:
    """The same sheets are to serve in several places."""
    first = own[0]
    if first.owned is None or needed <= first.owned:
        return None
    missing = needed - first.owned
    split = joined(f"{takes.get(stock.key, 0)} for {stock.serves}" for stock in own)
    return Check(
        code="owned",
        level="stop",
        title=f"{many(needed, 'sheet')} of {first.name} are needed, you own {first.owned}.",
        why=f"{split}: {missing} {by_count(missing, 'is', 'are')} missing. Count before you cut the first "
        "one.",
        no_fix=f"{COUNT_ON_SHELF} Or take another paper for one of them.",
    )


def mixed(plans: Sequence[StockPlan], cutting: Cutting) -> Iterator[Check]:
    """B4: equal pieces of which some come out of offcuts and some out of whole sheets."""
    for plan in plans:
        for part, name in plan.names.items():
            own = plan.of(part)
            offcuts = [sheet for sheet in own if sheet.offcut and not sheet.other]
            if not offcuts or len(offcuts) == len(own):
                continue
            count = sum(sheet.counts()[part] * sheet.times for sheet in offcuts)
            come = by_count(count, "comes", "come")
            yield Check(
                code="B4",
                of=part,
                level="note",
                title=f"{count} × {name} {come} out of offcuts of {plan.stock.name}, the others out of whole "
                "sheets.",
                why="Pieces of one sort from sheets that were not bought together may differ in colour and "
                "thickness. Hold them beside each other before you cut.",
                offers=(
                    _keep_whole(cutting, offcuts),
                    Offer(
                        label="those of one book from one sheet",
                        changes=((f"cutting.match.{plan.places[part]}", "yes"),),
                    ),
                ),
            )


def _keep_whole(cutting: Cutting, offcuts: Sequence[SheetCut]) -> Offer:
    numbers = dict.fromkeys((*cutting.spared, *(sheet.offcut for sheet in offcuts)))
    return Offer(label="all of them out of whole sheets", changes=(("cutting.spared", list(numbers)),))


def _roll(roll: Stock, plans: Sequence[StockPlan], ruler: Ruler) -> Check | None:
    """More of a roll than is left of it."""
    needed = sum(plan.length_mm for plan in plans)
    if needed <= roll.sheet_height_mm + 0.05:
        return None
    missing = needed - roll.sheet_height_mm
    return Check(
        code="owned",
        level="stop",
        title=f"{ruler.show(ruler.snap_up(needed))} of {roll.name} are needed, and "
        f"{ruler.show(roll.sheet_height_mm)} are left.",
        why="So much is cut off with all pieces side by side across the roll: "
        f"{ruler.show(ruler.snap_up(missing))} are missing.",
        no_fix="See how much is left, take a longer piece, or make fewer books at once.",
    )


def _offcut(stock: Stock, needed: int, plans: Sequence[StockPlan]) -> Check | None:
    """B4: offcuts that give some of the pieces but not their twins. One that is too short for any is B1."""
    owned = 1 if stock.owned is None else stock.owned
    if needed <= owned or any(plan.lacking for plan in plans):
        return None
    gives = sum(plan.in_first(owned) for plan in plans)
    wanted = sum(plan.in_first(needed) for plan in plans)
    return Check(
        code="B4",
        level="stop",
        title=f"The offcuts of {stock.name} give {gives} of {wanted} pieces; the others would have to come "
        "from another paper.",
        why=f"{needed} offcuts are needed, {owned} {by_count(owned, 'is', 'are')} there. Pieces that belong "
        "together then differ in colour, thickness or grain. Take all of them from one sheet before you "
        "cut the first.",
        offers=()
        if stock.in_materials
        else (
            Offer(
                label=f"I have {needed} such offcuts for {stock.serves}",
                changes=((f"paper.{stock.key}.owned", needed),),
            ),
        ),
        no_fix=COUNT_ON_SHELF if stock.in_materials else "",
    )
