"""Leaves in pairs side by side on a spine: a cord runs from eyelet to eyelet over the tab of one pair, or of
two."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import PUNCH
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule
from pleat.core.base.kinds import Member, Suits, Traits
from pleat.core.base.plan import Check, Count, Figure, Length, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, many
from pleat.core.pleats.binding.result import BindingKind, BindingResult, LeftOfBinding
from pleat.core.pleats.pages.folded import FoldedBlock
from pleat.core.trade.holes import CORD_KNOT_MM, EYELET_END_MM, MOST_ON_A_CORD, TAB_ROOM_MM


class EyeCords(Member):
    """Pleat 5: cords over eyelets. ``spine_mm`` is a spine that is there already."""

    kind: Literal["eyecords"] = "eyecords"
    room_mm: Annotated[float, LengthRule("room beside each tab", 0, 30)] = TAB_ROOM_MM
    on_a_cord: Annotated[
        Literal[1, 2, 3], ChoiceRule("tabs to a cord", (("1", "one"), ("2", "two"), ("3", "three")))
    ] = 2
    spine_mm: Annotated[float, LengthRule("the spine there is", 5, 400)] | None = None


@dataclass(frozen=True, kw_only=True)
class RowResult(BindingResult):
    """Tabs side by side on a spine, lengths in mm: how many, their width, the room beside each, and where the
    cords run from its left edge."""

    pairs: int
    tab_mm: float
    room_mm: float
    width_mm: float
    cords_mm: tuple[float, ...]


def cords_at(pairs: int, tab: float, room: float, on_a_cord: int) -> tuple[float, ...]:
    """Where the cords run: over the middle of one tab, or between those it holds.

    >>> cords_at(3, 6.0, 2.0, 2)
    (9.0, 21.0)
    """
    middles = [room + tab / 2 + number * (tab + room) for number in range(pairs)]
    groups = [middles[start : start + on_a_cord] for start in range(0, pairs, on_a_cord)]
    return tuple((group[0] + group[-1]) / 2 for group in groups)


def compute(record: EyeCords, left: LeftOfBinding) -> RowResult:
    """How many pairs the spine takes, and the cords that hold them."""
    ruler, pages = left.brief.ruler, left.pages
    pairs = max(1, len(pages.units))
    tab = _tab(left)
    needs = pairs * tab + (pairs + 1) * record.room_mm
    cords = -(-pairs // record.on_a_cord)
    length = 2 * (pages.leaf_height_mm - 2 * left.brief.ruler.near(EYELET_END_MM)) + 2 * CORD_KNOT_MM
    row = Figure(
        key="row",
        label="the row on the spine",
        value=needs,
        show="length",
        how=f"{pairs} tabs of {ruler.show(tab)}, and {ruler.show(record.room_mm)} beside each and at the "
        f"ends: {pairs} × {ruler.number(tab)} + {pairs + 1} × {ruler.number(record.room_mm)} = "
        f"{ruler.number(needs)} {ruler.name}.",
        rules=(Rule("arithmetic", "tabs and the room between them"), Rule("TAB_ROOM_MM", "2 mm of room")),
        scrap=ruler.show(needs),
    )
    held = Figure(
        key="cords",
        label="held by",
        value=many(cords, "cord"),
        show="text",
        how=f"{many(pairs, 'pair')}, {record.on_a_cord} to a cord; an eyelet at head and tail of each cord.",
        rules=(
            Rule("arithmetic", "pairs divided by two, rounded up"),
            Rule("MOST_ON_A_CORD", "at most two tabs to a cord, no source"),
        ),
        scrap=f"{many(cords, 'cord')} of {ruler.show(length)}, {2 * cords} eyelets",
    )
    quantity = left.brief.quantity
    return RowResult(
        key_figure=held,
        figures=(held, row),
        checks=tuple(
            check for check in (_fits(record, pairs, (tab, needs), ruler), _too_many(record)) if check
        ),
        parts=(
            Length(
                key="cord", name="cord for the spine", length_mm=length, count=cords * quantity, stock="cord"
            ),
            Count(key="eyelets", name="eyelets", count=2 * cords * quantity, stock="eyelet"),
        ),
        steps=_steps(left, needs, cords, length),
        at="row",
        height_mm=pages.leaf_height_mm,
        pairs=pairs,
        tab_mm=tab,
        room_mm=record.room_mm,
        width_mm=needs,
        cords_mm=cords_at(pairs, tab, record.room_mm, record.on_a_cord),
        swell=Estimate.exact(max(needs - pages.thickness.likely, 0.0)),
    )


def _steps(left: LeftOfBinding, needs: float, cords: int, length: float) -> tuple[Step, ...]:
    """Eyelets before anything hides them, then the cords."""
    ruler, pages = left.brief.ruler, left.pages
    ready = pages.ready
    return (
        Step(
            key="eyelets",
            title=f"Set {2 * cords} eyelets in the spine",
            detail=f"In a row at head and tail, {ruler.show(ruler.near(EYELET_END_MM))} from the ends, one "
            f"above each cord, evenly over {ruler.show(needs)}.",
            tools=("eyelet tool",),
            needs=("cover.scored",),
            gives=("cover.eyelets",),
            fixes=("binding.eyelets",),
            tags=frozenset({"cut-out"}),
            cautions=(PUNCH,),
            signature=signature(cords, needs),
            kind="punch",
        ),
        Step(
            key="cords",
            title=f"Run the {many(cords, 'cord')}",
            detail=f"{ruler.show(length)} each: out at the head, down the spine and in at the tail, over the "
            "tab inside of one pair or two. Tie it firmly at the head, not so tight that the spine bends.",
            needs=("cover.eyelets", *ready),
            gives=("block.flat",),
            fixes=("pages.*", "binding.*"),
            minutes=4 * cords,
            signature=signature(length),
            kind="sew",
        ),
        _done(),
    )


def _done() -> Step:
    return Step(
        key="book",
        title="Turn every pair once",
        detail="None may slip from under its cord; tie it again where one does.",
        needs=("block.flat", "cover.scored"),
        gives=("book.bound",),
        fixes=("cover.*",),
        kind="tidy",
    )


def _tab(left: LeftOfBinding) -> float:
    """The tab of a pair in mm, as Pages has made it."""
    pages = left.pages
    if isinstance(pages, FoldedBlock):
        room = next((one for one in pages.made.rooms if one.name == "tab"), None)
        if room is not None:
            return room.has_mm
    return pages.thickness.likely / max(1, len(pages.units))


def _fits(record: EyeCords, pairs: int, row: tuple[float, float], ruler: Ruler) -> Check | None:
    """How many pairs a spine that is there takes."""
    tab, needs = row
    if record.spine_mm is None or record.spine_mm >= needs - 0.05:
        return None
    fits = max(0, int((record.spine_mm - record.room_mm) // (tab + record.room_mm)))
    fewer = (
        (
            Offer(
                label=f"{2 * fits} leaves",
                changes=(("pages.amount", 2 * fits), ("pages.counted_in", "leaves")),
            ),
        )
        if fits
        else ()
    )
    return Check(
        code="D11",
        level="stop",
        title=f"The spine of {ruler.show(record.spine_mm)} is narrower than {many(pairs, 'pair')} "
        f"{by_count(pairs, 'needs', 'need')}: {ruler.show(needs)}.",
        why=f"It takes {many(fits, 'pair')}: a tab of {ruler.show(tab)} and {ruler.show(record.room_mm)} "
        "beside each.",
        offers=(
            *fewer,
            Offer(
                label=f"a spine of {ruler.show(ruler.snap_up(needs))}", changes=(("binding.spine_mm", None),)
            ),
        ),
    )


def _too_many(record: EyeCords) -> Check | None:
    """D10: more tabs on a cord than it holds."""
    if record.on_a_cord <= MOST_ON_A_CORD:
        return None
    return Check(
        code="D10",
        level="watch",
        title=f"{record.on_a_cord} tabs to a cord: the middle one slips out.",
        why="A cord presses on what lies at its sides; at most two tabs are held.",
        offers=(Offer(label="two to a cord", changes=(("binding.on_a_cord", 2),)),),
    )


KIND: Final = BindingKind(
    name="eyecords",
    title="cords over eyelets",
    summary="Tabs in a row on the spine, each under a cord from eyelet to eyelet.",
    record=EyeCords,
    compute=compute,
    takes=frozenset({"pair"}),
    at="row",
    traits=Traits(refills=True, punch=True),
    suits=Suits(
        fewest=1,
        most=60,
        good_to=12,
        thickest_mm=60.0,
        strength="firm",
        hard="some practice",
        minutes=6,
        look="cords down the spine",
    ),
)
