"""Drawings and prints of folded structures: to scale, in the kernel's order, every score where it is, every
layer as thick as it is."""

from __future__ import annotations

import io
import re
from itertools import combinations, pairwise

import pytest
from shapely import Polygon as Shape
from shapely import box
from shapely.ops import unary_union

from pleat.core.engines.folding.flat import CLOSE_SHARE
from pleat.core.engines.folding.pile import cells
from pleat.core.engines.folding.sheet import scores
from pleat.core.whole.planning import make_plan
from pleat.drawing import looks, structures
from pleat.drawing import members as _drawings  # noqa: F401 - makes all drawings known
from pleat.drawing.pages.folded import look_of, marked
from pleat.drawing.portraits import portrait
from pleat.drawing.shapes import Curve, Rect
from pleat.printing import covers, folded  # noqa: F401 - make their strips known
from pleat.printing.parts import part_rows
from pleat.printing.pieces import pieces, to_dxf, to_svg
from pleat.printing.sheets import print_sheets
from pleat.printing.strips import strips_of
from pleat.printing.templates import files
from tests.core.pleats.structures.samples import FOLDED, HINGED, book_of, every, made_in, plan_of

EVERY = every()


def polygon(curve):
    return Shape([numbers for letter, numbers in curve.commands if letter in "ML"])


@pytest.mark.parametrize(("name", "texts"), EVERY, ids=[f"{name} {texts}" for name, texts in EVERY])
def test_pieces_lie_side_by_side_at_their_size_and_do_not_overlap(name, texts):
    plan = plan_of(name, texts)
    for result in (plan.pages, plan.binding):
        flats = getattr(result, "flats", None)
        if not flats:
            continue
        drawing = looks.main(result, plan)
        boxes = [
            box(one.x_mm, one.y_mm, one.x_mm + one.piece.size_mm[0], one.y_mm + one.piece.size_mm[1])
            for one in flats
        ]
        assert unary_union(boxes).area == pytest.approx(sum(one.area for one in boxes))
        assert drawing.width == pytest.approx(max(one.bounds[2] for one in boxes))
        filled = [
            polygon(shape)
            for shape in drawing.shapes
            if isinstance(shape, Curve) and shape.style.startswith("filled wrap")
        ]
        assert sum(one.area for one in filled) == pytest.approx(sum(one.piece.area_mm2 for one in flats))
        for spot in drawing.spots:
            assert -0.01 <= spot.x <= drawing.width + 0.01
            assert -0.01 <= spot.y <= drawing.height + 0.01
        across, down = (
            share * size for share, size in zip(CLOSE_SHARE, (drawing.width, drawing.height), strict=True)
        )
        over = [
            (one.path, other.path)
            for one, other in combinations(result.spots, 2)
            if abs(one.x_mm - other.x_mm) < across and abs(one.y_mm - other.y_mm) < down - 0.01
        ]
        assert not over, "a field lies over another"


@pytest.mark.parametrize("name", FOLDED)
def test_states_are_pictures_of_the_same_scale_whose_top_layer_is_the_kernels(name):
    plan = plan_of(name)
    for made in made_in(plan):
        if not made.programme.closing:
            continue
        worked = made.worked
        marks = marked(made, plan)
        pictures = structures.states(worked, look_of(plan), marks)
        assert len({(one.width, one.height) for _, one in pictures}) == 1
        assert [number for number, _ in pictures] == [*range(len(worked.states))]
        for (_, picture), state in zip(pictures, worked.states, strict=True):
            top = [shape for shape in picture.shapes if isinstance(shape, Curve)][
                -1 - _seen(marks, state, state.pile[-1])
            ]
            seen = Shape(state.shadow(state.pile[-1], worked.assembly.pieces))
            assert polygon(top).area == pytest.approx(seen.area)
            assert len(picture.shapes) == len(state.pile) + sum(
                _seen(marks, state, key) for key in state.pile
            )
        printed = structures.states(worked, look_of(plan), marks, printed=True)
        assert {shape.style for _, one in printed for shape in one.shapes} <= {
            "face-card",
            "face-paper",
            "place",
        }


