"""A pocket as it is decided, its pieces and the layers they lie in."""

from __future__ import annotations

import math
from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.programme import Where
from pleat.core.engines.folding.sheet import BODY, Cut, Piece, Span, piece
from pleat.core.pleats.extras.base import Face, Layer, Sided, Stocked
from pleat.core.pleats.extras.goesin import Filled, Goes, ease_of
from pleat.core.pleats.extras.slabs import along
from pleat.core.trade.extras import GLUED_EDGE_MM, LOW_SIDE_MM, PULL_MM, SMALLEST_POCKET_MM

SLANTS: Final = 6
"""Rectangles that stand for a slant."""
FILM: Final = Estimate.ranged(0.08, 0.1, 0.15, "the film's caliper")
ACROSS: Final[dict[Where, tuple[Where, Where]]] = {
    "head": ("left", "right"),
    "tail": ("left", "right"),
    "left": ("head", "tail"),
    "right": ("head", "tail"),
}
FLOOR: Final[dict[Where, Where]] = {"head": "tail", "tail": "head", "left": "right", "right": "left"}


class Pocket(Filled):
    """A pocket. Its size is that of the finished pocket, without its tabs."""

    kind: Literal["pocket"] = "pocket"
    way: Annotated[
        Literal["tabs", "glued", "clear", "envelope", "page"],
        ChoiceRule(
            "held by",
            (
                ("tabs", "tabs folded under"),
                ("glued", "glue along its edges"),
                ("clear", "clear film, taped on"),
                ("envelope", "an envelope, by its back"),
                ("page", "a leaf of its own, glued to the page"),
            ),
        ),
    ] = "tabs"
    mouth: Sided = "head"
    open_at: Annotated[
        Literal["one", "two"], ChoiceRule("open on", (("one", "one side"), ("two", "two sides that meet")))
    ] = "one"
    width_mm: Annotated[float, LengthRule("the pocket, wide", 15, 600)] | None = None
    height_mm: Annotated[float, LengthRule("the pocket, high", 15, 600)] | None = None
    stand_mm: Annotated[float, LengthRule("it stands out", 0, 400)] = 20.0
    pull_mm: Annotated[float, LengthRule("a pull on it stands out", 0, 120)] = 0.0
    tab_mm: Annotated[float, LengthRule("its tabs", 4, 60)] = 12.0
    turn_mm: Annotated[float, LengthRule("its mouth is turned over by", 0, 80)] = 0.0
    slant_mm: Annotated[float, LengthRule("its mouth slants by", 0, 400)] = 0.0
    offcut: Annotated[
        Literal["no", "second"],
        ChoiceRule(
            "what the slant cuts off", (("no", "is left over"), ("second", "is a second pocket in front"))
        ),
    ] = "no"
    nested: Annotated[int, NumberRule("pockets in each other", 1, 5, whole=True)] = 1
    step_mm: Annotated[float, LengthRule("each lower by", 5, 100)] = 18.0
    stock: Stocked = "card"


def held_by(record: Pocket) -> dict[Where, float]:
    """The sides that are held, with what that takes of the room inside: tabs folded under lie beneath what
    goes in, which reaches to the folds."""
    takes = {"tabs": 0.0, "envelope": 1.0}.get(record.way, GLUED_EDGE_MM)
    first, second = ACROSS[record.mouth]
    sides: tuple[Where, ...] = (
        (first, FLOOR[record.mouth]) if record.open_at == "two" else (first, second, FLOOR[record.mouth])
    )
    return dict.fromkeys(sides, takes)


def proposed(record: Pocket, face: Face, goes: Goes | None, lost: tuple[float, float]) -> tuple[float, float]:
    """(across the mouth, into the pocket) in mm as it is proposed."""
    upright = record.mouth in ("head", "tail")
    wide, high = (face.width_mm, face.height_mm) if upright else (face.height_mm, face.width_mm)
    if record.way == "page":
        return wide, high
    if goes is None:
        return wide * 0.7, high * 0.45
    across, deep = (goes.width_mm, goes.height_mm) if upright else (goes.height_mm, goes.width_mm)
    return across + ease_of(goes.thick.likely) + lost[0], max(deep - record.stand_mm, 10.0) + lost[1]


