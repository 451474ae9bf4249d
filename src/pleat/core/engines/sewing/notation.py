"""A sewing as a line of text: ``1.2 in | 1.2 1.1 1.3 1.2 =over``.

A thread begins with its place and side (``in`` or ``out``, with ``knot`` for a stopper), then come its moves.
``1.2`` passes station 2 of row 1; the row may be left out where it stays the same, so ``2 in | 2 1 3 2
=over`` is the same. ``h`` and ``t`` are the edges at head and tail. ``u1.2`` catches the stitch there,
``u1.2-3`` the span between two holes, ``w-cord*2`` wraps a cord twice. ``=tail``, ``=over``, ``=stitch`` and
``=knot`` tie. Both with ``@1.3`` where that is not where the thread is. Threads are parted by semicolons.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Final

from pleat.core.base.errors import PleatError
from pleat.core.engines.sewing.moves import Move, Side, Thread, other

LONGEST: Final = 20_000
"""Letters of a sewing that are read."""
MOST_MOVES: Final = 2_500
_SIDE: Final[dict[str, Side]] = {"in": "inside", "out": "outside"}
_PLACE: Final = r"(?:(?P<row>[0-9]{1,2})\.)?(?P<at>[0-9]{1,2}(?:-[0-9]{1,2})?|h|t)"
_WHERE: Final = _PLACE.replace("row", "there").replace("at>", "where>")
_START: Final = re.compile(rf"{_PLACE}\s+(?P<side>in|out)(?P<knot>\s+knot)?")
_MOVE: Final = re.compile(
    rf"(?P<catch>u)?{_PLACE}|(?:w-(?P<wrap>[a-z]{{1,12}})(?:\*(?P<times>[0-9]))?|"
    rf"=(?P<tie>tail|over|stitch|knot))(?:@{_WHERE})?"
)


class BadSewing(PleatError):
    """A line that cannot be read; ``word`` is where, ``reason`` what would do."""

    def __init__(self, word: str, reason: str) -> None:
        super().__init__(f"{word}: {reason}")
        self.word, self.reason = word, reason


def read(text: str, stations: int) -> tuple[Thread, ...]:
    """The threads of a text on so many stations. Raises BadSewing.

    >>> [move.place for move in read("2 in | 2 1 3 2 =over", 3)[0]]
    [(1, 2), (1, 2), (1, 1), (1, 3), (1, 2), (1, 2)]
    """
    if len(text) > LONGEST:
        raise BadSewing(text[:20], "That is too long for a sewing.")
    threads = [_thread(part, stations) for part in text.split(";") if part.strip()]
    if not threads:
        raise BadSewing(
            "", "Type where it starts and on which side, then the holes: for example 2 in | 2 1 3 2 =over."
        )
    if sum(len(thread) for thread in threads) > MOST_MOVES:
        raise BadSewing(text[:20], f"That is more than {MOST_MOVES} moves.")
    return tuple(threads)


def _thread(text: str, stations: int) -> Thread:
    head, bar, rest = text.strip().lower().partition("|")
    start = _START.fullmatch(head.strip())
    if not bar or not start:
        raise BadSewing(
            head.strip()[:30],
            "A thread begins with a hole and a side and a stroke: 2 in | and then the holes.",
        )
    row, at, side = int(start["row"] or 1), _at(start["at"], stations), _SIDE[start["side"]]
    made = [Move("start", row, at, side, "knot" if start["knot"] else "")]
    for word in re.findall(r"\S+", rest):
        found = _MOVE.fullmatch(word)
        if not found:
            raise BadSewing(
                word[:30],
                "Write a hole such as 3 or 2.3, u2.3 to go under a stitch, w-cord to go round one, =over to "
                "tie.",
            )
        if found["wrap"] or found["tie"]:
            row = int(found["there"] or row)
            at = _at(found["where"], stations) if found["where"] else at
            made.append(
                Move(
                    "wrap" if found["wrap"] else "tie",
                    row,
                    at,
                    side,
                    found["wrap"] or found["tie"],
                    int(found["times"] or 1),
                )
            )
        elif found["catch"]:
            made.append(Move("catch", int(found["row"] or row), _at(found["at"], stations), side))
        else:
            row, at, side = int(found["row"] or row), _at(found["at"], stations), other(side)
            made.append(Move("pass", row, at, side))
    return tuple(made)


def _at(word: str, stations: int) -> float:
    if word in "ht":
        return 0 if word == "h" else stations + 1
    low, _, high = word.partition("-")
    if not 1 <= int(low) <= stations or not 1 <= int(high or low) <= stations:
        raise BadSewing(
            word,
            f"There is no hole {word}: they are numbered 1 at the head to {stations}; h and t are the edges.",
        )
    return (int(low) + int(high)) / 2 if high else int(low)


def write(threads: Sequence[Thread], stations: int) -> str:
    """The text of threads, as ``read`` reads it; the row stands where it changes.

    >>> write(read("2 in | 2 1 3 2 =over", 3), 3)
    '1.2 in | 2 1 3 2 =over'
    """
    return "; ".join(_written(thread, stations) for thread in threads)


def _written(thread: Thread, stations: int) -> str:
    start, *moves = thread
    where = "in" if start.side == "inside" else "out"
    knot = " knot" if start.what == "knot" else ""
    words = [f"{_word(start.row, start.at, stations)} {where}{knot} |"]
    row, at = start.place
    for move in moves:
        known = _word(move.row if move.row != row else None, move.at, stations)
        match move.do:
            case "pass":
                words.append(known)
            case "catch":
                words.append("u" + _word(move.row, move.at, stations))
            case _:
                sign = "w-" if move.do == "wrap" else "="
                times = f"*{move.times}" if move.do == "wrap" and move.times > 1 else ""
                number = f"@{known}" if move.place != (row, at) else ""
                words.append(f"{sign}{move.what}{times}{number}")
        if move.do != "catch":
            row, at = move.place
    return " ".join(words)


def _word(row: int | None, at: float, stations: int) -> str:
    place = (
        {0.0: "h", stations + 1.0: "t"}.get(at, f"{at:.0f}") if at == int(at) else f"{int(at)}-{int(at) + 1}"
    )
    return place if row is None else f"{row}.{place}"
