"""Two covers of card, punched as the leaves are."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.pleats.cover.laid import LaidResult
from pleat.core.pleats.cover.punched import TwoCovers, compute
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover


class Cards(TwoCovers):
    """Pleat 6: two covers of card. ``hinge_mm`` is where they are scored, from the held edge; 0 for not at
    all."""

    kind: Literal["cards"] = "cards"
    hinge_mm: Annotated[float, LengthRule("covers scored to turn, from the edge", 0, 80)] | None = None


def of_card(cover: Cards, left: LeftOfCover) -> LaidResult:
    return compute(cover, left, "cover", "card cover")


KIND: Final = CoverKind(
    name="cards",
    title="two card covers",
    summary="A card in front and one behind, punched with the leaves and scored to turn.",
    record=Cards,
    compute=of_card,
    roles=("cover",),
    takes=frozenset({"edge"}),
)
