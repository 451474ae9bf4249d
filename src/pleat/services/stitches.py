"""A stitch of one's own while it is tapped, in a book, and among the materials."""

from __future__ import annotations

from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from pleat.core.base.errors import BadBook, FieldProblem
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.engines.sewing import notation, practice
from pleat.core.engines.sewing.faults import Fault, find, first
from pleat.core.engines.sewing.moves import Bed, Move, Sewing, Side, other
from pleat.core.engines.sewing.own import TRIED_ON, CannotGrow, grown, promise_for, rows_of
from pleat.core.engines.sewing.walk import where
from pleat.core.materials.items import Stitch
from pleat.services.clock import now
from pleat.services.practising import Tap
from pleat.store import items as store


@dataclass(frozen=True)
class Tapping:
    """A stitch while it is tapped: its moves, why the last tap cannot be sewn, what is wrong with it as a
    whole, where it grows to.

    ``finished`` says that the last thread is tied off; ``grows`` holds (sections, "" or why not).
    """

    bed: Bed
    moves: tuple[Move, ...]
    refused: str
    faults: tuple[Fault, ...]
    grows: tuple[tuple[int, str], ...]
    text: str

    @property
    def finished(self) -> bool:
        return bool(self.moves) and self.moves[-1].do == "tie"

    @property
    def sound(self) -> bool:
        return self.finished and not any(not fault.watch for fault in self.faults)


def tapping(bed: Bed, text: str, refused: str = "") -> Tapping:
    """A stitch as far as it was tapped or typed."""
    try:
        threads = notation.read(text, bed.stations) if text.strip() else ()
    except notation.BadSewing as error:
        return Tapping(bed, (), error.reason, (), (), text)
    if rows_of(threads) > len(bed.rows):
        return Tapping(
            bed,
            (),
            f"There is no section {rows_of(threads)} on this board: it has {len(bed.rows)}.",
            (),
            (),
            text,
        )
    moves = tuple(move for thread in threads for move in thread)
    sewing = Sewing(bed, threads, promise_for(bed, threads))
    finished = bool(moves) and moves[-1].do == "tie"
    faults: tuple[Fault, ...] = ()
    if moves:
        wrong = first(sewing)
        used = max(rows_of(threads), 1)
        whole = Sewing(replace(bed, rows=bed.rows[:used]), threads, sewing.promise)
        if finished:
            faults = find(whole)
        elif wrong:
            faults = (wrong,)
        else:
            faults = ()
    grows = _grows(bed, threads) if finished and not any(not fault.watch for fault in faults) else ()
    return Tapping(bed, moves, refused, faults, grows, notation.write(threads, bed.stations))


def _grows(bed: Bed, threads: tuple[tuple[Move, ...], ...]) -> tuple[tuple[int, str], ...]:
    """What becomes of it on other numbers of sections."""
    found = []
    if rows_of(threads) == 1:
        return ()
    for rows in sorted({*TRIED_ON, len(bed.rows)}):
        tried = replace(bed, rows=(bed.rows * rows)[:rows])
        try:
            made = grown(threads, rows, bed.stations)
        except CannotGrow as error:
            found.append((rows, str(error)))
            continue
        wrong = next(
            (fault.text for fault in find(Sewing(tried, made, promise_for(tried, made))) if not fault.watch),
            "",
        )
        found.append((rows, wrong))
    return tuple(found)


def with_tap(bed: Bed, text: str, tapped: Tap, what: str, side: Side) -> Tapping:
    """One tap more; one that cannot be sewn is refused with the reason, and nothing of the stitch is lost.

    ``what`` says how it is tied or begun, ``side`` where the first thread begins.
    """
    do, row, at = tapped
    before = tapping(bed, text)
    begun = bool(before.moves) and not (before.finished and before.moves[-1].what in ("over", "knot"))
    here = where(before.moves) if begun else (row, float(at), side)
    if not begun or do == "start":
        move = Move("start", row, at, side, "knot" if what == "knot" else "")
    elif do == "pass":
        move = Move("pass", row, at, other(here[2]))
    elif do == "catch":
        beside = abs(at - here[1]) == 1  # the hole beside it means the stitch between the two
        move = Move("catch", row, (at + here[1]) / 2 if beside else at, here[2])
    elif do == "wrap":
        kind = next(
            (support.kind for support in bed.supports if support.lies_on(row) and support.at == at), "cord"
        )
        move = Move("wrap", row, at, here[2], kind)
    else:
        move = Move("tie", row, at, here[2], what or "tail")
    after = (*before.moves, move)
    threads = practice.threads_of(after)
    wrong = first(Sewing(bed, threads, promise_for(bed, threads)))
    held = wrong is not None and wrong.kind == "undone"
    if wrong and not held:
        return replace(before, refused=f"{wrong.text[0].upper()}{wrong.text[1:]}.")
    made = tapping(bed, notation.write(threads, bed.stations))
    if held:
        return replace(
            made, refused="Out and in by one hole is a loop: it holds only if a later section hooks into it."
        )
    return made


def without_last(bed: Bed, text: str) -> Tapping:
    """The stitch without its last move."""
    before = tapping(bed, text)
    return tapping(
        bed,
        notation.write(practice.threads_of(before.moves[:-1]), bed.stations) if len(before.moves) > 1 else "",
    )


def _readable(moves: str, stations: int) -> None:
    """Raises BadBook for a stitch that is none."""
    try:
        notation.read(moves, stations)
    except notation.BadSewing as error:
        raise BadBook([FieldProblem("name", "your stitch", moves[:80], error.reason)]) from error


def use(book: Book, moves: str, stations: int, name: str) -> Book:
    """The book sewn with a stitch of one's own; its thread stays as it was. Raises BadBook."""
    _readable(moves, stations)
    taken = book
    places = {name: getattr(book.binding, name, None) for name in ("thread", "tail_mm", "strands")}
    if book.binding.kind != "own":
        taken = editing.apply(book, [("binding.kind", "own")])
    changes: list[tuple[str, object]] = [
        ("binding.station_count", stations),
        ("binding.moves", moves),
        ("binding.name", name[:60]),
    ]
    for field in ("tail_mm", "strands"):
        if places[field] is not None:
            changes.append((f"binding.{field}", places[field]))
    if places["thread"] is not None:
        changes.append(("binding.thread", places["thread"].model_dump(mode="json")))
    return editing.apply(taken, changes)


def keep(session: Session, name: str, moves: str, stations: int) -> int:
    """Puts a stitch among the materials and says under which number. Raises BadBook for one without a name,
    or that is none."""
    _readable(moves, stations)
    if not name.strip():
        raise BadBook(
            [FieldProblem("name", "what you call it", name, "Give the stitch a name, to find it again.")]
        )
    return store.add(session, Stitch(name=name.strip()[:60], stations=stations, moves=moves), now())


def stitches(session: Session) -> list[tuple[int, Stitch]]:
    """The stitches among the materials."""
    return [
        (stored.id, stored.item)
        for stored in store.of_kind(session, "stitch")
        if isinstance(stored.item, Stitch)
    ]
