"""What the checks of extras are asked about."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from pleat.core.base.estimate import Estimate
from pleat.core.engines.bulk import Bulk, Patch
from pleat.core.pleats.extras.base import Face, LeftOfExtras
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem


@dataclass(frozen=True)
class ExtrasContext:
    """What the checks are asked about."""

    items: tuple[PlacedDesign, ...]
    faces: Mapping[str, Face]
    left: LeftOfExtras
    record: Extras
    bulk: Bulk
    beyond: Estimate
    put: tuple[tuple[PlacedItem, tuple[Patch, ...]], ...]
