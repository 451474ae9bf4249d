"""All steps of a book in an order that works: a graph over what each needs and gives, and over what comes before what."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from graphlib import TopologicalSorter

from pleat.core.bench.rules import BEFORE
from pleat.core.plan import Step


def waits_for(steps: Sequence[Step]) -> Mapping[str, tuple[str, ...]]:
    """The keys of the steps that each step waits for, in the order given. A need that no step gives is met already.

    >>> waits_for([Step("fold", "", ""), Step("sew", "", "", needs=("folded",)), Step("try", "", "", gives=("folded",))])["sew"]
    ('try',)
    """
    givers: dict[str, list[str]] = {}
    tagged: dict[str, list[str]] = {}
    for step in steps:
        for state in step.gives:
            givers.setdefault(state, []).append(step.key)
        for tag in step.tags:
            tagged.setdefault(tag, []).append(step.key)
    found: dict[str, tuple[str, ...]] = {}
    for step in steps:
        first = [key for need in step.needs for key in givers.get(need, ())]
        first += [key for before, after in BEFORE if after in step.tags for key in tagged.get(before, ())]
        found[step.key] = tuple(key for key in dict.fromkeys(first) if key != step.key)
    return found


def in_order(steps: Sequence[Step]) -> tuple[Step, ...]:
    """The steps so that each comes after all it waits for, otherwise as given. Raises graphlib's CycleError when two wait for each other.

    >>> [step.key for step in in_order([Step("sew", "", "", needs=("folded",)), Step("fold", "", "", gives=("folded",))])]
    ['fold', 'sew']
    """
    place = {step.key: number for number, step in enumerate(steps)}
    graph = TopologicalSorter(waits_for(steps))
    graph.prepare()
    ready: list[str] = []
    placed: list[Step] = []
    while graph.is_active():
        ready = sorted((*ready, *graph.get_ready()), key=place.__getitem__)
        first = ready.pop(0)
        placed.append(steps[place[first]])
        graph.done(first)
    return tuple(placed)
