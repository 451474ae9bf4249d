"""Whether a ring, wire or coil holds a book and lets it turn: the four limits as figures, slip D8, and the
sizes side by side."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.plan import Changes, Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.holes.ring import Ring
from pleat.core.pleats.binding.punched.record import Bored, Cross
from pleat.core.trade.holes import LEAVES_LEAN_RAD, RING_FREE_SHARE, THICK_BEGINS_SHARE
from pleat.core.trade.paper import USES_MM

GROUP: Final = "sizes"
LIMIT_RULES: Final = (
    Rule(
        "arithmetic",
        "ring, wire, hole and the bridge of paper; a stack turned round the ring in small steps agrees",
    ),
    Rule("RING_FREE_SHARE", f"{RING_FREE_SHARE:.0%} left free to turn"),
)


@dataclass(frozen=True)
class Size:
    """A ring, wire or coil one may take: what it is called, its inner diameter and wire in mm, the changes
    that take it, whether it is owned."""

    name: str
    inner: float
    wire: float
    changes: Changes
    owned: int | None = None
    stock: str = ""


def ring_of(bored: Bored, inner: float, wire: float) -> Ring:
    return Ring(inner / 2, wire, bored.hole, bored.inset)


def stack_at(bored: Bored) -> float:
    """What the ring has to hold in mm: the stack at the holes, or what lies in the middle, as far as leaves
    do not lean in to it."""
    return max(bored.stack, bored.stack + bored.middle - leaning(bored))


def leaning(bored: Bored) -> float:
    """How much thicker than at the holes a stack may be in the middle, since its leaves lean in to it; mm."""
    bends = (
        bored.record.hinge_mm is not None
        or bored.left.pages.own_hinge_mm is not None
        or bored.leaf <= USES_MM["leaves"][1]
    )
    reach = max(0.0, THICK_BEGINS_SHARE * bored.reach - bored.inset)
    return 2 * reach * math.tan(LEAVES_LEAN_RAD if bends else 0.0)


def leaves_in(bored: Bored, thick: float) -> int:
    """The most leaves of this paper whose stack with its covers a thickness holds, at the holes and in the
    middle, where each adds its share."""
    pages = bored.left.pages
    each = (pages.thickness.likely + bored.strengthened) / max(pages.leaves, 1)
    room = thick - bored.covers - bored.left.extras.added.likely
    fixed = bored.middle - pages.leaves * pages.middle_each_mm
    at_holes, in_middle = room / each, (room + leaning(bored) - fixed) / (each + pages.middle_each_mm)
    return max(0, math.floor(min(at_holes, in_middle) + 1e-9))


def cross_of(bored: Bored, ring: Ring, coil: bool = False) -> Cross:
    return Cross(
        ring=ring,
        leaves=bored.left.pages.leaves,
        block=bored.stack - bored.covers,
        cover=bored.covers / 2,
        middle=bored.middle,
        limits=ring.limits,
        coil=coil,
    )


def figures(bored: Bored, ring: Ring, word: str) -> tuple[Figure, ...]:
    """What it holds, proposed, then each limit by itself."""
    ruler, limits, stack = bored.left.brief.ruler, ring.limits, stack_at(bored)
    most = leaves_in(bored, limits.proposed)
    room = most - bored.left.pages.leaves
    rest = f"room for {room} more" if room >= 0 else f"{many(-room, 'leaf', 'leaves')} too many"
    names = (
        ("square", limits.square),
        ("parallel", limits.parallel),
        ("flat when open", limits.flat),
        ("turning", limits.turns),
    )
    each = ", ".join(f"{name} {ruler.thin(mm)}" for name, mm in names)
    uneven = (
        f" In the middle it is {ruler.thin(bored.middle)} thicker, which asks for {ruler.thin(stack)} at the "
        f"{word}."
        if bored.middle
        else ""
    )
    strong = (
        f", with {ruler.thin(bored.strengthened)} of what makes the holes strong"
        if bored.strengthened
        else ""
    )
    verb = "take" if word.endswith("s") else "takes"
    takes = Figure(
        key="takes",
        label=f"the {word} {verb}",
        value=many(most, "leaf", "leaves"),
        show="text",
        how=f"Stack at the holes: {ruler.thin(stack)}, covers and all{strong}. The {word} inside "
        f"{ruler.show(2 * ring.radius)}, wire {ruler.thin(ring.wire)}, holes {ruler.thin(ring.hole)}, "
        f"bridge {ruler.thin(ring.bridge)}: {each}. Less {RING_FREE_SHARE:.0%} to turn freely, "
        f"{ruler.thin(limits.proposed)}.{uneven}",
        rules=LIMIT_RULES,
        aside=rest,
    )
    never = " Here the hole lies too far in for so small a ring: pages never lie flat."
    flat = Figure(
        key="flat",
        label="lies flat open",
        value="at every page" if stack <= limits.flat + 1e-6 else f"only up to {ruler.thin(limits.flat)}",
        show="text",
        how=f"Both halves lie flat at any page while the stack is no thicker than {ruler.thin(limits.flat)}; "
        f"this one is {ruler.thin(stack)}." + (never if ring.bridge > ring.radius else ""),
        rules=LIMIT_RULES[:1],
    )
    square = Figure(
        key="square",
        label="edges level when shut",
        value="yes" if stack <= limits.square + 1e-6 else f"up to {ruler.thin(limits.square)}",
        show="text",
        how=f"The stack lies square up to {ruler.thin(limits.square)}; a thicker one up to "
        f"{ruler.thin(limits.parallel)} lies parallel, its edges running back at top and bottom.",
        rules=LIMIT_RULES[:1],
    )
    return (takes, flat, square)


def check(bored: Bored, ring: Ring, word: str, sizes: Sequence[Size]) -> tuple[Check, ...]:
    """D8: hardware too small for the filled book, or whose wire does not go through the hole; and one that
    only just turns."""
    ruler, limits, stack = bored.left.brief.ruler, ring.limits, stack_at(bored)
    better = tuple(
        Offer(label=f"take {size.name}", changes=size.changes)
        for size in sizes
        if (inner := ring_of(bored, size.inner, size.wire)).limits.proposed >= stack
        and (inner.radius, inner.wire) != (ring.radius, ring.wire)
    )[:2]
    if not ring.passes:
        return (_none_passes(ring, word, ruler, better),)
    most = leaves_in(bored, limits.proposed)
    fewer = _fewer(bored, most)
    if stack > limits.works + 1e-6:
        bind = "lie on each other" if limits.parallel < limits.turns else "turn"
        verb = "are" if word.endswith("s") else "is"
        opening = "open" if word.endswith("s") else "opens"
        return (
            Check(
                code="D8",
                level="stop",
                title=f"The {word} {verb} too small: pages {bind} only up "
                f"to {ruler.thin(limits.works)}, this book is {ruler.thin(stack)} there.",
                why=f"Forced, the holes tear or the {word} {opening}. "
                f"Leave {RING_FREE_SHARE:.0%} free as well.",
                offers=(*better, *fewer),
                no_fix="" if better or fewer else "No size holds so much: make two books of it.",
            ),
        )
    if stack > limits.proposed + 1e-6:
        verb = "are" if word.endswith("s") else "is"
        return (
            Check(
                code="D8",
                level="watch",
                title=f"The {word} {verb} nearly full: {ruler.thin(stack)} of {ruler.thin(limits.works)}.",
                why=f"It turns, but drags; {RING_FREE_SHARE:.0%} should be free, and a used book grows.",
                offers=(*better, *fewer),
                no_fix="" if better or fewer else "Take fewer leaves, or a larger size.",
            ),
        )
    return ()


def _none_passes(ring: Ring, word: str, ruler: Ruler, better: tuple[Offer, ...]) -> Check:
    """D8: the wire does not go through the hole, or not round the bridge."""
    wider = ruler.snap_up(ring.wire + 1)
    why = (
        f"The wire is {ruler.thin(ring.wire)}, the hole {ruler.thin(ring.hole)}, and the bridge "
        f"{ruler.thin(ring.bridge)} has to fit inside {ruler.show(2 * ring.radius)}."
    )
    hole = (
        (Offer(label=f"punch holes of {ruler.thin(wider)}", changes=(("binding.hole_mm", wider),)),)
        if ring.wire > ring.hole and wider <= 20
        else ()
    )
    return Check(
        code="D8",
        level="stop",
        title=f"No page goes on the {word}.",
        why=why,
        offers=(*hole, *better),
        no_fix="" if hole or better else f"Take {word} of thinner wire, or holes nearer the edge.",
    )


def _fewer(bored: Bored, most: int) -> tuple[Offer, ...]:
    """As many leaves as the hardware takes; a reading of the stack is forgotten with it."""
    if not most:
        return ()
    forget: Changes = (("pages.measured_block_mm", None),) if bored.left.pages.measured else ()
    return (
        Offer(
            label=many(most, "leaf", "leaves"),
            changes=(("pages.amount", most), ("pages.counted_in", "leaves"), *forget),
        ),
    )


def offers(bored: Bored, ring: Ring, sizes: Sequence[Size]) -> tuple[Offer, ...]:
    """The sizes side by side with what each holds; a larger one that holds less says so."""
    stack = stack_at(bored)
    found: list[Offer] = []
    best = 0
    for one in sorted(sizes, key=lambda size: (size.inner, size.wire)):
        own = ring_of(bored, one.inner, one.wire)
        most = leaves_in(bored, own.limits.proposed)
        less = most < best
        best = max(best, most)
        left_over = f", {one.owned} left" if one.owned is not None else ""
        source = f"among your materials{left_over}" if one.stock else "a usual size"
        facts = (
            f"holds {many(most, 'leaf', 'leaves')}"
            + (", less than a smaller one: thicker wire in the same hole" if less else ""),
            "lies flat open" if stack <= own.limits.flat else "does not lie flat open",
            source,
        )
        same = abs(one.inner / 2 - ring.radius) < 0.01 and abs(one.wire - ring.wire) < 0.01
        found.append(
            Offer(
                label=one.name,
                changes=one.changes,
                facts=facts,
                group=GROUP,
                chosen=same,
                good=own.limits.proposed >= stack,
            )
        )
    return tuple(found)
