"""Leaves held along an edge: worked figures, laws that hold at any size, what is owned, and covers that
follow the leaves."""

from __future__ import annotations

import json
import math

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from pleat.core.base.errors import BadBook
from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Count, Length, Part
from pleat.core.document import editing
from pleat.core.document.made_of import chosen
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.engines.holes.places import nearest
from pleat.core.engines.holes.turning import frames
from pleat.core.materials.items import Elastic, Hardware, Stick, Tool
from pleat.core.materials.tools import tools_from
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.binding.punched.capacity import GROUP
from pleat.core.pleats.binding.punched.record import PunchedResult
from pleat.core.pleats.pages.kinds.leaves import Leaves
from pleat.core.trade.holes import HOLE_END_MM
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import make_plan
from pleat.drawing import looks
from pleat.drawing import members as _drawings  # noqa: F401 - makes all drawings known
from pleat.drawing.binding.ringside import ring_side
from pleat.drawing.handles import handles
from pleat.drawing.portraits import portrait
from pleat.drawing.svg import render_screen
from pleat.printing.sheets import print_sheets
from tests.profiles import examples
from tests.strategies import records_of

HELD = [one.name for one in RECIPES if chosen(one.book()).binding.at == "edge"]
LEAF = 0.12
"""What one leaf of the examples' log paper is thick: 100 g/m2 x 1.2 cm3/g."""


def plan_of(name, *changes, tools=None):
    book = editing.apply(recipe(name).book(), changes)
    return make_plan(book, tools) if tools else make_plan(book)


def figure(result, key):
    return next(one for one in result.figures if one.key == key)


def test_two_rings_by_hand():
    """40 leaves of 0.12 mm lie 1.02 times that: 4.9; two cards of 0.338: 5.57. A ring of 25 with 2.2 wire,
    holes of 6, 10 from the edge: bridge 7, least half chord (2.2 x 27.2 / 6 - 6) / 2 = 1.99, so half of the
    bridge, 3.5, counts: parallel 2 x sqrt(12.5^2 - 3.5^2) = 24."""
    plan = plan_of("rings")
    result = plan.binding
    assert result.cross.stack == pytest.approx(40 * LEAF * 1.02 + 2 * plan.paper.cover.caliper.likely)
    assert result.cross.limits.parallel == pytest.approx(2 * math.sqrt(12.5**2 - 3.5**2))
    assert result.positions_mm == (52.5, 157.5), "the quarter points of 210"
    assert plan.cover.holes_mm == (55.5, 160.5), "moved by the square"
    assert (result.jig_mm, figure(result, "lifts").value) == (20, "5 lifts"), "1 mm takes 8 leaves of 0.12"
    assert result.lost_mm == 10 + 3 + 2


def test_filing_holes_on_a4_are_those_of_iso_838_and_the_jig_is_true():
    result = plan_of("filing").binding
    assert (result.positions_mm, result.inset_mm, result.hole_mm) == ((108.5, 188.5), 12, 6)
    assert figure(result, "holes").rules[0].origin == "standard"
    six = plan_of("planner").binding
    assert [b - a for a, b in zip(six.positions_mm, six.positions_mm[1:], strict=False)] == [
        19,
        19,
        70,
        19,
        19,
    ]
    assert figure(six, "holes").rules[0].origin == "from memory"


def test_wire_takes_the_smallest_that_turns_and_pulls_what_would_break_an_edge():
    """210 mm at 3 to the inch: floor((210 - 2 x 7) / 8.467) + 1 = 24 holes, the first (210 - 23 x 8.467) / 2
    = 7.63 from the head."""
    result = plan_of("wire").binding
    assert len(result.positions_mm) == 24
    assert result.positions_mm[0] == pytest.approx((210 - 23 * 25.4 / 3) / 2)
    assert result.pitch.pulled == (25,)
    sizes = [offer for offer in result.offers if offer.group == GROUP]
    assert [offer.good for offer in sizes] == sorted(offer.good for offer in sizes), (
        "all below the chosen one are too small"
    )
    assert next(offer for offer in sizes if offer.good).chosen
    (wire,) = [part for part in result.parts if isinstance(part, Length)]
    assert wire.length_mm == pytest.approx(24 * 25.4 / 3)


