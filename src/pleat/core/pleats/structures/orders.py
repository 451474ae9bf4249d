"""The orders in which a structure can be shut, side by side, each with what its gussets then need."""

from __future__ import annotations

from dataclasses import replace

from pleat.core.base.plan import Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import joined
from pleat.core.engines.folding.closing import ways
from pleat.core.pleats.structures.made import Made


def compared(made: Made, offers: tuple[Offer, ...], ruler: Ruler) -> tuple[Offer, ...]:
    """Every order as an offer with its facts, the best first; that of the book is marked. ``offers`` are
    those that set another, which name their groups in order."""
    by_words = {offer.label: offer for offer in offers}
    now = tuple(group.name for group in made.programme.closing)
    found = []
    for way in ways(made.programme, made.calipers):
        label = label_of(way.order)
        facts = (
            f"fullest gusset {ruler.thin(way.fullest_mm)}",
            f"{ruler.thin(sum(one.likely for one in way.needs.values()))} in all gussets",
            f"{ruler.thin(way.thick.likely)} thick",
            "paper goes through paper" if way.faults else "shuts",
        )
        if way.order == now:
            found.append(
                Offer(label=label, changes=(), facts=facts, group="orders", chosen=True, good=not way.faults)
            )
        elif label in by_words:
            found.append(replace(by_words[label], facts=facts, group="orders", good=not way.faults))
    return tuple(found)


def label_of(order: tuple[str, ...]) -> str:
    """An order of shutting in words."""
    return f"shut {joined(order)}"
