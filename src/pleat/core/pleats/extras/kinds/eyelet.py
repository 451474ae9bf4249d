"""Eyelets and brads where a part moves or bears a load, and ribbons, cords or buttons tied there."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import PUNCH
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.plan import Count, Figure, Rule
from pleat.core.pleats.extras.base import Extra, ExtraKind, Face, Layer, LeftOfExtras, Thing, WorkWords
from pleat.core.trade.extras import SET_THICK_MM


class Eyelet(Extra):
    """A hole that is strengthened."""

    kind: Literal["eyelet"] = "eyelet"
    way: Annotated[
        Literal["eyelet", "brad", "button"],
        ChoiceRule("it is", (("eyelet", "an eyelet"), ("brad", "a brad"), ("button", "a button and cord"))),
    ] = "eyelet"
    across_mm: Annotated[float, LengthRule("across", 4, 40)] = 8.0
    rows: Annotated[int, NumberRule("in a row", 1, 12, whole=True)] = 1
    apart_mm: Annotated[float, LengthRule("apart", 5, 200)] = 20.0


def compute(record: Eyelet, key: str, _face: Face, _left: LeftOfExtras) -> Thing:
    """One, or several below each other."""
    thick = Estimate.ranged(*SET_THICK_MM[record.way], f"how thick a {record.way} is")
    size, count = record.across_mm, record.rows
    apart = max(record.apart_mm, size)
    return Thing(
        title=record.way,
        width_mm=size,
        height_mm=size + (count - 1) * apart,
        layers=tuple(Layer(0.0, number * apart, size, size, thick) for number in range(count)),
        counts=(Count(key=f"extra_{key}", name=record.way, count=count, stock=record.way, use="extras"),),
        hole=True,
        figures=(
            Figure(
                key="thick",
                label="it is thick",
                value=thick,
                show="thin",
                how="Both its sides, set.",
                rules=(Rule("SET_THICK_MM", "measure one that you have set"),),
            ),
        ),
        work=WorkWords(
            flat="Punch and set it while the sheet is flat, with a scrap under it.",
            cautions=(PUNCH,),
            tags=frozenset({"flat"}),
        ),
    )


KIND: Final = ExtraKind(
    name="eyelet",
    title="eyelet, brad or button",
    summary="Where something is tied or turns.",
    record=Eyelet,
    compute=compute,
    group="closures",
)
