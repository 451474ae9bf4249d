"""What can go wrong with holes along an edge: slips A8, C2, D5, D7 and D9, stiff leaves that do not turn,
weak ones that tear."""

from __future__ import annotations

from typing import Final

from pleat.core.base.fields import NumberRule, rule_on
from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.slips import Level
from pleat.core.base.units import HAIR_MM
from pleat.core.base.words import by_count, many
from pleat.core.engines.holes.places import missed, nearest
from pleat.core.engines.holes.punch import in_a_lift, lifts
from pleat.core.pleats.binding.punched.record import Bored, HolesByHand
from pleat.core.pleats.extras.spots import moved, on_faces
from pleat.core.trade.holes import (
    HOLE_BREAKS_MM,
    HOLE_BRIDGE_MM,
    HOLE_END_MM,
    HOLE_GLUED_MM,
    HOLES_APART_MM,
    HOLES_FIT_MM,
    PUNCH_TAKES_MM,
)
from pleat.core.trade.paper import USES_MM

SPREAD: Final[Changes] = (("binding.positions_mm", None),)


def punch_takes(bored: Bored) -> float:
    """What goes into the punch at once, in mm: as said, else the most that one of the maker's takes, else the
    usual."""
    if bored.record.punch_takes_mm is not None:
        return bored.record.punch_takes_mm
    return max(
        (punch.thickest_mm for punch in bored.left.tools.punches if punch.thickest_mm), default=PUNCH_TAKES_MM
    )


def find(bored: Bored, told: frozenset[str] = frozenset()) -> tuple[Check, ...]:
    """Every check that has something to say, whatever goes through the holes; not of the ends, where the kind
    has ``told`` D5 itself."""
    found = (
        _misfit(bored),
        None if "D5" in told else _ends(bored),
        _bridge(bored),
        _odd(bored),
        _lifts(bored),
        _mirrored(bored),
        _jig(bored),
        _stiff(bored),
        _weak(bored),
        *_under_extras(bored),
    )
    return tuple(check for check in found if check)


def _misfit(bored: Bored) -> Check | None:
    if not bored.misfit:
        return None
    return Check(
        code="stations",
        level="watch",
        title=f"The holes you placed are for {bored.misfit}; there "
        f"{by_count(len(bored.positions), 'is', 'are')} {len(bored.positions)} here.",
        why="They do not count: the holes lie where this kind puts them.",
        offers=(Offer(label="put them where this kind does", changes=SPREAD),),
    )


def _ends(bored: Bored) -> Check | None:
    """D5 along the edge: a hole near an end, or two that run into each other."""
    if not bored.positions:
        ruler = bored.left.brief.ruler
        why = f"A hole of {ruler.thin(bored.hole)} wants {ruler.show(HOLE_END_MM)} of paper at either side."
        return Check(
            code="D5",
            level="stop",
            title="The edge has no room for a hole.",
            why=why,
            no_fix="Take a larger leaf under Brief, or another binding.",
        )
    ruler = bored.left.brief.ruler
    end, between = nearest(bored.positions, bored.edge, bored.hole)
    if (end >= HOLE_END_MM - 1e-6 and between >= HOLES_APART_MM - 1e-6) or (
        bored.usual.fixed and end >= HOLE_BREAKS_MM and between > 0.5
    ):
        return None
    if end < 0:
        what = f"A hole breaks the end of the edge: it lies {ruler.show(-end)} past it."
    elif end < HOLE_END_MM:
        what = f"A hole leaves {ruler.show(end)} of paper to the end of the edge."
    elif between < 0:
        what = "Two holes run into each other."
    else:
        what = f"Two holes have {ruler.show(between)} of paper between them."
    usual = nearest(bored.usual.positions, bored.edge, bored.hole)
    anew = bored.by_hand and usual[0] >= HOLE_END_MM - 1e-6 and usual[1] >= HOLES_APART_MM - 1e-6
    offers = (Offer(label="put the holes where this kind does", changes=SPREAD),) if anew else _fewer(bored)
    why = (
        f"With less than {ruler.show(HOLE_END_MM)} to the end, or {ruler.show(HOLES_APART_MM)} between "
        "two, the paper tears there."
    )
    level: Level = "stop" if min(end, between) < HOLE_BREAKS_MM else "watch"
    return Check(
        code="D5",
        level=level,
        title=what,
        why=why,
        offers=offers,
        no_fix="" if offers else "This pattern wants a longer edge: take another pattern, or a larger leaf.",
    )


