"""Single leaves, cut and stacked: for whatever is held along an edge by rings, wire, posts, or a stick."""

from __future__ import annotations

import math
from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Changes, Check, Figure, Offer, Part, Piece, Rule, Step, signature
from pleat.core.base.staged import clipped
from pleat.core.base.words import by_count, many
from pleat.core.materials.uses import good_for
from pleat.core.pleats.pages import choices
from pleat.core.pleats.pages.block import Block, BlockKind, LeftOfPages, Unit
from pleat.core.trade.pages import BLOCK_READING_MM, LAY_FACTORS, STIFF_STACK_MM
from pleat.core.trade.paper import USES_MM


class Leaves(Member):
    """Pleat 3, single leaves of one paper; some of them may be of another size. ``middle_mm`` is what is
    glued on all of them together adds away from the holes."""

    kind: Literal["leaves"] = "leaves"
    amount: Annotated[int, NumberRule("how many", 1, 2000, whole=True)] = 40
    counted_in: Annotated[
        Literal["leaves", "pages", "unsaid", "folios"],
        ChoiceRule(
            "counted in",
            (("leaves", "leaves"), ("pages", "pages"), ("unsaid", "not said"), ("folios", "sheets")),
        ),
    ] = "leaves"
    lay: Annotated[
        Literal["flat", "handled", "crumpled"],
        ChoiceRule(
            "they lie",
            (("flat", "new and flat"), ("handled", "handled or painted"), ("crumpled", "crumpled")),
        ),
    ] = "flat"
    odd_amount: Annotated[int, NumberRule("leaves of another size", 0, 500, whole=True)] = 0
    odd_width_mm: Annotated[float, LengthRule("their width", 20, 600)] | None = None
    odd_height_mm: Annotated[float, LengthRule("their height", 20, 600)] | None = None
    odd_at: Annotated[
        Literal["middle", "head", "tail"],
        ChoiceRule("they lie at the", (("middle", "middle of the edge"), ("head", "head"), ("tail", "tail"))),
    ] = "middle"
    middle_mm: Annotated[float, LengthRule("pockets and the like add in the middle", 0, 200)] = 0.0
    measured_block_mm: Annotated[float, LengthRule("the measured stack", 0.2, 300)] | None = None


