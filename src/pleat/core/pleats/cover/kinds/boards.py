"""Two separate boards for a sewing with an open spine: as high as the leaves and a square at head and tail,
flush at the spine."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import AWL_BOARD, GLUE
from pleat.core.base.estimate import Estimate, total
from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, CoverResult, LeftOfCover
from pleat.core.trade.covers import USUAL_SQUARE_MM
from pleat.core.trade.sewing import BOARD_REACH_MM


class Boards(Member):
    """Pleat 6: two boards, bare."""

    kind: Literal["boards"] = "boards"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = USUAL_SQUARE_MM


def compute(cover: Boards, left: LeftOfCover) -> CoverResult:
    """Both boards, and their holes where the sections have theirs."""
    pages, ruler = left.pages, left.brief.ruler
    width, height = (
        ruler.snap_up(pages.leaf_width_mm + cover.square_mm),
        pages.leaf_height_mm + 2 * cover.square_mm,
    )
    spine = total(
        [pages.thickness, left.extras.added, left.binding.swell, left.paper.stock("board").caliper.times(2)]
    )
    strips = left.binding.boards_by == "strips"
    holes = () if strips else tuple(position + cover.square_mm for position in left.binding.positions_mm)
    marks = f"{', '.join(ruler.number(hole) for hole in holes)} {ruler.name}"
    shown = _figures(cover, left, (width, height), spine, marks)
    board = Part(
        key="cover",
        name="board",
        width_mm=width,
        height_mm=height,
        count=2 * left.brief.quantity,
        stock="board",
        needs=("block.measured",),
        across="it bows towards the leaves",
    )
    pierce = Step(
        key="boards",
        title="Pierce the boards",
        detail=f"Both at once, spine edges level: {marks} from the head, {ruler.show(BOARD_REACH_MM)} from "
        "the spine edge. One strip serves boards and sections.",
        tools=("awl or small drill", "station strip"),
        needs=("board.cut", "board.ready", "stations.marked"),
        gives=("board.pierced",),
        cautions=(AWL_BOARD,),
        signature=signature(*holes),
        kind="pierce",
    )
    return CoverResult(
        key_figure=shown[0],
        figures=shown,
        checks=_checks(cover, left),
        parts=(board,),
        steps=(hung_on_strips("board.cut"),) if strips else (pierce,),
        front_width_mm=width,
        front_height_mm=height,
        spine=spine,
        swatch=left.paper.stock("board").swatch,
        square_fore_mm=width - pages.leaf_width_mm,
        square_head_mm=cover.square_mm,
        board_mm=left.paper.stock("board").caliper.likely,
        holes_mm=holes,
    )


def hung_on_strips(ready: str) -> Step:
    """The boards glued on the strips that come from the sticks, once those are sewn."""
    return Step(
        key="glue_strips",
        title="Glue the strips to the boards",
        detail="A board before and one behind the block, their spine edges beside the outermost sticks, "
        "squares even. Glue each strip to its board from the middle one outwards, paper between board and "
        "leaves, a weight on it until it is dry.",
        tools=("brush", "waste paper"),
        needs=(ready, "board.ready", "strips.woven", "cover.dry", "cover.set", "block.flat"),
        gives=("book.bound",),
        tags=frozenset({"glue"}),
        wait_minutes=240,
        cautions=(GLUE,),
        minutes=15,
        kind="glue",
        weights=True,
    )


def _figures(
    cover: Boards, left: LeftOfCover, size: tuple[float, float], spine: Estimate, marks: str
) -> tuple[Figure, ...]:
    pages, ruler, board = left.pages, left.brief.ruler, left.paper.stock("board").caliper
    (leaf, square), wide = ruler.summed([pages.leaf_width_mm, cover.square_mm])
    (above, leaf_high, below), high = ruler.summed([cover.square_mm, pages.leaf_height_mm, cover.square_mm])
    inset = ruler.show(BOARD_REACH_MM)
    return (
        Figure(
            key="boards",
            label="cut two boards",
            value=size,
            show="size",
            how=f"Wide: leaf {leaf} + square {square} = {wide}, flush at the spine. High: {above} + "
            f"{leaf_high} + {below} = {high} {ruler.name}.",
            rules=(Rule("arithmetic", "leaf and squares"), Rule("USUAL_SQUARE_MM", "square 3 mm, no source")),
            scrap=ruler.size(*size),
        ),
        Figure(
            key="spine",
            label="spine, with boards",
            value=spine,
            show="thin",
            how=f"Leaves {ruler.thin(pages.thickness.likely)}, the binding "
            f"{ruler.thin(left.binding.swell.likely)}, two boards of {ruler.thin(board.likely)}. Nothing "
            "covers it: it need not be cut to.",
            rules=(Rule("arithmetic", "what lies at the spine, added up"),),
        ),
        *(
            ()
            if left.binding.boards_by == "strips"
            else (
                Figure(
                    key="board_holes",
                    label="holes in the boards",
                    value=marks,
                    show="text",
                    how=f"From the board's head, {inset} from its spine edge: one for every station.",
                    rules=(Rule("BOARD_REACH_MM", "8 to 10 mm from the edge; no source"),),
                    scrap=f"{marks}, {inset} from the edge",
                ),
            )
        ),
    )


def _checks(cover: Boards, left: LeftOfCover) -> tuple[Check, ...]:
    """E2: boards without a square leave the edges of the leaves bare."""
    if cover.square_mm >= 0.05:
        return ()
    ruler = left.brief.ruler
    usual = Offer(
        label=f"square {ruler.show(USUAL_SQUARE_MM)}", changes=(("cover.square_mm", USUAL_SQUARE_MM),)
    )
    return (
        Check(
            code="E2",
            level="note",
            title="There is no square: the boards end with the leaves.",
            why="A school of its own, but the edges of the leaves take every knock.",
            offers=(usual,),
        ),
    )


KIND: Final = CoverKind(
    name="boards",
    title="two boards",
    summary="A bare board in front and one behind, caught by the thread; the spine stays open.",
    record=Boards,
    compute=compute,
    roles=("board",),
    takes=frozenset({"spine"}),
    boards=True,
)
