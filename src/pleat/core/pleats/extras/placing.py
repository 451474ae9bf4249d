"""Putting things in: a new design, a place more, a place moved or taken away, and places spread so that the
book stays even."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import combinations, product
from types import MappingProxyType
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from pleat.core.base.errors import LengthError
from pleat.core.base.texts import split_list
from pleat.core.base.units import RULERS, RulerName, parse_length
from pleat.core.engines.bulk import Bulk, Patch, marks, span
from pleat.core.pleats.extras.base import Extra, Placed
from pleat.core.pleats.extras.compute import ExtrasResult, patches
from pleat.core.pleats.extras.crossing import mouth_band
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.extras.record import MOST, Extras
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, corners, over
from pleat.core.trade.extras import CORNER_BORDER_MM, THINGS_APART_MM

MOST_TRIED: Final = 4096
"""So many ways are all tried; where there are more, things are placed one by one and moved on while that
helps."""
Array = NDArray[Any]
Changes = tuple[tuple[str, object], ...]
_PLACE: Final = re.compile(r"extras\.items\.([a-z][a-z0-9-]*)\.place\.(\d+)")


def read(extras: Extras, path: str, text: str, ruler: RulerName) -> list[tuple[str, object]] | None:
    """A place typed or dragged: ``20, 35`` from the left edge and from the head; nothing typed puts it in the
    middle. None for other paths. Raises LengthError."""
    found = _PLACE.fullmatch(path)
    if found is None:
        return None
    record = extras.items.get(found[1])
    number = int(found[2])
    if not isinstance(record, Extra) or number >= len(record.places):
        raise LengthError(text, "It is not there any more.")
    words = split_list(text)
    if text.strip() and len(words) != 2:
        raise LengthError(text, "Two lengths: from the left edge and from the head, such as 20, 35.")
    x, y = (parse_length(word, ruler).mm for word in words) if words else (None, None)
    held = record.places[number]
    if shown(held, ruler) == text.strip():
        return []
    return [(f"extras.items.{found[1]}.places", _with(record, number, Placed(on=held.on, x_mm=x, y_mm=y)))]


def shown(place: Placed, ruler: RulerName) -> str:
    """A place as its field shows it."""
    on = RULERS[ruler]
    return (
        ""
        if place.x_mm is None or place.y_mm is None
        else f"{on.number(place.x_mm)}, {on.number(place.y_mm)}"
    )


def _with(record: Extra, number: int, place: Placed) -> list[dict[str, object]]:
    return [(place if at == number else one).model_dump() for at, one in enumerate(record.places)]


def added(extras: Extras, kind: str, face: str) -> Changes | None:
    """A new design of a kind on a face, under a key of its own; None where there is no such kind, or no room
    for one more."""
    found = EXTRAS.find(kind)
    if found is None or len(extras.items) >= MOST:
        return None
    number = next(n for n in range(1, MOST + 2) if f"{kind}-{n}" not in extras.items)
    record = found.record.model_validate({"kind": kind, **found.begins, "places": [{"on": face}]})
    return ((f"extras.items.{kind}-{number}", record.model_dump(mode="json")),)


def removed(extras: Extras, key: str) -> Changes:
    """Without a design."""
    return (
        (
            "extras.items",
            {name: item.model_dump(mode="json") for name, item in extras.items.items() if name != key},
        ),
    )


def also_on(extras: Extras, key: str, face: str) -> Changes | None:
    """A design on one more face, where it lies on its first one; None where it lies there already or has no
    room for more."""
    record = extras.items.get(key)
    if not isinstance(record, Extra) or any(place.on == face for place in record.places):
        return None
    first = record.places[0] if record.places else Placed(on=face)
    places = [*record.places, Placed(on=face, x_mm=first.x_mm, y_mm=first.y_mm)]
    return ((f"extras.items.{key}.places", [place.model_dump() for place in places]),)


def off(extras: Extras, key: str, number: int) -> Changes | None:
    """A design taken from one of its places; from its last one it goes altogether."""
    record = extras.items.get(key)
    if not isinstance(record, Extra) or number >= len(record.places):
        return None
    if len(record.places) == 1:
        return removed(extras, key)
    return (
        (
            f"extras.items.{key}.places",
            [place.model_dump() for at, place in enumerate(record.places) if at != number],
        ),
    )


def staggered(result: ExtrasResult, keeps_on: Callable[[], bool] = lambda: True) -> tuple[Changes, Bulk]:
    """Places that make the thickest place as thin as it gets: every thing that adds something, in the middle
    or at a corner of its face, a border from its edges. Never thicker than given. Few things are tried in
    every way, more are placed the thickest first and moved on while that helps and ``keeps_on``."""
    loose = [
        (item, spot)
        for item in result.items
        for spot in item.spots
        if spot.thing.layers and not spot.thing.hole and not item.thing.flat_mat and _may(spot)
    ]
    moving = {(item.key, one.number) for item, one in loose}
    fixed = [
        patch
        for item in result.items
        for spot in item.spots
        if (item.key, spot.number) not in moving
        for patch in patches(item, spot)
    ]
    ways = [[patches(item, anchor) for anchor in anchors(one)] for item, one in loose]
    grid = _Grid([*fixed, *(patch for choice in ways for way in choice for patch in way)])
    base = grid.sum(fixed)
    spots = [anchors(one) for _, one in loose]
    best = best_of(base, [[grid.sum(way) for way in choice] for choice in ways], clashes(spots), keeps_on)
    places = {(item.key, one.number): anchors(one)[way] for (item, one), way in zip(loose, best, strict=True)}
    after = Bulk((*fixed, *(patch for choice, way in zip(ways, best, strict=True) for patch in choice[way])))
    if after.worst().thick.likely >= result.worst.thick.likely - 1e-9:
        return (), result.bulk
    changes = []
    for item in result.items:
        mine = {
            spot.number: places[item.key, spot.number]
            for spot in item.spots
            if (item.key, spot.number) in places
        }
        if mine:
            new = [
                Placed(on=place.on, x_mm=mine[number].x_mm, y_mm=mine[number].y_mm)
                if number in mine
                else place
                for number, place in enumerate(item.record.places)
            ]
            changes.append((f"extras.items.{item.key}.places", [place.model_dump() for place in new]))
    return tuple(changes), after


def _may(item: PlacedItem) -> bool:
    """Whether it is smaller than its face by more than its borders, so that it can go elsewhere."""
    return (
        item.face.width_mm - item.thing.width_mm > 2 * CORNER_BORDER_MM
        or item.face.height_mm - item.thing.height_mm > 2 * CORNER_BORDER_MM
    )


def anchors(item: PlacedItem) -> list[PlacedItem]:
    """Where it is, and the corners of its face."""
    at = [PlacedItem(item.number, item.face, item.thing, x, y) for x, y in corners(item.face, item.thing)]
    return [item, *(corner for corner in at if (corner.x_mm, corner.y_mm) != (item.x_mm, item.y_mm))]


def beside(item: PlacedItem, boxes: Sequence[tuple[float, float, float, float]]) -> list[PlacedItem]:
    """Where a thing may lie free of others: the corners of its face, then along its edges and those of the
    others, the nearest to where it is first."""
    face, thing = item.face, item.thing
    ends = corners(face, thing)
    xs = {
        item.x_mm,
        *(x for x, _ in ends),
        *(box[2] + THINGS_APART_MM for box in boxes),
        *(box[0] - thing.width_mm - THINGS_APART_MM for box in boxes),
    }
    ys = {
        item.y_mm,
        *(y for _, y in ends),
        *(box[3] + THINGS_APART_MM for box in boxes),
        *(box[1] - thing.height_mm - THINGS_APART_MM for box in boxes),
    }
    low_x, low_y = min(x for x, _ in ends), min(y for _, y in ends)
    high_x, high_y = max(x for x, _ in ends), max(y for _, y in ends)
    more = [
        (x, y) for x, y in product(sorted(xs), sorted(ys)) if low_x <= x <= high_x and low_y <= y <= high_y
    ]
    more.sort(key=lambda at: abs(at[0] - item.x_mm) + abs(at[1] - item.y_mm))
    return [PlacedItem(item.number, face, thing, x, y) for x, y in (*ends, *more)]


class _Grid:
    """Cells that all patches of all ways share."""

    def __init__(self, all_: Sequence[Patch]) -> None:
        self.xs = marks(edge for patch in all_ for edge in (patch.left_mm, patch.right_mm))
        self.ys = marks(edge for patch in all_ for edge in (patch.top_mm, patch.bottom_mm))

    def sum(self, of: Sequence[Patch]) -> Array:
        found: Array = np.zeros((max(1, len(self.xs) - 1), max(1, len(self.ys) - 1)))
        for patch in of:
            found[
                span(self.xs, patch.left_mm, patch.right_mm), span(self.ys, patch.top_mm, patch.bottom_mm)
            ] += patch.thick.likely
        return found


Clashes = Mapping[tuple[int, int], frozenset[tuple[int, int]]]
"""For (thing, way) the (thing, way) of others that lie over it, or over its mouth."""


def clashes(spots: Sequence[Sequence[PlacedItem]]) -> Clashes:
    """Which ways of which things on one face lie over each other, with the strip before a mouth that stays
    free."""
    found: dict[tuple[int, int], set[tuple[int, int]]] = {}
    for (n, mine), (m, others) in combinations(enumerate(spots), 2):
        if mine[0].face != others[0].face:
            continue
        for (way, item), (other, two) in product(enumerate(mine), enumerate(others)):
            if over(_taken(item), _taken(two)):
                found.setdefault((n, way), set()).add((m, other))
                found.setdefault((m, other), set()).add((n, way))
    return {key: frozenset(with_) for key, with_ in found.items()}


def _taken(item: PlacedItem) -> tuple[float, float, float, float]:
    """Its box, and what stays free before its mouth."""
    if item.thing.mouth is None:
        return item.box
    band = mouth_band(item)
    return (
        min(item.box[0], band[0]),
        min(item.box[1], band[1]),
        max(item.box[2], band[2]),
        max(item.box[3], band[3]),
    )


def best_of(
    base: Array,
    choices: Sequence[Sequence[Array]],
    clashing: Clashes = MappingProxyType({}),
    keeps_on: Callable[[], bool] = lambda: True,
) -> list[int]:
    """The way of each thing by which fewest lie over each other and the highest cell is lowest; of equal ones
    that with the least sum of squares."""
    count = 1
    for choice in choices:
        count *= len(choice)
    if count <= MOST_TRIED:
        tried = product(*(range(len(choice)) for choice in choices))
        return list(
            min(
                tried,
                key=lambda ways: (
                    _clashing(ways, clashing),
                    *_height(
                        base + sum((choices[n][way] for n, way in enumerate(ways)), np.zeros_like(base))
                    ),
                ),
            )
        )

    def score(n: int, way: int, cells: Array) -> tuple[float, ...]:
        with_ = clashing.get((n, way), frozenset())
        return (sum((m, ways[m]) in with_ for m in range(len(ways))) if with_ else 0, *_height(cells))

    order = sorted(range(len(choices)), key=lambda n: -float(choices[n][0].max()))
    ways, now = [0] * len(choices), base.copy()
    for n in order:
        ways[n] = min(range(len(choices[n])), key=lambda way: score(n, way, now + choices[n][way]))
        now = now + choices[n][ways[n]]
    better = True
    while better and keeps_on():
        better = False
        for n in order:
            bare = now - choices[n][ways[n]]
            way = min(range(len(choices[n])), key=lambda way: score(n, way, bare + choices[n][way]))
            if score(n, way, bare + choices[n][way]) < score(n, ways[n], now):
                ways[n], now, better = way, bare + choices[n][way], True
    as_given = base + sum((choice[0] for choice in choices), np.zeros_like(base))
    return ways if float(now.max()) <= float(as_given.max()) else [0] * len(choices)


def _clashing(ways: Iterable[int], clashing: Clashes) -> int:
    """How many pairs lie over each other."""
    if not clashing:
        return 0
    return sum(
        (m, other) in clashing.get((n, way), ()) for (n, way), (m, other) in combinations(enumerate(ways), 2)
    )


def _height(cells: Array) -> tuple[float, float]:
    return round(float(cells.max()), 6), round(float((cells * cells).sum()), 3)


def item_of(result: ExtrasResult, key: str) -> PlacedDesign | None:
    """The design of a key."""
    return next((item for item in result.items if item.key == key), None)
