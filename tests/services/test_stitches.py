"""Stitches of one's own as they are tapped."""

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.document.recipes import recipe
from pleat.core.engines.sewing import notation
from pleat.core.whole.planning import make_plan
from pleat.services import stitches


def test_every_pattern_can_be_tapped_as_a_stitch_of_ones_own():
    """On five sections, hole by hole: what the pattern is comes out, nothing of it is refused but the loops
    that a later section holds."""
    for name in ("longstitch", "plainlong", "linkbare", "spanlinked", "eight", "journal", "ties"):
        result = make_plan(recipe(name).book()).binding
        bed, state = result.sewing.bed, stitches.tapping(result.sewing.bed, "")
        for thread in result.sewing.threads:
            for move in thread:
                hole = int(move.at) if move.do != "catch" or move.at == int(move.at) else _beside(state, move)
                what = {"start": move.what, "tie": move.what}.get(move.do, "")
                state = stitches.with_tap(bed, state.text, (move.do, move.row, hole), what, move.side)
                assert not state.refused or "loop" in state.refused, (name, move, state.refused)
        assert [fault.text for fault in state.faults if not fault.watch] == []
        home = [thread for thread in result.sewing.threads if thread[-1].at == thread[-2].at]
        assert state.sound
        if len(home) == len(result.sewing.threads):
            assert notation.read(state.text, bed.stations) == result.sewing.threads


def _beside(state, move):
    """The hole next to where the needle is, on the other end of the span that is caught."""
    here = state.moves[-1].at
    return int(2 * move.at - here)


def test_a_stitch_is_taken_by_a_book_with_its_thread_and_refused_where_it_is_none():
    book = recipe("tapes").book()
    taken = stitches.use(book, "1.1 out | 1 2 2.2 1 =tail", 2, "Ring of Saturn")
    assert (taken.binding.kind, taken.binding.name, taken.binding.thread) == (
        "own",
        "Ring of Saturn",
        book.binding.thread,
    )
    assert taken.aside["binding"]["tapes"]["tape_mm"] == 12
    with pytest.raises(BadBook, match="begins with a hole"):
        stitches.use(book, "nonsense", 3, "")


def test_the_line_of_a_stitch_is_read_back_as_it_is_written():
    line = "1.1 out | 1 2 u2.2-3 3 w-cord 4 2.4 =tail@1.1"
    assert notation.write(notation.read(line, 4), 4) == line
