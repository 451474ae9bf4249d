"""Folding programmes of several pieces: what is carried along, what lies where, and laws that any of them
keeps."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon as Shape
from shapely.ops import unary_union

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.assembly import Assembly
from pleat.core.engines.folding.carried import carried
from pleat.core.engines.folding.convex import bounds
from pleat.core.engines.folding.pile import cells, faces, gussets, thick, thickest
from pleat.core.engines.folding.sheet import Cut, Span, board, piece, rounded, scores
from tests.profiles import examples

CARD = {"card": Estimate.ranged(0.28, 0.3, 0.34, "the card")}


def strip(name, *widths, height=200.0, **more):
    return piece(
        name, "card", [Span(chr(97 + n), width) for n, width in enumerate(widths)], [Span("", height)], **more
    )


def cross(middle=(100.0, 140.0), sides=(60.0, 60.0), ends=(80.0, 50.0)):
    """A sheet with a flap at each side, its corners cut away."""
    columns = [Span("left", sides[0]), Span("", middle[0]), Span("right", sides[1])]
    rows = [Span("top", ends[0]), Span("", middle[1]), Span("bottom", ends[1])]
    return piece("cross", "card", columns, rows)


@st.composite
def folded_strips(draw):
    """A strip folded at random, with cards glued on it here and there before and after."""
    widths = draw(st.lists(st.integers(20, 120), min_size=2, max_size=6))
    assembly = Assembly()
    assembly.add(strip("strip", *widths), draw(st.sampled_from([chr(97 + n) for n in range(len(widths))])))
    for number in range(draw(st.integers(0, 3))):
        host = draw(st.integers(0, len(widths) - 1))
        side = draw(st.sampled_from(["A", "B"]))
        assembly.add(
            board(f"card {number}", "card", draw(st.integers(5, widths[host])), draw(st.integers(5, 100)))
        )
        assembly.lay(
            (f"card {number}", "body"),
            ("strip", chr(97 + host)),
            (sum(widths[:host]), draw(st.integers(0, 100))),
            side=side,
        )
    for number in range(len(widths) - 1):
        angle = draw(st.sampled_from([0.0, 180.0, -180.0, 90.0]))
        if angle:
            assembly.fold("strip", (chr(97 + number), chr(98 + number), angle))
    return assembly


@settings(max_examples=examples(300))
@given(folded_strips())
def test_nothing_is_lost_doubled_or_torn_whatever_is_folded(assembly):
    """Every panel keeps its area and its neighbours; each one that lies flat is one layer; what is glued
    stays on its host."""
    state = assembly.mark("now")
    assert not assembly.misfits()
    assert len(set(state.pile)) == len(state.pile)
    level = [key for key in state.poses if state.poses[key].level]
    assert set(state.pile) == set(level)
    for key in level:
        own = Shape(assembly.pieces[key[0]][key[1]].outline)
        assert Shape(state.shadow(key, assembly.pieces)).area == pytest.approx(own.area)
    for join in assembly.joins:
        if join.laid in level and join.host in level:
            laid, host = (Shape(state.shadow(key, assembly.pieces)) for key in (join.laid, join.host))
            assert laid.difference(host.buffer(1e-6)).area < 1e-3
            above = state.pile.index(join.laid) > state.pile.index(join.host)
            assert above == ((join.side == "A") == state.poses[join.host].up)


def test_what_stood_upright_comes_down_in_its_own_order():
    """A strip rolled up by right angles: one panel comes down while the next one stands; neither turns the
    other's layers round."""
    assembly = Assembly()
    assembly.add(strip("strip", 20, 20, 20, 20), "d")
    assembly.add(board("card", "card", 5, 5))
    assembly.lay(("card", "body"), ("strip", "b"), (20, 0))
    for one, other in ("ab", "bc", "cd"):
        assembly.fold("strip", (one, other, 90.0))
    assert [key[1] for key in assembly.mark("rolled").pile] == ["d", "body", "b"]


@settings(max_examples=examples(100))
@given(folded_strips())
def test_what_shows_is_what_the_table_shows_from_either_side(assembly):
    state = assembly.mark("now")
    if not state.pile:
        return
    table = unary_union([Shape(state.shadow(key, assembly.pieces)) for key in state.pile])
    for above in (True, False):
        shown = faces(assembly, state, above=above)
        assert sum(face.area_mm2 for face in shown) == pytest.approx(table.area, rel=2e-3, abs=1.0)
        assert all(0 < face.share <= 1 + 1e-9 for face in shown)
        assert {face.turn for face in shown} <= {0.0, 180.0}
    volume = sum(
        Shape(cell.outline).area * thick(assembly, cell.layers, CARD).likely
        for cell in cells(assembly, state)
    )
    sheets = sum(Shape(state.shadow(key, assembly.pieces)).area for key in state.pile)
    assert volume == pytest.approx(0.3 * sheets)


@given(st.integers(2, 9), st.floats(0.1, 1.0), st.floats(0.0, 0.5))
def test_sheets_of_one_stock_share_their_doubt(count, sheet, more):
    """The error of one paper is the same in every layer: it adds up straight; a thicker paper never makes
    less."""
    assembly = Assembly()
    assembly.add(board("b0", "card", 50, 50))
    for number in range(1, count):
        assembly.add(board(f"b{number}", "card", 50, 50))
        assembly.lay((f"b{number}", "body"), (f"b{number - 1}", "body"), (0, 0))
    state = assembly.mark("stack")
    one = thickest(assembly, state, {"card": Estimate.ranged(sheet * 0.9, sheet, sheet * 1.2, "card")})
    assert (one.likely, one.low, one.high) == pytest.approx(
        (count * sheet, count * sheet * 0.9, count * sheet * 1.2)
    )
    assert thickest(assembly, state, {"card": Estimate.exact(sheet + more)}).likely >= one.likely - 1e-9
    assert [key for key, _ in state.pile] == [f"b{number}" for number in range(count)]


