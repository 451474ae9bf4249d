"""A folded structure opened and shut: a moving view from its tree, a picture of every state where nothing
moves, and its orders of shutting compared."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from typing import Final

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from pleat.core.base.words import joined
from pleat.core.engines.folding.closing import blocked
from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.pile import faces
from pleat.core.engines.folding.programme import FoldResult
from pleat.core.engines.folding.tree import Node, tree
from pleat.core.pleats.binding.hinged.record import MOST_DRAWN, HingedResult
from pleat.core.pleats.structures.cut import said
from pleat.core.pleats.structures.made import BARE, Made
from pleat.core.pleats.structures.marks import Mark
from pleat.core.pleats.structures.orders import compared
from pleat.core.trade.folding import DRESSED_MM
from pleat.core.whole.planning import Plan
from pleat.drawing.pages.folded import look_of, marked
from pleat.drawing.structures import DRESSED, section, states
from pleat.drawing.svg import Pen, render_screen
from pleat.services import books
from pleat.web import asked
from pleat.web.database import reading
from pleat.web.display import drawn

pages = Blueprint("folding", __name__, url_prefix="/books/<int:book_id>/folding")
STATE: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=12, edge=8)
PAPER_LIES: Final = {0: "", 180: ", on its head"}
"""What is said of a paper by the degrees it is turned; any other lies on its side."""
PLEATS: Final = ("binding", "pages")
PHOTO: Final = "white"
"""The swatch of what lies on papers."""


def made_of(plan: Plan, of: str = "") -> tuple[str, Made] | None:
    """The structure of a plan and its pleat, that which completes it unless another is asked for; None for a
    book without one."""
    for name in (of, *PLEATS) if of in PLEATS else PLEATS:
        found = getattr(plan[name], "made", None)
        if isinstance(found, Made):
            return name, found
    return None


@pages.get("")
def show(book_id: int) -> ResponseReturnValue:
    """The structure, to be opened and shut."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    found = made_of(opened.plan, asked.word(request.args, "of", 20))
    if found is None or not found[1].programme.closing:
        return redirect(url_for("workspace.show", book_id=book_id))
    pleat, made = found
    worked, look = made.worked, look_of(opened.plan)
    return render_template(
        "folding/page.html",
        opened=opened,
        pleat=pleat,
        opens=worked.programme.opens,
        groups=[group.name for group in worked.programme.closing],
        leaves=opened.plan.pages.leaves if isinstance(opened.plan[pleat], HingedResult) else 0,
        most=MOST_DRAWN,
        states=[
            (number + 1, worked.states[number].name, drawn(render_screen(drawing, 300, 190, STATE)))
            for number, drawing in states(worked, look, marked(made, opened.plan))
        ],
        shows=shows(worked),
        cut=drawn(render_screen(section(made, look), 1000, 150)),
        data=json.dumps(moving(made, opened.plan)),
    )


@pages.get("/ways")
def ways(book_id: int) -> str:
    """The orders of shutting compared, as a part of the page."""
    with reading() as session:
        opened = books.open_book(session, book_id)
    found = made_of(opened.plan)
    if found is None:
        abort(404)
    _, made = made_of(opened.plan, "pages") or found
    offers = tuple(offer for offer in opened.plan.pages.offers if offer.group == "order")
    return render_template(
        "folding/_ways.html", ways=compared(made, offers, opened.plan.brief.ruler), book_id=book_id
    )


def shows(worked: FoldResult) -> list[tuple[str, str]]:
    """Which faces show in each state from above, and which way up they stand there where it is not
    upright."""
    found = []
    for state in worked.states:
        names = []
        for face in faces(worked.assembly, state):
            piece = face.key[0]
            if piece.startswith(DRESSED) or face.share < 0.2:
                continue
            if worked.assembly.pieces[piece].rigid:
                side = "its front" if face.side == "A" else "its back"
                names.append(f"{piece} ({side})")
                continue
            left, top, right, bottom = bounds(worked.assembly.pieces[piece][face.key[1]].outline)
            if worked.programme.opens or min(right - left, bottom - top) < DRESSED_MM:
                continue
            turned = {0: "", 180: ", on its head", 90: ", on its side", 270: ", on its side"}.get(
                round(face.turn), ", slanting"
            )
            side = "inside" if face.side == "A" else "outside"
            names.append(f"{said(face.key)} ({side}{turned})")
        dressed = [face for face in faces(worked.assembly, state) if face.key[0].startswith(DRESSED)]
        names += [
            f"{_of(face.key[0], worked)}{PAPER_LIES.get(round(face.turn), ', on its side')}"
            for face in dressed
        ]
        found.append((state.name, joined(dict.fromkeys(names)) or "nothing lies flat"))
    return found


def _of(name: str, worked: FoldResult) -> str:
    """The face a paper lies on, in words."""
    join = next(one for one in worked.assembly.joins if one.laid[0] == name)
    side = "inside" if join.side == "A" else "outside"
    return f"{said(join.host)} ({side})"


def moving(made: Made, plan: Plan) -> dict[str, object]:
    """What the page's script needs, in mm and degrees: the tree of panels with what is on them, what each
    closing group turns, lifts by state, and what lies in whose way."""
    worked, look, on = made.worked, look_of(plan), marked(made, plan)
    nodes = tree(worked)
    names = [group.name for group in worked.programme.closing]
    over = blocked(worked)
    return {
        "opens": worked.programme.opens,
        "groups": [{"name": name, "over": [names.index(one) for one in over[name]]} for name in names],
        "nodes": [_node(node, worked, look.swatches, on.get(node.key, ())) for node in nodes],
    }


def _node(
    node: Node, worked: FoldResult, swatches: Mapping[str, str], on: Sequence[Mark]
) -> dict[str, object]:
    """A panel: numbers are rounded to a hundredth of a mm, which nobody sees. What lies on a bare panel is
    not painted as a piece: its places are."""
    piece = worked.assembly.pieces[node.key[0]]
    dressed = piece.name.startswith(DRESSED)
    place = node.place
    paint = swatches["mat"] if dressed else swatches.get(piece.stock, "cream")
    if piece.stock == BARE:
        paint = ""
    return {
        "name": "" if dressed or piece.rigid else said(node.key),
        "parent": node.parent,
        "outline": [[round(x, 2), round(y, 2)] for x, y in node.outline],
        "line": [[round(x, 2) for x in point] for point in node.line] if node.line else None,
        "place": [round(n, 4) for axis in (place.x, place.y, place.z, place.at) for n in axis],
        "angle": node.angle,
        "turns": node.turns,
        "lifts": node.lifts,
        "paint": paint,
        "paper": dressed,
        "on": [
            {
                "inside": mark.side == "A",
                "paint": swatches["mat"] if mark.paper else PHOTO,
                "outline": [[round(x, 2), round(y, 2)] for x, y in mark.outline],
            }
            for mark in on
        ],
    }
