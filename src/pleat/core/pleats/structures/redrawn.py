"""Changing a drawn programme: a score dragged or added, a cell cut away or put back, a flap added, a fold
turned the other way. Each gives the sheets or the groups anew.

A new score keeps the old name on its left, or towards the head; what lies beyond it gets a new one.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from itertools import accumulate
from typing import Final, Literal

from pleat.core.pleats.structures.drawn import (
    MOST_SPANS,
    DrawnFold,
    DrawnGroup,
    DrawnPanel,
    DrawnSheet,
    piece_of,
)

Axis = Literal["x", "y"]
LEAST_MM: Final = 2.0
"""A panel stays this wide when a score is dragged."""
FLAP_MM: Final = 40.0


def sizes(sheet: DrawnSheet, axis: Axis) -> tuple[float, ...]:
    return sheet.widths_mm if axis == "x" else sheet.heights_mm


def with_sizes(sheet: DrawnSheet, axis: Axis, values: Sequence[float]) -> DrawnSheet:
    return sheet.model_copy(update={"widths_mm" if axis == "x" else "heights_mm": tuple(values)})


def scored_at(sheet: DrawnSheet, axis: Axis, number: int, at_mm: float) -> DrawnSheet:
    """The score before a column or row moved to a place from the left edge or the head; its neighbours give
    and take. Bounded, so that both keep a width."""
    own = list(sizes(sheet, axis))
    edges = [0.0, *accumulate(own)]
    at = min(max(at_mm, edges[number - 1] + LEAST_MM), edges[number + 1] - LEAST_MM)
    own[number - 1], own[number] = at - edges[number - 1], edges[number + 1] - at
    return with_sizes(sheet, axis, own)


def sized(sheet: DrawnSheet, axis: Axis, number: int, size_mm: float) -> DrawnSheet:
    """A column or row of another size; the sheet grows or shrinks by the difference."""
    own = list(sizes(sheet, axis))
    own[number] = size_mm
    return with_sizes(sheet, axis, own)


def split(sheet: DrawnSheet, axis: Axis, number: int) -> DrawnSheet:
    """A new score in the middle of a column or row."""
    own = list(sizes(sheet, axis))
    half = own[number] / 2
    place: Callable[[DrawnPanel], int] = (
        (lambda panel: panel.column) if axis == "x" else (lambda panel: panel.row)
    )
    panels: list[DrawnPanel] = []
    names = {panel.name for panel in sheet.panels}
    for panel in sheet.panels:
        at = place(panel)
        moved = panel if at <= number else panel.model_copy(update={_field(axis): at + 1})
        panels.append(moved)
        if at == number:
            name = _new(names)
            names.add(name)
            panels.append(DrawnPanel(**{**panel.model_dump(), "name": name, _field(axis): number + 1}))
    return with_sizes(sheet, axis, [*own[:number], half, half, *own[number + 1 :]]).model_copy(
        update={"panels": tuple(panels)}
    )


def flapped(sheet: DrawnSheet, side: Literal["left", "right", "head", "tail"]) -> tuple[DrawnSheet, str]:
    """A flap beside the base, on a column or row of its own: the sheet, and what the flap is called."""
    axis: Axis = "x" if side in ("left", "right") else "y"
    first = side in ("left", "head")
    base = next((panel for panel in sheet.panels if panel.name == sheet.base), sheet.panels[0])
    own = sizes(sheet, axis)
    name = _new({panel.name for panel in sheet.panels}, f"{side} flap")
    panels = [
        panel.model_copy(update={_field(axis): getattr(panel, _field(axis)) + 1}) if first else panel
        for panel in sheet.panels
    ]
    end = 0 if first else len(own)
    cell = {"column": end, "row": base.row} if axis == "x" else {"column": base.column, "row": end}
    # a flap hangs on what is outermost beside the base
    panels.append(DrawnPanel(name=name, **cell))
    values = (FLAP_MM, *own) if first else (*own, FLAP_MM)
    return with_sizes(sheet, axis, values).model_copy(update={"panels": tuple(panels)}), name


def cut_away(sheet: DrawnSheet, name: str) -> DrawnSheet:
    return sheet.model_copy(update={"panels": tuple(panel for panel in sheet.panels if panel.name != name)})


def put_back(sheet: DrawnSheet, column: int, row: int) -> DrawnSheet:
    name = _new({panel.name for panel in sheet.panels})
    return sheet.model_copy(update={"panels": (*sheet.panels, DrawnPanel(name=name, column=column, row=row))})


def can_be_cut(sheet: DrawnSheet, name: str) -> bool:
    """Whether the sheet hangs together without a panel, and keeps its base."""
    if name == sheet.base or len(sheet.panels) < 2:
        return False
    return hangs_together(cut_away(sheet, name))


def hangs_together(sheet: DrawnSheet) -> bool:
    """Whether every panel is reached from the base over creases."""
    piece = piece_of(sheet)
    found = {sheet.base}
    todo = [sheet.base]
    while todo:
        name = todo.pop()
        for crease in piece.creases:
            if name in crease.between:
                (other,) = crease.between - {name}
                if other not in found:
                    found.add(other)
                    todo.append(other)
    return len(found) == len(piece.panels)


def full(sheet: DrawnSheet, axis: Axis) -> bool:
    return len(sizes(sheet, axis)) >= MOST_SPANS


def refolded(groups: Sequence[DrawnGroup], before: DrawnSheet, after: DrawnSheet) -> tuple[DrawnGroup, ...]:
    """The groups for a sheet that was scored anew: a fold whose two panels do not meet any more goes to the
    new one that lies between."""
    creases = {crease.between for crease in piece_of(after).creases}
    new = {panel.name for panel in after.panels} - {panel.name for panel in before.panels}

    def mended(fold: DrawnFold) -> DrawnFold:
        if fold.sheet != after.name or frozenset({fold.one, fold.other}) in creases:
            return fold
        for one in new:
            if frozenset({one, fold.other}) in creases and frozenset({fold.one, one}) in creases:
                return fold.model_copy(update={"one": one})
            if frozenset({fold.one, one}) in creases and frozenset({one, fold.other}) in creases:
                return fold.model_copy(update={"other": one})
        return fold

    return tuple(
        group.model_copy(update={"folds": tuple(mended(fold) for fold in group.folds)}) for group in groups
    )


def turned_over(groups: Sequence[DrawnGroup], number: int) -> tuple[DrawnGroup, ...]:
    """A group folded to the other side."""
    group = groups[number]
    folds = tuple(fold.model_copy(update={"degrees": -fold.degrees}) for fold in group.folds)
    return (*groups[:number], group.model_copy(update={"folds": folds}), *groups[number + 1 :])


def folded_over(
    groups: Sequence[DrawnGroup], sheet: DrawnSheet, one: str, other: str
) -> tuple[DrawnGroup, ...]:
    """One panel more that folds over, last of all."""
    name = _new({group.name for group in groups}, other)
    return (
        *groups,
        DrawnGroup(name=name, folds=(DrawnFold(sheet=sheet.name, one=one, other=other, degrees=180.0),)),
    )


def _field(axis: Axis) -> str:
    return "column" if axis == "x" else "row"


def _new(taken: set[str], wish: str = "") -> str:
    """A name that nothing has yet."""
    if wish and wish not in taken:
        return wish
    stem = wish or "panel"
    return next(
        name for number in range(1 if not wish else 2, 500) if (name := f"{stem} {number}") not in taken
    )
