"""A case whose spine and a part of its boards are covered in one material and the rest of the boards in
another, which overlaps it."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Piece, Span, piece
from pleat.core.pleats.cover import hard
from pleat.core.pleats.cover.hard import HardCoverSpec, HardResult
from pleat.core.pleats.cover.hard_steps import CoverWords
from pleat.core.pleats.cover.laid import Laid
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.shell import Hard, Shell, cornered, turned_in
from pleat.core.trade.cases import QUARTER_OVERLAP_MM, QUARTER_SHARE


class Quarter(Hard):
    """Pleat 6: a case in quarter covering."""

    kind: Literal["quarter"] = "quarter"
    onto_mm: Annotated[float, LengthRule("the spine's covering on to the board", 3, 300)] | None = None


def _own(cover: Quarter, shell: Shell, left: LeftOfCover) -> HardCoverSpec:
    ruler, count = left.brief.ruler, left.brief.quantity
    lap = ruler.near(QUARTER_OVERLAP_MM)
    onto = cover.onto_mm or ruler.snap(sum(QUARTER_SHARE) / 2 * shell.front)
    onto = min(onto, shell.front - lap, shell.back - lap)
    names = ("onto back", "back joint", "spine", "front joint", "onto front")
    widths = (onto, shell.joint, shell.strip, shell.joint, onto)
    columns = [Span(name, width, "bend") for name, width in zip(names, widths, strict=True)]
    kept = [(name, row.name) for name in names for row in shell.rows if row.name]
    back = piece(
        "spine covering", "covering", columns, shell.rows, kept=kept, glued=turned_in(columns, shell)
    )
    side_w = shell.front - onto + lap
    left_side, right_side = (
        _side(shell, "back side", shell.back - onto + lap, "left"),
        _side(shell, "front side", side_w, "right"),
    )
    laid = (
        Laid(back, shell.edges[2] - onto, 0.0, "covering", "covering"),
        Laid(left_side, 0.0, 0.0, "side", "sides"),
        Laid(right_side, shell.edges[5] + onto - lap, 0.0, "side", "sides"),
    )
    wide = 2 * onto + 2 * shell.joint + shell.strip
    figures = _figures(shell, onto, lap, wide, ruler)
    words = CoverWords(
        glue="Glue boards and strip on the spine's covering at the marks, turn its head and tail in, and "
        "only then lay on the sides: their spine edge lies on the covering, straight along the joint.",
        turn="The sides: head and tail first, then the fore edge; pinch the corner in before the last one "
        "goes over.",
        lift=("side.cut",),
    )
    return HardCoverSpec(
        laid,
        _parts(shell, wide, side_w, count),
        figures=figures,
        checks=_wide(cover, shell, left, onto),
        words=words,
        marked=(shell.edges[2] - onto, wide),
    )


def _parts(shell: Shell, wide: float, side_w: float, count: int) -> tuple[Part, ...]:
    """The covering of the spine, and two sides."""
    across = "it stretches the wrong way, and the boards warp"
    return (
        Part(
            key="covering",
            name="spine covering",
            width_mm=wide,
            height_mm=shell.wrap_height,
            count=count,
            stock="covering",
            needs=("board.cut",),
            across=across,
        ),
        Part(
            key="sides",
            name="side",
            width_mm=side_w + shell.reach,
            height_mm=shell.wrap_height,
            count=2 * count,
            stock="side",
            needs=("board.cut",),
            across=across,
        ),
    )


def _figures(shell: Shell, onto: float, lap: float, wide: float, ruler: Ruler) -> tuple[Figure, ...]:
    """How far the spine's covering goes, and what the sides are cut to."""
    least, most = (share * shell.front for share in QUARTER_SHARE)
    side = shell.front - onto + lap + shell.reach
    return (
        Figure(
            key="quarter",
            label="on to the boards",
            value=onto,
            show="length",
            how="Between a fifth and a quarter of the board, "
            f"{ruler.between(least, most, type(ruler).show)}. "
            f"Spine covering: 2 × {ruler.number(onto)} + 2 × joint {ruler.number(shell.joint)} + strip "
            f"{ruler.number(shell.strip)} = {ruler.number(wide)} wide.",
            rules=(Rule("QUARTER_SHARE", "a fifth to a quarter of the board, no source"),),
            scrap=ruler.size(wide, shell.wrap_height),
        ),
        Figure(
            key="sides",
            label="cut two sides",
            value=(side, shell.wrap_height),
            show="size",
            how=f"Board {ruler.number(shell.front)} − {ruler.number(onto)} + {ruler.number(lap)} on to the "
            f"spine's covering + turn-in {ruler.number(shell.reach)}.",
            rules=(
                Rule("arithmetic", "what is left of the board"),
                Rule("QUARTER_OVERLAP_MM", "3 mm over the cloth, no source"),
            ),
            scrap=ruler.size(side, shell.wrap_height),
        ),
    )


def _side(shell: Shell, name: str, width: float, side: str) -> Piece:
    on_board, turn_in = Span("board", width, "bend"), Span("turn-in", shell.reach, "fold")
    columns = [turn_in, on_board] if side == "left" else [on_board, turn_in]
    kept = [(column.name, row.name) for column in columns for row in shell.rows if row.name]
    return cornered(
        piece(name, "side", columns, shell.rows, kept=kept, glued=turned_in(columns, shell)),
        shell.reach,
        shell.corner,
        side,
    )


def _wide(cover: Quarter, shell: Shell, left: LeftOfCover, onto: float) -> tuple[Check, ...]:
    """More than half the board is no longer a quarter covering; less than 10 mm does not hold the joint."""
    ruler = left.brief.ruler
    if cover.onto_mm is None or 10.0 <= onto <= 0.5 * shell.front:
        return ()
    usual = ruler.snap(sum(QUARTER_SHARE) / 2 * shell.front)
    return (
        Check(
            code="quarter",
            level="watch",
            title=f"The spine's covering goes {ruler.show(onto)} on to a board of {ruler.show(shell.front)}.",
            why="Under 10 mm it does not hold the joint; over half the board the sides have too little to "
            "hold by.",
            offers=(
                Offer(label=f"{ruler.show(usual)} on to the boards", changes=(("cover.onto_mm", None),)),
            ),
        ),
    )


def compute(cover: Quarter, left: LeftOfCover) -> HardResult:
    """The quarter-covered case around the block."""
    return hard.compute(cover, left, _own)


KIND: Final = CoverKind(
    name="quarter",
    title="quarter covering",
    summary="A case with cloth over the spine and on to the boards, and paper sides.",
    record=Quarter,
    compute=compute,
    roles=("board", "covering", "side", "lining"),
    takes=frozenset({"block", "spine"}),
    hung=True,
    traits=Traits(glue=True),
)
