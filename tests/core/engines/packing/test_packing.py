"""Pieces out of sheets: small jobs answered by hand, brute force, what a plan must hold, and how near the
first plan comes to the best that is known. Overlap is asked of shapely."""

from __future__ import annotations

import json
from functools import cache
from itertools import combinations
from pathlib import Path

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from shapely import box, union_all

from pleat.core.engines.packing.bounds import least_cost
from pleat.core.engines.packing.cuts import cuts_of, part_sheet
from pleat.core.engines.packing.fill import fill
from pleat.core.engines.packing.improve import Improver, improve
from pleat.core.engines.packing.planner import plan
from pleat.core.engines.packing.problem import (
    Packing,
    PieceDemand,
    PieceGrid,
    Problem,
    SheetLayout,
    SheetSource,
    ticks,
)
from pleat.core.engines.packing.settle import QUICK, THOROUGH, settled
from pleat.core.engines.packing.validator import faults
from pleat.core.engines.packing.worth import most_worth
from tests.profiles import examples

JOBS = json.loads((Path(__file__).parent / "jobs.json").read_text())
SIDES = ("left", "right", "top", "bottom")


first = cache(plan)
sizes = st.integers(2, 12)


def problem(job, **turned):
    """A job as the engine has it."""
    sources = []
    for stock in job["stocks"]:
        edge = {side: ticks(stock.get("margins", {}).get(side, 0) + job["margin"]) for side in SIDES}
        roll = stock.get("roll", False)
        sources.append(
            SheetSource(
                ticks(stock["w"]),
                ticks(stock["h"]),
                stock["price_per_m"] * stock["h"] / 1000 if roll else stock["price"],
                stock["how_many"],
                roll,
                (edge["left"], edge["top"], edge["right"], edge["bottom"]),
                tuple(
                    (ticks(no["x"]), ticks(no["y"]), ticks(no["w"]), ticks(no["h"]))
                    for no in stock.get("no_go", ())
                ),
            )
        )
    demands = [
        PieceDemand(
            ticks(part["w"]),
            ticks(part["h"]),
            part["count"],
            turned.get("may_turn", part["may_turn"]),
            part.get("same_sheet") or "",
        )
        for part in job["parts"]
    ]
    return Problem(tuple(demands), tuple(sources), ticks(job["kerf"]))


def parted(asked, packing):
    """The cells of every sheet of a plan."""
    for layout in packing.layouts:
        source = asked.sources[layout.source]
        left, top, right, bottom = source.margins
        high = layout.length - top - bottom
        yield layout, part_sheet((left, top, source.width - left - right, high), layout.grids, asked.kerf)


@pytest.mark.parametrize("job", JOBS["book"], ids=lambda job: job["name"])
def test_small_jobs_come_out_as_by_hand(job):
    asked, expected = problem(job), job["expected"]
    made = plan(asked)
    assert not faults(asked, made)
    assert made.cost == pytest.approx(expected["cost"], abs=0.006)
    assert sum(layout.times for layout in made.layouts) == expected["sheets"]
    unplaced = {part["name"]: left for part, left in zip(job["parts"], made.unplaced, strict=True) if left}
    assert unplaced == expected.get("unplaced", {})
    if "roll_length" in expected:
        assert sum(layout.length for layout in made.layouts) == ticks(expected["roll_length"])
    if "largest_offcut" in expected:
        cells = [cell for _, cell in parted(asked, made)]
        largest = max(wide * high for cell in cells for _, _, wide, high in cell.offcuts)
        assert largest == expected["largest_offcut"] * ticks(1) ** 2
        assert sum(cell.cuts for cell in cells) == expected["cuts"]
        assert len(set().union(*(cell.settings for cell in cells))) == expected["settings"]


def test_what_may_be_turned_takes_less_of_a_roll():
    (job,) = [one for one in JOBS["book"] if "variant" in one]
    made = plan(problem(job, may_turn=True))
    assert not faults(problem(job, may_turn=True), made)
    assert sum(layout.length for layout in made.layouts) == ticks(job["variant"]["expected"]["roll_length"])


