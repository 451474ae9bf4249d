"""What can go wrong before the knife: slips A10, B1, B4, B6, B7 (cover), B10, what the trimmer cannot take, and stock that runs out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Final

from pleat.core.brief.compute import BriefResult
from pleat.core.brief.resize import possible, resized
from pleat.core.cover.compute import CoverResult
from pleat.core.cutting.cut import Cut, longest_cut_mm
from pleat.core.cutting.record import Cutting
from pleat.core.errors import LengthError
from pleat.core.fields import LengthRule
from pleat.core.labels import rule_of
from pleat.core.materials.sizes import size_name, two_sides
from pleat.core.materials.tools import Tools
from pleat.core.pages.compute import PagesResult
from pleat.core.paper.compute import Stock
from pleat.core.plan import Check, Fix
from pleat.core.units import MM_PER_INCH, RULERS, Ruler, parse_length
from pleat.core.words import many

_TWICE_MM = 0.5
"""A metric length this near a quarter of an inch, but not on it, was probably rounded from it (house rule)."""
_QUARTER_MM = MM_PER_INCH / 4
_US_SIZES = ("letter", "legal", "tabloid", "half letter")
FOR: Final = {"leaf": "for the leaves", "cover": "for the cover", "pile": "of the pile"}
COUNT_ON_SHELF = "If you have more, put the count right among the materials; the book takes it from there."


def find(
    cutting: Cutting,
    typed: Mapping[str, str],
    brief: BriefResult,
    cuts: Sequence[Cut],
    sheets: Mapping[str, int],
    pages: PagesResult,
    cover: CoverResult,
    tools: Tools,
) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    found: list[Check | None] = []
    for cut in cuts:
        if cut.stock.role != "pile":  # what a found sheet gives, and how it lies, is said in Pages
            found += [_too_long(cut, brief, pages, cover), _grain(cut), _miscounted(cut, cutting), _pattern(cut, brief.ruler)]
        found.append(_trimmer(cut, brief, tools))
    stocks = {cut.stock.role: cut.stock for cut in cuts if cut.stock.role != "pile"}
    for role, stock in stocks.items():
        if stock.form == "offcut":
            found.append(_offcut(stock, sheets[role], [cut for cut in cuts if cut.stock is stock]))
        elif stock.owned is not None and sheets[role] > stock.owned:
            found.append(
                Check(
                    "owned",
                    "stop",
                    f"{many(sheets[role], 'sheet')} of {stock.name} {'is' if sheets[role] == 1 else 'are'} needed, you own {stock.owned}.",
                    f"{sheets[role] - stock.owned} {'is' if sheets[role] - stock.owned == 1 else 'are'} missing. Count before you cut the first one.",
                    ()
                    if stock.in_materials
                    else (Fix(f"I have {sheets[role]} {FOR[role]} after all", ((f"paper.{role}.owned", sheets[role]),)),),
                    COUNT_ON_SHELF if stock.in_materials else "",
                )
            )
    found.append(_mixed_units(typed))
    return tuple(check for check in found if check)


def _too_long(cut: Cut, brief: BriefResult, pages: PagesResult, cover: CoverResult) -> Check | None:
    """B1: the piece does not come out of the sheet, with the exact excess and the panels to take it from."""
    if cut.better.count or (cut.part.material == "leaf" and not pages.flap_mm):
        return None  # a folio that is too large is B3, said where the leaf is planned
    ruler, part, stock = brief.ruler, cut.part, cut.stock
    sides = sorted((stock.sheet_width_mm, stock.sheet_height_mm))
    own = sorted((part.width_mm, part.height_mm))
    excess = [max(0.0, a - b) for a, b in zip(own, sides, strict=True)]
    over = " and ".join(
        f"{ruler.show(value) if value > ruler.step_mm / 2 else ruler.thin(value)} too {'long' if axis else 'wide'}"
        for axis, value in enumerate(excess)
        if value > 0.05
    )
    leaf, sheet = size_name(pages.leaf_width_mm, pages.leaf_height_mm) or "", stock.size_name or ""
    strangers = " A size made for A paper never quite fits a US sheet." if leaf[:1] in ("A", "B") and sheet in _US_SIZES else ""
    fixes = _cover_fixes(brief, pages, cover, stock.sheet_width_mm, stock.sheet_height_mm) if part.key == "cover" else ()
    return Check(
        "B1",
        "stop",
        f"The {part.name} is {over} for {stock.name}.",
        f"It needs {ruler.size(part.width_mm, part.height_mm)}, the sheet is {ruler.size(stock.sheet_width_mm, stock.sheet_height_mm)}.{strangers}",
        fixes,
        "" if fixes else "Choose a larger sheet, or a smaller leaf in the Brief.",
    )


def _cover_fixes(brief: BriefResult, pages: PagesResult, cover: CoverResult, sheet_width: float, sheet_height: float) -> tuple[Fix, ...]:
    """Take the excess off the squares where they can give it, else off the leaf; all relations are kept."""
    ruler, fixes = brief.ruler, []
    least = min(ruler.snap_up(pages.creep.high), cover.square_mm) if pages.stands_out else 0.0
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        room_wide, room_high = across - cover.wrap.width_mm, along - cover.wrap.height_mm
        square = ruler.snap_down(cover.square_mm + min(room_wide / 2, room_high / 2, 0.0))
        if square >= least - 1e-6:
            less = cover.square_mm - square
            fixes.append(Fix(f"square {ruler.show(square)}: {ruler.show(less)} off each side", (("cover.square_mm", square),)))
            continue
        width = ruler.snap_down(pages.leaf_width_mm + min(room_wide / 2, 0.0))
        height = ruler.snap_down(pages.leaf_height_mm + min(room_high, 0.0))
        if possible(width, height) and width * height > 0.6 * pages.leaf_width_mm * pages.leaf_height_mm:
            off = [
                f"{ruler.show(a - b)} off the leaf's {side}"
                for side, a, b in (("width", pages.leaf_width_mm, width), ("height", pages.leaf_height_mm, height))
                if a - b > 0.05
            ]
            changes, words = resized(brief, width, height, pages.flap_mm)
            fixes.append(Fix(f"leaf {ruler.size(width, height)}: {', '.join(off)}{words}", changes))
    return tuple(fixes)


def _offcut(stock: Stock, needed: int, cuts: Sequence[Cut]) -> Check | None:
    """B4: offcuts that give some of the pieces but not their twins. One that is too short for any is B1."""
    owned = 1 if stock.owned is None else stock.owned
    if needed <= owned or not all(cut.sheets for cut in cuts):
        return None
    gives = sum(min(cut.part.count, owned * cut.better.count) for cut in cuts)
    wanted = sum(cut.part.count for cut in cuts)
    return Check(
        "B4",
        "stop",
        f"The offcuts of {stock.name} give {gives} of {wanted} pieces; the others would have to come from another paper.",
        f"{needed} offcuts are needed, {owned} {'is' if owned == 1 else 'are'} there. Pieces that belong together then differ in colour, thickness or grain. Take all of them from one sheet before you cut the first.",
        () if stock.in_materials else (Fix(f"I have {needed} such offcuts {FOR[stock.role]}", ((f"paper.{stock.role}.owned", needed),)),),
        COUNT_ON_SHELF if stock.in_materials else "",
    )


def _pattern(cut: Cut, ruler: Ruler) -> Check | None:
    """B10: a pattern with a top lies sideways, since the piece only comes out of the sheet turned."""
    if not cut.stock.upright_only or not cut.better.turned or not cut.better.count:
        return None
    return Check(
        "B10",
        "watch",
        f"The pattern of {cut.stock.name} would lie sideways in the {cut.part.name}.",
        f"Its top is along the sheet's height of {ruler.show(cut.stock.sheet_height_mm)}; the piece {'lies' if cut.chosen else 'only comes out'} with its height across the sheet. Unfold one and look at it before you cut more.",
        (Fix("lay it upright", ((f"cutting.{cut.part.material}_lies", "upright"),)),) if cut.chosen and cut.other.count else (),
        no_fix=""
        if cut.chosen and cut.other.count
        else "Take a sheet that is wider, a leaf that is smaller, or a paper whose pattern has no top.",
    )


def _trimmer(cut: Cut, brief: BriefResult, tools: Tools) -> Check | None:
    if not tools.has_trimmer or cut.by_trimmer or cut.needs_no_cut or not cut.better.count:
        return None
    edge = longest_cut_mm(cut.better, cut.stock.sheet_width_mm, cut.stock.sheet_height_mm)
    ruler, thick = brief.ruler, cut.stock.caliper.likely
    assert tools.trimmer_longest_mm is not None
    if edge > tools.trimmer_longest_mm + 0.05:
        what = f"a cut of {ruler.show(edge)} across the sheet; your trimmer cuts up to {ruler.show(tools.trimmer_longest_mm)}"
    else:
        what = f"a sheet of {ruler.fine(thick)}; your trimmer takes up to {ruler.fine(tools.trimmer_thickest_mm or 0)}"
    return Check(
        f"trimmer_{cut.part.key}",
        "note",
        f"The {cut.part.name} is not for your trimmer: it has {what}.",
        "A trimmer that is forced cuts askew. The step says knife and steel rule instead.",
        no_fix="Nothing to change: cut it with a knife along a steel rule, in several light passes.",
    )


def _grain(cut: Cut) -> Check | None:
    """B7 for the cover, and for leaves that the maker laid across; the leaves' own grain is said where they are planned."""
    if cut.better.with_grain is not False or not cut.better.count or (cut.part.material == "leaf" and not cut.chosen):
        return None
    back = cut.chosen and cut.other.with_grain and cut.other.count
    gives = "You laid it that way" if back else f"{cut.stock.name} only gives this piece that way"
    return Check(
        "B7",
        "watch",
        f"The grain runs across the spine in the {cut.part.name}.",
        f"{gives}: the crease may crack and {'the leaves stand up' if cut.part.material == 'leaf' else 'the cover will not lie shut'}. Score it deep and fold it slowly.",
        (Fix("lay it with the grain", ((f"cutting.{cut.part.material}_lies", "turned" if cut.other.turned else "upright"),)),)
        if back
        else (),
        "" if back else "A larger sheet, or the same one with its grain the other way, would turn it.",
    )


