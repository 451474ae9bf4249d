"""What can go wrong before the knife: slips A10, B1, B4, B6, B7 (cover), B10, what the trimmer cannot take,
and stock that runs out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from pleat.core.base.errors import LengthError
from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import MM_PER_INCH, RULERS, Ruler, parse_length
from pleat.core.base.words import by_count, many
from pleat.core.materials.sheet import longest_cut_mm
from pleat.core.materials.sizes import size_name, two_sides
from pleat.core.materials.tools import Tools
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.cutting import facts, owned
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.left import LeftOfCutting, TypedLength
from pleat.core.pleats.cutting.record import Cutting
from pleat.core.pleats.cutting.shared import StockPlan
from pleat.core.trade.making import ROUNDED_TWICE_MM

_QUARTER_MM = MM_PER_INCH / 4
_US_SIZES = ("letter", "legal", "tabloid", "half letter")


def find(
    cutting: Cutting,
    left: LeftOfCutting,
    cuts: Sequence[StockCut],
    plans: Sequence[StockPlan],
    takes: Mapping[str, int],
) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say; ``takes`` are the sheets of each stock."""
    found: list[Check | None] = []
    for cut in cuts:
        own = (
            _too_long(cut, left),
            _no_place(cut, plans),
            _match(cut),
            _grain(cut),
            _pattern(cut, left.brief.ruler),
        )
        found += [
            check
            for check in own
            if check and (check.key not in cut.part.told or (check.key == "B7" and cut.chosen))
        ]
        found.append(_trimmer(cut, plans, left.brief, left.tools))
    stocks = [left.paper.stock(key) for key in takes]
    found += owned.find(plans, takes, stocks, left.brief.ruler)
    found.append(owned.pile(takes, stocks, left.brief.quantity))
    found += owned.mixed(plans, cutting)
    for stock in dict.fromkeys(cut.stock.key for cut in cuts):
        found.append(_miscounted([cut for cut in cuts if cut.stock.key == stock], cutting, plans))
    found += facts.find(cuts, plans, left)
    found += facts.turned_by_hand(cuts, plans, cutting.pins)
    found += facts.lost_pins(cutting.pins, plans)
    found.append(_mixed_units(left.typed))
    return tuple(check for check in found if check)


def _too_long(cut: StockCut, left: LeftOfCutting) -> Check | None:
    """B1, and E4 for what covers boards: the piece does not come out of the sheet, with the exact excess and
    what would take it off."""
    if cut.better.count:
        return None
    ruler, part, stock, pages = left.brief.ruler, cut.part, cut.stock, left.pages
    sides = sorted((stock.usable_width_mm, stock.usable_height_mm))
    own = sorted((part.width_mm, part.height_mm))
    excess = [max(0.0, a - b) for a, b in zip(own, sides, strict=True)]
    shown = [ruler.show(value) if value > ruler.step_mm / 2 else ruler.thin(value) for value in excess]
    over = " and ".join(
        f"{amount} too {extent}"
        for amount, extent, value in zip(shown, ("wide", "long"), excess, strict=True)
        if value > 0.05
    )
    leaf, sheet = size_name(pages.leaf_width_mm, pages.leaf_height_mm) or "", stock.size_name or ""
    strangers = (
        " A size made for A paper never quite fits a US sheet."
        if leaf[:1] in ("A", "B") and sheet in _US_SIZES
        else ""
    )
    offers = part.smaller(stock.usable_width_mm, stock.usable_height_mm) if part.smaller else ()
    source = "what is left" if stock.cloth else "the sheet"
    if any(stock.margins):
        source += " without the edges that are not used"
    return Check(
        code="E4" if stock.role in ("covering", "side", "strip") else "B1",
        level="stop",
        title=f"The {part.name} is {over} for {stock.name}.",
        why=f"It needs {ruler.size(part.width_mm, part.height_mm)}, "
        f"{source} is "
        f"{ruler.size(stock.usable_width_mm, stock.usable_height_mm)}.{strangers}",
        offers=offers,
        no_fix="" if offers else "Choose a larger sheet, or a smaller leaf in the Brief.",
    )


