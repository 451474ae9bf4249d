"""States of the work: none is misspelt, and none stands in the table that no book has."""

from __future__ import annotations

import pytest

from pleat.core.base.plan import Step
from pleat.core.base.states import STATES
from pleat.core.document.bookfile import read_book
from pleat.core.whole.planning import worked_out
from pleat.examples import names, text


def test_every_state_of_the_table_is_one_of_some_step():
    steps = [one.step for example in names() for one in worked_out(read_book(text(example))).bench.work]
    named = {state for step in steps for state in (*step.needs, *step.gives, *step.uses, *step.closes)}
    assert {f"{thing}.{word}" for thing, words in STATES.items() for word in words} - named == set()


@pytest.mark.parametrize("state", ["cover.scord", "moon.up", "leaf", "block.on", ""])
def test_a_state_that_stands_in_no_table_is_refused(state: str):
    with pytest.raises(ValueError, match="no state of the work called"):
        Step(key="k", title="t", detail="d", needs=(state,))
