"""A cover for a bought pad: it goes round the head, the pad's board slides into a pocket at the back, a flap
may close round the tail."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE, WEIGHT
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Traits
from pleat.core.base.plan import Check, Figure, Fold, Offer, Part, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Piece, Span, piece, scores
from pleat.core.pleats.cover import fasteners, soft
from pleat.core.pleats.cover.fasteners import FASTENERS, Fastener, Landing
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, LaidResult, Motion
from pleat.core.pleats.cover.record import LARGEST_SQUARE_MM
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.soft import Closed
from pleat.core.trade.covers import FASTENER_INSET_MM, GLUE_TAB_MM, PAD_FLAP_SHARE, PAD_POCKET_SHARE


class PadCover(Member):
    """Pleat 6: a cover round the head of a pad."""

    kind: Literal["padcover"] = "padcover"
    square_mm: Annotated[float, LengthRule("the square", 0, LARGEST_SQUARE_MM)] = 3.0
    gusset_mm: Annotated[float, LengthRule("the gusset at the head", 0.5, 120)] | None = None
    flap: Annotated[
        Literal["no", "yes"], ChoiceRule("a flap round the tail", (("no", "no"), ("yes", "yes")))
    ] = "no"
    upright: Annotated[
        Literal["front", "back"],
        ChoiceRule("the pattern is upright on the", (("front", "front"), ("back", "back"))),
    ] = "front"
    fastener: Annotated[Fastener, ChoiceRule("kept shut by", FASTENERS)] = "none"


def compute(cover: PadCover, left: LeftOfCover) -> LaidResult:
    """The cover round the pad, put together and shut."""
    ruler, pages, card = left.brief.ruler, left.pages, left.paper.cover
    width, tall = (
        pages.leaf_width_mm + 2 * cover.square_mm,
        ruler.snap_up(pages.leaf_height_mm + cover.square_mm),
    )
    pocket = ruler.snap(PAD_POCKET_SHARE * tall)
    need = pages.thickness.plus(card.caliper)
    head = cover.gusset_mm or ruler.snap_up(need.likely)
    flap, tail = (
        (ruler.snap(PAD_FLAP_SHARE * tall), ruler.snap_up(need.likely + 2 * card.caliper.likely))
        if cover.flap == "yes"
        else (0.0, 0.0)
    )
    tab, inset = ruler.near(GLUE_TAB_MM), ruler.near(FASTENER_INSET_MM)
    wrap = _piece(
        (tab, width),
        (flap, tail, tall, head, tall, pocket),
        one_sided=card.sides == 1,
        directed=card.upright_only,
    )
    corner = (pages.leaf_width_mm, pages.leaf_height_mm, (cover.square_mm + tab, flap + tail + tall + head))
    folds, names = _folds(bool(flap))
    closed = soft.close(wrap, "back", corner, folds, {"cover": card.caliper, soft.BLOCK: pages.thickness})
    landing = _landing(cover, closed, (width, tab, inset), flap, flap + tail + 2 * tall + head)
    shown = _figures(cover, left, wrap, (tall, head, pocket, flap, tail), need)
    thick = pages.thickness.plus(card.caliper.times(3))
    width_ = wrap.size_mm[0]
    return LaidResult(
        key_figure=shown[0],
        figures=shown,
        checks=_checks(cover, left, closed, head),
        parts=(
            _part(left, wrap),
            *fasteners.pieces(cover.fastener, width, thick.likely, tall, left.brief.quantity),
        ),
        steps=(
            *_steps(left, wrap, hides=landing is not None and landing.first[0] == "back"),
            *(fasteners.steps(cover.fastener, ruler, landing, _hides(landing)) if landing else ()),
        ),
        front_width_mm=width,
        front_height_mm=tall,
        spine=thick,
        swatch=card.swatch,
        square_fore_mm=cover.square_mm,
        square_head_mm=0.0,
        hides_spine=True,
        laid=(Laid(wrap, 0.0, 0.0, "card", "cover"),),
        layers=(EdgeLayer("card", card.caliper.likely, card.swatch),),
        landing=landing,
        fastener=cover.fastener,
        halves=_on_sheet(landing, wrap, tab),
        motion=Motion(wrap, "back", tuple(folds), tuple(names), corner, pages.thickness.likely, laid_after=2),
        places=(
            FieldAnchor("cover.square_mm", width_ - tab, flap + tail + tall * 0.3, cover.square_mm),
            FieldAnchor("cover.gusset_mm", width_ - tab, flap + tail + tall + head / 2, head),
        ),
    )


def _folds(flap: bool) -> tuple[list[tuple[tuple[str, str, float], ...]], list[str]]:
    """The folds that put it together and shut it, one after the other, and how each state is called."""
    tabs = (("pocket", "left tab, pocket", -180.0), ("pocket", "right tab, pocket", -180.0))
    folds: list[tuple[tuple[str, str, float], ...]] = [
        tabs,
        (("back", "pocket", 180.0),),
        (("back", "head", 90.0), ("head", "front", 90.0)),
    ]
    names = ["flat", "tabs in", "pocket up", "shut"]
    if flap:
        folds.append((("front", "tail", 90.0), ("tail", "flap", 90.0)))
        names.append("flap round the tail")
    return folds, names


def _landing(
    cover: PadCover, closed: Closed, across: tuple[float, float, float], flap: float, tail: float
) -> Landing | None:
    """Both halves in the middle of the tail: on flap and back where there is a flap, else along the tail
    edges of front and back, as elastic always goes. ``across`` are the width of a panel, of a tab, and how
    far from an edge a half lies; ``flap`` is how high it is and ``tail`` where the back ends, in mm from the
    sheet's top."""
    width, tab, inset = across
    middle = width / 2
    sides = ("either side", "the tail")
    if cover.fastener == "none" or (cover.fastener in fasteners.ON_FLAP and not flap):
        return None
    if flap and cover.fastener != "elastic":
        inset = min(inset, flap / 2)
        at = closed.lands("flap", (tab + middle, inset), "back")
        return at and Landing(
            ("flap", middle, inset),
            ("back", at[0] - tab, tail - at[1]),
            ("either side", "its free edge"),
            sides,
        )
    one, other = ("front", "back") if cover.fastener == "button" else ("back", "front")
    at_side = min(inset, middle) if cover.fastener == "elastic" else middle
    return Landing((one, at_side, inset), (other, at_side, inset), sides, sides)


