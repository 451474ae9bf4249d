"""A folder of one sheet: front and back, with a gusset between or a single fold, and pockets folded up at the
tail."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Traits
from pleat.core.engines.folding.programme import (
    Add,
    FoldGroup,
    FoldOperation,
    LayOperation,
    Operation,
    Programme,
)
from pleat.core.engines.folding.sheet import Cut, Span, piece
from pleat.core.pleats.pages import folded
from pleat.core.pleats.pages.block import BlockKind, LeftOfPages
from pleat.core.pleats.pages.folded import CARD, FoldedBlock, FoldedSpec
from pleat.core.pleats.structures import inserts
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.inserts import Deep, insert, tucked
from pleat.core.pleats.structures.made import Build, Sizes
from pleat.core.trade.folding import FOLDER_POCKET_SHARE, POCKET_CLEAR_MM


class Folder(Deep, Fastened):
    """Pleat 3, a folder."""

    kind: Literal["folder"] = "folder"
    gusset: Annotated[
        Literal["yes", "no"], ChoiceRule("between front and back", (("yes", "a gusset"), ("no", "one fold")))
    ] = "yes"
    gusset_mm: Annotated[float, LengthRule("the gusset", 0.5, 120)] | None = None
    pockets: Annotated[
        Literal["both", "back", "none"],
        ChoiceRule("pockets", (("both", "in front and back"), ("back", "in the back"), ("none", "none"))),
    ] = "both"


def _pockets(record: Folder) -> tuple[str, ...]:
    return {"both": ("front", "back"), "back": ("back",), "none": ()}[record.pockets]


def build(record: Folder, width: float, height: float) -> Build:
    """The generator for panels of this size in mm. Inside up the front lies on the left."""
    tall = min(record.pocket_mm or FOLDER_POCKET_SHARE * height, height)
    in_ = _pockets(record)
    tab = min(record.tab_mm, width / 3) if in_ else 0.0
    gusset = record.gusset == "yes"

    def programme(sizes: Sizes) -> Programme:
        room = sizes["gusset"] if gusset else 0.0
        columns = [
            Span("left tab", tab if "front" in in_ else 0.0),
            Span("front", width),
            Span("gusset", room),
            Span("back", width),
            Span("right tab", tab),
        ]
        rows = [Span("", height), *([Span("pocket", tall)] if in_ else [])]
        kept = [(panel, "pocket") for panel in in_] + [("left tab", "pocket"), ("right tab", "pocket")]
        glued = [f"{side} tab, pocket" for side in ("left", "right")]
        sheet = piece(
            "folder",
            CARD,
            columns,
            rows,
            kept=kept,
            gone=[("left tab", ""), ("right tab", "")],
            cuts=_parted(record, tab, width, height),
            glued=glued,
        )
        start = tab if "front" in in_ else 0.0
        middle = {"front": start + width / 2, "back": start + width + room + width / 2}
        steps: list[Operation] = [Add(sheet, "back")]
        for panel, side in (("front", "left"), ("back", "right")):
            if panel not in in_:
                continue
            wall, flap = f"{panel}, pocket", f"{side} tab, pocket"
            folds = [FoldOperation("folder", ((wall, flap, 180.0),))] if tab else []
            lay = [LayOperation(("folder", flap), ("folder", panel))] if tab else []
            steps += [*folds, FoldOperation("folder", ((panel, wall, 180.0),)), *lay]
            clear = middle[panel] + (tab if side == "left" else -tab) / 2
            steps += tucked(insert(record), f"insert {panel}", ("folder", panel), (clear, height))
        over = (
            (("back", "gusset", 90.0), ("gusset", "front", 90.0)) if gusset else (("back", "front", 180.0),)
        )
        return Programme(tuple(steps), (FoldGroup("front", (FoldOperation("folder", over),)),))

    return programme


def _parted(record: Folder, tab: float, width: float, height: float) -> list[Cut]:
    """Without a gusset both pockets meet at the fold: each is cut a little short of it, so that the folder
    shuts."""
    if record.gusset == "yes" or record.pockets != "both":
        return []
    fold = tab + width
    return [
        Cut(
            (fold - POCKET_CLEAR_MM, height),
            (fold - POCKET_CLEAR_MM, height + 1),
            (fold, height),
            frozenset({"front, pocket"}),
        ),
        Cut(
            (fold + POCKET_CLEAR_MM, height),
            (fold + POCKET_CLEAR_MM, height + 1),
            (fold, height),
            frozenset({"back, pocket"}),
        ),
    ]


def compute(record: Folder, left: LeftOfPages) -> FoldedBlock:
    """The folder, its gusset made for what lies in it."""
    ruler, height = left.brief.ruler, left.brief.leaf_height_mm
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "folder",
            lambda wide, high: build(record, wide, high),
            typed={"gusset": record.gusset_mm} if record.gusset == "yes" else {},
            paths={"gusset": "pages.gusset_mm"},
            places=tuple(
                (
                    "pages.pocket_mm",
                    "folder",
                    f"{pocket}, pocket",
                    min(record.pocket_mm or FOLDER_POCKET_SHARE * height, height),
                )
                for pocket in _pockets(record)[-1:]
            )
            + ((("pages.gusset_mm", "folder", "gusset", 0.0),) if record.gusset == "yes" else ()),
            calipers=inserts.calipers(record),
            figures=lambda made: inserts.figures(record, made, ruler),
            checks=lambda made: inserts.checks(record, made, ruler, height),
        ),
    )


KIND: Final = BlockKind(
    name="folder",
    title="folder",
    summary="One sheet round what it holds, with pockets folded up at the tail.",
    record=Folder,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    unit="folio",
    traits=Traits(glue=True),
)
