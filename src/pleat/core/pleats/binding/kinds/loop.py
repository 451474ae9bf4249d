"""A loop of cord or elastic round the fold: through two holes, through one and round the head, or in notches
at head and tail."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Final, Literal

from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Suits
from pleat.core.base.plan import Check, Figure, Length, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.engines.holes.band import stretched
from pleat.core.engines.sewing.moves import Bed, Promise
from pleat.core.engines.sewing.moves import Thread as Path
from pleat.core.engines.sewing.patterns.through import loop, loop_promise
from pleat.core.pleats.binding import threaded
from pleat.core.pleats.binding.record import KnotSide, Thread, Threaded
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.binding.stations import Layout
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.thread import diameter_mm
from pleat.core.pleats.binding.threaded import SewingKind
from pleat.core.trade.holes import ELASTIC_CUT
from pleat.core.trade.sewing import ELASTIC_KNOT_MM


class Loop(Threaded):
    """A loop of cord or elastic. ``elastic_cut_mm`` is what was cut of it, or how long a closed one is all
    round, slack."""

    kind: Literal["loop"] = "loop"
    holes: Annotated[
        Literal[2, 1, 0],
        ChoiceRule(
            "goes",
            (
                ("2", "through two holes"),
                ("1", "through one hole and round the head"),
                ("0", "in notches at head and tail"),
            ),
        ),
    ] = 2
    made: Annotated[
        Literal["elastic", "closed", "cord"],
        ChoiceRule(
            "it is",
            (
                ("elastic", "elastic, cut and knotted"),
                ("closed", "a closed loop of elastic"),
                ("cord", "cord that does not stretch"),
            ),
        ),
    ] = "elastic"
    elastic_cut_mm: (
        Annotated[float, LengthRule("elastic you have: cut, or a loop all round", 20, 10_000)] | None
    ) = None
    knot: KnotSide = "outside"
    thread: Thread = Thread(name="round elastic", diameter_mm=1.5)


def layout(binding: Loop, _height_mm: float) -> Layout:
    return Layout(binding.holes)


def threads(binding: Loop, bed: Bed) -> tuple[Path, ...]:
    return tuple(loop(binding.holes, binding.knot, row) for row in range(1, len(bed.rows) + 1))


def promise(_binding: Loop, bed: Bed) -> Promise:
    return loop_promise(bed.covered)


def checks(binding: Loop, ruler: Ruler) -> tuple[Check, ...]:
    """D10: one hole bears all of the loop's pull, each time what it holds is changed."""
    if binding.holes != 1:
        return ()
    return (
        Check(
            code="D10",
            level="watch",
            title=f"One hole bears all the pull of a loop {ruler.fine(diameter_mm(binding.thread))} thick, "
            "and tears sooner or later.",
            why="The loop moves in it whenever the section is taken out. An eyelet or a patch of cloth "
            "holds; two holes or notches share the pull.",
            offers=(
                Offer(label="through two holes", changes=(("binding.holes", 2),)),
                Offer(label="in notches at head and tail", changes=(("binding.holes", 0),)),
            ),
        ),
    )


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    suits=Suits(
        most=8,
        good_to=4,
        thickest_mm=3.0,
        strength="light",
        minutes=3,
        look="one loop along the fold",
        refuses="more loops than eight do not lie in one spine",
    ),
    words=SewingWords(thread="cord or elastic"),
    checks=checks,
)
_BASE: Final = threaded.kind(
    STITCH,
    name="loop",
    title="loop of cord or elastic",
    summary="A loop round the fold holds each section, and lets it be changed for another.",
    record=Loop,
    needle=False,
)


TIGHT, SNUG, LOOSE = ELASTIC_CUT
_RULE: Final = Rule("ELASTIC_CUT", "elastic is cut to 85 to 90 % of its path, before the knot; no source")