def _hides(landing: Landing) -> str:
    """What goes over the knot or glue of the first half."""
    return "the pocket" if landing.first[0] == "back" else "the patch over it"


def _on_sheet(landing: Landing | None, wrap: Piece, tab: float) -> tuple[tuple[float, float], ...]:
    """Both halves on the flat cover, in mm from its left and top."""
    if landing is None:
        return ()
    rows = {name: [y for _, y in wrap[name].outline] for name in (landing.first[0], landing.second[0])}
    return tuple(
        (tab + x, max(rows[name]) - y if name == "back" else min(rows[name]) + y)
        for name, x, y in (landing.first, landing.second)
    )


def _part(left: LeftOfCover, wrap: Piece) -> Part:
    return Part(
        key="cover",
        name="cover",
        width_mm=wrap.size_mm[0],
        height_mm=wrap.size_mm[1],
        count=left.brief.quantity,
        stock="cover",
        grain="w",
        folds=tuple(Fold(score, "mountain", "level") for score in scores(wrap, upright=False)),
        needs=("block.measured",),
        advice="Hold the pad against it before you cut.",
        across="the fold at the head cracks",
    )


def _piece(
    across: tuple[float, float], heights: tuple[float, ...], *, one_sided: bool, directed: bool
) -> Piece:
    """The cover from the outside, its front on top: it stands on its head there, since it folds over the
    pad's."""
    names = ("flap", "tail", "front", "head", "back", "pocket")
    tab, width = across
    columns = [Span("left tab", tab), Span("", width), Span("right tab", tab)]
    rows = [Span(name, size) for name, size in zip(names, heights, strict=True)]
    kept = [(tab, "pocket") for tab in ("left tab", "right tab")]
    return piece(
        soft.WRAP,
        "cover",
        columns,
        rows,
        kept=kept,
        good="A" if one_sided else "both",
        directed=directed,
        glued=("left tab, pocket", "right tab, pocket"),
    )


