"""The figure that everything after depends on: the spine with its parts, its doubt, what measuring saves, and
one crease or two."""

import pytest

from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.pleats.cover.spine import Spined, saving, spine_of
from pleat.core.trade.covers import ONE_CREASE_MM
from pleat.core.trade.pages import BLOCK_READING_MM
from pleat.core.whole.planning import make_plan
from tests.core.pleats.cover.test_covers import book_of

SPINED = [one.name for one in RECIPES if isinstance(one.book().cover, Spined)]


def figures(name, *changes):
    return {figure.key: figure for figure in make_plan(book_of(name, *changes)).cover.figures}


@pytest.mark.parametrize("ruler", ["mm", "in"])
@pytest.mark.parametrize("name", SPINED)
def test_the_spine_is_the_sum_of_its_named_parts(name, ruler):
    plan = make_plan(book_of(name, ("brief.ruler", ruler)))
    book = book_of(name)
    spine = figures(name, ("brief.ruler", ruler))["spine"]
    parts = [plan.pages.thickness.likely, plan.binding.swell.likely]
    if getattr(book.cover, "ends", "") == "endpapers":
        parts.append(4 * plan.paper.stock("lining").caliper.likely)
    assert spine.value.likely == pytest.approx(sum(parts))
    assert spine.value.low <= spine.value.likely <= spine.value.high
    assert "leaves" in spine.how
    assert spine.how.count("+") >= len([part for part in parts if part]) - 1


def test_a_hundred_leaves_by_hand():
    """160 pages of 80 g/m2 copier paper are 80 leaves x 0.104 = 8.32; new and flat paper lies at 1.00 to
    1.05, say 1.02: 8.49 mm. Two endpapers of 120 g/m2 drawing paper, 0.144 each, are 4 leaves more: 0.58. Ten
    threads swell by what Binding says."""
    plan = make_plan(book_of("case"))
    shell = plan.cover.shell
    assert plan.pages.thickness.likely == pytest.approx(80 * 0.104 * 1.02, abs=0.03)
    assert shell.spine.used.likely == pytest.approx(
        80 * 0.104 * 1.02 + 4 * 0.144 + plan.binding.swell.likely, abs=0.03
    )


@pytest.mark.parametrize("name", SPINED)
def test_a_reading_is_used_and_its_doubt_is_that_of_the_reading(name):
    spine = figures(name, ("cover.measured_spine_mm", 9.0))["spine"]
    assert (spine.value.likely, spine.value.width) == pytest.approx((9.0, 2 * BLOCK_READING_MM))
    assert "You measured it" in spine.how
    again = figures(
        name, ("cover.measured_spine_mm", 9.0), ("cover.inserts_mm", 2.0), ("cover.inserts_at", "all")
    )["spine"]
    assert again.value.likely == pytest.approx(11.0), "what goes in later was not there when it was measured"


def test_what_measuring_saves_is_said_in_numbers_and_nothing_where_nothing_is_in_doubt():
    plan = make_plan(recipe("case").book())
    words = saving(RULERS["mm"], plan.cover.shell.spine)
    wide = plan.cover.shell.spine.estimated
    assert f"{wide.width:.1f} mm wide" in words
    assert "falls to 0.3 mm" in words
    assert str(wide.main_doubt()) in words


@pytest.mark.parametrize(
    ("thick", "scores"), [(2.0, 1), (ONE_CREASE_MM, 1), (ONE_CREASE_MM + 0.2, 2), (9.0, 2)]
)
def test_one_crease_or_two_by_the_thickness(thick, scores):
    """Common practice, no source: one crease serves up to 3 to 4 mm."""
    plan = make_plan(editing.apply(Book(), [("cover.measured_spine_mm", thick)]))
    assert len(plan.cover.wrap.scores_mm) == scores
    forced = make_plan(editing.apply(Book(), [("cover.measured_spine_mm", 9.0), ("cover.creases", "one")]))
    assert "crease" in {check.key for check in forced.cover.checks}


def test_hinge_creases_and_flaps_stand_symmetric_and_the_leaves_keep_their_squares():
    plain = make_plan(book_of("pockets", ("cover.creases", "two"), ("cover.flaps_mm", None)))
    plan = make_plan(recipe("pockets").book())
    wrap = plan.cover.wrap
    assert [panel.name for panel in wrap.panels] == [
        "flap",
        "back",
        "hinge",
        "spine",
        "hinge",
        "front",
        "flap",
    ]
    assert list(wrap.scores_mm) == pytest.approx([wrap.width_mm - at for at in reversed(wrap.scores_mm)])
    assert wrap.width_mm == pytest.approx(plain.cover.wrap.width_mm + 2 * 60)
    assert plan.cover.square_fore_mm == pytest.approx(plain.cover.square_fore_mm)
    assert plan.cover.front_width_mm == pytest.approx(plain.cover.front_width_mm)


def test_inserts_go_into_the_fore_edge_or_the_spine_as_they_lie():
    left = make_plan(recipe("case").book())
    none, fore, everywhere = (
        make_plan(book_of("case", ("cover.inserts_mm", thick), ("cover.inserts_at", at))).cover.shell.spine
        for thick, at in ((0.0, "fore"), (5.0, "fore"), (5.0, "all"))
    )
    assert fore.used.likely == pytest.approx(none.used.likely)
    assert fore.fore.likely == pytest.approx(none.fore.likely + 5)
    assert everywhere.used.likely == pytest.approx(none.used.likely + 5)
    assert everywhere.wedge_mm == pytest.approx(none.wedge_mm)
    assert none.wedge_mm == pytest.approx(-left.binding.swell.likely)
    assert spine_of.__doc__
