"""Two boards for an open sewing, each covered by itself: its own wrap turned in all round, and a liner that
hides the turn-ins."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import AWL_BOARD, GLUE
from pleat.core.base.estimate import Estimate, total
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Traits
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.base.scenes import GlueZone, Lying
from pleat.core.base.staged import laid_on, pressed
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Piece, Span, board, piece
from pleat.core.pleats.cover import shell_scenes, turned
from pleat.core.pleats.cover.kinds.boards import hung_on_strips
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.shell import cornered
from pleat.core.pleats.cover.turned import corner_for
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.cases import TURN_IN_MM
from pleat.core.trade.covers import USUAL_SQUARE_MM
from pleat.core.trade.sewing import BOARD_REACH_MM

GAP_MM: Final = 14.0
"""How far apart the two are drawn."""


class CoveredBoards(Member):
    """Pleat 6: two covered boards."""

    kind: Literal["coveredboards"] = "coveredboards"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = USUAL_SQUARE_MM
    turn_in_mm: Annotated[float, LengthRule("the turn-in", 3, 100)] = TURN_IN_MM[1]
    corner_mm: Annotated[float, LengthRule("the covering cut off the board's corner", 0, 40)] | None = None
    border_mm: Annotated[float, LengthRule("the border round a liner", 0, 30)] = 3.0
    lined: Annotated[Literal["yes", "no"], ChoiceRule("a liner inside", (("yes", "yes"), ("no", "no")))] = (
        "yes"
    )


def compute(cover: CoveredBoards, left: LeftOfCover) -> LaidResult:
    """Both boards with wrap and liner, and their holes where the sections have theirs."""
    pages, ruler, paper = left.pages, left.brief.ruler, left.paper
    stock, covering, lining = paper.stock("board"), paper.stock("covering"), paper.stock("lining")
    width, height = (
        ruler.snap_up(pages.leaf_width_mm + cover.square_mm),
        pages.leaf_height_mm + 2 * cover.square_mm,
    )
    reach = cover.turn_in_mm
    clear = (
        corner_for(stock.caliper.likely, covering.caliper.likely)
        if cover.corner_mm is None
        else cover.corner_mm
    )
    wrap = cornered(_wrap(width, height, reach), reach, clear)
    liner = (max(width - 2 * cover.border_mm, 1.0), max(height - 2 * cover.border_mm, 1.0))
    spine = _spine(pages, left, stock, covering)
    laid = [
        one for at in (0.0, wrap.size_mm[0] + GAP_MM) for one in _one(cover, wrap, (width, height), liner, at)
    ]
    strips = left.binding.boards_by == "strips"
    holes = () if strips else tuple(position + cover.square_mm for position in left.binding.positions_mm)
    marks = f"{', '.join(ruler.number(hole) for hole in holes)} {ruler.name}"
    sizes = CoveredSizes((width, height), wrap.size_mm, liner, clear)
    shown = (*_figures(cover, left, sizes), *_at_spine(left, spine, marks)[: 1 if strips else None])
    return LaidResult(
        key_figure=shown[0],
        figures=shown,
        checks=_checks(cover, left, sizes),
        parts=_parts(cover, left, sizes),
        steps=(
            *_steps(cover, left, sizes),
            hung_on_strips("cover.dry") if strips else _pierced(left, marks, holes),
        ),
        front_width_mm=width,
        front_height_mm=height,
        spine=spine,
        swatch=covering.swatch,
        square_fore_mm=width - pages.leaf_width_mm,
        square_head_mm=cover.square_mm,
        holes_mm=holes,
        board_mm=stock.caliper.likely + covering.caliper.likely,
        laid=tuple(laid),
        places=(
            FieldAnchor("cover.square_mm", laid[-1].x_mm + width, height * 0.3, cover.square_mm),
            FieldAnchor("cover.turn_in_mm", laid[-1].x_mm + width, height * 0.7, cover.turn_in_mm),
        ),
        layers=(
            EdgeLayer("covering", covering.caliper.likely, covering.swatch),
            EdgeLayer("board", stock.caliper.likely, stock.swatch),
            *((EdgeLayer("liner", lining.caliper.likely, lining.swatch),) if cover.lined == "yes" else ()),
        ),
    )


def _spine(pages: Block, left: LeftOfCover, stock: Stock, covering: Stock) -> Estimate:
    """What the leaves and two covered boards are thick."""
    return total(
        [
            pages.thickness,
            left.extras.added,
            left.binding.swell,
            stock.caliper.times(2),
            covering.caliper.times(2),
        ]
    )


def _wrap(width: float, height: float, reach: float) -> Piece:
    columns = [Span("spine turn-in", reach), Span("", width), Span("fore turn-in", reach)]
    rows = [Span("head turn-in", reach), Span("", height), Span("tail turn-in", reach)]
    kept = [(column.name, row.name) for column in columns for row in rows if column.name and row.name]
    glued = [
        *(f"{column}, {row}" for column, row in kept),
        *(span.name for span in (*columns, *rows) if span.name),
    ]
    return piece("covering", "covering", columns, rows, kept=kept, glued=glued)


def _one(
    cover: CoveredBoards, wrap: Piece, size: tuple[float, float], liner: tuple[float, float], x: float
) -> list[Laid]:
    """One board as it is covered, from the outside."""
    reach, border = cover.turn_in_mm, cover.border_mm
    pieces = [
        Laid(wrap, x, 0.0, "covering", "covering"),
        Laid(board("board", "board", *size), x + reach, reach, "board", "boards"),
    ]
    if cover.lined == "yes":
        pieces.append(
            Laid(board("liner", "lining", *liner), x + reach + border, reach + border, "lining", "liners")
        )
    return pieces


@dataclass(frozen=True)
class CoveredSizes:
    """Width and height of board, wrap and liner, and how far the wrap is cut off the board's corner; mm."""

    board: tuple[float, float]
    wrap: tuple[float, float]
    liner: tuple[float, float]
    clear: float


