"""Words around numbers: one or many, lists in which a name is said once, times as one says them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable


def many(count: int, one: str, more: str = "") -> str:
    """A count with its word.

    >>> many(1, "sheet"), many(3, "sheet"), many(2, "leaf", "leaves")
    ('1 sheet', '3 sheets', '2 leaves')
    """
    word = one if count == 1 else more or one + "s"
    return f"{count} {word}"


def by_count(count: float, one: str, more: str) -> str:
    """The word that goes with a count, without it.

    >>> by_count(1, "is", "are"), by_count(2, "is", "are")
    ('is', 'are')
    """
    return one if count == 1 else more


def joined(things: Iterable[object]) -> str:
    """Things as a sentence lists them; numbers without needless digits.

    >>> joined([1, 2.0, 3]), joined(["log"])
    ('1, 2 and 3', 'log')
    """
    words = [f"{thing:g}" if isinstance(thing, float) else str(thing) for thing in things]
    return " and ".join(filter(None, (", ".join(words[:-1]), words[-1]))) if words else ""


def merged(names: Iterable[str]) -> str:
    """Names in the order they first come, each said once with how often.

    >>> merged(["map", "log", "map"])
    '2 × map, log'
    """
    return ", ".join(name if count == 1 else f"{count} × {name}" for name, count in Counter(names).items())


def runs(names: Iterable[str]) -> str:
    """Names in order, neighbours of one name said once with how often: for what lies in an order.

    >>> runs(["map", "map", "log", "map"])
    '2 × map, log, map'
    """
    found: list[tuple[str, int]] = []
    for name in names:
        if found and found[-1][0] == name:
            found[-1] = (name, found[-1][1] + 1)
        else:
            found.append((name, 1))
    return ", ".join(name if count == 1 else f"{count} × {name}" for name, count in found)


def lasting(minutes: int) -> str:
    """How long a wait is, in minutes below two hours that are not whole ones.

    >>> lasting(20), lasting(60), lasting(90), lasting(480)
    ('20 minutes', '1 hour', '90 minutes', '8 hours')
    """
    return many(minutes, "minute") if minutes < 120 and minutes % 60 else many(round(minutes / 60), "hour")


def a_or_an(name: str) -> str:
    """A name with its article, by how it is said.

    >>> a_or_an("A7 card"), a_or_an("bank card"), a_or_an("8 × 10 in")
    ('an A7 card', 'a bank card', 'an 8 × 10 in')
    """
    article = "an" if name[:1].lower() in "aeio8" else "a"
    return f"{article} {name}"
