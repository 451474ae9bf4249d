"""How each result looks, found by its type: small on its folded pleat, and large on the open one.

A member draws its own result in a module of its own, which registers it here; what is not registered looks
like its kind in general.
"""

from __future__ import annotations

from pleat.core.base.plan import PleatResult
from pleat.core.base.points import point
from pleat.core.whole.planning import Plan
from pleat.drawing.shapes import Drawing


@point("strip", "the small drawing on a folded pleat")
def strip(result: PleatResult, plan: Plan) -> Drawing:
    """The small drawing on a folded pleat. Raises NotImplementedError for a result that nobody draws."""
    raise NotImplementedError(type(result))


@point("drawing", "the large drawing of an open pleat")
def main(result: PleatResult, plan: Plan) -> Drawing:
    """The large drawing of an open pleat. Raises NotImplementedError for a result that nobody draws."""
    raise NotImplementedError(type(result))
