"""What the materials lists, searches and sorts an item by, whatever its kind."""

from __future__ import annotations

from dataclasses import dataclass

from pleat.core.base.fields import ChoiceRule
from pleat.core.materials.editing import rule_of
from pleat.core.materials.items import (
    KINDS,
    Board,
    BoughtFastener,
    Cloth,
    Elastic,
    Hardware,
    Item,
    Paper,
    Stick,
    ThreadSpool,
    Tool,
    kind_of,
)
from pleat.core.materials.thickness import thickness
from pleat.core.materials.thread import spool_diameter_mm
from pleat.core.materials.uses import fits_pattern, good_for, grain_axis


@dataclass(frozen=True)
class Facts:
    """Sizes in mm, of a paper what can be used of it; None where a kind has none. ``words`` is what a search
    looks in; ``owned`` counts pieces, not lengths."""

    kind: str
    words: str
    width_mm: float | None
    height_mm: float | None
    thickness_mm: float | None
    grain: str | None
    owned: int | None
    upright_only: bool
    uses: tuple[str, ...]


def facts(item: Item) -> Facts:
    kind = kind_of(item)
    width, height, thick = _sizes(item)
    sheet = thickness(item).sheet if isinstance(item, Paper) else None
    grain = None
    if isinstance(item, Paper | Board):
        grain = grain_axis(item.sheet_width_mm, item.sheet_height_mm, item.grain)
    return Facts(
        kind=kind,
        words=" ".join([item.name, item.tags, KINDS[kind].one, *_choices(item, kind)]).lower(),
        width_mm=width,
        height_mm=height,
        thickness_mm=sheet.likely if sheet else thick,
        grain=grain,
        owned=getattr(item, "owned", None),
        upright_only=isinstance(item, Paper) and fits_pattern(item),
        uses=good_for(sheet) if sheet else (),
    )


def _sizes(item: Item) -> tuple[float | None, float | None, float | None]:
    """(width, height, thickness), each None where the kind has none."""
    match item:
        case Paper():
            return *item.usable_mm, None
        case Board():
            return item.sheet_width_mm, item.sheet_height_mm, item.thickness_mm
        case Cloth():
            return item.roll_width_mm, item.length_left_mm, item.thickness_mm
        case ThreadSpool():
            return None, item.length_left_mm, spool_diameter_mm(item)
        case Elastic():
            return None, item.length_left_mm, item.width_mm
        case Hardware():
            return item.inner_mm, item.length_mm, item.wire_mm
        case Stick():
            return None, item.length_mm, item.thickness_mm
        case BoughtFastener():
            return item.width_mm, item.width_mm, item.thickness_mm
        case Tool():
            return None, item.longest_mm, item.thickest_mm
    return None, None, None


def _choices(item: Item, kind: str) -> list[str]:
    """The words of what was chosen, so that "magnet" or "offcut" finds them."""
    words = []
    for name in type(item).model_fields:
        rule = rule_of(kind, name)
        if isinstance(rule, ChoiceRule) and name in ("shape", "form", "kind", "fibre", "swatch"):
            words.append(dict(rule.words).get(str(getattr(item, name)), ""))
    return words
