"""A picture, card or tag on the page: glued down, in photo corners, or in tucks that are glued on two sides;
flat, folded or an accordion."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.estimate import Estimate
from pleat.core.base.fields import ChoiceRule, NumberRule
from pleat.core.base.plan import Count, Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.engines.folding.convex import Point
from pleat.core.engines.folding.sheet import Span, piece
from pleat.core.pleats.extras.base import ExtraKind, Face, Layer, LeftOfExtras, Thing, WorkWords
from pleat.core.pleats.extras.goesin import Filled, goes_in


class Picture(Filled):
    """Something flat that is put on a page."""

    kind: Literal["picture"] = "picture"
    way: Annotated[
        Literal["glued", "corners", "tucks"],
        ChoiceRule(
            "held by",
            (("glued", "glue"), ("corners", "photo corners"), ("tucks", "two tucks across corners")),
        ),
    ] = "glued"
    stock: Annotated[
        Literal["have", "card", "mat", "leaf"],
        ChoiceRule(
            "it is",
            (
                ("have", "what you have"),
                ("card", "cut from folding card"),
                ("mat", "cut from face paper"),
                ("leaf", "cut from leaf paper"),
            ),
        ),
    ] = "have"
    panels: Annotated[int, NumberRule("panels, folded on each other", 1, 12, whole=True)] = 1


def compute(record: Picture, key: str, _face: Face, left: LeftOfExtras) -> Thing:
    """It as it lies, all its panels on each other."""
    ruler, goes = left.brief.ruler, goes_in(record)
    width, height, thick = (
        (goes.width_mm, goes.height_mm, goes.thick) if goes else (60.0, 90.0, left.paper.leaf.caliper)
    )
    caliper = left.paper.stock("card").caliper
    own = record.stock != "have"
    thick = left.paper.stock(record.stock).caliper if own else thick
    sheet = piece(
        key,
        record.stock,
        [Span(f"panel {number + 1}" if record.panels > 1 else "", width) for number in range(record.panels)],
        [Span("", height)],
    )
    layers = [Layer(0.0, 0.0, width, height, thick.times(record.panels))]
    counts: tuple[Count, ...] = ()
    lines: list[tuple[Point, Point]] = []
    if record.way != "glued":
        size, at = _corners(record.way, width, height)
        layers += [Layer(x, y, size, size, caliper) for x, y in at]
        lines += [
            ((x, y + size), (x + size, y)) if (x == 0) == (y == 0) else ((x, y), (x + size, y + size))
            for x, y in at
        ]
        counts = (
            Count(
                key=f"extra_{key}",
                name="photo corner" if record.way == "corners" else "tuck",
                count=len(at),
                stock="",
                use="extras",
            ),
        )
    folded = f", {record.panels} panels" if record.panels > 1 else ""
    fix = {
        "glued": "Glue it down and press.",
        "corners": "Put the corners on it, lay it where it goes, and press them down.",
        "tucks": "Glue each tuck on its two outer sides only: the third is the mouth. Slip the corners in "
        "when they are dry.",
    }[record.way]
    name = goes.title if goes else "picture"
    return Thing(
        title=f"{name}{folded}",
        width_mm=width,
        height_mm=height,
        layers=tuple(layers),
        lines=tuple(lines),
        counts=counts,
        figures=_figures(record, (width, height), thick, ruler),
        pieces=(sheet,) if own else (),
        sheet_stock=record.stock if own else "",
        work=WorkWords(
            _made(record),
            fix,
            tags=frozenset({"glue", "on a mat"} if record.way == "glued" else {"on a mat"}),
        ),
    )


def _corners(way: str, width: float, height: float) -> tuple[float, list[tuple[float, float]]]:
    """How large the corners are that hold it, and where they lie: all four, or two for tucks."""
    size = min(15.0, width / 3, height / 3)
    right, foot = width - size, height - size
    if way == "corners":
        return size, [(0.0, 0.0), (right, 0.0), (0.0, foot), (right, foot)]
    return size, [(0.0, 0.0), (right, foot)]


def _figures(record: Picture, size: tuple[float, float], thick: Estimate, ruler: Ruler) -> tuple[Figure, ...]:
    """How large it is on the page, and how thick."""
    return (
        Figure(
            key="size",
            label="on the page",
            value=size,
            show="size",
            how="As it lies, folded up.",
            rules=(Rule("bank_card", "its size by name: ISO 216, ISO/IEC 7810, nominal inches"),),
        ),
        Figure(
            key="thick",
            label="it is thick",
            value=thick.times(record.panels),
            show="thin",
            how=f"{record.panels} × {ruler.fine(thick.likely)}.",
            rules=(Rule("arithmetic", "its panels on each other"),),
        ),
    )


def _made(record: Picture) -> str:
    if record.stock == "have":
        return ""
    return (
        "Cut it; score its panels and fold them to and fro like a fan."
        if record.panels > 1
        else "Cut it to size."
    )


KIND: Final = ExtraKind(
    name="picture",
    title="picture, card or tag",
    summary="Glued, in corners or in tucks; flat or folded.",
    record=Picture,
    compute=compute,
    group="mats and pictures",
    begins={"goes": "9x13"},
)
