"""How much a run of the suite tries: the quick one of ``make test``, or the long one of ``make long-test``,
by hand.

What the long one finds becomes an ``@example`` (or a case) of the quick one.
"""

from __future__ import annotations

import os
from collections.abc import Sequence
from typing import Any

LONG = os.environ.get("PLEAT_SUITE") == "long"
SHARE, LEAST = 0.1, 3


def examples(many: int) -> int:
    """Of a property that is worth ``many`` examples: how many this run tries."""
    return many if LONG else max(LEAST, round(many * SHARE))


def some(cases: Sequence[Any], every: int, first: int = 0) -> Sequence[Any]:
    """All cases in the long run, one of ``every`` so many in the quick one."""
    return cases if LONG else cases[first::every]
