"""Folders one in another: each child is glued by its back into its parent, and its spine is narrower, since
less lies in it."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pydantic import Field

from pleat.core.base.fields import LengthRule, NumberRule
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
from pleat.core.pleats.structures.dressing import without_papers
from pleat.core.pleats.structures.fastened import Fastened
from pleat.core.pleats.structures.made import Build, Sizes


class Nested(Fastened):
    """Pleat 3, nested folders. ``shrink_mm`` is how much narrower and lower each is than the one around it,
    on each side."""

    kind: Literal["nested"] = "nested"
    folders: Annotated[int, NumberRule("folders one in another", 1, 8, whole=True)] = 3
    shrink_mm: Annotated[float, LengthRule("each is smaller by", 0, 30)] = 4.0
    spines_mm: tuple[Annotated[float, LengthRule("a spine", 0.5, 150)], ...] | None = Field(
        default=None, max_length=8
    )


def _count(record: Nested, width: float, height: float) -> int:
    """As many folders as leave the innermost a panel to write on."""
    if not record.shrink_mm:
        return record.folders
    room = min(width, height) - 20.0
    return max(1, min(record.folders, 1 + int(room / (2 * record.shrink_mm))))


def name_of(number: int) -> str:
    return f"folder {number}"


def build(record: Nested, width: float, height: float) -> Build:
    """The generator for an outermost folder of this size in mm, its front on the left inside up."""

    def programme(sizes: Sizes) -> Programme:
        steps: list[Operation] = []
        groups: list[FoldGroup] = []
        for number in range(1, _count(record, width, height) + 1):
            less, name = record.shrink_mm * (number - 1), name_of(number)
            wide, high, spine = width - 2 * less, height - 2 * less, sizes[f"spine {number}"]
            panels = [f"front {number}", f"spine {number}", f"back {number}"]
            sheet = piece(
                name,
                CARD,
                [Span(panels[0], wide), Span(panels[1], spine), Span(panels[2], wide)],
                [Span("", high)],
            )
            steps.append(Add(sheet, panels[2]))
            if number > 1:
                outer = (name_of(number - 1), f"back {number - 1}")
                start = width - 2 * record.shrink_mm * (number - 2) + sizes[f"spine {number - 1}"]
                steps.append(
                    LayOperation((name, panels[2]), outer, (start + record.shrink_mm, record.shrink_mm))
                )
            groups.insert(
                0,
                FoldGroup(
                    panels[0],
                    (FoldOperation(name, ((panels[2], panels[1], 90.0), (panels[1], panels[0], 90.0))),),
                ),
            )
        return Programme(tuple(steps), tuple(groups))

    return programme


def compute(record: Nested, left: LeftOfPages) -> FoldedBlock:
    """The folders, each spine made for what lies in it."""
    width, height = left.brief.leaf_width_mm, left.brief.leaf_height_mm
    count = _count(record, width, height)
    said = record.spines_mm or ()
    typed = {f"spine {n}": said[n - 1] if n <= len(said) else None for n in range(1, count + 1)}
    return folded.compute(
        record,
        left,
        FoldedSpec(
            "nested folders",
            lambda wide, high: build(record, wide, high),
            typed=typed,
            paths=dict.fromkeys(typed, "pages.spines_mm"),
        ),
    )


KIND: Final = BlockKind(
    name="nested",
    title="nested folders",
    summary="Folders one in another, their spines narrower towards the inside.",
    record=Nested,
    compute=compute,
    roles=(CARD, "mat"),
    unused=without_papers,
    placed=("spines_mm",),
    unit="folio",
    traits=Traits(glue=True),
)
