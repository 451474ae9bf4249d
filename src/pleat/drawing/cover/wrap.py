"""The soft wrap flat, from the outside: back on the left, front on the right, scores running from the left
edge."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.panels import PanelPlan
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.pleats.pages.block import Block
from pleat.core.whole.planning import Plan
from pleat.drawing import portraits
from pleat.drawing.looks import main, strip
from pleat.drawing.portraits import Body
from pleat.drawing.shapes import ControlSpot, Dim, Dot, Drawing, Label, Line, Rect, Shape

MOST_SCORES: Final = 2
"""Scores with a dimension line each; more share one."""
NARROW: Final = 0.12
"""Panels narrower than this share of the wrap have their name turned."""
MOST_ROWS: Final = 4
"""Rows of holes that are dimensioned on the drawing; the printed strip has them all."""


@main.register
def flat(result: WrapResult, plan: Plan) -> Drawing:
    """The wrap with its panels, scores, holes and the leaves' outline; the square is the form."""
    wrap, pages, ruler, swatch = result.wrap, plan.pages, plan.brief.ruler, result.swatch
    with_grain = next((cut.better.with_grain for cut in plan.cutting.cuts if cut.part.key == "cover"), None)
    width, height, square = wrap.width_mm, wrap.height_mm, result.square_mm
    edges = wrap.edges_mm
    shapes: list[Shape] = [Rect(0, 0, width, height, f"wrap swatch-{swatch}")]
    flap = result.flap_mm
    for x in (flap + square, width - flap - square - pages.leaf_width_mm):
        shapes.append(Rect(x, square, pages.leaf_width_mm, pages.leaf_height_mm, "under"))
    shapes += [Line(x, 0, x, height, "score") for x in wrap.scores_mm]
    shapes += [
        Dot(x, position - result.square_head_mm + square, "hole", 0.7)
        for x in result.rows_mm
        for position in result.holes_mm
    ]
    shapes += _names(wrap, edges, height, ruler)
    grain = {True: ", grain along the spine", False: ", across the grain", None: ""}[with_grain]
    dims = [Dim("top", 0, width, f"{ruler.size(width, height)}{grain}")]
    shown, _ = ruler.summed([right - left for left, right in itertools.pairwise(edges)])
    dims += [
        Dim("bottom", left, right, text)
        for (left, right), text in zip(itertools.pairwise(edges), shown, strict=True)
        if right - left > 0.06 * width
    ]
    if len(result.rows_mm) > 1:
        rows = list(enumerate(result.rows_mm))
        dims += [
            Dim(
                "top",
                0,
                row,
                f"holes of section {len(rows) - number} at {ruler.number(row)}",
                level=number + 2,
            )
            for number, row in rows[:MOST_ROWS]
        ]
    dims += _scores(wrap, ruler)
    dims.append(Dim("left", 0, height, ruler.number(height)))
    shapes.append(Line(width - flap - square, height * 0.08, width * 1.04, height * 0.08, "leader"))
    return Drawing(
        width,
        height,
        f"The cover flat from the outside, {ruler.size(width, height)}, scored at "
        f"{joined(ruler.number(s) for s in wrap.scores_mm)} {ruler.name} from the left.",
        shapes,
        dims=dims,
        room=(("right", 112.0),),
        spots=(ControlSpot("cover.square_mm", width, height * 0.08, (64, 0)),),
    )


def _names(wrap: PanelPlan, edges: Sequence[float], height: float, ruler: Ruler) -> list[Label]:
    """The panels' names and sizes; a narrow one has its name turned, where there is room."""
    shapes, width = [], wrap.width_mm
    for panel, left, right in zip(wrap.panels, edges, edges[1:], strict=False):
        if panel.width_mm < NARROW * width:
            if (not wrap.valleys and panel.width_mm > 0.012 * width) or (
                panel.name == "pleat" and left < width / 2 - 1
            ):
                shapes.append(
                    Label(
                        (left + right) / 2, height * 0.86, panel.name, "on-sheet", turned=True, shift=(-8, 0)
                    )
                )
        else:
            shapes.append(Label((left + right) / 2, height * 0.46, panel.name, "panel-name"))
            shapes.append(
                Label(
                    (left + right) / 2,
                    height * 0.46,
                    ruler.size(panel.width_mm, height),
                    "label",
                    shift=(0, 24),
                )
            )
    return shapes


def _scores(wrap: PanelPlan, ruler: Ruler) -> list[Dim]:
    """A dimension line for every score, or one for all of them."""
    if len(wrap.scores_mm) <= MOST_SCORES:
        return [
            Dim("bottom", 0, score, f"score at {ruler.number(score)}", level=level)
            for level, score in enumerate(wrap.scores_mm, 2)
        ]
    said = joined(ruler.number(score) for score in wrap.scores_mm)
    return [Dim("bottom", 0, wrap.scores_mm[-1], f"scores at {said}", level=2)]


@strip.register
def small(result: WrapResult, _plan: Plan) -> Drawing:
    """The wrap upright, small."""
    wrap = result.wrap
    shapes: list[Shape] = [Rect(0, 0, wrap.width_mm, wrap.height_mm, f"wrap swatch-{result.swatch}")]
    shapes += [Line(x, 0, x, wrap.height_mm, "score") for x in wrap.scores_mm]
    return Drawing(wrap.width_mm, wrap.height_mm, "cover", shapes)


@portraits.behind.register
def _back(cover: WrapResult, body: Body) -> list[Shape]:
    """The back cover, whose edge stands above the leaves."""
    w, h, t = body.width, body.height, body.thick
    return [body.face([(0, 0, t), (w, 0, t), (w, h, t), (0, h, t)], f"portrait-face swatch-{cover.swatch}")]


@portraits.covered.register
def _shut(cover: WrapResult, _block: Block, body: Body) -> list[Shape]:
    """The spine, rounded over where one crease makes it, and the front with its label."""
    w, h, t = body.width, body.height, body.thick
    spine = [(0.0, 0.0, 0.0), (0.0, 0.0, t), (0.0, h, t), (0.0, h, 0.0)]
    shapes: list[Shape] = [
        body.face(spine, f"portrait-face swatch-{cover.swatch}"),
        body.face(spine, "portrait-shade"),
    ]
    x, y = body.at(0, 0)
    shapes.append(Rect(x, y, w, h, f"portrait-face swatch-{cover.swatch}"))
    shapes.append(Rect(x + w * 0.2, y + h * 0.2, w * 0.6, h * 0.16, "portrait-label"))
    return shapes
