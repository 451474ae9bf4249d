"""Every structure, whatever is decided of it: it is built and shut without paper passing through paper, opens
again, keeps its areas, and what its drawings, its moving view and its steps are made from says the same as
the kernel."""

from __future__ import annotations

import itertools
import random

import numpy as np
import pytest
from shapely import Polygon as Shape
from shapely.ops import unary_union

from pleat.core.engines.folding.closing import blocked, ways
from pleat.core.engines.folding.convex import meets
from pleat.core.engines.folding.pile import gussets, thickest
from pleat.core.engines.folding.poses import apart
from pleat.core.engines.folding.programme import Add, FoldOperation, LayOperation, Programme, built, work
from pleat.core.engines.folding.tasks import in_order, tasks
from pleat.core.engines.folding.tree import LIFT_MM, tree
from pleat.core.pleats.structures.drawn import DrawnGroup, DrawnSheet, DrawnStep, programme_of, written
from tests.core.pleats.structures.samples import every, made_in, plan_of

EVERY = every()
NAMES = [f"{name} {texts}" for name, texts in EVERY]


@pytest.fixture(scope="module", params=EVERY, ids=NAMES)
def structures(request):
    return made_in(plan_of(*request.param))


def test_it_shuts_without_paper_through_paper_and_every_loop_meets(structures):
    for made in structures:
        worked = made.worked
        assert not made.faults
        assert not worked.assembly.faults
        assert not worked.assembly.misfits()
        assert not worked.assembly.loose
        assert len(worked.states) == len(made.programme.closing) + 1


@pytest.mark.every(2)
@pytest.mark.parametrize(("name", "texts"), EVERY, ids=NAMES)
def test_what_lies_on_the_faces_is_where_the_whole_programme_puts_it(name, texts):
    """The thickness and the room that gussets need are read off the bare sheets with boards put on them; here
    everything is laid and folded."""
    made = getattr(plan_of(name, texts).pages, "made", None)
    if made:
        assembly, shut = made.worked.assembly, made.worked.shut
        assert thickest(assembly, shut, made.calipers) == made.thick
        needs = {one.wall: one for one in gussets(assembly, shut, made.calipers)}
        for room in made.rooms:
            assert (needs[room.wall].draped, needs[room.wall].stiff) == (room.draped, room.stiff)


def test_every_layer_keeps_its_area_and_lies_once_in_the_pile(structures):
    """Areas and outlines by shapely; a panel that lies flat is one layer in every state."""
    for made in structures:
        worked = made.worked
        for state in worked.states:
            level = [key for key, pose in state.poses.items() if pose.level]
            assert sorted(state.pile) == sorted(level)
            for key in level:
                own = Shape(worked.assembly.pieces[key[0]][key[1]].outline)
                assert Shape(state.shadow(key, worked.assembly.pieces)).area == pytest.approx(own.area)
        for piece in made.programme.pieces:
            whole = unary_union([Shape(panel.outline) for panel in piece.panels])
            assert whole.area == pytest.approx(piece.area_mm2)
            assert sum(Shape(outline).area for outline in piece.outlines[:1]) >= piece.area_mm2 - 1e-6


def test_it_opens_again_to_what_it_was(structures):
    """All groups undone, last first: every panel lies where it lay before, in an order that differs only
    where layers do not overlap."""
    for made in structures:
        worked = made.worked
        assembly = built(made.programme)
        before = dict(assembly.poses)
        angles = dict(assembly.mark("before").angles)
        for group in made.programme.closing:
            for fold in group.folds:
                assembly.fold(fold.piece, *fold.angles)
        for group in reversed(made.programme.closing):
            for fold in reversed(group.folds):
                assembly.fold(
                    fold.piece,
                    *(
                        (one, other, _was(angles, fold.piece, one, other, worked))
                        for one, other, _ in fold.angles
                    ),
                )
        if made.programme.opens:
            continue  # of several openings each shuts the one before: undone, they are those of the last
        worst = max(
            apart(before[key], assembly.poses[key], assembly.pieces[key[0]][key[1]].outline) for key in before
        )
        assert worst < 1e-6


def _was(angles, piece, one, other, worked):
    crease = worked.assembly.pieces[piece].crease(one, other)
    return angles.get((piece, crease.one, crease.other), 0.0)


