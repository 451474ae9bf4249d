"""Covers that are punched as leaves are: where their holes lie, how far their square moves them, and how they
are made."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final

from pleat.core.base.cautions import AWL_BOARD, BOARD, PUNCH
from pleat.core.base.estimate import Estimate, total
from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Check, Figure, Missing, Offer, Part, Rule, Step, signature
from pleat.core.base.scenes import HoleAt, Lying, Scene
from pleat.core.base.staged import marked, punched
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.engines.holes.places import missed
from pleat.core.pleats.cover.laid import EdgeLayer, Hole, Laid, LaidResult
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import LeftOfCover
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.trade.covers import SCORE_FROM_MM, USUAL_SQUARE_MM
from pleat.core.trade.holes import HOLE_BRIDGE_MM

GAP_MM: Final = 14.0
"""How far apart the two are drawn."""
DRILLED: Final = "Clamp and drill both at once."
PUNCHED: Final = "Punch both at once, or one, and the other through its holes."
ORDER: Final = Missing(
    slip="D8",
    words="a cover is not punched yet, and goes on first",
    why="The order on the rings is cover, leaves, cover: with the cover left over, all of it comes off "
    "again.",
    done="the covers are punched, tick it",
    undo="untick, and punch the covers first",
)


class TwoCovers(Member):
    """Front and back by themselves."""

    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = USUAL_SQUARE_MM
    edge_mm: Annotated[float, LengthRule("the square at the held edge", 0, LARGEST_SQUARE_MM)] = 0.0


@dataclass(frozen=True)
class Sized:
    """A cover in mm with its head on top, held on the left or, with ``flip``, at its head.
    ``beyond`` is a score that lies past the middle, and is not drawn."""

    width: float
    height: float
    holes: tuple[float, ...]
    inset: float
    hinge: float
    flip: bool
    beyond: float = 0.0


def sized(cover: TwoCovers, left: LeftOfCover, stock: Stock, bends: bool) -> Sized:
    """The cover's size, and its holes from its own head: the leaf's, moved by the square."""
    pages, binding = left.pages, left.binding
    flip = binding.at_head
    across = (pages.leaf_width_mm, pages.leaf_height_mm)
    reach, edge = (across[1], across[0]) if flip else across
    reach, edge = reach + cover.square_mm + cover.edge_mm, edge + 2 * cover.square_mm
    hole = binding.through_mm
    usual = (
        left.brief.ruler.snap_up(binding.inset_mm + cover.edge_mm + hole / 2 + HOLE_BRIDGE_MM)
        if stock.caliper.likely > SCORE_FROM_MM
        else 0.0
    )
    asked = getattr(cover, "hinge_mm", None)
    if not bends:
        hinge = 0.0
    elif asked is None:
        hinge = usual
    else:
        hinge = asked
    beyond = hinge if hinge > reach / 2 else 0.0
    hinge = 0.0 if beyond else hinge
    size = (edge, reach) if flip else (reach, edge)
    return Sized(
        *size,
        tuple(position + cover.square_mm for position in binding.positions_mm),
        binding.inset_mm + cover.edge_mm,
        hinge,
        flip,
        beyond,
    )


def _laid(name: str, what: str, part: Sized, hole: float) -> tuple[Laid, Laid]:
    """Back and front as they are seen from outside, held edges together: each the other's mirror image."""
    found = []
    for side in ("back", "front"):
        mirrored = side == "back"
        hinge, body = (
            Span("hinge", part.hinge),
            Span("body" if part.hinge else "", (part.height if part.flip else part.width) - part.hinge),
        )
        if part.flip:
            rows = [body, hinge] if mirrored else [hinge, body]
            own = piece(side, what, [Span("", part.width)], rows if part.hinge else [Span("", part.height)])
            holes = tuple(
                Hole(place, part.height - part.inset if mirrored else part.inset, hole)
                for place in part.holes
            )
            x, y = 0.0, 0.0 if mirrored else part.height + GAP_MM
        else:
            columns = [body, hinge] if mirrored else [hinge, body]
            own = piece(
                side, what, columns if part.hinge else [Span("", part.width)], [Span("", part.height)]
            )
            holes = tuple(
                Hole(part.width - part.inset if mirrored else part.inset, place, hole) for place in part.holes
            )
            x, y = 0.0 if mirrored else part.width + GAP_MM, 0.0
        found.append(Laid(own, x, y, name, "cover", holes))
    return found[0], found[1]


