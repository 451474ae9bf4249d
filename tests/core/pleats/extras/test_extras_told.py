"""What is put in, told: each slip caught and told apart, every fix mends, and what holds the leaves is given
what it needs."""

from __future__ import annotations

from typing import Any

import pytest

from pleat.core.document import editing
from pleat.core.pleats.extras.gussets import most, side_of, within
from pleat.core.whole.planning import make_plan
from tests.put import POCKET, at, keys, of, put, told

THICK = {"kind": "booklet", "width_mm": 60, "height_mm": 80, "thick_mm": 3.0, "doubt_mm": 0.2}
FLAP = {"kind": "flap", "goes": "none", "width_mm": 60, "height_mm": 50}
ONE_SIDED = ("paper.card.sides", 1)
SLIPS: dict[str, tuple[Any, ...]] = {
    # what is told: (book, changes, what commits it, what does not)
    "A6: its face is gone": (
        "journal",
        (),
        [{**POCKET, "places": at("page 999")}],
        [{**POCKET, "places": at("page 9")}],
    ),
    "B9: the blank side of a flap": (
        "journal",
        (ONE_SIDED,),
        [{**FLAP, "places": at("page 5")}],
        [{**FLAP, "stock": "leaf", "places": at("page 5")}],
    ),
    "B10: a pattern on its head": (
        "journal",
        (("paper.card.pattern", "directional"),),
        [{**FLAP, "hinge": "tail", "places": at("page 5")}],
        [{**FLAP, "hinge": "right", "places": at("page 5")}],
    ),
    "B11: leaves of card": (
        "sketchbook",
        (("pages.amount", 60), ("paper.leaf.grammage", 400.0)),
        [{**POCKET, "places": at("page 5")}],
        None,
    ),
    "C6: a fold-out into the gutter": (
        "journal",
        (),
        [{**FLAP, "way": "foldout", "hinge": "right", "width_mm": 140, "places": at("page 5")}],
        [{**FLAP, "way": "foldout", "hinge": "right", "width_mm": 120, "places": at("page 5")}],
    ),
    "D10: a key ring held by glue": (
        "journal",
        (),
        [{"kind": "tab", "way": "loop", "places": at("page 5")}],
        [{"kind": "tab", "way": "loop", "strong": "brad", "places": at("page 5")}],
    ),
    "D10: a brad wider than its strip": (
        "journal",
        (),
        [{"kind": "tab", "wide_mm": 9, "strong": "brad", "places": at("page 5")}],
        [{"kind": "tab", "wide_mm": 18, "strong": "brad", "places": at("page 5")}],
    ),
    "F1: as wide as its pocket": (
        "journal",
        (),
        [{**POCKET, "way": "glued", "width_mm": 66, "height_mm": 70, "places": at("page 5")}],
        [{**POCKET, "way": "glued", "width_mm": 70, "height_mm": 74, "places": at("page 5")}],
    ),
    "F1: higher than wanted": (
        "journal",
        (),
        [{**POCKET, "width_mm": 90, "height_mm": 40, "places": at("page 5", 10, 100)}],
        [{**POCKET, "width_mm": 90, "height_mm": 80, "places": at("page 5", 10, 100)}],
    ),
    "F1: behind a band": (
        "journal",
        (),
        [{"kind": "band", "goes": "a6", "lies": "level", "places": at("page 5")}],
        [{"kind": "band", "goes": "a6", "places": at("page 5")}],
    ),
    "F1: in a waterfall": (
        "journal",
        (),
        [{"kind": "waterfall", "goes": "a6", "width_mm": 112, "places": at("page 5")}],
        [{"kind": "waterfall", "goes": "a6", "width_mm": 121, "places": at("page 5", 10, 100)}],
    ),
    "F1: wider than its pocket": (
        "journal",
        (),
        [{**POCKET, "width_mm": 52, "height_mm": 80, "places": at("page 5")}],
        [{**POCKET, "width_mm": 57, "height_mm": 80, "places": at("page 5")}],
    ),
    "F1: too thick for a flat pocket": (
        "journal",
        (),
        [{**POCKET, "goes_thick_mm": 5, "width_mm": 60, "height_mm": 80, "places": at("page 5")}],
        [{**POCKET, "goes_thick_mm": 5, "width_mm": 64, "height_mm": 80, "places": at("page 5")}],
    ),
    "F2: a mouth glued shut": (
        "journal",
        (),
        [
            {**POCKET, "places": at("page 5", 20, 100)},
            {"kind": "picture", "goes": "card", "places": at("page 5", 30, 40)},
        ],
        [
            {**POCKET, "places": at("page 5", 20, 100)},
            {"kind": "picture", "goes": "3x3", "places": at("page 5", 30, 5)},
        ],
    ),
    "F2: a mouth in the gutter": (
        "journal",
        (),
        [{**POCKET, "mouth": "left", "places": at("page 5", 22, 50)}],
        [{**POCKET, "mouth": "right", "places": at("page 5", 22, 50)}],
    ),
    "F3: nothing to hold on to": (
        "linkbare",
        (),
        [{"kind": "fastener", "places": at("page 1")}],
        [{"kind": "fastener", "places": at("page 2")}],
    ),
    "F4: the mat after what lies on it": (
        "journal",
        (),
        [{"kind": "picture", "goes": "a7", "places": at("page 5")}, {"kind": "mat", "places": at("page 5")}],
        [{"kind": "mat", "places": at("page 5")}, {"kind": "picture", "goes": "a7", "places": at("page 5")}],
    ),
    "F5: the book gapes": (
        "journal",
        (),
        [{**THICK, "places": at("page 5")}],
        [{**THICK, "thick_mm": 1.0, "doubt_mm": 0.1, "places": at("page 5")}],
    ),
    "F6: all on one spot": (
        "journal",
        (),
        [
            {
                **THICK,
                "thick_mm": 1.0,
                "places": [{"on": f"page {n}", "x_mm": 10, "y_mm": 10} for n in (5, 7, 9)],
            }
        ],
        [
            {
                **THICK,
                "thick_mm": 1.0,
                "places": [
                    {"on": f"page {n}", "x_mm": x, "y_mm": y}
                    for n, x, y in ((5, 10, 10), (7, 80, 10), (9, 10, 110))
                ],
            }
        ],
    ),
    "F7: hinged at the spine": (
        "journal",
        (),
        [{**FLAP, "hinge": "left", "places": at("page 5")}],
        [{**FLAP, "hinge": "right", "places": at("page 5")}],
    ),
    "F7: flaps into each other": (
        "journal",
        (),
        [{**FLAP, "places": at("page 5", 20, 40)}, {**FLAP, "hinge": "tail", "places": at("page 5", 30, 60)}],
        [
            {**FLAP, "places": at("page 5", 20, 40)},
            {**FLAP, "hinge": "tail", "places": at("page 5", 20, 100)},
        ],
    ),
    "F9: longer than its page": (
        "pocket",
        (),
        [{**THICK, "height_mm": 170, "places": at("page 5")}],
        [{**THICK, "height_mm": 120, "places": at("page 5")}],
    ),
    "F9: past the edge": (
        "journal",
        (),
        [{**THICK, "places": at("page 5", 100, 10)}],
        [{**THICK, "places": at("page 5", 80, 10)}],
    ),
    "F9: what stands out is past it": (
        "journal",
        (),
        [{**POCKET, "stand_mm": 40, "places": at("page 5", 20, 20)}],
        [{**POCKET, "stand_mm": 40, "places": at("page 5", 20, 45)}],
    ),
    "F10: larger than its mat": (
        "journal",
        (),
        [{"kind": "mat", "width_mm": 80, "height_mm": 100, "goes": "a6", "places": at("page 5")}],
        [{"kind": "mat", "goes": "a6", "places": at("page 5")}],
    ),
    "F10: larger than its frame": (
        "journal",
        (),
        [
            {
                "kind": "mat",
                "way": "frame",
                "width_mm": 80,
                "height_mm": 100,
                "goes": "a6",
                "places": at("page 5"),
            }
        ],
        [{"kind": "mat", "way": "frame", "goes": "a6", "places": at("page 5")}],
    ),
    "overlap: one below the other": (
        "journal",
        (),
        [
            {**THICK, "places": at("page 5", 20, 20)},
            {"kind": "picture", "goes": "a7", "places": at("page 5", 30, 30)},
        ],
        [
            {**THICK, "places": at("page 5", 5, 5)},
            {"kind": "picture", "goes": "a7", "places": at("page 5", 70, 100)},
        ],
    ),
    "slant: more than half its height": (
        "journal",
        (),
        [{**POCKET, "slant_mm": 60, "places": at("page 5")}],
        [{**POCKET, "slant_mm": 30, "places": at("page 5")}],
    ),
    "slant: at its side": (
        "journal",
        (),
        [{**POCKET, "mouth": "right", "slant_mm": 20, "places": at("page 5")}],
        [{**POCKET, "mouth": "right", "places": at("page 5")}],
    ),
    "holds: magnets through padding": (
        "journal",
        (),
        [{"kind": "fastener", "through": "padded", "places": at("page 5")}],
        [{"kind": "fastener", "way": "dot", "through": "padded", "places": at("page 5")}],
    ),
    "holds: magnets too small": (
        "journal",
        (),
        [{"kind": "fastener", "across_mm": 6, "places": at("page 5")}],
        [{"kind": "fastener", "across_mm": 12, "places": at("page 5")}],
    ),
    "through: a window in the back of it": (
        "journal",
        (),
        [
            {"kind": "window", "places": at("page 5", 40, 40)},
            {"kind": "picture", "goes": "a7", "places": at("page 6", 40, 40)},
        ],
        [
            {"kind": "window", "places": at("page 5", 90, 150)},
            {"kind": "picture", "goes": "a7", "places": at("page 6", 70, 10)},
        ],
    ),
}
"""Each slip by a book that commits it and one that does not."""


