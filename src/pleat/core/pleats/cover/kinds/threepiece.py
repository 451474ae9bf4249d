"""A three-piece album case: two boards and a spine board on a wrap that is joined from sheets, with narrow
gaps to bend in."""

from __future__ import annotations

import math
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.base.scenes import Lying
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.binding.hinged.record import HingedResult
from pleat.core.pleats.cover import hard, shell_scenes
from pleat.core.pleats.cover.hard import HardCoverSpec, HardResult
from pleat.core.pleats.cover.hard_steps import CoverWords
from pleat.core.pleats.cover.laid import Laid
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.shell import SEAMS, Hard, Seam, Shell
from pleat.core.trade.cases import GAP_BOARDS, HINGE_MEETS_MM, SEAM_MM
from pleat.core.trade.folding import LEAST_TAB_MM


class ThreePiece(Hard):
    """Pleat 6: a three-piece case; ``hinges_mm`` is the distance between the outer folds of the hinge strip
    that goes inside."""

    kind: Literal["threepiece"] = "threepiece"
    seam: Annotated[Seam, ChoiceRule("the wrap is", SEAMS)] = "joined"
    ends: Annotated[
        Literal["endpapers", "leaves", "bare"],
        ChoiceRule(
            "hung in by",
            (
                ("endpapers", "endpapers, half pasted down"),
                ("leaves", "the outermost leaves or hinges"),
                ("bare", "nothing yet"),
            ),
        ),
    ] = "leaves"
    border_mm: Annotated[float, LengthRule("the border round a liner", 0, 30)] = 3.0
    hinges_mm: Annotated[float, LengthRule("between the outer hinge folds inside", 3, 300)] | None = None
    liner_width_mm: Annotated[float, LengthRule("the liner's width as it is cut", 10, 1000)] | None = None


def compute(cover: ThreePiece, left: LeftOfCover) -> HardResult:
    """The three-piece case around the block."""
    gap = left.brief.ruler.snap_up(GAP_BOARDS * left.paper.stock("board").caliper.likely)
    return hard.compute(cover, left, _own, joint_mm=gap)


def _own(cover: ThreePiece, shell: Shell, left: LeftOfCover) -> HardCoverSpec:
    ruler, count = left.brief.ruler, left.brief.quantity
    covering, parts = hard.one_piece(cover, shell, left)
    liner = liner_size(cover, shell)
    at = shell.edges
    piece = board("liner", "lining", *liner)
    under = tuple(
        Laid(piece, x + cover.border_mm, shell.reach + cover.border_mm, "lining", "liners")
        for x in (at[1], at[5])
    )
    lining = Part(
        key="liners",
        name="liner",
        width_mm=liner[0],
        height_mm=liner[1],
        count=2 * count,
        stock="lining",
        needs=("board.cut",),
        across="it pulls the board across its grain",
    )
    bends = shell.strip + 2 * shell.joint
    figures = _figures(cover, shell, left, bends, liner, ruler)
    words = CoverWords(
        glue="The spine board first, centred on the seam; then the boards, a gap away on either side. Glue "
        "the boards, not the wrap."
    )
    line = Step(
        key="liners",
        title="Glue in the liners",
        detail=f"{ruler.size(*liner)}, a border of {ruler.show(cover.border_mm)} on each side, over what the "
        "block is hung in by.",
        tools=("brush",),
        needs=("book.hung", "lining.cut"),
        gives=("liner.in",),
        fixes=("cover.liners",),
        tags=frozenset({"glue"}),
        cautions=(GLUE,),
        signature=signature(*liner),
        kind="glue",
        shows=lambda: shell_scenes.liner_in(
            Lying("", 0.0, 0.0, shell.front, shell.height, stock="board"), *liner
        ),
        then=("dry_book",),
    )
    return HardCoverSpec(
        covering,
        (*parts, lining),
        under,
        figures=figures,
        checks=_checks(cover, shell, left, bends),
        steps=(line,),
        words=words,
    )


