"""A window or a thumb notch through the leaf itself: cut while the sheet is flat."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import KNIFE
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Figure, Rule
from pleat.core.pleats.extras.base import Extra, ExtraKind, Face, LeftOfExtras, Thing, WorkWords


class Window(Extra):
    """An opening through the page."""

    kind: Literal["window"] = "window"
    shape: Annotated[
        Literal["window", "notch"], ChoiceRule("it is a", (("window", "window"), ("notch", "thumb notch")))
    ] = "window"
    width_mm: Annotated[float, LengthRule("wide", 5, 400)] = 50.0
    height_mm: Annotated[float, LengthRule("high", 5, 400)] = 50.0


def compute(record: Window, _key: str, _face: Face, _left: LeftOfExtras) -> Thing:
    """Nothing is added; it is cut through to the other side."""
    return Thing(
        title="thumb notch" if record.shape == "notch" else "window",
        width_mm=record.width_mm,
        height_mm=record.height_mm,
        hole=True,
        figures=(
            Figure(
                key="opening",
                label="opening",
                value=(record.width_mm, record.height_mm),
                show="size",
                how="What is cut out of the leaf.",
                rules=(Rule("chosen by you", "its size"),),
            ),
        ),
        work=WorkWords(
            flat="Cut it out on the flat sheet, on the mat, from its corners inward.",
            cautions=(KNIFE,),
            tags=frozenset({"flat", "cut-out"}),
        ),
    )


KIND: Final = ExtraKind(
    name="window",
    title="window or notch",
    summary="Cut through the leaf; one looks at the next page.",
    record=Window,
    compute=compute,
    group="cut into the page",
)
