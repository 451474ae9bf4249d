"""A stapled booklet: two or three staples through the fold. A kind of its own, as small as one can be, to
prove the house."""

from __future__ import annotations

from typing import Annotated, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Traits
from pleat.core.base.plan import Check, Count, Figure, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding

DEEPEST_MM = 2.5
"""Paper that a long-arm stapler drives through (house rule; its own instructions come first)."""


class Stapled(Member):
    """Staples through the fold, from the outside."""

    kind: Literal["stapled"] = "stapled"
    staples: Annotated[Literal[2, 3], ChoiceRule("staples", (("2", "2 staples"), ("3", "3 staples")))] = 2
    inset_mm: Annotated[float, LengthRule("the outer staples from head and tail", 10, 200)] | None = None


def compute(record: Stapled, left: LeftOfBinding) -> BindingResult:
    """Where the staples go; a quarter of the height from the ends unless it was said."""
    ruler, height, quantity = left.brief.ruler, left.pages.leaf_height_mm, left.brief.quantity
    inset = min(record.inset_mm or ruler.snap(height / 4), height / 2)
    places = (inset, height - inset) if record.staples == 2 else (inset, height / 2, height - inset)
    marks = ", ".join(ruler.number(at) for at in places)
    where = Figure(
        key="staples",
        label="staples",
        value=record.staples,
        show="count",
        how=f"At {marks} {ruler.name} from the head, "
        f"{'as you said' if record.inset_mm else 'a quarter of the height from the ends'}.",
        rules=(Rule("quarter_points", "two staples at the quarter points, no source"),),
        scrap=f"{marks} {ruler.name} from the head",
    )
    return BindingResult(
        key_figure=where,
        figures=(where,),
        checks=_checks(left, ruler),
        parts=(
            Count(
                key="staples",
                name="staples",
                count=record.staples * quantity * len(left.pages.units),
                stock="",
            ),
        ),
        steps=_steps(record, places, left),
        at="fold",
        height_mm=height,
        positions_mm=places,
        usual_mm=ruler.snap(height / 4),
        look="every staple shut flat",
    )


def _checks(left: LeftOfBinding, ruler: Ruler) -> tuple[Check, ...]:
    card = left.paper.cover.caliper.likely if left.brief.made_of.cover.sewn_through else 0.0
    deep = left.pages.through.likely + card
    if deep <= DEEPEST_MM and len(left.pages.units) == 1:
        return ()
    sew = Offer(label="sew it instead", changes=(("binding.kind", "pamphlet"),))
    what = f"{ruler.thin(deep)} of paper" if deep > DEEPEST_MM else f"{len(left.pages.units)} sections"
    why = f"It drives through {ruler.thin(DEEPEST_MM)} of one section; more bends the legs before they close."
    return (
        Check(code="deep", level="stop", title=f"A stapler does not hold {what}.", why=why, offers=(sew,)),
    )


def _steps(record: Stapled, places: tuple[float, ...], left: LeftOfBinding) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    marks = ", ".join(ruler.number(at) for at in places)
    covered = left.brief.made_of.cover.sewn_through
    return (
        Step(
            key="staple",
            title=f"Staple it {record.staples} times",
            detail=f"{'The cover round the section, fold' if covered else 'Fold'} up over the edge of the "
            f"table: {marks} {ruler.name} from the head, along the fold, from the outside.",
            tools=("long-arm stapler",),
            needs=("block.measured", "cover.scored"),
            gives=("book.bound",),
            cautions=("Fingers clear of the stapler's head; follow its own instructions.",),
            signature=signature(record.staples, *places),
        ),
    )


KIND = BindingKind(
    name="stapled",
    title="staples through the fold",
    summary="Two or three staples; no needle, no thread.",
    record=Stapled,
    compute=compute,
    placed=("inset_mm",),
    traits=Traits(opens_flat=True),
    takes=frozenset({"section"}),
    at="fold",
)
