"""Two boards for an open sewing, each covered by itself: its own wrap turned in all round, and a liner that hides the turn-ins."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.binding.threaded import BOARD_REACH_MM
from pleat.core.cautions import GLUE, KNIFE, WEIGHT
from pleat.core.cover.kinds.boards import AWL_BOARD, USUAL_SQUARE_MM
from pleat.core.cover.laid import Laid, LaidResult, Layer, Place
from pleat.core.cover.record import LARGEST_SQUARE_MM
from pleat.core.cover.result import LeftOfCover
from pleat.core.cover.shell import CORNER_BOARDS, TURN_IN_MM, corner_for, cornered
from pleat.core.estimate import Estimate, total
from pleat.core.fields import ChoiceRule, LengthRule
from pleat.core.folding.sheet import Piece, Span, board, piece
from pleat.core.kinds import CoverKind, Member, Traits
from pleat.core.plan import Check, Figure, Offer, Part, Rule, Step, signature

GAP_MM: Final = 14.0
"""How far apart the two are drawn."""


class CoveredBoards(Member):
    """Pleat 6: two covered boards."""

    kind: Literal["coveredboards"] = "coveredboards"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = USUAL_SQUARE_MM
    turn_in_mm: Annotated[float, LengthRule("the turn-in", 3, 100)] = TURN_IN_MM[1]
    corner_mm: Annotated[float, LengthRule("the covering cut off the board's corner", 0, 40)] | None = None
    border_mm: Annotated[float, LengthRule("the border round a liner", 0, 30)] = 3.0
    lined: Annotated[Literal["yes", "no"], ChoiceRule("a liner inside", (("yes", "yes"), ("no", "no")))] = "yes"


def compute(cover: CoveredBoards, left: LeftOfCover) -> LaidResult:
    """Both boards with wrap and liner, and their holes where the sections have theirs."""
    pages, ruler, paper = left.pages, left.brief.ruler, left.paper
    stock, covering, lining = paper.stock("board"), paper.stock("covering"), paper.stock("lining")
    width, height = ruler.snap_up(pages.leaf_width_mm + cover.square_mm), pages.leaf_height_mm + 2 * cover.square_mm
    reach = cover.turn_in_mm
    clear = corner_for(stock.caliper.likely, covering.caliper.likely) if cover.corner_mm is None else cover.corner_mm
    wrap = cornered(_wrap(width, height, reach), reach, clear)
    liner = (max(width - 2 * cover.border_mm, 1.0), max(height - 2 * cover.border_mm, 1.0))
    spine = total([pages.thickness, left.extras.added, left.binding.swell, stock.caliper.times(2), covering.caliper.times(2)])
    laid = [one for at in (0.0, wrap.size_mm[0] + GAP_MM) for one in _one(cover, wrap, (width, height), liner, at)]
    holes = tuple(at + cover.square_mm for at in left.binding.positions_mm)
    marks = f"{', '.join(ruler.number(hole) for hole in holes)} {ruler.name}"
    shown = _figures(cover, left, wrap, (width, height), liner, clear, spine, marks)
    return LaidResult(
        key_figure=shown[0],
        figures=shown,
        checks=_checks(cover, left, (width, height), clear),
        parts=_parts(cover, left, wrap, (width, height), liner),
        steps=_steps(cover, left, clear, liner, marks, holes),
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
            Place("cover.square_mm", laid[-1].x_mm + width, height * 0.3, cover.square_mm),
            Place("cover.turn_in_mm", laid[-1].x_mm + width, height * 0.7, cover.turn_in_mm),
        ),
        layers=(
            Layer("covering", covering.caliper.likely, covering.swatch),
            Layer("board", stock.caliper.likely, stock.swatch),
            *((Layer("liner", lining.caliper.likely, lining.swatch),) if cover.lined == "yes" else ()),
        ),
    )


def _wrap(width: float, height: float, reach: float) -> Piece:
    columns = [Span("spine turn-in", reach), Span("", width), Span("fore turn-in", reach)]
    rows = [Span("head turn-in", reach), Span("", height), Span("tail turn-in", reach)]
    kept = [(column.name, row.name) for column in columns for row in rows if column.name and row.name]
    glued = [*(f"{column}, {row}" for column, row in kept), *(one.name for one in (*columns, *rows) if one.name)]
    return piece("covering", "covering", columns, rows, kept=kept, glued=glued)


def _one(cover: CoveredBoards, wrap: Piece, size: tuple[float, float], liner: tuple[float, float], x: float) -> list[Laid]:
    """One board as it is covered, from the outside."""
    reach, border = cover.turn_in_mm, cover.border_mm
    found = [Laid(wrap, x, 0.0, "covering", "covering"), Laid(board("board", "board", *size), x + reach, reach, "board", "boards")]
    if cover.lined == "yes":
        found.append(Laid(board("liner", "lining", *liner), x + reach + border, reach + border, "lining", "liners"))
    return found


def _parts(cover: CoveredBoards, left: LeftOfCover, wrap: Piece, size: tuple[float, float], liner: tuple[float, float]) -> tuple[Part, ...]:
    count = 2 * left.brief.quantity
    found = [
        Part("boards", "board", *size, count, "board", needs=("block.measured",), across="it bows towards the leaves"),
        Part("covering", "covering", *wrap.size_mm, count, "covering", needs=("board.cut",), across="it pulls the board across its grain"),
    ]
    if cover.lined == "yes":
        found.append(Part("liners", "liner", *liner, count, "lining", needs=("board.cut",), across="it pulls against the covering"))
    return tuple(found)


def _figures(
    cover: CoveredBoards,
    left: LeftOfCover,
    wrap: Piece,
    size: tuple[float, float],
    liner: tuple[float, float],
    clear: float,
    spine: Estimate,
    marks: str,
) -> tuple[Figure, ...]:
    pages, ruler, (width, height) = left.pages, left.brief.ruler, size
    low, high = (part * left.paper.stock("board").caliper.likely + left.paper.stock("covering").caliper.likely for part in CORNER_BOARDS)
    turn = ruler.number(cover.turn_in_mm)
    found = [
        Figure(
            "boards",
            "cut two boards",
            size,
            "size",
            f"Wide: leaf {ruler.number(pages.leaf_width_mm)} + square {ruler.number(cover.square_mm)}, flush at the spine. High: leaf {ruler.number(pages.leaf_height_mm)} + 2 × {ruler.number(cover.square_mm)} = {ruler.number(height)} {ruler.name}.",
            (Rule("arithmetic", "leaf and squares"), Rule("common practice", "square 3 mm, no source")),
            scrap=ruler.size(*size),
        ),
        Figure(
            "covering",
            "cut two wraps",
            wrap.size_mm,
            "size",
            f"Board {ruler.size(width, height)} and a turn-in of {turn} on every side.",
            (Rule("arithmetic", "board and turn-ins"), Rule("common practice", "turn-in 15 to 20 mm, no source")),
            scrap=ruler.size(*wrap.size_mm),
        ),
        Figure(
            "corner",
            "cut corners off the board by",
            clear,
            "thin",
            f"At 45 degrees, {ruler.between(low, high)}: nearer shows the board, farther makes a lump.",
            (Rule("common practice", "1.5 to 2 board thicknesses, no source"),),
        ),
        Figure(
            "spine",
            "spine, with boards",
            spine,
            "thin",
            f"Leaves {ruler.thin(pages.thickness.likely)}, thread {ruler.thin(left.binding.swell.likely)}, two boards and their covering. Nothing covers it: it need not be cut to.",
            (Rule("arithmetic", "what lies at the spine, added up"),),
        ),
        Figure(
            "board_holes",
            "holes in the boards",
            marks,
            "text",
            f"From the board's head, {ruler.show(BOARD_REACH_MM)} from its spine edge: one for every station, through covering and liner, once they are dry.",
            (Rule("common practice", "8 to 10 mm from the edge; no source"),),
            scrap=f"{marks}, {ruler.show(BOARD_REACH_MM)} in",
        ),
    ]
    if cover.lined == "yes":
        found.insert(
            2,
            Figure(
                "liners",
                "cut two liners",
                liner,
                "size",
                f"Board less a border of {ruler.show(cover.border_mm)} on each side: it hides the turn-ins and keeps the board from warping.",
                (Rule("arithmetic", "board less two borders"), Rule("common practice", "border 3 mm, no source")),
            ),
        )
    return tuple(found)


def _steps(
    cover: CoveredBoards, left: LeftOfCover, clear: float, liner: tuple[float, float], marks: str, holes: tuple[float, ...]
) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    found = [
        Step(
            "glue_boards",
            "Glue the wraps on the boards",
            f"Glue the board, lay it on the middle of its wrap, {ruler.show(cover.turn_in_mm)} from every edge; turn over and rub it down.",
            ("brush", "bone folder"),
            needs=("board.cut", "covering.cut"),
            gives=("board.glued",),
            tags=frozenset({"glue"}),
            cautions=(GLUE,),
        ),
        Step(
            "cut_corners",
            "Cut the corners of the wraps",
            f"At 45 degrees, {ruler.thin(clear)} off each corner of the board.",
            ("knife", "corner template"),
            needs=("board.glued",),
            gives=("corner.cut",),
            cautions=(KNIFE,),
            signature=signature(clear),
        ),
        Step(
            "turn_in",
            "Turn the wraps in",
            "Head and tail first, then the long sides; pinch each corner in before the last one goes over.",
            ("brush", "bone folder"),
            needs=("corner.cut",),
            gives=("covering.turned",),
            tags=frozenset({"glue"}),
        ),
    ]
    if cover.lined == "yes":
        found.append(
            Step(
                "liners",
                "Glue in the liners",
                f"{ruler.size(*liner)}, an even border of {ruler.show(cover.border_mm)} all round.",
                ("brush",),
                needs=("covering.turned", "lining.cut"),
                gives=("liner.in",),
                tags=frozenset({"glue", "lining"}),
                cautions=(GLUE,),
                signature=signature(*liner),
            )
        )
    found += [
        Step(
            "dry_cover",
            "Dry the boards under weight",
            "Between waste paper and two boards, until they no longer feel cold.",
            ("boards", "weight"),
            needs=("covering.turned", "liner.in"),
            gives=("cover.dry",),
            tags=frozenset({"glue"}),
            wait_minutes=120,
            cautions=(WEIGHT,),
        ),
        Step(
            "boards",
            "Pierce the boards",
            f"Both at once, spine edges level: {marks} from the head, {ruler.show(BOARD_REACH_MM)} in. One strip serves boards and sections.",
            ("awl or small drill", "station strip"),
            needs=("cover.dry", "stations.marked"),
            gives=("board.pierced",),
            cautions=(AWL_BOARD,),
            signature=signature(*holes),
        ),
    ]
    return tuple(found)


def _checks(cover: CoveredBoards, left: LeftOfCover, size: tuple[float, float], clear: float) -> tuple[Check, ...]:
    """E2, E3, A4 and warping."""
    ruler, found = left.brief.ruler, []
    thick, covering = left.paper.stock("board").caliper.likely, left.paper.stock("covering").caliper.likely
    half, usual = min(size) / 2, min(TURN_IN_MM[1], min(size) / 2 - 1)
    again = (Offer(f"turn-in {ruler.show(usual)}", (("cover.turn_in_mm", usual),)),)
    if cover.square_mm < 0.05:
        found.append(
            Check(
                "E2",
                "note",
                "There is no square: the boards end with the leaves.",
                f"A school of its own, but the edges of the leaves take every knock. The usual square is {ruler.show(3.0)}.",
                (Offer(f"square {ruler.show(USUAL_SQUARE_MM)}", (("cover.square_mm", USUAL_SQUARE_MM),)),),
            )
        )
    if cover.turn_in_mm < TURN_IN_MM[0]:
        found.append(
            Check(
                "E3",
                "watch",
                f"The turn-in is too short to hold: {ruler.show(cover.turn_in_mm)}.",
                f"With less than {ruler.show(TURN_IN_MM[0])} it comes off the inside of the board.",
                again,
            )
        )
    elif cover.turn_in_mm > half:
        found.append(
            Check(
                "E3",
                "stop",
                f"The turn-in is longer than half the board: {ruler.show(cover.turn_in_mm)}.",
                f"Turn-ins from opposite edges lie on each other; half the board is {ruler.show(half)}.",
                again,
            )
        )
    low, high = (part * thick + covering for part in CORNER_BOARDS)
    if cover.corner_mm is not None and not low - ruler.thin_mm <= clear <= high + covering + ruler.thin_mm:
        found.append(
            Check(
                "E3",
                "watch",
                f"The corners are cut too {'near' if clear < low else 'far from'} the board's: {ruler.thin(clear)}.",
                f"{ruler.between(low, high)} is right for this board and covering.",
                (Offer(f"cut them {ruler.thin(corner_for(thick, covering))} off", (("cover.corner_mm", None),)),),
            )
        )
    if cover.lined == "no":
        found.append(
            Check(
                "warp",
                "watch",
                "The boards will warp: they are covered outside and bare inside.",
                "The covering shrinks as its glue dries and bends the board towards itself. A liner of like weight, its grain the same way, bends it back.",
                (Offer("line them", (("cover.lined", "yes"),)),),
            )
        )
    elif cover.border_mm < 0.05:
        found.append(
            Check(
                "A4",
                "watch",
                f"The liner is as wide as the board: {ruler.show(size[0])}.",
                "Without a border its edge shows past the board and lifts.",
                (Offer(f"a border of {ruler.show(3.0)}", (("cover.border_mm", 3.0),)),),
            )
        )
    return tuple(found)


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
