"""What a maker types or drags of one hole along the edge, ``hole.0`` and the like."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pleat.core.base.errors import LengthError
from pleat.core.base.texts import shows
from pleat.core.base.units import RULERS, parse_length
from pleat.core.pleats.binding.punched.record import HolesByHand, Usual
from pleat.core.pleats.brief.record import Brief
from pleat.core.trade.holes import HOLE_PLACES_MM


def edge_of(binding: HolesByHand, brief: Brief) -> float:
    """The length of the edge that is held, in mm."""
    return brief.leaf_width_mm if binding.bound_at == "head" else brief.leaf_height_mm


def holes_of(binding: HolesByHand, edge: float, usual: Callable[[object, float], Usual]) -> tuple[float, ...]:
    own = usual(binding, edge).positions
    placed = binding.positions_mm
    return tuple(sorted(placed)) if placed and len(placed) == len(own) else own


def read(
    usual: Callable[[Any, float], Usual],
) -> Callable[[Any, str, str, Brief], list[tuple[str, object]] | None]:
    """What reads the place of one hole; its partner from the other end follows while they move as pairs.
    Raises LengthError."""

    def _read(binding: HolesByHand, name: str, text: str, brief: Brief) -> list[tuple[str, object]] | None:
        if not name.startswith("hole."):
            return None
        number = name.removeprefix("hole.")
        edge, ruler = edge_of(binding, brief), RULERS[brief.ruler]
        places = list(holes_of(binding, edge, usual))
        index = int(number) if number.isdecimal() and len(number) < 3 else -1
        if not 0 <= index < len(places):
            raise LengthError(text, "There is no such hole.")
        if shows(text, places[index], brief.ruler):
            return []
        to = parse_length(text, brief.ruler).mm
        partner = len(places) - 1 - index
        pairs = binding.moved == "pairs" and partner != index
        low = (
            places[index - 1] + HOLE_PLACES_MM
            if index and not (pairs and index - 1 == partner)
            else HOLE_PLACES_MM
        )
        high = (
            places[index + 1] - HOLE_PLACES_MM
            if index + 1 < len(places) and not (pairs and index + 1 == partner)
            else edge - HOLE_PLACES_MM
        )
        if pairs:
            low, high = (
                (low, min(high, edge / 2 - HOLE_PLACES_MM / 2))
                if index < partner
                else (max(low, edge / 2 + HOLE_PLACES_MM / 2), high)
            )
        if not low - 1e-6 <= to <= high + 1e-6:
            raise LengthError(
                text, f"Hole {index + 1} lies between {ruler.show(low)} and {ruler.show(high)} here."
            )
        places[index] = to
        if pairs:
            places[partner] = edge - to
        return [("positions_mm", tuple(places))]

    return _read
