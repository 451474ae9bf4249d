"""The pamphlet stitch: one section and its soft cover sewn together through the fold, one knot.

Three stations: out at the middle, in at one end, straight past the middle to the other end, back to the middle.
Five: middle, down the inner, outer, inner, past, other inner, outer, inner, middle, so that every gap is covered
on both sides. Common practice, no source.
"""

from __future__ import annotations

from typing import Final

from pleat.core.binding.kinds.registry import Kind, Sewing, register, thread_way
from pleat.core.binding.path import Span, other
from pleat.core.plan import Step, signature

_HOLES: Final[dict[int, tuple[int, ...]]] = {3: (2, 1, 3, 2), 5: (3, 2, 1, 2, 4, 5, 4, 3)}
AWL: Final = (
    "The awl points away from both hands: pierce into a trough or a thick pad, never toward a finger, and cork it when you put it down."
)
NEEDLE: Final = "Pull the needle away from your face and put it in a pad, not on the table."


def holes(stations: int) -> tuple[int, ...]:
    """The order of holes, 1 at the head. Raises KeyError for a number of stations it is not made for."""
    return _HOLES[stations]


def steps(sewing: Sewing) -> tuple[Step, ...]:
    """From the station strip to the knot; the cover goes round the section before anything is pierced."""
    ruler, path = sewing.ruler, sewing.path
    marks = ", ".join(ruler.number(position) for position in sewing.positions_mm)
    side = path.start_side
    knot_hole = path.holes[0] if path.holes else 1
    marked = signature(*sewing.positions_mm)
    times = sewing.sections * sewing.quantity
    return (
        Step(
            "strip",
            "Make one station strip",
            f"Print it true size, or fold a strip of card in the middle and mark {marks} {ruler.name} from the head. Write HEAD on it. The same strip serves section and cover.",
            ("card strip", "pencil"),
            ("nested",),
            signature=marked,
            for_all=True,
        ),
        Step(
            "cover_on",
            "Put the cover round the section" if sewing.sections == 1 else f"Put the cover round the {sewing.sections} sections",
            "Fold to fold, the cover standing out evenly at head and tail. It is sewn together with the leaves, so it has to be there before the first hole.",
            (),
            ("nested", "cover_scored"),
        ),
        Step(
            "clip",
            "Align and clip",
            "Knock everything up to the fold and the head, then clip both sides so that nothing moves.",
            ("clips",),
            ("cover_on",),
        ),
        Step(
            "pierce",
            f"Pierce {len(sewing.positions_mm)} holes through {'section' if sewing.sections == 1 else 'each section'} and cover",
            f"{'' if sewing.sections == 1 else 'Every section has a row of holes of its own across the spine, as drawn on the cover. '}Lay the strip in the fold, HEAD to head, and pierce each mark straight through the fold from the inside.",
            ("awl", "station strip", "trough or thick pad"),
            ("strip", "clip"),
            cautions=(AWL,),
            signature=marked,
        ),
        Step(
            "thread",
            f"Cut {ruler.show(ruler.snap_up(sewing.thread_mm))} of thread{'' if times == 1 else f', {times} times'}",
            f"{sewing.thread_name}, taken {'double' if sewing.strands == 2 else 'single'}. Wax it if it is not waxed. Thread the needle.",
            ("scissors", "needle"),
            signature=signature(sewing.thread_mm, sewing.strands),
            for_all=True,
        ),
        Step(
            "sew",
            "Sew" if sewing.sections == 1 else f"Sew {sewing.sections} times, section by section",
            f"{'' if sewing.sections == 1 else 'Each section through its own row of holes with its own thread. '}Start {side}, leaving a tail of {ruler.show(sewing.tail_mm)}: {_in_words(path.spans, path.holes, len(sewing.positions_mm))}. Pull along the fold, not across it.",
            ("needle",),
            ("pierce", "cover_on", "thread"),
            cautions=(NEEDLE,),
            signature=signature(path.holes, path.start_side),
        ),
        Step(
            "knot",
            "Tie the tails",
            f"Bring the two tails to opposite sides of the long stitch at hole {knot_hole} and tie a square knot over it, {side}: left over right, then right over left.",
            (),
            ("sew",),
        ),
        Step(
            "tails",
            "Trim the tails",
            f"Leave about {ruler.show(15)}."
            if side == "inside"
            else f"Leave them long if something is to hang from them, else about {ruler.show(15)}.",
            ("scissors",),
            ("knot",),
        ),
    )


def _in_words(spans: tuple[Span, ...], holes_: tuple[int, ...], stations: int) -> str:
    """``out at 2, in at 1, along the inside to 3 and out, ...``"""
    if not spans:
        return "nowhere yet"
    words = [f"{thread_way(other(spans[0].side))} at {holes_[0]}"]
    for span in spans:
        words.append(f"{span.side}{span.past(stations)} to {span.end}, {thread_way(span.side)}")
    return "; ".join(words)


register(
    Kind(
        name="pamphlet",
        title="single-section journal, pamphlet stitch",
        summary="One section in a soft cover, sewn together through the fold with three or five holes and one knot.",
        station_counts=(3, 5),
        through_cover=True,
        holes=holes,
        steps=steps,
        most_sections=2,
    )
)
