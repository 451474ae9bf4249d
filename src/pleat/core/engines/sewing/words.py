"""A sewing told move by move, as one says it to somebody with the needle in hand."""

from __future__ import annotations

from typing import Final

from pleat.core.base.words import joined
from pleat.core.engines.sewing.moves import SIDES, Bed, Move, Sewing, Thread

_TIES: Final = {
    "over": "bring the two tails to opposite sides of the long stitch there and tie them over it with a "
    "square knot",
    "tail": "tie to the tail with a square knot",
    "stitch": "tie off with two half hitches round the stitch that lies there",
    "knot": "tie a stopper knot against the hole",
}
_ROUND: Final = {
    "cord": "round the cord",
    "board": "round the board and back through its hole",
    "tape": "round the tape",
}


def told(sewing: Sewing, tail: str = "a tail") -> tuple[tuple[str, ...], ...]:
    """Each thread as one sentence a move, the first saying where it begins, with ``tail`` as the words for
    what is left there.

    >>> from pleat.core.engines.sewing.moves import Promise, Row
    >>> from pleat.core.engines.sewing.notation import read
    >>> bed = Bed((40.0, 105.0, 170.0), (Row(1.6, 3.2),), 210.0)
    >>> told(Sewing(bed, read("2 in | 2 1 3 2 =over", 3), Promise()))[0][:4]
    ('begin inside at 2, the middle, with a tail', 'out at 2, the middle, from inside', 'along the outside, in
    at 1', 'along the inside past the middle, out at 3')
    """
    return tuple(told_of(sewing.bed, thread, tail) for thread in sewing.threads)


def told_of(bed: Bed, thread: Thread, tail: str) -> tuple[str, ...]:
    """One thread, or the beginning of one; an empty ``tail`` says that none is left."""
    words = [_begins(bed, thread[0], tail)]
    here = before = thread[0]
    for move in thread[1:]:
        loop = before.do == move.do == "pass" and before.place == move.place and move.side == "inside"
        words.append(
            f"in again at {_hole(bed, move.at)}, leaving a small loop for the next section to hook into"
            if loop
            else _said(bed, here, move)
        )
        before = move
        if move.do != "catch":
            here = move
    return tuple(words)


def _begins(bed: Bed, start: Move, tail: str) -> str:
    tail = "a stopper knot" if start.what == "knot" else tail
    where = _side(bed, start) if _plain(bed, start) else f"in {_side(bed, start)}"
    return f"begin {where} at {_hole(bed, start.at)}{_section(bed, start.row)}" + (
        f", with {tail}" if tail else ""
    )


def _said(bed: Bed, here: Move, move: Move) -> str:
    up = move.row != here.row and move.do != "catch"
    way = ""
    if up:
        if move.row == here.row + 1:
            which = "next section"
        elif move.row == here.row - 1:
            which = "section before"
        else:
            which = "section"
        direction = "up" if move.row > here.row else "down"
        article = "the " if which != "section" else ""
        way = f"{direction} to {article}{which}, {move.row}: "
    elif here.at != move.at and move.do != "catch":
        way = f"{_along(bed, here)}{_past(bed, here.at, move.at)}{_over(bed, here, move)}, "
    if move.do == "pass":
        from_ = f", from {_side(bed, here)}" if not way and _plain(bed, move) else ""
        return f"{way}{_through(bed, move)}{from_}"
    if move.do == "catch":
        if move.row == here.row - 1:
            where = "below"
        elif move.row == here.row + 1:
            where = "above"
        else:
            where = str(move.row)
        return f"under the stitch of the section {where}"
    if move.do == "wrap":
        times = "" if move.times == 1 else f" {move.times} times"
        return f"{way}{_ROUND.get(move.what, f'round the {move.what}')}{times}"
    home = f"{_along(bed, here)} home to {_hole(bed, move.at)}, " if here.at != move.at and not up else way
    return f"{home}{_TIES[move.what]}"


def _through(bed: Bed, move: Move) -> str:
    if move.at in (0, bed.stations + 1):
        return f"round the edge at the {_hole(bed, move.at)} to the {_side(bed, move)}"
    direction = "out" if move.side == "outside" else "in"
    way = direction if _plain(bed, move) else f"through into {_side(bed, move)}"
    return f"{way} at {_hole(bed, move.at)}"


def _plain(bed: Bed, move: Move) -> bool:
    """Whether its section has an inside and an outside, and no other names for them."""
    return bed.rows[move.row - 1].sides == SIDES


def _along(bed: Bed, here: Move) -> str:
    return f"along the {_side(bed, here)}" if _plain(bed, here) else f"along the fold in {_side(bed, here)}"


def _side(bed: Bed, move: Move) -> str:
    return bed.rows[move.row - 1].side(move.side)


def _section(bed: Bed, row: int) -> str:
    return f" of section {row}" if len(bed.rows) > 1 else ""


def _hole(bed: Bed, at: float) -> str:
    if at == 0:
        return "head"
    if at == bed.stations + 1:
        return "tail"
    if at != int(at):
        return f"between {int(at)} and {int(at) + 1}"
    return f"{at:.0f}, the middle" if 2 * at == bed.stations + 1 and bed.stations > 1 else f"{at:.0f}"


def _past(bed: Bed, start: float, end: float) -> str:
    past = range(int(min(start, end)) + 1, int(max(start, end)))
    if not past:
        return ""
    if tuple(past) == ((bed.stations + 1) / 2,):
        return " past the middle"
    s = "s" if len(past) > 1 else ""
    return f" past hole{s} {joined(past)}"


def _over(bed: Bed, here: Move, move: Move) -> str:
    low, high = min(here.at, move.at), max(here.at, move.at)
    tape = here.side == "outside" and any(
        support.kind == "tape" and low < support.at < high for support in bed.supports
    )
    return " over the tape" if tape else ""
