"""Things among the materials, each kind drawn as what it is, to scale in mm; and a stack of paper edge on."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any, Final

from pleat.core.base.units import Ruler
from pleat.core.engines.sewing.notation import BadSewing
from pleat.core.engines.sewing.notation import read as read_stitch
from pleat.core.engines.sewing.walk import walk
from pleat.core.materials.items import (
    Board,
    BoughtFastener,
    Cloth,
    Elastic,
    Glue,
    Hardware,
    Item,
    Paper,
    Stick,
    Stitch,
    ThreadSpool,
    Tool,
)
from pleat.core.materials.thickness import thickness
from pleat.core.materials.thread import spool_diameter_mm
from pleat.core.materials.uses import grain_axis
from pleat.drawing.shapes import Curve, Dim, Dot, Drawing, Label, Line, Rect, Shape, grain_arrow, unusable

LONGEST_DRAWN_MM: Final = 700.0
"""A roll or a length is drawn so far at most, with a break at its end."""


def picture(item: Item, ruler: Ruler, dims: bool = True) -> Drawing:
    """An item as large as it is; with ``dims`` its sizes stand beside it, those of sheets as fields."""
    return _PICTURES[type(item)](item, ruler, dims)


def _sheet(item: Paper | Board, ruler: Ruler, dims: bool) -> Drawing:
    width, height = item.sheet_width_mm, min(item.sheet_height_mm, LONGEST_DRAWN_MM)
    roll = isinstance(item, Paper) and item.form == "roll"
    pad = isinstance(item, Paper) and item.form == "pad"
    shapes: list[Shape] = []
    if pad:
        shapes += [
            Rect(offset, -offset, width, height, f"sheet swatch-{item.swatch}")
            for offset in (width * 0.05, width * 0.025)
        ]
    if isinstance(item, Board):
        shapes.append(Rect(item.thickness_mm, item.thickness_mm, width, height, "board-edge"))
    shapes.append(Rect(0, 0, width, height, f"sheet swatch-{item.swatch}"))
    shapes += _pattern(item, width, height) if isinstance(item, Paper) else []
    shapes += unusable(width, height, item.margins, item.windows) if isinstance(item, Paper) else []
    if roll:
        shapes += [
            Rect(
                -width * 0.03,
                -width * 0.07,
                width * 1.06,
                width * 0.14,
                f"sheet swatch-{item.swatch}",
                radius=width * 0.07,
            ),
            Line(-width * 0.03, 0, width * 1.03, 0, "fold"),
        ]
    axis = grain_axis(width, item.sheet_height_mm, item.grain)
    if axis:
        shapes += grain_arrow(width * 0.82, height * 0.55, min(width, height) * 0.34, axis)
    if dims and not axis:
        shapes.append(Label(width * 0.5, height * 0.9, "grain not known", "on-sheet"))
    if dims and isinstance(item, Paper) and item.form == "found":
        shapes.append(Label(width * 0.5, height * 0.14, "found", "on-sheet"))
    measures = (
        Dim("bottom", 0, width, ruler.number(width), spot="sheet_width_mm"),
        Dim("left", 0, height, ruler.number(item.sheet_height_mm), spot="sheet_height_mm"),
    )
    size = ruler.size(width, item.sheet_height_mm)
    return Drawing(width, height, f"{item.name}, {size}, to scale.", shapes, dims=measures if dims else ())


def _pattern(item: Paper, width: float, height: float) -> list[Shape]:
    """The pattern as marks: an arrow to its top, or dots; a turned corner where the back is blank."""
    shapes: list[Shape] = []
    step = min(width, height) / 5
    if item.pattern != "plain":
        for row in range(1, int(height / step)):
            for column in range(1, int(width / step)):
                x, y = column * step, row * step
                if item.pattern == "directional":
                    shapes.append(Line(x, y + step * 0.22, x, y - step * 0.22, "pattern", arrow=False))
                    shapes.append(
                        Curve(
                            (
                                ("M", (x - step * 0.12, y - step * 0.08)),
                                ("L", (x, y - step * 0.22)),
                                ("L", (x + step * 0.12, y - step * 0.08)),
                            ),
                            "pattern",
                        )
                    )
                else:
                    shapes.append(Dot(x, y, "pattern-dot", radius_mm=step * 0.08))
    if item.sides == 1:
        corner = min(width, height) * 0.22
        shapes.append(
            Curve(
                (
                    ("M", (0.0, height - corner)),
                    ("L", (corner, height - corner)),
                    ("L", (corner, height)),
                    ("L", (0.0, height - corner)),
                    ("Z", ()),
                ),
                "blank-back",
            )
        )
    return shapes


def edge_on(item: Paper, ruler: Ruler) -> Drawing:
    """Ten sheets edge on, ten times as thick as they are, with the doubt of one."""
    sheet = thickness(item).sheet
    magnified, sheets = 10.0, 10
    thick = sheet.likely * magnified
    width = max(40.0, sheets * thick * 3)
    shapes: list[Shape] = [
        Rect(0, n * thick * 1.04, width, thick, f"edge swatch-{item.swatch}") for n in range(sheets)
    ]
    height = sheets * thick * 1.04
    return Drawing(
        width,
        height,
        f"Ten sheets edge on, ten times as thick: {ruler.thin(10 * sheet.likely)}.",
        shapes,
        dims=(Dim("right", 0, height, ruler.thin(10 * sheet.likely)),),
    )


def _cloth(item: Cloth, ruler: Ruler, dims: bool) -> Drawing:
    width, length = item.roll_width_mm, min(item.length_left_mm, LONGEST_DRAWN_MM)
    core = max(width * 0.06, 20.0)
    shapes: list[Shape] = [
        Rect(0, 0, width, max(length, 40.0), f"sheet swatch-{item.swatch}"),
        Rect(-core * 0.5, -core, width + core, 2 * core, f"sheet swatch-{item.swatch}", radius=core),
    ]
    shapes += [Line(x * width / 14, core, x * width / 14, max(length, 40.0), "weave") for x in range(1, 14)]
    shapes += grain_arrow(width * 0.5, max(length, 40.0) * 0.6, min(width, max(length, 60.0)) * 0.3, "h")
    measures = (
        Dim("bottom", 0, width, ruler.number(width)),
        Dim("left", 0, max(length, 40.0), ruler.number(item.length_left_mm)),
    )
    return Drawing(
        width,
        max(length, 40.0),
        f"{item.name}, a roll {ruler.show(width)} wide.",
        shapes,
        dims=measures if dims else (),
    )


def _thread(item: ThreadSpool, ruler: Ruler, dims: bool) -> Drawing:
    thick = spool_diameter_mm(item) or 0.5
    shapes: list[Shape] = [
        Rect(4, 0, 32, 5, "spool"),
        Rect(4, 47, 32, 5, "spool"),
        Rect(9, 5, 22, 42, f"sheet swatch-{item.swatch}"),
    ]
    rows = max(4, min(40, int(42 / (thick * 1.6))))
    shapes += [Line(9, 5 + n * 42 / rows, 31, 5 + (n + 0.6) * 42 / rows, "weave") for n in range(rows)]
    shapes.append(
        Curve((("M", (31.0, 44.0)), ("C", (44.0, 46.0, 44.0, 60.0, 62.0, 54.0))), "thread-drawn", thick)
    )
    if dims:
        shapes.append(Label(50, 49, f"{ruler.fine(thick)} thick", "label", "start", (0, -6)))
    return Drawing(66, 60, f"{item.name}, {ruler.fine(thick)} thick.", shapes)


def _elastic(item: Elastic, ruler: Ruler, dims: bool) -> Drawing:
    width = item.width_mm
    wave: tuple[tuple[str, tuple[float, ...]], ...] = (
        ("M", (0.0, 12.0)),
        ("C", (14.0, -8.0, 24.0, 34.0, 38.0, 12.0)),
        ("C", (50.0, -8.0, 60.0, 34.0, 76.0, 12.0)),
    )
    if item.shape == "loop":
        wave = (
            ("M", (8.0, 12.0)),
            ("C", (8.0, -4.0, 68.0, -4.0, 68.0, 12.0)),
            ("C", (68.0, 28.0, 8.0, 28.0, 8.0, 12.0)),
            ("Z", ()),
        )
    shapes: list[Shape] = [Curve(wave, f"elastic swatch-line-{item.swatch}", width)]
    if dims:
        shapes.append(Label(38, 34, f"{ruler.fine(width)}, stretches by {item.stretch:g} %", "label"))
    return Drawing(76, 36, f"{item.name}, {ruler.fine(width)} wide.", shapes)


def _hardware(item: Hardware, ruler: Ruler, dims: bool) -> Drawing:
    radius, wire = item.inner_mm / 2, item.wire_mm
    outer = radius + wire
    if item.shape == "post":
        shapes: list[Shape] = [
            Rect(0, 0, 10, 2, "metal"),
            Rect(10 / 2 - wire / 2, 2, wire, item.inner_mm, "metal"),
            Rect(0, 2 + item.inner_mm, 10, 2, "metal"),
        ]
        measure = Dim("right", 2, 2 + item.inner_mm, ruler.show(item.inner_mm))
        return Drawing(
            10,
            item.inner_mm + 4,
            f"{item.name}, {ruler.show(item.inner_mm)} inside.",
            shapes,
            dims=(measure,) if dims else (),
        )
    many = {"ring": 1, "wire": 7, "coil": 9, "strip": 3}[item.shape]
    pitch = item.pitch_mm if many > 1 and item.pitch_mm else 2.4 * outer
    rings = [_ring(outer + n * pitch, outer, radius, wire) for n in range(many)]
    width = 2 * outer + (many - 1) * pitch
    shapes = [*rings]
    if item.shape == "strip":
        shapes.insert(0, Rect(0, outer * 1.7, width, outer * 0.3, "metal"))
    measures = (Dim("bottom", wire, wire + item.inner_mm, ruler.show(item.inner_mm)),)
    return Drawing(
        width,
        2 * outer,
        f"{item.name}, {ruler.show(item.inner_mm)} inside.",
        shapes,
        dims=measures if dims else (),
    )


def _ring(x: float, y: float, radius: float, wire: float) -> Curve:
    """An open ring, its gap at the top right."""
    middle = radius + wire / 2
    points = [
        (x + middle * math.cos(a), y + middle * math.sin(a))
        for a in (math.radians(d) for d in (-50, 40, 130, 220, 290))
    ]
    commands: list[tuple[str, tuple[float, ...]]] = [("M", points[0])]
    commands += [("A", (middle, middle, 0, 0, 1, *point)) for point in points[1:]]
    return Curve(tuple(commands), "metal-line", wire)


def _stick(item: Stick, ruler: Ruler, dims: bool) -> Drawing:
    length, thick = min(item.length_mm, LONGEST_DRAWN_MM), item.thickness_mm
    shapes: list[Shape] = [
        Rect(0, 0, length, thick, "stick", radius=thick * 0.4),
        Line(length * 0.04, thick * 0.4, length * 0.92, thick * 0.4, "weave"),
    ]
    measures = (
        Dim("bottom", 0, length, ruler.show(item.length_mm)),
        Dim("right", 0, thick, ruler.thin(thick)),
    )
    return Drawing(
        length,
        thick,
        f"{item.name}, {ruler.show(item.length_mm)} long.",
        shapes,
        dims=measures if dims else (),
    )


def _fastener(item: BoughtFastener, ruler: Ruler, dims: bool) -> Drawing:
    radius, thick = item.width_mm / 2, item.thickness_mm
    shapes: list[Shape] = [Dot(radius, radius, "metal" if item.shape != "dot" else "felt", radius_mm=radius)]
    if item.shape == "eyelet":
        shapes.append(Dot(radius, radius, "hole", radius_mm=radius * 0.55))
    if item.shape == "brad":
        shapes += [
            Line(radius, 2.6 * radius, radius * 0.6, 4.4 * radius, "metal-line"),
            Line(radius, 2.6 * radius, radius * 1.4, 4.4 * radius, "metal-line"),
        ]
    side = 2.4 * radius
    shapes.append(Rect(0, side, 2 * radius, thick, "metal" if item.shape != "dot" else "felt"))
    height = side + max(thick, 2 * radius if item.shape == "brad" else thick)
    measures = (
        Dim("top", 0, 2 * radius, ruler.thin(2 * radius)),
        Dim("right", side, side + thick, ruler.thin(thick)),
    )
    return Drawing(
        2 * radius,
        height,
        f"{item.name}, {ruler.thin(2 * radius)} wide and {ruler.thin(thick)} thick.",
        shapes,
        dims=measures if dims else (),
    )


def _glue(item: Glue, _ruler: Ruler, _dims: bool) -> Drawing:
    if item.shape == "tape":
        width = item.width_mm or 12
        shapes: list[Shape] = [
            Dot(30, 30, "stick", radius_mm=30),
            Dot(30, 30, "hole", radius_mm=18),
            Rect(58, 56, 50, width / 2, "sheet swatch-cream"),
        ]
        return Drawing(110, 64, f"{item.name}.", shapes)
    stick = item.shape in ("stick", "hot")
    shapes = [
        Rect(18 if stick else 8, 26, 24 if stick else 44, 66, "sheet swatch-white", radius=4),
        Rect(22 if stick else 24, 8, 16 if stick else 12, 20, "sheet swatch-rust", radius=2),
        Rect(18 if stick else 8, 48, 24 if stick else 44, 22, "sheet swatch-cream"),
    ]
    return Drawing(60, 94, f"{item.name}.", shapes)


def _tool(item: Tool, ruler: Ruler, dims: bool) -> Drawing:
    length = min(item.longest_mm or 150.0, LONGEST_DRAWN_MM)
    shapes: list[Shape]
    measures: tuple[Dim, ...] = (
        (Dim("bottom", 0, length, ruler.show(item.longest_mm)),) if item.longest_mm else ()
    )
    if item.shape == "ruler":
        grid = max((item.grid_mm or 1.0) * 10, length / 30)
        shapes = [
            Rect(0, 0, length, 28, "metal"),
            *(
                Line(n * grid, 0, n * grid, 10 if n % 2 else 16, "ruler-line")
                for n in range(1, int(length / grid))
            ),
        ]
        return Drawing(length, 28, f"{item.name}.", shapes, dims=measures if dims else ())
    if item.shape == "scoring board":
        shapes = [
            Rect(0, 0, length, length * 0.7, "sheet swatch-white"),
            *(Line(n * length / 12, 0, n * length / 12, length * 0.7, "weave") for n in range(1, 12)),
            Rect(0, -6, length, 6, "stick"),
        ]
        return Drawing(length, length * 0.7, f"{item.name}.", shapes, dims=measures if dims else ())
    if item.shape == "trimmer":
        shapes = [
            Rect(0, 0, length, length * 0.4, "sheet swatch-grey"),
            Rect(0, length * 0.15, length, length * 0.06, "metal"),
            Rect(length * 0.6, length * 0.11, length * 0.12, length * 0.14, "sheet swatch-rust", radius=3),
        ]
        return Drawing(length, length * 0.4, f"{item.name}.", shapes, dims=measures if dims else ())
    if item.shape == "punch":
        pitch, hole, margin = item.pitch_mm or 80, item.hole_mm or 6, item.margin_mm or 12
        shapes = [
            Rect(0, 0, pitch + 40, margin + 34, "sheet swatch-white"),
            *(Dot(20 + n * pitch, margin + 10, "hole", radius_mm=hole / 2) for n in range(2)),
            Rect(0, -8, pitch + 40, 18, "metal"),
        ]
        return Drawing(
            pitch + 40,
            margin + 34,
            f"{item.name}.",
            shapes,
            dims=(Dim("bottom", 20, 20 + pitch, ruler.show(pitch)),) if dims else (),
        )
    if item.shape == "caliper":
        shapes = [
            Rect(0, 10, 160, 14, "metal"),
            Rect(0, 10, 12, 44, "metal"),
            Rect(58, 4, 46, 26, "sheet swatch-grey", radius=3),
            Rect(58, 30, 10, 24, "metal"),
            Rect(66, 9, 30, 14, "sheet swatch-moss"),
        ]
        return Drawing(160, 56, f"{item.name}.", shapes)
    shapes = [
        Rect(0, 0, 60, 22, "stick", radius=10),
        Curve((("M", (60.0, 8.0)), ("L", (130.0, 11.0)), ("L", (60.0, 14.0)), ("Z", ())), "metal"),
    ]
    return Drawing(130, 22, f"{item.name}.", shapes)


def _stitch(item: Stitch, _ruler: Ruler, _dims: bool) -> Drawing:
    """The holes of a fold and the thread through them, as far as it goes in the first section."""
    width = 16.0 * (item.stations + 1)
    shapes: list[Shape] = [Rect(0, 22, width, 3, "fold-band")]
    try:
        threads = read_stitch(item.moves, item.stations)
    except BadSewing:
        threads = ()
    for one in walk(threads):
        if one.what == "span" and one.row == one.to_row == 1:
            away = -14 if one.side == "inside" else 14
            edge = 22 if one.side == "inside" else 25
            x, to = 16 * one.start, 16 * one.end
            shapes.append(
                Curve(
                    (("M", (x, edge)), ("Q", ((x + to) / 2, edge + away, to, edge))),
                    f"thread thread-{one.side}",
                )
            )
    shapes += [Dot(16.0 * hole, 23.5, "hole", radius_mm=1.6) for hole in range(1, item.stations + 1)]
    return Drawing(width, 48, f"{item.name}, {item.stations} holes.", shapes)


_PICTURES: Final[dict[type[Item], Callable[[Any, Ruler, bool], Drawing]]] = {
    Paper: _sheet,
    Board: _sheet,
    Cloth: _cloth,
    ThreadSpool: _thread,
    Elastic: _elastic,
    Hardware: _hardware,
    Stick: _stick,
    BoughtFastener: _fastener,
    Glue: _glue,
    Tool: _tool,
    Stitch: _stitch,
}


def bend_test(along_long: bool) -> Drawing:
    """A sheet whose edge is rolled over without creasing, for the grain test: the roll lies along its long or
    its short side."""
    shapes: list[Shape] = [Rect(0, 0, 60, 86, "sheet swatch-cream")]
    if along_long:
        shapes += [
            Rect(34, -1, 30, 88, "sheet swatch-white", radius=15),
            Line(49, 8, 49, 78, "grain", arrow=True),
            Line(49, 78, 49, 8, "grain", arrow=True),
        ]
        return Drawing(
            64, 88, "The right edge rolled over to the left: the fold would run along the long side.", shapes
        )
    shapes += [
        Rect(-1, 0, 62, 30, "sheet swatch-white", radius=15),
        Line(8, 15, 52, 15, "grain", arrow=True),
        Line(52, 15, 8, 15, "grain", arrow=True),
    ]
    return Drawing(
        62, 86, "The top edge rolled over to the bottom: the fold would run along the short side.", shapes
    )
