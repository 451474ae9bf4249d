"""The folding kernel against independent models: shapely for shapes, a number line for places, and laws that
paper keeps."""

from itertools import accumulate, pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon as Shape
from shapely.affinity import affine_transform
from shapely.ops import unary_union

from pleat.core.base.estimate import Estimate
from pleat.core.engines.folding.assembly import Assembly
from pleat.core.engines.folding.convex import area, bounds, common, meets, overlap, rectangle, united
from pleat.core.engines.folding.pile import cells, faces, gussets, thick, thickest, without
from pleat.core.engines.folding.poses import FLAT, folded
from pleat.core.engines.folding.sheet import Cut, Piece, Span, board, cut_off, piece, scores

SIZE = st.integers(4, 300).map(lambda n: n / 2)
POINT = st.tuples(st.integers(-200, 200), st.integers(-200, 200))
CONVEX = (
    st.lists(POINT, min_size=3, max_size=9)
    .map(lambda points: Shape(points).convex_hull)
    .filter(lambda one: one.geom_type == "Polygon" and one.area > 4)
)


def corners(shape):
    return tuple(shape.exterior.coords)[:-1]


def row(name, *widths, height=200.0, **more):
    return piece(
        name, "card", [Span(chr(97 + n), width) for n, width in enumerate(widths)], [Span("", height)], **more
    )


@given(CONVEX, CONVEX)
def test_overlaps_and_what_is_left_are_those_of_shapely(one, other):
    a, b = corners(one), corners(other)
    both = one.intersection(other).area
    assert area(overlap(a, b)) == pytest.approx(both, abs=1e-3)
    assert sum(area(part) for part in without(a, b)) == pytest.approx(
        one.area - (both if meets(a, b) else 0), abs=1e-2
    )


@given(st.lists(SIZE, min_size=1, max_size=6), st.lists(SIZE, min_size=1, max_size=5), st.data())
def test_a_piece_is_its_grid_less_its_corners_and_cuts(columns, rows, data):
    spans = [
        Span(data.draw(st.sampled_from(("", f"c{n}"))) if not n else f"c{n}", size)
        for n, size in enumerate(columns)
    ]
    down = [Span("" if not n else f"r{n}", size) for n, size in enumerate(rows)]
    kept = [(c.name, r.name) for c in spans for r in down if c.name and r.name and data.draw(st.booleans())]
    sheet = piece("sheet", "card", spans, down, kept=kept)
    whole = sum(columns) * sum(rows)
    away = sum(
        c.size_mm * r.size_mm
        for c in spans
        for r in down
        if c.name and r.name and (c.name, r.name) not in kept
    )
    assert sheet.area_mm2 == pytest.approx(whole - away)
    union = unary_union([Shape(panel.outline) for panel in sheet.panels])
    outer = [Shape(one) for one in sheet.outlines]
    drawn = outer[0]
    for one in outer[1:]:
        drawn = drawn.symmetric_difference(one)
    assert drawn.symmetric_difference(union).area < 1e-3
    left, top, _right, _bottom = union.bounds
    shaved = cut_off(sheet, [Cut((left, top + 3), (left + 3, top), (left, top))])
    assert shaved.area_mm2 + sum(area(one) for one in shaved.offcuts) == pytest.approx(sheet.area_mm2)
    for crease in sheet.creases:
        a, b = (Shape(sheet[name].outline) for name in (crease.one, crease.other))
        assert a.intersection(b).length == pytest.approx(
            ((crease.start[0] - crease.end[0]) ** 2 + (crease.start[1] - crease.end[1]) ** 2) ** 0.5
        )


@given(st.lists(SIZE, min_size=2, max_size=9))
def test_scores_run_from_one_edge_and_mirrored_from_the_other(sizes):
    sheet = row("strip", *sizes)
    line = list(accumulate(sizes))
    assert scores(sheet) == pytest.approx(line[:-1])
    assert scores(sheet, mirrored=True) == pytest.approx(sorted(line[-1] - at for at in line[:-1]))
    assert sheet.size_mm == pytest.approx((line[-1], 200.0))


def test_what_bends_is_not_scored_and_what_is_guided_is():
    sheet = piece(
        "wrap",
        "cloth",
        [Span("back", 100), Span("joint", 8, "bend"), Span("spine", 12, "guide")],
        [Span("", 100)],
    )
    assert scores(sheet) == (108.0,)


