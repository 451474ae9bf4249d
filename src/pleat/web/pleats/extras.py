"""The Extras pleat: one opening with what lies on it as the form, the design that is looked at, and the map
of all leaves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Final

from flask import request

from pleat.core.base.fields import rule_on
from pleat.core.base.kinds import TAG
from pleat.core.base.units import Ruler
from pleat.core.engines.bulk import Bulk
from pleat.core.pleats.extras.base import Face
from pleat.core.pleats.extras.compute import ExtrasResult
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.pleats.extras.placing import item_of, shown
from pleat.core.pleats.extras.spots import PlacedDesign
from pleat.core.whole.planning import Plan
from pleat.drawing import extras as drawing
from pleat.drawing.bulk import bulk_map
from pleat.drawing.svg import Rendered, render_screen
from pleat.services.books import Opened
from pleat.web import asked
from pleat.web.display import drawn
from pleat.web.pleats.members import about

HIGH: Final = 400
NARROW, BESIDE = 300, 64
"""px of the opening: how narrow it may be, and what its measures take beside it."""
HEARD: Final = ("F5", "F8", "wedge", "D8", "over_holes")
"""What the pleats to the right say of the bulk."""
HOLDS: Final = frozenset(
    {"spine", "fore_edge", "takes", "post", "most", "loop", "gap", "gusset", "row", "stick_spine", "floor"}
)
"""Their figures of what holds the leaves: spine, rings, gaps, gussets, sticks."""


@about.register
def extras(result: ExtrasResult, opened: Opened) -> dict[str, object]:
    """The opening, its things as boxes to drag, and what is decided of the one that is looked at."""
    plan = opened.plan
    faces = result.faces
    face, chosen = _looked_at(result, faces)
    item = item_of(result, chosen)
    beside = drawing.shown_faces(faces, face)
    picture = drawing.opening(result, plan, face, chosen)
    rendered = render_screen(
        picture,
        min(max(drawing.LARGE_PX[1] * picture.width / picture.height, NARROW), drawing.LARGE_PX[0]) + BESIDE,
        HIGH,
    )
    used = {spot.face.name for each in result.items for spot in each.spots}
    return {
        "main": drawn(rendered),
        "face": face,
        "beside": beside,
        "used": {one.name: one.title for one in faces if one.name in used},
        **_turns(faces, beside),
        "things": _things(result, beside, rendered, plan.brief.ruler),
        "item": item,
        "chosen": chosen,
        "fields": _fields(item) if item else [],
        "facts": [replace(figure, key=f"extra-{figure.key}") for figure in item.thing.figures]
        if item
        else [],
        "pieces": _pieces(item, plan) if item and item.thing.pieces else None,
        "spreads": [offer for offer in result.offers if offer.group == f"spread {chosen}"],
        "with_it": [offer for offer in result.offers if offer.group == f"with {chosen}"],
        "groups": GROUPS,
        "maps": _maps(result, opened, beside) if result.items else [],
        "holds": [
            figure for name in ("binding", "cover") for figure in plan[name].figures if figure.key in HOLDS
        ],
        "heard": [
            check for name in ("binding", "cover") for check in plan[name].checks if check.key in HEARD
        ],
    }


def _turns(faces: Sequence[Face], beside: Sequence[Face]) -> dict[str, str]:
    """The names of the openings before and after the one that is looked at."""
    step = [face.name for face in faces if face.spine != "left" or not face.facing]
    at = next((number for number, name in enumerate(step) if name in [face.name for face in beside]), 0)
    return {"before": step[at - 1] if at else "", "after": step[at + 1] if at + 1 < len(step) else ""}


def _things(
    result: ExtrasResult, beside: Sequence[Face], rendered: Rendered, ruler: Ruler
) -> list[dict[str, object]]:
    """What lies on the opening: where it is and how large on the drawing, as a share of it."""
    return [
        {
            "path": f"extras.items.{item.key}.place.{spot.number}",
            "key": item.key,
            "number": spot.number,
            "title": item.title,
            "face": spot.face,
            "wide": spot.thing.width_mm * rendered.scale / rendered.width,
            "high": spot.thing.height_mm * rendered.scale / rendered.height,
            "wide_mm": spot.thing.width_mm,
            "high_mm": spot.thing.height_mm,
            "x": spot.x_mm,
            "y": spot.y_mm,
            "text": shown(item.record.places[spot.number], ruler.name),
        }
        for item in result.items
        for spot in item.spots
        if spot.face in beside
    ]


def _pieces(item: PlacedDesign, plan: Plan) -> dict[str, object]:
    """What it is cut from, flat."""
    swatch = plan.paper.stock(item.thing.sheet_stock or "card").swatch
    return drawn(render_screen(drawing.pieces(item.thing.pieces, swatch, plan.brief.ruler), 300, 320))


def _groups() -> dict[str, list[tuple[str, str]]]:
    found: dict[str, list[tuple[str, str]]] = {}
    for kind in EXTRAS.members:
        found.setdefault(kind.group, []).append((kind.name, kind.title))
    return found


GROUPS: Final = _groups()
"""(name, title) of everything that can be put in, by what it is listed under."""


def _fields(item: PlacedDesign) -> list[str]:
    """What is decided of a design, without what does not matter as it is now."""
    record = item.record
    goes = getattr(record, "goes", "")
    skip = (
        {TAG, "places"}
        | (set() if goes == "own" else {"goes_width_mm", "goes_height_mm"})
        | ({"goes_thick_mm", "lies", "stand_mm"} if goes == "none" else set())
    )
    if getattr(record, "book_id", None):
        skip |= {"title", "width_mm", "height_mm", "thick_mm", "doubt_mm"}
    names = [name for name, field in type(record).model_fields.items() if name not in skip and rule_on(field)]
    first = [name for name in names if name.startswith(("goes", "lies"))]
    return [
        f"extras.items.{item.key}.{name}" for name in (*first, *(name for name in names if name not in first))
    ]


def _maps(
    result: ExtrasResult, opened: Opened, beside: tuple[Face, ...]
) -> list[tuple[str, dict[str, object]]]:
    """(what it shows, map) of the leaves that are looked at, and of all of them; one shade means the same in
    all."""
    plan, most = opened.plan, result.worst.thick.likely
    size = plan.pages.leaf_width_mm, plan.pages.leaf_height_mm
    own = Bulk(tuple(patch for patch in result.bulk.patches if patch.leaf in {face.leaf for face in beside}))
    both = "these leaves" if len({face.leaf for face in beside}) > 1 else "this leaf"
    ruler = plan.brief.ruler
    maps = [
        (f"all leaves, spine at the left: {ruler.thin(most)} at most", result.bulk),
        (f"{both} alone: {ruler.thin(own.worst().thick.likely)}", own),
    ]
    return [
        (words, drawn(render_screen(bulk_map(bulk, *size, plan.brief.ruler, most), 190, 220)))
        for words, bulk in maps
    ]


def _looked_at(result: ExtrasResult, faces: tuple[Face, ...]) -> tuple[str, str]:
    """(face, design) that the page asks for; else those of the newest design."""
    names = {one.name for one in faces}
    looks = asked.looked_at(request.values) if request else {"face": "", "design": ""}
    face, chosen = looks["face"], looks["design"]
    keys = [item.key for item in result.items]
    if chosen in keys:
        chosen = chosen
    elif keys:
        chosen = keys[-1]
    else:
        chosen = ""
    if face not in names:
        item = item_of(result, chosen)
        if item and item.spots:
            face = item.spots[0].face.name
        elif faces:
            face = faces[0].name
        else:
            face = ""
    shown_ = {one.name for one in drawing.shown_faces(faces, face)}
    on = [design.key for design in result.items if any(spot.face.name in shown_ for spot in design.spots)]
    return face, chosen if chosen in on or not on else on[-1]
