"""What is wrong with a sewing, named with the step it goes wrong at; what it does not keep of its promise
only where no step is wrong.

Whether it holds is one idea: going out by a hole is a letter, coming in by it its inverse, what goes under or
round something a letter of its own. Whatever of that word cancels out can be pulled out of the holes again.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

from pleat.core.base.words import joined
from pleat.core.engines.sewing.moves import Bed, Move, Promise, Sewing, Side, Thread, other
from pleat.core.engines.sewing.promises import broken
from pleat.core.engines.sewing.walk import Stretch, walk

FaultKind = Literal[
    "begins",
    "unknown",
    "wrong side",
    "jump",
    "across",
    "float",
    "undone",
    "nothing there",
    "twice",
    "ends",
    "untied",
    "grip",
    "missed",
    "bare",
    "unlinked",
    "support",
    "cover",
]


@dataclass(frozen=True)
class Fault:
    """A fault in the maker's words. ``step`` counts the moves of all threads from 0; None for what is missing
    as a whole. A ``watch`` holds, and is seldom meant."""

    kind: FaultKind
    text: str
    step: int | None = None
    watch: bool = False


_BEYOND: Final = 1e-9


@dataclass
class _State:
    """What has been sewn so far, by all threads: what lies where."""

    bed: Bed
    promise: Promise
    lies: set[tuple[int, float, Side]] = field(default_factory=set)
    """(row, place, side) that thread lies at: its holes, and the middles of the gaps it runs along."""
    long: set[tuple[int, float, Side]] = field(default_factory=set)
    """(row, hole, side) that a stitch runs past."""
    word: _Word = field(default_factory=lambda: _Word(set()))

    def lay(self, stretch: Stretch) -> None:
        _, _, what, row, start, to, end, side, _, _ = stretch
        if what == "passage":
            self.lies |= {(row, start, "inside"), (row, start, "outside")}
        elif what == "span":
            self.lies |= {
                (row, start, side),
                (row, end, side),
                *((row, gap + 0.5, side) for gap in stretch.gaps),
            }
            self.long |= {(row, hole, side) for hole in stretch.passed}
        elif what == "climb":
            self.lies |= {
                (to, end, side),
                *((between, start, side) for between in range(min(row, to), max(row, to) + 1)),
            }


def find(sewing: Sewing) -> tuple[Fault, ...]:
    """Everything wrong with it: the steps first; what was promised only where every step is right. Empty when
    it is right.

    >>> from pleat.core.engines.sewing.moves import Row
    >>> from pleat.core.engines.sewing.notation import read
    >>> bed = Bed((40.0, 105.0, 170.0), (Row(1.6, 3.2),), 210.0)
    >>> find(Sewing(bed, read("2 in | 2 1 3 2 =over", 3), Promise(may_pass=frozenset({2}))))
    ()
    >>> [fault.kind for fault in find(Sewing(bed, read("2 in | 2 1 1 2 =over", 3), Promise()))]
    ['undone']
    """
    stretches = walk(sewing.threads)
    wrong = _steps(sewing, stretches, finished=True)
    if any(not fault.watch for fault in wrong):
        return wrong
    return (*wrong, *(Fault(kind, text) for kind, text in broken(sewing, stretches)))


def first(sewing: Sewing) -> Fault | None:
    """The first fault of an unfinished sewing; None when all of it can be sewn. A loop out and in by one hole
    may still be held by a section to come, so only one that the last move makes is told."""
    return next(
        (fault for fault in _steps(sewing, walk(sewing.threads), finished=False) if not fault.watch), None
    )


def _steps(sewing: Sewing, stretches: Sequence[Stretch], finished: bool) -> tuple[Fault, ...]:
    state, step = _State(sewing.bed, sewing.promise), 0
    laid: dict[int, list[Stretch]] = {}
    for stretch in stretches:
        laid.setdefault(stretch.step, []).append(stretch)
    held = {move.place for thread in sewing.threads for move in thread if move.do == "catch" or not finished}
    last = None if finished else count(sewing.threads) - 1
    faults: list[Fault] = []
    for number, thread in enumerate(sewing.threads):
        faults += _thread(state, thread, step, laid, _Word(held, last))
        if (finished or number + 1 < len(sewing.threads)) and not (faults and not faults[-1].watch):
            faults += _end(state, thread, step, state.word)
        step += len(thread)
    return tuple(faults)


def _thread(
    state: _State, thread: Thread, step: int, laid: dict[int, list[Stretch]], letters: _Word
) -> Iterator[Fault]:
    """What is wrong with the moves of one thread; nothing is looked at after the first that cannot be
    sewn."""
    state.word = letters
    if not thread or thread[0].do != "start":
        yield Fault("begins", "a thread begins with a start: say at which hole and on which side", step)
        return
    start, bed = thread[0], state.bed
    if not _is_hole(bed, start.row, start.at, state.promise.edges):
        yield Fault("unknown", _no_hole(bed, start), step)
        return
    here = start
    for number, move in enumerate(thread[1:], 1):
        at = step + number
        if here.do == "tie" and here.what in ("over", "knot") and number > 1:
            yield Fault("ends", "the thread was tied off here, and goes on", at)
            return
        fault = _move(state, thread, here, move, at)
        if fault and not fault.watch:
            yield fault
            return
        if fault:
            yield fault
        for stretch in laid.get(at, ()):
            state.lay(stretch)
        undone = letters.add(move, at)
        if undone is not None:
            yield Fault(
                "undone",
                f"it goes back through hole {_hole(bed, move)} it just came from, which undoes the stitch",
                at,
            )
            return
        if move.do != "catch":
            here = move


def _move(state: _State, thread: Thread, here: Move, move: Move, step: int) -> Fault | None:
    """What is wrong with one move, given where the thread is; None when it can be sewn."""
    bed, promise = state.bed, state.promise
    if not 1 <= move.row <= len(bed.rows):
        return Fault(
            "unknown",
            f"there is no section {move.row}; they are numbered 1 at the front to {len(bed.rows)}",
            step,
        )
    if move.do == "start":
        return Fault("begins", "a thread starts once", step)
    if move.side != (other(here.side) if move.do == "pass" else here.side):
        return Fault(
            "wrong side",
            f"the thread is {here.side} here, and cannot be {move.side} without going through a hole",
            step,
        )
    if move.do == "catch":
        return _catch(state, here, move, step)
    if move.do == "pass" and not _is_hole(bed, move.row, move.at, promise.edges):
        return Fault("unknown", _no_hole(bed, move), step)
    if move.do == "wrap" and (
        move.side == "inside"
        or not any(_is_there(support.kind, support.at, move, support.rows) for support in bed.supports)
    ):
        return Fault("nothing there", f"there is no {move.what} to go round at {_hole(bed, move)}", step)
    if move.do == "tie" and (fault := _tie(state, thread, here, move, step)):
        return fault
    return _travel(state, here, move, step)


def _is_there(kind: str, at: float, move: Move, rows: tuple[int, ...]) -> bool:
    return kind == move.what and abs(at - move.at) < _BEYOND and (not rows or move.row in rows)


def _travel(state: _State, here: Move, move: Move, step: int) -> Fault | None:
    promise = state.promise
    rows = abs(move.row - here.row)
    if rows and here.side == "inside":
        return Fault(
            "jump",
            f"inside section {here.row} it cannot get into section {move.row}: it has to come out first",
            step,
        )
    if rows and move.do != "tie":
        if rows > promise.cross:
            s = "s" if rows - promise.cross > 1 else ""
            return Fault(
                "across",
                f"it goes over {rows - promise.cross} section{s} without going in",
                step,
            )
        if here.at != move.at and not promise.slant:
            return Fault(
                "across",
                f"it runs aslant from {here.at:g} to {move.at:g} on the way to section {move.row}",
                step,
                promise.own,
            )
        return None
    past = [
        hole
        for hole in range(int(min(here.at, move.at)) + 1, int(max(here.at, move.at) + 0.5))
        if hole not in promise.may_pass
    ]
    if past and move.do == "pass":
        s = "s" if len(past) > 1 else ""
        holes = f"hole{s} {joined(past)}"
        return Fault(
            "float", f"it runs past {holes} on its way from {here.at:g} to {move.at:g}", step, promise.own
        )
    return None


def _catch(state: _State, here: Move, move: Move, step: int) -> Fault | None:
    if here.side == "inside":
        return Fault(
            "nothing there", "inside the fold there is no stitch of another section to go under", step
        )
    if abs(move.row - here.row) > state.promise.cross or abs(move.at - here.at) > 0.5 + _BEYOND:
        return Fault(
            "nothing there",
            f"the stitch at {_hole(state.bed, move)} of section {move.row} is too far away to go under",
            step,
        )
    if move.row == here.row or (move.row, move.at, here.side) not in state.lies:
        return Fault(
            "nothing there",
            f"there is no stitch to go under at {_hole(state.bed, move)} of section {move.row}",
            step,
        )
    return None


def _tie(state: _State, thread: Thread, here: Move, move: Move, step: int) -> Fault | None:
    start = thread[0]
    if here.do == "start":
        return Fault("ends", "it is tied before it went anywhere", step)
    if move.what in ("tail", "over"):
        if start.what == "knot":
            return Fault("ends", "the thread began with a stopper knot and left no tail to tie to", step)
        if move.side != start.side:
            return Fault(
                "ends",
                f"it starts {start.side} and ends {move.side}, so the tails hang on different sides",
                step,
            )
        near = abs(move.row - start.row) <= (1 if start.side == "outside" else 0)
        if move.at != start.at or not near:
            return Fault(
                "ends",
                f"it starts at hole {_hole(state.bed, start)} and ends at hole {_hole(state.bed, move)}, so "
                "the tails cannot meet",
                step,
            )
    if move.what == "over" and (move.row, move.at, move.side) not in state.long:
        return Fault(
            "untied",
            f"no long stitch passes hole {_hole(state.bed, move)} {move.side}, so the knot has nothing to be "
            "tied over",
            step,
            True,
        )
    if move.what == "stitch" and not any(
        (row, move.at, move.side) in state.lies for row in (move.row - 1, move.row, move.row + 1)
    ):
        return Fault("nothing there", f"there is no stitch at {_hole(state.bed, move)} to tie it to", step)
    if move.what == "knot" and move.place != here.place:
        return Fault(
            "ends", f"a stopper knot sits at the hole the thread comes out of, {_hole(state.bed, here)}", step
        )
    return None


def _end(state: _State, thread: Thread, step: int, letters: _Word) -> Iterator[Fault]:
    last = step + len(thread) - 1
    start, tie = thread[0], thread[-1]
    if len(thread) > 1 and start.what == "knot" and thread[1].place != start.place:
        yield Fault(
            "ends",
            f"a stopper knot sits at the hole the thread goes into, {_hole(state.bed, thread[1])}",
            step,
        )
    if tie.do != "tie":
        yield Fault("untied", "its end is not tied", last)
        return
    closed = tie.what in ("tail", "over")
    if letters.empty(closed):
        yield Fault("grip", "pulled at both ends, all of it comes out again: nothing holds it", last)
    elif tie.what == "tail" and letters.closes_on_itself and not state.promise.knots:
        what = (
            "the tails go into one hole: unless they lie either side of a long stitch the knot slips "
            "through it"
        )
        yield Fault("grip", what, last, any(move.do == "wrap" for move in thread))


class _Word:
    """The passes so far as a word that cancels where it can: out by a hole and in by it are inverse."""

    def __init__(self, held: set[tuple[int, float]], last: int | None = None) -> None:
        self.letters: list[tuple[tuple[int, float], int]] = []
        self.held, self.last = held, last
        self.tied = False

    def add(self, move: Move, step: int) -> int | None:
        """The step where this move undoes an earlier one; None where it does not."""
        if move.do in ("catch", "wrap") or (
            self.tied and move.do == "pass"
        ):  # what was tied on the way is not undone by going back
            self.letters.append(((-step, 0.0), 0))
        self.tied = move.do == "tie"
        if move.do != "pass":
            return None
        sign = 1 if move.side == "outside" else -1
        if (
            self.letters
            and self.letters[-1] == (move.place, -sign)
            and (sign > 0 or move.place not in self.held or step == self.last)
        ):
            return step
        self.letters.append((move.place, sign))
        return None

    def empty(self, closed: bool) -> bool:
        letters = self._cyclic() if closed else self.letters
        return not letters

    @property
    def closes_on_itself(self) -> bool:
        return len(self._cyclic()) < len(self.letters)

    def _cyclic(self) -> list[tuple[tuple[int, float], int]]:
        letters = list(self.letters)
        while len(letters) > 1 and letters[0][0] == letters[-1][0] and letters[0][1] == -letters[-1][1] != 0:
            letters = letters[1:-1]
        return letters


def _is_hole(bed: Bed, row: int, at: float, edges: bool) -> bool:
    low, high = (0, bed.stations + 1) if edges else (1, bed.stations)
    return 1 <= row <= len(bed.rows) and at == int(at) and low <= at <= high


def _no_hole(bed: Bed, move: Move) -> str:
    if not 1 <= move.row <= len(bed.rows):
        return f"there is no section {move.row}; they are numbered 1 at the front to {len(bed.rows)}"
    return f"there is no hole {_hole(bed, move)}; they are numbered 1 at the head to {bed.stations}"


def _hole(bed: Bed, move: Move) -> str:
    """A place in words: ``3``, ``2–3``, ``the head``.

    >>> from pleat.core.engines.sewing.moves import Row
    >>> _hole(Bed((1.0, 2.0), (Row(1, 2),), 3.0), Move("catch", 1, 1.5, "inside"))
    '1–2'
    """
    if move.at == 0:
        return "the head"
    if move.at == bed.stations + 1:
        return "the tail"
    return f"{move.at:.0f}" if move.at == int(move.at) else f"{int(move.at)}–{int(move.at) + 1}"


def count(threads: Sequence[Thread]) -> int:
    return sum(len(thread) for thread in threads)
