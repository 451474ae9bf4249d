"""Two things on one face: a mouth that is glued shut, a mat that comes too late, flaps that open into each
other, things that lie over each other."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from pleat.core.base.plan import Check, Offer
from pleat.core.engines.folding.programme import Where
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, moved, on_faces, over, without
from pleat.core.trade.extras import MOUTH_FREE_MM

Named = tuple[str, Check]
"""A check, and what it is about."""


def checks(pairs: Sequence[Pair], order: Mapping[str, int], record: Extras) -> list[Named]:
    """Every check of two things that share a face; ``order`` says which is put in first, by their keys."""
    covered = _covered(pairs)
    on = _on_faces(pairs)
    return [*_mouths(covered, on), *_mats_after(pairs, order, record), *_crossing(pairs, covered, on)]


def mouth_band(item: PlacedItem, deep: float = MOUTH_FREE_MM) -> Box:
    """The strip before the mouth that has to stay free, mm on the face."""
    left, top, right, bottom = item.box
    side: Where = item.thing.mouth.side if item.thing.mouth else "head"
    return {
        "head": (left, top - deep, right, top + 1),
        "tail": (left, bottom - 1, right, bottom + deep),
        "left": (left - deep, top, left + 1, bottom),
        "right": (right - 1, top, right + deep, bottom),
    }[side]


Pair = tuple[tuple[PlacedDesign, PlacedItem], tuple[PlacedDesign, PlacedItem]]
Box = tuple[float, float, float, float]
Covered = dict[tuple[str, str], tuple[PlacedDesign, PlacedDesign, list[tuple[PlacedItem, PlacedItem]]]]
"""By the keys of a design and of what lies over its mouth: both, and the places of the mouths with what
covers each."""


def _covered(pairs: Sequence[Pair]) -> Covered:
    """What is glued over a mouth. Something thin that is no wider than what a mouth gives way to is glued
    over it all the same."""
    found: Covered = {}
    for pair in pairs:
        for (item, one), (other, two) in (pair, pair[::-1]):
            if (
                one.thing.mouth is None
                or two.thing.hole
                or (other.thing.flat_mat and _inside(one.box, two.box))
            ):
                continue
            if not over(mouth_band(one), glued_box(two)):
                continue
            found.setdefault((item.key, other.key), (item, other, []))[2].append((one, two))
    return found


def _mouths(covered: Covered, on: OnFaces) -> list[Named]:
    """F2: a mouth is glued shut."""
    return [
        (
            item.title,
            Check(
                code="F2",
                level="stop",
                title=f"The {other.title} lies over the mouth of the {item.title} on "
                f"{on_faces(one for one, _ in both)}.",
                why="Glued there, the pocket is shut.",
                offers=(
                    *(
                        (Offer(label=f"move the {other.title} aside", changes=moved(other, aside)),)
                        if aside
                        else ()
                    ),
                    Offer(
                        label=f"take the {other.title} away there",
                        changes=without(other, (two.number for _, two in both)),
                    ),
                ),
            ),
        )
        for item, other, both in covered.values()
        for aside in [_asides(both, on, mouth_band)]
    ]


OnFaces = dict[str, list[PlacedItem]]
"""What lies on each face with something else."""


def _asides(
    pairs: Sequence[tuple[PlacedItem, PlacedItem]], on: OnFaces, box_of: Callable[[PlacedItem], Box]
) -> dict[int, tuple[float, float]]:
    """Where the second of each pair would be clear of a box of the first, by the number of its place; one
    after the other, so that none goes where another went, nor from where it is clear by then."""
    now = {id(spot): spot for spots in on.values() for spot in spots}
    found: dict[int, tuple[float, float]] = {}
    for item, two in pairs:
        box = box_of(now[id(item)])
        if two.number in found or not over(box, now[id(two)].box):
            continue
        at = _beside(two, box, [now[id(each)] for each in on[two.face.name] if each is not two])
        if at:
            found[two.number] = at
            now[id(two)] = replace(two, x_mm=at[0], y_mm=at[1])
    return found


def glued_box(item: PlacedItem) -> Box:
    """The part of it that is fixed to the page, mm on the face: a flap is, by its hinge tab alone."""
    left, top, right, bottom = item.thing.stuck or (0.0, 0.0, item.thing.width_mm, item.thing.height_mm)
    return item.x_mm + left, item.y_mm + top, item.x_mm + right, item.y_mm + bottom


def _inside(box: Box, other: Box) -> bool:
    return (
        other[0] <= box[0] + 0.5
        and other[1] <= box[1] + 0.5
        and box[2] <= other[2] + 0.5
        and box[3] <= other[3] + 0.5
    )


def _beside(item: PlacedItem, band: Box, others: Sequence[PlacedItem]) -> tuple[float, float] | None:
    """The nearest corner for a thing at which it is clear of a band, of everything else and its mouths, and
    on its face."""
    wide, high = item.thing.width_mm, item.thing.height_mm
    tried = [
        (item.x_mm, band[1] - high),
        (item.x_mm, band[3]),
        (band[0] - wide, item.y_mm),
        (band[2], item.y_mm),
    ]
    on = [
        (x, y)
        for x, y in tried
        if 0 <= x <= item.face.width_mm - wide + 1e-6 and 0 <= y <= item.face.height_mm - high + 1e-6
    ]
    free = [
        (x, y) for x, y in on if not any(_meets(replace(item, x_mm=x, y_mm=y), other) for other in others)
    ]
    return min(free, key=lambda at: abs(at[0] - item.x_mm) + abs(at[1] - item.y_mm), default=None)


def _meets(item: PlacedItem, other: PlacedItem) -> bool:
    """Whether a thing would be told of another one on its face."""
    if item.thing.flat_mat or other.thing.flat_mat or item.thing.hole or other.thing.hole:
        return False
    if not (item.thing.swing or other.thing.swing) and over(item.box, other.box):
        return True
    return any(
        open_.thing.mouth is not None and over(mouth_band(open_), glued_box(shut))
        for open_, shut in ((item, other), (other, item))
    )


def _on_faces(pairs: Sequence[Pair]) -> OnFaces:
    """What of these pairs lies on each face."""
    found: dict[str, dict[int, PlacedItem]] = {}
    for pair in pairs:
        for _, item in pair:
            found.setdefault(item.face.name, {})[id(item)] = item
    return {name: list(spots.values()) for name, spots in found.items()}


def _mats_after(pairs: Sequence[Pair], order: Mapping[str, int], record: Extras) -> list[Named]:
    """F4: a mat that is put in after what it lies over."""
    found: dict[str, tuple[PlacedDesign, PlacedDesign]] = {}
    for (item, one), (other, two) in pairs:
        for (under, below), (mat, above) in (((item, one), (other, two)), ((other, two), (item, one))):
            if (
                mat.thing.flat_mat
                and not (under.thing.flat_mat or under.thing.hole)
                and order[mat.key] > order[under.key]
                and over(below.box, above.box)
            ):
                found.setdefault(mat.key, (mat, under))
    return [
        (
            mat.title,
            Check(
                code="F4",
                level="stop",
                title=f"The mat comes after the {under.title} that sits on it.",
                why="A mat goes on before what lies on it; afterwards it covers it.",
                offers=(
                    Offer(label="the mat first", changes=(("extras.items", first_of(record, mat.key)),)),
                ),
            ),
        )
        for mat, under in found.values()
    ]


def first_of(record: Extras, key: str) -> dict[str, object]:
    """All designs, that one before the others."""
    items = {name: item.model_dump(mode="json") for name, item in record.items.items()}
    return {key: items[key], **items}


def _crossing(pairs: Sequence[Pair], shut: Iterable[tuple[str, str]], on: OnFaces) -> list[Named]:
    """F7: flaps that open into each other; and things that lie over each other, but for those that shut a
    mouth, which is told already."""
    shut = set(shut)
    flaps: dict[tuple[str, str], tuple[PlacedDesign, PlacedDesign, list[tuple[PlacedItem, PlacedItem]]]] = {}
    things: dict[tuple[str, str], tuple[PlacedDesign, PlacedDesign, list[tuple[PlacedItem, PlacedItem]]]] = {}
    for (item, one), (other, two) in pairs:
        if (
            one.thing.hole
            or two.thing.hole
            or one.thing.flat_mat
            or two.thing.flat_mat
            or not over(one.box, two.box)
        ):
            continue
        if bool(one.thing.swing) != bool(two.thing.swing):
            continue  # a flap over a picture hides it: that is what it is for
        place = flaps if one.thing.swing else things
        place.setdefault((item.key, other.key), (item, other, []))[2].append((one, two))
    found = [
        (
            item.title,
            _into_each_other(other, both),
        )
        for item, other, both in flaps.values()
    ]
    for item, other, both in things.values():
        if (item.key, other.key) in shut or (other.key, item.key) in shut:
            continue
        aside = _asides(both, on, lambda one: one.box)
        found.append(
            (
                item.title,
                Check(
                    code="overlap",
                    level="watch",
                    title=f"The {item.title} and the {other.title} lie over each other on "
                    f"{on_faces(one for one, _ in both)}.",
                    why="The one below is hidden, and the place is as thick as both.",
                    offers=(
                        *(
                            (Offer(label=f"move the {other.title} beside it", changes=moved(other, aside)),)
                            if aside
                            else ()
                        ),
                        Offer(
                            label=f"take the {other.title} away there",
                            changes=without(other, (two.number for _, two in both)),
                        ),
                    ),
                ),
            )
        )
    return found


def _into_each_other(other: PlacedDesign, both: Any) -> Check:
    """F7: two flaps that lie over each other."""
    return Check(
        code="F7",
        level="watch",
        title=f"Two flaps lie over each other on {on_faces(one for one, _ in both)}: they open into "
        "each other.",
        why="One has to be opened first and shut last, or they tear.",
        offers=(
            Offer(
                label=f"take the {other.title} away there",
                changes=without(other, (two.number for _, two in both)),
            ),
        ),
    )