def _figures(
    cover: PadCover,
    left: LeftOfCover,
    wrap: Piece,
    sizes: tuple[float, float, float, float, float],
    need: Estimate,
) -> tuple[Figure, ...]:
    ruler = left.brief.ruler
    tall, head, pocket, flap, tail = sizes
    rows = [
        (name, size)
        for name, size in (
            ("flap", flap),
            ("tail", tail),
            ("front", tall),
            ("head", head),
            ("back", tall),
            ("pocket", pocket),
        )
        if size
    ]
    shown, whole = ruler.summed([size for _, size in rows])
    high = " + ".join(f"{name} {value}" for (name, _), value in zip(rows, shown, strict=True))
    marks = f"{joined(ruler.number(ruler.snap(score)) for score in scores(wrap, upright=False))} {ruler.name}"
    pad, card = left.pages.thickness.likely, left.paper.cover.caliper.likely
    return (
        Figure(
            key="wrap",
            label="cut the cover",
            value=wrap.size_mm,
            show="size",
            how=f"High: {high} = {whole}. Wide: pad {ruler.number(left.pages.leaf_width_mm)} + 2 × "
            f"{ruler.number(cover.square_mm)}, and a tab of {ruler.number(ruler.near(GLUE_TAB_MM))} on "
            "either side of the pocket.",
            rules=(Rule("arithmetic", "panels added up"), Rule("GLUE_TAB_MM", "tabs 10 to 15 mm, no source")),
            scrap=ruler.size(*wrap.size_mm),
        ),
        Figure(
            key="scores",
            label="score from the top edge",
            value=marks,
            show="text",
            how="Outside up, the front on top, all from one edge so that rounding does not pile up.",
            rules=(Rule("arithmetic", "panel edges"),),
            scrap=marks,
        ),
        Figure(
            key="spine",
            label="head, with the pad in it",
            value=need,
            show="thin",
            how=f"Pad {ruler.thin(pad)} + the pocket's layer {ruler.thin(card)} = {ruler.thin(pad + card)}; "
            f"the gusset at the head is {ruler.show(head)}, up to the ruler's next mark.",
            rules=(Rule("arithmetic", "what lies between front and back"),),
        ),
    )


def _checks(cover: PadCover, left: LeftOfCover, closed: Closed, head: float) -> tuple[Check, ...]:
    return tuple(
        check
        for check in (
            _room(cover, left.brief.ruler, closed, head),
            _pattern(cover, left, closed),
            _blank(left),
            _shut(cover),
        )
        if check
    )


def _room(cover: PadCover, ruler: Ruler, closed: Closed, head: float) -> Check | None:
    """F8: the gusset at the head is smaller than what lies between front and back."""
    needs = closed.gussets["head"].stiff
    if cover.gusset_mm is None or head >= needs.likely - ruler.step_mm / 2:
        return None
    return Check(
        code="F8",
        level="stop",
        title=f"The gusset of {ruler.show(head)} is too small: between front and back lie "
        f"{ruler.thin(needs.likely)}.",
        why="The front cannot come down flat, and the fold at the head tears.",
        offers=(
            Offer(
                label=f"gusset {ruler.show(ruler.snap_up(needs.likely))}",
                changes=(("cover.gusset_mm", None),),
            ),
        ),
    )


