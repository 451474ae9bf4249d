"""A pad that was bought: nothing is folded or cut for it; its thickness is measured, or estimated from its
sheets."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Check, Figure, Offer, Rule, Step
from pleat.core.pleats.pages.block import Block, BlockKind, LeftOfPages, Unit
from pleat.core.trade.pages import BACKING_MM, BLOCK_READING_MM


class Pad(Member):
    """Pleat 3, a bought pad: its size is that of the Brief."""

    kind: Literal["pad"] = "pad"
    amount: Annotated[int, NumberRule("the sheets of the pad", 1, 500, whole=True)] = 50
    counted_in: Annotated[
        Literal["leaves", "pages", "unsaid", "folios"],
        ChoiceRule(
            "counted in",
            (("leaves", "leaves"), ("pages", "pages"), ("unsaid", "not said"), ("folios", "folded sheets")),
        ),
    ] = "leaves"
    measured_block_mm: Annotated[float, LengthRule("the measured pad", 0.5, 100)] | None = None


def compute(pages: Pad, left: LeftOfPages) -> Block:
    """The pad as a block that is held already."""
    brief, leaf = left.brief, left.paper.leaf
    ruler = brief.ruler
    leaves = max(1, -(-pages.amount // 2)) if pages.counted_in == "pages" else pages.amount
    low, likely, high = BACKING_MM
    backing = Estimate.ranged(low, likely, high, "the board at the back of the pad, which is not measured")
    estimated = leaf.caliper.times(leaves).plus(backing)
    read = pages.measured_block_mm
    thick = (
        estimated
        if read is None
        else Estimate(read, {"your reading of the pad": (BLOCK_READING_MM, BLOCK_READING_MM)})
    )
    if read is None:
        how = (
            f"{leaves} sheets × {ruler.fine(leaf.caliper.likely)} + backing board {ruler.thin(likely)}. A "
            "pad is soft at its loose end: measure it, with its board, where it is glued: the range of "
            f"{ruler.thin(thick.width)} falls to {ruler.thin(2 * BLOCK_READING_MM)}."
        )
        rules: tuple[Rule, ...] = (
            Rule("arithmetic", "sheets and backing"),
            Rule("BACKING_MM", "a backing board of 0.5 to 1.2 mm, no source"),
        )
    else:
        how = (
            f"You measured {ruler.thin(read)}. From its sheets it is estimated at "
            f"{ruler.between(estimated.low, estimated.high)}."
        )
        rules = (Rule("measured by you", "the pad with its board"),)
    count = _count(leaves)
    step = _measuring()
    return Block(
        key_figure=count,
        figures=(
            count,
            Figure(key="thickness", label="thickness", value=thick, show="thin", how=how, rules=rules),
        ),
        checks=_checks(pages, left, estimated),
        steps=(step,),
        unit="pad",
        units=(Unit(thick, 1.0),),
        leaves=leaves,
        leaf_width_mm=brief.leaf_width_mm,
        leaf_height_mm=brief.leaf_height_mm,
        thickness=thick,
        measured=read is not None,
        stands_out_mm=None,
        swatch=leaf.swatch,
        sides=leaf.sides,
    )


def _measuring() -> Step:
    """The step in which a pad is measured."""
    return Step(
        key="measure",
        title="Measure the pad",
        detail="With its board, where it is glued, between two rules. Type what you read under Pages.",
        tools=("caliper or ruler",),
        gives=("block.measured", "block.sewn"),
        kind="measure",
        reading="pages.measured_block_mm",
    )


def _count(leaves: int) -> Figure:
    """How many leaves it has."""
    return Figure(
        key="count",
        label="in the pad",
        value=f"{leaves} leaves",
        show="text",
        how=f"{leaves} leaves, {2 * leaves} pages; bought as it is.",
        rules=(Rule("chosen by you", "the pad"),),
        scrap=f"{leaves} leaves",
    )


def _checks(pages: Pad, left: LeftOfPages, estimated: Estimate) -> tuple[Check, ...]:
    """A reading that cannot be of this pad."""
    read, ruler = pages.measured_block_mm, left.brief.ruler
    if read is None or not estimated.questions(read):
        return ()
    return (
        Check(
            code="A9",
            level="watch",
            title=f"The pad measures {ruler.thin(read)}; from its sheets it would be "
            f"{ruler.between(estimated.low, estimated.high)}.",
            why="One of the two is wrong: the count, the paper's thickness, or the reading.",
            offers=(Offer(label="forget the reading", changes=(("pages.measured_block_mm", None),)),),
        ),
    )


KIND: Final = BlockKind(
    name="pad",
    title="a bought pad",
    summary="A glued pad of paper with its board; it gets a cover.",
    record=Pad,
    compute=compute,
    roles=("leaf",),
    unit="pad",
)
