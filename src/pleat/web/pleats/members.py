"""What the template of a member needs beyond what every member has, found by the type of its result.

``partial`` names the member's own template; without one the page is made from the drawing and the record's
rules.
"""

from __future__ import annotations

from pleat.core.base.plan import PleatResult
from pleat.core.base.points import point
from pleat.services.books import Opened


@point("form", "what the template of a member shows besides its fields")
def about(_result: PleatResult, _opened: Opened) -> dict[str, object]:
    """The values of a member's template, for a member without one of its own: none."""
    return {}
