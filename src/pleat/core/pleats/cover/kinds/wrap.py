"""The soft wrap flat, from the outside, back on the left. Panel = leaf width + square, up to the ruler's next
mark; the spine is what is inside."""

from __future__ import annotations

from functools import partial
from typing import Final

from pleat.core.base.cautions import GLUE
from pleat.core.base.plan import Offer, Part, Step, signature
from pleat.core.base.scenes import Lying
from pleat.core.base.staged import marked
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.folding.sheet import Piece, Span, piece
from pleat.core.engines.panels import PanelPlan, RowPanel
from pleat.core.pleats.brief.compute import BriefResult
from pleat.core.pleats.brief.resize import possible, resized
from pleat.core.pleats.cover import checks
from pleat.core.pleats.cover import spine as spines
from pleat.core.pleats.cover.figures import Shaped, figures
from pleat.core.pleats.cover.laid import EdgeLayer, Laid, Motion
from pleat.core.pleats.cover.record import Wrap
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.spine import spine_of
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.pleats.pages.block import Block, Unit
from pleat.core.trade.covers import GLUE_LINE_MM, ONE_CREASE_MM, PLEAT_HOLE_MM


def compute(cover: Wrap, left: LeftOfCover) -> WrapResult:
    """The wrap around the block as it is bound."""
    brief, pages, binding, tools = left.brief, left.pages, left.binding, left.tools
    inside = spine_of(cover, left)
    spine = inside.used
    offset = cover.score_offset_mm
    pleat = binding.pleat_mm
    inset = PLEAT_HOLE_MM if pleat else 0.0
    creases = _creases(cover, len(pages.units), spine.likely)
    scored = _scored(creases, offset, spine.likely, 2 if pleat else 1, brief.ruler)
    wrap = (
        _wrap(cover, brief.ruler, pages, spine.likely, scored)
        if not pleat
        else _pleated(cover, brief.ruler, pages, scored, pleat)
    )
    wide, high = cover.piece_width_mm or wrap.width_mm, cover.piece_height_mm or wrap.height_mm
    flaps, sheet = cover.flaps_mm or 0.0, as_piece(wrap)
    square_fore = (wide - max(spine.likely, scored)) / 2 - flaps - pleat - inset - pages.leaf_width_mm
    square_head = (high - pages.leaf_height_mm) / 2
    holes = tuple(position + square_head for position in binding.positions_mm)
    shown = figures(cover, left, Shaped(wrap, spine, scored), inside)
    lost = max(0.0, spine.likely - scored) / 2 if scored else 0.0
    on_board = (
        tools.scoring_longest_mm is not None
        and max(wrap.width_mm, wrap.height_mm) <= tools.scoring_longest_mm + 0.05
    )
    return WrapResult(
        key_figure=shown[0],
        figures=shown,
        checks=(
            *checks.find(
                cover, left, checks.WrapContext(spine, wrap, creases, square_fore, square_head, holes, lost)
            ),
            *spines.checks(cover, left, inside),
        ),
        parts=(_part(cover, left, wrap),),
        steps=(_score(brief, wrap, on_board), *_pockets(cover, brief)),
        front_width_mm=wrap.width_mm / 2 - flaps - scored / 2
        if not pleat
        else next(panel.width_mm for panel in wrap.panels if panel.name == "front"),
        front_height_mm=wrap.height_mm,
        swatch=left.paper.cover.swatch,
        laid=(Laid(sheet, 0.0, 0.0, "card", "cover"),),
        motion=None if pleat else _motion(sheet, pages, cover.square_mm, spine.likely),
        layers=(EdgeLayer("card", left.paper.cover.caliper.likely, left.paper.cover.swatch),),
        wrap=wrap,
        spine=spine,
        creases=creases,
        score_offset_mm=offset,
        square_mm=cover.square_mm,
        square_fore_mm=square_fore,
        square_head_mm=square_head,
        holes_mm=holes,
        rows_mm=_pleat_rows(wrap) if pleat else _rows(pages.units, wrap, spine.likely),
        on_board=on_board,
    )


def _scored(creases: int, offset: float | None, spine_mm: float, halves: int, ruler: Ruler) -> float:
    """How wide the spine is scored; each side of a pleat holds its half, up to a mark of its own."""
    if creases == 1:
        return 0.0
    return 2 * offset if offset else halves * ruler.snap_up(spine_mm / halves)


def _creases(cover: Wrap, units: int, spine_mm: float) -> int:
    """How many creases make the spine: one serves one section, up to a thickness."""
    if cover.score_offset_mm or units > 1:
        return 2
    return {"one": 1, "two": 2, "four": 2}.get(cover.creases, 1 if spine_mm <= ONE_CREASE_MM else 2)


