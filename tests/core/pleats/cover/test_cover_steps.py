"""The order of gluing, the cautions where the work is, and what a reading of the block saves."""

import itertools

import pytest

from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES, recipe
from pleat.core.pleats.bench.order import waits_for
from pleat.core.pleats.cover import fasteners
from pleat.core.pleats.cover.kinds import COVERS
from pleat.core.pleats.cover.suiting import GROUP, in_words
from pleat.core.whole.planning import make_plan
from pleat.services.books import tick
from tests.core.pleats.cover.test_covers import HARD, book_of

GLUED = ("case", "quarter", "padded", "threepiece", "coveredboards")


def before(name, *changes):
    """For each step of a book, every step that has to come before it, at whatever remove."""
    steps = [one.step for one in make_plan(book_of(name, *changes)).bench.work]
    direct = waits_for(steps)
    found = {}
    for step in steps:
        reached, todo = set(), list(direct[step.key])
        while todo:
            key = todo.pop()
            if key not in reached:
                reached.add(key)
                todo += direct[key]
        found[step.key] = reached
    return found


@pytest.mark.parametrize("name", HARD)
def test_what_is_marked_lies_on_a_piece_that_is_cut(name):
    """Marks are measured from the edge of a piece the maker has in hand, or of pieces joined to one."""
    plan = make_plan(book_of(name))
    steps = {one.step.key: one.step for one in plan.bench.work}
    if "mark_covering" not in steps:
        return
    scene = steps["mark_covering"].scene
    cut = [part.width_mm for part in plan.cover.parts if part.key.startswith("covering")]
    joined = [piece.piece.size_mm[0] for piece in plan.cover.pieces if piece.part.startswith("covering")]
    wide = scene.lying[0].width
    assert any(wide == pytest.approx(one) for one in cut) or wide < sum(joined)
    assert all(0 < number.mm < wide for number in scene.numbers if number.side == "top")


def test_the_spines_covering_of_a_quarter_case_is_marked_by_itself():
    """By hand: 8.5 mm of block and two boards of 2 are a strip of 13; joints of 8, and 32.5 on to either
    board: 94 wide, with marks at 32.5, 40.5, 53.5 and 61.5."""
    texts = {"brief.size": "A5", "pages.count": "96 pages", "pages.sections": "6"}
    plan = make_plan(editing.edit(recipe("quarter").book(), texts))
    (step,) = (one.step for one in plan.bench.work if one.step.key == "mark_covering")
    assert "front board first: 32.5, 40.5, 53.5, 61.5 mm; from the head 18 and 234" in step.detail
    assert step.scene.lying[0].width == 94


@pytest.mark.parametrize("name", GLUED)
def test_boards_are_glued_cornered_turned_in_and_dried_in_that_order(name):
    order = before(name)
    chain = ["cut_board", "glue_boards", "cut_corners", "turn_in", "dry_cover"]
    for first, then in itertools.pairwise(chain):
        assert first in order[then], f"{first} before {then}"


@pytest.mark.parametrize("name", HARD)
def test_a_block_is_hung_in_when_it_is_sewn_and_the_cover_is_lined_and_dry(name):
    order = before(name, ("cover.ribbon", "yes"), ("cover.head_bands", "yes"))
    assert {"line_spine", "dry_cover", "sew", "ribbon", "head_bands"} <= order["hang_in"]
    assert "hang_in" in order["dry_book"]
    assert {"sew", "press_block", "measure_sewn"} <= order["cut_board"], (
        "the sewn, pressed block is measured before a board is cut"
    )
    keys = set(before(name))
    assert not {"ribbon", "head_bands", "round_corners"} & keys, "nothing that was not asked for"
    assert "round_corners" in before(name, ("cover.rounded_mm", 8.0))


def test_fasteners_that_are_hidden_go_in_before_what_hides_them():
    for fastener in ("tie", "elastic"):
        order = before("case", ("cover.fastener", fastener))
        assert "fastener_first" in order["glue_boards"]
        assert {"fastener_first", "dry_book"} <= order["fastener_second"]
    order = before("case", ("cover.fastener", "button"))
    assert "dry_book" in order["fastener_first"]
    book = book_of("case", ("cover.fastener", "tie"))
    for key in ("gather", "glue_boards"):
        book = tick(book, make_plan(book), key, True)
    (slip,) = [check for _, check in make_plan(book).checks if check.key == "F3"]
    assert "tie" in slip.title


