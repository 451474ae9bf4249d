"""Leaves for a binder that is bought: their holes lie where its rings are."""

from __future__ import annotations

from typing import Annotated

from pleat.core.base.fields import LengthRule
from pleat.core.base.plan import Check, Figure, Offer
from pleat.core.base.units import Ruler
from pleat.core.engines.holes.places import PATTERNS, Pattern, centred
from pleat.core.engines.holes.ring import Ring
from pleat.core.pleats.binding.punched import capacity, gear
from pleat.core.pleats.binding.punched.checks import pitch_check
from pleat.core.pleats.binding.punched.gear import PunchPitch
from pleat.core.pleats.binding.punched.record import Bored, Gear, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding
from pleat.core.trade.holes import BINDER_RINGS_SOLD_MM


class Bindered(Gear):
    """What is known of the binder; a kind adds its ``pattern``."""

    pattern: str = "iso2"
    inner_mm: Annotated[float, LengthRule("the binder's rings, inner diameter", 6, 150)] = 25.0
    wire_mm: Annotated[float, LengthRule("the binder's wire", 0.5, 10, fine=True)] = 2.5
    punch_pitch_mm: PunchPitch | None = None


def usual(pattern: Pattern, edge: float) -> Usual:
    """The pattern centred on the edge."""
    how = f"{_first(pattern.title)}, centred: both ends have the same margin."
    return Usual(centred(edge, pattern.gaps), pattern.hole, pattern.inset, pattern.rule, how, fixed=True)


def _first(title: str) -> str:
    return title[0].upper() + title[1:]


def _binding_offers(binding: Bindered, edge: float, kind: type[Bindered]) -> tuple[Offer, ...]:
    """Patterns of this kind that the edge has room for."""
    rule = kind.model_fields["pattern"].metadata[0]
    names = [name for name, _ in rule.words if name != binding.pattern]
    fits = [name for name in names if PATTERNS[name].span + PATTERNS[name].hole + 4 <= edge]
    return tuple(Offer(label=PATTERNS[name].title, changes=(("binding.pattern", name),)) for name in fits)


def compute(binding: Bindered, left: LeftOfBinding) -> PunchedResult:
    """Where the holes are, and how many leaves the binder takes."""
    pattern = PATTERNS[binding.pattern]
    bored, ruler = bore(binding, left, lambda edge: usual(pattern, edge)), left.brief.ruler
    ring, sizes = (
        capacity.ring_of(bored, binding.inner_mm, binding.wire_mm),
        gear.ring_sizes(bored, "ring", BINDER_RINGS_SOLD_MM, "a binder with rings"),
    )
    room = (bored.edge - pattern.span - bored.hole) / 2
    short: tuple[Check, ...] = ()
    if room < 2:
        others = _binding_offers(binding, bored.edge, type(binding))
        what = (
            f"{_first(pattern.title)} take {ruler.show(pattern.span)} and do not go on an edge of "
            f"{ruler.show(bored.edge)}."
        )
        short = (
            Check(
                code="D5",
                level="stop",
                title=what,
                why="The outer holes would break the ends of the edge.",
                offers=others,
                no_fix="" if others else "Take a larger leaf, or separate rings.",
            ),
        )
    name = binding.gear or f"binder, its rings {ruler.show(binding.inner_mm)} inside"
    return result(
        bored,
        PunchedSpec(
            title=pattern.title,
            figures=_own_figures(name, bored, ring, pattern, ruler, binding),
            checks=(
                *short,
                *pitch_check(
                    bored,
                    min(pattern.gaps) if len(set(pattern.gaps)) > 1 else pattern.gaps[0],
                    "binder's rings",
                    binding.punch_pitch_mm,
                ),
                *capacity.check(bored, ring, "binder", sizes),
            ),
            offers=capacity.offers(bored, ring, sizes),
            hang=(
                "Put the leaves into the binder",
                "Rings open; all leaves the same way up, the first on "
                "top. Shut the rings and turn every leaf over once.",
                (name,),
                3,
            ),
            cautions=(
                "A binder's rings snap shut: keep fingers out from between them, and open them by "
                "their lever.",
            ),
            cross=capacity.cross_of(bored, ring),
            thick_mm=binding.wire_mm,
            more=(name,),
        ),
    )


def _own_figures(
    name: str, bored: Bored, ring: Ring, pattern: Pattern, ruler: Ruler, binding: Bindered
) -> tuple[Figure, ...]:
    """The ring itself, in figures."""
    return (
        *capacity.figures(bored, ring, "binder"),
        gear.figure(
            name,
            1,
            f"{_first(pattern.title)}. The leaves are punched for it; the binder "
            f"itself is bought. Its rings: {ruler.show(binding.inner_mm)} inside, wire "
            f"{ruler.thin(binding.wire_mm)}.",
        ),
    )


def binder_kind(*, name: str, title: str, summary: str, record: type[Bindered], look: str) -> BindingKind:
    """A member that punches leaves for a binder."""
    return gear.kind(
        name=name,
        title=title,
        summary=summary,
        record=record,
        compute=compute,
        placed=(),
        suits=gear.suits(look),
    )