@pytest.mark.every(2)
@pytest.mark.parametrize("job", JOBS["maker"], ids=lambda job: job["id"])
def test_the_first_plan_of_a_makers_job_can_be_cut_and_its_bound_holds(job):
    asked = problem(job)
    made = first(asked)
    assert not faults(asked, made)
    assert made.complete
    assert job["best"]["bound"] <= made.cost
    assert made.bound <= job["best"]["cost"]
    for layout, cell in parted(asked, made):
        pieces = [box(one.x, one.y, one.x + one.width, one.y + one.height) for one in layout.placed]
        pieces += [box(x, y, x + wide, y + high) for x, y, wide, high in cell.offcuts]
        assert union_all(pieces).area == pytest.approx(sum(one.area for one in pieces)), (
            "they lie over another"
        )
        assert len(cuts_of(cell)) == cell.cuts


def test_first_plans_are_cheaper_than_those_of_a_general_library():
    """The best of rectpack 0.2.2 over all its guillotine rules, sorts and subsets of sheets, as recorded."""
    jobs = JOBS["maker"]
    assert sum(first(problem(job)).cost for job in jobs) < 0.985 * sum(job["rectpack"] for job in jobs)


def told(asked, made):
    """(cuts, settings, the largest offcut in mm2) of a plan, margins not counted."""
    cells = [cell for _, cell in parted(asked, made)]
    cuts = sum(cell.cuts * layout.times for layout, cell in parted(asked, made))
    settings_ = set().union(*(cell.settings for cell in cells))
    return cuts, len(settings_), max(cell.largest for cell in cells) / ticks(1) ** 2


def test_at_the_cost_of_a_general_library_more_is_left_whole_with_fewer_cuts_and_settings():
    """Of the jobs where the best of rectpack costs as much as the first plan, settled."""
    own, library = [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]
    for job in JOBS["maker"]:
        asked = problem(job)
        made = first(asked)
        if made.cost == pytest.approx(job["rectpack"]):
            made = settled(asked, made, THOROUGH)
            own = [a + b for a, b in zip(own, told(asked, made), strict=True)]
            known = job["library"]
            figures = (known["cuts"], known["settings"], known["largest_offcut"])
            library = [a + b for a, b in zip(library, figures, strict=True)]
    assert own[0] <= library[0]
    assert own[1] <= library[1]
    assert own[2] >= library[2]


def test_what_is_left_of_one_sheet_stays_whole():
    """By hand: six strips of 100 x 20 and four squares of 50 out of 300 x 300. The squares fill 200 x 50,
    three strips beside them 100 x 60, three more 300 x 20: 80 high at the most, so 300 x 220 is left; less
    by a fiftieth of the sheet is as good where it takes fewer cuts."""
    demands = (PieceDemand(1000, 200, 6), PieceDemand(500, 500, 4))
    asked = Problem(demands, (SheetSource(3000, 3000, 1.0),))
    made = settled(asked, plan(asked))
    assert not faults(asked, made)
    assert told(asked, made)[2] * ticks(1) ** 2 >= 3000 * (2200 - 3000 / 50)


def test_a_solver_without_an_answer_proves_nothing(monkeypatch):
    """Nothing is taken for known then: the plan and its bound stay, and numbers of sheets do not stand."""
    (job,) = [one for one in JOBS["maker"] if one["id"] == "m02"]
    asked = problem(job)
    improver = Improver(asked, first(asked))
    monkeypatch.setattr("pleat.core.engines.packing.improve._solve", lambda *_, **__: ([], []))
    for _ in range(3):
        improver.round()
    assert improver.packing.cost <= first(asked).cost
    assert improver.packing.bound == first(asked).bound
    assert not improver.stands


