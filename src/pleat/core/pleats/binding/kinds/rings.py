"""Loose leaves on one to four separate rings that open."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.plan import Count, Rule
from pleat.core.base.words import many
from pleat.core.engines.holes.places import ISO_838, centred, folded, inset
from pleat.core.pleats.binding.punched import capacity, gear
from pleat.core.pleats.binding.punched.places import read
from pleat.core.pleats.binding.punched.record import Gear, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.trade.holes import RING_HOLE_MM, RING_INSET_MM, RINGS_SOLD_MM

FOLDED: Final = Rule(
    "quarter_points",
    "two rings at the quarter points, found by folding a strip in half and half again; no source",
)


class Rings(Gear):
    """Separate rings: how many, how wide inside and of which wire."""

    kind: Literal["rings"] = "rings"
    count: Annotated[int, NumberRule("rings", 1, 4, whole=True)] = 2
    inner_mm: Annotated[float, LengthRule("the rings' inner diameter", 6, 150)] = 25.0
    wire_mm: Annotated[float, LengthRule("the rings' wire", 0.5, 10, fine=True)] = 2.2
    spread: Annotated[
        Literal["folded", "ends", "iso", "corner"],
        ChoiceRule(
            "holes lie",
            (
                ("folded", "where a folded strip has its folds"),
                ("ends", "so far from the ends"),
                ("iso", "80 mm apart, as filing holes"),
                ("corner", "in the corner at the head"),
            ),
        ),
    ] = "folded"
    end_mm: Annotated[float, LengthRule("the outermost holes from the ends", 5, 300)] = 30.0


def usual(binding: Rings, edge: float) -> Usual:
    """Where these rings have their holes along an edge so long."""
    match binding.spread:
        case "iso":
            return Usual(
                centred(edge, (80.0,) * (binding.count - 1)),
                RING_HOLE_MM,
                12.0,
                ISO_838,
                "80 mm apart, centred on the edge.",
            )
        case "ends":
            how = "The outermost as far from the ends as you said, the others between them."
            return Usual(
                inset(edge, binding.count, min(binding.end_mm, edge / 2)),
                RING_HOLE_MM,
                RING_INSET_MM,
                Rule("chosen by you", "the outermost holes"),
                how,
            )
        case "corner" if binding.count == 1:
            return Usual(
                (RING_INSET_MM,),
                RING_HOLE_MM,
                RING_INSET_MM,
                Rule("corner_ring", "one ring in the corner, as far from head as from edge"),
                "As far from the head as from the edge.",
            )
    return Usual(
        folded(edge, binding.count),
        RING_HOLE_MM,
        RING_INSET_MM,
        FOLDED,
        "Fold a strip as long as the edge: each ring in the middle of its share.",
    )


def compute(binding: Rings, left: LeftOfBinding) -> PunchedResult:
    """Where the holes go, and whether the rings hold the leaves and let them turn."""
    bored = bore(binding, left, lambda edge: usual(binding, edge))
    ring, owned = (
        capacity.ring_of(bored, binding.inner_mm, binding.wire_mm),
        gear.ring_sizes(bored, "ring", RINGS_SOLD_MM, "rings"),
    )
    ruler, word = left.brief.ruler, "ring" if binding.count == 1 else "rings"
    name = binding.gear or f"ring, {ruler.show(binding.inner_mm)} inside"
    covered = bored.covers > 0
    first = (
        "the front cover first, face down, then the leaves in order, face down, the back cover last"
        if covered
        else "the first leaf first, face down, then the others in order"
    )
    return result(
        bored,
        PunchedSpec(
            title=f"{binding.count} {word}",
            figures=(
                *capacity.figures(bored, ring, word),
                gear.figure(
                    name,
                    binding.count,
                    f"Inner diameter {ruler.show(binding.inner_mm)}, wire {ruler.thin(binding.wire_mm)}. "
                    "Measure yours: wire and diameter decide what they hold.",
                ),
            ),
            checks=capacity.check(bored, ring, word, owned),
            offers=capacity.offers(bored, ring, owned),
            parts=(
                Count(
                    key="rings",
                    name=name,
                    count=binding.count * left.brief.quantity,
                    stock=binding.stock_id or "",
                ),
            ),
            hang=(
                f"Hang the leaves on the {word}",
                f"{many(binding.count, 'ring')} open on the table, points up: {first}. Shut them, and turn "
                "every leaf right round once.",
                (name,),
                5,
            ),
            cautions=(
                "Rings snap shut: keep fingers out from between their ends. Small rings are not for small "
                "children.",
            ),
            cross=capacity.cross_of(bored, ring),
            thick_mm=binding.wire_mm,
            more=(name, str(binding.count)),
        ),
    )


KIND: Final = gear.kind(
    name="rings",
    title="separate rings",
    summary="One to four rings that open; leaves come and go, and turn right round.",
    record=Rings,
    compute=compute,
    read=read(usual),
    suits=gear.suits("leaves come and go, and turn right round"),
)
