"""Leaves on a brad in one corner, with a loop of card that carries a key ring: tags, queue cards, a book for
the pocket."""

from __future__ import annotations

import math
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import PUNCH
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Count, Figure, Offer, Part, Piece, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.places import read
from pleat.core.pleats.binding.punched.record import Bored, HolesByHand, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.trade.holes import BRAD_LEG_MM, KEYRING_CLEAR_MM, LOOP_LAP_MM


class KeyRing(HolesByHand):
    """A brad, a loop and a ring; the loop is of the cover's card."""

    kind: Literal["keyring"] = "keyring"
    inner_mm: Annotated[float, LengthRule("the key ring's inner diameter", 6, 80)] = 25.0
    wire_mm: Annotated[float, LengthRule("the key ring's wire", 0.5, 8, fine=True)] = 2.4
    loop_wide_mm: Annotated[float, LengthRule("the loop's width", 5, 60)] = 14.0
    brad_mm: Annotated[float, LengthRule("the brad's legs", 3, 60)] = 15.0
    loop_eyelets: Annotated[
        Literal["yes", "no"],
        ChoiceRule("eyelets in the loop's ends", (("yes", "yes"), ("no", "no, the bare card"))),
    ] = "yes"


def usual(_binding: KeyRing, edge: float) -> Usual:
    at = min(9.0, edge / 2)
    return Usual(
        (at,),
        4.0,
        9.0,
        Rule("corner_hole", "one hole in the corner, as far from head as from edge"),
        "As far from the head as from the edge.",
    )


def loop_length(binding: KeyRing, inset: float, card: float) -> float:
    """From end to end, in mm: a lap, to the edge and clear of it, half round the ring's wire, and back
    (arithmetic)."""
    return 2 * (LOOP_LAP_MM + inset + KEYRING_CLEAR_MM) + math.pi * (binding.wire_mm + card) / 2


def compute(binding: KeyRing, left: LeftOfBinding) -> PunchedResult:
    """The hole, the loop, the brad."""
    bored, ruler = bore(binding, left, lambda edge: usual(binding, edge)), left.brief.ruler
    card = left.paper.cover.caliper.likely
    long = ruler.snap_up(loop_length(binding, bored.inset, card))
    stack = bored.stack + 2 * card
    loop = Figure(
        key="loop",
        label="cut the loop",
        value=(binding.loop_wide_mm, long),
        show="size",
        how=f"Twice {ruler.show(LOOP_LAP_MM)} past the hole + {ruler.show(bored.inset)} to the edge + "
        f"{ruler.show(KEYRING_CLEAR_MM)} clear of it, and half round the ring's wire of "
        f"{ruler.thin(binding.wire_mm)}; at the next mark {ruler.show(long)}.",
        rules=(
            Rule("arithmetic", "the way of the strip"),
            Rule("LOOP_LAP_MM", "6 to 10 mm past the hole, no source"),
        ),
        scrap=f"loop {ruler.size(binding.loop_wide_mm, long)}",
    )
    brad = Figure(
        key="brad",
        label="brad's legs, at least",
        value=stack + BRAD_LEG_MM,
        show="thin",
        how=f"Leaves and covers {ruler.thin(bored.stack)}, both ends of the loop {ruler.thin(2 * card)}, and "
        f"{ruler.show(BRAD_LEG_MM)} to fold over.",
        rules=(Rule("arithmetic", "what it goes through"),),
    )
    books = left.brief.quantity
    covers = "covers outermost; " if bored.covers else ""
    return result(
        bored,
        PunchedSpec(
            title="brad and key ring",
            figures=(loop, brad),
            checks=_checks(binding, bored, stack),
            parts=_pieces(long, books, binding, ruler, bored),
            steps=_loop_step(binding, bored, long),
            hang=(
                "Close the loop and the brad",
                "The loop through the key ring, its ends on either side of the stack, holes on the hole; "
                f"{covers}the brad from the front through all of it, "
                "its legs spread behind. Fan the leaves out once.",
                ("brad", "key ring"),
                5,
            ),
            cautions=(
                PUNCH,
                "A brad's legs are sharp: bend them flat and tap them down. Brads and small "
                "rings are not for small children.",
            ),
            what="brad",
            thick_mm=binding.wire_mm,
            sticks_mm=KEYRING_CLEAR_MM + binding.inner_mm / 2,
            look="all fanned out without tearing",
            more=(str(long),),
        ),
    )


