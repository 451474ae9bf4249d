"""The sheets of a book: every piece once, nothing over another, each cut from edge to edge, and one count for
whoever asks. The cuts are made here again on rectangles; overlap is asked of shapely."""

from __future__ import annotations

import pytest
from shapely import box, union_all

from pleat.core.base.plan import Part
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.materials.items import Paper
from pleat.core.pleats.cutting.cut import cut_part
from pleat.core.pleats.cutting.shared import plan_sheets
from pleat.core.pleats.paper.stocks import stock_of
from pleat.core.whole.overview import overview
from pleat.core.whole.planning import worked_out
from pleat.printing.cutting import fence_words
from pleat.printing.sheets import print_sheets

NEAR_MM = 1e-3


def book_of(name, quantity):
    return editing.apply(recipe(name).book(), [("brief.quantity", quantity)])


def each_piece(sheet):
    for grid in sheet.pieces:
        for row in range(grid.down):
            for column in range(grid.across):
                x, y = grid.x_mm + column * grid.width_mm, grid.y_mm + row * grid.height_mm
                yield grid, (x, y, grid.width_mm, grid.height_mm)


def cut_up(sheet):
    """The rectangles that the cuts of a sheet leave, made one after the other; a cut that does not run right
    through one of them, or is not where its fence says, is an error."""
    rects = [(0.0, 0.0, sheet.width_mm, sheet.height_mm)]
    for number, line in enumerate(sheet.cuts, 1):
        assert line.number == number
        axis = 0 if line.axis == "upright" else 1
        start = (line.x_mm, line.y_mm)
        for rect in rects:
            at, low, long = start[axis], rect[axis], rect[axis + 2]
            through = (
                abs(start[1 - axis] - rect[1 - axis]) < NEAR_MM
                and abs(line.length_mm - rect[3 - axis]) < NEAR_MM
            )
            if through and low + NEAR_MM < at < low + long - NEAR_MM:
                break
        else:
            raise AssertionError(f"cut {number} does not run from edge to edge")
        assert at - low == pytest.approx(line.fence_mm)
        rects.remove(rect)
        for edge, size in ((low, at - low), (at, low + long - at)):
            rects.append((edge, rect[1], size, rect[3]) if axis == 0 else (rect[0], edge, rect[2], size))
    return rects


def rounded(rects):
    return sorted(tuple(round(side, 2) for side in rect) for rect in rects)


@pytest.mark.every(2)
@pytest.mark.parametrize("quantity", [1, 3, 12])
@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_every_piece_lies_on_a_sheet_and_its_cuts_part_it(name, quantity):
    cutting = worked_out(book_of(name, quantity)).cutting
    placed = {}
    for own in cutting.plans:
        for sheet in own.sheets:
            pieces = list(each_piece(sheet))
            for grid, _ in pieces:
                placed[grid.part] = placed.get(grid.part, 0) + sheet.times
            shapes = [box(x, y, x + wide, y + high) for _, (x, y, wide, high) in pieces]
            shapes += [box(x, y, x + wide, y + high) for x, y, wide, high in sheet.offcuts]
            whole = box(0, 0, sheet.width_mm, sheet.height_mm)
            assert union_all(shapes).area == pytest.approx(whole.area)
            assert sum(shape.area for shape in shapes) == pytest.approx(whole.area)
            if len(sheet.cuts) <= 60:  # strips of very many pieces are cut across together
                assert rounded(cut_up(sheet)) == rounded([*(rect for _, rect in pieces), *sheet.offcuts]), (
                    "piece by piece and offcut by offcut"
                )
    for cut in cutting.cuts:
        assert placed.get(cut.part.key, 0) == (cut.part.count if cut.better.count else 0)
        size = {(cut.part.width_mm, cut.part.height_mm)[:: -1 if cut.better.turned else 1]}
        lie = {
            (grid.width_mm, grid.height_mm)
            for own in cutting.plans
            for sheet in own.sheets
            for grid in sheet.pieces
            if grid.part == cut.part.key
        }
        assert {tuple(round(side, 3) for side in one) for one in lie} <= {
            tuple(round(side, 3) for side in one) for one in size
        }, "the way round it says"


