"""A strip by itself at true size, for a cutter or another program: as SVG in mm, and as DXF (R2000, units
mm)."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Final

from pleat.core.pleats.cover.laid import Laid
from pleat.core.whole.planning import Plan
from pleat.drawing.shapes import Dot, Drawing, Label, Line, Rect
from pleat.drawing.svg import render_print
from pleat.printing import covers, folded, jigs, pieces  # noqa: F401 - covers and jigs make their strips known
from pleat.printing.dxf import as_dxf
from pleat.printing.letters import length_mm
from pleat.printing.pen import PRINT, STYLES
from pleat.printing.strips import Strip, Tile, draw, strips_of

_EDGE_MM: Final = 5.0
_LAYERS: Final = {"strip": "OUTLINE", "score": "SCORE", "fold": "SCORE", "hole": "HOLES"}
_ORDER: Final = ("OUTLINE", "SCORE", "HOLES", "MARKS", "WORDS")


def templates(plan: Plan) -> dict[str, Strip]:
    """Every strip of a book by what it is called in an address."""
    return {strip.key: strip for _, result in plan for strip in strips_of(result, plan)}


def files(plan: Plan) -> dict[str, Strip | Laid]:
    """Every strip and every piece of the cover by what it is called in an address; a piece before a strip of
    its name."""
    return {**templates(plan), **pieces.pieces(plan)}


def title(one: Strip | Laid) -> str:
    """What it is called on the page."""
    return one.name.split(",")[0] if isinstance(one, Strip) else one.piece.name


def written(one: Strip | Laid, form: str) -> str:
    """It at true size as SVG or DXF."""
    if isinstance(one, Laid):
        return pieces.to_svg(one) if form == "svg" else pieces.to_dxf(one)
    return to_svg(one) if form == "svg" else to_dxf(one)


def whole(strip: Strip) -> Drawing:
    """The strip in one piece, however long."""
    return draw(Tile(strip, 0.0, strip.length_mm, "", ""))


def to_svg(strip: Strip) -> str:
    """The strip with its words beside it, at true size."""
    words = max((length_mm(mark.text, STYLES["bold"]) for mark in strip.marks), default=0.0)
    width, height = strip.labels_mm + words + 2 * _EDGE_MM, strip.length_mm + 2 * _EDGE_MM
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" viewBox="0 0 '
        f'{width:.3f} {height:.3f}">'
        f"<title>{strip.name}</title>{render_print(whole(strip), _EDGE_MM, _EDGE_MM, PRINT)}</svg>"
    )


def to_dxf(strip: Strip) -> str:
    """The strip as DXF, head up: its outline, scores, holes as circles and the words, each on a layer of its
    own."""
    return as_dxf(_placed(whole(strip)), strip.length_mm, _ORDER)


def _placed(drawing: Drawing) -> Iterator[tuple[Rect | Line | Dot | Label, str]]:
    for shape in drawing.shapes:
        if isinstance(shape, Label):
            yield shape, "WORDS"
        elif isinstance(shape, Rect | Line | Dot):
            yield shape, _LAYERS.get(shape.style, "MARKS")
