"""A folio of three bags side by side, joined by strips with a gusset: each bag is a pocket, the right one
folds in first, the left one over both."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
)
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.structures import inserts
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.inserts import Deep, insert, tucked
from pleat.core.pleats.structures.made import Build, Sizes
from pleat.core.trade.folding import BAG_FLANGE_MM

BAGS: Final = ("middle bag", "right bag", "left bag")


class BagFolio(Deep, Fastened):
    """Pleat 3, a folio of three bags; ``pocket_mm`` is how high the front of a bag is."""

    kind: Literal["bagfolio"] = "bagfolio"
    flange_mm: Annotated[float, LengthRule("the strips' flanges", 8, 60)] = BAG_FLANGE_MM
    right_gusset_mm: Annotated[float, LengthRule("the right gusset", 0.5, 80)] | None = None
    left_gusset_mm: Annotated[float, LengthRule("the left gusset", 0.5, 80)] | None = None


def _tall(record: BagFolio, height: float) -> float:
    return min(record.pocket_mm or height * 0.85, height)


def _bag(record: BagFolio, name: str, width: float, height: float) -> tuple[Operation, ...]:
    """A bag of one sheet: its front folded up at the tail and glued by tabs at both sides; its mouth at the
    head."""
    tab = min(record.tab_mm, width / 3)
    columns = [Span("left tab", tab), Span("", width), Span("right tab", tab)]
    rows = [Span("back", height), Span("front", _tall(record, height))]
    sheet = piece(
        name,
        CARD,
        columns,
        rows,
        kept=[("left tab", "front"), ("right tab", "front")],
        glued=("left tab, front", "right tab, front"),
    )
    steps: list[Operation] = [Add(sheet, "back")]
    if tab:
        steps.append(
            FoldOperation(name, (("front", "left tab, front", 180.0), ("front", "right tab, front", 180.0)))
        )
    steps.append(FoldOperation(name, (("back", "front", 180.0),)))
    if tab:
        steps += [LayOperation((name, f"{side} tab, front"), (name, "back")) for side in ("left", "right")]
    return (*steps, *tucked(insert(record), f"insert {name}", (name, "back"), (tab + width / 2, height)))


def build(record: BagFolio, width: float, height: float) -> Build:
    """The generator for bags of this size in mm."""
    tab = min(record.tab_mm, width / 3)
    flange = min(record.flange_mm, width / 3)

    def programme(sizes: Sizes) -> Programme:
        steps = list(_bag(record, "middle bag", width, height))
        groups = []
        for side in ("right", "left"):
            bag, strip = f"{side} bag", f"{side} strip"
            names = ["inner flange", f"{side} gusset", "outer flange"]
            spans = [Span(names[0], flange), Span(names[1], sizes[names[1]]), Span(names[2], flange)]
            order = spans if side == "right" else spans[::-1]
            steps.append(
                Add(piece(strip, CARD, order, [Span("", height)], glued=(names[0], names[2])), names[0])
            )
            # strips lie under the bags: their inside on the outside of the bags' backs
            at = (tab + width - flange, 0.0) if side == "right" else (tab, 0.0)
            steps.append(LayOperation((strip, names[0]), ("middle bag", "back"), at, face="A", side="B"))
            steps += _bag(record, bag, width, height)
            start = flange + sizes[names[1]] if side == "right" else flange - width
            steps.append(LayOperation((bag, "back"), (strip, names[2]), (start, 0.0)))
            groups.append(
                FoldGroup(
                    bag, (FoldOperation(strip, ((names[0], names[1], 90.0), (names[1], names[2], 90.0))),)
                )
            )
        return Programme(tuple(steps), tuple(groups), turns=True)

    return programme


def compute(record: BagFolio, left: LeftOfPages) -> FoldedBlock:
    """The three bags, the second gusset made for two of them."""
    ruler, height = left.brief.ruler, left.brief.leaf_height_mm
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "bag folio",
            lambda wide, high: build(record, wide, high),
            typed={f"{side} gusset": getattr(record, f"{side}_gusset_mm") for side in ("right", "left")},
            paths={f"{side} gusset": f"pages.{side}_gusset_mm" for side in ("right", "left")},
            places=(("pages.pocket_mm", "middle bag", "front", _tall(record, height)),),
            calipers=inserts.calipers(record),
            figures=lambda made: inserts.figures(record, made, ruler),
            checks=lambda made: inserts.checks(record, made, ruler, height),
            skip=frozenset({"right strip", "left strip"}),
        ),
    )


KIND: Final = BlockKind(
    name="bagfolio",
    title="bag folio",
    summary="Three bags side by side on gusseted strips, folded in as three parts.",
    record=BagFolio,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    unit="folio",
    traits=Traits(glue=True),
)
