"""A pocket that is hidden behind a flap, as an offer."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from pleat.core.base.fields import LengthRule, rule_on
from pleat.core.base.plan import Offer
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.programme import Where
from pleat.core.pleats.extras.base import Extra
from pleat.core.pleats.extras.kinds.flap import Flap
from pleat.core.pleats.extras.record import MOST
from pleat.core.pleats.extras.spots import PlacedDesign, PlacedItem
from pleat.core.trade.extras import MOUTH_FREE_MM

ROUND_MM: Final = MOUTH_FREE_MM + 1
"""A flap comes so far past what it hides, and its hinge stays so far off the mouth."""
SIDES: Final[tuple[Where, ...]] = ("head", "right", "left", "tail")
LONGEST_KEY: Final = 40


def hiding(item: PlacedDesign, designs: Mapping[str, object], ruler: Ruler) -> tuple[Offer, ...]:
    """A lift-up flap over every place of a pocket, hinged where there is room for its tab beside the pocket;
    nothing where there is none."""
    key = f"{item.key}-flap"
    if (
        not item.spots
        or item.thing.mouth is None
        or key in designs
        or len(designs) >= MOST
        or len(key) > LONGEST_KEY
    ):
        return ()
    tab = Flap().tab_mm
    for hinge in SIDES:
        boxes = [_over(spot, hinge, tab, ruler) for spot in item.spots]
        if all(
            _on(spot, box) and spot.face.spine != hinge for spot, box in zip(item.spots, boxes, strict=True)
        ):
            width, height = boxes[0][2], boxes[0][3]
            places = [
                {"on": spot.face.name, "x_mm": box[0], "y_mm": box[1]}
                for spot, box in zip(item.spots, boxes, strict=True)
            ]
            record: Extra = Flap.model_validate(
                {"hinge": hinge, "width_mm": width, "height_mm": height, "places": places}
            )
            return (
                Offer(
                    label="hide it behind a flap",
                    changes=((f"extras.items.{key}", record.model_dump(mode="json")),),
                    group=f"with {item.key}",
                ),
            )
    return ()


def _over(item: PlacedItem, hinge: Where, tab: float, ruler: Ruler) -> tuple[float, float, float, float]:
    """(left, head, width, height) of a flap over a pocket and what stands out of it, its hinge tab beside
    them."""
    mouth = item.thing.mouth.side if item.thing.mouth else "head"
    far = {
        side: ROUND_MM + (item.thing.stands_mm if side == mouth else 0.0) + (tab if side == hinge else 0.0)
        for side in SIDES
    }
    left, top, right, bottom = item.box
    x, y = ruler.snap_down(left - far["left"]), ruler.snap_down(top - far["head"])
    return x, y, ruler.snap_up(right + far["right"] - x), ruler.snap_up(bottom + far["tail"] - y)


def _on(item: PlacedItem, box: tuple[float, float, float, float]) -> bool:
    x, y, wide, high = box
    fits = x >= 0 and y >= 0 and x + wide <= item.face.width_mm and y + high <= item.face.height_mm
    rule = rule_on(Flap.model_fields["width_mm"])
    return (
        fits
        and isinstance(rule, LengthRule)
        and all(rule.low_mm <= side <= rule.high_mm for side in (wide, high))
    )
