"""What can go wrong with what is put in: faces that are gone, things past the edge, mouths that are shut,
flaps in each other's way, all in one spot."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import combinations

from pleat.core.base.plan import Check, Offer
from pleat.core.base.words import joined
from pleat.core.pleats.extras import crossing, even, gussets
from pleat.core.pleats.extras.asked import ExtrasContext
from pleat.core.pleats.extras.base import Placed
from pleat.core.pleats.extras.crossing import Named
from pleat.core.pleats.extras.kinds.flap import Flap
from pleat.core.pleats.extras.spots import TOLD, PlacedDesign, PlacedItem, moved, on_faces, over, without
from pleat.core.trade.extras import HAND_MM


def find(asked: ExtrasContext) -> tuple[Check, ...]:
    """Every check that has something to say, each design's own first."""
    found: list[tuple[str, Check | None]] = []
    for item in asked.items:
        own = {
            (check.key, check.title): check
            for one in item.spots or (None,)
            for check in (one.thing if one else item.thing).checks
        }
        about = (
            _gone(item, asked),
            _past_the_edge(item, asked),
            _mouth_at_spine(item, asked),
            _blank(item, asked),
            _way_up(item, asked),
            _hinged_at_spine(item),
        )
        found += [(item.title, check) for check in (*own.values(), *about, _no_partner(item))]
    together: dict[str, list[tuple[PlacedDesign, PlacedItem]]] = {}
    for item in asked.items:
        for spot in item.spots:
            together.setdefault(spot.face.name, []).append((item, spot))
    pairs = [pair for spots in together.values() for pair in combinations(spots, 2)]
    order = {item.key: number for number, item in enumerate(asked.items)}
    found += [*crossing.checks(pairs, order, asked.record), *_through(asked, together)]
    found += [
        ("", check)
        for check in (
            *even.checks(asked),
            *gussets.checks(asked.left.pages, asked.put, asked.left.brief.ruler),
        )
    ]
    return told_apart([(name, check) for name, check in found if check])


def told_apart(named: Sequence[Named]) -> tuple[Check, ...]:
    """The checks, those of one title with what they are about, and their fixes of one name as well."""
    titles = Counter((check.key, check.title) for _, check in named)
    fixes: dict[tuple[str, str], set[str]] = {}
    for _, check in named:
        for offer in check.offers:
            fixes.setdefault((check.key, offer.label), set()).add(offer.key)
    checks = []
    for name, check in named:
        title = (
            f"{name[:1].upper()}{name[1:]}: {check.title[:1].lower()}{check.title[1:]}"
            if titles[check.key, check.title] > 1
            else check.title
        )
        offers = tuple(
            replace(one, label=f"{one.label} ({name})") if len(fixes[check.key, one.label]) > 1 else one
            for one in check.offers
        )
        checks.append(replace(check, title=title, offers=offers))
    return tuple(checks)


def _gone(item: PlacedDesign, asked: ExtrasContext) -> Check | None:
    """A6: a place on a face that is not there."""
    if not item.lost:
        return None
    taken = {spot.face.name for spot in item.spots}
    free = [face for face in asked.faces.values() if face.name not in taken][: len(item.lost)]
    offers = [Offer(label="take it away there", changes=without(item, (number for number, _ in item.lost)))]
    if len(free) == len(item.lost):
        to = dict(zip((number for number, _ in item.lost), free, strict=True))
        places = [
            Placed(on=to[number].name, x_mm=place.x_mm, y_mm=place.y_mm).model_dump()
            if number in to
            else place.model_dump()
            for number, place in enumerate(item.record.places)
        ]
        more = " and on" if len(free) > 3 else ""
        offers.insert(
            0,
            Offer(
                label=f"move it to {joined([face.title for face in free[:3]])}{more}",
                changes=((f"extras.items.{item.key}.places", places),),
            ),
        )
    names = joined(list(dict.fromkeys(place.on for _, place in item.lost))[:TOLD])
    return Check(
        code="A6",
        level="stop",
        title=f"The {item.title} goes on {names}, and there is no such face.",
        why="The book has fewer faces than when it was put there. It is kept, but not cut and not counted.",
        offers=tuple(offers),
    )


