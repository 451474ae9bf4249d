"""A case padded under its fabric: the padding stops short of the spine, and a card levels the step that the
turn-ins make inside."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE, HOT
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.engines.folding.sheet import board
from pleat.core.pleats.cover import hard
from pleat.core.pleats.cover.hard import HardCoverSpec, HardResult
from pleat.core.pleats.cover.hard_steps import CoverWords
from pleat.core.pleats.cover.laid import EdgeLayer, Laid
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.shell import NO_YES, YES_NO, Hard, Shell, YesNo
from pleat.core.trade.cases import FILLER_CLEAR_MM, INSIDE_STEP_MM, PADDING_STOPS_MM


class Padded(Hard):
    """Pleat 6: a padded case; ``padding_mm`` is what the padding has when it is pulled tight."""

    kind: Literal["padded"] = "padded"
    padding_mm: Annotated[float, LengthRule("the padding, pulled tight", 0.5, 15)] = 3.0
    stops_mm: Annotated[float, LengthRule("the padding stops short of the spine by", 0, 60)] = (
        PADDING_STOPS_MM
    )
    filler: Annotated[YesNo, ChoiceRule("a card that levels the inside", YES_NO)] = "yes"
    ironed: Annotated[YesNo, ChoiceRule("fabric ironed on to its backing", NO_YES)] = "no"


def _own(cover: Padded, shell: Shell, left: LeftOfCover) -> HardCoverSpec:
    count = left.brief.quantity
    covering, parts = hard.one_piece(cover, shell, left)
    pad_w = max(shell.front - cover.stops_mm, 1.0)
    clear = inside_of(shell) + FILLER_CLEAR_MM
    fill_w, fill_h = shell.front - clear, shell.height - 2 * clear
    card = left.paper.stock("cover")
    filled = cover.filler == "yes" and min(fill_w, fill_h) > 5
    padding = board("padding", "padding", pad_w, shell.height)
    under = [
        Laid(padding, shell.edges[1], shell.reach, "padding", "padding"),
        Laid(padding, shell.edges[6] - pad_w, shell.reach, "padding", "padding"),
    ]
    more, inside = [], []
    if filled:
        filler = board("filler", "cover", fill_w, fill_h)
        under += [
            Laid(filler, shell.edges[1] + clear, shell.reach + clear, "lining", "filler"),
            Laid(filler, shell.edges[5], shell.reach + clear, "lining", "filler"),
        ]
        more.append(
            Part(
                key="filler",
                name="filler card",
                width_mm=fill_w,
                height_mm=fill_h,
                count=2 * count,
                stock="cover",
                needs=("board.cut",),
                across="it curls away from the board",
            )
        )
        inside.append(EdgeLayer("filler card", card.caliper.likely, card.swatch))
    return HardCoverSpec(
        covering,
        (*parts, *more),
        tuple(under),
        (EdgeLayer("padding", cover.padding_mm, "cream"),),
        tuple(inside),
        _figures(cover, shell, left, (pad_w, (fill_w, fill_h) if filled else None)),
        _step_inside(cover, shell, left, filled=filled),
        (_pad(cover, shell, left, pad_w), *((IRON,) if cover.ironed == "yes" else ())),
        (_fill(left, (fill_w, fill_h)),) if filled else (),
        CoverWords(
            glue="Lay the covering face down, boards on it padding down. Glue only the strip; the padded "
            "boards are held by the turn-ins.",
            turn="Pull the fabric evenly, head and tail first, then the fore edges; a clip every hand's "
            "width holds it while the glue takes.",
        ),
    )


def inside_of(shell: Shell) -> float:
    """How far a turn-in reaches in on the board, in mm: what is outside, less what goes round the padding and
    over the board's edge."""
    return max(shell.reach - shell.pad - shell.board, 0.0)


IRON: Final = Step(
    key="iron",
    title="Iron the backing on",
    detail="Press, do not push, and let it cool flat before it is marked.",
    tools=("iron",),
    needs=("covering.cut",),
    gives=("covering.backed",),
    cautions=(HOT,),
    kind="cover",
)


