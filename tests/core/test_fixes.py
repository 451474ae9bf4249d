"""Whatever is wrong with whatever book: each fix that is offered can be taken, and what it was offered for is gone or smaller."""

from __future__ import annotations

from hypothesis import given, settings

from pleat.core import editing
from pleat.core.planning import make_plan
from tests.strategies import books

LEVELS = ("note", "watch", "stop")


@settings(max_examples=120)
@given(books)
def test_every_fix_of_any_book_can_be_taken_and_does_something(book):
    plan = make_plan(book)
    for pleat, check in plan.checks:
        assert check.fixes or check.no_fix, f"{check.key} says neither what would mend it nor why nothing does"
        for fix in check.fixes:
            mended = editing.apply(book, fix.changes)
            assert mended != book, f"{check.key}, {fix.label}: changes nothing"
            after = {one.key: one for name, one in make_plan(mended).checks if name == pleat}
            again = after.get(check.key)
            assert again is None or again != check, f"{check.key}, {fix.label}: nothing is better"
            assert again is None or LEVELS.index(again.level) <= LEVELS.index(check.level), f"{check.key}, {fix.label}: it is worse"