def _past_the_edge(item: PlacedDesign, asked: ExtrasContext) -> Check | None:
    """F9: larger than the face that carries it, or put past its edge; what stands out of a pocket counts."""
    ruler = asked.left.brief.ruler
    out: dict[int, tuple[float, float]] = {}
    large, spots = False, []
    for spot in item.spots:
        stands = spot.thing.stands_mm if spot.thing.mouth else 0.0
        left, top, right, bottom = spot.box
        side = spot.thing.mouth.side if spot.thing.mouth else "head"
        need = (
            left - stands * (side == "left"),
            top - stands * (side == "head"),
            right + stands * (side == "right"),
            bottom + stands * (side == "tail"),
        )
        face = spot.face
        if (
            need[0] >= -0.3
            and need[1] >= -0.3
            and need[2] <= face.width_mm + 0.3
            and need[3] <= face.height_mm + 0.3
        ):
            continue
        spots.append(spot)
        wide, high = need[2] - need[0], need[3] - need[1]
        if wide > face.width_mm + 0.3 or high > face.height_mm + 0.3:
            large = True
            continue
        dx = max(-need[0], 0.0) - max(need[2] - face.width_mm, 0.0)
        dy = max(-need[1], 0.0) - max(need[3] - face.height_mm, 0.0)
        out[spot.number] = (spot.x_mm + dx, spot.y_mm + dy)
    if not spots:
        return None
    first = spots[0]
    size = ruler.size(first.thing.width_mm, first.thing.height_mm)
    standing = (
        f", and what is in it stands out {ruler.show(first.thing.stands_mm)}" if first.thing.stands_mm else ""
    )
    return Check(
        code="F9",
        level="stop",
        title=f"The {item.title} of {size} comes past the edge of {on_faces(spots)}{standing}.",
        why=f"The face is {ruler.size(first.face.width_mm, first.face.height_mm)}. It catches, and keeps the "
        "book from shutting.",
        offers=tuple(_moved_in(item, asked, spots, out, large)),
    )


def _moved_in(
    item: PlacedDesign,
    asked: ExtrasContext,
    spots: list[PlacedItem],
    out: Mapping[int, tuple[float, float]],
    large: bool,
) -> list[Offer]:
    """Back on its face by moving, by another size, or away; ``out`` says where moving brings it."""
    offers = []
    if out:
        offers.append(Offer(label="move it in from the edge", changes=moved(item, out)))
    if large:
        own = f"extras.items.{item.key}"
        own_size = [
            name
            for name in ("width_mm", "height_mm")
            if (field := type(item.record).model_fields.get(name))
            and field.default is None
            and getattr(item.record, name) is not None
        ]
        if own_size:
            offers.append(
                Offer(
                    label="let it find its size", changes=tuple((f"{own}.{name}", None) for name in own_size)
                )
            )
        if (turned := _turned(item, spots, asked)) is not None:
            offers.append(Offer(label=f"what goes in lies {turned}", changes=((f"{own}.lies", turned),)))
        offers.append(
            Offer(label="take it away there", changes=without(item, (spot.number for spot in spots)))
        )
    return offers


def _turned(item: PlacedDesign, spots: Sequence[PlacedItem], asked: ExtrasContext) -> str | None:
    """The other way for what goes in to lie, if it fits all these faces so."""
    lies = getattr(item.record, "lies", None)
    if lies is None:
        return None
    other = "level" if lies == "upright" else "upright"
    record = item.record.model_copy(update={"lies": other})
    for spot in spots:
        thing = item.kind.compute(record, item.key, spot.face, asked.left)
        upright = thing.mouth is None or thing.mouth.side in ("head", "tail")
        wide = thing.width_mm + (0.0 if upright else thing.stands_mm)
        high = thing.height_mm + (thing.stands_mm if upright else 0.0)
        if wide > spot.face.width_mm + 0.3 or high > spot.face.height_mm + 0.3:
            return None
    return other


def _free_sides(item: PlacedDesign) -> list[str]:
    """The sides of a page that are held on none of the faces it lies on."""
    return [side for side in ("right", "left") if all(spot.face.spine != side for spot in item.spots)]


def _mouth_at_spine(item: PlacedDesign, asked: ExtrasContext) -> Check | None:
    """F2: a mouth that opens towards the spine, with no room for a hand."""
    ruler, spots = asked.left.brief.ruler, []
    for spot in item.spots:
        mouth, face = spot.thing.mouth, spot.face
        if mouth is None or face.spine == "none" or mouth.side != face.spine:
            continue
        room = spot.x_mm if face.spine == "left" else face.width_mm - spot.box[2]
        if room - spot.thing.stands_mm < HAND_MM:
            spots.append(spot)
    if not spots or not hasattr(item.record, "mouth"):
        return None
    own = f"extras.items.{item.key}.mouth"
    return Check(
        code="F2",
        level="watch",
        title=f"The {item.title} opens into the gutter on {on_faces(spots)}.",
        why=f"A hand needs {ruler.show(HAND_MM)} before the mouth to pull something out.",
        offers=(
            Offer(label="its mouth at the head", changes=((own, "head"),)),
            *(Offer(label=f"its mouth at the {side}", changes=((own, side),)) for side in _free_sides(item)),
        ),
    )