def test_the_caution_stands_at_the_step_in_plain_words():
    said = {
        "knife": ("cut_corners", "case"),
        "window": ("glue_boards", "case"),
        "fingers clear": ("dry_cover", "case"),
        "iron": ("iron", "padded"),
        "magnets": ("fastener_first", "flapped"),
    }
    for word, (key, name) in said.items():
        plan = make_plan(book_of(name, *((("cover.ironed", "yes"),) if name == "padded" else ())))
        step = next(one.step for one in plan.bench.work if one.step.key == key)
        assert any(word in caution.lower() for caution in step.cautions), (key, step.cautions)
    assert "emergency" in fasteners.MAGNETS


@pytest.mark.parametrize("fastener", [key for key, _ in fasteners.FASTENERS if key != "none"])
def test_every_fastener_is_taken_from_stock_and_has_both_halves(fastener):
    plan = make_plan(book_of("flapped", ("cover.fastener", fastener)))
    keys = [one.step.key for one in plan.bench.work]
    assert keys.index("fastener_first") < keys.index("fastener_second")
    assert [part for part in plan.cover.parts if not hasattr(part, "width_mm")]
    none = make_plan(book_of("flapped", ("cover.fastener", "none")))
    assert not [one for one in none.bench.work if "fastener" in one.step.key]
    assert not [part for part in none.cover.parts if not hasattr(part, "width_mm")]


def test_an_elastic_is_cut_shorter_than_its_way():
    """Common practice: 85 to 90 % of the way, and the knots. A board of 216 in a book 20 thick:
    0.875 x (216 + 40 + 30) + 60."""
    (elastic, eyelets) = fasteners.pieces("elastic", 216, 20, 150, 3)
    assert elastic.length_mm == pytest.approx(0.875 * 286 + 60)
    assert (elastic.count, eyelets.count) == (3, 6)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", [one.name for one in RECIPES])
def test_covers_that_go_with_the_binding_are_offered_and_others_bring_one_along(name):
    book = recipe(name).book()
    plan = make_plan(book)
    ways = [offer for offer in plan.cover.offers if offer.group == GROUP]
    assert sum(offer.chosen for offer in ways) == 1
    assert len({offer.label for offer in ways}) == len(ways)
    for offer in ways:
        taken = make_plan(editing.apply(book, offer.changes))
        assert not [check for check in taken.cover.checks if check.key == "unfit"], offer.label
        assert offer.good == ("binding.kind" not in dict(offer.changes))
    words = in_words(tuple(ways))
    assert plan.brief.made_of.cover.title in words


def test_the_wrong_cover_is_refused_with_the_reason_and_the_ways_out():
    for name, wrong in (
        ("journal", "case"),
        ("case", "wrap"),
        ("link", "sheath"),
        ("padcover", "case"),
        ("tapes", "boards"),
    ):
        plan = make_plan(editing.apply(recipe(name).book(), [("cover.kind", wrong)]))
        unfit = [check for check in plan.cover.checks if check.key == "unfit"]
        fits = plan.binding.at in COVERS.find(wrong).takes
        assert bool(unfit) != fits
        if unfit:
            assert unfit[0].level == "stop"
            assert "does not go with" in unfit[0].title
            assert unfit[0].offers


@pytest.mark.parametrize("name", HARD)
def test_what_is_too_long_for_the_cloth_has_its_ways_out_with_what_each_costs(name):
    short = ("paper.covering.roll_width_mm", 352.0), ("paper.covering.length_left_mm", 300.0)
    if name == "threepiece":
        return  # its wrap is of paper
    plan = make_plan(book_of(name, *short))
    caught = [check for _, check in plan.checks if check.key == "E4"]
    if name == "quarter":
        assert not caught, "the spine covering is narrow"
        return
    assert caught[0].offers
    assert any("less" in offer.label or "off both boards" in offer.label for offer in caught[0].offers)
    for offer in caught[0].offers:
        mended = make_plan(editing.apply(book_of(name, *short), offer.changes))
        assert not [check for _, check in mended.checks if check.key == "E4"], offer.label
        assert mended.cover.shell.front == mended.cover.shell.back, "all relations kept"


