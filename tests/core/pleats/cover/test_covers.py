"""Covers: worked cases added up by hand, flat layouts against polygons of shapely, and laws that every cover
keeps.

Figures that are common practice stand where they are used: joint 4 board thicknesses between 7 and 10 mm,
square 3 mm, turn-in 18 mm, corners 1.75 board thicknesses and the covering off the board, a lining 15 mm on
to either board (common practice, no source).
"""

import itertools
import math

import papersize
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape
from shapely.affinity import scale, translate
from shapely.geometry import box
from shapely.ops import unary_union

from pleat.core.base.units import RULERS
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.engines.folding.sheet import scores
from pleat.core.materials.items import Board, Cloth, Paper
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.cover.opening import motion_of, worked
from pleat.core.pleats.cover.shell import Hard
from pleat.core.trade.cases import JOINT_BOARDS
from pleat.core.whole.planning import make_plan, worked_out
from tests.conftest import edited
from tests.profiles import examples
from tests.strategies import books, records_of

HARD = ("case", "quarter", "padded", "threepiece")
LAID = (*HARD, "flapped", "pockets", "layered", "sheath", "coveredboards", "padcover")
MM = 25.4


def book_of(name, *changes, **texts):
    book = editing.apply(recipe(name).book(), changes)
    return edited(book, {path.replace("__", "."): text for path, text in texts.items()})


def cover_of(name, *changes, **texts):
    return make_plan(book_of(name, *changes, **texts)).cover


def placed(one):
    shape = unary_union([Shape(panel.outline) for panel in one.piece.panels])
    return translate(shape, one.x_mm, one.y_mm)


MEASURED = (("cover.measured_spine_mm", 12.0),)


def test_a_case_added_up_by_hand():
    """A5 leaf 148 x 210, board 2 mm, block measured 12 mm. Joint 4 x 2 = 8; the strip takes 2 of it, so the
    board lies 6 off the block. Board 148 - 6 + 3 = 145 by 210 + 6 = 216; strip 12 + 2 x 2 = 16; covering 18 +
    145 + 8 + 16 + 8 + 145 + 18 = 358 by 216 + 36 = 252; lining 16 + 2 x 8 + 2 x 15 = 62; corners 1.75 x 2 +
    0.35 = 3.85 off."""
    cover = cover_of("case", *MEASURED)
    shell = cover.shell
    assert (shell.back, shell.front, shell.height, shell.strip, shell.joint, shell.set_back) == (
        145,
        145,
        216,
        16,
        8,
        6,
    )
    assert (shell.width, shell.wrap_height, shell.corner) == pytest.approx((358, 252, 3.85))
    sizes = {
        part.key: (part.width_mm, part.height_mm, part.count)
        for part in cover.parts
        if hasattr(part, "width_mm")
    }
    assert sizes == {
        "boards": (145, 216, 2),
        "strip": (16, 216, 1),
        "covering": (358, 252, 1),
        "endpapers": (296, 210, 2),
        "spine_lining": (62, 210, 1),
    }
    assert [round(at, 2) for at in shell.edges] == [0, 18, 163, 171, 187, 195, 340, 358]


def test_other_covers_added_up_by_hand():
    """The same block. Over the block alone the strip is 12 and the joint also goes up the board: set-back 8 -
    2 - 2 = 4, board 147. Quarter: a fifth to a quarter of 145 is 32.5; cloth 2 x 32.5 + 2 x 8 + 16 = 97;
    sides 145 - 32.5 + 3 + 18 = 133.5. Padded by 3: the covering grows by 3 at every edge, 364 x 258; padding
    10 narrower than the board; of the turn-in of 21 go 3 round the padding and 2 over the edge, so the filler
    is 145 - 16 - 1 by 216 - 2 x 17. Three-piece: gaps of 3 x 2 = 6, set-back 4, boards 200 - 4 + 3 = 199;
    bending lines 16 + 2 x 6 = 28 apart; liners 193 x 200."""
    set_back = cover_of("case", *MEASURED, ("cover.set_back_mm", 5.0)).shell
    assert (set_back.joint, set_back.front) == (7, 146), (
        "a set-back of 5 is a joint of 5 + 2, and the board 148 - 5 + 3"
    )
    over = cover_of("case", *MEASURED, ("cover.strip", "over")).shell
    assert (over.strip, over.set_back, over.front) == (12, 4, 147)
    quarter = {
        part.key: (part.width_mm, part.height_mm)
        for part in cover_of("quarter", *MEASURED).parts
        if hasattr(part, "width_mm")
    }
    assert (quarter["covering"], quarter["sides"]) == ((97, 252), (133.5, 252))
    padded = {
        part.key: (part.width_mm, part.height_mm)
        for part in cover_of("padded", *MEASURED).parts
        if hasattr(part, "width_mm")
    }
    assert (padded["covering"], padded["filler"]) == ((364, 258), (128, 182))
    three = cover_of("threepiece", *MEASURED)
    assert (three.shell.joint, three.shell.front, three.shell.strip) == (6, 199, 16)
    figures = {figure.key: figure.value for figure in three.figures}
    assert (figures["bends"], figures["liners"]) == (28, (193, 200))


