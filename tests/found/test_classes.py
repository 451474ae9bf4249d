"""The classes that the found cases stand for, over all kinds."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise, product

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.cover.fasteners import FASTENERS
from pleat.core.pleats.extras.compute import all_faces
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.whole.planning import make_plan, worked_out
from pleat.services.books import tick
from tests.core.base.test_marks import begun
from tests.profiles import examples, some
from tests.put import of

NAMES = [one.name for one in RECIPES]
READ = [name for name in NAMES if hasattr(of(name).cover, "measured_spine_mm")]
FASTENED = [name for name in NAMES if hasattr(of(name).cover, "fastener")]
AT_HEAD = [
    name for name in NAMES if hasattr(of(name).binding, "bound_at") and of(name).pages.kind == "leaves"
]

CLOSE_MM = 6.0
"""Scores nearer to each other than this go round a board, a block or a spine."""
SEEN = {"found": {"leaf"}, "padcover": {"leaf"}}
"""What is in the book and not cut: sheets of a pile that are folded as they are, the pad that was bought."""


def keys(plan):
    return {check.key for _, check in plan.checks}


@pytest.mark.every(2)
@pytest.mark.parametrize("name", READ)
@pytest.mark.parametrize("off", [0.5, 2.0])
def test_a_reading_of_half_or_double_is_questioned_in_every_cover(name, off):
    plan = make_plan(of(name))
    estimated = plan.cover.shell.spine.estimated if hasattr(plan.cover, "shell") else None
    thick = plan.pages.thickness.likely + plan.binding.swell.likely if estimated is None else estimated.likely
    reading = off * thick
    if not 0.3 <= reading <= 150:
        pytest.skip("no such reading can be typed")
    questioned = make_plan(of(name, ("cover.measured_spine_mm", reading)))
    assert [check for check in questioned.cover.checks if "measured" in check.title], (reading, thick)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", NAMES)
def test_a_steps_minutes_are_those_of_one_book_and_only_the_last_step_is_needed_by_none(name):
    one, twelve = (make_plan(of(name, ("brief.quantity", count))) for count in (1, 12))
    each = {step.step.key: step.step for step in one.bench.work}
    for step in (work.step for work in twelve.bench.work):
        if not step.for_all and step.key in each:
            assert step.minutes == pytest.approx(each[step.key].minutes), step.key
    steps = [work.step for work in one.bench.work]
    needed = {first for firsts in waits_for(steps).values() for first in firsts}
    assert [step.key for step in steps if step.key not in needed] == [steps[-1].key]


@pytest.mark.parametrize("name", NAMES)
def test_every_paper_that_is_told_is_one_that_something_comes_out_of(name):
    plan = make_plan(of(name))
    used = {part.stock for part in plan.parts}
    assert set(plan.paper.roles) - SEEN.get(name, set()) <= used | {"cover", "board", "lining"}
    assert set(plan.paper.roles) <= set(chosen(plan.book).roles)


@pytest.mark.parametrize("name", AT_HEAD)
def test_leaves_held_at_the_head_have_their_grain_along_it(name):
    for along, grain in (("head", "w"), ("side", "h")):
        plan = make_plan(of(name, ("binding.bound_at", along)))
        assert {part.grain for part in plan.pages.parts} == {grain}


@pytest.mark.parametrize("name", ["case", "quarter", "padded"])
@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("board", [1.0, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0])
def test_no_automatic_joint_raises_its_own_check(name, ruler, board):
    assert "joint" not in keys(
        make_plan(of(name, ("brief.ruler", ruler), ("paper.board.thickness_mm", board)))
    )


@pytest.mark.parametrize("name", ["rings", "wire", "pocketpages"])
@settings(max_examples=examples(20))
@given(now=st.integers(2, 120), inner=st.floats(14, 60), thick=st.floats(0.2, 4))
def test_what_a_ring_takes_is_the_largest_count_that_itself_passes_whatever_there_is_now(
    name, now, inner, thick
):
    path = "binding.nominal_mm" if name == "wire" else "binding.inner_mm"
    more = (
        (("pages.insert_width_mm", 90.0), ("pages.insert_height_mm", 120.0), ("pages.insert_thick_mm", thick))
        if name == "pocketpages"
        else ()
    )
    if name == "wire":
        inner = min(inner, 30.0)

    def planned(count):
        return make_plan(
            of(name, *more, (path, inner), ("pages.amount", count), ("pages.counted_in", "leaves"))
        )

    says = {figure.key: figure.value for figure in planned(now).binding.figures}["takes"]
    most = int(str(says).split()[0])
    if 1 <= most <= 150:
        assert "D8" not in keys(planned(most))
        assert "D8" in keys(planned(most + 1))


FOLLOWED: set[str] = set()
"""Books whose offers have been followed to the end, whichever test met them."""
TYPED = {
    "cover.joint_mm": (None, 3.0, 10.0),
    "cover.strip_mm": (None, 30.0, 64.0),
    "cover.set_back_mm": (None, 3.0, 8.0),
    "binding.end_mm": (None, 10.0),
}


@pytest.mark.every(5)
@pytest.mark.parametrize("name", ["hills", "connectors"])
@pytest.mark.parametrize("typed", some([*product(*TYPED.values())], 2), ids=str)
def test_a_hinge_is_judged_once_and_no_chain_of_its_offers_turns_in_a_circle(name, typed):
    book = of(name, *((path, value) for path, value in zip(TYPED, typed, strict=True) if value is not None))
    assert len([check for _, check in make_plan(book).checks if check.key == "E1"]) <= 1

    def follow(book, way):
        """Every offer of every check that is told, to the end; what was met before has been followed."""
        here = book.model_dump_json()
        assert here not in way, "a circle"
        if here in FOLLOWED:
            return
        FOLLOWED.add(here)
        told = [check for _, check in make_plan(book).checks if check.key in ("E1", "joint", "A9")]
        for offer in (offer for check in told for offer in check.offers):
            follow(editing.apply(book, offer.changes), {*way, here})

    follow(book, set())


@pytest.mark.every(2)
@pytest.mark.parametrize("flap", ["no", "yes"])
@pytest.mark.parametrize("fastener", [one for one, _ in FASTENERS])
@pytest.mark.parametrize("name", FASTENED)
def test_what_keeps_a_cover_shut_is_put_on_by_a_step_or_has_no_place_and_says_so(name, fastener, flap):
    with_flap = [("cover.flap", flap)] if hasattr(of(name).cover, "flap") else []
    plan = make_plan(of(name, ("cover.fastener", fastener), *with_flap))
    keys = {one.step.key for one in plan.bench.work}
    put_on = {"fastener_first", "fastener_second"} <= keys
    no_place = any(check.key in ("A6", "F3") and check.level == "stop" for check in plan.cover.checks)
    assert put_on or no_place == (fastener != "none"), keys
    assert not (fastener == "none" and put_on)


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", ["keepsake", "journal", "flapped"])
@settings(max_examples=examples(8))
@given(width=st.floats(225, 365))
@example(width=245.0)
def test_a_leaf_that_is_offered_for_the_covers_sheet_has_a_cover_that_comes_out_of_it(name, ruler, width):
    book = of(name, ("brief.leaf_width_mm", width), ("brief.ruler", ruler))
    for check in make_plan(book).cutting.checks:
        for offer in check.offers if check.key == "B1" and check.title.startswith("The cover ") else ():
            if offer.label.startswith("leaf "):
                after = make_plan(editing.apply(book, offer.changes)).cutting.checks
                assert not [
                    one.title for one in after if one.key == "B1" and one.title.startswith("The cover ")
                ], offer.label
                assert " 0 in off" not in offer.label


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("ruler", some(["mm", "in"], 2, first=1))
def test_panels_that_hold_the_same_thickness_are_scored_equally_wide_and_no_narrower(name, ruler):
    """By the positions as they are read off the ruler, on the plan of a book that was made with it."""
    on = RULERS[ruler]
    plan = worked_out(begun(name, ruler))
    for part in plan.parts:
        for axis in ("upright", "level"):
            at = sorted({fold.position_mm for fold in getattr(part, "folds", ()) if fold.axis == axis})
            read: dict[float, set[float]] = {}
            for first, second in pairwise(at):
                if second - first < CLOSE_MM:
                    read.setdefault(round(second - first, 2), set()).add(
                        round(on.snap(second) - on.snap(first), 2)
                    )
            for wide, marks in read.items():
                assert len(marks) == 1, f"{part.name}: {wide} mm is scored {marks}"
                assert min(marks) >= wide - 0.05, f"{part.name}: {wide} mm is scored {marks}"


@pytest.mark.every(2)
@pytest.mark.parametrize("name", NAMES)
def test_the_leaf_that_is_typed_reaches_every_kind(name):
    """A leaf a tenth larger makes some piece larger, or the book says that it is not taken."""
    book = of(name)
    wide, high = (round(1.1 * side, 1) for side in (book.brief.leaf_width_mm, book.brief.leaf_height_mm))
    for path, mm in (("brief.leaf_width_mm", wide), ("brief.leaf_height_mm", high)):
        plan, other = worked_out(book), worked_out(editing.apply(book, [(path, mm)]))
        sizes = [
            {(one.width_mm, one.height_mm) for one in each.parts if hasattr(one, "width_mm")}
            for each in (plan, other)
        ]
        assert sizes[0] != sizes[1] or keys(other) - keys(plan), path


@pytest.mark.parametrize("mats", ["yes", "no"])
@pytest.mark.parametrize("leaf", ["papers", "board", "tag"])
@pytest.mark.parametrize("kind", ["hills", "connectors", "zigzag"])
def test_what_is_cut_is_used_and_the_two_papers_of_a_leaf_stay_apart_for_what_goes_between(kind, leaf, mats):
    book = editing.apply(
        of("hills"),
        [("binding.kind", kind), ("pages.leaf_is", leaf), ("pages.mats", mats), ("pages.photo", "none")],
    )
    plan = worked_out(book)
    steps = [one.step for one in plan.bench.work]
    waits = waits_for(steps)
    needed = {first for firsts in waits.values() for first in firsts}
    assert [step.key for step in steps if step.key not in needed] == [steps[-1].key]
    glued = [step.key for step in steps if "back leaf" in step.title]
    assert bool(glued) == (leaf == "papers" and kind != "hills")


@pytest.mark.parametrize("name", NAMES)
def test_each_sort_of_piece_is_a_tick_of_its_own_and_one_made_for_all_of_them_once_still_counts(name):
    plan = worked_out(of(name))
    pieces = [cut for cut in plan.cutting.cuts if cut.stock.role not in ("leaf", "pile")]
    steps = {one.step.key: one.step for one in plan.bench.work if one.step.was[0]}
    assert len(steps) == len(pieces)
    old = {step.was[0]: step.was[1] for step in steps.values()}
    book = editing.apply(of(name), [("bench.ticks", old)])
    assert {one.step.key for one in worked_out(book).bench.work if one.done} == set(steps)
    for key in steps:  # one of them is taken back, and only that one
        after = tick(book, plan, key, False)
        assert {one.step.key for one in worked_out(after).bench.work if one.done} == set(steps) - {key}
        break


def with_every_design(name):
    """The book of a recipe, with one design of every kind on its faces."""
    book = of(name)
    faces = [face.name for face in all_faces(worked_out(book).extras.left)]
    if not faces:
        return book
    designs = [
        (f"extras.items.{kind.name}", {"kind": kind.name, "places": [{"on": faces[number % len(faces)]}]})
        for number, kind in enumerate(EXTRAS.members)
    ]
    return editing.apply(book, designs)


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("full", some([False, True], 2, first=1))
def test_each_piece_and_thing_is_fixed_by_one_step_and_none_works_on_what_is_closed(name, full):
    plan = worked_out(with_every_design(name) if full else of(name))
    steps = [one.step for one in plan.bench.work]
    pieces = [f"{pleat}.{piece.key}" for pleat, result in plan for piece in result.parts]
    things = [f"extras.{item.key}" for item in plan.extras.items if item.spots]
    assert Counter(key for step in steps for key in step.fixes) == Counter([*pieces, *things])
    closed: set[str] = set()
    for step in steps:
        assert not closed & set(step.uses), f"{step.title} works on {closed & set(step.uses)}"
        closed |= set(step.closes)


@pytest.mark.parametrize("name", some(NAMES, 3, first=1))
def test_what_goes_in_one_go_is_not_left_in_between(name):
    steps = {one.step.key: one.step for one in worked_out(with_every_design(name)).bench.work}
    waits = waits_for(tuple(steps.values()))
    after: dict[str, set[str]] = {}
    for key in steps:  # in their order: what each waits for, and what that waits for
        after[key] = {first for one in waits[key] for first in (one, *after[one])}
    for step in steps.values():
        for key in step.then:
            assert step.key in after[key], f"{key} follows {step.key}"
            assert not step.wait_minutes, f"{step.title} is not the last in one go"
            assert not step.for_all
            between = [
                one for one in steps if step.key in after[one] and one in after[key] and one not in step.then
            ]
            assert not between, f"{between} come between {step.key} and {key}"


@pytest.mark.parametrize("name", some(NAMES, 3))
def test_the_hands_spend_the_set_up_once_and_each_book_as_long(name):
    for one in worked_out(of(name)).bench.work:
        step = one.step
        assert step.hands(1) == pytest.approx(step.minutes)
        each = [step.hands(books + 1) - step.hands(books) for books in (1, 5, 11)]
        assert each == pytest.approx([0.0 if step.for_all else max(step.minutes - step.set_up, 0.0)] * 3)
        assert step.waits[0] <= step.wait_minutes <= step.waits[1]
        assert (
            step.wait_minutes == 0
            or step.weights
            or "glue" in step.detail.lower()
            or "dry" in step.title.lower()
        ), step.title