def _no_place(cut: StockCut, plans: Sequence[StockPlan]) -> Check | None:
    """B1 of a sheet that is large enough, but for its holes and windows."""
    if not cut.better.count or all(cut.part.key not in plan.lacking for plan in plans):
        return None
    return Check(
        code="B1",
        of=cut.part.key,
        level="stop",
        title=f"The {cut.part.name} finds no place beside the holes of {cut.stock.name}.",
        why="The sheet is large enough, but no piece of it that is as large has no hole in it.",
        no_fix="Take another sheet, or let the piece lie either way.",
    )


def _match(cut: StockCut) -> Check | None:
    """B4: pieces that have to match, and no sheet gives all of them."""
    if not cut.part.twins or cut.twins or not cut.better.count:
        return None
    return Check(
        code="B4",
        of=cut.part.key,
        level="stop",
        title=f"No sheet of {cut.stock.name} gives {cut.part.twins} × {cut.part.name}, which are to match.",
        why=f"It gives {cut.better.count}. From several sheets they may differ in colour and thickness.",
        offers=(Offer(label="from any sheets", changes=((f"cutting.match.{cut.stock.key}", "no"),)),),
    )


def _pattern(cut: StockCut, ruler: Ruler) -> Check | None:
    """B10: a pattern with a top lies sideways, since the piece only comes out of the sheet turned."""
    if not cut.stock.upright_only or not cut.better.turned or not cut.better.count:
        return None
    outcome = "lies" if cut.chosen else "only comes out"
    return Check(
        code="B10",
        level="watch",
        title=f"The pattern of {cut.stock.name} would lie sideways in the {cut.part.name}.",
        why=f"Its top is along the sheet's height of {ruler.show(cut.stock.usable_height_mm)}; the piece "
        f"{outcome} with its height across the sheet. Unfold one and "
        "look at it before you cut more.",
        offers=(Offer(label="lay it upright", changes=((f"cutting.lies.{cut.part.stock}", "upright"),)),)
        if cut.chosen and cut.other.count
        else (),
        no_fix=""
        if cut.chosen and cut.other.count
        else "Take a sheet that is wider, a leaf that is smaller, or a paper whose pattern has no top.",
    )


def _trimmer(cut: StockCut, plans: Sequence[StockPlan], brief: BriefResult, tools: Tools) -> Check | None:
    if not tools.has_trimmer or cut.by_trimmer or cut.needs_no_cut or not cut.better.count:
        return None
    edge = longest_cut_mm([sheet for plan in plans for sheet in plan.of(cut.part.key)])
    ruler, thick = brief.ruler, cut.stock.caliper.likely
    assert tools.trimmer_longest_mm is not None
    if edge > tools.trimmer_longest_mm + 0.05:
        what = (
            f"a cut of {ruler.show(edge)} across the sheet; your trimmer cuts up to "
            f"{ruler.show(tools.trimmer_longest_mm)}"
        )
    else:
        what = (
            f"a sheet of {ruler.fine(thick)}; your trimmer takes up to "
            f"{ruler.fine(tools.trimmer_thickest_mm or 0)}"
        )
    return Check(
        code="trimmer",
        of=cut.part.key,
        level="note",
        title=f"The {cut.part.name} is not for your trimmer: it has {what}.",
        why="A trimmer that is forced cuts askew. The step says knife and steel rule instead.",
        no_fix="Nothing to change: cut it with a knife along a steel rule, in several light passes.",
    )


