"""What each pleat's template needs: its drawings and a few words. What a member needs beyond that stands in a
module of its own."""

from collections.abc import Collection
from typing import Final

from markupsafe import Markup

from pleat.core.whole.planning import PLEATS, REGISTRIES
from pleat.drawing import looks
from pleat.drawing import members as _drawings  # noqa: F401 - makes the drawings of all members known
from pleat.drawing.handles import handles
from pleat.drawing.svg import Pen, render_screen
from pleat.services.books import Opened
from pleat.web.display import drawn
from pleat.web.forms import entries
from pleat.web.pleats import extras, folded, laid, leaves, punched, sections, sewn, views  # noqa: F401 - makes what members need known
from pleat.web.pleats.members import about
from pleat.web.pleats.small import high, small

READS: Final[dict[str, frozenset[str]]] = {
    "brief": frozenset(
        {"paper", "pages"}
    ),  # what it proposes to hold and cover the block with goes by the block
    "paper": frozenset({"brief", "pages"}),
    "pages": frozenset({"brief", "paper", "binding"}),
    "extras": frozenset({"pages", "binding", "cover"}),
    "binding": frozenset({"pages"}),
    "cover": frozenset({"paper", "pages", "cutting"}),
    "cutting": frozenset({"paper"}),
    "bench": frozenset(),
}
"""The other pleats whose result or decisions stand in the view of each; what the ruler shows stands in
all."""
PORTRAIT: Final = Pen(level=0, tick=0, gap=0, arrow=4, dot=3, text=8, edge=4)
_REGISTRY: Final = {registry.pleat: registry for registry in REGISTRIES}


def view(name: str, opened: Opened) -> dict[str, object]:
    """The values of a pleat's template."""
    result = opened.plan[name]
    known = name not in _REGISTRY or _REGISTRY[name].find(getattr(opened.book, name).kind)
    own = about(result, opened) if known else {}
    if name in _REGISTRY and "partial" not in own:
        own = {
            "main": drawn(render_screen(looks.main(result, opened.plan), 820, 400)),
            "entries": entries(opened.book, name) if known else (),
        }
    return {"handles": handles(result, opened.plan) if known else (), **own, **strip_view(name, opened)}


def strip_view(name: str, opened: Opened) -> dict[str, object]:
    """What the pleat needs where it lies folded."""
    result = opened.plan[name]
    return {"small": small(looks.strip(result, opened.plan), high(result))}


def book_view(opened: Opened) -> dict[str, object]:
    """The values of the overview's template."""
    made_of = opened.plan.brief.made_of
    return {
        "portrait": Markup(render_screen(opened.portrait, 260, 300, PORTRAIT, css="portrait-drawing").svg),
        "kind": f"{made_of.binding.title}, {made_of.cover.title}",
    }


def stale(changed: Collection[str], idle: Collection[str] = ()) -> tuple[str, ...]:
    """The pleats to be shown anew when these changed: themselves, and those whose view reads one of them;
    ``idle`` ones show only how to begin."""
    return tuple(
        name
        for name in PLEATS
        if name in changed or (name not in idle and not READS[name].isdisjoint(changed))
    )


QUESTIONS: Final = {
    "brief": "What am I making, how big, and how many?",
    "paper": "What is it made from, and how thick is that?",
    "pages": "How many sheets, folded how, give how many pages?",
    "extras": "What pockets, flaps and bands go in?",
    "binding": "Where do the holes go, and which way does the thread run?",
    "cover": "What do I cut the cover to, and where do I score it?",
    "cutting": "How do I cut all that from what I own?",
    "bench": "What do I do now, and what must I not forget?",
}
"""What each pleat answers of most books."""
BLOCKS: Final[dict[str, str]] = {
    "leaf": "How many leaves, and of what size?",
    "pad": "How large is the pad, and how thick?",
    "folio": "Which panels has it, and in which order do they shut?",
    "hinged": "How many leaves, and what goes on them?",
    "pair": "How many pairs of leaves, and what goes on them?",
    "concertina": "How many panels, and out of how many strips?",
}
HELD: Final[dict[str, str]] = {
    "edge": "Where do the holes go, and what goes through them?",
    "hinge": "How is the hinge folded, and does every leaf find its place?",
    "bought": "What holds it together?",
    "own": "What holds it together?",
    "row": "Where do the cords go, and how many does it take?",
    "ends": "By which of its ends is it held?",
    "machine": "Where does the seam begin, and how long is its stitch?",
    "loop": "What goes round the folds, and how long is it?",
}
BOARDS: Final = "What do I cut the boards and what covers them to?"
BARE: Final = "Does it need a cover?"


def questions(opened: Opened) -> dict[str, str]:
    """What each pleat answers of this book: a hinge has no holes, and a folded thing no sheets that give
    pages."""
    made_of = opened.plan.brief.made_of
    if made_of.cover.name == "bare":
        cover = BARE
    elif "board" in made_of.cover.roles:
        cover = BOARDS
    else:
        cover = QUESTIONS["cover"]
    pages, held = BLOCKS.get(opened.plan.pages.unit, QUESTIONS["pages"]), made_of.binding
    binding = HELD.get(held.name) or HELD.get(opened.plan.binding.at, QUESTIONS["binding"])
    return {**QUESTIONS, "pages": pages, "binding": binding, "cover": cover}