@given(st.lists(SIZE, min_size=2, max_size=7), st.data())
def test_places_after_folding_are_those_of_a_number_line(sizes, data):
    """A strip folded flat at any of its creases: each panel lies where walking along the line and turning
    back at each fold puts it."""
    sheet = row("strip", *sizes)
    assembly = Assembly()
    assembly.add(sheet)
    names, at, way, places = [panel.name for panel in sheet.panels], 0.0, 1, []
    for number, (name, width) in enumerate(zip(names, sizes, strict=True)):
        places.append(sorted((at, at + way * width)))
        at += way * width
        if number < len(sizes) - 1 and data.draw(st.booleans()):
            assembly.fold("strip", (name, names[number + 1], data.draw(st.sampled_from((180.0, -180.0)))))
            way = -way
    state = assembly.mark("folded")
    for name, place in zip(names, places, strict=True):
        left, _, right, _ = bounds(state.shadow(("strip", name), assembly.pieces))
        assert [left, right] == pytest.approx(place)
    assert not assembly.misfits()
    assert sum(area(state.shadow(key, assembly.pieces)) for key in state.pile) == pytest.approx(
        sheet.area_mm2
    )


@given(st.lists(SIZE, min_size=2, max_size=6), st.data())
def test_closing_and_opening_again_returns_to_where_it_was(sizes, data):
    sheet = row("strip", *sizes)
    assembly = Assembly()
    assembly.add(sheet, data.draw(st.sampled_from([panel.name for panel in sheet.panels])))
    flat = assembly.mark("flat")
    pairs = [(a.name, b.name) for a, b in pairwise(sheet.panels)]
    angles = [data.draw(st.sampled_from((180.0, -180.0, 90.0, 37.0))) for _ in pairs]
    for (a, b), angle in zip(pairs, angles, strict=True):
        assembly.fold("strip", (a, b, angle))
    for a, b in reversed(pairs):
        assembly.fold("strip", (a, b, 0.0))
    back = assembly.mark("open")
    for key, pose in flat.poses.items():
        for one, other in zip(pose, back.poses[key], strict=True):
            assert one == pytest.approx(other, abs=1e-6)


@given(POINT, POINT.filter(lambda p: p != (0, 0)), st.sampled_from((0, 45, 90, 135, 180, 270)), SIZE)
def test_a_fold_keeps_its_line_and_every_distance(start, along, degrees, far):
    end = (start[0] + along[0], start[1] + along[1])
    towards = (start[0] - along[1] * far, start[1] + along[0] * far)
    pose = folded(start, end, towards, degrees)
    for point in (start, end):
        assert pose.place((*point, 0.0)) == pytest.approx((*point, 0.0), abs=1e-6)
    assert pose.after(pose.back).place((*towards, 0.0)) == pytest.approx((*towards, 0.0), abs=1e-4)
    assert (pose.place((*towards, 0.0))[2] > 1e-9) == (0 < degrees < 180)
    assert FLAT.after(pose) == pose


def test_a_valley_lies_on_its_host_and_a_mountain_under_it():
    for angle, order in ((180.0, ["a", "b"]), (-180.0, ["b", "a"])):
        assembly = Assembly()
        assembly.add(row("strip", 100, 60))
        assembly.fold("strip", ("a", "b", angle))
        assert [name for _, name in assembly.mark("shut").pile] == order


def test_what_lies_on_a_panel_moves_with_it_and_is_turned_over():
    assembly = Assembly()
    assembly.add(row("wrap", 100, 100))
    assembly.add(board("label", "card", 20, 30))
    assembly.lay(("label", "body"), ("wrap", "b"), (110, 10))
    assembly.fold("wrap", ("a", "b", 180.0))
    state = assembly.mark("shut")
    assert [piece_ for piece_, _ in state.pile] == ["wrap", "label", "wrap"]
    assert bounds(state.shadow(("label", "body"), assembly.pieces)) == pytest.approx((70, 10, 90, 40))
    assert not state.poses["label", "body"].up


@pytest.mark.parametrize(
    ("face", "side", "place"), [("B", "A", 1), ("A", "A", 1), ("A", "B", 0), ("B", "B", 0)]
)
@pytest.mark.parametrize("turn", [0, 90, 180, 270])
def test_a_piece_is_laid_where_shapely_puts_it(face, side, place, turn):
    assembly = Assembly()
    assembly.add(board("host", "board", 200, 200))
    corner = cut_off(row("leaf", 50, 30, height=20), [Cut((0, 10), (10, 0), (0, 0))])
    assembly.add(corner)
    assembly.lay(("leaf", "a"), ("host", "body"), (40, 60), face=face, side=side, turn=turn)
    state = assembly.mark("laid")
    flip = -1 if face == side else 1
    cosine, sine = {0: (1, 0), 90: (0, 1), 180: (-1, 0), 270: (0, -1)}[turn]
    shape = affine_transform(Shape(corner["a"].outline), [flip * cosine, -sine, flip * sine, cosine, 0, 0])
    shape = affine_transform(shape, [1, 0, 0, 1, 40 - shape.bounds[0], 60 - shape.bounds[1]])
    assert Shape(state.shadow(("leaf", "a"), assembly.pieces)).symmetric_difference(shape).area < 1e-6
    assert (state.pile.index(("leaf", "a")) > state.pile.index(("host", "body"))) == bool(place)
    b = Shape(state.shadow(("leaf", "b"), assembly.pieces))
    assert b.intersection(shape).length == pytest.approx(20)


