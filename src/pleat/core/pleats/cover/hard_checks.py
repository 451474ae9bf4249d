"""What can go wrong with a hard cover: slips A1, A2, A3, A9, B9, C4, E1, E2, E3, E6 and F3, a joint that does
not open, boards that warp."""

from __future__ import annotations

from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.yields import both_ways
from pleat.core.pleats.cover import turned
from pleat.core.pleats.cover.fasteners import ON_FLAP, title
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.shell import Hard, Shell, joint_for
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.cases import BOARDS_TWINS_MM, HINGE_MEETS_MM, SEAM_MM, TURN_IN_MM
from pleat.core.trade.covers import SQUARES_UNEQUAL_MM, USUAL_SQUARE_MM


def find(cover: Hard, left: LeftOfCover, shell: Shell) -> tuple[Check, ...]:
    """Every check of this cover that has something to say."""
    ruler = left.brief.ruler
    found = (
        _sum(cover, ruler, shell),
        _twins(ruler, shell),
        _narrow(cover, left, shell),
        _squares(ruler, shell),
        _set_back(cover, ruler, shell),
        _creep(left, shell),
        turned.turn_in_check(ruler, cover.turn_in_mm, min(shell.front, shell.back, shell.height) / 2),
        turned.corner_check(ruler, cover.corner_mm, shell.board + shell.pad, shell.covering),
        _opens(cover, ruler, shell),
        _warps(cover, left, shell),
        _lined(cover, ruler, shell),
        _one_sided(cover, left),
        _needs_flap(cover, ruler, shell),
        _seam(cover, ruler, shell),
        None if shell.pad else turned.backed_check(left.paper.stock("covering")),
    )
    return tuple(check for check in found if check)


