"""A soft wrap with a gusset at the fore edge and a flap that closes over the front."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial
from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.plan import Check, Figure, Fold, Offer, Part, Rule, Step, signature
from pleat.core.base.scenes import Lying
from pleat.core.base.staged import marked
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Cut, Piece, Span, piece, scores
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.cover import fasteners, soft, spine
from pleat.core.pleats.cover.checks import holes_told
from pleat.core.pleats.cover.fasteners import FASTENERS, Fastener, Landing
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult, Motion
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.soft import Closed
from pleat.core.pleats.cover.spine import Spine, Spined, spine_of
from pleat.core.trade.covers import (
    FLAP_FASTENER_SHARE,
    FLAP_PAST_MM,
    GUSSET_LOOSE_MM,
    HALVES_MISS_MM,
    SAME_BOOK_SHARE,
)


class Flapped(Spined):
    """Pleat 6: a wrap with gusset and closing flap; lengths a maker has already stand for those that are
    worked out."""

    kind: Literal["flapped"] = "flapped"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    gusset_mm: Annotated[float, LengthRule("the gusset", 0.5, 120)] | None = None
    flap_mm: Annotated[float, LengthRule("the flap", 10, 600)] | None = None
    shape: Annotated[
        Literal["straight", "slanted", "pointed"],
        ChoiceRule(
            "the flap is",
            (("straight", "straight"), ("slanted", "slanted at its corners"), ("pointed", "pointed")),
        ),
    ] = "slanted"
    fastener: Annotated[Fastener, ChoiceRule("kept shut by", FASTENERS)] = "magnet"
    fastened_mm: (
        Annotated[float, LengthRule("the fastener's other half, from the front's fore edge", 0, 600)] | None
    ) = None


def compute(cover: Flapped, left: LeftOfCover) -> LaidResult:
    """The wrap around the block, shut with its flap."""
    ruler, pages, card = left.brief.ruler, left.pages, left.paper.cover
    inside = spine_of(cover, left)
    panel = ruler.snap_up(pages.leaf_width_mm + cover.square_mm)
    height = pages.leaf_height_mm + 2 * cover.square_mm
    scored = max(ruler.snap_up(inside.used.likely), ruler.step_mm)
    need = Estimate(inside.fore.likely, inside.fore.doubts).plus(card.caliper)
    gusset = cover.gusset_mm or max(ruler.snap_up(need.likely), ruler.step_mm)
    fastened = ruler.snap(sum(FLAP_FASTENER_SHARE) / 2 * panel)
    flap = cover.flap_mm or min(ruler.snap(fastened + FLAP_PAST_MM), panel)
    wrap = _piece(cover, (flap, gusset, panel, scored, panel), height, one_sided=card.sides == 1)
    calipers = {"cover": card.caliper, soft.BLOCK: inside.fore}
    corner = (pages.leaf_width_mm, pages.leaf_height_mm, (flap + gusset + cover.square_mm, cover.square_mm))
    motion = _motion(wrap, corner, inside)
    closed = soft.close(wrap, "back", corner, FOLDS, calipers)
    point = (max(flap - fastened, 1.0), height / 2)
    edges = {"flap": flap, "front": flap + gusset + 2 * panel + scored}
    landing = soft.landing(closed, "flap", point, "front", edges) if cover.fastener != "none" else None
    sizes = PanelWidths(panel, scored, gusset, flap)
    shown = (*_figures(cover, left, wrap, sizes), _gusset(left, sizes, inside), *_flap(left, sizes, landing))
    thick = inside.used.plus(card.caliper.times(2))
    return LaidResult(
        key_figure=shown[0],
        figures=(*shown, *spine.figures(ruler, inside)),
        checks=(*_checks(cover, left, closed, sizes, landing), *spine.checks(cover, left, inside)),
        parts=(
            _part(left, wrap),
            *fasteners.pieces(cover.fastener, height, thick.likely, panel, left.brief.quantity),
        ),
        steps=(
            _score(left, wrap),
            *(fasteners.steps(cover.fastener, ruler, landing, "the patch over it") if landing else ()),
        ),
        front_width_mm=panel,
        front_height_mm=height,
        spine=thick,
        swatch=card.swatch,
        square_fore_mm=panel - pages.leaf_width_mm,
        square_head_mm=cover.square_mm,
        holes_mm=tuple(position + cover.square_mm for position in left.binding.positions_mm),
        laid=(Laid(wrap, 0.0, 0.0, "card", "cover"),),
        layers=(EdgeLayer("card", card.caliper.likely, card.swatch),),
        landing=landing,
        fastener=cover.fastener,
        motion=motion,
        halves=((flap - landing.first[1], height / 2), (edges["front"] - landing.second[1], height / 2))
        if landing
        else (),
        places=(
            FieldAnchor("cover.square_mm", edges["front"], height * 0.12, cover.square_mm),
            FieldAnchor("cover.flap_mm", flap / 2, height, flap, below=True),
            FieldAnchor("cover.gusset_mm", flap + gusset / 2 + panel * 0.4, height, gusset, below=True),
        ),
    )


def _motion(wrap: Piece, corner: tuple[float, float, tuple[float, float]], inside: Spine) -> Motion:
    """How it opens: flap, front and back about their folds."""
    return Motion(
        wrap,
        "back",
        FOLDS,
        ("open", "front over", "shut with its flap"),
        corner,
        max(inside.used.likely, 1.0),
    )


FOLDS: Final = (
    (("back", "spine", 90.0), ("spine", "front", 90.0)),
    (("back", "gusset", 90.0), ("gusset", "flap", 90.0)),
)
"""The front comes over, then the flap: each stands up a quarter turn at both edges of its gusset."""
COLUMNS: Final = ("flap", "gusset", "back", "spine", "front")


def _piece(cover: Flapped, widths: tuple[float, ...], height: float, *, one_sided: bool) -> Piece:
    """The wrap from the outside, the flap on the left with its shape cut."""
    flap, cuts = widths[0], []
    if cover.shape != "straight":
        back = flap * (0.5 if cover.shape == "slanted" else 1.0)
        in_ = min(height / 6 if cover.shape == "slanted" else height / 2.4, height / 2.2)
        slope = min(back, flap - 0.5)
        cuts = [
            Cut((slope, 0.0), (0.0, in_), (0.0, 0.0), frozenset({"flap"})),
            Cut((slope, height), (0.0, height - in_), (0.0, height), frozenset({"flap"})),
        ]
    columns = [Span(name, width) for name, width in zip(COLUMNS, widths, strict=True)]
    return piece(
        soft.WRAP, "cover", columns, [Span("", height)], cuts=cuts, good="A" if one_sided else "both"
    )


@dataclass(frozen=True)
class PanelWidths:
    """Widths of the panels in mm: front and back alike, the spine as it is scored, gusset and flap."""

    panel: float
    spine: float
    gusset: float
    flap: float


def _figures(cover: Flapped, left: LeftOfCover, wrap: Piece, sizes: PanelWidths) -> tuple[Figure, Figure]:
    ruler, pages = left.brief.ruler, left.pages
    shown, whole = ruler.summed([sizes.flap, sizes.gusset, sizes.panel, sizes.spine, sizes.panel])
    across = " + ".join(f"{name} {width}" for name, width in zip(COLUMNS, shown, strict=True))
    width, height = wrap.size_mm
    marks = f"{joined(ruler.number(ruler.snap(score)) for score in scores(wrap))} {ruler.name}"
    return (
        Figure(
            key="wrap",
            label="cut the cover",
            value=(width, height),
            show="size",
            how=f"Wide: {across} = {whole} {ruler.name}. High: leaf {ruler.number(pages.leaf_height_mm)} + 2 "
            f"× {ruler.number(cover.square_mm)}.",
            rules=(Rule("arithmetic", "panels added up"),),
            scrap=ruler.size(width, height),
        ),
        Figure(
            key="scores",
            label="score from the left edge",
            value=marks,
            show="text",
            how="Seen from the outside, flap on the left, all running from one edge so that rounding does "
            "not pile up.",
            rules=(Rule("arithmetic", "panel edges"),),
            scrap=marks,
        ),
    )


def _gusset(left: LeftOfCover, sizes: PanelWidths, inside: Spine) -> Figure:
    ruler, card = left.brief.ruler, left.paper.cover.caliper.likely
    (block, front), whole = ruler.summed([inside.fore.likely, card], finest=True)
    wide = f"Block at the fore edge {block} + front cover {front} = {whole} {ruler.name}"
    differs = (
        ""
        if abs(sizes.gusset - sizes.spine) < ruler.step_mm
        else f" It differs from the spine's {ruler.show(sizes.spine)}: thread is only at the spine, the "
        "front cover and what goes in only here."
    )
    how = f"{wide}, up to the ruler's next mark.{differs}"
    return Figure(
        key="gusset",
        label="gusset at the fore edge",
        value=sizes.gusset,
        show="length",
        how=how,
        rules=(Rule("arithmetic", "what the flap closes round"),),
    )


def _flap(left: LeftOfCover, sizes: PanelWidths, landing: Landing | None) -> tuple[Figure, ...]:
    """The flap, and where what it carries lands."""
    ruler = left.brief.ruler
    low, high = (share * sizes.panel for share in FLAP_FASTENER_SHARE)
    carries = (
        "It carries its fastener at a quarter to a third of the front, "
        f"{ruler.between(low, high, Ruler.show)} from the fore edge, and goes {ruler.show(FLAP_PAST_MM)} "
        "past it."
    )
    flap = Figure(
        key="flap",
        label="flap",
        value=sizes.flap,
        show="length",
        how=carries,
        rules=(Rule("FLAP_FASTENER_SHARE", "a quarter to a third of the front, no source"),),
    )
    if landing is None:
        return (flap,)
    (_, on_flap, down), (_, on_front, _) = landing.first, landing.second
    how = (
        f"On the flap {ruler.show(on_flap)} from the gusset; shut, that is {ruler.show(on_front)} from the "
        f"front's fore edge, both {ruler.show(down)} from the head. Worked out by folding the cover shut."
    )
    lands = Figure(
        key="lands",
        label="the fastener lands",
        value=on_front,
        show="length",
        how=how,
        rules=(Rule("arithmetic", "the place carried through the folds"),),
    )
    return flap, lands


def _checks(
    cover: Flapped, left: LeftOfCover, closed: Closed, sizes: PanelWidths, landing: Landing | None
) -> tuple[Check, ...]:
    ruler = left.brief.ruler
    return tuple(
        check
        for check in (
            _room(cover, ruler, closed, sizes.gusset),
            _loose(cover, ruler, closed, sizes.gusset),
            _fits(ruler, sizes.panel, sizes.flap),
            _halves(cover, ruler, landing),
            _blank(left),
            _no_square(cover, ruler),
            holes_told(
                ruler,
                left.binding,
                tuple(position + cover.square_mm for position in left.binding.positions_mm),
            ),
        )
        if check
    )


def _loose(cover: Flapped, ruler: Ruler, closed: Closed, gusset: float) -> Check | None:
    """A2: a gusset far wider than what it closes round, which the spine is made for as well."""
    needs = closed.gussets["gusset"].stiff.likely
    if cover.gusset_mm is None or gusset <= max(2 * needs, needs + GUSSET_LOOSE_MM):
        return None
    return Check(
        code="A2",
        level="watch",
        title=f"The gusset of {ruler.show(gusset)} is far wider than what lies in it: {ruler.thin(needs)}.",
        why=f"Gusset and spine hold the same block; {ruler.thin(gusset - needs)} more stand empty at the "
        "fore edge, and the flap hangs loose.",
        offers=(
            Offer(label=f"gusset {ruler.show(ruler.snap_up(needs))}", changes=(("cover.gusset_mm", None),)),
        ),
    )


def _room(cover: Flapped, ruler: Ruler, closed: Closed, gusset: float) -> Check | None:
    """F5 and F8: the gusset is smaller than what the flap closes round."""
    needs = closed.gussets["gusset"].stiff
    if cover.gusset_mm is None or gusset >= needs.likely - ruler.step_mm / 2:
        return None
    inserts = cover.inserts_mm and gusset >= needs.likely - cover.inserts_mm - ruler.step_mm / 2
    wanted = ruler.snap_up(needs.likely)
    offers = [Offer(label=f"gusset {ruler.show(wanted)}", changes=(("cover.gusset_mm", None),))]
    if inserts:
        offers.append(Offer(label="nothing goes in later", changes=(("cover.inserts_mm", 0.0),)))
    return Check(
        code="F5" if inserts else "F8",
        level="stop",
        title=f"The gusset of {ruler.show(gusset)} is too small: the flap closes round "
        f"{ruler.thin(needs.likely)}.",
        why="What goes in later makes the book gape: the flap will not reach its fastener."
        if inserts
        else "The flap closes last, over the block and the front cover; what it closes round has to fit into "
        "its gusset.",
        offers=tuple(offers),
    )


def _fits(ruler: Ruler, panel: float, flap: float) -> Check | None:
    """F9: the flap is longer than the front it lies on; or too short to carry anything."""
    if flap <= panel + 0.05:
        return None
    return Check(
        code="F9",
        level="stop",
        title=f"The flap of {ruler.show(flap)} is longer than the front, {ruler.show(panel)}.",
        why="It would have to go round the spine.",
        offers=(Offer(label="a flap by itself", changes=(("cover.flap_mm", None),)),),
    )


def _halves(cover: Flapped, ruler: Ruler, landing: Landing | None) -> Check | None:
    """F3: the halves of the fastener do not meet when the cover is shut."""
    if cover.fastener == "none" or cover.fastened_mm is None:
        return None
    if landing is None:
        return Check(
            code="F3",
            level="stop",
            title="The flap's fastener lands beside the front.",
            why="Shut, there is nothing under it to hold to.",
            offers=(Offer(label="a flap by itself", changes=(("cover.flap_mm", None),)),),
        )
    lands = landing.second[1]
    if abs(lands - cover.fastened_mm) <= HALVES_MISS_MM:
        return None
    return Check(
        code="F3",
        level="stop",
        title=f"The fastener's halves miss each other by {ruler.show(abs(lands - cover.fastened_mm))}.",
        why=f"Shut, the one on the flap lies {ruler.show(lands)} from the front's fore edge; the other is "
        f"set at {ruler.show(cover.fastened_mm)}.",
        offers=(Offer(label=f"set it at {ruler.show(lands)}", changes=(("cover.fastened_mm", None),)),),
    )


def _blank(left: LeftOfCover) -> Check | None:
    """B9: a one-sided card shows its blank side all over the inside."""
    card = left.paper.cover
    if card.sides == 2:
        return None
    return Check(
        code="B9",
        level="note",
        title=f"{card.name} is good on one side: open, the inside of cover and flap show the blank one.",
        why="The flap's good side is outside; the inside of gusset, flap and both covers, "
        f"{left.brief.ruler.show(left.pages.leaf_width_mm)} wide each, is all its other side.",
        offers=(Offer(label="both sides will do", changes=(("paper.cover.sides", 2),)),),
    )


def _no_square(cover: Flapped, ruler: Ruler) -> Check | None:
    if cover.square_mm >= 0.05:
        return None
    return Check(
        code="E2",
        level="note",
        title="There is no square: the cover ends with the leaves.",
        why=f"The edges of the leaves take every knock. The usual square is {ruler.show(3.0)}.",
        offers=(Offer(label=f"square {ruler.show(3.0)}", changes=(("cover.square_mm", 3.0),)),),
    )


def _part(left: LeftOfCover, wrap: Piece) -> Part:
    width, height = wrap.size_mm
    folds = tuple(Fold(score, "mountain") for score in scores(wrap))
    return Part(
        key="cover",
        name="cover",
        width_mm=width,
        height_mm=height,
        count=left.brief.quantity,
        stock="cover",
        folds=folds,
        needs=("block.measured",),
        advice="Hold the block against it before you cut.",
        across="the creases may crack and the flap will not lie flat",
        smaller=partial(_smaller, left, wrap.size_mm),
    )


def _smaller(
    left: LeftOfCover, wrap: tuple[float, float], sheet_width: float, sheet_height: float
) -> tuple[Offer, ...]:
    """The leaf whose wrap comes out of a sheet: what is too much comes off both panels, all relations
    kept."""
    ruler, pages, offers = left.brief.ruler, left.pages, []
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        short = max(wrap[0] - across, 0.0) / 2
        # panels end on marks of the ruler, so that whole marks come off them
        width = ruler.snap_down(pages.leaf_width_mm - ruler.snap_up(short)) if short else pages.leaf_width_mm
        height = (
            ruler.snap_down(pages.leaf_height_mm + along - wrap[1])
            if wrap[1] > along
            else pages.leaf_height_mm
        )
        if (
            possible(width, height)
            and width * height > SAME_BOOK_SHARE * pages.leaf_width_mm * pages.leaf_height_mm
        ):
            changes, words = resized(left.brief, width, height, pages.flap_mm)
            off = joined(
                f"{ruler.show(was - now)} off its {side}"
                for side, was, now in (
                    ("width", pages.leaf_width_mm, width),
                    ("height", pages.leaf_height_mm, height),
                )
                if was - now > 0.05
            )
            offers.append(Offer(label=f"leaf {ruler.size(width, height)}: {off}{words}", changes=changes))
    return tuple(offers)


def _score(left: LeftOfCover, wrap: Piece) -> Step:
    ruler = left.brief.ruler
    marks = joined(ruler.number(ruler.snap(score)) for score in scores(wrap))
    return Step(
        key="cover_scored",
        title="Cut the flap, score and fold the cover",
        detail=f"Shape the flap first. From the left edge, outside up: {marks} {ruler.name}. Fold away from "
        "the groove and press each crease with the bone folder.",
        tools=("rule and scoring tool", "bone folder", "knife"),
        needs=("cover.cut", "cover.ready"),
        gives=("cover.scored",),
        signature=signature(*scores(wrap)),
        kind="fold",
        shows=lambda: marked(Lying("", 0.0, 0.0, *wrap.size_mm, stock="cover"), upright=scores(wrap)),
    )


KIND: Final = CoverKind(
    name="flapped",
    title="wrap with a closing flap",
    summary="A soft wrap with a gusset at the fore edge and a flap that closes over the front.",
    record=Flapped,
    compute=compute,
    roles=("cover",),
    takes=frozenset({"fold", "ends"}),
    sewn_through=True,
)
