"""A stack of leaves on one ring: a block and a binding as small as they can be, to prove the house."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pleat.core.binding.result import BindingResult, LeftOfBinding
from pleat.core.fields import LengthRule, NumberRule
from pleat.core.kinds import BindingKind, BlockKind, Member, Traits
from pleat.core.pages.block import Block, LeftOfPages, Unit
from pleat.core.plan import Check, Count, Figure, Offer, Part, Rule, Step, signature
from pleat.core.planning import Plan
from pleat.drawing.handles import Handle, handles
from pleat.printing.strips import MarkOn, Strip, strips_of


class Leaves(Member):
    """Single leaves of one paper."""

    kind: Literal["leaves"] = "leaves"
    amount: Annotated[int, NumberRule("leaves", 1, 500, "leaves", whole=True)] = 20


def stack(record: Leaves, left: LeftOfPages) -> Block:
    """The leaves on one another."""
    brief, leaf = left.brief, left.paper.leaf
    count = Figure(
        key="count",
        label="in a stack",
        value=f"{record.amount} leaves",
        show="text",
        how=f"{record.amount} leaves are {2 * record.amount} pages.",
        rules=(Rule("arithmetic", "a leaf has two pages"),),
        scrap=f"{record.amount} leaves",
    )
    size = (brief.leaf_width_mm, brief.leaf_height_mm)
    part = Part("leaf", "leaf", *size, record.amount * brief.quantity, "leaf", across="the leaves curl")
    cut = Step("stack", "Stack the leaves", "Knock them up at head and edge.", needs=("leaf.cut",), gives=("block.stacked",))
    return Block(
        key_figure=count, figures=(count,), checks=(), parts=(part,), steps=(cut,), unit="leaf", units=(Unit(leaf.caliper, 1),) * record.amount,
        leaves=record.amount, leaf_width_mm=size[0], leaf_height_mm=size[1], thickness=leaf.caliper.times(record.amount), measured=False,
        stands_out_mm=None, swatch=leaf.swatch, sides=leaf.sides,
    )  # fmt: skip


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
    larger = Offer(f"a ring of {ruler.show(wider)}", (("binding.inner_mm", wider),))
    small = Check(
        "D8",
        "stop",
        f"The ring is too small: the stack is {ruler.thin(thick)}, it takes {ruler.thin(most)}.",
        "Leaves that fill a ring do not turn.",
        (larger,) if wider <= 120 else (),
        "" if wider <= 120 else "Make two stacks of it.",
    )
    punch = Step(
        "punch",
        "Punch the hole",
        f"{ruler.show(record.corner_mm)} from head and edge, few leaves at a time, the strip as a jig.",
        ("paper punch",),
        needs=("block.stacked",),
        gives=("book.bound",),
        cautions=("Keep fingers clear of the punch; follow its own instructions.",),
        signature=signature(record.corner_mm, math.ceil(thick)),
    )
    return RingResult(
        key_figure=hole,
        figures=(hole,),
        checks=(small,) if thick > most else (),
        parts=(Count("ring", f"ring, {ruler.show(record.inner_mm)} inside", left.brief.quantity, ""),),
        steps=(punch,),
        at="edge",
        height_mm=left.pages.leaf_height_mm,
        positions_mm=(record.corner_mm,),
        inset_mm=record.corner_mm,
    )


@handles.register
def _corner(result: RingResult, plan: Plan) -> tuple[Handle, ...]:
    return (Handle("binding.corner_mm", "hole from the head", result.inset_mm, 6, 30, plan.brief.ruler.step_mm, "y"),)


@strips_of.register
def _jig(result: RingResult, plan: Plan) -> tuple[Strip, ...]:
    marks = (MarkOn(result.inset_mm, f"hole: {plan.brief.ruler.number(result.inset_mm)}", "cross", hole=True),)
    return (Strip("Hole, from the head", min(result.height_mm, 120.0), marks, "HEAD", "cut here"),)


BLOCK = BlockKind(name="leaves", title="single leaves", summary="A stack.", record=Leaves, compute=stack, roles=("leaf",), unit="leaf")
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
