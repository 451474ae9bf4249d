"""A cover as pieces that are cut, folded and laid on each other: what its drawings, prints and files for a
cutter are made from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.flat import FieldAnchor
from pleat.core.engines.folding.sheet import Piece
from pleat.core.pleats.cover.fasteners import Landing
from pleat.core.pleats.cover.result import CoverResult


class Hole(NamedTuple):
    """A hole in a piece: its middle from the piece's corner, and its width; mm."""

    x_mm: float
    y_mm: float
    width_mm: float


@dataclass(frozen=True)
class Laid:
    """A piece as it lies in the flat cover seen from the outside: its corner in mm, what it is drawn as, the
    part it is, and holes in it."""

    piece: Piece
    x_mm: float
    y_mm: float
    what: str
    part: str
    holes: tuple[Hole, ...] = ()


@dataclass(frozen=True)
class EdgeLayer:
    """One layer of a cover's edge, the outermost first: what it is, its thickness in mm, its colour."""

    name: str
    mm: float
    swatch: str


@dataclass(frozen=True)
class Motion:
    """How a cover closes: its piece, the panel that lies still, groups of folds (panel, panel, degrees seen
    from inside), the names of the states from open to shut, the block as (width, height, corner on the
    sheet), its thickness and that of a board; mm. The block is laid in after so many groups."""

    piece: Piece
    base: str
    groups: tuple[tuple[tuple[str, str, float], ...], ...]
    names: tuple[str, ...]
    block: tuple[float, float, Point]
    thick_mm: float
    board_mm: float = 0.0
    laid_after: int = 0


@dataclass(frozen=True, kw_only=True)
class LaidResult(CoverResult):
    """A cover made of pieces: how they lie flat, the layers of its edge from outside to inside, and what
    keeps it shut.

    ``halves`` are the places of a fastener's halves on the flat cover, ``places`` those of the fields that
    stand on the drawing. ``motion`` is how it closes, where its kind says.
    """

    laid: tuple[Laid, ...]
    layers: tuple[EdgeLayer, ...] = ()
    landing: Landing | None = None
    fastener: str = "none"
    halves: tuple[Point, ...] = ()
    places: tuple[FieldAnchor, ...] = ()
    motion: Motion | None = None

    @property
    def pieces(self) -> tuple[Laid, ...]:
        """Each piece once, as it is cut: what is laid twice is cut twice from one drawing."""
        found: dict[tuple[str, str], Laid] = {}
        for piece in self.laid:
            found.setdefault((piece.part, piece.piece.name), piece)
        return tuple(found.values())
