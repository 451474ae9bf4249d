"""A design on several faces at once, as offers."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from pleat.core.extras.base import Face
from pleat.core.extras.spots import Item, corners
from pleat.core.plan import Offer


def spreads(items: Sequence[Item], faces: Sequence[Face]) -> tuple[Offer, ...]:
    """Each design on several faces at once: every third leaf, facing pairs, alternate corners, every face."""
    found = []
    for item in items:
        thing = item.thing
        first = item.record.places[0] if item.record.places else None
        at = (first.x_mm, first.y_mm) if first else (None, None)
        group, path = f"spread {item.key}", f"extras.items.{item.key}.places"
        fronts = [face for face in faces if face.spine == "left" and not face.cover] or [
            face for face in faces if face.good and not face.cover
        ]
        thirds, leaves = fronts[::3], any(face.spine == "left" and not face.cover for face in faces)
        ways: list[tuple[str, list[tuple[Face, float | None, float | None]]]] = [
            ("on every third leaf" if leaves else "on every third face", [(face, *at) for face in thirds]),
            ("on every leaf" if leaves else "on every face", [(face, *at) for face in fronts]),
        ]
        ends = corners(fronts[0], thing) if fronts else []
        if len(ends) == 4:
            ways.append(("in alternate corners", [(face, *ends[3 * (number % 2)]) for number, face in enumerate(thirds)]))
        by_name = {face.name: face for face in faces}
        pairs = [face for face in faces if face.spine == "right" and face.facing and not face.cover and not by_name[face.facing].cover][::3]
        if pairs and (at[0] is None or 0 <= at[0] <= pairs[0].width_mm - thing.width_mm):
            mirrored = [(face, None if at[0] is None else face.width_mm - thing.width_mm - at[0], at[1]) for face in pairs]
            ways.append(
                (
                    "on facing pairs",
                    [place for left_, one in zip(pairs, mirrored, strict=True) for place in (one, (by_name[left_.facing], *at))],
                )
            )
        now = [(place.on, place.x_mm, place.y_mm) for place in item.record.places]
        for label, places in ways:
            limited = places[:MOST_SPREAD]
            new = [{"on": face.name, "x_mm": x, "y_mm": y} for face, x, y in limited]
            if limited and [(one["on"], one["x_mm"], one["y_mm"]) for one in new] != now:
                found.append(Offer(f"{label}: {len(new)}", ((path, new),), group=group))
    return tuple(found)


MOST_SPREAD: Final = 60
