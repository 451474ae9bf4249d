"""What a maker types of a sewing that is no field by itself: the place of one station, and a path of their own."""

from __future__ import annotations

import re
from typing import Any

from pleat.core.binding import stations
from pleat.core.binding.record import Pamphlet
from pleat.core.brief.record import Brief
from pleat.core.errors import LengthError
from pleat.core.texts import shows
from pleat.core.units import RULERS, parse_length, tidy


def read(binding: Pamphlet, name: str, text: str, brief: Brief) -> list[tuple[str, Any]] | None:
    """The fields that ``text`` sets, for ``station.0`` and ``own_path``; None for any other name. Raises LengthError."""
    if name.startswith("station."):
        return _station(binding, name.removeprefix("station."), text, brief)
    if name == "own_path" and text.strip():
        return _path(text)
    return None


def _path(text: str) -> list[tuple[str, Any]]:
    text = tidy(text)
    words = re.findall(r"[0-9]{1,3}", text)
    if not words or re.search(r"[^\d\s,;.→>-]", text):
        raise LengthError(text, "Type the holes in order, 1 at the head: for example 2 1 3 2.")
    return [("own_path", [int(word) for word in words])]


def _station(binding: Pamphlet, number: str, text: str, brief: Brief) -> list[tuple[str, Any]]:
    """Another place for a station; its symmetric partner follows."""
    index, ruler, height = int(number) if number.isdecimal() and len(number) < 3 else -1, RULERS[brief.ruler], brief.leaf_height_mm
    positions = stations.place(binding, height, ruler)
    if not 0 <= index < len(positions):
        raise LengthError(text, "There is no such station.")
    if shows(text, positions[index], brief.ruler):
        return []
    to = parse_length(text, brief.ruler).mm
    if not 0 < to < height:
        raise LengthError(text, f"The leaf is {ruler.show(height)} high; a station lies between its head and its tail.")
    below = positions[index - 1] if index else 0.0
    above = positions[index + 1] if index + 1 < len(positions) else height
    if not below < to < above:
        raise LengthError(
            text, f"Station {index + 1} lies between its neighbours, {ruler.show(below)} and {ruler.show(above)} from the head."
        )
    moved = stations.move(binding, index, to, height, ruler)
    if moved == binding and index == len(positions) // 2:
        raise LengthError(text, "The middle station stays in the middle while both halves move together. Unlock them to move it.")
    return [(name, value) for name in ("insets_mm", "positions_mm") if (value := getattr(moved, name)) != getattr(binding, name)]