def _parts(cover: CoveredBoards, left: LeftOfCover, sizes: CoveredSizes) -> tuple[Part, ...]:
    count = 2 * left.brief.quantity
    parts = [
        Part(
            key="boards",
            name="board",
            width_mm=sizes.board[0],
            height_mm=sizes.board[1],
            count=count,
            stock="board",
            needs=("block.measured",),
            across="it bows towards the leaves",
        ),
        Part(
            key="covering",
            name="covering",
            width_mm=sizes.wrap[0],
            height_mm=sizes.wrap[1],
            count=count,
            stock="covering",
            needs=("board.cut",),
            across="it pulls the board across its grain",
        ),
    ]
    if cover.lined == "yes":
        parts.append(
            Part(
                key="liners",
                name="liner",
                width_mm=sizes.liner[0],
                height_mm=sizes.liner[1],
                count=count,
                stock="lining",
                needs=("board.cut",),
                across="it pulls against the covering",
            )
        )
    return tuple(parts)


def _figures(cover: CoveredBoards, left: LeftOfCover, sizes: CoveredSizes) -> tuple[Figure, ...]:
    pages, ruler = left.pages, left.brief.ruler
    wide = (
        f"leaf {ruler.number(pages.leaf_width_mm)} + square {ruler.number(cover.square_mm)}, flush at the "
        "spine"
    )
    high = (
        f"leaf {ruler.number(pages.leaf_height_mm)} + 2 × {ruler.number(cover.square_mm)} = "
        f"{ruler.number(sizes.board[1])} {ruler.name}"
    )
    border = (
        f"Board less a border of {ruler.show(cover.border_mm)} on each side: it hides the turn-ins and "
        "keeps the board from warping."
    )
    lined = Figure(
        key="liners",
        label="cut two liners",
        value=sizes.liner,
        show="size",
        how=border,
        rules=(Rule("arithmetic", "board less two borders"), BORDER),
    )
    return (
        Figure(
            key="boards",
            label="cut two boards",
            value=sizes.board,
            show="size",
            how=f"Wide: {wide}. High: {high}.",
            rules=(Rule("arithmetic", "leaf and squares"), Rule("USUAL_SQUARE_MM", "square 3 mm, no source")),
            scrap=ruler.size(*sizes.board),
        ),
        Figure(
            key="covering",
            label="cut two wraps",
            value=sizes.wrap,
            show="size",
            how=f"Board {ruler.size(*sizes.board)} and a turn-in of {ruler.number(cover.turn_in_mm)} on "
            "every side.",
            rules=(
                Rule("arithmetic", "board and turn-ins"),
                Rule("TURN_IN_MM", "turn-in 15 to 20 mm, no source"),
            ),
            scrap=ruler.size(*sizes.wrap),
        ),
        *((lined,) if cover.lined == "yes" else ()),
        turned.corner_figure(ruler, sizes.clear, *_thick(left)),
    )


BORDER: Final = Rule("USUAL_BORDER_MM", "border 3 mm, no source")


def _thick(left: LeftOfCover) -> tuple[float, float]:
    """Board and covering in mm."""
    return left.paper.stock("board").caliper.likely, left.paper.stock("covering").caliper.likely


def _at_spine(left: LeftOfCover, spine: Estimate, marks: str) -> tuple[Figure, Figure]:
    ruler = left.brief.ruler
    inside = (
        f"Leaves {ruler.thin(left.pages.thickness.likely)}, thread "
        f"{ruler.thin(left.binding.swell.likely)}, two boards and their covering."
    )
    inset = ruler.show(BOARD_REACH_MM)
    return (
        Figure(
            key="spine",
            label="spine, with boards",
            value=spine,
            show="thin",
            how=f"{inside} Nothing covers it: it need not be cut to.",
            rules=(Rule("arithmetic", "what lies at the spine, added up"),),
        ),
        Figure(
            key="board_holes",
            label="holes in the boards",
            value=marks,
            show="text",
            how=f"From the board's head, {inset} from its spine edge: one for every station, through "
            "covering and liner, once they are dry.",
            rules=(Rule("BOARD_REACH_MM", "8 to 10 mm from the edge; no source"),),
            scrap=f"{marks}, {inset} from the edge",
        ),
    )


