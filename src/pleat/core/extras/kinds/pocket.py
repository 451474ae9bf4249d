"""A pocket on a page: with tabs on two or three sides, glued along its edges, of clear film, or an envelope; slanted, or several in each other."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.cautions import GLUE
from pleat.core.estimate import Estimate
from pleat.core.extras.base import ExtraKind, Face, Layer, LeftOfExtras, Mouth, Sided, Stocked, Thing, Work
from pleat.core.extras.goesin import EASE_MM, Filled, Goes, goes_in
from pleat.core.extras.slabs import across, along
from pleat.core.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.folding.convex import Point
from pleat.core.folding.programme import Where
from pleat.core.folding.sheet import BODY, Cut, Piece, Span, piece
from pleat.core.plan import Check, Count, Figure, Offer, Rule
from pleat.core.structures.dressing import PHOTOS
from pleat.core.words import a_or_an, joined

GLUED_MM: Final = 6.0
"""What a line of glue or tape along an edge takes of the throat (common practice: a quarter inch)."""
LEAST_MM: Final = 15.0
"""No pocket is made smaller."""
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
    open_at: Annotated[Literal["one", "two"], ChoiceRule("open on", (("one", "one side"), ("two", "two sides that meet")))] = "one"
    width_mm: Annotated[float, LengthRule("the pocket, wide", 15, 600)] | None = None
    height_mm: Annotated[float, LengthRule("the pocket, high", 15, 600)] | None = None
    stand_mm: Annotated[float, LengthRule("it stands out", 0, 400)] = 20.0
    tab_mm: Annotated[float, LengthRule("its tabs", 4, 60)] = 12.0
    turn_mm: Annotated[float, LengthRule("its mouth is turned over by", 0, 80)] = 0.0
    slant_mm: Annotated[float, LengthRule("its mouth slants by", 0, 400)] = 0.0
    offcut: Annotated[
        Literal["no", "second"], ChoiceRule("what the slant cuts off", (("no", "is left over"), ("second", "is a second pocket in front")))
    ] = "no"
    nested: Annotated[int, NumberRule("pockets in each other", 1, 5, whole=True)] = 1
    step_mm: Annotated[float, LengthRule("each lower by", 5, 100)] = 18.0
    stock: Stocked = "card"


def held_by(record: Pocket) -> dict[Where, float]:
    """The sides that are held, with what that takes of the room inside."""
    takes = {"tabs": record.tab_mm, "envelope": 1.0}.get(record.way, GLUED_MM)
    first, second = ACROSS[record.mouth]
    sides: tuple[Where, ...] = (first, FLOOR[record.mouth]) if record.open_at == "two" else (first, second, FLOOR[record.mouth])
    return dict.fromkeys(sides, takes)


def _along(record: Pocket, face: Face, goes: Goes | None, lost: tuple[float, float]) -> tuple[float, float]:
    """(across the mouth, into the pocket) in mm as it is proposed."""
    upright = record.mouth in ("head", "tail")
    wide, high = (face.width_mm, face.height_mm) if upright else (face.height_mm, face.width_mm)
    if record.way == "page":
        return wide, high
    if goes is None:
        return wide * 0.7, high * 0.45
    across, deep = (goes.width_mm, goes.height_mm) if upright else (goes.height_mm, goes.width_mm)
    return across + EASE_MM + lost[0], max(deep - record.stand_mm, 10.0) + lost[1]


def compute(record: Pocket, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The pocket, on the ruler's marks."""
    ruler, held = left.brief.ruler, held_by(record)
    upright = record.mouth in ("head", "tail")
    first, second = ACROSS[record.mouth]
    lost = (held.get(first, 0.0) + held.get(second, 0.0), held.get(FLOOR[record.mouth], 0.0))
    goes = goes_in(record)
    mouth_wide, deep = _along(record, face, goes, lost)
    proposed = (mouth_wide, deep) if upright else (deep, mouth_wide)
    width = record.width_mm or ruler.snap_up(proposed[0])
    height = record.height_mm or ruler.snap_up(proposed[1])
    wide, high = (width, height) if upright else (height, width)
    mouth = Mouth(record.mouth, max(wide - lost[0], 0.0), max(high - lost[1], 0.0), held)
    caliper = FILM if record.way == "clear" else left.paper.stock(record.stock).caliper.times(2 if record.way == "envelope" else 1)
    pieces, layers = _pieces(record, key, (width, height), held, caliper)
    stands = 0.0
    if goes:
        stands = max((goes.height_mm if upright else goes.width_mm) - mouth.depth_mm, 0.0)
        layers = (*layers, _inside(record, goes, (width, height), held))
    bought = record.way in ("clear", "envelope")
    what = {"clear": "clear film", "envelope": "envelope"}.get(record.way, "")
    counts = (Count(f"extra_{key}", f"{what} {ruler.size(width, height)}", 1, "", "extras"),) if bought else ()
    named = "page pocket" if record.way == "page" else "pocket"
    title = f"{named}{f' for {a_or_an(goes.title)}' if goes and record.goes != 'own' else ''}"
    return Thing(
        title=title,
        width_mm=width,
        height_mm=height,
        outline=((0.0, 0.0), (width, slant), (width, height), (0.0, height)) if (slant := slant_of(record, height)) else (),
        lines=_mouths(record, (width, height)),
        pieces=() if bought else pieces,
        layers=layers,
        counts=counts,
        mouth=mouth,
        stands_mm=stands,
        figures=_figures(record, (width, height), mouth, goes, stands, left),
        checks=(*_slants(record, key, height, left), *_checks(record, key, mouth, goes, stands, left)),
        work=_work(record, what, goes),
        sheet_stock=record.stock,
    )


