"""Wire and coil through a row of holes at a pitch: which diameter holds the stack, and how the row is
punched."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Annotated, Final

from pydantic import Field

from pleat.core.base.fields import LengthRule, NumberRule, TextRule
from pleat.core.base.plan import Check, Figure, Length, Rule
from pleat.core.base.words import many
from pleat.core.engines.holes.places import PITCHES, row
from pleat.core.engines.holes.ring import Ring
from pleat.core.pleats.binding.punched import capacity, gear
from pleat.core.pleats.binding.punched.capacity import Size
from pleat.core.pleats.binding.punched.checks import pitch_check
from pleat.core.pleats.binding.punched.gear import PunchPitch
from pleat.core.pleats.binding.punched.record import Bored, Punched, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding

PITCH_RULE: Final = Rule("pitches", "3 or 2 holes to the inch for wire, 4 for coil; no source")


class Wound(Punched):
    """A row at a pitch; the diameter is the smallest that turns where it is not said. A kind adds ``per``,
    its pitch by name."""

    per: str = "own"
    pitch_mm: Annotated[float, LengthRule("your own pitch", 3, 60)] = 10.0
    nominal_mm: Annotated[float, LengthRule("its outer diameter", 4, 80)] | None = None
    wire_mm: Annotated[float, LengthRule("the wire's thickness", 0.3, 6, fine=True)] = 1.0
    pins: Annotated[int, NumberRule("pins of the punch", 2, 80, whole=True)] = 34
    punch_pitch_mm: PunchPitch | None = None
    gear: Annotated[str, TextRule("what it is called", 60, required=False)] = ""
    stock_id: str | None = Field(
        default=None, max_length=40, description="the item among the materials it was taken from"
    )


@dataclass(frozen=True)
class Winding:
    """What tells wire from coil: its word, outer diameters sold by pitch name in mm, hole and inset, and what
    only it has."""

    word: str
    sold: Callable[[Wound], Sequence[float]]
    hole: Callable[[Wound], float]
    inset: Callable[[Wound], float]
    shape: str
    closing: str
    caution: str
    own: Callable[[Wound, Bored, float], tuple[tuple[Figure, ...], tuple[Check, ...]]]
    coil: bool = False


def pitch_of(binding: Wound) -> float:
    """The pitch in mm: by its name, else the maker's own."""
    return PITCHES.get(binding.per, binding.pitch_mm)


def usual(winding: Winding, binding: Wound, edge: float) -> Usual:
    pitch, hole = pitch_of(binding), binding.hole_mm or winding.hole(binding)
    how = (
        "As many at this pitch as the edge has room for, centred, so that both ends have the same margin "
        "and no hole breaks them."
    )
    return Usual(
        row(edge, pitch, hole), winding.hole(binding), winding.inset(binding), PITCH_RULE, how, fixed=True
    )


def sizes(winding: Winding, binding: Wound, bored: Bored) -> list[Size]:
    """The diameters one may take, the smallest first."""
    ruler = bored.left.brief.ruler
    own = [
        (key, hardware)
        for key, hardware in gear.owned(bored, winding.shape)
        if not hardware.pitch_mm or abs(hardware.pitch_mm - pitch_of(binding)) < 0.3
    ]
    found = [
        Size(
            hardware.name,
            hardware.inner_mm,
            hardware.wire_mm,
            gear.taken(
                key,
                hardware,
                ("binding.nominal_mm", min(80.0, max(4.0, hardware.inner_mm + 2 * hardware.wire_mm))),
                ("binding.wire_mm", min(hardware.wire_mm, 6.0)),
            ),
            hardware.owned,
            key,
        )
        for key, hardware in own
    ]
    found += [
        Size(
            f"{winding.word} of {ruler.show(mm)}",
            mm - 2 * binding.wire_mm,
            binding.wire_mm,
            gear.usual(("binding.nominal_mm", mm)),
        )
        for mm in winding.sold(binding)
        if not any(abs(size.inner + 2 * size.wire - mm) < 0.5 for size in found)
    ]
    return sorted(found, key=lambda size: size.inner)


def compute(winding: Winding, binding: Wound, left: LeftOfBinding) -> PunchedResult:
    """The row of holes, the diameter, the stop of the punch."""
    bored, ruler = bore(binding, left, lambda edge: usual(winding, binding, edge)), left.brief.ruler
    pitch, can, stack = pitch_of(binding), sizes(winding, binding, bored), capacity.stack_at(bored)
    fits = next(
        (size for size in can if capacity.ring_of(bored, size.inner, size.wire).limits.proposed >= stack),
        can[-1],
    )
    nominal = fits.inner + 2 * fits.wire if binding.nominal_mm is None else binding.nominal_mm
    ring = capacity.ring_of(bored, max(nominal - 2 * binding.wire_mm, 0.2), binding.wire_mm)
    more, checks = winding.own(binding, bored, nominal)
    pitch_shown = binding.per if binding.per in PITCHES else ruler.thin(pitch)
    name = binding.gear or f"{winding.word} {pitch_shown}, {ruler.show(nominal)}"
    count = len(bored.positions)
    diameter = _diameter(binding, bored, ring, nominal, winding.word, name)
    hides = (
        "in order, but the back cover on top, face down: turned round afterwards, it hides the seam of "
        "the wire behind the last leaf"
    )
    order = hides if bored.covers and not winding.coil else "in order"
    return result(
        bored,
        PunchedSpec(
            title=f"{winding.word}, {many(count, 'hole')}",
            figures=(diameter, *capacity.figures(bored, ring, winding.word), *more),
            checks=(
                *pitch_check(bored, pitch, winding.word, binding.punch_pitch_mm),
                *capacity.check(bored, ring, winding.word, can),
                *checks,
            ),
            offers=capacity.offers(bored, ring, can),
            parts=(
                Length(
                    key=winding.shape,
                    name=name,
                    length_mm=max(count, 1) * pitch,
                    count=left.brief.quantity,
                    stock=binding.stock_id or "",
                ),
            ),
            hang=(
                f"Hang the leaves on the {winding.word}",
                f"Cut it to {many(count, 'loop')}. The stack {order}. {winding.closing}",
                (winding.word, "pliers"),
                8,
            ),
            cautions=(winding.caution,),
            cross=capacity.cross_of(bored, ring, winding.coil),
            what=winding.shape,
            thick_mm=binding.wire_mm,
            row_pitch_mm=pitch,
            more=(name, str(count)),
        ),
    )


def _diameter(binding: Wound, bored: Bored, ring: Ring, nominal: float, word: str, name: str) -> Figure:
    """What diameter of it the stack wants."""
    ruler = bored.left.brief.ruler
    return Figure(
        key="diameter",
        label=f"{word}, outer diameter",
        value=nominal,
        show="length",
        how=f"The stack is {ruler.thin(capacity.stack_at(bored))}, covers and all. Inside "
        f"{ruler.show(max(nominal - 2 * binding.wire_mm, 0.0))} after twice the wire of "
        f"{ruler.thin(binding.wire_mm)}: it turns up to {ruler.thin(ring.limits.works)}, "
        f"{ruler.thin(ring.limits.proposed)} proposed.",
        rules=capacity.LIMIT_RULES,
        aside="the smallest that turns" if binding.nominal_mm is None else "",
        scrap=name,
    )


def no_more(_binding: Wound, _bored: Bored, _nominal: float) -> tuple[tuple[Figure, ...], tuple[Check, ...]]:
    """Nothing of its own."""
    return (), ()
