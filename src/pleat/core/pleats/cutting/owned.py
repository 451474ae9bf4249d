"""Whether there is enough of each material. What one item of the materials serves in several places is
counted once, for all of them together."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence

from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined, many
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.paper.stocks import Stock

COUNT_ON_SHELF = "If you have more, put the count right among the materials; the book takes it from there."


def together(stocks: Iterable[Stock]) -> tuple[tuple[Stock, ...], ...]:
    """Stocks that are one item of the materials beside each other, the others by themselves, in the order
    they come."""
    found: dict[tuple[str, str], list[Stock]] = {}
    for stock in stocks:
        found.setdefault(("item", stock.item) if stock.item else ("key", stock.key), []).append(stock)
    return tuple(tuple(own) for own in found.values())


def find(
    cuts: Sequence[StockCut], takes: Mapping[str, int], stocks: Iterable[Stock], ruler: Ruler
) -> tuple[Check, ...]:
    """What there is not enough of; ``takes`` are the sheets of each stock, the whole ones of a pile as well,
    which is told of on its own."""
    found: list[Check | None] = []
    for own in together(stocks):
        keys, first = {stock.key for stock in own}, own[0]
        pieces = [cut for cut in cuts if cut.stock.key in keys]
        needed = sum(takes.get(key, 0) for key in keys)
        if all(stock.role == "pile" for stock in own):
            continue
        if first.cloth:
            found.append(_roll(own, pieces, ruler))
        elif len(own) > 1:
            found.append(_shared(own, needed, takes))
        else:
            found.append(_offcut(first, needed, pieces) if first.form == "offcut" else _owned(first, needed))
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


def of_the_roll(cuts: Sequence[StockCut]) -> dict[str, float]:
    """How much of the length of a roll each part takes in mm, by its key: whole rows right across it."""
    return {
        cut.part.key: math.ceil(cut.part.count / cut.better.columns) * cut.better.piece_height_mm
        for cut in cuts
        if cut.better.count
    }


def _roll(own: Sequence[Stock], cuts: Sequence[StockCut], ruler: Ruler) -> Check | None:
    """More of a roll than is left of it, each part in rows of its own across it."""
    long = of_the_roll(cuts)
    first, needed = own[0], sum(long.values())
    if needed <= first.sheet_height_mm + 0.05:
        return None
    split = joined(
        f"{ruler.show(ruler.snap_up(long[cut.part.key]))} for the {cut.part.name}"
        for cut in cuts
        if cut.part.key in long
    )
    return Check(
        code="owned",
        level="stop",
        title=f"{ruler.show(ruler.snap_up(needed))} of {first.name} are needed, and "
        f"{ruler.show(first.sheet_height_mm)} are left.",
        why=f"{split}, right across the roll: {ruler.show(ruler.snap_up(needed - first.sheet_height_mm))} "
        "are missing.",
        no_fix="See how much is left, take a longer piece, or make fewer books at once.",
    )


def _offcut(stock: Stock, needed: int, cuts: Sequence[StockCut]) -> Check | None:
    """B4: offcuts that give some of the pieces but not their twins. One that is too short for any is B1."""
    owned = 1 if stock.owned is None else stock.owned
    if needed <= owned or not all(cut.sheets for cut in cuts):
        return None
    gives = sum(min(cut.part.count, owned * cut.better.count) for cut in cuts)
    wanted = sum(cut.part.count for cut in cuts)
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
