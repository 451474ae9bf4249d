"""The section end on: whole, in true proportions, and magnified at the fold and at the fore edge; and a folio flat."""

from __future__ import annotations

import math

from pleat.core.binding.checks import holding
from pleat.core.pages.compute import PagesResult
from pleat.core.pages.folding import COLUMNS_ROWS
from pleat.core.pages.imposition import NumberedSheet
from pleat.core.pages.mixed import MixedFolio
from pleat.core.units import Ruler
from pleat.drawing.shapes import Curve, Dim, Dot, Drawing, Label, Line, Rect, Shape


def whole(result: PagesResult, ruler: Ruler) -> Drawing:
    """The whole block at one scale; at true proportions it is a thin thing."""
    width, thick = result.leaf_width_mm, result.thickness.likely
    shapes = _block(result, 0.0, width)
    if result.flap_mm:
        shapes.append(Line(width - result.flap_mm, -thick * 0.1, width, -thick * 0.1, "flap"))
    return Drawing(
        width + result.creep.likely,
        thick,
        f"The block end on, {_sections_words(result)}, {ruler.thin(thick)} thick.",
        shapes,
        dims=(Dim("bottom", 0, width, ruler.show(width)),),
    )


def _sections_words(result: PagesResult) -> str:
    return "one section" if len(result.sections) == 1 else f"{len(result.sections)} sections"


def fold_detail(result: PagesResult, ruler: Ruler) -> Drawing:
    """The folds, magnified: sheets nested with their true thickness, section on section."""
    thick = result.thickness.likely
    across = 2.1 * max(thick / len(result.sections), thick * 0.45)
    return Drawing(
        across,
        thick,
        "The folds, magnified: sheets nested one in the other.",
        _block(result, 0.0, across),
        dims=(Dim("right", 0, thick, ruler.thin(thick)),),
    )


def fore_edge_detail(result: PagesResult, ruler: Ruler, times: float = 1.0) -> Drawing:
    """The fore edge of the thickest section, magnified: inner sheets stand out by their creep, drawn so many times too large."""
    thickest = max(range(len(result.sections)), key=lambda number: sum(result.calipers_mm[number]))
    calipers, real = _as_they_lie(result)[thickest], result.creep.likely
    creep = real * times
    folios, thick = len(calipers), 2 * sum(calipers)
    reach = max(thick * 2.1 - creep, thick * 0.8, creep * 0.3)
    shapes: list[Shape] = []
    for number, (offset, caliper) in enumerate(_rows(calipers)):
        out = creep * number / (folios - 1) if folios > 1 and result.creep_how == "leave" else 0.0
        for y in (thick / 2 - offset, thick / 2 + offset):
            shapes.append(Curve((("M", (0.0, y)), ("L", (reach + out, y))), _style(result, thickest, number), caliper * 0.84))
    shapes.append(Line(reach, -thick * 0.12, reach, thick * 1.12, "cutline"))
    dims = (Dim("bottom", reach, reach + creep, ""),) if creep else ()
    if creep:
        words = {"leave": "creep", "trim": "trimmed off:", "narrow": "cut off inside:"}[result.creep_how]
        shapes.append(Label(reach + creep, thick, f"{words} {ruler.thin(real)}", "dimtext", "end", (0, 42)))
    return Drawing(reach + creep, thick, f"The fore edge, magnified: the innermost sheet stands out {ruler.thin(real)}.", shapes, dims=dims)


