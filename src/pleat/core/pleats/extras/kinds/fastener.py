"""Two halves that keep a page, a flap or the book shut: magnets or hook-and-loop dots, the second where the
first lands."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import MAGNETS
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Count, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.pleats.extras.base import Extra, ExtraKind, Face, Layer, LeftOfExtras, Thing, WorkWords
from pleat.core.trade.extras import MAGNETS_HOLD_MM


class Fastener(Extra):
    """A pair: its size, and what it pulls through."""

    kind: Literal["fastener"] = "fastener"
    way: Annotated[
        Literal["magnet", "dot"],
        ChoiceRule("it is", (("magnet", "a pair of magnets"), ("dot", "a hook-and-loop dot"))),
    ] = "magnet"
    across_mm: Annotated[float, LengthRule("across", 4, 40)] = 10.0
    thick_mm: Annotated[float, LengthRule("one half, thick", 0.3, 10, fine=True)] = 1.0
    through: Annotated[
        Literal["bare", "cards", "padded"],
        ChoiceRule(
            "it pulls through", (("bare", "nothing"), ("cards", "two cards"), ("padded", "a padded cover"))
        ),
    ] = "cards"


def compute(record: Fastener, key: str, _face: Face, left: LeftOfExtras) -> Thing:
    """One half; the other lands on the page that faces it."""
    half = Estimate.ranged(
        record.thick_mm * 0.9, record.thick_mm, record.thick_mm * 1.1, "how thick a half is"
    )
    magnet = record.way == "magnet"
    holds = {
        "bare": "holds well",
        "cards": "holds" if record.across_mm >= 10 else "holds a page, hardly a cover",
        "padded": "does not hold: set it into the cover instead",
    }
    name = "magnet" if magnet else "hook-and-loop dot"
    size = record.across_mm
    return Thing(
        title=f"{name}s" if magnet else name,
        width_mm=size,
        height_mm=size,
        layers=(Layer(0.0, 0.0, size, size, half.times(2)),),
        partner=True,
        checks=_checks(record, key, left.brief.ruler),
        counts=(
            Count(
                key=f"extra_{key}",
                name=f"{name} {left.brief.ruler.show(size)}",
                count=2,
                stock="magnet" if magnet else "",
                use="extras",
            ),
        ),
        figures=(
            Figure(
                key="holds",
                label="it",
                value=holds[record.through] if magnet else "holds",
                show="text",
                how=f"A pair of {left.brief.ruler.show(MAGNETS_HOLD_MM)} across holds through two cards; "
                "through a padded cover it does not.",
                rules=(Rule("MAGNETS_HOLD_MM", "no source"),),
            ),
        ),
        work=WorkWords(
            "",
            ("Mark which faces look at each other: the second has to pull, not push. " if magnet else "")
            + "Fix the first half before any paper hides it; shut the page, and fix the second where it "
            "lands.",
            cautions=(MAGNETS,) if magnet else (),
            tags=frozenset({"fastener"}),
        ),
    )


def _checks(record: Fastener, key: str, ruler: Ruler) -> tuple[Check, ...]:
    """A closure that does not reach through what lies between its halves."""
    own = f"extras.items.{key}"
    if (
        record.way != "magnet"
        or record.through == "bare"
        or (record.through == "cards" and record.across_mm >= MAGNETS_HOLD_MM)
    ):
        return ()
    if record.through == "padded":
        return (
            Check(
                code="holds",
                level="watch",
                title="A pair of magnets does not hold through a padded cover.",
                why="Padding keeps the halves apart; they pull through paper and thin card only.",
                offers=(
                    Offer(label="a hook-and-loop dot, which needs no pull", changes=((f"{own}.way", "dot"),)),
                    Offer(label="set on the page itself", changes=((f"{own}.through", "bare"),)),
                ),
            ),
        )
    return (
        Check(
            code="holds",
            level="watch",
            title="So small a pair of magnets hardly holds through two cards.",
            why=f"A pair of {ruler.show(MAGNETS_HOLD_MM)} does; a smaller one lies bare, or holds a single "
            "page.",
            offers=(
                Offer(
                    label=f"a pair of {ruler.show(MAGNETS_HOLD_MM)}",
                    changes=((f"{own}.across_mm", MAGNETS_HOLD_MM),),
                ),
                Offer(label="set on the page itself", changes=((f"{own}.through", "bare"),)),
            ),
        ),
    )


KIND: Final = ExtraKind(
    name="fastener",
    title="magnets or dots",
    summary="Two halves that find each other on facing pages.",
    record=Fastener,
    compute=compute,
    group="closures",
)
