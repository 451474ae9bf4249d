"""Boards in two folded strips each, and a spine strip tucked into both: a case without glue.

One strip goes round the board's height, one round its width; each is exactly as wide as the board and meets
in a seam at half of it. The spine strip has two scores half the thickness either side of its middle. The
block's outermost leaves tuck into the same slots.
"""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import BOARD
from pleat.core.base.fields import LengthRule
from pleat.core.base.plan import Check, Figure, Fold, Offer, Part, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Piece, Span, board, piece, scores
from pleat.core.pleats.cover import spine
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult
from pleat.core.pleats.cover.record import FARTHEST_SCORE_MM, LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.spine import Spined, spine_of
from pleat.core.trade.covers import LEAST_TUCK_MM, TUCK_SHARE

GAP_MM: Final = 26.0


class Sheath(Spined):
    """Pleat 6: boards in folded strips."""

    kind: Literal["sheath"] = "sheath"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    tuck_mm: Annotated[float, LengthRule("the spine strip's tuck", 5, 300)] | None = None
    score_offset_mm: (
        Annotated[float, LengthRule("the score from the middle", 0, FARTHEST_SCORE_MM)] | None
    ) = None


def compute(cover: Sheath, left: LeftOfCover) -> LaidResult:
    """Both sheathed boards and the strip between them."""
    ruler, pages, paper = left.brief.ruler, left.pages, left.paper
    stock, card = paper.stock("board"), paper.cover
    b, c = stock.caliper.likely, card.caliper.likely
    inside = spine_of(cover, left)
    width, height = (
        ruler.snap_up(pages.leaf_width_mm + cover.square_mm),
        pages.leaf_height_mm + 2 * cover.square_mm,
    )
    one_cover = stock.caliper.plus(card.caliper.times(4))
    outside = inside.used.plus(one_cover.times(2))
    thick = ruler.snap_up(outside.likely) if cover.score_offset_mm is None else 2 * cover.score_offset_mm
    tuck = cover.tuck_mm or max(ruler.snap(TUCK_SHARE * width), min(LEAST_TUCK_MM, width))
    edge, over = ruler.snap_up(b), ruler.snap_up(b + 2 * c)
    upright, level, strip = (
        _upright(width, height, edge),
        _level(width, height, over),
        _strip(tuck, thick, height),
    )
    shown = _figures(cover, left, (upright, level, strip), (width, height), (edge, over, outside.likely))
    count = left.brief.quantity
    laid = (
        Laid(upright, 0.0, 0.0, "card", "upright"),
        Laid(level, width + GAP_MM, 0.0, "card", "level"),
        Laid(strip, width + GAP_MM, height + 2 * GAP_MM, "card", "spine_strip"),
        Laid(board("board", "board", width, height), 0.0, height / 2 + b, "board", "boards"),
    )
    return LaidResult(
        key_figure=shown[0],
        figures=(*shown, *spine.figures(ruler, inside)),
        checks=(*_checks(cover, left, outside.likely, tuck, width), *spine.checks(cover, left, inside)),
        parts=_parts(upright, level, strip, count, width, height),
        steps=(spine.measured(left, inside), *_steps(left, (upright, level, strip), tuck)),
        front_width_mm=width,
        front_height_mm=height,
        spine=outside,
        swatch=card.swatch,
        square_fore_mm=width - pages.leaf_width_mm,
        square_head_mm=cover.square_mm,
        board_mm=one_cover.likely,
        hides_spine=True,
        laid=laid,
        places=(
            FieldAnchor("cover.square_mm", width + GAP_MM + level.size_mm[0], height * 0.3, cover.square_mm),
            FieldAnchor("cover.tuck_mm", width + GAP_MM + strip.size_mm[0], height * 1.5 + 2 * GAP_MM, tuck),
        ),
        layers=(
            EdgeLayer("two strips", 2 * c, card.swatch),
            EdgeLayer("board", b, stock.swatch),
            EdgeLayer("two strips", 2 * c, card.swatch),
        ),
    )


def _parts(
    upright: Piece, level: Piece, strip: Piece, count: int, width: float, height: float
) -> tuple[Part, ...]:
    """Boards, wraps and the spine strip."""
    return (
        Part(
            key="boards",
            name="board",
            width_mm=width,
            height_mm=height,
            count=2 * count,
            stock="board",
            needs=("block.measured",),
            across="it bows across the spine",
        ),
        _part("upright", "strip round the height", upright, 2 * count),
        _part("level", "strip round the width", level, 2 * count),
        _part("spine_strip", "spine strip", strip, count),
    )