def _wrap(cover: Wrap, ruler: Ruler, pages: Block, spine: float, scored: float) -> PanelPlan:
    """Panels of the leaf's width and the square either side of the spine; without a ``scored`` spine its half
    goes to each of them.

    A panel ends on the first mark of the ruler that leaves the square whole: so both are equal and the scores
    add up as they are read.
    """
    side = ruler.snap_up(pages.leaf_width_mm + cover.square_mm + (0.0 if scored else spine / 2))
    height = pages.leaf_height_mm + 2 * cover.square_mm
    spine_panels = (RowPanel("spine", scored),) if scored else ()
    hinge_mm = cover.hinge_mm if cover.creases == "four" and cover.hinge_mm < side - 1 else 0.0
    hinge = (RowPanel("hinge", hinge_mm),) if hinge_mm else ()
    flap = (RowPanel("flap", cover.flaps_mm),) if cover.flaps_mm else ()
    back, front = RowPanel("back", side - hinge_mm), RowPanel("front", side - hinge_mm)
    return PanelPlan((*flap, back, *hinge, *spine_panels, *hinge, front, *flap), height)


def _pleated(cover: Wrap, ruler: Ruler, pages: Block, scored: float, pleat: float) -> PanelPlan:
    """A pleat folded inward in the middle of the spine: its halves stand either side of it, and only its tip
    folds the other way."""
    side = ruler.snap_up(pages.leaf_width_mm + cover.square_mm + PLEAT_HOLE_MM)
    deep, half = ruler.snap_up(pleat), scored / 2
    flap = (RowPanel("flap", cover.flaps_mm),) if cover.flaps_mm else ()
    panels = (
        *flap,
        RowPanel("back", side),
        RowPanel("spine", half),
        RowPanel("pleat", deep),
        RowPanel("pleat", deep),
        RowPanel("spine", half),
        RowPanel("front", side),
        *flap,
    )
    return PanelPlan(panels, pages.leaf_height_mm + 2 * cover.square_mm, valleys=frozenset({len(flap) + 2}))


def _motion(sheet: Piece, pages: Block, square_mm: float, thick_mm: float) -> Motion:
    """Flaps in first, then the front comes over the block."""
    names = [panel.name for panel in sheet.panels]
    middle = [name for name in names if "flap" not in name]
    flaps = tuple(
        (near, flap, 180.0) for near, flap in ((middle[0], "flap"), (middle[-1], "flap 2")) if flap in names
    )
    spine = middle.index("spine") if "spine" in middle else 0
    over = (
        ((middle[spine - 1], "spine", 90.0), ("spine", middle[spine + 1], 90.0))
        if spine
        else (("back", "front", 180.0),)
    )
    start = sheet["back"].outline[0][0] + square_mm
    return Motion(
        sheet,
        "back",
        (flaps, over) if flaps else (over,),
        ("flat", "flaps in", "shut") if flaps else ("open", "shut"),
        (pages.leaf_width_mm, pages.leaf_height_mm, (start, square_mm)),
        max(thick_mm, 0.3),
        laid_after=1 if flaps else 0,
    )


def as_piece(wrap: PanelPlan) -> Piece:
    """The wrap as a piece, whose panels of one name are numbered."""
    names: list[str] = []
    for panel in wrap.panels:
        count = sum(name == panel.name or name.startswith(f"{panel.name} ") for name in names)
        names.append(f"{panel.name} {count + 1}" if count else panel.name)
    columns = [Span(name, panel.width_mm) for name, panel in zip(names, wrap.panels, strict=True)]
    return piece("cover", "cover", columns, [Span("", wrap.height_mm)])


def _pleat_rows(wrap: PanelPlan) -> tuple[float, float]:
    """Where the holes lie in either layer of the pleat, from the wrap's left edge."""
    (tip,) = wrap.valleys
    foot, other_foot = wrap.edges_mm[tip], wrap.edges_mm[tip + 2]
    return foot + PLEAT_HOLE_MM, other_foot - PLEAT_HOLE_MM


def _rows(units: tuple[Unit, ...], wrap: PanelPlan, spine: float) -> tuple[float, ...]:
    """Where each section's row of holes lies from the wrap's left edge: in the middle of its share of the
    spine.

    Seen from the outside the first section lies next to the front, on the right.
    """
    left, total, at = (wrap.width_mm - spine) / 2, sum(unit.share for unit in units), 0.0
    rows = []
    for unit in reversed(units):
        rows.append(left + spine * (at + unit.share / 2) / total)
        at += unit.share
    return tuple(rows)


