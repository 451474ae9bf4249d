"""The figures of a soft wrap, each with its why."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.panels import PanelPlan
from pleat.core.pleats.cover import spine
from pleat.core.pleats.cover.record import Wrap
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.spine import Spine
from pleat.core.pleats.pages.block import Block
from pleat.core.trade.covers import ONE_CREASE_MM


@dataclass(frozen=True)
class Shaped:
    """What the figures are about: the wrap, the spine inside it and the width it is scored for, 0 for one
    crease; mm."""

    wrap: PanelPlan
    spine: Estimate
    scored_mm: float


def figures(cover: Wrap, left: LeftOfCover, shaped: Shaped, inside: Spine) -> tuple[Figure, ...]:
    """Every figure of this pleat, what to cut first."""
    ruler, pages = left.brief.ruler, left.pages
    return (
        _size_figure(cover, ruler, pages, shaped),
        *spine.figures(ruler, inside),
        _scores(cover, ruler, shaped),
        _square(cover, ruler, pages),
    )


def _scores(cover: Wrap, ruler: Ruler, shaped: Shaped) -> Figure:
    wrap, scored = shaped.wrap, shaped.scored_mm
    words = joined(ruler.number(score) for score in wrap.scores_mm)
    return Figure(
        key="scores",
        label="score from the left edge",
        value=f"{words} {ruler.name}",
        show="text",
        how="Running from one edge, so that rounding does not pile up. "
        f"{_why_so_wide(cover, ruler, shaped.spine, scored)}",
        rules=(
            Rule("arithmetic", "panel edges"),
            Rule("ONE_CREASE_MM", "one crease up to 3 to 4 mm, no source"),
        ),
        scrap=f"{words} {ruler.name}",
        aside=_wider(ruler, shaped.spine, scored),
    )


def _square(cover: Wrap, ruler: Ruler, pages: Block) -> Figure:
    return Figure(
        key="square",
        label="square",
        value=cover.square_mm,
        show="length",
        how="The cover stands this far past the leaves at head, tail and fore edge. "
        + (
            f"The creep needs {ruler.thin(pages.stands_out_mm.likely)} of it."
            if pages.stands_out_mm is not None
            else "The leaves end level, so it keeps all of it."
        ),
        rules=(Rule("USUAL_SQUARE_MM", "3 mm; flush and 10 to 15 mm are schools of their own; no source"),),
    )


def _size_figure(cover: Wrap, ruler: Ruler, pages: Block, shaped: Shaped) -> Figure:
    """What the cover is cut to, both sides added up as they are shown."""
    wrap = shaped.wrap
    half = [] if shaped.scored_mm else [shaped.spine.likely / 2]
    parts, panel = ruler.summed([pages.leaf_width_mm, cover.square_mm, *half])
    names = ("leaf", "square", "half of the spine")
    made_of = " + ".join(f"{name} {part}" for name, part in zip(names, parts, strict=False))
    front = wrap.panels[0] if wrap.panels[0].name == "back" else wrap.panels[1]
    side = front.width_mm + sum(one.width_mm for one in wrap.panels if one.name == "hinge") / 2
    marked = "" if panel == ruler.number(side) else f", at the next mark {ruler.number(side)}"
    shown, wide = ruler.summed([one.width_mm for one in wrap.panels])
    across = " + ".join(f"{one.name} {width}" for one, width in zip(wrap.panels, shown, strict=True))
    (above, high_leaf, below), high = ruler.summed([cover.square_mm, pages.leaf_height_mm, cover.square_mm])
    return Figure(
        key="wrap",
        label="cut the cover",
        value=(wrap.width_mm, wrap.height_mm),
        show="size",
        scrap=ruler.size(wrap.width_mm, wrap.height_mm),
        how=(
            f"Wide: {across} = {wide}; a panel: {made_of} = {panel}{marked}. "
            f"High: {above} + leaf {high_leaf} + {below} = {high} {ruler.name}."
        ),
        rules=(
            Rule("arithmetic", "panels and spine added up"),
            Rule("USUAL_SQUARE_MM", "square 3 mm, no source"),
        ),
    )


def _why_so_wide(cover: Wrap, ruler: Ruler, spine: Estimate, scored: float) -> str:
    if not scored:
        return f"One crease: it serves up to about {ruler.thin(ONE_CREASE_MM)}."
    if cover.score_offset_mm:
        return (
            f"Two creases {ruler.thin(scored)} apart, as you set them; what is inside is "
            f"{ruler.thin(spine.likely)}."
        )
    return (
        f"Two creases {ruler.show(scored)} apart: the first marks at which the spine of "
        f"{ruler.thin(spine.likely)} has room."
    )


def _wider(ruler: Ruler, spine: Estimate, scored: float) -> str:
    """By how much the scored spine is wider than what is inside, where that can be seen."""
    more = scored - spine.likely
    return (
        f"spine {ruler.show(scored)}, {ruler.thin(more)} wider than what is inside"
        if scored and more >= ruler.thin_mm
        else ""
    )
