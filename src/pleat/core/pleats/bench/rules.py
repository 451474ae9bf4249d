"""What comes before what at the bench, by the sort of work a step is: the one table of it.

Common practice, no source: cuts go before glue, mats before what sits on them, a lining before the block is
hung in, and nothing slides in, flips or shuts before its glue is dry.
"""

from __future__ import annotations

from typing import Final

BEFORE: Final[tuple[tuple[str, str], ...]] = (
    ("cut-out", "glue"),
    ("mat", "on a mat"),
    ("lining", "hanging in"),
    ("glue", "insert"),
    ("glue", "shut"),
)
"""(sort of work, sort of work that waits for all of it)."""
