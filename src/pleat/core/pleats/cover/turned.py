"""Boards that are covered: the turn-in and the cut corner, what can go wrong with them (slip E3), and the
steps that every covered board takes."""

from __future__ import annotations

from pleat.core.base.cautions import KNIFE, WEIGHT
from pleat.core.base.plan import Check, Figure, Offer, Rule, Step, signature
from pleat.core.base.scenes import SceneMaker
from pleat.core.base.units import Ruler
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.cases import CORNER_BOARDS, TURN_IN_MM
from pleat.core.trade.making import COVERING_DRIES_MINUTES


def corner_for(board_mm: float, covering_mm: float) -> float:
    """How far off the board's corner the covering is cut, in the middle of what is usual; ``board_mm`` with
    the padding on it, all that the covering goes round."""
    return sum(CORNER_BOARDS) / 2 * board_mm + covering_mm


def corner_span(board_mm: float, covering_mm: float) -> tuple[float, float]:
    """The least and the most of it in mm."""
    low, high = (part * board_mm + covering_mm for part in CORNER_BOARDS)
    return low, high


def turn_in_check(ruler: Ruler, turn_in_mm: float, half_mm: float) -> Check | None:
    """E3: a turn-in too short to hold, or so long that those from opposite sides meet; ``half_mm`` is half of
    the board's shorter side."""
    usual = min(TURN_IN_MM[1], half_mm - 1)
    again = (
        (Offer(label=f"turn-in {ruler.show(usual)}", changes=(("cover.turn_in_mm", usual),)),)
        if usual >= TURN_IN_MM[0]
        else ()
    )
    no_fix = "" if again else "The boards are too small for one that holds: take a larger leaf."
    if turn_in_mm < TURN_IN_MM[0]:
        why = (
            f"With less than {ruler.show(TURN_IN_MM[0])} it comes off the inside of the board; the usual "
            f"one is {ruler.between(15.0, 20.0, Ruler.show)}."
        )
        return Check(
            code="E3",
            level="watch",
            title=f"The turn-in is too short to hold: {ruler.show(turn_in_mm)}.",
            why=why,
            offers=again,
            no_fix=no_fix,
        )
    if turn_in_mm > half_mm:
        why = (
            "Turn-ins from opposite edges lie on each other and make a step; half the board is "
            f"{ruler.show(half_mm)}."
        )
        return Check(
            code="E3",
            level="stop",
            title=f"The turn-in is longer than half the board: {ruler.show(turn_in_mm)}.",
            why=why,
            offers=again,
            no_fix=no_fix,
        )
    return None


def corner_check(ruler: Ruler, own_mm: float | None, board_mm: float, covering_mm: float) -> Check | None:
    """E3: the corner of the covering cut too near to the board's, or too far; None for one that Pleat
    places."""
    low, high = corner_span(board_mm, covering_mm)
    if own_mm is None or low - ruler.thin_mm <= own_mm <= high + covering_mm + ruler.thin_mm:
        return None
    near = own_mm < low
    corner = "near" if near else "far from"
    effect = "The board shows at the corner" if near else "What is left makes a lump at the corner"
    return Check(
        code="E3",
        level="watch",
        title=f"The corners are cut too {corner} the board's: {ruler.thin(own_mm)}.",
        why=f"{effect}; {ruler.between(low, high)} is right for this board and covering.",
        offers=(
            Offer(
                label=f"cut them {ruler.thin(corner_for(board_mm, covering_mm))} off",
                changes=(("cover.corner_mm", None),),
            ),
        ),
    )


def backed_check(covering: Stock) -> Check | None:
    """Cloth without a backing, through which the glue comes; padded boards are held by their turn-ins
    alone."""
    if covering.backed:
        return None
    return Check(
        code="backed",
        level="watch",
        title=f"{covering.name} is not backed: glue comes through to its right side.",
        why="Iron or paste thin paper on its back before it is cut, or take a covering that has one.",
        offers=(Offer(label="it is backed", changes=((f"paper.{covering.key}.backed", "yes"),)),),
    )


def bare_inside(line: Offer) -> Check:
    """Unequal layers either side of a board: it warps as the glue dries; ``line`` is the lining that balances
    it."""
    return Check(
        code="warp",
        level="watch",
        title="The boards will warp: they are covered outside and bare inside.",
        why="The covering shrinks as its glue dries and bends the board towards itself. A lining of like "
        "weight, glued with its grain the same way, bends it back.",
        offers=(line,),
    )


def corner_figure(ruler: Ruler, clear_mm: float, board_mm: float, covering_mm: float) -> Figure:
    return Figure(
        key="corner",
        label="cut corners off the board by",
        value=clear_mm,
        show="thin",
        how=f"At 45 degrees. Between {CORNER_BOARDS[0]:g} and {CORNER_BOARDS[1]:g} times the "
        f"{ruler.thin(board_mm)} it goes round, and the covering's own: "
        f"{ruler.between(*corner_span(board_mm, covering_mm))}. Nearer shows the board, farther makes a "
        "lump.",
        rules=(Rule("CORNER_BOARDS", "1.5 to 2 board thicknesses, no source"),),
    )


def cut_corners(ruler: Ruler, clear_mm: float, shows: SceneMaker) -> Step:
    return Step(
        key="cut_corners",
        title="Cut the corners of the covering",
        detail=f"At 45 degrees, {ruler.thin(clear_mm)} off each corner of the boards. Nearer shows the "
        "board, farther makes a lump.",
        tools=("knife", "corner template"),
        needs=("board.glued",),
        gives=("corner.cut",),
        cautions=(KNIFE,),
        signature=signature(clear_mm),
        kind="cut",
        then=("turn_in",),
        shows=shows,
    )


def turn_in(words: str, shows: SceneMaker) -> Step:
    return Step(
        key="turn_in",
        title="Turn the covering in",
        detail=words,
        tools=("brush", "bone folder"),
        needs=("corner.cut",),
        gives=("covering.turned",),
        fixes=("cover.*",),
        tags=frozenset({"glue"}),
        minutes=8,
        kind="cover",
        then=("line_spine", "filler", "press_joints", "liners", "dry_cover"),
        shows=shows,
    )


def dry(needs: tuple[str, ...], shows: SceneMaker) -> Step:
    return Step(
        key="dry_cover",
        title="Dry the cover flat under weight",
        detail="Open, between waste paper and two flat boards, until it no longer feels cold.",
        tools=("boards", "weight"),
        needs=needs,
        gives=("cover.dry",),
        tags=frozenset({"glue"}),
        wait_minutes=COVERING_DRIES_MINUTES,
        cautions=(WEIGHT,),
        kind="press",
        weights=True,
        shows=shows,
    )
