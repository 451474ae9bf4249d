"""The jig for holes along an edge, as wide as the strip it is laid on; and one for covers with a square."""

from __future__ import annotations

from pleat.core.pleats.binding.punched.record import PunchedResult
from pleat.core.whole.planning import Plan
from pleat.printing.strips import MarkOn, Strip, strips_of


@strips_of.register
def jigs(result: PunchedResult, plan: Plan) -> tuple[Strip, ...]:
    """The held edge lies along the strip's left side, the head at its top (of a book held at its head, the
    left)."""
    if not result.positions_mm:
        return ()
    leaf = _jig("Jig for the leaves", result, plan, 0.0, 0.0)
    cover, square = plan.cover, 0.0
    if not cover.holes_mm or len(cover.holes_mm) != len(result.positions_mm):
        return (leaf,)
    square = cover.holes_mm[0] - result.positions_mm[0]
    reach = cover.front_height_mm if result.along == "head" else cover.front_width_mm
    edge = max(0.0, reach - result.reach_mm - cover.square_fore_mm)
    if square < 0.05 and edge < 0.05:
        return (leaf,)
    return (leaf, _jig("Jig for the covers", result, plan, square, edge))


def _jig(name: str, result: PunchedResult, plan: Plan, square: float, edge: float) -> Strip:
    ruler = plan.brief.ruler
    marks = tuple(
        MarkOn(
            position + square,
            f"{number}: {ruler.number(position + square)}",
            "cross",
            hole=True,
            hole_mm=result.hole_mm,
        )
        for number, position in enumerate(result.positions_mm, 1)
    )
    ends = ("LEFT", "right") if result.along == "head" else ("HEAD", "tail")
    said = f"{name}, held edge on the left"
    return Strip(
        said,
        result.edge_mm + 2 * square,
        marks,
        *ends,
        width_mm=result.jig_mm + edge,
        rows_mm=(result.inset_mm + edge,),
    )
