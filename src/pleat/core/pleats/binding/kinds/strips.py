"""Hinged ring strips: three rings on a bar, one, two or three bars in a row; the bar says where the holes
are."""

from __future__ import annotations

import math
from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.plan import Changes, Check, Count, Offer, Rule
from pleat.core.base.words import by_count, many
from pleat.core.materials.items import Hardware
from pleat.core.pleats.binding.punched import capacity, gear
from pleat.core.pleats.binding.punched.checks import pitch_check
from pleat.core.pleats.binding.punched.gear import PunchPitch
from pleat.core.pleats.binding.punched.record import Gear, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.trade.holes import BARS_SOLD_MM, BETWEEN_BARS_MM


class Strips(Gear):
    """Bars with three rings each."""

    kind: Literal["strips"] = "strips"
    bars: Annotated[int, NumberRule("bars in a row", 1, 3, whole=True)] = 1
    pitch_mm: Annotated[float, LengthRule("rings on a bar are apart", 8, 150)] = 70.0
    bar_mm: Annotated[float, LengthRule("a bar's length", 30, 400)] = 180.0
    inner_mm: Annotated[float, LengthRule("the rings' inner diameter", 6, 150)] = 20.0
    wire_mm: Annotated[float, LengthRule("the rings' wire", 0.5, 10, fine=True)] = 2.0
    punch_pitch_mm: PunchPitch | None = None


def usual(binding: Strips, edge: float) -> Usual:
    """The rings of all bars, the row of bars centred on the edge."""
    whole = binding.bars * binding.bar_mm + (binding.bars - 1) * BETWEEN_BARS_MM
    middles = [
        (edge - whole) / 2 + binding.bar_mm / 2 + number * (binding.bar_mm + BETWEEN_BARS_MM)
        for number in range(binding.bars)
    ]
    rings = (middle + offset * binding.pitch_mm for middle in middles for offset in (-1, 0, 1))
    positions = tuple(
        ring for ring in rings if 0 <= ring <= edge
    )  # a bar that is too long is told: a ring past the edge makes no hole
    how = (
        "The bar says where: its rings about its middle, the row of bars centred, so that both ends have "
        "the same margin."
    )
    return Usual(positions, 6.0, 10.0, Rule("arithmetic", "the hardware's pitch, centred"), how, fixed=True)


def _long(binding: Strips, edge: float, show: str) -> tuple[Check, ...]:
    """Bars longer than the edge, or rings that run into the next bar's."""
    whole = binding.bars * binding.bar_mm + (binding.bars - 1) * BETWEEN_BARS_MM
    if whole <= edge + 0.05 and 2 * binding.pitch_mm <= binding.bar_mm:
        return ()
    most = math.floor((edge + 0.05 + BETWEEN_BARS_MM) / (binding.bar_mm + BETWEEN_BARS_MM))
    fewer = (
        (Offer(label=many(most, "bar"), changes=(("binding.bars", most),)),)
        if 0 < most < binding.bars
        else ()
    )
    if 2 * binding.pitch_mm > binding.bar_mm:
        long = Offer(
            label="a bar as long as its rings need",
            changes=(("binding.bar_mm", min(400.0, 2 * binding.pitch_mm + 20)),),
        )
        return (
            Check(
                code="D6",
                level="stop",
                title="The outer rings lie beyond the bar.",
                why="Three rings take twice their pitch.",
                offers=(long,),
            ),
        )
    what = (
        f"{many(binding.bars, 'bar')} in a row {by_count(binding.bars, 'is', 'are')} longer than the "
        f"edge of {show}."
    )
    return (
        Check(
            code="D5",
            level="stop",
            title=what,
            why="A bar that stands out past the leaves catches and bends them.",
            offers=fewer,
            no_fix="" if fewer else "Take a shorter bar, or separate rings.",
        ),
    )


def _more(hardware: Hardware) -> Changes:
    """What else a bar among the materials decides."""
    pitch: Changes = (
        (("binding.pitch_mm", hardware.pitch_mm),) if hardware.pitch_mm and hardware.pitch_mm >= 8 else ()
    )
    return (
        *pitch,
        *((("binding.bar_mm", min(max(hardware.length_mm, 30.0), 400.0)),) if hardware.length_mm else ()),
    )


def compute(binding: Strips, left: LeftOfBinding) -> PunchedResult:
    """Where the bars' rings are, and what they hold."""
    bored, ruler = bore(binding, left, lambda edge: usual(binding, edge)), left.brief.ruler
    ring, sizes = (
        capacity.ring_of(bored, binding.inner_mm, binding.wire_mm),
        gear.ring_sizes(bored, "strip", BARS_SOLD_MM, "bars with rings", _more),
    )
    name = binding.gear or f"bar with three rings, {ruler.show(binding.inner_mm)} inside"
    cover = "front cover first, face down, " if bored.covers else ""
    pitched = pitch_check(bored, binding.pitch_mm, "rings of the bar", binding.punch_pitch_mm)
    return result(
        bored,
        PunchedSpec(
            title=many(binding.bars, "bar") + " of three rings",
            figures=(
                *capacity.figures(bored, ring, "rings"),
                gear.figure(
                    name,
                    binding.bars,
                    f"Each bar is {ruler.show(binding.bar_mm)} long, its rings "
                    f"{ruler.thin(binding.pitch_mm)} apart: measure yours from middle to middle.",
                ),
            ),
            checks=(
                *_long(binding, bored.edge, ruler.show(bored.edge)),
                *pitched,
                *capacity.check(bored, ring, "rings", sizes),
            ),
            offers=capacity.offers(bored, ring, sizes),
            parts=(
                Count(
                    key="strips",
                    name=name,
                    count=binding.bars * left.brief.quantity,
                    stock=binding.stock_id or "",
                ),
            ),
            hang=(
                "Hang the leaves on the bars",
                f"Bars open, one after the other as they will lie: {cover}the leaves in order, face down. "
                "Shut each bar from its middle ring, and turn every leaf right round once.",
                (name,),
                5,
            ),
            cautions=("The rings of a bar snap shut together: keep fingers out from between them.",),
            cross=capacity.cross_of(bored, ring),
            thick_mm=binding.wire_mm,
            what="strip",
            sticks_mm=binding.bar_mm,
            more=(name, str(binding.bars)),
        ),
    )


KIND: Final = gear.kind(
    name="strips",
    title="hinged ring strips",
    summary="Three rings on a bar that open together; one to three bars in a row.",
    record=Strips,
    compute=compute,
    placed=(),
    suits=gear.suits("three rings open at once"),
)
