"""What can go wrong with what is put in: faces that are gone, things past the edge, mouths that are shut, flaps in each other's way, all in one spot."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Final

from pleat.core.bulk import Bulk, Patch
from pleat.core.estimate import Estimate
from pleat.core.extras import crossing, gussets
from pleat.core.extras.base import MOST_PLACES, Face, LeftOfExtras, Placed
from pleat.core.extras.kinds.flap import Flap
from pleat.core.extras.record import MOST, Extras
from pleat.core.extras.spots import TOLD, Item, Spot, corners, moved, on_faces, over, without
from pleat.core.plan import Check, Offer
from pleat.core.words import joined, many

HAND_MM: Final = 20.0
"""A hand needs so much before a mouth to pull something out (house rule)."""


@dataclass(frozen=True)
class Asked:
    """What the checks are asked about."""

    items: tuple[Item, ...]
    faces: Mapping[str, Face]
    left: LeftOfExtras
    record: Extras
    bulk: Bulk
    beyond: Estimate
    put: tuple[tuple[Spot, tuple[Patch, ...]], ...]


def find(asked: Asked) -> tuple[Check, ...]:
    """Every check that has something to say, each design's own first."""
    found: list[Check | None] = []
    for item in asked.items:
        own = {(check.key, check.title): check for one in item.spots or (None,) for check in (one.thing if one else item.thing).checks}
        found += own.values()
        found += [
            _gone(item, asked),
            _past_the_edge(item, asked),
            _mouth_at_spine(item, asked),
            _blank(item, asked),
            _way_up(item, asked),
            _no_partner(item),
        ]
    together: dict[str, list[tuple[Item, Spot]]] = {}
    for item in asked.items:
        for one in item.spots:
            together.setdefault(one.face.name, []).append((item, one))
    pairs = [pair for spots in together.values() for pair in combinations(spots, 2)]
    order = {item.key: number for number, item in enumerate(asked.items)}
    found += [*crossing.checks(pairs, order, asked.record), *_through(asked, together), _one_spot(asked), _gapes(asked), _heavy(asked)]
    found += gussets.checks(asked.left.pages, asked.put, asked.left.brief.ruler)
    return tuple({(one.key, one.title): one for one in found if one}.values())


def _gone(item: Item, asked: Asked) -> Check | None:
    """A6: a place on a face that is not there."""
    if not item.lost:
        return None
    taken = {one.face.name for one in item.spots}
    free = [face for face in asked.faces.values() if face.name not in taken][: len(item.lost)]
    offers = [Offer("take it away there", without(item, (number for number, _ in item.lost)))]
    if len(free) == len(item.lost):
        to = dict(zip((number for number, _ in item.lost), free, strict=True))
        places = [
            Placed(on=to[number].name, x_mm=place.x_mm, y_mm=place.y_mm).model_dump() if number in to else place.model_dump()
            for number, place in enumerate(item.record.places)
        ]
        offers.insert(
            0,
            Offer(
                f"move it to {joined([face.title for face in free[:3]])}{' and on' if len(free) > 3 else ''}",
                ((f"extras.items.{item.key}.places", places),),
            ),
        )
    names = joined(list(dict.fromkeys(place.on for _, place in item.lost))[:TOLD])
    return Check(
        "A6",
        "stop",
        f"The {item.title} goes on {names}, and there is no such face.",
        "The book has fewer faces than when it was put there. It is kept, but not cut and not counted.",
        tuple(offers),
    )


