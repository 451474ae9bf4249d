"""The whole book at one glance, by hand arithmetic."""

import pytest

from pleat.core.base.units import RULERS
from pleat.core.document.book import Book
from pleat.core.document.recipes import RECIPES, USES, advise
from pleat.core.materials.items import Paper
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.overview import Good, Overview, Want, overview
from pleat.core.whole.planning import make_plan
from tests.conftest import edited

LEAF = Paper(
    name="Log paper",
    kind="drawing",
    sheet_width_mm=297,
    sheet_height_mm=210,
    grammage=100,
    owned=30,
    price=0.06,
    grain="short",
)
CARD = Paper(
    name="Night card",
    kind="cardstock",
    sheet_width_mm=450,
    sheet_height_mm=320,
    grammage=250,
    owned=2,
    price=0.5,
    grain="short",
)
RUN = edited(
    Book(paper=Papers(leaf=LEAF, cover=CARD)),
    {"brief.size": "A5", "pages.count": "32 pages", "brief.quantity": "4"},
)


def test_what_a_run_takes_has_lacks_and_costs():
    """4 books of 8 folios, one a sheet: 32 of 30 sheets, 2 to buy, 1.92. Covers of 305 x 216, one from each
    450 x 320: 4 of 2 sheets, 2.00. 4 threads."""
    plan = make_plan(RUN)
    over = overview(plan, {"": Good(5000, 0.1)})
    leaves, covers, thread = over.wants
    assert (leaves.needed, leaves.owned, leaves.missing, leaves.cost) == (32, 30, 2, pytest.approx(1.92))
    assert (covers.needed, covers.missing, covers.cost) == (4, 2, 2.0)
    each = plan.binding.parts[0].length_mm
    assert thread.needed == 4 * each
    assert thread.cost == pytest.approx(4 * each / 1000 * 0.1)
    assert over.cost == pytest.approx(1.92 + 2 + thread.cost)
    assert (over.missing, over.unpriced) == ((leaves, covers), ())
    unknown = overview(plan, {})
    assert (unknown.wants[2].missing, unknown.wants[2].cost, unknown.unpriced) == (
        None,
        None,
        ("linen 18/3",),
    )


def test_what_to_write_down_and_what_is_worst_and_next():
    over = overview(make_plan(RUN), {})
    assert [figure.scrap for figure in over.scrap][:2] == ["148 × 210 mm", "32 pages: 8 sheets"]
    assert len(over.scrap) == 6
    assert [check.level for _, check in over.worst] == sorted(
        (check.level for _, check in over.worst), key=["stop", "watch", "note"].index
    )
    assert over.worst[0][1].key == "owned"
    assert over.next.key == "gather"
    low, high = over.minutes
    alone = overview(make_plan(edited(RUN, {"brief.quantity": "1"})), {})
    assert alone.minutes[0] < low < high
    assert low < 4 * alone.minutes[1], "what is done once for the run is not done four times"
    assert over.waits_about % 60 == 0


def test_amounts_are_said_as_a_maker_says_them():
    thread = Want("linen", "binding", "mm", 2870, 46000, None)
    mm, inch = RULERS["mm"], RULERS["in"]
    assert [thread.words(amount, mm) for amount in (2870, 475)] == ["2.9 m", "475 mm"]
    assert thread.words(254, inch) == "10 in"
    assert Want("card", "cover", "sheet", 0, 20, None).words(0, mm) == "none fits"
    assert Want("card", "cover", "sheet", 0, 20, None).missing is None
    assert [Want("card", "cover", "sheet", 2, owned, None).has(mm) for owned in (None, 1, 3)] == [
        "not counted",
        "1 sheet",
        "3 sheets",
    ]
    assert [Want("card", "cover", "sheet", 2, owned, None).lacks(mm) for owned in (None, 1, 3)] == [
        "count it",
        "1 sheet",
        "–",
    ]
    assert Want("ring", "binding", "piece", 3, 1, None).words(2, mm) == "2"
    assert [
        Overview((), None, (), minutes, 0, (), (), 0, None).work_short
        for minutes in ((5, 10), (50, 115), (60, 105), (180, 300))
    ] == [
        "¼ h",
        "¾–2 h",
        "1–1¾ h",
        "3–5 h",
    ]


@pytest.mark.parametrize("one", RECIPES, ids=lambda one: one.name)
def test_every_recipe_is_the_advice_for_what_it_is_for(one):
    middle = (one.fewest + one.most) // 2
    found = advise(one.use, middle, frozenset())
    assert one in [advice.recipe for advice in found if not advice.against]
    assert found[0].recipe.use == one.use
    assert f"it is {USES[one.use]}" in found[0].reasons
    assert {advice.recipe for advice in found} == set(RECIPES)
