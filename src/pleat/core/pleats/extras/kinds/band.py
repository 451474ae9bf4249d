"""A belly band across the page or down it, open on both long sides, that holds what is slid behind it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, Final, Literal

from pleat.core.base.cautions import GLUE
from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, LengthRule, NumberRule
from pleat.core.base.plan import Check, Count, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count
from pleat.core.engines.folding.programme import Where
from pleat.core.engines.folding.sheet import Piece, Span, piece
from pleat.core.pleats.extras.base import (
    ExtraKind,
    Face,
    Layer,
    LeftOfExtras,
    Mouth,
    Stocked,
    Thing,
    WorkWords,
)
from pleat.core.pleats.extras.goesin import Filled, Goes, goes_in
from pleat.core.trade.extras import BAND_WRAP_MM, EASE_MM, LOWEST_POCKET_MM
from pleat.core.trade.folding import LEAST_TAB_MM


class Band(Filled):
    """A band from edge to edge, which way it runs, how broad it is (``height_mm``) and how long
    (``width_mm``), and how its ends are held."""

    kind: Literal["band"] = "band"
    runs: Annotated[
        Literal["across", "down"],
        ChoiceRule("it runs", (("across", "across the page"), ("down", "from head to tail"))),
    ] = "across"
    height_mm: Annotated[float, LengthRule("the band, broad", 8, 300)] = 40.0
    width_mm: Annotated[float, LengthRule("the band, from end to end", 20, 600)] | None = None
    ends: Annotated[
        Literal["glued", "buckle", "slide"],
        ChoiceRule(
            "its ends",
            (("glued", "glued at both edges"), ("buckle", "through a buckle"), ("slide", "loose, it slides")),
        ),
    ] = "glued"
    pockets: Annotated[int, NumberRule("pockets stacked on it", 0, 5, whole=True)] = 0
    step_mm: Annotated[float, LengthRule("each lower by", 5, 100)] | None = None
    stock: Stocked = "card"


def compute(record: Band, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The band as it lies on the page: worked out as one across, and turned where it runs down."""
    goes, ruler, down = goes_in(record), left.brief.ruler, record.runs == "down"
    if goes and down:
        goes = replace(goes, width_mm=goes.height_mm, height_mm=goes.width_mm)
    room = face.height_mm if down else face.width_mm
    width = record.width_mm or room
    tab = min(ruler.near(BAND_WRAP_MM), width / 3)
    caliper = left.paper.stock(record.stock).caliper
    throat = width - 2 * tab if record.ends == "glued" else width
    layers = _layers(width, record.height_mm, tab, caliper, goes)
    stacked, more = _stacked(record, key, (width, ruler.near(LEAST_TAB_MM)), caliper)
    layers += more
    band = _cut(
        record,
        key,
        [Span("left tab", tab), Span("", width), Span("right tab", tab)],
        [Span("", record.height_mm)],
    )
    first_end = "left" if down else "head"
    thing = Thing(
        title="belly band",
        width_mm=width,
        height_mm=record.height_mm,
        lines=tuple(((0.0, top), (width, top)) for top in _mouths(more, width, ruler.near(LEAST_TAB_MM))),
        pieces=(band, *stacked),
        layers=tuple(layers),
        counts=(Count(key=f"extra_{key}", name="buckle", count=1, stock="", use="extras"),)
        if record.ends == "buckle"
        else (),
        mouth=Mouth(
            "head", throat, record.height_mm, {"left": tab, "right": tab} if record.ends == "glued" else {}
        ),
        figures=(
            Figure(
                key="throat",
                label="lets through",
                value=throat,
                show="length",
                how=f"The band less the {ruler.show(tab)} that are glued at each end."
                if record.ends == "glued"
                else "All of the band.",
                rules=(Rule("arithmetic", "its length less the glue"),),
            ),
        ),
        checks=(*_checks(record, key, goes, throat, (room, ruler)), *_lost(record, key, len(stacked), ruler)),
        work=WorkWords(
            "Score both ends and fold them." + (_stack_words(len(stacked), first_end) if stacked else ""),
            "Lay what goes in under it and a slip of paper more while you glue the ends: so tight, and no "
            "tighter.",
            "Slide what belongs there in.",
            cautions=(GLUE,),
            tags=frozenset({"glue"}),
        ),
        sheet_stock=record.stock,
    )
    return _turned(thing) if down else thing


def _layers(width: float, height: float, tab: float, caliper: Estimate, goes: Goes | None) -> list[Layer]:
    """The band, its two tabs, and what goes behind it."""
    layers = [
        Layer(0.0, 0.0, width, height, caliper),
        Layer(0.0, 0.0, tab, height, caliper),
        Layer(width - tab, 0.0, tab, height, caliper),
    ]
    if goes:
        x, y = (width - goes.width_mm) / 2, (height - goes.height_mm) / 2
        layers.append(Layer(x, y, goes.width_mm, goes.height_mm, goes.thick))
    return layers


def _mouths(pockets: Iterable[Layer], width: float, least: float) -> list[float]:
    """Where the pockets on the band begin, from its head."""
    return sorted(
        {pocket.y_mm for pocket in pockets if pocket.width_mm == width and pocket.height_mm > least}
    )


TURNED: Final[dict[Where, Where]] = {"head": "left", "left": "head", "right": "tail", "tail": "right"}
"""Where a side of a band that runs across lies when it runs down."""


def _cut(record: Band, name: str, along: list[Span], across: list[Span]) -> Piece:
    """A piece of a band, its tabs glued, the way round it lies on the page."""
    tabs = [span.name for span in (*along, *across) if span.name]
    if record.runs == "across":
        return piece(name, record.stock, along, across, glued=tabs)
    return piece(
        name,
        record.stock,
        [_named(span) for span in across],
        [_named(span) for span in along],
        glued=[TAB[name] for name in tabs],
    )