def _upright(width: float, height: float, edge: float) -> Piece:
    """The strip round the board's height: half a board, an edge, the board, an edge, half a board."""
    rows = [
        Span("tail half", height / 2),
        Span("head edge", edge),
        Span("board", height),
        Span("tail edge", edge),
        Span("head half", height / 2),
    ]
    return piece("strip round the height", "cover", [Span("", width)], rows)


def _level(width: float, height: float, edge: float) -> Piece:
    """The strip round the board's width, over the first one, so its edges are two layers wider."""
    columns = [
        Span("fore half", width / 2),
        Span("spine edge", edge),
        Span("board", width),
        Span("fore edge", edge),
        Span("spine half", width / 2),
    ]
    return piece("strip round the width", "cover", columns, [Span("", height)])


def _strip(tuck: float, thick: float, height: float) -> Piece:
    return piece(
        "spine strip",
        "cover",
        [Span("back tuck", tuck), Span("spine", thick), Span("front tuck", tuck)],
        [Span("", height)],
    )


def _part(key: str, name: str, sheet: Piece, count: int) -> Part:
    folds = (
        *(Fold(score, "mountain") for score in scores(sheet)),
        *(Fold(score, "mountain", "level") for score in scores(sheet, upright=False)),
    )
    told = frozenset({"B7"}) if key == "upright" else frozenset()
    return Part(
        key=key,
        name=name,
        width_mm=sheet.size_mm[0],
        height_mm=sheet.size_mm[1],
        count=count,
        stock="cover",
        folds=folds,
        needs=("block.measured",),
        told=told,
        across="its folds crack",
    )


def _figures(
    cover: Sheath,
    left: LeftOfCover,
    sheets: tuple[Piece, Piece, Piece],
    size: tuple[float, float],
    around: tuple[float, float, float],
) -> tuple[Figure, ...]:
    ruler, (width, height), (edge, over, outside) = left.brief.ruler, size, around
    upright, level, strip = sheets
    b = left.paper.stock("board").caliper.likely
    up, across = (
        joined(ruler.number(ruler.snap(mark)) for mark in marks)
        for marks in (scores(upright, upright=False), scores(level))
    )
    spine_marks = joined(ruler.number(ruler.snap(score)) for score in scores(strip))
    return (
        Figure(
            key="boards",
            label="cut two boards",
            value=size,
            show="size",
            how=f"Wide: leaf + square {ruler.number(cover.square_mm)}, to the next mark. High: leaf + 2 "
            "squares.",
            rules=(Rule("arithmetic", "leaf and squares"),),
            scrap=ruler.size(*size),
        ),
        Figure(
            key="upright",
            label="two strips round the height",
            value=upright.size_mm,
            show="size",
            how=f"As wide as the board, {ruler.number(width)}. Long: 2 × board {ruler.number(height)} + 2 × "
            f"{ruler.number(edge)} for its thickness of {ruler.thin(b)}, up to the next mark; scored from "
            f"the head at {up} {ruler.name}, so that the ends meet at half the board.",
            rules=(Rule("arithmetic", "twice the board and two edges"),),
            scrap=ruler.size(*upright.size_mm),
        ),
        Figure(
            key="level",
            label="two strips round the width",
            value=level.size_mm,
            show="size",
            how=f"As high as the board, {ruler.number(height)}. Long: 2 × board {ruler.number(width)} + 2 × "
            f"{ruler.number(over)} for its thickness with the first strip's two layers, up to the next "
            f"mark; scored from the left at {across} {ruler.name}.",
            rules=(Rule("arithmetic", "twice the board and two edges"),),
            scrap=ruler.size(*level.size_mm),
        ),
        _spine_strip(strip, spine_marks, ruler, outside),
    )


def _spine_strip(strip: Piece, spine_marks: str, ruler: Ruler, outside: float) -> Figure:
    """The strip that is the spine."""
    return Figure(
        key="spine_strip",
        label="spine strip",
        value=strip.size_mm,
        show="size",
        how=f"Two tucks and the thickness {ruler.thin(outside)}, up to the next mark: block, two boards "
        f"and eight layers of strip. Its scores lie at {spine_marks} {ruler.name}, the same either side "
        "of the middle.",
        rules=(
            Rule("arithmetic", "half the thickness either side of the middle"),
            Rule("rounded_up", "what holds a thickness is no narrower than it: up to the next mark"),
        ),
        scrap=ruler.size(*strip.size_mm),
    )