def _blank(item: PlacedDesign, asked: ExtrasContext) -> Check | None:
    """B9: a flap cut from a paper that is printed on one side shows the other when it is opened."""
    if (
        not isinstance(item.record, Flap)
        or not item.spots
        or asked.left.paper.stock(item.record.stock).sides != 1
    ):
        return None
    stock = asked.left.paper.stock(item.record.stock)
    others = [
        name
        for name in ("card", "mat", "leaf")
        if name != item.record.stock and asked.left.paper.stock(name).sides == 2
    ]
    offers = tuple(
        Offer(
            label=f"cut it from {asked.left.paper.stock(name).name}",
            changes=((f"extras.items.{item.key}.stock", name),),
        )
        for name in others[:2]
    )
    return Check(
        code="B9",
        level="watch",
        title=f"The {item.title} shows the blank side of {stock.name} when it is opened.",
        why="The paper is good on one side only.",
        offers=offers,
        no_fix="" if offers else "Give its inside a paper of its own.",
    )


def _hinged_at_spine(item: PlacedDesign) -> Check | None:
    """F7: a flap hinged where the page is held."""
    if not isinstance(item.record, Flap):
        return None
    spots = [spot for spot in item.spots if spot.face.spine == item.record.hinge]
    if not spots:
        return None
    own = f"extras.items.{item.key}.hinge"
    return Check(
        code="F7",
        level="watch",
        title=f"The {item.title} is hinged on the spine's side on {on_faces(spots)}: it opens into the "
        "gutter.",
        why="There is no room for it to lie down there, and the facing page is pushed up.",
        offers=(
            Offer(label="hinged at the head", changes=((own, "head"),)),
            *(Offer(label=f"hinged at the {side}", changes=((own, side),)) for side in _free_sides(item)),
        ),
    )


def _way_up(item: PlacedDesign, asked: ExtrasContext) -> Check | None:
    """B10: a flap of a paper with a top, hinged at its head or tail, shows it upside down when it is
    opened."""
    if not isinstance(item.record, Flap) or not item.spots or item.record.hinge not in ("head", "tail"):
        return None
    stock = asked.left.paper.stock(item.record.stock)
    if not stock.upright_only:
        return None
    own = f"extras.items.{item.key}"
    sides = _free_sides(item)
    return Check(
        code="B10",
        level="watch",
        title=f"The pattern of {stock.name} stands on its head on the {item.title} when it is opened.",
        why=f"Turned up about its {item.record.hinge}, the flap is upside down; about a side it stays "
        "upright.",
        offers=tuple(
            Offer(label=f"hinged at the {side}", changes=((f"{own}.hinge", side),)) for side in sides
        ),
        no_fix=""
        if sides
        else "Cut it from a paper without a top, or hinge it at the side on pages that lie one way.",
    )


def _no_partner(item: PlacedDesign) -> Check | None:
    """F3: a fastener on a face that lies against nothing."""
    if item.record.kind != "fastener":
        return None
    alone = [spot for spot in item.spots if spot.face.spine != "none" and not spot.face.facing]
    if not alone:
        return None
    return Check(
        code="F3",
        level="stop",
        title=f"The {item.title} on {on_faces(alone)} have nothing to hold on to: no page lies against that "
        "one.",
        why="The other half needs a face where it lands.",
        offers=(Offer(label="take them away there", changes=without(item, (one.number for one in alone))),),
    )


def _through(
    asked: ExtrasContext, together: Mapping[str, list[tuple[PlacedDesign, PlacedItem]]]
) -> list[Named]:
    """A hole through the leaf where something lies on its other side."""
    found = {}
    for item in asked.items:
        for spot in item.spots:
            if not spot.thing.hole:
                continue
            face = spot.face
            behind = asked.faces.get(face.behind)
            if behind is None or face.spine == "none":
                continue
            mirrored = (face.width_mm - spot.box[2], spot.box[1], face.width_mm - spot.box[0], spot.box[3])
            for other, two in together.get(face.behind, []):
                if over(mirrored, two.box) and not two.thing.hole:
                    found[item.key, other.key] = (item, other, spot)
    return [
        (
            item.title,
            Check(
                code="through",
                level="watch",
                title=f"The {item.title} on {one.face.title} goes through to the {other.title} behind it.",
                why="It is cut or pressed through the leaf; what lies there comes after, or goes elsewhere.",
                offers=(
                    Offer(label=f"take the {item.title} away there", changes=without(item, (one.number,))),
                ),
            ),
        )
        for item, other, one in found.values()
    ]
