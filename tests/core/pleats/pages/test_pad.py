"""A bought pad: its thickness from its sheets or from a reading, what holds it, and the cover that goes round
its head."""

import pytest

from pleat.core.document import editing
from pleat.core.document.recipes import recipe
from pleat.core.engines.folding.sheet import scores
from pleat.core.pleats.binding.kinds import BINDINGS
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.trade.pages import BACKING_MM
from pleat.core.whole.planning import make_plan
from tests.conftest import edited


def pad(*changes, **texts):
    book = editing.apply(recipe("padcover").book(), changes)
    return make_plan(edited(book, {path.replace("__", "."): text for path, text in texts.items()}))


def figures(result):
    return {figure.key: figure for figure in result.figures}


def test_a_pad_is_as_thick_as_its_sheets_and_its_board():
    """50 sheets of 80 g/m2 copier paper at bulk 1.3 are 0.104 mm each: 5.2 mm, and a backing board of 0.8."""
    plan = pad()
    assert plan.pages.thickness.likely == pytest.approx(50 * 0.104 + BACKING_MM[1])
    assert (plan.pages.leaves, plan.pages.pages) == (50, 100)
    assert "measure it" in figures(plan.pages)["thickness"].how
    assert not plan.pages.measured


@pytest.mark.parametrize(
    ("typed", "leaves"), [("50 leaves", 50), ("100 pages", 50), ("99 pages", 50), ("1", 1)]
)
def test_leaves_and_pages_are_not_taken_for_each_other(typed, leaves):
    assert pad(pages__count=typed).pages.leaves == leaves


def test_a_reading_replaces_the_estimate():
    plan = pad(("pages.measured_block_mm", 6.4))
    assert plan.pages.measured
    assert plan.pages.thickness.likely == 6.4
    assert plan.pages.thickness.width == pytest.approx(0.3)
    assert "estimated at" in figures(plan.pages)["thickness"].how


def test_the_cover_goes_round_the_head_and_its_gusset_holds_pad_and_pocket():
    """A6 with 3 mm of square: panels 151 high, 111 wide and two tabs of 12; the head takes the pad and the
    pocket's layer, to the next mark."""
    plan = pad(("pages.measured_block_mm", 6.0))
    card = plan.paper.cover.caliper.likely
    (laid,) = plan.cover.laid
    width, height = laid.piece.size_mm
    assert width == pytest.approx(105 + 6 + 24)
    assert height == pytest.approx(151 + 6.5 + 151 + 50.5)
    assert scores(laid.piece, upright=False) == pytest.approx((151, 157.5, 308.5))
    assert figures(plan.cover)["spine"].value.likely == pytest.approx(6.0 + card)
    flap = pad(("pages.measured_block_mm", 6.0), ("cover.flap", "yes")).cover.laid[0].piece
    tail = flap["tail"].outline
    assert max(y for _, y in tail) - min(y for _, y in tail) == pytest.approx(7.0), (
        "pad, pocket and both covers, to the next mark"
    )


def test_nothing_is_cut_folded_or_sewn_for_the_pad_itself():
    plan = pad()
    assert not plan.pages.parts
    assert not plan.binding.positions_mm
    assert [one.step.key for one in plan.bench.work] == [
        "gather",
        "measure",
        "cut_cover",
        "cover_scored",
        "pocket",
        "dry_cover",
        "book",
        "check",
    ]
    assert {cut.part.key for cut in plan.cutting.cuts} == {"cover"}
    assert plan.cutting.sheets == {"cover": 1}


@pytest.mark.parametrize(("grain", "turned"), [("short", True), ("long", False)])
def test_its_cover_wants_the_grain_along_its_folds_which_run_across(grain, turned):
    """Folds at the head run along the width: so must the grain, and the piece lies on the sheet as that
    asks."""
    plan = pad(
        ("paper.cover.grain", grain),
        ("paper.cover.sheet_width_mm", 450.0),
        ("paper.cover.sheet_height_mm", 400.0),
    )
    (cut,) = plan.cutting.cuts
    assert (cut.better.with_grain, cut.better.turned) == (True, turned)
    assert cut.grain_words == "grain along the width"
    across = pad(
        ("paper.cover.grain", "long"),
        ("paper.cover.sheet_width_mm", 400.0),
        ("paper.cover.sheet_height_mm", 140.0),
    )
    (told,) = [check for check in across.cutting.checks if check.key == "B7"]
    assert "across the folds" in told.title


@pytest.mark.parametrize("kind", [one.name for one in BINDINGS.members])
def test_only_its_own_glue_holds_a_pad(kind):
    plan = make_plan(editing.apply(recipe("padcover").book(), [("binding.kind", kind)]))
    unfit = [check for check in plan.binding.checks if check.key == "unfit"]
    assert bool(unfit) == ("pad" not in BINDINGS.find(kind).takes)
    if unfit:
        assert "a bought pad" in unfit[0].title
        assert [offer.label for offer in unfit[0].offers] == ["take as it was bought"]


@pytest.mark.parametrize("kind", [one.name for one in COVERS.members])
def test_only_its_own_cover_goes_round_a_pad(kind):
    plan = make_plan(editing.apply(recipe("padcover").book(), [("cover.kind", kind)]))
    unfit = [check for check in plan.cover.checks if check.key == "unfit"]
    assert bool(unfit) == ("bought" not in COVERS.find(kind).takes)


def test_a_section_becomes_a_pad_and_back_and_loses_nothing():
    book = edited(recipe("journal").book(), {"pages.count": "24 pages", "pages.creep": "trim"})
    as_pad = editing.apply(book, recipe("padcover").made)
    back = editing.apply(as_pad, recipe("journal").made)
    assert back.pages == book.pages
    assert back.binding == book.binding
    assert back.cover == book.cover


def test_a_fastener_of_the_pad_is_put_on_where_its_halves_meet():
    """Without a measured pad the flap is 0.3 x 151 = 45.5 high; 12 from its free edge is 33.5 from its fold,
    and so 33.5 from the back's tail. The cover is 111 wide: 55.5 from either side. Elastic runs along the
    spine, which is the head: 0.88 x (111 + 2 x thickness + 30) + 2 x 30."""
    cover = pad(("cover.fastener", "dot"), ("cover.flap", "yes")).cover
    assert cover.landing.first == ("flap", pytest.approx(55.5), pytest.approx(12))
    assert cover.landing.second == ("back", pytest.approx(55.5), pytest.approx(33.5))
    assert cover.halves == (
        pytest.approx((12 + 55.5, 12)),
        pytest.approx((12 + 55.5, cover.laid[0].piece.size_mm[1] - 50.5 - 33.5)),
    )
    bound = pad(("cover.fastener", "elastic"))
    keys = [one.step.key for one in bound.bench.work]
    assert keys.index("fastener_first") < keys.index("pocket"), "its knot lies in the pocket"
    assert keys.index("book") < keys.index("fastener_second"), (
        "without the pad it would land by the pad's thickness beside"
    )
    (elastic,) = (one for one in bound.cover.parts if one.key == "elastic")
    assert elastic.length_mm == pytest.approx(0.875 * (111 + 2 * bound.cover.spine.likely + 30) + 60)
