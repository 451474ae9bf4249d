"""Whether the book stays even: things on one spot of successive leaves, a fore edge that grows away from the
spine, leaves of card."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from pleat.core.base.plan import Check, Offer
from pleat.core.base.words import many
from pleat.core.pleats.extras.asked import ExtrasContext
from pleat.core.pleats.extras.base import MOST_PLACES
from pleat.core.pleats.extras.record import MOST
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem, corners, moved, on_faces, over
from pleat.core.trade.extras import CARD_BLOCK_MM, CARD_LEAF_MM, GAPES_MM, THICK_THING_MM


def checks(asked: ExtrasContext) -> tuple[Check | None, ...]:
    """F6, F5 and B11."""
    return _one_spot(asked), _gapes(asked), _heavy(asked)


def _one_spot(asked: ExtrasContext) -> Check | None:
    """F6: thick things on one spot of successive leaves."""
    ruler = asked.left.brief.ruler
    tall = [
        (item, spot)
        for item in asked.items
        for spot in item.spots
        if max((layer.thick.likely for layer in spot.thing.layers), default=0.0) >= THICK_THING_MM
    ]
    tall.sort(key=lambda pair: pair[1].face.leaf)
    run: list[tuple[PlacedDesign, PlacedItem]] = []
    longest: list[tuple[PlacedDesign, PlacedItem]] = []
    for pair in tall:
        if (
            run
            and pair[1].face.leaf - run[-1][1].face.leaf <= 1
            and over(_shut(pair[1]), _shut(run[-1][1]), 5.0)
        ):
            run.append(pair)
        else:
            run = [pair]
        longest = max(longest, run, key=_leaves)
    if _leaves(longest) < 3:
        return None
    thick = sum(max(layer.thick.likely for layer in item.thing.layers) for _, item in longest)
    turns = _in_turns(longest)
    return Check(
        code="F6",
        level="watch",
        title=f"On one spot of successive leaves lie {many(len(longest), 'thick thing')}: "
        f"{ruler.thin(thick)} there.",
        why=f"On {on_faces(item for _, item in longest)}. The book gapes there and is hollow elsewhere.",
        offers=turns,
        no_fix=""
        if turns
        else "They are too large to lie beside each other: take fewer or thinner ones, or put them on pages "
        "farther apart.",
    )


def _in_turns(run: Sequence[tuple[PlacedDesign, PlacedItem]]) -> tuple[Offer, ...]:
    """Each in another corner than the one before, where that keeps them off each other."""
    leaves = sorted({one.face.leaf for _, one in run})
    to: dict[str, dict[int, tuple[float, float]]] = {}
    before: PlacedItem | None = None
    for item, one in run:
        ends = corners(one.face, one.thing)
        x, y = ends[(0, 3, 1, 2)[leaves.index(one.face.leaf) % 4] % len(ends)]
        now = PlacedItem(one.number, one.face, one.thing, x, y)
        if before and over(_shut(now), _shut(before), 5.0):
            return ()
        to.setdefault(item.key, {})[one.number], before = (x, y), now
    items = {item.key: item for item, _ in run}
    return (
        Offer(
            label="each in another corner than the last",
            changes=tuple(change for key, places in to.items() for change in moved(items[key], places)),
        ),
    )


def _gapes(asked: ExtrasContext) -> Check | None:
    """F5: what is put in makes the leaves thicker than the spine can be, where they are sewn or glued at it.
    Rings and hinges have room of their own, and say what they allow."""
    pages, ruler = asked.left.pages, asked.left.brief.ruler
    more = asked.beyond.likely
    if asked.left.brief.made_of.binding.at not in ("fold", "spine", "block") or more <= max(
        GAPES_MM, 0.25 * pages.thickness.likely
    ):
        return None
    worst = asked.bulk.worst()
    spacers = _spaced(asked, more)
    return Check(
        code="F5",
        level="watch",
        title=f"Shut, the book gapes by {ruler.thin(more)}: so much more lies {ruler.show(worst.x_mm)} from "
        f"the spine and {ruler.show(worst.y_mm)} from the head than at the spine.",
        why=f"The leaves are {ruler.thin(pages.thickness.likely)}, what is put in "
        f"{ruler.thin(worst.thick.low)} to {ruler.thin(worst.thick.high)} at its thickest.",
        offers=spacers,
        no_fix="" if spacers else "Stagger them, or put in fewer or thinner things.",
    )


def _spaced(asked: ExtrasContext, more: float) -> tuple[Offer, ...]:
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
    return (Offer(label=words, changes=(("extras.items.spacers", record),)),)


MOST_LAYERS: Final = 20


def _heavy(asked: ExtrasContext) -> Check | None:
    """B11: leaves of card, and things put on them."""
    leaf, ruler, pages = asked.left.paper.leaf, asked.left.brief.ruler, asked.left.pages
    if (
        asked.left.brief.made_of.binding.at not in ("fold", "spine", "block")
        or leaf.caliper.likely < CARD_LEAF_MM
    ):
        return None
    if pages.leaves * leaf.caliper.likely < CARD_BLOCK_MM:
        return None
    return Check(
        code="B11",
        level="watch",
        title=f"Leaves of {ruler.fine(leaf.caliper.likely)} are card: {pages.leaves} of them are "
        f"{ruler.thin(pages.thickness.likely)} before anything is put in.",
        why="So heavy a paper is better kept for the pockets; leaves half as thick carry them as well.",
        no_fix="Choose another paper for the leaves under Paper, and cut the pockets from this one.",
    )


def _leaves(run: Sequence[tuple[PlacedDesign, PlacedItem]]) -> int:
    """On how many leaves they lie."""
    return len({item.face.leaf for _, item in run})


def _shut(item: PlacedItem) -> tuple[float, float, float, float]:
    """Its box in the shut book."""
    (a, b), (c, d) = item.face.placed(item.box[0], item.box[1]), item.face.placed(item.box[2], item.box[3])
    return min(a, c), min(b, d), max(a, c), max(b, d)
