"""Pockets from one strip, folded to and fro: every mouth stands higher than the one before it, all floors lie
on one line."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.plan import Check, Figure, Offer, Rule
from pleat.core.base.words import joined, many
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.extras.base import (
    ExtraKind,
    Face,
    Layer,
    LeftOfExtras,
    Mouth,
    Stocked,
    Thing,
    WorkWords,
)
from pleat.core.pleats.extras.goesin import Filled, goes_in
from pleat.core.trade.extras import EASE_MM, GLUED_EDGE_MM


class Waterfall(Filled):
    """How many pockets, how deep the first is, and by how much each next mouth is higher."""

    kind: Literal["waterfall"] = "waterfall"
    pockets: Annotated[int, NumberRule("pockets", 2, 10, whole=True)] = 3
    width_mm: Annotated[float, LengthRule("it is wide", 20, 600)] | None = None
    depth_mm: Annotated[float, LengthRule("the first pocket, deep", 10, 400)] = 40.0
    step_mm: Annotated[float, LengthRule("each mouth higher by", 5, 100)] = 15.0
    way: Annotated[
        Literal["taped", "glued"], ChoiceRule("its sides", (("taped", "taped"), ("glued", "glued")))
    ] = "taped"
    stock: Stocked = "card"


def panels_of(record: Waterfall) -> tuple[float, ...]:
    """The panels of the strip from the first mouth on, mm: the first pocket's front, two for every pocket
    after it, and the back, one step higher."""
    mouths = [record.depth_mm + number * record.step_mm for number in range(record.pockets)]
    return (mouths[0], *(high for high in mouths[1:] for _ in range(2)), mouths[-1] + record.step_mm)


def compute(record: Waterfall, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The strip folded up on its page."""
    ruler, goes = left.brief.ruler, goes_in(record)
    width = record.width_mm or ruler.snap_up(
        goes.width_mm + EASE_MM + 2 * GLUED_EDGE_MM if goes else face.width_mm * 0.7
    )
    panels, caliper = panels_of(record), left.paper.stock(record.stock).caliper
    height, throat = panels[-1], max(width - 2 * GLUED_EDGE_MM, 0.0)
    layers = [Layer(0.0, height - panel, width, panel, caliper) for panel in panels]
    stands = 0.0
    inside: tuple[Layer, ...] = ()
    if goes:
        lies = (width - goes.width_mm) / 2, height - goes.height_mm
        inside = (Layer(*lies, goes.width_mm, goes.height_mm, goes.thick.times(record.pockets)),)
        stands = max(goes.height_mm - height, 0.0)
    sheet = piece(
        key,
        record.stock,
        [Span("", width)],
        [Span(f"panel {number + 1}", panel) for number, panel in enumerate(panels)],
    )
    return Thing(
        title=f"waterfall of {many(record.pockets, 'pocket')}",
        width_mm=width,
        height_mm=height,
        lines=tuple(
            ((0.0, height - mouth), (width, height - mouth)) for mouth in (panels[0], *panels[1:-1:2])
        ),
        pieces=(sheet,),
        layers=(*layers, *inside),
        inside=inside,
        mouth=Mouth("head", throat, record.depth_mm, {"left": GLUED_EDGE_MM, "right": GLUED_EDGE_MM}),
        stands_mm=stands,
        figures=_figures(record, (width, throat), panels, left),
        checks=_checks(key, goes.width_mm if goes else 0.0, throat, left),
        work=WorkWords(
            "Score all its folds from one end. Fold it to and fro: up to a mouth, down to the floor.",
            f"Glue its back on; then its sides are {record.way}, nothing within {ruler.show(GLUED_EDGE_MM)} "
            "of a mouth.",
            "Slide what belongs there in, the highest pocket first.",
            cautions=(GLUE,),
            tags=frozenset({"glue"}),
        ),
        sheet_stock=record.stock,
    )


def _figures(
    record: Waterfall, across: tuple[float, float], panels: tuple[float, ...], left: LeftOfExtras
) -> tuple[Figure, ...]:
    """The strip, what goes in and how deep; ``across`` are its width and its throat in mm."""
    (width, throat), ruler, total = across, left.brief.ruler, sum(panels)
    deep = [ruler.number(record.depth_mm + number * record.step_mm) for number in range(record.pockets)]
    return (
        Figure(
            key="strip",
            label="the strip",
            value=(width, total),
            show="size",
            how=f"{len(panels)} panels: {' + '.join(ruler.number(panel) for panel in panels)} = "
            f"{ruler.number(total)}.",
            rules=(
                Rule("arithmetic", "the panels added up: two for every pocket, the back one step higher"),
            ),
        ),
        Figure(
            key="throat",
            label="throat",
            value=throat,
            show="length",
            how=f"Its width less {ruler.show(GLUED_EDGE_MM)} at each side that is {record.way}.",
            rules=(Rule("arithmetic", "its width less what holds it"),),
        ),
        Figure(
            key="depth",
            label="depths",
            value=joined(deep),
            show="text",
            how="From each mouth to the floor that all of them share.",
            rules=(Rule("arithmetic", "one step more each"),),
        ),
    )


def _checks(key: str, across: float, throat: float, left: LeftOfExtras) -> tuple[Check, ...]:
    """F1: what goes in against the throat."""
    ruler = left.brief.ruler
    if across <= throat - EASE_MM + 0.05:
        return ()
    wide = ruler.snap_up(across + EASE_MM + 2 * GLUED_EDGE_MM)
    return (
        Check(
            code="F1",
            level="stop" if across > throat else "watch",
            title=f"What goes in is {ruler.show(across)} across, the throat {ruler.show(throat)}.",
            why=f"What holds its sides takes room; {ruler.show(EASE_MM)} less lets it slide.",
            offers=(
                Offer(
                    label=f"the strip {ruler.show(wide)} wide",
                    changes=((f"extras.items.{key}.width_mm", wide),),
                ),
                Offer(label="made for what goes in", changes=((f"extras.items.{key}.width_mm", None),)),
            ),
        ),
    )


KIND: Final = ExtraKind(
    name="waterfall",
    title="waterfall",
    summary="Several pockets from one strip, each mouth higher than the last.",
    record=Waterfall,
    compute=compute,
    group="pockets",
    begins={"goes": "card", "lies": "level"},
)
