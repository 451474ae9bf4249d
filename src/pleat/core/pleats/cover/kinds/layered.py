"""A soft wrap made of layers: bags, a collage on a sheet that carries it. The layers add up, and it is scored
and folded as one thick card."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE, WEIGHT
from pleat.core.base.fields import ChoiceRule, NumberRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Check, Figure, Offer, Part, Rule, Step, signature
from pleat.core.pleats.cover.kinds.wrap import compute as wrapped
from pleat.core.pleats.cover.record import Wrap
from pleat.core.pleats.cover.result import CoverKind, LeftOfCover
from pleat.core.pleats.cover.wrapped import WrapResult
from pleat.core.trade.covers import GLUE_LAYER_MM, WRAP_STIFF_MM
from pleat.core.trade.making import LAYERS_LARGER_MM


class Layered(Wrap):
    """Pleat 6: a wrap of layers of the cover's paper."""

    kind: Literal["layered"] = "layered"  # type: ignore[assignment]
    layers: Annotated[int, NumberRule("layers", 2, 8, "layers", whole=True)] = 3
    bonded: Annotated[
        Literal["glued", "stitched"],
        ChoiceRule("held together by", (("glued", "glue"), ("stitched", "stitching round the edge"))),
    ] = "glued"


def compute(cover: Layered, left: LeftOfCover) -> WrapResult:
    """The wrap as it is, with its layers added up: each is a piece, and the pieces are one before they are
    scored."""
    result = wrapped(cover, left)
    ruler, sheet = left.brief.ruler, left.paper.cover.caliper
    glue = GLUE_LAYER_MM * (cover.layers - 1) if cover.bonded == "glued" else 0.0
    thick = sheet.times(cover.layers)
    likely = thick.likely + glue
    longer = math.pi * (likely - sheet.likely)
    glued = f" and {cover.layers - 1} × {ruler.fine(GLUE_LAYER_MM)} of glue" if glue else ""
    added = Figure(
        key="layers",
        label="the wrap is thick",
        value=likely,
        show="thin",
        how=f"{cover.layers} × "
        f"{ruler.fine(sheet.likely)}{glued}. "
        f"Folded right round, the outermost layer has {ruler.thin(longer)} farther to go than the "
        "innermost: glue or stitch them flat, then trim and score them as one.",
        rules=(
            Rule("arithmetic", "layers added up; π times their distance for half a turn"),
            Rule("GLUE_LAYER_MM", "0.03 mm of glue a layer"),
        ),
    )
    parts = tuple(
        replace(
            part,
            name="layer of the cover",
            count=part.count * cover.layers,
            allowance_mm=ruler.snap_up(LAYERS_LARGER_MM),
        )
        if isinstance(part, Part)
        else part
        for part in result.parts
    )
    join = _joining(cover)
    steps = tuple(
        replace(step, needs=("cover.cut", "cover.joined", "cover.ready"))
        if step.key == "cover_scored"
        else step
        for step in result.steps
    )
    return replace(
        result,
        figures=(*result.figures, added),
        parts=parts,
        steps=(join, *steps),
        checks=(*result.checks, *_stiff(cover, left, likely)),
    )


def _joining(cover: Layered) -> Step:
    """The step that makes one sheet of the layers."""
    return Step(
        key="join_layers",
        title="Glue the layers on each other" if cover.bonded == "glued" else "Stitch the layers together",
        detail="Flat, the good side out on both faces, worked out from the middle so that no air stays in; "
        "under weight until dry, then trim to size."
        if cover.bonded == "glued"
        else "Flat, clipped all round; a line of stitches near each edge, none within the spine. Then trim "
        "to size.",
        tools=("brush", "weight") if cover.bonded == "glued" else ("needle and thread, or machine",),
        needs=("cover.cut",),
        gives=("cover.joined",),
        tags=frozenset({"glue"}) if cover.bonded == "glued" else frozenset(),
        wait_minutes=120 if cover.bonded == "glued" else 0,
        cautions=(GLUE, WEIGHT) if cover.bonded == "glued" else (),
        signature=signature(cover.layers),
        kind="glue",
        weights=True,
    )


def _stiff(cover: Layered, left: LeftOfCover, likely: float) -> tuple[Check, ...]:
    ruler, each = left.brief.ruler, left.paper.cover.caliper.likely
    if likely <= WRAP_STIFF_MM:
        return ()
    fewer = max(2, math.floor(WRAP_STIFF_MM / each))
    offers = (
        (Offer(label=f"{fewer} layers", changes=(("cover.layers", fewer),)),)
        if fewer < cover.layers and fewer * each <= WRAP_STIFF_MM
        else ()
    )
    return (
        Check(
            code="layers",
            level="watch",
            title=f"{cover.layers} layers make a wrap of {ruler.thin(likely)}, which springs open at its "
            "creases.",
            why=f"Above about {ruler.thin(WRAP_STIFF_MM)} a crease no longer stays folded: score it twice, "
            "close together, or leave layers out at the spine.",
            offers=offers,
            no_fix="" if offers else "Take a thinner paper for the layers.",
        ),
    )


KIND: Final = CoverKind(
    name="layered",
    title="wrap of layers",
    summary="A soft wrap of bags or a collage: several layers joined flat, then scored and folded as one.",
    record=Layered,
    compute=compute,
    roles=("cover",),
    takes=frozenset({"fold"}),
    sewn_through=True,
    traits=Traits(glue=True),
)
