"""The figures, steps and result that all bindings through holes along an edge have."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Final

from pleat.core.base.cautions import KNIFE, PUNCH
from pleat.core.base.plan import Check, Figure, Offer, Piece, Rule, Step, signature
from pleat.core.base.scenes import HoleAt, Lying, Scene
from pleat.core.base.staged import marked, punched
from pleat.core.base.words import by_count, many
from pleat.core.engines.holes.punch import PitchPlan, in_a_lift, lifts, pitch_plan
from pleat.core.pleats.binding.punched.checks import find, punch_takes
from pleat.core.pleats.binding.punched.record import Bored, Clamp, Cross, HolesByHand, PunchedResult
from pleat.core.trade.holes import HOLE_BRIDGE_MM, HOLE_END_MM

PUNCHING: Final = (
    "Paper punch: keep fingers clear of the pins and the lever, and follow its own "
    "instructions. Drill only a clamped stack, on a scrap, with your eyes covered."
)
MOST_SAID: Final = 8
"""Holes whose places are said; of more the printed jig has them."""
BENCH: Final = {"side": "at the side", "head": "at the head"}


@dataclass(frozen=True)
class PunchedSpec:
    """What one kind adds: its figures (the key figure first), checks, offers, pieces; the words of its last
    step, and what is drawn of it.

    ``hang`` is (title, detail, tools, minutes) of the step in which the leaves come together.
    """

    title: str
    figures: tuple[Figure, ...]
    hang: tuple[str, str, tuple[str, ...], float]
    checks: tuple[Check, ...] = ()
    offers: tuple[Offer, ...] = ()
    parts: tuple[Piece, ...] = ()
    steps: tuple[Step, ...] = ()
    cautions: tuple[str, ...] = ()
    cross: Cross | None = None
    clamp: Clamp | None = None
    what: str = "ring"
    thick_mm: float = 2.0
    sticks_mm: float = 0.0
    row_pitch_mm: float = 0.0
    slots: bool = False
    look: str = "none caught when all are turned right round"
    more: tuple[str, ...] = field(default=())


def result(bored: Bored, spec: PunchedSpec) -> PunchedResult:
    """Everything about holes along an edge, with what a kind has of its own."""
    pitch = _pitch(bored, spec)
    return PunchedResult(
        key_figure=spec.figures[0],
        figures=(
            *spec.figures,
            holes(bored),
            *(() if bored.usual.notch else (_edge(bored), _lifts(bored))),
            *_pins(bored, pitch),
            _jig(bored),
        ),
        checks=(*spec.checks, *find(bored, frozenset(check.key for check in spec.checks))),
        offers=spec.offers,
        parts=spec.parts,
        steps=_steps(bored, spec, pitch),
        at="edge",
        height_mm=bored.edge,
        positions_mm=bored.positions,
        inset_mm=bored.inset,
        look=spec.look,
        along=bored.along,
        edge_mm=bored.edge,
        reach_mm=bored.reach,
        hole_mm=bored.hole,
        hinge_mm=bored.record.hinge_mm,
        lost_mm=lost(bored),
        jig_mm=bored.jig,
        title=spec.title,
        movable=isinstance(bored.record, HolesByHand) and not bored.usual.fixed,
        cross=spec.cross,
        clamp=spec.clamp,
        pitch=pitch,
        what=spec.what,
        thick_mm=spec.thick_mm,
        sticks_mm=spec.sticks_mm,
    )


def lost(bored: Bored) -> float:
    """How much of a page is lost at the held edge: to the score, else to past the holes."""
    return bored.record.hinge_mm or bored.inset + bored.hole / 2 + HOLE_BRIDGE_MM / 2


def _from(bored: Bored) -> str:
    return "from the head" if bored.along == "side" else "from the left"


def marks(bored: Bored) -> str:
    """The holes' places in the ruler's own figures."""
    ruler = bored.left.brief.ruler
    return f"{', '.join(ruler.number(position) for position in bored.positions)} {ruler.name}"


def holes(bored: Bored) -> Figure:
    """Where the holes lie along the edge."""
    ruler, count = bored.left.brief.ruler, len(bored.positions)
    if count > 8:
        first, last = bored.positions[0], bored.edge - bored.positions[-1]
        pitch = bored.positions[1] - bored.positions[0]
        said = (
            f"{count} holes, {ruler.thin(pitch)} apart; the first {ruler.show(first)} {_from(bored)}, the "
            f"last {ruler.show(last)} from the other end."
        )
    else:
        said = f"At {marks(bored)} {_from(bored)}."
    origin = "As you placed them." if bored.by_hand else bored.usual.how
    how = f"{said} {origin}"
    scrap = (
        f"{marks(bored)} {_from(bored)}"
        if count <= 8
        else f"{count} holes, first at {ruler.show(bored.positions[0])}"
    )
    rules = (Rule("chosen by you", "holes set by hand"),) if bored.by_hand else (bored.usual.rule,)
    return Figure(
        key="holes",
        label="holes",
        value=many(count, "hole"),
        show="text",
        how=how,
        rules=rules,
        scrap=f"{scrap}, {ruler.show(bored.inset)} from the edge",
    )


def _edge(bored: Bored) -> Figure:
    ruler = bored.left.brief.ruler
    score = (
        f" Leaves are scored at {ruler.show(bored.record.hinge_mm)}, and turn there."
        if bored.record.hinge_mm
        else ""
    )
    return Figure(
        key="inset",
        label="middle of a hole to the edge",
        value=bored.inset,
        show="length",
        how=f"A hole of {ruler.thin(bored.hole)} so far in leaves a bridge of {ruler.thin(bored.bridge)}, "
        f"which bears the pull.{score} A page loses {ruler.show(lost(bored))} of its "
        f"{ruler.show(bored.reach)}: print and writing begin beyond.",
        rules=(
            Rule(
                "HOLE_BRIDGE_MM", f"4 to 5 mm of paper at the edge, {HOLE_END_MM:g} mm at the ends; no source"
            ),
        ),
        aside=f"{ruler.show(lost(bored))} of the page lost",
    )


def _lifts(bored: Bored) -> Figure:
    ruler, leaves, takes = bored.left.brief.ruler, bored.left.pages.leaves, punch_takes(bored)
    caliper = bored.leaf
    each, need = in_a_lift(caliper, takes), lifts(leaves, caliper, takes)
    books = (
        f", for all {bored.left.brief.quantity} books {bored.left.brief.quantity * need}"
        if bored.left.brief.quantity > 1
        else ""
    )
    how = (
        f"A punch that takes {ruler.thin(takes)} takes {ruler.thin(takes)} ÷ {ruler.fine(caliper)} = "
        f"{many(each, 'leaf', 'leaves')} at once; {leaves} leaves are {many(need, 'lift')}{books}."
        if each
        else f"One leaf is {ruler.fine(caliper)}, the punch takes {ruler.thin(takes)}: drill the stack."
    )
    said = bored.record.punch_takes_mm is not None or any(
        punch.thickest_mm for punch in bored.left.tools.punches
    )
    rules = (
        Rule("arithmetic", "whole leaves in each lift"),
        Rule("measured by you", "your punch")
        if said
        else Rule("PUNCH_TAKES_MM", "a hand punch takes about 1 mm, no source"),
    )
    return Figure(
        key="lifts",
        label="punched in",
        value=many(need, "lift") if each else "drilled",
        show="text",
        how=how,
        rules=rules,
    )


def _jig(bored: Bored) -> Figure:
    ruler = bored.left.brief.ruler
    why = (
        "It ends at the score"
        if bored.record.hinge_mm
        else "The holes lie along its middle, so that it may be turned over"
    )
    return Figure(
        key="jig",
        label="jig",
        value=(bored.jig, bored.edge),
        show="size",
        how=f"As wide as the strip it is laid on, {ruler.show(bored.jig)}, and as long as the edge, "
        f"{ruler.show(bored.edge)}. {why}; it is printed at true size.",
        rules=(Rule("jig_wide", "a jig is as wide as the strip it is laid on"),),
    )


def _pitch(bored: Bored, spec: PunchedSpec) -> PitchPlan | None:
    """How a punch at this pitch is set; None for other bindings."""
    if not spec.row_pitch_mm or not bored.positions:
        return None
    return pitch_plan(
        bored.edge, bored.positions, spec.row_pitch_mm, bored.hole, getattr(bored.record, "pins", 34)
    )


def _pins(bored: Bored, pitch: PitchPlan | None) -> tuple[Figure, ...]:
    """Where the stop goes and which pins are pulled."""
    if pitch is None or not pitch.strokes:
        return ()
    ruler, first = bored.left.brief.ruler, pitch.strokes[0]
    pulled = (
        f"Pull {by_count(len(pitch.pulled), 'pin', 'pins')} {_numbers(pitch.pulled)}: beyond the row they "
        "would break the edge."
        if pitch.pulled
        else "No pin has to be pulled."
    )
    stop = -first.stop_mm
    where = (
        f"the paper's end lies {ruler.thin(stop)} before the first pin's middle"
        if stop > 0
        else f"the paper's end lies {ruler.thin(-stop)} past the first pin's middle, so that the row begins "
        f"on pin {first.pins[0]}"
    )
    more = (
        f" Then set the last hole over the first pin and punch on, {many(len(pitch.strokes), 'stroke')} in "
        "all."
        if len(pitch.strokes) > 1
        else ""
    )
    return (
        Figure(
            key="stop",
            label="stop of the punch",
            value=many(len(pitch.strokes), "stroke")
            + (f", pull {_numbers(pitch.pulled)}" if pitch.pulled else ""),
            show="text",
            how=f"Set the stop so that {where}: both ends of the row have {ruler.thin(bored.positions[0])} "
            f"to the paper's. {pulled}{more}",
            rules=(Rule("arithmetic", "the row centred on the edge"),),
            scrap=f"stop {ruler.thin(abs(stop))}"
            + (f", pull {_numbers(pitch.pulled)}" if pitch.pulled else ""),
        ),
    )


def _numbers(pins: tuple[int, ...]) -> str:
    return ", ".join(str(pin) for pin in pins[:6]) + (" …" if len(pins) > 6 else "")


def _steps(bored: Bored, spec: PunchedSpec, pitch: PitchPlan | None) -> tuple[Step, ...]:
    """Score, jig, check sheet, lifts, reinforcement, and what holds it all, in order."""
    known = signature(*bored.positions, bored.inset, bored.hole)
    title, detail, tools, minutes = spec.hang
    hang = Step(
        key="hang",
        title=title,
        detail=detail,
        tools=tools,
        needs=("block.punched", "leaf.reinforced", "cover.punched", "gear.ready"),
        gives=("book.bound",),
        fixes=("pages.*", "binding.*", "cover.*"),
        cautions=spec.cautions,
        signature=signature(known, *spec.more),
        minutes=minutes,
        kind="hang",
    )
    return (
        *spec.steps,
        *_scored(bored),
        _jigged(bored, known),
        _punched(bored, pitch, known),
        *_reinforced(bored),
        hang,
    )


def _scored(bored: Bored) -> tuple[Step, ...]:
    hinge, leaves = bored.record.hinge_mm, bored.left.pages.leaves
    if not hinge:
        return ()
    return (
        Step(
            key="hinge",
            title="Score every leaf",
            detail=f"{bored.left.brief.ruler.show(hinge)} from the held edge, all {leaves}, and bend each "
            "once to and fro.",
            tools=("bone folder", "scoring board or rule"),
            needs=("block.stacked",),
            gives=("leaf.scored",),
            signature=signature(hinge, leaves),
            minutes=max(3, leaves * 0.3),
            kind="fold",
            shows=lambda: _hinge_scene(bored),
        ),
    )


def _jigged(bored: Bored, known: str) -> Step:
    ruler = bored.left.brief.ruler
    row = marks(bored) if len(bored.positions) <= MOST_SAID else "the row on it"
    action = "Notch" if bored.usual.notch else "Punch"
    return Step(
        key="jig",
        title="Cut the jig and punch it",
        detail=f"The printed jig, {ruler.size(bored.jig, bored.edge)}, along its outline; or a strip of card "
        f"with {row}. {action} it, lay it on one waste leaf and hold "
        "both to the light: this is the check sheet.",
        tools=("printed jig", "knife and rule", *(() if bored.usual.notch else ("paper punch",))),
        needs=("block.stacked",),
        gives=("jig.ready",),
        cautions=(KNIFE,) if bored.usual.notch else (KNIFE, PUNCHING),
        signature=known,
        for_all=True,
        kind="punch",
        shows=lambda: _jig_scene(bored),
    )


def _punched(bored: Bored, pitch: PitchPlan | None, known: str) -> Step:
    """The leaves punched in lifts, each held against the check sheet; or notched."""
    ruler, leaves, takes = bored.left.brief.ruler, bored.left.pages.leaves, punch_takes(bored)
    caliper = bored.leaf
    each = in_a_lift(caliper, takes)
    if bored.usual.notch:
        how = (
            f"{many(len(bored.positions), 'notch', 'notches')}, each {ruler.thin(bored.hole / 2)} deep, a "
            "few leaves at a time"
        )
    else:
        how = (
            f"{many(-(-leaves // each), 'lift')} of at most {many(each, 'leaf', 'leaves')}"
            if each
            else "Drilled, clamped between two boards"
        )
    stop = ""
    if pitch and pitch.strokes:
        first = pitch.strokes[0]
        stop = (
            f" Stop of the punch: the row's first hole on pin {first.pins[0]}, "
            f"{ruler.thin(bored.positions[0])} from the paper's end."
        )
        stop += f" Pull {_numbers(pitch.pulled)}." if pitch.pulled else ""
    action = "cut" if bored.usual.notch else "punch"
    return Step(
        key="punch",
        title="Notch the leaves" if bored.usual.notch else "Punch the leaves",
        detail=f"{how}, {BENCH[bored.along]}: lay the jig level with head and edge, "
        f"{action} through its holes, and hold every lift against the "
        f"check sheet. Count them off.{stop}",
        tools=("knife" if bored.usual.notch else "paper punch", "jig", "check sheet"),
        needs=("block.stacked", "leaf.scored", "jig.ready"),
        gives=("block.punched",),
        cautions=(KNIFE if bored.usual.notch else PUNCHING,),
        signature=signature(known, leaves, each),
        minutes=max(3, lifts(leaves, caliper, takes) * 0.7),
        kind="punch",
        shows=lambda: punched(
            _leaf(bored),
            _holes(bored, bored.inset),
            max(each, 1),
            max(lifts(leaves, caliper, takes), 1),
            "upright" if bored.along == "side" else "level",
        ),
    )


def _leaf(bored: Bored) -> Lying:
    pages = bored.left.pages
    return Lying("", 0.0, 0.0, pages.leaf_width_mm, pages.leaf_height_mm, stock="leaf")


def _holes(bored: Bored, inset: float) -> list[HoleAt]:
    """The holes on a leaf, so far from its held edge."""
    if bored.along == "side":
        return [HoleAt(inset, at, bored.hole) for at in bored.positions]
    return [HoleAt(at, inset, bored.hole) for at in bored.positions]


def _jig_scene(bored: Bored) -> Scene:
    """The jig with its holes, which lie along its middle or as far in as on the leaf."""
    wide, long = bored.jig, bored.edge
    holes = _holes(bored, 0.0 if bored.usual.notch else bored.inset)
    places = bored.positions if len(bored.positions) <= MOST_SAID else ()
    if bored.along == "side":
        return replace(
            marked(Lying("", 0.0, 0.0, wide, long), level=places, kind="mark", holes=holes), lines=()
        )
    return replace(
        marked(Lying("", 0.0, 0.0, long, wide), upright=places, kind="mark", holes=holes), lines=()
    )


def _hinge_scene(bored: Bored) -> Scene:
    hinge = (bored.record.hinge_mm or 0.0,)
    return marked(_leaf(bored), upright=hinge) if bored.along == "side" else marked(_leaf(bored), level=hinge)


REINFORCED: Final = {
    "patches": ("Stick a patch round every hole", "On the side that shows least, rubbed down well.", ()),
    "strip": (
        "Stick a strip along the held edge",
        "Thin, tough paper or cloth as wide as the jig, on the back of each leaf, before or over the holes, "
        "and punch through it again.",
        (),
    ),
    "eyelets": (
        "Set an eyelet in every hole",
        "Head on the front; spread it from the back with light blows.",
        (PUNCH,),
    ),
}


def _reinforced(bored: Bored) -> list[Step]:
    if bored.record.reinforce == "none":
        return []
    title, detail, cautions = REINFORCED[bored.record.reinforce]
    count = bored.left.pages.leaves * len(bored.positions)
    return [
        Step(
            key="reinforce",
            title=title,
            detail=f"{count} holes in all. {detail}",
            needs=("block.punched",),
            gives=("leaf.reinforced",),
            cautions=cautions,
            signature=signature(count),
            minutes=max(3, count * 0.2),
            kind="punch",
        )
    ]
