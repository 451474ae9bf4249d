"""Structures to try things on: every recipe that is folded, and a few changes that reach other ways through
each."""

from __future__ import annotations

from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.whole.planning import make_plan

FOLDED = tuple(
    one.name
    for one in RECIPES
    if one._block.unit in ("folio", "pair", "concertina", "hinged") or one.name == "pocketpages"
)
HINGED = ("hills", "connectors", "zigzag")
CHANGED = {
    "folder": (
        {"pages.gusset": "no"},
        {"pages.pockets": "none"},
        {"pages.insert_width_mm": "100", "pages.insert_height_mm": "180"},
    ),
    "crossfold": (
        {"pages.left_mm": "0"},
        {"pages.head_mm": "60", "pages.tail_mm": "60"},
        {"pages.bulk": "bulky"},
    ),
    "nested": ({"pages.folders": "5"}, {"pages.folders": "1"}),
    "bagfolio": ({"pages.tab_mm": "0"}, {"pages.mats": "yes", "pages.photo": "a7"}),
    "concertina": ({"pages.amount": "17"}, {"pages.amount": "2"}, {"pages.cut": "short"}),
    "pocketpages": ({"pages.slant_mm": "0"}, {"pages.corner": "no"}, {"pages.mats": "yes"}),
    "hills": ({"pages.amount": "3"}, {"pages.flips": "head"}),
    "connectors": ({"pages.flips": "tail"}, {"pages.leaf_is": "board"}),
    "zigzag": ({"pages.amount": "30"},),
    "row": ({"pages.amount": "3"}, {"pages.bulk": "bulky", "pages.photo": "card"}),
    "free": ({"pages.fastener": "magnet"},),
}


def book_of(name, texts=None):
    return editing.edit(recipe(name).book(), texts or {})


def plan_of(name, texts=None):
    return make_plan(book_of(name, texts))


def every():
    """(name, what is typed) of all of them."""
    return [(name, texts) for name in FOLDED for texts in ({}, *CHANGED[name])]


def made_in(plan):
    """Every structure of a plan."""
    return [result.made for _, result in plan if getattr(result, "made", None)]
