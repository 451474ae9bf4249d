"""A plan as plain data, for other programs: what `pleat plan` prints. Its keys are an interface, documented
in docs/plan.md."""

from __future__ import annotations

from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any, Final

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import Record
from pleat.core.base.plan import Check, Offer, Rule
from pleat.core.pleats.extras.spots import PlacedDesign
from pleat.core.whole.planning import Plan

PLAN_FORMAT: Final = 7
"""The version of the plain data; 1 was what Pleat 0.5 and older printed, which did not say so, 2 that of 0.6,
of one sewing only, 3 that of 0.7, with two papers only, 4 that of 0.8 to 0.11, whose steps said less,
5 that of 0.12 and 0.13, in which each piece had sheets of its own, 6 one between them, without the order of
cuts and without what was cut already."""


def plan_data(plan: Plan, *, scenes: bool = False) -> dict[str, Any]:
    """The plan as objects, lists, texts and numbers; lengths in mm. Pleats stand in the order of work. Of a
    step's scene its kind alone, or with ``scenes`` all of it."""
    data = {"plan_format": PLAN_FORMAT, **{name: as_json(result) for name, result in plan}}
    data["pages"]["pages"] = plan.pages.pages
    data["bench"]["steps"] = data["bench"].pop("work")
    for one, step in zip(data["bench"]["steps"], (one.step for one in plan.bench.work), strict=True):
        scene = step.scene
        one["step"] |= {
            "each": max(step.minutes - step.set_up, 0.0),
            "waits": list(step.waits),
            "scene": as_json(scene) if scene and scenes and not scene.is_elsewhere else scene and scene.kind,
        }
    data["cutting"]["plans"] = [
        {"stocks": [stock.key for stock in own.stocks], "needed": own.needed, "length_mm": own.length_mm}
        | {name: as_json(getattr(own, name)) for name in ("sheets", "above", "lacking", "done", "fewer")}
        for own in plan.cutting.plans
    ]
    data["cutting"]["order"] = as_json(plan.cutting.order)
    data["extras"] |= {
        "faces": [face.name for face in plan.extras.faces],
        "items": [_put_in(item) for item in plan.extras.items],
    }
    return data


def _put_in(item: PlacedDesign) -> dict[str, Any]:
    """A design once, and its places by the names of their faces."""
    return {
        "key": item.key,
        "kind": item.record.kind,
        "thing": as_json(item.thing),
        "places": [{"on": spot.face.name, "x_mm": spot.x_mm, "y_mm": spot.y_mm} for spot in item.spots],
        "lost": [place.on for _, place in item.lost],
    }


_PLAIN: Final = frozenset((str, float, int, bool))


@cache
def _shown(record: type) -> tuple[str, ...]:
    """The fields of a dataclass that a plan shows."""
    hidden = ("code", "of") if issubclass(record, Check) else ()
    return tuple(field.name for field in fields(record) if field.repr and field.name not in hidden)


def as_json(value: object) -> Any:
    """Plain data from results: dataclasses as objects, estimates as low, likely and high, functions and what
    a result was worked out from (fields that are not shown) left out."""
    if value is None or type(value) in _PLAIN:
        return value
    if isinstance(value, Estimate):
        return {
            "low": value.low,
            "likely": value.likely,
            "high": value.high,
            "main_doubt": value.main_doubt(),
        }
    if isinstance(value, Rule):
        return {"origin": value.origin, "text": value.text}
    if is_dataclass(value) and not isinstance(value, type):
        own = {
            name: as_json(field_value)
            for name in _shown(type(value))
            if not callable(field_value := getattr(value, name))
        }
        return {"key": value.key, **own} if isinstance(value, (Check, Offer)) else own
    if hasattr(value, "_asdict"):
        return {key: as_json(one) for key, one in value._asdict().items()}
    if isinstance(value, (tuple, list)):
        return [as_json(one) for one in value]
    if isinstance(value, Record):
        return value.model_dump(mode="json")
    if isinstance(value, frozenset):
        return sorted(value)
    if hasattr(value, "items"):
        return {key: as_json(one) for key, one in value.items()}
    return value