def test_a_piece_laid_under_another_says_what_it_was_slipped_under():
    assembly = Assembly()
    assembly.add(board("page", "card", 200, 200))
    for name in ("mat", "photo"):
        assembly.add(board(name, "paper", 60, 60))
    assembly.lay(("mat", "body"), ("page", "body"), (10, 10))
    assert assembly.lay(("photo", "body"), ("page", "body"), (20, 20)).under == (("mat", "body"),)


def test_a_gusset_gives_its_width_and_needs_what_it_holds():
    calipers = {"card": Estimate.exact(0.3), "block": Estimate.ranged(9.0, 10.0, 12.0, "the block")}

    def shut(gusset, leaves=1):
        assembly = Assembly()
        assembly.add(row("wrap", 148, gusset, 148, height=210), "a")
        for number in range(leaves):
            assembly.add(board(f"block {number}", "block", 145, 204))
            assembly.lay(
                (f"block {number}", "body"),
                ("wrap", "a") if not number else (f"block {number - 1}", "body"),
                (3, 3) if not number else (0, 0),
            )
        assembly.fold("wrap", ("a", "b", 90.0), ("b", "c", 90.0))
        assert not assembly.faults
        assert not assembly.misfits()
        return gussets(assembly, assembly.mark("shut"), calipers)[0]

    found = shut(14)
    assert (found.has_mm, found.stiff.likely, found.stiff.high) == pytest.approx((14, 10, 12))
    assert shut(14, leaves=2).stiff.likely == pytest.approx(20)


def test_paper_does_not_go_through_paper():
    """Each of the three faults with a programme that commits it and its twin that does not."""
    caught = Assembly()
    caught.add(row("wrap", 100, 60), "a")
    caught.add(board("long", "card", 120, 40))
    caught.lay(("long", "body"), ("wrap", "a"), (10, 10))
    caught.fold("wrap", ("a", "b", 180.0))
    assert [fault.kind for fault in caught.faults] == ["caught"]
    short = Assembly()
    short.add(row("wrap", 100, 60), "a")
    short.add(board("short", "card", 80, 40))
    short.lay(("short", "body"), ("wrap", "a"), (10, 10))
    short.fold("wrap", ("a", "b", 180.0))
    assert not short.faults
    through = Assembly()
    through.add(row("wrap", 100, 60), "a")
    through.add(row("leaf", 50, 50, height=100))
    through.lay(("leaf", "a"), ("wrap", "a"), (50, 10))
    through.fold("wrap", ("a", "b", 180.0))
    assert "through" in {fault.kind for fault in through.faults}
    loose = Assembly()
    loose.add(row("wrap", 100, 60))
    loose.add(board("card", "card", 20, 20))
    assert loose.loose == ("card",)
    loose.fold("wrap", ("a", "b", 0.0))
    loose.lay(("wrap", "b"), ("wrap", "a"))
    assert [fault.kind for fault in loose.faults] == ["apart"]


def test_a_strap_over_a_moving_fold_does_not_meet_once_it_is_folded():
    """Glued on both sides of a fold, a stiff piece would have to be in two places: that misfit is told in
    mm."""
    assembly = Assembly()
    assembly.add(row("wrap", 100, 100), "a")
    assembly.add(board("strap", "board", 60, 20))
    assembly.lay(("strap", "body"), ("wrap", "a"), (70, 50))
    assembly.lay(("strap", "body"), ("wrap", "b"))
    assert not assembly.misfits()
    assert not assembly.faults
    assembly.fold("wrap", ("a", "b", 90.0))
    assert assembly.misfits()[0].mm > 20


@given(
    st.lists(
        st.tuples(st.integers(0, 80), st.integers(0, 80), st.integers(10, 90), st.integers(10, 90)),
        min_size=1,
        max_size=8,
    )
)
def test_thickness_by_place_is_volume_and_more_never_needs_less(placed):
    calipers = {"card": Estimate.exact(0.5), "base": Estimate.exact(1.0)}
    assembly = Assembly()
    assembly.add(board("base", "base", 200, 200))
    needed = 0.0
    for number, (x, y, width, height) in enumerate(placed):
        assembly.add(board(f"p{number}", "card", width, height))
        assembly.lay((f"p{number}", "body"), ("base", "body"), (x, y))
        worst = thickest(assembly, assembly.mark("now"), calipers).likely
        assert worst >= needed - 1e-9
        needed = worst
    state = assembly.mark("all")
    volume = sum(
        area(cell.outline) * thick(assembly, cell.layers, calipers).likely for cell in cells(assembly, state)
    )
    assert volume == pytest.approx(200 * 200 + 0.5 * sum(w * h for _, _, w, h in placed))
    for above in (True, False):
        shown = faces(assembly, state, above=above)
        assert sum(face.area_mm2 for face in shown) == pytest.approx(200 * 200)
    seen = {key: Shape(state.shadow(key, assembly.pieces)) for key in state.pile}
    over = unary_union([])
    for key in reversed(state.pile):
        expected = seen[key].difference(over).area
        got = sum(face.area_mm2 for face in faces(assembly, state) if face.key == key)
        assert got == pytest.approx(expected, abs=0.01 * seen[key].area)
        over = over.union(seen[key])