@settings(max_examples=examples(60))
@given(
    st.lists(st.tuples(sizes, sizes, st.integers(1, 6), st.booleans()), min_size=1, max_size=4),
    st.integers(0, 1),
    st.sampled_from(["sheets", "roll", "hole"]),
)
def test_a_settled_plan_takes_the_same_sheets_and_leaves_no_less_whole(pieces, kerf, kind):
    hole = ((6, 5, 2, 3),) if kind == "hole" else ()
    sources = (
        SheetSource(14, 400 if kind == "roll" else 13, 8.0, roll=kind == "roll", blocked=hole),
        SheetSource(9, 9, 3.0, 2),
    )
    asked = Problem(tuple(PieceDemand(*piece) for piece in pieces), sources, kerf)
    before = plan(asked)
    for care in (QUICK, THOROUGH):
        after = settled(asked, before, care)
        assert not faults(asked, after)
        assert (after.cost, after.bound, after.unplaced) == (before.cost, before.bound, before.unplaced)
        if before.complete:
            largest = [max(cell.largest for _, cell in parted(asked, made)) for made in (before, after)]
            assert largest[1] >= largest[0] - 0.02 * 14 * (400 if kind == "roll" else 13)
        assert settled(asked, before, care) == after


@pytest.mark.every(3)
@pytest.mark.parametrize("name", ["m02", "m05", "m11", "m14", "m15", "m21", "m22"])
def test_rounds_find_the_best_plan_and_prove_it(name):
    """Jobs whose best cost is known: reached, and no plan is cheaper, in a few rounds; each time the same."""
    (job,) = [one for one in JOBS["maker"] if one["id"] == name]
    asked = problem(job)
    made = improve(asked, first(asked), 8)
    assert not faults(asked, made)
    assert (made.cost, made.proven) == (job["best"]["cost"], True)
    for layout, cell in parted(asked, made):
        assert sum(len(cuts_of(one)) for one in [cell]) == cell.cuts
        assert layout.times >= 1


@settings(max_examples=examples(40))
@given(
    st.lists(st.tuples(sizes, sizes, st.integers(1, 12), st.booleans()), min_size=1, max_size=4),
    st.integers(0, 1),
)
def test_rounds_never_make_a_plan_dearer_nor_a_bound_that_is_none(pieces, kerf):
    sources = (SheetSource(14, 13, 8.0), SheetSource(9, 9, 3.0, 3))
    asked = Problem(tuple(PieceDemand(*piece) for piece in pieces), sources, kerf)
    before = plan(asked)
    after = improve(asked, before, 6)
    assert not faults(asked, after)
    assert after.cost <= before.cost + 1e-9
    assert before.bound - 1e-9 <= after.bound <= after.cost + 1e-9
    assert improve(asked, before, 6) == after


@settings(max_examples=examples(60))
@given(
    st.lists(st.tuples(sizes, sizes, st.booleans(), st.floats(0.5, 9)), min_size=1, max_size=4), sizes, sizes
)
def test_the_worth_of_a_sheet_is_that_of_pieces_that_come_out_of_it(pieces, wide, high):
    """The pieces it names can be cut and are worth so much; no filling is worth more."""
    demands = tuple(PieceDemand(a, b, 40, turn) for a, b, turn, _ in pieces)
    values = [value for *_, value in pieces]
    worth = most_worth(wide, high, demands, values)
    assert sum(values[grid.demand] for grid in worth.grids) == pytest.approx(worth.value)
    asked = Problem(demands, (SheetSource(wide, high, 1.0),))
    if worth.grids:
        left = [40] * len(demands)
        for grid in worth.grids:
            left[grid.demand] -= 1
        sheet = Packing((SheetLayout(0, worth.grids, high),), tuple(left), 1.0, 0.0)
        assert not faults(asked, sheet)
    filled = fill([(0, 0, wide, high)], demands, [40] * len(demands), values)
    assert filled is None or filled.value <= worth.value + 1e-6


def fits(pieces, wide, high):
    """Whether pieces, each a tuple of the ways it may lie, can be cut edge to edge out of a rectangle: every
    part of them on either side of every cut that can matter."""

    @cache
    def go(own, wide, high):
        if not own:
            return True
        if len(own) == 1:
            return any(a <= wide and b <= high for a, b in pieces[own[0]])
        first, *others = own
        for size in range(len(others)):
            for more in combinations(others, size):
                one, rest = (first, *more), tuple(other for other in others if other not in more)
                for side in (0, 1):
                    for at in sums(one, side, (wide, high)[side]):
                        left = (at, high) if side == 0 else (wide, at)
                        right = (wide - at, high) if side == 0 else (wide, high - at)
                        if go(one, *left) and go(rest, *right):
                            return True
        return False

    def sums(own, side, most):
        found = {0}
        for number in own:
            sides = {lies[side] for lies in pieces[number]}
            found |= {total + one for total in found for one in sides}
        return sorted(total for total in found if 0 < total <= most)

    return go(tuple(range(len(pieces))), wide, high)