def _figures(
    cover: ThreePiece, shell: Shell, left: LeftOfCover, bends: float, liner: tuple[float, float], ruler: Ruler
) -> tuple[Figure, ...]:
    """Boards, gaps and liners."""
    return (
        Figure(
            key="bends",
            label="between the bending lines",
            value=bends,
            show="length",
            how=f"Spine board {ruler.number(shell.strip)} + 2 × gap {ruler.number(shell.joint)} = "
            f"{ruler.number(bends)} {ruler.name}: the outer folds of the hinge strip inside have to lie "
            "there, at the boards' edges.",
            rules=(Rule("arithmetic", "spine board and both gaps"),),
            scrap=ruler.show(bends),
        ),
        _sheets(cover, shell, left),
        Figure(
            key="liners",
            label="liners",
            value=liner,
            show="size",
            how=f"Board {ruler.size(shell.front, shell.height)} less a border of "
            f"{ruler.show(cover.border_mm)} on each side, not in all.",
            rules=(
                Rule("arithmetic", "board less two borders"),
                Rule("USUAL_BORDER_MM", "border 3 mm, no source"),
            ),
        ),
    )


def liner_size(cover: ThreePiece, shell: Shell) -> tuple[float, float]:
    """What a liner is cut to."""
    return cover.liner_width_mm or max(min(shell.front, shell.back) - 2 * cover.border_mm, 1.0), max(
        shell.height - 2 * cover.border_mm, 1.0
    )


def _sheets(cover: ThreePiece, shell: Shell, left: LeftOfCover) -> Figure:
    """How many sheets of what is owned the wrap takes, joined with the overlap."""
    ruler, stock = left.brief.ruler, left.paper.stock("covering")
    overlap = SEAM_MM
    ways = [
        max(1, math.ceil((shell.width - overlap) / (across - overlap)))
        for across, along in (
            (stock.usable_width_mm, stock.usable_height_mm),
            (stock.usable_height_mm, stock.usable_width_mm),
        )
        if along >= shell.wrap_height - 0.05 and across > overlap
    ]
    count = min(ways, default=0)
    joined = {
        "one": "in one piece",
        "joined": "in two halves that overlap",
        "joint": "in two pieces that overlap",
    }[cover.seam]
    least = (
        f"At least {count} of {stock.name}, overlapping {ruler.show(overlap)}"
        if count
        else f"No piece of {stock.name} is as high as the wrap"
    )
    return Figure(
        key="sheets",
        label="the wrap is cut",
        value=joined,
        show="text",
        how=f"{least}. A seam on the spine board is glued flat, and no fold crosses it.",
        rules=(
            Rule("arithmetic", "wrap less overlaps, divided by the sheet"),
            Rule("SEAM_MM", "overlap 10 to 20 mm, no source"),
        ),
    )


def _checks(cover: ThreePiece, shell: Shell, left: LeftOfCover, bends: float) -> tuple[Check, ...]:
    return tuple(
        check for check in (_hinges(cover, shell, left, bends), *liner_checks(cover, shell, left)) if check
    )


def _hinges(cover: ThreePiece, shell: Shell, left: LeftOfCover, bends: float) -> Check | None:
    """E1: the hinge folds inside do not lie where the cover bends. Flanges that reach over the slack still
    hold, and only want saying."""
    ruler, own = left.brief.ruler, left.binding.floor_mm if cover.hinges_mm is None else cover.hinges_mm
    if own is None or abs(own - bends) <= HINGE_MEETS_MM:
        return None
    gaps = abs(own - shell.strip) <= HINGE_MEETS_MM
    spine = own - 2 * shell.joint
    fits = spine + 0.05 >= shell.needed
    wide = (
        (Offer(label=f"spine board {ruler.show(spine)}", changes=(("cover.strip_mm", spine),)),)
        if fits and spine <= 200
        else ()
    )
    offers = (*wide, *_other_hinge(cover, left, bends))
    slack = (bends - own) / 2
    flange = (
        left.binding.flange_mm if isinstance(left.binding, HingedResult) and cover.hinges_mm is None else 0.0
    )
    holds = slack > 0 and flange - slack >= LEAST_TAB_MM
    comes = (
        f"The flanges of {ruler.show(flange)} reach over {ruler.thin(slack)} at either side, and "
        f"{ruler.thin(flange - slack)} of them are left on each board: it holds, and the folds lie inside "
        "the gaps."
        if holds
        else "Where they do not meet, the hinge strip lifts off or the cover will not shut."
    )
    return Check(
        code="E1",
        level="watch" if holds else "stop",
        title=f"The hinge folds inside lie {ruler.show(own)} apart, the cover bends {ruler.show(bends)} apart"
        + (": both gaps were left out of the sum." if gaps else "."),
        why=f"Spine board {ruler.number(shell.strip)} + 2 × gap {ruler.number(shell.joint)} = "
        f"{ruler.number(bends)} {ruler.name}. {comes}",
        offers=offers,
        no_fix="" if offers else "Make the hinge anew, or the case: neither can take up so much.",
    )


