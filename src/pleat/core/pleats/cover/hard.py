"""Hard covers: what is the same for all of them, from the boards to the dried book. A kind adds its own
covering, pieces and steps."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import partial
from typing import Any

from pleat.core.base.plan import Check, Figure, Length, Offer, Part, Step
from pleat.core.base.plan import Piece as Taken
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.sheet import Piece, Span, board, piece, rounded
from pleat.core.pleats.cover import fasteners, hard_checks, hard_figures, hard_steps, spine
from pleat.core.pleats.cover.fasteners import Landing
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.shell import Hard, Shell, cornered, lining_size, shell_of, turned_in, wrap_piece
from pleat.core.pleats.paper.compute import PaperResult
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.cases import LEAST_TURN_IN_MM, SEAM_MM


@dataclass(frozen=True)
class HardCoverSpec:
    """What a kind adds to the common case: the pieces that cover the boards, further parts, layers, figures,
    checks and steps; ``marked`` as in ``Shell``."""

    covering: tuple[Laid, ...]
    parts: tuple[Part, ...] = ()
    under: tuple[Laid, ...] = ()
    padding: tuple[EdgeLayer, ...] = ()
    inside: tuple[EdgeLayer, ...] = ()
    figures: tuple[Figure, ...] = ()
    checks: tuple[Check, ...] = ()
    before: tuple[Step, ...] = ()
    steps: tuple[Step, ...] = ()
    words: hard_steps.CoverWords = field(default_factory=hard_steps.CoverWords)
    marked: tuple[float, float] | None = None


@dataclass(frozen=True, kw_only=True)
class HardResult(LaidResult):
    """A hard cover, lengths in mm: the shell with every width beside its pieces."""

    shell: Shell
    rounded_mm: float
    side_swatch: str


def compute(
    cover: Hard,
    left: LeftOfCover,
    own: Callable[[Any, Shell, LeftOfCover], HardCoverSpec],
    *,
    pad: float = 0.0,
    joint_mm: float | None = None,
) -> HardResult:
    """A cover with boards and a spine; ``own`` is what its kind adds."""
    shell = shell_of(cover, left, pad=pad, joint_mm=joint_mm)
    kind = own(cover, shell, left)
    shell = replace(shell, marked=kind.marked)
    paper = left.paper
    laid = (*kind.covering, *kind.under, *_boards(shell, cover.rounded_mm))
    landing = _landing(cover, shell, left.brief.ruler)
    parts = (*_board_parts(cover, shell, left), *kind.parts, *_linings(cover, shell, left))
    shown = hard_figures.figures(cover, left, shell, kind.covering[0].piece.size_mm, len(kind.covering))
    lining = paper.stock("lining")
    layers = _layers(shell, kind, paper, cover, lining)
    outside = shell.spine.used.plus(paper.stock("board").caliper.times(2)).plus(
        paper.stock("covering").caliper.times(2)
    )
    thick = outside.likely
    return HardResult(
        key_figure=shown[0],
        figures=(*shown, *kind.figures, *spine.figures(left.brief.ruler, shell.spine)),
        checks=(*hard_checks.find(cover, left, shell), *kind.checks, *spine.checks(cover, left, shell.spine)),
        parts=(
            *parts,
            *_trimmings(cover, shell, left),
            *fasteners.pieces(cover.fastener, shell.height, thick, shell.shut[0], left.brief.quantity),
        ),
        steps=(
            spine.measured(left, shell.spine),
            *kind.before,
            *hard_steps.of(cover, left, shell, kind.words, landing),
            *kind.steps,
        ),
        front_width_mm=shell.shut[0],
        front_height_mm=shell.height,
        spine=outside,
        swatch=paper.stock("covering").swatch,
        square_fore_mm=min(shell.squares),
        square_head_mm=cover.square_mm,
        shell=shell,
        laid=laid,
        layers=layers,
        landing=landing,
        fastener=cover.fastener,
        halves=_halves(shell, landing),
        rounded_mm=cover.rounded_mm,
        hides_spine=True,
        board_mm=shell.board + shell.covering,
        side_swatch=paper.stock("side").swatch,
    )


def _layers(
    shell: Shell, kind: HardCoverSpec, paper: PaperResult, cover: Hard, lining: Stock
) -> tuple[EdgeLayer, ...]:
    """What lies on each other in a cover, from the outside in."""
    return (
        EdgeLayer("covering", shell.covering, paper.stock("covering").swatch),
        *kind.padding,
        EdgeLayer("board", shell.board, paper.stock("board").swatch),
        *kind.inside,
        *(
            (EdgeLayer("pastedown", lining.caliper.likely, lining.swatch),)
            if cover.ends == "endpapers"
            else ()
        ),
    )


def _boards(shell: Shell, round_mm: float) -> tuple[Laid, ...]:
    """Both boards and the strip, where they lie on the covering."""
    at = shell.edges
    return (
        Laid(
            rounded(board("back board", "board", shell.back, shell.height), round_mm, ("left",)),
            at[1],
            shell.reach,
            "board",
            "boards",
        ),
        Laid(board("spine strip", "board", shell.strip, shell.height), at[3], shell.reach, "board", "strip"),
        Laid(
            rounded(board("front board", "board", shell.front, shell.height), round_mm, ("right",)),
            at[5],
            shell.reach,
            "board",
            "boards",
        ),
    )


def _board_parts(cover: Hard, shell: Shell, left: LeftOfCover) -> tuple[Part, ...]:
    ruler, count = left.brief.ruler, left.brief.quantity
    smaller = partial(_smaller_boards, cover, left, shell)
    bows = "the board bows across the spine and pulls at the joint"
    needs = ("block.measured",)
    advice = (
        f"Cut all boards of one height together, at {ruler.number(shell.height)} {ruler.name}, then to width."
    )
    strip = Part(
        key="strip",
        name="spine strip",
        width_mm=shell.strip,
        height_mm=shell.height,
        count=count,
        stock="board",
        needs=needs,
        across="it bends along the spine and will not stand straight",
    )
    if abs(shell.back - shell.front) < 0.01:
        return (
            Part(
                key="boards",
                name="board",
                width_mm=shell.back,
                height_mm=shell.height,
                count=2 * count,
                stock="board",
                needs=needs,
                advice=advice,
                across=bows,
                smaller=smaller,
            ),
            strip,
        )
    return (
        Part(
            key="boards",
            name="back board",
            width_mm=shell.back,
            height_mm=shell.height,
            count=count,
            stock="board",
            needs=needs,
            advice=advice,
            across=bows,
            smaller=smaller,
        ),
        Part(
            key="front_board",
            name="front board",
            width_mm=shell.front,
            height_mm=shell.height,
            count=count,
            stock="board",
            needs=needs,
            across=bows,
            smaller=smaller,
        ),
        strip,
    )


def _smaller_boards(
    cover: Hard, left: LeftOfCover, shell: Shell, sheet_width: float, sheet_height: float
) -> tuple[Offer, ...]:
    """Take the exact excess off the squares, where they can give it."""
    ruler, offers = left.brief.ruler, []
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        short = max(shell.front - across, (shell.height - along) / 2, 0.0)
        square = ruler.snap_down(cover.square_mm - short)
        if short and square >= 0 and cover.back_mm is None and cover.front_mm is None:
            less = ruler.show(cover.square_mm - square)
            offers.append(
                Offer(
                    label=f"square {ruler.show(square)}: {less} off each side",
                    changes=(("cover.square_mm", square), ("cover.square_fore_mm", None)),
                )
            )
    return tuple(offers)


def one_piece(cover: Hard, shell: Shell, left: LeftOfCover) -> tuple[tuple[Laid, ...], tuple[Part, ...]]:
    """The covering in one piece, in two halves that overlap on the spine, or in two pieces that overlap
    beside the front joint."""
    stock, count, at = left.paper.stock("covering"), left.brief.quantity, shell.edges
    columns = shell.columns
    match cover.seam:
        case "one":
            whole = replace(wrap_piece(shell), directed=stock.upright_only)
            return (Laid(whole, 0.0, 0.0, "covering", "covering"),), (
                _covering(cover, left, shell, "covering", shell.width, count),
            )
        case "joined":
            inner, half = (shell.strip + SEAM_MM) / 2, shell.width / 2 + SEAM_MM / 2
            pieces = (
                _part_of(shell, "back half", (*columns[:3], Span("spine", inner, "bend")), "left"),
                _part_of(shell, "front half", (Span("spine", inner), *columns[4:]), "right"),
            )
            begins = at[3] + shell.strip / 2 - SEAM_MM / 2
            parts: tuple[Part, ...] = (_covering(cover, left, shell, "covering half", half, 2 * count),)
        case _:
            pieces = (
                _part_of(
                    shell, "back and spine covering", (*columns[:5], Span("lap", SEAM_MM, "bend")), "left"
                ),
                _part_of(shell, "front covering", columns[5:], "right"),
            )
            begins = at[5]
            front = replace(
                _covering(cover, left, shell, "front covering", shell.width - begins, count),
                key="covering_front",
            )
            parts = (_covering(cover, left, shell, "back and spine covering", begins + SEAM_MM, count), front)
    return (
        Laid(pieces[0], 0.0, 0.0, "covering", "covering"),
        Laid(pieces[1], begins, 0.0, "covering", parts[-1].key),
    ), parts


def _covering(cover: Hard, left: LeftOfCover, shell: Shell, name: str, width: float, count: int) -> Part:
    """A piece of the covering, as high as all of it."""
    across = "it stretches the wrong way, and the boards warp"
    smaller = partial(smaller_covering, cover, left, shell)
    return Part(
        key="covering",
        name=name,
        width_mm=width,
        height_mm=shell.wrap_height,
        count=count,
        stock="covering",
        across=across,
        smaller=smaller,
        needs=("board.cut",),
    )


def _part_of(shell: Shell, name: str, columns: tuple[Span, ...], side: str) -> Piece:
    """A part of the covering with these columns, its corners cut on one side."""
    kept = [(column.name, row.name) for column in columns for row in shell.rows if row.name]
    return cornered(
        piece(name, "covering", columns, shell.rows, kept=kept, glued=turned_in(columns, shell)),
        shell.reach,
        shell.corner,
        side,
    )


def smaller_covering(
    cover: Hard, left: LeftOfCover, shell: Shell, sheet_width: float, sheet_height: float
) -> tuple[Offer, ...]:
    """E4: the ways out of a covering that is longer than what is owned, each with its consequence."""
    ruler, offers = left.brief.ruler, []
    own_boards = cover.back_mm is not None or cover.front_mm is not None
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        over = max(shell.width - across, shell.wrap_height - along)
        turn = ruler.snap_down(cover.turn_in_mm - over / 2)
        if over > 0 and turn >= LEAST_TURN_IN_MM and cover.piece_width_mm is None:
            offers.append(
                Offer(
                    label=f"turn-in {ruler.show(turn)}: {ruler.show(cover.turn_in_mm - turn)} less at every "
                    "edge, which holds less well",
                    changes=(("cover.turn_in_mm", turn),),
                )
            )
            break
    joins = (
        (
            "joined",
            shell.width / 2 + SEAM_MM / 2,
            "join two halves on the spine, where the seam shows as a ridge",
        ),
        (
            "joint",
            shell.edges[5] + SEAM_MM,
            "join two pieces beside the front joint, where the seam is felt on the front board",
        ),
    )
    for seam, widest, words in joins if cover.seam == "one" else ():
        if any(
            widest <= a + 0.05 and shell.wrap_height <= b + 0.05
            for a, b in ((sheet_width, sheet_height), (sheet_height, sheet_width))
        ):
            offers.append(Offer(label=words, changes=(("cover.seam", seam), ("cover.piece_width_mm", None))))
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        over = max((shell.width - across) / 2, (shell.wrap_height - along) / 2)
        square = ruler.snap_down(cover.square_mm - over)
        if over > 0 and square >= 1.0 and cover.piece_width_mm is None and not own_boards:
            offers.append(
                Offer(
                    label=f"square {ruler.show(square)}: {ruler.show(2 * (cover.square_mm - square))} off "
                    "both boards together, all else as it is",
                    changes=(("cover.square_mm", square), ("cover.square_fore_mm", None)),
                )
            )
            break
    return tuple(offers)


def _linings(cover: Hard, shell: Shell, left: LeftOfCover) -> tuple[Part, ...]:
    """Endpapers as folded sheets of the leaf's size, and the lining of the spine."""
    leaf_w, leaf_h = shell.leaf
    count, parts = left.brief.quantity, []
    if cover.ends == "endpapers":
        parts.append(
            Part(
                key="endpapers",
                name="endpaper, folded once",
                width_mm=2 * leaf_w,
                height_mm=leaf_h,
                count=2 * count,
                stock="lining",
                needs=("block.measured",),
                across="its fold cracks and the board is pulled out of true",
            )
        )
    if cover.spine_lining == "yes":
        parts.append(
            Part(
                key="spine_lining",
                name="spine lining",
                width_mm=lining_size(shell, left.brief.ruler)[0],
                height_mm=lining_size(shell, left.brief.ruler)[1],
                count=count,
                stock="lining",
                needs=("board.cut",),
                across="it does not bend into the joints",
            )
        )
    return tuple(parts)


