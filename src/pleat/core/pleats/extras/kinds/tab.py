"""What stands out past an edge of the page: an index tab, a pull for what slides, or a loop that a ring of
keys hangs in."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE, PUNCH
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Count, Figure, Offer, Rule
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.extras.base import (
    Extra,
    ExtraKind,
    Face,
    Layer,
    LeftOfExtras,
    Sided,
    Stocked,
    Thing,
    WorkWords,
)
from pleat.core.trade.extras import SET_MM

WAYS: Final = (("index", "an index tab"), ("pull", "a pull"), ("loop", "a loop for a key ring"))
STRONG: Final = (
    ("none", "nothing"),
    ("tape", "cloth tape over its foot"),
    ("eyelet", "an eyelet"),
    ("brad", "a brad through page and loop"),
)


class Tab(Extra):
    """A strip folded over the edge and glued to the page: how wide it is, how far it stands out, how much of
    it is glued on."""

    kind: Literal["tab"] = "tab"
    way: Annotated[Literal["index", "pull", "loop"], ChoiceRule("it is", WAYS)] = "index"
    edge: Sided = "right"
    wide_mm: Annotated[float, LengthRule("along the edge", 5, 300)] = 25.0
    out_mm: Annotated[float, LengthRule("it stands out", 2, 120)] = 8.0
    glued_mm: Annotated[float, LengthRule("glued on", 5, 120)] = 12.0
    strong: Annotated[Literal["none", "tape", "eyelet", "brad"], ChoiceRule("strengthened by", STRONG)] = (
        "none"
    )
    stock: Stocked = "card"


def compute(record: Tab, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The part of it on the page; the rest is folded over the edge, doubled."""
    ruler, caliper = left.brief.ruler, left.paper.stock(record.stock).caliper
    upright = record.edge in ("left", "right")
    along, glued = record.wide_mm, record.glued_mm
    width, height = (glued, along) if upright else (along, glued)
    middle = (face.width_mm - width) / 2, (face.height_mm - height) / 2
    at = {
        "left": (0.0, middle[1]),
        "right": (face.width_mm - width, middle[1]),
        "head": (middle[0], 0.0),
        "tail": (middle[0], face.height_mm - height),
    }[record.edge]
    spans = [Span("foot", glued), Span("out", record.out_mm), Span("over", record.out_mm)]
    sheet = piece(
        key,
        record.stock,
        spans if upright else [Span("", along)],
        [Span("", along)] if upright else spans,
        glued=["foot", "over"],
    )
    set_ = record.strong in ("eyelet", "brad")
    title = {"index": "index tab", "pull": "pull", "loop": "key-ring loop"}[record.way]
    return Thing(
        title=title,
        width_mm=width,
        height_mm=height,
        pieces=(sheet,),
        layers=(Layer(0.0, 0.0, width, height, caliper),),
        counts=(Count(key=f"extra_{key}", name=record.strong, count=1, stock=record.strong, use="extras"),)
        if set_
        else (),
        out=(record.edge, record.out_mm),
        at=at,
        figures=(
            Figure(
                key="strip",
                label="the strip",
                value=sheet.size_mm,
                show="size",
                how=f"Glued on {ruler.show(glued)}, and twice {ruler.show(record.out_mm)}: it is folded over "
                "on itself past the edge.",
                rules=(Rule("arithmetic", "foot and twice what stands out"),),
            ),
        ),
        checks=_checks(record, key, title, left),
        work=WorkWords(
            f"Score it at {ruler.show(glued)} and {ruler.show(glued + record.out_mm)} and fold it over on "
            "itself.",
            "Glue its foot to the page, and the part that stands out to itself."
            + (f" Then set the {record.strong} through both, with a scrap under it." if set_ else "")
            + (" Then lay the cloth tape over its foot." if record.strong == "tape" else ""),
            cautions=(GLUE, PUNCH) if set_ else (GLUE,),
            tags=frozenset({"glue"}),
        ),
        sheet_stock=record.stock,
    )


def _checks(record: Tab, key: str, title: str, left: LeftOfExtras) -> tuple[Check, ...]:
    """D10: what is pulled or bears a load tears out of glue alone; an eyelet or brad wider than its strip
    breaks its edge."""
    own, ruler = f"extras.items.{key}", left.brief.ruler
    if record.strong in ("eyelet", "brad") and record.wide_mm < 2 * SET_MM:
        wide = ruler.snap_up(2 * SET_MM)
        return (
            Check(
                code="D10",
                level="watch",
                title=f"The {title} is {ruler.show(record.wide_mm)} wide: a set {record.strong} is "
                f"{ruler.show(SET_MM)} across and breaks its edge.",
                why="Half its width has to stay on each side.",
                offers=(
                    Offer(label=f"{ruler.show(wide)} wide", changes=((f"{own}.wide_mm", wide),)),
                    Offer(label="cloth tape instead", changes=((f"{own}.strong", "tape"),)),
                ),
            ),
        )
    if record.way == "index" or record.strong != "none":
        return ()
    pull = "loaded" if record.way == "loop" else "pulled"
    return (
        Check(
            code="D10",
            level="stop" if record.way == "loop" else "watch",
            title=f"The {title} is held by glue alone, and it is {pull}.",
            why="What moves and bears a load tears out of glue and paper; it is set through the page, or "
            "taped.",
            offers=(
                Offer(
                    label="a brad through both",
                    changes=(
                        (f"{own}.strong", "brad"),
                        (f"{own}.wide_mm", max(record.wide_mm, ruler.snap_up(2 * SET_MM))),
                    ),
                ),
                Offer(label="cloth tape over its foot", changes=((f"{own}.strong", "tape"),)),
            ),
        ),
    )


KIND: Final = ExtraKind(
    name="tab",
    title="tab, pull or loop",
    summary="Stands out past an edge: to find a page, to pull, or for a key ring.",
    record=Tab,
    compute=compute,
    group="closures",
)
