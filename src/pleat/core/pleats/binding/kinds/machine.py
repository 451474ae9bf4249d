"""A seam along the fold, sewn by machine: a pitch and not a path, so it has no stations and its own
result."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.base.kinds import Member, Suits, Traits
from pleat.core.base.plan import Check, Figure, Length, Missing, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.engines.sewing.swell import of_strands
from pleat.core.pleats.binding.record import Thread
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding
from pleat.core.pleats.binding.thread import diameter_mm, name_of
from pleat.core.trade.sewing import MACHINE_SEWS_MM, NEEDLE_HOLES_SHARE, THREAD_SPARE_SHARE

LONGEST_MM: Final = 12
MACHINE: Final = (
    "Sewing machine: follow its own instructions, keep fingers clear of the needle, switch it "
    "off to change the needle, and wear glasses: needles break on card."
)


class Machine(Member):
    """A straight seam from head to tail: the length of a stitch, the needle, and how far the seam stays from
    the ends."""

    kind: Literal["machine"] = "machine"
    pitch_mm: Annotated[float, LengthRule("the stitch", 1, LONGEST_MM, fine=True)] = 4.0
    needle_mm: Annotated[float, LengthRule("the needle's thickness", 0.5, 2, fine=True)] = 1.0
    inset_mm: Annotated[float, LengthRule("the seam from head and tail", 0, 100)] = 5.0
    tail_mm: Annotated[float, LengthRule("each tail", 30, 1000)] = 90.0
    thread: Thread = Thread(name="polyester, sewing", diameter_mm=0.3, fibre="polyester")


@dataclass(frozen=True, kw_only=True)
class SeamResult(BindingResult):
    """The seam in mm: where it begins and ends from the head, its stitch as it comes out, and how many
    stitches."""

    begins_mm: float
    ends_mm: float
    pitch_mm: float
    stitches: int
    thread_swatch: str


def seam_mm(length_mm: float, stitches: int, deep_mm: float) -> float:
    """One of the two threads of a lockstitch: along the seam once, and half of every hole's depth down and up
    again."""
    return length_mm + (stitches + 1) * deep_mm


def stitches_in(length_mm: float, pitch_mm: float) -> int:
    """Whole stitches of about this length in a seam."""
    return max(1, round(length_mm / pitch_mm))


def compute(record: Machine, left: LeftOfBinding) -> SeamResult:
    """Where the seam runs, in how many stitches, and what thread it takes."""
    ruler, height = left.brief.ruler, left.pages.leaf_height_mm
    inset = min(record.inset_mm, height / 4)
    length = height - 2 * inset
    stitches = stitches_in(length, record.pitch_mm)
    pitch = length / stitches
    card = left.paper.cover.caliper.likely if left.brief.made_of.cover.sewn_through else 0.0
    deep = left.pages.through.likely + card
    each = (2 * seam_mm(length, stitches, deep) + 4 * record.tail_mm) * (1 + THREAD_SPARE_SHARE)
    sections = len(left.pages.units)
    shown = _figures(record, left, (inset, length, stitches, pitch, deep, each))
    covered = left.brief.made_of.cover.sewn_through
    return SeamResult(
        key_figure=shown[0],
        figures=shown,
        checks=_checks(record, ruler, length, deep),
        parts=(
            Length(
                key="thread",
                name=name_of(record.thread),
                length_mm=ruler.snap_up(each),
                count=sections * left.brief.quantity,
                stock=record.thread.stock_id or "",
            ),
        ),
        steps=_steps(record, ruler, (inset, stitches, pitch), sections, covered),
        at="fold",
        height_mm=height,
        swell=of_strands(1, diameter_mm(record.thread)).times(sections),
        look="the seam on the fold",
        begins_mm=inset,
        ends_mm=height - inset,
        pitch_mm=pitch,
        stitches=stitches,
        thread_swatch=record.thread.swatch,
    )


def _figures(
    record: Machine, left: LeftOfBinding, seam: tuple[float, float, int, float, float, float]
) -> tuple[Figure, ...]:
    ruler = left.brief.ruler
    inset, length, stitches, pitch, deep, each = seam
    sections, books = len(left.pages.units), left.brief.quantity
    return (
        Figure(
            key="stitches",
            label="seam",
            value=f"{stitches} stitches",
            show="text",
            how=f"From {ruler.show(inset)} to {ruler.show(inset + length)}, {ruler.show(length)} ÷ "
            f"{stitches} = {ruler.fine(pitch)} a stitch.",
            rules=(Rule("machine_stitch", "long stitches in paper, 3.5 to 5 mm; no source"),),
            scrap=f"{ruler.fine(pitch)} a stitch, from {ruler.show(inset)}",
        ),
        Figure(
            key="thread",
            label="thread for one seam, both spools",
            value=ruler.snap_up(each),
            show="length",
            aside=f"{sections * books} seams" if sections * books > 1 else "",
            how=f"Each of the two threads goes along once, {ruler.show(length)}, and half way through "
            f"{ruler.fine(deep)} of paper and back at each of {stitches + 1} holes; four tails of "
            f"{ruler.show(record.tail_mm)} and {THREAD_SPARE_SHARE:.0%} spare.",
            rules=(Rule("arithmetic", "a lockstitch meets in the middle of the paper"),),
            scrap=ruler.show(ruler.snap_up(each)),
        ),
        Figure(
            key="holes",
            label="holes take of the fold",
            value=f"{record.needle_mm / pitch:.0%}",
            show="text",
            how=f"A needle of {ruler.fine(record.needle_mm)} every {ruler.fine(pitch)}.",
            rules=(Rule("NEEDLE_HOLES_SHARE", "a third at most"),),
        ),
    )


def _longer(record: Machine, length: float) -> float | None:
    """The shortest stitch in half millimetres that, made whole over the seam, keeps the holes far enough
    apart."""
    halves = range(math.ceil(record.needle_mm / NEEDLE_HOLES_SHARE * 2), 2 * LONGEST_MM + 1)
    return next(
        (half / 2 for half in halves if not _tears(record.needle_mm, length / stitches_in(length, half / 2))),
        None,
    )


def _tears(needle: float, pitch: float) -> bool:
    return needle / pitch > NEEDLE_HOLES_SHARE + 1e-9


def _checks(record: Machine, ruler: Ruler, length: float, deep: float) -> tuple[Check, ...]:
    checks = []
    pitch = length / stitches_in(length, record.pitch_mm)
    if _tears(record.needle_mm, pitch):
        longer = _longer(record, length)
        checks.append(
            Check(
                code="perforated",
                level="watch",
                title=f"The holes take {record.needle_mm / pitch:.0%} of the fold: it tears along the seam "
                "like a stamp.",
                why=f"Needle {ruler.fine(record.needle_mm)}, a stitch {ruler.fine(pitch)}; a third is the "
                "most paper bears.",
                offers=(
                    Offer(label=f"stitches of {ruler.fine(longer)}", changes=(("binding.pitch_mm", longer),)),
                )
                if longer
                else (),
                no_fix="" if longer else "Take a thinner needle.",
            )
        )
    if deep > MACHINE_SEWS_MM:
        checks.append(
            Check(
                code="deep",
                level="stop",
                title=f"{ruler.thin(deep)} of paper is more than a sewing machine goes through.",
                why=f"About {ruler.thin(MACHINE_SEWS_MM)} is what one made for cloth bears; its own "
                "instructions come first.",
                offers=(Offer(label="sew it by hand", changes=(("binding.kind", "pamphlet"),)),),
            )
        )
    return tuple(checks)


def _steps(
    record: Machine, ruler: Ruler, seam: tuple[float, int, float], sections: int, covered: bool
) -> tuple[Step, ...]:
    inset, _, pitch = seam
    on = Step(
        key="cover_on",
        title="Put the cover round the section",
        detail="Fold to fold, opened flat, the cover below. The seam goes through both, so it has to be "
        "there.",
        needs=("block.nested", "cover.scored"),
        gives=("cover.on",),
        missing=Missing(
            slip="D1",
            words="the cover is not under the section",
            why="The seam goes through leaves and cover together; sewn without it, it has to be picked out "
            "again.",
            done="the cover is on, tick it",
            undo="untick, and put the cover on",
        ),
        kind="nest",
    )
    several = "" if sections == 1 else f", {sections} sections"
    return (
        *((on,) if covered else ()),
        Step(
            key="sew",
            title=f"Sew along the fold{several}",
            detail="Opened flat and clipped, fold on the line of the needle, a stitch of "
            f"{ruler.fine(pitch)}. Begin {ruler.show(inset)} from the head and stop {ruler.show(inset)} "
            f"from the tail, without going back over it; leave tails of {ruler.show(record.tail_mm)}. Try "
            "it on spare sheets first.",
            tools=("sewing machine", "clips"),
            needs=("block.nested", "block.pressed", "cover.on"),
            gives=("block.sewn",),
            fixes=("pages.*", "binding.*", *(("cover.*",) if covered else ())),
            minutes=6 * sections,
            cautions=(MACHINE,),
            signature=signature(inset, pitch),
            kind="sew",
        ),
        Step(
            key="knot",
            title="Tie the thread ends",
            detail="At both ends pull the lower thread up, tie both with a square knot and leave "
            f"{ruler.show(15)}.",
            tools=("scissors",),
            needs=("block.sewn",),
            gives=("thread.tied",),
            kind="sew",
        ),
        Step(
            key="crease",
            title="Crease again",
            detail="Fold it shut and run the bone folder along the spine.",
            tools=("bone folder",),
            needs=("thread.tied",),
            gives=("book.bound",),
            kind="fold",
        ),
    )


KIND: Final = BindingKind(
    name="machine",
    title="machine seam",
    summary="A straight seam along the fold, sewn by machine; quick for a run of thin booklets.",
    record=Machine,
    compute=compute,
    traits=Traits(opens_flat=True),
    takes=frozenset({"section"}),
    at="fold",
    suits=Suits(
        good_to=1,
        thickest_mm=1.5,
        strength="light",
        hard="some practice",
        tough=True,
        minutes=4,
        look="a fine seam along the fold",
    ),
)