def _past_the_edge(item: Item, asked: Asked) -> Check | None:
    """F9: larger than the face that carries it, or put past its edge; what stands out of a pocket counts."""
    ruler = asked.left.brief.ruler
    out: dict[int, tuple[float, float]] = {}
    large, spots = False, []
    for one in item.spots:
        stands = one.thing.stands_mm if one.thing.mouth else 0.0
        left, top, right, bottom = one.box
        side = one.thing.mouth.side if one.thing.mouth else "head"
        need = (
            left - stands * (side == "left"),
            top - stands * (side == "head"),
            right + stands * (side == "right"),
            bottom + stands * (side == "tail"),
        )
        face = one.face
        if need[0] >= -0.3 and need[1] >= -0.3 and need[2] <= face.width_mm + 0.3 and need[3] <= face.height_mm + 0.3:
            continue
        spots.append(one)
        wide, high = need[2] - need[0], need[3] - need[1]
        if wide > face.width_mm + 0.3 or high > face.height_mm + 0.3:
            large = True
            continue
        dx = max(-need[0], 0.0) - max(need[2] - face.width_mm, 0.0)
        dy = max(-need[1], 0.0) - max(need[3] - face.height_mm, 0.0)
        out[one.number] = (one.x_mm + dx, one.y_mm + dy)
    if not spots:
        return None
    first = spots[0]
    size = ruler.size(first.thing.width_mm, first.thing.height_mm)
    standing = f", and what is in it stands out {ruler.show(first.thing.stands_mm)}" if first.thing.stands_mm else ""
    offers = []
    if out:
        offers.append(Offer("move it in from the edge", moved(item, out)))
    if large:
        own = f"extras.items.{item.key}"
        own_size = [
            name
            for name in ("width_mm", "height_mm")
            if (field := type(item.record).model_fields.get(name)) and field.default is None and getattr(item.record, name) is not None
        ]
        if own_size:
            offers.append(Offer("let it find its size", tuple((f"{own}.{name}", None) for name in own_size)))
        if hasattr(item.record, "lies"):
            turned = "level" if item.record.lies == "upright" else "upright"
            offers.append(Offer(f"what goes in lies {turned}", ((f"{own}.lies", turned),)))
        offers.append(Offer("take it away there", without(item, (one.number for one in spots))))
    return Check(
        "F9",
        "stop",
        f"The {item.title} of {size} comes past the edge of {on_faces(spots)}{standing}.",
        f"The face is {ruler.size(first.face.width_mm, first.face.height_mm)}. It catches, and keeps the book from shutting.",
        tuple(offers),
    )


def _mouth_at_spine(item: Item, asked: Asked) -> Check | None:
    """F2: a mouth that opens towards the spine, with no room for a hand."""
    ruler, spots = asked.left.brief.ruler, []
    for one in item.spots:
        mouth, face = one.thing.mouth, one.face
        if mouth is None or face.spine == "none" or mouth.side != face.spine:
            continue
        room = one.x_mm if face.spine == "left" else face.width_mm - one.box[2]
        if room - one.thing.stands_mm < HAND_MM:
            spots.append(one)
    if not spots or not hasattr(item.record, "mouth"):
        return None
    other = "right" if spots[0].face.spine == "left" else "left"
    own = f"extras.items.{item.key}.mouth"
    return Check(
        "F2",
        "watch",
        f"The {item.title} opens into the gutter on {on_faces(spots)}.",
        f"A hand needs {ruler.show(HAND_MM)} before the mouth to pull something out.",
        (Offer("its mouth at the head", ((own, "head"),)), Offer(f"its mouth at the {other}", ((own, other),))),
    )


def _blank(item: Item, asked: Asked) -> Check | None:
    """B9: a flap cut from a paper that is printed on one side shows the other when it is opened."""
    if not isinstance(item.record, Flap) or not item.spots or asked.left.paper.stock(item.record.stock).sides != 1:
        return None
    stock = asked.left.paper.stock(item.record.stock)
    others = [name for name in ("card", "mat", "leaf") if name != item.record.stock and asked.left.paper.stock(name).sides == 2]
    offers = tuple(
        Offer(f"cut it from {asked.left.paper.stock(name).name}", ((f"extras.items.{item.key}.stock", name),)) for name in others[:2]
    )
    return Check(
        "B9",
        "watch",
        f"The {item.title} shows the blank side of {stock.name} when it is opened.",
        "The paper is good on one side only.",
        offers,
        "" if offers else "Give its inside a paper of its own.",
    )


