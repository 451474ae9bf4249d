"""What the book is made from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pydantic import Field

from pleat.core.base.fields import Record, Word
from pleat.core.materials.items import Board, Cloth, Item, Material, Paper


@dataclass(frozen=True)
class Role:
    """What a material of the book serves for: over its description, in a sentence, and in the words of what
    is one of it."""

    title: str
    serves: str
    one: str


ROLES: Final[dict[str, Role]] = {
    "leaf": Role("Leaves", "the leaves", "leaf paper"),
    "cover": Role("Cover", "the cover", "cover paper"),
    "board": Role("Boards", "the boards", "board"),
    "covering": Role("Covering", "the covering", "covering"),
    "side": Role("Sides", "the sides", "side paper"),
    "lining": Role("Lining", "the linings", "lining paper"),
    "strip": Role("Strips", "the strips", "strip cloth"),
    "card": Role("Folding card", "what is folded", "folding card"),
    "mat": Role("Papers of the faces", "the faces", "face paper"),
}
"""The roles a material can have in a book, by the key that pieces name it by; a kind of book uses some of
them."""


def _copier() -> Paper:
    return Paper(name="Copier paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)


def _card() -> Paper:
    return Paper(
        name="Cover card",
        kind="cardstock",
        sheet_width_mm=297,
        sheet_height_mm=420,
        grammage=250,
        swatch="kraft",
    )


def _board() -> Board:
    return Board(name="Greyboard", sheet_width_mm=500, sheet_height_mm=700, thickness_mm=2.0)


def _covering() -> Cloth:
    return Cloth(name="Book cloth", roll_width_mm=1000, length_left_mm=1000, thickness_mm=0.35)


def _side() -> Paper:
    return Paper(
        name="Side paper",
        kind="drawing",
        sheet_width_mm=500,
        sheet_height_mm=700,
        grammage=100,
        swatch="moss",
    )


def _lining() -> Paper:
    return Paper(
        name="Lining paper",
        kind="drawing",
        sheet_width_mm=420,
        sheet_height_mm=594,
        grammage=120,
        swatch="cream",
    )


def _strip() -> Cloth:
    return Cloth(name="Strip cloth", roll_width_mm=500, length_left_mm=1000, thickness_mm=0.4, swatch="rust")


def _folding() -> Paper:
    return Paper(
        name="Folding card",
        kind="cardstock",
        sheet_width_mm=420,
        sheet_height_mm=594,
        grammage=220,
        swatch="kraft",
    )


def _mat() -> Paper:
    return Paper(
        name="Patterned paper",
        kind="drawing",
        sheet_width_mm=305,
        sheet_height_mm=305,
        grammage=120,
        sides=1,
        swatch="moss",
    )


class Papers(Record):
    """Pleat 2, the book's own materials: one by each role, and ``more`` papers by a key of their own, which
    the sheets of a pile point to."""

    leaf: Paper = Field(default_factory=_copier)
    cover: Paper = Field(default_factory=_card)
    board: Board = Field(default_factory=_board)
    covering: Cloth | Paper = Field(default_factory=_covering)
    side: Paper | Cloth = Field(default_factory=_side)
    lining: Paper = Field(default_factory=_lining)
    strip: Cloth | Paper = Field(default_factory=_strip)
    card: Paper = Field(default_factory=_folding)
    mat: Paper = Field(default_factory=_mat)
    more: dict[Word, Paper] = Field(
        default_factory=dict, max_length=400, description="further papers by their key"
    )

    @property
    def papers(self) -> dict[str, Paper]:
        """Those that sheets of a block can be made of, by their key."""
        return {"leaf": self.leaf, "cover": self.cover, **self.more}

    def by_key(self) -> dict[str, Material]:
        """Every material of the book by the key that sheets and pieces name it by."""
        return {**{role: getattr(self, role) for role in ROLES}, **self.more}


CAN_SERVE: Final[dict[str, tuple[type[Item], ...]]] = {
    "leaf": (Paper,),
    "cover": (Paper,),
    "board": (Board,),
    "covering": (Cloth, Paper),
    "side": (Paper, Cloth),
    "lining": (Paper,),
    "strip": (Cloth, Paper),
    "card": (Paper,),
    "mat": (Paper,),
}
"""What kinds of material can serve in each role."""