def test_posts_take_the_shortest_that_closes_and_packing_is_the_rest():
    """30 leaves of kraft card and two boards: 10.35 + 4 = 14.35; 0.97 of it is 13.9, so 15 mm, and 0.65 of
    packing."""
    plan = plan_of("posts")
    stack = plan.pages.thickness.likely + 4.0
    assert 10 < 0.97 * stack < 15
    assert figure(plan.binding, "post").value == 15
    assert figure(plan.binding, "packing").value == pytest.approx(15 - stack)
    tight = plan_of("posts", ("binding.length_mm", 12.0))
    assert [check.level for check in tight.binding.checks if check.key == "D8"] == ["stop"]
    batten = plan_of("batten").binding
    assert batten.clamp.batten == 4
    assert any(isinstance(part, Count) and part.key == "battens" for part in batten.parts)


def test_stick_and_band_by_hand():
    """A band of 90 that stretches by 80 %, snug at 60 % of that: 133.2; less two stacks and half round both
    ends of stick and band."""
    plan = plan_of("stickband")
    result = plan.binding
    stack = plan.pages.thickness.likely + 2 * plan.paper.cover.caliper.likely
    spacing = 90 * (1 + 0.6 * 0.8) - 2 * stack - math.pi * 7.5
    assert result.positions_mm[0] == plan.brief.ruler.snap_up((210 - spacing) / 2)
    assert sum(result.positions_mm) == 210
    inches = plan_of("stickband", ("brief.ruler", "in"))
    assert inches.brief.ruler.is_on_mark(inches.binding.positions_mm[0])
    notched = plan_of("stickband", ("binding.through", "notches"))
    assert (notched.binding.inset_mm, notched.binding.checks) == (0, ())
    assert "Notch the leaves" in [one.step.title for one in notched.bench.work]
    assert not any(
        "unch" in tool
        for one in notched.bench.work
        if one.step.key in ("jig", "punch")
        for tool in one.step.tools
    )


def test_sticks_make_the_spine_and_the_strips_go_over_it():
    """Six sticks of 5 with a strip of 0.4 beside each: 32.4. A strip goes straight between two and round each
    by what it turns; pitch and gap are both 5.4, so it turns a right angle at each: five times 5.4 x pi / 2,
    half a place at either end, two laps of 40."""
    plan = plan_of("sticks")
    result = plan.binding
    assert figure(result, "stick_spine").value == pytest.approx(6 * 5.4)
    over = 5 * 5.4 * math.pi / 2 + 5.4
    assert result.strip_long_mm == pytest.approx(plan.brief.ruler.snap_up(over + 80))
    assert plan.cover.spine.likely == pytest.approx(6 * 5.4 + 4.0)
    assert len(result.sewing.threads) == 18
    assert plan.cover.holes_mm == (), "the boards hang on the strips"
    behind = plan_of("sticks", ("binding.strips", "behind")).binding
    assert behind.strip_long_mm == plan.brief.ruler.snap_up(80 + 6 * 5.0)
    (strip,) = [part for part in result.parts if isinstance(part, Part)]
    assert (strip.grain, strip.stock, strip.count) == ("w", "strip", 2)


def test_a_key_ring_loop_by_hand():
    """Twice 8 past the hole, 9 to the edge, 6 clear of it; half round 2.4 and the card's thickness."""
    plan = plan_of("keyring")
    card = plan.paper.cover.caliper.likely
    assert figure(plan.binding, "loop").value[1] == plan.brief.ruler.snap_up(
        2 * 23 + math.pi * (2.4 + card) / 2
    )


def test_elastic_round_a_fold_is_cut_shorter_than_its_path():
    plan = plan_of("loop")
    path = plan.binding.need.run.run_mm
    (cut,) = plan.binding.parts
    assert cut.length_mm == plan.brief.ruler.snap(0.875 * path + 60)
    closed = plan_of("loop", ("binding.made", "closed")).binding.parts[0]
    assert closed.length_mm == plan.brief.ruler.snap(0.875 * path)
    assert plan_of("loop", ("binding.made", "cord")).binding.parts[0].length_mm > path, (
        "cord is cut with its tails"
    )


@pytest.mark.parametrize("name", HELD)
@settings(max_examples=examples(12), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.floats(60, 420), st.floats(80, 420), st.integers(2, 160), st.sampled_from(["mm", "in"]))
def test_holes_are_symmetric_and_none_is_near_an_end_or_it_is_told(name, width, height, leaves, ruler):
    plan = plan_of(
        name,
        ("brief.leaf_width_mm", width),
        ("brief.leaf_height_mm", height),
        ("pages.amount", leaves),
        ("brief.ruler", ruler),
    )
    result = plan.binding
    assert isinstance(result, PunchedResult)
    end, _ = nearest(result.positions_mm, result.edge_mm, result.hole_mm)
    told = {check.key for check in result.checks}
    assert end >= 2.0 - 1e-6 or "D5" in told
    if not told & {"D5"} and name not in ("filing", "planner", "strips"):
        assert end >= HOLE_END_MM - 1e-6
    if name != "keyring":
        assert sorted(result.edge_mm - at for at in result.positions_mm) == pytest.approx(
            list(result.positions_mm)
        )
    assert len(plan.cover.holes_mm) == len(result.positions_mm)


