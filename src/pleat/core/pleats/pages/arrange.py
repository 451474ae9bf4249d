"""Arranging a pile of mixed papers into sections: which sheets lie together, and in which order from the
outside in.

The wishes, weighed against each other (house rules, shown to the maker): sections equally thick, tough sheets
outside and weak ones inside, no two similar papers meeting, no two windows face to face, small leaves not all
in one place, chosen pairs meeting. In a section of nested folios the neighbours are the ones that face each
other; the outermost of one section faces the outermost of the next. Found by local search from a seed: the
same pile and seed give the same answer.
"""

from __future__ import annotations

import itertools
import math
import random
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Final, Literal

from pleat.core.base.units import RULERS, Ruler
from pleat.core.trade.pages import ALIKE_SHARE, EQUAL_SHARE, SMALL_LEAF_SHARE

Wish = Literal["equal", "tough", "similar", "windows", "small", "pairs"]
WEIGHTS: Final[dict[Wish, float]] = {
    "equal": 40.0,
    "tough": 3.0,
    "similar": 6.0,
    "windows": 20.0,
    "small": 3.0,
    "pairs": 25.0,
}
WORDS: Final[dict[Wish, str]] = {
    "equal": "sections equally thick",
    "tough": "tough sheets outside, weak ones inside",
    "similar": "no two similar papers meeting",
    "windows": "no two windows face to face",
    "small": "small leaves spread",
    "pairs": "chosen sheets meeting",
}
_TRIES_A_FOLIO: Final = 130
_RESTARTS: Final = ((10, 12), (30, 3))
"""(sheets at most, how often the search starts anew): small piles are searched until nothing better is
left."""
Sections = tuple[tuple[int, ...], ...]


@dataclass(frozen=True)
class PileFolio:
    """A sheet of the pile as arranging sees it; thickness of one sheet in mm, leaf height in mm, how often it
    lies at the spine."""

    id: int
    caliper_mm: float
    leaf_height_mm: float
    toughness: Literal["weak", "usual", "tough"] = "usual"
    words: frozenset[str] = frozenset()
    window: bool = False
    at_fold: int = 2

    @property
    def thick_mm(self) -> float:
        """What it adds to its section at the fold: a single leaf less than a folded sheet."""
        return self.caliper_mm * self.at_fold


@dataclass(frozen=True)
class Arranged:
    """A proposal: folios by id, section by section from the outside in; its cost by wish, 0 where it is
    wholly met."""

    sections: Sections
    costs: Mapping[Wish, float]

    @property
    def cost(self) -> float:
        return sum(self.costs.values())


def alike(a: PileFolio, b: PileFolio) -> float:
    """How similar two papers are, 0 to 1: the share of their words they have in common."""
    return _shared(a.words, b.words)


@lru_cache(maxsize=4096)
def _shared(a: frozenset[str], b: frozenset[str]) -> float:
    either = a | b
    return len(a & b) / len(either) if either else 0.0


def _small(pile: Sequence[PileFolio]) -> frozenset[int]:
    """The folios whose leaves are small beside the highest of the pile."""
    highest = max((folio.leaf_height_mm for folio in pile), default=0.0)
    return frozenset(folio.id for folio in pile if folio.leaf_height_mm < SMALL_LEAF_SHARE * highest)