@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_one_book_is_cut_as_well_as_can_be(name):
    """Of every recipe, each material is proven to need as many sheets as it takes."""
    assert {own.above for own in worked_out(book_of(name, 1)).cutting.plans} <= {0.0}


@pytest.mark.parametrize("name", ["case", "sheath", "hills", "connectors", "rings"])
def test_sheets_are_the_same_wherever_they_are_told(name):
    plan = worked_out(book_of(name, 3))
    wants = {one.name: one for one in overview(plan, {}).wants if one.unit == "sheet"}
    for own in plan.cutting.plans:
        if own.stock.roll:
            continue
        assert sum(plan.cutting.sheets[stock.key] for stock in own.stocks) == own.needed
        assert wants[own.stock.name].needed == own.needed
        figure = next(one for one in plan.cutting.figures if one.key == f"sheets_{own.stock.key}")
        assert figure.value.split()[0] == str(own.needed)
    gather = next(one.step for one in plan.bench.work if one.step.key == "gather")
    for want in wants.values():
        assert want.name in gather.detail


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", ["case", "hills", "keyring"])
def test_the_sheets_are_printed_with_their_cuts(name, ruler):
    plan = worked_out(editing.apply(recipe(name).book(), [("brief.ruler", ruler)]))
    pages = "".join(page.svg for page in print_sheets(plan, name, "a4") if "sheets" in page.title)
    kinds = [sheet for own in plan.cutting.plans for sheet in own.sheets if sheet.cuts]
    assert pages.count("from the") == sum(len(fence_words(sheet, plan.brief.ruler)) for sheet in kinds)
    for sheet in kinds:
        told = " ".join(fence_words(sheet, plan.brief.ruler))
        for line in sheet.cuts:
            assert plan.brief.ruler.show(line.fence_mm) in told


def test_two_boards_and_their_spine_strip_come_out_of_one_sheet():
    """By hand: 2 x 145 x 216 and 16.5 x 216 of 700 x 500, the boards one below the other, the strip beside:
    538.5 x 500 stays whole, five cuts at 145, 16.5 and 216."""
    sheet = Paper(name="Board", sheet_width_mm=700, sheet_height_mm=500, grain="short")
    stock = stock_of("board", sheet)
    parts = [
        Part(key=key, name=key, width_mm=wide, height_mm=216, count=count, stock="board")
        for key, wide, count in (("board", 145, 2), ("strip", 16.5, 1))
    ]
    (own,) = plan_sheets([cut_part(part, stock) for part in parts])
    (only,) = own.sheets
    assert (own.needed, own.above, only.times) == (1, 0.0, 1)
    assert max(only.offcuts, key=lambda one: one[2] * one[3])[2:] == (538.5, 500)
    assert (len(only.cuts), {line.fence_mm for line in only.cuts}) == (5, {145, 16.5, 216})


@pytest.mark.parametrize(
    ("piece", "sheet", "each"),
    [((200 / 3, 100), (200, 100), 3), ((210.01, 297), (210, 297), 1), ((50.004, 50), (200, 100), 8)],
)
def test_a_hair_more_than_the_sheet_comes_out_of_it(piece, sheet, each):
    """As a ruler has it: what is a hundredth of a millimetre too large is not."""
    stock = stock_of("leaf", Paper(name="x", sheet_width_mm=sheet[0], sheet_height_mm=sheet[1], grain="long"))
    part = Part(key="x", name="x", width_mm=piece[0], height_mm=piece[1], count=each, stock="leaf")
    cut = cut_part(part, stock, "upright")
    (own,) = plan_sheets([cut])
    assert (cut.better.count, own.needed) == (each, 1)
    assert sum(grid.count for sheet_ in own.sheets for grid in sheet_.pieces) == each