def test_folded_covers_added_up_by_hand():
    """Strips round a board of 108 x 154 and 2 mm: 2 x 154 + 2 x 2 = 312 round its height. The second goes
    over two layers of 0.3125 mm: 2 x 108 + 2 x 3 = 222 round its width, the 2.6 mm of board and two cards
    being scored 3. A flap's fastener lands as far from the fore edge as it sits from the gusset."""
    sheath = cover_of("sheath")
    pieces = {one.part: one.piece.size_mm for one in sheath.laid}
    card = make_plan(book_of("sheath")).paper.cover.caliper.likely
    assert pieces["upright"] == pytest.approx((108, 312))
    assert 2.5 < 2 + 2 * card < 3
    assert pieces["level"] == pytest.approx((2 * 108 + 2 * 3, 154))
    strip = next(one.piece for one in sheath.laid if one.part == "spine_strip")
    low, high = scores(strip)
    assert sheath.spine.likely <= high - low < sheath.spine.likely + 0.5
    assert (low + high) / 2 == pytest.approx(strip.size_mm[0] / 2), (
        "half the thickness either side of the middle"
    )
    flapped = cover_of("flapped")
    assert flapped.landing.first[1] == pytest.approx(flapped.landing.second[1])


@pytest.mark.parametrize("name", HARD)
@settings(max_examples=examples(25))
@given(
    block=st.floats(2, 60),
    thick=st.floats(1, 4),
    square=st.floats(0.5, 8),
    turn=st.floats(10, 30),
    strip=st.sampled_from(["between", "over"]),
    ruler=st.sampled_from(["mm", "in"]),
)
def test_the_flat_cover_against_shapely(name, block, thick, square, turn, strip, ruler):
    """Boards and strip lie apart by the joint; the covering less its turn-ins covers them; its cut corners
    clear them; turned in they do not collide."""
    cover = cover_of(
        name,
        ("cover.measured_spine_mm", block),
        ("paper.board.thickness_mm", thick),
        ("cover.square_mm", square),
        ("cover.turn_in_mm", turn),
        ("cover.strip", strip),
        ("brief.ruler", ruler),
    )
    shell = cover.shell
    boards = sorted(
        (placed(one) for one in cover.laid if one.what == "board"), key=lambda shape: shape.bounds[0]
    )
    for one, other in itertools.pairwise(boards):
        assert one.intersection(other).area < 1e-6
        assert one.distance(other) == pytest.approx(shell.joint)
    wrap = unary_union([placed(one) for one in cover.laid if one.what in ("covering", "side")])
    assert wrap.bounds == pytest.approx((0, 0, shell.width, shell.wrap_height), abs=1e-6)
    inner = box(shell.reach, shell.reach, shell.width - shell.reach, shell.wrap_height - shell.reach)
    assert wrap.buffer(1e-6).contains(inner)
    assert unary_union(boards).difference(inner.buffer(1e-6)).area < 1e-6
    corners = box(0, 0, shell.width, shell.wrap_height).difference(wrap)
    if not corners.is_empty:
        nearest = min(corners.distance(one) for one in boards)
        assert nearest == pytest.approx(shell.corner, abs=0.05)
    # a turn-in at the head, folded over the board's edge, against the one at the fore edge, folded too
    head = wrap.intersection(box(shell.edges[5], 0, shell.edges[6], shell.reach))
    side = wrap.intersection(box(shell.edges[6], shell.reach, shell.width, shell.wrap_height - shell.reach))
    turned_head = scale(head, 1, -1, origin=(0, shell.reach))
    turned_side = scale(side, -1, 1, origin=(shell.edges[6], 0))
    lap = turned_head.intersection(turned_side)
    assert lap.area <= shell.reach * shell.reach + 1e-6, "they lap in the corner alone"
    assert sum(one.size_mm for one in shell.columns) == pytest.approx(shell.width)


