"""No cover: the block is its own, as a programme or a pad is."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.base.estimate import total
from pleat.core.base.kinds import Member
from pleat.core.base.plan import Figure, Rule
from pleat.core.pleats.cover.result import CoverKind, CoverResult, LeftOfCover


class Bare(Member):
    """Pleat 6 without a cover: there is nothing to decide."""

    kind: Literal["bare"] = "bare"


def compute(_cover: Bare, left: LeftOfCover) -> CoverResult:
    """The block as it is: its outermost leaves, or panels, are the cover."""
    pages, ruler = left.pages, left.brief.ruler
    spine = total([pages.thickness, left.extras.added, left.binding.swell])
    what = "panels" if left.binding.at == "own" else "leaves"
    none = Figure(
        key="bare",
        label="cover",
        value="none",
        show="text",
        how=f"The outermost {what} are the cover: the book is as large as they are.",
        rules=(Rule("chosen by you", "no cover"),),
    )
    thick = Figure(
        key="spine",
        label="spine",
        value=spine,
        show="thin",
        how=f"What lies at the spine, added up: leaves {ruler.thin(pages.thickness.likely)}, the binding "
        f"{ruler.thin(left.binding.swell.likely)}.",
        rules=(Rule("arithmetic", "what is inside, added up"),),
    )
    return CoverResult(
        key_figure=none,
        figures=(none, thick),
        checks=(),
        front_width_mm=pages.leaf_width_mm,
        front_height_mm=pages.leaf_height_mm,
        spine=spine,
        swatch=pages.swatch,
        holes_mm=left.binding.positions_mm,
    )


KIND: Final = CoverKind(
    name="bare",
    title="no cover",
    summary="The outermost leaves or panels are the cover.",
    record=Bare,
    compute=compute,
    takes=frozenset({"fold", "spine", "block", "edge", "bought", "own"}),
)
