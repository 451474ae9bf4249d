"""A stack of leaves on one ring: a binding as small as it can be, to prove the house."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Member, Traits
from pleat.core.base.plan import Check, Count, Figure, Offer, Rule, Step, signature
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding
from pleat.core.whole.planning import Plan
from pleat.drawing.handles import Handle, handles
from pleat.printing.strips import MarkOn, Strip, strips_of


class OneRing(Member):
    """One ring in the corner at the head."""

    kind: Literal["onering"] = "onering"
    inner_mm: Annotated[float, LengthRule("the ring's inner diameter", 10, 120)] = 25.0
    corner_mm: Annotated[float, LengthRule("the hole from head and edge", 6, 30)] = 10.0


class RingResult(BindingResult):
    """A binding that can be dragged."""


def hang(record: OneRing, left: LeftOfBinding) -> RingResult:
    """Whether the ring holds the stack, three quarters of its inner diameter of it (house rule)."""
    ruler, thick = left.brief.ruler, left.pages.thickness.likely
    most = 0.75 * record.inner_mm
    hole = Figure(
        key="hole",
        label="hole",
        value=record.corner_mm,
        show="length",
        how="From the head and from the edge alike.",
        rules=(Rule("chosen by you", "the hole's place"),),
        scrap=f"{ruler.show(record.corner_mm)} from head and edge",
    )
    wider = ruler.snap_up(thick / 0.75)
    larger = Offer(label=f"a ring of {ruler.show(wider)}", changes=(("binding.inner_mm", wider),))
    small = Check(
        code="D8",
        level="stop",
        title=f"The ring is too small: the stack is {ruler.thin(thick)}, it takes {ruler.thin(most)}.",
        why="Leaves that fill a ring do not turn.",
        offers=(larger,) if wider <= 120 else (),
        no_fix="" if wider <= 120 else "Make two stacks of it.",
    )
    punch = Step(
        key="punch",
        title="Punch the hole",
        detail=f"{ruler.show(record.corner_mm)} from head and edge, few leaves at a time, the strip as a "
        "jig.",
        tools=("paper punch",),
        needs=("block.stacked",),
        gives=("book.bound",),
        cautions=("Keep fingers clear of the punch; follow its own instructions.",),
        signature=signature(record.corner_mm, math.ceil(thick)),
    )
    return RingResult(
        key_figure=hole,
        figures=(hole,),
        checks=(small,) if thick > most else (),
        parts=(
            Count(
                key="ring",
                name=f"ring, {ruler.show(record.inner_mm)} inside",
                count=left.brief.quantity,
                stock="",
            ),
        ),
        steps=(punch,),
        at="edge",
        height_mm=left.pages.leaf_height_mm,
        positions_mm=(record.corner_mm,),
        inset_mm=record.corner_mm,
    )


@handles.register
def _corner(result: RingResult, plan: Plan) -> tuple[Handle, ...]:
    return (
        Handle(
            "binding.corner_mm", "hole from the head", result.inset_mm, 6, 30, plan.brief.ruler.step_mm, "y"
        ),
    )


@strips_of.register
def _jig(result: RingResult, plan: Plan) -> tuple[Strip, ...]:
    marks = (
        MarkOn(result.inset_mm, f"hole: {plan.brief.ruler.number(result.inset_mm)}", "cross", hole=True),
    )
    return (Strip("Hole, from the head", min(result.height_mm, 120.0), marks, "HEAD", "cut here"),)


KIND = BindingKind(
    name="onering",
    title="one ring in the corner",
    summary="A hole and a ring; leaves come and go.",
    record=OneRing,
    compute=hang,
    placed=(),
    traits=Traits(punch=True, refills=True),
    takes=frozenset({"leaf"}),
    at="edge",
)
