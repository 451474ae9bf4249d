"""The states of the work: what a step needs, gives, works on and closes. One that no table declares is an
error.

A state is a thing and what has become of it, ``cover.scored``. What a book has once is in ``STATES``; extras
and structures have things of their own (``extra_d1.on``), with the words of ``OWN``; every stock is cut.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from typing import Final, Literal

WorkTag = Literal[
    "cut-out", "fastener", "flat", "glue", "hanging in", "insert", "lining", "mat", "on a mat", "shut"
]
"""Sorts of work that ``bench/rules.py`` puts before one another."""
CUT: Final = frozenset({"cut", "first"})
"""What becomes of every stock: all of it is cut, or a first sheet to try."""
JOINED: Final = "join."
# fmt: off
STATES: Final[dict[str, frozenset[str]]] = {
    thing: frozenset(words.split()) for thing, words in {
        "block": "banded clipped ended flat in marked measured nested pierced pressed punched sewn stacked "
                 "trimmed",
        "board": "glued pierced ready sheathed",
        "book": "bound creased done dry hung",
        "cover": "dry eyelets flat joined on punched ready scored set whole",
        "covering": "backed flat marked turned",
        "fastener": "face first on",
        "filler": "in",
        "fold": "notched",
        "gear": "ready",
        "hinge": "dressed leaves scored",
        "jig": "ready",
        "joint": "pressed",
        "leaf": "folded ready reinforced scored tried",
        "leaves": "flat",
        "liner": "in",
        "pocket": "glued",
        "spine": "lined",
        "stations": "marked",
        "stock": "gathered",
        "strips": "woven",
        "supports": "ready",
        "thread": "tied trimmed",
    }.items()
}
"""By the thing, what becomes of it in the course of a book."""
# fmt: on
OWN: Final = frozenset(
    {"made", "on", "flat", "papered", "papered.first", "scored", "shaped", "set", "filled", "dry"}
)
"""What becomes of a design that is put in, or of a folded structure."""


@lru_cache(maxsize=4096)
def _known(state: str) -> bool:
    thing, _, word = state.partition(".")
    return word in CUT or word in STATES.get(thing, OWN) or (thing not in STATES and word.startswith(JOINED))


def only_known(states: Iterable[str]) -> None:
    """Raises ValueError for a state that stands in no table: a step that needs it would wait for nobody."""
    for state in states:
        if not _known(state):
            raise ValueError(f"there is no state of the work called {state}")