TAB: Final = {f"{side} tab": f"{other} tab" for side, other in TURNED.items()}


def _named(span: Span) -> Span:
    return replace(span, name=TAB.get(span.name, span.name))


def _turned(thing: Thing) -> Thing:
    """A band that runs across, with its head to the left; its pieces are turned already."""
    assert thing.mouth
    return replace(
        thing,
        width_mm=thing.height_mm,
        height_mm=thing.width_mm,
        lines=tuple(((y0, x0), (y1, x1)) for (x0, y0), (x1, y1) in thing.lines),
        layers=tuple(
            Layer(layer.y_mm, layer.x_mm, layer.height_mm, layer.width_mm, layer.thick)
            for layer in thing.layers
        ),
        mouth=replace(
            thing.mouth, side="left", held={TURNED[side]: mm for side, mm in thing.mouth.held.items()}
        ),
    )


def _checks(
    record: Band, key: str, goes: Goes | None, throat: float, on: tuple[float, Ruler]
) -> tuple[Check, ...]:
    """F1: what goes behind it, as it lies along the band, against what that lets through; ``on`` is the room
    of the page in mm, and the ruler."""
    if goes is None or goes.width_mm <= throat - EASE_MM + 0.05:
        return ()
    (room, ruler), own = on, f"extras.items.{key}"
    wide = ruler.snap_up(
        goes.width_mm + EASE_MM + (2 * ruler.near(BAND_WRAP_MM) if record.ends == "glued" else 0.0)
    )
    turned = "level" if record.lies == "upright" else "upright"
    size = "high" if record.runs == "down" else "wide"
    return (
        Check(
            code="F1",
            level="stop" if goes.width_mm > throat else "watch",
            title=f"What goes behind the band is {ruler.show(goes.width_mm)} "
            f"{size}, the band lets {ruler.show(throat)} through.",
            why=f"It has to slide: {ruler.show(EASE_MM)} less.",
            offers=(
                *(
                    (
                        Offer(
                            label=f"the band {ruler.show(wide)} from end to end",
                            changes=((f"{own}.width_mm", wide),),
                        ),
                    )
                    if wide <= room
                    else ()
                ),
                *(
                    (Offer(label="what goes in the other way round", changes=((f"{own}.lies", turned),)),)
                    if goes.height_mm <= throat - EASE_MM
                    else ()
                ),
                Offer(label="nothing behind it", changes=((f"{own}.goes", "none"),)),
            ),
        ),
    )


def _stack_words(count: int, side: str) -> str:
    pockets = "the pocket" if count == 1 else "the pockets"
    order = "" if count == 1 else ", the highest first and each lower one on the one before"
    return (
        f" Score and fold the tabs of {pockets}, glue {by_count(count, 'it', 'them')} on the band by the "
        f"tabs{order}, mouths towards the {side}, and let them dry."
    )


def _lost(record: Band, key: str, made: int, ruler: Ruler) -> tuple[Check, ...]:
    """Pockets for which the band is too low."""
    if made == record.pockets:
        return ()
    own, each = f"extras.items.{key}", ruler.snap_down(record.height_mm / record.pockets)
    step = record.step_mm
    most = (
        int((record.height_mm - LOWEST_POCKET_MM) / step + 1e-6) + 1
        if step
        else int(record.height_mm / LOWEST_POCKET_MM + 1e-6)
    )
    fits = (
        (Offer(label="all of equal free height", changes=((f"{own}.step_mm", None),)),)
        if each >= LOWEST_POCKET_MM
        else ()
    )
    fewer = Offer(
        label=f"{most} of them" if most > 0 else "none of them", changes=((f"{own}.pockets", max(most, 0)),)
    )
    return (
        Check(
            code="stacked",
            level="watch",
            title=f"{made} of {record.pockets} pockets find room on a band {ruler.show(record.height_mm)} "
            "broad.",
            why=f"Each is {ruler.show(record.step_mm or each)} lower than the one behind it, and none is "
            f"made lower than {ruler.show(LOWEST_POCKET_MM)}.",
            offers=(*fits, fewer),
        ),
    )


def _stacked(
    record: Band, key: str, across: tuple[float, float], caliper: Estimate
) -> tuple[list[Piece], list[Layer]]:
    """Pockets on the band, the highest at the back and as high as the band; each shows as much of the one
    behind it, and is glued on three sides, its tabs folded under."""
    pieces, layers, width = [], [], across[0]
    step = record.step_mm or record.height_mm / max(record.pockets, 1)
    for number in range(record.pockets):
        high = record.height_mm - number * step
        if high < LOWEST_POCKET_MM:
            break
        tab = min(across[1], high / 4)
        name = f"{key} pocket {number + 1}"
        pieces.append(
            _cut(
                record,
                name,
                [Span("left tab", tab), Span("", width), Span("right tab", tab)],
                [Span("", high), Span("tail tab", tab)],
            )
        )
        top = record.height_mm - high
        layers += [
            Layer(0.0, top, width, high, caliper),
            Layer(0.0, top, tab, high, caliper),
            Layer(width - tab, top, tab, high, caliper),
            Layer(0.0, record.height_mm - tab, width, tab, caliper),
        ]
    return pieces, layers


KIND: Final = ExtraKind(
    name="band",
    title="belly band",
    summary="A strip across the page; what is slid behind it stays.",
    record=Band,
    compute=compute,
    group="bands",
    begins={"goes": "a7"},
)