@pytest.mark.parametrize("case", SLIPS)
def test_each_slip_is_caught_told_apart_and_mended_by_every_fix(case):
    slip = case.split(":")[0]
    name, changes, commits, does_not = SLIPS[case]
    book = put(of(name, *changes), *commits)
    checks = told(make_plan(book), slip)
    assert checks, f"{case} is told"
    if does_not is not None:
        assert slip not in keys(put(of(name, *changes), *does_not)), f"{case} is told apart"
    for check in checks:
        assert check.offers or check.no_fix, "every check says what to do"
        assert check.title[0].isupper()
        assert check.why.endswith(".")
        for offer in check.offers:
            after = make_plan(editing.apply(book, offer.changes))
            same = [one for one in told(after, slip) if one.title == check.title]
            assert not same, f"{offer.label!r} mends {check.title!r}"


def test_a_gusset_that_closes_over_what_is_put_in_is_told_and_grows():
    """F5 and F8 on a folio: what lies between the two panels of a gusset counts, what lies outside does
    not."""
    book = of("crossfold")
    block: Any = make_plan(book).pages
    room = max(block.made.rooms, key=lambda one: one.has_mm)
    inside, faces = within(block, room.wall), make_plan(book).extras.faces
    face = next(one for one in faces if side_of(one.name) in inside)
    out = next(
        one
        for one in faces
        if not one.cover
        and all(side_of(one.name) not in within(block, other.wall) for other in block.made.rooms)
    )
    thick = {"kind": "booklet", "width_mm": 40, "height_mm": 40, "thick_mm": 9.0, "doubt_mm": 0.0}
    told_ = [
        check
        for check in make_plan(put(book, {**thick, "places": at(face.name)})).extras.checks
        if check.key in ("F5", "F8")
    ]
    assert told_
    assert any(room.name in check.title for check in told_)
    assert not {"F5", "F8"} & keys(put(book, {**thick, "places": at(out.name)}))
    for check in told_:
        for offer in check.offers:
            after = make_plan(editing.apply(put(book, {**thick, "places": at(face.name)}), offer.changes))
            assert check.title not in [one.title for one in after.extras.checks]
    assert most(block, room, ()).likely == 0


