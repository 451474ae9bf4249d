"""Held as it was bought: a pad is glued along its head, and nothing is to be done."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.kinds import Member
from pleat.core.base.plan import Figure, Rule, Step
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding


class AsBought(Member):
    """Pleat 5 for a pad: there is nothing to decide."""

    kind: Literal["asbought"] = "asbought"


def compute(_binding: AsBought, left: LeftOfBinding) -> BindingResult:
    """The glued head of the pad."""
    glued = Figure(
        key="held",
        label="held by",
        value="its own glue",
        show="text",
        how="The pad is glued along its head, as it was bought; nothing is sewn or punched.",
        rules=(Rule("chosen by you", "a bought pad"),),
    )
    done = Step(
        key="book",
        title="Put the pad in",
        detail="Its backing board into the pocket, as far as it goes.",
        needs=("cover.scored", "cover.dry", "block.measured"),
        gives=("block.in", "book.bound"),
        fixes=("pages.*", "cover.*"),
        kind="hang",
    )
    return BindingResult(
        key_figure=glued,
        figures=(glued,),
        checks=(),
        steps=(done,),
        at="bought",
        height_mm=left.pages.leaf_height_mm,
    )


KIND: Final = BindingKind(
    name="asbought",
    title="as it was bought",
    summary="The glue along the head of a pad holds it.",
    record=AsBought,
    compute=compute,
    takes=frozenset({"pad"}),
    at="bought",
)
