"""A pocket across a corner of the page: half a square, glued along its two short sides."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Figure, Rule
from pleat.core.engines.folding.sheet import BODY, Cut, Span, piece
from pleat.core.pleats.extras.base import (
    Extra,
    ExtraKind,
    Face,
    LeftOfExtras,
    Mouth,
    Stocked,
    Thing,
    WorkWords,
)
from pleat.core.pleats.extras.kinds.pocketed import behind_glue
from pleat.core.pleats.extras.slabs import across
from pleat.core.trade.extras import GLUED_EDGE_MM

STRIPS: Final = 8
"""Rectangles that stand for the triangle."""


class Corner(Extra):
    """A corner pocket: its two short sides."""

    kind: Literal["corner"] = "corner"
    side_mm: Annotated[float, LengthRule("its sides", 20, 400)] = 80.0
    at: Annotated[
        Literal["left", "right"],
        ChoiceRule("in the corner", (("left", "at the left"), ("right", "at the right"))),
    ] = "right"
    stock: Stocked = "card"


def compute(record: Corner, key: str, _face: Face, left: LeftOfExtras) -> Thing:
    """It stands in a lower corner, its long side towards the head and the other edge."""
    ruler, side = left.brief.ruler, record.side_mm
    caliper = left.paper.stock(record.stock).caliper
    right = record.at == "right"
    layers = across(
        (side if right else 0.0, 0.0), (0.0, side), side, caliper, -side if right else 0.0, STRIPS
    )
    start, end, off = (
        ((0.0, side), (side, 0.0), (0.0, 0.0)) if right else ((0.0, 0.0), (side, side), (side, 0.0))
    )
    sheet = piece(
        key, record.stock, [Span("", side)], [Span("", side)], cuts=[Cut(start, end, off, frozenset({BODY}))]
    )
    throat = behind_glue(side, side)
    return Thing(
        title="corner pocket",
        width_mm=side,
        height_mm=side,
        outline=((0.0, side), (side, 0.0), (side, side))
        if right
        else ((0.0, 0.0), (side, side), (0.0, side)),
        pieces=(sheet,),
        layers=layers,
        mouth=Mouth(
            "head",
            throat,
            max(side - 2 * GLUED_EDGE_MM, 0.0) / 2**0.5,
            {"tail": GLUED_EDGE_MM, record.at: GLUED_EDGE_MM},
        ),
        figures=(
            Figure(
                key="throat",
                label="throat",
                value=throat,
                show="length",
                how=f"The long side of a square of {ruler.show(side)} cut corner to corner, less "
                f"{ruler.show(GLUED_EDGE_MM)} of glue along both sides, which meets the mouth aslant.",
                rules=(Rule("arithmetic", "(side less two lines of glue) × √2"),),
            ),
        ),
        work=WorkWords(
            "Cut a square and halve it corner to corner: one square gives two.",
            "Glue its two short sides along the page's edges; its long side stays open.",
            "Slide a corner of what belongs there in.",
            cautions=(GLUE,),
            tags=frozenset({"glue"}),
        ),
        sheet_stock=record.stock,
    )


KIND: Final = ExtraKind(
    name="corner",
    title="corner pocket",
    summary="Half a square across a lower corner.",
    record=Corner,
    compute=compute,
    group="pockets",
)