def compute(cover: TwoCovers, left: LeftOfCover, role: str, word: str) -> LaidResult:
    """Both covers, drawn as they are punched: front and back side by side, mirrored."""
    ruler, stock = left.brief.ruler, left.paper.stock(role)
    bends = role != "board"
    at = sized(cover, left, stock, bends)
    spine = total([left.pages.thickness, left.extras.added, left.binding.swell, stock.caliper.times(2)])
    binding = left.binding
    hole = binding.through_mm
    laid = _laid("plate" if role == "board" else "card", role, at, hole)
    begins = laid[1].x_mm, laid[1].y_mm
    marks = ", ".join(ruler.number(hole) for hole in at.holes[:8]) + (" …" if len(at.holes) > 8 else "")
    part = Part(
        key="cover",
        name=word,
        width_mm=at.width,
        height_mm=at.height,
        count=2 * left.brief.quantity,
        stock=role,
        grain="w" if at.flip else "h",
        needs=("block.measured",) if role == "board" else (),
        across="it bows towards the leaves" if role == "board" else "its hinge cracks",
    )
    return LaidResult(
        key_figure=_size(cover, left, at, word),
        figures=(
            _size(cover, left, at, word),
            _holes(cover, left, at, marks),
            _spine(left, spine, stock.caliper.likely),
        ),
        checks=_checks(left, at),
        parts=(part,),
        steps=_steps(left, at, role, marks),
        front_width_mm=at.width,
        front_height_mm=at.height,
        spine=spine,
        swatch=stock.swatch,
        square_fore_mm=cover.square_mm,
        square_head_mm=0.0 if at.flip else cover.square_mm,
        holes_mm=at.holes,
        board_mm=stock.caliper.likely,
        laid=laid,
        layers=(EdgeLayer(word, stock.caliper.likely, stock.swatch),),
        places=(
            FieldAnchor(
                "cover.square_mm", begins[0] + at.width, begins[1] + at.height * 0.4, cover.square_mm
            ),
        ),
    )


def _size(cover: TwoCovers, left: LeftOfCover, part: Sized, word: str) -> Figure:
    ruler, pages = left.brief.ruler, left.pages
    edge = (
        f" + {ruler.number(cover.edge_mm)} at the held edge" if cover.edge_mm else ", flush at the held edge"
    )
    reach, along = (
        (pages.leaf_height_mm, pages.leaf_width_mm)
        if part.flip
        else (pages.leaf_width_mm, pages.leaf_height_mm)
    )
    how = (
        f"Across: leaf {ruler.number(reach)} + square {ruler.number(cover.square_mm)}{edge}. Along the "
        f"held edge: leaf {ruler.number(along)} + 2 × {ruler.number(cover.square_mm)}."
    )
    return Figure(
        key="covers",
        label=f"cut two {word}s",
        value=(part.width, part.height),
        show="size",
        how=how,
        rules=(Rule("arithmetic", "leaf and squares"), Rule("USUAL_SQUARE_MM", "square 3 mm, no source")),
        scrap=f"two {ruler.size(part.width, part.height)}",
    )


def _holes(cover: TwoCovers, left: LeftOfCover, part: Sized, marks: str) -> Figure:
    ruler = left.brief.ruler
    end = "left" if part.flip else "head"
    return Figure(
        key="cover_holes",
        label="holes in the covers",
        value=f"{marks} {ruler.name}",
        show="text",
        how=f"From the cover's own {end}: the leaf's places + a square of {ruler.show(cover.square_mm)}; "
        f"{ruler.show(part.inset)} from its held edge. Front and back are punched face to face, so that one "
        "is the other's mirror image.",
        rules=(Rule("arithmetic", "the leaf's holes moved by the square"),),
        scrap=f"{marks}, {ruler.show(part.inset)} from the edge" if len(part.holes) <= 8 else "",
    )


