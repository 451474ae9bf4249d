"""What can go wrong with the wrap: slips A1, A3, C4, D4, D5 (cover) and E2."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.base.yields import lies
from pleat.core.engines.panels import PanelPlan
from pleat.core.materials.tools import Tools
from pleat.core.pleats.binding.result import BindingResult
from pleat.core.pleats.cover.record import FARTHEST_SCORE_MM, LARGEST_SQUARE_MM, Wrap
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.pages.block import Block
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.covers import (
    CLEAR_OF_SPINE_MM,
    COVER_HOLE_END_MM,
    CREASE_AT_MOST_MM,
    FLUSH_BEARS_MM,
    HOLES_OFF_MM,
    SQUARES_UNEQUAL_MM,
    USUAL_SQUARE_MM,
)
from pleat.core.trade.sewing import COVER_MARGIN_MM, LEAF_MARGIN_MM


@dataclass(frozen=True)
class WrapContext:
    """What the checks are about: the spine, the wrap with its creases, the squares as they come out, the
    holes from the cover's head; mm.

    ``lost_mm`` is what a spine scored narrower than the block takes from the square at the fore edge.
    """

    spine: Estimate
    wrap: PanelPlan
    creases: int
    square_fore: float
    square_head: float
    holes: tuple[float, ...]
    lost_mm: float


def find(cover: Wrap, left: LeftOfCover, out: WrapContext) -> tuple[Check, ...]:
    """Every check of this pleat that has something to say."""
    ruler, card, pages, binding = left.brief.ruler, left.paper.cover, left.pages, left.binding
    found = [
        _sum(cover, ruler, card, out),
        _offset(cover, ruler, out.spine),
        _squares(cover, ruler, card, out),
        _creep(cover, ruler, card, pages, out),
        _crease(ruler, out.spine, out.creases),
        holes_told(ruler, binding, out.holes),
        _near_edge(left, out),
        _board(ruler, out.wrap, left.tools),
        _flaps(cover, ruler, out.wrap),
        _blank(cover, ruler, card),
    ]
    return tuple(check for check in found if check)


def _has_room(cover: Wrap, card: Stock, out: WrapContext, square_mm: float) -> bool:
    """Whether the wrap still comes out of its card with another square; True where it does not come out as it
    is either."""
    more = 2 * (square_mm - cover.square_mm)
    sides = (card.usable_width_mm, card.usable_height_mm)

    def comes_out(width: float, height: float) -> bool:
        return lies(width, height, *sides) or lies(width, height, *sides[::-1])

    wide, high = out.wrap.width_mm, out.wrap.height_mm
    return comes_out(wide + more, high + more) or not comes_out(wide, high)


def _square(ruler: Ruler, square_mm: float) -> Offer:
    """Another square, and a new piece for it."""
    changes = (
        ("cover.square_mm", square_mm),
        ("cover.piece_width_mm", None),
        ("cover.piece_height_mm", None),
    )
    return Offer(label=f"square {ruler.show(square_mm)}", changes=changes)


_TOO_SMALL_A_CARD: Final = (
    "The card is too small for a wider one: take a larger sheet under Paper, or a smaller leaf."
)


def _sum(cover: Wrap, ruler: Ruler, card: Stock, out: WrapContext) -> Check | None:
    """A1: the panels do not add up to the piece; of its two sides the one that lacks more is said."""
    wrap = out.wrap
    sides = (
        (cover.piece_width_mm, "cover.piece_width_mm", wrap.width_mm, "wide"),
        (cover.piece_height_mm, "cover.piece_height_mm", wrap.height_mm, "high"),
    )
    known = [
        (need - piece, piece, path, need, across) for piece, path, need, across in sides if piece is not None
    ]
    off = [one for one in known if abs(one[0]) > ruler.step_mm / 2 + 0.05]
    if not off:
        return None
    short, piece, path, need, across = max(off, key=lambda one: one[0])
    names = [panel.name for panel in wrap.panels] if across == "wide" else ["square", "leaf", "square"]
    widths = (
        [panel.width_mm for panel in wrap.panels]
        if across == "wide"
        else [cover.square_mm, need - 2 * cover.square_mm, cover.square_mm]
    )
    shown, whole = ruler.summed(widths)
    panels = " + ".join(f"{name} {width}" for name, width in zip(names, shown, strict=True))
    # the largest square that fits both sides; moved by whole steps, for the panels end on the ruler's marks
    square = cover.square_mm - ruler.snap_up(max(one[0] for one in known) / 2)
    fixes = []
    if (
        0 <= square <= LARGEST_SQUARE_MM
        and abs(square - cover.square_mm) > 0.05
        and _has_room(cover, card, out, square)
    ):
        fixes.append(Offer(label=f"square {ruler.show(square)}", changes=(("cover.square_mm", square),)))
    if short < 0:
        fixes.append(Offer(label=f"trim the piece by {ruler.show(-short)}", changes=((path, need),)))
    fixes.append(
        Offer(
            label="cut a new piece", changes=(("cover.piece_width_mm", None), ("cover.piece_height_mm", None))
        )
    )
    state = "missing" if short > 0 else "left over"
    return Check(
        code="A1",
        level="stop" if short > 0 else "watch",
        title=f"The cover's panels do not add up to your piece: {ruler.show(abs(short))} {state}.",
        why=f"{panels} = {whole} {ruler.name}; the piece is {ruler.show(piece)} {across}.",
        offers=tuple(fixes),
    )


def _offset(cover: Wrap, ruler: Ruler, spine: Estimate) -> Check | None:
    """A3: scores set either side of the middle by something other than half the thickness."""
    offset = cover.score_offset_mm
    slack = ruler.step_mm / 2
    if not offset or spine.low - slack <= 2 * offset <= ruler.snap_up(spine.high) + slack:
        return None
    half = Offer(
        label=f"{ruler.thin(spine.likely / 2)} either side",
        changes=(("cover.score_offset_mm", spine.likely / 2),),
    )
    return Check(
        code="A3",
        level="watch",
        title=f"Scores {ruler.thin(offset)} either side of the middle make a spine of "
        f"{ruler.thin(2 * offset)}; what is inside is {ruler.thin(spine.likely)}.",
        why=f"Half the thickness is {ruler.thin(spine.likely / 2)}. The full thickness either side makes a "
        "spine twice too wide, and the cover hangs loose.",
        offers=(
            *((half,) if spine.likely / 2 <= FARTHEST_SCORE_MM else ()),
            Offer(label="let Pleat place the scores", changes=(("cover.score_offset_mm", None),)),
        ),
    )


def _squares(cover: Wrap, ruler: Ruler, card: Stock, out: WrapContext) -> Check | None:
    """E2: no square, or very unequal ones."""
    fore, head = out.square_fore, out.square_head
    own = cover.score_offset_mm
    if own and 2 * own < out.spine.likely and cover.piece_width_mm is None and cover.piece_height_mm is None:
        return None  # the spine is scored too narrow for the block: A3 says so
    has_room = _has_room(cover, card, out, USUAL_SQUARE_MM)
    usual = (_square(ruler, USUAL_SQUARE_MM),) if has_room else ()
    no_fix = "" if has_room else _TOO_SMALL_A_CARD
    numbers = f"{ruler.show(fore)} at the fore edge, {ruler.show(head)} at head and tail"
    if min(fore, head) < -0.05:
        return Check(
            code="E2",
            level="stop",
            title=f"Leaves stand out of the cover: {numbers}.",
            why="The cover is smaller than the leaves.",
            offers=usual,
            no_fix=no_fix,
        )
    if abs(fore - head) > SQUARES_UNEQUAL_MM:
        why = f"The eye sees a difference from about {ruler.show(SQUARES_UNEQUAL_MM)} on."
        return Check(
            code="E2",
            level="watch",
            title=f"The squares are very unequal: {numbers}.",
            why=why,
            offers=usual,
            no_fix=no_fix,
        )
    if head < 0.05 and fore < ruler.step_mm:
        return Check(
            code="E2",
            level="note",
            title="There is no square: the cover ends with the leaves.",
            why="A school of its own, but the edges of the leaves take every knock. The usual square is "
            f"{ruler.show(USUAL_SQUARE_MM)}.",
            offers=usual,
            no_fix=no_fix,
        )
    return None


def _creep(cover: Wrap, ruler: Ruler, card: Stock, pages: Block, out: WrapContext) -> Check | None:
    """C4: inner leaves stand out past the cover. A cover that is flush on purpose bears as much as is hardly
    seen."""
    fore = out.square_fore
    flush = cover.square_mm < 0.05
    creep = pages.stands_out_mm
    if creep is None or creep.high <= max(fore, FLUSH_BEARS_MM if flush else 0.0) + 0.05:
        return None
    wanted = ruler.snap_up(creep.high + out.lost_mm)
    sure = creep.likely > fore and not flush
    fixes = (
        (_square(ruler, wanted),)
        if wanted <= LARGEST_SQUARE_MM and _has_room(cover, card, out, wanted)
        else ()
    )
    certainty = "will" if sure or flush else "may"
    return Check(
        code="C4",
        level="watch" if sure else "note",
        title=f"Inner leaves {certainty} stand out past the cover: they creep "
        f"{ruler.between(creep.low, creep.high)}, the square is {ruler.thin(max(fore, 0))}.",
        why="The inner sheets have a longer way round the fold's outside layers and show at the fore edge.",
        offers=(*fixes, *pages.level),
        no_fix="" if fixes or pages.level else "Take fewer sheets in one fold: no square is wide enough.",
    )


def _crease(ruler: Ruler, spine: Estimate, creases: int) -> Check | None:
    if creases == 2 or spine.likely <= CREASE_AT_MOST_MM:
        return None
    return Check(
        code="crease",
        level="watch",
        title=f"One crease is not enough for a spine of {ruler.thin(spine.likely)}.",
        why=f"Above {ruler.between(3.0, CREASE_AT_MOST_MM, Ruler.show)} the cover springs open and creases "
        "by itself, beside the score.",
        offers=(Offer(label="two creases", changes=(("cover.creases", "two"),)),),
    )


def _near_edge(left: LeftOfCover, out: WrapContext) -> Check | None:
    """D5 for the cover: a hole so near its head or tail that the card tears there."""
    ruler, binding, placed = left.brief.ruler, left.binding, left.brief.made_of.binding.placed
    if not binding.positions_mm:
        return None
    in_leaf = min(binding.positions_mm[0], binding.height_mm - binding.positions_mm[-1])
    near = in_leaf + out.square_head
    if near >= COVER_HOLE_END_MM or in_leaf < LEAF_MARGIN_MM:
        return None  # so near the leaf's own end it is said under Binding
    helps = (
        placed and binding.usual_mm is not None and binding.usual_mm + out.square_head >= COVER_HOLE_END_MM
    )
    return Check(
        code="D5",
        level="watch",
        title=f"The outermost hole is {ruler.show(near)} from the end of the cover.",
        why=f"With less than {ruler.show(COVER_HOLE_END_MM)} to {ruler.show(COVER_MARGIN_MM)} a cover tears "
        "there.",
        offers=(
            Offer(label="place the holes anew", changes=tuple((f"binding.{name}", None) for name in placed)),
        )
        if helps
        else (),
        no_fix=""
        if helps
        else "A leaf so low has no room for more: pull gently there, with a thin thread if it is sewn.",
    )


def _flaps(cover: Wrap, ruler: Ruler, wrap: PanelPlan) -> Check | None:
    """F9 for a flap: folded in, it reaches the spine and keeps the cover from folding."""
    if not cover.flaps_mm:
        return None
    panel = next(one.width_mm for one in wrap.panels if one.name == "back") + (
        cover.hinge_mm if cover.creases == "four" else 0.0
    )
    most = ruler.snap_down(panel - CLEAR_OF_SPINE_MM)
    if cover.flaps_mm <= most + 0.05:
        return None
    return Check(
        code="F9",
        level="stop",
        title=f"The flaps of {ruler.show(cover.flaps_mm)} reach the spine: a panel is {ruler.show(panel)}.",
        why=f"Folded in they have to stay {ruler.show(CLEAR_OF_SPINE_MM)} clear of the crease, or the cover "
        "does not fold there.",
        offers=(Offer(label=f"flaps of {ruler.show(most)}", changes=(("cover.flaps_mm", most),)),)
        if most >= 10
        else (),
        no_fix="" if most >= 10 else "Leave the flaps out: the panels are too narrow for them.",
    )


def _blank(cover: Wrap, ruler: Ruler, card: Stock) -> Check | None:
    """B9: flaps folded in show the good side beside the blank inside of a one-sided card."""
    if not cover.flaps_mm or card.sides == 2:
        return None
    return Check(
        code="B9",
        level="watch",
        title=f"{card.name} is good on one side: folded in, the flaps show it beside the blank inside of the "
        "cover.",
        why=f"Open, flap and inside look like two papers, {ruler.show(cover.flaps_mm)} wide and the rest.",
        offers=(
            Offer(label="both sides will do", changes=(("paper.cover.sides", 2),)),
            Offer(label="no flaps", changes=(("cover.flaps_mm", None),)),
        ),
    )


def _board(ruler: Ruler, wrap: PanelPlan, tools: Tools) -> Check | None:
    longest = tools.scoring_longest_mm
    if longest is None or max(wrap.width_mm, wrap.height_mm) <= longest + 0.05:
        return None
    marks = joined(ruler.number(score) for score in wrap.scores_mm)
    return Check(
        code="scoring",
        level="note",
        title="The cover is longer than your scoring board: "
        f"{ruler.show(max(wrap.width_mm, wrap.height_mm))} on {ruler.show(longest)}.",
        why=f"Pieces that hang over slip. Mark {marks} {ruler.name} from the left edge at head and tail and "
        "score along a rule.",
        no_fix="Nothing to change: the printed score strip gives the marks.",
    )


def holes_told(ruler: Ruler, binding: BindingResult, holes: tuple[float, ...]) -> Check | None:
    """D4: cover and leaves were marked separately, and differ."""
    own = binding.cover_holes_mm
    if own is None:
        return None
    if len(own) != len(holes):
        what = f"The cover has {len(own)} holes, the leaves {len(holes)}."
    else:
        off = max((abs(a - b) for a, b in zip(sorted(own), holes, strict=True)), default=0.0)
        if off <= HOLES_OFF_MM:
            return None
        what = f"The holes in your cover are up to {ruler.thin(off)} off those of the leaves."
    wanted = ", ".join(ruler.number(hole) for hole in holes)
    return Check(
        code="D4",
        level="stop",
        title=what,
        why=f"Through one strip they would lie at {wanted} {ruler.name} from the cover's head. Separately "
        "measured holes pull the fold askew.",
        offers=(Offer(label="use one strip for both", changes=(("binding.cover_holes_mm", None),)),),
    )