def _checks(cover: Sheath, left: LeftOfCover, outside: float, tuck: float, width: float) -> tuple[Check, ...]:
    """A3, E2, B7 (one strip folds across its grain), and a tuck that does not hold."""
    ruler, checks, own = left.brief.ruler, [], cover.score_offset_mm
    if own is not None and abs(2 * own - outside) > ruler.step_mm:
        checks.append(
            Check(
                code="A3",
                level="watch" if 2 * own > outside else "stop",
                title=f"Scores {ruler.thin(own)} either side of the middle make a spine of "
                f"{ruler.thin(2 * own)}; what is inside is {ruler.thin(outside)}.",
                why=f"Half the thickness is {ruler.thin(outside / 2)}: a fraction either side of the middle "
                "is only right if it is half of what the strip goes round.",
                offers=(
                    Offer(label="let Pleat place the scores", changes=(("cover.score_offset_mm", None),)),
                ),
            )
        )
    if cover.square_mm < 0.05:
        checks.append(
            Check(
                code="E2",
                level="note",
                title="There is no square: the boards end with the leaves.",
                why=f"The edges of the leaves take every knock. The usual square is {ruler.show(3.0)}.",
                offers=(Offer(label=f"square {ruler.show(3.0)}", changes=(("cover.square_mm", 3.0),)),),
            )
        )
    if not min(LEAST_TUCK_MM, width) <= tuck <= width + 0.05:
        usual = max(ruler.snap(TUCK_SHARE * width), min(LEAST_TUCK_MM, width))
        checks.append(
            Check(
                code="tuck",
                level="watch" if tuck < width else "stop",
                title=f"The spine strip tucks in {ruler.show(tuck)}, into a board of {ruler.show(width)}.",
                why="A short tuck pulls out when the book opens; a longer one than the board stands out at "
                "the fore edge.",
                offers=(Offer(label=f"tuck {ruler.show(usual)}", changes=(("cover.tuck_mm", None),)),),
            )
        )
    checks.append(
        Check(
            code="B7",
            level="note",
            title="One strip of each board folds across its grain.",
            why="Grain runs along the spine in board and both strips; the one round the height folds against "
            "it, and cracks if it is not scored.",
            no_fix="Score it deep, twice, and fold it slowly over the board's edge.",
        )
    )
    return tuple(checks)


def _steps(left: LeftOfCover, sheets: tuple[Piece, Piece, Piece], tuck: float) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    upright, level, strip = sheets
    up, across = (
        joined(ruler.number(ruler.snap(mark)) for mark in marks)
        for marks in (scores(upright, upright=False), scores(level))
    )
    spine_marks = joined(ruler.number(ruler.snap(score)) for score in scores(strip))
    return (
        Step(
            key="score_strips",
            title="Score the strips",
            detail=f"Round the height, from its head: {up} {ruler.name}. Round the width, from the left: "
            f"{across} {ruler.name}. Spine strip, from the left: {spine_marks} {ruler.name}. Round the "
            "corners of all ends that are tucked in.",
            tools=("rule and scoring tool", "scissors"),
            needs=("cover.cut", "cover.ready"),
            gives=("cover.scored",),
            signature=signature(*scores(upright, upright=False), *scores(level), *scores(strip)),
            kind="fold",
        ),
        Step(
            key="sheathe",
            title="Sheathe the boards",
            detail="Lay a board on the middle of its strip round the height, fold both ends over and let "
            "them meet. Turn it, and fold the strip round the width over it the same way: its ends go under "
            "those of the first and lock them.",
            tools=("bone folder",),
            needs=("cover.scored", "board.cut", "board.ready"),
            gives=("board.sheathed",),
            fixes=("cover.boards", "cover.upright", "cover.level"),
            cautions=(BOARD,),
            minutes=10,
            kind="cover",
        ),
        Step(
            key="tuck_spine",
            title="Tuck the spine strip in",
            detail=f"{ruler.show(tuck)} into the slot at the spine edge of either cover, scores outside.",
            needs=("board.sheathed",),
            gives=("cover.whole",),
            fixes=("cover.spine_strip",),
            signature=signature(tuck),
            kind="cover",
        ),
        Step(
            key="tuck_leaves",
            title="Tuck the first and the last leaf in",
            detail="Into the same slots, over the spine strip: they hold the block without glue.",
            needs=("cover.whole", "block.flat"),
            gives=("book.hung", "book.bound"),
            tags=frozenset({"hanging in"}),
            kind="hang",
        ),
    )


KIND: Final = CoverKind(
    tucked=2,
    name="sheath",
    title="boards in folded strips",
    summary="Two boards wrapped in folded strips and a spine strip tucked in: no glue at all.",
    record=Sheath,
    compute=compute,
    roles=("board", "cover"),
    takes=frozenset({"block", "spine"}),
    hung=True,
)
