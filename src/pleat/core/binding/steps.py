"""The bench steps of a sewing through the fold: from the station strip to the pressed book."""

from __future__ import annotations

from typing import Final

from pleat.core.binding.figures import Sewn
from pleat.core.binding.path import Side, Span, other
from pleat.core.binding.result import LeftOfBinding
from pleat.core.binding.thread import name_of
from pleat.core.cautions import WEIGHT
from pleat.core.plan import Missing, Step, signature
from pleat.core.units import Ruler

AWL: Final = (
    "The awl points away from both hands: pierce into a trough or a thick pad, never toward a finger, and cork it when you put it down."
)
NEEDLE: Final = "Pull the needle away from your face and put it in a pad, not on the table."


def of(sewn: Sewn, left: LeftOfBinding) -> tuple[Step, ...]:
    """Every step of it; a cover that is sewn with the leaves goes round them before anything is pierced."""
    ruler, sections = left.brief.ruler, len(left.pages.units)
    covered = left.brief.made_of.cover.sewn_through
    return (
        _strip(sewn, ruler, "section and cover" if covered else "every section" if sections > 1 else "every book"),
        *((_cover_on(sections),) if covered else ()),
        _clip(),
        _pierce(sewn, sections, covered),
        _thread(sewn, ruler, sections * left.brief.quantity),
        _sew(sewn, ruler, sections),
        *_knot(sewn, ruler),
        *_pressed(),
    )


def _strip(sewn: Sewn, ruler: Ruler, serves: str) -> Step:
    marks = ", ".join(ruler.number(position) for position in sewn.positions_mm)
    return Step(
        "strip",
        "Make one station strip",
        f"Print it true size, or fold a strip of card in the middle and mark {marks} {ruler.name} from the head. Write HEAD on it. The same strip serves {serves}.",
        ("card strip", "pencil"),
        needs=("block.nested",),
        gives=("stations.marked",),
        signature=signature(*sewn.positions_mm),
        for_all=True,
    )


def _cover_on(sections: int) -> Step:
    return Step(
        "cover_on",
        "Put the cover round the section" if sections == 1 else f"Put the cover round the {sections} sections",
        "Fold to fold, the cover standing out evenly at head and tail. It is sewn together with the leaves, so it has to be there before the first hole.",
        needs=("block.nested", "cover.scored"),
        gives=("cover.on",),
        missing=Missing(
            slip="D1",
            words="the cover is not round the section",
            why="This stitch goes through leaves and cover together. Sewn without it, the thread has to come out again: it is the classic mistake.",
            done="the cover is on, tick it",
            undo="untick, and put the cover on",
        ),
    )


def _clip() -> Step:
    return Step(
        "clip",
        "Align and clip",
        "Knock everything up to the fold and the head, then clip both sides so that nothing moves.",
        ("clips",),
        needs=("block.nested", "cover.on"),
        gives=("block.clipped",),
    )


def _pierce(sewn: Sewn, sections: int, covered: bool) -> Step:
    rows = "Every section has a row of holes of its own across the spine, as drawn on the cover. "
    return Step(
        "pierce",
        f"Pierce {len(sewn.positions_mm)} holes through {'section' if sections == 1 else 'each section'}{' and cover' if covered else ''}",
        f"{'' if sections == 1 or not covered else rows}Lay the strip in the fold, HEAD to head, and pierce each mark straight through the fold from the inside.",
        ("awl", "station strip", "trough or thick pad"),
        needs=("stations.marked", "block.clipped", "cover.on"),
        gives=("block.pierced",),
        minutes=2 + 0.5 * len(sewn.positions_mm) * sections,
        cautions=(AWL,),
        signature=signature(*sewn.positions_mm),
    )


def _thread(sewn: Sewn, ruler: Ruler, times: int) -> Step:
    return Step(
        "thread",
        f"Cut {ruler.show(ruler.snap_up(sewn.need.total_mm))} of thread{'' if times == 1 else f', {times} times'}",
        f"{name_of(sewn.binding.thread)}, taken {'double' if sewn.binding.strands == 2 else 'single'}. Wax it if it is not waxed. Thread the needle.",
        ("scissors", "needle"),
        gives=("thread.cut",),
        signature=signature(sewn.need.total_mm, sewn.binding.strands),
        for_all=True,
    )


def _sew(sewn: Sewn, ruler: Ruler, sections: int) -> Step:
    path = sewn.path
    words = _in_words(path.spans, path.holes, len(sewn.positions_mm))
    return Step(
        "sew",
        "Sew" if sections == 1 else f"Sew {sections} times, section by section",
        f"{'' if sections == 1 else 'Each section through its own row of holes with its own thread. '}Start {path.start_side}, leaving a tail of {ruler.show(sewn.binding.tail_mm)}: {words}. Pull along the fold, not across it.",
        ("needle",),
        needs=("block.pierced", "cover.on", "thread.cut"),
        gives=("block.sewn",),
        minutes=1 + 1.5 * len(path.spans) * sections,
        cautions=(NEEDLE,),
        signature=signature(path.holes, path.start_side),
    )


def _knot(sewn: Sewn, ruler: Ruler) -> tuple[Step, ...]:
    side, hole = sewn.path.start_side, sewn.path.holes[0] if sewn.path.holes else 1
    return (
        Step(
            "knot",
            "Tie the tails",
            f"Bring the two tails to opposite sides of the long stitch at hole {hole} and tie a square knot over it, {side}: left over right, then right over left.",
            needs=("block.sewn",),
            gives=("thread.tied",),
        ),
        Step(
            "tails",
            "Trim the tails",
            f"Leave about {ruler.show(15)}."
            if side == "inside"
            else f"Leave them long if something is to hang from them, else about {ruler.show(15)}.",
            ("scissors",),
            needs=("thread.tied",),
            gives=("thread.trimmed",),
        ),
    )


def _pressed() -> tuple[Step, ...]:
    return (
        Step(
            "crease",
            "Crease again",
            "Close the book and run the bone folder along the spine: sewing has opened the fold a little.",
            ("bone folder",),
            needs=("thread.trimmed",),
            gives=("book.creased",),
        ),
        Step(
            "press_book",
            "Press the book",
            "Under a weight, overnight if you can.",
            ("boards and a weight",),
            needs=("book.creased",),
            gives=("book.bound",),
            wait_minutes=480,
            cautions=(WEIGHT,),
        ),
    )


def _in_words(spans: tuple[Span, ...], holes_: tuple[int, ...], stations: int) -> str:
    """``out at 2, in at 1, along the inside to 3 and out, ...``"""
    if not spans:
        return "nowhere yet"
    words = [f"{_way(other(spans[0].side))} at {holes_[0]}"]
    for span in spans:
        words.append(f"{span.side}{span.past(stations)} to {span.end}, {_way(span.side)}")
    return "; ".join(words)


def _way(side: Side) -> str:
    """The words for a passage that leaves ``side``."""
    return "out" if side == "inside" else "in"
