"""A design where it is put: on which face, and where on it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from pleat.core.base.words import joined
from pleat.core.pleats.extras.base import Extra, ExtraKind, Face, Placed, Thing
from pleat.core.trade.extras import CORNER_BORDER_MM

TOLD: Final = 6
"""So many faces are named; the rest are counted."""


@dataclass(frozen=True)
class PlacedItem:
    """One place of a design: its number in the record, the face, the thing as it is there, and its corner in
    mm on the face."""

    number: int
    face: Face
    thing: Thing
    x_mm: float
    y_mm: float

    @property
    def box(self) -> tuple[float, float, float, float]:
        """(left, head, right, tail) on the face, mm."""
        return self.x_mm, self.y_mm, self.x_mm + self.thing.width_mm, self.y_mm + self.thing.height_mm


@dataclass(frozen=True)
class PlacedDesign:
    """A design: its key, its kind, its record, what it comes to on its first face, its places, and those
    whose face is gone."""

    key: str
    kind: ExtraKind
    record: Extra
    thing: Thing
    spots: tuple[PlacedItem, ...]
    lost: tuple[tuple[int, Placed], ...] = ()
    number: int = 0

    @property
    def title(self) -> str:
        """What it comes to in words; the second and third design of one title have a number."""
        return f"{self.thing.title} {self.number}" if self.number else self.thing.title


def spot(number: int, place: Placed, face: Face, thing: Thing) -> PlacedItem:
    """Where the thing goes by itself, or in the middle of its face, where nothing is said."""
    x, y = thing.at or ((face.width_mm - thing.width_mm) / 2, (face.height_mm - thing.height_mm) / 2)
    x, y = x if place.x_mm is None else place.x_mm, y if place.y_mm is None else place.y_mm
    return PlacedItem(number, face, thing, x, y)


def corners(face: Face, thing: Thing) -> list[tuple[float, float]]:
    """Where a thing lies in the corners of a face, a border from its edges, with room for what stands out of
    it; head left first."""
    stands = {thing.mouth.side: thing.stands_mm} if thing.mouth else {}
    wide, high = face.width_mm - thing.width_mm, face.height_mm - thing.height_mm
    low_x, low_y = (
        min(CORNER_BORDER_MM + stands.get("left", 0.0), max(wide, 0.0)),
        min(CORNER_BORDER_MM + stands.get("head", 0.0), max(high, 0.0)),
    )
    high_x, high_y = (
        max(0.0, wide - CORNER_BORDER_MM - stands.get("right", 0.0)),
        max(0.0, high - CORNER_BORDER_MM - stands.get("tail", 0.0)),
    )
    return [(x, y) for x in sorted({low_x, high_x}) for y in sorted({low_y, high_y})]


def over(
    one: tuple[float, float, float, float], other: tuple[float, float, float, float], hair: float = 0.5
) -> bool:
    """Whether two boxes on one face lie over each other by more than a hair."""
    return (
        one[0] < other[2] - hair
        and other[0] < one[2] - hair
        and one[1] < other[3] - hair
        and other[1] < one[3] - hair
    )


def on_faces(spots: Iterable[PlacedItem]) -> str:
    """The faces in words: ``on page 3, page 5 and 9 more``."""
    titles = list(dict.fromkeys(spot.face.title for spot in spots))
    more = len(titles) - TOLD
    return joined([*titles[:TOLD], f"{more} more"]) if more > 0 else joined(titles)


def moved(item: PlacedDesign, places: Mapping[int, tuple[float, float]]) -> tuple[tuple[str, object], ...]:
    """What sets places of a design, by their numbers, to other corners."""
    new = [
        {"on": place.on, "x_mm": places[number][0], "y_mm": places[number][1]}
        if number in places
        else place.model_dump()
        for number, place in enumerate(item.record.places)
    ]
    return ((f"extras.items.{item.key}.places", new),)


def without(item: PlacedDesign, numbers: Iterable[int]) -> tuple[tuple[str, object], ...]:
    """What takes places of a design away."""
    gone = set(numbers)
    return (
        (
            f"extras.items.{item.key}.places",
            [place.model_dump() for number, place in enumerate(item.record.places) if number not in gone],
        ),
    )
