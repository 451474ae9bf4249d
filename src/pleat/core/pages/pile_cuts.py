"""What has to be cut from the sheets of a pile: each that is larger than its leaves gives one folio, and the rest of it is left."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from pleat.core.book import PileSheet
from pleat.core.materials.items import Paper
from pleat.core.pages.mixed import MixedFolio
from pleat.core.paper.compute import Stock, stock_of
from pleat.core.plan import Fold, Part


@dataclass(frozen=True)
class PileCut:
    """One piece from each of so many sheets of a paper; ``turned`` pieces lie with their height across the sheet."""

    part: Part
    stock: Stock
    paper: Paper
    turned: bool


def pile_cuts(pile: Sequence[PileSheet], sections: Sequence[Sequence[MixedFolio]], quantity: int) -> tuple[PileCut, ...]:
    """The cuts of a pile, sheets of one paper that become equal pieces together; sheets that are folded as they are do not count."""
    papers = {sheet.id: sheet.paper for sheet in pile}
    alike: dict[tuple[object, ...], list[MixedFolio]] = {}
    for one in (one for section in sections for one in section if one.cut):
        alike.setdefault((one.stock, _size(one), one.turned, one.joined, one.flap_mm), []).append(one)
    return tuple(_cut(number, same, papers[same[0].id], quantity) for number, same in enumerate(alike.values()))


def _size(one: MixedFolio) -> tuple[float, float]:
    """(width, height) in mm of the piece, opened, with its fold-out."""
    return (one.leaves * one.leaf_width_mm + one.flap_mm * one.flap_panels, one.leaf_height_mm)


def _cut(number: int, same: Sequence[MixedFolio], paper: Paper, quantity: int) -> PileCut:
    first = same[0]
    width, height = _size(first)
    leaves = first.leaves * first.leaf_width_mm
    folds = [Fold(first.leaf_width_mm, "valley")] if first.joined == "folded" else []
    panels = first.flap_panels if first.flap_mm else 0
    folds += [Fold(leaves + first.flap_mm * panel, "mountain" if panel % 2 else "valley") for panel in range(panels)]
    what = "folio" if first.joined == "folded" else "single leaf"
    name = f"{what} of {first.name}" + (" with fold-out" if panels else "")
    part = Part(f"pile_{number}", name, width, height, len(same) * quantity, "pile", folds=tuple(folds))
    return PileCut(part, stock_of("pile", paper), paper, first.turned)