def _pattern(cover: PadCover, left: LeftOfCover, closed: Closed) -> Check | None:
    """B10: one piece over the head is upright on one side and stands on its head on the other, as the folded
    cover shows."""
    if not left.paper.cover.upright_only:
        return None
    front = next((face for face in closed.front if face.key == (soft.WRAP, "front")), None)
    if front is None or abs(front.turn - 180) > 1 or cover.upright == "front":
        return None
    return Check(
        code="B10",
        level="watch",
        title=f"The pattern of {left.paper.cover.name} stands on its head on the front.",
        why="One piece goes over the head: upright on the back, it comes round to the front turned by "
        f"{front.turn:.0f} degrees. The front is seen more.",
        offers=(
            Offer(
                label="upright on the front, on its head at the back", changes=(("cover.upright", "front"),)
            ),
        ),
    )


def _blank(left: LeftOfCover) -> Check | None:
    """B9: a one-sided card shows its blank side inside the front."""
    card = left.paper.cover
    if card.sides == 2:
        return None
    return Check(
        code="B9",
        level="note",
        title=f"{card.name} is good on one side: opened, the inside of the front shows the blank one.",
        why=f"The pocket shows the good side; the front, {left.brief.ruler.show(left.pages.leaf_width_mm)} "
        "wide, does not once it is folded back.",
        offers=(Offer(label="both sides will do", changes=(("paper.cover.sides", 2),)),),
    )


def _shut(cover: PadCover) -> Check | None:
    """A6: a fastener that has no panel to go on."""
    if cover.fastener not in fasteners.ON_FLAP or cover.flap == "yes":
        return None
    return Check(
        code="A6",
        level="stop",
        title=f"There is no panel for {fasteners.title(cover.fastener)}: front and back never lie on each "
        "other.",
        why="Two halves need two panels that lie on each other when shut: here that takes 1 flap round the "
        "tail, and there are 0.",
        offers=(
            Offer(label="a flap round the tail", changes=(("cover.flap", "yes"),)),
            Offer(label="nothing keeps it shut", changes=(("cover.fastener", "none"),)),
        ),
    )


def _steps(left: LeftOfCover, wrap: Piece, *, hides: bool) -> tuple[Step, ...]:
    """Every step of the cover; ``hides`` where the pocket lies over a fastener's knot."""
    ruler = left.brief.ruler
    marks = joined(ruler.number(ruler.snap(score)) for score in scores(wrap, upright=False))
    return (
        Step(
            key="cover_scored",
            title="Score and fold the cover",
            detail=f"From the top edge, outside up: {marks} {ruler.name}; the tabs of the pocket along their "
            "edge. Cut away what is beside the other panels.",
            tools=("rule and scoring tool", "bone folder", "knife"),
            needs=("cover.cut", "cover.ready"),
            gives=("cover.scored",),
            signature=signature(*scores(wrap, upright=False)),
            kind="fold",
        ),
        Step(
            key="pocket",
            title="Glue the pocket",
            detail="Fold it up on the inside of the back, its tabs round to the outside, and glue the tabs "
            "alone: the pad's board slides in from above.",
            tools=("glue",),
            needs=("cover.scored",),
            gives=("pocket.glued",),
            tags=frozenset({"glue"}),
            closes=("fastener.face",) if hides else (),
            cautions=(GLUE,),
            kind="glue",
        ),
        Step(
            key="dry_cover",
            title="Let the pocket dry",
            detail="Shut, under weight, a strip of waste paper in the pocket so that it does not stick to "
            "itself.",
            needs=("pocket.glued",),
            gives=("cover.dry",),
            tags=frozenset({"glue"}),
            wait_minutes=60,
            cautions=(WEIGHT,),
            kind="press",
            weights=True,
        ),
    )


KIND: Final = CoverKind(
    name="padcover",
    title="cover for a pad",
    summary="One piece round the head of a bought pad, with a pocket for its board.",
    record=PadCover,
    compute=compute,
    roles=("cover",),
    takes=frozenset({"bought"}),
    traits=Traits(glue=True, refills=True),
)