def _miscounted(cut: Cut, cutting: Cutting) -> Check | None:
    """B6: the maker's own count of pieces in a sheet."""
    path = f"counted_{cut.part.material}"
    counted = getattr(cutting, path)
    if counted is None or cut.part.key == "flap_folio" or counted == cut.better.count:
        return None
    best = cut.better
    return Check(
        "B6",
        "stop" if counted > best.count else "watch",
        f"You count {counted} × {cut.part.name} out of a sheet; it gives {best.count}.",
        f"{best.columns} across and {best.rows} down, whole pieces only. {many(cut.part.count, 'piece')} then {'takes' if cut.part.count == 1 else 'take'} {many(cut.sheets or 0, 'sheet')}.",
        (Fix(f"{best.count} × {cut.part.name} a sheet", ((f"cutting.{path}", best.count),)),),
    )


def _mixed_units(typed: Mapping[str, str]) -> Check | None:
    """A10: inches and centimetres in one plan; a metric length a hair off a sixteenth was rounded twice."""
    inches: list[str] = []
    metric: list[str] = []
    twice: list[tuple[str, str, float]] = []
    for path, written in typed.items():
        sides = two_sides(written)  # formats up to 3 kept a whole size with each of its sides
        text = written if sides is None else sides["height" in path]
        try:
            length = parse_length(text)
        except LengthError:
            continue
        (inches if length.unit == "in" else metric).append(text)
        near = round(length.mm / _QUARTER_MM) * _QUARTER_MM
        rule = rule_of(path)
        possible_ = isinstance(rule, LengthRule) and rule.low_mm <= near <= rule.high_mm
        if length.unit != "in" and possible_ and 0.02 < abs(near - length.mm) <= _TWICE_MM:
            twice.append((path, text, near))
    if not inches or not metric:
        return None
    fixes = tuple(Fix(f"{text} was {RULERS['in'].show(near)}", ((path, near),)) for path, text, near in twice[:3])
    return Check(
        "A10",
        "watch" if fixes else "note",
        f"Inches and millimetres are mixed in this plan: {inches[0]} and {metric[0]}.",
        "Pleat keeps each exactly as you typed it. But a length that was turned from one into the other by hand has been rounded once already.",
        fixes,
        "" if fixes else "Nothing to do if each was read off its own ruler.",
    )
