"""The section end on: whole, in true proportions, and magnified at the fold and at the fore edge; and a folio flat."""

from __future__ import annotations

from pleat.core.pages.compute import PagesResult
from pleat.core.units import Ruler
from pleat.drawing.shapes import Curve, Dim, Drawing, Label, Line, Rect, Shape


def whole(result: PagesResult, ruler: Ruler) -> Drawing:
    """The whole section at one scale; at true proportions it is a thin thing."""
    width, thick = result.leaf_width_mm, result.thickness.likely
    shapes = _folios(result, 0.0, width)
    if result.flap_mm:
        shapes.append(Line(width - result.flap_mm, -thick * 0.1, width, -thick * 0.1, "flap"))
    return Drawing(
        width + result.creep.likely,
        thick,
        f"The section end on: {result.folios} folded sheets, {ruler.thin(thick)} thick.",
        shapes,
        dims=(Dim("bottom", 0, width, ruler.show(width)),),
    )


def fold_detail(result: PagesResult, ruler: Ruler) -> Drawing:
    """The fold, magnified: sheets nested with their true thickness."""
    thick = result.thickness.likely
    return Drawing(
        thick * 2.1,
        thick,
        "The fold, magnified: sheets nested one in the other.",
        _folios(result, 0.0, thick * 2.1),
        dims=(Dim("right", 0, thick, ruler.thin(thick)),),
    )


def fore_edge_detail(result: PagesResult, ruler: Ruler) -> Drawing:
    """The fore edge at the same magnification: inner sheets stand out by their creep."""
    thick, creep = result.thickness.likely, result.creep.likely
    reach = max(thick * 2.1 - creep, thick * 0.8)
    shapes: list[Shape] = []
    for number, (offset, caliper) in enumerate(_rows(result)):
        end = reach + (creep * number / (result.folios - 1) if result.folios > 1 else 0.0)
        for y in (thick / 2 - offset, thick / 2 + offset):
            shapes.append(Curve((("M", (0.0, y)), ("L", (end, y))), _style(number), caliper * 0.84))
    shapes.append(Line(reach, -thick * 0.12, reach, thick * 1.12, "cutline"))
    dims = (Dim("bottom", reach, reach + creep, ""),) if creep else ()
    if creep:
        shapes.append(Label(reach + creep, thick, f"creep {ruler.thin(creep)}", "dimtext", "end", (0, 42)))
    return Drawing(
        reach + creep, thick, f"The fore edge, magnified: the innermost sheet stands out {ruler.thin(creep)}.", shapes, dims=dims
    )


def folio_flat(result: PagesResult, ruler: Ruler) -> Drawing:
    """One sheet opened flat, from the inside, with its fold and its fold-out."""
    width, height, flap = result.leaf_width_mm, result.leaf_height_mm, result.flap_mm
    shapes: list[Shape] = [
        Rect(0, 0, 2 * width, height, "leaf"),
        Line(width, 0, width, height, "valley"),
        Label(width / 2, height / 2, "leaf", "label"),
        Label(width * 1.5, height / 2, "leaf", "label"),
    ]
    dims = [Dim("bottom", 0, width, ruler.number(width)), Dim("bottom", width, 2 * width, ruler.number(width))]
    if flap:
        shapes += [
            Rect(2 * width, 0, flap, height, "leaf flap-leaf"),
            Line(2 * width, 0, 2 * width, height, "valley"),
            Label(2 * width + flap / 2, height / 2, "fold-out", "label", turned=True),
        ]
        dims.append(Dim("top", 2 * width, 2 * width + flap, ruler.number(flap), spot="pages.flap_mm"))
    dims.append(Dim("left", 0, height, ruler.number(height)))
    return Drawing(2 * width + flap, height, "A folded sheet opened flat, seen from the inside.", shapes, dims=dims)


def strip(result: PagesResult) -> Drawing:
    """The section standing on its fold, magnified across."""
    thick = result.thickness.likely
    return Drawing(thick * 1.9, thick, "section", _folios(result, 0.0, thick * 1.9))


def _rows(result: PagesResult) -> list[tuple[float, float]]:
    """(distance from the middle, thickness as it lies) of each folio, outermost first."""
    caliper = result.thickness.likely / (2 * result.folios)
    return [((result.folios - number - 0.5) * caliper, caliper) for number in range(result.folios)]


def _style(number: int) -> str:
    return "folio" if number % 2 else "folio folio-alternate"


def _folios(result: PagesResult, left: float, right: float) -> list[Shape]:
    """Folios as nested U shapes, fold on the left, each as thick as it lies."""
    thick = result.thickness.likely
    middle, centre = thick / 2, left + thick / 2
    shapes: list[Shape] = []
    for number, (radius, caliper) in enumerate(_rows(result)):
        commands: tuple[tuple[str, tuple[float, ...]], ...] = (
            ("M", (right, middle - radius)),
            ("L", (centre, middle - radius)),
            ("A", (radius, radius, 0, 0, 0, centre, middle + radius)),
            ("L", (right, middle + radius)),
        )
        shapes.append(Curve(commands, _style(number), caliper * 0.84))
    return shapes
