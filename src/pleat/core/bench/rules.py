"""What comes before what at the bench, by the sort of work a step is: the one table of it.

Common practice, no source: work that wants flat sheets goes before folding in, cuts before glue, fasteners before the paper that hides
them, mats before what sits on them, a lining before the block is hung in, and nothing slides in, flips or shuts before its glue is dry.
"""

from __future__ import annotations

from typing import Final

BEFORE: Final[tuple[tuple[str, str], ...]] = (
    ("flat", "fold"),
    ("cut-out", "glue"),
    ("fastener", "hiding paper"),
    ("mat", "on a mat"),
    ("lining", "hanging in"),
    ("glue", "insert"),
    ("glue", "shut"),
)
"""(sort of work, sort of work that waits for all of it)."""
