"""What the book is made from."""

from __future__ import annotations

from pydantic import Field

from pleat.core.fields import Record
from pleat.core.materials.items import Paper


def _copier() -> Paper:
    return Paper(name="Copier paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)


def _card() -> Paper:
    return Paper(name="Cover card", kind="cardstock", sheet_width_mm=297, sheet_height_mm=420, grammage=250, swatch="kraft")


class Papers(Record):
    """Pleat 2, what it is made from."""

    leaf: Paper = Field(default_factory=_copier)
    cover: Paper = Field(default_factory=_card)
