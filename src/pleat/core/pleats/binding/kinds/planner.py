"""Planner leaves with six holes in two groups, for a ring binder that is bought."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.pleats.binding.punched.bindered import Bindered, binder_kind


class Planner(Bindered):
    """Six holes."""

    kind: Literal["planner"] = "planner"
    pattern: Annotated[
        Literal["six-a5", "six-small"],
        ChoiceRule("holes", (("six-a5", "19-19-70-19-19 mm"), ("six-small", "19-19-51-19-19 mm"))),
    ] = "six-a5"
    inner_mm: Annotated[float, LengthRule("the binder's rings, inner diameter", 6, 150)] = 20.0
    wire_mm: Annotated[float, LengthRule("the binder's wire", 0.5, 10, fine=True)] = 1.8


KIND: Final = binder_kind(
    name="planner",
    title="six-hole planner leaves",
    summary="Six holes in two groups, for a planner's binder.",
    record=Planner,
    look="goes into a planner with six rings",
)
