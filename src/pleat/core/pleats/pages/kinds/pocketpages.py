"""Pocket pages for rings: one strip folded once, its hinge twice over so that both lie in the holes, its
front slanted, the offcut a corner pocket."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.kinds import Traits
from pleat.core.base.plan import Step
from pleat.core.base.words import many
from pleat.core.engines.folding.convex import Polygon, bounds
from pleat.core.engines.folding.programme import Add, FoldOperation, LayOperation, Operation, Programme
from pleat.core.engines.folding.sheet import Cut, Panel, Piece, Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.pages.kinds.album import COUNTS, Counted, leaves_of, unsaid
from pleat.core.pleats.structures import inserts
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.inserts import Pocketed, insert, tucked
from pleat.core.pleats.structures.made import Build, Made, Sizes
from pleat.core.trade.folding import SLANT_SHARE


class PocketPages(Pocketed):
    """Pleat 3, pocket pages. ``shrink_mm`` is how much narrower the panel that is folded over is, so that it
    lies inside the other."""

    kind: Literal["pocketpages"] = "pocketpages"
    amount: Annotated[int, NumberRule("how many", 1, 200, whole=True)] = 12
    counted_in: Annotated[Counted, ChoiceRule("counted in", COUNTS)] = "leaves"
    hinge_mm: Annotated[float, LengthRule("the hinge with the holes", 8, 60)] = 20.0
    shrink_mm: Annotated[float, LengthRule("the inner panel is narrower by", 0, 6)] = 1.0
    slant_mm: Annotated[float, LengthRule("the slant comes down", 0, 400)] | None = None
    corner: Annotated[
        Literal["yes", "no"],
        ChoiceRule("the offcut becomes", (("yes", "a corner pocket"), ("no", "nothing"))),
    ] = "yes"


def _slant(record: PocketPages, height: float) -> float:
    return min(SLANT_SHARE * height if record.slant_mm is None else record.slant_mm, height * 0.8)


def _strip(record: PocketPages, width: float, height: float) -> Piece:
    """The strip inside up: hinge, front of the page, its back, and the hinge again, mirrored; a tab closes
    the tail."""
    hinge = min(record.hinge_mm, width / 2)
    page = width - hinge
    less = min(record.shrink_mm, page / 10)
    tab = max(record.tab_mm, 8.0)
    columns = [
        Span("hinge", hinge),
        Span("front", page),
        Span("back", page - less),
        Span("back hinge", hinge, "guide"),
    ]
    columns[1] = Span("front", page, "guide")
    gone = [(name, "tail tab") for name in ("hinge", "back", "back hinge")]
    start, slant = width, _slant(record, height)
    cuts = (
        [Cut((start, slant), (start + page - less, 0.0), (start, 0.0), frozenset({"back"}))]
        if slant > 1
        else []
    )
    rows = [Span("", height), Span("tail tab", tab)]
    return piece(
        "strip",
        CARD,
        columns,
        rows,
        kept=[("front", "tail tab")],
        gone=gone,
        cuts=cuts,
        glued=("front, tail tab", "back hinge"),
    )


def build(record: PocketPages, width: float, height: float) -> Build:
    """One page."""

    def programme(_sizes: Sizes) -> Programme:
        strip = _strip(record, width, height)
        steps: list[Operation] = [
            Add(strip, "front"),
            FoldOperation("strip", (("front", "front, tail tab", 180.0),)),
            FoldOperation("strip", (("front", "back", 180.0),)),
            LayOperation(("strip", "back hinge"), ("strip", "hinge"), face="A", side="A"),
            LayOperation(("strip", "front, tail tab"), ("strip", "back"), face="B", side="A"),
        ]
        hinge = min(record.hinge_mm, width / 2)
        if strip.offcuts and record.corner == "yes":
            corner = _corner(strip.offcuts[0])
            wide, high = corner.size_mm
            # on the outside of the front, in its corner at tail and fore edge; outside up the fore edge lies
            # on the left
            steps += [
                Add(corner),
                LayOperation(
                    ("corner pocket", "body"),
                    ("strip", "front"),
                    (width - wide, height - high),
                    side="B",
                    edges=("tail", "right"),
                ),
            ]
        steps += tucked(insert(record), "insert", ("strip", "front"), (hinge + (width - hinge) / 2, height))
        return Programme(tuple(steps))

    return programme


def _stack(count: int, ready: tuple[str, ...]) -> Step:
    return Step(
        key="stack",
        title="Stack the pages in order",
        detail=f"{many(count, 'page')}, mouths up, their hinges level; nothing is in the pockets yet.",
        needs=ready,
        gives=("block.stacked", "block.measured"),
        kind="nest",
    )


def _corner(offcut: Polygon) -> Piece:
    """The triangle that fell off, as a piece by itself."""
    left, top, right, bottom = bounds(offcut)
    # it is turned so that its right angle lies at tail and fore edge
    outline = ((0.0, bottom - top), (right - left, 0.0), (right - left, bottom - top))
    return Piece("corner pocket", "offcut", (Panel("body", outline),))


def compute(record: PocketPages, left: LeftOfPages) -> FoldedBlock:
    """One page worked out, so many times."""
    ruler, height = left.brief.ruler, left.brief.leaf_height_mm
    count = leaves_of(record.amount, record.counted_in)
    warned = unsaid(record.amount, record.counted_in)

    def held(made: Made, left: LeftOfPages) -> tuple[Estimate, float]:
        edge = left.paper.stock(CARD).caliper.times(2)
        return edge, max(made.thick.likely - edge.likely, 0.0)

    return folded.compute(
        record,
        left,
        FoldedSpec(
            "pocket pages",
            lambda wide, high: build(record, wide, high),
            unit="leaf",
            copies=count,
            leaves=count,
            panels="leaves",
            states="page",
            held=held,
            hinge_mm=min(record.hinge_mm, left.brief.leaf_width_mm / 2),
            last=lambda states: (_stack(count, states),),
            calipers=inserts.calipers(record),
            figures=lambda made: inserts.figures(record, made, ruler),
            checks=lambda made: (
                *((warned,) if warned else ()),
                *inserts.checks(record, made, ruler, height),
            ),
        ),
    )


KIND: Final = BlockKind(
    name="pocketpages",
    title="pocket pages",
    summary="Leaves for rings that are pockets, each from one strip.",
    record=PocketPages,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    placed=("slant_mm",),
    unit="leaf",
    traits=Traits(glue=True),
)
