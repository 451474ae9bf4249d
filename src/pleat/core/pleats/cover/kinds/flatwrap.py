"""A wrap with a flat spine, in one piece: for what stands side by side on a spine, or is glued in by its
ends."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.plan import Check, Figure, Fold, Offer, Part, Rule, Step, signature
from pleat.core.base.scenes import Lying
from pleat.core.base.staged import marked
from pleat.core.base.words import joined
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Piece, Span, piece, scores
from pleat.core.pleats.cover import spine
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult, Motion
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.spine import Spined, spine_of


class FlatWrap(Spined):
    """Pleat 6: a wrap with a flat spine; ``spine_mm`` is one that is scored already."""

    kind: Literal["flatwrap"] = "flatwrap"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    spine_mm: Annotated[float, LengthRule("the spine between its scores", 0.5, 300)] | None = None


def compute(cover: FlatWrap, left: LeftOfCover) -> LaidResult:
    """Back, spine and front, over what is inside."""
    ruler, pages, card = left.brief.ruler, left.pages, left.paper.cover
    inside = spine_of(cover, left)
    panel = ruler.snap_up(pages.leaf_width_mm + cover.square_mm)
    height = pages.leaf_height_mm + 2 * cover.square_mm
    scored = cover.spine_mm or max(ruler.snap_up(inside.used.likely), ruler.step_mm)
    wrap = piece(
        "wrap",
        "cover",
        [Span("back", panel), Span("spine", scored), Span("front", panel)],
        [Span("", height)],
        good="A" if card.sides == 1 else "both",
    )
    size, score = _figures(cover, left, wrap, (panel, scored))
    corner = (max(panel - pages.leaf_width_mm, 0.0), cover.square_mm)
    thick = inside.used.plus(card.caliper.times(2))
    groups = ((("back", "spine", 90.0), ("spine", "front", 90.0)),)
    return LaidResult(
        key_figure=size,
        figures=(size, score, *spine.figures(ruler, inside)),
        checks=(*_narrow(cover, left, scored, inside.used.likely), *spine.checks(cover, left, inside)),
        parts=(
            Part(
                key="cover",
                name="cover",
                width_mm=wrap.size_mm[0],
                height_mm=wrap.size_mm[1],
                count=left.brief.quantity,
                stock="cover",
                folds=tuple(Fold(at, "mountain") for at in scores(wrap)),
                needs=("block.measured",) if left.binding.at == "ends" else (),
                across="the folds at the spine crack",
            ),
        ),
        steps=(_score(left, wrap),),
        front_width_mm=panel,
        front_height_mm=height,
        spine=thick,
        swatch=card.swatch,
        square_fore_mm=panel - pages.leaf_width_mm,
        square_head_mm=cover.square_mm,
        laid=(Laid(wrap, 0.0, 0.0, "card", "cover"),),
        layers=(EdgeLayer("card", card.caliper.likely, card.swatch),),
        motion=Motion(
            wrap,
            "back",
            groups,
            ("open", "shut"),
            (pages.leaf_width_mm, pages.leaf_height_mm, corner),
            max(inside.used.likely, 1.0),
        ),
        places=(
            FieldAnchor("cover.square_mm", 2 * panel + scored, height * 0.12, cover.square_mm),
            FieldAnchor("cover.spine_mm", panel + scored / 2, height, scored, below=True),
        ),
    )


def _figures(
    cover: FlatWrap, left: LeftOfCover, wrap: Piece, sizes: tuple[float, float]
) -> tuple[Figure, Figure]:
    """What it is cut to, and its scores."""
    ruler, pages = left.brief.ruler, left.pages
    panel, scored = sizes
    shown, whole = ruler.summed([panel, scored, panel])
    marks = f"{joined(ruler.number(ruler.snap(at)) for at in scores(wrap))} {ruler.name}"
    size = Figure(
        key="wrap",
        label="cut the cover",
        value=wrap.size_mm,
        show="size",
        how=f"Wide: {' + '.join(shown)} = {whole} {ruler.name}. High: leaf "
        f"{ruler.number(pages.leaf_height_mm)} + 2 × {ruler.number(cover.square_mm)}.",
        rules=(Rule("arithmetic", "panels added up"),),
        scrap=ruler.size(*wrap.size_mm),
    )
    score = Figure(
        key="scores",
        label="score from the left edge",
        value=marks,
        show="text",
        how="Outside up, both from one edge: the spine stays flat between them.",
        rules=(Rule("arithmetic", "panel edges"),),
        scrap=marks,
    )
    return size, score


def _score(left: LeftOfCover, wrap: Piece) -> Step:
    marks = (
        f"{joined(left.brief.ruler.number(left.brief.ruler.snap(score)) for score in scores(wrap))} "
        f"{left.brief.ruler.name}"
    )
    return Step(
        key="cover_scored",
        title="Score and fold the cover",
        detail=f"From the left edge, outside up: {marks}. Fold away from the groove and press each crease "
        "with the bone folder.",
        tools=("rule and scoring tool", "bone folder"),
        needs=("cover.cut", "cover.ready"),
        gives=("cover.scored",),
        signature=signature(*scores(wrap)),
        kind="fold",
        shows=lambda: marked(Lying("", 0.0, 0.0, *wrap.size_mm, stock="cover"), upright=scores(wrap)),
    )


def _narrow(cover: FlatWrap, left: LeftOfCover, scored: float, need: float) -> tuple[Check, ...]:
    """F5: a spine narrower than what stands on it."""
    ruler = left.brief.ruler
    if cover.spine_mm is None or scored >= need - ruler.step_mm / 2:
        return ()
    right = ruler.show(ruler.snap_up(need))
    return (
        Check(
            code="F5",
            level="stop",
            title=f"The spine of {ruler.show(scored)} is too narrow: {ruler.thin(need)} stand on it.",
            why="The wrap cannot come down flat on the front, and the book gapes.",
            offers=(Offer(label=f"a spine of {right}", changes=(("cover.spine_mm", None),)),),
        ),
    )


KIND: Final = CoverKind(
    name="flatwrap",
    title="wrap with a flat spine",
    summary="Back, spine and front in one piece of card, the spine flat between two scores.",
    record=FlatWrap,
    compute=compute,
    roles=("cover",),
    takes=frozenset({"row", "ends"}),
)