@settings(max_examples=examples(60))
@given(
    thick=st.floats(2, 50),
    more=st.floats(0, 10),
    name=st.sampled_from(HARD),
    ruler=st.sampled_from(["mm", "in"]),
)
def test_a_thicker_block_never_shrinks_a_cover_and_the_spine_is_never_too_narrow(thick, more, name, ruler):
    one, other = (
        cover_of(name, ("cover.measured_spine_mm", mm), ("brief.ruler", ruler)).shell
        for mm in (thick, thick + more)
    )
    assert other.width >= one.width - 1e-6
    for shell, block in ((one, thick), (other, thick + more)):
        inside = shell.strip - (2 * shell.board if shell.between else 0)
        step = 0.5 if ruler == "mm" else MM / 16
        assert block - 1e-6 <= inside <= block + step + 1e-6


@pytest.mark.parametrize("name", LAID)
def test_the_shut_cover_goes_round_the_block_at_low_and_at_high(name):
    """At its low the strip is no wider than the block and a ruler's step and the range; at its high what is
    missing is within the joints' play."""
    plan = make_plan(book_of(name))
    if not hasattr(plan.cover, "shell"):
        return
    shell = plan.cover.shell
    inside, block = shell.strip - 2 * shell.board, shell.spine.used
    assert inside >= block.likely
    assert inside - block.low <= block.width + 0.5
    assert block.high - inside <= 2 * shell.set_back


@settings(max_examples=examples(30))
@given(st.sampled_from([one.name for one in RECIPES]), st.integers(100, 300), st.integers(120, 300))
def test_inches_and_millimetres_give_the_same_cover_but_for_their_marks(name, width, height):
    """Nothing differs by more than a step of the ruler for each width that is put on its marks."""
    size = (("brief.leaf_width_mm", float(width)), ("brief.leaf_height_mm", float(height)))
    mm, inch = (make_plan(book_of(name, *size, ("brief.ruler", ruler))) for ruler in ("mm", "in"))
    assert mm.cover.front_width_mm == pytest.approx(inch.cover.front_width_mm, abs=2 * MM / 16)
    assert mm.cover.front_height_mm == pytest.approx(inch.cover.front_height_mm, abs=2 * MM / 16)
    for one, other in zip(mm.cover.parts, inch.cover.parts, strict=True):
        if hasattr(one, "width_mm"):
            assert one.width_mm == pytest.approx(other.width_mm, abs=12 * MM / 16)
            assert one.height_mm == pytest.approx(other.height_mm, abs=12 * MM / 16)


@pytest.mark.parametrize("name", LAID)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_scores_never_drift_by_more_than_half_a_step(name, ruler):
    """What is written beside a score is its exact running position to half a mark, however many widths lie
    before it."""
    plan = make_plan(book_of(name, ("brief.ruler", ruler), ("brief.leaf_width_mm", 143.3)))
    on, step = plan.brief.ruler, plan.brief.ruler.step_mm
    for one in plan.cover.pieces:
        panels = sorted({point[0] for panel in one.piece.panels for point in panel.outline})
        for at in scores(one.piece):
            assert min(abs(at - edge) for edge in panels) < 1e-5
            assert abs(on.snap(at) - at) <= step / 2 + 1e-9
        flat, turned = scores(one.piece), scores(one.piece, mirrored=True)
        assert [one.piece.size_mm[0] - at for at in reversed(flat)] == pytest.approx(list(turned))


@pytest.mark.parametrize(("leaf", "sheet"), [("a5", "a3"), ("a6", "a4"), ("a4", "a2")])
def test_a_case_does_not_come_out_of_the_next_but_one_iso_sheet_and_says_how_much_is_missing(leaf, sheet):
    """ISO 216: two leaves and a spine are wider than the sheet that is two leaves wide, for turn-ins, joints
    and strip come on top."""
    mm = papersize.UNITS["mm"]
    width, height = (float(side) for side in papersize.parse_papersize(leaf, "mm"))
    sheet_w, sheet_h = sorted(float(side) for side in papersize.parse_papersize(sheet, "mm"))
    assert mm
    paper = Paper(
        name="Wrap",
        kind="drawing",
        sheet_width_mm=sheet_h,
        sheet_height_mm=sheet_w,
        grammage=120,
        grain="short",
    )
    book = book_of(
        "case",
        ("brief.leaf_width_mm", width),
        ("brief.leaf_height_mm", height),
        ("cover.measured_spine_mm", 12.0),
    )
    plan = make_plan(editing.apply(book, [("paper.covering", paper.model_dump(mode="json"))]))
    fits = plan.cover.shell.width <= sheet_h and plan.cover.shell.wrap_height <= sheet_w
    caught = [check for _, check in plan.checks if check.key == "E4"]
    assert bool(caught) != fits