def leaves_of(pages: Leaves) -> int:
    """How many leaves there are: half as many as pages, where they were counted so."""
    return max(1, -(-pages.amount // 2)) if pages.counted_in in ("pages", "unsaid") else pages.amount


def odd_of(pages: Leaves) -> int:
    """Leaves of another size; never all of them."""
    return min(pages.odd_amount, leaves_of(pages) - 1)


def odd_size(pages: Leaves, width_mm: float, height_mm: float) -> tuple[float, float]:
    """The size of the odd leaves in mm: what is not said of it is that of the others."""
    return pages.odd_width_mm or width_mm, pages.odd_height_mm or height_mm


class LeavesBlock(Block):
    """A block of single leaves."""


def compute(pages: Leaves, left: LeftOfPages) -> LeavesBlock:
    """The leaves as a block: each is a unit by itself."""
    brief, leaf = left.brief, left.paper.leaf
    count = leaves_of(pages)
    estimated = leaf.caliper.times(count).multiplied(
        Estimate.ranged(*LAY_FACTORS[pages.lay], "how flat the leaves lie")
    )
    read = pages.measured_block_mm
    thick = (
        estimated
        if read is None
        else Estimate(read, {"your reading of the stack": (BLOCK_READING_MM, BLOCK_READING_MM)})
    )
    size = (brief.leaf_width_mm, brief.leaf_height_mm)
    odd = odd_of(pages)
    return LeavesBlock(
        key_figure=_count(count),
        figures=(_count(count), *_odd(pages, left), _thickness(pages, left, thick, estimated)),
        checks=tuple(
            check
            for check in (
                _heavy(pages, left, count, (thick, estimated)),
                _unsaid(pages, count),
                _misread(pages, left, estimated),
            )
            if check
        ),
        offers=() if odd else tuple(choices.near(left, 0, count)),
        parts=_parts(pages, left, count - odd, odd),
        steps=(_stack(left, count, odd),),
        unit="leaf",
        units=(Unit(leaf.caliper, 1.0),) * count,
        leaves=count,
        leaf_width_mm=size[0],
        leaf_height_mm=size[1],
        thickness=thick,
        measured=read is not None,
        stands_out_mm=None,
        swatch=leaf.swatch,
        sides=leaf.sides,
        middle_mm=pages.middle_mm,
        odd=tuple([(*odd_size(pages, *size), pages.odd_at)] * bool(odd)),
        cut_signature=signature(*size, count, odd, *odd_size(pages, *size)),
    )


def _count(count: int) -> Figure:
    return Figure(
        key="count",
        label="in a stack",
        value=many(count, "leaf", "leaves"),
        show="text",
        how=f"{many(count, 'leaf', 'leaves')} {by_count(count, 'is', 'are')} {2 * count} pages: each leaf "
        "is a page on either side.",
        rules=(Rule("arithmetic", "a leaf has two pages"),),
        aside=f"{2 * count} pages",
        scrap=f"{many(count, 'leaf', 'leaves')}, {2 * count} pages",
    )


def _odd(pages: Leaves, left: LeftOfPages) -> tuple[Figure, ...]:
    odd = odd_of(pages)
    if not odd:
        return ()
    brief = left.brief
    size = odd_size(pages, brief.leaf_width_mm, brief.leaf_height_mm)
    at = {"middle": "in the middle of the edge", "head": "level at the head", "tail": "level at the tail"}[
        pages.odd_at
    ]
    return (
        Figure(
            key="odd",
            label=f"{many(odd, 'leaf', 'leaves')} of another size",
            value=size,
            show="size",
            how=f"Among the {leaves_of(pages)} leaves {odd} are of another size; they are punched {at}, by "
            "the same jig.",
            rules=(Rule("chosen by you", "leaves of another size"),),
        ),
    )


def _thickness(pages: Leaves, left: LeftOfPages, thick: Estimate, estimated: Estimate) -> Figure:
    ruler, count, leaf = left.brief.ruler, leaves_of(pages), left.paper.leaf
    middle = (
        f" In the middle, with what is glued on them, {ruler.thin(thick.likely + pages.middle_mm)}."
        if pages.middle_mm
        else ""
    )
    if pages.measured_block_mm is not None:
        how = (
            f"You measured {ruler.thin(thick.likely)}; by its leaves it is estimated at "
            f"{ruler.between(estimated.low, estimated.high)}.{middle}"
        )
        rules: tuple[Rule, ...] = (Rule("measured by you", "the stack, pressed by hand"),)
    else:
        how = (
            f"{count} × {ruler.fine(leaf.caliper.likely)}, {LAY_FACTORS[pages.lay][1]:g} times that as "
            f"they lie.{middle} Measure the stack once it is cut, and the range is "
            f"{ruler.thin(2 * BLOCK_READING_MM)}."
        )
        rules = (Rule("arithmetic", "leaves × thickness"), Rule("LAY_FACTORS", "how flat paper lies"))
    return Figure(
        key="thickness", label="thickness at the held edge", value=thick, show="thin", how=how, rules=rules
    )


def _parts(pages: Leaves, left: LeftOfPages, count: int, odd: int) -> tuple[Piece, ...]:
    brief = left.brief
    size = (brief.leaf_width_mm, brief.leaf_height_mm)
    along = brief.made_of.held_along
    across = "it curls away from the held edge and turns badly"
    parts = [
        Part(
            key="leaf",
            name="leaf",
            width_mm=size[0],
            height_mm=size[1],
            count=count * brief.quantity,
            stock="leaf",
            grain=along,
            across=across,
        )
    ]
    if odd:
        parts.append(
            Part(
                key="odd",
                name="leaf of the other size",
                width_mm=odd_size(pages, *size)[0],
                height_mm=odd_size(pages, *size)[1],
                count=odd * brief.quantity,
                stock="leaf",
                grain=along,
                across="it curls and turns badly",
            )
        )
    return tuple(parts)


def _stack(left: LeftOfPages, count: int, odd: int) -> Step:
    among = f" The {odd} of the other size where you want them." if odd else ""
    return Step(
        key="stack",
        title="Stack the leaves in order",
        detail=f"{many(count, 'leaf', 'leaves')}, all the same way up, knocked level at head and held "
        f"edge.{among} Press the stack by hand and measure it; type what you read under Pages.",
        tools=("ruler or caliper",),
        needs=("leaf.cut",),
        gives=("block.stacked", "block.measured"),
        signature=signature(count, odd, left.brief.leaf_height_mm),
        kind="nest",
        reading="pages.measured_block_mm",
        shows=lambda: clipped(left.brief.leaf_width_mm, left.brief.leaf_height_mm, "leaf", count),
    )


def _heavy(pages: Leaves, left: LeftOfPages, count: int, stack: tuple[Estimate, Estimate]) -> Check | None:
    """B11: stiff paper for many leaves: the book comes out too thick, and pages that do not bend fill a ring
    long before plain ones."""
    sheet, ruler, (thick, estimated) = left.paper.leaf.caliper, left.brief.ruler, stack
    if (
        sheet.likely <= USES_MM["leaves"][1]
        or thick.likely < STIFF_STACK_MM
        or left.paper.leaf.kind == "watercolour"
    ):
        return None
    uses = " and ".join(use for use in good_for(sheet) if use != "leaves") or "boards"
    usual = 0.1
    # as these leaves lie, not as flat ones would; the reading of the stack that is there is forgotten with it
    fewer = math.ceil(STIFF_STACK_MM * count / estimated.likely) - 1
    forget: Changes = (("pages.measured_block_mm", None),) if pages.measured_block_mm is not None else ()
    changes: Changes = (("pages.amount", fewer), ("pages.counted_in", "leaves"), *forget)
    return Check(
        code="B11",
        level="watch",
        title=f"{left.paper.leaf.name} is heavy for {count} leaves: one is {ruler.fine(sheet.likely)}, the "
        f"stack {ruler.thin(thick.likely)}.",
        why=f"As many leaves of {ruler.fine(usual)} would be {ruler.thin(count * usual)}. Leaves above "
        f"{ruler.fine(USES_MM['leaves'][1])} do not drape, and turn only on a score. Better kept for {uses}.",
        offers=(Offer(label=f"{many(fewer, 'leaf', 'leaves')} of it", changes=changes),)
        if 0 < fewer < count
        else (),
        no_fix="" if 0 < fewer < count else "Take a thinner paper, or make two books of it.",
    )


def _unsaid(pages: Leaves, count: int) -> Check | None:
    """A11: a count without its unit word."""
    if pages.counted_in != "unsaid":
        return None
    return Check(
        code="A11",
        level="note",
        title=f"You typed {pages.amount} without saying of what: taken as pages, that is "
        f"{many(count, 'leaf', 'leaves')}.",
        why=f"A leaf has two pages. {pages.amount} leaves would be {2 * pages.amount} pages, twice the "
        "paper.",
        offers=(
            Offer(label=f"yes, {pages.amount} pages", changes=(("pages.counted_in", "pages"),)),
            Offer(label=f"I meant {pages.amount} leaves", changes=(("pages.counted_in", "leaves"),)),
        ),
    )


def _misread(pages: Leaves, left: LeftOfPages, estimated: Estimate) -> Check | None:
    """A9: a reading that cannot be of this stack."""
    read, ruler = pages.measured_block_mm, left.brief.ruler
    if read is None or not estimated.questions(read):
        return None
    return Check(
        code="A9",
        level="watch",
        title=f"The stack measures {ruler.thin(read)}; by its leaves it would be "
        f"{ruler.between(estimated.low, estimated.high)}.",
        why="One of the two is wrong: the count, the paper's thickness, or the reading.",
        offers=(Offer(label="forget the reading", changes=(("pages.measured_block_mm", None),)),),
    )


KIND: Final = BlockKind(
    name="leaves",
    title="single leaves",
    summary="Leaves that are cut, not folded, for rings, wire, posts or a stick.",
    record=Leaves,
    compute=compute,
    roles=("leaf",),
    placed=("odd_width_mm", "odd_height_mm"),
    unit="leaf",
)