def test_spacers_make_the_spine_as_thick_as_what_the_leaves_hold():
    book = put(of("journal"), {**THICK, "places": at("page 5")})
    before = make_plan(book)
    offer = told(before, "F5")[0].offers[0]
    after = make_plan(editing.apply(book, offer.changes))
    card = after.paper.stock("card").caliper.likely
    strips = sum(
        len(one.thing.pieces) for item in after.extras.items if item.key == "spacers" for one in item.spots
    )
    assert strips * card >= before.extras.beyond.likely
    assert (strips - 1) * card < before.extras.beyond.likely
    assert after.extras.added.likely == pytest.approx(strips * card)
    assert after.cover.spine.likely > before.cover.spine.likely + strips * card - 0.1


RIGHT = {
    "a wrap's spine": ("longstitch", lambda plan: plan.cover.spine.likely),
    "a case's fore edge": (
        "case",
        lambda plan: next(figure.value.likely for figure in plan.cover.figures if figure.key == "fore_edge"),
    ),
    "the gaps of a hinge": (
        "hills",
        lambda plan: next(figure.value for figure in plan.binding.figures if figure.key == "gap"),
    ),
    "gussets of a chain": (
        "connectors",
        lambda plan: next(figure.value for figure in plan.binding.figures if figure.key == "gusset"),
    ),
    "a post": ("posts", lambda plan: plan.binding.swell.likely + plan.cover.spine.likely),
}


