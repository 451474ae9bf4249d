"""Leaves in pairs from one sheet: leaf, tab, leaf. The tabs stand side by side on the spine, each held by a
cord."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Traits
from pleat.core.engines.folding.programme import Add, FoldGroup, FoldOperation, Programme
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.pages.kinds.album import COUNTS, Counted, leaves_of, unsaid
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.made import Build, Sizes
from pleat.core.pleats.structures.pads import FromPad
from pleat.core.trade.folding import CORD_TAB_MM


class Pairs(FromPad):
    """Pleat 3, leaves in pairs; an odd number of leaves is rounded up."""

    kind: Literal["pairs"] = "pairs"
    amount: Annotated[int, NumberRule("how many", 2, 200, whole=True)] = 8
    counted_in: Annotated[Counted, ChoiceRule("counted in", COUNTS)] = "leaves"
    tab_mm: Annotated[float, LengthRule("the tab between two leaves", 0.5, 60)] | None = None


def build(width: float, height: float) -> Build:
    """One pair, inside up."""

    def programme(sizes: Sizes) -> Programme:
        sheet = piece(
            "pair",
            CARD,
            [Span("left leaf", width), Span("tab", sizes["tab"]), Span("right leaf", width)],
            [Span("", height)],
        )
        over = FoldOperation("pair", (("right leaf", "tab", 90.0), ("tab", "left leaf", 90.0)))
        return Programme((Add(sheet, "right leaf"),), (FoldGroup("left leaf", (over,)),))

    return programme


def compute(record: Pairs, left: LeftOfPages) -> FoldedBlock:
    """One pair worked out, so many times."""
    pairs = -(-leaves_of(record.amount, record.counted_in) // 2)
    warned = unsaid(record.amount, record.counted_in)
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "leaves in pairs",
            build,
            typed={"tab": record.tab_mm},
            paths={"tab": "pages.tab_mm"},
            least={"tab": CORD_TAB_MM},
            unit="pair",
            copies=pairs,
            leaves=2 * pairs,
            panels="leaves",
            states="page",
            checks=lambda _made: (warned,) if warned else (),
        ),
    )


KIND: Final = BlockKind(
    name="pairs",
    title="leaves in pairs",
    summary="Leaf, tab and leaf from one sheet, their tabs in a row on the spine.",
    record=Pairs,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    unit="pair",
    traits=Traits(refills=True),
)