def _grain(cut: StockCut) -> Check | None:
    """B7: the grain across the spine."""
    if cut.better.with_grain is not False or not cut.better.count:
        return None
    back = cut.chosen and cut.other.with_grain and cut.other.count
    gives = "You laid it that way" if back else f"{cut.stock.name} only gives this piece that way"
    lying = "turned" if cut.other.turned else "upright"
    turn = Offer(label="lay it with the grain", changes=((f"cutting.lies.{cut.part.stock}", lying),))
    grain = "spine" if cut.part.grain == "h" else "folds"
    return Check(
        code="B7",
        level="watch",
        title=f"The grain runs across the {grain} in the {cut.part.name}.",
        why=f"{gives}: {cut.part.across}. Score it deep and fold it slowly.",
        offers=(turn,) if back else (),
        no_fix="" if back else "A larger sheet, or the same one with its grain the other way, would turn it.",
    )


def _miscounted(cuts: Sequence[StockCut], cutting: Cutting, plans: Sequence[StockPlan]) -> Check | None:
    """B6: the maker's own count of pieces in a sheet, against what the plan has on one. Where a stock gives
    pieces of one sort alone, a sheet full of them counts as well."""
    stock = cuts[0].stock
    counted = cutting.counted.get(stock.key)
    if counted is None or any("B6" in cut.part.told for cut in cuts):
        return None
    keys = {cut.part.key for cut in cuts}
    sheets = [sheet for plan in plans if stock in plan.stocks for sheet in plan.whole]
    best = max((sum(sheet.counts().get(key, 0) for key in keys) for sheet in sheets), default=0)
    if len(cuts) == 1:
        best = max(best, cuts[0].better.count)
    if counted == best:
        return None
    name = cuts[0].part.name if len(cuts) == 1 else "pieces"
    if len(cuts) == 1 and best == cuts[0].better.count:
        laid = f"{cuts[0].better.columns} across and {cuts[0].better.rows} down, whole pieces only."
    else:
        laid = "As the sheets are planned, whole pieces only."
    count = sum(cut.part.count for cut in cuts)
    lie = sum(sheet.times for plan in plans for sheet in plan.all_sheets if keys & sheet.counts().keys())
    return Check(
        code="B6",
        level="stop" if counted > best else "watch",
        title=f"You count {counted} × {name} out of a sheet; it gives {best}.",
        why=f"{laid} {many(count, 'piece')} then {by_count(count, 'lies', 'lie')} on {many(lie, 'sheet')}.",
        offers=(Offer(label=f"{best} × {name} a sheet", changes=((f"cutting.counted.{stock.key}", best),)),),
    )


def _mixed_units(typed: Sequence[TypedLength]) -> Check | None:
    """A10: inches and centimetres in one plan; a metric length a hair off a sixteenth was rounded twice."""
    inches: list[str] = []
    metric: list[str] = []
    twice: list[tuple[str, str, float]] = []
    for one in typed:
        path, written = one.path, one.text
        sides = two_sides(written)  # formats up to 3 kept a whole size with each of its sides
        text = written if sides is None else sides["height" in path]
        try:
            length = parse_length(text)
        except LengthError:
            continue
        (inches if length.unit == "in" else metric).append(text)
        near = round(length.mm / _QUARTER_MM) * _QUARTER_MM
        if (
            length.unit != "in"
            and one.low_mm <= near <= one.high_mm
            and 0.02 < abs(near - length.mm) <= ROUNDED_TWICE_MM
        ):
            twice.append((path, text, near))
    if not inches or not metric:
        return None
    fixes = tuple(
        Offer(label=f"{text} was {RULERS['in'].show(near)}", changes=((path, near),))
        for path, text, near in twice[:3]
    )
    return Check(
        code="A10",
        level="watch" if fixes else "note",
        title=f"Inches and millimetres are mixed in this plan: {inches[0]} and {metric[0]}.",
        why="Pleat keeps each exactly as you typed it. But a length that was turned from one into the other "
        "by hand has been rounded once already.",
        offers=fixes,
        no_fix="" if fixes else "Nothing to do if each was read off its own ruler.",
    )
