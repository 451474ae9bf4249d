"""What the Brief decides."""

from __future__ import annotations

from typing import Annotated, Literal

from pleat.core.fields import ChoiceRule, LengthRule, NumberRule, Record


class Brief(Record):
    """Pleat 1: how large, what for, how many. What kind of book it is, is said by the members that the other pleats hold."""

    leaf_width_mm: Annotated[float, LengthRule("the leaf's width", 30, 600)] = 148.5
    leaf_height_mm: Annotated[float, LengthRule("the leaf's height", 40, 600)] = 210.0
    purpose: Annotated[
        Literal["writing", "sketching", "painting", "photographs", "gift"],
        ChoiceRule(
            "what it is for",
            (
                ("writing", "writing"),
                ("sketching", "sketching"),
                ("painting", "painting"),
                ("photographs", "photographs"),
                ("gift", "a gift"),
            ),
        ),
    ] = "writing"
    quantity: Annotated[int, NumberRule("how many books", 1, 500, "books", whole=True)] = 1
    ruler: Annotated[Literal["mm", "in"], ChoiceRule("ruler", (("mm", "mm"), ("in", "in")))] = "mm"