def test_boards_that_are_cut_already_are_not_made_smaller_by_a_fix():
    """A narrower square would not change what is cut; a shorter turn-in or a seam still does."""
    short = ("paper.covering.roll_width_mm", 352.0), ("paper.covering.length_left_mm", 300.0)
    plan = make_plan(book_of("case", *short, ("cover.back_mm", 145.0), ("cover.front_mm", 145.0)))
    (caught,) = [check for _, check in plan.checks if check.key == "E4"]
    assert all("cover.square_mm" not in dict(offer.changes) for offer in caught.offers)
    tall = make_plan(
        book_of("case", ("paper.board.sheet_width_mm", 144.0), ("paper.board.sheet_height_mm", 600.0))
    )
    (board,) = [check for _, check in tall.checks if check.key == "B1"]
    mended = make_plan(
        editing.apply(book_of("case", ("paper.board.sheet_width_mm", 144.0)), board.offers[0].changes)
    )
    assert mended.cover.shell.front <= 144.0
    assert mended.cover.shell.height == pytest.approx(210 + 2 * mended.cover.shell.square)


def test_a_joined_covering_is_two_halves_that_lap_on_the_strip():
    """Half of 358.5 and half a seam of 15: 186.75; both together less the lap are the whole."""
    one, two = (make_plan(book_of("case", ("cover.seam", seam))) for seam in ("one", "joined"))
    (whole,) = [part for part in one.cover.parts if part.key == "covering"]
    (half,) = [part for part in two.cover.parts if part.key == "covering"]
    assert (half.count, half.width_mm) == (2, pytest.approx(whole.width_mm / 2 + 7.5))
    left, right = [laid for laid in two.cover.laid if laid.what == "covering"]
    lap = left.x_mm + left.piece.size_mm[0] - right.x_mm
    assert lap == pytest.approx(15.0)
    shell = two.cover.shell
    assert right.x_mm + lap / 2 == pytest.approx(shell.edges[3] + shell.strip / 2), (
        "in the middle of the spine"
    )


def test_a_covering_joined_at_the_joint_laps_on_the_front_board():
    """Back, spine and both joints in one piece with 15 mm more; the front by itself: together the whole and
    the lap."""
    whole, two = (make_plan(book_of("case", ("cover.seam", seam))) for seam in ("one", "joint"))
    sizes = [part.width_mm for part in two.cover.parts if part.stock == "covering"]
    (one,) = [part.width_mm for part in whole.cover.parts if part.stock == "covering"]
    assert sum(sizes) == pytest.approx(one + 15.0)
    back, front = [laid for laid in two.cover.laid if laid.what == "covering"]
    shell = two.cover.shell
    assert front.x_mm == pytest.approx(shell.edges[5])
    assert back.piece.size_mm[0] == pytest.approx(shell.edges[5] + 15.0)
    assert not [check for check in two.cover.checks if check.key == "seam"]
    assert {cut.part.key for cut in two.cutting.cuts if cut.stock.key == "covering"} == {
        "covering",
        "covering_front",
    }


def test_bare_and_cross_grained_boards_are_told_to_warp():
    bare = make_plan(book_of("case", ("cover.ends", "bare")))
    (warp,) = [check for check in bare.cover.checks if check.key == "warp"]
    lined = make_plan(editing.apply(book_of("case", ("cover.ends", "bare")), warp.offers[0].changes))
    assert not [check for check in lined.cover.checks if check.key == "warp"]
    small = (
        ("paper.board.sheet_width_mm", 230.0),
        ("paper.board.sheet_height_mm", 160.0),
        ("paper.board.grain", "short"),
    )
    crossed = make_plan(book_of("case", *small))
    (warp,) = [check for check in crossed.cover.checks if check.key == "warp"]
    assert "cross" in warp.title
    assert warp.no_fix