def _other_hinge(cover: ThreePiece, left: LeftOfCover, bends: float) -> tuple[Offer, ...]:
    """A hinge that meets the bending lines: one that was typed here is made anew, the ends of one from
    Binding take what is missing."""
    ruler, floor = left.brief.ruler, left.binding.floor_mm
    if floor is None or cover.hinges_mm is not None:
        return (
            Offer(
                label=f"make the hinge strip {ruler.show(bends)} between its outer folds",
                changes=(("cover.hinges_mm", bends),),
            ),
        )
    if not isinstance(left.binding, HingedResult):
        return ()
    end = left.binding.end_mm + (bends - floor) / 2
    return (
        (
            Offer(
                label=f"ends of the hinge {ruler.show(end)}: half the difference each",
                changes=(("binding.end_mm", end),),
            ),
        )
        if 0 <= end <= 80
        else ()
    )


def liner_checks(cover: ThreePiece, shell: Shell, left: LeftOfCover) -> tuple[Check, ...]:
    """A4, A5 and A7: a liner as wide as its board, one liner for boards that differ, a border taken once
    instead of on each side."""
    ruler, own, checks = left.brief.ruler, cover.liner_width_mm, []
    narrow, wide = sorted((shell.back, shell.front))
    right = Offer(
        label=f"cut it {ruler.show(max(narrow - 2 * cover.border_mm, 1.0))}",
        changes=(("cover.liner_width_mm", None),),
    )
    if (own or narrow - 2 * cover.border_mm) >= narrow - 0.05:
        usual = Offer(
            label="a border of " + ruler.show(3.0),
            changes=(("cover.border_mm", 3.0), ("cover.liner_width_mm", None)),
        )
        checks.append(
            Check(
                code="A4",
                level="watch",
                title=f"The liner is as wide as the board: {ruler.show(own or narrow)} on "
                f"{ruler.show(narrow)}.",
                why="Without a border it reaches into the gap, where the cover bends, and its edge shows "
                "past the board.",
                offers=(usual,) if cover.border_mm < 0.05 else (right,),
            )
        )
    elif (
        own is not None
        and cover.border_mm >= 0.5
        and abs(own - (narrow - cover.border_mm)) <= ruler.step_mm / 2 + 0.05
    ):
        checks.append(
            Check(
                code="A7",
                level="watch",
                title=f"The liner leaves {ruler.show(cover.border_mm)} in all; the border is "
                f"{ruler.show(cover.border_mm)} on each side.",
                why=f"Board {ruler.number(narrow)} − 2 × {ruler.number(cover.border_mm)} = "
                f"{ruler.number(narrow - 2 * cover.border_mm)} {ruler.name}.",
                offers=(right,),
            )
        )
    if wide - narrow > 0.5:
        checks.append(
            Check(
                code="A5",
                level="watch",
                title=f"One size of liner for two sizes of board: {ruler.show(narrow)} and "
                f"{ruler.show(wide)}.",
                why=f"On the wider one its border is {ruler.show(wide - narrow)} more than on the other.",
                offers=(
                    Offer(
                        label="boards of one size",
                        changes=(("cover.back_mm", None), ("cover.front_mm", None)),
                    ),
                ),
            )
        )
    return tuple(checks)


KIND: Final = CoverKind(
    name="threepiece",
    title="three-piece album case",
    summary="Two boards and a spine board on a wrap joined from sheets, with narrow gaps to bend in.",
    record=ThreePiece,
    compute=compute,
    roles=("board", "covering", "lining"),
    takes=frozenset({"block", "spine", "hinge", "ends"}),
    hung=True,
    traits=Traits(glue=True),
)
