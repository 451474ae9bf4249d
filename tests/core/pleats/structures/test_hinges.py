"""Hinges, what goes round them, and what keeps folios shut: told on whichever side a sum is missed, and
mended from either."""

from __future__ import annotations

import math

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Point

from pleat.cli import main
from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.bookfile import write_book
from pleat.core.engines.folding.programme import work
from pleat.core.pleats.structures.fastened import halves
from pleat.core.whole.planning import make_plan, worked_out
from tests.core.pleats.structures.samples import FOLDED, book_of, plan_of


def checks(plan, key, pleat=None):
    return [check for name, check in plan.checks if check.key == key and pleat in (None, name)]


@pytest.mark.parametrize("name", ["hills", "connectors"])
@pytest.mark.parametrize("joint", ["3", "5", "9", "14"])
def test_a_case_whose_joints_are_chosen_is_met_by_the_ends_of_the_hinge(name, joint):
    """E1 on the cover's side: half the difference goes to either end of the hinge."""
    book = book_of(name, {"cover.joint_mm": joint})
    plan = make_plan(book)
    bends = plan.cover.shell.strip + 2 * float(joint)
    if abs(bends - plan.binding.floor_mm) <= 1.0:
        assert not checks(plan, "E1", "cover")
        return
    (check,) = checks(plan, "E1", "cover")
    offer = next(one for one in check.offers if one.label.startswith("ends of the hinge"))
    mended = make_plan(editing.apply(book, offer.changes))
    assert mended.binding.floor_mm == pytest.approx(bends)
    assert not checks(mended, "E1", "cover")
    other = next((one for one in check.offers if one.label.startswith("spine board")), None)
    if other:
        wider = make_plan(editing.apply(book, other.changes))
        assert wider.cover.shell.strip + 2 * wider.cover.shell.joint == pytest.approx(wider.binding.floor_mm)


def test_both_gaps_left_out_of_the_sum_are_named():
    """A hinge made as wide as the spine board alone."""
    book = book_of("hills", {"binding.end_mm": "1"})
    plan = make_plan(book)
    gaps = plan.cover.shell.strip - 2 * 1.0
    exact = (plan.cover.shell.strip - (plan.binding.floor_mm - 2)) / 2
    assert gaps > 0
    missed = make_plan(editing.apply(book, [("binding.end_mm", max(exact, 0.5))]))
    told = checks(missed, "E1", "cover")
    assert told
    assert (
        "both gaps were left out of the sum" in told[0].title
        or abs(missed.binding.floor_mm - missed.cover.shell.strip) > 1.0
    )


@pytest.mark.parametrize("count", [1, 2, 7])
def test_a_chain_has_one_connector_more_than_leaves_and_shared_gussets_are_alike(count):
    plan = plan_of("connectors", {"pages.amount": str(count), "binding.shared": "all", "pages.flips": "none"})
    made = sum(flat.count for flat in plan.binding.flats)
    assert made == count + 1
    by_ends = plan_of("connectors", {"pages.amount": str(count), "pages.flips": "none"})
    assert by_ends.binding.floor_mm == pytest.approx(plan.binding.floor_mm)
    if len(plan.binding.flats) == 1:
        (flat,) = plan.binding.flats
        assert flat.piece.size_mm[0] == pytest.approx(2 * 20 + plan.binding.floor_mm / (count + 1))


@pytest.mark.every(2)
@given(st.integers(2, 40), st.sampled_from(["flat", "layered", "bulky"]))
def test_more_or_thicker_leaves_never_make_a_hinge_narrower(count, bulk):
    for name in ("hills", "connectors", "zigzag"):
        few, more = (
            worked_out(
                book_of(name, {"pages.amount": str(number), "pages.photo": "card", "pages.bulk": bulk})
            )
            for number in (count, count + 1)
        )
        assert more.binding.need.likely > few.binding.need.likely
        if few.binding.floor_mm is not None:
            assert more.binding.floor_mm >= few.binding.floor_mm - 1e-6
        assert more.cover.spine.likely > few.cover.spine.likely