def _trimmings(cover: Hard, shell: Shell, left: LeftOfCover) -> tuple[Taken, ...]:
    """Ribbon and head bands: the ribbon as long as the leaf's diagonal and a little."""
    count, found = left.brief.quantity, []
    leaf_w, leaf_h = shell.leaf
    if cover.ribbon == "yes":
        found.append(
            Length(
                key="ribbon",
                name="ribbon marker",
                length_mm=(leaf_w**2 + leaf_h**2) ** 0.5 + 60,
                count=count,
                stock="ribbon",
                use="cover",
            )
        )
    if cover.head_bands == "yes":
        found.append(
            Length(
                key="head_bands",
                name="head band",
                length_mm=shell.spine.used.high,
                count=2 * count,
                stock="head band",
                use="cover",
            )
        )
    return tuple(found)


def _halves(shell: Shell, landing: Landing | None) -> tuple[tuple[float, float], ...]:
    """Where the halves go on the flat cover, from either fore edge."""
    if landing is None:
        return ()
    (_, one, high), (_, other, low) = landing.first, landing.second
    return (shell.edges[6] - one, shell.reach + high), (shell.edges[1] + other, shell.reach + low)


def _landing(cover: Hard, shell: Shell, ruler: Ruler) -> Landing | None:
    """Where the halves of a fastener go on a cover without a flap: on both fore edges, or from the back board
    over the front."""
    middle = shell.height / 2
    near, far, held = (ruler.near(mm) for mm in (10.0, 20.0, 15.0))
    match cover.fastener:
        case "none":
            return None
        case "elastic":
            return Landing(
                ("back board, at head and tail", held, held),
                ("front board, where it lies over it", held, held),
            )
        case "button":
            return Landing(("front board", far, middle), ("back board, where the cord is held", far, middle))
    return Landing(("front board", near, middle), ("back board", near, middle))
