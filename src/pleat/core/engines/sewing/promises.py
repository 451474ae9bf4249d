"""What a pattern promises of the whole, held against what was sewn: every hole used, gaps covered, sections
linked, supports held."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from pleat.core.base.words import joined
from pleat.core.engines.sewing.moves import SIDES, Sewing, passes
from pleat.core.engines.sewing.walk import Stretch

Broken = Literal["missed", "bare", "unlinked", "support", "cover"]


def broken(sewing: Sewing, stretches: Sequence[Stretch]) -> Iterator[tuple[Broken, str]]:
    """(what is broken, in words) for everything promised that is not there."""
    yield from _missed(sewing)
    yield from _bare(sewing, stretches)
    yield from _unlinked(sewing, stretches)
    yield from _loose(sewing, stretches)
    if sewing.promise.cover and not all(row.cover_mm for row in sewing.bed.rows):
        yield "cover", "the cover is not sewn in"


def _of(row: int, sewing: Sewing) -> str:
    return f" of section {row}" if len(sewing.bed.rows) > 1 else ""


def _missed(sewing: Sewing) -> Iterator[tuple[Broken, str]]:
    used = {place for thread in sewing.threads for place in passes(thread)}
    for row in range(1, len(sewing.bed.rows) + 1):
        holes = [
            hole
            for hole in range(1, sewing.bed.stations + 1)
            if (row, hole) not in used and (row, hole) not in sewing.promise.unused
        ]
        if holes:
            s = "s" if len(holes) > 1 else ""
            yield (
                "missed",
                f"it leaves out hole{s} {joined(holes)}{_of(row, sewing)}",
            )


def _bare(sewing: Sewing, stretches: Sequence[Stretch]) -> Iterator[tuple[Broken, str]]:
    wanted = sewing.promise.covered
    if wanted == "none":
        return
    covered = {
        (stretch.row, gap, stretch.side)
        for stretch in stretches
        if stretch.what == "span"
        for gap in stretch.gaps
    }
    gaps = range(1, sewing.bed.stations) if sewing.promise.gaps is None else sewing.promise.gaps
    for row in range(1, len(sewing.bed.rows) + 1):
        for gap in gaps:
            bare = [side for side in SIDES if (row, gap, side) not in covered]
            between = f"runs between holes {gap} and {gap + 1}{_of(row, sewing)}"
            if wanted == "either" and len(bare) == 2:
                yield "bare", f"nothing {between}"
            elif (wanted == "both" and bare) or (wanted == "inside" and "inside" in bare):
                yield "bare", f"nothing {between} {sewing.bed.rows[row - 1].side(bare[0])}"


def links(stretches: Sequence[Stretch]) -> set[tuple[int, int, float]]:
    """(row, the next one, station) wherever two neighbouring rows are joined outside: by a climb, a catch, or
    a tie to the stitch there."""
    found = set()
    for stretch in stretches:
        if stretch.what in ("climb", "catch"):
            low, high = sorted((stretch.row, stretch.to_row))
            for row in range(low, high):
                found |= {(row, row + 1, stretch.start), (row, row + 1, stretch.end)}
        if stretch.what == "knot" and stretch.kind == "stitch" and stretch.row > 1:
            found.add((stretch.row - 1, stretch.row, stretch.start))
    return found


def _unlinked(sewing: Sewing, stretches: Sequence[Stretch]) -> Iterator[tuple[Broken, str]]:
    wanted, stations = sewing.promise.links, sewing.bed.stations
    if wanted == "none":
        return
    joins: dict[int, set[float]] = {}
    for low, _, place in links(stretches) | _tails(sewing):
        joins.setdefault(low, set()).add(place)
    for row in range(1, len(sewing.bed.rows)):
        at = joins.get(row, set())
        if wanted == "all":
            needed = set(range(1, stations + 1))
        elif wanted == "ends":
            needed = {1, stations}
        else:
            needed = set()
        if not at:
            yield "unlinked", f"nothing joins section {row} to section {row + 1}"
        elif needed - at:
            yield "unlinked", f"sections {row} and {row + 1} are not joined at {joined(sorted(needed - at))}"


def _tails(sewing: Sewing) -> set[tuple[int, int, float]]:
    """Where a thread is tied to its own tail in the row before."""
    found = set()
    for thread in sewing.threads:
        for move in thread:
            if move.do == "tie" and move.what in ("tail", "over") and move.row != thread[0].row:
                found.add((min(move.row, thread[0].row), max(move.row, thread[0].row), move.at))
    return found


def _loose(sewing: Sewing, stretches: Sequence[Stretch]) -> Iterator[tuple[Broken, str]]:
    """Supports that a row does not hold: by going round them, or by a stitch over their gap."""
    if sewing.promise.supports == "none":
        return
    holds = {(stretch.row, stretch.start) for stretch in stretches if stretch.what == "wrap"}
    holds |= {
        (row, gap + 0.5)
        for stretch in stretches
        if stretch.side == "outside" and stretch.what in ("span", "climb")
        for row in (stretch.row, stretch.to_row)
        for gap in stretch.gaps
    }
    for number, support in enumerate(sewing.bed.supports, 1):
        for row in range(1, len(sewing.bed.rows) + 1):
            neighbour = row + 1 if row % 2 else row - 1
            pair = {row, neighbour} if sewing.promise.supports == "every pair" else {row}
            if support.lies_on(row) and not any((other, support.at) in holds for other in pair):
                yield "support", f"section {row} does not hold {support.kind} {number}"
