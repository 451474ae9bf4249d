"""The part list: what a maker wants beside the knife, as rows of a name and its words."""

from __future__ import annotations

from pleat.core.cutting.cut import Cut
from pleat.core.planning import Plan
from pleat.core.units import Ruler
from pleat.core.words import many


def part_rows(plan: Plan) -> list[tuple[str, str]]:
    """(name, words) of every part, of the figures the work is done by, and of what will not work or wants watching."""
    ruler = plan.brief.ruler
    rows = [(f"{cut.part.count} × {cut.part.name}", _cut_words(cut, ruler)) for cut in plan.cutting.cuts]
    scores = " and ".join(ruler.number(score) for score in plan.cover.wrap.scores_mm)
    marks = ", ".join(ruler.number(position) for position in plan.binding.positions_mm)
    sections, quantity = len(plan.pages.sections), plan.brief.quantity
    times = f", {sections * quantity} times" if sections * quantity > 1 else ""
    rows += [
        ("pages", plan.pages.in_words + (f", in {sections} sections" if sections > 1 else "")),
        (
            "section at the fold" if sections == 1 else "the block at the fold",
            f"{ruler.thin(plan.pages.thickness.low)} to {ruler.thin(plan.pages.thickness.high)}",
        ),
        ("stations from the head", f"{marks} {ruler.name}"),
        (
            "thread",
            f"{ruler.show(ruler.snap_up(plan.binding.need.total_mm))} of {plan.binding.thread_name}{times}, {'double' if plan.binding.strands == 2 else 'single'}, knot {plan.binding.path.start_side}",
        ),
        ("cover scores", f"{scores} {ruler.name} from the left edge, outside up"),
    ]
    if sections > 1:
        rows.append(("rows of holes", f"{', '.join(ruler.number(row) for row in plan.cover.rows_mm)} {ruler.name} from the left edge"))
    if quantity > 1:
        rows.append(("to make", many(quantity, "book")))
    return rows + [(f"! {name}", check.title) for name, check in plan.checks if check.level != "note"]


def _cut_words(cut: Cut, ruler: Ruler) -> str:
    sheets = f"{cut.sheets} of {cut.stock.name}, {cut.better.count} a sheet" if cut.sheets else f"does not come out of {cut.stock.name}"
    return f"{ruler.size(cut.part.width_mm, cut.part.height_mm)}, {cut.grain_words}; {sheets}"