def _pieces(
    record: Pocket, key: str, size: tuple[float, float], held: dict[Where, float], caliper: Estimate
) -> tuple[tuple[Piece, ...], tuple[Layer, ...]]:
    """The pieces from the largest to the smallest, and their layers: the pocket itself and each tab under it."""
    pieces: list[Piece] = []
    layers: list[Layer] = []
    width, height = size
    for number in range(record.nested):
        less = number * record.step_mm
        wide, high = (width, height - less) if record.mouth in ("head", "tail") else (width - less, height)
        if min(wide, high) < LEAST_MM:
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


def _mouths(record: Pocket, size: tuple[float, float]) -> tuple[tuple[Point, Point], ...]:
    """The mouths of pockets nested in it, each a step lower."""
    width, height = size
    found: list[tuple[Point, Point]] = []
    for number in range(1, record.nested):
        less = number * record.step_mm
        if (height if record.mouth in ("head", "tail") else width) - less < LEAST_MM:
            break
        x, y = (less if record.mouth == "left" else width - less), (less if record.mouth == "head" else height - less)
        found.append(((0.0, y), (width, y)) if record.mouth in ("head", "tail") else ((x, 0.0), (x, height)))
    return tuple(found)


def slant_of(record: Pocket, high: float) -> float:
    """By how much its mouth comes down from left to right; only a mouth at the head slants, down to half its height, so that a tab is left on its low side."""
    return record.slant_mm if record.mouth == "head" and record.slant_mm <= high / 2 else 0.0


def _second(x: float, y: float, wide: float, high: float, slant: float, caliper: Estimate) -> tuple[Layer, ...]:
    """What the slant cut off, in front at the floor: its upright side at the right edge."""
    return along((x, y + high), (0.0, slant), wide, caliper, -slant, SLANTS)


def nip(tab_mm: float, side: float) -> float:
    """By how much a tab is mitred at each end, so that two do not lie on each other."""
    return min(tab_mm, side / 4)


