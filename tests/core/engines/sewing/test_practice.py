"""Practising: every way that holds is right, every other tap is explained."""

import pytest

from pleat.core.engines.sewing.chapters import chapters
from pleat.core.engines.sewing.moves import Move
from pleat.core.engines.sewing.practice import allowed, judge, moves_of, tapped, variants
from pleat.core.engines.sewing.words import told
from tests.core.engines.sewing.patterns import sewn_along, small


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "sewing"), [*small()], ids=lambda one: one if isinstance(one, str) else "")
def test_all_ways_are_taken_and_every_wrong_tap_is_explained(name, sewing):
    ways = variants(sewing)
    does = {move.do for move in moves_of(sewing)} - {"start"}
    for way in ways:
        sewn: tuple[Move, ...] = ()
        for move in moves_of(way):
            rights = allowed(ways, sewn)
            assert judge(ways, sewn, move).right
            for do in sorted(does):
                for row in range(1, min(len(sewing.bed.rows), 3) + 1):
                    for at in range(1, sewing.bed.stations + 1):
                        made = tapped(ways, sewn, do, row, at)
                        answer = judge(ways, sewn, made)
                        assert answer.right == (made in rights)
                        assert answer.text
                        assert answer.right or answer.hint
            sewn = (*sewn, move)
        assert allowed(ways, sewn) == ()
        if len(sewing.bed.rows) > 3:
            break  # the others are its mirror image


def test_a_pamphlet_may_begin_towards_either_end_and_going_back_is_called_undoing():
    sewing = dict(small())["straight past 3 inside"]
    ways = variants(sewing)
    sewn = moves_of(sewing)[:2]
    assert {move.at for move in allowed(ways, sewn)} == {1, 3}
    assert "undoes" in judge(ways, sewn, tapped(ways, sewn, "pass", 1, 2)).text
    assert "unsewn" in judge(ways, moves_of(sewing)[:3], tapped(ways, moves_of(sewing)[:3], "tie", 1, 2)).text


def test_words_say_where_from_and_under_what():
    link = dict(sewn_along(3, (), (3,)))["link 3 x 3"]
    (words,) = told(link)
    assert words[0] == "begin inside at 1 of section 1, with a tail"
    assert "under the stitch of the section below" in words
    assert any(one.startswith("up to the next section, 2: in at 3") for one in words)
    tapes = dict(sewn_along(2, (6,), ()))["tapes 2 x 6"]
    assert "along the outside over the tape, in at 3" in told(tapes)[0]


@pytest.mark.parametrize("rows", [2, 9, 40])
def test_parts_of_a_sewing_follow_each_other_and_leave_nothing_out(rows):
    for _, sewing in sewn_along(rows):
        parts = chapters(sewing)
        assert [part.first for part in parts] == [0, *(part.last + 1 for part in parts[:-1])]
        assert parts[-1].last == len(moves_of(sewing)) - 1
        assert max(part.last - part.first for part in parts) < 90
