"""A book on a ring turned right round, from its end: a moving view from its frames, and pictures of it where
nothing moves."""

from __future__ import annotations

import json
from typing import Final

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from pleat.core.base.units import Ruler
from pleat.core.engines.holes.turning import Frame, frames
from pleat.core.pleats.binding.punched.record import Cross, PunchedResult
from pleat.drawing.binding.turned import picture
from pleat.drawing.svg import Pen, render_screen
from pleat.services import books
from pleat.web.database import reading
from pleat.web.display import drawn

pages = Blueprint("turning", __name__, url_prefix="/books/<int:book_id>/turning")
STILL: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=12, edge=6)
SHOWN: Final = (0, 60, 120, 180, 240, 300, 360)
PARTS: Final = {"half": "half of the pages", "one": "the front cover alone", "most": "all but the back cover"}
"""How much is turned, by its name in the address."""


@pages.get("")
def page(book_id: int) -> ResponseReturnValue:
    """The book from its end; ``part`` says how much of it is turned."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    result, ruler = opened.plan.binding, opened.plan.brief.ruler
    if not isinstance(result, PunchedResult) or result.cross is None or not result.cross.ring.passes:
        return redirect(url_for("workspace.show", book_id=book_id, open="binding"))
    part = request.args.get("part", "half")
    part = part if part in PARTS else "half"
    cross = result.cross
    stays, turns = shares(cross, part)
    found = frames(cross.ring, stays, turns)
    return render_template(
        "turning/page.html",
        opened=opened,
        result=result,
        parts=PARTS,
        part=part,
        stills=[
            (angle, drawn(render_screen(picture(cross, found, angle), 240, 200, STILL))) for angle in SHOWN
        ],
        data=json.dumps(moving(cross, found, ruler)),
        limits=limits(cross, ruler),
    )


def shares(cross: Cross, part: str) -> tuple[float, float]:
    """(what stays, what is turned) of the stack, in mm."""
    stack = max(cross.stack, 0.05)
    one = max(min(cross.cover or stack / max(cross.leaves, 1), stack / 2), 0.02)
    return {"half": (stack / 2, stack / 2), "one": (stack - one, one), "most": (one, stack - one)}[part]


def moving(cross: Cross, found: tuple[Frame, ...], ruler: Ruler) -> dict[str, object]:
    """What the page's script needs, mm and degrees: the ring, and the frames from shut to flat open; the rest
    is the same the other way up."""
    ring = cross.ring
    return {
        "ring": {
            "radius": ring.radius,
            "wire": ring.wire,
            "hole": ring.hole,
            "bridge": round(ring.bridge, 3),
        },
        "cover": cross.cover,
        "long": 2.6 * ring.radius,
        "frames": [
            {"angle": frame.angle, "stays": frame.stays, "turns": frame.turns, "binds": frame.binds}
            for frame in found
        ],
        "unit": ruler.name,
    }


def limits(cross: Cross, ruler: Ruler) -> list[tuple[str, str, bool]]:
    """Each limit in words with its figure, and whether the stack is within it."""
    named = (
        ("edges level when shut", cross.limits.square),
        ("lies parallel when shut", cross.limits.parallel),
        ("lies flat open at any page", cross.limits.flat),
        ("turns right round", cross.limits.turns),
    )
    return [(name, ruler.thin(mm), cross.stack <= mm + 1e-6) for name, mm in named]