@dataclass
class _Table:
    """What is looked up over and over: each folio's own figures and, as they are first asked for, how two of
    them go together."""

    pile: Sequence[PileFolio]
    pairs: frozenset[frozenset[int]] = frozenset()
    unlike: frozenset[frozenset[int]] = frozenset()
    thick: dict[int, float] = field(init=False)
    tough: dict[int, int] = field(init=False)
    by_id: dict[int, PileFolio] = field(init=False)
    small: frozenset[int] = field(init=False)
    met: dict[tuple[int, int], float] = field(init=False, default_factory=dict)
    mean: float = 0.0

    def __post_init__(self) -> None:
        self.small = _small(self.pile)
        self.by_id = {folio.id: folio for folio in self.pile}
        self.thick = {folio.id: folio.thick_mm for folio in self.pile}
        self.tough = {folio.id: {"weak": -1, "usual": 0, "tough": 1}[folio.toughness] for folio in self.pile}

    def meeting(self, first: int, second: int) -> float:
        """What it costs that two folios face each other."""
        known = self.met.get((first, second))
        if known is not None:
            return known
        a, b, both = self.by_id[first], self.by_id[second], frozenset((first, second))
        cost = WEIGHTS["similar"] * alike(a, b) + WEIGHTS["windows"] * (a.window and b.window)
        cost += WEIGHTS["small"] * (first in self.small and second in self.small)
        cost += 1.5 * (both in self.unlike) - WEIGHTS["pairs"] * (both in self.pairs)
        self.met[first, second] = self.met[second, first] = cost
        return cost

    def section(self, folios: Sequence[int]) -> float:
        """What a section costs by itself."""
        thick = sum(self.thick[one] for one in folios)
        cost = WEIGHTS["equal"] * (thick / self.mean - 1) ** 2 if self.mean else 0.0
        last = max(1, len(folios) - 1)
        for place, folio in enumerate(folios):
            depth = place / last
            tough = self.tough[folio]
            if tough:
                cost += WEIGHTS["tough"] * (depth if tough > 0 else 1 - depth)
            if place:
                cost += self.meeting(folios[place - 1], folio)
        return cost

    def joints(self, sections: Sequence[Sequence[int]]) -> float:
        """What the outermost folios of neighbouring sections cost where they meet."""
        return sum(self.meeting(a[0], b[0]) for a, b in itertools.pairwise(sections))


def costs_of(
    sections: Sections, pile: Sequence[PileFolio], pairs: Iterable[tuple[int, int]] = ()
) -> dict[Wish, float]:
    """What each wish costs in an arrangement. Sections may not be empty."""
    by_id, small = {folio.id: folio for folio in pile}, _small(pile)
    thick = [sum(by_id[one].thick_mm for one in section) for section in sections]
    mean = sum(thick) / len(thick) if thick else 0.0
    met = meetings(sections)
    tough = 0.0
    for section in sections:
        last = max(1, len(section) - 1)
        for place, one in enumerate(section):
            depth = place / last
            tough += {"weak": 1 - depth, "usual": 0.0, "tough": depth}[by_id[one].toughness]
    both = [(by_id[a], by_id[b]) for a, b in met]
    together = {frozenset(pair) for pair in met}
    return {
        "equal": WEIGHTS["equal"] * sum((one / mean - 1) ** 2 for one in thick) if mean else 0.0,
        "tough": WEIGHTS["tough"] * tough,
        "similar": WEIGHTS["similar"] * sum(alike(a, b) for a, b in both),
        "windows": WEIGHTS["windows"] * sum(a.window and b.window for a, b in both),
        "small": WEIGHTS["small"] * sum(a in small and b in small for a, b in met),
        "pairs": WEIGHTS["pairs"] * sum(frozenset(pair) not in together for pair in pairs),
    }


@dataclass(frozen=True)
class Told:
    """Whether a wish is met, and how far, counted out in words."""

    met: bool
    words: str


