"""What the Brief decides."""

from __future__ import annotations

from typing import Annotated, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, Record
from pleat.core.base.units import RulerName


class Brief(Record):
    """Pleat 1: how large, what for, how many. What kind of book it is, is said by the members that the other
    pleats hold."""

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
    marks: Annotated[
        Literal["mm", "in"] | None, ChoiceRule("made on the ruler", (("mm", "mm"), ("in", "in")))
    ] = None
    """The ruler on whose marks lies what nobody typed, where that is another than the one in use."""

    @property
    def made_on(self) -> RulerName:
        """The ruler on whose marks lies what nobody typed."""
        return self.marks or self.ruler

    def on(self, ruler: RulerName) -> Brief:
        """The same on another ruler: every length stays."""
        return self.model_copy(
            update={"ruler": ruler, "marks": None if ruler == self.made_on else self.made_on}
        )
