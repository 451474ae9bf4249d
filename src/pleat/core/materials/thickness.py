"""The thickness of one sheet of a paper: low, likely, high, how it was got, and what would narrow it.

In this order: readings of a stack, a grammage with the kind's bulk, pounds (in every grade it may be), what
the paper is called, and last everything a paper may be.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Rule
from pleat.core.base.units import RULERS, Ruler
from pleat.core.materials.items import Grade, Paper, PaperKind
from pleat.core.materials.measuring import Judged, judge
from pleat.core.materials.weights import BULK_CM3_PER_G, by_name, pounds_in_every_grade
from pleat.core.trade.paper import ANY_GRAMMAGE

Source = Literal["measured", "weight", "pounds", "name", "nothing", "sold"]
_BY_BULK: Final = Rule("arithmetic", "thickness = grammage × bulk, as ISO 536 and ISO 534 define them")
_NARROWED_MM: Final = 0.004
"""What three readings of a stack of 10 usually leave of doubt, either way (worked example in
docs/oracles.md)."""


@dataclass(frozen=True)
class Thickness:
    """One sheet in mm with where it comes from; ``judged`` holds the readings where there are any."""

    sheet: Estimate
    source: Source
    how: str
    rules: tuple[Rule, ...]
    narrow: str
    judged: Judged | None = None


@lru_cache(maxsize=2048)
def thickness(paper: Paper, ruler: Ruler = RULERS["mm"]) -> Thickness:
    """How thick one sheet is, as far as it is known, in words for ``ruler``; readings stay in mm, as they
    were taken. Never raises; the widest guess is the answer when nothing is known."""
    judged = judge(paper.readings_mm, paper.measured_sheets, weighed(paper)) if paper.readings_mm else None
    if judged and judged.sheet:
        return _measured(paper, judged, ruler)
    if paper.grammage is not None:
        found = _by_weight(paper, paper.grammage, ruler)
    elif paper.pounds is not None:
        found = _by_pounds(paper, paper.pounds, paper.grade, ruler)
    else:
        found = _by_name(paper, ruler)
    return (
        found
        if judged is None
        else Thickness(
            found.sheet,
            found.source,
            f"{found.how} The readings are not used: {judged.problem}",
            found.rules,
            found.narrow,
            judged,
        )
    )


def weighed(paper: Paper) -> Estimate | None:
    """One sheet as its grammage alone has it, for checking readings against; None where the weight or the
    kind is not known."""
    if paper.grammage is None or paper.kind == "other":
        return None
    return _by_weight(paper, paper.grammage, RULERS["mm"]).sheet


def _range(ruler: Ruler, low_mm: float, high_mm: float) -> str:
    return (
        f"{low_mm * 1000:.0f} to {high_mm * 1000:.0f} µm"
        if ruler.name == "mm"
        else ruler.between(low_mm, high_mm, Ruler.fine)
    )


def _measure(ruler: Ruler) -> str:
    return f"A stack of 10 measured three times would narrow it to about ±{ruler.fine(_NARROWED_MM)}."


def _measured(paper: Paper, judged: Judged, ruler: Ruler) -> Thickness:
    sheet = judged.sheet
    assert sheet is not None
    named = Estimate(
        sheet.likely, {f"the reading of your stack of {paper.name}": next(iter(sheet.doubts.values()))}
    )
    readings = ", ".join(f"{one:.2f}" for one in judged.kept)
    left_out = "".join(f" {thrown.mm:.2f} mm was thrown out: {thrown.reason}." for thrown in judged.thrown)
    s = "s" if len(judged.kept) > 1 else ""
    how = (
        f"{len(judged.kept)} reading{s} of a stack of {judged.sheets}: "
        f"{readings} mm. Their mean, {judged.mean_mm:.3f} mm ± {judged.error_mm:.3f}, divided by "
        f"{judged.sheets}.{left_out}"
    )
    if ruler.name != "mm":
        how += f" That is {ruler.fine(sheet.likely)}."
    rules = (
        Rule("measured by you", "a stack, divided by its sheets"),
        Rule("mean_error", "mean and its error by Student's t at 95 %, as in JCGM 100:2008, annex G"),
        Rule("CALIPER_ERROR_MM", "0.03 mm doubt for the caliper itself"),
    )
    if len(judged.kept) < 3:
        narrow = "Three readings at different places would narrow it."
    elif judged.sheets < 20:
        narrow = "A thicker stack would narrow it further."
    else:
        narrow = ""
    return Thickness(named, "measured", how, rules, narrow, judged)


def _by_weight(paper: Paper, grammage: float, ruler: Ruler) -> Thickness:
    low, high = BULK_CM3_PER_G[paper.kind]
    um = [grammage * bulk / 1000 for bulk in (low, (low + high) / 2, high)]
    sheet = Estimate.ranged(um[0], um[1], um[2], f"the thickness of {paper.name}, which is not measured")
    pounds = f" ({paper.pounds:g} lb {paper.grade})" if paper.pounds and paper.grade else ""
    how = f"{grammage:g} g/m²{pounds} × bulk {low:g} to {high:g} cm³/g = {_range(ruler, um[0], um[2])}."
    measure = _measure(ruler)
    narrow = (
        f"Choosing the kind of paper would narrow it; {measure[0].lower()}{measure[1:]}"
        if paper.kind == "other"
        else measure
    )
    return Thickness(
        sheet, "weight", how, (_BY_BULK, Rule("bulk", f"bulk of {paper.kind} paper, no source")), narrow
    )


def _by_pounds(paper: Paper, pounds: float, grade: Grade | None, ruler: Ruler) -> Thickness:
    every = pounds_in_every_grade(pounds)
    weights = sorted([every[grade]] if grade else every.values())
    low, high = BULK_CM3_PER_G[paper.kind]
    ends = weights[0] * low / 1000, weights[-1] * high / 1000
    middle = weights[len(weights) // 2] * (low + high) / 2000
    sheet = Estimate.ranged(
        ends[0], middle, ends[1], f"the grade of the {pounds:g} lb of {paper.name}, which is not known"
    )
    how = (
        f"{pounds:g} lb is {weights[0]:.0f} to {weights[-1]:.0f} g/m², by grade; at bulk {low:g} to "
        f"{high:g} cm³/g that is {ruler.between(*ends, Ruler.fine)}."
    )
    rules = (_BY_BULK, Rule("basis_sizes", "US paper trade basis sizes, as in TAPPI T 410"))
    return Thickness(
        sheet, "pounds", how, rules, "The grade from the packet, or one measured stack, would settle it."
    )


def _by_name(paper: Paper, ruler: Ruler) -> Thickness:
    known = by_name(paper.name)
    kind: PaperKind = paper.kind
    grammages = ANY_GRAMMAGE
    if known:
        kind, grammages = (known[0] if paper.kind == "other" else paper.kind), known[1]
    low, high = BULK_CM3_PER_G[kind]
    sheet = Estimate.ranged(
        grammages[0] * low / 1000,
        grammages[1] * (low + high) / 2000,
        grammages[2] * high / 1000,
        f"the weight of {paper.name}, which is not known",
    )
    if known:
        how = (
            f"Known only by its name. Paper called that is mostly {grammages[0]:g} to {grammages[2]:g} "
            f"g/m², {kind}: {ruler.between(sheet.low, sheet.high, Ruler.fine)}."
        )
        rules = (_BY_BULK, Rule("known_by_name", "what such papers usually weigh, no source"))
        return Thickness(
            sheet, "name", how, rules, "Its weight from the packet would narrow it. " + _measure(ruler)
        )
    how = (
        f"Nothing is known of it: anything from {grammages[0]:g} to {grammages[2]:g} g/m², "
        f"{ruler.between(sheet.low, sheet.high, Ruler.fine)}."
    )
    return Thickness(
        sheet,
        "nothing",
        how,
        (_BY_BULK, Rule("ANY_GRAMMAGE", "what any paper may weigh")),
        "Its weight would narrow it. " + _measure(ruler),
    )