def folio_flat(result: PagesResult, ruler: Ruler) -> Drawing:
    """One sheet opened flat, from the inside, with its folds in the order they are made, and its fold-out."""
    columns, rows = COLUMNS_ROWS[result.folds]
    wide, high = result.leaf_width_mm + result.trim_mm, result.leaf_height_mm + 2 * result.trim_mm
    width, height, panel = columns * wide, rows * high, result.flap_mm if result.folds == 1 else 0.0
    flap = panel * result.flap_panels
    shapes: list[Shape] = [Rect(0, 0, width, height, "leaf")]
    spine, order = width / 4 if result.folds == 3 else width / 2, 1
    if result.folds == 3:
        shapes += [Line(width / 2, 0, width / 2, height, "valley"), Label(width / 2, 0, "1st", "quiet", shift=(0, -6))]
        order = 2
    if result.folds >= 2:
        shapes += [
            Line(0, height / 2, width, height / 2, "valley"),
            Label(width, height / 2, f"{'1st' if order == 1 else '2nd'}", "quiet", "start", (4, 5)),
        ]
        order += 1
    names = {1: "", 2: "2nd", 3: "3rd"}
    for x in (spine,) if result.folds < 3 else (spine, width - spine):
        shapes += [Line(x, 0, x, height, "valley"), Label(x, 0, names[order], "quiet", shift=(0, -6))]
    if result.folds == 1:
        shapes += [Label(wide / 2, height / 2, "leaf", "label"), Label(wide * 1.5, height / 2, "leaf", "label")]
    dims = [Dim("bottom", 0, wide, ruler.number(wide)), Dim("left", height - high, height, ruler.number(high))]
    if result.folds == 1:
        dims.insert(1, Dim("bottom", wide, width, ruler.number(wide)))
    if flap:
        shapes += [
            Rect(width, 0, flap, height, "leaf flap-leaf"),
            Line(width, 0, width, height, "valley"),
            *(Line(width + panel * n, 0, width + panel * n, height, "valley") for n in range(1, result.flap_panels)),
            Label(width + panel / 2, height / 2, "fold-out", "label", turned=True),
        ]
        dims.append(Dim("top", width, width + panel, ruler.number(panel), spot="pages.flap_mm"))
    return Drawing(width + flap, height, "A sheet opened flat, seen from the inside, with its folds.", shapes, dims=dims)


def strip(result: PagesResult) -> Drawing:
    """The sections standing on their folds, magnified across."""
    thick = result.thickness.likely
    across = 1.9 * max(thick / len(result.sections), thick * 0.4)
    return Drawing(across, thick, "sections", _block(result, 0.0, across))


def _as_they_lie(result: PagesResult) -> tuple[tuple[float, ...], ...]:
    """Thickness of every folio's leaf as it lies, section by section: calipers stretched to the block's thickness."""
    swollen = result.thickness.likely / (2 * sum(sum(section) for section in result.calipers_mm))
    return tuple(tuple(one * swollen for one in section) for section in result.calipers_mm)


def _rows(calipers: tuple[float, ...]) -> list[tuple[float, float]]:
    """(distance from the section's middle, thickness as it lies) of each folio, outermost first."""
    found, outside = [], sum(calipers)
    for caliper in calipers:
        found.append((outside - caliper / 2, caliper))
        outside -= caliper
    return found


def _style(result: PagesResult, section: int, number: int) -> str:
    if result.mixed:
        return f"folio swatch-line-{result.mixed[section][number].swatch}"
    return "folio" if number % 2 else "folio folio-alternate"


def _block(result: PagesResult, left: float, right: float) -> list[Shape]:
    """All sections on one another, front at the top."""
    shapes: list[Shape] = []
    top = 0.0
    for number, calipers in enumerate(_as_they_lie(result)):
        shapes += _section(result, number, calipers, top, left, right)
        top += 2 * sum(calipers)
    return shapes


def _section(result: PagesResult, section: int, calipers: tuple[float, ...], top: float, left: float, right: float) -> list[Shape]:
    """Folios as nested U shapes, fold on the left, each as thick as it lies; those of a pile end where their leaves end."""
    thick = 2 * sum(calipers)
    middle, centre = top + thick / 2, left + thick / 2
    shapes: list[Shape] = []
    for number, (radius, caliper) in enumerate(_rows(calipers)):
        end = right
        if result.mixed and right >= result.leaf_width_mm:
            end = max(centre, right * result.mixed[section][number].leaf_width_mm / result.leaf_width_mm)
        commands: tuple[tuple[str, tuple[float, ...]], ...] = (
            ("M", (end, middle - radius)),
            ("L", (centre, middle - radius)),
            ("A", (radius, radius, 0, 0, 0, centre, middle + radius)),
            ("L", (end, middle + radius)),
        )
        if result.mixed and result.mixed[section][number].joined != "folded":
            stub = centre + (end - centre) * 0.15
            commands = (*commands[:3], ("L", (stub, middle + radius))) if result.mixed[section][number].in_fold else commands[:2]
        shapes.append(Curve(commands, _style(result, section, number), caliper * 0.84))
    return shapes


