"""A stick along the held edge in front, and a band that comes up through two holes, or round two notches,
over its ends."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import KNIFE
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.plan import Changes, Check, Count, Figure, Offer, Rule, Step, signature
from pleat.core.base.units import Ruler
from pleat.core.base.words import many
from pleat.core.engines.holes.band import band_need, most_stack
from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.capacity import GROUP
from pleat.core.pleats.binding.punched.checks import SPREAD
from pleat.core.pleats.binding.punched.places import read
from pleat.core.pleats.binding.punched.record import Bored, Gear, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.brief.record import Brief
from pleat.core.trade.holes import BAND_SNUG_SHARE, NOTCH_MM, STICK_OVERHANG_MM


class StickBand(Gear):
    """A stick and a band; the holes are as far apart as the band proposes."""

    kind: Literal["stickband"] = "stickband"
    stick_mm: Annotated[float, LengthRule("the stick's thickness", 2, 30, fine=True)] = 6.0
    stick_long_mm: Annotated[float, LengthRule("the stick's length", 30, 1000)] | None = None
    band_mm: Annotated[float, LengthRule("the band laid flat, slack", 15, 600)] = 90.0
    band_thick_mm: Annotated[float, LengthRule("the band's thickness", 0.3, 10, fine=True)] = 1.5
    stretch: Annotated[float, NumberRule("the band stretches by", 0, 400, "%")] = 80
    through: Annotated[
        Literal["holes", "notches"],
        ChoiceRule(
            "the band goes", (("holes", "through two holes"), ("notches", "round two notches in the edge"))
        ),
    ] = "holes"

    @property
    def longest(self) -> float:
        """The band laid flat when it is stretched as far as it goes, in mm."""
        return self.band_mm * (1 + self.stretch / 100)


def _stick(binding: StickBand, edge: float) -> float:
    return edge if binding.stick_long_mm is None else binding.stick_long_mm


def proposed(binding: StickBand, edge: float, stack: float) -> float:
    """How far apart the holes are for the band to be snug, in mm, as far as stick and edge allow."""
    snug = binding.band_mm * (1 + BAND_SNUG_SHARE * binding.stretch / 100)
    spacing = snug - 2 * stack - math.pi * (binding.stick_mm + binding.band_thick_mm)
    return max(
        20.0, min(spacing, _stick(binding, edge) - 2 * STICK_OVERHANG_MM, edge - 2 * STICK_OVERHANG_MM)
    )


def usual_for(binding: StickBand, stack: float, edge: float, ruler: Ruler) -> Usual:
    """Where the band wants its holes: the first on a mark of the ruler, the second as far from the other
    end."""
    first = ruler.snap_up((edge - proposed(binding, edge, stack)) / 2)
    positions = (first, edge - first)
    rule = Rule("arithmetic", "the band's length decides how far apart the holes are")
    how = "As far apart as the band wants, the same from both ends."
    if binding.through == "notches":
        return Usual(positions, NOTCH_MM, 0.0, rule, how, notch=True)
    return Usual(positions, 5.0, 12.0, rule, how)


def _anywhere(_binding: StickBand, edge: float) -> Usual:
    """Two holes that are nowhere yet: where the band wants them is known only with the stack, which what is
    typed is read without."""
    return Usual((-1.0, edge + 1.0), 0.0, 0.0, Rule("chosen by you", "holes set by hand"), "")


_SET: Final = read(_anywhere)


def _read(binding: StickBand, name: str, text: str, brief: Brief) -> list[tuple[str, object]] | None:
    """The place of a hole; while the band proposes both, one that is set sets its partner too."""
    return _SET(
        binding if binding.positions_mm else binding.model_copy(update={"moved": "pairs"}), name, text, brief
    )


def compute(binding: StickBand, left: LeftOfBinding) -> PunchedResult:
    """How far apart the holes are, and how much the band holds."""
    ruler, books = left.brief.ruler, left.brief.quantity
    stack = bore(binding, left, lambda edge: _anywhere(binding, edge)).stack
    bored = bore(binding, left, lambda edge: usual_for(binding, stack, edge, ruler))
    band = _way(binding, bored)
    stick = _stick(binding, bored.edge)
    where = "up through each hole" if binding.through == "holes" else "round each notch"
    covers = ", covers outermost" if bored.covers else ""
    return result(
        bored,
        PunchedSpec(
            title="stick and band",
            figures=_figures(binding, bored, band),
            checks=_checks(binding, bored, band),
            offers=_bands(binding, bored),
            parts=(
                Count(
                    key="stick",
                    name=f"stick, {ruler.show(stick)} long, {ruler.thin(binding.stick_mm)} thick",
                    count=books,
                    stock="",
                ),
                Count(
                    key="band",
                    name=binding.gear or f"band, {ruler.show(binding.band_mm)} laid flat",
                    count=books,
                    stock=binding.stock_id or "",
                ),
            ),
            steps=(_trim(bored, stick),),
            hang=(
                "Stretch the band over the stick",
                f"The stack in order{covers}. The band lies along the "
                f"back; its loops come {where} to the front. Push the stick through one loop, press the "
                "stack together, and bring the other loop over the stick's other end.",
                ("band", "stick"),
                4,
            ),
            cautions=("A stretched band flies: keep it away from faces.",),
            what="stick",
            thick_mm=binding.stick_mm,
            sticks_mm=stick,
            look="the stick lies straight and the stack does not bow",
            more=(f"{stick:.1f}",),
        ),
    )


@dataclass(frozen=True)
class BandWay:
    """The band's way, mm: between the holes, how long it becomes on this book, the thickest stack it goes
    round; and how many leaves that is."""

    spacing: float
    need: float
    most: float
    leaves: int


def _way(binding: StickBand, bored: Bored) -> BandWay:
    spacing = bored.positions[-1] - bored.positions[0]
    need = band_need(spacing, bored.stack, binding.stick_mm, binding.band_thick_mm)
    most = most_stack(binding.longest, spacing, binding.stick_mm, binding.band_thick_mm)
    pages = bored.left.pages
    each = (pages.thickness.likely + bored.strengthened) / max(pages.leaves, 1)
    return BandWay(
        spacing,
        need,
        most,
        max(0, math.floor((most - bored.covers - bored.left.extras.added.likely) / each + 1e-9)),
    )


def _figures(binding: StickBand, bored: Bored, band: BandWay) -> tuple[Figure, ...]:
    ruler, have = bored.left.brief.ruler, bored.left.pages.leaves
    round_ends = math.pi * (binding.stick_mm + binding.band_thick_mm)
    room = f"room for {band.leaves - have} more" if band.leaves >= have else f"{have - band.leaves} too many"
    flat = (
        f"Laid flat {ruler.show(binding.band_mm)}, {ruler.thin(binding.band_thick_mm)} thick, stretches "
        f"by {binding.stretch:g} %: pull yours along a ruler."
    )
    return (
        Figure(
            key="spacing",
            label="notches apart" if binding.through == "notches" else "holes apart",
            value=band.spacing,
            show="length",
            how=f"The band comes to {ruler.thin(band.need)} on this book: {ruler.show(band.spacing)} along "
            f"the back + 2 × {ruler.thin(bored.stack)} up through the stack + {ruler.thin(round_ends)} round "
            f"both ends of the stick. Slack it is {ruler.show(binding.band_mm)}, at most "
            f"{ruler.show(binding.longest)}.",
            rules=(
                Rule("arithmetic", "the way of the band"),
                Rule("BAND_SNUG_SHARE", f"snug at {BAND_SNUG_SHARE:.0%} of its stretch"),
            ),
            scrap=f"{ruler.show(band.spacing)} apart",
        ),
        Figure(
            key="most",
            label="the band holds",
            value=many(band.leaves, "leaf", "leaves"),
            show="text",
            how=f"Stretched as far as it goes, {ruler.show(binding.longest)}, it goes round a stack of "
            f"{ruler.thin(band.most)}, covers and all.",
            rules=(Rule("arithmetic", "the band at its limit"),),
            aside=room,
        ),
        gear.figure(binding.gear or "rubber band", 1, flat),
    )


def _trim(bored: Bored, stick: float) -> Step:
    ruler = bored.left.brief.ruler
    return Step(
        key="stick",
        title="Trim and sand the stick",
        detail=f"{ruler.show(stick)} long, straight and dry. Cut it to length, sand both ends round, and wax "
        "it so that the band slides.",
        tools=("small saw or knife", "sandpaper", "wax"),
        gives=("gear.ready",),
        cautions=(KNIFE,),
        signature=signature(stick),
        minutes=8,
        kind="cut",
    )


def _fewer(bored: Bored, leaves: int) -> tuple[Offer, ...]:
    """So many leaves; a reading of the stack that is there is forgotten with it."""
    forget: Changes = (("pages.measured_block_mm", None),) if bored.left.pages.measured else ()
    return (
        Offer(
            label=many(leaves, "leaf", "leaves"),
            changes=(("pages.amount", leaves), ("pages.counted_in", "leaves"), *forget),
        ),
    )


def _checks(binding: StickBand, bored: Bored, band: BandWay) -> tuple[Check, ...]:
    """D10: the band too tight or slack; D11: the stick longer than the page, or too short for its holes."""
    return tuple(check for check in (_stretch(binding, bored, band), _overhang(binding, bored)) if check)


def _stretch(binding: StickBand, bored: Bored, band: BandWay) -> Check | None:
    """D10: what the band is stretched to, against where it is slack and where it breaks."""
    ruler, need = bored.left.brief.ruler, band.need
    if binding.band_mm < need <= binding.longest + 1e-6:
        if need >= binding.band_mm * (1 + 0.1 * binding.stretch / 100):
            return None
        return Check(
            code="D10",
            level="note",
            title=f"The band is hardly stretched: {ruler.thin(need)}, slack it is "
            f"{ruler.show(binding.band_mm)}.",
            why="It holds, but the leaves shift.",
            no_fix="Set the holes farther apart, or take a shorter band.",
        )
    if tight := need > binding.longest:
        ends, why = (
            f"it goes to {ruler.show(binding.longest)}",
            "A band at its limit bows the covers and breaks.",
        )
    else:
        ends, why = f"slack it is {ruler.show(binding.band_mm)}", "A slack band lets the stick fall out."
    offers = (
        *_spread(binding, bored),
        *_longer(binding, need, ruler),
        *(_fewer(bored, band.leaves) if tight and band.leaves else ()),
    )
    tension = "short" if tight else "slack"
    return Check(
        code="D10",
        level="stop",
        title=f"The band is too {tension}: this book stretches it to {ruler.thin(need)}, {ends}.",
        why=why,
        offers=offers,
        no_fix="" if offers else "Take another band, or cord that is tied.",
    )


def _spread(binding: StickBand, bored: Bored) -> tuple[Offer, ...]:
    """Holes as far apart as the band proposes, where those that were typed are the trouble."""
    spacing = proposed(binding, bored.edge, bored.stack)
    moved = band_need(spacing, bored.stack, binding.stick_mm, binding.band_thick_mm)
    if not bored.by_hand or not binding.band_mm < moved <= binding.longest:
        return ()
    return (Offer(label=f"holes {bored.left.brief.ruler.show(spacing)} apart", changes=SPREAD),)


def _longer(binding: StickBand, need: float, ruler: Ruler) -> tuple[Offer, ...]:
    """A band that is best at what this book needs."""
    right = ruler.snap(need / (1 + BAND_SNUG_SHARE * binding.stretch / 100))
    if not 15 <= right <= 600 or right >= need:
        return ()
    stretches: Changes = () if binding.stretch >= 5 else (("binding.stretch", 80),)
    return (
        Offer(
            label=f"a band of {ruler.show(right)}",
            changes=(*gear.usual(("binding.band_mm", right)), *stretches),
        ),
    )


def _overhang(binding: StickBand, bored: Bored) -> Check | None:
    """D11: how far the stick stands out past the leaves, or past its holes."""
    ruler = bored.left.brief.ruler
    stick = _stick(binding, bored.edge)
    past = (stick - bored.positions[-1] + bored.positions[0]) / 2
    fits: tuple[Offer, ...] = ()
    if binding.stick_long_mm is not None:
        fits = (
            Offer(label=f"a stick of {ruler.show(bored.edge)}", changes=(("binding.stick_long_mm", None),)),
        )
    if stick > bored.edge + 0.05:
        return Check(
            code="D11",
            level="watch",
            title=f"The stick is {ruler.show(stick - bored.edge)} longer than the leaves.",
            why="What stands out at head and tail catches and breaks.",
            offers=fits,
        )
    if past >= STICK_OVERHANG_MM - 0.05:
        return None
    if bored.by_hand and not fits:
        fits = (Offer(label="holes as the band and the stick propose", changes=SPREAD),)
    return Check(
        code="D11",
        level="watch",
        title=f"The stick stands out past each hole by only {ruler.show(past)}.",
        why=f"The band slips off ends shorter than {ruler.show(STICK_OVERHANG_MM)}.",
        offers=fits,
        no_fix="" if fits else "Take a longer stick.",
    )


def _bands(binding: StickBand, bored: Bored) -> tuple[Offer, ...]:
    """The elastic among the materials that is a closed loop, with what each would do here."""
    ruler, offers = bored.left.brief.ruler, []
    for key, elastic in bored.left.tools.elastics:
        if (
            elastic.shape != "loop"
            or not 15 <= elastic.length_left_mm <= 600
            or not 0.3 <= elastic.width_mm <= 10
        ):
            continue
        changes: Changes = (
            ("binding.gear", elastic.name),
            ("binding.stock_id", key),
            ("binding.band_mm", elastic.length_left_mm),
            ("binding.band_thick_mm", elastic.width_mm),
            ("binding.stretch", elastic.stretch),
            *SPREAD,
        )
        own = binding.model_copy(
            update={
                "band_mm": elastic.length_left_mm,
                "band_thick_mm": elastic.width_mm,
                "stretch": elastic.stretch,
            }
        )
        apart = proposed(own, bored.edge, bored.stack)
        need = band_need(apart, bored.stack, own.stick_mm, own.band_thick_mm)
        good = own.band_mm < need <= own.longest
        misses = "too short" if need > own.longest else "too slack"
        offers.append(
            Offer(
                label=elastic.name,
                changes=changes,
                facts=(
                    f"holes {ruler.show(apart)} apart",
                    "holds" if good else misses,
                ),
                group=GROUP,
                chosen=binding.stock_id == key,
                good=good,
            )
        )
    return tuple(offers)


KIND: Final = gear.kind(
    name="stickband",
    title="stick and band",
    summary="A stick along the edge, held by a band through two holes; leaves are changed in a moment.",
    record=StickBand,
    compute=compute,
    read=_read,
    suits=gear.suits(
        "a stick across the front, leaves changed in a moment", good_to=80, strength="light", minutes=0.2
    ),
)