def fewest(pieces, wide, high):
    """The fewest sheets, by trying every way to deal the pieces."""
    if not all(any(a <= wide and b <= high for a, b in lies) for lies in pieces):
        return None

    def deal(number, sheets):
        if number == len(pieces):
            return len(sheets)
        best = len(pieces)
        for place in range(len(sheets) + 1):
            dealt = [*sheets, []] if place == len(sheets) else [list(one) for one in sheets]
            dealt[place].append(pieces[number])
            if len([one for one in dealt if one]) < best and fits(tuple(dealt[place]), wide, high):
                best = min(best, deal(number + 1, dealt))
        return best

    return deal(0, [])


@settings(max_examples=examples(120))
@given(st.lists(st.tuples(sizes, sizes, st.booleans()), min_size=1, max_size=5), sizes, sizes)
def test_brute_force_lies_between_the_bound_and_the_plan(pieces, wide, high):
    asked = Problem(
        tuple(PieceDemand(a, b, 1, turn) for a, b, turn in pieces), (SheetSource(wide, high, 1.0),)
    )
    made = plan(asked)
    assert not faults(asked, made)
    best = fewest([((a, b), (b, a)) if turn else ((a, b),) for a, b, turn in pieces], wide, high)
    if best is None:
        assert not made.complete
        return
    assert made.complete
    assert least_cost(asked, [1] * len(pieces)) <= best <= made.cost
    assert made.cost <= best + 1, "one sheet more at most, of so few pieces"


@settings(max_examples=examples(100))
@given(
    st.lists(st.tuples(sizes, sizes, st.integers(1, 30), st.booleans()), min_size=1, max_size=5),
    st.lists(st.tuples(sizes, sizes, st.integers(1, 9), st.one_of(st.none(), st.integers(0, 4))), max_size=3),
    st.integers(0, 2),
    st.booleans(),
)
def test_any_plan_can_be_cut_and_places_all_that_sheets_take(pieces, sheets, kerf, roll):
    sources = [SheetSource(wide, high, float(price), count) for wide, high, price, count in sheets]
    sources.append(SheetSource(14, 400 if roll else 13, 8.0, 1 if roll else None, roll=roll))
    asked = Problem(tuple(PieceDemand(*piece) for piece in pieces), tuple(sources), kerf)
    made = plan(asked)
    assert not faults(asked, made)
    assert plan(asked) == made, "the same plan for the same pieces"
    for layout, cell in parted(asked, made):
        assert len(cuts_of(cell)) <= cell.cuts
        area = sum(wide * high for _, _, wide, high in cell.offcuts)
        assert area + sum(one.width * one.height for one in layout.placed) <= cell.box[2] * cell.box[3]
    if not roll:
        assert (
            made.complete
            or any(
                not any(a <= 14 and b <= 13 for a, b in ((one.width, one.height), (one.height, one.width)))
                for one, left in zip(asked.demands, made.unplaced, strict=True)
                if left
            )
            or any(left and not one.may_turn for one, left in zip(asked.demands, made.unplaced, strict=True))
        )


WHOLE = Problem((PieceDemand(4, 6, 2), PieceDemand(2, 2, 1, False, "")), (SheetSource(10, 10, 1.0, 1),))
RIGHT = (PieceGrid(0, 0, 0, 4, 6, 2), PieceGrid(1, 8, 0, 2, 2))


def as_plan(*grids, cost=1.0, unplaced=(0, 0), bound=1.0, times=1):
    return Packing((SheetLayout(0, grids, 10, times),), unplaced, cost, bound)


