"""The leaves of a block: against a book put together face by face, from the innermost sheet outward, which
knows no page formula."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.materials.items import Paper
from pleat.core.pleats.pages.kinds.sections import _numbered_pile
from pleat.core.pleats.pages.leaves import FoldOut, PlainPaper, leaves_of_paper, leaves_of_pile, openings
from pleat.core.pleats.pages.mixed import folio
from pleat.core.pleats.pages.record import PileSheet

PAPER = Paper(name="Bag", kind="kraft", grammage=90, sheet_width_mm=420, sheet_height_mm=297)


def sheet(number, joined="folded", sides=2, flap=None, panels=1):
    paper = PAPER.model_copy(update={"sides": sides, "name": f"Bag {number}"})
    return folio(
        PileSheet(id=number, paper="own", flap_mm=flap, flap_panels=panels), paper, 100.0, 200.0, joined
    )


def put_together(section):
    """The faces of a section in reading order: each sheet is laid round what is there already; (sheet, inner
    side?, which leaf)."""
    faces = []
    for one in reversed(section):
        front, back = [(one, False, 0), (one, True, 0)], [(one, True, 1), (one, False, 1)]
        faces = front + faces + (back if one.joined == "folded" else [])
    return faces


sheets = st.lists(
    st.tuples(
        st.sampled_from(["folded", "stub", "tipped"]),
        st.sampled_from([1, 2]),
        st.sampled_from([None, 40.0, 70.0]),
        st.integers(1, 3),
    ),
    min_size=1,
    max_size=7,
)


@given(st.lists(sheets, min_size=1, max_size=4))
def test_a_pile_reads_as_the_book_that_is_put_together_from_it(described):
    number = iter(range(1000))
    sections = [[sheet(next(number), *one) for one in section] for section in described]
    faces = [face for section in sections for face in put_together(section)]
    leaves = leaves_of_pile(sections)
    assert [leaf.page for leaf in leaves] == list(range(1, len(faces), 2))
    for leaf in leaves:
        for first in (True, False):
            one, inner, which = faces[leaf.page - 1 + (not first)]
            assert (leaf.folio, leaf.second) == (one, which == 1)
            assert leaf.blank(first) == (one.sides == 1 and not inner)
            hinged = one.joined != "folded" or which == 1
            assert leaf.flap_over(first) == (bool(one.flap_mm) and hinged and inner)
    for numbered in _numbered_pile(leaves):
        one = next(one for one in sections[numbered.section - 1] if one.name == numbered.name)
        for grid, inner in ((numbered.inner, True), (numbered.outer, False)):
            pages = [place + 1 for place, face in enumerate(faces) if face[:2] == (one, inner)]
            assert sorted(cell.page for cell in grid[0]) == pages
    assert sorted(
        cell.page for one in _numbered_pile(leaves) for grid in (one.inner, one.outer) for cell in grid[0]
    ) == list(range(1, len(faces) + 1)), "every page once"


def test_the_numbers_of_a_pile_by_hand():
    """Two folded sheets with a single leaf between them: 5 leaves; outer sheet 10 | 1 and 2 | 9, the leaf 3,
    4, the inner 8 | 5 and 6 | 7."""
    found = _numbered_pile(leaves_of_pile([[sheet(1), sheet(2, "stub"), sheet(3)]]))
    shown = [([cell.page for cell in one.outer[0]], [cell.page for cell in one.inner[0]]) for one in found]
    assert shown == [([10, 1], [2, 9]), ([3], [4]), ([8, 5], [6, 7])]


@given(st.lists(st.integers(1, 9), min_size=1, max_size=5), st.sampled_from(["innermost", "every"]))
def test_one_paper_is_a_pile_of_equal_sheets(folios, flap_on):
    alike = sheet(0, flap=50.0)
    piled = leaves_of_pile(
        [
            [
                alike if flap_on == "every" or place == count - 1 else replace(alike, flap_mm=0.0)
                for place in range(count)
            ]
            for count in folios
        ]
    )
    of_paper = leaves_of_paper(
        tuple(folios), PlainPaper(100.0, 200.0, alike.swatch), FoldOut(50.0, 1, flap_on)
    )
    assert [replace(one, folio=None) for one in piled] == list(of_paper)
    found = openings(of_paper)
    assert len(found) == 2 * sum(folios) + 1
    assert (found[0][0], found[-1][1]) == (None, None)
    assert all(left.page + 2 == right.page for left, right in found[1:-1])
    assert openings(()) == ()


@pytest.mark.parametrize(
    ("flap", "panels", "room", "cut"),
    [(None, 1, 220.0, True), (40.0, 1, 220.0, True), (110.0, 2, 220.0, False), (100.0, 3, 220.0, False)],
)
def test_a_fold_out_takes_the_side_that_has_room_and_what_is_over_is_cut(flap, panels, room, cut):
    """420 x 297 for leaves of 100 x 297: beside two leaves 220 are left along the long side; two panels of
    110 need no cut."""
    one = folio(PileSheet(id=1, paper="own", flap_mm=flap, flap_panels=panels), PAPER, 100.0, 297.0)
    assert (one.flap_room_mm, one.cut, one.leaf_width_mm) == (room, cut, 100.0)