def _sum(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """A1: the covering as it is cut is not as wide as all that lies on it; E1 where just the joints were left
    out of the sum."""
    piece = cover.piece_width_mm
    if piece is None or abs(piece - shell.width) <= ruler.step_mm / 2 + 0.05:
        return None
    short = shell.width - piece
    gaps = abs(short - 2 * shell.joint) <= ruler.step_mm
    turn = ruler.snap_down(cover.turn_in_mm - short / 2)
    shown, whole = ruler.summed([column.size_mm for column in shell.columns])
    narrower = (
        (Offer(label=f"turn-in {ruler.show(turn)}", changes=(("cover.turn_in_mm", turn),)),)
        if TURN_IN_MM[0] <= turn <= 100
        else ()
    )
    fault = "narrow" if short > 0 else "wide"
    return Check(
        code="E1" if gaps else "A1",
        level="stop" if short > 0 else "watch",
        title=f"The covering you cut is {ruler.show(abs(short))} too {fault}"
        + (": both joints were left out of the sum." if gaps else "."),
        why=f"{' + '.join(shown)} = {whole} {ruler.name}; the piece is {ruler.show(piece)} wide."
        + (
            " Without the gaps the boards meet the strip, and the folds cannot come where the cover bends."
            if gaps
            else ""
        ),
        offers=(*narrower, Offer(label="cut a new covering", changes=(("cover.piece_width_mm", None),))),
    )


def _twins(ruler: Ruler, shell: Shell) -> Check | None:
    """A2: front and back board, which are meant to be equal."""
    if abs(shell.back - shell.front) <= BOARDS_TWINS_MM:
        return None
    low, high = sorted((shell.back, shell.front))
    return Check(
        code="A2",
        level="stop",
        title=f"Front and back board are not equal: {ruler.show(shell.back)} and {ruler.show(shell.front)}.",
        why=f"Shut, they do not lie on each other: one fore edge stands {ruler.show(high - low)} out.",
        offers=(
            Offer(
                label=f"trim both to {ruler.show(low)}",
                changes=(("cover.back_mm", low), ("cover.front_mm", low)),
            ),
            Offer(label="cut both anew", changes=(("cover.back_mm", None), ("cover.front_mm", None))),
        ),
    )


def _narrow(cover: Hard, left: LeftOfCover, shell: Shell) -> Check | None:
    """A9: a strip that was cut to another thickness than the spine has now; E1 where just the boards were
    left out of the sum. One that is wider because the hinge inside asks for it is right."""
    ruler, floor = left.brief.ruler, getattr(cover, "hinges_mm", None) or left.binding.floor_mm
    if (
        floor is not None
        and shell.strip > shell.needed
        and abs(shell.strip + 2 * shell.joint - floor) <= HINGE_MEETS_MM
    ):
        return None
    if cover.strip_mm is None or abs(shell.strip - ruler.snap_up(shell.needed)) <= ruler.step_mm + 0.05:
        return None
    off = shell.needed - shell.strip
    boards = cover.strip == "between" and abs(off - 2 * shell.board) <= max(ruler.step_mm, 0.15 * shell.board)
    return Check(
        code="E1" if boards else "A9",
        level="stop" if off > 0 else "watch",
        title=f"The spine strip is {ruler.show(shell.strip)}, and the spine takes "
        f"{ruler.show(ruler.snap_up(shell.needed))}.",
        why="Both boards were left out of its sum: it stands between them, so it has to be as wide as the "
        "block and they."
        if boards
        else "The strip and the spine are two sizes of one thing. A strip that is too narrow squeezes the "
        "block and springs the boards open.",
        offers=(Offer(label="cut a new strip", changes=(("cover.strip_mm", None),)),),
    )


def _squares(ruler: Ruler, shell: Shell) -> Check | None:
    """E2: no square, or very unequal ones."""
    fore, head = min(shell.squares), shell.square
    numbers = f"{ruler.show(fore)} at the fore edge, {ruler.show(head)} at head and tail"
    usual = Offer(
        label=f"square {ruler.show(USUAL_SQUARE_MM)} all round, new boards",
        changes=(
            ("cover.square_mm", USUAL_SQUARE_MM),
            ("cover.square_fore_mm", None),
            ("cover.back_mm", None),
            ("cover.front_mm", None),
        ),
    )
    if min(fore, head) < -0.05:
        return Check(
            code="E2",
            level="stop",
            title=f"Leaves stand out of the boards: {numbers}.",
            why="The boards are smaller than the leaves.",
            offers=(usual,),
        )
    if abs(fore - head) > SQUARES_UNEQUAL_MM:
        why = f"The eye sees a difference from about {ruler.show(SQUARES_UNEQUAL_MM)} on."
        return Check(
            code="E2",
            level="watch",
            title=f"The squares are very unequal: {numbers}.",
            why=why,
            offers=(usual,),
        )
    if head < 0.05 and fore < ruler.step_mm:
        why = (
            "Boards are there to guard the edges of the leaves. The usual square is "
            f"{ruler.show(USUAL_SQUARE_MM)}."
        )
        return Check(
            code="E2",
            level="watch",
            title="There is no square: the boards end with the leaves.",
            why=why,
            offers=(usual,),
        )
    return None


def _set_back(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """A9: joint and set-back say the same in two places, and differ."""
    asked = cover.set_back_mm
    if asked is None or cover.joint_mm is None or abs(shell.set_back - asked) <= ruler.step_mm:
        return None
    return Check(
        code="A9",
        level="watch",
        title=f"The boards' set-back is {ruler.show(asked)}; with a joint of {ruler.show(shell.joint)} it "
        f"comes to {ruler.show(shell.set_back)}.",
        why=f"The joint is the set-back and the {ruler.thin(shell.joint - shell.set_back)} of board that the "
        "covering goes round first. The joint counts.",
        offers=(
            Offer(
                label=f"joint {ruler.show(asked + shell.joint - shell.set_back)}",
                changes=(("cover.joint_mm", None),),
            ),
            Offer(
                label=f"set-back {ruler.show(max(shell.set_back, 0.0))}",
                changes=(("cover.set_back_mm", None),),
            ),
        ),
    )


def _creep(left: LeftOfCover, shell: Shell) -> Check | None:
    """C4: inner leaves stand out past the boards."""
    ruler, creep, fore = left.brief.ruler, left.pages.stands_out_mm, min(shell.squares)
    if creep is None or creep.high <= max(fore, 0.0) + 0.05:
        return None
    wanted = ruler.snap_up(creep.high)
    changes: Changes = (("cover.square_fore_mm", wanted), ("cover.back_mm", None), ("cover.front_mm", None))
    where = "at the fore edge"
    if (
        abs(wanted - shell.square) > SQUARES_UNEQUAL_MM
    ):  # else the next thing told would be that the squares differ
        changes, where = (
            (("cover.square_mm", wanted), ("cover.square_fore_mm", None), *changes[1:]),
            "all round",
        )
    offers = (
        (Offer(label=f"square {ruler.show(wanted)} {where}", changes=changes),)
        if wanted <= LARGEST_SQUARE_MM
        else ()
    )
    certainty = "will" if creep.likely > fore else "may"
    return Check(
        code="C4",
        level="watch" if creep.likely > fore else "note",
        title=f"Inner leaves {certainty} stand out past the boards: they "
        f"creep {ruler.between(creep.low, creep.high)}, the square is {ruler.thin(max(fore, 0))}.",
        why="The inner sheets have a longer way round the fold's outside layers and show at the fore edge.",
        offers=(*offers, *left.pages.level),
        no_fix=""
        if offers or left.pages.level
        else "Take fewer sheets in one fold: no square is wide enough.",
    )


def _opens(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """The joint is too narrow for the cover to open, or for the strip to go round at all."""
    usual = joint_for(shell.board, ruler)
    if cover.strip == "over" and usual < 2 * shell.board + ruler.step_mm:
        usual = ruler.snap_up(2 * shell.board + 2)
    changes: Changes = (
        ("cover.joint_mm", usual),
        *((("cover.set_back_mm", None),) if cover.set_back_mm is not None else ()),
    )
    offer = (
        (Offer(label=f"joint {ruler.show(usual)}", changes=changes),) if usual > shell.joint + 0.05 else ()
    )
    if shell.set_back < -0.05:
        return Check(
            code="joint",
            level="stop",
            title=f"The joint of {ruler.show(shell.joint)} is narrower than what it goes round.",
            why=f"The covering has to get past {ruler.thin(shell.joint - shell.set_back)} of board before it "
            "reaches the leaf.",
            offers=offer,
            no_fix="" if offer else "Take a thinner board.",
        )
    if shell.opens >= 170:
        return None
    return Check(
        code="joint",
        level="watch",
        title=f"The cover opens only to about {shell.opens:.0f} degrees: the joint is narrow for this board.",
        why="Opened further, the pasted-down leaf pulls at its fold. Usual are 7 to 10 mm, or 2 to 4 "
        f"thicknesses of the board, {ruler.between(2 * shell.board, 4 * shell.board, Ruler.show)}.",
        offers=offer,
        no_fix="" if offer else "Take a thinner board.",
    )


def _warps(cover: Hard, left: LeftOfCover, shell: Shell) -> Check | None:
    """Unequal layers either side of a board, or grains that cross: it warps as the glue dries."""
    paper, ends = left.paper, cover.ends
    crossed = [
        paper.stock(role).name
        for role, wide in (("board", shell.front), ("lining", shell.leaf[0] * 2))
        if (role != "lining" or ends == "endpapers") and _across(paper.stock(role), wide, shell.height)
    ]
    if ends == "bare":
        return turned.bare_inside(
            Offer(label="line them with endpapers", changes=(("cover.ends", "endpapers"),))
        )
    if crossed:
        return Check(
            code="warp",
            level="watch",
            title=f"Grains cross in the boards: {' and '.join(crossed)} lies across the spine.",
            why="Two layers that shrink in different ways twist the board. Every layer's grain runs along "
            "the spine.",
            no_fix="Take a sheet that gives the piece the other way round, under Paper; Cutting says how "
            "each piece lies.",
        )
    return None


def _across(stock: Stock, width: float, height: float) -> bool:
    better, _ = both_ways(
        width, height, stock.usable_width_mm, stock.usable_height_mm, stock.grain, stock.upright_only
    )
    return bool(better.count) and better.with_grain is False


def _lined(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """E6: no lining inside the spine."""
    if cover.spine_lining == "yes":
        return None
    return Check(
        code="E6",
        level="watch",
        title="Nothing lines the spine inside.",
        why=f"The covering alone carries the boards over two joints of {ruler.show(shell.joint)}, and its "
        "bare back shows when the book opens. The lining goes in before the block.",
        offers=(Offer(label="line the spine", changes=(("cover.spine_lining", "yes"),)),),
    )


def _one_sided(cover: Hard, left: LeftOfCover) -> Check | None:
    """B9: one-sided lining paper, of which one half is pasted down and the other shows both its sides."""
    stock = left.paper.stock("lining")
    if cover.ends != "endpapers" or stock.sides == 2:
        return None
    return Check(
        code="B9",
        level="watch",
        title=f"{stock.name} is good on one side, and the free half of an endpaper shows both.",
        why=f"Its blank side, {left.brief.ruler.size(left.pages.leaf_width_mm, left.pages.leaf_height_mm)}, "
        "faces the first leaf of the book.",
        offers=(
            Offer(label="both sides will do", changes=(("paper.lining.sides", 2),)),
            Offer(label="paste down the outermost leaves instead", changes=(("cover.ends", "leaves"),)),
        ),
    )


def _needs_flap(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """F3: magnets and dots have to lie on each other when shut, which the fore edges of two boards do not."""
    if cover.fastener not in ON_FLAP:
        return None
    return Check(
        code="F3",
        level="stop",
        title=f"There is nowhere for {title(cover.fastener)}: front and back never lie on each other.",
        why="Their halves meet only where a flap folds over the front; here "
        f"{ruler.thin(shell.spine.used.likely)} of block lie between the boards. A tie, elastic or a button "
        "and cord hold them.",
        offers=(
            Offer(label="elastic from the back", changes=(("cover.fastener", "elastic"),)),
            Offer(label="a tie through eyelets", changes=(("cover.fastener", "tie"),)),
        ),
    )


def _seam(cover: Hard, ruler: Ruler, shell: Shell) -> Check | None:
    """A seam that is wider than the strip it lies on comes into the joints."""
    if cover.seam != "joined" or shell.strip >= SEAM_MM:
        return None
    return Check(
        code="seam",
        level="note",
        title=f"The seam of {ruler.show(SEAM_MM)} is wider than the strip of {ruler.show(shell.strip)}.",
        why="It reaches into the joints, which bend less freely there. A seam at one joint, under a strip of "
        "the same covering, would be seen as well.",
        no_fix="Glue the overlap thin and press both joints with the bone folder while it is wet.",
    )
