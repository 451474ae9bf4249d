"""A zigzag spine: a strip folded to and fro, a leaf on every panel that faces up; flat wrap around it."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.kinds import Member, Suits, Traits
from pleat.core.base.plan import Check, Figure, Offer, Rule, Step
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, many
from pleat.core.pleats.binding.hinged import stack, work
from pleat.core.pleats.binding.hinged.record import CARD, CASE, LEAF, MOST_DRAWN, HingedResult, hinge_of
from pleat.core.pleats.binding.hinged.work import HingeSpec
from pleat.core.pleats.binding.kinds.hills import strips_of
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding


class Zigzag(Member):
    """Pleat 5: a zigzag spine. ``panels`` are those of a strip that is folded already."""

    kind: Literal["zigzag"] = "zigzag"
    panel_mm: Annotated[float, LengthRule("a panel's width", 8, 120)] = 25.0
    flange_mm: Annotated[float, LengthRule("the end panels in the wrap", 8, 200)] = 40.0
    panels: Annotated[int, NumberRule("panels of the strip you folded", 2, 400, whole=True)] | None = None


def compute(record: Zigzag, left: LeftOfBinding) -> HingedResult:
    """The strip for these leaves: two panels a leaf, and an end panel at either side."""
    ruler, hinge = left.brief.ruler, hinge_of(left)
    panel = min(record.panel_mm, hinge.width / 2)
    flange = min(record.flange_mm, hinge.width)
    sizes = (flange, 0.0, panel, 0.0, flange)
    card = left.paper.stock(CARD)
    strips = strips_of(hinge.count, sizes, hinge.height, max(card.usable_width_mm, card.usable_height_mm))
    shown = min(hinge.count, MOST_DRAWN)
    folds = 2 * hinge.count
    panels = Figure(
        key="panels",
        label="held by",
        value=f"{folds} panels",
        show="text",
        how=f"Two panels a leaf, and an end panel at either side: 2 × {hinge.count} + 2 = {folds + 2}. A "
        "leaf lies on the panel that faces up; its fellow folds under it, so that the valley before the "
        "next leaf opens to the fore edge.",
        rules=(Rule("arithmetic", "every second valley opens to the fore edge"),),
        scrap=f"{folds} panels of {ruler.show(panel)}",
    )
    spine = Figure(
        key="row",
        label="thick at the spine",
        value=hinge.need,
        show="thin",
        how=f"{hinge.count} leaves of {ruler.thin(hinge.leaf.likely)}, each on two layers of "
        f"{ruler.fine(hinge.card.likely)}.",
        rules=(Rule("arithmetic", "leaves and folds added up"),),
    )
    spec = HingeSpec(
        "zigzag spine",
        tuple((strip, 1) for strip in strips),
        stack.hills(shown, sizes, (hinge.width, hinge.height), (CARD, LEAF, CASE)),
        None,
        0.0,
        flange,
        (panels, spine),
        tuple(check for check in (_against(record, hinge.count, ruler),) if check),
        (
            ("binding.panel_mm", strips[0].name, "hill 1 front", panel),
            ("binding.flange_mm", strips[0].name, "first flange", flange),
        ),
        folded="To and fro: mountain, valley, mountain.",
        glued="On the panel that faces up, its spine edge in the valley; nothing goes on the panel below it.",
        steps=(
            bound(
                "The end panels go into the wrap: glue them inside its front and back, their folds at the "
                "spine's edges."
            ),
        ),
    )
    return work.result(left, hinge, spec, at="row", swell=hinge.swell(0.0))


def bound(detail: str) -> Step:
    """The last step of what goes into a wrap."""
    return Step(
        key="book",
        title="Put it into the wrap",
        detail=f"{detail} Shut it, under weight, before you open it wide.",
        tools=("glue", "waste paper"),
        needs=("cover.scored", "block.flat"),
        gives=("book.bound",),
        fixes=("cover.*",),
        tags=frozenset({"shut"}),
        kind="hang",
        weights=True,
    )


def _against(record: Zigzag, leaves: int, ruler: Ruler) -> Check | None:
    """A6: panels that face up against leaves to attach."""
    if record.panels is None:
        return None
    up = record.panels // 2
    if up == leaves:
        return None
    more = up > leaves
    return Check(
        code="A6",
        level="note" if more else "stop",
        title=f"The strip of {record.panels} panels has {up} that face up, for {leaves} leaves.",
        why=f"{up - leaves} stay free: bare panels at the end."
        if more
        else f"{many(leaves - up, 'leaf', 'leaves')} {by_count(leaves - up, 'has', 'have')} no panel to go "
        "on. Only every second one opens to the fore edge.",
        offers=(
            Offer(
                label=f"{up} leaves", changes=(("pages.amount", max(up, 1)), ("pages.counted_in", "leaves"))
            ),
            Offer(
                label=f"a strip of {2 * leaves} panels of {ruler.show(record.panel_mm)}",
                changes=(("binding.panels", None),),
            ),
        ),
    )


KIND: Final = BindingKind(
    name="zigzag",
    title="zigzag spine",
    summary="A strip folded to and fro, a leaf on every panel that faces up.",
    record=Zigzag,
    compute=compute,
    roles=(CARD,),
    takes=frozenset({"hinged"}),
    at="row",
    traits=Traits(glue=True),
    suits=Suits(
        fewest=2,
        most=60,
        good_to=24,
        thickest_mm=60.0,
        strength="light",
        hard="first book",
        minutes=4,
        look="tags fan out of a folded spine",
    ),
)