def turned_as_a_browser_does(nodes, shares):
    """Where every panel lies when the script of the page has turned it: 4 x 4 matrices as CSS multiplies
    them, without the lifts."""
    world = []
    for node in nodes:
        place = np.eye(4)
        for column, axis in enumerate((node.place.x, node.place.y, node.place.z, node.place.at)):
            place[:3, column] = axis
        angle = node.angle + sum(shares[group] * degrees for group, degrees in node.turns)
        turn = np.eye(4)
        if node.line is not None and angle:
            (ax, ay), (bx, by) = node.line
            axis = np.array([bx - ax, by - ay, 0.0]) / np.hypot(bx - ax, by - ay)
            cross = np.array([[0, -axis[2], axis[1]], [axis[2], 0, -axis[0]], [-axis[1], axis[0], 0]])
            radians = np.radians(angle)
            turn[:3, :3] = np.eye(3) + np.sin(radians) * cross + (1 - np.cos(radians)) * cross @ cross
            start = np.array([ax, ay, 0.0])
            turn[:3, 3] = start - turn[:3, :3] @ start
        own = place @ turn
        world.append(own if node.parent < 0 else world[node.parent] @ own)
    return world


def test_the_moving_view_turns_every_panel_to_where_the_kernel_has_it(structures):
    for made in structures:
        worked = made.worked
        nodes = tree(worked)
        assert {node.key for node in nodes} == set(worked.shut.poses)
        assert all(node.parent < place for place, node in enumerate(nodes))
        groups = len(made.programme.closing)
        for number, state in enumerate(worked.states):
            world = turned_as_a_browser_does(nodes, [1.0] * number + [0.0] * (groups - number))
            base = state.poses[nodes[0].key]
            for node, matrix in zip(nodes, world, strict=True):
                for x, y in node.outline:
                    seen = matrix @ np.array([x, y, 0.0, 1.0])
                    there = base.back.place(state.poses[node.key].place((x, y, 0.0)))
                    assert np.allclose(seen[:3], there, atol=1e-6), (state.name, node.key)


def test_lifts_keep_layers_that_overlap_in_the_kernels_order(structures):
    for made in structures:
        worked = made.worked
        nodes = tree(worked)
        for number, state in enumerate(worked.states):
            high = {}
            for node in nodes:
                pose = state.poses[nodes[node.parent].key] if node.parent >= 0 else None
                up = (
                    0.0
                    if pose is None
                    else sum(
                        axis[2] * by
                        for axis, by in zip((pose.x, pose.y, pose.z), node.lifts[number], strict=True)
                    )
                )
                high[node.key] = up + (high[nodes[node.parent].key] if node.parent >= 0 else 0.0)
            pile = [key for key in state.pile if key in high]
            for below, above in itertools.pairwise(pile):
                assert high[above] - high[below] == pytest.approx(LIFT_MM, abs=0.02), (
                    state.name,
                    below,
                    above,
                )


def test_the_steps_may_be_done_in_the_order_they_stand_and_give_the_same_thing(structures):
    """A simulation: the tasks of the bench are carried out one by one; each finds its pieces scored and what
    it lies on in place."""
    for made in structures:
        todo = tasks(made.programme)
        order = in_order(todo)
        assert sorted(order) == list(range(len(todo)))
        scored, shaped, done = set(), set(), set()
        needs_shape = {name for task in todo if task.kind == "shape" for name in task.pieces}
        operations = []
        for number in order:
            task = todo[number]
            assert set(task.after) <= done
            if task.kind == "score":
                assert task.pieces[0] not in needs_shape - shaped, "a slant is cut before it is scored"
            if task.kind == "fold":
                assert task.pieces[0] in scored, "a fold without its score"
            if task.kind == "tuck":
                assert all(done.issuperset({n}) for n, other in enumerate(todo) if other.kind == "join"), (
                    "tucked before the glue is dry"
                )
            (shaped if task.kind == "shape" else scored if task.kind == "score" else set()).update(
                task.pieces
            )
            operations += task.operations
            done.add(number)
        adds = [one for one in made.programme.build if isinstance(one, Add)]
        carried_out = [made.programme.build[number] for number in operations]
        assert sorted(map(repr, carried_out)) == sorted(
            repr(one) for one in made.programme.build if not isinstance(one, Add)
        )
        again = work(Programme((*adds, *carried_out), made.programme.closing, opens=made.programme.opens))
        assert not again.assembly.faults
        for key, pose in made.worked.shut.poses.items():
            assert (
                apart(pose, again.shut.poses[key], made.worked.assembly.pieces[key[0]][key[1]].outline) < 1e-6
            )


def test_written_into_a_book_and_read_back_it_is_the_same(structures):
    for made in structures:
        if made.programme.opens:  # its leaves are what goes in, and a hinge is not made free
            continue
        data = written(made.programme)
        again = work(
            programme_of(
                [DrawnSheet.model_validate(one) for one in data["sheets"]],
                [DrawnStep.model_validate(one) for one in data["steps"]],
                [DrawnGroup.model_validate(one) for one in data["groups"]],
            )
        )
        own = [key for key in made.worked.shut.pile if not made.worked.assembly.pieces[key[0]].rigid]
        assert [key for key in again.shut.pile if key in own] == own
        for state, other in zip(made.worked.states, again.states, strict=True):
            for key in own:
                assert (
                    apart(state.poses[key], other.poses[key], again.assembly.pieces[key[0]][key[1]].outline)
                    < 1e-6
                )


