"""Learning a stitch by doing it: which moves are right next, and what a wrong one would do.

Right are all ways a pattern can be sewn: as it is written, mirrored, and a closed one the other way round, as
far as they agree with what was sewn so far. Anything else is looked at as a continuation and told by the
fault it makes; what could be sewn and is no fault is another pattern.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from pleat.core.engines.sewing.faults import first
from pleat.core.engines.sewing.moves import Do, Move, Sewing, Thread, backwards, other
from pleat.core.engines.sewing.walk import where
from pleat.core.engines.sewing.words import told


@dataclass(frozen=True)
class Answer:
    """What a tap was: ``right``, or why it was not; ``hint`` says what would have been right, in words."""

    right: bool
    text: str
    hint: str = ""


def variants(sewing: Sewing) -> tuple[Sewing, ...]:
    """Every way to sew it that is as good: as written, mirrored, and backwards where it is closed."""
    sewings = [sewing, sewing.mirrored]
    for one in (sewing, sewing.mirrored):
        turned = tuple(backwards(thread) for thread in one.threads)
        if all(turned):
            sewings.append(Sewing(one.bed, tuple(thread for thread in turned if thread), one.promise))
    return tuple(dict.fromkeys(sewings))


def moves_of(sewing: Sewing) -> tuple[Move, ...]:
    """All moves in the order they are sewn, one thread after the other."""
    return sewing.moves


def alive(ways: Sequence[Sewing], sewn: Sequence[Move]) -> tuple[Sewing, ...]:
    """The ways that agree with what was sewn."""
    so_far = tuple(sewn)
    return tuple(sewing for sewing in ways if moves_of(sewing)[: len(so_far)] == so_far)


def allowed(ways: Sequence[Sewing], sewn: Sequence[Move]) -> tuple[Move, ...]:
    """The moves that are right next; empty when the sewing is done."""
    found = [moves_of(sewing)[len(sewn)] for sewing in alive(ways, sewn) if len(moves_of(sewing)) > len(sewn)]
    return tuple(dict.fromkeys(found))


def threads_of(moves: Sequence[Move]) -> tuple[Thread, ...]:
    """Moves parted into threads at each start."""
    threads: list[list[Move]] = []
    for move in moves:
        if move.do == "start" or not threads:
            threads.append([])
        threads[-1].append(move)
    return tuple(tuple(thread) for thread in threads)


def judge(ways: Sequence[Sewing], sewn: Sequence[Move], move: Move) -> Answer:
    """Whether ``move`` may come after what was ``sewn``, which agrees with one of the ways."""
    rights = allowed(ways, sewn)
    sewing = (alive(ways, sewn) or tuple(ways))[0]
    if move in rights:
        return Answer(True, _told(sewing, sewn, move))
    hint = (
        " or ".join(dict.fromkeys(_told(sewing, sewn, right) for right in rights))
        if rights
        else "it is done: nothing comes after the last knot"
    )
    if move.do == "start":
        return Answer(False, f"Begun at {move.at:g}, it comes out another way.", hint)
    fault = first(Sewing(sewing.bed, threads_of((*sewn, move)), sewing.promise))
    if fault:
        return Answer(False, f"{fault.text[0].upper()}{fault.text[1:]}.", hint)
    if rights and move.do == "tie":
        return Answer(False, "Tied off here, the rest would stay unsewn.", hint)
    return Answer(False, "That can be sewn, but it makes another pattern.", hint)


def tapped(ways: Sequence[Sewing], sewn: Sequence[Move], do: Do, row: int, at: int) -> Move:
    """The move that a tap on a hole means: the right one where it is near, else what it would be by
    itself."""
    rights = [
        one
        for one in allowed(ways, sewn)
        if one.do == do and one.row == row and abs(one.at - at) <= (0.5 if do == "catch" else 0)
    ]
    if rights:
        return rights[0]
    sewing = (alive(ways, sewn) or tuple(ways))[0]
    begun = bool(sewn) and not _done(sewn)
    side = where(sewn)[2] if begun else sewing.threads[0][0].side
    if not begun:
        return Move("start", row, at, side)
    if do == "pass":
        side = other(side)
    kind = next(
        (
            support.kind
            for support in sewing.bed.supports
            if support.lies_on(row) and abs(support.at - at) <= 0.5
        ),
        "cord",
    )
    return Move(do, row, at, side, {"wrap": kind, "tie": "tail"}.get(do, ""))


def _done(sewn: Sequence[Move]) -> bool:
    """Whether the last thread is tied off, so that the next move begins another."""
    last = sewn[-1]
    return last.do == "tie" and last.what in ("over", "knot")


def _told(sewing: Sewing, sewn: Sequence[Move], move: Move) -> str:
    return told(Sewing(sewing.bed, threads_of((*sewn, move)), sewing.promise))[-1][-1]