def test_strips_dress_the_gaps_inside_their_folds():
    """A gap of 4.5 takes a strip of 2.5, which is too narrow to be worth it; a gap of 8 one of 6, seven of
    them; the ends two of flange and end."""
    narrow = plan_of("hills")
    assert [part.count for part in narrow.binding.parts if part.key.startswith("dress")] == [2]
    wide = plan_of("hills", {"binding.gap_mm": "8"})
    strips = {part.width_mm: part.count for part in wide.binding.parts if part.key.startswith("dress")}
    assert strips[6.0] == 7
    assert all(
        part.height_mm == pytest.approx(180 - 2)
        for part in wide.binding.parts
        if part.key.startswith("dress")
    )
    assert not [
        part
        for part in plan_of("hills", {"binding.dress": "no"}).binding.parts
        if part.key.startswith("dress")
    ]


@pytest.mark.parametrize("name", ["hills", "connectors", "zigzag"])
def test_another_way_to_hold_the_same_leaves_is_offered_and_goes(name):
    book = book_of(name)
    for offer in make_plan(book).binding.offers:
        if offer.group == "stitches" and not offer.chosen:
            plan = make_plan(editing.apply(book, offer.changes))
            assert not [check for _, check in plan.checks if check.key == "unfit"]
            assert plan.binding.flats


@pytest.mark.parametrize("cover", ["flapped", "flatwrap", "threepiece"])
@pytest.mark.parametrize("glued", ["both", "back", "front", "free"])
def test_a_concertina_goes_into_a_wrap_or_a_case_by_any_of_its_ends(cover, glued):
    book = editing.apply(book_of("concertina"), [("cover.kind", cover), ("binding.glued", glued)])
    plan = make_plan(book)
    assert not [check for _, check in plan.checks if check.level == "stop"]
    steps = [one.step for one in plan.bench.work]
    assert len([step for step in steps if "book.bound" in step.gives]) >= 1
    said = " ".join(f"{step.title} {step.detail}" for step in steps)
    assert ("lie free" in plan.binding.figures[0].how or "Free" in plan.binding.figures[0].how) == (
        glued == "free"
    )
    assert "concertina" in said.lower() or "to and fro" in said


@pytest.mark.parametrize("name", ["crossfold", "folder", "nested", "bagfolio", "free"])
def test_both_halves_of_a_fastener_lie_on_each_other_when_all_is_shut(name):
    """The place on either panel, put on the table by its own pose, is the same place; the first is a
    fastener's inset from the free edge."""
    made = plan_of(name, {"pages.fastener": "magnet"}).pages.made
    found = halves(made, RULERS["mm"])
    worked = work(made.programme)
    one = worked.shut.poses[found.first].place((*found.at, 0.0))
    other = worked.shut.poses[found.second].place((*found.lands, 0.0))
    assert math.dist(one[:2], other[:2]) < 1e-6
    assert worked.shut.pile.index(found.first) > worked.shut.pile.index(found.second)
    outline = worked.assembly.pieces[found.first[0]][found.first[1]].outline
    sides = [LineString([a, b]) for a, b in zip(outline, (*outline[1:], outline[0]), strict=True)]
    assert min(side.distance(Point(found.at)) for side in sides) == pytest.approx(10.0, abs=0.01)
    plan = plan_of(name, {"pages.fastener": "dot"})
    assert [part.count for part in plan.pages.parts if part.key == "dots"] == [1]
    assert [step.key for step in plan.pages.steps][-2:] == ["fastener_first", "fastener_second"]


def test_magnets_bring_their_caution_and_go_in_before_the_paper():
    plan = plan_of("crossfold", {"pages.fastener": "magnet"})
    steps = {one.step.key: (one.number, one.step) for one in plan.bench.work}
    order = ("fastener_first", "folio_papers_first", "fastener_second", "folio_papers", "folio_set", "book")
    assert [steps[key][0] for key in order] == sorted(steps[key][0] for key in order)
    assert any("not for small children" in caution for caution in steps["fastener_first"][1].cautions)


@pytest.mark.parametrize("name", FOLDED)
def test_the_command_line_prints_templates_of_what_is_folded(name, tmp_path):
    file = tmp_path / "book.json"
    file.write_text(write_book(book_of(name)))
    listed = CliRunner().invoke(main, ["plan", str(file), "--part", "list"])
    assert listed.exit_code == 0
    plan = plan_of(name)
    flats = [*getattr(plan.pages, "flats", ()), *getattr(plan.binding, "flats", ())]
    for flat in flats[:2]:
        what = flat.name.replace(" ", "-")
        for form in ("svg", "dxf"):
            out = CliRunner().invoke(main, ["template", str(file), "--what", what, "--as", form])
            assert out.exit_code == 0, out.output
            assert len(out.output) > 200
