"""A hinge worked out: its pieces as parts and on the drawing, its figures, and the steps from scoring to the
leaves glued on."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from pleat.core.base.cautions import GLUE, WEIGHT
from pleat.core.base.estimate import Estimate
from pleat.core.base.kinds import Edge
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.base.plan import Piece as Taken
from pleat.core.base.staged import pressed
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined, many
from pleat.core.engines.folding.flat import rows, spots
from pleat.core.engines.folding.programme import Programme
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.binding.hinged.record import CARD, CASE, LEAF, Hinge, HingedResult
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.structures.cut import folds_of
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.work import marks, scored_pieces
from pleat.core.trade.cases import STRIP_BORDER_MM


@dataclass(frozen=True)
class HingeSpec:
    """What a kind of hinge says of itself: (piece, how many of it) as they are cut, the programme of the
    moving view, figures, checks and pieces beside those of all hinges; the fields on its drawing as (path,
    piece, panel, value by itself); widths in mm of the strips that dress it, with how many. ``folded`` says
    how it is folded, ``glued`` how leaves go on."""

    title: str
    pieces: tuple[tuple[Piece, int], ...]
    programme: Programme
    floor_mm: float | None
    end_mm: float
    flange_mm: float
    figures: tuple[Figure, ...]
    checks: tuple[Check, ...] = ()
    places: tuple[tuple[str, str, str, float], ...] = ()
    dress: Mapping[float, int] = field(default_factory=dict)
    folded: str = ""
    glued: str = ""
    parts: tuple[Taken, ...] = ()
    steps: tuple[Step, ...] = ()
    smaller: Callable[[float, float], tuple[Offer, ...]] | None = None


def result(left: LeftOfBinding, hinge: Hinge, spec: HingeSpec, *, at: Edge, swell: Estimate) -> HingedResult:
    """The hinge with all that follows from it."""
    ruler, count = left.brief.ruler, left.brief.quantity
    flats = rows([(piece, piece.name, number, piece.name) for piece, number in spec.pieces])
    made = Made(
        spec.programme,
        (),
        (),
        (),
        (),
        (),
        hinge.need,
        {CARD: hinge.card, LEAF: hinge.leaf, CASE: left.paper.stock("board").caliper},
    )
    parts: list[Taken] = [
        Part(
            key=piece.name,
            name=piece.name,
            width_mm=piece.size_mm[0],
            height_mm=piece.size_mm[1],
            count=number * count,
            stock=CARD,
            grain="h",
            folds=folds_of(piece, made.worked.shut.angles),
            across="its folds crack",
            smaller=spec.smaller,
        )
        for piece, number in spec.pieces
    ]
    parts += [
        Part(
            key=f"dress_{number}",
            name=f"strip of {ruler.show(width)} for the hinge",
            width_mm=width,
            height_mm=hinge.height - 2 * STRIP_BORDER_MM,
            count=many_ * count,
            stock="mat",
            across="it may curl",
        )
        for number, (width, many_) in enumerate(spec.dress.items(), 1)
    ]
    return HingedResult(
        key_figure=spec.figures[0],
        figures=(*spec.figures, *_pieces(left, spec)),
        checks=spec.checks,
        parts=(*parts, *spec.parts),
        steps=(*_steps(left, hinge, spec), *spec.steps),
        at=at,
        height_mm=hinge.height,
        swell=swell,
        floor_mm=spec.floor_mm,
        made=made,
        programme=spec.programme,
        flats=flats,
        spots=spots(spec.places, flats),
        need=hinge.need,
        end_mm=spec.end_mm,
        flange_mm=spec.flange_mm,
        look="every leaf turning to the hinge and lying flat",
    )


def _pieces(left: LeftOfBinding, spec: HingeSpec) -> tuple[Figure, ...]:
    ruler, figures = left.brief.ruler, []
    for piece, number in spec.pieces:
        several = f", {number} of them" if number > 1 else ""
        figures.append(
            Figure(
                key=f"cut_{piece.name.replace(' ', '_')}",
                label=f"cut the {piece.name}" if number == 1 else f"cut {number} × {piece.name}",
                value=piece.size_mm,
                show="size",
                how=f"{len(piece.panels)} panels, added up to {ruler.number(piece.size_mm[0])} {ruler.name}.",
                rules=(Rule("arithmetic", "panels added up"),),
                scrap=f"{ruler.size(*piece.size_mm)}{several}",
            )
        )
        figures.append(
            Figure(
                key=f"scores_{piece.name.replace(' ', '_')}",
                label=f"score the {piece.name}",
                value=marks(piece, ruler),
                show="text",
                how="Inside up, running from one edge, so that rounding does not pile up.",
                rules=(Rule("arithmetic", "panel edges"),),
                scrap=marks(piece, ruler),
            )
        )
    return tuple(figures)


def _steps(left: LeftOfBinding, hinge: Hinge, spec: HingeSpec) -> list[Step]:
    """Score, fold, dress, glue the leaves on from the back, dry."""
    ruler = left.brief.ruler
    listed = "; ".join(f"{piece.name}: {marks(piece, ruler)}" for piece, _ in spec.pieces)
    steps = [
        Step(
            key="hinge_score",
            title=f"Score the {joined(piece.name for piece, _ in spec.pieces)}",
            detail=f"Inside up, all from one edge. {listed}. {spec.folded}",
            tools=("rule and scoring tool", "bone folder"),
            needs=(f"{CARD}.cut",),
            gives=("hinge.scored",),
            signature=signature(*(score for piece, _ in spec.pieces for score in scores(piece))),
            kind="fold",
            shows=lambda: scored_pieces([piece for piece, _ in spec.pieces]),
        )
    ]
    if spec.dress:
        steps.append(_dressed(spec, ruler))
    ready = left.pages.ready
    steps.append(
        Step(
            key="hinge_leaves",
            title=f"Put the {many(hinge.count, 'leaf', 'leaves')} on the hinge",
            detail="From the back, one after the other, spine edges level in the fold: test each fold "
            f"before the next leaf goes on. {spec.glued}",
            tools=("glue", "waste paper"),
            needs=("hinge.scored", *(("hinge.dressed",) if spec.dress else ()), *ready),
            gives=("hinge.leaves",),
            fixes=("pages.*", "binding.*"),
            closes=("leaves.flat",),
            tags=frozenset({"glue"}),
            cautions=(GLUE,),
            minutes=3 * hinge.count,
            pieces=hinge.count,
            kind="glue",
            then=("hinge_dry",),
        )
    )
    steps.append(
        Step(
            key="hinge_dry",
            title="Let it dry shut, and measure it",
            detail="Under weight, waste paper between the leaves. Then measure it at the spine, pressed by "
            "hand.",
            tools=("weight", "ruler or caliper"),
            needs=("hinge.leaves",),
            gives=("block.flat", "block.measured"),
            tags=frozenset({"glue"}),
            wait_minutes=60,
            cautions=(WEIGHT,),
            minutes=2,
            kind="press",
            weights=True,
            shows=lambda: pressed(left.pages.leaf_width_mm, left.pages.thickness.likely),
        )
    )
    return steps


def _dressed(spec: HingeSpec, ruler: Ruler) -> Step:
    return Step(
        key="hinge_dress",
        title="Dress the hinge",
        detail=f"{joined(f'{number} of {ruler.show(width)}' for width, number in spec.dress.items())}, "
        f"{ruler.thin(STRIP_BORDER_MM)} off the folds on each side, before a leaf is on: no knife gets in "
        "there later.",
        tools=("glue",),
        needs=("hinge.scored", "mat.cut"),
        gives=("hinge.dressed",),
        fixes=tuple(f"binding.dress_{number}" for number, _ in enumerate(spec.dress, 1)),
        tags=frozenset({"glue", "mat"}),
        cautions=(GLUE,),
        signature=signature(*spec.dress),
        kind="decorate",
    )