def _steps(cover: CoveredBoards, left: LeftOfCover, sizes: CoveredSizes) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    wrap = Lying("", 0.0, 0.0, *sizes.wrap, stock="covering")
    place = (sizes.wrap[0] - sizes.board[0]) / 2, (sizes.wrap[1] - sizes.board[1]) / 2
    board = Lying("", *place, *sizes.board, stock="board")
    lined = Step(
        key="liners",
        title="Glue in the liners",
        detail=f"{ruler.size(*sizes.liner)}, an even border of {ruler.show(cover.border_mm)} all round.",
        tools=("brush",),
        needs=("covering.turned", "lining.cut"),
        gives=("liner.in",),
        fixes=("cover.liners",),
        tags=frozenset({"glue", "lining"}),
        cautions=(GLUE,),
        signature=signature(*sizes.liner),
        kind="glue",
        shows=lambda: shell_scenes.liner_in(replace(board, x=0.0, y=0.0), *sizes.liner),
        then=("dry_cover",),
    )
    return (
        Step(
            key="glue_boards",
            title="Glue the coverings on the boards",
            detail=f"Glue the board, lay it on the middle of its covering, {ruler.show(cover.turn_in_mm)} "
            "from every edge; turn over and rub it down.",
            tools=("brush", "bone folder"),
            needs=("board.cut", "board.ready", "covering.cut"),
            gives=("board.glued",),
            fixes=("cover.boards",),
            tags=frozenset({"glue"}),
            cautions=(GLUE,),
            kind="cover",
            then=("cut_corners",),
            shows=lambda: laid_on(
                wrap, [replace(board, when="now")], "glue", [GlueZone(*place, *sizes.board)]
            ),
        ),
        turned.cut_corners(
            ruler, sizes.clear, lambda: shell_scenes.cornered(wrap, [board], cover.turn_in_mm, sizes.clear)
        ),
        turned.turn_in(
            "Head and tail first, then the long sides; pinch each corner in before the last one goes over.",
            lambda: shell_scenes.turned(wrap, [board], cover.turn_in_mm),
        ),
        *((lined,) if cover.lined == "yes" else ()),
        turned.dry(("covering.turned", "liner.in"), lambda: pressed(sizes.board[0], _thick(left)[0])),
    )


def _pierced(left: LeftOfCover, marks: str, holes: tuple[float, ...]) -> Step:
    return Step(
        key="boards",
        title="Pierce the boards",
        detail=f"Both at once, spine edges level: {marks} from the head, "
        f"{left.brief.ruler.show(BOARD_REACH_MM)} from the spine edge. One strip serves boards and sections.",
        tools=("awl or small drill", "station strip"),
        needs=("cover.dry", "cover.set", "stations.marked"),
        gives=("board.pierced",),
        cautions=(AWL_BOARD,),
        signature=signature(*holes),
        kind="pierce",
    )


def _checks(cover: CoveredBoards, left: LeftOfCover, sizes: CoveredSizes) -> tuple[Check, ...]:
    """E2, E3, A4 and warping."""
    ruler, usual = left.brief.ruler, USUAL_SQUARE_MM
    found = [
        turned.turn_in_check(ruler, cover.turn_in_mm, min(sizes.board) / 2),
        turned.corner_check(ruler, cover.corner_mm, *_thick(left)),
        turned.backed_check(left.paper.stock("covering")),
    ]
    if cover.square_mm < 0.05:
        why = (
            "A school of its own, but the edges of the leaves take every knock. The usual square is "
            f"{ruler.show(usual)}."
        )
        offer = Offer(label=f"square {ruler.show(usual)}", changes=(("cover.square_mm", usual),))
        found.append(
            Check(
                code="E2",
                level="note",
                title="There is no square: the boards end with the leaves.",
                why=why,
                offers=(offer,),
            )
        )
    if cover.lined == "no":
        found.append(turned.bare_inside(Offer(label="line them", changes=(("cover.lined", "yes"),))))
    elif cover.border_mm < 0.05:
        offer = Offer(label=f"a border of {ruler.show(3.0)}", changes=(("cover.border_mm", 3.0),))
        why = "Without a border its edge shows past the board and lifts."
        found.append(
            Check(
                code="A4",
                level="watch",
                title=f"The liner is as wide as the board: {ruler.show(sizes.board[0])}.",
                why=why,
                offers=(offer,),
            )
        )
    return tuple(check for check in found if check)


KIND: Final = CoverKind(
    name="coveredboards",
    title="two covered boards",
    summary="A board in front and one behind, each in its own wrap and lined; the spine stays open.",
    record=CoveredBoards,
    compute=compute,
    roles=("board", "covering", "lining"),
    takes=frozenset({"spine"}),
    boards=True,
    traits=Traits(glue=True),
)
