"""What a maker types of a sewing that is no field by itself: the place of one station."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pleat.core.base.errors import LengthError
from pleat.core.base.texts import shows
from pleat.core.base.units import RULERS, parse_length
from pleat.core.pleats.binding import stations
from pleat.core.pleats.binding.record import Threaded
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.brief.record import Brief

LayoutOf = Callable[[Any, float], Layout]
"""The layout of a record on leaves of a height in mm."""
Read = Callable[[Any, str, str, Brief], "list[tuple[str, object]] | None"]


def reader(layout: LayoutOf) -> Read:
    """What reads ``station.0`` and the like of a record laid out so; None for any other name. Raises
    LengthError."""

    def read(binding: Threaded, name: str, text: str, brief: Brief) -> list[tuple[str, object]] | None:
        if not name.startswith("station."):
            return None
        return _station(
            binding, layout(binding, brief.leaf_height_mm), name.removeprefix("station."), text, brief
        )

    return read


def _station(
    binding: Threaded, layout: Layout, number: str, text: str, brief: Brief
) -> list[tuple[str, object]]:
    """Another place for a station; its symmetric partner follows."""
    index, ruler, height = (
        int(number) if number.isdecimal() and len(number) < 3 else -1,
        RULERS[brief.ruler],
        brief.leaf_height_mm,
    )
    positions = stations.place(binding, layout, height, ruler)
    if not 0 <= index < len(positions):
        raise LengthError(text, "There is no such station.")
    if shows(text, positions[index], brief.ruler):
        return []
    to = parse_length(text, brief.ruler).mm
    if not 0 < to < height:
        raise LengthError(
            text, f"The leaf is {ruler.show(height)} high; a station lies between its head and its tail."
        )
    below = positions[index - 1] if index else 0.0
    above = positions[index + 1] if index + 1 < len(positions) else height
    if not below < to < above:
        raise LengthError(
            text,
            f"Station {index + 1} lies between its neighbours, {ruler.show(below)} and {ruler.show(above)} "
            "from the head.",
        )
    moved = stations.move(binding, layout, index, to, height, ruler)
    if moved == binding and 2 * index == len(positions) - 1:
        raise LengthError(
            text,
            "The middle station stays in the middle while both halves move together. Unlock them to move it.",
        )
    return [
        (name, value)
        for name in ("insets_mm", "positions_mm")
        if (value := getattr(moved, name)) != getattr(binding, name)
    ]