def _tab(side: Where, takes: float, box: tuple[float, float, float, float], caliper: Estimate, slant: float = 0.0) -> tuple[Layer, ...]:
    """The tab on that side, under the pocket, its ends mitred; on the low side of a slant it is shorter."""
    x, y, wide, high = box
    less = slant if side == "right" else 0.0
    off = nip(takes, high if side in ("left", "right") else wide)
    if side in ("left", "right"):
        y, high = y + less, high - less
        fold, inner = (high, high - 2 * off), off
        return (
            along((x, y), fold, takes, caliper, inner)
            if side == "left"
            else along((x + wide - takes, y + off), fold[::-1], takes, caliper, -off)
        )
    fold, inner = (wide, wide - 2 * off), off
    return (
        across((x, y), fold, takes, caliper, inner)
        if side == "head"
        else across((x + off, y + high - takes), fold[::-1], takes, caliper, -off)
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
    """Body and tabs; a tab's ends are mitred so that two do not lie on each other, and a slanting mouth is cut off."""
    wide, high = size
    slant = slant_of(record, high)
    turned = {record.mouth: record.turn_mm} if record.turn_mm and not slant else {}
    edge = {**tabs, **turned}
    a, b = edge.get("left", 0.0), edge.get("head", 0.0)
    cuts = []
    for side, tab in tabs.items():
        label = f"{side} tab"
        off = nip(tab, high if side in ("left", "right") else wide)
        if side in ("left", "right"):
            fold, outer = (a, 0.0) if side == "left" else (a + wide, a + wide + tab)
            top = b + (slant if side == "right" else 0.0)
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


def _inside(record: Pocket, goes: Goes, size: tuple[float, float], held: dict[Where, float]) -> Layer:
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


def _figures(
    record: Pocket, size: tuple[float, float], mouth: Mouth, goes: Goes | None, stands: float, left: LeftOfExtras
) -> tuple[Figure, ...]:
    ruler = left.brief.ruler
    takes = {"tabs": "its tabs", "clear": "the tape", "envelope": "its seams"}.get(record.way, "the glue")
    found = [
        Figure(
            "throat",
            "throat",
            mouth.throat_mm,
            "length",
            f"The pocket across its mouth, less what {takes} take of it on the sides that are held. What slides in is {ruler.show(EASE_MM)} narrower: up to {ruler.show(max(ruler.snap_down(mouth.throat_mm - EASE_MM), 0.0))}.",
            (Rule("arithmetic", "its width less what holds it"), Rule("common practice", "1/8 in of ease, no source")),
        ),
        Figure(
            "depth",
            "depth",
            mouth.depth_mm,
            "length",
            "From its mouth to what holds its floor.",
            (Rule("arithmetic", "its height less what holds its floor"),),
        ),
    ]
    found.append(
        Figure(
            "fits",
            "what fits",
            _fits(mouth),
            "text",
            f"Of the sizes by name those that are {ruler.show(EASE_MM)} narrower than the throat and stand out by a third at most, upright or level.",
            (Rule("standard", "ISO 216, ISO/IEC 7810, nominal inches"), Rule("house rule", "a third stands out at most")),
        )
    )
    slant = slant_of(record, size[1])
    if slant and record.offcut == "second":
        found.append(
            Figure(
                "second",
                "throat of the second",
                max((size[0] ** 2 + slant**2) ** 0.5 - 2 * GLUED_MM, 0.0),
                "length",
                f"What the slant cuts off has sides of {ruler.size(size[0], slant)}; its long side is open, less a line of glue at each end.",
                (Rule("arithmetic", "the long side of a right-angled triangle less the glue"),),
            )
        )
    if goes:
        found.append(
            Figure(
                "stands",
                "stands out",
                stands,
                "length",
                f"What goes in is {ruler.size(goes.width_mm, goes.height_mm)}.",
                (Rule("arithmetic", "its length less the depth"),),
            )
        )
    return tuple(found)


def _fits(mouth: Mouth) -> str:
    """The names of what goes in."""
    sizes = {title: sorted((wide, high)) for key, (title, wide, high) in PHOTOS.items() if wide and key != "own"}
    found = [
        title
        for title, (short, long) in sizes.items()
        if any(wide <= mouth.throat_mm - EASE_MM + 0.05 and high <= mouth.depth_mm * 1.5 for wide, high in ((short, long), (long, short)))
    ]
    return joined(found) if found else "none of the usual sizes"


def _checks(record: Pocket, key: str, mouth: Mouth, goes: Goes | None, stands: float, left: LeftOfExtras) -> tuple[Check, ...]:
    """F1 and F2: what goes in against the throat, and how far it stands out."""
    if goes is None:
        return ()
    ruler, own = left.brief.ruler, f"extras.items.{key}"
    upright = record.mouth in ("head", "tail")
    across = goes.width_mm if upright else goes.height_mm
    size = "width_mm" if upright else "height_mm"
    held = sum(mouth.held.get(side, 0.0) for side in ACROSS[record.mouth])
    wider = Offer(
        f"the pocket {ruler.show(ruler.snap_up(across + EASE_MM + held))} {'wide' if upright else 'high'}",
        ((f"{own}.{size}", ruler.snap_up(across + EASE_MM + held)),),
    )
    sized = record.width_mm is not None or record.height_mm is not None
    by_itself = (Offer("made for what goes in", ((f"{own}.width_mm", None), (f"{own}.height_mm", None))),) if sized else ()
    found = []
    if across > mouth.throat_mm - EASE_MM + 0.05:
        behind = record.way == "tabs" and mouth.throat_mm < across <= mouth.throat_mm + held
        stop = across > mouth.throat_mm
        found.append(
            Check(
                "F2" if behind else "F1",
                "stop" if stop else "watch",
                f"What goes in is {ruler.show(across)} across, the throat {ruler.show(mouth.throat_mm)}.",
                "It slides in behind a glue tab, or not at all: from outside the pocket looks wide enough."
                if behind
                else f"Glue and folds take room; {ruler.show(EASE_MM)} less lets it slide.",
                (wider, *by_itself),
            )
        )
    deep = goes.height_mm if upright else goes.width_mm
    if stands > record.stand_mm + max(ruler.step_mm, 1.0) and deep > stands:
        other = "height_mm" if upright else "width_mm"
        need = ruler.snap_up(deep - record.stand_mm + mouth.held.get(FLOOR[record.mouth], 0.0))
        found.append(
            Check(
                "F1",
                "watch",
                f"It stands out {ruler.show(stands)} past the mouth; {ruler.show(record.stand_mm)} was wanted.",
                f"It is {ruler.show(deep)} long, the pocket {ruler.show(mouth.depth_mm)} deep.",
                (Offer(f"the pocket {ruler.show(need)} {'high' if upright else 'wide'}", ((f"{own}.{other}", need),)), *by_itself),
            )
        )
    return tuple(found)


def _slants(record: Pocket, key: str, high: float, left: LeftOfExtras) -> tuple[Check, ...]:
    """A slant that this pocket cannot have."""
    if not record.slant_mm or slant_of(record, high):
        return ()
    own, ruler = f"extras.items.{key}", left.brief.ruler
    most = ruler.snap_down(high / 2)
    straight = Offer("a straight mouth", ((f"{own}.slant_mm", 0.0),))
    if record.mouth != "head":
        return (
            Check(
                "slant",
                "watch",
                f"Its mouth at the {record.mouth} stays straight.",
                "Only a mouth at the head slants.",
                (Offer("its mouth at the head", ((f"{own}.mouth", "head"), (f"{own}.slant_mm", min(record.slant_mm, most)))), straight),
            ),
        )
    return (
        Check(
            "slant",
            "watch",
            f"A slant of {ruler.show(record.slant_mm)} is more than half its height of {ruler.show(high)}: its mouth stays straight.",
            "On its low side nothing would be left to glue.",
            (Offer(f"a slant of {ruler.show(most)}", ((f"{own}.slant_mm", most),)), straight),
        ),
    )


def _work(record: Pocket, what: str, goes: Goes | None) -> Work:
    held = "three sides" if record.open_at == "one" else "two sides"
    make = {
        "tabs": ("Cut along the slant; what comes off is the second pocket. " if record.slant_mm and record.offcut == "second" else "")
        + "Score and fold its tabs back, mitre their ends, burnish. Cut a notch or a slant now, before any glue.",
        "glued": "Cut it; a notch or a slant now, before any glue.",
        "clear": "Cut the film.",
        "page": "Cut it as large as the page. Score what is turned over at its mouth and fold it in, before any glue.",
        "envelope": "Leave its flap on or cut it off; do it before it is glued.",
    }[record.way]
    fix = f"Glue on {held}: nothing within 6 mm of its mouth. Wipe what comes out, lay waste paper in it and press."
    slip = f"Slide {'it' if goes else 'what belongs there'} in, and out again: it must not catch." if goes or what else ""
    return Work(make, fix, slip, cautions=(GLUE,), tags=frozenset({"glue"}))


KIND: Final = ExtraKind(
    name="pocket",
    title="pocket",
    summary="Open on one side or two; with tabs, glued, of clear film or an envelope.",
    record=Pocket,
    compute=compute,
    group="pockets",
    begins={"goes": "card"},
)