def _way_up(item: Item, asked: Asked) -> Check | None:
    """B10: a flap of a paper with a top, hinged at its head or tail, shows it upside down when it is opened."""
    if not isinstance(item.record, Flap) or not item.spots or item.record.hinge not in ("head", "tail"):
        return None
    stock = asked.left.paper.stock(item.record.stock)
    if not stock.upright_only:
        return None
    own = f"extras.items.{item.key}"
    sides = [side for side in ("left", "right") if all(one.face.spine != side for one in item.spots)]
    return Check(
        "B10",
        "watch",
        f"The pattern of {stock.name} stands on its head on the {item.title} when it is opened.",
        f"Turned up about its {item.record.hinge}, the flap is upside down; about a side it stays upright.",
        tuple(Offer(f"hinged at the {side}", ((f"{own}.hinge", side),)) for side in sides),
        "" if sides else "Cut it from a paper without a top, or hinge it at the side on pages that lie one way.",
    )


def _no_partner(item: Item) -> Check | None:
    """F3: a fastener on a face that lies against nothing."""
    if item.record.kind != "fastener":
        return None
    alone = [one for one in item.spots if one.face.spine != "none" and not one.face.facing]
    if not alone:
        return None
    return Check(
        "F3",
        "stop",
        f"The {item.title} on {on_faces(alone)} have nothing to hold on to: no page lies against that one.",
        "The other half needs a face where it lands.",
        (Offer("take them away there", without(item, (one.number for one in alone))),),
    )


def _through(asked: Asked, together: Mapping[str, list[tuple[Item, Spot]]]) -> list[Check]:
    """A hole through the leaf where something lies on its other side."""
    found = {}
    for item in asked.items:
        for one in item.spots:
            if not one.thing.hole:
                continue
            face = one.face
            behind = asked.faces.get(face.behind)
            if behind is None or face.spine == "none":
                continue
            mirrored = (face.width_mm - one.box[2], one.box[1], face.width_mm - one.box[0], one.box[3])
            for other, two in together.get(face.behind, []):
                if over(mirrored, two.box) and not two.thing.hole:
                    found[item.key, other.key] = (item, other, one)
    return [
        Check(
            "through",
            "watch",
            f"The {item.title} on {one.face.title} goes through to the {other.title} behind it.",
            "It is cut or pressed through the leaf; what lies there comes after, or goes elsewhere.",
            (Offer(f"take the {item.title} away there", without(item, (one.number,))),),
        )
        for item, other, one in found.values()
    ]


def _one_spot(asked: Asked) -> Check | None:
    """F6: thick things on one spot of successive leaves."""
    ruler = asked.left.brief.ruler
    tall = [
        (item, one)
        for item in asked.items
        for one in item.spots
        if max((layer.thick.likely for layer in one.thing.layers), default=0.0) >= THICK_MM
    ]
    tall.sort(key=lambda pair: pair[1].face.leaf)
    run: list[tuple[Item, Spot]] = []
    longest: list[tuple[Item, Spot]] = []
    for pair in tall:
        if run and pair[1].face.leaf - run[-1][1].face.leaf <= 1 and over(_shut(pair[1]), _shut(run[-1][1]), 5.0):
            run.append(pair)
        else:
            run = [pair]
        longest = max(longest, run, key=_leaves)
    if _leaves(longest) < 3:
        return None
    thick = sum(max(layer.thick.likely for layer in one.thing.layers) for _, one in longest)
    turns = _in_turns(longest)
    return Check(
        "F6",
        "watch",
        f"On one spot of successive leaves lie {many(len(longest), 'thick thing')}: {ruler.thin(thick)} there.",
        f"On {on_faces(one for _, one in longest)}. The book gapes there and is hollow elsewhere.",
        turns,
        "" if turns else "They are too large to lie beside each other: take fewer or thinner ones, or put them on pages farther apart.",
    )


def _in_turns(run: Sequence[tuple[Item, Spot]]) -> tuple[Offer, ...]:
    """Each in another corner than the one before, where that keeps them off each other."""
    leaves = sorted({one.face.leaf for _, one in run})
    to: dict[str, dict[int, tuple[float, float]]] = {}
    before: Spot | None = None
    for item, one in run:
        ends = corners(one.face, one.thing)
        x, y = ends[(0, 3, 1, 2)[leaves.index(one.face.leaf) % 4] % len(ends)]
        now = Spot(one.number, one.face, one.thing, x, y)
        if before and over(_shut(now), _shut(before), 5.0):
            return ()
        to.setdefault(item.key, {})[one.number], before = (x, y), now
    items = {item.key: item for item, _ in run}
    return (
        Offer("each in another corner than the last", tuple(change for key, places in to.items() for change in moved(items[key], places))),
    )