def _pieces(long: float, books: int, binding: KeyRing, ruler: Ruler, bored: Bored) -> tuple[Piece, ...]:
    """What is cut and counted out for the loop, the brad and the ring."""
    return (
        Part(
            key="loop",
            name="loop for the key ring",
            width_mm=binding.loop_wide_mm,
            height_mm=long,
            count=books,
            stock="cover",
            across="it cracks where it goes round the ring",
        ),
        Count(key="ring", name=f"key ring, {ruler.show(binding.inner_mm)} inside", count=books, stock=""),
        Count(key="brad", name=f"brad, legs of {ruler.show(binding.brad_mm)}", count=books, stock="brad"),
        *(
            (
                Count(
                    key="eyelets",
                    name=f"eyelet for holes of {ruler.thin(bored.hole)}",
                    count=2 * books,
                    stock="eyelet",
                ),
            )
            if binding.loop_eyelets == "yes"
            else ()
        ),
    )


def _loop_step(binding: KeyRing, bored: Bored, long: float) -> tuple[Step, ...]:
    ruler = bored.left.brief.ruler
    eyelets = " Set an eyelet in each." if binding.loop_eyelets == "yes" else ""
    return (
        Step(
            key="loop",
            title="Make the loop",
            detail=f"A strip of {ruler.size(binding.loop_wide_mm, long)}: a hole {ruler.show(LOOP_LAP_MM)} "
            f"from either end, in its middle.{eyelets} Bend it round a pencil.",
            tools=("paper punch", *(("eyelet tool",) if binding.loop_eyelets == "yes" else ())),
            needs=("cover.cut",),
            gives=("gear.ready",),
            fixes=("binding.loop",),
            cautions=(PUNCH,),
            signature=signature(long, binding.loop_wide_mm),
            kind="cut",
        ),
    )


def _checks(binding: KeyRing, bored: Bored, stack: float) -> tuple[Check, ...]:
    """D10: one hole that bears all, without an eyelet; a loop too narrow for its hole; a brad too short."""
    ruler, checks = bored.left.brief.ruler, []
    if binding.loop_eyelets == "no":
        checks.append(
            Check(
                code="D10",
                level="watch",
                title=f"One hole of {ruler.thin(bored.hole)} in a loop of card bears all the pull, with no "
                "eyelet.",
                why="The leaves swing on it and the ring pulls at the loop, which tears. An eyelet in each "
                "of its ends, with the brad through both, holds.",
                offers=(
                    Offer(label="eyelets in the loop's ends", changes=(("binding.loop_eyelets", "yes"),)),
                ),
            )
        )
    least = ruler.snap_up(bored.hole + 6)
    if binding.loop_wide_mm < bored.hole + 6 - 0.05:
        what = (
            f"The loop is {ruler.show(binding.loop_wide_mm)} wide, with a hole of "
            f"{ruler.thin(bored.hole)} in it."
        )
        wider = Offer(label=f"{ruler.show(least)} wide", changes=(("binding.loop_wide_mm", least),))
        checks.append(
            Check(
                code="D10",
                level="watch",
                title=what,
                why=f"Less than {ruler.show(3)} beside the hole tears out.",
                offers=(wider,),
            )
        )
    if binding.brad_mm < stack + BRAD_LEG_MM - 0.05:
        need = ruler.snap_up(stack + BRAD_LEG_MM)
        longer = (
            (Offer(label=f"legs of {ruler.show(need)}", changes=(("binding.brad_mm", need),)),)
            if need <= 60
            else ()
        )
        what = f"The brad's legs of {ruler.show(binding.brad_mm)} do not hold {ruler.thin(stack)}."
        checks.append(
            Check(
                code="D8",
                level="stop",
                title=what,
                why=f"They have to fold over by {ruler.show(BRAD_LEG_MM)} behind.",
                offers=longer,
                no_fix="" if longer else "Take fewer leaves.",
            )
        )
    return tuple(checks)


KIND: Final = gear.kind(
    name="keyring",
    title="brad and key ring",
    summary="One hole in the corner: the leaves fan out, a loop carries a key ring.",
    record=KeyRing,
    compute=compute,
    flat=False,
    read=read(usual),
    roles=("cover",),
    suits=gear.suits("leaves fan out from one corner", good_to=40, strength="light", minutes=0.3),
)