def pieces_of(
    record: Pocket, key: str, size: tuple[float, float], held: dict[Where, float], caliper: Estimate
) -> tuple[tuple[Piece, ...], tuple[Layer, ...]]:
    """The pieces from the largest to the smallest, and their layers: the pocket itself and each tab under
    it."""
    pieces: list[Piece] = []
    layers: list[Layer] = []
    width, height = size
    for number in range(record.nested):
        less = number * record.step_mm
        wide, high = (width, height - less) if record.mouth in ("head", "tail") else (width - less, height)
        if min(wide, high) < SMALLEST_POCKET_MM:
            break
        x = less if record.mouth == "left" else 0.0
        y = less if record.mouth == "head" else 0.0
        slant = slant_of(record, high)
        layers += along((x, y), (high, high - slant), wide, caliper, slant, SLANTS)
        tab = dict.fromkeys(held, record.tab_mm) if record.way == "tabs" else {}
        for side, takes in tab.items():
            layers += _tab(side, takes, (x, y, wide, high), caliper, slant)
        if record.turn_mm and not slant:
            layers += _turned(record, (x, y, wide, high), caliper)
        name = f"{key} {number + 1}" if record.nested > 1 else key
        pieces.append(_piece(name, record, (wide, high), tab))
        if slant and record.offcut == "second":
            layers += _second(x, y, wide, high, slant, caliper)
    return tuple(pieces), tuple(layers)


def mouths_of(record: Pocket, size: tuple[float, float]) -> tuple[tuple[Point, Point], ...]:
    """The mouths of pockets nested in it, each a step lower."""
    width, height = size
    found: list[tuple[Point, Point]] = []
    for number in range(1, record.nested):
        less = number * record.step_mm
        if (height if record.mouth in ("head", "tail") else width) - less < SMALLEST_POCKET_MM:
            break
        x, y = (
            (less if record.mouth == "left" else width - less),
            (less if record.mouth == "head" else height - less),
        )
        found.append(((0.0, y), (width, y)) if record.mouth in ("head", "tail") else ((x, 0.0), (x, height)))
    return tuple(found)


def slant_of(record: Pocket, high: float) -> float:
    """By how much its mouth comes down from left to right; only a mouth at the head slants, as long as
    something is left to glue on its low side."""
    return record.slant_mm if record.mouth == "head" and record.slant_mm <= high - LOW_SIDE_MM else 0.0


def _second(
    x: float, y: float, wide: float, high: float, slant: float, caliper: Estimate
) -> tuple[Layer, ...]:
    """What the slant cut off, in front at the floor: its upright side at the right edge."""
    return along((x, y + high), (0.0, slant), wide, caliper, -slant, SLANTS)


def behind_glue(across: float, up: float) -> float:
    """The open long side of a right-angled triangle whose two others have a line of glue each, in mm: glue
    that meets it aslant takes more of it (arithmetic: what lies inside both lines is a triangle of the same
    shape)."""
    return math.hypot(across, up) * max(1 - GLUED_EDGE_MM / across - GLUED_EDGE_MM / up, 0.0)


def nip(tab_mm: float, side: float) -> float:
    """By how much a tab is mitred at each end, so that two do not lie on each other."""
    return min(tab_mm, side / 4)


def _tab(
    side: Where, takes: float, box: tuple[float, float, float, float], caliper: Estimate, slant: float = 0.0
) -> tuple[Layer, ...]:
    """The tab on that side, under the pocket, its ends mitred; on the low side of a slant it is shorter."""
    x, y, wide, high = box
    less = slant if side == "right" else 0.0
    off = nip(takes, high - less if side in ("left", "right") else wide)
    if side in ("left", "right"):
        y, high = y + less, high - less
        fold, inner = (high, high - 2 * off), off
        return (
            along((x, y), fold, takes, caliper, inner)
            if side == "left"
            else along((x + wide - takes, y + off), fold[::-1], takes, caliper, -off)
        )
    # its ends in upright strips as those of the side tabs are, so that what one leaves off the other takes up
    head = side == "head"
    return (
        *along((x, y if head else y + high), (0.0, takes), off, caliper, 0.0 if head else -takes),
        Layer(x + off, y if head else y + high - takes, wide - 2 * off, takes, caliper),
        *along(
            (x + wide - off, y if head else y + high - takes),
            (takes, 0.0),
            off,
            caliper,
            0.0 if head else takes,
        ),
    )


def _turned(record: Pocket, box: tuple[float, float, float, float], caliper: Estimate) -> tuple[Layer, ...]:
    """What is turned over at the mouth, behind it."""
    x, y, wide, high = box
    turn = min(record.turn_mm, (high if record.mouth in ("head", "tail") else wide) - 5)
    places = {
        "left": (x, y, turn, high),
        "right": (x + wide - turn, y, turn, high),
        "head": (x, y, wide, turn),
        "tail": (x, y + high - turn, wide, turn),
    }
    return (Layer(*places[record.mouth], caliper),)


