"""Leaves with filing holes by a standard, for a binder that is bought."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule
from pleat.core.pleats.binding.punched.bindered import Bindered, binder_kind


class Filing(Bindered):
    """Two or four holes by ISO 838, or three."""

    kind: Literal["filing"] = "filing"
    pattern: Annotated[
        Literal["iso2", "iso4", "three"],
        ChoiceRule(
            "filing holes",
            (("iso2", "two, 80 mm apart"), ("iso4", "four, 80 mm apart"), ("three", "three, 4 1/4 in apart")),
        ),
    ] = "iso2"


KIND: Final = binder_kind(
    name="filing",
    title="filing holes",
    summary="Two, three or four holes where binders have their rings.",
    record=Filing,
    look="goes into any binder of that standard",
)
