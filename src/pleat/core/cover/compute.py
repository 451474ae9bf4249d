"""Cover: the soft wrap, flat from the outside, back on the left. Panel = leaf width + square, up to the ruler's next mark; the spine is what is inside."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.binding.compute import BindingResult
from pleat.core.brief.compute import BriefResult
from pleat.core.cover import checks
from pleat.core.cover.record import Wrap
from pleat.core.estimate import Estimate, total
from pleat.core.extras.compute import ExtrasResult
from pleat.core.materials.tools import Tools
from pleat.core.pages.compute import PagesResult
from pleat.core.panels import Panel, PanelPlan
from pleat.core.paper.compute import PaperResult
from pleat.core.plan import Figure, Part, PleatResult, Rule
from pleat.core.units import Ruler

ONE_CREASE_MM: Final = 3.5
"""Up to here one crease serves a section (common practice: about 3 to 4 mm)."""


@dataclass(frozen=True, kw_only=True)
class CoverResult(PleatResult):
    """The wrap as a panel plan; squares in mm as they really come out, holes from the cover's own head.

    ``rows_mm`` are the sections' rows of holes from the left edge, ``on_board`` says that it can be scored on the maker's scoring board.
    """

    wrap: PanelPlan
    spine: Estimate
    creases: int
    score_offset_mm: float | None
    square_mm: float
    square_fore_mm: float
    square_head_mm: float
    holes_mm: tuple[float, ...]
    rows_mm: tuple[float, ...]
    parts: tuple[Part, ...]
    on_board: bool


def compute(
    cover: Wrap, brief: BriefResult, paper: PaperResult, pages: PagesResult, extras: ExtrasResult, binding: BindingResult, tools: Tools
) -> CoverResult:
    """The wrap around the section of ``pages`` as sewn by ``binding``."""
    spine = total([pages.thickness, extras.added, binding.swell])
    offset = cover.score_offset_mm
    creases = 2 if offset or len(pages.sections) > 1 else {"one": 1, "two": 2}.get(cover.creases, 1 if spine.likely <= ONE_CREASE_MM else 2)
    scored = 0.0 if creases == 1 else 2 * offset if offset else brief.ruler.snap_up(spine.likely)
    wrap = _wrap(cover, brief.ruler, pages, spine.likely, scored)
    wide, high = cover.piece_width_mm or wrap.width_mm, cover.piece_height_mm or wrap.height_mm
    square_fore = (wide - max(spine.likely, scored)) / 2 - pages.leaf_width_mm
    square_head = (high - pages.leaf_height_mm) / 2
    holes = tuple(position + square_head for position in binding.positions_mm)
    figures = _figures(cover, brief.ruler, pages, binding, spine, wrap, scored)
    outcome = checks.Outcome(spine, wrap, creases, square_fore, square_head, holes, max(0.0, spine.likely - scored) / 2 if scored else 0.0)
    return CoverResult(
        key_figure=figures[0],
        figures=figures,
        checks=checks.find(cover, brief.ruler, paper.cover, pages, binding, outcome, tools),
        wrap=wrap,
        spine=spine,
        creases=creases,
        score_offset_mm=offset,
        square_mm=cover.square_mm,
        square_fore_mm=square_fore,
        square_head_mm=square_head,
        holes_mm=holes,
        rows_mm=_rows(pages.sections, wrap, spine.likely),
        on_board=tools.scoring_longest_mm is not None and max(wrap.width_mm, wrap.height_mm) <= tools.scoring_longest_mm + 0.05,
        parts=(Part("cover", "cover", wrap.width_mm, wrap.height_mm, brief.quantity, "cover", folds=wrap.folds),),
    )


def _wrap(cover: Wrap, ruler: Ruler, pages: PagesResult, spine: float, scored: float) -> PanelPlan:
    """Panels of the leaf's width and the square either side of the spine; without a ``scored`` spine its half goes to each of them.

    A panel ends on the first mark of the ruler that leaves the square whole: so both are equal and the scores add up as they are read.
    """
    side = ruler.snap_up(pages.leaf_width_mm + cover.square_mm + (0.0 if scored else spine / 2))
    height = pages.leaf_height_mm + 2 * cover.square_mm
    if not scored:
        return PanelPlan((Panel("back", side), Panel("front", side)), height)
    return PanelPlan((Panel("back", side), Panel("spine", scored), Panel("front", side)), height)


def _rows(sections: tuple[int, ...], wrap: PanelPlan, spine: float) -> tuple[float, ...]:
    """Where each section's row of holes lies from the wrap's left edge: in the middle of its share of the spine.

    Seen from the outside the first section lies next to the front, on the right.
    """
    left, total, at = (wrap.width_mm - spine) / 2, sum(sections), 0.0
    rows = []
    for folios in reversed(sections):
        rows.append(left + spine * (at + folios / 2) / total)
        at += folios
    return tuple(rows)


def _figures(
    cover: Wrap, ruler: Ruler, pages: PagesResult, binding: BindingResult, spine: Estimate, wrap: PanelPlan, scored: float
) -> tuple[Figure, ...]:
    (section, thread), inside = _thin_sum(ruler, [pages.thickness.likely, binding.swell.likely])
    spine_figure = Figure(
        key="spine",
        label="spine",
        value=spine,
        show="thin",
        how=f"{'Section' if len(pages.sections) == 1 else 'Sections'} {section} + {thread} that the thread adds = {inside} {ruler.name}. Most of the range: {spine.main_doubt() or 'none'}."
        + ("" if pages.measured else " Press the folded section and measure it before you cut: type it under Pages."),
        rules=(Rule("arithmetic", "what is inside, added up"), Rule("house rule", "the thread's share")),
    )
    words = " and ".join(ruler.number(score) for score in wrap.scores_mm)
    scores = Figure(
        key="scores",
        label="score from the left edge",
        value=f"{words} {ruler.name}",
        show="text",
        how=f"Running from one edge, so that rounding does not pile up. {_why_so_wide(cover, ruler, spine, scored)}",
        rules=(Rule("arithmetic", "panel edges"), Rule("common practice", "one crease up to 3 to 4 mm, no source")),
        aside=_wider(ruler, spine, scored),
    )
    square = Figure(
        key="square",
        label="square",
        value=cover.square_mm,
        show="length",
        how="The cover stands this far past the leaves at head, tail and fore edge. "
        + (
            f"The creep needs {ruler.thin(pages.creep.likely)} of it."
            if pages.stands_out
            else "The leaves end level, so it keeps all of it."
        ),
        rules=(Rule("common practice", "3 mm; flush and 10 to 15 mm are schools of their own; no source"),),
    )
    return (_size_figure(cover, ruler, pages, spine, wrap, scored), spine_figure, scores, square)


def _size_figure(cover: Wrap, ruler: Ruler, pages: PagesResult, spine: Estimate, wrap: PanelPlan, scored: float) -> Figure:
    """What the cover is cut to, both sides added up as they are shown."""
    half = [] if scored else [spine.likely / 2]
    parts, panel = ruler.summed([pages.leaf_width_mm, cover.square_mm, *half])
    names = ("leaf", "square", "half of the spine")
    made_of = " + ".join(f"{name} {part}" for name, part in zip(names, parts, strict=False))
    marked = "" if panel == ruler.number(wrap.panels[0].width_mm) else f", at the next mark {ruler.number(wrap.panels[0].width_mm)}"
    shown, wide = ruler.summed([one.width_mm for one in wrap.panels])
    across = " + ".join(f"{one.name} {width}" for one, width in zip(wrap.panels, shown, strict=True))
    (above, high_leaf, below), high = ruler.summed([cover.square_mm, pages.leaf_height_mm, cover.square_mm])
    return Figure(
        key="wrap",
        label="cut the cover",
        value=(wrap.width_mm, wrap.height_mm),
        show="size",
        how=(
            f"Wide: {across} = {wide}; a panel: {made_of} = {panel}{marked}. "
            f"High: {above} + leaf {high_leaf} + {below} = {high} {ruler.name}."
        ),
        rules=(Rule("arithmetic", "panels and spine added up"), Rule("common practice", "square 3 mm, no source")),
    )


def _thin_sum(ruler: Ruler, parts: list[float]) -> tuple[list[str], str]:
    """Thicknesses that add up as they are shown, on the finest marks."""
    return ruler.summed([*parts], finest=True)


def _why_so_wide(cover: Wrap, ruler: Ruler, spine: Estimate, scored: float) -> str:
    if not scored:
        return f"One crease: it serves up to about {ruler.thin(ONE_CREASE_MM)}."
    if cover.score_offset_mm:
        return f"Two creases {ruler.thin(scored)} apart, as you set them; what is inside is {ruler.thin(spine.likely)}."
    return f"Two creases {ruler.show(scored)} apart: the first marks at which the spine of {ruler.thin(spine.likely)} has room."


def _wider(ruler: Ruler, spine: Estimate, scored: float) -> str:
    """By how much the scored spine is wider than what is inside, where that can be seen."""
    more = scored - spine.likely
    return f"spine {ruler.show(scored)}, {ruler.thin(more)} wider than what is inside" if scored and more >= ruler.thin_mm else ""
