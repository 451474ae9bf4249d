"""A design on several faces at once, as offers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from pleat.core.base.plan import Offer
from pleat.core.pleats.extras.base import Face
from pleat.core.pleats.extras.spots import PlacedDesign, corners

MOST_SPREAD: Final = 60
At = tuple[str, float | None, float | None]
"""The name of a face, and where on it."""


@dataclass(frozen=True)
class Faces:
    """The fronts of the leaves, or all good faces; every third of them; every third pair that faces each
    other."""

    leaves: bool
    fronts: tuple[Face, ...]
    thirds: tuple[Face, ...]
    pairs: tuple[Face, ...]


def spreading(faces: Sequence[Face]) -> Faces:
    """The faces a design may be spread over."""
    covers = {face.name for face in faces if face.cover}
    inner = [face for face in faces if not face.cover]
    fronts = tuple(face for face in inner if face.spine == "left")
    used = fronts or tuple(face for face in inner if face.good)
    pairs = [face for face in inner if face.spine == "right" and face.facing and face.facing not in covers]
    return Faces(bool(fronts), used, used[::3], tuple(pairs[::3]))


def spreads(item: PlacedDesign, on: Faces) -> tuple[Offer, ...]:
    """A design on several faces at once: every third leaf, every leaf, alternate corners, facing pairs."""
    offers = []
    now = [(place.on, place.x_mm, place.y_mm) for place in item.record.places]
    for label, places in _ways(item, on):
        limited = places[:MOST_SPREAD]
        if limited and limited != now:
            new = [{"on": name, "x_mm": x, "y_mm": y} for name, x, y in limited]
            offers.append(
                Offer(
                    label=f"{label}: {len(new)}",
                    changes=((f"extras.items.{item.key}.places", new),),
                    group=f"spread {item.key}",
                )
            )
    return tuple(offers)


def _ways(item: PlacedDesign, on: Faces) -> Iterator[tuple[str, list[At]]]:
    """(what it is called, places) of every way to spread a design, where its first place lies on its face."""
    first = item.record.places[0] if item.record.places else None
    x, y = (first.x_mm, first.y_mm) if first else (None, None)
    unit = "leaf" if on.leaves else "face"
    yield f"on every third {unit}", [(face.name, x, y) for face in on.thirds]
    yield f"on every {unit}", [(face.name, x, y) for face in on.fronts]
    ends = corners(on.fronts[0], item.thing) if on.fronts else []
    if len(ends) == 4:
        yield (
            "in alternate corners",
            [(face.name, *ends[3 * (number % 2)]) for number, face in enumerate(on.thirds)],
        )
    if on.pairs and (x is None or 0 <= x <= on.pairs[0].width_mm - item.thing.width_mm):
        mirrored = [
            (face, None if x is None else face.width_mm - item.thing.width_mm - x) for face in on.pairs
        ]
        yield (
            "on facing pairs",
            [place for face, other in mirrored for place in ((face.name, other, y), (face.facing, x, y))],
        )