def _spine(left: LeftOfCover, spine: Estimate, sheet: float) -> Figure:
    ruler = left.brief.ruler
    how = (
        f"Leaves {ruler.thin(left.pages.thickness.likely)}, two covers of {ruler.thin(sheet)}. Nothing "
        "covers it: it need not be cut to."
    )
    return Figure(
        key="spine",
        label="spine, with covers",
        value=spine,
        show="thin",
        how=how,
        rules=(Rule("arithmetic", "what lies at the held edge, added up"),),
    )


def _checks(left: LeftOfCover, part: Sized) -> tuple[Check, ...]:
    """D5 for the covers' own edge and score; D9's warning where it matters."""
    ruler, checks = left.brief.ruler, []
    binding = left.binding
    hole = binding.through_mm
    if part.beyond:
        away = (Offer(label="no score", changes=(("cover.hinge_mm", 0.0),)),)
        checks.append(
            Check(
                code="hinge",
                level="watch",
                title=f"A score {ruler.show(part.beyond)} from the held edge lies past the middle of the "
                "cover.",
                why="It would fold in half, not turn at its holes: it is left out.",
                offers=away,
            )
        )
    if part.hinge and part.hinge < part.inset + hole / 2 + 2:
        right = ruler.snap_up(part.inset + hole / 2 + HOLE_BRIDGE_MM)
        checks.append(
            Check(
                code="hinge",
                level="stop",
                title=f"The covers' score, {ruler.show(part.hinge)} from the edge, runs through the holes or "
                "close by them.",
                why="They tear there from hole to hole.",
                offers=(Offer(label=f"score at {ruler.show(right)}", changes=(("cover.hinge_mm", right),)),),
            )
        )
    along = part.width if part.flip else part.height
    if missed(part.holes, along) > 0.3:
        checks.append(
            Check(
                code="mirrored",
                level="note",
                title="These holes are not the same from both ends: front and back are not alike.",
                why="Punch them face to face, held edges together, and write FRONT on one.",
                no_fix="Nothing is wrong; the step says it again.",
            )
        )
    return tuple(checks)


def _bored(part: Sized, across: float) -> list[HoleAt]:
    places = [(at, part.inset) if part.flip else (part.inset, at) for at in part.holes]
    return [HoleAt(x, y, across) for x, y in places]


def _hinged(part: Sized, role: str) -> Scene:
    """A cover with its score along the held edge."""
    cover = _cover(part, role)
    return marked(cover, level=(part.hinge,)) if part.flip else marked(cover, upright=(part.hinge,))


def _cover(part: Sized, role: str) -> Lying:
    return Lying("", 0.0, 0.0, part.width, part.height, stock=role)


def _steps(left: LeftOfCover, part: Sized, role: str, marks: str) -> tuple[Step, ...]:
    ruler, hard = left.brief.ruler, role == "board"
    steps = []
    if part.hinge:
        steps.append(
            Step(
                key="cover_hinge",
                title="Score the covers",
                detail=f"{ruler.show(part.hinge)} from the held edge, on the outside, and bend each once.",
                tools=("bone folder", "rule"),
                needs=(f"{role}.cut", f"{role}.ready"),
                gives=("cover.scored",),
                uses=("cover.flat",),
                signature=signature(part.hinge),
                kind="fold",
                shows=lambda: _hinged(part, role),
            )
        )
    head = "left" if part.flip else "head"
    tool = DRILLED if hard else PUNCHED
    steps.append(
        Step(
            key="cover_punch",
            title="Punch the covers face to face",
            detail="Lay front and back together, outsides outwards, held edges and heads level, and hold "
            f"them to the check sheet: holes {marks} {ruler.name} from their own "
            f"{head}, {ruler.show(part.inset)} from the held edge. "
            f"{tool} "
            "Write FRONT on one.",
            tools=("small drill" if hard else "paper punch", "jig"),
            needs=(f"{role}.cut", f"{role}.ready", "cover.scored", "jig.ready"),
            gives=("cover.punched",),
            cautions=(AWL_BOARD, BOARD) if hard else (PUNCH,),
            signature=signature(*part.holes, part.inset),
            missing=ORDER,
            kind="punch",
            shows=lambda: punched(
                _cover(part, role),
                _bored(part, left.binding.through_mm),
                2,
                1,
                "level" if part.flip else "upright",
            ),
        )
    )
    return tuple(steps)