def _part(cover: Wrap, left: LeftOfCover, wrap: PanelPlan) -> Part:
    return Part(
        key="cover",
        name="cover",
        width_mm=wrap.width_mm,
        height_mm=wrap.height_mm,
        count=left.brief.quantity,
        stock="cover",
        folds=wrap.folds,
        needs=("block.measured",),
        advice="Hold the section against it before you cut.",
        across="the crease may crack and the cover will not lie shut",
        smaller=partial(_smaller, cover, left.brief, left.pages, wrap),
    )


def _smaller(
    cover: Wrap, brief: BriefResult, pages: Block, wrap: PanelPlan, sheet_width: float, sheet_height: float
) -> tuple[Offer, ...]:
    """Take the excess off the squares where they can give it, else off the leaf; all relations are kept."""
    ruler, offers = brief.ruler, []
    least = (
        min(ruler.snap_up(pages.stands_out_mm.high), cover.square_mm)
        if pages.stands_out_mm is not None
        else 0.0
    )
    for across, along in ((sheet_width, sheet_height), (sheet_height, sheet_width)):
        room_wide, room_high = across - wrap.width_mm, along - wrap.height_mm
        square = ruler.snap_down(cover.square_mm + min(room_wide / 2, room_high / 2, 0.0))
        if square >= least - 1e-6:
            less = cover.square_mm - square
            offers.append(
                Offer(
                    label=f"square {ruler.show(square)}: {ruler.show(less)} off each side",
                    changes=(("cover.square_mm", square),),
                )
            )
            continue
        # panels end on marks of the ruler, so that whole marks come off them
        width = (
            ruler.snap_down(pages.leaf_width_mm - ruler.snap_up(-room_wide / 2))
            if room_wide < 0
            else pages.leaf_width_mm
        )
        height = ruler.snap_down(pages.leaf_height_mm + room_high) if room_high < 0 else pages.leaf_height_mm
        if possible(width, height) and width * height > 0.6 * pages.leaf_width_mm * pages.leaf_height_mm:
            off = [
                f"{ruler.show(a - b)} off the leaf's {side}"
                for side, a, b in (
                    ("width", pages.leaf_width_mm, width),
                    ("height", pages.leaf_height_mm, height),
                )
                if a - b > 0.05
            ]
            changes, words = resized(brief, width, height, pages.flap_mm)
            offers.append(
                Offer(label=f"leaf {ruler.size(width, height)}: {', '.join(off)}{words}", changes=changes)
            )
    return tuple(offers)


def _pockets(cover: Wrap, brief: BriefResult) -> tuple[Step, ...]:
    """Flaps that are glued at head and tail, which makes pockets of them."""
    if not cover.flaps_mm or cover.pockets == "no":
        return ()
    ruler = brief.ruler
    return (
        Step(
            key="pockets",
            title="Glue the flaps as pockets",
            detail=f"A line of glue {ruler.show(GLUE_LINE_MM)} wide along head and tail of each flap; the "
            "side towards the spine stays open. A strip of waste paper keeps the mouth from sticking.",
            tools=("glue", "waste paper"),
            needs=("cover.scored",),
            gives=("pocket.glued", "cover.scored"),
            tags=frozenset({"glue"}),
            wait_minutes=30,
            cautions=(GLUE,),
            signature=signature(cover.flaps_mm),
            kind="glue",
        ),
    )


def _score(brief: BriefResult, wrap: PanelPlan, on_board: bool) -> Step:
    ruler = brief.ruler
    scores = joined(ruler.number(score) for score in wrap.scores_mm)
    tip = ", but the middle one the other way, so that the pleat stands inside" if wrap.valleys else ""
    return Step(
        key="cover_scored",
        title="Score and fold the cover",
        detail=f"From the left edge, outside up: {scores} {ruler.name}. Fold away from the score's "
        f"groove{tip}, then press the crease with the bone folder.",
        tools=("scoring board" if on_board else "rule and scoring tool", "bone folder"),
        needs=("cover.cut", "cover.ready"),
        gives=("cover.scored",),
        signature=signature(*wrap.scores_mm),
        kind="fold",
        shows=lambda: marked(
            Lying("", 0.0, 0.0, wrap.width_mm, wrap.height_mm, stock="cover"), upright=wrap.scores_mm
        ),
    )


KIND: Final = CoverKind(
    name="wrap",
    title="soft wrap",
    summary="One piece of card folded round the block, scored once or twice at the spine.",
    record=Wrap,
    compute=compute,
    roles=("cover",),
    takes=frozenset({"fold"}),
    sewn_through=True,
)