@settings(max_examples=examples(40))
@given(
    st.sampled_from(["rings", "wire", "coil", "posts", "strips", "filing"]),
    st.integers(2, 200),
    st.integers(1, 120),
)
def test_more_pages_never_need_a_smaller_opening(name, leaves, more):
    def need(count):
        result = plan_of(name, ("pages.amount", count)).binding
        if name == "posts":
            return figure(result, "post").value
        good = [
            number
            for number, offer in enumerate(offer for offer in result.offers if offer.group == GROUP)
            if offer.good
        ]
        return min(good, default=99)

    assert need(leaves) <= need(leaves + more)


@settings(max_examples=examples(40))
@given(st.sampled_from(["rings", "strips", "filing", "wire"]), st.integers(5, 300))
def test_what_is_proposed_as_the_most_is_held_and_a_leaf_more_is_told(name, leaves):
    """The inverse: as many leaves as the figure says turn freely; and one more than it says is no longer
    proposed."""
    changes = [] if name != "wire" else [("binding.nominal_mm", 14.3)]
    most = int(
        str(figure(plan_of(name, *changes, ("pages.amount", leaves)).binding, "takes").value).split()[0]
    )
    full = plan_of(name, *changes, ("pages.amount", max(most, 1))).binding
    assert "D8" not in {check.key for check in full.checks}
    over = plan_of(name, *changes, ("pages.amount", most + 2)).binding
    assert "D8" in {check.key for check in over.checks}


def test_covers_are_mirrored_and_moved_by_their_square():
    for name, changes in (("rings", ()), ("posts", (("cover.edge_mm", 4.0),)), ("fliptop", ())):
        plan = plan_of(name, *changes)
        back, front = plan.cover.laid
        wide, high = front.piece.size_mm
        for one, other in zip(back.holes, front.holes, strict=True):
            mirror = (
                (one.x_mm, high - one.y_mm) if plan.binding.along == "head" else (wide - one.x_mm, one.y_mm)
            )
            assert mirror == pytest.approx((other.x_mm, other.y_mm)), "one is the other's mirror image"
        along = [hole.x_mm if plan.binding.along == "head" else hole.y_mm for hole in front.holes]
        assert along == pytest.approx([at + 3 for at in plan.binding.positions_mm])
        across = {round(hole.y_mm if plan.binding.along == "head" else hole.x_mm, 6) for hole in front.holes}
        assert across == {plan.binding.inset_mm + dict(changes).get("cover.edge_mm", 0.0)}


def test_what_is_owned_comes_first_and_a_larger_ring_that_holds_less_is_told():
    owned = [
        ("7", Hardware(name="Thin rings", inner_mm=24, wire_mm=2.0, owned=4)),
        ("8", Hardware(name="Thick rings", inner_mm=28, wire_mm=5.5, owned=2)),
        ("9", Tool(name="Card punch", shape="punch", thickest_mm=2.0)),
    ]
    plan = plan_of("rings", tools=tools_from(owned))
    sizes = {offer.label: offer for offer in plan.binding.offers if offer.group == GROUP}
    assert "4 left" in " ".join(sizes["Thin rings"].facts)
    assert "less than a smaller one" in " ".join(sizes["Thick rings"].facts)
    taken = plan_of("rings", *sizes["Thin rings"].changes, tools=tools_from(owned))
    (rings,) = [part for part in taken.binding.parts if isinstance(part, Count)]
    assert (rings.name, rings.stock) == ("Thin rings", "7")
    assert figure(plan.binding, "lifts").value == "3 lifts", "16 leaves at once"
    bands = tools_from(
        [("3", Elastic(name="Wide band", shape="loop", width_mm=4, length_left_mm=120, stretch=60))]
    )
    (band,) = [offer for offer in plan_of("stickband", tools=bands).binding.offers if offer.group == GROUP]
    assert band.good
    assert plan_of("stickband", *band.changes, tools=bands).binding.checks == ()