@pytest.mark.parametrize(
    ("packing", "told"),
    [
        (as_plan(*RIGHT), ""),
        (as_plan(RIGHT[0], PieceGrid(1, 7, 0, 2, 2)), "over each other"),
        (as_plan(RIGHT[0], PieceGrid(1, 9, 0, 2, 2)), "past the edge"),
        (as_plan(RIGHT[0], PieceGrid(1, 8, 0, 2, 1)), "another size"),
        (as_plan(PieceGrid(0, 0, 0, 6, 4, 1, 2), RIGHT[1]), "turned"),
        (as_plan(RIGHT[0]), "demand 1: 0 placed, 0 not"),
        (as_plan(*RIGHT, unplaced=(0, 1)), "demand 1: 1 placed, 1 not"),
        (as_plan(*RIGHT, times=2, cost=2.0), "2 sheets of source 0, and there are 1"),
        (as_plan(*RIGHT, cost=0.5, bound=0.5), "it costs 1.0"),
        (as_plan(*RIGHT, bound=1.5), "bound lies above"),
    ],
)
def test_the_validator_finds_what_is_wrong(packing, told):
    found = faults(WHOLE, packing)
    assert bool(found) == bool(told)
    assert told in " ".join(found)


def test_the_validator_finds_a_wheel_that_no_cut_parts():
    """Four pieces round a middle: each in the way of every cut."""
    asked = Problem((PieceDemand(6, 4, 2), PieceDemand(4, 6, 2)), (SheetSource(10, 10, 1.0),))
    wheel = (
        PieceGrid(0, 0, 0, 6, 4),
        PieceGrid(1, 6, 0, 4, 6),
        PieceGrid(1, 0, 4, 4, 6),
        PieceGrid(0, 4, 6, 6, 4),
    )
    assert "no cut from edge to edge" in " ".join(faults(asked, as_plan(*wheel)))
    with pytest.raises(ValueError, match="edge to edge"):
        part_sheet((0, 0, 10, 10), wheel)


def least_offcuts(gaps):
    """Of columns side by side that leave so much free below them, counted by themselves: nothing is below a
    column without a gap, so that it parts the others; one strip may run below all others, or they are
    parted."""
    if 0 in gaps:
        place = gaps.index(0)
        return least_offcuts(gaps[:place]) + least_offcuts(gaps[place + 1 :])
    if len(gaps) < 2:
        return len(gaps)
    least = min(gaps)
    apart = (least_offcuts(gaps[:place]) + least_offcuts(gaps[place:]) for place in range(1, len(gaps)))
    return min(1 + least_offcuts(tuple(gap - least for gap in gaps)), *apart)


@settings(max_examples=examples(100))
@given(st.lists(st.tuples(st.integers(2, 9), st.integers(0, 4)), min_size=1, max_size=6), st.integers(0, 1))
@example([(16, 0), (3, 0), (3, 6), (3, 6)], 0)
def test_neighbours_are_trimmed_by_one_cut(columns, kerf):
    """The last two of the row by hand: parted from the others by two cuts, trimmed by one, parted by one."""
    x, grids = 0, []
    for number, (wide, gap) in enumerate(columns):
        grids.append(PieceGrid(number, x, 0, wide, 22 - gap - kerf * bool(gap)))
        x += wide + kerf
    with pytest.MonkeyPatch.context() as cuts_alone:
        cuts_alone.setattr("pleat.core.engines.packing.cuts.WORTH_SHARE", 1.0)
        cell = part_sheet((0, 0, x - kerf, 22), grids, kerf)
    assert cell.cuts == len(columns) - 1 + least_offcuts(tuple(gap for _, gap in columns))
    assert len(cuts_of(cell)) == cell.cuts


def test_the_validator_finds_twins_on_two_sheets_and_pieces_on_a_hole():
    twins = Problem((PieceDemand(6, 6, 2, False, "pair"),), (SheetSource(10, 10, 1.0),))
    apart = Packing((SheetLayout(0, (PieceGrid(0, 0, 0, 6, 6),), 10, 2),), (0,), 2.0, 1.0)
    assert "twins" in " ".join(faults(twins, apart))
    hole = Problem((PieceDemand(6, 6, 1),), (SheetSource(10, 10, 1.0, blocked=((5, 5, 1, 1),)),))
    on_it = Packing((SheetLayout(0, (PieceGrid(0, 0, 0, 6, 6),), 10),), (0,), 1.0, 1.0)
    assert "cannot be used" in " ".join(faults(hole, on_it))