def compute(binding: Loop, left: LeftOfBinding) -> SewnResult:
    """A loop as any sewing; of elastic it is cut shorter than its path."""
    knot = 0.0 if binding.made == "closed" else ELASTIC_KNOT_MM
    tied = binding if binding.made == "cord" else binding.model_copy(update={"tail_mm": knot / 2})
    sewn = threaded.compute(STITCH, "loop", tied, left)
    if binding.made == "cord" or not sewn.sewing.threads:
        return sewn
    ruler, path = left.brief.ruler, sewn.need.run.run_mm
    cut = ruler.snap(SNUG * path + knot)
    word = (
        "all round, slack"
        if binding.made == "closed"
        else f"with {ruler.show(ELASTIC_KNOT_MM)} for the knot, which lies {binding.knot}"
    )
    figure = Figure(
        key="thread",
        label="elastic for one section",
        value=cut,
        show="length",
        how=f"It runs {ruler.show(path)} round the fold. Cut to {TIGHT:.0%} to {LOOSE:.0%} of that it is "
        f"stretched by {stretched(LOOSE):.0%} to {stretched(TIGHT):.0%}; {ruler.show(cut)} {word}.",
        rules=(Rule("arithmetic", "the way of the loop"), _RULE),
        scrap=f"elastic {ruler.show(cut)}, {len(left.pages.units)} of them",
    )
    length = Length(
        key="thread",
        name=sewn.thread_name,
        length_mm=cut,
        count=len(left.pages.units) * left.brief.quantity,
        stock=binding.thread.stock_id or "",
    )
    how = (
        f"{ruler.show(cut)} for each section, {word}."
        if binding.made == "elastic"
        else f"Loops of {ruler.show(cut)} all round."
    )
    return replace(
        sewn,
        figures=tuple(figure if one.key == "thread" else one for one in sewn.figures),
        parts=(length,),
        checks=(
            *(check for check in sewn.checks if check.key != "D3"),
            *_elastic(binding, left, path, knot, cut),
        ),
        steps=tuple(
            _as_elastic(step, binding, ruler.show(cut), how, signature(cut))
            for step in sewn.steps
            if knot or step.key not in TIED
        ),
    )


TIED: Final = frozenset({"knot", "tails"})
"""What is not done to a loop that is closed already."""


def _as_elastic(step: Step, binding: Loop, cut: str, how: str, known: str) -> Step:
    """A step of the sewing said of elastic: what is cut, or taken."""
    if "thread.cut" not in step.gives:
        return step
    return replace(
        step,
        title=f"Take loops of {cut}" if binding.made == "closed" else f"Cut {cut} of elastic",
        detail=how,
        signature=known,
    )


def _elastic(binding: Loop, left: LeftOfBinding, path: float, knot: float, right: float) -> tuple[Check, ...]:
    """D10: elastic so tight that it bows the cover, or so slack that leaves slip."""
    have, ruler = binding.elastic_cut_mm, left.brief.ruler
    if have is None:
        return ()
    share = max(have - knot, 1.0) / path
    if TIGHT - 0.01 <= share <= LOOSE + 0.01:
        return ()
    fix = (Offer(label=f"take {ruler.show(right)}", changes=(("binding.elastic_cut_mm", right),)),)
    if share < TIGHT:
        soft = left.brief.made_of.cover.sewn_through
        what = (
            f"{ruler.show(have)} of elastic is too tight: {share:.0%} of its path, stretched by "
            f"{stretched(share):.0%}."
        )
        why = (
            "It bows the soft cover at head and tail, and cuts into the fold."
            if soft
            else "It cuts into the fold and pulls at its holes."
        )
        return (Check(code="D10", level="watch" if share > 0.7 else "stop", title=what, why=why, offers=fix),)
    what = f"{ruler.show(have)} of elastic is slack: {share:.0%} of its path."
    return (
        Check(
            code="D10",
            level="watch",
            title=what,
            why="Sections slip out of a loop that is hardly stretched.",
            offers=fix,
        ),
    )


KIND: Final[BindingKind] = replace(_BASE, compute=compute)
