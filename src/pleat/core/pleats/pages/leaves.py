"""The leaves of the finished block, front to back, and the openings they make.

A sheet's inner side is the one that lies inside its fold. A fold-out hangs on the fore edge of the sheet's
second leaf and folds in over that leaf's inner side; panel by panel it shows the sheet's back and its inner
side in turn, the back first.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from pleat.core.pleats.pages.mixed import MixedFolio


@dataclass(frozen=True)
class Leaf:
    """One leaf: section and place of its sheet from the outside in, both from 0, and the number of its first
    page; lengths in mm.

    ``second`` leaves are the ones behind their sheet's fold. ``folio`` is the sheet of a pile, None in a book
    of one paper.
    """

    section: int
    place: int
    page: int
    second: bool
    folio: MixedFolio | None
    width_mm: float
    height_mm: float
    swatch: str
    sides: int
    flap_mm: float = 0.0
    flap_panels: int = 1

    def blank(self, first_page: bool) -> bool:
        """Whether a page of it is the unprinted side of a paper that is good on one side, which has that
        inside its fold."""
        return self.sides == 1 and first_page != self.second

    def flap_over(self, first_page: bool) -> bool:
        """Whether the fold-out lies folded in over this page."""
        return self.flap_mm > 0 and first_page == self.second

    @property
    def flap_blank(self) -> bool:
        """Whether the fold-out, folded in, shows a blank side: its top panel lies back up when their number
        is odd."""
        return self.sides == 1 and self.flap_panels % 2 == 1


Opening = tuple[Leaf | None, Leaf | None]
"""The leaf whose last page is on the left and the one whose first page is on the right; None is the cover."""


def leaves_of_pile(sections: Sequence[Sequence[MixedFolio]]) -> tuple[Leaf, ...]:
    """The leaves of a pile; a single leaf lies before the fold, its stub behind it."""
    leaves: list[Leaf] = []
    for number, section in enumerate(sections):
        order = [(place, one, False) for place, one in enumerate(section)]
        order += [(place, one, True) for place, one, _ in reversed(order) if one.joined == "folded"]
        for place, folio, second in order:
            flap = folio.flap_mm if second or folio.joined != "folded" else 0.0
            leaves.append(
                Leaf(
                    number,
                    place,
                    2 * len(leaves) + 1,
                    second,
                    folio,
                    folio.second_width_mm if second else folio.first_width_mm,
                    folio.leaf_height_mm,
                    folio.swatch,
                    folio.sides,
                    flap,
                    folio.flap_panels,
                )
            )
    return tuple(leaves)


@dataclass(frozen=True)
class PlainPaper:
    """The leaves' size in mm, colour and good sides where all are of one paper."""

    width_mm: float
    height_mm: float
    swatch: str = "white"
    sides: int = 2


@dataclass(frozen=True)
class FoldOut:
    """A fold-out of so many panels of ``length_mm``, on the innermost folios or on ``every`` one; 0 for
    none."""

    length_mm: float = 0.0
    panels: int = 1
    on: str = "innermost"


def leaves_of_paper(
    sections: Sequence[int], paper: PlainPaper, flap: FoldOut = FoldOut()
) -> tuple[Leaf, ...]:
    """The leaves of a book of one paper, folios nested in ``sections``, with its fold-outs on the innermost
    folios or on every one."""
    leaves: list[Leaf] = []
    for number, folios in enumerate(sections):
        order = [(place, False) for place in range(folios)] + [
            (place, True) for place in reversed(range(folios))
        ]
        for place, second in order:
            out = flap.length_mm if second and (flap.on == "every" or place == folios - 1) else 0.0
            page, size = 2 * len(leaves) + 1, (paper.width_mm, paper.height_mm)
            leaves.append(
                Leaf(number, place, page, second, None, *size, paper.swatch, paper.sides, out, flap.panels)
            )
    return tuple(leaves)


def openings(leaves: Sequence[Leaf]) -> tuple[Opening, ...]:
    """Every opening from the front cover to the back one; empty without leaves.

    >>> seen = openings(leaves_of_paper((1,), PlainPaper(100, 150)))
    >>> [(left and left.page + 1, right and right.page) for left, right in seen]
    [(None, 1), (2, 3), (4, None)]
    """
    return tuple(itertools.pairwise((None, *leaves, None))) if leaves else ()
