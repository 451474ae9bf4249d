"""The section end on: whole, in true proportions, and magnified at the fold and at the fore edge; and a folio
flat."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count
from pleat.core.pleats.binding.checks import holding
from pleat.core.pleats.pages.folding import COLUMNS_ROWS
from pleat.core.pleats.pages.imposition import NumberedSheet
from pleat.core.pleats.pages.leaves import Leaf, Opening
from pleat.core.pleats.pages.mixed import MixedFolio
from pleat.core.pleats.pages.sectioned import SectionsBlock
from pleat.core.trade.pages import STUB_MM
from pleat.core.whole.planning import Plan
from pleat.drawing.looks import main, strip
from pleat.drawing.shapes import ControlSpot, Curve, Dim, Dot, Drawing, Group, Label, Line, Rect, Shape

IN_A_ROW: Final = 8
"""Openings side by side."""


@main.register
def whole(result: SectionsBlock, plan: Plan) -> Drawing:
    """The whole block at one scale; at true proportions it is a thin thing."""
    ruler = plan.brief.ruler
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


def _sections_words(result: SectionsBlock) -> str:
    return "one section" if len(result.sections) == 1 else f"{len(result.sections)} sections"


def fold_detail(result: SectionsBlock, ruler: Ruler) -> Drawing:
    """The folds, magnified: sheets nested with their true thickness, section on section."""
    thick = result.thickness.likely
    across = 2.1 * max(thick / len(result.sections), thick * 0.45)
    return Drawing(
        across,
        thick,
        "The folds, magnified: sheets nested one in the other.",
        _block(result, 0.0, across),
        dims=(Dim("right", 0, thick, ruler.thin(thick), spot="pages.measured_block_mm"),),
    )


def fore_edge_detail(result: SectionsBlock, ruler: Ruler, times: float = 1.0) -> Drawing:
    """The fore edge of the thickest section, magnified: inner sheets stand out by their creep, drawn so many
    times too large."""
    thickest = max(range(len(result.sections)), key=lambda number: sum(result.calipers_mm[number]))
    calipers, real = _as_they_lie(result)[thickest], result.creep.likely
    creep = real * times
    folios, thick = len(calipers), 2 * sum(calipers)
    reach = max(thick * 2.1 - creep, thick * 0.8, creep * 0.3)
    shapes: list[Shape] = []
    for number, (offset, caliper) in enumerate(_rows(calipers)):
        out = creep * number / (folios - 1) if folios > 1 and result.creep_how == "leave" else 0.0
        for y in (thick / 2 - offset, thick / 2 + offset):
            shapes.append(
                Curve(
                    (("M", (0.0, y)), ("L", (reach + out, y))),
                    _style(result, thickest, number),
                    caliper * 0.84,
                )
            )
    shapes.append(Line(reach, -thick * 0.12, reach, thick * 1.12, "cutline"))
    dims = (Dim("bottom", reach, reach + creep, ""),) if creep else ()
    if creep:
        words = {"leave": "creep", "trim": "trimmed off:", "narrow": "cut off inside:"}[result.creep_how]
        shapes.append(Label(reach + creep, thick, f"{words} {ruler.thin(real)}", "dimtext", "end", (0, 42)))
    return Drawing(
        reach + creep,
        thick,
        f"The fore edge, magnified: the innermost sheet stands out {ruler.thin(real)}.",
        shapes,
        dims=dims,
    )


def folio_flat(result: SectionsBlock, ruler: Ruler) -> Drawing:
    """One sheet opened flat, from the inside, with its folds in the order they are made, and its fold-out."""
    columns, rows = COLUMNS_ROWS[result.folds]
    wide, high = result.leaf_width_mm + result.trim_mm, result.leaf_height_mm + 2 * result.trim_mm
    width, height, panel = columns * wide, rows * high, result.flap_mm if result.folds == 1 else 0.0
    flap = panel * result.flap_panels
    shapes: list[Shape] = [Rect(0, 0, width, height, "leaf")]
    spine, order = width / 4 if result.folds == 3 else width / 2, 1
    if result.folds == 3:
        shapes += [
            Line(width / 2, 0, width / 2, height, "valley"),
            Label(width / 2, 0, "1st", "quiet", shift=(0, -6)),
        ]
        order = 2
    if result.folds >= 2:
        shapes += [
            Line(0, height / 2, width, height / 2, "valley"),
            Label(width, height / 2, f"{by_count(order, '1st', '2nd')}", "quiet", "start", (4, 5)),
        ]
        order += 1
    names = {1: "", 2: "2nd", 3: "3rd"}
    for x in (spine,) if result.folds < 3 else (spine, width - spine):
        shapes += [Line(x, 0, x, height, "valley"), Label(x, 0, names[order], "quiet", shift=(0, -6))]
    if result.folds == 1:
        shapes += [
            Label(wide / 2, height / 2, "leaf", "label"),
            Label(wide * 1.5, height / 2, "leaf", "label"),
        ]
    dims = [
        Dim("bottom", 0, wide, ruler.number(wide)),
        Dim("left", height - high, height, ruler.number(high)),
    ]
    if result.folds == 1:
        dims.insert(1, Dim("bottom", wide, width, ruler.number(wide)))
    if flap:
        shapes += [
            Rect(width, 0, flap, height, "leaf flap-leaf"),
            Line(width, 0, width, height, "valley"),
            *(
                Line(width + panel * n, 0, width + panel * n, height, "valley")
                for n in range(1, result.flap_panels)
            ),
            Label(width + panel / 2, height / 2, "fold-out", "label", turned=True),
        ]
        dims.append(Dim("top", width, width + panel, ruler.number(panel), spot="pages.flap_mm"))
    return Drawing(
        width + flap, height, "A sheet opened flat, seen from the inside, with its folds.", shapes, dims=dims
    )


@strip.register
def small(result: SectionsBlock, _plan: Plan) -> Drawing:
    """The sections standing on their folds, magnified across."""
    thick = result.thickness.likely
    across = 1.9 * max(thick / len(result.sections), thick * 0.4)
    return Drawing(across, thick, "sections", _block(result, 0.0, across))


def _as_they_lie(result: SectionsBlock) -> tuple[tuple[float, ...], ...]:
    """Thickness of every folio's leaf as it lies, section by section: calipers stretched to the block's
    thickness."""
    swollen = result.thickness.likely / (2 * sum(sum(section) for section in result.calipers_mm))
    return tuple(tuple(one * swollen for one in section) for section in result.calipers_mm)


def _rows(calipers: tuple[float, ...]) -> list[tuple[float, float]]:
    """(distance from the section's middle, thickness as it lies) of each folio, outermost first."""
    found, outside = [], sum(calipers)
    for caliper in calipers:
        found.append((outside - caliper / 2, caliper))
        outside -= caliper
    return found


def _style(result: SectionsBlock, section: int, number: int) -> str:
    if result.mixed:
        return f"folio swatch-line-{result.mixed[section][number].swatch}"
    return "folio" if number % 2 else "folio folio-alternate"


def _block(result: SectionsBlock, left: float, right: float) -> list[Shape]:
    """All sections on one another, front at the top."""
    shapes: list[Shape] = []
    top = 0.0
    for number, calipers in enumerate(_as_they_lie(result)):
        shapes += _section(result, number, calipers, top, left, right)
        top += 2 * sum(calipers)
    return shapes


def _section(
    result: SectionsBlock, section: int, calipers: tuple[float, ...], top: float, left: float, right: float
) -> list[Shape]:
    """Folios as nested U shapes, fold on the left, each as thick as it lies; those of a pile end where their
    leaves end."""
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
            commands = (
                (*commands[:3], ("L", (stub, middle + radius)))
                if result.mixed[section][number].in_fold
                else commands[:2]
            )
        shapes.append(Curve(commands, _style(result, section, number), caliper * 0.84))
        if result.mixed and result.mixed[section][number].flap_mm and right >= result.leaf_width_mm:
            inside = middle + (radius - caliper / 2) * (
                1 if result.mixed[section][number].joined == "folded" else -1
            )
            shapes.append(Line(end - result.mixed[section][number].flap_mm, inside, end, inside, "flap"))
    return shapes


def fan(
    section: tuple[MixedFolio, ...], leaf_height_mm: float, positions_mm: tuple[float, ...], across_mm: float
) -> Drawing:
    """A section of a pile opened as a fan ``across_mm`` wide: leaves in their real outlines, level as they
    are nested, stations across them.

    A hole that holds a leaf is filled; one that misses it, or tears out of it, is open. The spots ``n`` and
    ``n.end`` are the corners of the strip where sheet n, from 0, shows.
    """
    widest = max(one.leaf_width_mm for one in section)
    step = min(max((across_mm - widest) / max(1, len(section) - 1), 2.0), widest * 1.06)
    shapes: list[Shape] = []
    spots: list[ControlSpot] = []
    for number, folio in enumerate(section):
        x, y = number * step, (leaf_height_mm - folio.leaf_height_mm) / 2
        if folio.joined == "stub":
            shapes.append(Rect(x, 0, min(step * 0.5, STUB_MM), leaf_height_mm, "leaf left-leaf"))
        shapes.append(Rect(x, y, folio.leaf_width_mm, folio.leaf_height_mm, f"leaf swatch-{folio.swatch}"))
        if folio.least_width_mm < folio.leaf_width_mm - 0.5:
            shapes.append(
                Line(x + folio.least_width_mm, y, x + folio.least_width_mm, y + folio.leaf_height_mm, "ghost")
            )
        if folio.window:
            shapes.append(_window(x, y, folio.first_width_mm, folio.window))
        spots += [
            ControlSpot(str(number), x, 0),
            ControlSpot(f"{number}.end", x + min(step, folio.leaf_width_mm), leaf_height_mm),
        ]
    width = (len(section) - 1) * step + widest
    shapes += [Line(-min(step, 20) * 0.3, at, width, at, "guide") for at in positions_mm]
    loose = 0
    for number, one in enumerate(section):
        if one.joined == "tipped":
            continue
        held = holding(
            positions_mm, leaf_height_mm, one.leaf_height_mm if one.joined == "folded" else leaf_height_mm
        )
        loose += one.joined == "folded" and len(held) < 2
        for position in positions_mm:
            x = number * step + min(2.0, step * 0.3)
            shapes.append(
                Dot(x, position, "hole-held", 0.6)
                if position in held
                else Dot(x, position, "hole-loose", 0.8)
            )
    says = (
        f"{len(section)} sheets from the outside in with {len(positions_mm)} stations; {loose} held by "
        "fewer than two."
    )
    return Drawing(width, leaf_height_mm, says, shapes, spots=spots)


def _window(
    x: float, y: float, width: float, window: tuple[float, float, float, float], fore_on_right: bool = True
) -> Rect:
    """The window of a leaf ``width`` wide whose corner is at a point; its fore edge lies on the right of a
    right-hand page."""
    fore, head, wide, high = window
    return Rect(x + (width - fore - wide if fore_on_right else fore), y + head, wide, high, "ghost")


def spreads(
    found: Sequence[Opening],
    leaf_width_mm: float,
    leaf_height_mm: float,
    pairs: frozenset[frozenset[int]] = frozenset(),
) -> Drawing:
    """Openings in rows, small: left and right page in their papers' colours and sizes, with page numbers and
    fold-outs folded in.

    A blank side is drawn dashed, the cover as an outline. ``pairs`` are sheets of a pile that should meet,
    marked at the foot of the opening where they do. Pages of a pile carry their sheet, section and place as
    data, and the mark the outer sheet's.
    """
    across, down = 2.4 * leaf_width_mm, 1.3 * leaf_height_mm
    shapes: list[Shape] = []
    for number, (left, right) in enumerate(found):
        x, y = number % IN_A_ROW * across, number // IN_A_ROW * down
        for leaf, at, first in ((left, x, False), (right, x + leaf_width_mm, True)):
            if leaf is None:
                shapes.append(Rect(at, y, leaf_width_mm, leaf_height_mm, "ghost"))
            else:
                page = _page(
                    leaf,
                    first,
                    at + (0.0 if first else leaf_width_mm - leaf.width_mm),
                    y + (leaf_height_mm - leaf.height_mm) / 2,
                )
                data = (
                    (
                        ("sheet", str(leaf.folio.id)),
                        ("section", str(leaf.section)),
                        ("place", str(leaf.place)),
                    )
                    if leaf.folio
                    else ()
                )
                shapes.append(Group("page", page, data))
        after = left.page + 1 if left else ""
        before = right.page if right else ""
        numbers = f"{after} | {before}".strip()
        shapes.append(Label(x + leaf_width_mm, y + leaf_height_mm * 1.16, numbers, "spread-number"))
        if left and right:
            gutter = (x + leaf_width_mm, y + leaf_height_mm * 0.5)
            shapes += _keep(left, right, pairs, gutter, leaf_width_mm)
    rows = math.ceil(len(found) / IN_A_ROW)
    return Drawing(
        (IN_A_ROW - 1) * across + 2 * leaf_width_mm, rows * down, f"{len(found)} openings.", shapes
    )


def _keep(
    left: Leaf,
    right: Leaf,
    pairs: frozenset[frozenset[int]],
    gutter: tuple[float, float],
    wide: float,
) -> tuple[Shape, ...]:
    """The mark at the gutter of two sheets of a pile by which they are kept together, or parted."""
    if not left.folio or not right.folio or left.section != right.section or left.place == right.place:
        return ()
    outer = left.folio if left.place < right.place else right.folio
    kept = frozenset((left.folio.id, right.folio.id)) in pairs
    mark = Dot(*gutter, "kept-mark" if kept else "keep-mark", radius_mm=wide * 0.09)
    reach = Dot(*gutter, "reach", radius_mm=wide * 0.26)
    return (Group("keep", (reach, mark), (("act", "part" if kept else "pair"), ("sheet", str(outer.id)))),)


def _page(leaf: Leaf, first_page: bool, x: float, y: float) -> tuple[Shape, ...]:
    """One page of an opening, with its window and the fold-out that lies on it, hinged at the fore edge."""
    shapes: list[Shape] = [
        Rect(
            x,
            y,
            leaf.width_mm,
            leaf.height_mm,
            "leaf blank-page" if leaf.blank(first_page) else f"leaf swatch-{leaf.swatch}",
        )
    ]
    if leaf.folio and leaf.folio.window and not leaf.second:
        shapes.append(_window(x, y, leaf.width_mm, leaf.folio.window, first_page))
    if leaf.flap_over(first_page):
        edge = x + leaf.width_mm if first_page else x
        style = "leaf blank-page" if leaf.flap_blank else f"leaf swatch-{leaf.swatch}"
        shapes.append(
            Rect(
                edge - leaf.flap_mm if first_page else edge,
                y,
                leaf.flap_mm,
                leaf.height_mm,
                f"{style} folded-in",
            )
        )
        shapes.append(Line(edge, y, edge, y + leaf.height_mm, "flap"))
    return tuple(shapes)


def numbered(sheet: NumberedSheet, inner: bool, wide: float = 30.0, high: float = 40.0) -> Drawing:
    """One side of a sheet before folding, with its page numbers as they must stand on it; cells of one size,
    not to scale."""
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
                Label(
                    x + wide / 2,
                    y + high / 2,
                    str(cell.page),
                    "page-number",
                    shift=(0, wide * 0.16),
                    upside_down=cell.upside_down,
                )
            )
    pages = ", ".join(str(cell.page) for cells in grid for cell in cells)
    side = "inner" if inner else "outer"
    return Drawing(
        columns * wide,
        rows * high,
        f"Section {sheet.section}, sheet {sheet.sheet}, {side} side: pages {pages}.",
        shapes,
    )