@pytest.mark.parametrize("order", ["left right top bottom", "top bottom left right", "bottom left top right"])
def test_flaps_lie_in_the_order_they_were_closed(order):
    assembly = Assembly()
    assembly.add(cross(), "body")
    for flap in order.split():
        assembly.fold("cross", (flap, "body", 180.0))
    state = assembly.mark("shut")
    assert [name for _, name in state.pile] == ["body", *order.split()]
    assert not assembly.faults
    top = faces(assembly, state)[0]
    assert (top.key[1], top.side, top.share) == (order.split()[-1], "B", 1.0)


def test_an_inner_gusset_is_told_with_the_room_it_keeps_open():
    """A flap over a flap: the later one's gusset has to be wider than that of the one it encloses."""
    assembly = Assembly()
    columns = [
        Span("inner", 60),
        Span("inner wall", 10),
        Span("", 100),
        Span("outer wall", 16),
        Span("outer", 70),
    ]
    assembly.add(piece("folio", "card", columns, [Span("", 140)]), "body")
    assembly.fold("folio", ("inner", "inner wall", 90.0), ("inner wall", "body", 90.0))
    assembly.fold("folio", ("body", "outer wall", 90.0), ("outer wall", "outer", 90.0))
    state = assembly.mark("shut")
    found = {one.wall[1]: one for one in gussets(assembly, state, CARD)}
    assert found["outer wall"].inner == ((("folio", "inner wall"), 10.0),)
    assert found["outer wall"].has_mm == pytest.approx(16)
    assert found["outer wall"].stiff.likely == pytest.approx(0.3), "the inner flap lies between"
    assert found["inner wall"].inner == ()


@given(st.floats(5, 95), st.floats(5, 195), st.floats(2, 30))
def test_the_other_half_of_a_fastener_is_carried_through_the_gusset(x, y, gusset):
    """A point of the flap lands on the front at the same distance from the fore edge; what is carried back is
    where it was."""
    assembly = Assembly()
    assembly.add(strip("wrap", 100, gusset, 150), "c")
    assembly.fold("wrap", ("a", "b", 90.0), ("b", "c", 90.0))
    state = assembly.mark("shut")
    found = carried(assembly, state, ("wrap", "a"), (x, y), ("wrap", "c"))
    assert found == pytest.approx((100 + gusset + (100 - x), y))
    back = carried(assembly, state, ("wrap", "c"), found, ("wrap", "a"))
    assert back == pytest.approx((x, y))
    assert carried(assembly, state, ("wrap", "c"), (100 + gusset + 140, y), ("wrap", "a")) is None


def test_an_offcut_is_what_fell_off_and_a_panel_cut_away_is_gone():
    sheet = strip("strip", 60, 40, cuts=[Cut((70, 0), (70, 200), (100, 0))])
    assert [panel.name for panel in sheet.panels] == ["a", "b"]
    assert sheet.area_mm2 == pytest.approx(70 * 200)
    assert sum(Shape(one).area for one in sheet.offcuts) == pytest.approx(30 * 200)
    gone = strip("strip", 60, 40, cuts=[Cut((60, 0), (60, 200), (100, 0))])
    assert ([panel.name for panel in gone.panels], gone.creases) == (["a"], ())
    half = strip("strip", 60, 40, cuts=[Cut((0, 100), (100, 100), (0, 0))])
    assert scores(half) == (60.0,)
    assert bounds((half.creases[0].start, half.creases[0].end)) == pytest.approx((60, 100, 60, 200))


@given(st.floats(0.5, 20), st.sampled_from([("left",), ("right",), ("left", "right")]))
def test_a_rounded_board_stays_within_a_tenth_of_the_arc(radius, sides):
    sheet = rounded(board("board", "board", 120, 180), radius, sides)
    shape = Shape(sheet.panels[0].outline)
    square = 120 * 180
    corners = 2 * len(sides)
    assert shape.bounds == pytest.approx((0, 0, 120, 180))
    assert square - shape.area == pytest.approx(
        corners * (1 - 3.141592653589793 / 4) * radius**2, rel=0.06, abs=0.2
    )
    assert rounded(board("board", "board", 120, 180), 0.0, sides) == board("board", "board", 120, 180)


@pytest.mark.parametrize(
    ("wrong", "words"),
    [
        (lambda: Span("narrow", -1.0), "narrower than nothing"),
        (lambda: piece("p", "card", [Span("a", 10), Span("a", 10)], [Span("", 10)]), "one name"),
        (lambda: strip("s", 10, 20)["z"], "no panel"),
        (lambda: strip("s", 10, 20, 30).crease("a", "c"), "no fold"),
    ],
)
def test_nonsense_is_refused(wrong, words):
    with pytest.raises((ValueError, KeyError), match=words):
        wrong()


def test_a_name_is_taken_once_and_a_joined_piece_is_not_moved():
    assembly = Assembly()
    assembly.add(strip("wrap", 50, 50))
    with pytest.raises(ValueError, match="already"):
        assembly.add(strip("wrap", 10))
    with pytest.raises(ValueError, match="in place"):
        assembly.lay(("wrap", "b"), ("wrap", "a"), (0, 0))
