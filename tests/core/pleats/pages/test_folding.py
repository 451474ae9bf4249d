"""Folding, numbering, splitting and nearby sizes. Page numbers are checked by folding a sheet of numbered
cells step by step."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pleat.core.base.estimate import Estimate
from pleat.core.materials.sizes import SIZES
from pleat.core.pleats.pages.folding import COLUMNS_ROWS, folios_a_sheet, open_sheet, ways_to_fold
from pleat.core.pleats.pages.imposition import numbered_sheets
from pleat.core.pleats.pages.limits import FoldLimit
from pleat.core.pleats.pages.nearby import NEAR, SMALLER, nearby_sizes
from pleat.core.pleats.pages.sections import compare, split


class PaperSheet:
    """A real sheet, to be folded: at each place a pile of (upper face, lower face) cells, each face a (page,
    upside down)."""

    def __init__(self, sheet):
        flipped = [row[::-1] for row in sheet.outer]
        self.piles = [
            [
                [((up.page, up.upside_down), (down.page, down.upside_down))]
                for up, down in zip(*rows, strict=True)
            ]
            for rows in zip(sheet.inner, flipped, strict=True)
        ]

    @staticmethod
    def _over(pile, head):
        turn = (lambda face: (face[0], not face[1])) if head else (lambda face: face)
        return [(turn(lower), turn(upper)) for upper, lower in reversed(pile)]

    def right_over_left(self):
        half = len(self.piles[0]) // 2
        self.piles = [[self._over(row[-1 - n], False) + row[n] for n in range(half)] for row in self.piles]

    def head_over_tail(self):
        half = len(self.piles) // 2
        self.piles = [
            [
                self._over(above, True) + below
                for above, below in zip(self.piles[half - 1 - n], self.piles[half + n], strict=True)
            ]
            for n in range(half)
        ]

    def left_over_right(self):
        half = len(self.piles[0]) // 2
        self.piles = [
            [self._over(row[half - 1 - n], False) + row[half + n] for n in range(half)] for row in self.piles
        ]

    def fold(self, folds):
        if folds == 3:
            self.right_over_left()
        if folds >= 2:
            self.head_over_tail()
        self.left_over_right()
        assert len(self.piles) == len(self.piles[0]) == 1
        return self.piles[0][0]


@pytest.mark.parametrize("folds", [1, 2, 3])
@pytest.mark.parametrize("sheets", [1, 2, 3, 5])
def test_a_sheet_of_numbered_cells_folded_and_nested_reads_from_first_to_last(folds, sheets):
    packets = [PaperSheet(one).fold(folds) for one in numbered_sheets(1, 17, sheets, folds)]
    nested = []
    for packet in reversed(packets):
        half = len(packet) // 2
        nested = packet[:half] + nested + packet[half:]
    faces = [face for leaf in nested for face in leaf]
    assert [page for page, _ in faces] == list(range(17, 17 + 2 * len(nested)))
    assert not any(upside_down for _, upside_down in faces), "every page stands upright in the book"


@given(st.integers(1, 20), st.integers(1, 40))
def test_one_fold_agrees_with_the_trades_formula(folios, start):
    """Folio k of n from the outside in: outer side 4n-2k+2 | 2k-1, inner side 2k | 4n-2k+1."""
    for k, one in enumerate(numbered_sheets(1, start, folios, 1), 1):
        assert [cell.page - start + 1 for cell in one.outer[0]] == [4 * folios - 2 * k + 2, 2 * k - 1]
        assert [cell.page - start + 1 for cell in one.inner[0]] == [2 * k, 4 * folios - 2 * k + 1]


def test_two_letter_sheets_folded_twice_are_eight_leaves():
    """Common example: 2 letter sheets folded twice and slit: 8 leaves, 16 pages, 4.25 x 5.5 in."""
    way = next(one for one in ways_to_fold(*SIZES["letter"], "h") if one.folds == 2 and not one.turned)
    assert (way.leaf_width_mm / 25.4, way.leaf_height_mm / 25.4) == pytest.approx((4.25, 5.5))
    assert (2 * way.leaves, way.with_grain) == (8, True)


@pytest.mark.parametrize("number", range(2, 6))
def test_folding_iso_sheets_gives_the_next_sizes(number):
    """ISO 216 halving: folded once, twice, three times an A sheet gives the next sizes, rounded down to a
    whole mm."""
    wide = SIZES[f"A{number}"][::-1]
    for way in ways_to_fold(*wide, None):
        if way.turned == (way.folds == 2):
            width, height = SIZES[f"A{number + way.folds}"]
            assert (way.leaf_width_mm, way.leaf_height_mm) == pytest.approx((width, height), abs=1.01)


@given(st.floats(40, 300), st.floats(60, 300), st.sampled_from([1, 2, 3]), st.floats(0, 8))
def test_an_open_sheet_folds_back_to_the_leaf(width, height, folds, trim):
    columns, rows = COLUMNS_ROWS[folds]
    sheet = open_sheet(width, height, folds, trim)
    assert sheet.width_mm / columns - trim == pytest.approx(width)
    assert sheet.height_mm / rows - 2 * trim == pytest.approx(height)
    assert (len(sheet.across_mm), len(sheet.down_mm)) == (columns - 1, rows - 1)
    assert columns * rows == 2 * folios_a_sheet(folds) == 2**folds
    upright, turned = (
        one for one in ways_to_fold(sheet.width_mm, sheet.height_mm, "h") if one.folds == folds
    )
    assert (upright.with_grain, turned.with_grain) == (True, False)


@given(st.integers(1, 200), st.integers(1, 12), st.sampled_from([1, 2, 3]))
def test_sections_are_as_equal_as_whole_sheets_allow(folios, sections, folds):
    by = folios_a_sheet(folds)
    parts = split(folios, sections, folds)
    assert len(parts) == sections
    assert sum(parts) >= folios
    assert sum(parts) - folios < by or sum(parts) == sections * by
    assert max(parts) - min(parts) in (0, by)
    assert all(part % by == 0 and part >= by for part in parts)


def test_neighbours_of_a_split_are_compared_by_hand_arithmetic():
    """25 folios of 0.1 mm, up to 8 in one fold: 4 sections of 7, 5 of 5 (100 pages, 1.0 mm each), 6 of 5
    ..."""
    found = {one.sections: one for one in compare(25, 5, 1, Estimate.exact(0.1), 1.0, FoldLimit(8, "x"))}
    assert set(found) == {4, 5, 6}
    assert (found[5].folios, found[5].pages, found[5].section_mm) == (5, 100, pytest.approx(1.0))
    assert (found[4].folios, found[4].pages, found[4].fits) == (7, 112, True)
    assert not compare(25, 1, 1, Estimate.exact(0.1), 1.0, FoldLimit(8, "x"))[0].fits


def test_the_nearby_size_that_halves_the_sheets():
    """A folio of 300 x 210 comes once out of 297 x 420, and across; one of 297 x 210 comes out twice, along
    the grain."""
    now, found = nearby_sizes(150, 210, 1, 20, 297, 420, grain="h")
    assert now.count == 1
    best = found[0]
    assert (best.leaf_width_mm, best.leaf_height_mm, best.sheets, best.each) == (
        pytest.approx(148.5),
        pytest.approx(210),
        10,
        2,
    )
    assert nearby_sizes(148.5, 210, 1, 20, 297, 420, grain="h")[1] == (), (
        "nothing better than no waste at all"
    )


@given(
    st.floats(60, 200),
    st.floats(80, 280),
    st.sampled_from([1, 2, 3]),
    st.integers(1, 60),
    st.floats(250, 800),
    st.floats(250, 800),
)
def test_every_nearby_size_is_near_and_better(width, height, folds, pieces, sheet_width, sheet_height):
    now, found = nearby_sizes(width, height, folds, pieces, sheet_width, sheet_height, grain="h")
    needed = -(-pieces // now.count) if now.count else None
    for one in found:
        for share in (one.leaf_width_mm / width, one.leaf_height_mm / height):
            assert 1 - SMALLER - 1e-9 <= share <= 1 + NEAR + 1e-9
            assert share >= 1 - NEAR - 1e-9 or needed is None or 3 * one.sheets <= 2 * needed
        assert needed is None or one.sheets <= needed
        assert 0 < one.used <= 1
    assert [one.sheets for one in found] == sorted(one.sheets for one in found) or len(
        {one.with_grain for one in found}
    ) > 1
    assert len(set(itertools.chain((one.leaf_width_mm, one.leaf_height_mm) for one in found))) == len(found)
