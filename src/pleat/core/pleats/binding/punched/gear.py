"""Hardware that is bought: the sizes of a shape among the materials, or else those that are sold; its figure
and what is counted out."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Annotated, Any, Final

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Suits, Traits, UnitKind
from pleat.core.base.plan import Changes, Figure, Rule
from pleat.core.materials.items import Hardware
from pleat.core.pleats.binding.punched.capacity import Size
from pleat.core.pleats.binding.punched.record import Bored
from pleat.core.pleats.binding.result import BindingKind

PunchPitch = Annotated[float, LengthRule("your punch's holes are apart", 2, 300)]
LEAF: Final[frozenset[UnitKind]] = frozenset({"leaf"})


def owned(bored: Bored, shape: str) -> list[tuple[str, Hardware]]:
    """The hardware of a shape among the materials, with its numbers there."""
    return [(key, hardware) for key, hardware in bored.left.tools.hardware if hardware.shape == shape]


def taken(key: str, hardware: Hardware, *more: tuple[str, object]) -> Changes:
    """What takes an item: its name and number, and what it decides."""
    return (("binding.gear", hardware.name), ("binding.stock_id", key), *more)


def usual(*more: tuple[str, object]) -> Changes:
    """What takes a usual size that is not among the materials."""
    return (("binding.gear", ""), ("binding.stock_id", None), *more)


def ring_sizes(
    bored: Bored,
    shape: str,
    usual_sizes: Iterable[tuple[float, float]],
    word: str,
    extra: Callable[[Hardware], Changes] = lambda _: (),
) -> tuple[Size, ...]:
    """The sizes one may take of what has an inner diameter and a wire: those among the materials, then those
    that are sold."""
    ruler = bored.left.brief.ruler
    own = [
        Size(
            hardware.name,
            hardware.inner_mm,
            hardware.wire_mm,
            taken(
                key,
                hardware,
                ("binding.inner_mm", max(hardware.inner_mm, 6.0)),
                ("binding.wire_mm", max(hardware.wire_mm, 0.5)),
                *extra(hardware),
            ),
            hardware.owned,
            key,
        )
        for key, hardware in owned(bored, shape)
    ]
    sold = [
        Size(
            f"{word} of {ruler.show(inner)}",
            inner,
            wire,
            usual(("binding.inner_mm", inner), ("binding.wire_mm", wire)),
        )
        for inner, wire in usual_sizes
        if not any(abs(size.inner - inner) < 0.5 for size in own)
    ]
    return (*own, *sold)


DESCRIBED: Final = (
    "inner_mm",
    "wire_mm",
    "nominal_mm",
    "length_mm",
    "bar_mm",
    "band_mm",
    "band_thick_mm",
    "stretch",
)
"""What is typed of hardware by hand: it then is no longer the item it was taken from."""


def figure(name: str, count: int, how: str, rule: Rule | None = None) -> Figure:
    """What is taken of the hardware."""
    said = f"{count} × {name}" if count > 1 else name
    return Figure(
        key="gear",
        label="hardware",
        value=said,
        show="text",
        how=how,
        rules=(rule or Rule("chosen by you", "the hardware"),),
        scrap=said,
    )


def kind(
    *, flat: bool = True, refills: bool = True, placed: tuple[str, ...] = ("positions_mm",), **more: Any
) -> BindingKind:
    """A member that punches leaves along an edge; ``more`` is what is its own."""
    more.setdefault("described", DESCRIBED)
    return BindingKind(
        placed=placed,
        traits=Traits(punch=True, refills=refills, opens_flat=flat),
        takes=LEAF,
        at="edge",
        **more,
    )


def suits(
    look: str,
    *,
    good_to: int = 400,
    hard: Any = "first book",
    minutes: float = 0.4,
    strength: Any = "firm",
    tough: bool = False,
) -> Suits:
    """What such a binding is for: leaves go through the punch in lifts, so no stack is too thick for that."""
    return Suits(
        most=2000,
        good_to=good_to,
        thickest_mm=999.0,
        strength=strength,
        hard=hard,
        minutes=minutes,
        look=look,
        tough=tough,
    )
