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
    for order in ways(made.programme, made.calipers):
        label = label_of(order.order)
        facts = (
            f"fullest gusset {ruler.thin(order.fullest_mm)}",
            f"{ruler.thin(sum(estimate.likely for estimate in order.needs.values()))} in all gussets",
            f"{ruler.thin(order.thick.likely)} thick",
            "paper goes through paper" if order.faults else "shuts",
        )
        if order.order == now:
            found.append(
                Offer(
                    label=label, changes=(), facts=facts, group="orders", chosen=True, good=not order.faults
                )
            )
        elif label in by_words:
            found.append(replace(by_words[label], facts=facts, group="orders", good=not order.faults))
    return tuple(found)


def label_of(order: tuple[str, ...]) -> str:
    """An order of shutting in words."""
    return f"shut {joined(order)}"