@pytest.mark.every(2)
@pytest.mark.parametrize("panels", [28, 60, 100])
def test_of_many_states_some_are_drawn_from_the_first_to_the_last_and_that_is_said(panels):
    plan = plan_of("concertina", {"pages.amount": str(panels)})
    worked = plan.pages.made.worked
    numbers = structures.pictured(worked)
    assert len(numbers) == len(set(numbers)) <= min(len(worked.states), structures.MOST_STATES)
    panels = sum(len(worked.states[number].pile) for number in numbers)
    assert panels <= structures.MOST_PANELS or len(numbers) == structures.FEWEST_STATES
    more = panels + 2 * max(len(state.pile) for state in worked.states)
    assert len(numbers) in (len(worked.states), structures.MOST_STATES) or more > structures.MOST_PANELS, (
        "as many as there is room for"
    )
    assert (numbers[0], numbers[-1]) == (0, len(worked.states) - 1)
    apart = {later - earlier for earlier, later in pairwise(numbers)}
    assert max(apart) - min(apart) <= 1
    text = " ".join(sheet.svg for sheet in print_sheets(plan, "x", "a4"))
    some = f"{len(numbers)} of its {len(worked.states)} states"
    assert (re.sub(r"<[^>]+>", "", text).count(some) > 0) == (len(worked.states) > len(numbers))


def _seen(marks, state, key):
    """How much on a panel looks up."""
    return sum((mark.side == "A") == state.poses[key].up for mark in marks.get(key, ()))


@pytest.mark.parametrize("name", [name for name in FOLDED if name != "pocketpages"])
def test_the_cut_is_as_thick_as_its_layers_added_up(name):
    """The area of the cut is that of all layers it goes through, each its width times its thickness, by
    shapely's boxes laid on the table."""
    plan = plan_of(name)
    for made in made_in(plan):
        if not made.programme.closing:
            continue
        worked = made.worked
        drawing = structures.section(made, look_of(plan))
        layers = [shape for shape in drawing.shapes if isinstance(shape, Rect)]
        drawn = sum(one.width * one.height for one in layers)
        shadows = {key: Shape(worked.shut.shadow(key, worked.assembly.pieces)) for key in worked.shut.pile}
        whole = unary_union(list(shadows.values())).bounds
        middle = (whole[1] + whole[3]) / 2 + 0.01
        line = box(whole[0], middle, whole[2], middle + 1e-6)
        expected = 0.0
        for key, shadow in shadows.items():
            wide = shadow.intersection(line).area / 1e-6
            expected += wide * max(made.calipers[worked.assembly.pieces[key[0]].stock].likely, 0.05)
        assert drawn == pytest.approx(expected, rel=0.01)
        stacks = unary_union([box(one.x, one.y, one.x + one.width, one.y + one.height) for one in layers])
        assert stacks.area == pytest.approx(drawn, rel=1e-4), "no layer lies in another"
        assert drawing.width == pytest.approx(whole[2] - whole[0])


@pytest.mark.parametrize("name", FOLDED)
def test_portraits_stand_half_open_and_say_how_large_they_are_shut(name):
    plan = plan_of(name)
    picture = portrait(plan)
    assert picture.says
    if plan.pages.unit == "folio":
        assert "Half open" in picture.says
        assert picture.width >= plan.pages.leaf_width_mm * 0.9
        assert len(picture.shapes) >= len(plan.pages.programme.pieces)


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "texts"), EVERY, ids=[f"{name} {texts}" for name, texts in EVERY])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_score_lists_have_every_score_and_positions_not_widths_are_rounded(name, texts, ruler):
    plan = plan_of(name, {**texts, "brief.ruler": ruler})
    step = plan.brief.ruler.step_mm
    for result in (plan.pages, plan.binding):
        flats = getattr(result, "flats", ())
        marks = (
            {strip.name: [mark.at_mm for mark in strip.marks] for strip in strips_of(result, plan)}
            if flats
            else {}
        )
        for one in flats:
            for upright in (True, False):
                places = list(scores(one.piece, upright=upright))
                if places:
                    own = marks[f"Scores of the {one.name}{'' if upright else ' from the head'} inside up"]
                    assert own == pytest.approx(places)
                    assert all(abs(plan.brief.ruler.snap(at) - at) <= step / 2 + 1e-9 for at in places)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", FOLDED)
