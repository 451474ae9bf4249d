"""What the book is made from."""

from __future__ import annotations

from pydantic import Field

from pleat.core.fields import Record, Word
from pleat.core.materials.items import Paper


def _copier() -> Paper:
    return Paper(name="Copier paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)


def _card() -> Paper:
    return Paper(name="Cover card", kind="cardstock", sheet_width_mm=297, sheet_height_mm=420, grammage=250, swatch="kraft")


class Papers(Record):
    """Pleat 2, the book's own materials: a paper by each role, and ``more`` by a key of their own, which the sheets of a pile point to."""

    leaf: Paper = Field(default_factory=_copier)
    cover: Paper = Field(default_factory=_card)
    more: dict[Word, Paper] = Field(default_factory=dict, max_length=400, description="further papers by their key")

    def by_key(self) -> dict[str, Paper]:
        """Every paper of the book by the key that sheets and pieces name it by."""
        return {"leaf": self.leaf, "cover": self.cover, **self.more}