def test_what_makes_holes_strong_takes_room_on_the_ring():
    plain, strong = (plan_of("rings", ("binding.reinforce", one)).binding for one in ("none", "eyelets"))
    assert strong.cross.stack - plain.cross.stack == pytest.approx(40 * 0.6)
    assert "reinforce" in [step.key for step in strong.steps]


def test_uneven_leaves_ask_for_more_room_unless_they_lean():
    """Thicker by 30 in the middle: scored leaves lean in from a quarter of 148, 27 mm beyond the rings, by 30
    degrees from both sides: 31 mm."""
    reach = 0.25 * 148 - 10
    for card, lean in ((0.12, math.tan(math.radians(30))), (0.5, 0.0)):
        changes = [("pages.middle_mm", 30.0), ("paper.leaf.readings_mm", (card * 10,))]
        plan = plan_of("rings", *changes)
        plain = plan_of("rings", changes[1])
        asked = figure(plan.binding, "takes").how.split("asks for ")[1].split(" mm")[0]
        least = plain.binding.cross.stack
        assert float(asked) == pytest.approx(max(least, least + 30 - 2 * reach * lean), abs=0.06)


def test_a_hole_is_set_by_its_place_and_its_partner_follows_until_they_are_parted():
    book = editing.edit(recipe("rings").book(), {"binding.hole.0": "40"})
    assert make_plan(book).binding.positions_mm == (40, 170)
    alone = editing.edit(editing.apply(book, [("binding.moved", "single")]), {"binding.hole.1": "160"})
    assert make_plan(alone).binding.positions_mm == (40, 160)
    assert editing.edit(book, {"binding.hole.0": "40"}) == book, "what is shown changes nothing"
    for number, text, says in (
        ("0", "130", "lies between"),
        ("9", "20", "no such hole"),
        ("0", "none", "not a length"),
    ):
        with pytest.raises(BadBook, match=says):
            editing.edit(book, {f"binding.hole.{number}": text})
    three = editing.apply(book, [("binding.count", 3)])
    (told,) = [check for check in make_plan(three).binding.checks if check.key == "stations"]
    assert make_plan(editing.apply(three, told.offers[0].changes)).binding.positions_mm == (35, 105, 175)


@pytest.mark.parametrize("moved", ["pairs", "single"])
def test_a_hole_that_the_band_proposed_is_set_to_whatever_is_typed_and_the_other_is_never_moved_unseen(moved):
    """Where the band wants them depends on the stack; what is typed of one is read without it."""
    for leaves in (10, 24, 100):
        book = editing.apply(recipe("stickband").book(), [("pages.amount", leaves), ("binding.moved", moved)])
        for text in ("50", "54", "55", "60"):
            typed = editing.edit(book, {"binding.hole.0": text})
            assert make_plan(typed).binding.positions_mm == (float(text), 210 - float(text))
            again = make_plan(editing.edit(typed, {"binding.hole.1": "140"})).binding.positions_mm
            assert again == ((70, 140) if moved == "pairs" else (float(text), 140))


def test_measuring_the_stack_replaces_the_estimate():
    plan = plan_of("rings", ("pages.measured_block_mm", 5.5))
    assert plan.pages.measured
    assert plan.pages.thickness.likely == 5.5
    assert isinstance(plan.pages.thickness, Estimate)
    assert plan.pages.thickness.width == pytest.approx(0.3)


def test_a_plan_of_five_hundred_leaves_is_a_plan():
    plan = plan_of("rings", ("pages.amount", 500), ("binding.inner_mm", 120.0), ("binding.inset_mm", 12.0))
    assert plan.pages.leaves == len(plan.pages.units) == 500


def test_a_book_that_becomes_leaves_has_as_many_pages():
    for text, leaves in (("64 pages", 32), ("24 leaves", 24), ("10 sheets", 20)):
        book = editing.edit(recipe("journal").book(), {"pages.count": text})
        there = editing.apply(book, recipe("rings").made)
        assert make_plan(there).pages.leaves == leaves
        assert editing.apply(there, [("pages.kind", "sections")]).pages == book.pages, "and back as it was"