@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_every_cover_shuts_without_paper_going_through_paper(name):
    """The programme of every kind, put together and folded: no fault, no loop that does not meet, the front
    on top at the end, nothing lost."""
    plan = make_plan(recipe(name).book())
    motion = motion_of(plan.cover, plan.pages)
    assembly, states = worked(motion)
    assert len(states) == len(motion.names)
    assert not assembly.misfits()
    assert not [fault for fault in assembly.faults if fault.kind != "caught"]
    shut = states[-1]
    front = next((key for key in shut.pile if key[1] == "front"), None)
    assert front is not None
    assert shut.pile.index(front) > shut.pile.index(("block", "body"))
    assert shut.poses[front].up != states[0].poses[front].up or "pad" in name


def test_a_joint_opens_the_farther_the_wider_it_is():
    opens = [
        cover_of("case", *MEASURED, ("cover.joint_mm", joint)).shell.opens
        for joint in (2.0, 3.0, 4.0, 5.0, 5.5, 6.0, 8.0, 12.0)
    ]
    assert opens == sorted(opens)
    assert opens[0] < 150 < opens[-1] == 180.0
    usual = [
        cover_of("case", *MEASURED, ("paper.board.thickness_mm", thick)).shell.opens
        for thick in (1.0, 1.5, 2.0, 2.5, 3.0)
    ]
    assert set(usual) == {180.0}, f"the usual joint, {JOINT_BOARDS:g} boards between 7 and 10 mm, opens flat"


def test_a_reading_replaces_the_estimate_which_stays_beside_it():
    before, after = cover_of("case"), cover_of("case", *MEASURED)
    spine = {figure.key: figure for figure in before.figures}["spine"]
    assert "it falls to 0.3 mm" in spine.how
    assert spine.value.width > 0.3
    now = {figure.key: figure for figure in after.figures}
    assert now["spine"].value.likely == 12
    assert now["spine"].value.width == pytest.approx(0.3)
    assert now["spine_estimated"].value.likely == pytest.approx(spine.value.likely)


def test_a_wedge_is_told_and_gusset_and_spine_are_explained():
    filled = make_plan(book_of("flapped", ("cover.inserts_mm", 6.0)))
    keys = {figure.key: figure for figure in filled.cover.figures}
    assert keys["fore_edge"].value.likely > keys["spine"].value.likely
    assert "differs from the spine" in keys["gusset"].how
    assert "wedge" in {check.key for check in filled.cover.checks}
    level = make_plan(book_of("flapped", ("cover.inserts_mm", 6.0), ("cover.inserts_at", "all")))
    assert "wedge" not in {check.key for check in level.cover.checks}


@pytest.mark.parametrize("kind", [one.name for one in COVERS.members if one.name != "bare"])
@settings(max_examples=examples(20))
@given(data=st.data())
def test_whatever_is_decided_of_a_cover_it_plans_and_every_fix_does_something(kind, data):
    member = COVERS.find(kind)
    book = data.draw(books).model_copy(update={"cover": data.draw(records_of(member.record))})
    held = next(
        (one.begun_on(RULERS["mm"]) for one in RECIPES if dict(one.kept).get("cover.kind") == kind), ()
    )
    book = editing.apply(book, [change for change in held if change[0] in ("binding.kind", "pages.kind")])
    plan = worked_out(book)
    assert plan.cover.key_figure.how
    for pleat, check in plan.checks:
        if pleat != "cover":
            continue
        for offer in check.offers:
            mended = editing.apply(book, offer.changes)
            assert mended != book, f"{check.key}, {offer.label}: changes nothing"
            after = [one for one in worked_out(mended).cover.checks if one == check]
            assert not after, f"{check.key}, {offer.label}: nothing is better"


def test_cloth_from_a_roll_and_paper_can_both_cover_a_case():
    paper = Paper(
        name="Pasted paper",
        kind="drawing",
        sheet_width_mm=600,
        sheet_height_mm=500,
        grammage=120,
        grain="short",
    )
    for material in (Cloth(name="Cloth", roll_width_mm=900, length_left_mm=400, thickness_mm=0.4), paper):
        plan = make_plan(
            editing.apply(recipe("case").book(), [("paper.covering", material.model_dump(mode="json"))])
        )
        assert plan.paper.stock("covering").name == material.name
        assert not [check for _, check in plan.checks if check.key == "E4"]
    empty = Cloth(name="Cloth", roll_width_mm=900, length_left_mm=0, thickness_mm=0.4)
    short = make_plan(
        editing.apply(recipe("case").book(), [("paper.covering", empty.model_dump(mode="json"))])
    )
    assert [check.key for _, check in short.checks if check.key == "E4"]
    assert isinstance(recipe("case").book().paper.board, Board)
    assert math.isclose(make_plan(recipe("case").book()).paper.stock("board").caliper.width, 0.2)
    assert issubclass(type(recipe("case").book().cover), Hard)
