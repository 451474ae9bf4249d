"""The part list: what a maker wants beside the knife, as rows of a name and its words."""

from __future__ import annotations

from pleat.core.base.plan import Count, Length, PleatResult
from pleat.core.base.points import point
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined, many
from pleat.core.pleats.binding.punched.record import PunchedResult
from pleat.core.pleats.binding.result import BindingResult
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.pleats.cutting.cut import StockCut
from pleat.core.pleats.cutting.shared import sheets_of
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan

Row = tuple[str, str]


def part_rows(plan: Plan) -> list[Row]:
    """(name, words) of every piece, of the figures the work is done by, and of what will not work or wants
    watching."""
    rows = [(f"{cut.part.count} × {cut.part.name}", _cut_words(cut, plan)) for cut in plan.cutting.cuts]
    rows += [row for _, result in plan for row in rows_of(result, plan)]
    if plan.brief.quantity > 1:
        rows.append(("to make", many(plan.brief.quantity, "book")))
    return rows + [(f"! {name}", check.title) for name, check in plan.checks if check.level != "note"]


@point("print: rows", "what the part list says beside the pieces")
def rows_of(_result: PleatResult, _plan: Plan) -> list[Row]:
    """What the part list says of a result, found by its type; most say nothing that its pieces do not."""
    return []


@rows_of.register
def _block(result: Block, plan: Plan) -> list[Row]:
    ruler, units = plan.brief.ruler, len(result.units)
    sections = result.unit == "section"
    if sections and units == 1:
        of_one = "section at the fold"
    elif sections:
        of_one = "the block at the fold"
    else:
        of_one = "the block"
    return [
        ("pages", result.in_words + (f", in {units} sections" if sections and units > 1 else "")),
        (of_one, f"{ruler.thin(result.thickness.low)} to {ruler.thin(result.thickness.high)}"),
    ]


@rows_of.register
def _binding(result: BindingResult, plan: Plan) -> list[Row]:
    ruler = plan.brief.ruler
    rows = []
    if result.positions_mm:
        inset = f", {ruler.show(result.inset_mm)} from the edge" if result.inset_mm else ""
        end = "left" if isinstance(result, PunchedResult) and result.along == "head" else "head"
        rows.append(
            (
                f"holes from the {end}",
                f"{', '.join(ruler.number(mm) for mm in result.positions_mm)} {ruler.name}{inset}",
            )
        )
    for part in result.parts:
        if isinstance(part, Length):
            rows.append((part.name, f"{many(part.count, 'length')} of {ruler.show(part.length_mm)}"))
        elif isinstance(part, Count):
            rows.append((part.name, str(part.count)))
    return rows


@rows_of.register
def _sewn(result: SewnResult, plan: Plan) -> list[Row]:
    ruler = plan.brief.ruler
    marks = ", ".join(ruler.number(position) for position in result.positions_mm)
    strands = "double" if result.strands == 2 else "single"
    double = f", {strands}, knot {result.starts}"
    lengths = [part for part in result.parts if isinstance(part, Length)]
    return [
        *((("stations from the head", f"{marks} {ruler.name}"),) if marks else ()),
        *(
            (part.key, _length_words(part, ruler) + (double if part.key == "thread" else ""))
            for part in lengths
        ),
        *((part.name, str(part.count)) for part in result.parts if isinstance(part, Count)),
    ]


def _length_words(part: Length, ruler: Ruler) -> str:
    times = f", {part.count} times" if part.count > 1 else ""
    return f"{ruler.show(part.length_mm)} of {part.name}{times}"


@rows_of.register
def _wrap(result: WrapResult, plan: Plan) -> list[Row]:
    ruler = plan.brief.ruler
    scores = joined(ruler.number(score) for score in result.wrap.scores_mm)
    rows = [("cover scores", f"{scores} {ruler.name} from the left edge, outside up")]
    if len(result.rows_mm) > 1:
        rows.append(
            (
                "rows of holes",
                f"{', '.join(ruler.number(row) for row in result.rows_mm)} {ruler.name} from the left edge",
            )
        )
    return rows


def _cut_words(cut: StockCut, plan: Plan) -> str:
    ruler, count = plan.brief.ruler, sheets_of(cut.part.key, plan.cutting.plans)
    sheets = (
        f"from {many(count, 'sheet')} of {cut.stock.name}"
        if count
        else f"does not come out of {cut.stock.name}"
    )
    return f"{ruler.size(cut.part.width_mm, cut.part.height_mm)}, {cut.grain_words}; {sheets}"
