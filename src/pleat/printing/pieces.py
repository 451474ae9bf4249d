"""The pieces of a cover at true size, for a cutting machine or another program: as SVG in mm and as DXF
(R2000), a layer each for cut, score and glue."""

from __future__ import annotations

import io
from typing import Any, Final

from pleat.core.engines.folding.convex import Polygon
from pleat.core.engines.folding.sheet import Piece
from pleat.core.pleats.cover.laid import Laid, LaidResult
from pleat.core.whole.planning import Plan

_EDGE_MM: Final = 5.0
STYLES: Final = {
    "CUT": 'fill="none" stroke="#000" stroke-width="0.2"',
    "SCORE": 'fill="none" stroke="#06c" stroke-width="0.2" stroke-dasharray="3 1"',
    "BEND": 'fill="none" stroke="#999" stroke-width="0.15" stroke-dasharray="1 1.5"',
    "GLUE": 'fill="#c60" fill-opacity="0.15" stroke="none"',
}
"""The layers, and how they look as SVG; what only bends is a guide and neither cut nor scored."""


def pieces(plan: Plan) -> dict[str, Laid]:
    """Every piece of a book's cover, and of what is folded, by what it is called in an address."""
    found = {}
    for _, result in plan:
        for flat in getattr(result, "flats", ()):
            found[flat.name.replace(" ", "-")] = Laid(flat.piece, 0.0, 0.0, "card", flat.part)
    cover = plan.cover
    return {
        **found,
        **(
            {piece.piece.name.replace(" ", "-"): piece for piece in cover.pieces}
            if isinstance(cover, LaidResult)
            else {}
        ),
    }


def layers(sheet: Piece) -> dict[str, list[Polygon]]:
    """The lines of a piece by layer, closed outlines for cut and glue, lines of two points for the others; mm
    from its upper left corner."""
    glue = [panel.outline for panel in sheet.panels if panel.name in sheet.glued]
    lines: dict[str, list[Polygon]] = {"CUT": list(sheet.outlines), "SCORE": [], "BEND": [], "GLUE": glue}
    for crease in sheet.creases:
        lines["BEND" if crease.kind == "bend" else "SCORE"].append((crease.start, crease.end))
    return lines


def to_svg(piece: Laid) -> str:
    """The piece at true size, each layer a group of its name."""
    width, height = piece.piece.size_mm
    groups = [
        f'<g id="{layer}" {STYLES[layer]}>{"".join(_path(polygon) for polygon in polygons)}</g>'
        for layer, polygons in reversed(layers(piece.piece).items())
        if polygons
    ]
    groups += [
        f'<circle cx="{x:.3f}" cy="{y:.3f}" r="{width_ / 2:.3f}" {STYLES["CUT"]}/>'
        for x, y, width_ in piece.holes
    ]
    wide, high = width + 2 * _EDGE_MM, height + 2 * _EDGE_MM
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" '
        f'viewBox="{-_EDGE_MM} {-_EDGE_MM} {wide:.3f} {high:.3f}">'
        f"<title>{piece.piece.name}</title>{''.join(groups)}</svg>"
    )


def _path(polygon: Polygon) -> str:
    points = "L".join(f"{x:.3f} {y:.3f}" for x, y in polygon)
    close = "Z" if len(polygon) > 2 else ""
    return f'<path d="M{points}{close}"/>'


def to_dxf(piece: Laid) -> str:
    """The piece as DXF, head up: closed polylines for cut and glue, lines for scores and bends, each on its
    layer; units mm."""
    import ezdxf  # slow to load, and seldom asked for

    file = ezdxf.new("R2000", units=4)  # type: ignore[attr-defined]
    space: Any = file.modelspace()
    _, height = piece.piece.size_mm
    for layer, polygons in layers(piece.piece).items():
        file.layers.add(layer)
        for polygon in polygons:
            points = [(x, height - y) for x, y in polygon]
            if len(points) > 2:
                space.add_lwpolyline(points, close=True, dxfattribs={"layer": layer})
            else:
                space.add_line(*points, dxfattribs={"layer": layer})
    for x, y, wide in piece.holes:
        space.add_circle((x, height - y), wide / 2, dxfattribs={"layer": "CUT"})
    out = io.StringIO()
    file.write(out)
    return out.getvalue()
