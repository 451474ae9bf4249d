"""Spacers: strips glued along the spine of a page, so that the spine grows with what the leaves hold."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.plan import Figure, Rule
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.extras.base import (
    Extra,
    ExtraKind,
    Face,
    Layer,
    LeftOfExtras,
    Stocked,
    Thing,
    WorkWords,
)


class Spacer(Extra):
    """One strip, or several on each other, as high as the page."""

    kind: Literal["spacer"] = "spacer"
    wide_mm: Annotated[float, LengthRule("wide", 5, 60)] = 15.0
    layers: Annotated[int, NumberRule("strips on each other", 1, 20, whole=True)] = 1
    stock: Stocked = "card"


def compute(record: Spacer, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """Along the side of the page that is held; at its left edge where it is held nowhere."""
    caliper = left.paper.stock(record.stock).caliper
    thick = caliper.times(record.layers)
    width = min(record.wide_mm, face.width_mm)
    return Thing(
        title="spacer",
        width_mm=width,
        height_mm=face.height_mm,
        pieces=tuple(
            board(f"{key} {number + 1}" if record.layers > 1 else key, record.stock, width, face.height_mm)
            for number in range(record.layers)
        ),
        layers=(Layer(0.0, 0.0, width, face.height_mm, thick),),
        at=(face.width_mm - width if face.spine == "right" else 0.0, 0.0),
        figures=(
            Figure(
                key="thick",
                label="it is thick",
                value=thick,
                show="thin",
                how=f"{record.layers} × {left.brief.ruler.fine(caliper.likely)}.",
                rules=(Rule("arithmetic", "its strips on each other"),),
            ),
        ),
        work=WorkWords(
            "Cut the strips with the grain along them.",
            "Glue it along the spine, no wider than what holds the leaf: a page still has to open past it.",
            cautions=(GLUE,),
            tags=frozenset({"glue"}),
        ),
        sheet_stock=record.stock,
    )


KIND: Final = ExtraKind(
    name="spacer",
    title="spacer at the spine",
    summary="A strip that makes the spine as thick as what the leaves hold.",
    record=Spacer,
    compute=compute,
    group="things that stand up",
)