def _piece(name: str, record: Pocket, size: tuple[float, float], tabs: dict[Where, float]) -> Piece:
    """Body and tabs; a tab's ends are mitred so that two do not lie on each other, and a slanting mouth is
    cut off."""
    wide, high = size
    slant = slant_of(record, high)
    turned = {record.mouth: record.turn_mm} if record.turn_mm and not slant else {}
    edge = {**tabs, **turned}
    a, b = edge.get("left", 0.0), edge.get("head", 0.0)
    cuts = []
    for side, tab in tabs.items():
        label = f"{side} tab"
        low = slant if side == "right" else 0.0
        off = nip(tab, high - low if side in ("left", "right") else wide)
        if side in ("left", "right"):
            fold, outer = (a, 0.0) if side == "left" else (a + wide, a + wide + tab)
            top = b + low
            cuts += [
                Cut((fold, top), (outer, top + off), (outer, b - 1), frozenset({label})),
                Cut((fold, b + high), (outer, b + high - off), (outer, b + high), frozenset({label})),
            ]
        else:
            fold, outer = (b, 0.0) if side == "head" else (b + high, b + high + tab)
            cuts += [
                Cut((a, fold), (a + off, outer), (a, outer), frozenset({label})),
                Cut((a + wide, fold), (a + wide - off, outer), (a + wide, outer), frozenset({label})),
            ]
    if slant and record.offcut == "no":
        cuts.append(Cut((a, b), (a + wide, b + slant), (a + wide, b), frozenset({BODY})))

    def called(side: Where) -> str:
        return "turned over" if side in turned else f"{side} tab"

    return piece(
        name,
        record.stock,
        [Span(called("left"), a), Span("", wide), Span(called("right"), edge.get("right", 0.0))],
        [Span(called("head"), b), Span("", high), Span(called("tail"), edge.get("tail", 0.0))],
        cuts=cuts,
        glued=[f"{side} tab" for side in tabs],
    )


def inside_of(record: Pocket, goes: Goes, size: tuple[float, float], held: dict[Where, float]) -> Layer:
    """What is in it, on its floor."""
    width, height = size
    floor = held.get(FLOOR[record.mouth], 0.0)
    x, y = (width - goes.width_mm) / 2, (height - goes.height_mm) / 2
    match record.mouth:
        case "head":
            y = height - floor - goes.height_mm
        case "tail":
            y = floor
        case "left":
            x = width - floor - goes.width_mm
        case "right":
            x = floor
    return Layer(x, y, goes.width_mm, goes.height_mm, goes.thick)


def pull_of(record: Pocket, goes: Layer, size: tuple[float, float], caliper: Estimate) -> Layer | None:
    """The pull, from where it is glued behind the edge of what goes in to where it stands out past it and the
    mouth; none where none is wanted."""
    if not record.pull_mm:
        return None
    upright = record.mouth in ("head", "tail")
    wide = min(PULL_MM[0], goes.width_mm if upright else goes.height_mm)
    low, long, mouth = (
        (goes.y_mm, goes.height_mm, size[1]) if upright else (goes.x_mm, goes.width_mm, size[0])
    )
    glued = min(PULL_MM[1], long)
    if record.mouth in ("head", "left"):
        start, end = min(low, 0.0) - record.pull_mm, low + glued
    else:
        start, end = low + long - glued, max(low + long, mouth) + record.pull_mm
    middle = (goes.x_mm + goes.width_mm / 2) if upright else (goes.y_mm + goes.height_mm / 2)
    return (
        Layer(middle - wide / 2, start, wide, end - start, caliper)
        if upright
        else Layer(start, middle - wide / 2, end - start, wide, caliper)
    )


def pull_piece(key: str, record: Pocket, pull: Layer) -> Piece:
    """The strip it is cut from, its foot glued behind what goes in."""
    upright = record.mouth in ("head", "tail")
    wide, long = (pull.width_mm, pull.height_mm) if upright else (pull.height_mm, pull.width_mm)
    foot = min(PULL_MM[1], long / 2)
    return piece(
        f"{key} pull",
        record.stock,
        [Span("", wide)],
        [Span("", long - foot), Span("foot", foot)],
        glued=["foot"],
    )