def _figures(
    cover: Padded, shell: Shell, left: LeftOfCover, sizes: tuple[float, tuple[float, float] | None]
) -> tuple[Figure, ...]:
    """The padding by its width, and the filler by its size where there is one."""
    ruler, card, (pad_w, filler) = left.brief.ruler, left.paper.stock("cover"), sizes
    padding = Figure(
        key="padding",
        label="padding, two pieces",
        value=(pad_w, shell.height),
        show="size",
        how=f"As high as the board and {ruler.show(cover.stops_mm)} narrower: it stops short of the spine, "
        f"so that the joint stays sharp. The covering is {ruler.thin(cover.padding_mm)} larger at every "
        "outer edge to go over it.",
        rules=(Rule("PADDING_STOPS_MM", "padding thins or stops at the spine; no source"),),
        scrap=ruler.size(pad_w, shell.height),
    )
    if filler is None:
        return (padding,)
    how = (
        f"Board less what of the turn-ins lies inside, {ruler.number(inside_of(shell))} after going round "
        f"the padding and over the board's edge, and {ruler.number(FILLER_CLEAR_MM)} clear of them: it "
        f"brings the inside level, {ruler.thin(shell.covering)} of covering against "
        f"{ruler.thin(card.caliper.likely)} of card."
    )
    return padding, Figure(
        key="filler",
        label="filler card, two pieces",
        value=filler,
        show="size",
        how=how,
        rules=(Rule("arithmetic", "board less turn-ins"),),
    )


def _pad(cover: Padded, shell: Shell, left: LeftOfCover, pad_w: float) -> Step:
    ruler = left.brief.ruler
    return Step(
        key="pad_boards",
        title="Glue the padding on the boards",
        detail=f"{ruler.size(pad_w, shell.height)}, level with the fore edge: the bare "
        f"{ruler.show(cover.stops_mm)} lie at the spine. A thin line of glue round the edge is enough.",
        tools=("glue", "scissors"),
        needs=("board.cut",),
        gives=("board.ready",),
        tags=frozenset({"glue"}),
        cautions=(GLUE,),
        signature=signature(pad_w, shell.height, cover.padding_mm),
        kind="cover",
    )


def _fill(left: LeftOfCover, size: tuple[float, float]) -> Step:
    return Step(
        key="filler",
        title="Level the inside with the filler card",
        detail=f"Glue a card of {left.brief.ruler.size(*size)} into the field between the turn-ins of each "
        "board, so that what is pasted over it lies flat to its edge.",
        needs=("covering.turned", "cover.cut"),
        gives=("filler.in",),
        fixes=("cover.filler",),
        tags=frozenset({"glue", "lining"}),
        cautions=(GLUE,),
        signature=signature(*size),
        kind="cover",
        then=("dry_cover",),
    )


def _step_inside(cover: Padded, shell: Shell, left: LeftOfCover, *, filled: bool) -> tuple[Check, ...]:
    """E5: the step that turned-in fabric makes inside keeps what is pasted over it from lying flat."""
    ruler, checks = left.brief.ruler, []
    card = left.paper.stock("cover").caliper.likely
    step = abs(shell.covering - card) if filled else shell.covering
    if step > INSIDE_STEP_MM:
        offers = (
            (Offer(label="level it with a card", changes=(("cover.filler", "yes"),)),)
            if cover.filler == "no"
            else ()
        )
        checks.append(
            Check(
                code="E5",
                level="watch",
                title=f"Inside, the edge of the turn-in stands up {ruler.thin(step)}.",
                why="A hinge or pastedown glued over the step bridges it, wrinkles, and comes off there "
                "first. A card as thick as the fabric, cut to the field between the turn-ins, brings it "
                "level.",
                offers=offers,
                no_fix=""
                if offers
                else f"Choose a card nearer to the fabric's {ruler.fine(shell.covering)} under Paper: it is "
                "the cover card of this book.",
            )
        )
    if cover.stops_mm < 5:
        checks.append(
            Check(
                code="padding",
                level="watch",
                title=f"The padding goes to within {ruler.show(cover.stops_mm)} of the spine.",
                why="Padding in the joint keeps the cover from shutting; it thins or stops before the spine.",
                offers=(
                    Offer(
                        label=f"stop {ruler.show(PADDING_STOPS_MM)} short",
                        changes=(("cover.stops_mm", PADDING_STOPS_MM),),
                    ),
                ),
            )
        )
    return tuple(checks)


def compute(cover: Padded, left: LeftOfCover) -> HardResult:
    """The padded case around the block."""
    return hard.compute(cover, left, _own, pad=cover.padding_mm)


KIND: Final = CoverKind(
    name="padded",
    title="padded case",
    summary="A case in fabric with padding under it, soft to the hand.",
    record=Padded,
    compute=compute,
    roles=("board", "covering", "lining", "cover"),
    takes=frozenset({"block", "spine"}),
    hung=True,
    traits=Traits(glue=True),
)