def fan(section: tuple[MixedFolio, ...], leaf_height_mm: float, positions_mm: tuple[float, ...], names: bool = True) -> Drawing:
    """A section of a pile opened as a fan: leaves in their real outlines, level as they are nested, with the stations across them.

    A hole that holds a leaf is filled; one that misses it, or tears out of it, is crossed.
    """
    step = max(16.0, 0.24 * max(one.leaf_width_mm for one in section))
    shapes: list[Shape] = []
    for number, one in enumerate(section):
        x, y = number * step, (leaf_height_mm - one.leaf_height_mm) / 2
        if one.joined == "stub":
            shapes.append(Rect(x, 0, step * 0.5, leaf_height_mm, "leaf left-leaf"))
        shapes.append(Rect(x, y, one.leaf_width_mm, one.leaf_height_mm, f"leaf swatch-{one.swatch}"))
        if one.window:
            shapes.append(
                Rect(x + one.leaf_width_mm * 0.3, y + one.leaf_height_mm * 0.3, one.leaf_width_mm * 0.4, one.leaf_height_mm * 0.3, "ghost")
            )
    width = (len(section) - 1) * step + max(one.leaf_width_mm for one in section)
    shapes += [Line(-step * 0.3, at, width, at, "guide") for at in positions_mm]
    for number, one in enumerate(section):
        held = holding(positions_mm, leaf_height_mm, one.leaf_height_mm if one.joined == "folded" else leaf_height_mm)
        if one.joined == "tipped":
            continue
        for at in positions_mm:
            x = number * step + 2.0
            shapes.append(Dot(x, at, "hole-held", 0.6) if at in held else Dot(x, at, "hole-loose", 0.8))
        if names:
            shapes.append(Label(number * step + step / 2, leaf_height_mm, str(number + 1), "quiet", shift=(0, 16)))
    loose = sum(one.joined == "folded" and len(holding(positions_mm, leaf_height_mm, one.leaf_height_mm)) < 2 for one in section)
    return Drawing(
        width,
        leaf_height_mm * 1.06,
        f"{len(section)} sheets from the outside in with {len(positions_mm)} stations; {loose} held by fewer than two.",
        shapes,
    )


def spreads(section: tuple[MixedFolio, ...], first_page: int, leaf_width_mm: float, leaf_height_mm: float) -> Drawing:
    """Every opening of a section, small: left and right page in their papers' colours and sizes, with page numbers.

    A paper that is good on one side has it inside its fold; its other side is drawn blank.
    """
    leaves = [*((one, True) for one in section), *((one, False) for one in reversed(section) if one.joined == "folded")]
    across, gap, down = 2 * leaf_width_mm, leaf_width_mm * 0.4, leaf_height_mm * 1.3
    a_row = 8
    shapes: list[Shape] = []
    for number in range(len(leaves) - 1):
        x, y = number % a_row * (across + gap), number // a_row * down
        (left, first), (right, second) = leaves[number], leaves[number + 1]
        left_blank = left.sides == 1 and not first
        right_blank = right.sides == 1 and second
        for leaf, at, blank in ((left, x + leaf_width_mm - left.leaf_width_mm, left_blank), (right, x + leaf_width_mm, right_blank)):
            shapes.append(
                Rect(
                    at,
                    y + (leaf_height_mm - leaf.leaf_height_mm) / 2,
                    leaf.leaf_width_mm,
                    leaf.leaf_height_mm,
                    "leaf blank-page" if blank else f"leaf swatch-{leaf.swatch}",
                )
            )
        page = first_page + 2 * number + 1
        shapes.append(Label(x + leaf_width_mm, y + leaf_height_mm * 1.16, f"{page} | {page + 1}", "spread-number"))
    rows = math.ceil((len(leaves) - 1) / a_row)
    return Drawing(
        min(len(leaves) - 1, a_row) * (across + gap) - gap, rows * down, f"{len(leaves) - 1} openings of {len(section)} sheets.", shapes
    )


def numbered(sheet: NumberedSheet, inner: bool, wide: float = 30.0, high: float = 40.0) -> Drawing:
    """One side of a sheet before folding, with its page numbers as they must stand on it; cells of one size, not to scale."""
    grid = sheet.inner if inner else sheet.outer
    rows, columns = len(grid), len(grid[0])
    shapes: list[Shape] = []
    for row, cells in enumerate(grid):
        for column, cell in enumerate(cells):
            x, y = column * wide, row * high
            shapes.append(Rect(x, y, wide, high, "leaf"))
            head = y + high * (0.9 if cell.upside_down else 0.1)
            shapes.append(Line(x + wide * 0.3, head, x + wide * 0.7, head, "head-mark"))
            shapes.append(
                Label(x + wide / 2, y + high / 2, str(cell.page), "page-number", shift=(0, wide * 0.16), upside_down=cell.upside_down)
            )
    pages = ", ".join(str(cell.page) for cells in grid for cell in cells)
    side = "inner" if inner else "outer"
    return Drawing(columns * wide, rows * high, f"Section {sheet.section}, sheet {sheet.sheet}, {side} side: pages {pages}.", shapes)
