"""Sewn sticks: a stick lashed outside each section, and cloth strips woven between the lashings and taken to
the boards."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Final, Literal

from pydantic import Field

from pleat.core.base.cautions import KNIFE
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, TextRule
from pleat.core.base.kinds import Suits
from pleat.core.base.plan import Check, Count, Figure, Offer, Part, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.holes.band import woven
from pleat.core.engines.sewing.moves import Bed, Promise, Support
from pleat.core.engines.sewing.moves import Thread as Path
from pleat.core.engines.sewing.patterns.through import lashing, lashing_promise
from pleat.core.pleats.binding import threaded
from pleat.core.pleats.binding.punched.capacity import GROUP
from pleat.core.pleats.binding.record import Thread, Threaded
from pleat.core.pleats.binding.result import BindingKind, LeftOfBinding
from pleat.core.pleats.binding.sewn import SewnResult
from pleat.core.pleats.binding.stations import Layout, proposed
from pleat.core.pleats.binding.steps import SewingWords
from pleat.core.pleats.binding.threaded import SewingKind
from pleat.core.trade.sewing import LASHING_MM, STICK_STRAIGHT_MM


class Sticks(Threaded):
    """Sticks, lashings and strips."""

    kind: Literal["sticks"] = "sticks"
    station_count: Annotated[
        Literal[0, 3, 5], ChoiceRule("lashings on a stick", (("0", "by height"), ("3", "3"), ("5", "5")))
    ] = 0
    gear: Annotated[str, TextRule("what the sticks are called", 60, required=False)] = ""
    stock_id: str | None = Field(default=None, max_length=40, description="the sticks among the materials")
    stick_mm: Annotated[float, LengthRule("the sticks' thickness", 2, 20, fine=True)] = 5.0
    stick_long_mm: Annotated[float, LengthRule("the sticks' length", 30, 700)] | None = None
    strips: Annotated[
        Literal["woven", "behind"],
        ChoiceRule(
            "strips run", (("woven", "woven over and under the sticks"), ("behind", "behind all sticks"))
        ),
    ] = "woven"
    strip_wide_mm: Annotated[float, LengthRule("a strip's width", 5, 80)] = 25.0
    lap_mm: Annotated[float, LengthRule("strips go on to each board", 10, 120)] = 40.0
    strip_cut_mm: Annotated[float, LengthRule("strips you cut, their length", 20, 1000)] | None = None
    ends: Annotated[
        Literal["inside", "outside"],
        ChoiceRule(
            "strips' ends",
            (("inside", "turned in to the inside of the board"), ("outside", "cut and glued outside")),
        ),
    ] = "outside"
    thread: Thread = Thread(lea=12, plies=3)


def layout(binding: Sticks, height_mm: float) -> Layout:
    return Layout(binding.station_count or proposed(height_mm, (3, 5)))


def supports(
    binding: Sticks, holes: Sequence[float], _rows: int, _left: LeftOfBinding
) -> tuple[Support, ...]:
    return tuple(Support("stick", hole, binding.stick_mm) for hole in range(1, len(holes) + 1))


def threads(_binding: Sticks, bed: Bed) -> tuple[Path, ...]:
    return tuple(
        lashing(hole, row) for row in range(1, len(bed.rows) + 1) for hole in range(1, bed.stations + 1)
    )


def promise(_binding: Sticks, _bed: Bed) -> Promise:
    return lashing_promise()


STITCH: Final = SewingKind(
    layout=layout,
    threads=threads,
    promise=promise,
    supports=supports,
    suits=Suits(
        most=24,
        good_to=12,
        thickest_mm=3.0,
        hard="takes care",
        minutes=14,
        look="a row of sticks along the spine, cloth woven between them",
        refuses="more sticks than 24 make a spine that does not close",
    ),
    words=SewingWords(one_by_one=True),
)


@dataclass(frozen=True, kw_only=True)
class SticksResult(SewnResult):
    """A sewing with a stick on every section, mm: how thick and long the sticks are, how far apart, and the
    strips between the lashings as (from the head, width) of each with their length."""

    stick_mm: float
    stick_long_mm: float
    pitch_mm: tuple[float, ...]
    strips_mm: tuple[tuple[float, float], ...]
    strip_long_mm: float
    woven: bool


@dataclass(frozen=True)
class StickSpine:
    """The sticks side by side, mm: what each takes, the strips between lashings, and how long one is."""

    takes: tuple[float, ...]
    strips: tuple[tuple[float, float], ...]
    cloth: float
    long: float
    lies: float

    @property
    def wide(self) -> float:
        return sum(self.takes)


def spine(binding: Sticks, sewn: SewnResult, left: LeftOfBinding) -> StickSpine:
    """What the sticks need: each as much as its section, with its share of what is put in at the spine, or
    itself with the strip beside it, whichever is more."""
    cloth = left.paper.stock("strip").caliper.likely
    beside = binding.stick_mm + (cloth if binding.strips == "woven" else 0.0)
    rows = sewn.sewing.bed.rows
    put_in = left.extras.added.likely / max(len(rows), 1)
    takes = tuple(max(row.thick_mm + put_in, beside) for row in rows)
    pitches = [(one + other) / 2 for one, other in itertools.pairwise(takes)]
    over = (
        woven(pitches, [binding.stick_mm] * len(takes), cloth) + (takes[0] + takes[-1]) / 2
        if binding.strips == "woven"
        else sum(takes)
    )
    places = sewn.positions_mm
    gaps = list(itertools.pairwise(places))
    strips = tuple(
        ((low + high - width) / 2, width)
        for low, high in gaps
        if (width := min(binding.strip_wide_mm, high - low - LASHING_MM)) > 2
    )
    return StickSpine(takes, strips, cloth, left.brief.ruler.snap_up(2 * binding.lap_mm + over), over)


def compute(binding: Sticks, left: LeftOfBinding) -> SticksResult:
    """The lashings as any sewing, with what sticks and strips take."""
    sewn = threaded.compute(STITCH, "sticks", binding, left)
    back, ruler = spine(binding, sewn, left), left.brief.ruler
    long = left.pages.leaf_height_mm if binding.stick_long_mm is None else binding.stick_long_mm
    books, rows = left.brief.quantity, len(sewn.sewing.bed.rows)
    block = left.pages.thickness.plus(left.extras.added)
    more = max(0.0, back.wide - block.likely)
    name = binding.gear or f"stick, {ruler.show(long)} long, {ruler.thin(binding.stick_mm)} thick"
    sticks = Count(key="sticks", name=name, count=rows * books, stock=binding.stock_id or "")
    wide = min((width for _, width in back.strips), default=binding.strip_wide_mm)
    strip = Part(
        key="strips",
        name="woven strip",
        width_mm=back.long,
        height_mm=wide,
        count=max(len(back.strips), 1) * books,
        stock="strip",
        grain="w",
        across="it frays along its length",
    )
    own = _figures(binding, left, back, long)
    own_fields = {"offers", "swell", "figures", "checks", "parts", "steps", "at", "key_figure", "boards_by"}
    base = {name: value for name, value in vars(sewn).items() if name not in own_fields}
    return SticksResult(
        **base,
        key_figure=own[0],
        figures=(*own, *sewn.figures),
        checks=(*_checks(binding, left, back, long), *sewn.checks),
        parts=(*sewn.parts, sticks, strip),
        steps=(*_trimmed(binding, left, rows, long), *_after(sewn.steps, left), *_weave(binding, left, back)),
        offers=_sizes(binding, left, rows),
        at="spine",
        swell=Estimate(more, block.doubts) if more else Estimate.exact(0.0),
        boards_by="strips",
        stick_mm=binding.stick_mm,
        stick_long_mm=long,
        pitch_mm=back.takes,
        strips_mm=back.strips,
        strip_long_mm=back.long,
        woven=binding.strips == "woven",
    )


def _sizes(binding: Sticks, left: LeftOfBinding, rows: int) -> tuple[Offer, ...]:
    """The sticks among the materials, with what each would do here."""
    ruler, height, offers = left.brief.ruler, left.pages.leaf_height_mm, []
    need = rows * left.brief.quantity
    for key, stick in left.tools.sticks:
        if not 2 <= stick.thickness_mm <= 20:
            continue
        changes = (
            ("binding.stick_mm", stick.thickness_mm),
            ("binding.gear", stick.name),
            ("binding.stock_id", key),
            ("binding.stick_long_mm", None),
        )
        long = stick.length_mm >= height - 0.05
        enough = stick.owned is None or stick.owned >= need
        facts = (
            f"{ruler.thin(stick.thickness_mm)} thick, {ruler.show(stick.length_mm)} long",
            "long enough" if long else "too short for these leaves",
            f"{stick.owned} left, {need} needed" if stick.owned is not None else f"{need} needed",
        )
        offers.append(
            Offer(
                label=stick.name,
                changes=changes,
                facts=facts,
                group=GROUP,
                chosen=binding.stock_id == key,
                good=long and enough,
            )
        )
    return tuple(offers)


def _figures(binding: Sticks, left: LeftOfBinding, back: StickSpine, long: float) -> tuple[Figure, ...]:
    ruler, rows = left.brief.ruler, len(back.takes)
    beside = (
        f"stick {ruler.thin(binding.stick_mm)} + strip {ruler.thin(back.cloth)}"
        if binding.strips == "woven"
        else f"stick {ruler.thin(binding.stick_mm)}"
    )
    weave = "over and under" if binding.strips == "woven" else "behind"
    return (
        Figure(
            key="sticks",
            label="sticks",
            value=long,
            show="length",
            how=f"{many(rows, 'stick')}, one for each section, as long as the leaves are high; straight to "
            f"{ruler.show(STICK_STRAIGHT_MM)} over their length, dry, their ends sanded round and waxed.",
            rules=(
                Rule("stick_long", "a stick as long as the spine, no source"),
                Rule("STICK_STRAIGHT_MM", "how straight"),
            ),
            aside=f"{rows} of {ruler.thin(binding.stick_mm)}",
            scrap=f"{many(rows, 'stick')} of {ruler.show(long)}",
        ),
        Figure(
            key="stick_spine",
            label="the spine, as the sticks need it",
            value=back.wide,
            show="thin",
            how=f"Each takes the more of its section and {beside}: {ruler.thin(max(back.takes))} at most, "
            f"{rows} of them {ruler.thin(back.wide)}. The sections alone would be "
            f"{ruler.thin(left.pages.thickness.likely)}.",
            rules=(Rule("arithmetic", "sticks and strips side by side"),),
        ),
        Figure(
            key="strip",
            label="cut strips",
            value=(back.long, min((width for _, width in back.strips), default=binding.strip_wide_mm)),
            show="size",
            how=f"{many(len(back.strips), 'strip')}, one between each two lashings. Two laps of "
            f"{ruler.show(binding.lap_mm)} on the boards, and {ruler.thin(back.lies)} "
            f"{weave} {many(rows, 'stick')}; cut at "
            "the next mark.",
            rules=(
                Rule("arithmetic", "straight between sticks, round each by what it turns"),
                Rule("strips_wide", "strips of 25 mm, no source"),
            ),
            scrap=f"{many(len(back.strips), 'strip')} {ruler.size(back.long, binding.strip_wide_mm)}",
        ),
    )


def _checks(binding: Sticks, left: LeftOfBinding, back: StickSpine, long: float) -> tuple[Check, ...]:
    """D11: sticks longer than the leaves, a spine or strips too narrow for them; lashings so close that no
    strip lies between."""
    ruler, height, checks = left.brief.ruler, left.pages.leaf_height_mm, []
    even = (Offer(label=f"cut them to {ruler.show(height)}", changes=(("binding.stick_long_mm", None),)),)
    if long > height + 0.05:
        checks.append(
            Check(
                code="D11",
                level="stop",
                title=f"The sticks are {ruler.show(long - height)} longer than the leaves.",
                why="Their ends stand out past the boards, catch and break.",
                offers=even,
            )
        )
    elif long < height - 2 * left.brief.ruler.step_mm - 20:
        checks.append(
            Check(
                code="D11",
                level="watch",
                title=f"The sticks are {ruler.show(height - long)} shorter than the leaves.",
                why="The outer lashings need wood under them, and the ends of the fold stand open.",
                offers=even,
            )
        )
    if binding.strip_cut_mm is not None and binding.strip_cut_mm < back.long - 0.05:
        short = back.long - binding.strip_cut_mm
        lap = max(0.0, (left.brief.ruler.snap_down(binding.strip_cut_mm) - back.lies) / 2)
        offers = [
            Offer(label=f"cut strips of {ruler.show(back.long)}", changes=(("binding.strip_cut_mm", None),))
        ]
        if lap >= 10:
            offers.append(
                Offer(
                    label=f"lap only {ruler.show(ruler.snap_down(lap))} on each board",
                    changes=(("binding.lap_mm", ruler.snap_down(lap)),),
                )
            )
        checks.append(
            Check(
                code="D11",
                level="stop",
                title=f"Strips of {ruler.show(binding.strip_cut_mm)} are {ruler.show(short)} too short for "
                "these sticks.",
                why=f"The sticks make the spine {ruler.thin(back.wide)}, not the "
                f"{ruler.thin(left.pages.thickness.likely)} of the sections; {ruler.thin(back.lies)} lie on "
                "them before the boards begin.",
                offers=tuple(offers),
            )
        )
    if not back.strips:
        checks.append(_no_strip(ruler))
    return tuple(checks)


def _no_strip(ruler: Ruler) -> Check:
    """D11: the lashings leave no room for a strip."""
    return Check(
        code="D11",
        level="stop",
        title="No strip goes between the lashings.",
        why=f"Each wants {ruler.show(LASHING_MM)} beside it.",
        offers=(
            Offer(
                label="three lashings on a stick",
                changes=(
                    ("binding.station_count", 3),
                    ("binding.insets_mm", None),
                    ("binding.positions_mm", None),
                ),
            ),
        ),
    )


def _trimmed(binding: Sticks, left: LeftOfBinding, rows: int, long: float) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    return (
        Step(
            key="sticks",
            title="Choose and trim the sticks",
            detail=f"{many(rows, 'stick')} of about {ruler.thin(binding.stick_mm)}: roll each on the table, "
            f"it may lift by {ruler.show(STICK_STRAIGHT_MM)} and no more. Cut to {ruler.show(long)}, sand "
            "the ends round, wax them. Write on each which section it lies on.",
            tools=("small saw or knife", "sandpaper", "wax"),
            needs=(
                "block.nested",
                "block.pressed",
            ),
            gives=("supports.ready",),
            cautions=(KNIFE,),
            signature=signature(rows, long, binding.stick_mm),
            minutes=4 * rows,
            kind="cut",
        ),
    )


def _after(steps: tuple[Step, ...], left: LeftOfBinding) -> tuple[Step, ...]:
    """The steps of the sewing: the strips are woven in before the block is squared up, and the boards hung on
    them when it is pressed."""
    found = [
        replace(step, needs=("strips.woven",)) if "book.creased" in step.gives else step for step in steps
    ]
    if left.brief.made_of.cover.boards:
        found = [
            replace(step, key="press_block", title="Press the block", gives=("block.flat",))
            if "book.bound" in step.gives
            else step
            for step in found
        ]
    return tuple(found)


_ENDS: Final = {
    "inside": "Their ends go round the board and are glued inside",
    "outside": "Their ends are cut straight and glued on the outside of the board",
}
"""Both schools (common practice, no source)."""


def _weave(binding: Sticks, left: LeftOfBinding, back: StickSpine) -> tuple[Step, ...]:
    ruler = left.brief.ruler
    then = f" {_ENDS[binding.ends]} once the boards are there." if left.brief.made_of.cover.boards else ""
    how = (
        "over the first stick, under the next, and so on; the neighbouring strip the other way round"
        if binding.strips == "woven"
        else "between sticks and sections, behind all of them"
    )
    return (
        Step(
            key="weave",
            title="Weave the strips",
            detail=f"{many(len(back.strips), 'strip')} of {ruler.size(back.long, binding.strip_wide_mm)}, "
            f"{how}. Draw them snug, {ruler.show(binding.lap_mm)} left at either side.{then}",
            tools=("bodkin or a folded card",),
            needs=("thread.trimmed", "strip.cut"),
            gives=("strips.woven",),
            fixes=("binding.strips",),
            signature=signature(back.long, len(back.strips)),
            minutes=5 * max(len(back.strips), 1),
            kind="sew",
        ),
    )


_BASE: Final = threaded.kind(
    STITCH,
    name="sticks",
    title="sewn sticks",
    summary="A stick lashed on each section, cloth strips woven between; the boards hang on them.",
    record=Sticks,
    at="spine",
)
KIND: Final[BindingKind] = replace(_BASE, compute=compute, roles=("strip",), described=("stick_mm",))
