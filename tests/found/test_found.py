"""What planning real books found wrong, case by case: ``cases.json`` has the inputs, what they gave and what
is right, with the reason."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from tests.found.reading import holds

CASES = {case["id"]: case for case in json.loads((Path(__file__).parent / "cases.json").read_text())}


@pytest.mark.every(2)
@pytest.mark.parametrize("key", CASES)
def test_a_case_that_was_found_holds(key):
    case = CASES[key]
    held, got, missing = holds(case)
    assert held, f"{case['title']}: {got} {missing or ''}, want {case['want']}: {case['why']}"
