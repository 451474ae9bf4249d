"""Further pages of a book, found by the type of a result: a dummy, a step card. Most results have none."""

from __future__ import annotations

from pleat.core.base.plan import PleatResult
from pleat.core.base.points import point
from pleat.core.whole.planning import Plan


@point("print: pages", "further pages of a print")
def pages_of(_result: PleatResult, _plan: Plan, _width: float, _room: float) -> list[tuple[str, str]]:
    """(what it is, body) of further pages for a result, on paper of this width with so much room; mm."""
    return []
