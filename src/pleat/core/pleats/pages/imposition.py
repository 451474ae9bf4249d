"""Which page falls where on a sheet, before it is folded: found by unfolding the finished packet, fold by
fold.

The packet lies with its spine on the left and its first page up. Undone in turn: the spine (the upper half
turns over to the left), the head fold (over to the top), the fore edge's fold (over to the right). What turns
over shows its other side and comes to lie in reverse order; what turns over the head is upside down besides.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.pleats.pages.folding import folios_a_sheet

_UNDONE: Final = {1: ("spine",), 2: ("spine", "head"), 3: ("spine", "head", "fore edge")}


@dataclass(frozen=True)
class LeafPlace:
    """A leaf of a packet where it lies on the open sheet: its number from 0, whether its first page is up,
    and its head's way."""

    leaf: int
    first_up: bool
    upside_down: bool


@dataclass(frozen=True)
class PrintedPage:
    """One page printed on one side of a sheet."""

    page: int
    upside_down: bool


Grid = tuple[tuple[PrintedPage, ...], ...]


@dataclass(frozen=True)
class NumberedSheet:
    """One sheet of a section, 1 the outermost: the pages on its inner side (up when it lies open to be
    folded) and its outer side.

    Both are rows of cells as one looks at that side; the outer side is seen after turning the sheet over
    sideways. ``name`` says which sheet of a pile it is; a single leaf has one cell a side.
    """

    section: int
    sheet: int
    inner: Grid
    outer: Grid
    name: str = ""


def unfold(folds: int) -> tuple[tuple[LeafPlace, ...], ...]:
    """The places of a packet's leaves on the open sheet, inner side up, as rows from the head.

    >>> [[(place.leaf, place.first_up) for place in row] for row in unfold(1)]
    [[(0, False), (1, True)]]
    """
    grid: list[list[list[LeafPlace]]] = [[[LeafPlace(leaf, True, False) for leaf in range(2**folds)]]]
    for fold in _UNDONE[folds]:
        half = len(grid[0][0]) // 2
        over = [[_turned(stack[:half], fold == "head") for stack in row] for row in grid]
        rest = [[stack[half:] for stack in row] for row in grid]
        if fold == "head":
            grid = over[::-1] + rest
        elif fold == "spine":
            grid = [row[::-1] + below for row, below in zip(over, rest, strict=True)]
        else:
            grid = [below + row[::-1] for row, below in zip(over, rest, strict=True)]
    return tuple(tuple(stack[0] for stack in row) for row in grid)


def _turned(stack: list[LeafPlace], over_the_head: bool) -> list[LeafPlace]:
    return [
        LeafPlace(place.leaf, not place.first_up, place.upside_down != over_the_head)
        for place in reversed(stack)
    ]


def numbered_sheets(section: int, first_page: int, sheets: int, folds: int) -> tuple[NumberedSheet, ...]:
    """The sheets of a section of ``sheets`` nested sheets, each folded ``folds`` times, whose first page is
    ``first_page``."""
    half = folios_a_sheet(folds)
    leaves = 2 * half * sheets
    places = unfold(folds)
    return tuple(_numbered(section, number, first_page, leaves, half, places) for number in range(sheets))


def _numbered(
    section: int,
    number: int,
    first_page: int,
    leaves: int,
    half: int,
    places: tuple[tuple[LeafPlace, ...], ...],
) -> NumberedSheet:
    def page(place: LeafPlace, inner: bool) -> PrintedPage:
        local = place.leaf
        leaf = number * half + local if local < half else leaves - (number + 1) * half + local - half
        first = place.first_up == inner
        return PrintedPage(first_page + 2 * leaf + (0 if first else 1), place.upside_down)

    inner = tuple(tuple(page(place, True) for place in row) for row in places)
    outer = tuple(tuple(page(place, False) for place in reversed(row)) for row in places)
    return NumberedSheet(section, number + 1, inner, outer)


def numbered_folio(section: int, sheet: int, name: str, first: int, second: int | None) -> NumberedSheet:
    """A sheet of a pile folded once, by the first page of its two leaves; or a single leaf, whose first page
    is on its outer side."""
    if second is None:
        return NumberedSheet(section, sheet, _row(first + 1), _row(first), name)
    return NumberedSheet(section, sheet, _row(first + 1, second), _row(second + 1, first), name)


def _row(*pages: int) -> Grid:
    return (tuple(PrintedPage(page, False) for page in pages),)