@pytest.mark.parametrize("case", RIGHT)
def test_what_is_put_in_goes_to_what_holds_the_leaves(case):
    """A thing that lies right up to the spine of many pages makes it, its gap or its gusset wider."""
    name, measure = RIGHT[case]
    book = of(name)
    faces = [face for face in make_plan(book).extras.faces if not face.cover][::2]
    design = {"kind": "spacer", "layers": 4, "places": [{"on": face.name} for face in faces[:20]]}
    assert measure(make_plan(put(book, design))) > measure(make_plan(book))


def test_sticks_lie_farther_apart_once_sections_are_thicker_than_they_are():
    """Six sections of 1 mm and sticks of 2 mm: 22 mm of spacers make every section thicker than its stick."""
    book = of("sticks", ("binding.stick_mm", 2.0))
    faces = [face for face in make_plan(book).extras.faces if not face.cover][::2]
    full = put(book, {"kind": "spacer", "layers": 4, "places": [{"on": face.name} for face in faces[:20]]})
    before, after = make_plan(book), make_plan(full)
    assert sum(after.binding.pitch_mm) > sum(before.binding.pitch_mm)
    held = before.pages.thickness.likely + after.extras.added.likely
    assert sum(after.binding.pitch_mm) >= held - 0.1


def test_rings_hold_what_lies_at_them_and_what_stands_up_in_the_middle():
    rings = of("rings", ("binding.inner_mm", 19.0))
    many_ = [{"on": f"page {n}", "x_mm": 60, "y_mm": 60} for n in range(1, 80, 2)]
    full = put(rings, {**THICK, "thick_mm": 2.0, "places": many_})
    assert "D8" in {check.key for check in make_plan(full).binding.checks}
    assert "D8" not in {check.key for check in make_plan(rings).binding.checks}
    assert "F5" not in keys(full), "rings have room of their own, and say what they allow"


@pytest.mark.parametrize("name", ["rings", "fliptop", "posts"])
def test_what_lies_over_the_holes_is_told_and_moved_off_them(name):
    book = of(name)
    for face, width in (("page 5", 40), ("page 6", 40), ("page 5", 5000)):
        size = make_plan(book).pages.leaf_width_mm
        x = 0.0 if face == "page 5" else size - 40
        thing = {
            **THICK,
            "thick_mm": 0.5,
            "doubt_mm": 0.0,
            "width_mm": min(width, size - 1),
            "height_mm": 30,
            "places": at(face, x, 0.0),
        }
        plan = make_plan(put(book, thing))
        check = next(one for one in plan.binding.checks if one.key == "over_holes")
        for offer in check.offers:
            after = make_plan(editing.apply(put(book, thing), offer.changes))
            assert "over_holes" not in {one.key for one in after.binding.checks}
    clear = put(
        book, {**THICK, "thick_mm": 0.5, "doubt_mm": 0.0, "height_mm": 30, "places": at("page 5", 40.0, 60.0)}
    )
    assert "over_holes" not in {one.key for one in make_plan(clear).binding.checks}