def test_what_shows_says_its_side_and_which_way_up():
    """A wrap over the head: its front, folded over, stands on its head; one round the fore edge stays
    upright. One-sided stock shows side B."""
    over_head = Assembly()
    over_head.add(piece("wrap", "card", [Span("", 100)], [Span("flap", 60), Span("back", 140)]), "back")
    over_head.fold("wrap", ("flap", "back", 180.0))
    flap = next(face for face in faces(over_head, over_head.mark("shut")) if face.key == ("wrap", "flap"))
    assert (flap.side, flap.turn, flap.share) == ("B", 180.0, 1.0)
    round_side = Assembly()
    round_side.add(row("wrap", 100, 60), "a")
    round_side.fold("wrap", ("a", "b", 180.0))
    state = round_side.mark("shut")
    shown = {face.key[1]: face for face in faces(round_side, state)}
    assert (shown["b"].side, shown["b"].turn) == ("B", 0.0)
    assert shown["a"].share == pytest.approx(0.4)
    below = {face.key[1]: face for face in faces(round_side, state, above=False)}
    assert (below["a"].side, below["a"].turn) == ("B", 0.0)
    assert "b" not in below


@given(st.lists(st.tuples(st.integers(0, 4), st.integers(0, 4)), min_size=1, max_size=12, unique=True))
def test_outlines_of_squares_side_by_side_are_those_of_shapely(squares):
    polygons = [rectangle(10 * x, 10 * y, 10, 10) for x, y in squares]
    outlines = united(polygons)
    drawn = Shape()
    for one in outlines:
        drawn = drawn.symmetric_difference(Shape(one).buffer(0))
    assert drawn.symmetric_difference(unary_union([Shape(one) for one in polygons])).area < 1e-6


@given(st.lists(st.lists(st.integers(1, 9), min_size=1, max_size=4), min_size=1, max_size=6), st.booleans())
def test_outlines_of_columns_that_are_cut_at_heights_of_their_own_are_those_of_shapely(columns, slanting):
    """Corners of one column lie within the sides of the next; ``slanting`` all of it leans, so that no side
    is upright."""
    polygons = []
    for number, heights in enumerate(columns):
        ends = [sum(heights[:count]) for count in range(len(heights) + 1)]
        cells = [rectangle(10 * number, low, 10, high - low) for low, high in pairwise(ends)]
        polygons += [
            tuple((x + 0.3 * y, y + 0.1 * x) if slanting else (x, y) for x, y in cell) for cell in cells
        ]
    drawn = Shape()
    for one in united(polygons):
        drawn = drawn.symmetric_difference(Shape(one).buffer(0))
    whole = (
        unary_union([Shape(one) for one in polygons])
        .buffer(1e-4, join_style="mitre")
        .buffer(-1e-4, join_style="mitre")
    )
    assert drawn.symmetric_difference(whole).area < 1e-2
    assert sum(Shape(one).length for one in united(polygons)) == pytest.approx(whole.length, abs=1e-2)


def test_lines_have_in_common_what_lies_on_both():
    assert common(((0, 0), (10, 0)), ((4, 0), (20, 0))) == ((4, 0), (10, 0))
    assert common(((0, 0), (10, 0)), ((10, 0), (20, 0))) is None
    assert common(((0, 0), (10, 0)), ((4, 1), (20, 1))) is None


def test_twenty_pieces_stay_quick_enough_to_be_asked():
    """Not timed: that the work does not explode. Twenty cards on a wrap with a gusset, and all that is asked
    of them."""
    assembly = Assembly()
    assembly.add(row("wrap", 148, 20, 148, height=210), "a")
    for number in range(19):
        assembly.add(board(f"card {number}", "card", 40 + number, 60))
        assembly.lay((f"card {number}", "body"), ("wrap", "a"), (5 + 4 * number, 5 + 6 * number))
    assembly.fold("wrap", ("a", "b", 90.0), ("b", "c", 90.0))
    state = assembly.mark("shut")
    assert gussets(assembly, state, {"card": Estimate.exact(0.3)})[0].stiff.likely > 1
    assert isinstance(assembly.pieces["wrap"], Piece)
