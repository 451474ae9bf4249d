"""A folio folded in both directions: a middle with up to four arms, each on a gusset that holds what is shut
before it."""

from __future__ import annotations

from itertools import permutations
from typing import Annotated, Final, Literal, get_args

from pydantic import Field

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.programme import Add, FoldGroup, FoldOperation, Programme
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.made import Build, Sizes
from pleat.core.pleats.structures.orders import label_of
from pleat.core.trade.folding import ARM_CLEAR_MM, ARMS_NEARLY_SHARE

Arm = Literal["tail", "head", "left", "right"]
ARMS: Final[tuple[Arm, ...]] = get_args(Arm)
MIDDLE: Final = "middle"


class Crossfold(Fastened):
    """Pleat 3, a folio folded in both directions. An arm of 0 is left away; one that is not said is as large
    as the middle."""

    kind: Literal["crossfold"] = "crossfold"
    left_mm: Annotated[float, LengthRule("the left arm", 0, 600)] | None = None
    right_mm: Annotated[float, LengthRule("the right arm", 0, 600)] | None = None
    head_mm: Annotated[float, LengthRule("the arm at the head", 0, 600)] | None = None
    tail_mm: Annotated[float, LengthRule("the arm at the tail", 0, 600)] | None = None
    left_gusset_mm: Annotated[float, LengthRule("the left gusset", 0.5, 80)] | None = None
    right_gusset_mm: Annotated[float, LengthRule("the right gusset", 0.5, 80)] | None = None
    head_gusset_mm: Annotated[float, LengthRule("the gusset at the head", 0.5, 80)] | None = None
    tail_gusset_mm: Annotated[float, LengthRule("the gusset at the tail", 0.5, 80)] | None = None
    order: tuple[Arm, ...] = Field(
        default=ARMS, max_length=4, description="the arms in the order they are shut"
    )


def arms(record: Crossfold, width: float, height: float, clear: float) -> dict[Arm, float]:
    """The arms there are, with how far each reaches in mm: those at the sides as wide as the middle, the
    others as high."""
    found: dict[Arm, float] = {}
    for arm in ARMS:
        usual = (width if arm in ("left", "right") else height) - clear
        size = getattr(record, f"{arm}_mm")
        reach = usual if size is None else min(size, usual)
        if reach > clear:
            found[arm] = reach
    return found


def order_of(record: Crossfold, there: dict[Arm, float]) -> tuple[Arm, ...]:
    """The arms in the order they are shut; those that are not named come last."""
    return tuple(dict.fromkeys([arm for arm in (*record.order, *ARMS) if arm in there]))


def build(record: Crossfold, width: float, height: float, clear: float) -> Build:
    """The generator for a middle of this size in mm, its arms so much short of it."""
    reach = arms(record, width, height, clear)

    def programme(sizes: Sizes) -> Programme:
        def spans(before: Arm, middle: float, after: Arm) -> list[Span]:
            first = (
                [Span(before, reach[before]), Span(f"{before} gusset", sizes[f"{before} gusset"])]
                if before in reach
                else []
            )
            last = (
                [Span(f"{after} gusset", sizes[f"{after} gusset"]), Span(after, reach[after])]
                if after in reach
                else []
            )
            return [*first, Span("", middle), *last]

        sheet = piece(
            "folio", CARD, spans("left", width, "right"), spans("head", height, "tail"), body=MIDDLE
        )
        groups = tuple(
            FoldGroup(
                arm,
                (FoldOperation("folio", ((MIDDLE, f"{arm} gusset", 90.0), (f"{arm} gusset", arm, 90.0))),),
            )
            for arm in order_of(record, reach)
        )
        return Programme((Add(sheet, MIDDLE),), groups, turns=True)

    return programme


def compute(record: Crossfold, left: LeftOfPages) -> FoldedBlock:
    """The folio, its gussets made for the order in which its arms are shut."""
    width, height = left.brief.leaf_width_mm, left.brief.leaf_height_mm
    clear = max(ARM_CLEAR_MM, left.brief.ruler.step_mm)
    reach = arms(record, width, height, clear)
    gussets = {f"{arm} gusset": getattr(record, f"{arm}_gusset_mm") for arm in reach}
    here = order_of(record, reach)
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "cross-fold folio",
            lambda wide, high: build(record, wide, high, clear),
            typed=gussets,
            paths={f"{arm} gusset": f"pages.{arm}_gusset_mm" for arm in reach},
            less_mm=clear,
            checks=lambda _made: _twins(reach, left.brief.ruler),
            places=tuple((f"pages.{arm}_mm", "folio", arm, size) for arm, size in reach.items()),
            offers=tuple(
                Offer(label=label_of(order), changes=(("pages.order", list(order)),), group="order")
                for order in permutations(reach)
                if order != here
            ),
        ),
    )


TWINS: Final[tuple[tuple[Arm, Arm], ...]] = (("left", "right"), ("head", "tail"))


def _twins(reach: dict[Arm, float], ruler: Ruler) -> tuple[Check, ...]:
    """A2: opposite arms that are nearly alike, and not: one size was typed for both."""
    checks = []
    for one, other in TWINS:
        off = abs(reach.get(one, 0.0) - reach.get(other, 0.0))
        if (
            one not in reach
            or other not in reach
            or not ruler.step_mm / 2 < off <= ARMS_NEARLY_SHARE * max(reach[one], reach[other])
        ):
            continue
        low, high = sorted((one, other), key=lambda arm: reach[arm])
        checks.append(
            Check(
                code="A2",
                level="watch",
                title=f"The arms at {one} and {other} are not alike: {ruler.show(reach[one])} and "
                f"{ruler.show(reach[other])}.",
                why=f"Opposite arms are a pair; {ruler.show(off)} are seen when both are shut.",
                offers=(
                    Offer(
                        label=f"both {ruler.show(reach[low])}", changes=((f"pages.{high}_mm", reach[low]),)
                    ),
                    Offer(
                        label=f"both {ruler.show(reach[high])}", changes=((f"pages.{low}_mm", reach[high]),)
                    ),
                ),
            )
        )
    return tuple(checks)


KIND: Final = BlockKind(
    name="crossfold",
    title="cross-fold folio",
    summary="One sheet with arms to every side, folded in one after the other.",
    record=Crossfold,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    placed=tuple(f"{arm}_mm" for arm in ARMS),
    unit="folio",
    traits=Traits(glue=True),
)
