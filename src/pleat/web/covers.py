"""A cover opened and closed: a moving view from its poses, and a picture of every state where nothing
moves."""

from __future__ import annotations

import json
from typing import Final

from flask import Blueprint, render_template

from pleat.core.pleats.cover.laid import Motion
from pleat.core.pleats.cover.opening import motion_of, turning
from pleat.drawing.cover.states import pictures
from pleat.drawing.svg import Pen, render_screen
from pleat.services import books
from pleat.services.books import Opened
from pleat.web.database import reading
from pleat.web.display import drawn

pages = Blueprint("covers", __name__, url_prefix="/books/<int:book_id>/cover")
STATE: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=12, edge=8)


@pages.get("")
def show(book_id: int) -> str:
    """The cover of a book, to be opened and closed."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    plan = opened.plan
    motion = motion_of(plan.cover, plan.pages)
    shown = pictures(motion, plan.cover.swatch, plan.pages.swatch)
    return render_template(
        "covers/page.html",
        opened=opened,
        states=[
            (name, drawn(render_screen(drawing, 300, 190, STATE)))
            for name, drawing in zip(motion.names, shown, strict=True)
        ],
        data=json.dumps(moving(motion, opened)),
    )


def moving(motion: Motion, opened: Opened) -> dict[str, object]:
    """What the page's script needs, in mm and degrees: panels with parents, hinges and angles by state, the
    block, colours by name."""
    width, height, (x, y) = motion.block
    right = sum(motion.piece.size_mm[:1])
    base = turning(motion)
    return {
        "names": motion.names,
        "panels": [
            {
                "name": one.name,
                "parent": one.parent,
                "outline": one.outline,
                "axis": one.axis,
                "hinge": one.hinge_mm,
                "angles": one.angles,
                "lifts": one.lifts,
                "board": motion.board_mm if one.name in ("back", "front", "spine") else 0,
            }
            for one in base
        ],
        "block": {
            "x": right - x - width,
            "y": y,
            "width": width,
            "height": height,
            "thick": max(motion.thick_mm - 0.5, 0.2),
            "after": motion.laid_after,
        },
        "swatch": opened.plan.cover.swatch,
        "paper": opened.plan.pages.swatch,
    }
