"""A strip folded into hills with gaps between: a leaf on each hill, the flanges at its ends on the boards of
the case."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Suits, Traits
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Piece, Span, piece
from pleat.core.pleats.binding.hinged import stack, work
from pleat.core.pleats.binding.hinged.record import (
    CARD,
    CASE,
    LEAF,
    MOST_DRAWN,
    Hinge,
    HingedResult,
    hinge_of,
)
from pleat.core.pleats.binding.hinged.room import Between
from pleat.core.pleats.binding.hinged.work import HingeSpec
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding
from pleat.core.trade.cases import STRIP_BORDER_MM

Sizes = tuple[float, float, float, float, float]


class Hills(Member):
    """Pleat 5: a hinge strip of hills and gaps. What is not said follows from the leaves."""

    kind: Literal["hills"] = "hills"
    hill_mm: Annotated[float, LengthRule("a hill's height", 5, 60)] = 12.0
    gap_mm: Annotated[float, LengthRule("the gap between two hills", 0, 80)] | None = None
    end_mm: Annotated[float, LengthRule("the end beside a flange", 0, 80)] | None = None
    flange_mm: Annotated[float, LengthRule("the flanges on the boards", 0, 120)] = 25.0
    last_flange_mm: Annotated[float, LengthRule("the last flange, where it is another", 0, 120)] | None = None
    dress: Annotated[
        Literal["yes", "no"],
        ChoiceRule("strips that dress it", (("yes", "in the gaps and at the ends"), ("no", "none"))),
    ] = "yes"


def between(record: Hills, hinge: Hinge) -> Between:
    """What lies between two hills: a leaf and its hill."""
    return Between(hinge.pitch, record.gap_mm, "binding.gap_mm", "gap", "gaps", "two hills")


def sizes_of(record: Hills, hinge: Hinge, ruler: Ruler) -> Sizes:
    """First flange, end, hill, gap and last flange in mm: a gap holds a leaf and its hill, the ends take the
    rest of what the case opens."""
    gap = between(record, hinge).size(ruler)
    rest = (hinge.opens(gap) - (hinge.count - 1) * gap) / 2
    end = max(rest, ruler.step_mm) if record.end_mm is None else record.end_mm
    last = record.flange_mm if record.last_flange_mm is None else record.last_flange_mm
    return record.flange_mm, end, record.hill_mm, gap, last


def strips_of(count: int, sizes: Sizes, height: float, longest: float) -> tuple[Piece, ...]:
    """The strip in as few pieces as come out of a sheet that is so long: cut at the top of a hill, whose two
    sides are glued on each other anyway."""
    whole = stack.hill_strip(count, sizes, height, CARD)
    widths = [(panel.name, panel.outline[1][0] - panel.outline[0][0]) for panel in whole.panels]
    if sum(width for _, width in widths) <= longest + 0.05:
        return (whole,)
    runs: list[list[tuple[str, float]]] = [[]]
    at = 0
    while at < len(widths):
        until = next(
            (n for n in range(at, len(widths)) if widths[n][0].endswith("front") and "hill" in widths[n][0]),
            len(widths) - 1,
        )
        group = widths[at : until + 1]
        if runs[-1] and sum(w for _, w in (*runs[-1], *group)) > longest:
            runs.append([])
        runs[-1] += group
        at = until + 1
    if len(runs) == 1:
        return (whole,)
    return tuple(
        piece(f"hinge strip {number}", CARD, [Span(name, width) for name, width in run], [Span("", height)])
        for number, run in enumerate(runs, 1)
    )


def compute(record: Hills, left: LeftOfBinding) -> HingedResult:
    """The strip for these leaves."""
    ruler, hinge = left.brief.ruler, hinge_of(left)
    sizes = sizes_of(record, hinge, ruler)
    first, end, hill, gap, last = sizes
    floor = 2 * end + (hinge.count - 1) * gap
    card = left.paper.stock(CARD)
    strips = strips_of(hinge.count, sizes, hinge.height, max(card.usable_width_mm, card.usable_height_mm))
    shown = min(hinge.count, MOST_DRAWN)
    dress = {
        ruler.snap_down(gap - 2 * STRIP_BORDER_MM): hinge.count - 1,
        ruler.snap_down(end - 2 * STRIP_BORDER_MM): 2,
    }
    spec = HingeSpec(
        "hinge strip",
        tuple((strip, 1) for strip in strips),
        stack.hills(shown, sizes, (hinge.width, hinge.height), (CARD, LEAF, CASE)),
        floor,
        end,
        min(first, last),
        _figures(record, hinge, sizes, floor, ruler, strips),
        tuple(
            check
            for check in (between(record, hinge).check(hinge, ruler), _twins(record, sizes, ruler))
            if check
        ),
        (
            ("binding.hill_mm", strips[0].name, "hill 1 front", hill),
            ("binding.flange_mm", strips[0].name, "first flange", first),
        ),
        {width: many for width, many in dress.items() if width >= 3 and many}
        if record.dress == "yes"
        else {},
        "Hills are mountain folds at their tops and valleys at their feet.",
        "Glue each hill shut with its leaf: the two papers of a leaf are glued to each other with the hill "
        "between them, and any other leaf lies on its hill's front.",
    )
    return work.result(left, hinge, spec, at="hinge", swell=hinge.swell(gap))


def _figures(
    record: Hills, hinge: Hinge, sizes: Sizes, floor: float, ruler: Ruler, strips: tuple[Piece, ...]
) -> tuple[Figure, ...]:
    first, end, hill, gap, last = sizes
    (gaps, ends), whole = ruler.summed([(hinge.count - 1) * gap, 2 * end])
    joined = f" In {len(strips)} strips, joined at the top of a hill." if len(strips) > 1 else ""
    return (
        Figure(
            key="hills",
            label="held by",
            value=f"{hinge.count} hills",
            show="text",
            how=f"{hinge.count} hills of {ruler.show(hill)}, {hinge.count - 1} gaps of {ruler.show(gap)}, an "
            f"end of {ruler.thin(end)} and a flange at either side.{joined}",
            rules=(Rule("arithmetic", "a hill a leaf, a gap between two"),),
            scrap=f"{hinge.count} hills of {ruler.show(hill)}, gaps {ruler.show(gap)}",
        ),
        between(record, hinge).figure(
            "a gap",
            f"A leaf with all that is on it {ruler.thin(hinge.leaf.likely)}, and its hill 2 × "
            f"{ruler.fine(hinge.card.likely)}",
            ruler,
        ),
        Figure(
            key="floor",
            label="floor, from fold to fold",
            value=floor,
            show="length",
            how=f"Gaps {gaps} + ends {ends} = {whole} {ruler.name}; the case opens "
            f"{ruler.show(hinge.opens(gap))} between its boards: spine board and both gaps.",
            rules=(Rule("arithmetic", "gaps and ends"),),
            scrap=ruler.show(floor),
        ),
        Figure(
            key="flanges",
            label="flanges",
            value=f"{ruler.number(first)} and {ruler.number(last)} {ruler.name}",
            show="text",
            how="One on each board, under its liner: alike, so that both boards are held alike.",
            rules=(Rule("chosen by you", "the flange"),),
        ),
    )


def _twins(record: Hills, sizes: Sizes, ruler: Ruler) -> Check | None:
    """A2: flanges that are meant to be alike and are not."""
    first, *_, last = sizes
    if record.last_flange_mm is None or abs(first - last) < ruler.step_mm / 2:
        return None
    return Check(
        code="A2",
        level="watch",
        title=f"The flanges are not alike: {ruler.show(first)} and {ruler.show(last)}.",
        why="Front and back board are then held by different widths, and the liners need two borders.",
        offers=(Offer(label=f"both {ruler.show(first)}", changes=(("binding.last_flange_mm", None),)),),
    )


KIND: Final = BindingKind(
    name="hills",
    title="strip of hills",
    summary="A folded strip with a hill for every leaf, for a three-piece case.",
    record=Hills,
    compute=compute,
    roles=(CARD, "mat"),
    unused=lambda record: () if record.dress == "yes" else ("mat",),
    takes=frozenset({"hinged"}),
    at="hinge",
    splits=True,
    traits=Traits(glue=True, opens_flat=True),
    suits=Suits(
        fewest=2,
        most=60,
        good_to=40,
        thickest_mm=60.0,
        strength="strong",
        hard="some practice",
        minutes=5,
        look="leaves stand on folded hills",
    ),
)
