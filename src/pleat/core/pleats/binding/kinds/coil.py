"""A coil screwed through a row of holes, four to the inch. Its pages shift by half a pitch when they are
opened."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.engines.holes.band import coil_hole
from pleat.core.pleats.binding.punched import capacity, gear
from pleat.core.pleats.binding.punched.record import Bored
from pleat.core.pleats.binding.punched.wound import Winding, Wound, compute, pitch_of
from pleat.core.trade.holes import COILS_SOLD_MM


class Coil(Wound):
    """A coil of wire or plastic."""

    kind: Literal["coil"] = "coil"
    per: Annotated[
        Literal["4:1", "own"], ChoiceRule("pitch", (("4:1", "4 to the inch"), ("own", "your own")))
    ] = "4:1"
    wire_mm: Annotated[float, LengthRule("the coil's thickness", 0.3, 6, fine=True)] = 1.8


def _own(binding: Wound, bored: Bored, nominal: float) -> tuple[tuple[Figure, ...], tuple[Check, ...]]:
    """The hole it still screws through, and how far pages shift."""
    ruler, pitch = bored.left.brief.ruler, pitch_of(binding)
    stack, radius = capacity.stack_at(bored), max(nominal / 2 - binding.wire_mm, 0.1)
    need = coil_hole(binding.wire_mm, pitch, stack, radius)
    figure = Figure(
        key="shift",
        label="pages shift when opened",
        value=pitch / 2,
        show="thin",
        how=f"Round the coil from one side to the other is half a turn, half a pitch of {ruler.thin(pitch)}: "
        "facing pages do not stand level. Running aslant through the stack it needs holes of "
        f"{ruler.thin(need)}; these are {ruler.thin(bored.hole)}.",
        rules=(Rule("arithmetic", "a turn of the coil climbs one pitch"),),
    )
    if bored.hole >= need - 1e-6:
        return (figure,), ()
    wider = ruler.snap_up(need)
    check = Check(
        code="D8",
        level="stop",
        title=f"The coil does not screw through holes of {ruler.thin(bored.hole)}: it needs "
        f"{ruler.thin(need)}.",
        why="It runs aslant through the stack, and the thicker the stack, the more.",
        offers=(Offer(label=f"punch holes of {ruler.thin(wider)}", changes=(("binding.hole_mm", wider),)),)
        if wider < pitch
        else (),
        no_fix="" if wider < pitch else "Take a thinner coil, or one of a wider pitch.",
    )
    return (figure,), (check,)


WINDING: Final = Winding(
    word="coil",
    sold=lambda _binding: COILS_SOLD_MM,
    hole=lambda _binding: 4.0,
    inset=lambda _binding: 6.0,
    shape="coil",
    closing="Screw it in from the head through hole after hole, lean the stack if it catches, and bend both "
    "ends in so that it cannot wander.",
    caution="Pliers pinch, and a cut end is sharp: bend it in, away from the page.",
    own=_own,
    coil=True,
)
KIND: Final = gear.kind(
    name="coil",
    title="coil",
    summary="One coil screwed through a row of holes; it gives way and springs back.",
    record=Coil,
    compute=partial(compute, WINDING),
    placed=(),
    suits=gear.suits("one coil along the edge, turns right round", good_to=300, minutes=0.2),
)
