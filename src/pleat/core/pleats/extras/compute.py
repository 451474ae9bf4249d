"""Extras: each design worked out once for every size of face it goes on, every place of it, what all of them
come to by place, and what is done for them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Count, Figure, Fold, Offer, Part, Piece, PleatResult, Rule, Step
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.bulk import NOWHERE, Bulk, Patch, Worst
from pleat.core.engines.folding.sheet import Piece as Sheet
from pleat.core.engines.folding.sheet import scores
from pleat.core.pleats.extras import checks, steps
from pleat.core.pleats.extras.asked import ExtrasContext
from pleat.core.pleats.extras.base import Extra, Face, LeftOfExtras, Placed, Thing
from pleat.core.pleats.extras.faces import by_name, faces_of
from pleat.core.pleats.extras.hiding import hiding
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.extras.record import Extras
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, spot
from pleat.core.pleats.extras.spreads import spreading, spreads
from pleat.core.trade.extras import AT_SPINE_MM

NOTHING: Final = Estimate.exact(0.0)
EMPTY: Final = Bulk(())


@dataclass(frozen=True)
class WorkedDesign:
    """A design with what follows from it alone: its patches at every place, its pieces, its steps, the ways
    to spread it."""

    item: PlacedDesign
    put: tuple[tuple[PlacedItem, tuple[Patch, ...]], ...]
    parts: tuple[Piece, ...]
    steps: tuple[Step, ...]
    spreads: tuple[Offer, ...]


@dataclass(frozen=True, kw_only=True)
class ExtrasResult(PleatResult):
    """What is put in: ``items`` by their keys, and the ``bulk`` by place. ``added`` is what they add at the
    spine, ``worst`` where they lie thickest; ``left`` and ``worked`` are what it came from."""

    added: Estimate
    worst: Worst
    left: LeftOfExtras = field(repr=False)
    items: tuple[PlacedDesign, ...] = ()
    bulk: Bulk = EMPTY
    worked: tuple[WorkedDesign, ...] = field(default=(), compare=False, repr=False)

    @property
    def idle(self) -> bool:
        return not self.items

    @cached_property
    def faces(self) -> tuple[Face, ...]:
        """What things are put on. Worked out when it is asked for: of a folded structure it takes as long as
        the structure."""
        return all_faces(self.left)

    @property
    def beyond(self) -> Estimate:
        """What they add at their thickest place beyond what they add at the spine already."""
        return beyond(self.worst.thick, self.added)

    @cached_property
    def on_leaf(self) -> Estimate:
        """The most that lies on one leaf."""
        each: dict[int, list[Patch]] = {}
        for patch in self.bulk.patches:
            each.setdefault(patch.leaf, []).append(patch)
        return max(
            (Bulk(tuple(on)).worst().thick for on in each.values()),
            key=lambda estimate: estimate.likely,
            default=NOTHING,
        )


def beyond(worst: Estimate, spine: Estimate) -> Estimate:
    """What lies at the thickest place beyond what lies at the spine."""
    return worst if not spine.likely else Estimate(max(worst.likely - spine.likely, 0.0), worst.doubts)


def compute(extras: Extras, left: LeftOfExtras, before: ExtrasResult | None = None) -> ExtrasResult:
    """What the extras add. A place on a face that is not there is kept, and told. What a design comes to is
    taken from ``before`` where it was worked out from the same."""
    if not extras.items:
        nothing = Figure(
            key="added",
            label="added",
            value="nothing yet",
            show="text",
            how="No pockets, flaps, bands or pictures are in this book.",
            rules=(),
        )
        return ExtrasResult(
            key_figure=nothing, figures=(), checks=(), added=NOTHING, worst=NOWHERE, left=left
        )
    named = by_name(all_faces(left))
    known = {design.item.key: design for design in before.worked} if before and before.left == left else {}
    works = _worked(extras, named, left, known)
    items = tuple(design.item for design in works)
    put = tuple(pair for design in works for pair in design.put)
    bulk = Bulk(tuple(patch for _, own in put for patch in own))
    worst, spine = bulk.worst(), bulk.worst(AT_SPINE_MM)
    ruler = left.brief.ruler
    return ExtrasResult(
        key_figure=_count(items, worst, ruler),
        figures=_figures(items, bulk, worst, ruler),
        checks=checks.find(
            ExtrasContext(items, named, left, extras, bulk, beyond(worst.thick, spine.thick), put)
        ),
        offers=(
            *(offer for design in works for offer in design.spreads),
            *(offer for item in items for offer in hiding(item, extras.items, ruler)),
        ),
        parts=tuple(part for design in works for part in design.parts),
        steps=(*(step for design in works for step in design.steps), *steps.filling(items)),
        added=spine.thick,
        worst=worst,
        items=items,
        bulk=bulk,
        left=left,
        worked=works,
    )


def all_faces(left: LeftOfExtras) -> tuple[Face, ...]:
    """The faces of the block, and the insides of a cover."""
    return faces_of(left.pages, covered=left.brief.made_of.cover.name != "bare")


def _worked(
    extras: Extras, named: Mapping[str, Face], left: LeftOfExtras, known: Mapping[str, WorkedDesign]
) -> tuple[WorkedDesign, ...]:
    """The designs, those of one title numbered, with what follows from each alone."""
    designs, seen, on = [], Counter[str](), spreading(tuple(named.values()))
    for key, record in extras.items.items():
        if not isinstance(record, Extra):
            continue
        old = known.get(key)
        item = old.item if old and old.item.record == record else _item(key, record, named, left)
        seen[item.thing.title] += 1
        number = seen[item.thing.title] if seen[item.thing.title] > 1 else 0
        if old and old.item is item and item.number == number:
            designs.append(old)
            continue
        item = replace(item, number=number)
        put = tuple((one, patches(item, one)) for one in item.spots)
        parts = _parts(item, left)
        designs.append(WorkedDesign(item, put, parts, steps.of(item, left, parts), spreads(item, on)))
    return tuple(designs)


def _item(key: str, record: Extra, named: Mapping[str, Face], left: LeftOfExtras) -> PlacedDesign:
    """A design on all its places; worked out once for each size of face."""
    kind = EXTRAS.find(record.kind) or EXTRAS.members[0]
    sizes: dict[tuple[float, float, str], Thing] = {}

    def on(face: Face) -> Thing:
        size = (face.width_mm, face.height_mm, face.spine)
        if size not in sizes:
            sizes[size] = kind.compute(record, key, face, left)
        return sizes[size]

    spots = tuple(
        spot(number, place, named[place.on], on(named[place.on]))
        for number, place in enumerate(record.places)
        if place.on in named
    )
    lost: tuple[tuple[int, Placed], ...] = tuple(
        (number, place) for number, place in enumerate(record.places) if place.on not in named
    )
    usual = next(
        iter(named.values()), Face("", "no face", 0, left.brief.leaf_width_mm, left.brief.leaf_height_mm)
    )
    return PlacedDesign(key, kind, record, spots[0].thing if spots else on(usual), spots, lost)


def patches(item: PlacedDesign, one: PlacedItem) -> tuple[Patch, ...]:
    """Its layers where they lie in the shut book, cut off at the edges of their face."""
    found = []
    face = one.face
    for layer in one.thing.layers:
        x0, y0 = max(one.x_mm + layer.x_mm, 0.0), max(one.y_mm + layer.y_mm, 0.0)
        x1 = min(one.x_mm + layer.x_mm + layer.width_mm, face.width_mm)
        y1 = min(one.y_mm + layer.y_mm + layer.height_mm, face.height_mm)
        if x1 - x0 < 1e-6 or y1 - y0 < 1e-6:
            continue
        (a, b), (c, d) = face.placed(x0, y0), face.placed(x1, y1)
        found.append(
            Patch(
                face.leaf, min(a, c), min(b, d), max(a, c), max(b, d), layer.thick, f"{item.key}/{one.number}"
            )
        )
    return tuple(found)


def _parts(item: PlacedDesign, left: LeftOfExtras) -> tuple[Piece, ...]:
    """The pieces of a design by size, and what is counted out."""
    things = {
        id(one.thing): one.thing for one in item.spots
    }  # one for every size of face, not for every place
    times = Counter(id(one.thing) for one in item.spots)
    sizes: dict[tuple[object, ...], Part] = {}
    for key, thing in things.items():
        for sheet in thing.pieces:
            size = (sheet.name, *(round(side, 2) for side in sheet.size_mm))
            part = sizes.get(size) or _part(sheet, thing.sheet_stock or "card", item)
            sizes[size] = replace(part, count=part.count + times[key])
    cut = (
        replace(
            part,
            key=part.key if number == 1 else f"{part.key}_{number}",
            count=part.count * left.brief.quantity,
        )
        for number, part in enumerate(sizes.values(), 1)
    )
    all_ = len(item.spots) * left.brief.quantity
    return (
        *cut,
        *(
            Count(key=count.key, name=count.name, count=count.count * all_, stock=count.stock, use=count.use)
            for count in item.thing.counts
            if all_
        ),
    )


def _part(sheet: Sheet, stock: str, item: PlacedDesign) -> Part:
    """A piece as it is cut and folded, by the name of what it is a piece of; none of it yet. The maker's own
    count of pieces is that of the leaves, or of what else its stock is for."""
    upright, level = scores(sheet), scores(sheet, upright=False)
    folds = (*(Fold(at, "valley") for at in upright), *(Fold(at, "valley", "level") for at in level))
    grain: Literal["h", "w"] = "h" if len(upright) >= len(level) else "w"
    which = sheet.name.removeprefix(item.key).strip()
    name = f"{which} of the {item.title}" if which else item.title
    return Part(
        key=f"extra_{sheet.name}",
        name=name,
        width_mm=sheet.size_mm[0],
        height_mm=sheet.size_mm[1],
        count=0,
        stock=stock,
        grain=grain,
        folds=folds,
        told=frozenset({"B6"}),
    )


def _count(items: tuple[PlacedDesign, ...], worst: Worst, ruler: Ruler) -> Figure:
    places = sum(len(item.spots) for item in items)
    return Figure(
        key="extras",
        label="put in",
        value=f"{places} in {many(len(items), 'design')}",
        show="text",
        how="; ".join(f"{item.title}: {many(len(item.spots), 'place')}" for item in items) + ".",
        rules=(Rule("arithmetic", "every place counted"),),
        aside=f"{ruler.thin(worst.thick.likely)} at the thickest" if worst.thick.likely else "",
        scrap=f"{places} things put in",
    )


def _figures(items: tuple[PlacedDesign, ...], bulk: Bulk, worst: Worst, ruler: Ruler) -> tuple[Figure, ...]:
    spine = bulk.worst(AT_SPINE_MM)
    where = f"{ruler.show(worst.x_mm)} from the spine and {ruler.show(worst.y_mm)} from the head"
    there = ", ".join(
        item.title for item in items if any(name.split("/")[0] == item.key for name in worst.of)
    )
    return (
        _count(items, worst, ruler),
        Figure(
            key="bulk",
            label="they add at the thickest",
            value=worst.thick,
            show="thin",
            how=f"All leaves on each other, {where}: {there or 'nothing'}. Every layer is counted where it "
            "lies.",
            rules=(Rule("arithmetic", "the layers over one place, added up"),),
            aside=where if worst.of else "",
        ),
        Figure(
            key="added",
            label="they add at the spine",
            value=spine.thick,
            show="thin",
            how=f"What lies within {ruler.show(AT_SPINE_MM)} of it. The rest makes the fore edge thicker "
            "than the spine.",
            rules=(Rule("AT_SPINE_MM", "how near to the spine counts as at it"),),
        ),
    )