THICK_MM: Final = 0.8
GAPES_MM: Final = 2.0
LEAF_WITH_EXTRAS_MM: Final = 0.3
"""A leaf as thick as this is card; with much put in, the book comes out too thick (house rule)."""


def _gapes(asked: Asked) -> Check | None:
    """F5: what is put in makes the leaves thicker than the spine can be, where they are sewn or glued at it. Rings and hinges have room of their own, and say what they allow."""
    pages, ruler = asked.left.pages, asked.left.brief.ruler
    more = asked.beyond.likely
    if asked.left.brief.made_of.binding.at not in ("fold", "spine", "block") or more <= max(GAPES_MM, 0.25 * pages.thickness.likely):
        return None
    worst = asked.bulk.worst()
    spacers = _spaced(asked, more)
    return Check(
        "F5",
        "watch",
        f"Shut, the book gapes by {ruler.thin(more)}: so much more lies {ruler.show(worst.x_mm)} from the spine and {ruler.show(worst.y_mm)} from the head than at the spine.",
        f"The leaves are {ruler.thin(pages.thickness.likely)}, what is put in {ruler.thin(worst.thick.low)} to {ruler.thin(worst.thick.high)} at its thickest.",
        spacers,
        "" if spacers else "Stagger them, or put in fewer or thinner things.",
    )


def _spaced(asked: Asked, more: float) -> tuple[Offer, ...]:
    """Spacers of card on enough pages, even from front to back."""
    caliper = asked.left.paper.stock("card").caliper.likely
    fronts = [face for face in asked.faces.values() if face.spine == "left" and not face.cover]
    if not fronts or "spacers" in asked.record.items or len(asked.record.items) >= MOST:
        return ()
    need = math.ceil(more / caliper - 1e-9)
    layers = math.ceil(need / min(len(fronts), MOST_PLACES))
    if layers > MOST_LAYERS:
        return ()
    count = math.ceil(need / layers)
    on = [fronts[number * len(fronts) // count] for number in range(count)]
    record = {"kind": "spacer", "layers": layers, "places": [{"on": face.name} for face in on]}
    words = f"{many(count, 'spacer')} of {many(layers, 'strip')} of card at the spine"
    return (Offer(words, (("extras.items.spacers", record),)),)


MOST_LAYERS: Final = 20


def _heavy(asked: Asked) -> Check | None:
    """B11: leaves of card, and things put on them."""
    leaf, ruler, pages = asked.left.paper.leaf, asked.left.brief.ruler, asked.left.pages
    if asked.left.brief.made_of.binding.at not in ("fold", "spine", "block") or leaf.caliper.likely < LEAF_WITH_EXTRAS_MM:
        return None
    if pages.leaves * leaf.caliper.likely < HEAVY_MM:
        return None
    return Check(
        "B11",
        "watch",
        f"Leaves of {ruler.fine(leaf.caliper.likely)} are card: {pages.leaves} of them are {ruler.thin(pages.thickness.likely)} before anything is put in.",
        "So heavy a paper is better kept for the pockets; leaves of 0.1 to 0.2 mm carry them as well.",
        no_fix="Choose another paper for the leaves under Paper, and cut the pockets from this one.",
    )


HEAVY_MM: Final = 8.0
"""So many leaves of card are a block that is hard to shut (house rule)."""


def _leaves(run: Sequence[tuple[Item, Spot]]) -> int:
    """On how many leaves they lie."""
    return len({one.face.leaf for _, one in run})


def _shut(one: Spot) -> tuple[float, float, float, float]:
    """Its box in the shut book."""
    (a, b), (c, d) = one.face.placed(one.box[0], one.box[1]), one.face.placed(one.box[2], one.box[3])
    return min(a, c), min(b, d), max(a, c), max(b, d)


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