COUNT = st.none() | st.integers(0, 100000)
OWNED = st.one_of(
    st.builds(
        Hardware,
        name=st.just("one"),
        shape=st.sampled_from(["ring", "wire", "coil", "strip", "post"]),
        inner_mm=st.floats(2, 150),
        wire_mm=st.floats(0.3, 10),
        pitch_mm=st.none() | st.floats(2, 150),
        length_mm=st.none() | st.floats(10, 1000),
        owned=COUNT,
    ),
    st.builds(
        Elastic,
        name=st.just("one"),
        shape=st.sampled_from(["cord", "loop"]),
        width_mm=st.floats(0.3, 60),
        length_left_mm=st.floats(0, 2000),
        stretch=st.floats(5, 400),
    ),
    st.builds(
        Stick, name=st.just("one"), length_mm=st.floats(20, 3000), thickness_mm=st.floats(1, 60), owned=COUNT
    ),
    st.builds(Tool, name=st.just("one"), shape=st.just("punch"), thickest_mm=st.none() | st.floats(0.05, 50)),
)


@settings(max_examples=examples(60))
@given(
    st.sampled_from([*HELD, "sticks"]),
    st.lists(OWNED, max_size=6),
)
def test_whatever_is_owned_every_size_that_is_offered_can_be_taken(name, items):
    tools = tools_from((str(number), item) for number, item in enumerate(items, 1))
    plan = plan_of(name, tools=tools)
    offered = [offer for offer in plan.binding.offers if offer.group == GROUP] + [
        one for check in plan.binding.checks for one in check.offers
    ]
    for offer in offered:
        taken = plan_of(name, *offer.changes, tools=tools)
        assert isinstance(taken.binding.figures, tuple)
        if offer.group == GROUP and offer.good and name != "stickband":
            assert not [
                check for check in taken.binding.checks if check.key == "D8" and check.level == "stop"
            ], offer.label


def test_sticks_that_are_owned_are_taken_and_counted():
    owned = [
        ("4", Stick(name="Hazel", length_mm=240, thickness_mm=6, owned=8)),
        ("5", Stick(name="Twigs", length_mm=150, thickness_mm=4, owned=20)),
    ]
    plan = plan_of("sticks", tools=tools_from(owned))
    hazel, twigs = (offer for offer in plan.binding.offers if offer.group == GROUP)
    assert (hazel.good, twigs.good) == (True, False)
    taken = plan_of("sticks", *hazel.changes, tools=tools_from(owned)).binding
    assert [(part.name, part.stock, part.count) for part in taken.parts if isinstance(part, Count)] == [
        ("Hazel", "4", 6)
    ]
    assert figure(taken, "stick_spine").value == pytest.approx(6 * 6.4)


def test_what_is_typed_of_a_ring_is_no_longer_the_one_that_was_taken():
    book = editing.apply(
        recipe("rings").book(),
        [("binding.gear", "Brass rings"), ("binding.stock_id", "7"), ("binding.inner_mm", 24.0)],
    )
    assert editing.edit(book, {"binding.inner_mm": "24"}).binding.gear == "Brass rings", (
        "what is shown changes nothing"
    )
    other = editing.edit(book, {"binding.inner_mm": "30"}).binding
    assert (other.inner_mm, other.gear, other.stock_id) == (30, "", None)
    assert editing.edit(book, {"binding.count": "3"}).binding.gear == "Brass rings"


RECORDS = {
    kind.name: records_of(kind.record, fixed=("kind", "pattern", "per"))
    for kind in BINDINGS.members
    if kind.at == "edge" or kind.name in ("sticks", "loop")
}


@pytest.mark.parametrize("name", RECORDS)
@settings(
    max_examples=examples(25),
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
@given(st.data())
def test_whatever_is_decided_it_plans_draws_prints_and_says_what_does_not_work(name, data):
    binding, pages = data.draw(RECORDS[name]), data.draw(records_of(Leaves, fixed=("kind",)))
    book = recipe(name).book()
    book = book.model_copy(
        update={"binding": binding, **({"pages": pages} if name not in ("sticks", "loop") else {})}
    )
    book = editing.apply(book, [("brief.ruler", data.draw(st.sampled_from(["mm", "in"])))])
    plan = make_plan(book)
    json.dumps(plan_data(plan))
    for _, check in plan.checks:
        for offer in check.offers:
            assert editing.apply(book, offer.changes) != book, (check.title, offer.label)
    for result in (plan.pages, plan.binding, plan.cover):
        spots = render_screen(looks.main(result, plan)).spots
        assert {one.path for one in handles(result, plan)} <= set(spots)
        looks.strip(result, plan)
    portrait(plan)
    assert len(print_sheets(plan, "x", "a4")) >= 2
    if isinstance(plan.binding, PunchedResult):
        ring_side(plan.binding, plan.brief.ruler)
        if plan.binding.cross and plan.binding.cross.ring.passes:
            frames(plan.binding.cross.ring, 0.5 * plan.binding.cross.stack, 0.5 * plan.binding.cross.stack)