def test_pieces_come_as_svg_and_dxf_with_their_folds(name):
    import ezdxf

    plan = plan_of(name)
    found = pieces(plan)
    assert found
    for key, one in found.items():
        svg = to_svg(one)
        assert svg.count("<path") >= 1
        assert f'width="{one.piece.size_mm[0] + 10:.3f}mm"' in svg
        space = ezdxf.read(io.StringIO(to_dxf(one))).modelspace()
        lines = [entity for entity in space if entity.dxftype() == "LINE"]
        outlines = [
            entity for entity in space if entity.dxftype() == "LWPOLYLINE" and entity.dxf.layer == "CUT"
        ]
        assert len(lines) == len(one.piece.creases)
        area = sum(Shape([point[:2] for point in entity.get_points()]).area for entity in outlines)
        assert area == pytest.approx(one.piece.area_mm2, rel=1e-6) or len(one.piece.outlines) > 1
        assert key in files(plan)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", FOLDED)
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_the_part_list_has_scores_gussets_and_the_order_of_shutting(name, ruler):
    plan = make_plan(book_of(name, {"brief.ruler": ruler}))
    rows = dict(part_rows(plan))
    for result in (plan.pages, plan.binding):
        for one in getattr(result, "flats", ()):
            if scores(one.piece):
                assert rows[f"scores, {one.name}"].count(",") >= len(scores(one.piece)) - 1
    for room in plan.pages.made.rooms:
        assert plan.brief.ruler.show(room.has_mm) in rows[room.name]
    if plan.pages.programme.closing:
        assert rows["shut in this order"] == ", ".join(group.name for group in plan.pages.programme.closing)
    if name in HINGED:
        assert ("hinge, from fold to fold" in rows) == (plan.binding.floor_mm is not None)


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "texts"), EVERY, ids=[f"{name} {texts}" for name, texts in EVERY])
@pytest.mark.parametrize("ruler", ["mm", "in"])
def test_sums_that_are_shown_add_up_as_they_are_shown(name, texts, ruler):
    """Whatever stands as a + b = c in a why is true of the numbers as they stand there."""
    plan = plan_of(name, {**texts, "brief.ruler": ruler})
    number = r"(?:\d+ )?\d+(?:/\d+|\.\d+)?"
    for result in (plan.pages, plan.binding):
        for figure in result.figures:
            for parts, whole in re.findall(
                rf"(?<![×−\d/.] )(?<![\d/.])((?:{number} \+ )+{number}) = ({number})", figure.how
            ):
                total = sum(value(part) for part in parts.split(" + "))
                assert total == pytest.approx(value(whole), abs=1e-6), figure.how


def value(text):
    """A number as a ruler shows it.

    A fraction counts as it stands.
    """
    total = 0.0
    for word in text.split():
        top, _, bottom = word.partition("/")
        total += float(top) / float(bottom) if bottom else float(top)
    return total


def test_cells_of_the_cut_are_cells_of_the_pile():
    made = plan_of("bagfolio").pages.made
    found = cells(made.worked.assembly, made.worked.shut)
    assert sum(Shape(one.outline).area * len(one.layers) for one in found) == pytest.approx(
        sum(
            Shape(made.worked.shut.shadow(key, made.worked.assembly.pieces)).area
            for key in made.worked.shut.pile
        ),
        rel=1e-6,
    )