def _fewer(bored: Bored) -> tuple[Offer, ...]:
    """As many rings, posts or bars as there is room for."""
    for name, word in (("count", "hole"), ("bars", "bar")):
        field, now = type(bored.record).model_fields.get(name), getattr(bored.record, name, None)
        rule = rule_on(field) if field else None
        if isinstance(rule, NumberRule) and isinstance(now, int) and now > rule.low:
            return (
                Offer(
                    label=f"{many(now - 1, word)}",
                    changes=(
                        (f"binding.{name}", now - 1),
                        *(SPREAD if isinstance(bored.record, HolesByHand) else ()),
                    ),
                ),
            )
    if getattr(bored.record, "end_mm", None):
        return (
            Offer(
                label="spread them as the folds of a strip", changes=(("binding.spread", "folded"), *SPREAD)
            ),
        )
    return ()


def _bridge(bored: Bored) -> Check | None:
    """D5 across: too little paper between hole and held edge, or a hole so far in that the page is lost."""
    if bored.usual.notch:
        return None
    ruler, bridge = bored.left.brief.ruler, bored.bridge
    right = ruler.snap_up(bored.hole / 2 + HOLE_BRIDGE_MM + 1)
    # farther in, holes that run into each other or off an end stay as they are: that is no way out
    offers = tuple(
        Offer(label=f"holes {ruler.show(at)} from the edge", changes=(("binding.inset_mm", at),))
        for at in [right]
        if abs(at - bored.inset) > 0.01 and _ends(bored) is None
    )
    if bridge < HOLE_BRIDGE_MM - 0.05:
        what = (
            f"A hole breaks the held edge by {ruler.show(-bridge)}."
            if bridge < 0
            else f"Only {ruler.show(bridge)} of paper holds each hole to the edge."
        )
        why = f"All the pull of a page is on that bridge: {ruler.show(HOLE_BRIDGE_MM)} and more hold."
        return Check(
            code="D5",
            level="stop" if bridge < HOLE_BREAKS_MM else "watch",
            title=what,
            why=why,
            offers=offers,
            no_fix="" if offers else "Take a smaller hole.",
        )
    if bored.inset > bored.reach / 3:
        what = f"The holes lie {ruler.show(bored.inset)} in, on a leaf of {ruler.show(bored.reach)}."
        return Check(
            code="D5",
            level="watch",
            title=what,
            why="More than a third of the page is lost to the binding.",
            offers=offers,
            no_fix="" if offers else "Take a larger leaf.",
        )
    return None


def held_in(bored: Bored, edge_mm: float, at: str) -> int:
    """How many of the holes lie inside a leaf whose held edge is so long, level at head or tail or in the
    middle."""
    begins = {"head": 0.0, "tail": bored.edge - edge_mm, "middle": (bored.edge - edge_mm) / 2}[at]
    rim = bored.hole / 2 + HOLE_BRIDGE_MM
    return sum(
        begins + rim <= place + 1e-6 and place <= begins + edge_mm - rim + 1e-6 for place in bored.positions
    )


def _odd(bored: Bored) -> Check | None:
    """C2: leaves of another size that too few of the holes go through."""
    ruler = bored.left.brief.ruler
    wanted = min(2, len(bored.positions))
    for width, height, at in bored.left.pages.odd:
        edge = width if bored.along == "head" else height
        held = held_in(bored, edge, at)
        if (
            held < wanted <= held_in(bored, bored.edge, "head")
        ):  # where not even the others are held, their holes are at fault
            ways = [
                one for one in ("middle", "head", "tail") if one != at and held_in(bored, edge, one) >= wanted
            ]
            offers = tuple(
                Offer(label=f"punch them at the {one}", changes=(("pages.odd_at", one),)) for one in ways
            )
            offers = offers or (
                Offer(
                    label="make them as long there as the others",
                    changes=(("pages.odd_height_mm", None), ("pages.odd_width_mm", None)),
                ),
            )
            return Check(
                code="C2",
                level="stop" if not held else "watch",
                title=f"The leaves of another size, {ruler.show(edge)} along the edge, are held by "
                f"{many(held, 'hole')}.",
                why=f"Each leaf wants {many(wanted, 'hole')} with {ruler.show(HOLE_BRIDGE_MM)} of paper "
                f"round {by_count(wanted, 'it', 'each')}.",
                offers=offers,
            )
    return None


