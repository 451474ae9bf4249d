"""What a check offers is a way out of the whole book: damaged one field at a time in every kind, no offer
leaves its check or wakes another stop."""

from __future__ import annotations

import random
from collections import Counter

import pytest

from pleat.core.base.errors import BadBook
from pleat.core.base.plan import Check, Offer
from pleat.core.document import editing
from pleat.core.document.recipes import RECIPES
from pleat.core.whole.planning import make_plan, worked_out
from pleat.core.whole.ways_out import MOST_TRIED, NO_WAY, Trial
from tests.kinds.test_every_field_counts import fields, others
from tests.profiles import LONG, some
from tests.put import of

TRIED = 400 if LONG else 2
"""Values that are tried of each kind."""


def damaged(name):
    """Books of a kind with one field at one of the values it may have, by chance."""
    book, chance = of(name), random.Random(name)
    changes = [
        (f"{pleat}.{field}", value)
        for pleat in ("brief", "pages", "binding", "cover")
        for field, rule in fields(getattr(book, pleat))
        for value in others(rule, getattr(getattr(book, pleat), field))
    ]
    for change in chance.sample(changes, min(TRIED, len(changes))):
        for ruler in ("mm", "in"):
            try:
                yield change, editing.apply(book, [("brief.ruler", ruler), ("brief.marks", None), change])
            except BadBook:
                continue


def alike(plan, level):
    return Counter((pleat, check.key) for pleat, check in plan.checks if check.level == level)


@pytest.mark.every(2)
@pytest.mark.parametrize("name", some([one.name for one in RECIPES], 2))
def test_no_offer_leaves_its_check_or_wakes_a_stop(name):
    for change, book in damaged(name):
        plan = make_plan(book)
        tried = [len(check.offers) for _, check in plan.untried.checks]
        if 3 * sum(tried) > MOST_TRIED:
            continue
        for pleat, check in plan.checks:
            assert check.offers or check.no_fix
            for offer in check.offers:
                after = worked_out(editing.apply(book, offer.changes))
                said = f"{change}: {check.title} → {offer.label}"
                assert (
                    alike(after, check.level)[pleat, check.key] < alike(plan, check.level)[pleat, check.key]
                ), said
                assert not alike(after, "stop") - alike(plan, "stop"), said
                watched = [
                    one.title
                    for _, one in after.checks
                    if one.level == "watch" and one.title not in {c.title for _, c in plan.checks}
                ]
                assert not alike(after, "watch") - alike(plan, "watch") or "then: " in offer.label, (
                    said,
                    watched,
                )


def of_checks(*checks):
    return [("cover", check) for check in checks]


SMALL = Offer(label="a smaller leaf", changes=(("brief.leaf_width_mm", 100.0),))
SHORT = Offer(label="a shorter flap", changes=(("pages.flap_mm", 50.0),))
B3 = Check(code="B3", level="stop", title="The sheet is too small.", why="", offers=(SMALL,))
FLAP = Check(code="flap_room", level="stop", title="No room for the flap.", why="", offers=(SHORT,))
GRAIN = Check(code="B7", level="watch", title="The grain runs across.", why="", no_fix="Turn it.")


@pytest.mark.parametrize(
    ("answers", "labels", "no_fix"),
    [
        ({SMALL.changes: []}, ["a smaller leaf"], ""),
        ({SMALL.changes: [GRAIN]}, ["a smaller leaf; then: the grain runs across"], ""),
        (
            {SMALL.changes: [FLAP], SMALL.changes + SHORT.changes: []},
            ["a smaller leaf, and a shorter flap"],
            "",
        ),
        (
            {SMALL.changes: [FLAP], SMALL.changes + SHORT.changes: [FLAP]},
            [],
            "“a smaller leaf” leads to: No room for the flap.",
        ),
        ({SMALL.changes: [B3]}, [], "“a smaller leaf” is not enough: The sheet is too small."),
        ({SMALL.changes: None}, [], NO_WAY),
    ],
)
def test_an_offer_is_kept_joined_told_or_left_out(answers, labels, no_fix):
    trial = Trial(
        of_checks(B3),
        lambda changes: None if answers.get(changes, []) is None else of_checks(*answers.get(changes, [B3])),
    )
    check = trial.sure(("cover", B3))
    assert [one.label for one in check.offers] == labels
    assert check.no_fix == no_fix


def test_nothing_is_joined_that_was_not_tried():
    trial = Trial(of_checks(B3), lambda _: of_checks(FLAP), left=1)
    check = trial.sure(("cover", B3))
    assert not check.offers
    assert "leads to: No room for the flap." in check.no_fix
    assert trial.sure(("cover", B3)) == B3, "what is left untried stays as its pleat thought of it"
