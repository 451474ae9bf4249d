"""What is cut from which sheets for a pile: a sheet that is larger than its leaves gives one folio or
several, others are folded whole."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final, Protocol

from pleat.core.base.plan import Fold, Part
from pleat.core.base.yields import lay
from pleat.core.materials.items import Paper
from pleat.core.pleats.pages.mixed import MixedFolio, folio
from pleat.core.pleats.pages.record import PileSheet

TRIED: Final = ("leaf.tried",)
"""No sheet is cut for leaves before one was tried for size."""


class SheetSize(Protocol):
    """Whatever has the size of a sheet."""

    @property
    def sheet_width_mm(self) -> float: ...
    @property
    def sheet_height_mm(self) -> float: ...


@dataclass(frozen=True)
class PileCut:
    """Equal pieces from the sheets of a paper, lying as they will be folded. A sheet gives ``each`` of them;
    0 says that not one comes out, since its fold-out has no room."""

    part: Part
    each: int


def gives(paper: Paper, leaf_width_mm: float, leaf_height_mm: float) -> int:
    """How many folios of this leaf one whole sheet gives, lying as they will be folded; 1 where it is folded
    as it is."""
    one = folio(PileSheet(id=0, paper="one"), paper, leaf_width_mm, leaf_height_mm)
    cuts = pile_cuts({"one": paper}, [[one]], 1)
    return cuts[0].each if cuts else 1


def folded_whole(sections: Sequence[Sequence[MixedFolio]], quantity: int) -> dict[str, int]:
    """The sheets of each paper of a pile that are folded as they are, for all books of the run; 0 of one of
    which all are cut."""
    found = dict.fromkeys((one.stock for section in sections for one in section), 0)
    for one in (one for section in sections for one in section if not one.cut):
        found[one.stock] += quantity
    return found


def pile_cuts(
    papers: Mapping[str, SheetSize], sections: Sequence[Sequence[MixedFolio]], quantity: int
) -> tuple[PileCut, ...]:
    """The cuts of a pile, sheets of one paper that become equal pieces together; sheets that are folded as
    they are do not count."""
    alike: dict[tuple[object, ...], list[MixedFolio]] = {}
    for one in (one for section in sections for one in section if one.cut):
        alike.setdefault(
            (one.stock, _size(one), one.first_piece_mm, one.turned, one.joined, one.flap_mm), []
        ).append(one)
    return tuple(
        _cut(number, same, papers[same[0].stock], quantity) for number, same in enumerate(alike.values())
    )


def _size(one: MixedFolio) -> tuple[float, float]:
    """(width, height) in mm of the piece, opened, with its fold-out."""
    return (one.open_mm + one.flap_mm * one.flap_panels, one.piece_height_mm)


def _cut(number: int, same: Sequence[MixedFolio], paper: SheetSize, quantity: int) -> PileCut:
    first = same[0]
    width, height = _size(first)
    leaves = first.open_mm
    folds = [Fold(first.first_piece_mm, "valley")] if first.joined == "folded" else []
    panels = first.flap_panels if first.flap_mm else 0
    folds += [
        Fold(leaves + first.flap_mm * panel, "mountain" if panel % 2 else "valley") for panel in range(panels)
    ]
    what = "folio" if first.joined == "folded" else "single leaf"
    name = f"{what} of {first.name}" + (" with fold-out" if panels else "")
    part = Part(
        key=f"pile_{number}",
        name=name,
        width_mm=width,
        height_mm=height,
        count=len(same) * quantity,
        stock=first.stock,
        folds=tuple(folds),
        needs=TRIED,
        told=frozenset({"B1", "B6", "B7", "B10"}),
        lies="turned" if first.turned else "upright",
    )
    return PileCut(
        part, lay(width, height, paper.sheet_width_mm, paper.sheet_height_mm, None, first.turned).count
    )
