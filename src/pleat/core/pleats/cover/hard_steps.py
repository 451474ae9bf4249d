"""The bench steps of a hard cover: marked, glued, cornered, turned in, lined, dried under weight, hung in,
dried again."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.cautions import GLUE, KNIFE, WEIGHT
from pleat.core.base.plan import Missing, Step, signature
from pleat.core.base.words import joined
from pleat.core.pleats.cover import fasteners, shell_scenes, turned
from pleat.core.pleats.cover.fasteners import Landing
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.cover.shell import Hard, Shell, lining_size
from pleat.core.trade.cases import ENDPAPER_PASTE_MM, SPINE_LINING_MM
from pleat.core.trade.making import BOOK_DRIES_MINUTES


@dataclass(frozen=True)
class CoverWords:
    """What a kind says otherwise: how the boards are laid on, how the turn-ins go, what has to be done
    before."""

    glue: str = (
        "Brush glue on the boards, not on the covering, and lay them on the marks: strip first, then "
        "the boards, a joint away."
    )
    turn: str = (
        "Head and tail first, then the fore edges: pinch the corner in with the bone folder before "
        "the last one goes over."
    )
    turned: str = "covering.turned"
    lift: tuple[str, ...] = ()


def of(
    cover: Hard, left: LeftOfCover, shell: Shell, words: CoverWords, landing: Landing | None
) -> tuple[Step, ...]:
    """Every step of this cover, in the order they are usually done."""
    ruler = left.brief.ruler
    return (
        *((_round(cover, left),) if cover.rounded_mm else ()),
        *_laid_on(left, shell, words),
        turned.cut_corners(ruler, shell.corner, lambda: shell_scenes.corners_cut(shell)),
        turned.turn_in(words.turn, lambda: shell_scenes.turned_in(shell)),
        *((_line_spine(left, shell),) if cover.spine_lining == "yes" else ()),
        Step(
            key="press_joints",
            title="Press the joints in",
            detail="With the bone folder's edge from inside and outside, before the glue is dry: they have "
            "to bend there and nowhere else.",
            tools=("bone folder",),
            needs=("covering.turned", "spine.lined"),
            gives=("joint.pressed",),
            kind="cover",
            then=("dry_cover",),
            shows=lambda: shell_scenes.joints_pressed(shell),
        ),
        turned.dry(("joint.pressed", "filler.in"), lambda: shell_scenes.dried_flat(shell)),
        *_trimmed(cover, left, shell),
        *((_endpapers(left, shell),) if cover.ends == "endpapers" else ()),
        _hang(cover, left, shell),
        _dry_book(shell),
        *(fasteners.steps(cover.fastener, ruler, landing, "the covering") if landing else ()),
    )


def _laid_on(left: LeftOfCover, shell: Shell, words: CoverWords) -> tuple[Step, Step]:
    """The covering marked, and the boards glued on it."""
    ruler = left.brief.ruler
    marks = ", ".join(ruler.number(ruler.snap(at)) for at in shell.marks_inside)
    boards = signature(shell.back, shell.front, shell.height, shell.strip, shell.joint)
    down = f"{ruler.number(shell.reach)} and {ruler.number(shell.reach + shell.height)}"
    return (
        Step(
            key="mark_covering",
            title="Mark the covering on its inside",
            detail=f"From the left edge, front board first: {marks} {ruler.name}; from the head {down}. "
            "The printed score list has them; on the outside they run the other way.",
            tools=("rule", "pencil"),
            needs=("covering.cut", "covering.backed"),
            gives=("covering.marked",),
            signature=boards,
            kind="measure",
            shows=lambda: shell_scenes.covering_marked(shell),
        ),
        Step(
            key="glue_boards",
            title="Glue boards and strip on",
            detail=words.glue,
            tools=("brush", "bone folder"),
            needs=("covering.marked", "board.cut", "board.ready", *words.lift),
            gives=("board.glued",),
            fixes=("cover.boards", "cover.strip"),
            tags=frozenset({"glue"}),
            closes=("fastener.face", "covering.flat"),
            cautions=(GLUE,),
            signature=boards,
            minutes=6,
            kind="cover",
            then=("cut_corners",),
            shows=lambda: shell_scenes.boards_glued(shell),
        ),
    )


def _trimmed(cover: Hard, left: LeftOfCover, shell: Shell) -> tuple[Step, ...]:
    """Head bands and ribbon, on the sewn block."""
    ruler, steps = left.brief.ruler, []
    if cover.head_bands == "yes":
        where = (
            f"Two of {ruler.thin(shell.spine.used.likely)}, at head and tail of the sewn block, the bead "
            "just past the leaves."
        )
        steps.append(
            Step(
                key="head_bands",
                title="Glue on the head bands",
                detail=where,
                tools=("glue",),
                needs=("block.flat",),
                gives=("block.banded",),
                cautions=(GLUE,),
                kind="glue",
            )
        )
    if cover.ribbon == "yes":
        where = (
            f"Its end on the spine of the sewn block, {ruler.show(30)} down from the head; the rest "
            "between the leaves, rolled up."
        )
        steps.append(
            Step(
                key="ribbon",
                title="Glue in the ribbon",
                detail=where,
                tools=("glue",),
                needs=("block.flat",),
                gives=("block.marked",),
                cautions=(GLUE,),
                kind="glue",
            )
        )
    return tuple(steps)


def _round(cover: Hard, left: LeftOfCover) -> Step:
    return Step(
        key="round_corners",
        title="Round the boards' corners",
        detail=f"By {left.brief.ruler.show(cover.rounded_mm)} at the fore edge, all four alike: draw round a "
        "coin, cut off the corner and sand it. The covering is pleated round it in small folds instead of "
        "being cut at 45 degrees.",
        tools=("knife", "sandpaper"),
        needs=("board.cut",),
        gives=("board.ready",),
        cautions=(KNIFE,),
        signature=signature(cover.rounded_mm),
        kind="cut",
    )


def _line_spine(left: LeftOfCover, shell: Shell) -> Step:
    return Step(
        key="line_spine",
        title="Line the spine inside",
        detail="Glue the lining over the strip, down into both joints and "
        f"{left.brief.ruler.show(left.brief.ruler.near(SPINE_LINING_MM))} on to either board; work it into "
        "the joints with the bone folder.",
        tools=("brush", "bone folder"),
        needs=("covering.turned", "lining.cut"),
        gives=("spine.lined",),
        fixes=("cover.spine_lining",),
        tags=frozenset({"glue", "lining"}),
        cautions=(GLUE,),
        signature=signature(shell.strip, shell.joint),
        missing=Missing(
            slip="E6",
            words="the spine is not lined",
            why="Once the block is hung in, nothing can be glued behind it: the covering alone then carries "
            f"the boards over joints of {left.brief.ruler.show(shell.joint)}.",
            done="the lining is in after all",
            undo="untick what came too early",
        ),
        kind="glue",
        then=("press_joints",),
        shows=lambda: shell_scenes.spine_lined(shell, *lining_size(shell, left.brief.ruler)),
    )


def _endpapers(left: LeftOfCover, shell: Shell) -> Step:
    ruler = left.brief.ruler
    return Step(
        key="endpapers",
        title="Tip the endpapers on",
        detail=f"Fold both sheets, {ruler.size(2 * shell.leaf[0], shell.leaf[1])}. A line of paste "
        f"{ruler.show(ENDPAPER_PASTE_MM)} wide along the fold, laid level with the spine of the sewn "
        "block, front and back.",
        tools=("brush", "waste paper"),
        needs=("block.flat", "lining.cut"),
        gives=("block.ended",),
        fixes=("cover.endpapers",),
        tags=frozenset({"glue"}),
        cautions=(GLUE,),
        signature=signature(*shell.leaf),
        kind="glue",
        shows=lambda: shell_scenes.tipped_on(shell, ENDPAPER_PASTE_MM),
    )


def _hang(cover: Hard, left: LeftOfCover, shell: Shell) -> Step:
    ruler = left.brief.ruler
    what = {"hinge": "the hinge's flange", "ends": "the end panel"}.get(left.binding.at, "the outermost leaf")
    what = "the endpaper" if cover.ends == "endpapers" else what
    squares = joined((ruler.number(shell.square), ruler.number(max(shell.squares[1], 0.0))))
    dry = "" if cover.ends != "bare" else " Only its spine edge is glued, for the boards stay bare."
    return Step(
        key="hang_in",
        title="Hang the block in",
        detail=f"Lay it on the back board, squares even: {squares} {ruler.name} at head and fore edge. A "
        f"sheet of waste paper under {what}, paste it, take the waste out, shut the board on it. Turn over, "
        f"do the other; do not open it to look.{dry}",
        tools=("brush", "waste paper"),
        needs=(
            "cover.dry",
            "cover.set",
            "block.flat",
            "block.ended",
            "block.banded",
            "block.marked",
            "spine.lined",
            "filler.in",
        ),
        gives=("book.hung",),
        tags=frozenset({"hanging in"}),
        cautions=(GLUE,),
        signature=signature(shell.square, *shell.squares),
        minutes=10,
        kind="hang",
        then=("liners", "dry_book"),
        shows=lambda: shell_scenes.hung_in(shell),
    )


def _dry_book(shell: Shell) -> Step:
    return Step(
        key="dry_book",
        title="Dry the book under weight",
        detail="Shut, a folded sheet of waste paper inside each board, a knitting needle in each joint or "
        "nothing in them, under weight until the next day.",
        tools=("boards", "weight"),
        needs=("book.hung", "liner.in"),
        gives=("book.dry", "book.bound"),
        wait_minutes=BOOK_DRIES_MINUTES,
        cautions=(WEIGHT,),
        kind="press",
        weights=True,
        shows=lambda: shell_scenes.dried_shut(shell),
    )