def test_what_lies_in_whose_way_is_what_lies_above_it(structures):
    """By brute force: undo a group while the others stay shut, and see whether anything of a later group lay
    on what it moves."""
    for made in structures:
        if made.programme.opens:
            continue
        worked = made.worked
        over = blocked(worked)
        place = {key: number for number, key in enumerate(worked.shut.pile)}
        last = {}
        for group, before, after in zip(
            made.programme.closing, worked.states[:-1], worked.states[1:], strict=True
        ):
            for key in after.poses:
                if after.poses[key] != before.poses[key]:
                    last[key] = group.name
        names = [group.name for group in made.programme.closing]
        for number, name in enumerate(names):
            own = [key for key, of in last.items() if of == name and key in place]
            expected = {
                last[key]
                for key in place
                if last.get(key) in names[number + 1 :]
                and any(
                    place[key] > place[one]
                    and Shape(worked.shut.shadow(key, worked.assembly.pieces))
                    .intersection(Shape(worked.shut.shadow(one, worked.assembly.pieces)))
                    .area
                    > 1e-3
                    for one in own
                )
            }
            assert set(over[name]) == expected


@pytest.mark.parametrize("name", ["crossfold", "bagfolio", "nested"])
def test_orders_of_shutting_are_those_that_are_tried_one_by_one(name):
    made = plan_of(name).pages.made
    found = ways(made.programme, made.calipers)
    if made.programme.turns:
        assert {one.order for one in found} == set(
            itertools.permutations(group.name for group in made.programme.closing)
        )
    else:
        assert len(found) == 1
    assert [one.faults for one in found] == sorted(one.faults for one in found)
    random.seed(3)
    for one in random.sample(found, min(4, len(found))):
        other = work(made.programme.closed_by(one.order))
        assert [group.name for group in other.programme.closing] == list(one.order)
        assert len(other.assembly.faults) == one.faults


def test_forty_eight_orders_of_four_arms_and_a_flap_are_tried_at_most():
    """Five groups have 120 orders; the first 48 are tried."""
    made = plan_of("crossfold").pages.made
    more = Programme(made.programme.build, (*made.programme.closing, made.programme.closing[0]), turns=True)
    assert len(ways(more, made.calipers)) == 48


def test_shutting_in_another_order_turns_the_gussets_round():
    """What is shut first holds least: each arm's gusset needs more the later it is shut."""
    for order in itertools.permutations(("tail", "head", "left", "right")):
        made = plan_of("crossfold", {}).pages.made
        tried = work(made.programme.closed_by(order))
        heights = {}
        for name in order:
            key = ("folio", name)
            heights[name] = tried.shut.pile.index(key)
        assert [name for name, _ in sorted(heights.items(), key=lambda item: item[1])] == list(order)


def test_no_two_layers_of_a_shut_hinge_lie_in_each_other():
    """In the order of the pile every leaf of a hinge lies between its neighbours, and the boards are
    outermost."""
    for name in ("hills", "connectors", "zigzag"):
        made = plan_of(name).binding.made
        pile = [key[0] for key in made.worked.shut.pile if made.worked.assembly.pieces[key[0]].rigid]
        leaves = [one for one in pile if one.startswith("leaf")]
        assert pile[0] == "back board"
        assert pile[-1] == "front board"
        assert leaves == [f"leaf {number}" for number in range(len(leaves), 0, -1)]


def test_turning_leaf_by_leaf_leaves_one_opening_and_both_stacks_in_order():
    for name in ("hills", "connectors", "zigzag"):
        worked = plan_of(name).binding.made.worked
        for number, state in enumerate(worked.states[1:]):
            left = [key[0] for key in state.pile if key[0].startswith("leaf") and not state.poses[key].up]
            right = [key[0] for key in state.pile if key[0].startswith("leaf") and state.poses[key].up]
            assert left == [f"leaf {one}" for one in range(1, number + 1)], state.name
            assert right == [f"leaf {one}" for one in range(len(right) + number, number, -1)]
            shadows = {
                key: state.shadow(key, worked.assembly.pieces)
                for key in state.pile
                if key[0].startswith("leaf")
            }
            for one, other in itertools.combinations(shadows, 2):
                same = state.poses[one].up == state.poses[other].up
                assert meets(shadows[one], shadows[other]) == same


def test_folds_and_lays_name_what_is_there():
    for name, texts in EVERY:
        for made in made_in(plan_of(name, texts)):
            pieces = {piece.name: piece for piece in made.programme.pieces}
            for one in made.programme.build:
                if isinstance(one, FoldOperation):
                    assert all(pieces[one.piece].crease(a, b) for a, b, _ in one.angles)
                if isinstance(one, LayOperation):
                    assert pieces[one.laid[0]][one.laid[1]]
                    assert pieces[one.host[0]][one.host[1]]
