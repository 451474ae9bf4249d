"""The kinds of binding: each is a module in this folder that registers itself when it is loaded."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from pleat.core.binding.path import Side, ThreadPath
from pleat.core.plan import Step
from pleat.core.units import Ruler


@dataclass(frozen=True)
class Sewing:
    """What a kind's bench steps are written from; lengths in mm, stations from the leaf's head and from the cover's."""

    path: ThreadPath
    positions_mm: tuple[float, ...]
    cover_positions_mm: tuple[float, ...]
    thread_mm: float
    thread_name: str
    strands: int
    tail_mm: float
    ruler: Ruler
    sections: int = 1
    quantity: int = 1


@dataclass(frozen=True)
class Kind:
    """One kind of binding.

    ``holes`` gives its order of holes for a number of stations; ``steps`` its bench steps, the first of
    which may name ``nested`` and ``cover_scored`` in ``after``; ``through_cover`` says whether the cover
    is sewn with the leaves, so that it must be there first. More than ``most_sections`` sections want another kind.
    """

    name: str
    title: str
    summary: str
    station_counts: tuple[int, ...]
    through_cover: bool
    holes: Callable[[int], tuple[int, ...]]
    steps: Callable[[Sewing], tuple[Step, ...]]
    most_sections: int = 1


_KINDS: dict[str, Kind] = {}


def register(kind: Kind) -> None:
    """Add a kind. Raises ValueError when its name is taken."""
    if kind.name in _KINDS:
        raise ValueError(f"two kinds are called {kind.name}")
    _KINDS[kind.name] = kind


def known() -> dict[str, Kind]:
    """All registered kinds by name, in the order they were registered."""
    return dict(_KINDS)


def thread_way(side: Side) -> str:
    """The words for a passage that leaves ``side``."""
    return "out" if side == "inside" else "in"