def _lifts(bored: Bored) -> Check | None:
    """D7: more leaves at once than the punch takes; a leaf that does not go in at all is drilled."""
    if bored.usual.notch:
        return None
    ruler, leaves, takes = bored.left.brief.ruler, bored.left.pages.leaves, punch_takes(bored)
    caliper = bored.leaf
    each = in_a_lift(caliper, takes)
    if not each:
        return Check(
            code="D7",
            level="stop",
            title=f"Not even one leaf of {ruler.fine(caliper)} goes into a punch that takes "
            f"{ruler.thin(takes)}.",
            why="Drill the stack, clamped between two boards, or use a punch for card.",
            no_fix="Say under “your punch takes” what a stronger one does, or drill.",
        )
    planned, need = bored.record.lifts_planned, lifts(leaves, caliper, takes)
    if planned is None or planned >= need:
        return None
    more = -(-leaves // planned)
    return Check(
        code="D7",
        level="stop",
        title=f"{many(planned, 'lift')} would be {more} leaves each, {ruler.fine(more * caliper)}: the punch "
        f"takes {ruler.thin(takes)}.",
        why=f"It takes {many(each, 'leaf', 'leaves')} of {ruler.fine(caliper)} at once. Forced, its holes "
        "come out aslant and the lowest leaves tear.",
        offers=(Offer(label=many(need, "lift"), changes=(("binding.lifts_planned", need),)),),
    )


def _mirrored(bored: Bored) -> Check | None:
    """D9: covers that were punched the same way round, where the holes are not the same from both ends."""
    off = missed(bored.positions, bored.edge)
    if bored.record.covers_punched == "mirrored" or off < 0.3 or not bored.covers:
        return None
    ruler = bored.left.brief.ruler
    return Check(
        code="D9",
        level="stop",
        title=f"Punched the same way round, the back cover's holes miss the others by {ruler.show(off)}.",
        why="These holes are not the same from head and tail. Front and back are punched face to face, so "
        "that one is the other's mirror image.",
        offers=(Offer(label="punch them face to face", changes=(("binding.covers_punched", "mirrored"),)),),
    )


def _jig(bored: Bored) -> Check | None:
    """A8: a jig of another width than the strip it is laid on."""
    have, ruler = bored.record.jig_mm, bored.left.brief.ruler
    if have is None or abs(have - bored.jig) < 0.3:
        return None
    strip = "to the score" if bored.record.hinge_mm else "with the holes along its middle"
    span = ruler.show(abs(have - bored.jig) / 2 if not bored.record.hinge_mm else abs(have - bored.jig))
    return Check(
        code="A8",
        level="stop",
        title=f"The jig is {ruler.show(have)} wide; the strip it is laid on is {ruler.show(bored.jig)} "
        f"{strip}.",
        why=f"Laid level with the edge its holes come out {span} off, and turned over on the other side.",
        offers=(Offer(label="make the jig anew, as it is printed", changes=(("binding.jig_mm", None),)),),
    )


def hinge_at(bored: Bored) -> float:
    """Where a stiff leaf is scored: past the hole's rim by as much paper as before it (house rule), on a mark
    of the ruler."""
    return bored.left.brief.ruler.snap_up(bored.inset + bored.hole / 2 + HOLE_BRIDGE_MM)


def _stiff(bored: Bored) -> Check | None:
    """Stiff leaves bend nowhere: they stand up round the holes unless they are scored beside them; a score
    over a hole tears."""
    ruler, hinge, sheet = bored.left.brief.ruler, bored.record.hinge_mm, bored.leaf
    if hinge is not None and hinge < bored.inset + bored.hole / 2 + HOLE_BREAKS_MM:
        return Check(
            code="hinge",
            level="stop",
            title=f"The score, {ruler.show(hinge)} from the edge, runs through the holes or close by them.",
            why="Leaves bend there and tear from hole to hole.",
            offers=(
                Offer(
                    label=f"score at {ruler.show(hinge_at(bored))}",
                    changes=(("binding.hinge_mm", hinge_at(bored)),),
                ),
            ),
        )
    if hinge is not None and hinge > bored.reach / 2:
        what = f"The score, {ruler.show(hinge)} from the edge, lies past the middle of the leaf."
        return Check(
            code="hinge",
            level="watch",
            title=what,
            why="Leaves would fold in half, and most of each is lost to the page.",
            offers=(Offer(label="no score", changes=(("binding.hinge_mm", None),)),),
        )
    if hinge is not None or sheet <= USES_MM["leaves"][1]:
        return None
    return Check(
        code="hinge",
        level="note",
        title=f"Leaves of {ruler.fine(sheet)} do not bend by themselves.",
        why="A score beside the holes lets them turn and lie flat. What is left of it towards the edge is "
        "lost to the page.",
        offers=(
            Offer(
                label=f"score at {ruler.show(hinge_at(bored))}",
                changes=(("binding.hinge_mm", hinge_at(bored)),),
            ),
        ),
    )


def _weak(bored: Bored) -> Check | None:
    """Weak paper tears out of anything that moves in its holes."""
    if bored.record.reinforce != "none" or bored.left.papers["leaf"].toughness != "weak":
        return None
    holes = "its hole" if len(bored.positions) == 1 else f"their {len(bored.positions)} holes"
    return Check(
        code="D10",
        level="watch",
        title=f"These leaves are weak paper, and every turn pulls at {holes}.",
        why="What moves and bears load gets a patch, a strip or an eyelet before it tears.",
        offers=(
            Offer(label="patches round each hole", changes=(("binding.reinforce", "patches"),)),
            Offer(label="a strip along the edge", changes=(("binding.reinforce", "strip"),)),
        ),
    )


def _under_extras(bored: Bored) -> list[Check]:
    """Things put in that lie over the holes: they are punched through, and keep the leaf off what holds
    it."""
    strip, checks = bored.inset + bored.hole / 2 + HOLE_GLUED_MM, []
    for item in bored.left.extras.items:
        if item.kind.name == "spacer":  # which lies there to be punched along
            continue
        aside: dict[int, tuple[float, float]] = {}
        on = []
        for spot in item.spots:
            left, top, right, _ = spot.box
            face = spot.face
            if bored.record.bound_at == "head":
                short, to = strip - top, (spot.x_mm, strip)
            elif face.spine == "right":
                short, to = (
                    right - (face.width_mm - strip),
                    (face.width_mm - strip - spot.thing.width_mm, spot.y_mm),
                )
            else:
                short, to = strip - left, (strip, spot.y_mm)
            if face.cover or face.spine == "none" or short <= HAIR_MM:
                continue
            on.append(spot)
            if (
                to[0] >= 0
                and to[0] + spot.thing.width_mm <= face.width_mm
                and to[1] + spot.thing.height_mm <= face.height_mm
            ):
                aside[spot.number] = to
        if on:
            checks.append(
                Check(
                    code="over_holes",
                    level="watch",
                    title=f"The {item.title} lies over the holes on {on_faces(on)}.",
                    why="It is punched through with the leaf, and what holds the leaf runs through it.",
                    offers=(Offer(label="move it off the holes", changes=moved(item, aside)),)
                    if len(aside) == len(on)
                    else (),
                    no_fix=""
                    if len(aside) == len(on)
                    else f"Make it narrower: {bored.left.brief.ruler.show(strip)} at that edge belong to the "
                    "holes.",
                )
            )
    return checks


def pitch_check(bored: Bored, gap_mm: float, word: str, punch_pitch_mm: float | None) -> tuple[Check, ...]:
    """D6: a punch whose holes are apart by something else than what goes into them. A closer pitch may fit in
    whole steps."""
    if not punch_pitch_mm:
        return ()
    ruler, steps = bored.left.brief.ruler, max(1, round(gap_mm / punch_pitch_mm))
    off = abs(gap_mm - steps * punch_pitch_mm) * max(1, len(bored.positions) - 1 if steps == 1 else 1)
    if off <= HOLES_FIT_MM:
        return ()
    return (
        Check(
            code="D6",
            level="stop",
            title=f"The punch makes holes {ruler.thin(punch_pitch_mm)} apart, the {word} "
            f"{ruler.thin(gap_mm)}: they miss by {ruler.thin(off)}.",
            why="Pitch of punch and hardware have to agree, or the last holes do not go on.",
            offers=(
                Offer(
                    label=f"punch hole by hole, {ruler.thin(gap_mm)} apart, by the jig",
                    changes=(("binding.punch_pitch_mm", None),),
                ),
            ),
        ),
    )
