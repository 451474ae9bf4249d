"""Every field that is declared changes something beyond its own echo: by itself, or together with what it is
said of."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule, TextRule, declared
from pleat.core.base.kinds import TAG
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES
from pleat.core.pleats.extras.kinds import EXTRAS
from pleat.core.whole.planning import worked_out
from tests.core.pleats.extras.test_extras import at, put
from tests.profiles import some
from tests.put import of

OTHERWISE = {"moved", "marks"}
"""Whether the partner of a hole that is dragged moves along is seen while it is dragged, and in no plan;
marks have tests of their own."""
SAME_FROM_BOTH_ENDS = {f"{kind}.covers_punched" for kind in ("Strips", "Filing", "Planner", "Wire", "Coil")}
"""Their holes are where bars and punches have them, so that covers meet them either way round."""
INSERT = [("pages.insert_width_mm", 60.0), ("pages.insert_height_mm", 150.0)]
OWN = [("pages.photo", "own"), ("pages.photo_width_mm", 60.0), ("pages.photo_height_mm", 80.0)]
TOGETHER: dict[str, Sequence[tuple[str, object]]] = {
    "trim_mm": [("pages.edges", "trim")],
    "inserts_at": [("cover.inserts_mm", 6.0)],
    "Quarter.seam": [("cover.strip_mm", 3.0)],
    "Wrap.hinge_mm": [("cover.creases", "four")],
    "Wrap.pockets": [("cover.flaps_mm", 50.0)],
    "Layered.hinge_mm": [("cover.creases", "four")],
    "Layered.pockets": [("cover.flaps_mm", 50.0)],
    "PadCover.upright": [("paper.cover.pattern", "directional")],
    "odd_at": [("pages.odd_amount", 1)],
    "Rings.end_mm": [("binding.spread", "ends")],
    "covers_punched": [("cover.kind", "cards"), ("binding.positions_mm", [40.0, 100.0])],
    "Wire.pitch_mm": [("binding.per", "own")],
    "Coil.pitch_mm": [("binding.per", "own")],
    "Loop.tail_mm": [("binding.made", "cord")],
    "Loop.thread_cut_mm": [("binding.made", "cord")],
    "Flapped.fastened_mm": [("cover.fastener", "magnet")],
    "PadCover.fastened_mm": [("cover.fastener", "magnet")],
    "fastened_mm": [("pages.fastener", "magnet")],
    "insert_width_mm": INSERT,
    "insert_height_mm": INSERT,
    "insert_thick_mm": INSERT,
    "stand_mm": INSERT,
    "BagFolio.stand_mm": [*INSERT, ("pages.pocket_mm", 60.0)],
    "photo_width_mm": OWN,
    "photo_height_mm": OWN,
    "wanted": [("pages.photo", "a7")],
    "bulk": [("pages.photo", "a7")],
    "bulk_mm": [("pages.photo", "a7")],
    "flip_mm": [("pages.flips", "fore")],
    "flip_tab_mm": [("pages.flips", "fore")],
}
"""What a field is said of, by its name, or by its record's and its own."""
DESIGNS: tuple[dict[str, Any], ...] = (
    {},
    {"goes": "a7"},
    {"goes": "own", "goes_width_mm": 60, "goes_height_mm": 80},
    {"nested": 2, "pockets": 3},
    {"slant_mm": 10},
    {"rows": 2},
    {"way": "index"},
)


def fields(record):
    """(name, rule) of what a maker may set to one value."""
    for name, field in type(record).model_fields.items():
        rule = declared(field).rule
        if name != TAG and rule is not None and not isinstance(rule, TextRule) and not declared(field).many:
            yield name, rule


def others(rule, held):
    """Some values that a field may have instead."""
    if isinstance(rule, ChoiceRule):
        return [word for key, _ in rule.words if (word := int(key) if key.isdecimal() else key) != held]
    low, high = (rule.low_mm, rule.high_mm) if isinstance(rule, LengthRule) else (rule.low, rule.high)
    base = held or (low + min(high, low + 60)) / 2
    found = [min(max(base * share, low), high) for share in (0.5, 0.8, 1.3, 2.0, 4.0)] + [low, high]
    return [
        value
        for one in found
        if (value := round(one) if isinstance(rule, NumberRule) and rule.whole else one) != held
    ]


def counts(book, path, rule, held):
    before = worked_out(book)
    for value in others(rule, held):
        try:
            if worked_out(editing.apply(book, [(path, value)])) != before:
                return True
        except BadBook:
            continue
    return False


def cases():
    seen = set()
    for recipe in RECIPES:
        for pleat in ("brief", "pages", "binding", "cover"):
            record = getattr(of(recipe.name), pleat)
            for name, rule in fields(record):
                key = (type(record).__name__, name)
                if key not in seen and name not in OTHERWISE and ".".join(key) not in SAME_FROM_BOTH_ENDS:
                    seen.add(key)
                    yield pytest.param(recipe.name, pleat, name, rule, id=".".join(key))


@pytest.mark.parametrize(("recipe", "pleat", "name", "rule"), some(list(cases()), 4))
def test_a_field_of_a_member_changes_the_plan(recipe, pleat, name, rule):
    book = of(recipe)
    record = getattr(book, pleat)
    together = TOGETHER.get(f"{type(record).__name__}.{name}", TOGETHER.get(name, []))
    book = editing.apply(
        book,
        [(path, value) for path, value in together if not path.endswith(f".{name}") or len(together) > 1],
    )
    assert counts(book, f"{pleat}.{name}", rule, getattr(getattr(book, pleat), name))


@pytest.mark.parametrize(
    ("kind", "name", "rule"),
    some(
        [
            pytest.param(kind, name, rule, id=f"{kind.name}.{name}")
            for kind in EXTRAS.members
            for name, rule in fields(kind.record(kind=kind.name))
        ],
        4,
    ),
)
def test_a_field_of_what_is_put_in_changes_the_plan(kind, name, rule):
    for more in DESIGNS:
        own = {field: value for field, value in more.items() if field in kind.record.model_fields}
        try:
            book = put(of("journal"), {"kind": kind.name, **own, "places": at("page 7")})
        except BadBook:
            continue
        if counts(book, f"extras.items.d0.{name}", rule, getattr(book.extras.items["d0"], name)):
            return
    raise AssertionError(f"{name} of a {kind.title} changes nothing")
