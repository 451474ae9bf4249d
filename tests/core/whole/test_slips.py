"""The slips makers really make, by their letter and number: each with a book that commits it and one that does not.

Every fix that is offered is applied, and must take the slip away.
"""

import pytest

from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.bookfile import validate_book
from pleat.core.document.recipes import recipe
from pleat.core.materials.items import Paper
from pleat.core.materials.tools import Tools
from pleat.core.pleats.bench.record import Bench
from pleat.core.pleats.brief.record import Brief
from pleat.core.pleats.paper.record import Papers
from pleat.core.whole.planning import make_plan
from tests.conftest import edited

LETTER = {"sheet_width_mm": 279.4, "sheet_height_mm": 215.9}
A4_CROSS = Paper(name="Copier paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80, grain="long")
A4_ALONG = A4_CROSS.model_copy(update={"grain": "short"})
THICK = Paper(name="Card", kind="cardstock", sheet_width_mm=320, sheet_height_mm=450, grammage=250, grain="long")
BASE = Book(paper=Papers(leaf=A4_ALONG, cover=THICK))


def with_cover(**changes):
    return BASE.model_copy(update={"paper": Papers(leaf=A4_ALONG, cover=THICK.model_copy(update=changes))})


def with_leaf(paper):
    return BASE.model_copy(update={"paper": Papers(leaf=paper, cover=THICK)})


def pounds(number, grade=None, grammage=None, readings=()):
    return A4_ALONG.model_copy(
        update={"kind": "cardstock", "pounds": number, "grade": grade, "grammage": grammage, "readings_mm": readings}
    )


WIDE = A4_ALONG.model_copy(update={"sheet_width_mm": 420.0, "sheet_height_mm": 210.0, "grain": "short"})


def own(moves):
    """The base book with a stitch of the maker's own."""
    return edited(editing.apply(BASE, [("binding.kind", "own")]), {"binding.moves": moves})


def held_by(kind):
    """Ten sections held so, with the cover that goes with it."""
    cover = "wrap" if kind in ("loop", "longstitch") else "bare"
    return editing.apply(
        BASE, [("binding.kind", kind), ("pages.sections", 2 if kind == "loop" else 10), ("pages.amount", 160), ("cover.kind", cover)]
    )


def long_stitched(*keys):
    book = held_by("longstitch")
    signatures = {one.step.key: one.step.signature for one in make_plan(book).bench.work}
    return book.model_copy(update={"bench": Bench(ticks={key: signatures[key] for key in keys})})


def ticked(*keys):
    signatures = {one.step.key: one.step.signature for one in make_plan(BASE).bench.work}
    return BASE.model_copy(update={"bench": Bench(ticks={key: signatures[key] for key in keys})})


def like(name, *changes, **texts):
    """The example of a recipe, otherwise decided."""
    book = editing.apply(recipe(name).book(), changes)
    return edited(book, {path.replace("__", "."): text for path, text in texts.items()})


def bench(name, *keys):
    """The example of a recipe with steps ticked."""
    book = recipe(name).book()
    signatures = {one.step.key: one.step.signature for one in make_plan(book).bench.work}
    return book.model_copy(update={"bench": Bench(ticks={key: signatures[key] for key in keys})})


MEASURED = ("cover.measured_spine_mm", 12.0)  # the strip then is 16 and the covering 358 wide
GRAIN = ("paper.board.grain", "long")
DIRECTED = (("paper.cover.pattern", "directional"), ("paper.cover.sheet_width_mm", 320.0), ("paper.cover.sheet_height_mm", 450.0))


def hand_written(**lengths):
    """A book file with lengths as texts, ``brief.leaf_width_mm`` and so on."""
    data = BASE.model_dump(mode="json")
    for path, text in lengths.items():
        group, field = path.split("__")
        data[group][field] = text
    return validate_book(data)


# slip, the pleat that says so, a book that commits it, one that does not
SLIPS = [
    ("A1", "cover", edited(BASE, {"cover.piece_width_mm": "290"}), edited(BASE, {"cover.piece_width_mm": "306"})),
    ("A1", "cover", edited(BASE, {"cover.piece_width_mm": "320"}), BASE),
    ("A1", "cover", edited(BASE, {"cover.piece_height_mm": "212"}), edited(BASE, {"cover.piece_height_mm": "216"})),
    ("A3", "cover", edited(BASE, {"cover.score_offset_mm": "2.5"}), edited(BASE, {"cover.score_offset_mm": "1.2"})),
    ("A10", "cutting", hand_written(brief__leaf_width_mm="5 1/2 in", brief__leaf_height_mm="21.6 cm"), hand_written(brief__leaf_width_mm="5 1/2 in", brief__leaf_height_mm="8 1/2 in")),
    ("A10", "cutting", hand_written(brief__leaf_width_mm="5 1/2 in", brief__leaf_height_mm="200 mm"), hand_written(brief__leaf_width_mm="140 mm", brief__leaf_height_mm="20 cm")),
    ("A11", "pages", edited(BASE, {"pages.count": "40"}), edited(BASE, {"pages.count": "40 pages"})),
    ("B1", "cutting", with_cover(**LETTER), with_cover(sheet_width_mm=420, sheet_height_mm=297)),
    ("B1", "cutting", with_cover(sheet_width_mm=304, sheet_height_mm=300), BASE),
    ("B3", "pages", with_leaf(A4_ALONG.model_copy(update=LETTER)), edited(with_leaf(A4_ALONG.model_copy(update=LETTER)), {"brief.size": "5 1/2 x 8 1/2 in"})),
    ("B6", "cutting", edited(BASE, {"cutting.counted.cover": "4"}), edited(BASE, {"cutting.counted.cover": "2"})),
    ("B6", "cutting", edited(BASE, {"cutting.counted.leaf": "0"}), edited(BASE, {"cutting.counted.leaf": "1"})),
    ("B7", "pages", with_leaf(A4_CROSS), BASE),
    ("B7", "cutting", with_cover(sheet_width_mm=320, sheet_height_mm=230, grain="long"), with_cover(sheet_width_mm=320, sheet_height_mm=230, grain="short")),
    ("B4", "cutting", with_cover(form="offcut", owned=2, sheet_height_mm=230).model_copy(update={"brief": Brief(quantity=6)}), with_cover(form="offcut", owned=6, sheet_height_mm=230).model_copy(update={"brief": Brief(quantity=6)})),
    ("B8", "pages", with_leaf(pounds(110)), with_leaf(pounds(110, "index", 198.9))),
    ("B8", "paper", with_leaf(pounds(110, "cover", 297.5, (2.45, 2.46, 2.44))), with_leaf(pounds(110, "index", 198.9, (2.45, 2.46, 2.44)))),
    ("B9", "pages", edited(with_leaf(WIDE.model_copy(update={"sides": 1})), {"pages.flap_mm": "60"}), edited(with_leaf(WIDE), {"pages.flap_mm": "60"})),
    ("B10", "cutting", with_cover(pattern="directional", sheet_width_mm=230, sheet_height_mm=320), with_cover(pattern="directional")),
    ("B11", "pages", with_leaf(A4_ALONG.model_copy(update={"kind": "cardstock", "grammage": 250})), BASE),
    ("C1", "pages", edited(BASE, {"pages.count": "60 pages"}), edited(BASE, {"pages.count": "48 pages"})),
    ("C1", "pages", edited(with_leaf(A4_ALONG.model_copy(update={"kind": "watercolour", "grammage": 300})), {"pages.count": "20 pages"}), edited(with_leaf(A4_ALONG.model_copy(update={"kind": "watercolour", "grammage": 300})), {"pages.count": "8 pages"})),
    ("C4", "cover", edited(BASE, {"cover.square_mm": "1"}), edited(BASE, {"cover.square_mm": "3"})),
    ("C6", "pages", edited(BASE, {"pages.flap_mm": "140"}), BASE),
    ("D1", "bench", ticked("gather", "sew"), ticked("gather", "cover_on", "sew")),
    ("D2", "binding", own("2 1 2"), own("2 3 1 2")),
    ("D2", "binding", own("1 2 3"), BASE),
    ("D2", "binding", own("2 in | 2 1 3 2 =tail"), own("2 in | 2 1 2 3 =tail@2")),
    ("D1", "bench", long_stitched("gather", "sew"), long_stitched("gather", "cover_pierced", "sew")),
    ("D10", "binding", edited(held_by("loop"), {"binding.holes": "1"}), edited(held_by("loop"), {"binding.holes": "2"})),
    ("A8", "binding", like("rings", binding__jig_mm="25"), like("rings", binding__jig_mm="20")),
    ("A8", "binding", like("posts", binding__jig_mm="24"), like("posts", binding__jig_mm="22")),
    ("A11", "pages", like("rings", pages__count="40"), like("rings", pages__count="40 leaves")),
    ("A9", "pages", like("rings", pages__measured_block_mm="30"), like("rings", pages__measured_block_mm="5")),
    ("B11", "pages", like("posts", pages__count="60 leaves"), like("posts", pages__count="24 leaves")),
    ("C2", "binding", like("rings", pages__odd_amount="4", pages__odd_height_mm="100"), like("rings", pages__odd_amount="4", pages__odd_height_mm="150")),
    ("C2", "binding", like("rings", pages__odd_amount="4", pages__odd_height_mm="140", pages__odd_at="tail"), like("rings", pages__odd_amount="4", pages__odd_height_mm="140")),
    ("D5", "binding", like("rings", ("binding.positions_mm", (4.0, 206.0))), like("rings", ("binding.positions_mm", (14.0, 196.0)))),
    ("D5", "binding", like("rings", binding__inset_mm="5"), like("rings", binding__inset_mm="9")),
    ("D5", "binding", like("filing", ("binding.pattern", "iso4"), brief__size="A5"), like("filing", brief__size="A5")),
    ("D5", "binding", like("strips", binding__bars="2"), like("strips", binding__bars="2", brief__size="A3")),
    ("D5", "binding", like("planner", brief__size="A6"), like("planner", ("binding.pattern", "six-small"), brief__size="120 x 190")),
    ("D6", "binding", like("wire", binding__punch_pitch_mm="12.7"), like("wire", binding__punch_pitch_mm="1/3 in")),
    ("D6", "binding", like("coil", binding__punch_pitch_mm="8.47"), like("coil", binding__punch_pitch_mm="1/4 in")),
    ("D6", "binding", like("strips", binding__punch_pitch_mm="80"), like("strips", binding__punch_pitch_mm="70")),
    ("D6", "binding", like("filing", binding__punch_pitch_mm="108"), like("filing", binding__punch_pitch_mm="80")),
    ("D7", "binding", like("rings", binding__lifts_planned="2"), like("rings", binding__lifts_planned="5")),
    ("D7", "binding", like("posts", binding__punch_takes_mm="0.2"), like("posts", binding__punch_takes_mm="1.5")),
    ("D8", "binding", like("rings", pages__count="220 leaves"), like("rings", pages__count="120 leaves")),
    ("D8", "binding", like("rings", pages__middle_mm="60"), like("rings", pages__middle_mm="12")),
    ("D8", "binding", like("rings", binding__hole_mm="2"), like("rings", binding__hole_mm="5.5")),
    ("D8", "binding", like("wire", binding__nominal_mm="8"), like("wire", binding__nominal_mm="12.7")),
    ("D8", "binding", like("coil", binding__hole_mm="2"), like("coil", binding__hole_mm="4.5")),
    ("D8", "binding", like("posts", binding__length_mm="8"), like("posts", binding__length_mm="15")),
    ("D8", "binding", like("keyring", binding__brad_mm="5"), like("keyring", binding__brad_mm="12")),
    ("D8", "bench", bench("rings", "gather", "cut_leaves", "stack", "jig", "punch", "hang"), bench("rings", "gather", "cut_leaves", "cut_cover", "stack", "cover_hinge", "jig", "cover_punch", "punch", "hang")),
    ("D9", "binding", like("rings", ("binding.positions_mm", (40.0, 160.0)), ("binding.covers_punched", "same")), like("rings", ("binding.covers_punched", "same"))),
    ("D9", "binding", like("keyring", ("binding.covers_punched", "same")), like("keyring")),
    ("D10", "binding", like("loop", binding__elastic_cut_mm="120"), like("loop", binding__elastic_cut_mm="147")),
    ("D10", "binding", like("loop", ("binding.made", "closed"), binding__elastic_cut_mm="120"), like("loop", ("binding.made", "closed"), binding__elastic_cut_mm="88")),
    ("D10", "binding", like("keyring", ("binding.loop_eyelets", "no")), like("keyring")),
    ("D10", "binding", like("stickband", ("binding.positions_mm", (20.0, 190.0))), like("stickband")),
    ("D10", "binding", like("stickband", ("binding.positions_mm", (80.0, 130.0))), like("stickband", ("binding.positions_mm", (50.0, 160.0)))),
    ("D10", "binding", like("rings", ("paper.leaf.toughness", "weak")), like("rings", ("paper.leaf.toughness", "weak"), ("binding.reinforce", "patches"))),
    ("D11", "binding", like("sticks", binding__stick_long_mm="225"), like("sticks", binding__stick_long_mm="210")),
    ("D11", "binding", like("sticks", binding__strip_cut_mm="90"), like("sticks", binding__strip_cut_mm="140")),
    ("D11", "binding", like("stickband", binding__stick_long_mm="230"), like("stickband", binding__stick_long_mm="200")),
    ("D11", "binding", like("stickband", ("binding.positions_mm", (50.0, 160.0)), binding__stick_long_mm="120"), like("stickband", ("binding.positions_mm", (50.0, 160.0)), binding__stick_long_mm="170")),
    ("D3", "binding", edited(held_by("tapes"), {"binding.thread_cut_mm": "900"}), edited(held_by("tapes"), {"binding.thread_cut_mm": "1300"})),
    ("D5", "binding", edited(held_by("tapes"), {"binding.tapes": "6", "binding.tape_mm": "40"}), held_by("tapes")),
    ("D3", "binding", edited(BASE, {"binding.thread_cut_mm": "300"}), edited(BASE, {"binding.thread_cut_mm": "500"})),
    ("D3", "binding", edited(BASE, {"binding.thread_cut_mm": "440"}), BASE),
    ("D3", "binding", edited(BASE, {"binding.thread_cut_mm": "2000"}), BASE),
    ("D4", "cover", edited(BASE, {"binding.cover_holes_mm": "38, 105, 172"}), edited(BASE, {"binding.cover_holes_mm": "41, 108, 175"})),
    ("D4", "cover", edited(BASE, {"binding.cover_holes_mm": "41, 175"}), BASE),
    ("D5", "binding", edited(BASE, {"binding.station.0": "3"}), BASE),
    ("E2", "cover", edited(BASE, {"cover.square_mm": "0"}), BASE),
    ("E2", "cover", edited(BASE, {"cover.piece_width_mm": "312"}), BASE),
    ("E2", "cover", edited(BASE, {"cover.piece_height_mm": "208"}), BASE),
    ("A1", "cover", like("case", MEASURED, ("cover.piece_width_mm", 350.0)), like("case", MEASURED, ("cover.piece_width_mm", 358.0))),
    ("A2", "cover", like("case", ("cover.back_mm", 145.0), ("cover.front_mm", 142.0)), like("case", ("cover.back_mm", 145.0), ("cover.front_mm", 145.0))),
    ("A3", "cover", like("sheath", ("cover.score_offset_mm", 14.0)), like("sheath")),
    ("A4", "cover", like("threepiece", ("cover.border_mm", 0.0)), like("threepiece")),
    ("A4", "cover", like("coveredboards", ("cover.border_mm", 0.0)), like("coveredboards")),
    ("A5", "cover", like("threepiece", ("cover.back_mm", 199.0), ("cover.front_mm", 196.0)), like("threepiece", ("cover.back_mm", 199.0), ("cover.front_mm", 199.0))),
    ("A6", "cover", like("padcover", ("cover.fastener", "magnet")), like("padcover", ("cover.fastener", "magnet"), ("cover.flap", "yes"))),
    ("A7", "cover", like("threepiece", ("cover.liner_width_mm", 196.0)), like("threepiece", ("cover.liner_width_mm", 193.0))),
    ("A9", "cover", like("case", MEASURED, ("cover.strip_mm", 14.0)), like("case", MEASURED, ("cover.strip_mm", 16.0))),
    ("A9", "cover", like("case", MEASURED, ("pages.measured_block_mm", 5.0)), like("case", MEASURED, ("pages.measured_block_mm", 9.0))),
    ("A9", "cover", like("case", ("cover.joint_mm", 8.0), ("cover.set_back_mm", 4.0)), like("case", ("cover.joint_mm", 8.0), ("cover.set_back_mm", 6.0))),
    ("A9", "pages", like("padcover", ("pages.measured_block_mm", 20.0)), like("padcover", ("pages.measured_block_mm", 6.0))),
    ("B1", "cutting", like("case", ("paper.board.sheet_width_mm", 140.0), ("paper.board.sheet_height_mm", 400.0), GRAIN), like("case")),
    ("B7", "cutting", like("coveredboards", ("paper.board.sheet_width_mm", 250.0), ("paper.board.sheet_height_mm", 160.0), ("paper.board.grain", "short")), like("case")),
    ("B9", "cover", like("case", ("paper.lining.sides", 1)), like("case")),
    ("B9", "cover", like("pockets", ("paper.cover.sides", 1)), like("pockets")),
    ("B9", "cover", like("padcover", ("paper.cover.sides", 1)), like("padcover")),
    ("B9", "cover", like("flapped", ("paper.cover.sides", 1)), like("flapped")),
    ("B10", "cover", like("padcover", *DIRECTED, ("cover.upright", "back")), like("padcover", *DIRECTED)),
    ("C4", "cover", like("case", ("pages.sections", 2), ("cover.square_mm", 0.5)), like("case", ("pages.sections", 10))),
    ("E1", "cover", like("case", MEASURED, ("cover.piece_width_mm", 342.0)), like("case", MEASURED, ("cover.piece_width_mm", 358.0))),
    ("E1", "cover", like("case", MEASURED, ("cover.strip_mm", 12.0)), like("case", MEASURED, ("cover.strip_mm", 16.0))),
    ("E1", "cover", like("threepiece", MEASURED, ("cover.hinges_mm", 16.0)), like("threepiece", MEASURED, ("cover.hinges_mm", 28.0))),
    ("E2", "cover", like("case", ("cover.square_fore_mm", 9.0)), like("case")),
    ("E2", "cover", like("sheath", ("cover.square_mm", 0.0)), like("sheath")),
    ("E3", "cover", like("case", ("cover.turn_in_mm", 6.0)), like("case")),
    ("E3", "cover", like("case", ("cover.turn_in_mm", 90.0)), like("case", ("cover.turn_in_mm", 20.0))),
    ("E3", "cover", like("case", ("cover.corner_mm", 1.0)), like("case", ("cover.corner_mm", 4.0))),
    ("E3", "cover", like("coveredboards", ("cover.corner_mm", 12.0)), like("coveredboards")),
    ("E4", "cutting", like("case", ("paper.covering.roll_width_mm", 350.0), ("paper.covering.length_left_mm", 300.0)), like("case")),
    ("E4", "cutting", like("case", ("paper.covering.roll_width_mm", 250.0), ("paper.covering.length_left_mm", 355.0)), like("case")),
    ("E5", "cover", like("padded", ("cover.filler", "no")), like("padded")),
    ("E6", "cover", like("case", ("cover.spine_lining", "no")), like("case")),
    ("E6", "bench", bench("case", "gather", "hang_in"), bench("case", "gather", "line_spine", "hang_in")),
    ("F3", "cover", like("case", ("cover.fastener", "magnet")), like("case", ("cover.fastener", "tie"))),
    ("F3", "cover", like("flapped", ("cover.fastened_mm", 20.0)), like("flapped")),
    ("F5", "cover", like("flapped", ("cover.gusset_mm", 5.0), ("cover.inserts_mm", 4.0)), like("flapped", ("cover.inserts_mm", 4.0), ("cover.gusset_mm", 9.0))),
    ("F8", "cover", like("flapped", ("cover.gusset_mm", 2.0)), like("flapped", ("cover.gusset_mm", 5.0))),
    ("F8", "cover", like("padcover", ("cover.gusset_mm", 3.0)), like("padcover", ("cover.gusset_mm", 8.0))),
    ("F9", "cover", like("pockets", ("cover.flaps_mm", 105.0)), like("pockets")),
]  # fmt: skip


def found(book, slip):
    return [(pleat, check) for pleat, check in make_plan(book).checks if check.key == slip]


@pytest.mark.parametrize(("slip", "pleat", "wrong", "right"), SLIPS, ids=[f"{row[0]}-{n}" for n, row in enumerate(SLIPS)])
def test_the_slip_is_caught_and_its_fixes_mend_it(slip, pleat, wrong, right):
    caught = found(wrong, slip)
    assert [where for where, _ in caught] == [pleat]
    check = caught[0][1]
    assert any(character.isdigit() for character in check.title + check.why) or slip == "B7" or pleat == "bench", (
        "a check gives its numbers"
    )
    assert not found(right, slip)
    for fix in check.offers:
        mended = editing.apply(wrong, fix.changes)
        left = found(mended, slip)
        assert not left or left[0][1].level == "note", f"{fix.label} leaves {left}"


@pytest.mark.parametrize(
    ("slip", "level"),
    [("A1", "stop"), ("B1", "stop"), ("B3", "stop"), ("C1", "watch"), ("D1", "stop"), ("D2", "stop"), ("D4", "stop"), ("A11", "note")],
)
def test_how_loud_each_slip_is(slip, level):
    wrong = next(row[2] for row in SLIPS if row[0] == slip)
    assert found(wrong, slip)[0][1].level == level


def test_b1_takes_off_exactly_the_excess_and_keeps_every_relation():
    book = with_cover(**LETTER)
    check = found(book, "B1")[0][1]
    assert "0.1 mm too wide and 26.5 mm too long" in check.title  # 216 on 215.9, 306 on 279.4, to the half millimetre
    plan = make_plan(editing.apply(book, check.offers[0].changes))
    assert plan.cover.wrap.width_mm <= 279.4 + 0.05
    assert plan.cover.wrap.width_mm > 279.4 - 1.1, "not more than the excess and the ruler's mark"
    assert plan.cover.wrap.panels[0].width_mm == plan.cover.wrap.panels[-1].width_mm


def test_a10_offers_the_length_that_was_probably_rounded():
    check = found(SLIPS[4][2], "A10")[0][1]
    assert check.offers[0].label == "21.6 cm was 8 1/2 in"
    assert dict(check.offers[0].changes)["brief.leaf_height_mm"] == pytest.approx(215.9)


def test_changed_figures_are_pointed_out_on_a_ticked_step():
    book = edited(ticked("gather", "try"), {"brief.leaf_width_mm": "140"})
    keys = [check.key for _, check in make_plan(book).checks]
    assert "changed_try" in keys
    assert not [key for key in keys if key == "changed_gather"]
    assert not [check for _, check in make_plan(edited(ticked("try"), {"brief.ruler": "in"})).checks if check.key.startswith("changed")]


def test_other_checks_that_are_not_slips_of_the_table():
    keys = {
        check.key
        for _, check in make_plan(
            edited(
                with_cover(owned=0),
                {"pages.flap_mm": "100", "cover.creases": "one", "pages.measured_block_mm": "6"},
            )
        ).checks
    }
    assert {"owned", "flap_room", "crease"} <= keys
    tools = Tools(trimmer_longest_mm=200, trimmer_thickest_mm=0.2, scoring_longest_mm=250)
    assert {"scoring", "trimmer_cover"} <= {check.key for _, check in make_plan(BASE, tools).checks}
    handy = make_plan(BASE, Tools(trimmer_longest_mm=400, scoring_longest_mm=400))
    assert not {"scoring", "trimmer_cover"} & {check.key for _, check in handy.checks}
    used = {one.step.key: one.step.tools for one in handy.bench.work}
    assert (used["cut_cover"], used["cover_scored"][0]) == (("trimmer",), "scoring board")
    named = with_leaf(A4_ALONG.model_copy(update={"name": "Printer paper", "grammage": None, "kind": "other", "grain_sure": "guess"}))
    painted = edited(named, {"brief.purpose": "painting"})
    assert {"unknown_leaf", "grain_leaf", "painted"} <= {check.key for _, check in make_plan(painted).checks}
    assert make_plan(named).paper.leaf.caliper.high < 0.15, "what it is called says that much"
    odd = with_leaf(A4_ALONG.model_copy(update={"kind": "copier", "readings_mm": (1.0, 5.0), "pounds": 20.0, "grammage": None}))
    assert {"readings_leaf", "grade_leaf"} <= {check.key for _, check in make_plan(odd).checks}
    light = with_leaf(A4_ALONG.model_copy(update={"readings_mm": (2.0, 2.0, 2.0)}))
    assert "weight_leaf" in {check.key for _, check in make_plan(light).checks}
    unknown = Book(paper=Papers(leaf=A4_ALONG.model_copy(update={"grammage": None, "grain": "unknown"}), cover=THICK))
    assert {"unknown_leaf", "grain_leaf"} <= {check.key for _, check in make_plan(unknown).checks}
