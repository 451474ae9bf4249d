"""All steps of a book in an order that works: a graph over what each needs and gives, and over what comes
before what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from graphlib import TopologicalSorter
from types import MappingProxyType

from pleat.core.base.plan import Step
from pleat.core.pleats.bench.rules import BEFORE

Bond = tuple[str, tuple[str, ...], tuple[str, ...], frozenset[str], tuple[str, ...], tuple[str, ...]]
"""What orders a step: its key, needs, gives and tags, what it uses and what it closes."""


@dataclass(frozen=True)
class Order:
    """The places of the steps in the order they are done, and for each key the keys of those it waits for."""

    places: tuple[int, ...]
    waits: Mapping[str, tuple[str, ...]]


def ordered(steps: Sequence[Step]) -> Order:
    """The order of these steps: each after all it waits for, otherwise as given. Books of one kind mostly
    have the same.

    Raises graphlib's CycleError when two wait for each other.
    """
    return _ordered(
        tuple((step.key, step.needs, step.gives, step.tags, step.uses, step.closes) for step in steps)
    )


def waits_for(steps: Sequence[Step]) -> Mapping[str, tuple[str, ...]]:
    """The keys of the steps that each step waits for, in the order given. A need that no step gives is met
    already.

    >>> fold = Step(key="fold", title="", detail="")
    >>> sew = Step(key="sew", title="", detail="", needs=("leaf.folded",))
    >>> waits_for([fold, sew, Step(key="try", title="", detail="", gives=("leaf.folded",))])["sew"]
    ('try',)
    """
    return ordered(steps).waits


def in_order(steps: Sequence[Step]) -> tuple[Step, ...]:
    """The steps so that each comes after all it waits for, otherwise as given.

    >>> sew = Step(key="sew", title="", detail="", needs=("leaf.folded",))
    >>> [step.key for step in in_order([sew, Step(key="fold", title="", detail="", gives=("leaf.folded",))])]
    ['fold', 'sew']
    """
    return tuple(steps[place] for place in ordered(steps).places)


@lru_cache(maxsize=512)
def _ordered(bonds: tuple[Bond, ...]) -> Order:
    waits = _waits(bonds)
    place = {key: number for number, (key, *_) in enumerate(bonds)}
    graph = TopologicalSorter(waits)
    graph.prepare()
    ready: list[str] = []
    placed: list[int] = []
    while graph.is_active():
        ready = sorted((*ready, *graph.get_ready()), key=place.__getitem__)
        first = ready.pop(0)
        placed.append(place[first])
        graph.done(first)
    return Order(tuple(placed), MappingProxyType(waits))


def _waits(bonds: tuple[Bond, ...]) -> dict[str, tuple[str, ...]]:
    givers: dict[str, list[str]] = {}
    tagged: dict[str, list[str]] = {}
    users: dict[str, list[str]] = {}
    for key, _, gives, tags, uses, _ in bonds:
        for state in gives:
            givers.setdefault(state, []).append(key)
        for place in uses:
            users.setdefault(place, []).append(key)
        for tag in tags:
            tagged.setdefault(tag, []).append(key)
    found: dict[str, tuple[str, ...]] = {}
    for key, needs, _, tags, _, closes in bonds:
        first = [giver for need in needs for giver in givers.get(need, ())]
        first += [giver for before, after in BEFORE if after in tags for giver in tagged.get(before, ())]
        first += [user for place in closes for user in users.get(place, ())]
        found[key] = tuple(giver for giver in dict.fromkeys(first) if giver != key)
    return found