def told(
    sections: Sections,
    pile: Sequence[PileFolio],
    pairs: Iterable[tuple[int, int]] = (),
    ruler: Ruler = RULERS["mm"],
) -> dict[Wish, Told]:
    """How far each wish is met by an arrangement as it lies; that of pairs is left out where there are
    none."""
    by_id, low = {folio.id: folio for folio in pile}, _small(pile)
    thick = [sum(by_id[one].thick_mm for one in section) for section in sections]
    both = [(by_id[a], by_id[b]) for a, b in meetings(sections)]
    met = {frozenset((a.id, b.id)) for a, b in both}
    wanted = list(pairs)
    meet = sum(frozenset(pair) in met for pair in wanted)
    tough = sum(
        by_id[one].toughness == "tough" for section in sections for one in section[(len(section) + 1) // 2 :]
    )
    weak = sum(by_id[one].toughness == "weak" for section in sections for one in section[: len(section) // 2])
    alike_ = sum(alike(a, b) > ALIKE_SHARE for a, b in both)
    windows = sum(a.window and b.window for a, b in both)
    small = sum(a.id in low and b.id in low for a, b in both)
    found: dict[Wish, Told] = {
        "equal": Told(
            max(thick) - min(thick) <= EQUAL_SHARE * sum(thick) / len(thick),
            ruler.between(min(thick), max(thick)),
        ),
        "tough": Told(
            not tough and not weak,
            _said((tough, "tough in the inner half"), (weak, "weak in the outer half")),
        ),
        "similar": Told(not alike_, f"{alike_} of {len(both)} neighbours much alike" if alike_ else ""),
        "windows": Told(not windows, _said((windows, "face to face"))),
        "small": Told(not small, _said((small, "small ones meet"))),
    }
    return {**found, "pairs": Told(meet == len(wanted), f"{meet} of {len(wanted)} meet")} if wanted else found


def _said(*counts: tuple[int, str]) -> str:
    """What there is of each; nothing is said of what there is none of."""
    return ", ".join(f"{count} {what}" for count, what in counts if count)


def meetings(sections: Sections) -> list[tuple[int, int]]:
    """The pairs of folios that face each other somewhere in the book."""
    inside = [(a, b) for section in sections for a, b in itertools.pairwise(section)]
    return inside + [(a[0], b[0]) for a, b in itertools.pairwise(sections)]


def arrange(
    pile: Sequence[PileFolio],
    sections: int,
    seed: int = 0,
    pinned: Mapping[int, tuple[int, int]] | None = None,
    pairs: Iterable[tuple[int, int]] = (),
    unlike: Sections = (),
    *,
    go_on: Callable[[float], bool] = lambda _: True,
) -> Arranged:
    """A proposal of ``sections`` sections (at most as many as sheets). ``pinned`` holds folios at (section,
    place from the outside); ``unlike`` is a proposal that this one should differ from. ``go_on`` is told now
    and then which share of the search is done; once it says no, the best found so far is the proposal. Raises
    ValueError for an empty pile or no sections."""
    if not pile or sections < 1:
        raise ValueError("an arrangement needs sheets and sections")
    wanted = frozenset(frozenset(pair) for pair in pairs)
    table = _Table(pile, wanted, frozenset(frozenset(pair) for pair in meetings(unlike)))
    number = min(sections, len(pile))
    table.mean = sum(table.thick.values()) / number
    dice = random.Random(seed)
    pins = {one: place for one, place in (pinned or {}).items() if one in table.thick and place[0] < number}
    best: list[list[int]] | None = None
    best_cost = math.inf
    starts = next((times for most, times in _RESTARTS if len(pile) <= most), 1)
    for start in range(starts):
        first = _start(table, number, pins, dice, shuffled=start > 0)
        found = _search(table, first, pins, dice, lambda share, start=start: go_on((start + share) / starts))  # type: ignore[misc]
        cost = sum(table.section(section) for section in found) + table.joints(found)
        if cost < best_cost - 1e-9:
            best, best_cost = found, cost
    assert best is not None
    arranged = tuple(tuple(section) for section in best)
    return Arranged(
        arranged, costs_of(arranged, pile, [(min(pair), max(pair)) for pair in wanted if len(pair) == 2])
    )


def dealt(pile: Sequence[PileFolio], sections: int) -> Sections:
    """The pile dealt out without any search: sections about equally thick, tough sheets outside."""
    table = _Table(pile)
    return tuple(
        tuple(section)
        for section in _start(table, min(sections, len(pile)), {}, random.Random(0), shuffled=False)
    )


def _start(
    table: _Table, number: int, pins: Mapping[int, tuple[int, int]], dice: random.Random, shuffled: bool
) -> list[list[int]]:
    """A first arrangement: thick ones dealt out to the thinnest section, tough ones outside; pinned ones in
    their places."""
    sections: list[list[int]] = [[] for _ in range(number)]
    free = [one for one in table.thick if one not in pins]
    if shuffled:
        dice.shuffle(free)
    else:
        free.sort(key=lambda one: -table.thick[one])
    weight = [
        sum(table.thick[one] for one, place in pins.items() if place[0] == section)
        for section in range(number)
    ]
    for one in free:
        thinnest = min(
            range(number),
            key=lambda section: (bool(sections[section]) or weight[section] > 0, weight[section]),
        )
        sections[thinnest].append(one)
        weight[thinnest] += table.thick[one]
    for number_, section in enumerate(sections):
        section.sort(key=lambda one: -table.tough[one])
        for one, (where, place) in sorted(pins.items(), key=lambda pin: pin[1]):
            if where == number_:
                section.insert(min(place, len(section)), one)
    return sections


def _search(
    table: _Table,
    sections: list[list[int]],
    pins: Mapping[int, tuple[int, int]],
    dice: random.Random,
    go_on: Callable[[float], bool],
) -> list[list[int]]:
    """Swaps and moves, at first also worse ones, less and less; the best arrangement met."""
    cost = [table.section(section) for section in sections]
    now = sum(cost) + table.joints(sections)
    best, best_cost = [list(section) for section in sections], now
    free = [one for one in table.thick if one not in pins]
    tries = _TRIES_A_FOLIO * len(free)
    for step in range(tries):
        if step % 64 == 0 and not go_on(step / tries):
            break
        heat = 4.0 * (1 - step / tries) ** 2 + 1e-6
        a = dice.randrange(len(sections))
        b = dice.randrange(len(sections))
        i = dice.randrange(len(sections[a]))
        changed = (
            _swapped(sections, a, i, b, dice, pins)
            if dice.random() < 0.6
            else _moved(sections, a, i, b, dice, pins)
        )
        if changed is None:
            continue
        first, second = changed
        after = list(sections)
        after[a], after[b] = first, second
        fresh = {a: table.section(first), b: table.section(second)}
        total = sum(fresh.get(number, one) for number, one in enumerate(cost)) + table.joints(after)
        if total <= now or dice.random() < math.exp((now - total) / heat):
            sections, now = after, total
            for number, one in fresh.items():
                cost[number] = one
            if now < best_cost - 1e-9:
                best, best_cost = [list(section) for section in sections], now
    return best


def _swapped(
    sections: list[list[int]],
    a: int,
    i: int,
    b: int,
    dice: random.Random,
    pins: Mapping[int, tuple[int, int]],
) -> tuple[list[int], list[int]] | None:
    """Sections ``a`` and ``b`` with folio ``i`` of the one and some folio of the other exchanged."""
    j = dice.randrange(len(sections[b]))
    if sections[a][i] in pins or sections[b][j] in pins or (a == b and i == j):
        return None
    first = list(sections[a])
    second = first if a == b else list(sections[b])
    first[i], second[j] = second[j], first[i]
    return first, second


def _moved(
    sections: list[list[int]],
    a: int,
    i: int,
    b: int,
    dice: random.Random,
    pins: Mapping[int, tuple[int, int]],
) -> tuple[list[int], list[int]] | None:
    """Sections ``a`` and ``b`` with folio ``i`` of the one put somewhere into the other; None where that
    would shift a pinned one."""
    if sections[a][i] in pins or (a != b and len(sections[a]) == 1):
        return None
    first = list(sections[a])
    one = first.pop(i)
    second = first if a == b else list(sections[b])
    second.insert(dice.randrange(len(second) + 1), one)
    for number, section in ((a, first), (b, second)):
        if any(
            folio in pins and pins[folio][1] != min(place, len(section)) and pins[folio][0] == number
            for place, folio in enumerate(section)
        ):
            return None
    return first, second
